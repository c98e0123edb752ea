"""What to clip where for one test of the leads: battery and meter, leads held together, three lines."""

import math
from collections.abc import Mapping, Sequence

from careful_coil.drawing.shapes import Dot, Drawing, Flag, Ring, Shape, Stroke, Words, coil
from careful_coil.drawing.winding import Look

WIDE = 76.0
LEFT, RIGHT = 9.0, 67.0
REACH = 6.5  # of the meter's dial
NEEDLES = {
    "up-large": 40.0,
    "up-small": 18.0,
    "none": 0.0,
    "down-small": -18.0,
    "down-large": -40.0,
}


def draw_kick(source: Sequence[str], sense: Sequence[str], looks: Mapping[str, Look]) -> Drawing:
    """Return battery, fuse and source coil on the left, sense coil and meter on the right."""
    shapes: list[Shape] = []
    for x, pair, first in ((LEFT, source, "+"), (RIGHT, sense, "+")):
        top, low = (x, 8.0), (x, 40.0)
        shapes.append(coil(top, low))
        shapes += [_ring(top, looks[pair[0]]), _ring(low, looks[pair[1]])]
        shapes.append(
            Words(at=(x + (-5.5 if x == LEFT else 5.5), 4.5), text=first, bold=True, token="ink")
        )
    # battery and fuse between the source leads
    bx = LEFT + 11.0
    shapes += [
        Stroke(points=((LEFT + 3.4, 8.0), (bx, 8.0), (bx, 12.0)), token="copper"),
        Stroke(
            points=(
                (bx - 1.4, 12.0),
                (bx + 1.4, 12.0),
                (bx + 1.4, 18.0),
                (bx - 1.4, 18.0),
                (bx - 1.4, 12.0),
            ),
            token="copper",
        ),
        Stroke(points=((bx, 10.0), (bx, 24.0)), token="copper"),
        Stroke(points=((bx - 3.2, 24.0), (bx + 3.2, 24.0)), token="copper", width=0.6),
        Stroke(points=((bx - 1.6, 26.0), (bx + 1.6, 26.0)), token="copper", width=1.2),
        Stroke(points=((bx, 26.0), (bx, 40.0), (LEFT + 3.4, 40.0)), token="copper"),
        Words(at=(bx + 4.4, 15.0), text="fuse", anchor=-1, size=3.0),
        Words(at=(bx + 4.4, 25.0), text="1.5–6 V", anchor=-1, size=3.0),
    ]
    mx, my = RIGHT - 13.0, 23.0
    shapes += [
        Stroke(points=((RIGHT - 3.4, 8.0), (mx, 8.0), (mx, my - REACH)), token="copper"),
        Stroke(points=((mx, my + REACH), (mx, 40.0), (RIGHT - 3.4, 40.0)), token="copper"),
        Stroke(points=_circle(mx, my), token="ink"),
        Words(at=(mx - REACH - 1.0, my + REACH + 2.0), text="which way?", anchor=1, size=3.0),
    ]
    shapes += [
        Stroke(points=((mx, my + 2.5), _hand(mx, my + 2.5, angle, 7.5)), token=token, width=width)
        for angle, token, width in (
            (NEEDLES["up-large"], "quiet", 0.3),
            (NEEDLES["down-large"], "quiet", 0.3),
            (0.0, "ink", 0.6),
        )
    ]
    return Drawing(tuple(shapes), WIDE, 46.0)


