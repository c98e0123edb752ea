"""What a winding's network predicts for any two of its leads, as arrays."""

from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.models import LONE, SENSOR, role_word
from careful_coil.core.winding.network import Network

Floats = NDArray[np.float64]
START_KINDS = ("start", "auxiliary")


@dataclass(frozen=True, slots=True)
class Tables:
    """What a network shows between any two of its leads; all shapes (leads, leads, …)."""

    kinds: tuple[str, ...]
    conduct: NDArray[np.bool_]
    slope: Floats  # (leads, leads, kinds)
    spread: Floats
    start: NDArray[np.bool_]  # the path passes the start winding
    beside: NDArray[np.bool_]  # a pair of its own beside the winding
    lone: NDArray[np.bool_]  # (leads,) goes nowhere
    armature: NDArray[np.bool_]  # the path passes brushes


@cache
def tables(network: Network) -> Tables:
    """Return what the network predicts, per 1 Ω of each kind of coil."""
    kinds = tuple(dict.fromkeys(c.like for c in network.coils))
    count = len(network.leads)
    many = {k: sum(c.like == k for c in network.coils) > 1 for k in kinds}
    slope, spread = np.zeros((count, count, len(kinds))), np.zeros((count, count, len(kinds)))
    start, armature, beside = (np.zeros((count, count), dtype=bool) for _ in range(3))
    lone = np.array([role_word(n) == LONE for n in network.leads], dtype=bool)
    for a in range(count):
        for b in range(count):
            share = network.shares(network.leads[a], network.leads[b]) if a != b else None
            if share is None:
                continue
            for k, kind in enumerate(kinds):
                of = np.array(
                    [s for s, c in zip(share, network.coils, strict=True) if c.like == kind]
                )
                slope[a, b, k] = float(np.sum(of**2))
                spread[a, b, k] = float(np.sqrt(np.sum(of**4))) if many[kind] else 0.0
                start[a, b] |= kind in START_KINDS and slope[a, b, k] > 1e-9
                armature[a, b] |= kind == "armature" and slope[a, b, k] > 1e-9
                beside[a, b] |= kind.startswith(SENSOR) and slope[a, b, k] > 1e-9
    conduct = np.isfinite(network.resistance())
    return Tables(kinds, conduct, slope, spread, start, beside, lone, armature)
