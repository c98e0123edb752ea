"""The Leads station: readings typed and taken, the sheet, the odds, the marks."""

import sqlite3
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from careful_coil.core.probes import Request
from careful_coil.desk.stations.leads import LeadsPage
from tests.desk.driver import CTRL, NONE, SHIFT, Bench, Key


def page_of(bench: Bench) -> LeadsPage:
    page = bench.window.pages["leads"]
    assert isinstance(page, LeadsPage)
    return page


@pytest.fixture
def bakery(bench: Bench) -> Bench:
    """The bakery's motor on the bench, the meter on it, Leads open."""
    bench.open("bakery")
    bench.ctrl(Key.Key_2)
    bench.meter_here()
    return bench


def test_the_sheet_shows_what_was_read_and_what_comes_next(bakery: Bench) -> None:
    page = page_of(bakery)
    assert page.sheet.cell_words() == ["A to B 5.61", "B to C 3.92"]
    assert bakery.next == "Read A to C"
    target = bakery.window.session.target
    assert target == Request(kind="resistance", ends=("A", "C"))


def test_space_takes_the_live_value_and_moves_on(bakery: Bench) -> None:
    bakery.key(Key.Key_Space)
    assert "A to C" in " ".join(page_of(bakery).sheet.cell_words())
    assert bakery.note.startswith("A C: ")


def test_a_typed_value_and_enter_record_and_move_on(bakery: Bench) -> None:
    bakery.enter("7.71")
    assert "A to C 7.71" in page_of(bakery).sheet.cell_words()
    assert bakery.window.strip.line.text() == ""


def test_a_pair_typed_in_front_goes_before_the_suggestion(bakery: Bench) -> None:
    bakery.enter("bc 2.10")
    assert "B to C 2.10" in page_of(bakery).sheet.cell_words()


def test_space_in_typed_text_is_a_blank(bakery: Bench) -> None:
    before = len(bakery.judged.job.readings)
    bakery.type("BC")
    bakery.key(Key.Key_Space)
    assert bakery.window.strip.line.text() == "BC "
    assert len(bakery.judged.job.readings) == before


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("1.2.3", "Read “1.2.3”"),
        ("12 V", "not a unit of resistance"),
        ("-5", "below nothing"),
        ("1,200", "two things"),
        ("AX 3.9", "Read “AX 3.9”"),
        ("AB", "Read “AB”"),
        ("move AC AB", "a pair that has a reading"),
        ("swap A A", "two tags"),
    ],
)
def test_bad_input_is_told_in_place_and_nothing_is_lost(
    bakery: Bench, text: str, words: str
) -> None:
    before = len(bakery.job.entries)
    bakery.enter(text)
    assert words in bakery.note
    assert bakery.window.strip.line.text() == text
    assert len(bakery.job.entries) == before


def test_a_value_typed_while_the_last_is_on_its_way_waits_for_a_look(bakery: Bench) -> None:
    """The next pair is not known yet: the value must not land on the old one."""
    before = len(bakery.judged.job.readings)
    bakery.type("7.71")
    QTest.keyClick(bakery.focus, Key.Key_Return)
    QTest.keyClicks(bakery.focus, "2.10")
    QTest.keyClick(bakery.focus, Key.Key_Return)
    QTest.keyClick(bakery.focus, Key.Key_Escape)
    QTest.keyClick(bakery.focus, Key.Key_Space)
    bakery.settle()
    assert len(bakery.judged.job.readings) == before + 1
    assert "on its way" in bakery.note


def test_a_value_that_could_not_be_recorded_is_given_back(bakery: Bench, tmp_path: Path) -> None:
    with sqlite3.connect(tmp_path / "shop" / "shop.sqlite3") as database:
        database.execute("ALTER TABLE entry RENAME TO elsewhere")
    database.close()
    before = len(bakery.job.entries)
    bakery.enter("7.71")
    assert "Not recorded" in bakery.note
    assert bakery.window.strip.line.text() == "7.71"
    assert len(bakery.job.entries) == before


def test_escape_only_cancels_typing(bakery: Bench) -> None:
    bakery.type("7.7")
    bakery.key(Key.Key_Escape)
    assert bakery.window.strip.line.text() == ""
    assert bakery.station == "leads"


def test_the_number_pad_alone_is_enough(bakery: Bench) -> None:
    bakery.key(Key.Key_Asterisk)
    assert bakery.window.strip.line.text() == "open"
    bakery.key(Key.Key_Enter)
    assert "A to C open" in page_of(bakery).sheet.cell_words()
    bakery.key(Key.Key_Minus, Qt.KeyboardModifier.KeypadModifier)
    assert "A to C open" not in page_of(bakery).sheet.cell_words()
    bakery.key(Key.Key_Slash)
    assert bakery.window.strip.line.text() == "rising"


def test_a_minus_from_the_letter_keys_begins_a_figure_and_strikes_nothing(bakery: Bench) -> None:
    before = len(bakery.job.entries)
    bakery.type("-0.003")
    assert bakery.window.strip.line.text() == "-0.003"
    assert len(bakery.job.entries) == before


