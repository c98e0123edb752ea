"""Insulation tests by keys: ticks, the clock with its beeps, the curve, the discharge."""

import pytest

from careful_coil.core.errors import BadValue
from careful_coil.core.probes import Request
from careful_coil.desk.insulation.drying import DryingPart
from careful_coil.desk.insulation.ready import ReadyPart
from careful_coil.desk.insulation.test import TestPart
from tests.desk.driver import SHIFT, Bench, Key
from tests.desk.hands import log
from tests.desk.insulated import earth, insulation, part, tick_all


def test_the_station_opens_at_what_comes_next(bench: Bench) -> None:
    bench.open("boatyard")
    page = insulation(bench)
    assert page.part.name == "ready"
    assert bench.next == "Make ready for the insulation test"
    assert page.index.told[page.index.current] == ("unproven", "lapsed")


def test_page_down_walks_through_all_parts(bench: Bench) -> None:
    bench.open("cider")
    page = insulation(bench, "coils")
    seen = []
    for _ in page.parts:
        seen.append(page.part.name)
        bench.key(Key.Key_PageDown)
    assert seen == list(page.parts)
    assert all(told for _, told in page.index.told)


def test_the_ticks_are_logged_with_initials_and_lapse_when_touched(bench: Bench) -> None:
    bench.open("boatyard")
    page = insulation(bench, "ready")
    ready = part(page, ReadyPart)
    ready.roll.setFocus()
    bench.key(Key.Key_Return)
    assert "Still to tick" in bench.window.way.message
    tick_all(bench)
    logged = bench.judged.job.tested.ready
    assert logged is not None
    assert (logged.by, logged.body.volt) == ("AB", 100.0)  # it was wet: low volts
    assert bench.next == "Read it again while it dries"
    bench.window.session.pick(Request(kind="frame", ends=("A",)))
    bench.meter_here()
    bench.enter("open")
    assert bench.next == "Make ready for the insulation test"


def test_without_initials_or_temperature_nothing_goes_on(bench: Bench) -> None:
    bench.open("boatyard")
    session = bench.window.session
    session.who = ""
    tick_all(bench)
    assert "initials" in bench.window.way.message
    session.who = "AB"
    session.put_under(at_c=None)
    bench.key(Key.Key_Return)
    assert "temperature" in bench.window.way.message
    before = len(bench.job.entries)
    bench.meter_here()
    bench.enter("AF 3")
    assert len(bench.job.entries) == before + 1


def test_a_ten_minute_test_builds_its_curve_and_records_itself(bench: Bench) -> None:
    bench.open("boatyard")
    tick_all(bench)
    bench.meter_here()
    page = insulation(bench, "test")
    shown = part(page, TestPart)
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_T, SHIFT)
    clock = bench.window.session.clock
    assert clock.testing
    beeps: list[float] = []
    clock.beeped.connect(beeps.append)
    bench.pass_time(20)
    bench.key(Key.Key_Space)  # a live value is the clock's to take: no second test of it
    assert "clock takes" in bench.note
    assert clock.testing
    bench.pass_time(41)
    assert beeps == [15, 30, 60]
    assert "estimated" in shown.estimate.words
    early = shown.estimate.words
    bench.pass_time(540)
    assert not clock.testing
    test = bench.judged.job.tested.tests[-1].body
    assert test.readings[0][0] == 5
    assert test.readings[-1][0] == 600
    assert test.megohm == dict(test.readings)[60.0]
    true = (0.3 + 0.7 * 10**-0.75) ** -1  # the hidden motor: leakage 0.3, exponent 0.75
    assert dict(test.readings)[600.0] / test.megohm == pytest.approx(true, rel=0.05)
    assert shown.estimate.words != early
    assert shown.estimate.words.startswith("Index ")
    assert bench.next == "Earth the winding"


def test_figures_are_typed_at_the_beeps_where_no_instrument_is(empty: Bench) -> None:
    three_leads(empty)
    tick_all(empty)
    insulation(empty, "test")
    empty.ctrl(Key.Key_M)
    empty.key(Key.Key_T)
    empty.enter("100")
    assert "15 s" in empty.note  # too early: no beep yet
    for seconds, figure in ((16, "120"), (15, "180"), (30, "260")):
        empty.pass_time(seconds)
        assert "type the figure" in empty.note
        empty.enter(figure)
    test = empty.judged.job.tested.tests[-1].body
    assert test.readings == ((15.0, 120.0), (30.0, 180.0), (60.0, 260.0))
    assert test.parts == ()


def three_leads(bench: Bench) -> None:
    """Name a motor whose leads are not known yet: its insulation can be tested all the same."""
    bench.window.rack.who.setText("EF")
    bench.window.session.who = "EF"
    bench.ctrl(Key.Key_N)
    bench.enter("Mill")
    for name, text in (("phases", "3"), ("volt", "400"), ("hertz", "50")):
        bench.ctrl(Key.Key_1)
        assert bench.page.put_cursor(name)
        bench.enter(text)
    bench.ctrl(Key.Key_3)
    bench.window.session.put_under(at_c=20.0)
    for _ in range(8):
        step = bench.judged.next
        if step is not None and step.act in ("ready", "insulation"):
            return
        bench.ctrl(Key.Key_M)
        bench.key(Key.Key_N)


def test_a_test_stopped_before_a_minute_records_nothing(bench: Bench) -> None:
    bench.open("boatyard")
    tick_all(bench)
    bench.meter_here()
    before = len(bench.judged.job.tested.tests)
    bench.key(Key.Key_T)
    bench.pass_time(20)
    bench.key(Key.Key_T)
    assert "nothing recorded" in bench.window.way.message
    assert len(bench.judged.job.tested.tests) == before
    assert bench.next == "Read it again while it dries"


