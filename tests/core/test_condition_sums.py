"""Formulas of the winding's condition: worked values, properties, and what lies outside."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.condition.air import dew_point
from careful_coil.core.condition.insulation import correction_factor
from careful_coil.core.condition.phases import Path, coils_from, phases_from_lines
from careful_coil.core.condition.polarization import index_wanted, insulation_minimum, ratios_of
from careful_coil.core.condition.temperature import (
    at_switching_off,
    hot_c,
    resistance_at,
    rise_of,
)
from careful_coil.core.connect.plate_ohms import copper_share
from careful_coil.core.errors import BadValue, CoilError, ValueOutOfRange
from careful_coil.core.sums import work_out
from careful_coil.core.winding import arrangement


def results(name: str, **texts: str) -> dict[str, object]:
    return dict(work_out(name, texts).results)


# --- temperature ----------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("ohm", "at_c", "to_c", "metal", "found"),
    [
        (10.0, 20.0, 25.0, "copper", 10.19646),  # 259.5/254.5: 1.0196, by hand
        (1.0, 25.0, 95.0, "copper", 1.26975),  # 329.5/259.5
        (1.0, 20.0, 25.0, "aluminium", 1.02041),  # 250/245
        (2.0, -10.0, 20.0, "copper", 2.26726),  # 254.5/224.5
    ],
)
def test_ohms_at_another_temperature(
    ohm: float, at_c: float, to_c: float, metal: str, found: float
) -> None:
    assert resistance_at(ohm, at_c, to_c, metal) == pytest.approx(found, rel=1e-5)


def test_iec_reckons_copper_with_235() -> None:
    assert resistance_at(1.0, 20.0, 25.0, iec=True) == pytest.approx(260 / 255)


@given(st.floats(0.01, 100), st.floats(-40, 200), st.floats(-40, 200))
def test_there_and_back_is_the_same(ohm: float, one: float, two: float) -> None:
    assert resistance_at(resistance_at(ohm, one, two), two, one) == pytest.approx(ohm)


def test_temperature_by_resistance() -> None:
    """1.20 Ω at 20 °C, 1.60 Ω hot: 1.60/1.20·254.5 − 234.5 = 104.83 °C, by hand."""
    assert hot_c(1.2, 20, 1.6) == pytest.approx(104.833, abs=1e-3)
    found = results("temperature-rise", cold_ohm="1.2", cold_c="20", hot_ohm="1.6", air_c="25")
    assert found == pytest.approx({"hot_c": 104.833, "rise_k": 79.833}, abs=1e-3)
    assert hot_c(1.2, 20, 1.6, "aluminium") == pytest.approx(1.6 / 1.2 * 245 - 225)


@pytest.mark.parametrize(("cold", "hot"), [(0.0, 1.0), (1.0, 0.0), (1.0, 9.0), (1.0, math.inf)])
def test_ohms_of_two_windings_are_not_a_temperature(cold: float, hot: float) -> None:
    with pytest.raises(ValueOutOfRange):
        hot_c(cold, 20, hot)


def cooling(off: float, air: float, tau: float, seconds: list[float]) -> list[tuple[float, float]]:
    return [(s, air + (off - air) * math.exp(-s / tau)) for s in seconds]


def test_cooling_readings_are_carried_back_to_switching_off() -> None:
    readings = cooling(6.4, 5.0, 400.0, [30, 60, 90, 120])
    found = at_switching_off(readings, 5.0)
    assert found.ohm == pytest.approx(6.4, rel=1e-6)
    assert found.carried
    assert readings[0][1] < found.low <= found.ohm <= found.high


def test_the_moment_of_switching_off_lies_in_its_band_nine_times_of_ten() -> None:
    rng = np.random.default_rng(7)
    hits = 0
    for _ in range(400):
        exact = cooling(6.4, 5.0, rng.uniform(200, 900), [30, 60, 90, 120, 150, 180])
        found = at_switching_off([(s, r + rng.normal(0, 0.003)) for s, r in exact], 5.0, 0.001)
        hits += found.low <= 6.4 <= found.high
    assert 0.84 * 400 <= hits <= 0.97 * 400


def test_a_bend_at_first_is_seen_when_there_are_readings_enough() -> None:
    seconds = [20.0, 40, 60, 90, 120, 180, 240]
    readings = [(s, 5 + 1.0 * math.exp(-s / 700) + 0.4 * math.exp(-s / 60)) for s in seconds]
    found = at_switching_off(readings, 5.0)
    straight = at_switching_off(readings[:4], 5.0)
    assert abs(found.ohm - 6.4) < abs(straight.ohm - 6.4)
    assert found.ohm == pytest.approx(6.4, abs=0.06)


def test_one_hot_reading_is_only_a_least() -> None:
    found = rise_of(1.0, 20, [(25, 1.3)], 20)
    assert not found.carried
    assert found.high_k == math.inf
    assert "hotter" in found.why


@pytest.mark.parametrize(
    "readings",
    [
        [],
        [(-1, 6.0)],
        [(100, 10.0), (101, 5.5)],
        [(30, 5.0), (60, 4.9)],
        [(30, 6.0), (60, 6.1)],
        [(30, math.nan)],
    ],
)
def test_what_does_not_cool_cannot_be_carried_back(readings: list[tuple[float, float]]) -> None:
    with pytest.raises(CoilError):
        at_switching_off(readings, 5.0)


# --- phases and coils -----------------------------------------------------------------------------


def test_phases_of_a_wye() -> None:
    """Phases 1.0, 1.1, 1.2 read 2.1, 2.3, 2.2 between the lines."""
    assert phases_from_lines([2.1, 2.3, 2.2], "wye") == pytest.approx((1.0, 1.1, 1.2))


@given(st.tuples(*[st.floats(0.1, 50)] * 3))
def test_phases_of_a_delta_give_their_own_lines(phases: tuple[float, float, float]) -> None:
    ab, bc, ca = phases
    total = ab + bc + ca
    lines = [ab * (bc + ca) / total, bc * (ca + ab) / total, ca * (ab + bc) / total]
    assert phases_from_lines(lines, "delta") == pytest.approx(phases, rel=1e-6)


def test_a_fault_shows_at_half_its_size_in_the_lines() -> None:
    lines = [2.1, 2.1, 2.0]  # one phase of a wye 10 % high
    assert max(lines) / min(lines) - 1 == pytest.approx(0.05)
    b = phases_from_lines(lines, "wye")
    assert max(b) / min(b) - 1 == pytest.approx(0.10)


@pytest.mark.parametrize(
    ("ohm", "inside"), [([1, 1, 3], "wye"), ([1, 1], "wye"), ([1, 1, 0], "delta"), ([1, 1, 1], "Y")]
)
def test_lines_that_no_phases_give(ohm: list[float], inside: str) -> None:
    with pytest.raises(ValueOutOfRange):
        phases_from_lines(ohm, inside)


@pytest.mark.parametrize("slug", ["three-phase-6-lead", "three-phase-9-lead-wye"])
def test_coils_are_worked_out_through_any_joints(slug: str) -> None:
    """A low coil in a delta or double wye is found from the three line readings' pattern."""
    network = arrangement(slug).network
    true = {c.name: 2.0 for c in network.coils}
    true[network.coils[0].name] = 1.8
    joints = {
        "three-phase-6-lead": [("L1", "T1", "T6"), ("L2", "T2", "T4"), ("L3", "T3", "T5")],
        "three-phase-9-lead-wye": [
            *(("L1", "T1"), ("L2", "T2"), ("L3", "T3")),
            *(("T4", "T7"), ("T5", "T8"), ("T6", "T9")),
        ],
    }[slug]
    made = network.with_ohm(true).joined(joints)
    pairs = [("L1", "L2"), ("L2", "L3"), ("L3", "L1")]
    read = [Path(a=a, b=b, ohm=made.ohm_between(a, b)) for a, b in pairs]
    found = coils_from(network.joined(joints), read)
    assert found.off_percent < 0.1
    if slug == "three-phase-6-lead":
        assert found.ohm == pytest.approx(true, rel=2e-3)
        assert found.untold == ()
    else:  # two halves in series: the readings see their sum only
        first = network.coils[0].name
        assert first in found.untold
        assert sum(found.ohm.values()) == pytest.approx(sum(true.values()), rel=1e-3)


