"""What readings are worth inside a block of leads, and the sums over ways to lay blocks.

Block weights are what readings inside a block are worth over what they would be worth between blocks,
so that untouched leads cost nothing. Arrays run over a grid of scales, the ohms that like coils share.
"""

import itertools
import math
from dataclasses import dataclass, field
from functools import cache

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.evidence import LEAD_OHM_HIGHEST, Evidence, Ohms
from careful_coil.core.identify.fit import (
    BAD_HIGH,
    BAD_HIGH_RANGE,
    COIL_SPREAD,
    LOG_RANGE,
    P_BAD_CLIP,
)

Floats = NDArray[np.float64]
Group = tuple[int, ...]

P_FALSE_OPEN = 0.003  # a clip that touches nothing
P_STRAY = 0.001  # leads that touch, a clip on the wrong one
P_RISING = 0.15  # a conducting pair that climbs: a capacitor in its path
SURE_FIT = 0.03  # how closely a block that is over-determined predicts its next reading
WIDEST_STEP = 0.02  # of the scale's grid, in the logarithm
MOST_SCALES = 24
SIZES = {"1": 1, "p": 2, "q": 2, "y": 3, "d": 3}  # leads of a block; bN has N
MOST_OWN = 3  # pairs with ohms of their own beside coil pairs
MANY_LEADS = 10
DEAD = 1e-12  # a block worth less is none


def size_of(kind: str) -> int:
    """Return how many leads a kind of block has."""
    return SIZES[kind] if kind in SIZES else int(kind[1:])


Option = tuple[str, int, int, tuple[str, ...], int]


@cache
def _options(left: int, kinds: tuple[str, ...], after: int) -> tuple[Option, ...]:
    """Return where the next block can lie: kind, its leads, leads and kinds then left, its first lead.

    Blocks that are no pairs come first; pairs are laid from the lowest lead left.
    """
    leads = bits(left)
    large = [k for k in kinds if k not in "pq"]
    found = []
    for kind in large[:1] or list(dict.fromkeys(kinds)):
        at = kinds.index(kind)
        rest = kinds[:at] + kinds[at + 1 :]
        size = size_of(kind)
        alone = not large or len(set(kinds)) == 1  # then every lead left must lie in such a block
        firsts = leads[:1] if alone else [k for k in leads if k > after]
        for first in firsts:
            others = [k for k in leads if k > first]
            for more in itertools.combinations(others, size - 1):
                mask = (1 << first) | sum(1 << k for k in more)
                begins = first if kind in rest and large else -1
                found.append((kind, mask, left & ~mask, rest, begins))
    return tuple(found)


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
    blocks: dict[tuple[str, int], Floats] = field(default_factory=dict)
    sums: dict[tuple[int, tuple[str, ...], int], Floats] = field(default_factory=dict)
    tables: dict[bool, Floats] = field(default_factory=dict)

    @property
    def even(self) -> Floats:
        """Return the weight of each scale where no coils share one."""
        return np.full(len(self.grid), 1.0 / len(self.grid))

    def options(self, left: int, kinds: tuple[str, ...], after: int) -> "list[Option]":
        """Return where the next block can lie, groups beyond doubt left whole."""
        every = _options(left, kinds, after)
        if not self.bound & left:
            return list(every)
        return [o for o in every if not o[1] & self.bound or o[1] in self.fixed]

    def block(self, kind: str, mask: int) -> Floats:
        """Return the weight of a block at every scale."""
        key = (kind, mask)
        if key not in self.blocks:
            self.blocks[key] = np.asarray(self._block(kind, mask) * _touched(self, mask))
        return self.blocks[key]

    def _block(self, kind: str, mask: int) -> Floats:
        leads = bits(mask)
        if kind == "p":
            return np.asarray(self.pair[leads[0], leads[1]])
        pairs = list(itertools.combinations(leads, 2))
        if kind == "y":
            return np.asarray(np.prod([self.star[a, b] for a, b in pairs], axis=0))
        if kind == "d":
            found = np.zeros(len(self.grid))
            for middle in leads:
                one, two = (x for x in leads if x != middle)
                found += self.end[middle, one] * self.end[middle, two] * self.far[one, two] / 3
            return found
        figures = sum(bool(self.values[a, b]) for a, b in pairs)
        more = max(figures - (len(leads) - 1), 0)
        product = math.prod(float(self.inside[a, b]) for a, b in pairs)
        return np.full(len(self.grid), product * (LOG_RANGE / SURE_FIT) ** more)

    def rest(self, left: int, kinds: tuple[str, ...], after: int = -1) -> Floats:
        """Return the sum over covers of the leads left by the kinds left, at every scale.

        Blocks other than pairs are laid first; of two of a kind the later one begins `after` the other.
        """
        own = kinds.count("q")
        if len(kinds) == own + kinds.count("p"):
            return self.pairs(left, own, len(kinds) > own)
        key = (left, kinds, after)
        if key not in self.sums:
            found = np.zeros(len(self.grid))
            for kind, mask, then, more, begins in self.options(left, kinds, after):
                here = self.block(kind, mask)
                if here.max() > DEAD:
                    found += here * self.rest(then, more, begins)
            self.sums[key] = found
        return self.sums[key]

    def pairs(self, left: int, own: int, shared: bool) -> Floats:
        """Return the sum over ways to lay pairs, `own` of them with ohms of their own."""
        table = self.tables.get(shared)
        if table is None:
            table = self.tables[shared] = _pair_sums(self, shared)
        if shared:
            return table[left, own] if own < table.shape[1] else np.zeros(len(self.grid))
        return np.full(len(self.grid), table[left, 0, 0])


