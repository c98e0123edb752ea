"""What if: this motor with another capacitor, more ohms in the start path, other volts or hertz, its start
winding left in or turned round, a load or a stiff bearing on its shaft.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace

from careful_coil.core.machine.curves import Curve
from careful_coil.core.machine.heating import stall_seconds
from careful_coil.core.machine.motor import Motor
from careful_coil.core.machine.run_up import NO_GEAR, Gear, Load, RunUp, run_up
from careful_coil.core.ways.way import Ohms
from careful_coil.core.winding.arrangements import arrangement
from careful_coil.core.winding.single_phase import START_COILS

FADED = 2 / 3  # a capacitor one third down
OTHER_KIND = 5.0  # a start capacitor's µF over a run capacitor's for the same motor, about
LOW = 0.9
UP_SECONDS = 0.5  # the rotor's inertia: full-load torque would bring it up in so long (assumed)
LONGEST_UP = 8.0  # s
# °C a winding's class allows at its hottest (IEC 60085); air it starts from (IEC 60034-1)
CLASS_C: Mapping[str, float] = {"A": 105, "E": 120, "B": 130, "F": 155, "H": 180}
AIR_C = 40.0
RUNNING = 0.95  # of synchronous speed


@dataclass(frozen=True, slots=True, kw_only=True)
class Asked:
    """What is asked: factors of µF, of the start path's ohms and of volts; other hertz; the start winding
    left in, or turned round; `load` on the shaft over full-load torque, at any speed."""

    farad: float = 1.0
    ohm: float = 1.0
    volt: float = 1.0
    load: float = 0.0
    hertz: float | None = None
    stays: bool = False
    turned: bool = False


AS_NOTED = Asked()


def presets(motor: Motor) -> dict[str, Asked]:
    """Return questions worth asking of a motor, by their words."""
    cans = {d.kind for d in motor.devices if d.kind.startswith("capacitor")}
    found: dict[str, Asked] = {"as noted": AS_NOTED}
    if cans:
        found["capacitor a third down"] = Asked(farad=FADED)
        start_only = "capacitor-start" in cans and len(cans) == 1
        if start_only:
            found["a run capacitor in its place"] = Asked(farad=1 / OTHER_KIND)
        elif "capacitor-start" not in cans:
            found["a start capacitor left in"] = Asked(farad=OTHER_KIND)
    if any(d.switches for d in motor.devices):
        found["start winding stays in"] = Asked(stays=True)
    found["10 % low volts"] = Asked(volt=LOW)
    other = 60.0 if abs(motor.hertz - 50) < 5 else 50.0
    found[f"on {other:g} Hz"] = Asked(hertz=other)
    found["start winding reversed"] = Asked(turned=True)
    return found


def asked_motor(motor: Motor, asked: Asked) -> Motor:
    """Return the motor as it is asked about."""
    made = motor
    for d in motor.devices:
        if d.kind.startswith("capacitor"):
            made = made.with_capacitor(d.name, d.microfarad * asked.farad)
    if asked.ohm != 1:
        made = replace(made, coil_ohm=_start_ohms(motor, asked.ohm))
    if asked.turned:
        made = turned_round(made)
    return replace(made, volt=motor.volt * asked.volt, hertz=asked.hertz or motor.hertz)


def _start_ohms(motor: Motor, factor: float) -> Ohms:
    """Return coil ohms with those of the start winding times a factor."""
    coils = arrangement(motor.arrangement).inside(motor.variant).coils
    ohms = motor.coil_ohm
    found: dict[str, float] = {}
    for c in coils:
        own = ohms.get(c.name, ohms.get(c.like, 1.0)) if isinstance(ohms, Mapping) else ohms
        found[c.name] = own * (factor if c.like in START_COILS else 1.0)
    return found


def turned_round(motor: Motor, main: bool = False) -> Motor:
    """Return the motor with the ends of each start coil (of each main coil for `main`) exchanged.

    Coils that share a lead with another (common, run, start) cannot be turned outside: it is returned
    as it is.
    """
    coils = arrangement(motor.arrangement).inside(motor.variant).coils
    own = [c for c in coils if (c.like in START_COILS) != main]
    others = {n for c in coils if c not in own for n in (c.start, c.finish)}
    swap = {c.start: c.finish for c in own} | {c.finish: c.start for c in own}
    if set(swap) & others:
        return motor
    joints = tuple(tuple(swap.get(n, n) for n in j) for j in motor.joints)
    return replace(motor, joints=joints)


@dataclass(frozen=True, kw_only=True, eq=False)
class Picture:
    """What is drawn of a question: curves with the start devices in and out, the run-up against the load,
    N·m at full load of the motor as noted, whether it turns the other way."""

    motor: Motor
    start: Curve
    run: Curve
    up: RunUp
    load: Load
    rated: float
    backward: bool


def picture(noted: Motor, slip: float, asked: Asked) -> Picture:
    """Return the picture of a motor as it is asked about; `slip` its rated one."""
    motor = asked_motor(noted, asked)
    rated = noted.rated_nm(slip)
    omega = 2 * math.pi * noted.sync_rpm / 60
    load = Load(
        inertia=max(rated, 1e-3) * UP_SECONDS / omega, friction=asked.load * max(rated, 0.0)
    )
    up = run_up(motor, load, gear_of(motor, asked.stays), LONGEST_UP)
    return Picture(
        motor=motor,
        start=up.start,
        run=up.start if asked.stays else up.run,
        up=up,
        load=load,
        rated=rated,
        backward=motor.way != noted.way,
    )


def gear_of(motor: Motor, stays: bool = False) -> Gear:
    """Return what takes the start winding out: by speed, a thermistor by its heat, nothing at all."""
    kinds = {d.kind for d in motor.devices if d.switches}
    if stays or not kinds:
        return NO_GEAR
    return Gear.thermistor(motor) if kinds == {"ptc"} else Gear()


@dataclass(frozen=True, slots=True, kw_only=True)
class Heat:
    """How fast the start winding heats: A/mm² and seconds to its class, rotor held, and at speed left in."""

    held_density: float
    held_seconds: float
    in_density: float
    in_seconds: float


def heat_of(start: Curve, wire_mm2: float, insulation: str) -> Heat:
    """Return the start winding's heating by its wire (mm², all strands) up to its class's hottest.

    From 40 °C, no heat lost (adiabatic); a class that is not known counts as B.
    """
    rise = CLASS_C.get(insulation.strip().upper()[:1], CLASS_C["B"]) - AIR_C
    held = float(start.aux_amp[0]) / wire_mm2
    inside = start.at(RUNNING * float(start.rpm[-1]), start.aux_amp) / wire_mm2
    return Heat(
        held_density=held,
        held_seconds=stall_seconds(held, rise),
        in_density=inside,
        in_seconds=stall_seconds(inside, rise),
    )
