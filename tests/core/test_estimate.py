"""Parameters from what a shop knows: plates of invented motors given back, readings used, what is assumed."""

import math
import random
from dataclasses import replace

import numpy as np
import pytest

from careful_coil.core.errors import BadDocument, ValueOutOfRange
from careful_coil.core.machine.curves import curve, start_curves
from careful_coil.core.machine.estimate import Estimate, estimate
from careful_coil.core.machine.facts import Facts, Metered
from careful_coil.core.machine.motor import Motor
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.usual import RUN, START, SWITCH
from careful_coil.core.winding.network import ohms_share
from careful_coil.core.winding.single_phase import START_COILS
from tests.core.machines import FOUR, Invented, invented

SIX = plans_of("three-phase-6-lead")[2]
PLATE = Facts(
    kind="three-phase", volt=400, hertz=50, rpm=1430, amp=3.5, watt=1500, letter="J", coil_ohm=3.6
)


def rated(found: Estimate, facts: Facts) -> tuple[float, float, float]:
    """Amps and torque at the plate's speed and slip at the plate's torque, off by so many %."""
    shape = curve(found.motor, "run", 1200)
    wanted = (facts.watt or 0) / (2 * math.pi * facts.rpm / 60)
    stable = slice(int(np.argmax(shape.torque)), None)
    slip = np.interp(-wanted, -shape.shaft[stable], shape.slip[stable])
    got = (
        shape.at(facts.rpm, shape.line_amp) / (facts.amp or 1),
        shape.at(facts.rpm, shape.shaft) / wanted,
        slip / facts.slip,
    )
    return tuple(100 * (g - 1) for g in got)  # type: ignore[return-value]


def test_the_plates_of_twenty_motors_come_back() -> None:
    """Amps, torque and slip within 2 %, whatever kind and winding; what was assumed is listed."""
    chance = random.Random(20)
    kinds = set()
    for _ in range(20):
        made = invented(chance)
        found = estimate(made.plan, made.facts)
        assert max(abs(o) for o in rated(found, made.facts)) < 2.0, made.facts
        assert found.notes == ()
        assert all(abs(m.off_percent) < 2 for m in found.met if "letter" not in m.name)
        names = {a.name for a in found.assumed}
        assert {"core loss and friction", "magnetizing reactance", "winding at load"} <= names
        assert ("locked amps" in names) is not bool(made.facts.letter)
        kinds.add(made.facts.kind)
    assert len(kinds) == 5


def test_motors_far_from_usual_come_back_too() -> None:
    """Figures scattered twice as far as the usual ones allow for."""
    chance = random.Random(7)
    for _ in range(6):
        made = invented(chance, spread=2.0)
        found = estimate(made.plan, made.facts)
        assert max(abs(o) for o in rated(found, made.facts)) < 2.0 or found.notes


def with_readings(made: Invented) -> Facts:
    """The plate with a no-load and a locked reading of the motor as it truly is."""
    motor, volt = made.motor, made.facts.volt
    shape = curve(motor, "run", 4000)
    at = int(np.flatnonzero(shape.shaft > 0)[-1])
    idle = Metered(volt, float(shape.line_amp[at]), float(shape.power_in[at]))
    held = replace(motor, volt=0.3 * volt).steady(1.0, "start")
    amp = max(float(abs(a[0])) for a in held.line_amp.values())
    locked = Metered(0.3 * volt, amp, float(held.power_in[0]))
    return replace(made.facts, no_load=idle, locked=locked, letter="")


def test_readings_make_the_rest_of_the_curve_true() -> None:
    """With a no-load and a locked reading, start and breakdown torque of three phases within 10 %."""
    chance = random.Random(5)
    apart: list[float] = []
    while len(apart) < 24:
        made = invented(chance)
        if made.facts.kind != "three-phase":
            continue
        found = estimate(made.plan, with_readings(made))
        assert max(abs(o) for o in rated(found, made.facts)) < 2.0
        assert "core loss and friction" not in {a.name for a in found.assumed}
        for one, two in zip(start_curves(found.motor), start_curves(made.motor), strict=True):
            apart += [
                one.torque[0] / two.torque[0] - 1,
                one.torque.max() / two.torque.max() - 1,
            ]
    assert max(abs(a) for a in apart) < 0.10


def test_locked_readings_of_each_winding_tell_the_turns() -> None:
    """A capacitor-start motor: turns of the start winding within 3 % from its own locked reading."""
    chance = random.Random(11)
    for _ in range(60):
        made = invented(chance)
        if made.facts.kind != "capacitor-start" or made.plan.arrangement != FOUR:
            continue
        readings = []
        for ends in (("main-1", "main-2"), ("aux-1", "aux-2")):
            joints = (("L1", ends[0]), ("L2", ends[1]))
            volt = 0.3 * made.facts.volt
            alone = replace(made.motor, joints=joints, devices=(), volt=volt)
            still = alone.steady(1.0)
            readings.append(
                Metered(volt, float(abs(still.line_amp["L1"][0])), float(still.power_in[0]))
            )
        facts = replace(made.facts, locked_main=readings[0], locked_aux=readings[1])
        found = estimate(made.plan, facts)
        assert found.machine.turns == pytest.approx(made.motor.machine.turns, rel=0.03)
        assert "start winding's turns" not in {a.name for a in found.assumed}


