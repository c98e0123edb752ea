"""How well a placement's network predicts the ohms: coil values fitted, bad clips allowed for.

Lead-to-lead ohms are linear in the ohms of each kind of coil: R = Σ_k ∂R/∂R_k·R_k with
∂R/∂R_k = (current share of coil k)² (R is homogeneous of degree one in all coil ohms). The kinds'
ohms are fitted by weighted least squares; their prior is flat in the logarithm, and the evidence is
taken in Laplace's approximation (MacKay, Information Theory, Inference and Learning Algorithms,
ch. 27–28). A reading may be a bad clip, which reads anything, mostly too high.
"""

import math
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.evidence import LEAD_OHM_HIGHEST, Ohms

Floats = NDArray[np.float64]

COIL_SPREAD = 0.01  # one sigma between coils that should be equal: a few per cent at the worst
LEAST_OHM = 1e-3  # below this a winding section is a joint
LOG_RANGE = math.log(1e5)  # winding sections from 10 mΩ to 1 kΩ
P_BAD_CLIP = 0.02  # one reading in fifty
P_ODD_COIL = 0.002  # a reading that repeats and does not fit is a coil that differs
ODD_COIL_RANGE = math.log(4.0)  # shorted turns to a bad joint: half to double
BAD_HIGH = 0.85  # bad clips that read high, by 15 to 300 %
BAD_HIGH_RANGE = math.log(4.0 / 1.15)
WORST_SIGMA = 2.5  # beyond this a reading is tried as a bad clip
PROOF_SIGMA = 3.0
MOST_SUSPECTS = 2
MOST_LIKELY = 8  # readings of which two together are tried as bad clips


@dataclass(frozen=True, slots=True)
class Fit:
    """Coil ohms per kind, log evidence, which readings it takes for bad and how surely."""

    ohm: Floats  # (kinds,)
    log_evidence: float
    bad: tuple[float, ...]  # probability of each reading being bad
    dropped: tuple[int, ...]  # the readings the best explanation takes for bad clips
    odd: tuple[int, ...]  # those it takes for coils that differ: read again, and the same
    clean: bool  # every reading within three sigma, none dropped
    lead_ohm: float


@dataclass(frozen=True, slots=True)
class _Solved:
    ohm: Floats
    lead_ohm: float
    log_good: float
    residual: Floats  # in sigmas, of every reading


def fit(slope: Floats, spread: Floats, ohms: list[Ohms], lead_ohm: float | None) -> Fit:
    """Fit the ohms of each coil kind to the readings.

    `slope` (readings, kinds): ∂R/∂R per kind; `spread` (readings, kinds): the part of it that
    scatters between like coils, √Σ share⁴ of kinds with several coils. `lead_ohm` None: fitted.
    """
    count, kinds = slope.shape
    if count == 0:
        return Fit(np.ones(kinds), 0.0, (), (), (), True, lead_ohm or 0.0)
    read = np.array([o.ohm for o in ohms])
    own = np.array([o.sigma for o in ohms])
    full = _solve(slope, spread, read, own, lead_ohm, ())
    tries: dict[tuple[int, ...], tuple[float, _Solved]] = {(): (full.log_good, full)}
    if np.max(np.abs(full.residual)) > WORST_SIGMA:
        likely = list(range(count))
        for size in range(1, MOST_SUSPECTS + 1):
            for drop in combinations(likely, size):
                if count - size < 1:
                    continue
                solved = _solve(slope, spread, read, own, lead_ohm, drop)
                cost = sum(
                    _log_bad(read[k], float(slope[k] @ solved.ohm) + solved.lead_ohm, ohms[k])
                    for k in drop
                )
                tries[drop] = (solved.log_good + cost, solved)
            best_drop = max(tries, key=lambda d: tries[d][0])
            kept = [k for k in range(count) if k not in best_drop]
            if np.max(np.abs(tries[best_drop][1].residual[kept]), initial=0.0) <= WORST_SIGMA:
                break  # one explains it: two need not be tried
            singles = sorted((d for d in tries if len(d) == 1), key=lambda d: -tries[d][0])
            likely = sorted(d[0] for d in singles[:MOST_LIKELY])
    logs = np.array([v[0] for v in tries.values()])
    top = float(logs.max())
    total = top + math.log(float(np.exp(logs - top).sum()))
    weight = {d: math.exp(v[0] - total) for d, v in tries.items()}
    best = max(tries, key=lambda d: (tries[d][0], -len(d)))
    bad = tuple(
        sum(w for d, w in weight.items() if k in d) if len(ohms[k].takes) < 2 else 0.0
        for k in range(count)
    )
    odd = tuple(k for k in best if len(ohms[k].takes) > 1)
    rest = [k for k in range(count) if k not in odd]
    residual = np.abs(tries[odd][1].residual[rest]) if odd in tries else np.abs(full.residual)
    return Fit(
        ohm=tries[best][1].ohm,
        log_evidence=total,
        bad=bad,
        dropped=tuple(k for k in best if k not in odd),
        odd=odd,
        clean=bool(np.max(residual, initial=0.0) <= PROOF_SIGMA),
        lead_ohm=tries[best][1].lead_ohm,
    )


