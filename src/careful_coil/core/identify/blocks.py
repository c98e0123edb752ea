"""What readings are worth inside a block of leads, and the sums over ways to lay blocks.

Block weights are what readings inside a block are worth over what they would be worth between blocks,
so that untouched leads cost nothing. Arrays run over a grid of scales, the ohms that like coils share.
"""

import math
from dataclasses import dataclass, field
from functools import cache

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.evidence import Evidence, Ohms
from careful_coil.core.identify.fit import (
    BAD_HIGH,
    BAD_HIGH_RANGE,
    COIL_SPREAD,
    LOG_RANGE,
    P_BAD_CLIP,
)
from careful_coil.core.identify.lay import (
    Masks,
    bits,
    lowest,
    matchings,
    options,
    sets_of,
    size_of,
)
from careful_coil.core.readings import LEAD_OHM_HIGHEST

Floats = NDArray[np.float64]
Kinds = tuple[str, ...]

P_FALSE_OPEN = 0.003  # a clip that touches nothing
P_STRAY = 0.001  # leads that touch, a clip on the wrong one
P_RISING = 0.15  # a conducting pair that climbs: a capacitor in its path
SURE_FIT = 0.03  # how closely a block that is over-determined predicts its next reading
WIDEST_STEP = 0.02  # of the scale's grid, in the logarithm
MOST_SCALES, FEWER_SCALES = 24, 10  # the second where there are very many leads
VERY_MANY_LEADS = 13
MOST_OWN = 3  # pairs with ohms of their own beside coil pairs
MANY_LEADS = 10
DEAD = 1e-12  # a block worth less is none


@dataclass(frozen=True, slots=True)
class Step:
    """The ways to lay the next block: its kind, the leads it takes, and what is left then."""

    kind: str
    masks: Masks  # (ways,)
    weight: Floats  # (ways, scales)
    left: Masks  # (ways,)
    kinds: Kinds  # kinds still to lay
    begins: NDArray[np.int64]  # (ways,) a block of the same kind begins after this lead
    after: Floats  # (ways, scales) the sums over covers of what is left then


