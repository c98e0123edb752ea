"""How a motor starts, in millimetres: torque over speed, currents as phasors, the field's path."""

import cmath
import math
from collections.abc import Mapping, Sequence

import numpy as np

from careful_coil.core.machine.curves import Curve, FieldPath
from careful_coil.core.machine.run_up import Load
from careful_coil.drawing.shapes import Drawing, Point, Shape, Stroke, Words

LEFT, BOTTOM, TOP, RIGHT = 10.0, 12.0, 4.0, 4.0  # room about the axes
SMALL = 3.1
ARROW = 2.4
GRAIN = 4  # every so many points of a curve are drawn
CIRCLE = 18.0  # half a picture of phasors or field, mm


def draw_torque(
    curves: tuple[Curve, Curve],
    rated_nm: float,
    switch: float | None = None,
    load: Load | None = None,
    size: tuple[float, float] = (92.0, 66.0),
) -> Drawing:
    """Return torque at the shaft over speed, in multiples of full load `rated_nm` N·m.

    `curves` start devices in and out; `switch` the share of n_sync at which they go out: up to it the
    start curve counts, beyond it the run curve, the rest of both is dashed. Without it only the run
    curve counts.
    """
    start, run = curves
    width, height = size
    share = [1 - s for s in start.slip]
    highest = max(float(c.shaft.max()) for c in curves[0 if switch else 1 :]) / rated_nm
    top = max(1.0, math.ceil(highest * 2) / 2)
    floor, right = height - BOTTOM, width - RIGHT

    def at(x: float, y: float) -> Point:
        return (
            LEFT + x * (right - LEFT),
            floor - min(max(y / top, 0.0), 1.0) * (floor - TOP),
        )

    shapes: list[Shape] = []
    step = 0.5 if top <= 2 else 1.0
    for k in range(int(top / step) + 1):
        y = at(0.0, k * step)[1]
        shapes.append(Stroke(points=((LEFT, y), (right, y)), token="hairline", width=0.2))
        shapes.append(Words(at=(LEFT - 1.5, y), text=f"{k * step:g}", anchor=1, size=SMALL))
    for percent in (0, 25, 50, 75, 100):
        x = at(percent / 100, 0.0)[0]
        shapes.append(Words(at=(x, floor + 3.5), text=f"{percent}", size=SMALL))
    sync = f"% of {start.rpm[-1]:.0f} rpm"
    shapes.append(Words(at=(right, floor + 8.5), text=sync, anchor=1, size=SMALL))
    shapes.append(Words(at=(LEFT, floor + 8.5), text="times full load", anchor=-1, size=SMALL))
    shapes.append(Stroke(points=((LEFT, floor), (right, floor)), token="ink", width=0.4))

    def drawn(curve: Curve, low: float, high: float, counts: bool) -> None:
        told = [
            at(x, float(t) / rated_nm)
            for k, (x, t) in enumerate(zip(share, curve.shaft, strict=True))
            if low - 1e-9 <= x <= high + 1e-9 and (k % GRAIN == 0 or x in (low, high))
        ]
        if len(told) > 1:
            token, wide = ("ink", 0.7) if counts else ("quiet", 0.35)
            shapes.append(Stroke(points=tuple(told), token=token, width=wide, dashed=not counts))

    if switch:
        drawn(start, 0.0, switch, True)
        drawn(start, switch, 1.0, False)
        drawn(run, 0.0, switch, False)
        x = at(switch, 0.0)[0]
        way = ((x, floor), (x, TOP))
        shapes.append(Stroke(points=way, token="copper", width=0.35, dashed=True))
        shapes.append(
            Words(at=(x + 1.0, TOP + 1.6), text="switch", anchor=-1, size=SMALL, token="copper")
        )
    drawn(run, switch or 0.0, 1.0, True)
    if load is not None:
        held = tuple(at(x, load.at(x) / rated_nm) for x in (k / 40 for k in range(41)))
        shapes.append(Stroke(points=held, token="watch", width=0.5))
        x, y = held[3]
        shapes.append(Words(at=(x, y - 2.4), text="load", size=SMALL, token="watch"))
    return Drawing(tuple(shapes), width, height)


