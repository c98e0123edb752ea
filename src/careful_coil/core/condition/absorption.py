"""The curve of an insulation test: geometric, absorption and leakage parts, and what it will become.

Current at constant volts: i(t) = V/R_leak + A·t⁻ⁿ + B·e^(−t/τ), the last the charging of the bare
capacitance, gone after seconds (IEEE 43, components of the current). In conductances, scaled to one minute:
g(t) ∝ s + (1 − s)·(t/60)⁻ⁿ + b·e^(−t/τ), s the leakage's share of the steady part at one minute.
The scale is a plain factor and drops out in logarithms; the noise's size is weighed with a gamma
prior about a hand-held tester's. What is left (n, s, b, τ) is weighed by population Monte Carlo
(Cappé et al., J. Comput. Graph. Stat. 13, 2004) from fixed seeds: the same readings give the same
answer, and it has an honest width after few readings as after many.
"""

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.errors import ValueOutOfRange

Floats = NDArray[np.float64]
MINUTE, TEN_MINUTES = 60.0, 600.0
LONGEST_S = 7200.0
MOST_READINGS = 2000
LEAST_FOR_ODDS = 3  # readings: a factor, a slope, and one to see by
# what windings are like, mean and sigma: n, ln(s/(1 − s)), ln b, ln τ
PRIOR_MEAN = np.array([0.7, 0.0, -1.0, math.log(4.0)])
PRIOR_SIGMA = np.array([0.25, 2.2, 1.5, 0.45])
LOWEST_N, HIGHEST_N = 0.05, 1.6
NOISE, NOISE_WORTH = 0.012, 4.0  # a tester's scatter, a share; readings that this guess is worth
FINEST = 40  # readings weighed at most: a live curve has hundreds, alike
FIRST, LATER, CENTRES, ROUNDS = 1000, 1000, 100, 12
ALIVE = 0.15  # share of the draws that must still count when the next ones are made about them
ENOUGH = 0.5  # share of the draws that count: no further round is needed
LARGEST_LOG = 600.0  # e to this is as good as endless, and still a figure
INNER = 0.90


@dataclass(frozen=True, slots=True, kw_only=True)
class Band:
    """A middle, and the ends within which it lies nine times of ten."""

    middle: float
    low: float
    high: float

    def width(self) -> float:
        """Return the ratio of its ends."""
        return self.high / self.low


@dataclass(frozen=True, slots=True, kw_only=True)
class Kink:
    """A place where the readings leave the curve: seconds, how (fall, jump, unsteady), and words."""

    second: float
    kind: str
    why: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Curve:
    """A fitted test. Bands are of nine in ten; `leak_megohm` at the end of time,
    `absorb_megohm` the absorption part alone at one minute, so that A = V over it, `exponent` n,
    `leak_share` of the current at one minute; `minute`, `ten` MΩ; `index` what R(10)/R(1) is or will
    be; `measured` whether both were read; `seconds`, `low`, `middle`, `high` the band drawn, MΩ."""

    leak_megohm: Band
    absorb_megohm: Band
    exponent: Band
    leak_share: Band
    minute: Band
    ten: Band
    index: Band
    measured: bool
    seconds: tuple[float, ...]
    low: tuple[float, ...]
    middle: tuple[float, ...]
    high: tuple[float, ...]
    kinks: tuple[Kink, ...]