def draw_series(source: Sequence[str], other: Sequence[str], looks: Mapping[str, Look]) -> Drawing:
    """Return low volts on the source coil, its finish tied to the other coil, a meter end to end."""
    y, xs = 14.0, (6.0, 30.0, 46.0, 70.0)
    meter = (38.0, 36.0)
    left, right = meter[0] - REACH, meter[0] + REACH
    tags = (*source, *other)
    shapes: list[Shape] = [
        coil((xs[0], y), (xs[1], y)),
        coil((xs[2], y), (xs[3], y)),
        Stroke(points=((xs[1] + 3.4, y), (xs[2] - 3.4, y)), token="copper", width=1.0),
        Words(at=((xs[1] + xs[2]) / 2, y - 4.5), text="tie", size=3.0),
        Stroke(points=((xs[0], y - 3.4), (xs[0], 3.0), (11.0, 3.0)), token="copper"),
        Stroke(points=((25.0, 3.0), (xs[1], 3.0), (xs[1], y - 3.4)), token="copper"),
        Words(at=(18.0, 3.0), text="~ 12 V", size=3.0, token="ink"),
        Stroke(points=((xs[0], y + 3.4), (xs[0], meter[1]), (left, meter[1])), token="copper"),
        Stroke(points=((right, meter[1]), (xs[3], meter[1]), (xs[3], y + 3.4)), token="copper"),
        Stroke(points=_circle(*meter), token="ink"),
        Words(at=meter, text="V~", size=4.2, bold=True, token="ink"),
    ]
    shapes += [_ring((x, y), looks[t]) for x, t in zip(xs, tags, strict=True)]
    return Drawing(tuple(shapes), WIDE, 46.0)


def draw_bunch(one: str, several: Sequence[str], looks: Mapping[str, Look]) -> Drawing:
    """Return one lead on one probe, the others held by one clip on the other."""
    high = max(len(several) * 8.0, 16.0)
    mid = high / 2 + 2.0
    shapes: list[Shape] = [
        Stroke(points=((LEFT, mid), (25.0, mid)), token="copper"),
        Stroke(points=_circle(25.0 + REACH, mid), token="ink"),
        Words(at=(25.0 + REACH, mid), text="Ω", size=5.0, bold=True, token="ink"),
        Stroke(points=((25.0 + 2 * REACH, mid), (43.0, mid)), token="copper"),
        Dot(at=(43.0, mid), radius=1.2, token="copper"),
    ]
    for k, tag in enumerate(several):
        y = mid + (k - (len(several) - 1) / 2) * 8.0
        shapes.append(Stroke(points=((43.0, mid), (RIGHT, y)), token="copper"))
        shapes.append(_ring((RIGHT + 3.4, y), looks[tag]))
    shapes.append(_ring((LEFT - 3.4, mid), looks[one]))
    return Drawing(tuple(shapes), WIDE, high + 6.0)


def draw_run(
    lines: Sequence[Sequence[str]], joints: Sequence[Sequence[str]], looks: Mapping[str, Look]
) -> Drawing:
    """Return the leads on each line, and the joints without a line."""
    shapes: list[Shape] = []
    for k, leads in enumerate(lines):
        x = 9.0 + 22.0 * k
        shapes.append(Flag(at=(x, 9.0), text=f"L{k + 1}"))
        shapes += [_ring((x, 13.5 + 8.0 * n), looks[t]) for n, t in enumerate(leads)]
    y = 13.5 + 8.0 * max((len(j) for j in lines), default=1)
    per_row = 2
    for k, joint in enumerate(joints):
        x = 7.0 + 31.0 * (k % per_row)
        at = y + 6.0 + 9.0 * (k // per_row)
        shapes.append(
            Stroke(points=((x, at), (x + 11.0 * (len(joint) - 1), at)), token="copper", width=1.0)
        )
        shapes += [_ring((x + 11.0 * n, at), looks[t]) for n, t in enumerate(joint)]
    rows = math.ceil(len(joints) / per_row)
    return Drawing(tuple(shapes), WIDE, y + 9.0 * rows + 4.0)


def _ring(at: tuple[float, float], look: Look) -> Ring:
    return Ring(at=at, text=look.tag, token=look.token, tracer=look.tracer)


def _box(x: float, top: float, low: float) -> tuple[tuple[float, float], ...]:
    return ((x - 1.4, top), (x + 1.4, top), (x + 1.4, low), (x - 1.4, low), (x - 1.4, top))


def _circle(x: float, y: float) -> tuple[tuple[float, float], ...]:
    turns = [2 * math.pi * k / 36 for k in range(37)]
    return tuple((x + REACH * math.cos(t), y + REACH * math.sin(t)) for t in turns)


def _hand(x: float, y: float, degrees: float, reach: float) -> tuple[float, float]:
    turn = math.radians(degrees)
    return x + reach * math.sin(turn), y - reach * math.cos(turn)
