"""Intake: a plate pasted in any order, and the kind of motor from looks, by keys."""

import pytest
from PySide6.QtCore import Qt

from careful_coil.core.errors import BadValue
from careful_coil.core.kind import KINDS, weigh_kinds
from careful_coil.desk.intake.kind import KindPart, read_look, reason_lines
from careful_coil.desk.intake.plate import PlatePart
from careful_coil.desk.intake.worth import WorthPart
from careful_coil.desk.stations.intake import IntakePage
from tests.desk.driver import Bench

Key = Qt.Key


def intake(bench: Bench) -> IntakePage:
    bench.ctrl(Key.Key_1)
    page = bench.page
    assert isinstance(page, IntakePage)
    return page


def fresh(bench: Bench) -> IntakePage:
    """A motor of which nothing is known."""
    bench.ctrl(Key.Key_N)
    return intake(bench)


def plate_part(page: IntakePage) -> PlatePart:
    part = page.parts["plate"]
    assert isinstance(part, PlatePart)
    return part


def kind_part(page: IntakePage) -> KindPart:
    page.open_part("kind")
    part = page.parts["kind"]
    assert isinstance(part, KindPart)
    return part


def worth_part(page: IntakePage) -> WorthPart:
    part = page.parts["worth"]
    assert isinstance(part, WorthPart)
    return part


def cursor_in(bench: Bench, page: IntakePage, field: str) -> None:
    assert page.put_cursor(field)
    bench.settle()


def test_a_pasted_plate_fills_the_fields_and_hands_back_the_rest(bench: Bench) -> None:
    page = fresh(bench)
    cursor_in(bench, page, "paste")
    bench.enter("HP 5 VOLTS 230/460 AMPS 13/6.5 RPM 1755 HZ 60 PH 3 CODE H mystery")
    shown = {n: page.fields[n].cell.text() for n in ("volt", "amp", "rpm", "hertz", "code")}
    assert shown == {"volt": "230/460", "amp": "13/6.5", "rpm": "1755", "hertz": "60", "code": "H"}
    assert page.fields["code"].isVisibleTo(page)
    assert not page.fields["frame"].isVisibleTo(page)
    assert plate_part(page).left.text() == "Not placed, look again: mystery."
    assert page.fields["paste"].cell.text() == ""
    assert bench.judged.job.plate.amps == (13.0, 6.5)


def test_a_plate_that_says_nothing_is_refused_and_kept_for_mending(bench: Bench) -> None:
    page = fresh(bench)
    cursor_in(bench, page, "paste")
    bench.enter("lorem ipsum")
    assert "for example 3~" in page.fields["paste"].message.text()
    assert page.fields["paste"].cell.text() == "lorem ipsum"


def test_a_plate_that_cannot_be_true_is_said(bench: Bench) -> None:
    page = fresh(bench)
    cursor_in(bench, page, "paste")
    bench.enter("3~ 15 kW 230/400 V 5.9/3.4 A 50 Hz 1420 r/min")
    assert any("too much to be true" in row for row in bench.ledger())


def test_the_look_that_settles_most_is_asked_and_answered(bench: Bench) -> None:
    page = fresh(bench)
    asked = kind_part(page).asked.question.text()
    assert asked.startswith("Look: ")
    best = weigh_kinds({}).next
    assert best is not None
    assert best.sign.question in asked
    assert [b.text().lower() for b in kind_part(page).asked.buttons[:-1]] == [
        a.lower() for a in best.sign.answers
    ]
    kind_part(page).asked.buttons[0].setFocus()
    bench.settle()
    bench.key(Key.Key_Space)
    assert bench.judged.job.seen.looks == {best.sign.name: best.sign.answers[0]}
    assert best.sign.question not in kind_part(page).asked.question.text()
    bench.ctrl(Key.Key_Z)
    assert bench.judged.job.seen.looks == {}


def test_a_look_put_off_gives_the_next_best(bench: Bench) -> None:
    page = fresh(bench)
    first = kind_part(page).asked.question.text()
    kind_part(page).asked.buttons[-1].click()
    assert kind_part(page).asked.question.text() not in ("", first)


def test_looks_are_typed_and_the_kind_is_told_with_what_it_means(bench: Bench) -> None:
    page = fresh(bench)
    for words in ("brushes yes", "stator coils on lam", "tach yes"):
        cursor_in(bench, page, "look")
        bench.enter(words)
    assert kind_part(page).odds.rows[0][1] == KINDS["universal"].title
    assert kind_part(page).odds.rows[0][0] > 0.9
    assert "universal" in kind_part(page).reasons.text()
    assert any("flies apart" in row for row in bench.ledger())
    cursor_in(bench, page, "look")
    bench.enter("shading-rings yes")
    assert "do not go together" in kind_part(page).reasons.text()


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("ears yes", "brushes"),
        ("brushes perhaps", "yes or no"),
        ("s yes", "stator"),
        ("leads", "2 or 3"),
    ],
)
def test_looks_that_mean_nothing_are_refused(text: str, words: str) -> None:
    with pytest.raises(BadValue, match=words):
        read_look(text)


def test_looks_that_tell_little_are_not_explained() -> None:
    assert reason_lines(weigh_kinds({"brushes": "no", "shading-rings": "yes"})) == [
        "A copper ring round part of each pole? Yes: shaded pole."
    ]


def test_repair_is_weighed_against_a_new_one(bench: Bench) -> None:
    page = fresh(bench)
    for name, text in (("parts", "90"), ("labour", "180,5"), ("replacement", "310")):
        cursor_in(bench, page, f"worth-{name}")
        bench.enter(text)
    assert worth_part(page).answer.text().startswith("Replace it. Repair 270")
    cursor_in(bench, page, "worth-special")
    bench.enter("maybe")
    assert "yes, no" in page.fields["worth-special"].message.text()
    bench.enter("yes")
    assert worth_part(page).answer.text().startswith("Repair it.")
