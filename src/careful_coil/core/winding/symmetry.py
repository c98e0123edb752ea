"""Which relabelling of leads changes nothing that can be measured: found from the network.

`dc_symmetries` leave every resistance as it is when coils that should be equal are equal;
`kick_symmetries` leave the couplings as they are too. A relabelling is a tuple of lead numbers:
lead i takes the name of lead p[i].
"""

from collections.abc import Iterator
from functools import cache
from itertools import permutations, product

import numpy as np

from careful_coil.core.winding.network import Network

Relabelling = tuple[int, ...]
_UNLIKE = (1.0, 1.618, 2.718, 4.669, 7.39)  # ohms that no sum of a few others repeats


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
def part_relabellings(network: Network, a: int, b: int) -> tuple[Relabelling, ...]:
    """Return the ways to lay part `a` on part `b` that keep every resistance."""
    one, two = parts(network)[a], parts(network)[b]
    if len(one) != len(two):
        return ()
    ohm = signature(network)
    wanted = ohm[np.ix_(one, one)]
    return tuple(
        image
        for image in permutations(two)
        if np.allclose(ohm[np.ix_(image, image)], wanted, rtol=1e-9)
    )


@cache
def dc_symmetries(network: Network) -> tuple[Relabelling, ...]:
    """Return every relabelling of the leads that keeps all resistances."""
    return tuple(_assemble(network))


def _assemble(network: Network) -> Iterator[Relabelling]:
    count = len(parts(network))
    for order in permutations(range(count)):
        choices = [part_relabellings(network, a, b) for a, b in enumerate(order)]
        for images in product(*choices):
            found = [0] * len(network.leads)
            for part, image in zip(parts(network), images, strict=True):
                for lead, target in zip(part, image, strict=True):
                    found[lead] = target
            yield tuple(found)


@cache
def kick_symmetries(network: Network) -> tuple[Relabelling, ...]:
    """Return the resistance-keeping relabellings that keep every battery kick as well."""
    pairs = [
        (p[i], p[j]) for p in parts(network) for i in range(len(p)) for j in range(i + 1, len(p))
    ]
    where = {pair: k for k, pair in enumerate(pairs)}
    share = np.array([network.shares(network.leads[a], network.leads[b]) for a, b in pairs])
    # unequal halves, so that a half of one phase is told from the other half of it
    flux = share @ network.mutual(same_half=0.93, other_half=0.84) @ share.T

    def kept(relabelling: Relabelling) -> bool:
        sign = np.ones(len(pairs))
        to = np.zeros(len(pairs), dtype=int)
        for k, (a, b) in enumerate(pairs):
            c, d = relabelling[a], relabelling[b]
            to[k] = where[(c, d) if c < d else (d, c)]
            sign[k] = 1.0 if c < d else -1.0
        return bool(np.allclose(flux[np.ix_(to, to)] * np.outer(sign, sign), flux, atol=1e-9))

    return tuple(r for r in dc_symmetries(network) if kept(r))
