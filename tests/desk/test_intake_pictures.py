"""Intake by keys: photographs with pins, the replacement card."""

import hashlib
import threading
from pathlib import Path

import pytest
from PySide6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PySide6.QtGui import QColor, QDropEvent, QImage
from PySide6.QtTest import QTest

from careful_coil.core.condition.answered import read_symptoms
from careful_coil.core.errors import BadValue
from careful_coil.desk.intake.pictures import PicturesPart, add_picture
from careful_coil.desk.intake.replacement import ReplacementPart, read_card
from tests.desk.driver import Bench, Key
from tests.desk.test_intake import part, put


def photograph(folder: Path, name: str = "box.png") -> Path:
    image = QImage(80, 60, QImage.Format.Format_RGB32)
    image.fill(QColor("#446688"))
    file = folder / name
    assert image.save(str(file))
    return file


def test_a_photograph_is_kept_and_pinned_by_keys(bench: Bench, tmp_path: Path) -> None:
    bench.open("bakery")
    found = part(bench, PicturesPart)
    file = photograph(tmp_path)
    put(bench, "picture", str(file))
    (kept,) = bench.judged.job.seen.pictures
    assert kept.sha256 == hashlib.sha256(file.read_bytes()).hexdigest()
    assert not found.board.image.isNull()
    put(bench, "caption", "joints")
    assert bench.judged.job.seen.pictures[0].caption == "joints"
    found.board.setFocus()
    for key in (Key.Key_Right, Key.Key_Right, Key.Key_Up):
        bench.key(key)
    bench.key(Key.Key_Return)
    assert bench.focus is bench.field("pin").cell
    bench.enter("A cut")
    (pin,) = bench.judged.job.seen.pins
    assert (pin.x, pin.y, pin.words) == (pytest.approx(0.54), pytest.approx(0.48), "A cut")
    box = found.board.frame_box()
    bench.click(found.board, QPoint(round(box.width() / 4), round(box.height() / 4)))
    bench.enter("B")
    assert bench.judged.job.seen.pins[1].x == pytest.approx(0.25, abs=0.01)
    assert found.told(bench.judged) == ("good", "1 kept, pins on them: 2")


def test_what_is_no_photograph_is_refused(bench: Bench, tmp_path: Path) -> None:
    bench.open("bakery")
    found = part(bench, PicturesPart)
    put(bench, "picture", str(tmp_path / "none.png"))
    assert "PNG or JPEG" in bench.field("picture").message.text()
    words = tmp_path / "words.png"
    words.write_text("not a picture", encoding="utf-8")
    put(bench, "picture", str(words))
    assert "is no picture" in found.note.text()
    assert bench.judged.job.seen.pictures == ()


def test_photographs_can_be_dropped(bench: Bench, tmp_path: Path) -> None:
    bench.open("bakery")
    found = part(bench, PicturesPart)
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(photograph(tmp_path)))])
    event = QDropEvent(
        QPointF(5, 5),
        Qt.DropAction.CopyAction,
        data,
        Qt.MouseButton.LeftButton,
        Qt.KeyboardModifier.NoModifier,
    )
    found.dropEvent(event)
    bench.settle()
    assert len(bench.judged.job.seen.pictures) == 1


def test_a_photograph_stays_with_the_job_it_was_given_to(bench: Bench, tmp_path: Path) -> None:
    bench.open("bakery")
    part(bench, PicturesPart)
    bakery = bench.job.id
    session = bench.window.session
    released = threading.Event()
    session.aside(lambda: released.wait(20), lambda _: None)  # the copy waits behind this
    add_picture(session, photograph(tmp_path))
    session.open_job("demo-school")
    for _ in range(2000):
        QTest.qWait(2)
        if bench.job.id == "demo-school":
            break
    released.set()
    bench.settle()
    assert bench.job.id == "demo-school"
    assert bench.judged.job.seen.pictures == ()
    session.open_job(bakery)
    bench.settle(lambda: bench.job.id == bakery)
    assert len(bench.judged.job.seen.pictures) == 1


def test_a_photograph_that_is_lost_is_said(bench: Bench) -> None:
    bench.open("theatre")
    found = part(bench, PicturesPart)
    bench.settle(lambda: bool(found.album.images))
    assert not found.board.image.isNull()
    for file in (bench.window.session.shop / "attachments").iterdir():
        file.unlink()
    found._asked.clear()
    found.show_judgement(bench.judged)
    bench.settle()
    assert "is not here" in found.note.text()


def test_another_plate_is_compared_point_by_point(bench: Bench) -> None:
    bench.open("bakery")
    found = part(bench, ReplacementPart)
    put(bench, "card-wanted", "shaft 19x40; frame 80")
    put(bench, "card-offered", "1~ 230 V 50 Hz 0.5 kW 1420 r/min; shaft 19x40; frame 80")
    assert "does not serve: power" in found.answer.text()
    put(bench, "card-offered", "0.75 kW")
    power = next(x for x in found.card.lines if x.title == "Power")
    assert power.answer == "good"
    put(bench, "card-offered", "lorem")
    assert "a plate, or one of" in bench.field("card-offered").message.text()


def test_card_lines_are_read() -> None:
    assert read_card("kind Capacitor start; plug none") == {
        "kind": "capacitor-start",
        "plug": "none",
    }
    with pytest.raises(BadValue, match="shaded-pole"):
        read_card("kind steam")
    with pytest.raises(BadValue, match="trips-later"):
        read_symptoms("trips")
