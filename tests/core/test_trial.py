"""Test run: how it is started, typed steps, what they say, what the gate wants of it."""

import math
import re
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.connect.work import Connecting
from careful_coil.core.errors import BadValue
from careful_coil.core.job import Finding, Job
from careful_coil.core.ledger import Judgement
from careful_coil.core.machine.estimate import estimate
from careful_coil.core.machine.facts import Facts
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import StartWay, ready_items, start_way, stop_rules
from careful_coil.core.trial.expect import expected_at, facts_of, no_load, turning_volt
from careful_coil.core.trial.pairs import compared
from careful_coil.core.trial.separate import warming
from careful_coil.core.trial.typed import read_step, step_words
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.usual import FOUR, RUN, START, SWITCH
from tests.core.logs import JOINED, LINES, METER, SIX_LEADS, SUPPLY, judged, leads, plate, walls
from tests.core.played import Body

LOG = [
    *SIX_LEADS,
    *plate(rpm="1440", power="3 kW"),
    *walls("AD", "BE", "CF"),
    SUPPLY,
    *JOINED,
    *LINES,
]


def begun(covers: str = "off", **more: Any) -> list[Body]:
    return [
        {"kind": "trial-begun", "covers": covers, **more},
        {"kind": "trial-ready", "items": ["clamp"]},
    ]


def step(text: str, lines: int = 3) -> Body:
    return read_step(text, lines).model_dump()


GOOD = step("400 V 2.6/2.6/2.7 A 190 W 1494 rpm smooth")
END = {"kind": "trial-ended"}


def findings(*bodies: Body, log: list[Body] | None = None) -> dict[str, Finding]:
    return {f.code: f for f in judged(*(LOG if log is None else log), *bodies).findings}


def test_a_step_is_typed_with_units_in_any_order() -> None:
    found = read_step("1494 rpm 400/401/399 V 2.6/2,7/2.6 A 0.19 kW 88 °F 90 s rough a rub", 3)
    assert found.volt == (400, 401, 399)
    assert found.amp == (2.6, 2.7, 2.6)
    assert found.watt == pytest.approx(190)
    assert found.rpm == 1494
    assert found.celsius == pytest.approx(31.11, abs=0.01)
    assert found.minute == pytest.approx(1.5)
    assert (found.turns, found.remark) == ("rough", "a rub")


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "400 V"),
        ("400 V", "400 V"),
        ("2.6 A", "400 V"),
        ("400 V 2.6/2.6 A", "2 figures before A"),
        ("400 V 400 V 2 A", "twice"),
        ("400 V 2 A 190", "no unit"),
        ("400 V 2 A 900 °C", "temperature"),
        ("400 V x A", "400 V"),
    ],
)
def test_a_step_that_cannot_be_read_says_what_is_wanted(text: str, words: str) -> None:
    with pytest.raises(BadValue, match=words):
        read_step(text, 3)


def test_how_it_is_started_follows_from_the_kind() -> None:
    found = judged(*LOG)
    assert found.facts.start_way.way == "ramp"
    brushed = plans_of("universal-4-lead")[0]
    state = Connecting(plan=brushed)
    way = start_way(found.job, state, found.facts.kinds, Settings())
    assert (way.way, way.most_volt) == ("cap", 100.0)
    for devices, wanted in (((SWITCH, START), "direct"), ((SWITCH,), "direct"), ((RUN,), "ramp")):
        own = Connecting(plan=plans_of(FOUR, devices=devices)[0])
        assert start_way(found.job, own, found.facts.kinds, Settings()).way == wanted
    own = Connecting(plan=plans_of(FOUR, devices=(SWITCH, START))[0])
    direct = start_way(found.job, own, found.facts.kinds, Settings())
    assert direct.look_seconds == 5
    names = {i.name for i in ready_items(found.job, own, direct)}
    assert {"clamp", "earth", "guard", "discharged", "watch", "meter"} <= names


def test_the_cap_is_made_sure_of_only_without_load() -> None:
    brushed = Connecting(plan=plans_of("universal-4-lead")[0])
    cap = StartWay(way="cap", title="", words="", most_volt=100.0)
    for load, asked in (("none", True), ("load", False)):
        job = judged(*LOG, *begun(load=load)).job
        assert ("reduced" in {i.name for i in ready_items(job, brushed, cap)}) == asked


LONG = step("400 V 2.6/2.6/2.7 A 190 W 1494 rpm 10 min smooth")
WHOLE = [*begun("on"), LONG, END]


