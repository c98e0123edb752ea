"""Photographs: copied into the shop, shown large, with pins on them."""

import os.path
from collections.abc import Iterator
from pathlib import Path

from PySide6.QtCore import QPoint, QPointF, QRect, QRectF, QSize, Qt, Signal
from PySide6.QtGui import (
    QAccessible,
    QDragEnterEvent,
    QDropEvent,
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
)

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_intake import PictureAdded, PicturePin
from careful_coil.core.ledger import Judgement
from careful_coil.desk import paint
from careful_coil.desk.asking import Failed
from careful_coil.desk.field import LONG
from careful_coil.desk.heard import Row, tell
from careful_coil.desk.painted import Painted
from careful_coil.desk.part import NOT_ASKED, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.files import load_picture
from careful_coil.desk.shared.page import plain_label
from careful_coil.desk.theme import Theme
from careful_coil.records.attachments import Kept, keep, kept_file

THUMB, LARGE = QSize(160, 120), QSize(1200, 900)
STEP = 0.02


class Album(Painted):
    """A row of small pictures; the arrows walk, one is the current one."""

    chosen = Signal()

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.pictures: tuple[PictureAdded, ...] = ()
        self.images: dict[str, QImage] = {}
        self.current = 0
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Photographs")
        self.fit()

    def least_height(self) -> int:
        """Return the height of a row of small pictures."""
        return self.theme.px(100) if self.pictures else 1

    def show_pictures(self, pictures: tuple[PictureAdded, ...]) -> None:
        """Show other pictures."""
        self.pictures = pictures
        self.current = min(self.current, max(len(pictures) - 1, 0))
        self.setAccessibleDescription("; ".join(p.caption or p.name for p in pictures))
        self.fit()

    def _boxes(self) -> list[QRect]:
        wide = self.theme.px(128)
        return [QRect(k * wide, 0, wide - 8, self.height() - 2) for k in range(len(self.pictures))]

    def heard_rows(self) -> Iterator[Row]:
        """Yield each picture by its name."""
        for k, (picture, box) in enumerate(zip(self.pictures, self._boxes(), strict=True)):
            yield Row(picture.caption or picture.name, box, k == self.current)

    def go(self, k: int) -> None:
        """Make a picture the current one."""
        if 0 <= k < len(self.pictures):
            self.current = k
            self.chosen.emit()
            self.update()
            tell(self, QAccessible.Event.Focus, k)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Walk through the pictures."""
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()))
        if step is None:
            super().keyPressEvent(event)
        else:
            self.go(self.current + step)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Pick a picture."""
        for k, box in enumerate(self._boxes()):
            if box.contains(event.position().toPoint()):
                self.go(k)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the pictures with their names."""
        painter, t = QPainter(self), self.theme
        for k, (picture, box) in enumerate(zip(self.pictures, self._boxes(), strict=True)):
            image = self.images.get(picture.sha256, QImage())
            room = box.adjusted(2, 2, -2, -t.px(20))
            painter.fillRect(room, t.colour("surface"))
            if not image.isNull():
                size = image.size().scaled(room.size(), Qt.AspectRatioMode.KeepAspectRatio)
                at = QRect(QPoint(0, 0), size)
                at.moveCenter(room.center())
                painter.drawImage(at, image)
            painter.setPen(QPen(t.colour("ink" if k == self.current else "hairline"), 2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(room)
            low = QRect(box.left() + 2, room.bottom() + 1, box.width() - 4, t.px(18))
            words = picture.caption or picture.name
            paint.text(painter, t, low, words, size=13, token="quiet")


class PinBoard(Painted):
    """The current picture, large, with its pins and a cross to put the next one."""

    placed = Signal()

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.image = QImage()
        self.pins: tuple[PicturePin, ...] = ()
        self.cross = (0.5, 0.5)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Photograph with pins")
        self.fit()

    def least_height(self) -> int:
        """Return the height of a large picture, none without one."""
        return self.theme.px(330) if not self.image.isNull() else 1

    def show_picture(self, image: QImage, pins: tuple[PicturePin, ...]) -> None:
        """Show another picture."""
        self.image, self.pins = image, pins
        self.setAccessibleDescription("; ".join(p.words for p in pins))
        self.fit()

    def heard_rows(self) -> Iterator[Row]:
        """Yield the pins, each with where it is."""
        box = self.frame_box()
        for pin in self.pins:
            at = QPoint(round(pin.x * box.width()), round(pin.y * box.height()))
            where = f"{pin.x:.0%} from the left, {pin.y:.0%} from the top"
            yield Row(f"{pin.words}, {where}", QRect(at, QSize(1, 1)))

    def frame_box(self) -> QRectF:
        """Return where the picture is drawn."""
        if self.image.isNull():
            return QRectF()
        size = self.image.size().scaled(self.size(), Qt.AspectRatioMode.KeepAspectRatio)
        return QRectF(0, 0, size.width(), size.height())

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Move the cross; Enter names what is under it."""
        steps = {
            Qt.Key.Key_Left: (-STEP, 0.0),
            Qt.Key.Key_Right: (STEP, 0.0),
            Qt.Key.Key_Up: (0.0, -STEP),
            Qt.Key.Key_Down: (0.0, STEP),
        }
        step = steps.get(Qt.Key(event.key()))
        if step is not None:
            x, y = self.cross[0] + step[0], self.cross[1] + step[1]
            self.cross = (min(max(x, 0.0), 1.0), min(max(y, 0.0), 1.0))
            self.update()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.placed.emit()
        else:
            super().keyPressEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Put the cross where the pointer is and name it."""
        box = self.frame_box()
        if box.isEmpty() or not box.contains(event.position()):
            return
        self.cross = (event.position().x() / box.width(), event.position().y() / box.height())
        self.update()
        self.placed.emit()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the picture, the pins with their words, the cross."""
        painter, t, box = QPainter(self), self.theme, self.frame_box()
        if box.isEmpty():
            return
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.drawImage(box, self.image)
        for pin in self.pins:
            self._pin(painter, QPointF(pin.x * box.width(), pin.y * box.height()), pin.words, box)
        at = QPointF(self.cross[0] * box.width(), self.cross[1] * box.height())
        for colour, wide in (("surface", 4), ("ink", 2)):
            painter.setPen(QPen(t.colour(colour), wide))
            painter.drawLine(at - QPointF(12, 0), at + QPointF(12, 0))
            painter.drawLine(at - QPointF(0, 12), at + QPointF(0, 12))

    def _pin(self, painter: QPainter, at: QPointF, words: str, box: QRectF) -> None:
        t = self.theme
        painter.setPen(QPen(t.colour("surface"), 2))
        painter.setBrush(t.colour("ink"))
        painter.drawEllipse(at, 6, 6)
        wide = paint.width_of(t, words, 13, True) + 12
        left = at.x() + 10 if at.x() + 10 + wide < box.right() else at.x() - 10 - wide
        label = QRectF(left, at.y() - t.px(11), wide, t.px(22)).toRect()
        painter.fillRect(label, t.colour("surface"))
        paint.text(painter, t, label.adjusted(6, 0, 0, 0), words, size=13, bold=True)


