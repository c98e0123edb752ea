"""Two windows on one shop, by keys: what one records the other shows; a signature waits; a lock loses nothing."""

import sqlite3
from collections.abc import Iterator
from pathlib import Path

import pytest

from careful_coil.core.job.at_release import LetGo
from careful_coil.core.job.noted import note
from careful_coil.desk.keeping import change_settings
from careful_coil.records.folder import DATABASE
from careful_coil.records.store import Store
from tests.desk.driver import Bench, Key

MOTOR = "bakery"


@pytest.fixture
def pair(tmp_path: Path, template: Path) -> Iterator[tuple[Bench, Bench]]:
    """Return two windows on a copy of the demo shop."""
    a = Bench(tmp_path / "shop", template=template)
    b = Bench(tmp_path / "shop", demo=False)
    for bench in (a, b):
        bench.window.session.beside.look_around()
        bench.window.activateWindow()
        bench.settle(bench.window.isActiveWindow)
        bench.open(MOTOR)
    yield a, b
    for bench in (a, b):
        bench.close()


def look(bench: Bench) -> None:
    bench.window.session.beside.look_around()
    bench.settle()


def record(bench: Bench, who: str, text: str) -> None:
    bench.window.session.who = who
    bench.window.session.record(note("felt", "feel", text), station="mechanics")
    bench.settle()


def test_what_one_window_records_the_other_shows(pair: tuple[Bench, Bench]) -> None:
    a, b = pair
    record(b, "CD", "seized")
    assert not any("seized" in row for row in a.ledger())
    look(a)
    assert any("seized" in row.lower() for row in a.ledger())
    assert "CD recorded 1 more" in a.message
    assert a.job.entries == b.job.entries


def test_nothing_is_signed_over_a_hold_that_was_not_seen(pair: tuple[Bench, Bench]) -> None:
    a, b = pair
    record(b, "CD", "seized")
    before = len(a.job.entries)
    session = a.window.session
    session.record(note("felt", "fan", "good"), station="mechanics")  # an ordinary value goes in
    a.settle()
    assert len(a.job.entries) == before + 2
    record(b, "CD", "rubbing")
    session.record(LetGo(how="unrepaired", reason="too dear"), station="release")
    a.settle()
    assert "look at it, then sign" in a.message
    assert a.job.judged.job.let_go is None
    assert any("rubbing" in row.lower() for row in a.ledger())


def test_undo_takes_back_ones_own(pair: tuple[Bench, Bench]) -> None:
    a, b = pair
    record(a, "AB", "rough")
    mine = a.job.entries[-1].id
    look(b)
    record(b, "CD", "seized")
    look(a)
    a.window.session.strike_last()  # the other window has the keys
    a.settle()
    assert a.job.judged.job.struck == {mine}
    assert any("seized" in row.lower() for row in a.ledger())


def test_settings_of_another_window_are_taken_over(pair: tuple[Bench, Bench]) -> None:
    a, b = pair
    change_settings(b.window.session, {"insulation_minimum": 77})
    b.settle()
    look(a)
    assert a.window.session.settings.insulation_minimum.value == 77
    assert "changed the shop's settings" in a.message


def impatient(store: Store) -> None:
    """Give up on a lock at once: the ten seconds are the same with less waiting."""
    raw = store._engine.raw_connection()
    raw.cursor().execute("PRAGMA busy_timeout=50")
    raw.close()


def test_a_value_that_is_not_kept_stands_at_its_field_and_holds_the_window_open(
    pair: tuple[Bench, Bench], tmp_path: Path
) -> None:
    a, _ = pair
    a.ctrl(Key.Key_1)
    field = a.field("customer")
    lock = sqlite3.connect(tmp_path / "shop" / DATABASE, isolation_level=None)
    a.window.session.ask(impatient, lambda _: None)
    a.settle()
    lock.execute("BEGIN IMMEDIATE")
    field.cell.setFocus()
    field.cell.setText("Mill below")
    field.cell.setModified(True)
    field.finish()
    assert a.window.close() is False  # it is on its way
    a.settle()
    assert a.window.isVisible()
    assert "Not recorded" in field.message.text()
    assert field.cell.text() == "Mill below"
    lock.execute("ROLLBACK")
    lock.close()
    field.finish()
    a.settle()
    assert a.job.judged.job.ticket["customer"] == "Mill below"
    assert not field.message.isVisible()
