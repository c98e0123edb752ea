"""What a winding's network predicts for any two of its leads, as arrays."""

from collections.abc import Collection
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
    of = np.array([[c.like == k for k in kinds] for c in network.coils], dtype=float)
    of = of.reshape(len(network.coils), len(kinds))
    square = network.shares_between(network.leads) ** 2
    slope = square @ of
    spread = np.sqrt(square**2 @ of) * (of.sum(axis=0) > 1)
    passed = slope > 1e-9

    def through(wanted: Collection[str]) -> NDArray[np.bool_]:
        return np.asarray(passed[:, :, [k in wanted for k in kinds]].any(axis=2))

    return Tables(
        kinds=kinds,
        conduct=np.isfinite(network.resistance()),
        slope=slope,
        spread=spread,
        start=through(START_KINDS),
        beside=through([k for k in kinds if k.startswith(SENSOR)]),
        lone=np.array([role_word(n) == LONE for n in network.leads], dtype=bool),
        armature=through(("armature",)),
    )