def test_a_pair_that_nothing_joins_is_refused() -> None:
    network = arrangement("three-phase-6-lead").network
    with pytest.raises(ValueOutOfRange):
        coils_from(network, [Path(a="T1", b="T2", ohm=3.0)])


def test_leads_clipped_together_are_worked_out_with_the_rest() -> None:
    """Two coils side by side, then one of them alone: both come out."""
    network = arrangement("three-phase-6-lead").network
    true = {"T1-T4": 2.0, "T2-T5": 2.4, "T3-T6": 2.2}
    beside = network.with_ohm(true).joined([("T1", "T2"), ("T4", "T5")])
    read = [
        Path(
            a="T1", b="T4", ohm=beside.ohm_between("T1", "T4"), clipped=(("T1", "T2"), ("T4", "T5"))
        ),
        Path(a="T1", b="T4", ohm=2.0),
        Path(a="T3", b="T6", ohm=2.2),
    ]
    assert coils_from(network, read).ohm == pytest.approx(true, rel=1e-4)


def test_copper_loss_at_plate_amps() -> None:
    """11 kW, 400 V, 21 A, pf 0.85, 0.9 Ω between lines: 595 W of 12 367 W, by hand."""
    assert copper_share(0.9, 21.0, 400.0, 0.85) == pytest.approx(100 * 595.35 / 12367, rel=1e-3)


