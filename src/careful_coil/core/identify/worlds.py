"""Worlds: full placements that still fit, what holds in all of them, and what is only a name."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.polarity import couplings, unseen_by_ohms, weigh_kicks
from careful_coil.core.identify.result import Certainty
from careful_coil.core.identify.weigh import Weighed
from careful_coil.core.winding.symmetry import kick_symmetries

MOST_REFINED = 60  # beyond this many placements nothing is claimed and kicks wait
LIGHTEST = 1e-5  # worlds lighter than this share of the whole are left out
LEANING_FROM = 0.6


@dataclass(frozen=True, slots=True, eq=False)
class World:
    """A placement with every end named. `fits`: no reading beyond the best one's suspects is off."""

    placed: Weighed
    roles: tuple[int, ...]
    coupling: str
    weight: float
    fits: bool

    def names(self, relabelling: Sequence[int]) -> tuple[str, ...]:
        """Return the lead name of each tag under one of the symmetries."""
        known = self.placed.arrangement
        if known is None:
            return ()
        leads = known.network.leads
        return tuple(leads[relabelling[r]] for r in self.roles)


def worlds_of(weighed: Sequence[Weighed], evidence: Evidence) -> list[World]:
    """Return the worlds of the placements given, heaviest first, weights adding up to one."""
    found: list[tuple[float, Weighed, tuple[int, ...], str, bool]] = []
    for w in weighed:
        if w.arrangement is None:
            found.append((w.log_weight, w, w.roles, "", False))
            continue
        network = w.arrangement.network
        states = unseen_by_ohms(network)
        for coupling, share in couplings(network).items():
            for state in states:
                roles = tuple(state[r] for r in w.roles)
                log, fits = weigh_kicks(network, coupling, roles, evidence.kicks)
                log += w.log_weight + math.log(share / len(states))
                found.append((log, w, roles, coupling, fits))
    top = max(f[0] for f in found)
    total = sum(math.exp(f[0] - top) for f in found)
    worlds = [World(w, r, c, math.exp(log - top) / total, ok) for log, w, r, c, ok in found]
    worlds.sort(key=lambda w: (-w.weight, w.roles))
    return worlds


def standing(worlds: Sequence[World]) -> list[World]:
    """Return the worlds that fit: no more flaws than the heaviest known one, every kick right."""
    known = [w for w in worlds if w.placed.arrangement is not None]
    if not known:
        return []
    best = known[0]
    return [
        w
        for w in known
        if w.placed.flaws <= best.placed.flaws
        and (w.fits or not best.fits)
        and w.weight >= LIGHTEST
    ]


def best_names(worlds: Sequence[World]) -> tuple[World, tuple[str, ...]]:
    """Return the heaviest world and its names: of equal choices the one that numbers tags in order."""
    top = worlds[0]
    equal = [w for w in worlds if w.placed is top.placed and w.weight >= top.weight * (1 - 1e-9)]
    options = []
    for world in equal:
        known = world.placed.arrangement
        if known is not None:
            for k in kick_symmetries(known.network):
                order = tuple(k[r] for r in world.roles)
                options.append((order, world, world.names(k)))
    _, world, names = min(options, key=lambda o: o[0])
    return world, names


@dataclass(frozen=True, slots=True, eq=False)
class Namings:
    """Every name every world could give every tag: codes of shape (worlds, symmetries, tags)."""

    worlds: tuple[World, ...]
    codes: NDArray[np.int64]
    real: NDArray[np.bool_]  # (worlds, symmetries): groups differ in size
    code_of: dict[str, int]

    @classmethod
    def of(cls, worlds: Sequence[World]) -> "Namings":
        """Lay the names of all worlds out."""
        code_of: dict[str, int] = {}
        tags = len(worlds[0].roles) if worlds else 0
        networks = [w.placed.arrangement.network for w in worlds if w.placed.arrangement]
        most = max((len(kick_symmetries(n)) for n in networks), default=0)
        codes = np.full((len(networks), most, tags), -1, dtype=np.int64)
        real = np.zeros((len(networks), most), dtype=bool)
        for k, (world, network) in enumerate(zip(worlds, networks, strict=True)):
            own = np.array([code_of.setdefault(lead, len(code_of)) for lead in network.leads])
            group = np.array(kick_symmetries(network))
            codes[k, : len(group)] = own[group[:, list(world.roles)]]
            real[k, : len(group)] = True
        return cls(tuple(worlds), codes, real, code_of)

    def certainties(self, world: World, names: tuple[str, ...]) -> tuple[Certainty, ...]:
        """Return for each tag how sure its name is, over all the worlds that fit.

        A name is kept when every world has a symmetric relabelling that gives it together with
        all names kept so far; it is proven when no symmetry of its own world would change it.
        """
        alive, kept = self.real, set()
        wanted = [self.code_of[n] for n in names]
        for tag, code in enumerate(wanted):
            narrowed = alive & (self.codes[:, :, tag] == code)
            if narrowed.any(axis=1).all():
                alive = narrowed
                kept.add(tag)
        weight = np.array([w.weight for w in self.worlds])
        own = self.codes[self.worlds.index(world)][self.real[self.worlds.index(world)]]
        found: list[Certainty] = []
        for tag, code in enumerate(wanted):
            if tag in kept:
                found.append("proven" if np.all(own[:, tag] == code) else "convention")
                continue
            narrowed = alive & (self.codes[:, :, tag] == code)
            likely = weight[narrowed.any(axis=1)].sum() >= LEANING_FROM * weight.sum()
            if likely:
                alive = narrowed  # later leanings must agree with this one
            found.append("leaning" if likely else "open")
        return tuple(found)