def test_the_gate_wants_a_whole_run_on_the_closed_motor() -> None:
    assert findings()["test-run"].subject == "Not test-run"
    assert findings(*begun(), GOOD, END)["test-run"].subject == "Not test-run"
    assert findings(*WHOLE)["test-run"].verdict == "good"
    abandoned = [*begun("on"), LONG, {**END, "abandoned": "no time"}]
    assert findings(*abandoned)["test-run"].subject == "Not test-run"
    still = findings(*WHOLE, *begun("on"))["test-run"]
    assert (still.verdict, still.subject) == ("unproven", "A test sheet is still open")
    after = findings(*WHOLE, {"kind": "work", "what": "varnished"})["test-run"]
    assert (after.verdict, after.subject) == ("unproven", "Again: test run")
    assert after.why.startswith("Varnished since.")
    assert "30 min" in after.why
    assert findings(*WHOLE, WORD)["test-run"].verdict == "good"
    assert findings(WORD)["test-run"].verdict == "unproven"  # no word stands for a run


@pytest.mark.parametrize(
    ("text", "lacks"),
    [
        ("100 V 1/1/1 A 10 min smooth", "A step at rated volts"),
        ("400 V 2.6 A 1494 rpm 10 min smooth", "read all three"),
        ("400 V 2.6/2.6/2.7 A 1494 rpm 10 min", "How did it turn"),
        ("400 V 2.6/2.6/2.7 A 1494 rpm smooth", "0 min noted, 10 min wanted"),
        ("400 V 5.5/5.6/5.5 A 10 min smooth", "read the speed"),
    ],
)
def test_a_run_that_is_not_whole_says_what_it_lacks(text: str, lacks: str) -> None:
    found = findings(*begun("on"), step(text), END)["test-run"]
    assert (found.verdict, found.subject) == ("unproven", "Test run incomplete")
    assert lacks in found.why


def test_amps_in_the_idle_band_stand_for_a_speed_nobody_read() -> None:
    found = findings(*begun("on"), step("400 V 2.6/2.6/2.7 A 10 min smooth"), END)["test-run"]
    assert found.verdict == "good"
    assert "Speed not measured" in found.why


def test_a_new_joint_makes_the_run_another_motors() -> None:
    again = {"kind": "joint", "joint": ["D", "E", "F"]}
    assert findings(*WHOLE, again)["test-run"].verdict == "unproven"


@pytest.mark.parametrize(
    ("rpm", "verdict", "words"),
    [(1500, "good", "No slip"), (1498, "good", "No slip"), (1488, "good", "slips"), (1420, "watch", "in step")],
)  # fmt: skip
def test_a_synchronous_motor_runs_at_its_plates_speed(rpm: int, verdict: str, words: str) -> None:
    """120·50/4 = 1500 rpm on the plate: not held for running *at the plate's speed without load*."""
    own = plate(rpm="1500")
    found = findings(*own, *begun(), step(f"400 V 2.6 A {rpm} rpm"))["trial-speed"]
    assert (found.verdict, words in found.why) == (verdict, True)


@pytest.mark.parametrize(
    ("text", "code", "verdict", "words"),
    [
        ("400 V 2.6/2.6/0.01 A", "trial-dead-line", "hold", "lost phase"),
        ("400 V 2.6/2.6/3.6 A", "trial-lines", "hold", "exchanged"),
        ("404/400/396 V 2.4/2.6/2.9 A", "trial-lines", "watch", "balanced volts"),
        ("400 V 2.6/2.6/2.7 A", "trial-lines", "good", "mean"),
        ("400 V 7/7/7 A", "trial-amps", "hold", "Over full-load amps"),
        ("400 V 4.9/4.9/4.9 A", "trial-amps", "watch", "High for no load"),
        ("400 V 1.2/1.2/1.2 A", "trial-amps", "watch", "half the winding open"),
        ("400 V 0.8/0.8/0.8 A", "trial-amps", "hold", "joined for higher volts"),
        ("400 V 2.6 A 1430 rpm", "trial-speed", "hold", "under the plate"),
        ("400 V 2.6 A 1470 rpm", "trial-speed", "watch", "More slip"),
        ("400 V 2.6 A 1495 rpm", "trial-speed", "good", "below 1500"),
        ("400 V 2.6 A 1560 rpm", "trial-speed", "watch", "tachometer"),
        ("400 V 2.6 A 1200 W", "trial-power", "watch", "rub"),
        ("400 V 2.6 A 5 kW", "trial-power", "watch", "volt-amperes"),
        ("400 V 2.6 A 250 W", "trial-power", "good", "trend"),
    ],
)
def test_each_departure_is_named_with_its_causes(
    text: str, code: str, verdict: str, words: str
) -> None:
    found = findings(*begun(), step(text))[code]
    assert found.verdict == verdict
    assert words in found.why + found.subject


