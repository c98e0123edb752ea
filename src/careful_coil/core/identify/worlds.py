"""Worlds: full placements that still fit, what holds in all of them, and what is only a name."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.hooked import lean_on, weigh_runs
from careful_coil.core.identify.marks import Marks, chances, of_worlds
from careful_coil.core.identify.models import Model, role_word
from careful_coil.core.identify.polarity import couplings, weigh_kicks, weigh_series
from careful_coil.core.identify.result import Certainty
from careful_coil.core.identify.weigh import Weighed
from careful_coil.core.winding.coupling import Halves

MOST_REFINED = 150  # beyond this many placements nothing is claimed and kicks wait
MOST_WORLDS = 4000  # nor beyond this many worlds of them
LIGHTEST = 1e-5  # worlds lighter than this share of the whole are left out
LEANING_FROM = 0.6
RAREST = 8e-4  # worlds left out weigh no more than this together
ONE_KICK_WRONG = 0.004  # of all: a naming with a kick wrong is not ruled out above this
FLAWED_FROM = 0.05  # of all: a placement with a bad reading is not ruled out above this


@dataclass(frozen=True, slots=True, eq=False)
class World:
    """A placement with every end named. `misses` how many kicks and runs it says are wrong.

    `weight` with the marks on the leads, `bare` without: a mark leans, and rules nothing out.
    """

    placed: Weighed
    roles: tuple[int, ...]
    coupling: Halves
    weight: float
    misses: int
    bare: float = 0.0  # its weight without what is printed on the leads


def few_enough(weighed: Sequence[Weighed]) -> bool:
    """Whether the worlds of these placements can be looked at one by one."""
    if len(weighed) > MOST_REFINED:
        return False
    count = sum(w.model.unseen_count * len(couplings(w.model)) for w in weighed if w.model)
    return count <= MOST_WORLDS


def worlds_of(weighed: Sequence[Weighed], evidence: Evidence) -> list[World]:
    """Return the worlds of the placements given, heaviest first, weights adding up to one."""
    found: list[tuple[float, Weighed, tuple[int, ...], Halves, int, float]] = []
    for w in weighed:
        if w.model is None:
            found.append((w.log_weight, w, w.roles, "alternate", 1, w.marks))
            continue
        roles = np.array(w.model.unseen)[:, list(w.roles)]  # (states, tags)
        marks = of_worlds(w.model, roles, evidence.printed)
        for coupling, share in couplings(w.model, evidence.leanings.adjacent).items():
            network = w.model.network
            log, misses = weigh_kicks(network, coupling, roles, evidence.kicks)
            more, fit = weigh_series(network, coupling, roles, evidence.serieses)
            log, misses = log + more, misses + ~fit
            more, fit = weigh_runs(w.model, coupling, roles, log, evidence.runs)
            log, misses = log + more + lean_on(w.model, roles, evidence), misses + ~fit
            log += w.log_weight + math.log(share / len(roles))
            found += [
                (float(one), w, tuple(row), coupling, int(off), float(m))
                for one, row, off, m in zip(log, roles.tolist(), misses, marks, strict=True)
            ]
    bare, whole = (shares([f[0] + k * f[5] for f in found]) for k in (0, 1))
    worlds = [
        World(w, r, c, weight, off, own)
        for (_, w, r, c, off, _), weight, own in zip(found, whole, bare, strict=True)
    ]
    worlds.sort(key=lambda w: (-w.weight, w.roles))
    return worlds


def shares(logs: Sequence[float]) -> list[float]:
    """Return the shares that go with logarithms of weights; they add up to one."""
    array = np.array(logs)
    odds = np.exp(array - array.max())
    return [float(x) for x in odds / odds.sum()]


def standing(worlds: Sequence[World]) -> list[World]:
    """Return the worlds that fit: no more flaws than the heaviest known one, no more kicks wrong.

    Placements that must call a reading wrong, and namings that must call a kick wrong, count too while
    they weigh something: one kick alone may have been taken the wrong way round.
    """
    known = [w for w in worlds if w.placed.model is not None and not w.placed.model.missing]
    if not known:
        return []
    best = known[0]
    flawed: dict[int, float] = {}
    for w in known:
        flawed[id(w.placed)] = flawed.get(id(w.placed), 0.0) + w.bare
    fit = [
        w
        for w in known
        if (w.placed.flaws <= best.placed.flaws or flawed[id(w.placed)] >= FLAWED_FROM)
        and (w.misses <= best.misses or w.bare >= ONE_KICK_WRONG)
        and w.bare >= LIGHTEST
    ]
    return _without_the_rarest(fit)


def _without_the_rarest(worlds: Sequence[World]) -> list[World]:
    """Return them without those that weigh next to nothing all together; the order stays."""
    left, rare = 0.0, set[int]()
    for w in sorted(worlds[1:], key=lambda w: w.bare):
        left += w.bare
        if left > RAREST:
            break
        rare.add(id(w))
    return [w for w in worlds if id(w) not in rare]


@dataclass(frozen=True, slots=True, eq=False)
class Sorted:
    """Worlds of the heaviest one's winding as arrays: weights that add up to one, roles, couplings."""

    model: Model
    weight: NDArray[np.float64]  # (worlds,)
    roles: NDArray[np.int64]  # (worlds, tags)
    couplings: tuple[Halves, ...]
    coupling: NDArray[np.int64]  # (worlds,) places in `couplings`
    marked: NDArray[np.float64]  # (worlds,) weights with what is printed on the leads

    @classmethod
    def of(cls, worlds: Sequence[World]) -> "Sorted | None":
        """Return them, None where kicks tell nothing of the heaviest one's winding."""
        model = worlds[0].placed.model
        if model is None or len(model.unseen) < 2:
            return None
        same = [w for w in worlds if w.placed.model is model]
        weight = np.array([w.bare for w in same])  # a mark is no reason not to ask
        ways = tuple(sorted({w.coupling for w in same}))
        return cls(
            model,
            weight / weight.sum(),
            np.array([w.roles for w in same]),
            ways,
            np.array([ways.index(w.coupling) for w in same]),
            np.array([w.weight for w in same]) / max(sum(w.weight for w in same), 1e-300),
        )