def test_not_here_brings_the_next_best_and_says_what_was_put_off(bakery: Bench) -> None:
    first = bakery.next
    bakery.key(Key.Key_N)
    assert bakery.next != first
    assert first in bakery.window.ledger.card.foot()
    bakery.key(Key.Key_N, SHIFT)
    assert bakery.next == first


def test_arrows_move_the_probes(bakery: Bench) -> None:
    bakery.key(Key.Key_Left)
    target = bakery.window.session.target
    assert target is not None
    assert target.ends == ("A", "B")
    bakery.key(Key.Key_Return)
    again = bakery.window.session.target
    assert again is not None
    assert again.ends == ("A", "C")


def test_a_click_on_a_cell_picks_its_pair(bakery: Bench) -> None:
    sheet = page_of(bakery).sheet
    bakery.click(sheet, sheet._box(1, 2).center())
    target = bakery.window.session.target
    assert target is not None
    assert target.ends == ("B", "C")


def test_a_moved_reading_and_swapped_tags_are_entries(bakery: Bench) -> None:
    bakery.enter("move BC AC")
    assert page_of(bakery).sheet.cell_words() == ["A to B 5.61", "A to C 3.92"]
    assert bakery.job.entries[-1].body.kind == "reading-moved"
    bakery.enter("swap A B")
    assert page_of(bakery).sheet.cell_words() == ["A to B 5.61", "B to C 3.92"]
    assert bakery.job.entries[-1].body.kind == "tags-swapped"


def test_a_strike_takes_a_reason(bakery: Bench) -> None:
    bakery.enter("strike BC dirty clip")
    body = bakery.job.entries[-1].body
    assert (body.kind, getattr(body, "reason", "")) == ("struck", "dirty clip")
    assert page_of(bakery).sheet.cell_words() == ["A to B 5.61"]


def look_at_it(bench: Bench) -> None:
    """Go to each look that Next asks for, answer it, come back."""
    while bench.judged.next is not None and bench.judged.next.code.startswith("sign-"):
        bench.ctrl(Key.Key_Return)
        assert bench.station == "intake"
        bench.enter("no")
    bench.ctrl(Key.Key_Return)


def test_a_bad_clip_leads_through_a_retake_to_proven_leads(bakery: Bench) -> None:
    """The reading B to C was taken through a bad clip: the rest finds it out."""
    for _ in range(12):
        step = bakery.judged.next
        if step is not None and step.code.startswith("sign-"):
            look_at_it(bakery)
            continue
        if step is None or step.station != "leads":
            break
        bakery.key(Key.Key_Return if step.act == "covers" else Key.Key_Space)
    found = bakery.judged.facts.identification
    assert found is not None
    assert found.status == "settled"
    assert found.best.roles == {"A": "start", "B": "common", "C": "run"}
    marks = page_of(bakery).marks.rows
    assert marks == [("A", "start", "proven"), ("B", "common", "proven"), ("C", "run", "proven")]
    assert "Never line voltage" in page_of(bakery).never.text()


def test_switch_tests_are_answered_by_number(bakery: Bench) -> None:
    bakery.enter("7.71")
    bakery.enter("BC 2.10")
    for _ in range(3):
        if bakery.judged.next is not None and bakery.judged.next.code == "sign-sealed":
            break
        bakery.enter("2.10")
    look_at_it(bakery)
    assert bakery.next == "Take the covers off"
    bakery.key(Key.Key_Return)
    step = bakery.judged.next
    assert step is not None
    assert step.act == "switch"
    assert "1 opens" in bakery.window.strip.note.hint()
    bakery.enter("1")
    reading = bakery.judged.job.readings[-1].reading
    assert (reading.kind, getattr(reading, "value", "")) == ("switch", "opens")


def test_the_meter_stays_on_its_motor_and_asks_in_place(bench: Bench) -> None:
    bench.open("bakery")
    assert bench.window.session.elsewhere
    bench.ctrl(Key.Key_2)
    before = len(bench.judged.job.readings)
    bench.key(Key.Key_Space)
    assert "The meter is on Boatyard, winch" in bench.note
    assert len(bench.judged.job.readings) == before
    bench.key(Key.Key_Return)
    assert not bench.window.session.elsewhere
    bench.key(Key.Key_Space)
    assert len(bench.judged.job.readings) == before + 1


def test_where_there_is_no_instrument_a_typed_value_is_of_the_motor_on_the_bench(
    empty: Bench,
) -> None:
    empty.window.rack.who.setText("EF")
    for count in (3, 6):
        empty.ctrl(Key.Key_L)
        empty.enter(str(count))
    assert not empty.window.session.elsewhere
    empty.ctrl(Key.Key_M)
    empty.enter("AB 3.90")
    assert "The meter is on" not in empty.note
    assert len(empty.judged.job.leads) == 6
    assert [t.reading.kind for t in empty.judged.job.readings] == ["resistance"]