def draw_phasors(amps: Mapping[str, complex]) -> Drawing:
    """Return rms amps as arrows, main and start with the angle between them; volts of L1 lie right."""
    told = {n: a for n, a in amps.items() if n in ("main", "start") and abs(a) > 0}
    told = told or {n: a for n, a in amps.items() if abs(a) > 0}
    middle = (CIRCLE + 6.0, CIRCLE + 4.0)
    longest = max((abs(a) for a in told.values()), default=1.0)
    shapes = [*_arrow(middle, (middle[0] + CIRCLE, middle[1]), "quiet", "volts")]
    for name, amp in told.items():
        tip = amp / longest * CIRCLE
        end = (middle[0] + tip.real, middle[1] - tip.imag)
        shapes += _arrow(middle, end, "copper" if name == "start" else "ink", name)
    if {"main", "start"} <= set(told):
        shapes += _angle(middle, told["main"], told["start"])
    return Drawing(tuple(shapes), 2 * CIRCLE + 22.0, 2 * CIRCLE + 16.0)


def _head(start: Point, end: Point, length: float, token: str) -> Stroke:
    """Return the head of an arrow that points from start to end."""
    way = complex(end[0] - start[0], end[1] - start[1])
    unit = way / (abs(way) or 1.0)
    one, two = (complex(*end) - length * unit * cmath.exp(1j * turn) for turn in (0.4, -0.4))
    return Stroke(points=((one.real, one.imag), end, (two.real, two.imag)), token=token, width=0.6)


def _arrow(start: Point, end: Point, token: str, name: str) -> list[Shape]:
    way = complex(end[0] - start[0], end[1] - start[1])
    unit = way / (abs(way) or 1.0)
    place = complex(*end) + 3.2 * unit
    anchor = -1 if unit.real > 0.3 else 1 if unit.real < -0.3 else 0
    return [
        Stroke(points=(start, end), token=token, width=0.6),
        _head(start, end, min(ARROW, 0.4 * abs(way)), token),
        Words(at=(place.real, place.imag), text=name, anchor=anchor, size=SMALL, token=token),
    ]


def _angle(middle: Point, main: complex, start: complex) -> list[Shape]:
    """Return the arc between two currents and its degrees."""
    first, apart = cmath.phase(main), cmath.phase(start / main)
    turns = np.linspace(first, first + apart, 20)
    radius = 0.38 * CIRCLE
    arc = tuple((middle[0] + radius * math.cos(t), middle[1] - radius * math.sin(t)) for t in turns)
    words = f"{abs(math.degrees(apart)):.0f}° apart"
    return [
        Stroke(points=arc, token="ink", width=0.35),
        Words(at=(middle[0], middle[1] + CIRCLE + 9.0), text=words, size=SMALL),
    ]


def draw_field(path: FieldPath) -> Drawing:
    """Return the path of the field's tip inside the circle of its long axis, with the way it goes."""
    middle = (CIRCLE + 2.0, CIRCLE + 2.0)
    scale = CIRCLE / path.long if path.long > 0 else 0.0

    def ring(points: Sequence[Sequence[float]], factor: float) -> tuple[Point, ...]:
        return tuple((middle[0] + x * factor, middle[1] - y * factor) for x, y in points)

    way = ring(path.points().tolist(), scale)
    round_ = [(math.cos(t), math.sin(t)) for t in np.linspace(0, 2 * math.pi, 73)]
    shapes: list[Shape] = [
        Stroke(points=ring(round_, CIRCLE), token="hairline", width=0.3),
        Stroke(points=way, token="ink", width=0.7),
    ]
    if path.turn:
        shapes.append(_head(way[8], way[9], ARROW, "ink"))
    share = path.short / path.long if path.long > 0 else 0.0
    words = "a line: no turning field" if not path.turn else f"{share:.0%} of a circle"
    shapes.append(Words(at=(middle[0], 2 * CIRCLE + 7.0), text=words, size=SMALL))
    return Drawing(tuple(shapes), 2 * CIRCLE + 4.0, 2 * CIRCLE + 10.0)
