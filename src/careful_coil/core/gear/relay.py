"""What a voltage relay must be for this motor: pick-up, drop-out and continuous coil volts.

The start winding's volts rise with speed. The relay must pick up at 75 to 80 % of synchronous speed with
the start capacitor in, hold in run at the lowest volts there, and bear the highest for good.
"""

from dataclasses import dataclass

import numpy as np

from careful_coil.core.errors import CannotConnect
from careful_coil.core.machine.curves import start_curves
from careful_coil.core.machine.motor import Motor

PICK_UP = (0.75, 0.80)  # of synchronous speed (trade practice)
LOW_LINE, HIGH_LINE = 0.90, 1.10  # NEMA MG 1: rated volts ±10 %
SLOWEST = 0.92  # of synchronous speed: as slow as a loaded motor may run


@dataclass(frozen=True, slots=True, kw_only=True)
class RelayNeeds:
    """Volts across 5 and 2: pick-up between, drop-out below, coil good for at least, all at rated line.

    `standstill` what it sees at the start, which must not pick it up even on a high line; `held` at speed
    while the start capacitor is still in.
    """

    pick_up: tuple[float, float]
    drop_out_below: float
    continuous: float
    standstill: float
    held: float


def relay_needs(motor: Motor) -> RelayNeeds:
    """Return what a voltage relay must be. Raises: CannotConnect where volts do not rise enough."""
    start, run = start_curves(motor)
    if not motor.coils(True):
        raise CannotConnect("This motor has no start winding for a relay to watch.")
    low, high = (start.at(p * motor.sync_rpm, start.aux_volt) for p in PICK_UP)
    still = float(start.aux_volt[0])
    running = run.rpm >= SLOWEST * motor.sync_rpm
    lowest, highest = (float(f(run.aux_volt[running])) for f in (np.min, np.max))
    if not high > HIGH_LINE * still:
        raise CannotConnect(
            f"The start winding has {still:.0f} V at standstill and {high:.0f} V at switching speed: too "
            "little between them for a voltage relay."
        )
    return RelayNeeds(
        pick_up=(max(low, HIGH_LINE * still), high),
        drop_out_below=LOW_LINE * lowest,
        continuous=HIGH_LINE * highest,
        standstill=still,
        held=float(start.aux_volt[-1]),
    )


# how far the start winding's volts have come from standstill to speed, start capacitor in, at 75 and 80 % of
# synchronous speed; and what of its volts at no load a loaded motor has left, start capacitor out: both from
# the network, estimated capacitor motors with 60 to 160 µF
ON_THE_WAY = (0.46, 0.54)
LOADED = 0.87


def relay_needs_measured(still: float, held: float, running: float) -> RelayNeeds:
    """Return the same from the start winding's volts, measured across the winding itself, uncoupled.

    `still` at standstill, `held` at speed while the start capacitor is still in (for a second),
    `running` at speed with it out. Raises: CannotConnect where they do not rise enough.
    """
    low, high = (still + share * (held - still) for share in ON_THE_WAY)
    if not high > HIGH_LINE * still:
        raise CannotConnect(
            f"The start winding has {still:g} V at standstill and {held:g} V at speed: too little between "
            "them for a voltage relay. Read them across the winding itself, behind the capacitor."
        )
    return RelayNeeds(
        pick_up=(max(low, HIGH_LINE * still), high),
        drop_out_below=LOW_LINE * LOADED * running,
        continuous=HIGH_LINE * running,
        standstill=still,
        held=held,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class RelayOffered:
    """A relay's own figures in V: pick-up from and to, drop-out from and to, continuous coil volts."""

    pick_up: tuple[float, float]
    drop_out: tuple[float, float]
    continuous: float


def relay_suits(needs: RelayNeeds, relay: RelayOffered) -> tuple[str, tuple[str, ...]]:
    """Return good, watch or hold for a relay offered, and what speaks for it or against it."""
    (low, high), (first, last) = relay.pick_up, needs.pick_up
    reached = LOW_LINE * needs.held
    against, for_it = [], []
    if low <= HIGH_LINE * needs.standstill:
        against.append(
            f"it may pick up at {low:g} V, while {HIGH_LINE * needs.standstill:.0f} V can stand there at rest: "
            "the motor would not start"
        )
    elif high > reached:
        against.append(
            f"it may want {high:g} V to pick up; on a low line the winding reaches {reached:.0f} V: the start "
            "capacitor would stay in"
        )
    else:
        for_it.append(f"picks up within {low:g} to {high:g} V")
    if relay.drop_out[1] >= needs.drop_out_below:
        against.append(
            f"it may let go at {relay.drop_out[1]:g} V, {needs.drop_out_below:.0f} V are there under load on a "
            "low line: it would chatter"
        )
    else:
        for_it.append(f"holds down to {relay.drop_out[1]:g} V")
    if relay.continuous < needs.continuous:
        against.append(
            f"its coil bears {relay.continuous:g} V, {needs.continuous:.0f} V may stand there for good: it burns"
        )
    else:
        for_it.append(f"its coil bears {relay.continuous:g} V")
    if against:
        return "hold", tuple(against)
    off = low < LOW_LINE * first or high > HIGH_LINE * last
    if off:
        for_it.append(f"{first:.0f} to {last:.0f} V would be nearer to 75 to 80 % of its speed")
    return ("watch" if off else "good"), tuple(for_it)