def test_a_value_typed_on_another_motor_is_kept_through_the_question(bench: Bench) -> None:
    bench.open("bakery")
    bench.ctrl(Key.Key_2)
    before = len(bench.judged.job.readings)
    bench.enter("7.71")
    assert "The meter is on" in bench.note
    assert bench.window.strip.line.text() == "7.71"
    bench.key(Key.Key_Return)
    assert len(bench.judged.job.readings) == before
    bench.key(Key.Key_Return)
    assert len(bench.judged.job.readings) == before + 1
    assert "A to C 7.71" in page_of(bench).sheet.cell_words()


def test_loose_leads_need_three_keys(bench: Bench) -> None:
    bench.ctrl(Key.Key_L)
    assert bench.station == "leads"
    bench.enter("6")
    assert bench.judged.job.tags == tuple("ABCDEF")
    assert bench.judged.job.name == "Loose leads"
    assert bench.focus is bench.window.strip.line
    assert bench.next == "Prove it dead"
    bench.key(Key.Key_Return)
    assert bench.next.startswith("Read ")


@pytest.mark.parametrize("text", ["0", "1", "17", "six", "3.5", "-3"])
def test_a_count_that_cannot_be_is_refused_in_place(bench: Bench, text: str) -> None:
    bench.ctrl(Key.Key_L)
    bench.enter(text)
    assert "2 to 16" in bench.field("count").message.text()
    assert bench.judged.job.tags == ()


def test_without_an_instrument_values_are_typed(empty: Bench) -> None:
    empty.window.rack.who.setText("EF")
    empty.ctrl(Key.Key_L)
    empty.enter("6")
    empty.key(Key.Key_Return)
    before = len(empty.job.entries)
    empty.key(Key.Key_Space)
    assert "type it" in empty.note
    assert len(empty.job.entries) == before
    empty.enter("3.9")
    assert empty.judged.job.readings[-1].reading.kind == "resistance"
    assert empty.job.entries[-1].by == "EF"


def test_proving_dead_wants_initials(empty: Bench) -> None:
    empty.ctrl(Key.Key_L)
    empty.enter("3")
    empty.key(Key.Key_Return)
    assert empty.focus is empty.window.beginning.who.cell
    empty.enter("EF")
    assert empty.judged.job.dead_proved is not None
    assert empty.judged.job.dead_proved.by == "EF"


@pytest.mark.parametrize("count", [2, 3, 6, 9, 12, 16])
def test_any_count_of_leads_is_drawn(bench: Bench, count: int) -> None:
    bench.ctrl(Key.Key_L)
    bench.enter(str(count))
    bench.key(Key.Key_Return)
    bench.meter_here()
    bench.window.session.pick(None)
    bench.enter("AB 4.0")
    picture = bench.window.grab()
    assert not picture.isNull()
    assert page_of(bench).sheet.cell_words() == ["A to B 4.0"]


def test_kicks_are_answered_by_number_and_settle_the_leads(bench: Bench) -> None:
    bench.ctrl(Key.Key_L)
    bench.enter("6")
    bench.key(Key.Key_Return)
    bench.meter_here()
    for text in ("AB 4.0", "CD 4.0", "EF 4.0", "AC open", "AE open", "CE open"):
        bench.enter(text)
    assert bench.next.startswith("Kick ")
    assert "5 down large" in bench.window.strip.note.hint()
    bench.enter("4")
    bench.enter("down small")
    found = bench.judged.facts.identification
    assert found is not None
    assert found.to_close  # by a kick more, or by three equal amps at reduced volts
    assert "one more" in page_of(bench).marks_head.remark
    assert bench.next.startswith("Kick ")  # leads without a plate have no run to come
    bench.enter("4")
    found = bench.judged.facts.identification
    assert found is not None
    assert found.status == "settled"


def test_kick_answers_can_be_pressed_and_the_caution_stands_above(bench: Bench) -> None:
    bench.ctrl(Key.Key_L)
    bench.enter("6")
    bench.key(Key.Key_Return)
    bench.meter_here()
    answers = page_of(bench).answers
    assert not answers.isVisible()
    for text in ("AB 4.0", "CD 4.0", "EF 4.0", "AC open", "AE open", "CE open"):
        bench.enter(text)
    assert answers.isVisible()
    assert "Hands off the sense leads" in answers.caution.words
    answers.keys[3].click()
    bench.settle()
    reading = bench.judged.job.readings[-1].reading
    assert (reading.kind, getattr(reading, "value", "")) == ("kick", "down-small")


def test_the_drawing_is_redrawn_at_every_reading(bakery: Bench) -> None:
    before = page_of(bakery).drawn.drawing
    bakery.enter("BC 2.10")
    assert page_of(bakery).drawn.drawing != before


def test_keys_meant_for_the_strip_do_not_act_in_a_field(bench: Bench) -> None:
    bench.ctrl(Key.Key_1)
    assert bench.page.put_cursor("customer")
    before = len(bench.job.entries)
    bench.type("Nina and Noor")
    assert bench.field("customer").cell.text() == "Nina and Noor"
    bench.key(Key.Key_Escape, NONE)
    assert bench.field("customer").cell.text() != "Nina and Noor"
    assert len(bench.job.entries) == before
    bench.key(Key.Key_M, CTRL)
    assert bench.focus is bench.window.strip.line
