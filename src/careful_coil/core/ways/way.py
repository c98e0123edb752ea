"""A hookup a motor can have: its joints, what they are for, what the network says of them."""

import itertools
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

from careful_coil.core.ways.devices import Device, Moment
from careful_coil.core.ways.states import State, state_at, with_devices
from careful_coil.core.winding.arrangements import arrangement
from careful_coil.core.winding.network import Network

LINES = ("L1", "L2", "L3")  # what feeds; N is a second name of L2 where there is one phase
Joint = tuple[str, ...]
Ohms = float | Mapping[str, float]  # of every coil alike, or by coil name, in Ω


@dataclass(frozen=True, slots=True)
class Stage:
    """One stage of starting: its name (star, delta, first-half, run) and its joints."""

    name: str
    joints: tuple[Joint, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Plan:
    """A hookup: its plain name, its joints by lead name, remarks.

    `factor` line volts over the volts of one coil; `family` wye or delta where both can be; `rank`
    the place of its rating on the plate; `stages` of starting, the last being `joints`; `field`
    which pole number works (0 the larger); `turning` how its direction is changed: outside, opening,
    no (not at all) or "" (by exchanging two lines).
    """

    arrangement: str
    connection: str
    joints: tuple[Joint, ...]
    rank: int = 0
    variant: str = ""
    factor: float = 1.0
    family: str = ""
    start: str = "direct"
    speed: str = ""
    reversed: bool = False
    stages: tuple[Stage, ...] = ()
    devices: tuple[Device, ...] = ()
    field: int = 0
    turning: str = ""
    notes: tuple[str, ...] = ()

    def lines(self) -> tuple[str, ...]:
        """Return the lines it uses, in order."""
        used = {n for j in self.joints for n in j}
        return tuple(n for n in LINES if n in used)

    def network(self, coil_ohm: Ohms = 1.0, state: State | Moment = "rest") -> Network:
        """Return the winding with the joints made, in Ω of `coil_ohm` (one figure, or by coil)."""
        inside = arrangement(self.arrangement).inside(self.variant)
        return made(inside, self.joints, self.devices, coil_ohm, state)

    def line_ohm(self, coil_ohm: Ohms) -> dict[str, float]:
        """Return the ohms between lines at rest; infinite where nothing conducts."""
        return line_ohms(self.network(coil_ohm), self.lines())


def made(
    inside: Network,
    joints: tuple[Joint, ...],
    devices: tuple[Device, ...] = (),
    coil_ohm: Ohms = 1.0,
    state: State | Moment = "start",
) -> Network:
    """Return a winding with joints and devices in a state, or in the first one of a moment."""
    key = coil_ohm if isinstance(coil_ohm, int | float) else tuple(sorted(coil_ohm.items()))
    network = _wound(inside, key).joined(joints)
    if not devices:
        return network
    at = state if isinstance(state, State) else state_at(devices, state)
    return with_devices(network, devices, at)


@lru_cache(maxsize=64)
def _wound(inside: Network, ohms: float | tuple[tuple[str, float], ...]) -> Network:
    if isinstance(ohms, tuple):
        return inside.with_ohm(dict(ohms))
    return inside.with_ohm(dict.fromkeys((c.name for c in inside.coils), float(ohms)))


def line_ohms(network: Network, lines: Sequence[str]) -> dict[str, float]:
    """Return the direct-current ohms between each two of `lines`; infinite where nothing conducts."""
    nodes = set(network.nodes())
    joined = [n for n in lines if n in nodes]
    ohm = network.resistance(joined)
    at = {n: k for k, n in enumerate(joined)}
    return {
        f"{a}-{b}": float(ohm[at[a], at[b]]) if a in at and b in at else float("inf")
        for a, b in itertools.combinations(lines, 2)
    }
