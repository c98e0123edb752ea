"""Test run by keys: a run taken by the simulated meter, abandoned, repeated, before and after; the stall guard."""

import dataclasses
from typing import Any

import pytest

from careful_coil.bench.simulated import SimulatedMeter
from careful_coil.demo.truths import BENCH_METER, TRUTHS
from careful_coil.desk.part import Part
from careful_coil.desk.stations.test_run import TestRunPage
from careful_coil.desk.trial.meaning import MeaningPart
from careful_coil.desk.trial.ready import ReadyPart
from careful_coil.desk.trial.run import RunPart
from tests.desk.driver import CTRL, Bench, Key
from tests.desk.test_connect import log, typed


def station(bench: Bench, motor: str = "cider mill") -> TestRunPage:
    bench.open(motor)
    bench.ctrl(Key.Key_8)
    page = bench.page
    assert isinstance(page, TestRunPage)
    return page


def part(bench: Bench, name: str, kind: type[Part]) -> Any:
    page = bench.page
    assert isinstance(page, TestRunPage)
    page.open_part(name)
    bench.settle()
    found = page.parts[name]
    assert isinstance(found, kind)
    return found


def begin(bench: Bench, covers: str = "off") -> None:
    """Begin a sheet and tick all that makes it ready."""
    ready = part(bench, "ready", ReadyPart)
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
    while bench.judged.next is not None and bench.judged.next.act == "trial":
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
    stiff = dataclasses.replace(TRUTHS["demo-cider-mill"], stiff=3.0)
    bench.job.instrument = SimulatedMeter(stiff, seed=4, meter=BENCH_METER)
    bench.window.session.bound = bench.job
    assert take_ramp(bench) == [
        "Raise to 100 V, read",
        "Raise to 200 V, read",
        "Raise to 300 V, read",
        "Raise to 400 V, read",
    ]
    assert bench.next == "Bench switch off, then End"
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)
    assert bench.judged.job.trials.now is None
    log(bench, {"kind": "work", "what": "cleaned", "words": "bearings eased"})
    begin(bench)
    bench.job.instrument = SimulatedMeter(TRUTHS["demo-cider-mill"], seed=4, meter=BENCH_METER)
    bench.window.session.bound = bench.job
    take_ramp(bench)
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)
    told = part(bench, "told", MeaningPart)
    assert "Between them: work" in told.pairs.words
    watt = next(row for row in told.pairs.words.splitlines() if row.startswith("watt"))
    assert "−" in watt
    assert "more than two readings" in watt
    assert "friction and windage" in told.losses.words


def test_a_dead_line_is_called_a_lost_phase_though_it_runs(bench: Bench) -> None:
    station(bench)
    begin(bench)
    faulty = dataclasses.replace(TRUTHS["demo-cider-mill"], dead_line="L2")
    bench.job.instrument = SimulatedMeter(faulty, seed=4, meter=BENCH_METER)
    bench.window.session.bound = bench.job
    take_ramp(bench)
    assert any(row.startswith("hold: No amps in L2") for row in bench.ledger())


def test_the_band_expected_is_worked_out_and_drawn(bench: Bench) -> None:
    station(bench, "theatre")
    run = part(bench, "run", RunPart)
    bench.settle(lambda: bool(run._expected))
    assert "Dashed: expected without load. At 460 V" in run.band.words
    assert "Assumed:" in run.band.words
    assert "amps over 9.2 A" in run.rules.words
    assert "not turning by 230 V" in run.rules.words


def test_a_capacitor_start_motor_is_not_ramped_but_timed(bench: Bench) -> None:
    station(bench, "chandlery")
    bench.ctrl(Key.Key_7)
    typed(bench, "supply", "230")
    bench.ctrl(Key.Key_8)
    ready = part(bench, "ready", ReadyPart)
    assert "Never ramped" in ready.words.words
    begin(bench)
    assert bench.next == "One timed start"
    bench.key(Key.Key_Return, CTRL)
    guard = part(bench, "run", RunPart).guard
    guard.setFocus()
    bench.key(Key.Key_Return)
    assert guard.state == "armed"
    bench.key(Key.Key_Return)
    assert guard.state == "running"
    bench._steady += 1.4
    guard.tick()
    assert "1.4 s" in guard.accessibleDescription()
    bench.key(Key.Key_D)
    (start,) = bench.judged.job.trials.sheets[-1].starts
    assert (start.outcome, start.seconds) == ("dropped out", 1.4)
    assert any("Start device let go" in row for row in bench.ledger())
    assert bench.next == "Raise to 230 V, read"


def test_the_guard_says_off_at_its_limit_and_what_was_seen_is_a_hold(bench: Bench) -> None:
    station(bench, "chandlery")
    bench.ctrl(Key.Key_7)
    typed(bench, "supply", "230")
    bench.ctrl(Key.Key_8)
    begin(bench)
    guard = part(bench, "run", RunPart).guard
    guard.setFocus()
    bench.key(Key.Key_Return)
    bench.key(Key.Key_Return)
    bench._steady += 6
    guard.tick()
    assert guard.words().startswith("OFF NOW")
    bench.key(Key.Key_S)
    assert any(row.startswith("hold: Did not start") for row in bench.ledger())


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
