"""Where practitioners differ the shop's choice is acted on: each changes a word or a verdict."""

from typing import Any

import pytest

from careful_coil.core.can_marking import read_marking
from careful_coil.core.condition.appliance import appliance_finding
from careful_coil.core.condition.bond import bond_finding
from careful_coil.core.condition.plain import for_the_customer
from careful_coil.core.connect import check
from careful_coil.core.connect.rotation import direction, how_to_turn, read_direction
from careful_coil.core.connect.work import Connecting
from careful_coil.core.gear.capacitor_rules import apart_of
from careful_coil.core.gear.device_rules import told_of
from careful_coil.core.gear.judge import judge_capacitor
from careful_coil.core.ledger import judge
from careful_coil.core.ledger.next_customer import customer_steps
from careful_coil.core.ledger.next_gear import gear_steps
from careful_coil.core.ledger.site_live import turns_from
from careful_coil.core.settings import Settings
from careful_coil.core.terms import in_terms
from careful_coil.core.ways.way import LINES, Plan
from tests.core.logs import job_of, judged, plate
from tests.core.test_connecting import state_of, wish
from tests.core.test_gear_rules import TICKET, fitted, noted, read


def chosen(name: str, choice: str) -> Settings:
    return Settings().changed({"schools": {name: choice}})


@pytest.mark.parametrize(
    ("choice", "words"), [("crimp", ""), ("wire connector", "tug"), ("solder", "solder")]
)
def test_a_joint_is_made_as_the_shop_makes_it(choice: str, words: str) -> None:
    state = state_of("three-phase-6-lead", "", "230/400", 400, settings=chosen("joint", choice))
    made = [s.text for s in state.steps if s.joint]
    assert made
    assert all(words in text for text in made)
    assert any("solder" in text or "tug" in text for text in made) == bool(words)


@pytest.mark.parametrize("choice", ["two seconds", "four seconds"])
def test_the_second_half_comes_in_after_the_shops_seconds(choice: str) -> None:
    started = [wish("start", "part-winding")]
    shop = chosen("part-winding", choice)
    state = state_of("three-phase-9-lead-wye", "", "230/460", 230, *started, settings=shop)
    assert state.plan is not None
    assert f"Set here: K2 after {choice}." in state.plan.notes


def test_one_figure_on_a_start_capacitor_takes_the_shops_window() -> None:
    marking = read_marking("100 µF 250 V")
    verdicts = [
        judge_capacitor(
            marking, 93.0, "", "start", None, apart_of(chosen("start-window", c))
        ).verdict
        for c in ("as marked", "minus 10 plus 20")
    ]
    assert verdicts[0] != "good"
    assert verdicts[1] == "good"
    ranged = read_marking("88-108 µF 250 V")  # what the can prints stands, whatever the shop takes
    wider = apart_of(chosen("start-window", "minus 10 plus 20"))
    assert judge_capacitor(ranged, 84.0, "", "start", None, wider).verdict != "good"


def reversed_plan(slug: str, school: str, choice: str) -> Connecting:
    way = (wish("rotation", "ccw"), wish("seen-from", "drive-end"))
    return state_of(slug, "", "230", 230, *way, settings=chosen(school, choice))


def fed_by(plan: Plan, lead: str) -> set[str]:
    """Return the lines, or the other winding's end, that a lead is joined to."""
    (joint,) = (j for j in plan.joints if lead in j)
    others = {n for n in joint if n != lead}
    return {n for n in others if n in LINES or "." in n} or {n.split("-")[0] for n in others}


