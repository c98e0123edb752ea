"""What keeps the window quick: one entry moves one tag, what is out of sight is not dressed, one job comes first."""

import random
import shutil
from datetime import UTC, datetime
from pathlib import Path

import pytest
from PySide6.QtCore import QCoreApplication, QModelIndex
from PySide6.QtTest import QAbstractItemModelTester, QSignalSpy, QTest
from pytestqt.qtbot import QtBot

from careful_coil.core import ledger
from careful_coil.core.job.noted import note
from careful_coil.demo import JOBS
from careful_coil.desk import rack
from careful_coil.desk.rack import RackModel
from careful_coil.desk.shots import settle
from careful_coil.desk.start import application, build
from careful_coil.desk.window import Window
from careful_coil.records.summary import UNJUDGED, Summary
from tests.desk.driver import Bench, Key

MARKS = ("hold", "watch", "good", "")


def summary(number: int, mark: str, name: str, seq: int = 1) -> Summary:
    """Return a job on the rack."""
    return Summary(
        id=f"j{number}",
        number=number,
        name=name,
        state=mark,
        pips=(),
        mark=mark,
        search=f"{number} {name}",
        gone=mark == "" and number % 3 == 0,
        seq=seq,
    )


@pytest.mark.parametrize("words", ["", "fan", "pump 1"])
def test_the_rack_is_in_order_whatever_changes_and_gives_its_view_a_page_at_a_time(
    shared: Bench, words: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Qt's own tester watches that rows come and go as they are said to."""
    monkeypatch.setattr(rack, "PAGE", 20)
    rng, model = random.Random(5), RackModel()
    tester = QAbstractItemModelTester(
        model, QAbstractItemModelTester.FailureReportingMode.Fatal, shared.window
    )
    tester.setUseFetchMore(False)  # it would fetch while it is told of a reset
    name = {k: rng.choice(("fan", "pump")) for k in range(90)}
    every = {k: summary(k, rng.choice(MARKS), name[k]) for k in range(60)}
    model.show_all(sorted(every.values(), key=lambda s: s.urgency))
    model.search(words)
    resets = QSignalSpy(model.modelReset)
    for turn in range(120):
        k = rng.randrange(90)
        old, now = every.get(k), summary(k, rng.choice(MARKS), name[k], turn)
        every[k] = now
        model.rank(old, now)
        if turn % 40 == 0 and model.canFetchMore(QModelIndex()):
            model.fetchMore(QModelIndex())
    wanted = [s for s in every.values() if all(w in s.search for w in words.split())]
    assert model.shown == sorted(wanted, key=lambda s: s.urgency)
    assert min(20, len(wanted)) <= model.rowCount() <= len(wanted)
    assert resets.count() == 0
    assert tester.model() is model


def test_an_entry_leaves_the_other_tags_alone(bench: Bench) -> None:
    model = bench.window.rack.model
    bench.open("bakery")
    bench.ctrl(Key.Key_1)
    resets, changed = QSignalSpy(model.modelReset), QSignalSpy(model.dataChanged)
    bench.field("name").cell.setFocus()
    bench.enter("Bakery, the other mixer")
    assert "the other mixer" in " ".join(s.name for s in model.shown)
    assert (resets.count(), changed.count()) == (0, 1)


def test_a_page_out_of_sight_takes_the_theme_when_it_comes_into_sight(bench: Bench) -> None:
    window = bench.window
    bench.ctrl(Key.Key_5)
    bench.ctrl(Key.Key_1)
    bench.ctrl(Key.Key_D)
    dim = window.theme
    assert window.pages["intake"].theme == dim
    assert window.pages["mechanics"].theme == dim.other()
    bench.ctrl(Key.Key_5)
    assert window.pages["mechanics"].theme == dim
    page = window.pages["mechanics"]
    assert dim.colour("ink").name() in page.in_sight()[-1].styleSheet()
    bench.key(Key.Key_PageDown)  # a part that was not in sight either
    assert dim.colour("ink").name() in page.in_sight()[-1].styleSheet()


def test_a_fresh_demo_shows_its_first_job_and_judges_the_rest_behind(tmp_path: Path) -> None:
    application()
    window = build(tmp_path / "shop", True, lambda: datetime(2026, 3, 4, 9, tzinfo=UTC))
    session = window.session
    seen: list[list[str]] = []
    session.job_opened.connect(lambda: seen.append([s.state for s in session.summaries]))
    window.show()
    settle(window, lambda: session.open is not None and len(session.summaries) > 1)
    assert len([s for s in seen[0] if s != UNJUDGED]) == 1  # its own: no other is judged yet
    assert len(seen) == 1
    assert session.open is not None
    assert session.open.id == "demo-bakery"
    assert UNJUDGED not in [s.state for s in session.summaries]
    assert len(session.summaries) == len(JOBS)
    assert [s.urgency for s in session.summaries] == sorted(s.urgency for s in session.summaries)
    window.close()


def test_a_value_on_its_way_brings_no_motor_back_over_the_one_that_was_opened_since(
    bench: Bench,
) -> None:
    session = bench.window.session
    here, there = (s.id for s in session.summaries[:2])
    assert bench.job.id == here
    session.open_job(there)
    session.record(note("ticket", "complaint", "hums"), station="intake")  # of the one still shown
    bench.settle()
    assert bench.job.id == there
    bench.open(str(session.summaries[0].number))
    assert bench.judged.job.ticket["complaint"] == "hums"


def first_shown(folder: Path, template: Path) -> Window:
    """Return a window on a demo shop, just when its first job is read and not judged yet."""
    shutil.copytree(template, folder)
    application()
    window = build(folder, True, lambda: datetime(2026, 3, 4, 9, tzinfo=UTC))
    window.show()
    for _ in range(2000):
        QCoreApplication.processEvents()
        if window.session.summaries:
            return window
        QTest.qWait(1)
    raise AssertionError("nothing is seen of the shop")


def test_the_records_open_though_another_motor_is_opened_before_the_first_is_shown(
    tmp_path: Path, template: Path
) -> None:
    window = first_shown(tmp_path / "shop", template)
    session = window.session
    other = session.summaries[3].id
    session.open_job(other)
    settle(window, lambda: session.open is not None)
    assert session.open is not None
    assert session.open.id == other
    session.record(note("ticket", "complaint", "hums"), station="intake")
    settle(window, lambda: session.flying == 0)
    assert session.open.judged.job.ticket["complaint"] == "hums"
    window.close()


def test_the_records_open_though_the_first_motor_cannot_be_judged(
    tmp_path: Path, template: Path, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    def broken(*_: object) -> None:
        raise ArithmeticError("of a rule")

    monkeypatch.setattr(ledger, "judge", broken)
    with qtbot.captureExceptions() as caught:
        window = first_shown(tmp_path / "shop", template)
        settle(window, lambda: len(window.session.summaries) == len(JOBS))
    assert [kind for kind, _, _ in caught] == [ArithmeticError]
    monkeypatch.undo()
    window.session.open_job(window.session.summaries[1].id)
    settle(window, lambda: window.session.open is not None)
    window.close()
