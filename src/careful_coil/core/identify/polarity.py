"""What battery kicks add: which of the placements that ohms cannot part are still true.

Halves of adjacent poles show hardly anything, of either sign.
"""

import math
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


@cache
def expected(network: Network, coupling: str, kick: Kick) -> tuple[float, ...]:
    """Return the odds of each of KICKS for a kick between lead numbers of the network."""
    a, b, c, d = (network.leads[k] for k in kick)
    if coupling == "adjacent" and _between_halves(network, (a, b), (c, d)):
        return tuple(_FAINT)
    mutual = network.mutual(HALF_SAME_PHASE, HALF_OTHER_PHASE)
    place = kick_class(network.kick_ratio((a, b), (c, d), mutual))
    odds = np.full(len(KICKS), 0.01)
    for near in (place - 1, place + 1):
        if 0 <= near < len(KICKS):
            odds[near] = P_KICK_NEXT
    odds[place] = 0.0
    odds[place] = 1.0 - odds.sum()
    return tuple(odds)


def _between_halves(network: Network, source: tuple[str, str], sense: tuple[str, str]) -> bool:
    """Whether both paths run through half windings only."""
    passed = (np.abs(network.shares(*source)) > 1e-9) | (np.abs(network.shares(*sense)) > 1e-9)
    return all(c.half for c, p in zip(network.coils, passed, strict=True) if p)


def weigh_kicks(
    network: Network,
    coupling: str,
    roles: Sequence[int],
    kicks: Sequence[tuple[int, int, int, int, str]],
) -> tuple[float, bool]:
    """Return the log likelihood of the kicks under a full placement, and whether all of them fit."""
    log, fits = 0.0, True
    for a, b, c, d, value in kicks:
        at = (roles[a], roles[b], roles[c], roles[d])
        if not (_belong(network, at[0], at[1]) and _belong(network, at[2], at[3])):
            log, fits = log + math.log(0.01), False
            continue
        odds = expected(network, coupling, at)
        place = KICKS.index(value)
        log += math.log(odds[place])
        fits &= odds[place] > FITTING_ODDS
    return log, fits


def _belong(network: Network, a: int, b: int) -> bool:
    return any(a in p and b in p for p in parts(network))


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
