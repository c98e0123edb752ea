"""Test run under load and locked, the seconds a stall may last, pauses, speeds and directions, minutes as logged."""

import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.bench.trial_run import Rig
from careful_coil.core.connect.work import Connecting
from careful_coil.core.errors import BadValue
from careful_coil.core.job import Finding
from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.rewind.record import Record
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import (
    StartWay,
    at_speed,
    full_volt,
    speeds_of,
    why_no_volts,
    why_not_step,
)
from careful_coil.core.trial.loaded import load_share, loaded, locked
from careful_coil.core.trial.rules import trial_findings
from careful_coil.core.trial.separate import warm_points, warming
from careful_coil.core.trial.stall import allowed, check_pause, standstill_times
from careful_coil.core.trial.typed import read_step, sheet_of, step_words
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.way import Plan
from careful_coil.core.winding import arrangement
from tests.core.logs import METER, job_of, judged, leads, ohm, plate, read_as
from tests.core.played import Body
from tests.core.test_trial import END, LOG, WHOLE, begun, findings, step

RAMP = StartWay(way="ramp", title="", words="", kind="three-phase")
DIRECT = StartWay(way="direct", title="", words="", look_volt=50.0, look_seconds=5.0)
CAP = StartWay(way="cap", title="", words="", most_volt=100.0, kind="universal")
BARE = Connecting(plan=None)
PLATE = {"kind": "plate", "field": "code", "text": "G"}


def sheet(text: str, load: str = "load") -> list[Body]:
    return [*begun(load=load), step(text), END]


@pytest.mark.parametrize(
    ("text", "code", "verdict", "words"),
    [
        ("400 V 6.3 A 3600 W 1441 rpm", "trial-load", "good", "98 % load"),
        ("400 V 7.2 A 3900 W 1433 rpm", "trial-load", "hold", "112 % load"),
        ("400 V 8.6 A 3900 W 1445 rpm", "trial-load", "hold", "shorted turns"),
        ("400 V 8.6 A 3900 W", "trial-load", "hold", "load not read"),
        ("400 V 6.5 A 3600 W 1450 rpm", "trial-load", "watch", "More than its load asks for"),
        ("400 V 6.3 A 3600 W 1441 rpm", "trial-load-pf", "good", "0.82"),
        ("400 V 6.3 A 2400 W 1441 rpm", "trial-load-pf", "watch", "wide air gap"),
        ("400 V 3.6 A 1500 W 1482 rpm", "trial-load-pf", "good", "trend"),
        ("400 V 6.3 A 5 kW 1441 rpm", "trial-load-pf", "watch", "Above 1"),
        ("400 V 6.3 A 3600 W 1441 rpm 19.9 Nm", "trial-efficiency", "good", "83 %"),
        ("400 V 6.3 A 3600 W 1441 rpm 30 N·m", "trial-efficiency", "watch", "More out than in"),
    ],
)
def test_a_loaded_run_is_held_against_what_it_carries(
    text: str, code: str, verdict: str, words: str
) -> None:
    found = findings(*sheet(text))[code]
    assert (found.verdict, words in found.why) == (verdict, True), found.why


def test_load_by_the_brake_goes_before_load_by_the_slip() -> None:
    job = judged(*LOG).job
    by_slip = load_share(read_step("400 V 6 A 1470 rpm", 3), job)
    assert by_slip == pytest.approx(30 / 60)
    by_brake = load_share(read_step("400 V 6 A 1470 rpm 15 Nm", 3), job)
    assert by_brake == pytest.approx(15 * 1470 * 2 * math.pi / 60 / 3000)
    assert load_share(read_step("400 V 6 A", 3), job) is None


