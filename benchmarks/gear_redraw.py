"""How long the curves of Start gear take from a slider's step to the picture, against working the motor out anew.

The window stands on the demo shop; each step of the capacitor's slider solves both states over speed, the
run-up and the currents, and paints the part that shows them, all of it.
The baseline fits the motor to its plate before each picture.

By hand: `QT_QPA_PLATFORM=offscreen .venv/bin/python benchmarks/gear_redraw.py`. Milliseconds and a ratio of one run.
"""

import sys
import tempfile
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parents[1]))

from benchmarks.timing import spread, timed

from careful_coil.core.machine.estimate import estimate
from careful_coil.desk.gear.curves import CurvesPart
from careful_coil.desk.shots import open_demo, settle, show
from careful_coil.desk.stations.start_gear import StartGearPage
from careful_coil.desk.theme import Theme

STEPS, GOAL_MS = 60, 50.0
JOBS = ("demo-chandlery", "demo-coldstore")


def main() -> None:
    """Move the slider, paint, print."""
    with tempfile.TemporaryDirectory() as shop:
        window = open_demo(Path(shop), Theme(), 1280, 800)
        for job in JOBS:
            show(window, job, "start-gear", "curves")
            page = window.pages["start-gear"]
            if not isinstance(page, StartGearPage):
                raise TypeError(page)
            part = page.parts["curves"]
            if not isinstance(part, CurvesPart):
                raise TypeError(part)
            settle(window, lambda part=part: part.found is not None)
            plan, facts = part._known  # type: ignore[misc]

            def step(k: int, part: CurvesPart = part) -> None:
                part.sliders["farad"].go(k / STEPS)
                part.grab()

            ours = [timed(lambda k=k: step(k)) for k in range(STEPS)]
            fits = [timed(lambda p=plan, f=facts: estimate(p, f)) for _ in range(5)]
            both = [f + ours[0] for f in fits]
            ratio = sorted(both)[2] / sorted(ours)[STEPS // 2]
            print(
                f"{job}: {spread(ours)} a step (goal {GOAL_MS:g}); with a fit each {spread(both)}, {ratio:.1f} times"
            )
        window.close()


if __name__ == "__main__":
    main()
