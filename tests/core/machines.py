"""Invented motors of every kind, with a plate as a shop would find it."""

import math
import random
from dataclasses import dataclass, replace

import numpy as np

from careful_coil.core.machine.curves import curve
from careful_coil.core.machine.facts import USUAL, USUAL_START, Facts, Kind
from careful_coil.core.machine.motor import Machine, Motor
from careful_coil.core.machine.power import CODE_LETTERS
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.usual import CURRENT, RUN, START, SWITCH
from careful_coil.core.ways.way import Plan
from careful_coil.core.winding.arrangements import arrangement
from careful_coil.core.winding.network import ohms_share
from careful_coil.core.winding.rotor import Rotor
from careful_coil.core.winding.single_phase import START_COILS

FOUR, CRS = "single-phase-4-lead", "single-phase-3-lead"
WINDINGS: dict[Kind, tuple[tuple[str, tuple[Device, ...]], ...]] = {
    "three-phase": (
        ("three-phase-3-lead", ()),
        ("three-phase-6-lead", ()),
        ("three-phase-9-lead-wye", ()),
        ("three-phase-9-lead-delta", ()),
        ("three-phase-12-lead", ()),
    ),
    "split-phase": ((FOUR, (SWITCH,)), (CRS, (CURRENT,))),
    "capacitor-start": (
        (FOUR, (SWITCH, START)),
        ("single-phase-dual-voltage-6-lead", (SWITCH, START)),
    ),
    "capacitor-start-run": ((FOUR, (SWITCH, START, RUN)),),
    "psc": ((CRS, (RUN,)), (FOUR, (RUN,))),
}


@dataclass(frozen=True)
class Invented:
    """A motor as it truly is, the plan it is joined by, and what its plate and ohms say."""

    motor: Motor
    plan: Plan
    facts: Facts


def digits(value: float, count: int = 3) -> float:
    """A figure as a plate has it."""
    return float(f"{value:.{count}g}")


def invented(chance: random.Random, spread: float = 1.0) -> Invented:
    """A motor whose rated point is stable and well below its breakdown torque."""
    while True:
        found = _tried(chance, spread)
        if found is not None:
            return found


def _tried(chance: random.Random, spread: float) -> Invented | None:
    kind = chance.choice(list(WINDINGS))
    slug, devices = chance.choice(WINDINGS[kind])
    plans = plans_of(slug, devices=devices)
    plan = chance.choice([p for p in plans if not p.reversed and p.start == "direct"])
    three = kind == "three-phase"
    hertz, poles = chance.choice([50.0, 60.0]), chance.choice([2, 4, 6])
    volt = chance.choice([230.0, 400.0, 460.0] if three else [115.0, 230.0])
    root = math.sqrt(3) if three else 1.0
    amp = 10 ** (chance.uniform(3, 4.7) if three else chance.uniform(2.3, 3.4)) / volt / root

    def off(share: float) -> float:
        return math.exp(chance.gauss(0, share * spread))

    inside = arrangement(slug).inside(plan.variant)
    lines = plan.lines()
    line = plan.network(1.0, "run").ohm_between(lines[0], lines[1])
    base = volt / root / amp / (line / 2 if three else line)  # ohms a coil
    count = sum(c.angle == inside.coils[0].angle for c in inside.coils)
    unit = base / count * 2 / (3 if three else 2)
    usual = USUAL[kind]
    leakage, stator, turns = usual.leakage * off(0.2), chance.uniform(0.35, 0.5), usual.turns
    turns *= off(0.12)
    thin = chance.uniform(2.5, 5) if kind == "split-phase" else chance.uniform(1.2, 2.5)
    main = usual.ohm * off(0.25) * base
    machine = Machine(
        rotor=Rotor(
            xm=usual.magnetizing * off(0.2) * unit,
            r2=usual.rotor * off(0.25) * unit,
            x2=(1 - stator) * leakage * unit,
        ),
        leakage=stator * leakage * base,
        poles=poles,
        hertz=hertz,
        turns=turns,
    )
    ohms = {c.name: main * (turns**2 * thin if c.like in START_COILS else 1) for c in inside.coils}
    farad = 1e6 / (2 * math.pi * hertz * base * line * turns**2)
    plan = replace(
        plan,
        devices=tuple(
            replace(d, microfarad=digits(farad * chance.uniform(*_REACH[d.kind])))
            if d.kind in _REACH
            else d
            for d in plan.devices
        ),
    )
    slip = chance.uniform(0.015, 0.05) if three else chance.uniform(0.02, 0.06)
    return _with_plate(chance, kind, plan, Motor.of_plan(plan, machine, ohms, volt), slip)


_REACH = {"capacitor-start": (2.2, 4.0), "capacitor-run": (0.77, 1.1)}


def _with_plate(
    chance: random.Random, kind: Kind, plan: Plan, motor: Motor, slip: float
) -> Invented | None:
    three = kind == "three-phase"
    run = motor.steady(slip, "run")
    torque = float(motor.torque_nm(run)[0])
    speed = 2 * math.pi * motor.sync_rpm / 60
    air = torque * speed * (1 - slip)
    shape = curve(motor, "run")
    if torque > 0.75 * shape.torque.max() or slip > shape.slip[int(np.argmax(shape.torque))]:
        return None
    if kind in USUAL_START:
        low, high = USUAL_START[kind]
        share = float(motor.torque_nm(motor.standstill)[0]) / torque
        if not 0.8 * low < share < 1.25 * high:
            return None
    drag = air * (chance.uniform(0.02, 0.04) if three else chance.uniform(0.05, 0.14))
    motor = replace(motor, machine=replace(motor.machine, drag_watt=drag))
    watt = air - drag * (1 - slip) ** 2
    amp = max(abs(a[0]) for a in run.line_amp.values())
    locked = max(abs(a[0]) for a in motor.steady(1.0, "start").line_amp.values())
    kva = locked * motor.volt * (math.sqrt(3) if three else 1) / 1000 / (watt / 745.7)
    letter = next(k for k, most in CODE_LETTERS.items() if kva < most)
    assert isinstance(motor.coil_ohm, dict)
    share = ohms_share(75.0, 25.0)
    facts = Facts(
        kind=kind,
        volt=motor.volt,
        hertz=motor.hertz,
        rpm=round(motor.sync_rpm * (1 - slip)),
        amp=digits(amp),
        watt=digits(watt),
        letter=letter if chance.random() < 0.7 else "",
        coil_ohm={n: digits(o * share) for n, o in motor.coil_ohm.items()},
    )
    return Invented(motor, plan, facts)