def test_a_test_belongs_to_the_motor_it_was_started_on(bench: Bench) -> None:
    bench.open("boatyard")
    tick_all(bench)
    bench.meter_here()
    boatyard = bench.job.id
    before = len(bench.judged.job.tested.tests)
    bench.key(Key.Key_T)
    bench.pass_time(30)
    bench.open("cider")
    others = len(bench.judged.job.tested.tests)
    bench.pass_time(40)
    assert len(bench.judged.job.tested.tests) == others
    bench.open("boatyard")
    assert bench.job.id == boatyard
    assert len(bench.judged.job.tested.tests) == before + 1


def test_the_clock_of_one_motor_is_not_another_s(bench: Bench) -> None:
    """A discharge runs at the boatyard; the cider mill, charged too, can neither tick nor start it."""
    bench.open("boatyard")
    tick_all(bench)
    bench.meter_here()
    bench.enter("2.6")
    clock = bench.window.session.clock
    clock.start_discharge()
    bench.pass_time(300, 20)
    bench.open("cider")
    page = insulation(bench, "drying")
    page.parts["drying"].works["varnished"].click()  # type: ignore[attr-defined]
    bench.settle()
    tick_all(bench)
    bench.meter_here()
    with pytest.raises(BadValue, match="Boatyard"):
        clock.start(60.0)
    bench.enter("480")
    assert bench.next == "Earth the winding"
    page.discharge()
    assert "Boatyard" in bench.window.way.message
    assert bench.judged.job.tested.charged() is not None
    bench.open("boatyard")
    insulation(bench).discharge()
    bench.settle()
    assert bench.judged.job.tested.charged() is None


def test_a_temperature_lost_while_it_runs_loses_no_test(bench: Bench) -> None:
    bench.open("boatyard")
    tick_all(bench)
    bench.meter_here()
    before = len(bench.judged.job.tested.tests)
    bench.key(Key.Key_T)
    bench.window.session.put_under(at_c=None)
    bench.pass_time(61)
    assert len(bench.judged.job.tested.tests) == before + 1
    assert bench.judged.job.tested.tests[-1].body.at_c == 21


def test_the_discharge_is_counted_and_cannot_be_ticked_early(bench: Bench) -> None:
    bench.open("boatyard")
    tick_all(bench)
    bench.meter_here()
    bench.enter("2.1/2.3/2.6")
    assert bench.next == "Earth the winding"
    clock = bench.window.session.clock
    bench.key(Key.Key_Return)
    assert clock.discharging == 240
    bench.pass_time(100)
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)
    assert "140 s more" in bench.window.way.message
    assert bench.next == "Earth the winding"
    bench.pass_time(141)
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)
    assert bench.judged.job.tested.charged() is None
    assert bench.next != "Earth the winding"


def test_minutes_to_earth_that_ran_without_the_clock_are_typed(bench: Bench) -> None:
    bench.open("boatyard")
    tick_all(bench)
    bench.meter_here()
    bench.enter("2.6")
    page = insulation(bench, "test")
    assert page.put_cursor("earthed")
    bench.enter("3")
    assert "4 or more" in page.fields["earthed"].message.text()
    bench.enter("240 min")
    assert bench.judged.job.tested.charged() is None


def test_each_winding_is_asked_for_once_where_there_is_a_reason(bench: Bench) -> None:
    """The cider mill when it had been wet: three windings, three tests; the run is what is left."""
    bench.open("cider")
    log(bench, {"kind": "condition", "item": "windings", "answer": "wet"})
    page = insulation(bench, "drying")
    part(page, DryingPart).works["dried"].click()
    bench.settle()
    asked = []
    bench.meter_here()
    for _ in range(3):
        step = bench.judged.next
        assert step is not None
        if step.act == "ready":
            tick_all(bench)
            step = bench.judged.next
        assert step is not None
        asked.append(" ".join(step.ends))
        bench.ctrl(Key.Key_M)
        bench.enter("480")
        earth(bench)
    assert asked == ["A D", "B E", "C F"]
    assert {f.code for f in bench.judged.gate} == {"test-run", "shaft-feel", "mechanics"}


@pytest.mark.parametrize(
    ("text", "megohm"),
    [
        ("550", 550.0),
        ("0.4", 0.4),
        ("320 k", 0.32),
        (">2 G", 2000.0),
        ("12,5", 12.5),
        ("120/180/260", 260.0),
    ],
)
def test_megohms_are_typed_as_the_tester_shows_them(bench: Bench, text: str, megohm: float) -> None:
    bench.open("boatyard")
    tick_all(bench)
    bench.meter_here()
    bench.enter(text)
    test = bench.judged.job.tested.tests[-1].body
    assert test.megohm == pytest.approx(megohm)
    assert test.above == text.startswith(">")
    assert test.at_c == 21.0


def test_a_tester_that_shows_no_figure_is_asked_for_its_range(bench: Bench) -> None:
    bench.open("boatyard")
    tick_all(bench)
    bench.meter_here()
    before = len(bench.job.entries)
    for text in ("open", "OL", "wet", "12 V", "-3", "120/180", "30s 9 10s 8", "²"):
        bench.enter(text)
        assert "Wanted" in bench.note, text
        assert len(bench.job.entries) == before, text
        bench.key(Key.Key_Escape)