class PicturesPart(Part):
    """The part of Intake that keeps photographs."""

    name, title = "pictures", "Pictures"
    remark = "plate, joints before anything is cut, windings"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.setAcceptDrops(True)
        self.add_field(
            "picture",
            "Photograph: its file, or drop it here",
            self._file,
            "/home/…/joints.jpg",
            clears=True,
            most=LONG,
        )
        self.note = plain_label()
        self.note.hide()
        self.album, self.board = Album(theme), PinBoard(theme)
        self.album.chosen.connect(self.again)
        self.board.placed.connect(self._name_pin)
        self.column.addWidget(self.note)
        self.column.addWidget(self.album)
        self.add_field("caption", "What it shows", self._caption, "joints as found")
        self.column.addWidget(self.board)
        self.add_field(
            "pin",
            "Pin at the cross: tag or words (arrows move the cross)",
            self._pin,
            "A",
            clears=True,
        )
        self._large: dict[str, QImage] = {}
        self._asked: set[str] = set()

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how many there are."""
        count, pins = len(judged.job.seen.pictures), len(judged.job.seen.pins)
        if not count:
            return "", NOT_ASKED
        return "good", f"{count} kept, pins on them: {pins}"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the album and the current picture."""
        pictures = judged.job.seen.pictures
        self.album.show_pictures(pictures)
        for picture in pictures:
            self._load(picture.sha256)
        has = bool(pictures)
        for part in (self.album, self.board, self.fields["caption"], self.fields["pin"]):
            part.setVisible(has)
        if not has:
            return
        current = pictures[self.album.current]
        self.fields["caption"].show_text(current.caption)
        pins = tuple(p for p in judged.job.seen.pins if p.sha256 == current.sha256)
        self.board.show_picture(self._large.get(current.sha256, QImage()), pins)

    def current(self) -> PictureAdded | None:
        """Return the picture shown large."""
        return self.album.pictures[self.album.current] if self.album.pictures else None

    def _load(self, sha256: str) -> None:
        """Decode a picture off the interface thread, once."""
        if sha256 in self._asked:
            return
        self._asked.add(sha256)
        shop = self.session.shop

        def decode() -> tuple[QImage, QImage]:
            file = kept_file(shop, sha256)
            return load_picture(file, THUMB), load_picture(file, LARGE)

        def decoded(found: tuple[QImage, QImage]) -> None:
            self.album.images[sha256], self._large[sha256] = found
            if found[0].isNull():
                self._say("A photograph of this job is not here, or is not what it was.")
            self.again()

        self.session.aside(decode, decoded)

    def _say(self, words: str) -> None:
        self.note.setText(words)
        self.note.setVisible(bool(words))

    def _file(self, text: str) -> None:
        if not text:
            return
        file = os.path.expanduser(text.removeprefix("file://"))
        if not os.path.isfile(file):  # unlike Path's own, it refuses no text
            raise BadValue(text, "the path of a photograph, PNG or JPEG")
        self._say("")
        add_picture(self.session, Path(file), self._say)

    def _caption(self, text: str) -> None:
        current = self.current()
        if current is not None:
            self.session.record(current.model_copy(update={"caption": text}), station="intake")

    def _name_pin(self) -> None:
        self.fields["pin"].cell.setFocus(Qt.FocusReason.OtherFocusReason)

    def _pin(self, text: str) -> None:
        current = self.current()
        if current is None or not text:
            return
        x, y = self.board.cross
        body = PicturePin(sha256=current.sha256, x=x, y=y, words=text)
        self.session.record(body, station="intake")

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        """Take files."""
        if event.mimeData().hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        """Keep each photograph dropped."""
        self._say("")
        for url in event.mimeData().urls():
            if url.isLocalFile():
                add_picture(self.session, Path(url.toLocalFile()), self._say)
        event.acceptProposedAction()


def add_picture(session: Session, file: Path, failed: Failed | None = None) -> None:
    """Copy a photograph into the shop and record it with the job that is open now."""
    job = session.open

    def kept(k: Kept) -> None:
        body = PictureAdded(name=k.name, sha256=k.sha256)
        session.record(body, station="intake", failed=failed, into=job)

    session.aside(lambda: keep(session.shop, file), kept, failed)