def _pair_sums(w: Weights, shared: bool) -> Floats:
    """Return the sums over perfect matchings of every set of leads: (sets, own pairs, scales).

    Without `shared` every pair has ohms of its own, and one column holds their sum.
    """
    count = len(w.inside)
    touched = np.ones((count, count))
    for a, b in itertools.combinations(range(count), 2):
        touched[a, b] = touched[b, a] = _touched(w, (1 << a) | (1 << b))
    for a, b in itertools.combinations(range(count), 2):
        mask = (1 << a) | (1 << b)
        if mask & w.bound and mask not in w.fixed:
            touched[a, b] = touched[b, a] = 0.0
    own = w.inside * touched
    most = MOST_OWN if shared else 0
    scales = len(w.grid) if shared else 1
    sums = np.zeros((1 << count, most + 1, scales))
    sums[0, 0] = 1.0
    masks = np.arange(1 << count)
    size = np.array([int(m).bit_count() for m in masks])
    low = np.array([(int(m) & -int(m)).bit_length() - 1 for m in masks])
    for pairs in range(2, count + 1, 2):
        here = masks[size == pairs]
        for j in range(1, count):
            chosen = here[((here >> j) & 1 == 1) & (low[here] != j)]
            if not len(chosen):
                continue
            first = low[chosen]
            before = sums[chosen ^ (1 << first) ^ (1 << j)]
            if shared:
                sums[chosen] += (w.pair * touched[:, :, None])[first, j][:, None, :] * before
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
        return P_FALSE_OPEN
    if o.state == "rising":
        return P_RISING / P_STRAY
    return 1.0 if o.state == "unsteady" else 1.0 / P_STRAY


def _figure(o: Ohms, expected: Floats, evidence: Evidence) -> Floats:
    """Return the same for a figure in Ω against what each scale expects, a bad clip allowed for."""
    lead = evidence.meter.lead_ohm
    offset = LEAD_OHM_HIGHEST / 2 if lead is None else lead
    loose = LEAD_OHM_HIGHEST / 3.5 if lead is None else 0.0
    sigma = math.sqrt(o.sigma**2 + loose**2 + (1.5 * COIL_SPREAD * o.ohm) ** 2)
    ohm = max(o.ohm, 1e-6)
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
    if len(kept) > MOST_SCALES:
        best = sorted(range(len(kept)), key=lambda k: -votes[k])[:MOST_SCALES]
        kept = [kept[k] for k in sorted(best)]
    if not kept:
        return np.array([1.0]), np.array([1.0])
    scales = np.array(kept)
    logs = np.log(scales)
    ends = np.concatenate([[logs[0] - WIDEST_STEP], logs, [logs[-1] + WIDEST_STEP]])
    step = np.minimum((ends[2:] - ends[:-2]) / 2, WIDEST_STEP)
    return scales, np.asarray(step / LOG_RANGE)


def bits(mask: int) -> Group:
    found = []
    while mask:
        low = mask & -mask
        found.append(low.bit_length() - 1)
        mask ^= low
    return tuple(found)


def _touched(w: Weights, mask: int) -> float:
    """Return what readings of one lead against several are worth, for one block."""
    factor = 1.0
    for a, many, worth in w.touches:
        if mask >> a & 1 and mask & many:
            factor *= worth
    return factor
