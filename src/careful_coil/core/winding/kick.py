"""Battery kicks: how large a ratio counts as, and how far equal coils couple.

The series test puts low alternating volts on one path, ties an end of another to it and reads across
both. Whole phases −½ of each other, halves that alternate round the bore about 0.93 within a phase
and −0.42 between phases. Battery + on the first source lead, meter + on the first sense lead, at make.
"""

from typing import get_args

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.readings import KickValue
from careful_coil.core.winding.coupling import Halves, fields
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.rotor import Rotor, default_rotor
from careful_coil.core.winding.steady import Supply, solve

Pair = tuple[str, str]
KICKS: tuple[KickValue, ...] = get_args(KickValue)
NONE_BELOW, LARGE_FROM = 0.15, 0.75  # of the source volts
HALF_SAME_PHASE, HALF_OTHER_PHASE = 0.93, 0.84  # 0.84 × −½ = −0.42


def kick_class(ratio: float) -> int:
    """Return the place in KICKS of a ratio of sense to source volts."""
    if abs(ratio) < NONE_BELOW:
        return 2
    large = abs(ratio) >= LARGE_FROM
    return (0 if large else 1) if ratio > 0 else (4 if large else 3)


def kick(network: Network, source: Pair, sense: Pair, halves: Halves = "alternate") -> KickValue:
    """Return what a battery on `source` shows on `sense` at make, for halves that lie as `halves` says.

    The paths may run through several coils. `none` also where a pair does not conduct.
    """
    return KICKS[kick_class(network.kick_ratio(source, sense, coupled(network, halves)))]


def coupled(network: Network, halves: Halves = "alternate") -> NDArray[np.float64]:
    """Return M_kl/M of all coils for halves that lie as `halves` says, shape (coils, coils)."""
    if halves == "alternate":
        return network.mutual(HALF_SAME_PHASE, HALF_OTHER_PHASE)
    return fields(network.coils, halves).mutual()


def series_volt(
    network: Network,
    source: Pair,
    tie: Pair,
    across: Pair,
    applied: float = 12.0,
    rotor: Rotor | None = None,
    halves: Halves = "alternate",
    hertz: float = 60.0,
) -> float:
    """Return the volts read `across` two leads with `applied` V on `source` and two leads tied.

    The paths may run through several coils; without `rotor` one with its cage out of the bore.
    Raises: ValueError when a lead is not one of the network's.
    """
    unknown = {*source, *tie, *across} - set(network.nodes())
    if unknown:
        raise ValueError(f"no such leads: {sorted(unknown)}")
    supply = Supply(volts={source[0]: complex(applied), source[1]: 0j}, omega=2 * np.pi * hertz)
    found = solve(
        network.joined([tie]), supply, 1.0, rotor or default_rotor(network, caged=False), halves
    )
    return float(abs(found.node_volt[across[0]][0] - found.node_volt[across[1]][0]))
