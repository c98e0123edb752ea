"""What battery kicks add: which of the placements that ohms cannot part are still true.

Halves of adjacent poles show hardly anything, of either sign.
"""

import math
from collections.abc import Sequence
from functools import cache

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.evidence import USUALLY_ADJACENT, KickTest, SeriesTest
from careful_coil.core.identify.models import Model
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.kick import KICKS, coupled, kick_class
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.symmetry import parts

Floats = NDArray[np.float64]
P_KICK_RIGHT, P_KICK_NEXT = 0.94, 0.02
AGAIN_KICK = 0.3  # of its weight again, where a kick was taken twice
FITTING_ODDS = 0.1  # a kick less likely than this does not fit the world
SERIES_SIGMA = 0.06  # of the volts applied
# how much of a kick's ratio low volts carry over, with the odds: leakage, and a rotor out of the bore
LINKED = ((1.0, 0.6), (0.78, 0.25), (0.52, 0.15))
P_SERIES_ODD, SERIES_RANGE = 0.02, 2.5
_FAINT = np.array([0.005, 0.19, 0.61, 0.19, 0.005])  # halves of adjacent poles: nearly nothing

Kick = tuple[int, int, int, int]


def couplings(model: Model, adjacent: float = USUALLY_ADJACENT) -> dict[Halves, float]:
    """Return the ways the halves may couple, with their odds; `adjacent` that of adjacent poles."""
    if model.arrangement.halves != "alternate":
        return {model.arrangement.halves: 1.0}
    if not any(c.half for c in model.core.coils):
        return {"alternate": 1.0}
    shares: dict[Halves, float] = {"alternate": 1.0 - adjacent, "adjacent": adjacent}
    return {halves: share for halves, share in shares.items() if share > 0}


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
def _shares(network: Network) -> Floats:
    """Return the share of each coil in the path between any two leads: (leads², coils)."""
    ends = [(a, b) for a in network.leads for b in network.leads]
    none = np.zeros(len(network.coils))
    return np.array([network.shares(a, b) if a != b else none for a, b in ends])


@cache
def ratios(network: Network, coupling: Halves) -> Floats:
    """Return sense volts over source volts, shape (leads,)×4: source +, source –, sense +, sense –.

    0 where a pair does not conduct.
    """
    count, shares = len(network.leads), _shares(network)
    mutual = coupled(network, coupling)
    own = np.einsum("sc,cd,sd->s", shares, mutual, shares)
    ratio = (shares @ mutual @ shares.T) / np.where(own > 1e-12, own, 1.0)[:, None]
    return np.asarray(ratio.reshape((count,) * 4))


@cache
def expected(network: Network, coupling: Halves) -> NDArray[np.int8]:
    """Return what every kick should show, shape as `ratios`.

    A row of `ODDS`; `ASTRAY` where a pair does not conduct.
    """
    count = len(network.leads)
    passed = np.abs(_shares(network)) > 1e-9
    plain: Halves = "alternate" if coupling == "adjacent" else coupling
    ratio = ratios(network, plain).reshape(count**2, count**2)
    found = np.vectorize(kick_class, otypes=[np.int8])(ratio)
    if coupling == "adjacent":
        halves = np.array([bool(c.half) for c in network.coils])
        only = np.asarray((passed & ~halves).sum(axis=1) == 0)
        found[only[:, None] & only[None, :]] = FAINT
    none = np.asarray(passed.sum(axis=1) == 0)
    found[none[:, None] | none[None, :]] = ASTRAY
    return np.asarray(found.reshape((count,) * 4))


def weigh_kicks(
    network: Network,
    coupling: Halves,
    roles: NDArray[np.int64],
    kicks: Sequence[KickTest],
) -> tuple[Floats, NDArray[np.int64]]:
    """Return the log likelihood of the kicks under full placements, and how many do not fit.

    `roles` (worlds, tags); both results (worlds,). A kick taken again and the same is no slip of the
    hand any more, but a meter or battery the wrong way round still is.
    """
    log, misses = np.zeros(len(roles)), np.zeros(len(roles), dtype=np.int64)
    for kick in kicks:
        odds, missed = _kick_odds(network, coupling, roles, kick)
        log += np.log(odds) * (1 + AGAIN_KICK * (kick.takes > 1))
        misses += missed
    return log, misses


def missed_kicks(
    network: Network, coupling: Halves, roles: Sequence[int], kicks: Sequence[KickTest]
) -> list[KickTest]:
    """Return the kicks that one naming says should have shown something else."""
    row = np.array([roles])
    return [k for k in kicks if bool(_kick_odds(network, coupling, row, k)[1][0])]


def _kick_odds(
    network: Network, coupling: Halves, roles: NDArray[np.int64], kick: KickTest
) -> tuple[Floats, NDArray[np.bool_]]:
    a, b, c, d = kick.leads
    shown = expected(network, coupling)[roles[:, a], roles[:, b], roles[:, c], roles[:, d]]
    odds = ODDS[shown, KICKS.index(kick.value)]
    return odds, (odds <= FITTING_ODDS) | (shown == ASTRAY)


def weigh_series(
    network: Network, coupling: Halves, roles: NDArray[np.int64], tests: Sequence[SeriesTest]
) -> tuple[Floats, NDArray[np.bool_]]:
    """Return the log likelihood of series tests under full placements, and whether all of them fit."""
    log, fits = np.zeros(len(roles)), np.ones(len(roles), dtype=bool)
    for test in tests:
        own, led, joined = _series(network, coupling, roles, test)
        near, off = np.zeros(len(roles)), np.full(len(roles), np.inf)
        for share, odds in LINKED:
            apart = np.abs(test.ratio - np.abs(own + share * led))
            near += odds * np.exp(-0.5 * (apart / SERIES_SIGMA) ** 2)
            off = np.minimum(off, apart)
        near /= SERIES_SIGMA * math.sqrt(2 * math.pi)
        log += np.log((1 - P_SERIES_ODD) * near * joined + P_SERIES_ODD / SERIES_RANGE)
        fits &= joined & (off < 3 * SERIES_SIGMA)
    return log, fits


def _series(
    network: Network, coupling: Halves, roles: NDArray[np.int64], test: SeriesTest
) -> tuple[Floats, Floats, NDArray[np.bool_]]:
    """Return for each world the volts of the source's own path and those led over, over those applied,
    and whether the tie joins the two paths."""
    table, together = ratios(network, coupling), np.isfinite(network.resistance())
    a, b, x, y, one, two = (roles[:, k] for k in (*test.source, *test.across, *test.tie))
    swap = together[x, two] & ~together[x, one]
    near, far = np.where(swap, two, one), np.where(swap, one, two)
    joined = np.asarray(together[x, near] & together[y, far])
    return table[a, b, x, near], table[a, b, far, y], joined


def kick_pairs(model: Model, roles: Sequence[int]) -> list[Kick]:
    """Return the kicks worth trying, as tag numbers: between two separate parts of the winding."""
    tag = {role: k for k, role in enumerate(roles)}
    own = set(range(len(model.core.leads)))
    whole = [p for p in parts(model.network) if own.issuperset(p)]
    pairs = [
        (n, *sorted((tag[p[i]], tag[p[j]])))
        for n, p in enumerate(whole)
        for i in range(len(p))
        for j in range(i + 1, len(p))
    ]
    return sorted((a, b, c, d) for n, a, b in pairs for m, c, d in pairs if n != m)
