"""What a hidden motor shows turning free at any volts: amps, watts, rpm, warmth; with a bearing or a line bad."""

import math
from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.states import state_at, with_devices
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.rotor import default_rotor
from careful_coil.core.winding.steady import Supply, solve

DRAG = 0.02  # of the torque at standstill and full volts: bearings and fan at full speed
STICTION = 0.6  # of the drag: what a free shaft needs to begin
IRON = 0.25  # watts of the iron over the copper's at full volts and no load
AIR_C, WARM_K, WARM_MIN = 21.0, 38.0, 22.0


def trial_of(
    network: Network,
    joints: Sequence[Sequence[str]],
    devices: Sequence[Device],
    supply: tuple[int, float, float],
    nominal: float,
    poles: int,
    halves: Halves,
    stiff: float = 1.0,
    dead_line: str = "",
) -> tuple[dict[str, float], float, float, str]:
    """Return A of each line, W, rpm and how it turns; `stiff` times the usual drag, `dead_line` opened."""
    phases, volt, hertz = supply
    wired = _wired(network, joints, devices, "run", dead_line)
    still = _wired(network, joints, devices, "start", "")
    rotor = default_rotor(wired)
    full = solve(still, Supply.of(phases, nominal or volt, hertz, hertz), 1.0, rotor, halves)
    drag = DRAG * stiff * abs(float(full.torque[0]))
    lines = ("L1", "L2", "L3")[:phases] if phases == 3 else ("L1",)
    at_rest = solve(still, Supply.of(phases, volt, hertz, hertz), 1.0, rotor, halves)
    if at_rest.shorted:
        return dict.fromkeys(lines, 99.0), 0.0, 0.0, "none"
    way = -1 if float(at_rest.torque[0]) < 0 else 1
    turns = abs(float(at_rest.torque[0])) >= STICTION * drag
    slip = np.geomspace(3e-4, 1.0, 160)
    found = solve(
        wired, Supply.of(phases, volt, hertz, hertz), slip if way > 0 else 2 - slip, rotor, halves
    )
    spare = way * found.torque - drag * (1 - slip)
    runs = np.nonzero(spare >= 0)[0]
    shown, k = (found, int(runs[0])) if turns and len(runs) else (at_rest, 0)
    amps = {n: float(abs(shown.line_amp[n][k])) if n in shown.line_amp else 0.0 for n in lines}
    iron = IRON * drag * (volt / (nominal or volt)) ** 2
    watt = float(shown.power_in[k]) + iron
    rpm = 120 * hertz / poles * (1 - float(slip[k])) if shown is found else 0.0
    return amps, watt, rpm, "smooth" if rpm else "none"


def _wired(
    network: Network,
    joints: Sequence[Sequence[str]],
    devices: Sequence[Device],
    moment: str,
    dead_line: str,
) -> Network:
    kept = [[n for n in j if n != dead_line] for j in joints]
    lined = replace(network.joined([j for j in kept if len(j) > 1]))
    if not devices:
        return lined
    return with_devices(lined, devices, state_at(devices, "run" if moment == "run" else "start"))


def warmth(minutes: float) -> float:
    """Return °C of the winding after so many minutes at full volts without load."""
    return AIR_C + WARM_K * (1 - math.exp(-minutes / WARM_MIN))
