"""The Insulation station by keys: ticks, the clock with beeps, the curve, discharge, drying, the rest."""

import math
from pathlib import Path
from typing import TypeVar

import pytest

from careful_coil.bench import Request
from careful_coil.desk.insulation.coils import CoilsPart
from careful_coil.desk.insulation.drying import DryingPart
from careful_coil.desk.insulation.ready import ReadyPart
from careful_coil.desk.insulation.test import TestPart
from careful_coil.desk.insulation.years import YearsPart
from careful_coil.desk.stations.insulation import InsulationPage
from tests.desk.driver import SHIFT, Bench, Key

P = TypeVar("P")


def insulation(bench: Bench, part: str = "") -> InsulationPage:
    bench.ctrl(Key.Key_3)
    page = bench.page
    assert isinstance(page, InsulationPage)
    if part:
        page.open_part(part)
    bench.settle()
    return page


def part(page: InsulationPage, kind: type[P]) -> P:
    """Return the part of a kind."""
    return next(p for p in page.parts.values() if isinstance(p, kind))


def tick_all(bench: Bench) -> None:
    """Tick what stands before the test, by Space, and log it by Enter."""
    page = insulation(bench, "ready")
    roll = part(page, ReadyPart).roll
    roll.setFocus()
    for _ in roll.items:
        bench.key(Key.Key_Space)
    bench.key(Key.Key_Return)


def earth(bench: Bench) -> None:
    """Start the discharge, let it run, tick it, all by Enter on the Next card."""
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)
    bench.pass_time(4 * 600 + 1, 20)
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)


def test_the_station_opens_at_what_comes_next(bench: Bench) -> None:
    bench.open("boatyard")
    page = insulation(bench)
    assert page.part.name == "ready"
    assert bench.next == "Make ready for the insulation test"
    assert page.index.told[page.index.current] == ("unproven", "lapsed: touched since")


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
    session.who, session.temperature_c = "AB", None
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
    bench.pass_time(61)
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
    bench.window.session.temperature_c = 20.0
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


def test_each_winding_is_asked_for_once_and_a_pass_opens_the_gate(bench: Bench) -> None:
    """The cider mill after a varnish: three windings, three tests, nothing else open."""
    bench.open("cider")
    page = insulation(bench, "drying")
    part(page, DryingPart).works["varnished"].click()
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
    assert bench.next == "Sign and let it go"


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


@pytest.mark.parametrize("text", ["open", "OL", "wet", "12 V", "-3", "120/180", "30s 9 10s 8"])
def test_a_tester_that_shows_no_figure_is_asked_for_its_range(bench: Bench, text: str) -> None:
    bench.open("boatyard")
    tick_all(bench)
    bench.meter_here()
    before = len(bench.judged.job.tested.tests)
    bench.enter(text)
    assert "Wanted" in bench.note
    assert len(bench.judged.job.tested.tests) == before


@pytest.mark.parametrize(
    ("field", "text"),
    [
        ("temperature", "900"),
        ("temperature", "warm"),
        ("test-volt", "3"),
        ("air", "99"),
        ("humidity", "0"),
        ("humidity", "wet"),
        ("others", "floating"),
        ("made-construction", "knitted"),
        ("made-design-ohm", "open"),
        ("coil-ohm", "AZ 3"),
        ("coil-ohm", "AD open"),
        ("coil-ohm", "A B+A 3"),
        ("wires", "3"),
        ("coil-state", "loose"),
        ("bond-ohm", "0.1/0.2"),
        ("bond-ohm", "open"),
        ("bond-nulled", "maybe"),
        ("hours", "long"),
        ("cold-ohm", "0"),
        ("hot", "30; 60"),
        ("steps", "500 420"),
        ("steps", "1000 4; 500 5"),
        ("surge-file", "nowhere.csv"),
        ("curve-file", ""),
        ("same-motor", "9999"),
    ],
)
def test_what_cannot_be_is_refused_where_it_was_typed(bench: Bench, field: str, text: str) -> None:
    bench.open("cider")
    page = insulation(bench)
    assert page.put_cursor(field)
    before = len(bench.job.entries)
    bench.enter(text or "x" * 300 + ".csv")
    assert page.fields[field].message.text()
    assert len(bench.job.entries) == before


