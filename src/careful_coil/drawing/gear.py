"""A capacitor's decay, kinds of motors side by side, a run-up: in millimetres."""

import math
from collections.abc import Sequence

from careful_coil.core.gear.formulas import discharge, volts_left
from careful_coil.core.machine.run_up import RunUp
from careful_coil.drawing.shapes import Dot, Drawing, Point, Shape, Stroke, Words

LEFT, BOTTOM, TOP, RIGHT = 14.0, 10.0, 4.0, 5.0  # room about the axes
SMALL = 3.1
PAST = 1.25  # a decay is drawn so much longer than its wait
GRAIN = 60


def draw_decay(
    microfarad: float,
    volt: float,
    ohm: float,
    safe: float,
    now: float | None = None,
    size: tuple[float, float] = (150.0, 52.0),
) -> Drawing:
    """Return how a capacitor marked `volt` (rms) is discharged through `ohm` Ω to `safe` V DC.

    `now` the seconds since the resistor was put on: a dot rides on the curve. The safe volts are a
    line across; the time to them is written where it meets the curve.
    """
    found = discharge(microfarad, volt, ohm, safe)
    seconds = max(found.seconds * PAST, 0.1)
    width, height = size
    floor, right = height - BOTTOM, width - RIGHT
    top = found.start_volt * 1.05

    def at(second: float, level: float) -> Point:
        return (
            LEFT + min(second / seconds, 1.0) * (right - LEFT),
            floor - min(max(level / top, 0.0), 1.0) * (floor - TOP),
        )

    curve = tuple(
        at(s, volts_left(microfarad, volt, ohm, s))
        for s in (k * seconds / GRAIN for k in range(GRAIN + 1))
    )
    level, end = at(0, safe)[1], at(found.seconds, safe)
    shapes: list[Shape] = [
        Stroke(points=((LEFT, floor), (right, floor)), token="ink", width=0.4),
        Stroke(points=((LEFT, level), (right, level)), token="good", width=0.35, dashed=True),
        Stroke(points=((end[0], floor), end), token="quiet", width=0.3, dashed=True),
        Stroke(points=curve, token="ink", width=0.7),
        Words(
            at=(LEFT - 1.5, at(0, found.start_volt)[1]),
            text=f"{found.start_volt:.0f} V",
            anchor=1,
            size=SMALL,
        ),
        Words(at=(LEFT - 1.5, level), text=f"{safe:g} V", anchor=1, size=SMALL, token="good"),
        Words(at=(LEFT, floor + 4.0), text="0", size=SMALL),
        Words(at=(end[0], floor + 4.0), text=_time(found.seconds), size=SMALL, bold=True),
    ]
    if now is not None:
        shapes.append(
            Dot(at=at(now, volts_left(microfarad, volt, ohm, now)), radius=1.6, token="copper")
        )
    return Drawing(tuple(shapes), width, height)


def _time(seconds: float) -> str:
    return f"{seconds:.1f} s" if seconds < 60 else f"{seconds / 60:.1f} min"


ROW, NAME = 8.0, 58.0  # of a kind's bar


def draw_kinds(
    kinds: Sequence[tuple[str, float, float]],
    own: tuple[str, float] | None = None,
    width: float = 150.0,
) -> Drawing:
    """Return the usual starting torque of kinds as bars, in multiples of full load; this motor as a dot.

    `own` the kind it is and its starting torque over full load.
    """
    top = max([math.ceil(h) for _, _, h in kinds] + [math.ceil(own[1]) if own else 1])
    right, high = width - RIGHT, TOP + ROW * len(kinds)

    def x(value: float) -> float:
        return NAME + min(value / top, 1.0) * (right - NAME)

    shapes: list[Shape] = []
    for k in range(top + 1):
        shapes.append(Stroke(points=((x(k), TOP), (x(k), high)), token="hairline", width=0.25))
        shapes.append(Words(at=(x(k), high + 3.5), text=f"{k}", size=SMALL))
    for k, (name, low, most) in enumerate(kinds):
        y = TOP + ROW * (k + 0.5)
        mine = own is not None and own[0] == name
        shapes.append(Words(at=(NAME - 2.0, y), text=name, anchor=1, size=SMALL, bold=mine))
        shapes.append(
            Stroke(points=((x(low), y), (x(most), y)), token="ink" if mine else "quiet", width=2.2)
        )
        if own is not None and mine:
            shapes.append(Dot(at=(x(own[1]), y), radius=2.0, token="copper"))
            shapes.append(
                Words(
                    at=(x(own[1]) + 3.0, y - 3.0),
                    text=f"this one {own[1]:.2f}",
                    anchor=-1,
                    size=SMALL,
                    token="copper",
                )
            )
    words = "times full-load torque at standstill"
    shapes.append(Words(at=(right, high + 8.0), text=words, anchor=1, size=SMALL))
    return Drawing(tuple(shapes), width, high + 11.0)


def draw_run_up(
    found: RunUp, sync_rpm: float, size: tuple[float, float] = (150.0, 46.0)
) -> Drawing:
    """Return speed over time: start winding in as the heavy line, out as the light one, its switchings."""
    width, height = size
    floor, right = height - BOTTOM, width - RIGHT
    end = max(float(found.seconds[-1]), 1e-3)
    last = found.switchings[-1].seconds if found.switchings else end
    shown = min(end, max(last * 1.6, 0.4 * end if found.outcome != "up" else last * 1.6, 0.2))

    def at(second: float, rpm: float) -> Point:
        return (
            LEFT + min(second / shown, 1.0) * (right - LEFT),
            floor - min(max(rpm / sync_rpm, 0.0), 1.0) * (floor - TOP),
        )

    shapes: list[Shape] = [
        Stroke(points=((LEFT, floor), (right, floor)), token="ink", width=0.4),
        Stroke(points=((LEFT, TOP), (right, TOP)), token="hairline", width=0.25),
        Words(at=(LEFT - 1.5, TOP), text=f"{sync_rpm:.0f}", anchor=1, size=SMALL),
        Words(at=(LEFT - 1.5, floor), text="0 rpm", anchor=1, size=SMALL),
        Words(at=(right, floor + 4.0), text=f"{shown:.2g} s", anchor=1, size=SMALL),
    ]
    piece: list[Point] = []
    inside = bool(found.start_in[0])
    for second, rpm, start_in in zip(found.seconds, found.rpm, found.start_in, strict=True):
        if second > shown:
            break
        here = at(float(second), float(rpm))
        if bool(start_in) != inside:
            shapes += _piece([*piece, here], inside)
            piece, inside = [], bool(start_in)
        piece.append(here)
    shapes += _piece(piece, inside)
    for s in found.switchings:
        if s.seconds <= shown:
            shapes.append(Dot(at=at(s.seconds, s.rpm), radius=1.0, token="copper"))
    return Drawing(tuple(shapes), width, height)


def _piece(points: Sequence[Point], start_in: bool) -> list[Shape]:
    if len(points) < 2:
        return []
    width = 0.9 if start_in else 0.45
    return [Stroke(points=tuple(points), token="ink" if start_in else "quiet", width=width)]
