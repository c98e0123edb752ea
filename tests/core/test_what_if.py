"""What if of a motor's start: capacitor, ohms, volts, hertz, turned round, left in, a load, its heating."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from careful_coil.core.gear.what_if import (
    AS_NOTED,
    Asked,
    asked_motor,
    gear_of,
    heat_of,
    picture,
    presets,
    turned_round,
)
from careful_coil.core.machine.curves import start_curves
from careful_coil.core.machine.estimate import estimate
from careful_coil.core.machine.facts import Facts
from careful_coil.core.machine.motor import Motor
from careful_coil.core.machine.run_up import Load, run_up
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.usual import CRS, FOUR, PTC, RUN, START, SWITCH

PLATES = {
    "split-phase": (
        FOUR,
        (SWITCH,),
        Facts(kind="split-phase", volt=230, hertz=50, rpm=1420, amp=2.6),
    ),
    "capacitor-start": (
        FOUR,
        (SWITCH, START),
        Facts(kind="capacitor-start", volt=230, hertz=50, rpm=1425, amp=5.4, watt=550),
    ),
    "psc": (CRS, (RUN,), Facts(kind="psc", volt=230, hertz=50, rpm=1390, amp=5.2, watt=750)),
    "ptc": (CRS, (PTC, RUN), Facts(kind="psc", volt=230, hertz=50, rpm=1390, amp=5.2, watt=750)),
}


def made(name: str) -> tuple[Motor, Facts]:
    slug, devices, facts = PLATES[name]
    return estimate(plans_of(slug, devices=devices)[0], facts).motor, facts


MOTORS = {name: made(name) for name in PLATES}


@pytest.mark.parametrize("name", PLATES)
def test_every_question_worth_asking_has_an_answer(name: str) -> None:
    motor, facts = MOTORS[name]
    asked = presets(motor)
    assert asked["as noted"] == AS_NOTED
    assert asked_motor(motor, AS_NOTED) == motor
    for question in asked.values():
        found = picture(motor, facts.slip, question)
        assert np.all(np.isfinite(found.start.shaft))
        assert found.rated == pytest.approx(motor.rated_nm(facts.slip))


def test_without_its_start_circuit_a_motor_stands() -> None:
    """Main alone: no torque at standstill, from either side."""
    motor, _ = MOTORS["capacitor-start"]
    start, run = start_curves(motor)
    assert abs(run.torque[0]) < 1e-9 * abs(start.torque[0])


@pytest.mark.parametrize("name", ["split-phase", "capacitor-start"])
def test_either_winding_turned_round_reverses_it_both_do_not(name: str) -> None:
    motor, facts = MOTORS[name]
    start, main = turned_round(motor), turned_round(motor, main=True)
    both = turned_round(start, main=True)
    assert (start.way, main.way, both.way) == (-motor.way, -motor.way, motor.way)
    assert picture(motor, facts.slip, Asked(turned=True)).backward
    first, second = (start_curves(m, 40)[0].torque for m in (motor, start))
    np.testing.assert_allclose(first, second, rtol=1e-9)


def test_a_winding_that_shares_a_lead_is_not_turned_outside() -> None:
    motor, _ = MOTORS["psc"]
    assert turned_round(motor) == motor


@settings(max_examples=15)
@given(st.floats(0.5, 1.2))
def test_torque_goes_with_volts_squared(volt: float) -> None:
    motor, facts = MOTORS["capacitor-start"]
    whole = picture(motor, facts.slip, AS_NOTED)
    part = picture(motor, facts.slip, Asked(volt=volt))
    np.testing.assert_allclose(part.start.torque, volt**2 * whole.start.torque, rtol=1e-9)


def test_more_ohms_in_the_start_path_bring_the_currents_of_a_split_phase_apart() -> None:
    """Its start winding is laid for resistance: more of it turns the amps apart and takes them down."""
    motor, facts = MOTORS["split-phase"]
    apart = []
    for factor in (0.5, 1.0, 2.0):
        found = picture(motor, facts.slip, Asked(ohm=factor))
        still = found.motor.standstill
        main, aux = (still.coil_amp[0, found.motor.coils(a)[0]] for a in (False, True))
        apart.append(abs(np.degrees(np.angle(aux / main))))
    assert apart == sorted(apart)


def test_a_stiff_bearing_makes_it_chatter_near_the_switch_speed() -> None:
    """Between what main and start together pull and what main alone pulls there it goes in and out."""
    motor, facts = MOTORS["capacitor-start"]
    free = picture(motor, facts.slip, Asked(load=0.2))
    assert free.up.outcome == "up"
    sync = free.start.rpm[-1]
    alone = free.run.at(0.75 * sync, free.run.shaft) / free.rated
    stiff = picture(motor, facts.slip, Asked(load=1.15 * alone))
    assert stiff.up.outcome in ("chatters", "hangs", "stall")
    told = {
        picture(motor, facts.slip, Asked(load=share * alone)).up.outcome
        for share in (1.05, 1.1, 1.2, 1.3)
    }
    assert "chatters" in told
    assert picture(motor, facts.slip, Asked(load=20)).up.outcome == "stall"


def test_a_thermistor_lets_go_by_its_heat_and_what_stays_in_never() -> None:
    motor, facts = MOTORS["ptc"]
    assert gear_of(motor).watches == "heat"
    assert gear_of(MOTORS["psc"][0]).watches == "none"
    left = picture(MOTORS["split-phase"][0], facts.slip, Asked(stays=True))
    assert left.up.switchings == ()
    assert left.run is left.start
    same = run_up(motor, Load(inertia=0.01), gear_of(motor))
    assert same.switchings[0].out


def test_a_start_winding_heats_by_its_wire_and_class() -> None:
    """40 °C to 130 °C at J: 90·170/J² s (adiabatic, copper); half the wire four times as fast."""
    start, _ = start_curves(MOTORS["split-phase"][0])
    wire = float(start.aux_amp[0]) / 50.0
    found = heat_of(start, wire, "B")
    assert found.held_density == pytest.approx(50)
    assert found.held_seconds == pytest.approx(90 * 170 / 2500)
    assert heat_of(start, wire / 2, "b").held_seconds == pytest.approx(found.held_seconds / 4)
    assert heat_of(start, wire, "F").held_seconds > found.held_seconds
    assert heat_of(start, wire, "?") == found
    assert found.in_seconds > 0
