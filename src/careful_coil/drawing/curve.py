"""Curves in millimetres: an insulation test on log-log axes, a drying campaign over hours."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from careful_coil.core.condition.absorption import Curve
from careful_coil.drawing.shapes import Dot, Drawing, Point, Shape, Stroke, Words

Readings = Sequence[tuple[float, float]]
LEFT, BOTTOM, TOP, RIGHT = 14.0, 9.0, 3.0, 4.0  # room about the axes
TIMES = ((15, "15 s"), (30, "30"), (60, "1 min"), (120, "2"), (300, "5"), (600, "10"))
FIRST_S, LAST_S = 10.0, 660.0
NAME_WIDE, NAME_HIGH = 24.0, 3.8
GRAIN = 56  # upright strokes that fill a band


@dataclass(frozen=True, slots=True)
class _Axes:
    """Straight or logarithmic axes on a sheet of `width` by `height` mm."""

    x: tuple[float, float]
    y: tuple[float, float]
    width: float
    height: float
    log_x: bool = True

    def at(self, x: float, y: float) -> Point:
        """Return where a point lies, kept inside."""
        return self._along(x), self._up(y)

    def _along(self, x: float) -> float:
        low, high = self.x
        share = (x - low) / (high - low)
        if self.log_x:
            share = math.log(max(x, low) / low) / math.log(high / low)
        return LEFT + min(max(share, 0.0), 1.0) * (self.width - LEFT - RIGHT)

    def _up(self, y: float) -> float:
        low, high = self.y
        share = math.log(max(y, low) / low) / math.log(high / low)
        return self.height - BOTTOM - min(max(share, 0.0), 1.0) * (self.height - BOTTOM - TOP)


def _decades(values: Sequence[float]) -> tuple[float, float]:
    """Return ends of a logarithmic axis about values: figures of one or three, half a decade apart."""
    low, high = min(values) * 0.85, max(values) * 1.18

    def rounded(x: float, up: bool) -> float:
        ten = 10.0 ** math.floor(math.log10(x))
        steps = [ten * k for k in (1, 2, 5, 10)]
        return (
            min(s for s in steps if s >= x * 0.999)
            if up
            else max(s for s in steps if s <= x * 1.001)
        )

    bottom, top = rounded(low, False), rounded(high, True)
    return (bottom, top) if top / bottom >= 4 else (bottom / 2, top * 2)


def _frame(axes: _Axes, ticks: Sequence[tuple[float, str]]) -> list[Shape]:
    """Return the grid with its figures."""
    shapes: list[Shape] = []
    right, floor = axes.width - RIGHT, axes.height - BOTTOM
    figures = [10.0**e * k for e in range(-4, 8) for k in (1, 2, 5)]
    inside = [f for f in figures if axes.y[0] * 0.999 <= f <= axes.y[1] * 1.001]
    sparse = len(inside) > 7
    for figure in inside:
        if sparse and not math.log10(figure).is_integer():
            continue
        y = axes.at(axes.x[0], figure)[1]
        shapes.append(Stroke(points=((LEFT, y), (right, y)), token="hairline", width=0.2))
        shapes.append(Words(at=(LEFT - 1.5, y), text=f"{figure:g}", anchor=1, size=3.1))
    for value, words in ticks:
        x = axes.at(value, axes.y[0])[0]
        shapes.append(Stroke(points=((x, TOP), (x, floor)), token="hairline", width=0.2))
        shapes.append(Words(at=(x, floor + 4.0), text=words, size=3.1))
    shapes.append(Stroke(points=((LEFT, floor), (right, floor)), token="ink", width=0.4))
    return shapes


def _line(
    axes: _Axes, told: Readings, token: str, width: float, dashed: bool = False
) -> list[Shape]:
    points = tuple(axes.at(s, m) for s, m in told)
    return (
        [Stroke(points=points, token=token, width=width, dashed=dashed)] if len(points) > 1 else []
    )


def _band(axes: _Axes, curve: Curve) -> list[Shape]:
    """Return the band in which the curve lies nine times of ten, as upright strokes side by side."""
    kept = [
        (s, low, high)
        for s, low, high in zip(curve.seconds, curve.low, curve.high, strict=True)
        if FIRST_S <= s <= LAST_S
    ]
    if len(kept) < 2:
        return []
    first, last = math.log(kept[0][0]), math.log(kept[-1][0])
    logs = [math.log(s) for s, _, _ in kept]
    shapes: list[Shape] = []
    span = axes.at(kept[-1][0], 1)[0] - axes.at(kept[0][0], 1)[0]
    for k in range(GRAIN + 1):
        at = first + (last - first) * k / GRAIN
        low, high = (_between(logs, [row[n] for row in kept], at) for n in (1, 2))
        top, bottom = axes.at(math.exp(at), high), axes.at(math.exp(at), low)
        shapes.append(Stroke(points=(top, bottom), token="hairline", width=1.06 * span / GRAIN))
    return shapes


def _between(logs: Sequence[float], values: Sequence[float], at: float) -> float:
    for k in range(1, len(logs)):
        if at <= logs[k] + 1e-9:
            share = (at - logs[k - 1]) / (logs[k] - logs[k - 1])
            return values[k - 1] + share * (values[k] - values[k - 1])
    return values[-1]


def draw_test(
    readings: Readings,
    curve: Curve | None = None,
    earlier: Sequence[tuple[str, Readings]] = (),
    width: float = 150.0,
    height: float = 70.0,
) -> Drawing:
    """Return a test over the minutes: band and middle of the fit, readings as dots, earlier behind.

    `readings` and `earlier` (name, readings) in s and MΩ; without any an empty frame.
    """
    shown = [m for _, m in readings if m > 0]
    shown += [m for _, told in earlier for _, m in told if m > 0]
    if curve is not None:
        shown += [
            v for s, v in zip(curve.seconds, curve.middle, strict=True) if FIRST_S <= s <= LAST_S
        ]
    axes = _Axes((FIRST_S, LAST_S), _decades(shown) if shown else (10.0, 1000.0), width, height)
    band = _band(axes, curve) if curve else []
    shapes = [*band, *_frame(axes, TIMES)]
    named: list[Point] = []
    for name, told in earlier:
        shapes += _line(axes, [x for x in told if x[1] > 0], "quiet", 0.3, dashed=True)
        short = told[-1][0] < LAST_S / 2  # its end lies among the others
        end = axes.at(*told[0 if short else -1])
        at = (end[0] + 1.0, end[1] - 2.4)
        while any(
            abs(at[0] - x) < NAME_WIDE and abs(at[1] - y) < 0.9 * NAME_HIGH for x, y in named
        ):
            at = (at[0], at[1] - NAME_HIGH)  # names that would lie on each other are stacked
        named.append(at)
        anchor = -1 if end[0] < width - NAME_WIDE else 1
        shapes.append(Words(at=at, text=name, anchor=anchor, size=3.0))
    if curve is not None:
        middle = [
            x for x in zip(curve.seconds, curve.middle, strict=True) if FIRST_S <= x[0] <= LAST_S
        ]
        last = max((s for s, _ in readings), default=0.0)
        shapes += _line(axes, [x for x in middle if x[0] <= last * 1.05], "ink", 0.5)
        shapes += _line(axes, [x for x in middle if x[0] >= last * 0.95], "ink", 0.4, dashed=True)
    for second, megohm in readings:
        if megohm > 0 and second >= FIRST_S:
            shapes.append(Dot(at=axes.at(second, megohm), radius=1.0, token="ink"))
    for kink in curve.kinks if curve else ():
        x = axes.at(kink.second, 1)[0]
        shapes.append(Stroke(points=((x, TOP), (x, height - BOTTOM)), token="watch", width=0.5))
        shapes.append(
            Words(
                at=(x + 1.0, TOP + 2.0),
                text=f"{kink.kind} {kink.second:g} s",
                anchor=-1,
                token="watch",
                bold=True,
            )
        )
    shapes.append(Words(at=(LEFT + 1.5, TOP + 1.8), text="MΩ as read", anchor=-1, size=3.0))
    return Drawing(tuple(shapes), width, height)


def draw_drying(
    readings: Sequence[tuple[float, float, float]],
    minimum: float,
    width: float = 150.0,
    height: float = 70.0,
) -> Drawing:
    """Return a campaign: MΩ at 40 °C over hours with the minimum; the winding's °C at each reading.

    `readings` (hour, MΩ at 40 °C, °C).
    """
    last = max((h for h, _, _ in readings), default=0.0)
    step = next(s for s in (1, 2, 4, 6, 12, 24, 48, 96, 1e9) if last / s <= 9)
    hours = max(last * 1.04, 6.0)
    values = [m for _, m, _ in readings if m > 0]
    axes = _Axes((0.0, hours), _decades([*values, minimum]), width, height, log_x=False)
    ticks = [(step * k, f"{step * k:g} h" if k else "0") for k in range(int(hours // step) + 1)]
    shapes = _frame(axes, ticks)
    y = axes.at(0, minimum)[1]
    shapes.append(Stroke(points=((LEFT, y), (width - RIGHT, y)), token="hold", width=0.5))
    shapes.append(
        Words(
            at=(LEFT + 1.5, y - 2.6),
            text=f"at least {minimum:g} MΩ",
            anchor=-1,
            token="hold",
            size=3.1,
        )
    )
    told = [(h, m) for h, m, _ in readings if m > 0]
    shapes += _line(axes, told, "ink", 0.5)
    for hour, megohm, celsius in readings:
        if megohm <= 0:
            continue
        at = axes.at(hour, megohm)
        shapes.append(Dot(at=at, radius=1.1, token="ink"))
        below = 4.0 if at[1] + 6.0 < height - BOTTOM else -3.6
        shapes.append(Words(at=(at[0], at[1] + below), text=f"{celsius:g}°", size=2.9))
    shapes.append(
        Words(at=(LEFT + 1.5, TOP + 1.8), text="MΩ at 40 °C; winding °C below", anchor=-1, size=3.0)
    )
    return Drawing(tuple(shapes), width, height)


def draw_traces(
    traces: Sequence[tuple[str, Sequence[float]]],
    odd: str = "",
    width: float = 150.0,
    height: float = 60.0,
) -> Drawing:
    """Return surge traces over each other, named; the odd one in the colour of a watch."""
    peak = max((abs(v) for _, t in traces for v in t), default=1.0) or 1.0
    middle = (height - BOTTOM + TOP) / 2
    reach = (height - BOTTOM - TOP) / 2
    shapes: list[Shape] = [
        Stroke(points=((LEFT, middle), (width - RIGHT, middle)), token="hairline", width=0.3)
    ]
    for k, (name, trace) in enumerate(traces):
        token = "watch" if name == odd else "quiet" if k else "ink"
        span = (width - LEFT - RIGHT) / max(len(trace) - 1, 1)
        points = tuple((LEFT + n * span, middle - reach * v / peak) for n, v in enumerate(trace))
        shapes.append(Stroke(points=points, token=token, width=0.4, dashed=k == 1))
        shapes.append(
            Words(
                at=(width - RIGHT, TOP + 2 + 4.4 * k),
                text=name,
                anchor=1,
                token=token,
                bold=True,
            )
        )
    return Drawing(tuple(shapes), width, height)