def test_the_dew_point_warns_before_the_test(bench: Bench) -> None:
    bench.open("cider")
    page = insulation(bench, "ready")
    for name, text in (("temperature", "12"), ("air", "24"), ("humidity", "70")):
        assert page.put_cursor(name)
        bench.enter(text)
    assert "Warm it first" in part(page, ReadyPart).weather.words


def test_how_it_is_made_moves_the_minimum(bench: Bench) -> None:
    bench.open("cider")
    page = insulation(bench, "made")
    assert page.put_cursor("made-construction")
    bench.enter("old")
    assert bench.judged.wall.minimum == pytest.approx(1.4)
    assert bench.judged.wall.material == "thermoplastic"
    assert page.put_cursor("made-construction")
    bench.enter("")
    assert page.put_cursor("made-construction")
    page.fields["made-construction"].cell.clear()
    page.fields["made-construction"].cell.setModified(True)
    bench.key(Key.Key_Return)
    assert bench.judged.wall.minimum == 5


def test_four_wire_readings_make_the_balance(bench: Bench) -> None:
    bench.open("cider")
    page = insulation(bench, "coils")
    assert page.put_cursor("wires")
    bench.enter("4")
    for text in ("AD 2.604", "BE 2.612", "CF 2.851"):
        assert page.put_cursor("coil-ohm")
        bench.enter(text)
    shown = part(page, CoilsPart)
    assert shown.coils.got is not None
    assert shown.coils.got.wires == 4
    held = next(f for f in bench.judged.findings if f.code == "coils-balanced")
    assert held.verdict == "hold"
    assert "T3 to T6" in held.why
    assert "bad joint" in held.why
    assert "Coils not balanced" in shown.verdicts.accessibleDescription()


def test_line_readings_as_joined_give_the_coils(bench: Bench) -> None:
    bench.open("cider")
    page = insulation(bench, "coils")
    assert page.put_cursor("coil-state")
    bench.enter("as joined")
    for text in ("L1 L2 5.20", "L2 L3 5.21", "L1 L3 5.21"):
        assert page.put_cursor("coil-ohm")
        bench.enter(text)
    got = part(page, CoilsPart).coils.got
    assert got is not None
    assert got.through_lines
    assert all(math.isclose(r, 2.65, rel_tol=0.02) for r in got.ohm.values())  # 2.60 at 21 to 25 °C


def test_a_drying_campaign_is_begun_drawn_and_ended(bench: Bench) -> None:
    bench.open("boatyard")
    page = insulation(bench, "drying")
    drying = part(page, DryingPart)
    assert "climbs" in drying.plot.accessibleDescription()
    assert drying.campaign.text() == "End drying"
    drying.campaign.click()
    bench.settle()
    assert drying.campaign.text() == "Begin drying"
    for name, text in (("method", "oven"), ("out", "bearings, seals")):
        assert page.put_cursor(name)
        bench.enter(text)
    drying.campaign.click()
    bench.settle()
    run = bench.judged.job.tested.campaign()
    assert run is not None
    assert (run[0].body.method, run[0].body.out) == ("oven", ("bearings", "seals"))
    assert run[1] is None


def test_work_is_logged_with_how_and_makes_the_test_void(bench: Bench) -> None:
    bench.open("cider")
    page = insulation(bench, "drying")
    for name, text in (("method", "brush and air"), ("hours", "1.5"), ("work-c", "80 °C")):
        assert page.put_cursor(name)
        bench.enter(text)
    part(page, DryingPart).works["cleaned"].click()
    bench.settle()
    work = bench.judged.job.tested.works[-1].body
    assert (work.method, work.hours, work.at_c) == ("brush and air", 1.5, 80.0)
    assert any("not tested since the last work" in row for row in bench.ledger())
    assert page.fields["method"].cell.text() == ""


