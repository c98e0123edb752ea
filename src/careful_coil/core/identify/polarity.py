"""What battery kicks add: which of the placements that ohms cannot part are still true.

Halves of adjacent poles show hardly anything, of either sign.
"""

from collections.abc import Sequence
from functools import cache

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.models import Model
from careful_coil.core.winding.kick import (
    HALF_OTHER_PHASE,
    HALF_SAME_PHASE,
    KICKS,
    kick_class,
)
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.symmetry import parts

Floats = NDArray[np.float64]
P_KICK_RIGHT, P_KICK_NEXT = 0.94, 0.02
FITTING_ODDS = 0.1  # a kick less likely than this does not fit the world
COUPLINGS = {"alternate": 0.85, "adjacent": 0.15}
_FAINT = np.array([0.005, 0.19, 0.61, 0.19, 0.005])  # halves of adjacent poles: nearly nothing

Kick = tuple[int, int, int, int]


def couplings(model: Model) -> dict[str, float]:
    """Return the ways the halves may couple, with their odds."""
    return COUPLINGS if any(c.half for c in model.core.coils) else {"alternate": 1.0}


# odds of each of KICKS by what is expected: one of KICKS, hardly anything, or two pairs not joined
FAINT, ASTRAY = len(KICKS), len(KICKS) + 1


def _odds() -> Floats:
    place = np.arange(len(KICKS))
    off = np.abs(place[:, None] - place[None, :])
    odds = np.where(off == 1, P_KICK_NEXT, 0.01)
    odds[place, place] = 0.0
    odds[place, place] = 1.0 - odds.sum(axis=1)
    return np.vstack([odds, _FAINT, np.full(len(KICKS), 0.01)])


ODDS = _odds()  # (what is expected, what is seen)


@cache
def expected(network: Network, coupling: str) -> NDArray[np.int8]:
    """Return what every kick should show, shape (leads,)×4: source +, source –, sense +, sense –.

    A row of `ODDS`; `ASTRAY` where a pair does not conduct.
    """
    count = len(network.leads)
    ends = [(a, b) for a in network.leads for b in network.leads]
    shares = np.array(
        [network.shares(a, b) if a != b else 0 * network.shares(a, b) for a, b in ends]
    )
    passed = np.abs(shares) > 1e-9
    mutual = network.mutual(HALF_SAME_PHASE, HALF_OTHER_PHASE)
    own = np.einsum("sc,cd,sd->s", shares, mutual, shares)
    ratio = (shares @ mutual @ shares.T) / np.where(own > 0, own, 1.0)[:, None]
    found = np.vectorize(kick_class, otypes=[np.int8])(ratio)
    if coupling == "adjacent":
        halves = np.array([bool(c.half) for c in network.coils])
        only = ~(passed & ~halves).any(axis=1)
        found[only[:, None] & only[None, :]] = FAINT
    none = ~passed.any(axis=1)
    found[none[:, None] | none[None, :]] = ASTRAY
    return np.asarray(found.reshape(count, count, count, count))


def weigh_kicks(
    network: Network,
    coupling: str,
    roles: NDArray[np.int64],
    kicks: Sequence[tuple[int, int, int, int, str]],
) -> tuple[Floats, NDArray[np.bool_]]:
    """Return the log likelihood of the kicks under full placements, and whether all of them fit.

    `roles` (worlds, tags); both results (worlds,).
    """
    log, fits = np.zeros(len(roles)), np.ones(len(roles), dtype=bool)
    if not kicks:
        return log, fits
    table = expected(network, coupling)
    for a, b, c, d, value in kicks:
        shown = table[roles[:, a], roles[:, b], roles[:, c], roles[:, d]]
        odds = ODDS[shown, KICKS.index(value)]
        log += np.log(odds)
        fits &= (odds > FITTING_ODDS) & (shown != ASTRAY)
    return log, fits


def kick_pairs(model: Model, roles: Sequence[int]) -> list[Kick]:
    """Return the kicks worth trying, as tag numbers: between two separate parts of the winding."""
    tag = {role: k for k, role in enumerate(roles)}
    pairs = [
        (n, *sorted((tag[p[i]], tag[p[j]])))
        for n, p in enumerate(parts(model.core))
        for i in range(len(p))
        for j in range(i + 1, len(p))
    ]
    return sorted((a, b, c, d) for n, a, b in pairs for m, c, d in pairs if n != m)
