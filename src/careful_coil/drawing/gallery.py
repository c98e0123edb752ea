"""Every arrangement and every hookup of it as SVG, for a look: `python -m careful_coil.drawing.gallery`."""

import re
import sys
from collections.abc import Iterator
from pathlib import Path

from careful_coil.core.ways import plans_of
from careful_coil.core.ways.devices import Device
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.drawing.hookup import draw_hookup
from careful_coil.drawing.shapes import Drawing
from careful_coil.drawing.svg import svg_of

START_AND_RUN = (
    Device(name="S1", kind="speed-switch"),
    Device(name="C1", kind="capacitor-start", microfarad=160),
    Device(name="C2", kind="capacitor-run", microfarad=30),
)


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
    four = ARRANGEMENTS["single-phase-4-lead"].network
    full = plans_of("single-phase-4-lead", devices=START_AND_RUN)[0]
    title = "single-phase-4-lead: start and run capacitors"
    yield title, draw_hookup(four, full.joints, {}, devices=full.devices)


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