@pytest.mark.parametrize(
    ("slug", "school", "usual", "other", "leads"),
    [
        ("single-phase-4-lead", "reverse", "start", "main", ("aux-1", "main-1")),
        ("universal-4-lead", "universal", "brushes", "field", ("armature-1", "field-1")),
    ],
)
def test_a_motor_is_turned_round_by_the_winding_the_shop_exchanges(
    slug: str, school: str, usual: str, other: str, leads: tuple[str, str]
) -> None:
    """Either winding alone turns it round: both plans are sound, and turn the same way."""
    forward = state_of(slug, "", "230", 230).plan
    assert forward is not None
    turned: set[bool] = set()
    for choice, lead in zip((usual, other), leads, strict=True):
        state = reversed_plan(slug, school, choice)
        assert state.plan is not None
        assert state.hookup is not None
        for name in leads:
            assert (fed_by(state.plan, name) != fed_by(forward, name)) is (name == lead)
        found = check(state.hookup)
        assert found.verdict == "sound"
        turned.add(found.rotation_reversed)
        assert lead.split("-")[0] in how_to_turn(
            state_of(slug, "", "230", 230, settings=chosen(school, choice))
        )
    assert len(turned) == 1


def test_a_turn_told_from_no_end_is_seen_from_the_shops() -> None:
    state = state_of("three-phase-6-lead", "", "230/400", 400, settings=chosen("view", "opposite"))
    assert turns_from(state.view)[:2] == ("cw", "ccw")
    seen = read_direction("cw", "bump", state.view)
    assert direction(seen.turns, seen.seen_from).at_drive == "ccw"
    assert read_direction("cw", "bump").seen_from == "drive-end"
    words = direction("cw", "drive-end").words(state.view)
    assert words.startswith("counter-clockwise seen from the opposite end")


def test_wye_is_called_star_where_the_shop_says_so() -> None:
    text = "Low volts: two wyes in parallel. Wye-delta start"
    assert in_terms(text, Settings()) == text
    star = in_terms(text, chosen("star", "star"))
    assert star == "Low volts: two stars in parallel. Star-delta start"


@pytest.mark.parametrize(("choice", "word"), [("dress", "dress"), ("replace", "new contacts")])
def test_a_tired_contact_is_dressed_or_replaced(choice: str, word: str) -> None:
    read_high = read("S1", "at rest", 1.2)
    gear = judged(*TICKET, fitted("S1", "speed-switch"), read_high).job.gear
    (first, *_) = told_of(gear, "S1", chosen("contacts", choice))
    assert first.verdict == "watch"
    assert word in first.why


@pytest.mark.parametrize(
    ("schools", "title", "word"),
    [
        ({}, "Dress or renew S1", "wait for it"),
        ({"contacts": "replace"}, "Renew S1", "wait for it"),
        ({"start-switch": "retrofit"}, "Dress or renew S1", "electronic"),
        ({"unlike-switch": "fit unlike"}, "Dress or renew S1", "unlike one may go in"),
    ],
)
def test_what_takes_the_place_of_a_bad_switch(
    schools: dict[str, str], title: str, word: str
) -> None:
    shop = Settings().changed({"schools": schools})
    burnt = (
        fitted("S1", "speed-switch"),
        read("S1", "at rest", None),
        read("S1", "mechanism worked by hand", None),
        noted("S1", "actuator", "free"),
        noted("S1", "plate", "even"),
    )
    found = judge(job_of(*TICKET, *burnt), shop)
    assert next(f for f in found.findings if f.code == "start-device").verdict == "hold"
    step = next(s for s in gear_steps(found.facts) if s.code == "renew-S1")
    assert step.title == title
    assert word in step.why


def test_colours_are_told_by_custom_or_left_alone() -> None:
    leads = {
        "kind": "leads",
        "leads": [{"tag": "A", "colour": "blue"}, {"tag": "B", "colour": "orange"}],
    }
    job = job_of(*plate(phases="1"), leads)
    (told,) = (f for f in judge(job, Settings()).findings if f.code == "colours")
    assert "A blue T1, B orange T3" in told.why
    assert told.verdict == "note"
    ignored = judge(job, chosen("colours", "ignored")).findings
    assert not any(f.code == "colours" for f in ignored)


