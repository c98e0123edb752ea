"""What is printed on leads, as evidence: which winding it means, and how likely by it a naming is.

A mark is compared by what it means: T1, U1, A and U can be the same lead. It weighs, but proves nothing
by itself: marks are exchanged, worn, or another motor's.
"""

import math
from collections.abc import Iterator, Mapping
from functools import lru_cache
from itertools import permutations

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.extras import USES
from careful_coil.core.identify.models import PRIOR, Model
from careful_coil.core.winding.arrangements import ARRANGEMENTS
from careful_coil.core.winding.markings import leads_of
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.symmetry import kick_symmetries, part_relabellings, parts

Floats = NDArray[np.float64]
Marks = tuple[tuple[int, str], ...]  # leads by number, and what is printed on each

P_RIGHT = 0.95  # of marks that can be read: the rest was renewed, exchanged, misread
P_OTHER_MOTOR = 0.02  # the whole set says nothing: leads renewed from another motor


def chances(model: Model, marks: Marks) -> Floats:
    """Return the log likelihood of each lead's mark for every name it may have: (leads, names).

    What a lead beside the winding is said to be counts as its mark. Leads without a mark, and marks
    that mean nothing anywhere, count nothing.
    """
    names = model.network.leads
    log = np.zeros((len(names), len(names)))
    wrong = math.log((1 - P_RIGHT) / max(len(names) - 1, 1))
    for lead, mark in marks:
        meant = set(leads_of(model.slug, mark, model.core.leads))
        if mark in USES:
            meant = set(names) - set(model.core.leads)
        if meant or mark in USES or is_mark(mark):
            log[lead] = [math.log(P_RIGHT) if n in meant else wrong for n in names]
    return log


@lru_cache(maxsize=512)
def is_mark(mark: str) -> bool:
    """Whether a print means a lead of some winding known."""
    return any(leads_of(slug, mark, ARRANGEMENTS[slug].inside(v).leads) for slug, v in PRIOR)


def of_placements(model: Model, rows: NDArray[np.int64], marks: Marks) -> Floats:
    """Return the log likelihood of the marks for placements, shape (placements,).

    The mean over every naming that ohms cannot tell from it: of each part laid on each like part, and
    over all ways to lay them (a permanent, by subsets).
    """
    if not marks:
        return np.zeros(len(rows))
    network = model.network
    chance = chances(model, marks)
    groups = parts(network)
    where = np.argsort(rows, axis=1)  # (placements, names): the lead that has a name
    count = len(groups)
    weight = np.full((len(rows), count, count), -np.inf)
    ways = np.zeros((count, count))
    for a, b in np.ndindex(count, count):
        images = part_relabellings(network, a, b)
        ways[a, b] = len(images)
        if images:
            own = where[:, list(groups[a])]  # (placements, leads of the part)
            log = chance[own[:, None, :], np.array(images)[None, :, :]].sum(axis=2)
            weight[:, a, b] = np.logaddexp.reduce(log, axis=1)
    every = _permanent(np.log(np.maximum(ways, 1e-300))[None])[0]
    return _or_another(_permanent(weight) - every, len(marks), len(network.leads))


def _permanent(log: Floats) -> Floats:
    """Return the logarithm of the permanents of matrices given by logarithms, shape (n, k, k)."""
    count = log.shape[1]
    sums = {0: np.zeros(len(log))}
    for row in range(count):
        grown: dict[int, Floats] = {}
        for used, own in sums.items():
            for column in range(count):
                bit = 1 << column
                if used & bit or not np.isfinite(log[:, row, column]).any():
                    continue
                more = own + log[:, row, column]
                mask = used | bit
                grown[mask] = np.logaddexp(grown[mask], more) if mask in grown else more
        sums = grown
    return sums[(1 << count) - 1]


