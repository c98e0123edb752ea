"""How well placements' networks predict the ohms: coil values fitted, bad clips allowed for.

Lead-to-lead ohms are linear in the ohms of each kind of coil: R = Σ_k ∂R/∂R_k·R_k with
∂R/∂R_k = (current share of coil k)² (R is homogeneous of degree one in all coil ohms). The kinds'
ohms are fitted by weighted least squares; their prior is flat in the logarithm, and the evidence is
taken in Laplace's approximation (MacKay, Information Theory, Inference and Learning Algorithms,
ch. 27–28). A reading may be a bad clip, which reads anything, mostly too high. All placements are
fitted at once.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.evidence import Ohms
from careful_coil.core.readings import LEAD_OHM_HIGHEST

Floats = NDArray[np.float64]
Mask = NDArray[np.bool_]

COIL_SPREAD = 0.01  # one sigma between coils that should be equal: a few per cent at the worst
LEAST_OHM = 1e-3  # below this a winding section is a joint
LOG_RANGE = math.log(1e5)  # winding sections from 10 mΩ to 1 kΩ
P_BAD_CLIP = 0.02  # one reading in fifty
P_ODD_COIL = 0.002  # a reading that repeats and does not fit is a coil that differs
ODD_COIL_RANGE = math.log(4.0)  # shorted turns to a bad joint: half to double
BAD_HIGH = 0.85  # bad clips that read high, by 15 to 300 %
P_SLIP = 0.003  # right but for a power of ten: a point, a prefix, a range
SLIPS, SLIP_WITHIN = (1, 2, 3), 0.02  # decades
BAD_HIGH_RANGE = math.log(4.0 / 1.15)
WORST_SIGMA = 2.5  # beyond this a reading is tried as a bad clip
PROOF_SIGMA = 3.0
MOST_LIKELY = 8  # readings tried as bad clips, each and two together
ROUNDS, ROUNDS_AGAIN = 4, 2  # of least squares with the scatter that the ohms imply
RIDGE = 1e-12


@dataclass(frozen=True, slots=True)
class Fit:
    """Coil ohms per kind, log evidence, which readings it takes for bad and how surely.

    Readings by their place among those the placement fits.
    """

    ohm: Floats  # (kinds,)
    log_evidence: float
    bad: tuple[float, ...]  # probability of each reading being bad
    dropped: tuple[int, ...]  # the readings the best explanation takes for bad clips
    odd: tuple[int, ...]  # those it takes for coils that differ: read again, and the same
    clean: bool  # every reading within three sigma, none dropped
    lead_ohm: float


@dataclass(frozen=True, slots=True)
class _Problem:
    """Fits of the same readings: arrays over fits, readings and kinds of coil."""

    slope: Floats  # (fits, readings, kinds) ∂R/∂R
    spread: Floats  # the part of it that scatters between like coils, √Σ share⁴
    used: Mask  # (fits, readings)
    read: Floats  # (readings,) Ω
    own: Floats  # (readings,) scatter of a reading, Ω
    lead_ohm: float | None

    def of(self, which: NDArray[np.intp], used: Mask) -> "_Problem":
        """Return some of the fits, again and again where asked, over other readings."""
        return _Problem(
            self.slope[which], self.spread[which], used, self.read, self.own, self.lead_ohm
        )


@dataclass(frozen=True, slots=True)
class _Solved:
    ohm: Floats  # (fits, kinds)
    lead_ohm: Floats  # (fits,)
    log_good: Floats  # (fits,)
    residual: Floats  # (fits, readings) in sigmas, of every reading
    hold: Floats  # (fits, readings) leverage

    def expected(self, p: _Problem) -> Floats:
        """Return what each fit expects of every reading, Ω."""
        return np.asarray((p.slope @ self.ohm[:, :, None])[:, :, 0] + self.lead_ohm[:, None])


def fit_all(
    slope: Floats, spread: Floats, used: Mask, ohms: Sequence[Ohms], lead_ohm: float | None
) -> list[Fit]:
    """Fit the ohms of each coil kind to the readings, for many placements at once.

    `slope` (fits, readings, kinds): ∂R/∂R per kind; `spread` the same shape: the part of it that
    scatters between like coils, √Σ share⁴ of kinds with several coils; `used` (fits, readings): the
    readings that a placement predicts. `lead_ohm` in Ω, None: fitted.
    """
    if not len(ohms):
        kinds = slope.shape[2]
        plain = Fit(np.ones(kinds), 0.0, (), (), (), True, lead_ohm or 0.0)
        return [plain] * len(slope)
    read, own = np.array([o.ohm for o in ohms]), np.array([o.sigma for o in ohms])
    p = _Problem(slope, spread, used, read, own, lead_ohm)
    full = _solve(p, _middle(p), ROUNDS)
    tries: list[list[_Try]] = [
        [_Try((), float(log), ohm, float(lead), off)]
        for log, ohm, lead, off in zip(
            full.log_good, full.ohm, full.lead_ohm, full.residual, strict=True
        )
    ]
    worst = np.where(used, np.abs(full.residual), 0.0).max(axis=1)
    doubted = np.flatnonzero((worst > WORST_SIGMA) & (used.sum(axis=1) > 1))
    if len(doubted):
        _without(p, full, doubted, ohms, tries)
    return [_told(t, u, ohms) for t, u in zip(tries, used, strict=True)]


@dataclass(frozen=True, slots=True)
class _Try:
    """One explanation: the readings dropped, its log evidence, and what it makes of the rest."""

    drop: tuple[int, ...]
    log: float
    ohm: Floats
    lead_ohm: float
    residual: Floats


def _without(
    p: _Problem,
    full: _Solved,
    doubted: NDArray[np.intp],
    ohms: Sequence[Ohms],
    tries: "list[list[_Try]]",
) -> None:
    """Try fits without the readings likeliest to be bad clips, then without two of them."""
    spared = np.where(p.used, full.residual**2 / np.maximum(1.0 - full.hold, 1e-9), -1.0)
    order = np.argsort(-spared, axis=1, kind="stable")[:, :MOST_LIKELY]
    drops = [(f, (int(k),)) for f in doubted for k in order[f] if p.used[f, k]]
    _try(p, full, drops, ohms, tries)
    pairs = []
    for f in doubted:
        best = max(tries[f], key=lambda t: t.log)
        kept = [k for k in np.flatnonzero(p.used[f]) if k not in best.drop]
        if len(kept) < 2 or np.abs(best.residual[kept]).max() <= WORST_SIGMA:
            continue  # one explains it: two need not be tried
        pairs += [(f, two) for two in combinations(sorted(t.drop[0] for t in tries[f][1:]), 2)]
    _try(p, full, pairs, ohms, tries)


def _try(
    p: _Problem,
    full: _Solved,
    drops: "Sequence[tuple[np.intp, tuple[int, ...]]]",
    ohms: Sequence[Ohms],
    tries: "list[list[_Try]]",
) -> None:
    if not drops:
        return
    which = np.array([f for f, _ in drops])
    left = p.used[which]
    for row, (_, drop) in zip(left, drops, strict=True):
        row[list(drop)] = False
    part = p.of(which, left)
    solved = _solve(part, full.ohm[which], ROUNDS_AGAIN)
    expected = solved.expected(part)
    for n, (f, drop) in enumerate(drops):
        cost = sum(_log_bad(float(p.read[k]), float(expected[n, k]), ohms[k]) for k in drop)
        tries[f].append(
            _Try(
                drop,
                float(solved.log_good[n]) + cost,
                solved.ohm[n],
                float(solved.lead_ohm[n]),
                solved.residual[n],
            )
        )


def _told(tries: "Sequence[_Try]", used: Mask, ohms: Sequence[Ohms]) -> Fit:
    """Return the fit that a placement's tries make together."""
    best = max(tries, key=lambda t: (t.log, -len(t.drop)))
    top = best.log
    total = top + math.log(sum(math.exp(t.log - top) for t in tries))
    places = {int(k): n for n, k in enumerate(np.flatnonzero(used))}
    bad = [0.0] * len(places)
    for t in tries:
        share = math.exp(t.log - total)
        for k in t.drop:
            bad[places[k]] += share if len(ohms[k].takes) < 2 else 0.0
    odd = tuple(k for k in best.drop if len(ohms[k].takes) > 1)
    whole = next((t for t in tries if t.drop == odd), tries[0])
    rest = [k for k in places if k not in odd]
    return Fit(
        ohm=best.ohm,
        log_evidence=total,
        bad=tuple(bad),
        dropped=tuple(places[k] for k in best.drop if k not in odd),
        odd=tuple(places[k] for k in odd),
        clean=bool(np.abs(whole.residual[rest]).max(initial=0.0) <= PROOF_SIGMA),
        lead_ohm=best.lead_ohm,
    )


