"""Every way to lay an arrangement's lead names on the tags, once each as far as ohms can see."""

from dataclasses import dataclass
from functools import cache
from itertools import combinations, permutations

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.evidence import Ohms
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.symmetry import part_relabellings, parts

MOST_CONFLICTS = 3  # a placement that three readings flatly contradict is not kept


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
        group = [tuple(position[x] for x in r) for r in part_relabellings(network, first, first)]
        seen: set[tuple[int, ...]] = set()
        labellings = []
        for label in permutations(range(len(own))):
            if label not in seen:
                labellings.append(label)
                seen.update(tuple(g[x] for x in label) for g in group)
        shapes.append(_Shape(instances, tuple(labellings)))
    return tuple(shapes)


def placements(network: Network, count: int, ohms: tuple[Ohms, ...]) -> NDArray[np.int64]:
    """Return the placements that no more than a few readings contradict, shape (placements, leads).

    Entry [p, i] is the lead number of the network that tag i has in placement p. Empty when the
    lead counts differ.
    """
    if count != len(network.leads):
        return np.zeros((0, count), dtype=np.int64)
    opens = np.zeros((count, count), dtype=bool)
    conducts = np.zeros((count, count), dtype=bool)
    for o in ohms:
        table = opens if o.state == "open" else conducts
        if o.state == "open" or o.conducts:
            table[o.a, o.b] = table[o.b, o.a] = True
    found: list[list[int]] = []
    shapes = _shapes(network)
    roles = [-1] * count

    def place(free: tuple[int, ...], used: tuple[int, ...], conflicts: int) -> None:
        if not free:
            found.append(roles.copy())
            return
        first, rest = free[0], free[1:]
        for k, shape in enumerate(shapes):
            if used[k] == len(shape.instances):
                continue
            instance = shape.instances[used[k]]
            for others in combinations(rest, len(instance) - 1):
                members = (first, *others)
                outside = [x for x in rest if x not in others]
                wrong = conflicts
                wrong += sum(bool(opens[a, b]) for a, b in combinations(members, 2))
                wrong += sum(bool(conducts[a, b]) for a in members for b in outside)
                if wrong >= MOST_CONFLICTS:
                    continue
                then = tuple(u + (j == k) for j, u in enumerate(used))
                for label in shape.labellings:
                    for tag, position in zip(members, label, strict=True):
                        roles[tag] = instance[position]
                    place(tuple(outside), then, wrong)

    place(tuple(range(count)), (0,) * len(shapes), 0)
    return np.array(found, dtype=np.int64).reshape(len(found), count)
