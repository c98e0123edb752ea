"""Test run by keys: a run taken by the simulated meter, abandoned, repeated, before and after; the stall guard."""

import dataclasses
from datetime import timedelta

import pytest

from careful_coil.demo.truths import TRUTHS
from careful_coil.desk.stations.test_run import TestRunPage
from careful_coil.desk.trial.invert import Negative
from careful_coil.desk.trial.meaning import MeaningPart
from careful_coil.desk.trial.ready import ReadyPart
from careful_coil.desk.trial.run import RunPart
from tests.desk.driver import CTRL, Bench, Key
from tests.desk.hands import log, meter_on, part, typed
from tests.desk.hands import station as at_station


def station(bench: Bench, motor: str = "cider mill") -> TestRunPage:
    bench.open(motor)
    return at_station(bench, 8, TestRunPage)


TAKEN = ("turning", "trial", "start", "drop-in")  # what the simulated bench answers


def begin(bench: Bench, covers: str = "off") -> None:
    """Begin a sheet and tick all that makes it ready."""
    ready = part(bench, ReadyPart)
    ready.begin[covers].setFocus()
    bench.key(Key.Key_Return)
    for _ in ready.roll.items:
        bench.key(Key.Key_Space)
    bench.key(Key.Key_Return)
    assert bench.judged.job.trials.now is not None
    assert bench.judged.job.trials.now.ready


def take_ramp(bench: Bench) -> list[str]:
    """Take every step the Next card asks for."""
    titles = []
    bench.meter_here()
    while bench.judged.next is not None and bench.judged.next.act in TAKEN:
        titles.append(bench.next)
        bench.key(Key.Key_Space)
        assert len(titles) < 9
    return titles


def test_a_run_is_played_abandoned_once_repeated_and_compared(bench: Bench) -> None:
    station(bench)
    begin(bench)
    bench.ctrl(Key.Key_M)
    typed(bench, "step", "100 V 1.4/1.4/1.4 A smooth")
    typed(bench, "abandon", "clamp came loose")
    assert bench.judged.job.trials.sheets[-1].ended is not None
    begin(bench)
    meter_on(bench, dataclasses.replace(TRUTHS["demo-cider-mill"], stiff=3.0))
    assert take_ramp(bench) == [
        "Raise until it turns",
        "Raise to 400 V, read",
    ]
    assert bench.next == "Bench switch off, then End"
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)
    assert bench.judged.job.trials.now is None
    log(bench, {"kind": "work", "what": "cleaned", "words": "bearings eased"})
    begin(bench)
    meter_on(bench, TRUTHS["demo-cider-mill"])
    take_ramp(bench)
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)
    told = part(bench, MeaningPart)
    assert "Between them: cleaned" in told.pairs.words
    watt = next(row for row in told.pairs.words.splitlines() if row.startswith("watt"))
    assert "−" in watt
    assert "more than two readings" in watt
    volts = next(row for row in told.pairs.words.splitlines() if row.startswith("turns from"))
    assert "−43 %" in volts  # the root of a third: torque goes with the square of the volts
    assert "4 steps of volts, amps and watts" in told.losses.words
    assert "After three steps" in told.warm.words


def test_a_dead_line_is_called_a_lost_phase_though_it_runs(bench: Bench) -> None:
    station(bench)
    begin(bench)
    meter_on(bench, dataclasses.replace(TRUTHS["demo-cider-mill"], dead_line="L2"))
    take_ramp(bench)
    assert any(row.startswith("hold: No amps in L2") for row in bench.ledger())


def test_the_band_expected_is_worked_out_and_drawn(bench: Bench) -> None:
    station(bench, "theatre")
    run = part(bench, RunPart)
    bench.settle(lambda: bool(run._expected))
    assert "Dashed: expected without load. At 460 V" in run.band.words
    assert "Assumed:" in run.band.words
    words = run.rules.words.replace("\u00a0", " ")
    assert "amps over 9.2 A" in words
    assert "not turning by 230 V" in words


CHANDLERY = "L1 A S1.1;S1.2 C1.1;C1.2 C;L2 B D"


def ready_chandlery(bench: Bench) -> None:
    """A capacitor-start motor with an open sheet, ready for volts."""
    station(bench, "chandlery")
    bench.ctrl(Key.Key_7)
    typed(bench, "supply", "230")
    bench.ctrl(Key.Key_8)
    assert "Never ramped" in part(bench, ReadyPart).words.words
    begin(bench)


