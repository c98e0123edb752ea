"""Half a ball bearing in section, in millimetres of the drawing: what its number says, what was measured."""

import math
from collections.abc import Mapping

from careful_coil.drawing.shapes import Drawing, Point, Shape, Stroke, Words

HIGH = 26.0  # of the section, shaft to outside
LEFT, TOP, RIGHT = 30.0, 6.0, 34.0
SMALL = 3.1
RING = 0.24  # of the section's height
AXIS = 7.0  # below the section: the shaft's middle line


def draw_bearing(
    said: tuple[float, float, float] | None,
    measured: Mapping[str, float],
    closed: bool = False,
    apart: float = 0.2,
) -> Drawing:
    """Return a section with bore, outside diameter and width.

    `said` by its number, `measured` by callipers (`bore`, `outside`, `width`): a figure more than
    `apart` mm off stands as a hold; `closed` whether shields or seals are drawn.
    """
    names = ("bore", "outside", "width")
    shown = dict(zip(names, said or (), strict=False)) | {
        n: measured[n] for n in names if n in measured and said is None
    }
    bore, outside, width = (shown.get(n, d) for n, d in zip(names, (17.0, 40.0, 12.0), strict=True))
    section = max((outside - bore) / 2, 0.1)
    wide = min(max(HIGH * width / section, 12.0), 60.0)
    left, right, top, floor = LEFT, LEFT + wide, TOP, TOP + HIGH
    ring = HIGH * RING
    shapes: list[Shape] = [
        _box(left, top, right, top + ring),
        _box(left, floor - ring, right, floor),
    ]
    middle = ((left + right) / 2, (top + floor) / 2)
    ball = min(HIGH / 2 - ring * 0.75, wide * 0.42)
    shapes.append(_circle(middle, ball))
    if closed:
        for x in (left + wide * 0.08, right - wide * 0.08):
            way = ((x, top + ring), (x, floor - ring))
            shapes.append(Stroke(points=way, token="copper", width=0.8))
    axis = floor + AXIS
    shapes.append(
        Stroke(points=((left - 6, axis), (right + 6, axis)), token="quiet", width=0.25, dashed=True)
    )
    shapes += _told(said, measured, apart, (left, right, top, floor, axis))
    return Drawing(tuple(shapes), right + RIGHT, axis + 8.0)


def _told(
    said: tuple[float, float, float] | None,
    measured: Mapping[str, float],
    apart: float,
    box: tuple[float, float, float, float, float],
) -> list[Shape]:
    """Return the three figures beside the section: by the number, and as measured below each."""
    left, right, top, floor, axis = box
    shapes: list[Shape] = []
    places: dict[str, tuple[Point, Point, Point, int]] = {
        "outside": ((left - 4, top), (left - 4, axis), (left - 6, (top + axis) / 2 - 6), 1),
        "bore": ((right + 4, floor), (right + 4, axis), (right + 6, floor + 1), -1),
        "width": ((left, top - 3), (right, top - 3), (right + 6, top - 1), -1),
    }
    for k, (name, (one, two, at, anchor)) in enumerate(
        (n, places[n]) for n in ("bore", "outside", "width")
    ):
        shapes.append(Stroke(points=(one, two), token="quiet", width=0.3))
        known = said[k] if said else None
        words = f"{name} {known:.4g}" if known is not None else name
        shapes.append(Words(at=at, text=words, anchor=anchor, size=SMALL, token="ink"))
        if name in measured:
            off = known is not None and abs(measured[name] - known) > apart
            shapes.append(
                Words(
                    at=(at[0], at[1] + 4.2),
                    text=f"measured {measured[name]:.5g}",
                    anchor=anchor,
                    size=SMALL,
                    token="hold" if off else "quiet",
                    bold=off,
                )
            )
    return shapes


def _box(left: float, top: float, right: float, low: float) -> Stroke:
    corners = ((left, top), (right, top), (right, low), (left, low), (left, top))
    return Stroke(points=corners, token="ink", width=0.6)


def _circle(middle: Point, radius: float) -> Stroke:
    points = tuple(
        (
            middle[0] + radius * math.cos(2 * math.pi * k / 48),
            middle[1] + radius * math.sin(2 * math.pi * k / 48),
        )
        for k in range(49)
    )
    return Stroke(points=points, token="ink", width=0.6)