def check_readings(readings: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    """Return readings (seconds, MΩ) in order of time.

    Raises: ValueOutOfRange for a time or figure not above nothing, two at one time, too many.
    """
    told = sorted((float(s), float(m)) for s, m in readings)
    if len(told) > MOST_READINGS:
        raise ValueOutOfRange(f"{len(told)} readings", f"at most {MOST_READINGS}")
    for second, megohm in told:
        if not 0 < second <= LONGEST_S:
            raise ValueOutOfRange(f"{second:g} s", "seconds above nothing, two hours at most")
        if not 0 < megohm < math.inf:
            raise ValueOutOfRange(f"{megohm:g} MΩ at {second:g} s", "MΩ above nothing")
    for (one, _), (two, _) in itertools.pairwise(told):
        if one == two:
            raise ValueOutOfRange(f"two readings at {one:g} s", "one reading at a time")
    return told


@cache
def _draws(count: int, size: int, seed: int) -> Floats:
    """Return fixed standard normal draws, shape (count, size)."""
    return np.random.default_rng(seed).standard_normal((count, size))


def _shape(models: Floats, seconds: Floats) -> Floats:
    """Return −ln g of each model at the times, shape (models, times)."""
    n, logit, ln_b, ln_tau = (models[:, k, None] for k in range(4))
    share = 1 / (1 + np.exp(-logit))
    g = share + (1 - share) * (seconds / MINUTE) ** -n
    g = g + np.exp(ln_b - seconds / np.exp(ln_tau))
    found: Floats = -np.log(g)
    return found


def _log_prior(models: Floats) -> Floats:
    found: Floats = -0.5 * np.sum(((models - PRIOR_MEAN) / PRIOR_SIGMA) ** 2, axis=1)
    found[(models[:, 0] < LOWEST_N) | (models[:, 0] > HIGHEST_N)] = -np.inf
    return found


@dataclass(frozen=True, slots=True)
class _Fit:
    """Models with their odds, the scale ln R of each, and the scatter the readings have about it."""

    models: Floats
    odds: Floats
    scale: Floats
    noise: Floats


def _likelihood(models: Floats, t: Floats, y: Floats) -> tuple[Floats, Floats, Floats]:
    """Return ln of each model's likelihood, its scale, the scatter about it."""
    left = y - _shape(models, t)
    scale = left.mean(axis=1)
    square = np.sum((left - scale[:, None]) ** 2, axis=1) + NOISE_WORTH * NOISE**2
    free = len(t) - 1 + NOISE_WORTH
    return -0.5 * free * np.log(square), scale, np.sqrt(square / free)


def _weighed(log_weight: Floats, alive: float = 0.0) -> Floats:
    """Return odds; tempered until `alive` of them count, so that none is lost too soon."""
    log_weight = log_weight - log_weight.max()
    low, high = 0.0, 1.0

    def odds_at(power: float) -> Floats:
        odds = np.exp(power * log_weight)
        found: Floats = odds / odds.sum()
        return found

    def enough(odds: Floats) -> bool:
        return bool(1 / np.sum(odds**2) >= alive * len(odds))

    if enough(odds_at(1.0)):
        return odds_at(1.0)
    for _ in range(20):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if enough(odds_at(middle)) else (low, middle)
    return odds_at(low)


def _fit(t: Floats, y: Floats) -> _Fit:
    models = PRIOR_MEAN + PRIOR_SIGMA * _draws(FIRST, 4, 1)
    log_weight, scale, noise = _likelihood(models, t, y)
    log_weight = np.where(np.isfinite(_log_prior(models)), log_weight, -np.inf)
    for k in range(ROUNDS):
        odds = _weighed(log_weight, ALIVE)
        middle = odds @ models
        spread = (models - middle).T @ ((models - middle) * odds[:, None])
        root = np.linalg.cholesky(0.35 * spread + 1e-10 * np.eye(4))
        ranked = np.searchsorted(np.cumsum(odds), (np.arange(CENTRES) + 0.5) / CENTRES)
        centres = models[np.minimum(ranked, len(models) - 1)]
        fresh = _draws(LATER, 4, 2 + k)
        models = centres[np.arange(LATER) % CENTRES] + fresh @ root.T
        plain = np.linalg.inv(root).T
        one, two = models @ plain, centres @ plain  # where distances count in sigmas
        nearness = one @ two.T - 0.5 * (one**2).sum(axis=1)[:, None] - 0.5 * (two**2).sum(axis=1)
        top = nearness.max(axis=1)
        drawn = top + np.log(np.exp(nearness - top[:, None]).mean(axis=1))
        log_weight, scale, noise = _likelihood(models, t, y)
        log_weight = log_weight + _log_prior(models) - drawn
        odds = _weighed(log_weight)
        if 1 / np.sum(odds**2) > ENOUGH * LATER:
            break
    return _Fit(models, _weighed(log_weight), scale, noise)


def fit_curve(readings: Sequence[tuple[float, float]]) -> Curve:
    """Return the curve through readings (seconds from switching on, MΩ), three or more.

    Raises: ValueOutOfRange.
    """
    told = check_readings(readings)
    if len(told) < LEAST_FOR_ODDS:
        raise ValueOutOfRange(f"{len(told)} readings", "three or more of one test")
    thin = _thinned(told)
    t, y = np.array([s for s, _ in thin]), np.log([m for _, m in thin])
    fit = _fit(t, y)
    odds, sure = fit.odds, fit.noise / math.sqrt(len(t))

    def at(*seconds: float) -> Floats:
        return _shape(fit.models, np.array(seconds)) + fit.scale[:, None]

    ends = at(MINUTE, TEN_MINUTES)
    n, logit, ln_b, ln_tau = fit.models.T
    share = np.minimum(1 / (1 + np.exp(-logit)), 1 - 1e-9)
    steady = share / (1 + np.exp(ln_b - MINUTE / np.exp(ln_tau)))
    drawn = np.geomspace(min(float(t[0]), 5.0), max(TEN_MINUTES, float(t[-1])), 48)
    bands = [_band(column, odds, sure) for column in at(*drawn).T]
    return Curve(
        leak_megohm=_band(fit.scale - np.log(share), odds, sure),
        absorb_megohm=_band(fit.scale - np.log1p(-share), odds, sure),
        exponent=_plain(n, odds),
        leak_share=_plain(steady, odds),
        minute=_band(ends[:, 0], odds, sure),
        ten=_band(ends[:, 1], odds, sure),
        index=_index(dict(told), ends, fit),
        measured=MINUTE in dict(told) and TEN_MINUTES in dict(told),
        seconds=tuple(float(x) for x in drawn),
        low=tuple(b.low for b in bands),
        middle=tuple(b.middle for b in bands),
        high=tuple(b.high for b in bands),
        kinks=kinks_of(told),
    )


def _index(known: dict[float, float], ends: Floats, fit: _Fit) -> Band:
    """Return what R(10 min)/R(1 min) is, or will be as it will be read."""
    sure = fit.noise / math.sqrt(max(len(known), 1))
    if MINUTE in known and TEN_MINUTES in known:
        ratio = known[TEN_MINUTES] / known[MINUTE]
        width = 1.645 * float(fit.noise @ fit.odds) * math.sqrt(2)
        return Band(middle=ratio, low=ratio * math.exp(-width), high=ratio * math.exp(width))
    if MINUTE in known:  # it will be read against this minute, the ten with its own scatter
        return _band(ends[:, 1] - math.log(known[MINUTE]), fit.odds, np.hypot(sure, fit.noise))
    return _band(ends[:, 1] - ends[:, 0], fit.odds, np.zeros(len(fit.odds)))


def _thinned(told: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """Return at most FINEST readings, even in the logarithm of time, the standard times kept."""
    if len(told) <= FINEST:
        return told
    wanted = np.geomspace(told[0][0], told[-1][0], FINEST)
    times = np.array([s for s, _ in told])
    keep = {int(np.argmin(abs(times - w))) for w in wanted}
    keep |= {k for k, (s, _) in enumerate(told) if s in (MINUTE, TEN_MINUTES)}
    return [told[k] for k in sorted(keep)]


def _band(logs: Floats, odds: Floats, sigma: Floats) -> Band:
    """Return the band of weighted logarithms, each blurred by its own sigma."""
    points = np.concatenate([logs + k * sigma for k in _BLUR])
    weights = np.concatenate([odds * w for w in _BLUR_WORTH])
    low, middle, high = _quantiles(points, weights)
    middle, low, high = (math.exp(min(x, LARGEST_LOG)) for x in (middle, low, high))
    return Band(middle=middle, low=low, high=high)


def _plain(values: Floats, odds: Floats) -> Band:
    low, middle, high = _quantiles(values, odds)
    return Band(middle=middle, low=low, high=high)


# a normal curve in nine points
_BLUR = np.linspace(-3.0, 3.0, 9)
_BLUR_WORTH = np.exp(-0.5 * _BLUR**2) / np.exp(-0.5 * _BLUR**2).sum()


def _quantiles(values: Floats, odds: Floats) -> tuple[float, float, float]:
    order = np.argsort(values)
    ranked, total = values[order], np.cumsum(odds[order])
    total = (total - 0.5 * odds[order]) / total[-1]
    tail = (1 - INNER) / 2
    return tuple(float(np.interp(q, total, ranked)) for q in (tail, 0.5, 1 - tail))  # type: ignore[return-value]


STEP_SIGMA = 5.0
LEAST_STEP = 0.06  # a share below which nobody calls it a kink


def kinks_of(told: Sequence[tuple[float, float]]) -> tuple[Kink, ...]:
    """Return where the readings leave a smooth curve.

    Steps of ln R over ln t are held against their neighbours' middle; a step beyond five of their
    usual scatter, and beyond 6 %, is a kink: two opposite ones beside each other are unsteadiness.
    """
    if len(told) < 5:  # too few to say what is smooth
        return ()
    t = np.log([s for s, _ in told])
    y = np.log([m for _, m in told])
    slope = np.diff(y) / np.diff(t)
    usual = np.array([np.median(slope[max(k - 3, 0) : k + 4]) for k in range(len(slope))])
    over = (slope - usual) * np.diff(t)
    scatter = max(1.4826 * float(np.median(abs(over))), NOISE / 2)
    odd = [k for k in range(len(over)) if abs(over[k]) > max(STEP_SIGMA * scatter, LEAST_STEP)]
    if len(odd) >= 4 or len(odd) > len(over) / 3 or scatter > LEAST_STEP:
        first = told[odd[0] + 1 if odd else 1][0]
        why = (
            "The figure will not stand still: clip, lead, damp surface, or a charge on the winding."
        )
        return (Kink(second=first, kind="unsteady", why=why),)
    found, k = [], 0
    while k < len(odd):
        here = odd[k]
        at = told[here + 1][0]
        paired = k + 1 < len(odd) and odd[k + 1] == here + 1 and over[here] * over[here + 1] < 0
        if paired:
            why = f"One reading at {at:g} s lies off: read in between, or the clip moved."
            found.append(Kink(second=at, kind="unsteady", why=why))
        elif over[here] < 0:
            why = f"It falls at {at:g} s: something breaks down, or a wet surface begins to carry."
            found.append(Kink(second=at, kind="fall", why=why))
        else:
            why = f"It jumps up at {at:g} s: a clip came off, or a part dried or burnt away."
            found.append(Kink(second=at, kind="jump", why=why))
        k += 2 if paired else 1
    return tuple(found)
