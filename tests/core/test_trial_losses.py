"""Losses taken apart from no-load steps, the end of a rising temperature."""

import math
import random
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.trial.separate import NoLoad, separated, warming


def no_load_steps(friction: float, iron: float, ohm: float) -> list[NoLoad]:
    found = []
    for volt in (100, 180, 260, 340, 400, 440):
        amp = 2.6 * volt / 400
        watt = friction + iron * (volt / 400) ** 2 + 1.5 * amp**2 * ohm
        found.append(NoLoad(volt=volt, amp=amp, watt=watt))
    return found


@given(st.floats(20, 400), st.floats(20, 400), st.floats(0.2, 8))
def test_losses_that_were_put_in_come_out(friction: float, iron: float, ohm: float) -> None:
    """IEEE 112, 5.5: the intercept over the square of the volts is friction and windage."""
    found = separated(no_load_steps(friction, iron, ohm), ohm, 400)
    assert found.friction == pytest.approx(friction, rel=1e-6)
    assert found.iron == pytest.approx(iron, rel=1e-6)
    assert found.copper == pytest.approx(1.5 * 2.6**2 * ohm, rel=1e-6)


def test_stated_errors_hold_what_noise_does_two_times_of_three() -> None:
    chance = random.Random(5)
    kept = [0, 0]
    for _ in range(400):
        told = [
            replace(s, watt=s.watt * chance.gauss(1, 0.01), amp=s.amp * chance.gauss(1, 0.004))
            for s in no_load_steps(120, 80, 2.0)
        ]
        found = separated(told, 2.0, 400)
        kept[0] += abs(found.friction - 120) <= found.friction_error
        kept[1] += abs(found.iron - 80) <= found.iron_error
    assert all(0.6 < k / 400 < 0.76 for k in kept), kept


def test_what_the_slip_takes_is_the_rotors() -> None:
    """Rotor copper is the slip's share of what crosses the gap: Fitzgerald, Kingsley and Umans, ch. 6."""
    slipping = [
        replace(s, slip=0.1 * 100 / s.volt, watt=s.watt + rotor)
        for s in no_load_steps(120, 80, 2.0)
        for gap in [s.watt - 1.5 * s.amp**2 * 2.0]
        for rotor in [gap * (1 / (1 - 0.1 * 100 / s.volt) - 1)]
    ]
    found = separated(slipping, 2.0, 400)
    assert found.friction == pytest.approx(120, rel=1e-6)
    assert found.iron == pytest.approx(80, rel=1e-6)


@pytest.mark.parametrize(
    ("steps", "words"),
    [(3, "4 steps"), (0, "4 steps")],
)
def test_too_few_steps_are_no_separation(steps: int, words: str) -> None:
    with pytest.raises(ValueOutOfRange, match=words):
        separated(no_load_steps(1, 1, 1)[:steps], 1, 400)


def test_volts_too_close_are_no_separation() -> None:
    steps = [NoLoad(volt=v, amp=2, watt=100) for v in (390, 400, 405, 410)]
    with pytest.raises(ValueOutOfRange, match=r"1\.6 to 1"):
        separated(steps, 1, 400)


@given(st.floats(30, 120), st.floats(3, 30))
def test_where_a_temperature_ends_is_told_from_its_beginning(end: float, tau: float) -> None:
    points = [(t, end - (end - 20) * math.exp(-t / tau)) for t in range(0, int(2 * tau) + 4, 2)]
    found = warming(points)
    assert found.end_c == pytest.approx(end, rel=0.03)
    assert found.minutes == pytest.approx(tau, rel=0.1)


def test_a_temperature_that_rises_straight_on_has_no_end_yet() -> None:
    with pytest.raises(ValueOutOfRange, match="still rising"):
        warming([(t, 20 + 2.0 * t) for t in range(6)])