def _log_bad(read: float, expected: float, ohms: Ohms) -> float:
    """Log probability of `read` Ω where `expected` is right, per Ω: a bad clip, or an odd coil."""
    ratio = read / max(expected, 1e-6)
    scale = math.log(max(read, 1e-6))
    if len(ohms.takes) > 1:
        return math.log(P_ODD_COIL / ODD_COIL_RANGE if 0.5 <= ratio <= 2.0 else 1e-6) - scale
    high = BAD_HIGH / BAD_HIGH_RANGE if 1.1 <= ratio <= 4.2 else 0.0
    return math.log(P_BAD_CLIP) + math.log(high + (1 - BAD_HIGH) / LOG_RANGE) - scale


def _solve(
    slope: Floats,
    spread: Floats,
    read: Floats,
    own: Floats,
    lead_ohm: float | None,
    drop: tuple[int, ...],
) -> _Solved:
    kinds = slope.shape[1]
    keep = np.array([k for k in range(len(read)) if k not in drop], dtype=int)
    scale = max(float(np.median(read[keep])), LEAST_OHM)
    ohm = np.full(kinds, scale)
    offset = LEAD_OHM_HIGHEST / 2 if lead_ohm is None else lead_ohm
    free_lead = lead_ohm is None
    # in units of the scale; a faint pull to it decides kinds that nothing was read of
    pull = np.diag([1 / LOG_RANGE] * kinds + [scale * math.sqrt(12) / LEAD_OHM_HIGHEST] * free_lead)
    target = np.array([1 / LOG_RANGE] * kinds + [0.0] * free_lead)
    columns = np.column_stack([slope, np.ones(len(read))]) if free_lead else slope
    shift, covariance = 0.0, np.eye(kinds)
    for _ in range(4):
        sigma = np.sqrt(own**2 + COIL_SPREAD**2 * (spread**2 @ ohm**2))
        weight = scale / sigma[keep]
        matrix = np.vstack([columns[keep] * weight[:, None], pull])
        right = np.concatenate([(read[keep] - offset) / sigma[keep], target])
        left, size, across = np.linalg.svd(matrix, full_matrices=False)
        found = across.T @ ((left.T @ right) / size)
        ohm = np.maximum(found[:kinds], 1e-4) * scale
        shift = float(found[kinds]) * scale if free_lead else 0.0
        covariance = ((across.T / size**2) @ across)[:kinds, :kinds] * scale**2
    total = offset + shift
    sigma = np.sqrt(own**2 + COIL_SPREAD**2 * (spread**2 @ ohm**2))
    residual = (read - total - slope @ ohm) / sigma
    log_good = float(
        -0.5 * np.sum(residual[keep] ** 2) - np.sum(np.log(sigma[keep] * math.sqrt(2 * math.pi)))
    )
    # Laplace: the share of the prior that the readings leave, in the logarithm of each kind's ohms
    log_covariance = covariance / np.outer(ohm, ohm)
    seen = slope[keep].sum(axis=0) > 0
    if seen.any():
        sign, logdet = np.linalg.slogdet(log_covariance[np.ix_(seen, seen)])
        occam = 0.5 * logdet + 0.5 * seen.sum() * math.log(2 * math.pi)
        log_good += (
            min(float(occam) - int(seen.sum()) * math.log(LOG_RANGE), 0.0) if sign > 0 else 0.0
        )
    return _Solved(ohm, total, log_good, residual)