def test_the_bond_is_asked_for_again_after_the_covers(bench: Bench) -> None:
    bench.open("cider")
    page = insulation(bench, "bond")
    assert page.put_cursor("bond-ohm")
    bench.enter("0.03/0.02/0.31")
    held = next(f for f in bench.judged.findings if f.code == "earth-bond")
    assert (held.verdict, held.waivable) == ("hold", False)
    assert page.put_cursor("bond-ohm")
    bench.enter("0.03/0.02/0.02")
    button = page.parts["bond"].key  # type: ignore[attr-defined]
    for words in ("The covers came off again", "The covers are on"):
        assert button.text() == words
        button.click()
        bench.settle()
    assert bench.next == "Earth bond: frame"
    bench.meter_here()
    for text in ("0.03", "0.03", "0.04"):
        bench.enter(text)
    assert bench.next == "Sign and let it go"


def test_enter_puts_the_covers_on_record(bench: Bench) -> None:
    bench.open("cider")
    page = insulation(bench, "bond")
    page.parts["bond"].key.click()  # type: ignore[attr-defined]
    bench.settle()
    assert bench.next == "Put the covers on"
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)
    assert bench.judged.job.tested.covers > 0


def test_a_heat_run_is_logged_and_judged(bench: Bench) -> None:
    bench.open("cider")
    page = insulation(bench, "rise")
    for name, text in (("cold-ohm", "5.20"), ("cold-c", "20"), ("run-air-c", "22")):
        assert page.put_cursor(name)
        bench.enter(text)
    page.parts["rise"].key.click()  # type: ignore[attr-defined]
    assert "Wanted" in page.parts["rise"].said.words  # type: ignore[attr-defined]
    assert page.put_cursor("hot")
    bench.enter("30 6.58; 60 6.52; 90 6.47; 120 6.42")
    page.parts["rise"].key.click()  # type: ignore[attr-defined]
    bench.settle()
    found = next(f for f in bench.judged.findings if f.code == "temperature-rise")
    assert found.verdict == "good"
    assert found.figure == pytest.approx(69, abs=3)


def test_steps_surges_and_curves_come_in(bench: Bench, tmp_path: Path) -> None:
    bench.open("cider")
    page = insulation(bench, "traces")
    assert page.put_cursor("steps")
    bench.enter("500 420; 1000 410; 1500 180")
    assert "step-voltage" in {f.code for f in bench.judged.findings if f.verdict == "watch"}
    rows = ["time_s,A,B,C"]
    for k in range(200):
        a = math.exp(-k / 80) * math.cos(k / 6)
        c = math.exp(-k / 80) * math.cos(k / 5.4)
        rows.append(f"{k * 1e-6:.7f},{a:.5f},{a * 1.002:.5f},{c:.5f}")
    file = tmp_path / "surge.csv"
    file.write_text("\n".join(rows), encoding="utf-8")
    assert page.put_cursor("surge-file")
    bench.enter(str(file))
    surge = next(f for f in bench.judged.findings if f.code == "surge")
    assert surge.verdict == "hold"
    assert "C differs" in surge.why
    assert "faster" in surge.why
    curve = tmp_path / "curve.csv"
    curve.write_text("time_s,megohm\n15,120\n30,180\n60,260\n600,700\n", encoding="utf-8")
    assert page.put_cursor("curve-file")
    bench.enter(str(curve))
    assert bench.judged.job.tested.tests[-1].body.readings[-1] == (600.0, 700.0)


def test_a_job_with_the_same_serial_number_is_offered(bench: Bench) -> None:
    bench.open("boatyard")
    bench.ctrl(Key.Key_1)
    assert bench.page.put_cursor("serial")
    bench.enter("RW-0221")  # the ropewalk's
    page = insulation(bench, "years")
    key = part(page, YearsPart).key
    assert "221" in key.text()
    key.click()
    bench.settle(lambda: bool(bench.judged.job.tested.earlier))
    assert bench.judged.job.tested.earlier[0].number == 221
    assert key.isHidden()


def test_an_earlier_job_of_the_same_motor_is_taken_over(bench: Bench) -> None:
    bench.open("boatyard")
    page = insulation(bench, "years")
    assert page.put_cursor("same-motor")
    bench.enter("206")
    bench.settle(lambda: bool(bench.judged.job.tested.earlier))
    earlier = bench.judged.job.tested.earlier[-1]
    assert earlier.number == 206
    assert len(earlier.tests) == 5  # its own three and the two it had of job 118
    assert len(earlier.coil_ohm) in (0, 3)
    assert "206" in part(page, YearsPart).words.words
