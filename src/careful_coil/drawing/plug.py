"""A plug's face as shapes: positions by row, numbered; empty ones dashed, dummies crossed."""

from careful_coil.core.job.at_intake import PlugSeen
from careful_coil.core.kind.plug import DUMMY, EMPTY, UNKNOWN, by_row
from careful_coil.drawing.shapes import Drawing, Ring, Shape, Stroke, Words
from careful_coil.drawing.winding import Look

PITCH, EDGE, RADIUS = 14.0, 10.0, 4.2


def draw_plug(plug: PlugSeen, looks: dict[str, Look], wires: bool) -> Drawing:
    """Return the plug seen on its face, or from the side the wires go in (mirrored)."""
    rows = list(by_row(plug))
    widest = max(plug.rows)
    width, height = 2 * EDGE + widest * PITCH, 2 * EDGE + len(rows) * PITCH
    shapes: list[Shape] = [_outline(width, height, wires)]
    number = 0
    for r, row in enumerate(rows):
        y = EDGE + r * PITCH + PITCH / 2
        left = EDGE + (widest - len(row)) * PITCH / 2
        for c, carried in enumerate(row):
            number += 1
            x = left + c * PITCH + PITCH / 2
            shapes += _position(width - x if wires else x, y, number, carried, looks)
    title = "Seen from the wires" if wires else "Seen on its face"
    shapes.append(Words(at=(width / 2, height - 2.5), text=title))
    return Drawing(tuple(shapes), width, height)


def _outline(width: float, height: float, mirrored: bool) -> Stroke:
    """Return the shell, one corner cut so that it cannot be held upside down."""
    top, low, cut = 2.0, height - 6.0, 5.0
    corners = (
        (2.0, top),
        (width - 2 - cut, top),
        (width - 2, top + cut),
        (width - 2, low),
        (2.0, low),
    )
    seen = tuple((width - x if mirrored else x, y) for x, y in corners)
    return Stroke(points=(*seen, seen[0]), token="note")


def _position(x: float, y: float, number: int, carried: str, looks: dict[str, Look]) -> list[Shape]:
    told = Words(at=(x, y - RADIUS - 1.8), text=str(number), size=2.6)
    if carried in looks:
        look = looks[carried]
        return [told, Ring(at=(x, y), text=carried, token=look.token, tracer=look.tracer)]
    r = RADIUS * 0.8
    square = ((x - r, y - r), (x + r, y - r), (x + r, y + r), (x - r, y + r), (x - r, y - r))
    found: list[Shape] = [told, Stroke(points=square, token="quiet", dashed=carried != DUMMY)]
    if carried == DUMMY:
        found += [
            Stroke(points=((x - r, y - r), (x + r, y + r)), token="quiet"),
            Stroke(points=((x - r, y + r), (x + r, y - r)), token="quiet"),
        ]
    elif carried in (EMPTY, UNKNOWN):
        found.append(Words(at=(x, y), text="" if carried == EMPTY else "?", bold=True))
    return found
