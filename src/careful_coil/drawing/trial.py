"""A test run as points over volts, the band that is expected behind them: amps, watts, speed."""

from collections.abc import Iterator, Sequence

from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.trial.expect import Expected
from careful_coil.drawing.shapes import Dot, Drawing, Shape, Stroke, Words

PANELS = (("amp", "A"), ("watt", "W"), ("rpm", "rpm"))
LEFT, TOP, FOOT, GAP = 14.0, 5.0, 8.0, 6.0
DOT = 0.9
HEADROOM = 1.12  # of the largest value: what stands highest is clear of the panel's name


def draw_trial(
    steps: Sequence[TrialStep],
    band: Sequence[Expected],
    earlier: Sequence[TrialStep],
    volt: float,
    wide: float,
    high: float,
) -> Drawing:
    """Return the three panels side by side in so much room, mm; `earlier` steps of the run before, hollow."""
    shapes: list[Shape] = []
    own = (wide - GAP * (len(PANELS) - 1)) / len(PANELS)
    for k, (name, unit) in enumerate(PANELS):
        left = k * (own + GAP) + LEFT
        right, bottom = k * (own + GAP) + own, high - FOOT
        most = max(
            [1e-9]
            + [v for s in (*steps, *earlier) for v in _values(s, name)]
            + [getattr(b, name)[2] for b in band]
        )
        shapes += _axes(left, right, bottom, most, unit, volt)

        def at(
            x: float, y: float, left: float = left, right: float = right, most: float = most
        ) -> tuple[float, float]:
            top, low = TOP, high - FOOT
            return (
                left + (right - left) * min(x / (1.1 * volt), 1.0),
                low - (low - top) * y / (HEADROOM * most),
            )

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
    shown = f"{most:.0f}" if most >= 100 else f"{most:.3g}"
    high = bottom - (bottom - TOP) / HEADROOM
    yield Words(at=(left - 1.2, high), text=shown, size=3.1, anchor=1)
    yield Words(at=(left - 1.2, bottom), text="0", size=3.1, anchor=1)
    yield Words(at=(left + 1.5, TOP - 2.0), text=unit, size=3.3, anchor=-1, token="ink", bold=True)
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
