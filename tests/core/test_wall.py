"""The insulation wall: which tests are wanted, what each covers and gives, what the gate says."""

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given as each
from hypothesis import strategies as st

from careful_coil.core.condition.apart import clips, ready_for, to_take_off
from careful_coil.core.condition.wall import (
    TestWanted,
    covers,
    search_tests,
    spots,
    standing,
    wanted_tests,
)
from careful_coil.core.job import Finding
from careful_coil.core.job.at_insulation import InsulationTested
from careful_coil.core.settings import Settings
from tests.core.logs import (
    DRAINED,
    GROUPS,
    INSULATED,
    MADE_READY,
    READY,
    SIX_LEADS,
    bonds,
    judged,
    ohm,
    plate,
    ticket,
    walls,
    without,
)

TESTER = Settings().changed({"schools": {"frame-test": "tester always"}})
THREE = (("A", "D"), ("B", "E"), ("C", "F"))


def finding(code: str, *log: dict[str, Any]) -> Finding | None:
    return next((f for f in judged(*log).findings if f.code == code), None)


def held(code: str, *log: dict[str, Any]) -> Finding:
    found = finding(code, *log)
    assert found is not None
    return found


def body(**fields: Any) -> InsulationTested:
    return InsulationTested.model_validate(INSULATED | fields)


# --- coverage -------------------------------------------------------------------------------------


EACH = Settings().changed({"schools": {"windings-apart": "always"}})


def test_each_winding_once_covers_every_pair() -> None:
    together = judged(*SIX_LEADS).facts.wall
    assert [w.parts for w in wanted_tests(together, ())] == [()]
    wall = judged(*SIX_LEADS, settings=EACH).facts.wall
    assert wall.groups == THREE
    wanted = wanted_tests(wall, ())
    assert [w.parts for w in wanted] == list(THREE)
    done = {s for w in wanted for s in covers(w, THREE)}
    assert done == spots(THREE)
    assert len(spots(THREE)) == 6  # three to the frame, three between


def test_all_joined_sees_the_frame_only() -> None:
    assert covers(TestWanted(), THREE) == {s for s in spots(THREE) if "frame" in s}
    assert covers(body(parts=["A", "D"], others="loose"), THREE) == {frozenset(("0", "frame"))}
    assert covers(body(parts=["A", "D"], against=["B", "E"]), THREE) == {frozenset("01")}


def test_after_all_joined_two_tests_are_enough() -> None:
    found = judged(*SIX_LEADS, INSULATED, DRAINED, settings=EACH)
    assert [w.parts for w in wanted_tests(found.facts.wall, found.job.tested.tests)] == [*THREE[:2]]


@each(st.lists(st.sampled_from(["", "AD", "BE", "CF", "AD-BE"]), max_size=6))
def test_a_standing_test_is_never_covered_by_a_later_one(kinds: list[str]) -> None:
    log = []
    for kind in kinds:
        one, _, two = kind.partition("-")
        log.append(INSULATED | {"parts": list(one), "against": list(two)})
    tests = judged(*SIX_LEADS, *log).job.tested.tests
    kept = standing(tests, THREE)
    every = {s for t in tests for s in covers(t.body, THREE)}
    assert {s for t in kept for s in covers(t.body, THREE)} == every
    if tests:
        assert kept[-1] == tests[-1]


def test_the_gate_needs_every_winding_tested() -> None:
    assert judged(*READY).gate == ()
    two = [*without(READY, lambda b: b.get("parts") in (["B", "E"], ["C", "F"]))]
    assert judged(*two).gate == ()
    gate = judged(*two, settings=EACH).gate
    assert [f.code for f in gate] == ["insulation-between"]
    assert "B E" in gate[0].why


def test_a_failed_winding_is_searched_against_each_other_one() -> None:
    log = [*SIX_LEADS, *walls("BE", "CF"), *walls("AD", megohm=2.0)]
    found = judged(*log)
    insulation = held("insulation", *log)
    assert insulation.verdict == "hold"
    assert "divided by 2" in insulation.why
    assert "A D against B E" in insulation.why
    tests = list(search_tests(found.facts.wall, body(parts=["A", "D"])))
    assert [t.against for t in tests] == [("B", "E"), ("C", "F")]
    found = judged(*log, MADE_READY)
    assert found.next is not None
    assert (found.next.ends, found.next.sense) == (("A", "D"), ("B", "E"))


def test_a_failed_part_never_counts_as_windings_apart() -> None:
    """A D fails with frame and others earthed: it may be either, so neither is called good."""
    log = [*SIX_LEADS, *walls("BE", "CF"), *walls("AD", megohm=2.0)]
    found = held("insulation-between", *log)
    assert (found.verdict, found.gate) == ("unproven", True)
    assert "A D against B E" in found.why
    short = INSULATED | {"parts": ["A", "D"], "against": ["B", "E"], "megohm": 1, "above": True}
    assert held("insulation-between", *SIX_LEADS, *walls(*GROUPS), short).verdict == "unproven"


