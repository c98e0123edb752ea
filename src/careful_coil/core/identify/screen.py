"""How well many placements fit, all at once and roughly: which are worth a careful fit."""

import math
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.evidence import LEAD_OHM_HIGHEST, Evidence
from careful_coil.core.identify.fit import COIL_SPREAD, LOG_RANGE

if TYPE_CHECKING:
    from careful_coil.core.identify.tables import Tables

FORGIVEN = 8.0  # what one bad clip costs
NEGATIVE = 60.0  # what ohms below nothing cost
RIDGE = 1e-6
OCCAM = math.log(LOG_RANGE / (0.01 * math.sqrt(2 * math.pi)))  # for each ohms fitted to 1 %


def rough_fit(
    table: "Tables", rows: NDArray[np.int64], fitted: NDArray[np.bool_], evidence: Evidence
) -> NDArray[np.float64]:
    """Return the rough log likelihood of every placement's figures, shape (placements,).

    One reading of each may be a bad clip: dropping it takes r²/(1 − h) off the sum of squares, h its
    leverage.
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
    loose = LEAD_OHM_HIGHEST / 3.5 if lead is None else 0.0
    sigma = np.sqrt(
        np.array([o.sigma for o in ohms]) ** 2 + (1.2 * COIL_SPREAD * read) ** 2 + loose**2
    )
    x = table.slope[rows[:, a], rows[:, b]] / sigma[:, None]
    y = target / sigma
    normal = np.einsum("rnk,rnm->rkm", x, x)
    own = np.einsum("rkk->rk", normal)
    own += RIDGE * own + 1e-12  # kinds that nothing was read of must not make it singular
    inverse = np.linalg.inv(normal)
    ohm = np.einsum("rkm,rnm,n->rk", inverse, x, y)
    left = y - np.einsum("rnk,rk->rn", x, ohm)
    hold = np.clip(np.einsum("rnk,rkm,rnm->rn", x, inverse, x), 0.0, 1 - 1e-3)
    chi = (left**2).sum(axis=1)
    spared = (left**2 / (1 - hold)).max(axis=1)
    below = (ohm < -1e-3 * np.abs(target).max()).any(axis=1)
    seen = (x > 0).any(axis=1).sum(axis=1)
    fit = -0.5 * np.minimum(chi, np.maximum(chi - spared, 0.0) + 2 * FORGIVEN) - NEGATIVE * below
    return np.asarray(fit - OCCAM * seen - np.log(sigma * math.sqrt(2 * math.pi)).sum())