@pytest.mark.parametrize(
    ("choice", "text", "word"),
    [
        ("speed", "0.8 s", "its speed decides"),
        ("time", "1100 rpm", "say the seconds too"),
        ("time", "0.8 s", ""),
        ("speed", "1100 rpm", ""),
    ],
)
def test_a_switchs_let_go_is_wanted_as_the_shop_judges_it(
    choice: str, text: str, word: str
) -> None:
    bodies = (*plate(phases="1", volt="230", hertz="50", rpm="1420"), fitted("S1", "speed-switch"))
    job = job_of(*bodies, noted("S1", "out", text))
    told = told_of(job.gear, "S1", chosen("drop-out", choice), job.plate)[-1]
    assert (told.what, told.verdict) == ("opens", "good")
    assert (word in told.why) if word else ("decides" not in told.why and "say the" not in told.why)


@pytest.mark.parametrize(("choice", "asked"), [("repair", False), ("scrap", True)])
def test_a_drive_fed_appliances_motor_wants_the_customers_word(choice: str, asked: bool) -> None:
    job = job_of(*plate(phases="3", volt="195", power="0.4 kW"), look("tachometer", "yes"))
    steps = {s.code for s in customer_steps(judge(job, chosen("appliances", choice)).facts)}
    assert ("go-ahead" in steps) is asked


@pytest.mark.parametrize(
    ("double", "leak", "verdict", "words"),
    [
        ("II", "0.4", "good", "0.4 of 0.5 mA"),
        ("II", "0.8", "hold", "touch current 0.8 of 0.5 mA"),
        ("I", "0.8", "good", "0.8 of 3.5 mA"),
        ("I", "4.2", "hold", "earth conductor 4.2 of 3.5 mA"),
        ("I", "", "unproven", "current in the earth conductor"),
    ],
)
def test_an_appliance_is_tested_by_the_standard_where_the_shop_does(
    double: str, leak: str, verdict: str, words: str
) -> None:
    """Limits of EN 50678: 0.3 Ω, 1 and 2 MΩ, 3.5 and 0.5 mA. Never made: no line, and nothing is lifted."""
    bond = {"kind": "earth-bond", "ohm": 0.08, "place": "frame", "wires": 4}
    bodies: list[Any] = [
        *plate(phases="1", volt="230", hertz="50", power="0.6 kW", protection=double),
        {"kind": "noted", "sheet": "felt", "field": "cord", "text": "good"},
        {"kind": "insulation", "megohm": 480, "at_c": 20},
        *([bond] if double == "I" else []),
        *([{"kind": "noted", "sheet": "earth", "field": "leakage", "text": leak}] if leak else []),
    ]
    job = job_of(*bodies)
    found = appliance_finding(job, chosen("appliance-tests", "yes"))
    assert found is not None
    assert (found.verdict, found.gate, found.waivable) == (verdict, True, False)
    assert words in found.why
    assert appliance_finding(job, Settings()) is None
    told = " ".join(for_the_customer([bond_finding(job, Settings())]))
    assert ("made to need no earth" in told) is (double == "II")


@pytest.mark.parametrize(
    ("told", "asked"),
    [
        ({"phases": "1", "power": "0.6 kW", "capacitor": "none"}, True),
        ({"phases": "1", "power": "0.6 kW", "capacitor": "none", "protection": "II"}, False),
        ({"phases": "1", "power": "1.5 kW", "capacitor": "none"}, False),
        ({"phases": "1", "power": "0.6 kW", "capacitor": "160 µF 250 V"}, False),
        ({"phases": "3", "power": "0.6 kW"}, False),
    ],
)
def test_class_is_asked_for_as_it_comes_in_where_it_may_be_two(
    told: dict[str, str], asked: bool
) -> None:
    job = job_of(*TICKET, *plate(volt="230", hertz="50", amp="3", **told))
    assert ("protection" in {s.code for s in judge(job, Settings()).steps}) is asked


def look(field: str, text: str) -> Any:
    return {"kind": "look", "sign": field, "answer": text}
