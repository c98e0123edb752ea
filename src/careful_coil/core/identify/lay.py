"""Where blocks of leads can lie: sets of leads as bits, cached by how many leads there are."""

from dataclasses import dataclass
from functools import cache, lru_cache

import numpy as np
from numpy.typing import NDArray

Masks = NDArray[np.int64]

SIZES = {"1": 1, "p": 2, "q": 2, "y": 3, "d": 3}  # leads of a block; bN has N


def size_of(kind: str) -> int:
    """Return how many leads a kind of block has."""
    return SIZES[kind] if kind in SIZES else int(kind[1:])


def bits(mask: int) -> tuple[int, ...]:
    """Return the lead numbers of a set."""
    found = []
    while mask:
        low = mask & -mask
        found.append(low.bit_length() - 1)
        mask ^= low
    return tuple(found)


@cache
def counts(count: int) -> NDArray[np.int64]:
    """Return how many leads each set of `count` leads has, shape (2^count,)."""
    found = np.zeros(1, dtype=np.int64)
    for _ in range(count):
        found = np.concatenate([found, found + 1])
    return found


@cache
def lowest(count: int) -> NDArray[np.int64]:
    """Return the first lead of each set, shape (2^count,); −1 of the empty one."""
    found = np.full(1, -1, dtype=np.int64)
    for k in range(count):
        found = np.concatenate([found, np.where(found >= 0, found, k)])
    return found


@dataclass(frozen=True, slots=True)
class Sets:
    """Every set of so many leads: as bits, as pairs inside it, and where each stands in the list."""

    masks: Masks  # (sets,)
    one: NDArray[np.int64]  # (sets, pairs) leads of the pairs inside
    two: NDArray[np.int64]
    place: NDArray[np.int64]  # (2^count,)


@cache
def sets_of(count: int, size: int) -> Sets:
    """Return every set of `size` of `count` leads."""
    masks = np.flatnonzero(counts(count) == size)
    leads = np.array([bits(int(m)) for m in masks], dtype=np.int64).reshape(len(masks), size)
    one, two = np.triu_indices(size, 1)
    place = np.full(1 << count, -1, dtype=np.int64)
    place[masks] = np.arange(len(masks))
    return Sets(masks, leads[:, one], leads[:, two], place)


@lru_cache(maxsize=8192)
def options(
    count: int, left: int, size: int, after: int, from_lowest: bool
) -> tuple[Masks, NDArray[np.int64]]:
    """Return the sets of `size` leads that the next block can take of those left, and their places.

    `from_lowest`: it must hold the lowest lead left; else its first lead comes after `after`.
    """
    every = sets_of(count, size)
    first = lowest(count)[every.masks]
    start = first == lowest(count)[left] if from_lowest else first > after
    place = np.flatnonzero(((every.masks & ~left) == 0) & start)
    return every.masks[place], place


@cache
def matchings(count: int) -> tuple[tuple[Masks, NDArray[np.int64], int, Masks], ...]:
    """Return the steps that build sums over pairs: sets, their first lead, its partner, the rest."""
    size, low = counts(count), lowest(count)
    masks = np.arange(1 << count)
    steps = []
    for pairs in range(2, count + 1, 2):
        here = masks[size == pairs]
        for j in range(1, count):
            chosen = here[((here >> j) & 1 == 1) & (low[here] != j)]
            if len(chosen):
                rest = chosen ^ (1 << low[chosen]) ^ (1 << j)
                steps.append((chosen, low[chosen], j, rest))
    return tuple(steps)
