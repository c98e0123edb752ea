"""A commutator as a ring of readings, in millimetres: each stroke between two bars, as long as its ohms."""

import math
from collections.abc import Callable, Mapping, Sequence

from careful_coil.drawing.shapes import Drawing, Point, Shape, Stroke, Words

RADIUS = 20.0  # of the ring of bars
LIKE = 6.0  # mm of a stroke that reads what like bars read
LONGEST = 1.8  # times that: longer ones end in a head
ROOM = LIKE * LONGEST + 2.0  # outside the ring
SMALL = 3.1
Place = Callable[[float, float], Point]  # radius and turn to a point
NAMED = (1, 2, 3, 4, 6, 8, 12, 24)  # every so many bars are numbered


def draw_bars(
    count: int,
    ohms: Mapping[int, float | None],
    like: Sequence[float] = (),
    faulty: Sequence[int] = (),
    watch: float = 0.05,
    hold: float = 0.10,
) -> Drawing:
    """Return `count` bars, `ohms` from each to the next by bar from 1 (None open, absent not read).

    `like` what like bars read for each; without it the middle of those read. `faulty` bars stand bold;
    beyond `watch` and `hold` of like ones a stroke has their colour.
    """
    middle = RADIUS + ROOM
    angle = 2 * math.pi / count
    known = sorted(v for v in ohms.values() if v is not None)
    usual = known[len(known) // 2] if known else 1.0

    def at(radius: float, turn: float) -> Point:
        way = turn - math.pi / 2  # bar 1 on top, on with the clock
        return middle + radius * math.cos(way), middle + radius * math.sin(way)

    shapes: list[Shape] = []
    shapes.append(_circle(at, RADIUS + LIKE, "hairline", 0.25))
    gap = angle * 0.1
    for k in range(count):
        here = (k - 0.5) * angle
        bold = k + 1 in faulty
        bar = [at(RADIUS, here + gap + (angle - 2 * gap) * i / 4) for i in range(5)]
        bar += [at(RADIUS - 4.5, here + angle - gap - (angle - 2 * gap) * i / 4) for i in range(5)]
        token = "hold" if bold else "ink"
        shapes.append(Stroke(points=(*bar, bar[0]), token=token, width=0.8 if bold else 0.35))
    every = next(n for n in NAMED if count / n <= 18)
    for k in range(count):
        bold = k + 1 in faulty
        beside = not bold and any((k + 1 - f) % count in (1, count - 1) for f in faulty)
        if bold or (k % every == 0 and not beside):
            shapes.append(
                Words(
                    at=at(RADIUS - 7.5, k * angle),
                    text=str(k + 1),
                    size=SMALL,
                    token="hold" if bold else "quiet",
                    bold=bold,
                )
            )
    for k in range(count):
        if k + 1 in ohms:
            wanted = like[k] if len(like) == count and like[k] > 0 else usual
            shapes += _reading(at, (k + 0.5) * angle, ohms[k + 1], wanted or 1.0, (watch, hold))
    return Drawing(tuple(shapes), 2 * middle, 2 * middle)


def _circle(at: Place, radius: float, token: str, width: float) -> Stroke:
    points = tuple(at(radius, 2 * math.pi * k / 72) for k in range(73))
    return Stroke(points=points, token=token, width=width)


def _reading(
    at: Place, turn: float, ohm: float | None, like: float, limits: tuple[float, float]
) -> list[Shape]:
    """Return one reading: a stroke outward, with a head where it goes on beyond the room."""
    off = math.inf if ohm is None else ohm / like - 1
    token = "good"
    if abs(off) > limits[0]:
        token = "hold" if abs(off) > limits[1] else "watch"
    times = LONGEST if ohm is None else min(ohm / like, LONGEST)
    base = RADIUS + 1.0
    tip = base + max(LIKE - 1.0, 0.0) * times
    ends = (at(base, turn), at(max(tip, base + 0.6), turn))
    shapes: list[Shape] = [Stroke(points=ends, token=token, width=0.9 if token == "good" else 1.4)]
    if off > LONGEST - 1:
        side = 0.05
        head = (
            at(tip - 2.0, turn - side),
            at(tip + 0.8, turn),
            at(tip - 2.0, turn + side),
        )
        shapes.append(Stroke(points=head, token=token, width=0.9))
    return shapes
