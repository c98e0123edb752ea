"""The first minute: a shop that holds no motor asks one question."""

from PySide6.QtCore import QPointF, QRect, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPen, QPolygonF
from PySide6.QtWidgets import QVBoxLayout, QWidget

from careful_coil.desk import paint
from careful_coil.desk.roll import Roll
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme

LEADS, MOTOR, DEMO = "leads", "motor", "demo"
OFFERS = (
    (
        LEADS,
        "Just these leads",
        "Tell me what these wires are: how many are there?",
        "three keys to the first reading; nothing else is asked",
    ),
    (
        MOTOR,
        "A motor to repair",
        "Name, plate, complaint; a number and two stubs for it",
        "from the counter to the signature",
    ),
    (
        DEMO,
        "The demo shop",
        "Invented motors, a simulated meter",
        "a window of its own, a copy; nothing you do there is kept",
    ),
)
HIGH, GAP = 108, 20
WIDEST = 760
HELP = (
    "Ctrl+/ shows every key, F1 the handbook, Ctrl+K finds a motor or a bench sum. "
    "What your meter shows is typed as you read it."
)


class Offers(Roll):
    """Three tags; a digit, Enter or a click takes one."""

    taken = Signal(str)

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme, "What is on the bench?")
        self.setMaximumWidth(theme.px(WIDEST))
        self.retell()

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self.setMaximumWidth(theme.px(WIDEST))
        super().set_theme(theme)

    def count(self) -> int:
        """Return how many there are."""
        return len(OFFERS)

    def row_height(self, k: int) -> int:
        """Return a tag's height with the gap below it."""
        return self.theme.px(HIGH + GAP)

    def row_words(self, k: int) -> str:
        """Return a tag in words."""
        _, title, words, more = OFFERS[k]
        return f"{k + 1} {title}: {words} {more}"

    def pressed(self, key: str) -> bool:
        """Take the tag of a digit."""
        if key.isascii() and key.isdecimal() and 0 < int(key) <= len(OFFERS):
            self.go(int(key) - 1)
            self.taken.emit(OFFERS[int(key) - 1][0])
            return True
        return False

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Take the current one with Enter."""
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.taken.emit(OFFERS[self.current][0])
        else:
            super().keyPressEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Take the one under the pointer."""
        super().mousePressEvent(event)
        self.taken.emit(OFFERS[self.current][0])

    def paintEvent(self, event: object) -> None:
        """Draw each as a shop tag; the current one's edge is what to do now."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for k, box in enumerate(self.boxes()):
            self.paint_row(painter, k, box)

    def paint_row(self, painter: QPainter, k: int, box: QRect) -> None:
        """Draw a tag: its hole, its words, the digit that takes it."""
        t, here = self.theme, k == self.current
        tag = box.adjusted(2, 2, -2, -t.px(GAP))
        cut, x, y = t.px(32), tag.left(), tag.top()
        corners = [
            QPointF(x + cut, y),
            QPointF(tag.right(), y),
            QPointF(tag.right(), tag.bottom()),
            QPointF(x + cut, tag.bottom()),
            QPointF(x, tag.bottom() - cut * 0.75),
            QPointF(x, y + cut * 0.75),
        ]
        painter.setBrush(t.colour("surface"))
        painter.setPen(QPen(t.colour("copper" if here else "note"), 3 if here else 1))
        painter.drawPolygon(QPolygonF(corners))
        painter.setPen(QPen(t.colour("quiet"), 1.4))
        painter.setBrush(t.colour("ground"))
        painter.drawEllipse(QPointF(x + t.px(24), tag.center().y()), t.px(6), t.px(6))
        _, title, words, more = OFFERS[k]
        left, wide = x + t.px(50), tag.width() - t.px(130)
        for top, high, size, bold, token, said in (
            (10, 36, 26, True, "ink", title),
            (48, 24, 15, False, "ink", words),
            (72, 22, 13, False, "quiet", more),
        ):
            at = QRect(left, y + t.px(top), wide, t.px(high))
            paint.text(painter, t, at, said, size=size, bold=bold, token=token)
        key = QRect(tag.right() - t.px(66), tag.center().y() - t.px(22), t.px(44), t.px(44))
        painter.setPen(QPen(t.colour("ink"), 2))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRoundedRect(key, 5, 5)
        paint.text(painter, t, key, str(k + 1), size=20, bold=True, align=0)


class First(QWidget):
    """The question with its answers."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self.heading = Heading("A new shop", theme, "nothing in it yet")
        self.question = Prose(theme, size=30)
        self.question.say("What is on the bench?")
        self.offers = Offers(theme)
        self.help = Prose(theme, "quiet", 13)
        self.help.say(HELP)
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 12, 20, 12)
        column.setSpacing(theme.px(18))
        for part in (self.heading, self.question, self.offers, self.help):
            column.addWidget(part)
        column.addStretch()

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self.theme = theme
        for part in (self.heading, self.question, self.offers, self.help):
            part.set_theme(theme)
