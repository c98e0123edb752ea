"""The window as it is heard: what Qt's accessibility tree says of rows, ticks, the current one, and of every change."""

import gc
from collections.abc import Iterator

import pytest
from PySide6.QtGui import QAccessible, QAccessibleInterface
from PySide6.QtWidgets import QWidget

from careful_coil.core.stations import STATIONS
from careful_coil.desk.insulation.ready import ReadyPart
from careful_coil.desk.mechanics.felt import ShaftPart
from careful_coil.desk.painted import Painted
from careful_coil.desk.stations.connect import ConnectPage
from careful_coil.desk.stations.insulation import InsulationPage
from careful_coil.desk.stations.leads import LeadsPage
from careful_coil.desk.stations.mechanics import MechanicsPage
from careful_coil.desk.stations.parted import PartedPage
from careful_coil.desk.stations.release import ReleasePage
from tests.desk.driver import Bench, Key
from tests.desk.hands import part, station

Name, More = QAccessible.Text.Name, QAccessible.Text.Description
Role = QAccessible.Role


def face(widget: QWidget) -> QAccessibleInterface:
    """Return what Qt hands a screen reader of a widget."""
    return QAccessible.queryAccessibleInterface(widget)


def rows(widget: QWidget) -> list[str]:
    """Return the rows of a list as they are heard."""
    of = face(widget)
    return [of.child(k).text(Name) for k in range(of.childCount())]


def current(widget: QWidget) -> list[int]:
    """Return which rows say that they are chosen."""
    of = face(widget)
    return [k for k in range(of.childCount()) if of.child(k).state().selected]


def test_the_stations_are_a_list_with_the_open_one(shared: Bench) -> None:
    shared.open("theatre")
    shared.window.go("leads")
    way = shared.window.way
    assert face(way).role() == Role.List
    assert rows(way)[0] == "1 Intake, done"
    assert current(way) == [1]
    assert "Theatre, stage fan" in face(way).text(Name)
    shared.key(Key.Key_F2)
    assert "Where you were" in face(way).text(More) or "Nothing is open" in face(way).text(More)


def test_what_next_says_is_heard_with_where_and_how(shared: Bench) -> None:
    shared.open("dairy")
    shared.window.go("leads")
    card = face(shared.window.ledger.card)
    assert card.text(Name) == "Next at Mechanics: Mend lead C"
    assert "Sleeve it" in card.text(More)
    assert card.role() == Role.AlertMessage


def test_places_are_rows_that_say_how_they_stand(bench: Bench) -> None:
    bench.open("dairy")
    page = station(bench, 5, MechanicsPage)
    part(bench, ShaftPart)
    view = page.places.view
    heard = rows(view)
    assert heard[0] == "1 Shaft: binding, hold"
    assert any(", next" in row for row in heard)
    view.setFocus()
    bench.key(Key.Key_Down)
    assert current(view) == [1]
    assert face(view).child(1).state().focused
    box = face(view).child(1).rect()
    assert view.rect().contains(view.mapFromGlobal(box.center()))


def test_ticks_are_heard_as_they_change(bench: Bench) -> None:
    bench.open("boatyard")
    station(bench, 3, InsulationPage)
    roll = part(bench, ReadyPart).roll
    first = face(roll).child(0)
    assert first.role() == Role.CheckBox
    assert (bool(first.state().checkable), bool(first.state().checked)) == (True, False)
    roll.setFocus()
    bench.key(Key.Key_Space)
    assert face(roll).child(0).state().checked
    assert current(roll) == [1]


def painted(bench: Bench) -> Iterator[tuple[str, Painted]]:
    for name in STATIONS:
        bench.window.go(name)
        bench.settle()
        for widget in bench.window.whole.findChildren(QWidget):
            if isinstance(widget, Painted) and widget.isVisible():
                yield name, widget


@pytest.mark.parametrize("job", ["theatre", "chandlery"])
def test_everything_painted_has_a_name_or_words(shared: Bench, job: str) -> None:
    shared.open(job)
    silent = [
        (name, type(widget).__name__)
        for name, widget in painted(shared)
        if not (face(widget).text(Name) or face(widget).text(More) or face(widget).childCount())
        and getattr(widget, "words", "nothing said") != ""
    ]
    assert silent == []


def test_a_list_that_is_gone_takes_its_rows_with_it(shared: Bench) -> None:
    shared.open("theatre")
    way = shared.window.way
    kept = [face(way).child(k) for k in range(3)]
    for _ in range(3):
        shared.open("bakery")
        shared.open("theatre")
        gc.collect()
    assert kept[0].text(Name).startswith("1 Intake")


def test_no_painted_list_is_heard_as_one_long_text(shared: Bench) -> None:
    """Odds, markings, readings, steps, coils, tests, lines of the gate: each is a row of its own."""
    lists: dict[str, list[str]] = {}
    for words, number, page in (
        ("theatre", 2, LeadsPage),
        ("theatre", 7, ConnectPage),
        ("theatre", 3, InsulationPage),
        ("cider", 9, ReleasePage),
    ):
        shared.open(words)
        opened = station(shared, number, page)
        for name in opened.parts if isinstance(opened, PartedPage) else ("",):
            if isinstance(opened, PartedPage):
                opened.open_part(name)
                shared.settle()
            for widget in opened.findChildren(Painted):
                if widget.isVisible() and (heard := list(widget.heard_rows())):
                    lists[type(widget).__name__] = [row.words for row in heard]
                    assert face(widget).role() == Role.List
                    assert face(widget).childCount() == len(heard)
                    assert all(widget.rect().intersects(row.box) for row in heard)
    assert {"Sheet", "Odds", "StepList", "Coils", "TestRows", "Gate"} <= lists.keys()
    assert lists["Sheet"][0] == "A to B, open"
    assert any("must read" in row for row in lists["StepList"])
    assert all(":" in row for row in lists["Gate"])
