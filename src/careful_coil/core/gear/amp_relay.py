"""What a current relay must be for this motor: pull-in and drop-out amps; what a start kit is made for.

Its coil lies in the main winding's path: it must pull in with the inrush on a low line, and let go before the
amps of a loaded run on a high line (rated volts ±10 %, NEMA MG 1).
"""

import re
from dataclasses import dataclass, replace

from careful_coil.core.errors import BadValue, CannotConnect
from careful_coil.core.gear.relay import HIGH_LINE, LOW_LINE, PICK_UP, SLOWEST
from careful_coil.core.job.plate import Nameplate
from careful_coil.core.machine.curves import start_curves
from careful_coil.core.machine.motor import Motor
from careful_coil.core.units import HORSEPOWER_W

NEAR_VOLT = 0.10  # of 1: rated volts ±10 % (NEMA MG 1)


@dataclass(frozen=True, slots=True, kw_only=True)
class AmpRelayNeeds:
    """A of the main winding at rated line: what it must pull in below, and let go above.

    `still` and `running` (at most, loaded) what passes its coil; `letting` what passes at 80 and 75 % of
    synchronous speed, where it lets go best; None where that was not worked out.
    """

    pull_in_below: float
    drop_out_above: float
    still: float
    running: float
    letting: tuple[float, float] | None = None


def amp_relay_needs(motor: Motor) -> AmpRelayNeeds:
    """Return what a current relay must be. Raises: CannotConnect where amps do not fall enough."""
    start, run = start_curves(motor)
    if not motor.coils(True):
        raise CannotConnect("This motor has no start winding for a relay to put in.")
    high, low = (start.at(p * motor.sync_rpm, start.main_amp) for p in PICK_UP)
    running = float(run.main_amp[run.rpm >= SLOWEST * motor.sync_rpm].max())
    return replace(amp_relay_needs_measured(float(start.main_amp[0]), running), letting=(low, high))


def amp_relay_needs_measured(still: float, running: float) -> AmpRelayNeeds:
    """Return the same from the main winding's amps, clamped alone: at standstill and in a loaded run.

    Raises: CannotConnect where they do not fall enough.
    """
    below, above = LOW_LINE * still, HIGH_LINE * running
    if not below > above:
        raise CannotConnect(
            f"The main winding takes {still:.3g} A at standstill and {running:.3g} A in a run: too little between "
            "them for a current relay. It is one for small motors, to about 0.75 kW."
        )
    return AmpRelayNeeds(pull_in_below=below, drop_out_above=above, still=still, running=running)


def amp_relay_words(needs: AmpRelayNeeds) -> str:
    """Return in words what the relay must be."""
    best = ""
    if needs.letting is not None:
        best = f" At 75 to 80 % of its speed {needs.letting[0]:.3g} to {needs.letting[1]:.3g} A are there."
    return (
        f"Wanted: pull-in below {needs.pull_in_below:.3g} A, or on a low line it does not start; drop-out above "
        f"{needs.drop_out_above:.3g} A, or under load on a high line it stays in.{best} The main winding alone "
        f"takes {needs.still:.3g} A at standstill, up to {needs.running:.3g} A in a run. The motor maker's own "
        "part wins."
    )


_HP = r"\d+(?:\.\d+)?(?:/\d+)?"
_KIT = re.compile(
    rf"(?P<low>{_HP})\s*(?:-|–|to)\s*(?P<high>{_HP})\s*hp\W+(?P<first>\d+)\s*(?:-|–|to)\s*(?P<last>\d+)\s*V",
    re.IGNORECASE,
)
KIT_WANTED = "horsepower and volts it is made for, as printed: 1/12-1/2 hp 90-120 V"


def kit_suits(text: str, plate: Nameplate) -> tuple[bool, str]:
    """Return whether a start kit (start capacitor with its own relay) is made for this motor, and why.

    It goes across the run capacitor of a permanent-split motor. Raises: BadValue for a print that says no range.
    """
    found = _KIT.search(text)
    if found is None:
        raise BadValue(text, KIT_WANTED)
    low, high = _horse(found["low"]), _horse(found["high"])
    first, last = float(found["first"]), float(found["last"])
    if not plate.power_w or not plate.volts:
        return False, "the plate's power and volts are wanted first"
    hp, volt = plate.power_w / float(HORSEPOWER_W), plate.volts[0][0]
    against = []
    if not low * (1 - NEAR_VOLT) <= hp <= high * (1 + NEAR_VOLT):
        side = (
            "its capacitor is too small to start it"
            if hp > high
            else "its capacitor is too large: it jerks"
        )
        against.append(f"made for {low:.3g} to {high:.3g} hp, the plate has {hp:.3g}: {side}")
    if not first <= volt <= last:
        against.append(f"made for {first:g} to {last:g} V, the motor has {volt:g} V")
    return (not against, "; ".join(against) or f"{hp:.3g} hp and {volt:g} V lie within its own")


def _horse(text: str) -> float:
    over, _, under = text.partition("/")
    return float(over) / float(under or 1)