@dataclass(slots=True)
class Weights:
    """Block weights of one evidence; arrays over the scale grid where coils share it."""

    grid: Floats  # prior share of each scale, adds up to at most 1
    pair: Floats  # (leads, leads, scales)
    star: Floats  # (leads, leads, scales): one reading inside a star
    end: Floats  # the same, from the middle of a chain to an end
    far: Floats  # and from end to end
    inside: Floats  # (leads, leads): any connected block
    values: NDArray[np.bool_]  # pairs with a figure
    touches: tuple[tuple[int, int, float], ...]  # of one lead against several, as bits
    fixed: frozenset[int]  # groups beyond doubt, as bits
    bound: int  # the leads in them
    blocks: dict[str, Floats] = field(default_factory=dict)
    alive: dict[str, NDArray[np.bool_]] = field(default_factory=dict)
    known: dict[tuple[int, Kinds, int], list[Step]] = field(default_factory=dict)
    sums: dict[tuple[int, Kinds, int], Floats] = field(default_factory=dict)
    tables: dict[bool, Floats] = field(default_factory=dict)

    @property
    def count(self) -> int:
        """Return how many leads there are."""
        return len(self.inside)

    @property
    def even(self) -> Floats:
        """Return the weight of each scale where no coils share one."""
        return np.full(len(self.grid), 1.0 / len(self.grid))

    def block(self, kind: str) -> Floats:
        """Return the weight of a block on every set of leads of its size: (sets, scales)."""
        if kind not in self.blocks:
            sets = sets_of(self.count, size_of(kind))
            self.blocks[kind] = self._block(kind) * self.allowed(sets.masks)[:, None]
        return self.blocks[kind]

    def _alive(self, kind: str) -> NDArray[np.bool_]:
        """Return which sets of leads are worth something as a block of a kind: (sets,)."""
        if kind not in self.alive:
            self.alive[kind] = self.block(kind).max(axis=1, initial=0.0) > DEAD
        return self.alive[kind]

    def allowed(self, masks: Masks) -> Floats:
        """Return what bunched readings make of blocks, none where a group beyond doubt is torn."""
        factor = np.ones(len(masks))
        for a, many, worth in self.touches:
            factor[((masks >> a) & 1 == 1) & (masks & many != 0)] *= worth
        if self.bound:
            torn = (masks & self.bound != 0) & ~np.isin(masks, list(self.fixed))
            factor[torn] = 0.0
        return factor

    def _block(self, kind: str) -> Floats:
        sets = sets_of(self.count, size_of(kind))
        one, two = sets.one, sets.two
        if kind == "p":
            return np.asarray(self.pair[one[:, 0], two[:, 0]])
        if kind == "y":
            return np.asarray(self.star[one, two].prod(axis=1))
        if kind == "d":  # pairs of a set are 01, 02, 12
            at, to = self.end[one, two], self.far[one, two]
            ends = at[:, 0] * at[:, 1] * to[:, 2] + at[:, 0] * at[:, 2] * to[:, 1]
            return np.asarray((ends + at[:, 1] * at[:, 2] * to[:, 0]) / 3)
        figures = self.values[one, two].sum(axis=1)
        more = np.maximum(figures - (size_of(kind) - 1), 0)
        product = self.inside[one, two].prod(axis=1) * (LOG_RANGE / SURE_FIT) ** more
        return np.repeat(product[:, None], len(self.grid), axis=1)

    def steps(self, left: int, kinds: Kinds, after: int = -1) -> list[Step]:
        """Return the ways to lay the next block, those worth something.

        Blocks that are no pairs come first, of two of a kind the later one after the other's first
        lead; pairs are laid from the lowest lead left.
        """
        key = (left, kinds, after)
        if key not in self.known:
            self.known[key] = self._steps(left, kinds, after)
        return self.known[key]

    def _steps(self, left: int, kinds: Kinds, after: int) -> list[Step]:
        large = [k for k in kinds if k not in "pq"]
        from_lowest = not large or len(set(kinds)) == 1  # every lead left lies in such a block
        found = []
        for kind in large[:1] or list(dict.fromkeys(kinds)):
            at = kinds.index(kind)
            more = kinds[:at] + kinds[at + 1 :]
            masks, place = options(self.count, left, size_of(kind), after, from_lowest)
            alive = self._alive(kind)[place]
            masks, weight = masks[alive], self.block(kind)[place[alive]]
            ordered = bool(large) and kind in more
            begins = lowest(self.count)[masks] if ordered else np.full(len(masks), -1)
            then = left & ~masks
            found.append(
                Step(kind, masks, weight, then, more, begins, self._after(then, more, begins))
            )
        return found

    def _after(self, left: Masks, kinds: Kinds, begins: NDArray[np.int64]) -> Floats:
        if only_pairs(kinds):
            return self.pairs(left, kinds)
        rows = [
            self.rest(one, kinds, at)
            for one, at in zip(left.tolist(), begins.tolist(), strict=True)
        ]
        return np.array(rows).reshape(len(rows), len(self.grid))

    def rest(self, left: int, kinds: Kinds, after: int = -1) -> Floats:
        """Return the sum over covers of the leads left by the kinds left, at every scale."""
        if only_pairs(kinds):
            return np.asarray(self.pairs(np.array([left]), kinds)[0])
        key = (left, kinds, after)
        if key not in self.sums:
            parts = [(s.weight * s.after).sum(axis=0) for s in self.steps(left, kinds, after)]
            self.sums[key] = np.asarray(np.sum(parts, axis=0))
        return self.sums[key]

    def pairs(self, left: Masks, kinds: Kinds) -> Floats:
        """Return the sums over ways to lay pairs on sets of leads: (sets, scales)."""
        own = kinds.count("q")
        shared = len(kinds) > own
        if shared not in self.tables:
            self.tables[shared] = _pair_sums(self, shared)
        table = self.tables[shared]
        if shared:
            none = own >= table.shape[1]
            return np.zeros((len(left), len(self.grid))) if none else table[left, own]
        return np.repeat(table[left, 0], len(self.grid), axis=1)


@cache
def only_pairs(kinds: Kinds) -> bool:
    """Whether nothing but pairs is left to lay."""
    return all(k in "pq" for k in kinds)


def _pair_sums(w: Weights, shared: bool) -> Floats:
    """Return the sums over perfect matchings of every set of leads: (sets, own pairs, scales).

    Without `shared` every pair has ohms of its own, and one column holds their sum.
    """
    count = w.count
    one, two = np.triu_indices(count, 1)
    touched = np.zeros((count, count))
    touched[one, two] = w.allowed((1 << one) | (1 << two))
    touched += touched.T
    own = w.inside * touched
    like = w.pair * touched[:, :, None]
    most = MOST_OWN if shared else 0
    sums = np.zeros((1 << count, most + 1, len(w.grid) if shared else 1))
    sums[0, 0] = 1.0
    for chosen, first, j, rest in matchings(count):
        before = sums[rest]
        if shared:
            sums[chosen] += like[first, j][:, None, :] * before
            sums[chosen, 1:] += own[first, j][:, None, None] * before[:, :-1]
        else:
            sums[chosen] += own[first, j][:, None, None] * before
    return sums