def test_low_between_two_windings_holds_and_cannot_be_waived() -> None:
    bad = INSULATED | {"parts": ["A", "D"], "against": ["B", "E"], "megohm": 0.2}
    found = held("insulation-between", *SIX_LEADS, *walls(*GROUPS), bad, DRAINED)
    assert (found.verdict, found.waivable) == ("hold", False)
    assert "A D against B E" in found.why


def test_three_phases_alone_are_divided_by_two_or_three() -> None:
    log = [*SIX_LEADS, *walls(*GROUPS, megohm=18.0)]
    assert held("insulation", *log).figure == pytest.approx(18 * 0.7622 / 2, rel=1e-3)
    guarded = [b | {"others": "guarded"} if b["kind"] == "insulation" else b for b in log]
    assert held("insulation", *guarded).figure == pytest.approx(18 * 0.7622 / 3, rel=1e-3)
    assert held("insulation", *guarded).verdict == "hold"


# --- verdicts -------------------------------------------------------------------------------------


def test_nearly_nothing_is_a_fault_and_flat_is_damp() -> None:
    fault = held("insulation", *SIX_LEADS, INSULATED | {"megohm": 0.01}, DRAINED)
    assert "fault to the frame" in fault.why
    flat = {"readings": [[15, 2.0], [30, 2.0], [60, 2.0], [600, 2.1]], "megohm": 2.0}
    assert "damp or dirty" in held("insulation", *SIX_LEADS, INSULATED | flat, DRAINED).why


BIG = [
    *ticket(name="Pump"),
    *plate(phases="3", volt="400", hertz="50", amp="140", power="75 kW"),
]


def test_the_index_is_asked_for_on_a_large_winding_and_judged() -> None:
    short = INSULATED | {"readings": [[15, 300], [30, 380], [60, 480]]}
    asked = held("insulation-index", *BIG, short, DRAINED)
    assert (asked.verdict, asked.gate) == ("unproven", True)
    low = INSULATED | {"readings": [[60, 480], [600, 700]]}
    assert held("insulation-index", *BIG, low, DRAINED).verdict == "hold"
    good = INSULATED | {"readings": [[60, 480], [600, 1100]]}
    found = held("insulation-index", *BIG, good, DRAINED)
    assert (found.verdict, found.figure) == ("good", pytest.approx(1100 / 480))
    waived = INSULATED | {"megohm": 6000, "readings": [[60, 6000], [600, 6600]]}
    assert held("insulation-index", *BIG, waived, DRAINED).verdict == "note"
    beyond = INSULATED | {"megohm": 10000, "above": True}
    assert finding("insulation-index", *BIG, beyond, DRAINED) is None  # waived over 5 GΩ
    old = [{"kind": "winding-made", "field": "class", "text": "A"}]
    lower = INSULATED | {"readings": [[60, 480], [600, 800]]}
    assert held("insulation-index", *BIG, *old, lower, DRAINED).verdict == "good"  # 1.67 over 1.5


def test_where_an_index_is_wanted_the_first_test_is_the_long_one() -> None:
    large = [{"kind": "plate", "field": "power", "text": "75 kW"}]
    first = judged(*SIX_LEADS, *large, MADE_READY, settings=TESTER).next
    assert first is not None
    assert "ten minutes" in first.why
    long = INSULATED | {"parts": ["A", "D"], "readings": [[60, 480], [600, 1100]]}
    second = judged(*SIX_LEADS, *large, MADE_READY, long, DRAINED, settings=TESTER).next
    assert second is not None
    assert second.ends == ("B", "E")
    assert "one minute" in second.why


def test_an_old_winding_has_another_minimum_and_may_be_brittle() -> None:
    old = {"kind": "winding-made", "field": "construction", "text": "old"}
    test = INSULATED | {"megohm": 480, "at_c": 40, "readings": [[60, 480], [600, 4800]]}
    assert held("insulation", *BIG, old, test, DRAINED).limit == pytest.approx(1.4)
    assert (
        held("insulation-index", *BIG, old, test, DRAINED).subject == "Insulation dry and brittle"
    )
    back = {"kind": "winding-made", "field": "construction", "text": ""}
    assert held("insulation", *BIG, old, back, test, DRAINED).limit == 5


