"""What an electronic switch must bear in place of a mechanical one, worked out on this motor."""

import math
from dataclasses import dataclass

import numpy as np

from careful_coil.core.errors import CannotConnect
from careful_coil.core.machine.curves import start_curves
from careful_coil.core.machine.motor import Motor
from careful_coil.core.machine.run_up import OUT_SHARE
from careful_coil.core.ways.devices import START_DEVICES

HIGH_LINE = 1.10  # NEMA MG 1: rated volts ±10 %
RUNNING = 0.92  # of synchronous speed: as slow as a loaded motor may run


@dataclass(frozen=True, slots=True, kw_only=True)
class Needs:
    """What stands on a start device in this motor, rms, the line 10 % high.

    `amp` through it at standstill; `open_volt` across its open contact in run, the start capacitor let
    down; `charged_volt` the peak there while the start capacitor still holds its charge; `sense_still`
    and `sense_out` the start winding's volts at standstill and when it must let go, at rated line;
    `microfarad` what it switches.
    """

    amp: float
    open_volt: float
    charged_volt: float
    sense_still: float
    sense_out: float
    microfarad: float


def needs_of(motor: Motor) -> Needs:
    """Return what a start device in this motor must bear. Raises: CannotConnect where it has none."""
    device = next((d for d in motor.devices if d.kind in START_DEVICES and d.switches), None)
    if device is None:
        raise CannotConnect("No switch or relay takes this motor's start winding out.")
    start, run = start_curves(motor)
    ends = ("1", "2") if device.kind not in ("relay-current", "hot-wire") else device.pulled[0]
    one, two = (run.steady.node_volt.get(device.at(t)) for t in ends)
    if one is None or two is None:
        raise CannotConnect("The switch does not lie in the start winding's path.")
    running = run.rpm >= RUNNING * motor.sync_rpm
    across = float(np.abs(one - two)[running].max())
    out = OUT_SHARE * motor.sync_rpm
    held = [start.at(out, v) for n, v in start.capacitor_volt.items() if _is_start(motor, n)]
    kept = math.sqrt(2) * max(held, default=0.0)
    return Needs(
        amp=HIGH_LINE * float(start.aux_amp[0]),
        open_volt=HIGH_LINE * across,
        charged_volt=HIGH_LINE * (math.sqrt(2) * across + kept),
        sense_still=float(start.aux_volt[0]),
        sense_out=start.at(out, start.aux_volt),
        microfarad=sum(d.microfarad for d in motor.devices if d.kind == "capacitor-start"),
    )


def _is_start(motor: Motor, name: str) -> bool:
    return any(
        d.kind == "capacitor-start" and d.name == name.split(".", maxsplit=1)[0]
        for d in motor.devices
    )