@pytest.mark.parametrize(
    ("outcome", "seconds", "verdict"),
    [
        ("dropped out", 1.2, "good"),
        ("dropped out", 4.0, "watch"),
        ("dropped out", 6.0, "hold"),
        ("stalled", 3.0, "hold"),
        ("tripped", 2.0, "hold"),
    ],
)
def test_a_start_is_judged_by_its_seconds(outcome: str, seconds: float, verdict: str) -> None:
    start = {"kind": "trial-start", "volt": 400, "outcome": outcome, "seconds": seconds}
    assert findings(*begun(), start)["trial-start"].verdict == verdict


def test_smoke_and_sparks_are_holds() -> None:
    heard = [
        {"kind": "trial-heard", "what": w, "text": t}
        for w, t in (("smoke", "from the end bell"), ("spark", "heavy"))
    ]
    found = findings(*begun(), *heard)
    assert found["trial-smoke"].verdict == "hold"
    assert found["trial-spark"].verdict == "hold"


STALLED = {"kind": "trial-start", "volt": 400, "outcome": "stalled", "seconds": 4}
SPARKS = {"kind": "trial-heard", "what": "spark", "text": "heavy"}
SMOKE = {"kind": "trial-heard", "what": "smoke", "text": "from the end bell"}
WORD = {"kind": "attested", "item": "test-run", "words": "ran well at the neighbour's"}


@pytest.mark.parametrize(
    ("bad", "code"),
    [
        (STALLED, "trial-start"),
        (step("400 V 2.6/2.6/0.01 A smooth"), "trial-dead-line"),
        (step("400 V 2.6/2.6/2.7 A rough"), "trial-turns"),
        (step("400 V 2.6/2.6/2.7 A none"), "trial-turns"),
        (step("400 V 2.6/2.6/2.7 A 180 °C 2 min smooth"), "trial-hot"),
        (step("400 V 2.6/2.6/2.7 A smooth a knock from the fan"), "trial-turns"),
    ],
)
def test_what_was_bad_at_any_step_stands_until_work_and_a_later_run(bad: Body, code: str) -> None:
    log = [*begun(), bad, GOOD, END, *WHOLE]
    found = findings(*log)
    assert (found[code].verdict, found[code].waivable) == ("hold", False)
    assert found["test-run"].verdict == "hold"
    eased = {"kind": "joint", "joint": ["D", "E", "F"]}
    worked = findings(*log, eased)
    assert "a run of the same kind" in worked[code].why
    assert code not in findings(*log, eased, *WHOLE)
    assert findings(*log, eased, *WHOLE)["test-run"].verdict == "good"


@pytest.mark.parametrize(
    "harm",
    [
        SMOKE,
        {"kind": "trial-start", "volt": 400, "outcome": "stalled", "seconds": 40},
        {"kind": "trial-start", "volt": 400, "outcome": "tripped", "seconds": 2},
        step("400 V 2.6/2.6/2.7 A smooth breaker tripped, sparks at the box"),
    ],
)
def test_what_may_have_hurt_the_winding_asks_for_cause_insulation_and_ohms(harm: Body) -> None:
    eased = {"kind": "joint", "joint": ["D", "E", "F"]}
    log = [*WHOLE, *begun("on"), harm, END, eased, *LINES, *WHOLE]
    found = findings(*log)
    assert {found[c].verdict for c in ("cause", "insulation", "test-run")} == {"unproven", "good"}
    assert (found["cause"].verdict, found["cause"].waivable) == ("unproven", False)
    assert found["insulation"].verdict == "unproven"
    assert found["coil-ohms"].verdict == "good"  # all three pairs were read since
    cause = {"kind": "cause-found", "cause": "turn-short"}
    assert findings(*log, cause)["cause"].verdict == "good"


def test_a_step_reads_the_same_as_it_was_typed() -> None:
    text = "398/400/402 V, 2.6/2.6/2.7 A, 190 W, 1494 rpm, 31 °C, 5 min, rough"
    assert step_words(read_step(text, 3)) == text


def words_of(job: Job, way: StartWay, own: Settings) -> str:
    """The stop rules as they are read: figures stay with their units."""
    told = stop_rules(job, way, own)
    assert not re.search(r"\d [AVs]\b", told)
    return told.replace("\u00a0", " ")


def test_stop_rules_follow_kind_and_settings() -> None:
    job = judged(*LOG).job
    own = Settings().changed({"switch_out_hold": 4})
    direct = StartWay(way="direct", title="", words="")
    assert "start device not out by 4 s" in words_of(job, direct, own)
    ramp = words_of(job, StartWay(way="ramp", title="", words=""), own)
    assert "not turning by 200 V" in ramp
    assert "start device" not in ramp
    assert "rpm over 1440" in words_of(job, StartWay(way="cap", title="", words=""), own)


