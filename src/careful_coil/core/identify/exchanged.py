"""Two cells of a sheet exchanged: one reads open where coils lie, the other has the figure that belongs there."""

import math

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.blocks import P_FALSE_OPEN, P_STRAY
from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.fit import COIL_SPREAD, LOG_RANGE, Fit
from careful_coil.core.identify.tables import Tables

P_EXCHANGED = 0.01  # of sheets: two readings written into each other's cell
MAY_BE_EXCHANGED = 9.0  # what it may add to the weight, in nats


def one_of_each(conflict: NDArray[np.bool_], evidence: Evidence) -> NDArray[np.bool_]:
    """Whether, of the readings a placement calls wrong, one reads open and one has a figure."""
    shut = np.array([o.state == "open" for o in evidence.ohms], dtype=bool)
    both = (conflict & shut).any(axis=1) & (conflict & ~shut).any(axis=1)
    return np.asarray(both)


def exchanged(
    table: Tables, row: NDArray[np.int64], conflict: NDArray[np.bool_], f: Fit, evidence: Evidence
) -> float:
    """Return what it adds that the two readings it must call wrong stand in each other's cell.

    One reads open where coils lie, the other has the figure that belongs there.
    """
    wrong = np.flatnonzero(conflict)
    if len(wrong) != 2:
        return 0.0
    (shut, stray) = sorted((evidence.ohms[k] for k in wrong), key=lambda o: o.state != "open")
    if shut.state != "open" or stray.state != "value" or len(stray.takes) + len(shut.takes) > 2:
        return 0.0
    a, b = row[shut.a], row[shut.b]
    expected = float(table.slope[a, b] @ f.ohm) + f.lead_ohm
    sigma = math.hypot(stray.sigma, 2 * COIL_SPREAD * expected)
    off = (stray.ohm - expected) / sigma
    cells = len(evidence.ohms) * (len(evidence.ohms) - 1) / 2
    apart = math.log(P_FALSE_OPEN) + math.log(P_STRAY) - math.log(stray.size * LOG_RANGE)
    together = -0.5 * off**2 - math.log(sigma * math.sqrt(2 * math.pi))
    return max(math.log(P_EXCHANGED / cells) + together - apart, 0.0)
