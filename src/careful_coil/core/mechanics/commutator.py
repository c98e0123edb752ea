"""Bar-to-bar ohms round a commutator: what pattern they are, and which coil, bar or joint it speaks of.

An armature is a closed ring of coils between bars: with lap winding a coil lies between neighbours, with
wave winding between bars a pole pair apart. One coil or joint that differs changes all readings by one
rank (Sherman and Morrison); every single fault is worked out and held against what was read. Limits by
trade practice: like bars apart by 5 % are watched, by 10 % held.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Fault = Literal["shorted coil", "open coil", "high coil", "high joint", "bars bridged"]
Standing = Literal["sound", "fault", "several", "unclear", "too few"]
LEAST_BARS, MOST_BARS = 6, 240
MOST_PATTERN = 4  # coils to a slot: longest regular pattern looked for
LEAST_ALIKE = 4  # like bars that a pattern must have
LEAST_PATTERN = 0.02  # share by which a pattern's readings differ
SAVED = 0.5  # a pattern must leave less than this of the scatter without it
MOST_PAIRS = 4  # pole pairs of a wave winding looked for
SQUEEZE = 0.1  # share beyond which differences count less and less
LEAST_NOISE = 0.005  # of a four-wire reading, one sigma
ACCEPT = 4.0  # squares left, of what noise leaves, with which a fault still tells the readings
_LOWER = tuple(float(x) for x in np.geomspace(1e-3, 0.97, 36))
COILS = (
    *_LOWER,
    *(1 / x for x in _LOWER if x > 0.02),
    math.inf,
)  # ohms of a coil, of a sound one's
BRIDGES = tuple(float(x) for x in np.geomspace(1e-3, 30, 36))


@dataclass(frozen=True, slots=True, kw_only=True)
class BarLimits:
    """Shares of the median of like bars that are watched and held."""

    watch: float = 0.05
    hold: float = 0.10


@dataclass(frozen=True, slots=True, kw_only=True)
class Bars:
    """What readings round a commutator say.

    `like` the median of like bars for each reading, Ω; `off` each reading's share over it; `pattern` of
    how many readings the winding's own pattern is; `bars` those the fault is at, from 1; `pairs` pole
    pairs of a wave winding that tells it, 0 for lap; `faults` what alone would show the same.
    """

    standing: Standing
    like: tuple[float, ...] = ()
    off: tuple[float, ...] = ()
    pattern: int = 1
    faults: tuple[Fault, ...] = ()
    bars: tuple[int, ...] = ()
    pairs: int = 0

    @property
    def worst(self) -> float:
        """Return the largest share off."""
        return max((abs(o) for o in self.off), default=0.0)


def armature(bars: int, pairs: int = 0) -> list[tuple[int, int]]:
    """Return between which bars (from 0) each coil lies: lap for no pairs, else simplex wave.

    A wave winding of p pole pairs steps (bars ± 1)/p; where neither is whole, the nearest step that is
    prime to the bars (a dummy coil is then left out by the winder).
    """
    if not pairs:
        return [(k, (k + 1) % bars) for k in range(bars)]
    step = wave_step(bars, pairs)
    return [(k, (k + step) % bars) for k in range(bars)]


def wave_step(bars: int, pairs: int) -> int:
    """Return the commutator pitch of a simplex wave winding, retrogressive where that is whole; 0 for none."""
    for more in (-1, 1):
        if (bars + more) % pairs == 0:
            step = (bars + more) // pairs
            if 1 < step < bars - 1 and math.gcd(step, bars) == 1:
                return step
    return 0


def bar_ohms(
    coils: Sequence[tuple[int, int]],
    ohms: Sequence[float],
    joints: dict[int, float] | None = None,
    bridges: dict[int, float] | None = None,
) -> Floats:
    """Return the ohms from each bar to the next, shape (bars,), infinite where nothing conducts.

    `ohms` of each coil, infinite for an open one; `joints` Ω of a bar's riser; `bridges` Ω between a bar
    and the next.
    """
    count = len(coils)
    lattice = np.zeros((count, count))
    paths = list(zip(coils, ohms, strict=True))
    paths += [((k, (k + 1) % count), r) for k, r in (bridges or {}).items()]
    for (a, b), r in paths:
        if math.isfinite(r):
            g = 1 / max(r, 1e-9)
            lattice[a, a] += g
            lattice[b, b] += g
            lattice[a, b] -= g
            lattice[b, a] -= g
    inverse = np.linalg.pinv(lattice, hermitian=True)
    here = np.arange(count)
    there = (here + 1) % count
    found = inverse[here, here] + inverse[there, there] - 2 * inverse[here, there]
    for bar, more in (joints or {}).items():
        found[bar] += more
        found[(bar - 1) % count] += more
    parted = np.abs(lattice @ inverse - np.eye(count) + 1 / count).max() > 1e-6
    if parted:  # two opens part the ring: neighbours across the gap do not conduct
        island = _islands(count, [p for p, r in paths if math.isfinite(r)])
        found[[island[k] != island[(k + 1) % count] for k in range(count)]] = math.inf
    return np.asarray(found)


def _islands(count: int, joined: Sequence[tuple[int, int]]) -> list[int]:
    name = list(range(count))
    for a, b in joined:
        old, new = name[a], name[b]
        name = [new if n == old else n for n in name]
    return name


def pattern_of(ohms: Sequence[float]) -> int:
    """Return of how many readings the winding's own regular pattern is, 1 where there is none.

    Coils that share a slot are of unlike length: 2, 3 or 4 readings that come again all round.
    """
    read = np.log(np.clip(np.array(ohms, dtype=float), 1e-9, 1e9))
    best = 1
    for count in range(2, MOST_PATTERN + 1):
        if len(read) % count or len(read) < LEAST_ALIKE * count:
            continue
        middle, own = _middles(read, count)
        if np.ptp(middle) > LEAST_PATTERN and own < SAVED * _middles(read, best)[1]:
            best = count
    return best


def _middles(read: Floats, count: int) -> tuple[Floats, float]:
    """Return the median of like readings, and the middle distance of readings from it."""
    middle = np.array([np.median(read[c::count]) for c in range(count)])
    return middle, float(np.median(np.abs(read - np.resize(middle, len(read))))) + 1e-6


def judge_bars(ohms: Sequence[float], limits: BarLimits | None = None) -> Bars:
    """Return what the ohms from each bar to the next say; `ohms` all round, infinite for an open one."""
    limits = limits or BarLimits()
    if len(ohms) < LEAST_BARS:
        return Bars(standing="too few")
    read = np.array(ohms, dtype=float)
    pattern = pattern_of(ohms)
    middle = np.array([np.median(read[c::pattern]) for c in range(pattern)])
    if not (np.isfinite(middle).all() and (middle > 0).all()):
        return Bars(standing="unclear", pattern=pattern)
    like = np.resize(middle, len(read))
    off = read / like - 1
    told = Bars(
        standing="sound",
        like=tuple(float(v) for v in like),
        off=tuple(float(v) for v in off),
        pattern=pattern,
    )
    if np.all(np.abs(off) <= limits.watch):
        return told
    return _explained(told, off, limits)


def _explained(told: Bars, off: Floats, limits: BarLimits) -> Bars:
    """Return the single fault that tells the readings best, with all that would show the same."""
    seen = _squeezed(1 + off)
    noise = max(float(np.median(np.abs(seen))) / 0.67, LEAST_NOISE)
    tried = list(_joints(seen, off))
    for pairs in (0, *range(2, MOST_PAIRS + 1)):
        if not pairs or wave_step(len(off), pairs):
            tried += _coils(seen, pairs)
    best = min(tried, key=lambda t: t.left + t.pairs * noise**2)
    if best.left > ACCEPT * len(off) * noise**2:
        out = tuple(k + 1 for k, o in enumerate(off) if abs(o) > limits.watch)
        return replace(told, standing="several", bars=out)
    same = [t for t in tried if t.left <= best.left + 2 * noise**2 and t.bars == best.bars]
    faults = list(dict.fromkeys(t.fault for t in sorted(same, key=lambda t: t.left)))
    if not best.pairs and "shorted coil" in faults:
        faults.append("bars bridged")  # nothing between two bars tells them apart
    return replace(told, standing="fault", faults=tuple(faults), bars=best.bars, pairs=best.pairs)


@dataclass(frozen=True, slots=True)
class _Tried:
    """One fault held against the readings: what is left of them, squares summed."""

    left: float
    fault: Fault
    bars: tuple[int, ...]
    pairs: int


def _squeezed(ratio: Floats) -> Floats:
    """Return logarithms of ratios, straight near one, drawn together far off it."""
    z = np.log(np.clip(ratio, 1e-4, 1e4))
    return SQUEEZE * np.arcsinh(z / SQUEEZE)


def _joints(seen: Floats, off: Floats) -> Iterator[_Tried]:
    """Yield a bad riser at each bar: the readings on both sides of it are high by the same."""
    whole = float(seen @ seen)
    for bar in range(len(seen)):
        sides = (bar - 1, bar)
        more = float(np.mean([off[k] for k in sides]))
        if not (math.isfinite(more) and more > 0):
            continue
        wanted = float(_squeezed(np.array([1 + more]))[0])
        left = whole + sum((seen[k] - wanted) ** 2 - seen[k] ** 2 for k in sides)
        yield _Tried(float(left), "high joint", (bar + 1,), 0)


def _coils(seen: Floats, pairs: int) -> Iterator[_Tried]:
    """Yield, for each place, a coil short, high or open there and two bars bridged, each at its best ohms.

    A fault elsewhere is the same picture turned round: one correlation holds all places at once.
    """
    count, step = len(seen), wave_step(len(seen), pairs) if pairs else 1
    names, shapes = _templates(count, pairs)
    turned = np.fft.irfft(np.conj(np.fft.rfft(shapes)) * np.fft.rfft(seen), count)
    left = float(seen @ seen) + np.sum(shapes**2, axis=1)[:, None] - 2 * turned
    for fault in dict.fromkeys(names):
        own = left[[n == fault for n in names]].min(axis=0)
        for at in range(count):
            other = (at + (1 if fault == "bars bridged" else step)) % count
            yield _Tried(float(own[at]), fault, (at + 1, other + 1), pairs)


@lru_cache(maxsize=64)
def _templates(count: int, pairs: int) -> tuple[tuple[Fault, ...], Floats]:
    """Return faults of the coil (or bridge) at the first bar, each at many ohms, and what each would read.

    Readings are drawn together as `_squeezed` does, shape (faults, bars).
    """
    coils = armature(count, pairs)
    lattice = 2.0 * np.eye(count)
    for a, b in coils:
        lattice[a, b] -= 1
        lattice[b, a] -= 1
    inverse = np.linalg.pinv(lattice, hermitian=True)
    here = np.arange(count)
    there = (here + 1) % count
    plain = float(inverse[0, 0] + inverse[1, 1] - 2 * inverse[0, 1])
    names: list[Fault] = []
    shapes = []
    # with lap winding a bridge lies beside a coil: it is that coil with fewer ohms, and nothing else
    for bridge, (a, b) in ((False, coils[0]), (True, (0, 1)))[: 2 if pairs else 1]:
        across = inverse[here, a] - inverse[here, b] - inverse[there, a] + inverse[there, b]
        own = float(inverse[a, a] + inverse[b, b] - 2 * inverse[a, b])
        for ohm in BRIDGES if bridge else COILS:
            more = 1 / ohm - (0.0 if bridge else 1.0)
            read = plain - more * across**2 / (1 + more * own)
            names.append("bars bridged" if bridge else _named(ohm))
            shapes.append(_squeezed(read / np.median(read)))
    return tuple(names), np.array(shapes)


def _named(ohm: float) -> Fault:
    if ohm == math.inf:
        return "open coil"
    return "shorted coil" if ohm < 1 else "high coil"