def test_steady_is_less_than_one_kelvin_in_half_an_hour() -> None:
    level = [(0.0, 20.0), (20.0, 50.0), (40.0, 58.0), (60.0, 60.0), (90.0, 60.9)]
    assert warming(level).steady
    assert not warming([*level[:-1], (90.0, 61.4)]).steady


def test_a_sheet_left_open_is_closed_by_the_next_and_nothing_strays() -> None:
    found = judged(*LOG, GOOD, *begun(), GOOD, *begun("on"))
    sheets = found.job.trials.sheets
    assert [len(t.steps) for t in sheets] == [1, 0]
    assert sheets[0].ended is not None
    assert sheets[0].ended.abandoned


def test_while_a_sheet_is_open_nothing_else_is_asked_for() -> None:
    found = judged(*LOG, {"kind": "trial-begun"})
    assert found.next is not None
    assert found.next.code == "trial-ready"
    names = [i.name for i in ready_items(found.job, found.facts.connecting, found.facts.start_way)]
    ready = judged(*LOG, {"kind": "trial-begun"}, {"kind": "trial-ready", "items": names})
    assert ready.next is not None
    assert (ready.next.act, ready.next.volt) == ("trial", 400.0)  # covers off: once, at its volts
    eased = {"kind": "bearing", "end": "drive", "field": "done", "text": "renewed"}
    worked = judged(*LOG, eased, {"kind": "trial-begun"}, {"kind": "trial-ready", "items": names})
    assert worked.next is not None
    assert (worked.next.act, worked.next.volt) == ("turning", 400.0)
    begins = {"kind": "trial-begun", "covers": "on"}
    ramp = judged(*LOG, begins, {"kind": "trial-ready", "items": names})
    assert ramp.next is not None
    assert (ramp.next.act, ramp.next.volt) == ("trial", 200.0)


def test_before_and_after_are_compared_and_noise_is_told_apart() -> None:
    more = [
        {"kind": "trial-heard", "what": "starts-turning", "text": "48 V"},
        step("400 V 3.0/3.0/3.0 A 260 W 1490 rpm"),
    ]
    less = [
        {"kind": "trial-heard", "what": "starts-turning", "text": "31 V"},
        step("400 V 3.02/3.02/3.02 A 190 W 1495 rpm"),
    ]
    sheets = judged(*LOG, *begun(), *more, END, *begun(), *less, END).job.trials.sheets
    pairs = {p.what: p for p in compared(sheets[0], sheets[1], 400)}
    assert pairs["turns from"].more
    assert pairs["watt"].more
    assert not pairs["amp"].more
    assert pairs["watt"].change == pytest.approx(190 / 260 - 1)


FACTS = Facts(kind="three-phase", volt=400, hertz=50, rpm=1440, amp=6.4, watt=3000)


def test_the_band_expected_holds_the_usual_idle_figures() -> None:
    fit = estimate(plans_of("three-phase-6-lead")[-1], FACTS)
    (at,) = expected_at(fit, [400])
    assert at.amp[0] < 0.4 * 6.4 < at.amp[2]
    assert 1480 < at.rpm[1] < 1500
    assert at.watt[0] > 0
    none = no_load(fit.motor, 1.0)
    assert none is None or none[2] < 1500
    assert 5 < turning_volt(fit.motor) < 200


@given(st.floats(0.5, 4.0))
def test_a_stiffer_shaft_turns_from_more_volts_by_the_root(times: float) -> None:
    fit = MOTOR
    assert turning_volt(fit, times) == pytest.approx(turning_volt(fit, 1.0) * math.sqrt(times))


MOTOR = estimate(plans_of("three-phase-6-lead")[-1], FACTS).motor


def told(found: Judgement) -> object:
    return facts_of(
        found.job,
        found.facts.connecting,
        found.facts.kinds,
        found.facts.identification,
        found.facts.naming,
    )


def test_facts_of_a_job_or_what_is_missing() -> None:
    found = told(judged(*LOG))
    assert not isinstance(found, str)
    plan, facts = found  # type: ignore[misc]
    assert (plan.connection, facts.amp, facts.rpm) == ("wye", 6.4, 1440)
    nothing = told(judged(*plate(phases="3"), leads("A", "B"), METER))
    assert nothing == "The leads must be proven first."


def test_minutes_are_those_noted_or_those_between_two_readings_in_the_log() -> None:
    first, last = step("400 V 2.6/2.6/2.7 A smooth"), step("400 V 2.6/2.6/2.7 A smooth")
    short = findings(*begun("on"), first, last, END)["test-run"]
    assert "1 min noted, 10 min wanted" in short.why
    between = [{"kind": "sum", "name": "x", "inputs": {}, "words": ""}] * 9
    assert findings(*begun("on"), first, *between, last, END)["test-run"].verdict == "good"
