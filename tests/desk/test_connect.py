"""Connect by keys: the change, its proof, a slip that ohms cannot show, other kinds of motor."""

import dataclasses
from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from pypdf import PdfReader
from PySide6.QtCore import QPoint

from careful_coil.bench.simulated import SimulatedMeter
from careful_coil.demo.truths import BENCH_METER, TRUTHS
from careful_coil.desk.connect.beyond import BeyondPart
from careful_coil.desk.connect.card import CardPart
from careful_coil.desk.connect.proof import ProofPart
from careful_coil.desk.connect.what_if import WhatIfPart
from careful_coil.desk.stations.connect import ConnectPage
from tests.desk.driver import CTRL, Bench, Key
from tests.desk.hands import log, part, station, typed


def connect(bench: Bench, motor: str = "theatre") -> ConnectPage:
    bench.open(motor)
    return station(bench, 7, ConnectPage)


def play(bench: Bench, most: int = 40) -> list[str]:
    """Do what the Next card says until it asks for a reading; return its titles."""
    titles = []
    bench.ctrl(Key.Key_M)
    for _ in range(most):
        step = bench.judged.next
        assert step is not None
        if step.station != "connect":  # what other stations want can wait here
            bench.window.session.not_here()
            bench.settle()
            continue
        if step.act == "step":  # the marks alone name the leads: a reading after a joint
            bench.meter_here()
            bench.key(Key.Key_Space)
            continue
        if step.act not in ("dead", "part", "joint", "insulate", "tick"):
            return titles
        titles.append(bench.next)
        bench.key(Key.Key_Return)
    raise AssertionError(titles)


def looked_over(bench: Bench) -> None:
    """Read the lines, then tick what is seen before power."""
    bench.meter_here()
    while bench.judged.next is not None and bench.judged.next.act == "line":
        bench.key(Key.Key_Space)
    assert bench.next == "Look it over before power"
    bench.key(Key.Key_Return, CTRL)
    roll = part(bench, ProofPart).roll
    for _ in roll.items:
        bench.key(Key.Key_Space)


def test_it_shows_what_stands_what_must_and_the_step_to_do(bench: Bench) -> None:
    change = connect(bench).change
    assert change.before_head.remark == "230 V: low volts: two wyes in parallel"
    assert change.after_head.remark == "high volts: halves in series, wye"
    assert change.after_head.remark_in(90) == "high volts"
    rows = change.steps.step_rows()
    assert rows[0][0] == "now"
    assert " out of " in rows[0][1]
    assert [row[2] for row in change.steps.ohm_rows()] == ["must read 2.04 Ω"] * 3
    assert "at most 3" in change.steps_head.remark


def test_the_theatres_motor_is_changed_proved_and_told_by_keys(bench: Bench) -> None:
    page = connect(bench)
    titles = play(bench)
    assert titles[0] == "Prove it dead"
    assert sum(t.startswith("Take ") for t in titles) >= 5
    assert sum(t.startswith("Join ") for t in titles) >= 3
    assert page.change.after_head.remark == page.change.before_head.remark
    looked_over(bench)
    assert bench.next == "Run it at 115 V"
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Space)
    rows = bench.ledger()
    assert any(row.startswith("good: Reduced-voltage run good") for row in rows)
    assert any(row.startswith("good: Direction right") for row in rows)
    assert bench.next == "Change the voltage tags"
    bench.key(Key.Key_Return, CTRL)
    for _ in range(2):
        bench.key(Key.Key_Return)
        bench.key(Key.Key_Down)
    assert set(bench.judged.job.seen.voltage_tags.values()) == {"460 V"}
    assert bench.next == "Tell the installer"
    bench.key(Key.Key_Return, CTRL)
    beyond = part(bench, BeyondPart)
    for _ in beyond.roll.items[:-1]:
        bench.key(Key.Key_Space)
    typed(bench, "waive", "no drive in this stage")
    left = [f.code for f in bench.judged.gate if f.station == "connect"]
    assert left == []


def slipped_meter(bench: Bench, **changes: Any) -> None:
    """Put the meter on the theatre's motor with something joined otherwise than ticked."""
    motor = dataclasses.replace(TRUTHS["demo-theatre"], **changes)
    bench.job.instrument = SimulatedMeter(motor, seed=5, meter=BENCH_METER)
    bench.window.session.bound = bench.job


def test_a_slip_that_ohms_cannot_show_is_caught_by_the_low_run_and_the_screen_says_so(
    bench: Bench,
) -> None:
    connect(bench)
    play(bench)
    slipped_meter(bench, joined_as={"C": "H", "H": "C"})  # T2 and T5 in each other's place
    looked_over(bench)
    assert any(row.startswith("good: Line ohms right") for row in bench.ledger())
    proof = part(bench, ProofPart)
    assert "a coil reversed" in proof.unseen.words
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Space)
    held = next(row for row in bench.ledger() if "Do not raise the voltage" in row)
    assert held.startswith("hold")
    assert "Coil T2-T5 is reversed" in held
    assert bench.next == "Off, and look at the joints"
    assert "low-run" in {f.code for f in bench.judged.gate}


