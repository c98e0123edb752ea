"""What a hidden motor shows on low volts with its joints as they are: amps, how and which way it turns."""

import math
from collections.abc import Sequence

from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.states import state_at, with_devices
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.rotor import default_rotor
from careful_coil.core.winding.steady import Steady, Supply, lead_amps, solve
from careful_coil.core.winding.turning import turn_odds

AT_SLIP = (0.03, 0.3, 1.0)  # running smooth, rough, at standstill
TURNS = ("smooth", "rough", "none")
BLOWN = 99.0  # A: what the bench's fuse ends


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
    found = solve(
        wired,
        Supply.of(phases, volt, hertz, hertz),
        AT_SLIP,
        default_rotor(wired, caged=not brushed),
        halves,
    )
    lines = ("L1", "L2", "L3")[:phases] if phases == 3 else ("L1",)
    if found.shorted:
        return "none", dict.fromkeys(lines, BLOWN), "", {}
    turns, way = _turning(found, phases, brushed)
    at = TURNS.index(turns)
    amps = {n: float(abs(found.line_amp[n][at])) if n in found.line_amp else 0.0 for n in lines}
    coils = {c.name: complex(a) for c, a in zip(network.coils, found.coil_amp[at], strict=True)}
    return turns, amps, way, lead_amps(network, coils)


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
