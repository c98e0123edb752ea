"""Which leads belong together: the odds of every grouping, without listing the groupings.

A grouping is an exact cover of the leads by blocks. The weight of a cover is the product of its
blocks' weights, so sums over all covers are dynamic programming over subsets of leads, and the odds of
a block are its weight times the sum over covers of the rest. Kinds of blocks: p a coil pair and y, d
triples (star; chain of a nine-lead delta) whose coils share one scale of ohms, q a pair of ohms of its
own, bN a connected block of N leads, 1 a lead on its own. The shared scale is integrated on a grid laid
where readings are.
"""

import heapq
import itertools
import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from careful_coil.core.identify.blocks import (
    DEAD,
    MANY_LEADS,
    Floats,
    Weights,
    only_pairs,
    weights_of,
)
from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.lay import bits, sets_of, size_of
from careful_coil.core.identify.models import compositions

RAREST = 5e-4  # sets of blocks less common are left out
RARE_AT_FIRST = 0.01  # and these too, until half of many leads are beyond doubt
VERY_MANY, RARE_OF_VERY_MANY = 13, 0.3  # of so many leads only the commonest sets, until then
NEGLIGIBLE = 1e-5  # of all: what adds nothing to the odds of a pair
LEAST_ODDS = 2e-5  # groupings less likely are not listed
MOST_LEAVES = 400
MOST_OPENED = 500  # covers begun; where more would be wanted there are too many groupings to list
LEAST_LEAVES, BEAM = 5, 8


@dataclass(frozen=True, slots=True)
class Leaf:
    """One grouping with its odds; `blocks` as (kind, lead numbers)."""

    blocks: tuple[tuple[str, tuple[int, ...]], ...]
    odds: float

    @property
    def groups(self) -> tuple[tuple[int, ...], ...]:
        """Return the groups of leads, lone leads too, by their first lead."""
        return tuple(sorted(b for _, b in self.blocks))


@dataclass(frozen=True, slots=True)
class Cover:
    """The likeliest groupings, the odds they hold together, and of any two leads to conduct."""

    leaves: tuple[Leaf, ...]
    listed: float
    conduct: Floats  # (leads, leads)


@dataclass(frozen=True, slots=True)
class _Node:
    """A cover begun: blocks chosen, their weight by scale, leads left, kinds still to lay."""

    chosen: tuple[tuple[str, int], ...]
    weight: Floats
    left: int
    kinds: tuple[str, ...]
    after: int = -1


def cover(evidence: Evidence) -> Cover:
    """Return the odds of how the leads fall into groups, over all that so many leads can be."""
    count = len(evidence.tags)
    w = weights_of(evidence)
    full = (1 << count) - 1
    vague = count >= MANY_LEADS and 2 * w.bound.bit_count() < count
    conduct = np.zeros((count, count))
    total, begun = 0.0, []
    for blocks, prior in compositions(count, evidence.phases, evidence.leanings.odds).items():
        if prior < (_rare(count) if vague else RAREST):
            continue
        weight = prior / _ways(blocks) * (w.grid if any(b in "pyd" for b in blocks) else w.even)
        whole = float(weight @ w.rest(full, blocks))
        if whole <= 0:
            continue
        total += whole
        begun.append((whole, _Node((), weight, full, blocks)))
    if total <= 0:
        return Cover((), 0.0, conduct)
    for whole, node in begun:
        if whole >= NEGLIGIBLE * total:
            _add_conduct(w, node, conduct)
    leaves, listed = _leaves(w, begun, total)
    if len(leaves) < LEAST_LEAVES:
        leaves = _beam(w, begun, total)
        listed = sum(leaf.odds for leaf in leaves)
    return Cover(leaves, listed, np.minimum((conduct + conduct.T) / total, 1.0))


def _rare(count: int) -> float:
    """Return how common a set of blocks must be while little is read: the sums of all take too long."""
    return RARE_AT_FIRST if count < VERY_MANY else RARE_OF_VERY_MANY


def _ways(blocks: tuple[str, ...]) -> float:
    """Return how many covers a set of blocks has before anything is read: each is as likely."""
    sizes = [size_of(b) for b in blocks]
    same = math.prod(math.factorial(blocks.count(b)) for b in set(blocks))
    return math.factorial(sum(sizes)) / math.prod(math.factorial(k) for k in sizes) / same


