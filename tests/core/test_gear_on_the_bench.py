"""Start gear judged in full: sections, losses, mechanism and plate, let-go speed, positions, limits, work."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import BadDocument, BadValue
from careful_coil.core.gear.causes import results_of
from careful_coil.core.gear.names import kind_named
from careful_coil.core.gear.positions import read_table, show_table
from careful_coil.core.gear.typed import read_inventory
from careful_coil.core.gear.wiring import wiring_of
from careful_coil.core.gear.work import WORK, left_of, steps_of
from careful_coil.core.job import Finding
from careful_coil.core.job.at_start_gear import DeviceFitted
from careful_coil.core.job.gear import Gear
from careful_coil.core.job.noted import Noted
from careful_coil.core.ledger import Judgement, judge
from careful_coil.core.ledger.next_gear import gear_steps
from careful_coil.core.settings import Settings
from tests.core.logs import judged
from tests.core.test_gear_rules import (
    GOOD_CAN,
    GOOD_SWITCH,
    PLATE,
    TICKET,
    can,
    fitted,
    noted,
    of,
    read,
)


def device(*bodies: dict[str, Any]) -> Finding:
    return of(judged(*TICKET, *PLATE, *bodies), "start-device")


DUAL = [can("marking", "35/5 µF ±5 % 440 V"), can("serves", "run"), can("drained", "0.1")]


@pytest.mark.parametrize(
    ("measured", "verdict", "words"),
    [
        ("34.6/4.9", "good", "section 2 (5 µF)"),
        ("34.6/3.9", "hold", "section 2 (5 µF): 3.9 µF, 4.75 to 5.25 µF wanted"),
        ("20/4.9", "hold", "section 1 (35 µF)"),
        ("34.6", "unproven", "measured apart"),
        ("", "unproven", "measured apart"),
    ],
)
def test_a_can_of_two_sections_is_judged_by_its_worst(
    measured: str, verdict: str, words: str
) -> None:
    found = of(judged(*TICKET, *DUAL, can("microfarad", measured)), "capacitor")
    assert found.verdict == verdict
    assert words in f"{found.subject} {found.why}"


def test_a_lossy_capacitor_is_a_hold_though_its_microfarads_are_right() -> None:
    assert of(judged(*TICKET, *GOOD_CAN, can("loss", "0.08")), "capacitor").verdict == "good"
    found = of(judged(*TICKET, *GOOD_CAN, can("loss", "0.3")), "capacitor")
    assert found.verdict == "hold"
    assert "Loses 30.0% of its volt-amperes" in found.why


@pytest.mark.parametrize(
    ("field", "seen", "verdict"),
    [
        ("actuator", "free", "good"),
        ("actuator", "dirty", "watch"),
        ("actuator", "weak spring", "hold"),
        ("actuator", "", "unproven"),
        ("plate", "pitted", "good"),
        ("plate", "edge", "watch"),
        ("plate", "welded", "hold"),
        ("plate", "banana", "unproven"),
        ("out", "1150 rpm", "good"),  # 77 % of 1500
        ("out", "1240 rpm", "watch"),
        ("out", "1400 rpm", "hold"),
        ("out", "600 rpm", "hold"),
        ("out", "1.4 s", "good"),
        ("out", "4 s", "watch"),
        ("out", "6 s", "hold"),
    ],
)
def test_mechanism_plate_and_let_go_are_judged_apart(field: str, seen: str, verdict: str) -> None:
    assert device(*GOOD_SWITCH, noted("S1", field, seen)).verdict == verdict


def test_a_switch_must_not_come_back_in_under_load() -> None:
    out = noted("S1", "out", "1150 rpm")
    assert device(*GOOD_SWITCH, out, noted("S1", "back", "700 rpm")).verdict == "good"
    late = device(*GOOD_SWITCH, noted("S1", "back", "1300 rpm"))
    assert late.verdict == "hold"
    assert "under load it recloses" in late.why
    assert (
        "below the speed it opens at"
        in device(*GOOD_SWITCH, out, noted("S1", "back", "1160 rpm")).why
    )
    unknown = of(
        judged(*TICKET, *GOOD_SWITCH, out), "start-device"
    )  # no hertz, no rpm on the plate
    assert unknown.verdict == "unproven"


def test_a_dressed_contact_keeps_the_reading_before() -> None:
    again = [*GOOD_SWITCH, read("S1", "at rest", 1.4), read("S1", "at rest", 0.12)]
    assert device(*again).verdict == "good"
    worse = device(*GOOD_SWITCH, read("S1", "at rest", 1.4))
    assert worse.verdict == "watch"
    assert "1.40 Ω, over 0.500 Ω: dress the contacts, read again; 0.100 Ω before" in worse.why


def test_a_selector_is_read_position_by_position() -> None:
    table = noted("Q1", "table", "0: off; 1: L-H; 2: L-M")
    assert "write down which contacts" in device(fitted("Q1", "selector")).why

    def at(a: str, b: str, when: str, ohm: float | None) -> dict[str, Any]:
        return read("Q1", when, ohm) | {"between": (a, b)}

    every = [
        at(a, b, when, 0.04 if (when, a, b) in made else None)
        for made in [{("position 1", "L", "H"), ("position 2", "L", "M")}]
        for when in ("position 0, off", "position 1", "position 2")
        for a, b in (("L", "H"), ("L", "M"), ("H", "M"))
    ]
    assert device(fitted("Q1", "selector"), table, *every).verdict == "good"
    bad = device(fitted("Q1", "selector"), table, *every, at("L", "H", "position 0, off", 0.1))
    assert bad.verdict == "hold"
    assert "conducts position 0, off" in bad.why


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "two positions at least"),
        ("0: off", "two positions at least"),
        ("0 off; 1: L-H", "0 off"),
        ("0: off; 1: LH", "no contact between two terminals"),
        ("0: off; 1: L-L", "no contact between two terminals"),
        ("1: L-H; 1: L-M", "stands there twice"),
        ("; ".join(f"{k}: L-A{k}" for k in range(13)), "at most 12 positions"),
    ],
)
def test_a_table_that_is_none_is_refused(text: str, words: str) -> None:
    with pytest.raises(BadValue, match=words):
        read_table(text)


ENDS = st.sampled_from(["L", "N", "A", "B", "1", "2"])
CONTACTS = st.lists(
    st.tuples(ENDS, ENDS).filter(lambda p: p[0] != p[1]), max_size=3, unique=True
).map(tuple)


@given(st.dictionaries(st.sampled_from(["0", "1", "2", "off", "high"]), CONTACTS, min_size=2))
def test_a_table_reads_as_it_is_shown(table: dict[str, tuple[tuple[str, str], ...]]) -> None:
    if any(table.values()):
        assert read_table(show_table(table)) == table


def with_settings(told: dict[str, Any], *bodies: dict[str, Any]) -> Judgement:
    return judge(judged(*TICKET, *bodies).job, Settings().changed(told))


def test_limits_are_the_shops_own() -> None:
    single = [can("marking", "100 µF 250 V"), can("serves", "start"), can("drained", "0.1")]
    assert of(judged(*TICKET, *single, can("microfarad", "98")), "capacitor").verdict == "watch"
    wider = with_settings({"start_microfarad_below": 5}, *single, can("microfarad", "98"))
    assert of(wider, "capacitor").verdict == "good"
    assert Settings().changed({"start_microfarad_below": 0}).start_microfarad_below.value == 0
    with pytest.raises(BadDocument):
        Settings().changed({"run_microfarad_apart": 0})
    strict = with_settings({"start_contact": 0.05}, *GOOD_SWITCH)
    assert of(strict, "start-device").verdict == "watch"
    late = [*PLATE, *GOOD_SWITCH, noted("S1", "out", "1240 rpm")]
    assert of(with_settings({"switch_out_to": 85}, *late), "start-device").verdict == "good"


def step(work: str, name: str, done: bool = True) -> dict[str, Any]:
    return {"kind": "gear-step", "work": work, "step": name, "done": done}


@pytest.mark.parametrize("kind", WORK)
def test_work_begun_holds_the_motor_until_its_last_step(kind: str) -> None:
    work = f"{kind} S1"
    steps = steps_of(work)
    assert steps[-1].name in ("covered", "noted")
    assert [s.name for s in steps if s.powered] == ["run-open", "covered"]
    begun = judged(*TICKET, *GOOD_CAN, *GOOD_SWITCH, step(work, "dead"))
    found = of(begun, "gear-work")
    assert (found.verdict, found.gate, found.waivable) == ("unproven", True, False)
    assert of(begun, "start-gear").verdict == "unproven"
    done = [step(work, s.name) for s in steps]
    if kind == "crimp":  # the part itself was not touched: a joint was
        whole = judged(*TICKET, *GOOD_CAN, *GOOD_SWITCH, *done)
        assert of(whole, "start-device").verdict == "good"
        lost = whole.job.deeds.voiding("line-ohms")
        assert lost is not None
        assert (lost.kind, lost.words) == ("joint", "a crimp at S1 cut off and made again")
        return
    stale = of(judged(*TICKET, *GOOD_CAN, *GOOD_SWITCH, *done), "start-device")
    assert (stale.verdict, "again" in stale.why.lower()) == ("unproven", True)
    anew = judged(*TICKET, *GOOD_CAN, *GOOD_SWITCH, *done, *GOOD_SWITCH)
    assert of(anew, "start-gear").verdict == "good"
    back = judged(*TICKET, *done, step(work, "covered", False))
    assert [s.name for s in left_of(work, back.job.gear.steps[work])] == ["covered"]
    assert steps_of("paint S1") == ()


def test_findings_of_other_stations_count_for_the_causes() -> None:
    def shown(code: str, verdict: str, figure: float | None = None) -> dict[str, str]:
        made = Finding(
            code=code,
            verdict=verdict,  # type: ignore[arg-type]
            subject="",
            why="",
            station="insulation",
            figure=figure,
        )
        return results_of(judged(*TICKET).job, [made])

    assert shown("insulation", "hold", 0.02) == {"insulation": "to frame"}
    assert shown("insulation", "hold", 1.5) == {"insulation": "low"}
    assert shown("coils-balanced", "good") == {"windings": "right"}
    assert shown("as-found", "watch") == {"joints": "other"}
    assert shown("colours", "note") == {}
    relay = judged(*TICKET, fitted("K1", "relay-voltage"), read("K1", "off the circuit", None))
    assert results_of(relay.job) == {"switch-at-rest": "open"}
    stuck = judged(*TICKET, *GOOD_SWITCH, noted("S1", "actuator", "sticks"))
    assert results_of(stuck.job)["switch-worked"] == "stays"


@pytest.mark.parametrize(
    ("words", "kind"),
    [
        ("speed-switch", "speed-switch"),
        ("Centrifugal switch", "speed-switch"),
        ("potential relay", "relay-voltage"),
        ("voltage relay", "relay-voltage"),
        ("hot wire", "hot-wire"),
        ("start therm", "ptc"),
        ("thermal protector", "protector"),
        ("reversing", "reversing-switch"),
        ("speed switch that", "change-over"),
    ],
)
def test_a_device_is_known_by_what_it_is_called(words: str, kind: str) -> None:
    assert kind_named(words) == kind


@pytest.mark.parametrize("words", ["", "relay", "s", "magic"])
def test_words_that_mean_no_device_or_two_are_refused(words: str) -> None:
    with pytest.raises(BadValue, match="voltage relay"):
        kind_named(words)


def test_a_relay_with_posts_is_read_at_its_own_terminals() -> None:
    """Its link belongs in for a split phase, out as soon as a start capacitor is noted."""
    (relay, posts) = read_inventory("current relay 1 2 M 3", Gear())
    assert isinstance(relay, DeviceFitted)
    assert (relay.name, relay.device) == ("K1", "relay-current")
    assert isinstance(posts, Noted)
    assert (posts.of, posts.text) == ("K1", "1 2 M 3")
    each: list[tuple[tuple[str, str], str, float | None]] = [
        (("1", "2"), "upright", None),
        (("1", "2"), "turned over", 0.1),
        (("1", "M"), "any way up", 0.4),
        (("2", "3"), "as it is to work", 0.02),
    ]
    readings = [{**read("K1", when, ohm), "between": pair} for pair, when, ohm in each]
    bodies = (fitted("K1", "relay-current"), noted("K1", "posts", "1 2 M 3"))
    assert device(*bodies).why.startswith("1 to 2, upright")
    assert device(*bodies, *readings).verdict == "good"
    found = of(judged(*TICKET, *PLATE, *bodies, *readings, *GOOD_CAN), "start-device")
    assert found.verdict == "hold"
    assert found.why.startswith("2 to 3, as it is to work")


def test_next_asks_for_the_sensing_leads_of_an_electronic_switch() -> None:
    bodies = (*GOOD_CAN, fitted("K1", "electronic-switch"))
    step = asked_at(judged(*TICKET, *PLATE, *bodies))
    assert step == ("look-K1", "device-sensing")
    wired = judged(*TICKET, *PLATE, *bodies, noted("K1", "sensing", "yes"))
    assert asked_at(wired) == ("look-K1", "device")
    wiring = wiring_of(wired.job, wired.facts.kinds, wired.facts.identification, wired.facts.naming)
    assert not isinstance(wiring, str)
    assert {"K1.3", "K1.4"} <= {n for j in wiring.plan.joints for n in j}


def asked_at(told: Judgement) -> tuple[str, str]:
    step = next(s for s in gear_steps(told.facts) if s.code.startswith("look-"))
    return step.code, step.focus


def test_two_parts_of_one_name_are_told_apart_in_the_wiring() -> None:
    bodies = (*DUAL, fitted("C1", "protector"))
    told = judged(*TICKET, *PLATE, *bodies)
    wiring = wiring_of(told.job, told.facts.kinds, told.facts.identification, told.facts.naming)
    assert not isinstance(wiring, str)
    assert {d.name: d.kind for d in wiring.plan.devices} == {
        "C1": "capacitor-dual",
        "C1-2": "protector",
    }
    assert "the second is called C1-2" in wiring.guessed[0]
