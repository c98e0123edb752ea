"""The other parts of Insulation by keys: coils, drying, bond, heat run, traces, years; what is refused."""

import math
from pathlib import Path

import pytest

from careful_coil.core.job import Finding
from careful_coil.desk.insulation.coils import CoilsPart
from careful_coil.desk.insulation.drying import DryingPart
from careful_coil.desk.insulation.ready import ReadyPart
from careful_coil.desk.insulation.years import YearsPart
from tests.desk.driver import Bench, Key
from tests.desk.hands import log
from tests.desk.insulated import insulation, part

REFUSED = [
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
    ("same-motor", "²"),
    ("coil-ohm", "AD ²"),
]


def test_what_cannot_be_is_refused_where_it_was_typed(bench: Bench) -> None:
    bench.open("cider")
    page = insulation(bench)
    before = len(bench.job.entries)
    for field, text in REFUSED:
        assert page.put_cursor(field)
        bench.enter(text or "x" * 300 + ".csv")
        assert page.fields[field].message.text(), (field, text)
        assert len(bench.job.entries) == before, (field, text)
        bench.key(Key.Key_Escape)


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
    assert bench.judged.facts.wall.minimum == pytest.approx(1.4)
    assert bench.judged.facts.wall.material == "thermoplastic"
    assert bench.window.session.setting.at_c == 21.0  # a test is made at the winding's °C
    assert page.put_cursor("made-construction")
    bench.enter("")
    assert page.put_cursor("made-construction")
    page.fields["made-construction"].cell.clear()
    page.fields["made-construction"].cell.setModified(True)
    bench.key(Key.Key_Return)
    assert bench.judged.facts.wall.minimum == 5


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
    assert any("Again: insulation to the frame" in row for row in bench.ledger())
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
    assert bench.next == "Make ready for the insulation test"
    log(
        bench,
        {"kind": "insulation", "megohm": 480, "at_c": 20, "test_volt": 500},
        {"kind": "discharged", "seconds": 240},
    )
    assert bench.next == "Earth bond: frame"
    bench.meter_here()
    for text in ("0.03", "0.03", "0.04"):
        bench.enter(text)
    assert bench.next == "Begin a run, covers on"


def test_enter_puts_the_covers_on_record(bench: Bench) -> None:
    """From another station the first Enter goes there, the next is the answer: the cursor is in no field."""
    bench.open("cider")
    page = insulation(bench, "bond")
    page.parts["bond"].key.click()  # type: ignore[attr-defined]
    bench.settle()
    assert bench.next == "Put the covers on"
    bench.ctrl(Key.Key_1)
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)
    assert (bench.station, bench.judged.job.tested.covers) == ("insulation", -1)
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

    def risen() -> Finding:
        return next(f for f in bench.judged.findings if f.code == "temperature-rise")

    assert risen().verdict == "unproven"  # nobody said its class
    insulation(bench, "made")
    assert page.put_cursor("made-class")
    bench.enter("F")
    found = risen()
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
    assert len(earlier.tests) == 6  # its own four and the two it had of job 118
    assert len(earlier.coil_ohm) in (0, 3)
    assert "206" in part(page, YearsPart).words.words
