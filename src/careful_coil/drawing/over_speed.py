"""Amps or volts over speed in millimetres: start devices in up to the switch speed, out beyond it."""

import math
from collections.abc import Callable, Sequence

from careful_coil.core.machine.curves import Curve, Floats
from careful_coil.drawing.shapes import Drawing, Point, Shape, Stroke, Words

LEFT, BOTTOM, TOP, RIGHT = 12.0, 12.0, 4.0, 16.0  # room about the axes, names at the right
SMALL = 3.1
GRAIN = 6  # every so many points of a curve are drawn
APART = 4.0  # between two names
Line = tuple[str, str, Floats, Floats]  # name, token, values with the start devices in, out


def amp_lines(start: Curve, run: Curve) -> tuple[Line, ...]:
    """Return line, main and start winding's amps."""
    return (
        ("line", "ink", start.line_amp, run.line_amp),
        ("main", "quiet", start.main_amp, run.main_amp),
        ("start", "copper", start.aux_amp, run.aux_amp),
    )


def volt_lines(start: Curve, run: Curve) -> tuple[Line, ...]:
    """Return the start winding's volts and those on each capacitor."""
    found: list[Line] = [("start", "copper", start.aux_volt, run.aux_volt)]
    for k, (name, values) in enumerate(start.capacitor_volt.items()):
        token = ("ink", "quiet")[k % 2]
        found.append((name.split(".", maxsplit=1)[0], token, values, run.capacitor_volt[name]))
    return tuple(found)


def draw_over_speed(
    start: Curve,
    lines: Sequence[Line],
    unit: str,
    switch: float | None,
    size: tuple[float, float] = (92.0, 60.0),
) -> Drawing:
    """Return lines over speed; `switch` the share of n_sync at which the start devices go out.

    Up to it values with them in, beyond it those with them out; without it those in run alone.
    """
    width, height = size
    share = [1 - float(s) for s in start.slip]
    top = _round_up(
        max(float(v.max()) for _, _, a, b in lines for v in ((a, b) if switch else (b,)))
    )
    floor, right = height - BOTTOM, width - RIGHT

    def at(x: float, y: float) -> Point:
        return LEFT + x * (right - LEFT), floor - min(max(y / top, 0.0), 1.0) * (floor - TOP)

    shapes: list[Shape] = []
    for k in range(3):
        y = at(0.0, top * k / 2)[1]
        shapes.append(Stroke(points=((LEFT, y), (right, y)), token="hairline", width=0.2))
        words = f"{top * k / 2:g}" + (f" {unit}" if k == 2 else "")
        shapes.append(Words(at=(LEFT - 1.5, y), text=words, anchor=1, size=SMALL))
    for percent in (0, 25, 50, 75, 100):
        x = at(percent / 100, 0.0)[0]
        shapes.append(Words(at=(x, floor + 3.5), text=f"{percent}", size=SMALL))
    words = f"% of {float(start.rpm[-1]):.0f} rpm"
    shapes.append(Words(at=(right, floor + 8.5), text=words, anchor=1, size=SMALL))
    shapes.append(Stroke(points=((LEFT, floor), (right, floor)), token="ink", width=0.4))
    if switch:
        x = at(switch, 0.0)[0]
        way = ((x, floor), (x, TOP))
        shapes.append(Stroke(points=way, token="quiet", width=0.3, dashed=True))
    ends = []
    for name, token, inside, out in lines:
        if switch:
            shapes += _piece(at, share, inside, 0.0, switch, token)
        shapes += _piece(at, share, out, switch or 0.0, 1.0, token)
        ends.append((at(1.0, float(out[-1]))[1], name, token))
    last = floor + APART - 1.0
    for y, name, token in sorted(ends, reverse=True):  # names above each other, none on another
        last = min(y, last - APART)
        shapes.append(Words(at=(right + 1.5, last), text=name, anchor=-1, size=SMALL, token=token))
    return Drawing(tuple(shapes), width, height)


def _piece(
    at: Callable[[float, float], Point],
    share: Sequence[float],
    values: Floats,
    low: float,
    high: float,
    token: str,
) -> list[Shape]:
    told = [
        (x, float(v))
        for k, (x, v) in enumerate(zip(share, values, strict=True))
        if low - 1e-9 <= x <= high + 1e-9 and (k % GRAIN == 0 or k == len(share) - 1)
    ]
    points = tuple(at(x, v) for x, v in told)
    return [Stroke(points=points, token=token, width=0.6)] if len(points) > 1 else []


def _round_up(value: float) -> float:
    """Return the next of 1, 1.5, 2, 3, 4, 5, 6, 8 times a power of ten."""
    if not value > 0:
        return 1.0
    ten = 10.0 ** math.floor(math.log10(value))
    return next((ten * k for k in (1, 1.5, 2, 3, 4, 5, 6, 8) if ten * k >= value * 0.999), 10 * ten)