def slip_of(read: float, expected: float) -> int:
    """Return the power of ten by which a reading is right but for it; 0 for none."""
    if min(read, expected) <= 0:
        return 0
    decades = math.log10(read / expected)
    power = round(decades)
    return power if abs(power) in SLIPS and abs(decades - power) < SLIP_WITHIN else 0


def _log_bad(read: float, expected: float, ohms: Ohms) -> float:
    """Log probability of `read` Ω where `expected` is right, per Ω: a bad clip, or an odd coil."""
    ratio = read / max(expected, 1e-6)
    scale = math.log(ohms.size)
    if len(ohms.takes) > 1:
        return math.log(P_ODD_COIL / ODD_COIL_RANGE if 0.5 <= ratio <= 2.0 else 1e-6) - scale
    high = BAD_HIGH / BAD_HIGH_RANGE if 1.1 <= ratio <= 4.2 else 0.0
    if slip_of(read, expected):
        return math.log(P_SLIP) - scale
    return math.log(P_BAD_CLIP) + math.log(high + (1 - BAD_HIGH) / LOG_RANGE) - scale


def _middle(p: _Problem) -> Floats:
    """Return ohms to begin with: for every kind the median of the readings used."""
    ordered = np.sort(np.where(p.used, p.read, np.inf), axis=1)
    used = p.used.sum(axis=1)
    row = np.arange(len(ordered))
    two = ordered[row, np.maximum(used - 1, 0) // 2] + ordered[row, used // 2]
    middle = np.where(used > 0, np.maximum(two / 2, LEAST_OHM), 1.0)
    return np.repeat(middle[:, None], p.slope.shape[2], axis=1)


def _solve(p: _Problem, ohm: Floats, rounds: int) -> _Solved:
    """Return the least squares of every fit, begun at `ohm` (fits, kinds) Ω.

    A faint pull towards the last round's ohms, as wide as the prior, decides kinds that nothing was
    read of, and only those.
    """
    fits, count, kinds = p.slope.shape
    offset = LEAD_OHM_HIGHEST / 2 if p.lead_ohm is None else p.lead_ohm
    free = p.lead_ohm is None
    scale = ohm.mean(axis=1)  # of a fit: its unknowns are told in it
    shift = np.zeros(fits)
    columns = p.slope
    if free:
        columns = np.concatenate([p.slope, np.ones((fits, count, 1))], axis=2)
    diagonal = np.arange(columns.shape[2])
    inverse: Floats = np.zeros((fits, 1, 1))
    weight = np.zeros((fits, count))
    for _ in range(rounds):
        weight = np.where(p.used, scale[:, None] / _sigma(p, ohm), 0.0)
        x = columns * weight[:, :, None]
        y = (p.read - offset) / scale[:, None] * weight
        pull = scale[:, None] / (LOG_RANGE * ohm)
        start = ohm / scale[:, None]
        if free:
            lead = scale * math.sqrt(12) / LEAD_OHM_HIGHEST
            pull = np.concatenate([pull, lead[:, None]], axis=1)
            start = np.concatenate([start, np.zeros((fits, 1))], axis=1)
        across = x.transpose(0, 2, 1)
        normal = across @ x
        normal[:, diagonal, diagonal] += pull**2
        right = (across @ y[:, :, None])[:, :, 0] + pull**2 * start
        # what is past telling in floating point is told by its own diagonal
        normal[:, diagonal, diagonal] *= 1 + RIDGE
        inverse = np.asarray(np.linalg.inv(normal), dtype=np.float64)
        found = (inverse @ right[:, :, None])[:, :, 0]
        ohm = np.asarray(np.maximum(found[:, :kinds], 1e-4) * scale[:, None])
        shift = found[:, kinds] * scale if free else shift
    total = offset + shift
    sigma = _sigma(p, ohm)
    residual = (p.read - total[:, None] - (p.slope @ ohm[:, :, None])[:, :, 0]) / sigma
    hold = ((columns @ inverse) * columns).sum(axis=2) * weight**2
    log_good = np.where(
        p.used, -0.5 * residual**2 - np.log(sigma * math.sqrt(2 * math.pi)), 0.0
    ).sum(axis=1)
    log_good += _occam(p, ohm, inverse[:, :kinds, :kinds] * (scale**2)[:, None, None])
    return _Solved(ohm, total, log_good, residual, hold)


def _sigma(p: _Problem, ohm: Floats) -> Floats:
    """Return the scatter of every reading in Ω: its own, and that between coils that are alike."""
    coils = (p.spread**2 @ (ohm**2)[:, :, None])[:, :, 0]
    return np.asarray(np.sqrt(p.own**2 + COIL_SPREAD**2 * coils))


def _occam(p: _Problem, ohm: Floats, covariance: Floats) -> Floats:
    """Return Laplace's factor: the share of the prior, in the logarithm of ohms, that is left."""
    seen = (p.slope * p.used[:, :, None]).sum(axis=1) > 0
    relative = covariance / (ohm[:, :, None] * ohm[:, None, :])
    both = seen[:, :, None] & seen[:, None, :]
    left = np.where(both, relative, np.eye(ohm.shape[1]))
    sign, logdet = np.linalg.slogdet(left)
    many = seen.sum(axis=1)
    factor = 0.5 * logdet + many * (0.5 * math.log(2 * math.pi) - math.log(LOG_RANGE))
    return np.where((sign > 0) & (many > 0), np.minimum(factor, 0.0), 0.0)