def test_a_capacitor_start_motor_is_not_ramped_but_looked_at_and_timed(bench: Bench) -> None:
    ready_chandlery(bench)
    assert bench.next == "Look at 51 V, read"
    typed(bench, "step", "120 V 4 A")
    assert "raised slowly its start winding stays in" in bench.page.fields["step"].message.text()
    bench.meter_here()
    bench.enter("120 V 4 A")
    assert "one timed start" in bench.note
    assert not bench.judged.job.trials.sheets[-1].steps
    typed(bench, "step", "51 V 6.2 A none")
    assert bench.next == "One timed start"
    bench.key(Key.Key_Return, CTRL)
    guard = part(bench, RunPart).guard
    assert guard.says == "dropped out"
    bench.key(Key.Key_Space)
    assert guard.state == "armed"
    bench.key(Key.Key_Return)
    assert guard.state == "running"
    bench._steady += 1.4
    guard.tick()
    assert "1.4 s" in guard.accessibleDescription()
    bench.key(Key.Key_Space)
    (start,) = bench.judged.job.trials.sheets[-1].starts
    assert (start.outcome, start.seconds) == ("dropped out", 1.4)
    assert any("Start device let go" in row for row in bench.ledger())
    typed(bench, "step", "230 V 4.4 A 300 W 1490 rpm smooth")
    typed(bench, "heard", "drop-in 640 rpm")
    assert bench.next == "Bench switch off, then End"


def test_the_guard_says_off_at_its_limit_and_what_was_seen_is_a_hold(bench: Bench) -> None:
    ready_chandlery(bench)
    guard = part(bench, RunPart).guard
    guard.setFocus()
    bench.key(Key.Key_Return)
    bench.key(Key.Key_Return)
    bench._steady += 6
    guard.tick()
    assert guard.words().startswith("OFF NOW")
    assert isinstance(bench.window.whole.graphicsEffect(), Negative)
    bench.key(Key.Key_Space)
    assert guard.state == "running"  # a press alone would call a stall a start
    bench.key(Key.Key_S)
    assert bench.window.whole.graphicsEffect() is None
    assert any(row.startswith("hold: Did not start") for row in bench.ledger())


def test_after_two_starts_the_guard_does_not_arm_until_the_pause_is_over(bench: Bench) -> None:
    ready_chandlery(bench)
    guard = part(bench, RunPart).guard
    for _ in range(2):
        guard.setFocus()
        for key in (Key.Key_Return, Key.Key_Return, Key.Key_X):
            bench.key(key)
    guard.setFocus()
    bench.key(Key.Key_Return)
    assert guard.state == "idle"
    assert "Two in a row: it must cool" in guard.words()
    bench.later += timedelta(minutes=6)
    bench.key(Key.Key_Return)
    assert guard.state == "armed"
    bench.key(Key.Key_Escape)
    assert guard.state == "idle"


def test_a_tired_capacitor_is_found_by_the_simulated_start(bench: Bench) -> None:
    seconds = {}
    for tired in (1.0, 0.35):
        station(bench, "chandlery")
        if tired == 1.0:
            bench.ctrl(Key.Key_7)
            typed(bench, "supply", "230")
            log(bench, {"kind": "proved-dead", "volt": 0})
            log(bench, *({"kind": "joint", "joint": j.split()} for j in CHANDLERY.split(";")))
            bench.ctrl(Key.Key_8)
        begin(bench)
        meter_on(bench, dataclasses.replace(TRUTHS["demo-chandlery"], tired=tired, stiff=4.0))
        titles = take_ramp(bench)
        assert titles[:2] == ["Look at 51 V, read", "One timed start"]
        (start,) = bench.judged.job.trials.sheets[-1].starts
        seconds[tired] = start.seconds
        typed(bench, "abandon", "enough")
    assert seconds[0.35] > 1.5 * seconds[1.0]


def test_a_universal_motor_is_not_run_above_its_cap(bench: Bench) -> None:
    station(bench, "sander")
    log(bench, {"kind": "supply", "volt": 230, "hertz": 50, "phases": 1})
    begin(bench)
    typed(bench, "step", "230 V 1.2 A 9000 rpm")
    assert "flies apart" in bench.page.fields["step"].message.text()
    typed(bench, "step", "57 V 1.2 A 9000 rpm")
    assert len(bench.judged.job.trials.sheets[-1].steps) == 1


@pytest.mark.parametrize(
    ("field", "text"),
    [("step", "400 V"), ("step", "fast"), ("heard", "bang"), ("heard", "drop-out")],
)
def test_what_cannot_be_read_is_refused_in_place(bench: Bench, field: str, text: str) -> None:
    station(bench)
    begin(bench)
    before = len(bench.job.entries)
    typed(bench, field, text)
    assert bench.page.fields[field].message.text()
    assert len(bench.job.entries) == before