def test_little_absorption_kinks_volts_and_dew_are_watches() -> None:
    flat = INSULATED | {"readings": [[15, 470], [30, 475], [60, 480]]}
    assert held("insulation-absorption", *SIX_LEADS, flat, DRAINED).verdict == "watch"
    told = [[10.0 * k, 300.0 + 20 * k] for k in range(1, 16)]
    told[9:] = [[s, m * 0.5] for s, m in told[9:]]
    kinked = INSULATED | {"readings": told}
    assert "100 s" in held("insulation-fall", *SIX_LEADS, kinked, DRAINED).why
    high = held("test-volts", *SIX_LEADS, INSULATED | {"test_volt": 1000}, DRAINED)
    assert "above" in high.subject
    low = held("test-volts", *SIX_LEADS, INSULATED | {"test_volt": 100}, DRAINED)
    assert "below" in low.subject
    wet_air = INSULATED | {"at_c": 12, "air_c": 24, "humidity_percent": 70}
    assert held("dew-point", *SIX_LEADS, wet_air, DRAINED).subject == "Winding at the dew point"
    dry_air = INSULATED | {"air_c": 20, "humidity_percent": 40}
    assert finding("dew-point", *SIX_LEADS, dry_air, DRAINED) is None


def test_a_wet_motor_begins_at_low_volts_until_it_reads_dry() -> None:
    wet = [*ticket(name="Mill", complaint="Flooded last week"), *SIX_LEADS[1:]]
    assert judged(*wet).facts.wall.test_volts() == (100, 250)
    dry = judged(*wet, INSULATED | {"test_volt": 250}, DRAINED)
    assert dry.facts.wall.test_volts() == (500, 500)


@pytest.mark.parametrize(
    ("complaint", "wet"),
    [
        ("Water pump hums", False),
        ("Stood under water", True),
        ("Rained on", True),
        ("Waterproof fan, slow", False),
        ("Damp cellar", True),
    ],
)
def test_a_water_pump_is_not_wet_by_its_name(complaint: str, wet: bool) -> None:
    assert judged(*ticket(name="Mill", complaint=complaint), *SIX_LEADS[1:]).facts.wall.wet == wet


def test_a_fall_to_a_third_over_the_years_is_a_watch() -> None:
    before = {
        "kind": "same-motor",
        "number": 12,
        "tests": [{"at": "2020-05-01", "megohm_at_40": 1200}],
        "coil_ohm": {"T1-T4": 2.40, "T2-T5": 2.40, "T3-T6": 2.40},
    }
    found = held("insulation-trend", *SIX_LEADS, before, INSULATED, DRAINED)
    assert found.figure == pytest.approx(1200 / 365.9, rel=1e-3)
    assert "2020-05-01" in found.why
    assert finding("insulation-trend", *SIX_LEADS, INSULATED, DRAINED) is None


def test_the_charge_holds_until_it_is_drained() -> None:
    test = INSULATED | {"readings": [[60, 480], [600, 900]]}
    found = held("winding-charged", *SIX_LEADS, test)
    assert (found.verdict, found.figure, found.waivable) == ("unproven", 2400, False)
    assert finding("winding-charged", *SIX_LEADS, test, DRAINED) is None
    assert held("winding-charged", *SIX_LEADS, test, DRAINED, test).verdict == "unproven"


# --- before the test ------------------------------------------------------------------------------


def test_what_comes_off_first_follows_from_this_motor() -> None:
    three = judged(*SIX_LEADS)
    names = [o.name for o in to_take_off(three.job, three.facts.wall, three.facts.kinds)]
    assert names == ["leads", "drive", "others", "clear"]
    fan = judged(*ticket(name="Fan"), *plate(phases="1", volt="230", hertz="50", capacitor="30 µF"))
    names = [o.name for o in to_take_off(fan.job, fan.facts.wall, fan.facts.kinds)]
    assert "capacitors" in names
    assert "drive" not in names


@pytest.mark.parametrize(
    "touch",
    [
        ohm("AD", "2.60"),
        {"kind": "work", "what": "cleaned"},
        {"kind": "joint", "joint": ["L1", "A"]},
        {"kind": "covers"},
    ],
)
def test_ready_lapses_when_a_hand_was_on_the_motor(touch: dict[str, Any]) -> None:
    ready = judged(*SIX_LEADS, MADE_READY)
    assert ready_for(ready.job, ready.facts.wall, ready.facts.kinds)
    later = judged(*SIX_LEADS, MADE_READY, touch)
    assert not ready_for(later.job, later.facts.wall, later.facts.kinds)
    at = ready.job.log[-1].at  # the tick lapses by the clock too
    soon, late = (at.replace(at[11:16], f"{int(at[11:13]):02d}:{m:02d}") for m in (20, 55))
    assert ready_for(ready.job, ready.facts.wall, ready.facts.kinds, soon, 30)
    assert not ready_for(ready.job, ready.facts.wall, ready.facts.kinds, late, 30)
    half = judged(*SIX_LEADS, MADE_READY | {"items": ["leads"]})
    assert not ready_for(half.job, half.facts.wall, half.facts.kinds)


# --- earth bond -----------------------------------------------------------------------------------


