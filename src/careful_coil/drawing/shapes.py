"""Lines, dots and texts in millimetres, y downwards. `token` names a colour of the theme,
or `wire:COLOUR` a wire's own colour."""

import math
from collections.abc import Iterable
from dataclasses import dataclass, replace

Point = tuple[float, float]


@dataclass(frozen=True, slots=True, kw_only=True)
class Stroke:
    """An open polyline."""

    points: tuple[Point, ...]
    token: str = "ink"
    width: float = 0.5
    dashed: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Area:
    """A filled polygon without an edge."""

    points: tuple[Point, ...]
    token: str = "iron"


@dataclass(frozen=True, slots=True, kw_only=True)
class Dot:
    """A filled joint."""

    at: Point
    radius: float = 1.0
    token: str = "ink"


@dataclass(frozen=True, slots=True, kw_only=True)
class Ring:
    """A lead end: a circle in the wire's colour, its tag inside; `half` > `radius` stretches it."""

    at: Point
    text: str
    radius: float = 3.4
    token: str = "ink"
    tracer: str = ""
    half: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Flag:
    """A supply line: a pennant pointing down at `at`."""

    at: Point
    text: str
    token: str = "ink"


@dataclass(frozen=True, slots=True, kw_only=True)
class Words:
    """A text; `anchor` -1 starts, 0 is centred, 1 ends at `at`, which is on the middle line."""

    at: Point
    text: str
    size: float = 3.4
    anchor: int = 0
    token: str = "quiet"
    bold: bool = False


Shape = Stroke | Area | Dot | Ring | Flag | Words


@dataclass(frozen=True, slots=True)
class Drawing:
    """Shapes with the room they take, in mm."""

    shapes: tuple[Shape, ...]
    width: float
    height: float


HUMPS, HUMP_STEPS = 4, 10


def coil(start: Point, finish: Point, token: str = "ink", dashed: bool = False) -> Stroke:
    """Return a coil between two points: straight leads in, four humps to the left of its way."""
    length = math.dist(start, finish)
    ux, uy = (finish[0] - start[0]) / length, (finish[1] - start[1]) / length
    body = min(length * 0.72, 22.0)
    lead, radius = (length - body) / 2, body / HUMPS / 2

    def at(along: float, aside: float) -> Point:
        return (start[0] + ux * along + uy * aside, start[1] + uy * along - ux * aside)

    points = [start, at(lead, 0.0)]
    for hump in range(HUMPS):
        centre = lead + radius * (2 * hump + 1)
        for step in range(1, HUMP_STEPS + 1):
            turn = math.pi * (1 - step / HUMP_STEPS)
            points.append(at(centre + radius * math.cos(turn), radius * math.sin(turn)))
    points.append(finish)
    return Stroke(points=tuple(points), token=token, dashed=dashed)


def moved(shapes: Iterable[Shape], dx: float, dy: float) -> tuple[Shape, ...]:
    """Return the shapes shifted."""
    found: list[Shape] = []
    for shape in shapes:
        if isinstance(shape, Stroke | Area):
            found.append(replace(shape, points=tuple((x + dx, y + dy) for x, y in shape.points)))
        else:
            found.append(replace(shape, at=(shape.at[0] + dx, shape.at[1] + dy)))
    return tuple(found)


def scaled(drawing: Drawing, share: float) -> Drawing:
    """Return a drawing smaller by a share, its letters too."""
    found: list[Shape] = []
    for shape in drawing.shapes:
        if isinstance(shape, Stroke | Area):
            points = tuple((x * share, y * share) for x, y in shape.points)
            if isinstance(shape, Stroke):
                found.append(replace(shape, points=points, width=shape.width * share))
            else:
                found.append(replace(shape, points=points))
            continue
        at = (shape.at[0] * share, shape.at[1] * share)
        changes: dict[str, object] = {"at": at}
        for name in ("radius", "half", "size"):
            if hasattr(shape, name):
                changes[name] = getattr(shape, name) * share
        found.append(replace(shape, **changes))  # type: ignore[arg-type]
    return Drawing(tuple(found), drawing.width * share, drawing.height * share)