def test_an_open_half_hides_in_the_lines_and_shows_on_the_clamp(bench: Bench) -> None:
    connect(bench)
    typed(bench, "supply", "230")
    typed(bench, "stands", "L1 A B; L2 C G; L3 D E; F H J")
    slipped_meter(bench, joined_as={"F": "nowhere-1", "H": "nowhere-2", "J": "nowhere-3"})
    bench.ctrl(Key.Key_M)
    typed(bench, "low-run", "57.5 V 1.9/1.9/1.9 smooth cw")
    assert "not clamped" in next(row for row in bench.ledger() if "clamped" in row)
    typed(bench, "clamps", "T1 0.01 T7 1.9")
    assert any("Parallel leads do not share" in row for row in bench.ledger())


@pytest.mark.parametrize("steps", [2, 5, 9])
def test_killed_between_any_two_steps_it_knows_what_is_loose(
    bench: Bench, tmp_path: Path, steps: int
) -> None:
    connect(bench)
    bench.ctrl(Key.Key_M)
    for _ in range(steps):
        bench.key(Key.Key_Return)
    before = bench.judged.facts.connecting
    bench.window.close()
    again = Bench(tmp_path / "shop", demo=False)
    again.open("theatre")
    after = again.judged.facts.connecting
    assert after.now == before.now
    assert [s.text for s in after.steps] == [s.text for s in before.steps]
    again.close()


def test_proof_of_no_volts_lapses_and_the_next_cut_asks_again(bench: Bench) -> None:
    connect(bench)
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)
    assert bench.next.startswith("Take ")
    bench.later = timedelta(minutes=45)
    entries = len(bench.job.entries)
    bench.key(Key.Key_Return)
    assert len(bench.job.entries) == entries  # nothing was cut on an old proof
    assert bench.next == "Prove it dead"
    assert "min ago" in (bench.judged.next.why if bench.judged.next else "")
    bench.key(Key.Key_Return)
    assert bench.next.startswith("Take ")


def test_each_joint_is_proved_by_one_reading_from_the_meter(bench: Bench) -> None:
    change = connect(bench).change
    bench.ctrl(Key.Key_M)
    while not bench.judged.facts.connecting.now.made:
        bench.key(Key.Key_Return)
    assert "proves itself" in change.offered.words
    change.read.setFocus()
    bench.key(Key.Key_Return)
    bench.meter_here()
    change.read.setFocus()
    bench.key(Key.Key_Return)
    bench.key(Key.Key_Space)
    assert len(bench.judged.job.joined.ohms) == 1
    assert not any("does not read right" in row for row in bench.ledger())
    change.read.setFocus()
    bench.key(Key.Key_Return)
    bench.enter("open")
    assert any("does not read right" in row for row in bench.ledger())
    bench.ctrl(Key.Key_Z)
    assert not any("does not read right" in row for row in bench.ledger())


def test_a_temporary_is_registered_where_it_is_made_and_holds(bench: Bench) -> None:
    connect(bench)
    typed(bench, "temporary", "clip lead T4 to T7")
    held = next(f for f in bench.judged.gate if f.code == "temporary")
    assert "clip lead T4 to T7" in held.subject + held.why


def test_a_leftover_that_differs_is_told_and_holds(bench: Bench) -> None:
    change = connect(bench).change
    bench.ctrl(Key.Key_M)
    while not bench.judged.facts.connecting.now.made:
        bench.key(Key.Key_Return)
    assert "must be" in change.left.words
    change.differs.setFocus()
    bench.key(Key.Key_Return)
    assert bench.next == "What is left over differs from the plan"
    change.differs.setFocus()
    bench.key(Key.Key_Return)
    assert bench.next != "What is left over differs from the plan"


def test_enter_on_the_steps_does_them_whatever_other_stations_want(bench: Bench) -> None:
    """A motor whose marks alone are known: Leads wants readings, the change goes on all the same."""
    page = new_motor(
        bench,
        "T1 T2 T3 T4 T5 T6 T7 T8 T9",
        joints("L1 T1 T7;L2 T2 T8;L3 T3 T9;T4 T5 T6"),
        phases="3",
        volt="230/460",
        hertz="60",
        amp="18/9",
    )
    typed(bench, "supply", "460")
    if bench.judged.facts.connecting.plan is None:  # wye or delta inside: the joints as found say
        raise AssertionError(bench.judged.facts.connecting.why)
    page.open_part("change")
    assert bench.judged.next is not None
    assert bench.judged.next.station != "connect"
    for _ in range(30):
        if bench.judged.facts.connecting.joined:
            break
        bench.key(Key.Key_Return)
    assert bench.judged.facts.connecting.joined
    assert bench.judged.facts.connecting.by_marks


