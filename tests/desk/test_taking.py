"""Drawings and lists in sight, taken along by a key; a job chosen from a dialog that remembers its folder."""

import csv
from pathlib import Path
from xml.etree import ElementTree

import pytest
from PySide6.QtGui import QImage
from PySide6.QtWidgets import QFileDialog

from careful_coil.desk.driven import CTRL, SHIFT
from careful_coil.desk.due import FILE, NOTHING_DUE, write_calendar
from careful_coil.desk.intake.counter import CounterPart
from careful_coil.desk.mechanics.felt import ShaftPart
from careful_coil.desk.release.papers import PapersPart
from careful_coil.desk.stations.intake import IntakePage
from careful_coil.desk.stations.mechanics import MechanicsPage
from careful_coil.desk.stations.release import ReleasePage
from careful_coil.desk.taking import choose_file
from tests.desk.driver import Bench, Key
from tests.desk.hands import part, station


def test_the_drawing_in_sight_is_saved_as_it_is_seen(bench: Bench) -> None:
    bench.open("dairy")
    station(bench, 5, MechanicsPage)
    part(bench, ShaftPart)
    bench.key(Key.Key_S, CTRL | SHIFT)
    bench.settle(lambda: bench.message.startswith("Written"))
    folder = bench.window.session.shop / "drawings"
    (svg,) = folder.glob("*.svg")
    words = [
        t.text for t in ElementTree.parse(svg).getroot().iter("{http://www.w3.org/2000/svg}text")
    ]
    assert "1 Shaft: binding" in words
    (png,) = folder.glob("*.png")
    assert QImage(str(png)).width() > 300


def test_lists_in_sight_are_saved_with_the_current_row(bench: Bench) -> None:
    bench.open("dairy")
    station(bench, 5, MechanicsPage)
    part(bench, ShaftPart)
    bench.key(Key.Key_L, CTRL | SHIFT)
    bench.settle(lambda: bench.message.startswith("Written"))
    files = sorted((bench.window.session.shop / "lists").glob("*.csv"))
    told = [list(csv.DictReader(f.read_text(encoding="utf-8").splitlines())) for f in files]
    places = next(rows for rows in told if any("Shaft: binding" in r["words"] for r in rows))
    assert [r["current"] for r in places].count("yes") == 1


def test_where_nothing_is_drawn_it_is_said(shared: Bench) -> None:
    shared.open("dairy")
    station(shared, 9, ReleasePage)
    part(shared, PapersPart)
    shared.key(Key.Key_S, CTRL | SHIFT)
    assert shared.message == "No drawing is in sight here."
    assert not (shared.window.session.shop / "drawings").exists()


def test_a_job_is_chosen_and_the_folder_remembered(
    shared: Bench, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    asked: list[str] = []
    taken: list[str] = []

    def dialog(_: object, __: str, start: str, ___: str) -> tuple[str, str]:
        asked.append(start)
        return str(tmp_path / "a.ccjob"), ""

    monkeypatch.setattr(QFileDialog, "getOpenFileName", dialog)
    for _ in range(2):
        choose_file(shared.window, taken.append)
    assert asked[1] == str(tmp_path)
    assert taken == [str(tmp_path / "a.ccjob")] * 2


def test_promises_and_waits_of_all_motors_here_are_written_as_a_calendar(bench: Bench) -> None:
    session = bench.window.session
    write_calendar(session, bench.window.wrote)
    bench.settle(lambda: bench.message == NOTHING_DUE)
    for words, day in (("bakery", "2026-03-12"), ("theatre", "9.3.2026")):
        bench.open(words)
        station(bench, 1, IntakePage)
        part(bench, CounterPart)
        field = bench.field("promised")
        field.take_cursor()
        bench.type(day)
        bench.key(Key.Key_Return)
        bench.settle()
    write_calendar(session, bench.window.wrote)
    bench.settle(lambda: bench.message.startswith("Written"))
    text = (session.shop / "sheets" / FILE).read_text(encoding="utf-8")
    assert text.index("20260309") < text.index("20260312")
    assert "Theatre" in text
    assert "Bakery" in text
    assert any("Promised for 2026-03-09" in line for line in bench.ledger())