def of_worlds(model: Model, roles: NDArray[np.int64], marks: Marks) -> Floats:
    """Return the log likelihood of the marks for full placements, shape (worlds,).

    The mean over the namings that nothing measured can tell.
    """
    if not marks:
        return np.zeros(len(roles))
    chance = chances(model, marks)
    images = np.array(model.symmetries)[:, roles]  # (symmetries, worlds, leads)
    log = chance[np.arange(roles.shape[1])[None, None, :], images].sum(axis=2)
    mean = np.logaddexp.reduce(log, axis=0) - math.log(len(images))
    return _or_another(mean, len(marks), len(model.network.leads))


def of_nothing(leads: int, marked: int) -> float:
    """Return the log likelihood of marks that fall as they will, so many of the leads being marked."""
    return math.lgamma(leads - marked + 1) - math.lgamma(leads + 1)


def _or_another(log: Floats, marked: int, leads: int) -> Floats:
    """Return it with the chance that the marks are another motor's."""
    fall = math.log(P_OTHER_MOTOR) + of_nothing(leads, marked)
    return np.asarray(np.logaddexp(math.log(1 - P_OTHER_MOTOR) + log, fall))


def windings_of(marks: Mapping[str, str]) -> Iterator[tuple[str, str, dict[str, str]]]:
    """Yield arrangement, variant and lead names by tag of every winding that carries these marks.

    Every lead has a mark, and every lead of the winding is there once.
    """
    for slug, known in ARRANGEMENTS.items():
        for variant in ("", *known.variants):
            names = _names(marks, slug, known.inside(variant).leads)
            if names is not None:
                yield slug, variant, names


def _names(marks: Mapping[str, str], slug: str, leads: tuple[str, ...]) -> dict[str, str] | None:
    """Return lead names by tag where every lead has one and all are different."""
    found: dict[str, str] = {}
    for tag, mark in marks.items():
        fits = leads_of(slug, mark, leads) if mark.strip() else ()
        if len(fits) != 1:
            return None
        found[tag] = fits[0]
    return found if sorted(found.values()) == sorted(leads) else None


def says(slug: str, mark: str, lead: str, leads: tuple[str, ...]) -> bool:
    """Whether a mark means this lead, or means nothing on any winding known."""
    return lead in leads_of(slug, mark, leads) or not is_mark(mark)


def nearest(
    network: Network, names: Mapping[str, str], marks: Mapping[str, str], slug: str, kicked: bool
) -> dict[str, str]:
    """Return names by tag, as right as `names`, that agree with most marks.

    `kicked`: kicks have shown the senses; else whatever ohms cannot tell is free.
    """
    meant = {t: set(leads_of(slug, m, network.leads)) for t, m in marks.items() if t in names}
    if kicked:
        number = {lead: k for k, lead in enumerate(network.leads)}
        options = [
            {t: network.leads[g[number[n]]] for t, n in names.items()}
            for g in kick_symmetries(network)
        ]
        return max(options, key=lambda o: _agreeing(o, meant))
    return _nearest_by_ohms(network, names, meant)


def _agreeing(names: Mapping[str, str], meant: Mapping[str, set[str]]) -> int:
    return sum(names[t] in m for t, m in meant.items())


def _nearest_by_ohms(
    network: Network, names: Mapping[str, str], meant: Mapping[str, set[str]]
) -> dict[str, str]:
    """Return it where every part may be laid on every like part: the best of all ways to, for parts are few."""
    tag = {n: t for t, n in names.items()}
    groups = parts(network)
    best: dict[tuple[int, int], dict[str, str]] = {}
    cost = np.full((len(groups), len(groups)), 1e6)
    for a, b in np.ndindex(cost.shape):
        for image in part_relabellings(network, a, b):
            laid = {
                tag[network.leads[x]]: network.leads[y]
                for x, y in zip(groups[a], image, strict=True)
            }
            gain = _agreeing(laid, {t: m for t, m in meant.items() if t in laid})
            if -gain < cost[a, b]:
                cost[a, b], best[a, b] = -gain, laid
    found: dict[str, str] = {}
    ways = np.array(list(permutations(range(len(groups)))))
    onto = ways[cost[np.arange(len(groups)), ways].sum(axis=1).argmin()]
    for a, b in enumerate(onto):
        found |= best[a, int(b)]
    return {t: found[t] for t in names}