@pytest.mark.parametrize(
    ("kind", "factor", "verdict"),
    [
        ("shaded-pole", 0.5, "good"),
        ("shaded-pole", 0.9, "watch"),
        ("permanent-capacitor", 0.95, "good"),
        ("permanent-capacitor", 0.7, "watch"),
        ("split-phase", 0.65, "good"),
    ],
)
def test_power_factor_under_load_is_judged_by_kind(kind: str, factor: float, verdict: str) -> None:
    plates = {"phases": "1", "volt": "230", "hertz": "50", "amp": "4", "rpm": "1400"}
    job = job_of(
        *({"kind": "plate", "field": f, "text": t} for f, t in plates.items()),
        {"kind": "supply", "volt": 230, "hertz": 50, "phases": 1},
    )
    read = read_step(f"230 V 4 A {230 * 4 * factor:.0f} W 1400 rpm", 1)
    told = {t.code: t for t in loaded(read, job, kind)}
    assert told["trial-load-pf"].verdict == verdict
    assert "trial-load-pf" not in {t.code for t in loaded(read, job, "universal")}


def test_a_locked_rotor_is_held_against_its_code_letter() -> None:
    """Letter G is 5.6 to 6.3 kVA a hp (NEMA MG 1, 10.37.2): 3 kW at 400 V takes 32.5 to 36.6 A."""
    for amp, verdict in ((8.7, "good"), (4.0, "watch"), (16.0, "watch")):
        found = findings(PLATE, *sheet(f"100 V {amp} A none", "locked"))["trial-locked"]
        assert found.figure == pytest.approx(4 * amp)
        assert found.verdict == verdict
        assert "letter" in found.why
    plain = findings(*sheet("100 V 10 A none", "locked"))["trial-locked"]
    assert "6.2 times plate" in plain.why
    assert plain.verdict == "good"


def test_amps_that_swing_as_the_locked_rotor_is_turned_are_broken_bars() -> None:
    even = [step(f"100 V {a} A none") for a in ("8.0", "8.1", "8.0", "8.1")]
    odd = [step(f"100 V {a} A none") for a in ("8.0", "8.1", "8.9", "8.1")]
    locks = begun(load="locked")
    assert findings(*locks, *even, END)["trial-bars"].verdict == "good"
    assert findings(*locks, *odd, END)["trial-bars"].verdict == "watch"
    assert "trial-bars" not in findings(*locks, *odd[:3], END)
    turned = ("8.9/8.0/8.0", "8.0/8.9/8.0", "8.0/8.0/8.9", "8.9/8.0/8.0")  # the mean stays even
    passing = findings(*locks, *(step(f"100 V {a} A none") for a in turned), END)["trial-bars"]
    assert (passing.verdict, "in line" in passing.why) == ("watch", True)
    empty = judged(*LOG, *locks).job
    assert list(locked(empty.trials.sheets[0], empty)) == []


def test_a_loaded_sheet_is_no_run_without_load() -> None:
    both = [*sheet("400 V 6.3 A 3600 W 1441 rpm"), *sheet("100 V 10 A none", "locked")]
    assert findings(*both)["test-run"].subject == "Not test-run"
    assert findings(*both, *WHOLE)["test-run"].verdict == "good"


RECORD = {
    "slots": "36",
    "poles": "4",
    "wire": "2 x 0.75",
    "connection": "wye",
    "circuits": "1",
    "turns": "28",
    "span": "1-8",
}


def record(**more: str) -> list[Body]:
    told = RECORD | more
    return [{"kind": "winding-noted", "field": f, "text": t} for f, t in told.items()]


