"""What a plate rates: for each connection its volts, amps, hertz and speed.

Two system voltages may share one connection, each with its own amps; a second frequency has its own
speed. What a supply is held against is the rating nearest to it, not the plate's first figure.
"""

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

SAME_HERTZ = 0.02  # of 1: two figures of one frequency
NEAR_VOLT = 0.10  # NEMA MG 1: rated volts ±10 %
SAME_FLUX = 0.15  # of 1, volts per hertz of one connection at two frequencies

Ends = tuple[float, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Rating:
    """One rating: `connection` counts from the lower volts (0 parallel or delta), None if not told.

    Volts, amps, hertz, rev/min; None where the plate does not say.
    """

    connection: int | None
    volt: float
    amp: float | None = None
    hertz: float | None = None
    rpm: float | None = None

    def words(self) -> str:
        """Return it as one would say it."""
        parts = [f"{self.volt:g} V"]
        parts += [f"{self.amp:g} A"] if self.amp else []
        parts += [f"{self.hertz:g} Hz"] if self.hertz else []
        parts += [f"{self.rpm:g} rev/min"] if self.rpm else []
        return ", ".join(parts)


def ratings_of(
    volts: Sequence[tuple[float, float]],
    amps: Sequence[Ends],
    hertz: Sequence[float],
    rpm: Sequence[float],
) -> tuple[Rating, ...]:
    """Return every rating of a plate's main figures.

    `volts` a range for each connection, rising; `amps` the ends of each as printed: first amps to
    first volts. Two hertz give two ratings each, with speeds in the order of the hertz.
    """
    speeds = list(rpm) if len(rpm) == len(hertz) else [rpm[0] if len(rpm) == 1 else None] * 9
    found = []
    for k, (low, high) in enumerate(volts):
        ends = (low,) if low == high else (low, high)
        own = amps[k] if len(amps) == len(volts) else ()
        for n, volt in enumerate(ends):
            amp = own[min(n, len(own) - 1)] if own else None
            for f, speed in itertools.zip_longest(hertz or (None,), speeds[: max(len(hertz), 1)]):
                found.append(Rating(connection=k, volt=volt, amp=amp, hertz=f, rpm=speed))
    return tuple(found)


def with_further(ratings: Sequence[Rating], further: Sequence[Rating]) -> tuple[Rating, ...]:
    """Return the ratings with those printed beside them, each put to the connection of its flux."""
    return (*ratings, *(_placed(r, ratings) for r in further))


def _placed(rating: Rating, known: Sequence[Rating]) -> Rating:
    """Return a rating with the connection whose volts per hertz it shares."""
    apart: dict[int, float] = {}
    for other in known:
        if other.connection is None:
            continue
        hertz = (rating.hertz or 1.0) / (other.hertz or rating.hertz or 1.0)
        off = abs(math.log(rating.volt / other.volt / hertz))
        apart[other.connection] = min(off, apart.get(other.connection, math.inf))
    best = min(apart, key=lambda c: apart[c], default=None)
    if best is None or apart[best] > SAME_FLUX:
        best = None
    return Rating(
        connection=best, volt=rating.volt, amp=rating.amp, hertz=rating.hertz, rpm=rating.rpm
    )


def rating_at(ratings: Sequence[Rating], volt: float, hertz: float) -> Rating | None:
    """Return the rating that a supply of `volt` and `hertz` is held against, None where none fits.

    Of those within ±10 % of the volts the same hertz comes first, then the nearest volts.
    """
    near = [r for r in ratings if abs(volt / r.volt - 1) <= NEAR_VOLT]
    same = [r for r in near if r.hertz is None or abs(r.hertz / hertz - 1) <= SAME_HERTZ]
    return min(same, key=lambda r: abs(r.volt / volt - 1), default=None)


def volts_at(
    volts: Sequence[tuple[float, float]], ratings: Sequence[Rating], hertz: float
) -> tuple[tuple[float, float], ...]:
    """Return the volts of each connection at a frequency.

    Where one connection is rated at that frequency the others follow it: the ratio between
    connections is in the winding. Where none is, the plate's own volts stand.
    """
    here = [
        r
        for r in ratings
        if r.connection is not None and r.hertz and abs(r.hertz / hertz - 1) <= SAME_HERTZ
    ]
    if not here or len({r.hertz for r in ratings}) < 2:
        return tuple(volts)
    own = {
        c: (
            min(r.volt for r in here if r.connection == c),
            max(r.volt for r in here if r.connection == c),
        )
        for c in {r.connection for r in here if r.connection is not None}
    }
    known = min(own)
    low, high = (a / b for a, b in zip(own[known], volts[known], strict=True))
    return tuple(own.get(k, (v[0] * low, v[1] * high)) for k, v in enumerate(volts))
