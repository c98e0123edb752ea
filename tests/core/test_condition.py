"""Insulation corrected and judged; balance of coils."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.condition.balance import imbalance_percent
from careful_coil.core.condition.insulation import corrected, correction_factor, dc_test_volts
from careful_coil.core.errors import BadDocument, ValueOutOfRange
from careful_coil.core.settings import Settings
from tests.core.logs import INSULATED, SIX_LEADS, bonds, judged, ohm, without


@pytest.mark.parametrize(
    ("at_c", "winding", "factor"),
    [
        (40, "thermoplastic", 1.0),
        (30, "thermoplastic", 0.5),  # IEEE 43: half for each 10 K below
        (50, "thermoplastic", 2.0),
        (20, "thermoplastic", 0.25),
        (40, "thermosetting", 1.0),
        (20, "thermosetting", 0.762),  # exp(-1245·(1/293 − 1/313)), by hand
        (10, "thermosetting", 0.656),
        (60, "thermosetting", 2.251),  # exp(-4230·(1/333 − 1/313)), by hand
    ],
)
def test_correction_to_forty_degrees(at_c: float, winding: str, factor: float) -> None:
    assert correction_factor(at_c, winding) == pytest.approx(factor, abs=2e-3)  # type: ignore[arg-type]


@given(st.floats(10, 85), st.floats(10, 85))
def test_a_warmer_winding_is_corrected_upwards(one: float, two: float) -> None:
    low, high = sorted((one, two))
    for winding in ("thermosetting", "thermoplastic"):
        assert correction_factor(low, winding) <= correction_factor(high, winding) + 1e-12  # type: ignore[arg-type]


@pytest.mark.parametrize("at_c", [-5.0, 9.9, 85.1, 120.0, math.nan])
def test_outside_the_range_no_correction_is_made_and_it_is_said(at_c: float) -> None:
    with pytest.raises(ValueOutOfRange):
        correction_factor(at_c)
    found = corrected(100.0, at_c)
    assert found.megohm is None
    assert "No correction" in found.why


@pytest.mark.parametrize(
    ("rated", "volts"),
    [
        (24, (250, 250)),
        (230, (500, 500)),
        (999, (500, 500)),
        (1000, (500, 1000)),
        (2400, (500, 1000)),
        (4160, (1000, 2500)),
        (11000, (2500, 5000)),
        (13800, (5000, 10000)),
    ],
)
def test_test_volts_follow_the_rating(rated: float, volts: tuple[float, float]) -> None:
    assert dc_test_volts(rated) == volts


def test_test_volts_need_a_rating() -> None:
    with pytest.raises(ValueOutOfRange):
        dc_test_volts(0)


def test_balance_is_the_largest_departure_from_the_mean() -> None:
    assert imbalance_percent([10.0, 10.0, 10.6]) == pytest.approx(100 * (10.6 - 10.2) / 10.2)


@given(st.lists(st.floats(0.1, 100), min_size=2, max_size=9), st.floats(0.01, 100))
def test_balance_does_not_depend_on_the_unit(ohms: list[float], factor: float) -> None:
    scaled = [x * factor for x in ohms]
    assert imbalance_percent(scaled) == pytest.approx(imbalance_percent(ohms), rel=1e-6, abs=1e-9)


@pytest.mark.parametrize("ohms", [[], [1.0], [1.0, 0.0], [1.0, -2.0], [1.0, math.inf]])
def test_balance_needs_two_real_values(ohms: list[float]) -> None:
    with pytest.raises(ValueOutOfRange):
        imbalance_percent(ohms)


def insulation_of(**change: object) -> tuple[str, str]:
    found = judged(*SIX_LEADS, INSULATED | change)
    finding = next(f for f in found.findings if f.code == "insulation")
    return finding.verdict, finding.why


@pytest.mark.parametrize(
    ("change", "verdict"),
    [
        ({}, "good"),
        ({"megohm": 6.6, "at_c": 20}, "good"),  # 6.6 × 0.762 = 5.03
        ({"megohm": 6.5, "at_c": 20}, "hold"),  # 4.95
        ({"megohm": 0.0}, "hold"),
        ({"megohm": 300, "at_c": 5}, "unproven"),
        ({"megohm": 2, "above": True}, "unproven"),
        ({"megohm": 2000, "above": True}, "good"),
        ({"megohm": 15, "at_c": 20, "winding": "thermoplastic"}, "hold"),  # × 0.25
    ],
)
def test_insulation_is_held_against_five_megohms_at_forty_degrees(
    change: dict[str, object], verdict: str
) -> None:
    found, why = insulation_of(**change)
    assert found == verdict
    assert why


def test_work_after_the_test_makes_it_void() -> None:
    found = judged(*SIX_LEADS, INSULATED, {"kind": "work", "what": "varnished"})
    finding = next(f for f in found.findings if f.code == "insulation")
    assert finding.verdict == "unproven"
    assert (finding.subject, "Varnished since" in finding.why) == (
        "Again: insulation to the frame",
        True,
    )


@pytest.mark.parametrize(
    ("coil", "verdict"),
    [("2.61", "good"), ("2.72", "watch"), ("2.90", "hold")],
)
def test_an_odd_coil_is_a_watch_above_two_and_a_hold_above_five_per_cent(
    coil: str, verdict: str
) -> None:
    log = without(SIX_LEADS, lambda b: b == ohm("BE", "2.61"))
    found = judged(*log, ohm("BE", coil), ohm("BE", coil))
    finding = next(f for f in found.findings if f.code == "coils-balanced")
    assert (finding.verdict, finding.unit) == (verdict, "%")


def test_a_coarse_meter_cannot_prove_balance() -> None:
    coarse = {"kind": "meter", "accuracy_percent": 1.0, "resolution_ohm": 0.1, "lead_ohm": 0.0}
    log = [b for b in SIX_LEADS if b["kind"] != "meter"]
    found = judged(coarse, *log)
    finding = next(f for f in found.findings if f.code == "coils-balanced")
    assert finding.verdict == "unproven"
    assert "four-wire" in finding.why


def test_a_shop_may_set_its_limits() -> None:
    stricter = Settings().changed({"insulation_minimum": 1000})
    found = judged(*SIX_LEADS, INSULATED, settings=stricter)
    finding = next(f for f in found.findings if f.code == "insulation")
    assert (finding.verdict, finding.limit) == ("hold", 1000)
    assert finding.source == "this shop's setting"


@pytest.mark.parametrize(
    "figures", [{"colour": 3}, {"earth_bond": 0}, {"earth_bond": "x"}, {"earth_bond": True}]
)
def test_settings_nobody_knows_are_refused(figures: dict[str, float]) -> None:
    with pytest.raises(BadDocument):
        Settings().changed(figures)


def test_a_bad_earth_bond_is_held_also_where_a_worse_one_is_still_to_be_read_again() -> None:
    bad = {"kind": "earth-bond", "ohm": 0.4, "place": "drive end bell"}
    log = [*SIX_LEADS, *bonds(0.9), {"kind": "covers"}, bad]
    finding = next(f for f in judged(*log).findings if f.code == "earth-bond")
    assert (finding.verdict, finding.figure) == ("hold", 0.4)
    again = next(f for f in judged(*log[:-1]).findings if f.code == "earth-bond")
    assert (again.verdict, again.figure) == ("unproven", 0.9)


def test_a_coil_that_no_reading_has_passed_is_neither_balanced_nor_forgotten() -> None:
    """Its ohms can be inferred from its like; it may be broken all the same."""
    log = without(SIX_LEADS, lambda b: b == ohm("CF", "2.60"))
    found = judged(*log)
    assert found.facts.naming.word == "proven"
    finding = next(f for f in found.findings if f.code == "coils-balanced")
    assert finding.verdict == "unproven"
    assert found.next is not None
    assert found.next.code == "resistance-C-F"
    assert next(f for f in judged(*SIX_LEADS).findings if f.code == "coils-balanced").verdict == (
        "good"
    )
