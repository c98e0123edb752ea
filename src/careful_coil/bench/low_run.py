"""What a hidden motor shows on low volts with its joints as they are: amps, how and which way it turns."""

import math
from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.states import state_at, with_devices
from careful_coil.core.winding.coupling import Halves, fields
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.rotor import default_rotor
from careful_coil.core.winding.steady import Complex, Floats, Steady, Supply, lead_amps, solve
from careful_coil.core.winding.turning import turn_odds

AT_SLIP = (0.03, 0.3, 1.0)  # running smooth, rough, at standstill
TURNS = ("smooth", "rough", "none")
BLOWN = 99.0  # A: what the bench's fuse ends


def pole_ratio(network: Network, halves: Halves, still: Steady) -> float:
    """Return the poles of the field that carries a motor, over those of its first field, from standstill."""
    waves = fields(network.coils, halves)
    carried = waves.weight * (abs(still.forward[-1]) ** 2 + abs(still.backward[-1]) ** 2)
    return float(waves.poles[int(np.argmax(carried))])


def several_speeds(network: Network, halves: Halves) -> bool:
    """Whether a winding can carry fields of different pole numbers."""
    return len(set(fields(network.coils, halves).poles.tolist())) > 1


def first_slip(slip: Floats, way: int, ratio: float) -> Floats:
    """Return the slip against the first field, from that against the one of `ratio` times its poles."""
    return np.asarray(1 - way * (1 - slip) / ratio)


def run_of(
    network: Network,
    joints: Sequence[Sequence[str]],
    devices: Sequence[Device],
    supply: tuple[int, float, float],
    halves: Halves,
) -> tuple[str, dict[str, float], str, dict[str, float]]:
    """Return how it turns, A of each line, cw or ccw at the drive end (or nothing), A in each lead.

    `supply` phases, V, Hz. Lines in the order L1 L2 L3 turn it clockwise at the drive end.
    """
    phases, volt, hertz = supply
    lined = network.joined(joints)
    wired = with_devices(lined, devices, state_at(devices, "start")) if devices else lined
    brushed = any(c.like == "armature" for c in network.coils)
    fed, rotor = Supply.of(phases, volt, hertz, hertz), default_rotor(wired, caged=not brushed)
    found = solve(wired, fed, AT_SLIP, rotor, halves)
    if (
        several_speeds(wired, halves) and not found.shorted
    ):  # it runs up to the field that carries it
        ratio = pole_ratio(wired, halves, found)
        side = -1 if float(found.torque[-1]) < 0 else 1
        found = solve(wired, fed, first_slip(np.array(AT_SLIP), side, ratio), rotor, halves)
        ahead, behind = (_main(wired, halves, f) for f in (found.forward, found.backward))
        found = replace(found, forward=ahead, backward=behind)
    lines = ("L1", "L2", "L3")[:phases] if phases == 3 else ("L1",)
    if found.shorted:
        return "none", dict.fromkeys(lines, BLOWN), "", {}
    turns, way = _turning(found, phases, brushed)
    at = TURNS.index(turns)
    amps = {n: float(abs(found.line_amp[n][at])) if n in found.line_amp else 0.0 for n in lines}
    coils = {c.name: complex(a) for c, a in zip(network.coils, found.coil_amp[at], strict=True)}
    return turns, amps, way, lead_amps(network, coils)


def _main(network: Network, halves: Halves, waves: Complex) -> Complex:
    """Return the waves with the strongest at standstill first."""
    order = np.argsort(-fields(network.coils, halves).weight * abs(waves[-1]) ** 2)
    return np.asarray(waves[:, order])


def _turning(found: Steady, phases: int, brushed: bool) -> tuple[str, str]:
    """Return how it turns and which way; a commutator turns the way its current's product says."""
    ahead, behind = (float(abs(f[-1, 0])) for f in (found.forward, found.backward))
    if brushed:
        return ("smooth" if float(abs(found.coil_amp[-1]).max()) > 0 else "none"), ""
    most = max(ahead, behind)
    if most <= 0 or math.isclose(ahead, behind, rel_tol=1e-6):
        return "none", ""
    share = min(ahead, behind) / most
    if phases == 1:  # a start winding's field is never round
        return ("smooth" if share < 0.95 else "none"), "cw" if ahead > behind else "ccw"
    odds = turn_odds(share)
    word = TURNS[odds.index(max(odds))]
    return word, "" if word == "none" else "cw" if ahead > behind else "ccw"