def test_the_bond_is_three_places_after_the_covers() -> None:
    covers_on = {"kind": "covers"}
    assert held("earth-bond").verdict == "unproven"
    before = held("earth-bond", *bonds())
    assert "after the covers" in before.subject
    assert held("earth-bond", covers_on, *bonds()).verdict == "good"
    again = held("earth-bond", *bonds(), covers_on, bonds()[0])
    assert (again.verdict, "drive end bell" in again.why) == ("unproven", True)
    off = {"kind": "covers", "on": False}
    assert held("earth-bond", covers_on, *bonds(), off).verdict == "unproven"


def test_the_bond_fails_by_figure_and_never_by_a_meter_that_cannot_tell() -> None:
    covers_on = {"kind": "covers"}
    bad = [*bonds()[:2], bonds(0.4)[2]]
    found = held("earth-bond", covers_on, *bad)
    assert (found.verdict, found.figure, found.waivable) == ("hold", 0.4, False)
    raw = [b | {"nulled": False} for b in bad]
    assert "Null" in held("earth-bond", covers_on, *raw).why
    coarse = [b | {"step_ohm": 0.1} for b in bonds(0.1)]
    assert held("earth-bond", covers_on, *coarse).verdict == "unproven"
    cord = [b | {"cord": True} for b in bonds(0.15)]
    assert held("earth-bond", covers_on, *cord).verdict == "good"


def test_a_failed_part_does_not_outlive_the_cleaning() -> None:
    log = [*SIX_LEADS, *walls("AD", megohm=0.4), {"kind": "work", "what": "cleaned"}]
    assert held("insulation", *log).verdict == "hold"
    assert held("insulation", *log, INSULATED, DRAINED).verdict == "good"


def test_the_end_of_drying_asks_for_one_more_test() -> None:
    campaign = [{"kind": "drying", "act": "begin"}, *walls("AD", "BE", "CF")]
    ended = judged(*SIX_LEADS, *campaign, {"kind": "drying", "act": "end"})
    assert "insulation" in {f.code for f in ended.gate}
    assert (
        held("insulation", *SIX_LEADS, *campaign, {"kind": "drying", "act": "end"}).verdict
        == "unproven"
    )


def test_a_shop_may_ask_for_the_index_of_smaller_motors() -> None:
    small = [*ticket(name="Fan"), *plate(phases="3", volt="400", hertz="50", power="3 kW")]
    assert finding("insulation-index", *small, INSULATED, DRAINED) is None
    stricter = Settings().changed({"index_from": 1.0})
    found = judged(*small, INSULATED, DRAINED, settings=stricter)
    assert "insulation-index" in {f.code for f in found.gate}


def test_sensors_have_a_line_of_their_own_and_are_no_test_of_the_winding() -> None:
    """A thermistor's pair against the winding: low is a hold by itself, and proves nothing of the frame."""
    tags = [{"tag": t} for t in "ABCDEFGH"]
    leads = {"kind": "leads", "leads": tags[:6] + [x | {"use": "thermistor"} for x in tags[6:]]}
    test = {"kind": "insulation", "at_c": 40, "test_volt": 500}

    def told(megohm: float, **more: Any) -> dict[str, Any]:
        found = judged(leads, test | {"megohm": megohm, "parts": ["G", "H"], **more}).findings
        return {f.code: f for f in found if f.code.startswith("insulation")}

    low = told(0.2)["insulation-sensors"]
    assert (low.verdict, low.gate, low.waivable) == ("hold", True, False)
    assert low.subject == "Thermistor G H not insulated"
    good = told(300.0)
    assert (good["insulation-sensors"].verdict, good["insulation-sensors"].gate) == ("good", False)
    over = told(300.0, test_volt=1000)["insulation-sensors"]
    assert "500 V, both ends tied, is the most" in over.why


@pytest.mark.parametrize(
    ("tested", "earths", "joined", "earthed"),
    [
        ("", True, "ABCD", "GH"),
        ("AB", True, "AB", "CDGH"),
        ("AB", False, "AB", "GH"),  # guarded: the other winding stands apart, the sensors never
        ("H", False, "H", "G"),
    ],
)
def test_an_earth_lead_and_sensors_stand_at_the_frame_not_on_the_testers_clip(
    tested: str, earths: bool, joined: str, earthed: str
) -> None:
    beside = {"G": "earth", "H": "thermistor"}
    assert clips("ABCDGH", beside, tested, earths) == ([*joined], [*earthed])


def test_a_pair_that_is_only_taken_for_a_sensor_is_tested_with_the_winding() -> None:
    wall = judged(*SIX_LEADS).facts.wall
    extras = {"G": "earth", "H": "thermistor"}
    assert wall.groups
    assert replace(wall, extras=extras).beside == ("G", "H")
    assert replace(wall, extras=extras, groups=()).beside == ("G",)
