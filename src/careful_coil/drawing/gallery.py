"""Every arrangement and every hookup of it as SVG, for a look: `python -m careful_coil.drawing.gallery`."""

import math
import re
import sys
from collections.abc import Iterator
from pathlib import Path

from careful_coil.core.machine.curves import field_of, phasors, start_curves
from careful_coil.core.machine.estimate import estimate
from careful_coil.core.machine.facts import Facts
from careful_coil.core.machine.run_up import OUT_SHARE, Load
from careful_coil.core.rewind.layout import three_phase
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.states import off_of, states_of, tripped_of
from careful_coil.core.ways.usual import USUAL
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.drawing.core import draw_core
from careful_coil.drawing.hookup import draw_hookup
from careful_coil.drawing.shapes import Drawing
from careful_coil.drawing.start import draw_field, draw_phasors, draw_torque
from careful_coil.drawing.stator import draw_developed, draw_stator
from careful_coil.drawing.svg import svg_of


def drawings() -> Iterator[tuple[str, Drawing]]:
    """Yield a title and the drawing of each arrangement alone and of each of its hookups."""
    for slug, known in ARRANGEMENTS.items():
        for variant in ("", *known.variants):
            network = known.inside(variant)
            named = f"{slug} {variant}".strip()
            names = {c.name: c.name for c in network.coils}
            yield named, draw_hookup(network, (), {}, labels=names)
            for p in plans_of(slug, variant):
                way = " (other direction)" if p.reversed else ""
                for stage in p.stages[:1]:
                    title = f"{named}: {p.connection}{way}, {stage.name}"
                    yield title, draw_hookup(network, stage.joints, {}, devices=p.devices)
                if p.start == "direct":
                    title = f"{named}: {p.connection}{way}"
                    yield title, draw_hookup(network, p.joints, {}, devices=p.devices)
    yield from _with_start_gear()
    yield from _starting()
    yield from _stators()


def _with_start_gear() -> Iterator[tuple[str, Drawing]]:
    """Yield every usual start gear and switch on a winding, in each of its states."""
    for name, (slug, variant, devices) in USUAL.items():
        network = ARRANGEMENTS[slug].inside(variant)
        found = next(p for p in plans_of(slug, variant, devices) if not p.reversed)
        every = [*states_of(found.devices), off_of(found.devices), tripped_of(found.devices)]
        for state in (s for s in every if s is not None):
            title = f"{name}: {found.connection}, {state.name}"
            yield title, draw_hookup(network, found.joints, {}, devices=found.devices, state=state)


PLATES: tuple[tuple[str, Facts], ...] = (  # invented plates
    (
        "centrifugal switch, split phase",
        Facts(kind="split-phase", volt=230, hertz=50, rpm=1420, amp=2.6, watt=250),
    ),
    (
        "centrifugal switch, start capacitor",
        Facts(kind="capacitor-start", volt=230, hertz=50, rpm=1425, amp=5.4, watt=550),
    ),
    (
        "run capacitor, line switch",
        Facts(kind="psc", volt=230, hertz=50, rpm=1390, amp=5.2, watt=750),
    ),
)
FAN = 0.6  # of rated torque, as a fan's load in the pictures


def _starting() -> Iterator[tuple[str, Drawing]]:
    """Yield torque, currents and field of motors estimated from invented plates."""
    for name, facts in PLATES:
        slug, variant, devices = USUAL[name]
        motor = estimate(plans_of(slug, variant, devices)[0], facts).motor
        rated = (facts.watt or 0.0) / (2 * math.pi * facts.rpm / 60)
        switch = OUT_SHARE if any(d.switches for d in devices) else None
        load = Load(inertia=0.01, torque=FAN * rated)
        still = motor.standstill
        yield f"{name}: torque", draw_torque(start_curves(motor), rated, switch, load)
        yield f"{name}: currents at standstill", draw_phasors(phasors(motor, still))
        yield f"{name}: field at standstill", draw_field(field_of(still))


CORE = "What is measured of a core"
STATORS = ((24, 2), (36, 4), (18, 4), (48, 4), (72, 6))


def _stators() -> Iterator[tuple[str, Drawing]]:
    """Yield what is measured of a core, and stators round and unrolled."""
    yield CORE, draw_core()
    for slots, poles in STATORS:
        layout = three_phase(slots, poles)
        yield f"{slots} slots, {poles} poles", draw_stator(layout, 1)
        yield f"{slots} slots, {poles} poles, phase U unrolled", draw_developed(layout, "U")
    one_layer = three_phase(24, 4, layers=1, shape="concentric")
    yield "24 slots, 4 poles, one layer, concentric", draw_stator(one_layer, 1)


def write_gallery(folder: Path) -> int:
    """Write all drawings into a folder; return how many."""
    folder.mkdir(parents=True, exist_ok=True)
    count = 0
    for title, drawing in drawings():
        count += 1
        name = re.sub(r"[^a-z0-9]+", "-", title.lower()).strip("-")
        (folder / f"{count:02d}-{name}.svg").write_text(svg_of(drawing, title=title), "utf-8")
    return count


if __name__ == "__main__":
    print(write_gallery(Path(sys.argv[1] if len(sys.argv) > 1 else "gallery")), "drawings")