# --- insulation -----------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("kv", "winding", "megohm"),
    [
        (0.4, "random", 5),
        (0.69, "form", 5),
        (4.16, "form", 100),
        (4.16, "old", 5.16),
        (0.23, "old", 1.23),
        (0.5, "armature", 5),
    ],
)
def test_minimum_by_construction_and_age(kv: float, winding: str, megohm: float) -> None:
    assert insulation_minimum(kv, winding) == pytest.approx(megohm)


def test_minimum_and_test_volts_as_a_sum() -> None:
    found = work_out("insulation-minimum", {"kv": "4160 V", "winding": "form"})
    assert found.results == {"megohm": 100.0, "test_volt": [1000.0, 2500.0]}
    assert "Test volt: 1000 / 2500 V" in found.lines()


@given(st.floats(0.1, 1000))
def test_at_forty_degrees_the_reading_is_itself(megohm: float) -> None:
    for winding in ("thermosetting", "thermoplastic"):
        found = results("insulation-at-40", megohm=f"{megohm:.6f}", at_c="40", winding=winding)
        assert found["megohm"] == pytest.approx(float(f"{megohm:.6f}"))


@given(st.floats(20, 60))
def test_the_two_models_agree_within_a_factor_of_three_about_forty(at_c: float) -> None:
    old, new = (correction_factor(at_c, w) for w in ("thermoplastic", "thermosetting"))  # type: ignore[arg-type]
    assert 1 / 3.1 < old / new < 3.1


def test_ratios_that_can_be_had() -> None:
    assert results("polarization", megohm_60s="100", megohm_600s="250") == {"pi": 2.5}
    found = results("polarization", megohm_15s="80", megohm_30s="100", megohm_60s="160")
    assert found == {"dar": 1.6, "r60_r15": 2.0}
    with pytest.raises(BadValue, match="two"):
        work_out("polarization", {"megohm_30s": "100"})
    with pytest.raises(ValueOutOfRange):
        ratios_of({60.0: 0.0})


def test_the_index_is_not_asked_for_where_it_says_nothing() -> None:
    assert index_wanted(6000.0, 155, "form", 5e5).least is None
    assert index_wanted(100.0, 155, "random", 750.0).least is None
    assert index_wanted(100.0, 155, "armature", 5e5).least is None
    assert index_wanted(100.0, 155, "random", 75e3).least == 2.0
    assert index_wanted(100.0, 105, "form", 75e3).least == 1.5


@pytest.mark.parametrize(
    ("air", "humidity", "dew"), [(20, 50, 9.27), (30, 80, 26.2), (10, 100, 10.0), (-5, 90, -6.4)]
)
def test_dew_point(air: float, humidity: float, dew: float) -> None:
    """Magnus formula; 20 °C at half humidity 9.3 °C stands in any psychrometric table."""
    assert dew_point(air, humidity) == pytest.approx(dew, abs=0.1)


@pytest.mark.parametrize(("air", "humidity"), [(20, 0), (20, 101), (70, 50), (-60, 50)])
def test_no_dew_point_outside_its_range(air: float, humidity: float) -> None:
    with pytest.raises(ValueOutOfRange):
        dew_point(air, humidity)


@pytest.mark.parametrize(
    ("name", "texts", "words"),
    [
        ("insulation-at-40", {"megohm": "9", "at_c": "5", "winding": "thermosetting"}, "10 and 85"),
        (
            "insulation-at-40",
            {"megohm": ">2 G", "at_c": "20", "winding": "thermosetting"},
            "figure",
        ),
        ("resistance-at", {"ohm": "1", "at_c": "20", "to_c": "900"}, "250"),
        ("resistance-at", {"ohm": "1", "at_c": "20", "to_c": "25", "metal": "iron"}, "aluminium"),
        ("balance", {"ohm": "10"}, "two or more"),
        ("phases-from-lines", {"ohm": "1/2", "inside": "wye"}, "3 values"),
        ("phases-from-lines", {"ohm": "1/1/5", "inside": "wye"}, "other two"),
        ("insulation-minimum", {"kv": "0", "winding": "random"}, "above nothing"),
        (
            "temperature-rise",
            {"cold_ohm": "1", "cold_c": "20", "hot_ohm": "7", "air_c": "20"},
            "°C",
        ),
    ],
)
def test_outside_its_range_a_sum_says_what_it_takes(
    name: str, texts: dict[str, str], words: str
) -> None:
    with pytest.raises(CoilError, match=words):
        work_out(name, texts)


def test_balance_and_lists_are_lists_in_json() -> None:
    assert results("balance", ohm="10/10/10.6")["percent"] == pytest.approx(3.9216, abs=1e-4)
    assert work_out("balance", {"ohm": "10/10/10.6"}).inputs["ohm"] == [10.0, 10.0, 10.6]
    assert results("phases-from-lines", ohm="2.1/2.3/2.2", inside="wye")["ohm"] == pytest.approx(
        [1.0, 1.1, 1.2]
    )