def test_seconds_allowed_come_from_the_wires_density() -> None:
    """J²/170 K/s in copper: 6.4 A in 2 × 0.75 mm is 7.24 A/mm²; seven times it heats by 15.1 K/s."""
    job = judged(*LOG, *record()).job
    density = 6.4 / (2 * math.pi / 4 * 0.75**2)
    wanted = 60 / ((7 * density) ** 2 / 170)
    found = allowed(job, Record(job.winding, 3), RAMP, BARE, Settings())
    assert found.seconds == pytest.approx(wanted, rel=1e-3)
    assert "7 times plate amps, usual" in found.words
    metal = judged(*LOG, *record(metal="aluminium")).job
    light = allowed(metal, Record(metal.winding, 3), RAMP, BARE, Settings())
    assert light.seconds == pytest.approx(wanted * 74 / 170, rel=1e-3)
    thick = judged(*LOG, *record(wire="4 x 1.2")).job
    direct = allowed(thick, Record(thick.winding, 3), DIRECT, BARE, Settings())
    assert direct.seconds == Settings().switch_out_hold.value
    assert "must be out by then" in direct.words
    none = allowed(judged(*LOG).job, Record({}, 3), RAMP, BARE, Settings())
    assert none.seconds == Settings().look_seconds.value
    assert "no wire on record" in none.words


def test_a_thin_start_winding_has_less_time_than_the_main() -> None:
    motor = [
        *plate(phases="1", volt="230", hertz="50", amp="5", rpm="1430"),
        leads(*"ABCD"),
        METER,
        ohm("AB", "2.0"),
        ohm("CD", "6.0"),
        *(ohm(p, "open") for p in ("AC", "AD", "BC", "BD")),
        {"kind": "reading", "reading": {"kind": "switch", "between": ["C", "D"], "value": "opens"}},
        {"kind": "device-fitted", "name": "S1", "device": "speed-switch"},
        {"kind": "capacitor", "name": "C1", "field": "marking", "text": "88-108 uF 250 V"},
        {"kind": "capacitor", "name": "C1", "field": "serves", "text": "start"},
        {"kind": "supply", "volt": 230, "hertz": 50, "phases": 1},
    ]
    wound = {"slots": "36", "poles": "4", "main": "1-9:40 2-8:35", "main-wire": "4 x 1.5"}

    def seconds(start_wire: str) -> tuple[float, str]:
        told = (wound | {"start-wire": start_wire}).items()
        noted = [{"kind": "winding-noted", "field": f, "text": t} for f, t in told]
        found = judged(*motor, *noted)
        limit = allowed(found.job, found.facts.winding, RAMP, found.facts.connecting, Settings())
        return limit.seconds, limit.words

    thin, words = seconds("0.5")
    assert "in the start winding" in words
    assert seconds("2 x 0.5")[0] == pytest.approx(4 * thin, rel=1e-6)
    assert "start winding" not in seconds("20 x 1.5")[1]


def test_standstill_amps_come_from_the_code_letter_where_there_is_one() -> None:
    times, why = standstill_times(judged(*LOG, PLATE).job)
    assert times == pytest.approx(6.3e3 * 3000 / 745.7 / (400 * math.sqrt(3)) / 6.4)
    assert why == "code letter G"
    assert standstill_times(judged(*LOG, PLATE | {"text": "V"}).job)[0] > times
    assert standstill_times(judged(*LOG).job)[0] == 7.0


def test_after_two_starts_a_third_waits() -> None:
    start = {"kind": "trial-start", "volt": 400, "outcome": "turns", "seconds": 1}
    one = judged(*LOG, *begun(), start).job
    two = judged(*LOG, *begun(), start, start).job
    last = two.trials.sheets[-1].start_at[-1]
    check_pause(one, last, Settings())
    check_pause(two, "", Settings())
    with pytest.raises(BadValue, match=r"a pause of 5\.0 min"):
        check_pause(two, last, Settings())
    check_pause(two, last.replace("T08", "T09"), Settings())


@pytest.mark.parametrize(
    ("way", "load", "volt", "words"),
    [
        (CAP, "none", 100, ""),
        (CAP, "none", 230, "flies apart"),
        (CAP, "load", 230, ""),
        (DIRECT, "none", 50, ""),
        (DIRECT, "none", 120, "one timed start"),
        (DIRECT, "none", 400, "one timed start"),
        (DIRECT, "locked", 120, ""),
        (RAMP, "none", 400, ""),
    ],
)
def test_which_volts_may_be_taken(way: StartWay, load: str, volt: float, words: str) -> None:
    job = judged(*LOG, *begun(load=load)).job
    now = job.trials.now
    assert now is not None
    why = why_not_step(job, way, now, volt)
    assert words in why
    assert bool(why) == bool(words)
    assert full_volt(job, way, now) == (100.0 if way is CAP and load == "none" else 400.0)