def best_names(worlds: Sequence[World], marks: Marks = ()) -> tuple[World, tuple[str, ...]]:
    """Return the heaviest world and its names: of equal choices the one that agrees with the marks.

    Else the one that numbers tags in order.
    """
    top = worlds[0]
    known = top.placed.model
    if known is None:
        return top, ()
    equal = [w for w in worlds if w.placed is top.placed and w.weight >= top.weight * (1 - 1e-9)]
    group = np.array(known.symmetries)
    roles = np.array([w.roles for w in equal])
    orders = group[:, roles].transpose(1, 0, 2).reshape(-1, roles.shape[1])
    agree = chances(known, marks)[np.arange(roles.shape[1])[None, :], orders].sum(axis=1)
    first = int(np.lexsort((*orders.T[::-1], -np.round(agree, 6)))[0])
    leads = known.network.leads
    return equal[first // len(group)], tuple(leads[k] for k in orders[first])


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
        models = [w.placed.model for w in worlds if w.placed.model]
        most = max((len(m.symmetries) for m in models), default=0)
        codes = np.full((len(models), most, tags), -1, dtype=np.int64)
        real = np.zeros((len(models), most), dtype=bool)
        for model in dict.fromkeys(models):
            words = [role_word(lead) for lead in model.network.leads]
            own = np.array([code_of.setdefault(word, len(code_of)) for word in words])
            table = own[np.array(model.symmetries)]  # (symmetries, leads)
            here = [k for k, m in enumerate(models) if m is model]
            roles = np.array([worlds[k].roles for k in here])
            codes[np.ix_(here, range(len(table)))] = table[:, roles].transpose(1, 0, 2)
            real[np.ix_(here, range(len(table)))] = True
        return cls(tuple(worlds), codes, real, code_of)

    def certainties(self, world: World, names: tuple[str, ...]) -> tuple[Certainty, ...]:
        """Return for each tag how sure its name is, over all the worlds that fit.

        A name is kept when every world has a symmetric relabelling that gives it together with
        all names kept so far; it is proven when no symmetry of its own world would change it.
        """
        alive, kept = self.real, set()
        wanted = [self.code_of[role_word(n)] for n in names]
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
