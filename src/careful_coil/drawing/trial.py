"""A test run as points over volts, the band expected behind them; its losses taken apart."""

from collections.abc import Iterator, Mapping, Sequence

from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.trial.expect import Expected
from careful_coil.core.trial.separate import Losses
from careful_coil.core.values import show_figure
from careful_coil.drawing.shapes import Dot, Drawing, Shape, Stroke, Words

PANELS = (("amp", "A"), ("watt", "W"), ("rpm", "rpm"))
LEFT, TOP, FOOT, GAP = 14.0, 5.0, 8.0, 6.0
NONE = 1e-9  # no figure at all: nothing is scaled by it
WAITS = {"amp": "no step yet", "watt": "no watts yet", "rpm": "no rpm yet"}
DOT = 0.9
HEADROOM = 1.12  # of the largest value: what stands highest is clear of the panel's name


def draw_trial(
    steps: Sequence[TrialStep],
    band: Sequence[Expected],
    earlier: Sequence[TrialStep],
    volt: float,
    wide: float,
    high: float,
    plate: Mapping[str, float] | None = None,
) -> Drawing:
    """Return the three panels side by side in so much room, mm; `earlier` steps of the run before, hollow.

    `plate` limits of the plate by panel, a line each.
    """
    shapes: list[Shape] = []
    own = (wide - GAP * (len(PANELS) - 1)) / len(PANELS)
    for k, (name, unit) in enumerate(PANELS):
        left = k * (own + GAP) + LEFT
        right, bottom = k * (own + GAP) + own, high - FOOT
        most = max(
            [NONE]
            + [v for s in (*steps, *earlier) for v in _values(s, name)]
            + [getattr(b, name)[2] for b in band]
            + [limit for key, limit in (plate or {}).items() if key == name]
        )
        shapes += _axes(left, right, bottom, most, unit, volt)
        if most <= NONE:
            middle = ((left + right) / 2, (TOP + bottom) / 2)
            shapes.append(Words(at=middle, text=WAITS[name], size=3.3, token="quiet"))
            continue

        def at(
            x: float, y: float, left: float = left, right: float = right, most: float = most
        ) -> tuple[float, float]:
            top, low = TOP, high - FOOT
            return (
                left + (right - left) * min(x / (1.1 * volt), 1.0),
                low - (low - top) * y / (HEADROOM * most),
            )

        if plate and name in plate:
            ends = at(0.0, plate[name]), at(1.1 * volt, plate[name])
            shapes.append(Stroke(points=ends, token="hold", width=0.3))
            x, y = ends[1]
            shapes.append(Words(at=(x, y + 3.0), text="plate", size=2.9, anchor=1, token="hold"))
        if len(band) > 1:
            edge = [at(b.volt, getattr(b, name)[0]) for b in band]
            edge += [at(b.volt, getattr(b, name)[2]) for b in reversed(band)]
            shapes.append(Stroke(points=(*edge, edge[0]), token="note", width=0.3, dashed=True))
        for s in earlier:
            for v in _values(s, name):
                x, y = at(_mean(s.volt), v)
                shapes.append(Stroke(points=_square(x, y), token="quiet", width=0.35))
        for s in steps:
            shapes += [Dot(at=at(_mean(s.volt), v), radius=DOT) for v in _values(s, name)]
    return Drawing(tuple(shapes), wide, high)


def _axes(
    left: float, right: float, bottom: float, most: float, unit: str, volt: float
) -> Iterator[Shape]:
    yield Stroke(points=((left, TOP), (left, bottom), (right, bottom)), token="hairline", width=0.3)
    shown = "" if most <= NONE else show_figure(most)
    high = bottom - (bottom - TOP) / HEADROOM
    yield Words(at=(left - 1.2, high), text=shown, size=3.1, anchor=1)
    yield Words(at=(left - 1.2, bottom), text="0", size=3.1, anchor=1)
    yield Words(at=(left + 1.5, TOP - 2.0), text=unit, size=3.3, anchor=-1, token="ink", bold=True)
    if volt > 1.0:  # the supply is named
        yield Words(at=(right, bottom + 4.0), text=f"{volt:.0f} V", size=3.1, anchor=1)


def _square(x: float, y: float) -> tuple[tuple[float, float], ...]:
    d = DOT
    return ((x - d, y - d), (x + d, y - d), (x + d, y + d), (x - d, y + d), (x - d, y - d))


def _values(step: TrialStep, name: str) -> tuple[float, ...]:
    value = getattr(step, name)
    if value is None:
        return ()
    return tuple(value) if isinstance(value, tuple) else (value,)


def _mean(values: Sequence[float]) -> float:
    return sum(values) / len(values)


def draw_losses(found: Losses, volt: float, wide: float, high: float) -> Drawing:
    """Return watts less copper over the square of the volts, and the line carried on to no volts, mm.

    Where it meets no volts stand friction and windage; what rises above it at rated volts is iron.
    """
    left, right, low, top = LEFT + 4.0, wide - 4.0, high - FOOT, TOP + 2.0
    base, slope = found.line
    far = max([p[0] for p in found.points] + [volt**2]) * 1.05
    most = max([p[1] for p in found.points] + [base + slope * far, 1e-9]) * HEADROOM
    least = min(0.0, base)

    def at(square: float, watt: float) -> tuple[float, float]:
        up = (watt - least) / (most - least)
        return left + (right - left) * square / far, low - (low - top) * up

    first = min(p[0] for p in found.points)
    zero, start, end = at(0.0, base), at(first, base + slope * first), at(far, base + slope * far)
    rated = at(volt**2, base + slope * volt**2)
    foot = (rated[0], at(0.0, base)[1])
    shapes: list[Shape] = [
        Stroke(points=((left, top), (left, low), (right, low)), token="hairline", width=0.3),
        Stroke(points=(zero, start), token="copper", width=0.5, dashed=True),
        Stroke(points=(start, end), token="copper", width=0.5),
        Stroke(points=(zero, (right, zero[1])), token="hairline", width=0.3, dashed=True),
        Stroke(points=(foot, rated), token="note", width=0.6),
        Dot(at=zero, radius=1.3, token="copper"),
        *(Dot(at=at(*p), radius=DOT) for p in found.points),
        Words(at=(left + 1.5, top - 1.5), text="W less copper", size=3.1, anchor=-1),
        Words(at=(left - 1.2, zero[1]), text=f"{base:.0f}", size=3.1, anchor=1),
        Words(at=(left + 3.0, zero[1] + 3.2), text="friction, windage", size=2.9, anchor=-1),
        Words(
            at=(rated[0] - 1.5, (foot[1] + rated[1]) / 2),
            text=f"iron {slope * volt**2:.0f}",
            size=2.9,
            anchor=1,
        ),
        Words(at=(rated[0], low + 4.0), text=f"({volt:.0f} V)²", size=3.1, anchor=0),
        Words(at=(left, low + 4.0), text="0", size=3.1, anchor=0),
    ]
    return Drawing(tuple(shapes), wide, high)
