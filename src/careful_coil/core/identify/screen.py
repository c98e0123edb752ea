"""How well many placements fit, all at once and roughly: which are worth a careful fit."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.evidence import Evidence, Ohms
from careful_coil.core.identify.fit import COIL_SPREAD, LOG_RANGE
from careful_coil.core.readings import LEAD_OHM_HIGHEST, Meter

if TYPE_CHECKING:
    from careful_coil.core.identify.tables import Tables

FORGIVEN = 8.0  # what one bad clip costs
MOST_AGAIN = 120  # placements tried so, those nearest after the first
STILL_OFF = 20.0  # squares left from which a second bad clip is tried
NEGATIVE = 60.0  # what ohms below nothing cost
RIDGE = 1e-6
OCCAM = math.log(LOG_RANGE / (0.01 * math.sqrt(2 * math.pi)))  # for each ohms fitted to 1 %


def rough_fit(
    table: "Tables", rows: NDArray[np.int64], fitted: NDArray[np.bool_], evidence: Evidence
) -> NDArray[np.float64]:
    """Return the rough log likelihood of every placement's figures, shape (placements,).

    Two readings of each may be bad clips: dropping one takes r²/(1 − h) off the sum of squares, h its
    leverage; where the rest still does not fit, it is done once more without it.
    """
    score = np.zeros(len(rows))
    for pattern in {f.tobytes(): f for f in fitted}.values():
        same = np.flatnonzero((fitted == pattern).all(axis=1))
        score[same] = _score(table, rows[same], np.flatnonzero(pattern), evidence)
    return score


def _score(
    table: "Tables", rows: NDArray[np.int64], used: NDArray[np.int64], evidence: Evidence
) -> NDArray[np.float64]:
    """Return it for rows whose figures to be fitted are the same."""
    if not len(used):
        return np.zeros(len(rows))
    ohms = [evidence.ohms[k] for k in used]
    a, b = (np.array([getattr(o, end) for o in ohms]) for end in "ab")
    read = np.array([o.ohm for o in ohms])
    lead = evidence.meter.lead_ohm
    target = read - (LEAD_OHM_HIGHEST / 2 if lead is None else lead)
    sigma = _sigmas(ohms, evidence.meter)
    slope = table.slope[rows[:, a], rows[:, b]]
    flat = slope.reshape(len(rows), -1)
    mixed = np.round(flat @ np.sin(np.arange(1.0, flat.shape[1] + 1)), 9)
    _, first, which = np.unique(mixed, return_index=True, return_inverse=True)
    x = slope[first] / sigma[:, None]  # with few readings most placements show the same
    y = np.broadcast_to(target / sigma, x.shape[:2])
    once = _squares(x, y, target)
    score, again = once.score, np.flatnonzero(once.left > STILL_OFF)
    again = again[np.argsort(once.left[again], kind="stable")[:MOST_AGAIN]]
    if len(again) and len(used) > 2:
        keep = np.ones((len(again), len(used)))
        keep[np.arange(len(again)), once.worst[again]] = 0.0
        twice = _squares(x[again] * keep[:, :, None], y[again] * keep, target)
        score[again] = np.maximum(score[again], twice.score - FORGIVEN)
    seen = (x > 0).any(axis=1).sum(axis=1)
    whole = score - OCCAM * seen - np.log(sigma * math.sqrt(2 * math.pi)).sum()
    return np.asarray(whole[which])


def _sigmas(ohms: Sequence[Ohms], meter: Meter) -> NDArray[np.float64]:
    """Return how far a reading may lie off: the meter, coils that differ, test leads not known."""
    read = np.array([o.ohm for o in ohms])
    loose = LEAD_OHM_HIGHEST / 3.5 if meter.lead_ohm is None else 0.0
    own = np.array([o.sigma for o in ohms])
    return np.asarray(np.sqrt(own**2 + (1.2 * COIL_SPREAD * read) ** 2 + loose**2))


def log_widths(evidence: Evidence) -> NDArray[np.float64]:
    """Return for each reading by how much its figure costs at the least, in nats; 0 where it has none."""
    figures = [k for k, o in enumerate(evidence.ohms) if o.state == "value"]
    found = np.zeros(len(evidence.ohms))
    if figures:
        sigma = _sigmas([evidence.ohms[k] for k in figures], evidence.meter)
        found[figures] = np.log(sigma * math.sqrt(2 * math.pi))
    return found


@dataclass(frozen=True, slots=True)
class _Squares:
    """A rough score, the squares left when the worst reading is dropped, and which that is."""

    score: NDArray[np.float64]
    left: NDArray[np.float64]
    worst: NDArray[np.int64]


def _squares(
    x: NDArray[np.float64], y: NDArray[np.float64], target: NDArray[np.float64]
) -> _Squares:
    """Return the least squares of rows of readings told in their sigmas."""
    turned = np.ascontiguousarray(x.transpose(0, 2, 1))
    normal = turned @ x
    own = np.einsum("rkk->rk", normal)
    own += RIDGE * own + 1e-12  # kinds that nothing was read of must not make it singular
    inverse = np.linalg.inv(normal)
    ohm = (inverse @ (turned @ y[:, :, None]))[:, :, 0]
    left = y - (x @ ohm[:, :, None])[:, :, 0]
    hold = np.clip(((x @ inverse) * x).sum(axis=2), 0.0, 1 - 1e-3)
    chi = (left**2).sum(axis=1)
    spared = left**2 / (1 - hold)
    without = np.maximum(chi - spared.max(axis=1), 0.0)
    below = (ohm < -1e-3 * np.abs(target).max()).any(axis=1)
    fit = -0.5 * np.minimum(chi, without + 2 * FORGIVEN) - NEGATIVE * below
    return _Squares(np.asarray(fit), without, spared.argmax(axis=1))