def test_a_click_on_the_step_is_enter(bench: Bench) -> None:
    change = connect(bench).change
    page = bench.page
    page.ensureWidgetVisible(change.steps)
    before = len(bench.job.entries)
    y = sum(change.steps._height(r[0]) for r in change.steps.step_rows()[:0]) + 20
    bench.click(change.steps, QPoint(30, y))
    assert len(bench.job.entries) == before + 1


@pytest.mark.parametrize(
    ("text", "words"),
    [("120", "off the nearest rating"), ("208", "at the edge"), ("460", "High volts")],
)
def test_another_supply_is_answered_at_once(bench: Bench, text: str, words: str) -> None:
    page = connect(bench)
    typed(bench, "supply", text)
    page.open_part("wanted")
    assert words in page.parts["wanted"].words.words  # type: ignore[attr-defined]


REFUSED = [
    *(("supply", t) for t in ("volts", "-230", "12 A", "0")),
    *(("supply-line", t) for t in ("400/401", "400/400", "a/b/c", "400/400/400/400")),
    ("supply-neutral", "230/x/230"),
    ("supply-hertz", "fast"),
    ("wish-rotation", "left"),
    ("wish-start", "slowly"),
    ("wish-cable-mm2", "thick"),
    ("stands", "L1 Z"),
    ("stands", "L1 A; L2 A"),
    ("low-run", "115 V 3/3/3 smooth"),
    ("turn-seen", "left"),
    ("what-if", "T1"),
]


def test_what_cannot_be_read_is_refused_in_place_and_nothing_is_logged(bench: Bench) -> None:
    page = connect(bench)
    before = len(bench.job.entries)
    for field, text in REFUSED:
        typed(bench, field, text)
        assert page.fields[field].message.text(), (field, text)
        assert len(bench.job.entries) == before, (field, text)


def test_six_voltages_name_the_supply(bench: Bench) -> None:
    connect(bench)
    typed(bench, "supply", "460")
    typed(bench, "supply-line", "462/459/461")
    typed(bench, "supply-neutral", "266/265/267")
    assert any("Supply measured" in row and "star" in row for row in bench.ledger())
    typed(bench, "supply-line", "470/460/440")
    assert any(row.startswith("watch: Supply out of balance") for row in bench.ledger())


def test_what_if_is_tried_and_every_slip_listed_with_its_test(bench: Bench) -> None:
    connect(bench)
    tried = part(bench, WhatIfPart)
    bench.settle(lambda: bool(tried.roll.slips))
    assert "31 of 31 (100 %)" in tried.covered.words
    typed(bench, "what-if", "turn T5")
    assert "reversed" in tried.verdict.words
    assert "183 %" in tried.words.words
    assert "Shown by the reduced-voltage run." in tried.words.words
    tried.roll.setFocus()
    bench.key(Key.Key_End)
    assert tried.about.words


def test_the_hookup_card_is_written_as_card_tag_and_drawing(bench: Bench, tmp_path: Path) -> None:
    connect(bench)
    card = part(bench, CardPart)
    assert "NOT FINISHED" in card.preview.accessibleDescription()
    card.write.setFocus()
    bench.key(Key.Key_Return)
    assert card.said.words.startswith("Written")
    folder = tmp_path / "shop" / "sheets"
    words = PdfReader(folder / "hookup-214.pdf").pages[0].extract_text()
    assert "Theatre, stage fan" in words
    assert "yellow T4 – green T7" in words
    assert "NOT FINISHED" in words
    assert "460 V" in words
    assert "T4" in (folder / "hookup-214.svg").read_text(encoding="utf-8")
    assert "NOT FINISHED" in PdfReader(folder / "hookup-tag-214.pdf").pages[0].extract_text()


def new_motor(bench: Bench, marks: str, *bodies: dict[str, Any], **plate: str) -> ConnectPage:
    """Start a job with leads tagged and printed alike, its joints found as given."""
    bench.ctrl(Key.Key_N)
    leads = [{"tag": m, "marking": m} for m in marks.split()]
    told = [{"kind": "plate", "field": f, "text": t} for f, t in plate.items()]
    log(bench, *told, {"kind": "leads", "leads": leads}, *bodies)
    return station(bench, 7, ConnectPage)


def joints(text: str) -> dict[str, Any]:
    return {"kind": "found-hookup", "joints": [j.split() for j in text.split(";")], "ran": "yes"}
