"""In which order joints are made so that the fewest leads are ever loose at once.

What stands after some of the wanted joints are made does not depend on their order, so that the best
order is found over sets of joints, not over orders.
"""

from collections.abc import Callable, Collection, Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

from careful_coil.core.ways.way import LINES, Joint

MOST_JOINTS = 10  # beyond it the next one is the one that leaves the fewest loose
Names = frozenset[str]
Cost = tuple[int, int]


@dataclass(frozen=True, slots=True, kw_only=True)
class Standing:
    """Joints as they stand and leads insulated on their own; all other leads are loose."""

    pieces: tuple[Names, ...]
    covered: Names

    def loose(self, leads: Collection[str]) -> int:
        """Return how many of the motor's leads are neither joined nor insulated."""
        joined = {n for p in self.pieces for n in p}
        return sum(n not in joined and n not in self.covered for n in leads)

    def without(self, out: Names, piece: Names) -> "Standing":
        """Return what stands once names are cut out of a joint; they stay together among themselves."""
        parts = tuple(p for p in (out, piece - out) if len(p) > 1)
        others = tuple(p for p in self.pieces if p != piece)
        return Standing(pieces=(*others, *parts), covered=self.covered)

    def with_covered(self, name: str) -> "Standing":
        """Return what stands once a lead is insulated on its own."""
        return Standing(pieces=self.pieces, covered=self.covered | {name})

    def with_joint(self, joint: Joint) -> "Standing":
        """Return what stands once it is made; its names must have been cut out before."""
        names = frozenset(joint)
        rest = tuple(p for p in self.pieces if not p & names)
        return Standing(pieces=(*rest, names), covered=self.covered - names)


@dataclass(frozen=True, slots=True, kw_only=True)
class Move:
    """Names cut out of a joint (`piece`), or, without one, a lead insulated; what stands after it."""

    out: Names
    piece: Names = frozenset()
    after: Standing


def freeing(now: Standing, joint: Joint, spare: Names) -> Iterator[Move]:
    """Yield the cuts that free a joint's names, spare leads one by one and covered at once."""
    wanted = frozenset(joint)

    def torn() -> list[Names]:
        return sorted((p for p in now.pieces if p & wanted and p - wanted), key=len, reverse=True)

    for piece in torn():
        for name in sorted(piece & spare):
            here = next(p for p in now.pieces if name in p)
            now = now.without(frozenset({name}), here)
            yield Move(out=frozenset({name}), piece=here, after=now)
            now = now.with_covered(name)
            yield Move(out=frozenset({name}), after=now)
    for piece in torn():
        keep, rest = piece & wanted, piece - wanted
        out = keep if len(keep) <= len(rest) else rest
        now = now.without(out, piece)
        yield Move(out=out, piece=piece, after=now)


@lru_cache(maxsize=256)
def best_order(
    leads: tuple[str, ...],
    start: Standing,
    wanted: tuple[Joint, ...],
    spare: Names,
    lines_first: bool = False,
) -> tuple[Joint, ...]:
    """Return wanted joints in the order of the fewest leads loose at once, then by habit, then in all."""
    if len(wanted) > MOST_JOINTS:
        return tuple(_greedy(leads, start, wanted, spare))
    count = len(wanted)
    ways = _ways(leads, start, wanted, spare)

    def by_peak(cost: Cost, way: _Way, place: int) -> Cost:
        return max(cost[0], way.peak), 0

    def by_habit(cost: Cost, way: _Way, place: int) -> Cost:
        late = any(n in LINES for n in wanted[way.joint]) != lines_first
        return cost[0] + (count - place if late else 0), cost[1] + way.peak + way.after

    (peak, _), _ = _cheapest(ways, count, by_peak, len(leads))
    return tuple(wanted[k] for k in _cheapest(ways, count, by_habit, peak)[1])


@dataclass(frozen=True, slots=True)
class _Way:
    """One joint made from a set of joints: which, leads loose at most on the way and after it."""

    joint: int
    peak: int
    after: int


def _ways(
    leads: Collection[str], start: Standing, wanted: Sequence[Joint], spare: Names
) -> list[list[_Way]]:
    """Return for each set of joints made (as bits) the joints that can be made next."""
    standing: dict[int, Standing] = {0: start}
    found: list[list[_Way]] = []
    for made in range(1 << len(wanted)):
        now, own = standing.pop(made), []
        for k, joint in enumerate(wanted):
            if made >> k & 1:
                continue
            freed, peak = _freed(leads, now, joint, spare)
            then = freed.with_joint(joint)
            standing.setdefault(made | 1 << k, then)
            own.append(_Way(k, peak, then.loose(leads)))
        found.append(own)
    return found


def _cheapest(
    ways: Sequence[Sequence[_Way]],
    count: int,
    price: Callable[[Cost, _Way, int], Cost],
    most: int,
) -> tuple[Cost, list[int]]:
    """Return the cheapest order and its cost, never more than `most` leads loose.

    `price` takes the cost so far, the joint with its figures, and its place in the order.
    """
    best: dict[int, tuple[Cost, list[int]]] = {0: ((0, 0), [])}
    for made in range(1 << count):
        if made not in best:
            continue
        cost, order = best[made]
        for way in ways[made]:
            if way.peak > most:
                continue
            after = made | 1 << way.joint
            told = price(cost, way, len(order))
            if after not in best or told < best[after][0]:
                best[after] = told, [*order, way.joint]
    return best[(1 << count) - 1]


def _freed(
    leads: Collection[str], now: Standing, joint: Joint, spare: Names
) -> tuple[Standing, int]:
    """Return what stands once a joint's names are free, and the most leads loose on the way."""
    most = now.loose(leads)
    for move in freeing(now, joint, spare):
        now = move.after
        most = max(most, now.loose(leads))
    return now, most


def _greedy(
    leads: Collection[str], start: Standing, wanted: Sequence[Joint], spare: Names
) -> list[Joint]:
    left, now, order = list(wanted), start, []
    while left:
        at, standing = now, left
        joint = min(standing, key=lambda j: _freed(leads, at, j, spare)[1])
        left.remove(joint)
        order.append(joint)
        now = _freed(leads, now, joint, spare)[0].with_joint(joint)
    return order