def weights_of(evidence: Evidence) -> Weights:
    count = len(evidence.tags)
    scales, share = _scales(evidence)
    shape = (count, count, len(scales))
    pair, star, end, far = (np.ones(shape) for _ in range(4))
    inside = np.ones((count, count))
    values = np.zeros((count, count), dtype=bool)
    for o in evidence.ohms:
        plain = _plain(o)
        inside[o.a, o.b] = inside[o.b, o.a] = plain
        for table, times in ((pair, 1.0), (star, 2.0), (end, 1.0), (far, 2.0)):
            own = plain if o.state != "value" else _figure(o, times * scales, evidence)
            table[o.a, o.b] = table[o.b, o.a] = own
        values[o.a, o.b] = values[o.b, o.a] = o.state == "value"
    touches = tuple(
        (a, sum(1 << b for b in many), P_FALSE_OPEN if state == "open" else 1.0 / P_STRAY)
        for a, many, state in evidence.bunched
    )
    fixed = _beyond_doubt(evidence)
    bound = sum(fixed)
    return Weights(share, pair, star, end, far, inside, values, touches, fixed, bound)


def _beyond_doubt(evidence: Evidence) -> frozenset[int]:
    """Return groups that conduct inside and were read open against every other lead, as bits.

    Only where there are many leads: two false readings at once would be needed to be wrong.
    """
    count = len(evidence.tags)
    if count < MANY_LEADS:
        return frozenset()
    joined = [1 << k for k in range(count)]
    apart = [1 << k for k in range(count)]
    for o in evidence.ohms:
        if o.state == "open":
            apart[o.a] |= 1 << o.b
            apart[o.b] |= 1 << o.a
        elif o.conducts:
            whole = joined[o.a] | joined[o.b]
            for k in bits(whole):
                joined[k] = whole
    full = (1 << count) - 1
    return frozenset(
        group
        for group in set(joined)
        if group.bit_count() > 1 and all((apart[k] | group) == full for k in bits(group))
    )


def _plain(o: Ohms) -> float:
    """Return what a reading inside a block is worth over outside it, whatever its figure."""
    if o.state == "open":
        return float(P_FALSE_OPEN**o.again)
    if o.state == "rising":
        return P_RISING / P_STRAY
    return 1.0 if o.state == "unsteady" else 1.0 / P_STRAY


def _figure(o: Ohms, expected: Floats, evidence: Evidence) -> Floats:
    """Return the same for a figure in Ω against what each scale expects, a bad clip allowed for."""
    lead = evidence.meter.lead_ohm
    offset = LEAD_OHM_HIGHEST / 2 if lead is None else lead
    loose = LEAD_OHM_HIGHEST / 3.5 if lead is None else 0.0
    sigma = math.sqrt(o.sigma**2 + loose**2 + (1.5 * COIL_SPREAD * o.ohm) ** 2)
    ohm = o.size
    off = (ohm - offset - expected) / sigma
    good = np.exp(-0.5 * np.minimum(off**2, 1400.0)) / (sigma * math.sqrt(2 * math.pi))
    ratio = ohm / np.maximum(expected + offset, 1e-6)
    high = np.where((ratio >= 1.1) & (ratio <= 4.2), BAD_HIGH / BAD_HIGH_RANGE, 0.0)
    bad = (high + (1 - BAD_HIGH) / LOG_RANGE) / ohm
    once = P_BAD_CLIP if len(o.takes) < 2 else P_BAD_CLIP / 10
    return np.asarray(((1 - once) * good + once * bad) * ohm * LOG_RANGE / P_STRAY)


def _scales(evidence: Evidence) -> tuple[Floats, Floats]:
    """Return the scales worth trying in Ω, and the prior share of each (flat in the logarithm)."""
    lead = evidence.meter.lead_ohm
    offset = LEAD_OHM_HIGHEST / 2 if lead is None else lead
    figures = [o.ohm - offset for o in evidence.ohms if o.state == "value" and o.ohm > offset]
    tried = sorted(f / times for f in figures for times in (1.0, 2.0))
    kept: list[float] = []
    votes: list[int] = []
    for r in tried:
        if kept and r < kept[-1] * 1.004:
            votes[-1] += 1
            continue
        kept.append(r)
        votes.append(1)
    most = MOST_SCALES if len(evidence.tags) < VERY_MANY_LEADS else FEWER_SCALES
    if len(kept) > most:
        best = sorted(range(len(kept)), key=lambda k: -votes[k])[:most]
        kept = [kept[k] for k in sorted(best)]
    if not kept:
        return np.array([1.0]), np.array([1.0])
    scales = np.array(kept)
    logs = np.log(scales)
    ends = np.concatenate([[logs[0] - WIDEST_STEP], logs, [logs[-1] + WIDEST_STEP]])
    step = np.minimum((ends[2:] - ends[:-2]) / 2, WIDEST_STEP)
    return scales, np.asarray(step / LOG_RANGE)
