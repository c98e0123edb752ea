"""Which relabelling of leads changes nothing that can be measured: found from the network.

`dc_symmetries` leave every resistance as it is when coils that should be equal are equal;
`kick_symmetries` leave the couplings as they are too. A relabelling is a tuple of lead numbers:
lead i takes the name of lead p[i].
"""

import itertools
from collections.abc import Iterator
from functools import cache

import numpy as np

from careful_coil.core.winding.network import Network

Relabelling = tuple[int, ...]
ALIKE = 1e-8  # of the largest ohms: two that differ less are one
SAME = 1e-6  # of the strongest kick: two that differ less are one
# ohms that no sum of a few others repeats
_UNLIKE = (1.0, 1.618, 2.718, 4.669, 7.39, 11.13, 17.71, 28.57, 46.09, 73.31)


@cache
def parts(network: Network) -> tuple[tuple[int, ...], ...]:
    """Return the connected parts of a network as tuples of lead numbers."""
    index = {lead: k for k, lead in enumerate(network.leads)}
    return tuple(tuple(sorted(index[n] for n in g)) for g in network.groups())


@cache
def signature(network: Network) -> np.ndarray:
    """Return lead-to-lead resistances with likeness told apart: what ohms can see, shape (n, n)."""
    kinds = sorted({c.like for c in network.coils})
    return network.with_ohm(dict(zip(kinds, _UNLIKE, strict=False))).resistance()


@cache
def orders(count: int) -> np.ndarray:
    """Return every order of so many things, the first ones first: (orders, things)."""
    return np.array(list(itertools.permutations(range(count))))


@cache
def part_relabellings(network: Network, a: int, b: int) -> tuple[Relabelling, ...]:
    """Return the ways to lay part `a` on part `b` that keep every resistance."""
    one, two = parts(network)[a], parts(network)[b]
    if len(one) != len(two):
        return ()
    ohm = signature(network)
    wanted = ohm[np.ix_(one, one)]
    near = ALIKE * wanted.max()
    if len(one) <= 2:  # nearly every part: a coil by itself
        alike = abs(float(ohm[two[0], two[-1]] - wanted[0, -1])) <= near
        return (two, two[::-1])[: len(one)] if alike else ()
    other = ohm[np.ix_(two, two)]
    if (np.abs(np.sort(other, axis=None) - np.sort(wanted, axis=None)) > near).any():
        return ()
    images = np.array(two)[orders(len(two))]
    shown = ohm[images[:, :, None], images[:, None, :]]
    same = (np.abs(shown - wanted) <= near).all(axis=(1, 2))
    return tuple(tuple(image) for image in images[same].tolist())


@cache
def dc_symmetries(network: Network) -> tuple[Relabelling, ...]:
    """Return every relabelling of the leads that keeps all resistances."""
    return tuple(_assemble(network))


@cache
def dc_count(network: Network) -> int:
    """Return how many relabellings keep all resistances, without listing them: twelve leads have 46,080."""
    count = len(parts(network))
    ways = [[len(part_relabellings(network, a, b)) for b in range(count)] for a in range(count)]
    sums = {0: 1}  # by the parts that are taken: the ways to lay the first of them
    for row in ways:
        fresh: dict[int, int] = {}
        for taken, known in sums.items():
            for b, own in enumerate(row):
                if own and not taken & 1 << b:
                    fresh[taken | 1 << b] = fresh.get(taken | 1 << b, 0) + known * own
        sums = fresh
    return sum(sums.values())


def _assemble(network: Network) -> Iterator[Relabelling]:
    count = len(parts(network))
    for order in itertools.permutations(range(count)):
        choices = [part_relabellings(network, a, b) for a, b in enumerate(order)]
        for images in itertools.product(*choices):
            found = [0] * len(network.leads)
            for part, image in zip(parts(network), images, strict=True):
                for lead, target in zip(part, image, strict=True):
                    found[lead] = target
            yield tuple(found)


@cache
def kick_symmetries(network: Network) -> tuple[Relabelling, ...]:
    """Return the resistance-keeping relabellings that keep every battery kick as well."""
    return tuple(_Keeping(network).all())


class _Keeping:
    """Lays part on part, and drops a choice as soon as a kick between the parts laid would change."""

    def __init__(self, network: Network) -> None:
        self._network = network
        self._parts = parts(network)
        pairs = [[(a, b) for k, a in enumerate(p) for b in p[k + 1 :]] for p in self._parts]
        self._pairs = pairs
        flat = list(itertools.chain(*pairs))
        self._number = {pair: k for k, pair in enumerate(flat)}
        share = np.array(
            [network.shares(network.leads[a], network.leads[b]) for a, b in flat]
        ).reshape(len(flat), len(network.coils))
        # unequal halves, so that a half of one phase is told from the other half of it
        self._flux = share @ network.mutual(same_half=0.93, other_half=0.84) @ share.T
        self._most = float(np.abs(self._flux).max(initial=0.0))

    def all(self) -> Iterator[Relabelling]:
        """Yield every relabelling."""
        yield from self._lay(0, {}, [], [])

    def _lay(
        self, part: int, image: dict[int, int], to: list[int], sign: list[float]
    ) -> Iterator[Relabelling]:
        if part == len(self._parts):
            yield tuple(image[k] for k in range(len(self._network.leads)))
            return
        taken = set(image.values())
        for other, leads in enumerate(self._parts):
            if taken & set(leads):
                continue
            for places in part_relabellings(self._network, part, other):
                laid = image | dict(zip(self._parts[part], places, strict=True))
                fresh_to, fresh_sign = self._images(part, laid)
                if self._kept(to, sign, fresh_to, fresh_sign):
                    yield from self._lay(part + 1, laid, to + fresh_to, sign + fresh_sign)

    def _images(self, part: int, laid: dict[int, int]) -> tuple[list[int], list[float]]:
        to, sign = [], []
        for a, b in self._pairs[part]:
            c, d = laid[a], laid[b]
            to.append(self._number[(c, d) if c < d else (d, c)])
            sign.append(1.0 if c < d else -1.0)
        return to, sign

    def _kept(
        self, to: list[int], sign: list[float], fresh_to: list[int], fresh_sign: list[float]
    ) -> bool:
        before, now = len(to), len(to) + len(fresh_to)
        at, turn = np.array(to + fresh_to, dtype=int), np.array(sign + fresh_sign)
        new = self._flux[at[before:, None], at] * (turn[before:, None] * turn)
        return bool((np.abs(new - self._flux[before:now, :now]) <= SAME * self._most).all())