def test_no_step_is_logged_without_a_sheet_that_is_ready(bench: Bench) -> None:
    station(bench)
    typed(bench, "step", "400 V 2/2/2 A")
    assert "a sheet first" in bench.page.fields["step"].message.text()


FAN = {"A": "run", "B": "high", "C": "low", "D": "start", "E": "medium"}


def test_a_fan_of_three_speeds_has_a_sheet_for_each(bench: Bench) -> None:
    bench.open("glasshouse")
    log(
        bench,
        {"kind": "leads", "leads": [{"tag": t, "marking": m} for t, m in FAN.items()]},
        *({"kind": "role-known", "tag": t, "role": FAN[t]} for t in "AD"),
        {"kind": "found-hookup", "joints": []},
    )
    bench.ctrl(Key.Key_2)
    bench.meter_here()
    while (step := bench.judged.next) is not None and step.station == "leads":
        before = len(bench.job.entries)
        bench.key(Key.Key_Space if step.act != "dead" else Key.Key_Return)
        assert len(bench.job.entries) > before, bench.note
    assert bench.judged.facts.naming.word == "marked"
    bench.ctrl(Key.Key_7)
    typed(bench, "supply", "230")
    typed(bench, "wish-speed", "high")
    assert bench.judged.facts.connecting.plan is not None, bench.judged.facts.connecting.why
    bench.ctrl(Key.Key_8)
    ready = part(bench, ReadyPart)
    assert ready.sheet.isVisible()
    assert ready.sheet.cell.text() == "high"
    typed(bench, "sheet", "fast")
    assert "high, medium, low" in ready.sheet.message.text()
    typed(bench, "sheet", "low ccw")
    begin(bench)
    begun = bench.judged.job.trials.sheets[-1].begun
    assert (begun.speed, begun.direction, begun.load) == ("low", "ccw", "none")
    assert bench.window.session.target is not None
    lines = {n for j in bench.window.session.target.joints for n in j if "L1" in j or "L2" in j}
    low = next(t for t, n in bench.judged.facts.connecting.names.items() if n == "low")
    assert low in lines
    typed(bench, "abandon", "enough")
    part(bench, ReadyPart).tests["locked"].setFocus()
    bench.key(Key.Key_Return)
    assert bench.judged.job.trials.sheets[-1].begun.load == "locked"


def test_no_sheet_begins_while_something_bad_stands(bench: Bench) -> None:
    station(bench, "boatyard")
    part(bench, ReadyPart).begin["off"].setFocus()
    bench.key(Key.Key_Return)
    assert bench.message.startswith("No volts yet. Insulation too low")
    assert not bench.judged.job.trials.sheets


def test_what_the_guard_sees_stays_with_the_motor_it_was_armed_for(bench: Bench) -> None:
    ready_chandlery(bench)
    chandlery = bench.job.id
    guard = part(bench, RunPart).guard
    guard.setFocus()
    bench.key(Key.Key_Return)
    bench.key(Key.Key_Return)
    bench._steady += 1.1
    bench.open("cider mill")
    guard.setFocus()
    bench.key(Key.Key_D)
    assert [t.starts for t in bench.judged.job.trials.sheets] == [()]
    bench.open("chandlery")
    assert bench.job.id == chandlery
    (start,) = bench.judged.job.trials.sheets[-1].starts
    assert start.outcome == "dropped out"


def test_ticks_and_a_speed_typed_for_one_motor_are_not_another_motors(bench: Bench) -> None:
    station(bench)
    ready = part(bench, ReadyPart)
    ready.begin["off"].setFocus()
    bench.key(Key.Key_Return)
    bench.key(Key.Key_Space)
    assert ready.roll.done
    ready._own = ("low", "cw")
    bench.open("lock house")
    bench.ctrl(Key.Key_8)
    ready.begin["off"].setFocus()
    bench.key(Key.Key_Return)
    begun = bench.judged.job.trials.sheets[-1].begun
    assert (begun.speed, begun.direction) == ("", "")
    assert not ready.roll.done


def test_the_guard_does_not_arm_without_a_sheet(bench: Bench) -> None:
    station(bench)
    guard = part(bench, RunPart).guard
    guard.setFocus()
    bench.key(Key.Key_Return)
    assert guard.state == "idle"
    assert "a sheet first" in guard.words()