def test_after_its_start_a_motor_may_be_read_at_any_volts() -> None:
    start = {"kind": "trial-start", "volt": 400, "outcome": "dropped out", "seconds": 1}
    now = judged(*LOG, *begun(), start).job.trials.now
    assert now is not None
    assert why_not_step(judged(*LOG).job, DIRECT, now, 250) == ""
    stalled = judged(*LOG, *begun(), start | {"outcome": "stalled"}).job.trials.now
    assert stalled is not None
    assert why_not_step(judged(*LOG).job, DIRECT, stalled, 250)


def test_no_volts_go_on_while_something_bad_stands() -> None:
    bad = Finding(
        code="hookup", verdict="hold", subject="Hookup wrong", why="T4.", station="connect"
    )
    assert why_no_volts([bad]) == "No volts yet. Hookup wrong: T4."
    assert why_no_volts(judged(*LOG).findings) == ""


TAPPED = plans_of("single-phase-speed-taps")


def tapped(speed: str) -> Connecting:
    plan = next(p for p in TAPPED if p.speed == speed)
    return Connecting(plan=plan)


def test_a_motor_of_several_speeds_is_run_at_each() -> None:
    state = tapped("high")
    assert speeds_of(state) == ("high", "medium", "low")
    assert speeds_of(Connecting(plan=plans_of("three-phase-6-lead")[0])) == ()
    low = at_speed(state, "low")
    assert isinstance(low, Plan)
    assert (low.speed, low.reversed) == ("low", state.plan.reversed if state.plan else None)
    assert at_speed(state, "") is state.plan

    def told(*bodies: Body) -> dict[str, Finding]:
        job = judged(*LOG, *bodies).job
        return {f.code: f for f in trial_findings(job, RAMP, Settings(), state)}

    def run(speed: str, text: str) -> list[Body]:
        return [*begun("on", speed=speed), step(f"{text} 10 min smooth"), END]

    fast = run("high", "400 V 2.6/2.6/2.6 A 1490 rpm")
    assert told(*fast)["test-run"].subject == "Not test-run at medium speed"
    rest = [*fast, *run("medium", "400 V 2.2/2.2/2.2 A 1480 rpm")]
    assert told(*rest)["test-run"].subject == "Not test-run at low speed"
    whole = told(*rest, *run("low", "400 V 1.8/1.8/1.8 A 1465 rpm"))
    assert whole["test-run"].verdict == "good"
    assert whole["trial-speeds"].verdict == "good"
    odd = told(*rest, *run("low", "400 V 2.9/2.9/2.9 A 1495 rpm"))["trial-speeds"]
    assert odd.verdict == "watch"
    assert "turns and draws more than medium" in odd.why


def test_with_brushes_it_is_run_both_ways() -> None:
    brushed = Connecting(plan=plans_of("universal-4-lead")[0])
    one = [*begun(direction="cw"), step("100 V 2 A 5000 rpm"), END]

    def told(*bodies: Body) -> set[str]:
        job = judged(*LOG, *bodies).job
        return {f.code for f in trial_findings(job, CAP, Settings(), brushed)}

    assert "trial-both-ways" in told(*one)
    assert "trial-both-ways" not in told(*one, *begun(direction="ccw"), step("100 V 2 A"), END)


