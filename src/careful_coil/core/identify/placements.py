"""Every way to lay an arrangement's lead names on the tags, once each as far as ohms can see."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache, lru_cache

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.winding.network import Network
from careful_coil.core.winding.symmetry import orders, part_relabellings, parts


@dataclass(frozen=True, slots=True)
class _Shape:
    """One kind of connected part: its lead numbers, and the labellings no symmetry repeats."""

    instances: tuple[tuple[int, ...], ...]
    labellings: tuple[tuple[int, ...], ...]  # positions in the part, for members in tag order


@cache
def _shapes(network: Network) -> tuple[_Shape, ...]:
    left = list(range(len(parts(network))))
    shapes = []
    while left:
        first = left[0]
        alike = [k for k in left if part_relabellings(network, first, k)]
        left = [k for k in left if k not in alike]
        own = parts(network)[first]
        # lay every like part out in the order that matches the first one
        instances = tuple(part_relabellings(network, first, k)[0] for k in alike)
        position = {lead: k for k, lead in enumerate(own)}
        group = [[position[x] for x in r] for r in part_relabellings(network, first, first)]
        every = orders(len(own))
        number = len(own) ** np.arange(len(own))[::-1]  # a labelling as one, in the same order
        least = (np.array(group)[:, every] @ number).min(axis=0)
        kept = every[least == every @ number]  # of those that a symmetry repeats the first
        shapes.append(_Shape(instances, tuple(map(tuple, kept.tolist()))))
    return tuple(shapes)


def placements(network: Network, groups: Sequence[tuple[int, ...]]) -> NDArray[np.int64]:
    """Return every way to lay a network's leads on tags that fall into these groups.

    Shape (placements, leads): entry [p, i] is the lead number that tag i has in placement p. Empty
    when the sizes of the network's parts are others.
    """
    laid = _side_by_side(network, tuple(len(g) for g in groups))
    rows = np.empty_like(laid)
    rows[:, [k for g in groups for k in g]] = laid
    return rows


@lru_cache(maxsize=256)
def _side_by_side(network: Network, sizes: tuple[int, ...]) -> NDArray[np.int64]:
    """Return the placements on groups of these sizes whose tags follow each other."""
    shapes, count = _shapes(network), sum(sizes)
    ends = itertools.accumulate(sizes)
    groups = [tuple(range(end - size, end)) for size, end in zip(sizes, ends, strict=True)]
    if sorted(len(i) for s in shapes for i in s.instances) != sorted(sizes):
        return np.zeros((0, count), dtype=np.int64)
    found: list[NDArray[np.int64]] = []

    def place(k: int, used: tuple[int, ...], chosen: tuple[tuple[int, ...], ...]) -> None:
        if k == len(groups):
            found.append(_laid(shapes, groups, chosen, count))
            return
        for number, shape in enumerate(shapes):
            free = used[number] < len(shape.instances)
            if free and len(shape.instances[0]) == len(groups[k]):
                then = tuple(u + (j == number) for j, u in enumerate(used))
                place(k + 1, then, (*chosen, (number, used[number])))

    place(0, (0,) * len(shapes), ())
    return np.concatenate(found) if found else np.zeros((0, count), dtype=np.int64)


def _laid(
    shapes: tuple[_Shape, ...],
    groups: Sequence[tuple[int, ...]],
    chosen: tuple[tuple[int, ...], ...],
    count: int,
) -> NDArray[np.int64]:
    """Return the rows of one choice of parts: every labelling inside each group."""
    rows = np.full((1, count), -1, dtype=np.int64)
    for group, (number, instance) in zip(groups, chosen, strict=True):
        shape = shapes[number]
        leads = np.array(shape.instances[instance])
        labels = leads[np.array(shape.labellings)]  # (labellings, leads of the part)
        rows = np.repeat(rows, len(labels), axis=0)
        rows[:, list(group)] = np.tile(labels, (len(rows) // len(labels), 1))
    return rows
