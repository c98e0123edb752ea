"""How long the Record of a 72-slot stator takes from a datum to the picture, against laying it anew each coil.

The layout is laid and drawn, and the part painted; the baseline lays the whole layout once for every coil.

By hand: `QT_QPA_PLATFORM=offscreen .venv/bin/python benchmarks/stator_redraw.py`. Milliseconds and a ratio.
"""

import sys
import tempfile
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parents[1]))

from benchmarks.timing import timed

from careful_coil.core.rewind.layout import three_phase
from careful_coil.desk.rewind.record import RecordPart
from careful_coil.desk.shots import open_demo, show
from careful_coil.desk.stations.winding import WindingPage
from careful_coil.desk.theme import Theme
from careful_coil.drawing.stator import draw_stator

STEPS, GOAL_MS, SLOTS = 40, 50.0, 72


def main() -> None:
    """Lay, draw, paint; print."""
    with tempfile.TemporaryDirectory() as shop:
        window = open_demo(Path(shop), Theme(), 1280, 800)
        show(window, "demo-boatyard", "winding", "record")
        page = window.pages["winding"]
        if not isinstance(page, WindingPage):
            raise TypeError(page)
        part = page.parts["record"]
        if not isinstance(part, RecordPart):
            raise TypeError(part)

        def step(span: int) -> None:
            part.stator.show_layout(three_phase(SLOTS, 4, span=span, turns=(12,)))
            part.stator.grab()

        def plain() -> None:
            for coil in range(1, SLOTS + 1):
                draw_stator(three_phase(SLOTS, 4, span=15), coil)

        ours = sorted(timed(lambda k=k: step(10 + k % 9)) for k in range(STEPS))
        base = sorted(timed(plain) for _ in range(3))
        middle = ours[STEPS // 2]
        print(
            f"{SLOTS} slots: {middle:.1f} ms a datum, longest {ours[-1]:.1f} ms (goal {GOAL_MS:g}); "
            f"a picture laid anew for each coil {base[1]:.0f} ms, {base[1] / middle:.0f} times"
        )
        window.close()


if __name__ == "__main__":
    main()