def test_amps_apart_name_the_slip_they_fit() -> None:
    turned = Rig(
        network=arrangement("three-phase-6-lead").network,
        joints=[["L1", "T1"], ["L2", "T5"], ["L3", "T3"], ["T4", "T2", "T6"]],
        devices=(),
        supply=(3, 100.0, 50.0),
        nominal=400.0,
        poles=4,
        halves="alternate",
    )
    amps, _, _, turns = turned.step()
    shown = "/".join(f"{a:.3g}" for a in amps.values())
    odd = findings(*begun(), step(f"400 V {shown} A {turns}"))["trial-lines"]
    assert odd.verdict == "hold"
    assert "They fit: Coil T2-T5 is reversed" in odd.why


def test_minutes_come_from_the_log_where_none_is_typed() -> None:
    warm = [step(f"400 V 2.6 A {c} °C") for c in ("30", "42", "48", "51")]
    shown = judged(*LOG, *begun(), *warm).job.trials.sheets[-1]
    assert warm_points(shown) == [(0, 30), (1, 42), (2, 48), (3, 51)]
    assert warming(warm_points(shown)).end_c == pytest.approx(54, abs=0.5)
    typed = judged(*LOG, *begun(), *warm, step("400 V 2.6 A 52 °C 20 min")).job.trials.sheets[-1]
    assert warm_points(typed) == [(20, 52)]


@pytest.mark.parametrize(
    ("text", "outcome", "seconds", "rpm"),
    [
        ("dropped out 0.8 s 1120 rpm", "dropped out", 0.8, 1120),
        ("Turns 1,2 s", "turns", 1.2, None),
        ("stalled 5 s", "stalled", 5, None),
    ],
)
def test_a_start_is_typed(text: str, outcome: str, seconds: float, rpm: float | None) -> None:
    found = read_as("start", text, nominal=230)
    assert (found.outcome, found.seconds, found.rpm, found.volt) == (outcome, seconds, rpm, 230)


@pytest.mark.parametrize("text", ["", "dropped out", "fell 2 s", "turns 1.2.3 s", "stalled 9999 s"])
def test_a_start_that_cannot_be_read_says_what_is_wanted(text: str) -> None:
    with pytest.raises(BadValue, match="seconds"):
        read_as("start", text, nominal=230)


def test_what_is_read_as_it_begins_to_turn_or_comes_back_in() -> None:
    assert read_as("turning", "48,5 V").text == "48.5 V"
    assert read_as("drop-in", "640").text == "640 rpm"
    for what, text in (("turning", "early"), ("drop-in", "640 V"), ("drop-in", "")):
        with pytest.raises(BadValue, match=r"rpm|volts"):
            read_as(what, text)


def test_a_sheets_speed_and_direction_are_typed_together() -> None:
    assert sheet_of("high cw", ("high", "low")) == ("high", "cw")
    assert sheet_of("ccw", ()) == ("", "ccw")
    assert sheet_of("", ("high",)) == ("", "")
    for text in ("fast", "high low", "cw ccw"):
        with pytest.raises(BadValue, match="cw or ccw"):
            sheet_of(text, ("high", "low"))


FIGURE = st.integers(1, 9999).map(float)


@given(FIGURE, FIGURE, st.one_of(st.none(), FIGURE), st.one_of(st.none(), FIGURE))
def test_any_step_reads_back_as_it_is_written(
    volt: float, amp: float, watt: float | None, torque: float | None
) -> None:
    made = TrialStep(volt=(volt,), amp=(amp,), watt=watt, newton_metre=torque, turns="rough")
    assert read_step(step_words(made), 3) == made


def test_what_a_run_shows_parts_the_causes_of_a_complaint() -> None:
    asked: dict[str, Any] = {"kind": "ticket", "field": "complaint", "text": "hums, no start"}
    before = judged(*LOG, asked)
    dead = judged(*LOG, asked, *begun(), step("400 V 2.6/2.6/0.01 A none"))
    assert before.facts.causes is not None
    assert dead.facts.causes is not None
    odds = [{c.name: p for c, p in j.facts.causes.odds} for j in (before, dead) if j.facts.causes]
    assert odds[1]["lost-phase"] > 2 * odds[0]["lost-phase"]
