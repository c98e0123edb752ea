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
    MANY_LEADS,
    Floats,
    Group,
    Weights,
    bits,
    size_of,
    weights_of,
)
from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.models import compositions

RAREST = 5e-4  # sets of blocks less common are left out
RARE_AT_FIRST = 0.01  # and these too, until half of many leads are beyond doubt
VERY_MANY, RARE_OF_VERY_MANY = 13, 0.3  # of so many leads only the commonest sets, until then
NEGLIGIBLE = 1e-5  # of all: what adds nothing to the odds of a pair
LEAST_ODDS = 2e-5  # groupings less likely are not listed
MOST_LEAVES = 400
LEAST_LEAVES, BEAM = 5, 8


@dataclass(frozen=True, slots=True)
class Leaf:
    """One grouping with its odds; `blocks` as (kind, lead numbers)."""

    blocks: tuple[tuple[str, Group], ...]
    odds: float

    @property
    def groups(self) -> tuple[Group, ...]:
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
    for blocks, prior in compositions(count, evidence.phases).items():
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


def _grown(w: Weights, node: _Node) -> Iterator[tuple[float, _Node]]:
    """Yield a cover begun with its next block laid, and what all covers from there weigh."""
    for kind, mask, left, kinds, begins in w.options(node.left, node.kinds, node.after):
        own = node.weight * w.block(kind, mask)
        weight = float(own @ w.rest(left, kinds, begins))
        if weight > 0:
            yield weight, _Node((*node.chosen, (kind, mask)), own, left, kinds, begins)


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
    while heap and len(found) < MOST_LEAVES:
        negative, _, node = heapq.heappop(heap)
        if -negative < LEAST_ODDS * total:
            break
        if node.left == 0:
            found.append(_leaf(node, -negative / total))
            continue
        for weight, child in _grown(w, node):
            if weight >= LEAST_ODDS * total:
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
            grown += [(-weight, next(order), child) for weight, child in _grown(w, node)]
        nodes = heapq.nsmallest(BEAM, grown)
    return tuple(sorted(found, key=lambda leaf: -leaf.odds))


def _add_conduct(w: Weights, start: _Node, conduct: Floats) -> None:
    """Add the odds of every block, unnormed, to the leads it joins: the sums run backwards."""
    first = (start.left, start.kinds, -1)
    outside = {first: start.weight}
    order = [first]
    for state in order:
        left, kinds, after = state
        here = outside[state]
        if all(k in "pq" for k in kinds):
            _add_pairs(w, left, kinds, here, conduct)
            continue
        for kind, mask, then, more, begins in w.options(left, kinds, after):
            own = here * w.block(kind, mask)
            odds = float(own @ w.rest(then, more, begins))
            if odds <= 0:
                continue
            for a, b in itertools.combinations(bits(mask), 2):
                conduct[a, b] += odds
            if then:
                child = (then, more, begins)
                if child not in outside:
                    outside[child] = np.zeros(len(w.grid))
                    order.append(child)
                outside[child] = outside[child] + own


def _add_pairs(
    w: Weights, left: int, kinds: tuple[str, ...], here: Floats, conduct: Floats
) -> None:
    """Add the odds of every pair where only pairs are left."""
    own = kinds.count("q")
    shared = len(kinds) > own
    for a, b in itertools.combinations(bits(left), 2):
        mask = (1 << a) | (1 << b)
        sums = np.zeros(len(w.grid))
        if shared:
            sums += w.block("p", mask) * w.pairs(left & ~mask, own, True)
        if own:
            sums += w.block("q", mask) * w.pairs(left & ~mask, own - 1, shared)
        conduct[a, b] += float(here @ sums)