def _grown(w: Weights, node: _Node, least: float) -> Iterator[tuple[float, _Node]]:
    """Yield a cover begun with its next block laid, and what all covers from there weigh.

    Those that weigh no more than `least` are left out.
    """
    for step in w.steps(node.left, node.kinds, node.after):
        own = node.weight * step.weight
        weight = (own * step.after).sum(axis=1)
        for k in np.flatnonzero(weight > least):
            chosen = (*node.chosen, (step.kind, int(step.masks[k])))
            begins = int(step.begins[k])
            yield float(weight[k]), _Node(chosen, own[k], int(step.left[k]), step.kinds, begins)


def _leaf(node: _Node, odds: float) -> Leaf:
    return Leaf(tuple(sorted((k, bits(m)) for k, m in node.chosen)), odds)


def _leaves(
    w: Weights, begun: Sequence[tuple[float, _Node]], total: float
) -> tuple[tuple[Leaf, ...], float]:
    """Return the likeliest groupings in full, best first, and the odds they hold together."""
    order = itertools.count()
    heap = [(-weight, next(order), node) for weight, node in begun]
    heapq.heapify(heap)
    found: list[Leaf] = []
    opened = 0
    while heap and len(found) < MOST_LEAVES and opened < MOST_OPENED:
        negative, _, node = heapq.heappop(heap)
        if -negative < LEAST_ODDS * total:
            break
        if node.left == 0:
            found.append(_leaf(node, -negative / total))
            continue
        opened += 1
        for weight, child in _grown(w, node, LEAST_ODDS * total):
            heapq.heappush(heap, (-weight, next(order), child))
    return tuple(found), sum(leaf.odds for leaf in found)


def _beam(w: Weights, begun: Sequence[tuple[float, _Node]], total: float) -> tuple[Leaf, ...]:
    """Return some of the likeliest groupings where there are far too many to list."""
    order = itertools.count()
    nodes = sorted(((-weight, next(order), node) for weight, node in begun))[:BEAM]
    found: list[Leaf] = []
    while nodes:
        grown: list[tuple[float, int, _Node]] = []
        for negative, _, node in nodes:
            if node.left == 0:
                found.append(_leaf(node, -negative / total))
                continue
            grown += [(-weight, next(order), child) for weight, child in _grown(w, node, 0.0)]
        nodes = heapq.nsmallest(BEAM, grown)
    return tuple(sorted(found, key=lambda leaf: -leaf.odds))


def _add_conduct(w: Weights, start: _Node, conduct: Floats) -> None:
    """Add the odds of every block, unnormed, to the leads it joins: the sums run backwards."""
    first = (start.left, start.kinds, -1)
    outside = {first: start.weight}
    order = [first]
    paired: dict[tuple[str, ...], Floats] = {}  # by kinds left: (sets, scales)
    for state in order:
        left, kinds, after = state
        here = outside[state]
        if only_pairs(kinds):
            _outside(w, paired, kinds)[left] += here
            continue
        for step in w.steps(left, kinds, after):
            own = here * step.weight
            odds = (own * step.after).sum(axis=1)
            sets = sets_of(w.count, size_of(step.kind))
            place = sets.place[step.masks]
            one, two = sets.one[place], sets.two[place]
            np.add.at(conduct, (one, two), np.repeat(odds[:, None], one.shape[1], axis=1))
            if only_pairs(step.kinds):
                _outside(w, paired, step.kinds)[step.left] += own
                continue
            for k in np.flatnonzero(odds > 0):
                child = (int(step.left[k]), step.kinds, int(step.begins[k]))
                if child not in outside:
                    outside[child] = np.zeros(len(w.grid))
                    order.append(child)
                outside[child] = outside[child] + own[k]
    for kinds, weight in paired.items():
        _add_pairs(w, kinds, weight, conduct)


def _outside(w: Weights, paired: dict[tuple[str, ...], Floats], kinds: tuple[str, ...]) -> Floats:
    if kinds not in paired:
        paired[kinds] = np.zeros((1 << w.count, len(w.grid)))
    return paired[kinds]


def _add_pairs(w: Weights, kinds: tuple[str, ...], outside: Floats, conduct: Floats) -> None:
    """Add the odds of every pair where only pairs are left, `outside` the weight of what is laid."""
    entered = np.flatnonzero(outside.any(axis=1))
    sets = sets_of(w.count, 2)
    for kind in dict.fromkeys(kinds):
        at = kinds.index(kind)
        more = kinds[:at] + kinds[at + 1 :]
        weight = w.block(kind)
        for n, mask in enumerate(sets.masks):
            within = entered[(entered & mask) == mask]
            if not len(within) or weight[n].max() <= DEAD:
                continue
            sums = outside[within] * w.pairs(within ^ int(mask), more)
            conduct[sets.one[n, 0], sets.two[n, 0]] += float(sums.sum(axis=0) @ weight[n])