def test_published_motors_are_found_again_from_plate_and_ohms() -> None:
    """Fitzgerald, Kingsley and Umans, ch. 9, 1/4 hp: r₂ 4.12, x_m 66.8 Ω; Chapman, 25 hp: 0.332 and 26.3 Ω.

    The books' winding ohms are those at load.
    """
    plan = plans_of(FOUR, devices=(SWITCH, START))[0]
    small = Facts(
        kind="capacitor-start", volt=110, hertz=60, rpm=1710, amp=3.59, watt=147, hot_c=25
    )
    rotor = estimate(plan, replace(small, coil_ohm={"main": 2.02})).machine.rotor
    assert (rotor.r2, rotor.xm) == (pytest.approx(4.12, rel=0.05), pytest.approx(66.8, rel=0.10))
    large = Facts(kind="three-phase", volt=460, hertz=60, rpm=1760, amp=18.88, watt=10485, hot_c=25)
    rotor = estimate(SIX, replace(large, coil_ohm=0.641)).machine.rotor
    assert 1.5 * rotor.r2 == pytest.approx(0.332, rel=0.10)
    assert 1.5 * rotor.xm == pytest.approx(26.3, rel=0.10)


def test_a_plate_with_gaps_is_filled_and_said() -> None:
    found = estimate(SIX, replace(PLATE, amp=None, coil_ohm=None, letter=""))
    said = {a.name: a for a in found.assumed}
    assert {"rated amps", "main ohms", "locked amps"} <= set(said)
    assert said["rated amps"].value == pytest.approx(3.33, abs=0.05)
    assert all(a.why for a in found.assumed)
    watts = next(m for m in found.met if m.name == "rated power")
    assert watts.got == pytest.approx(1500, rel=0.01)
    power = estimate(SIX, replace(PLATE, watt=None))
    assert "rated power" in {a.name for a in power.assumed}


def test_ohms_by_coil_or_by_kind_some_or_all() -> None:
    plan = plans_of(FOUR, devices=(SWITCH, START))[0]
    facts = Facts(kind="capacitor-start", volt=230, hertz=50, rpm=1425, amp=3.0, watt=370)
    by_kind = estimate(plan, replace(facts, coil_ohm={"main": 5.0, "auxiliary": 12.0}))
    by_coil = estimate(plan, replace(facts, coil_ohm={"main-1-main-2": 5.0, "aux-1-aux-2": 12.0}))
    assert by_kind.motor.coil_ohm == by_coil.motor.coil_ohm
    assert isinstance(by_kind.motor.coil_ohm, dict)
    assert by_kind.motor.coil_ohm["main-1-main-2"] == pytest.approx(5.0 * ohms_share(25, 75))
    some = estimate(plan, replace(facts, coil_ohm={"main": 5.0}))
    assert "start ohms" in {a.name for a in some.assumed}
    assert "main ohms" not in {a.name for a in some.assumed}


def test_a_plate_that_contradicts_itself_is_said() -> None:
    """Half as many watts read idle as the copper alone must take."""
    odd = replace(PLATE, no_load=Metered(400, 3.4, 20.0), locked=Metered(120, 2.0, 30.0))
    found = estimate(SIX, odd)
    assert any("No ordinary motor meets all of it" in n for n in found.notes)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"rpm": 1500}, "an induction motor slips"),
        ({"amp": None, "watt": None}, "rated amps, power at the shaft"),
        ({"watt": 9000}, "look at unit, volts and amps"),
        ({"letter": "I"}, "code letter A to V"),
        ({"volt": 0}, "above nothing"),
        ({"amp": -1}, "above nothing"),
    ],
)
def test_facts_no_machine_can_be_made_of(change: dict[str, object], words: str) -> None:
    with pytest.raises(BadDocument, match=words):
        estimate(SIX, replace(PLATE, **change))  # type: ignore[arg-type]


def test_a_speed_no_poles_fit_is_refused() -> None:
    with pytest.raises(ValueOutOfRange):
        estimate(SIX, replace(PLATE, rpm=4000))


def test_a_permanent_capacitor_motor_keeps_its_start_winding_in() -> None:
    plan = plans_of("single-phase-3-lead", devices=(replace(RUN, microfarad=8.0),))[0]
    facts = Facts(
        kind="psc",
        volt=230,
        hertz=50,
        rpm=1380,
        amp=1.3,
        watt=180,
        coil_ohm={"run": 14.0, "start": 24.0},
    )
    found = estimate(plan, facts)
    assert max(abs(o) for o in rated(found, facts)) < 2.0
    assert isinstance(found.motor, Motor)
    aux = [c.name for c in found.motor.network().coils if c.like in START_COILS]
    assert aux == ["start-common"]
    assert found.motor.steady(found.motor.machine.poles * 0.01).coil_amp.shape == (1, 2)
