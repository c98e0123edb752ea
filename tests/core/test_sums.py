"""Bench sums: worked values, properties, and what lies outside."""

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import (
    AmbiguousValue,
    BadValue,
    CoilError,
    NotKnownYet,
    ValueOutOfRange,
)
from careful_coil.core.machine import power
from careful_coil.core.sums import SUMS, work_out


def results(name: str, **texts: str) -> dict[str, object]:
    return dict(work_out(name, texts).results)


def test_slip_of_a_four_pole_motor() -> None:
    assert results("slip", hertz="50", rpm="1440") == pytest.approx(
        {"poles": 4, "sync_rpm": 1500.0, "slip_percent": 4.0}
    )


def test_no_slip_at_all_is_remarked() -> None:
    assert "synchronous" in work_out("slip", {"hertz": "60", "rpm": "1800"}).notes[-1]


@pytest.mark.parametrize(
    ("letter", "hp", "volt", "phases", "low", "high"),
    [
        ("G", "10", "230", "3", 140.58, 158.15),  # 5.6–6.3 kVA/hp · 10 / (√3 · 0.23)
        ("a", "1/2", "115", "1", 0.0, 13.696),
        ("R", "746 W", "460", "3", 17.58, 20.09),
    ],
)
def test_locked_rotor_amps(
    letter: str, hp: str, volt: str, phases: str, low: float, high: float
) -> None:
    """NEMA MG 1, 10.37.2."""
    found = results("locked-rotor", letter=letter, hp=hp, volt=volt, phases=phases)
    assert found["amp_low"] == pytest.approx(low, rel=1e-3)
    assert found["amp_high"] == pytest.approx(high, rel=1e-3)


def test_the_last_letter_has_no_upper_end() -> None:
    found = work_out("locked-rotor", {"letter": "V", "hp": "1", "volt": "230", "phases": "1"})
    assert found.results["amp_high"] is None
    assert found.notes


def test_code_letters_join_without_a_gap() -> None:
    ends = [power.locked_rotor_kva_per_hp(letter) for letter in power.CODE_LETTERS]
    assert ends[0][0] == 0
    assert all(a[1] == b[0] for a, b in itertools.pairwise(ends))
    assert ends[-1][1] == math.inf
    assert not {"I", "O", "Q"} & set(power.CODE_LETTERS)


def test_power_factor_of_three_phases() -> None:
    """460 V, 18.88 A, 12 530 W: 0.833 (Chapman, worked example)."""
    found = results("power-factor", volt="460", amp="18.88", watt="12.53 kW", phases="3")
    assert found["pf"] == pytest.approx(0.833, abs=1e-3)


def test_208_volts_on_a_230_volt_motor_is_082_torque() -> None:
    found = results("flux-and-torque", volt="208", hertz="60", rated_volt="230", rated_hertz="60")
    assert found["torque_ratio"] == pytest.approx(0.818, abs=1e-3)


@given(st.floats(50, 700), st.floats(10, 100))
def test_flux_is_kept_when_volts_and_hertz_go_together(volt: float, hertz: float) -> None:
    assert power.flux_ratio(volt, hertz, volt / 2, hertz / 2) == pytest.approx(1)


@pytest.mark.parametrize(
    ("name", "texts", "error", "words"),
    [
        ("nope", {}, NotKnownYet, "slip, locked-rotor"),
        ("slip", {"hertz": "50"}, BadValue, "rpm"),
        ("slip", {"hertz": "50", "rpm": "1440", "volt": "3"}, BadValue, "no such input"),
        ("slip", {"hertz": "50", "rpm": "1,440"}, AmbiguousValue, "two things"),
        ("slip", {"hertz": "50 V", "rpm": "1440"}, BadValue, "hertz"),
        ("slip", {"hertz": "0", "rpm": "1440"}, BadValue, "above nothing"),
        ("slip", {"hertz": "50", "rpm": "3100"}, ValueOutOfRange, "at most 3000"),
        (
            "locked-rotor",
            {"letter": "Q", "hp": "1", "volt": "2", "phases": "1"},
            ValueOutOfRange,
            "I, O and Q",
        ),
        (
            "locked-rotor",
            {"letter": "A", "hp": "1", "volt": "2", "phases": "2"},
            BadValue,
            "1 or 3",
        ),
        (
            "power-factor",
            {"volt": "230", "amp": "1", "watt": "300", "phases": "1"},
            ValueOutOfRange,
            "230 W",
        ),
    ],
)
def test_what_lies_outside_is_refused(
    name: str, texts: dict[str, str], error: type[CoilError], words: str
) -> None:
    with pytest.raises(error, match=words):
        work_out(name, texts)


@pytest.mark.parametrize("name", sorted(SUMS))
def test_every_sum_says_where_it_comes_from(name: str) -> None:
    chosen = SUMS[name]
    assert chosen.source
    assert chosen.formula
    assert chosen.domain
    assert all(i.wanted() for i in chosen.inputs)
