"""The line that is typed into, and the cell of a field: choices below it, Escape for what stood there."""

from collections.abc import Sequence
from functools import partial

from PySide6.QtCore import QEvent, QPoint, QPointF, Qt, Signal
from PySide6.QtGui import (
    QAction,
    QColor,
    QIcon,
    QKeyEvent,
    QPainter,
    QPixmap,
    QPolygonF,
    QResizeEvent,
)
from PySide6.QtWidgets import QLineEdit, QMenu

from careful_coil.desk.listing import ENTER
from careful_coil.desk.tongue import tr

SKIP = "+"
TEN = 10  # choices have a digit below it
MARGINS = 24  # pixels beside the text in a cell
ARROW = 26  # pixels of the arrow that opens the choices


class Line(QLineEdit):
    """A line edit that undoes typing only while something is typed; else Ctrl+Z strikes."""

    def event(self, event: QEvent) -> bool:
        """Leave undo and redo to the window when there is no typing to undo."""
        if event.type() == QEvent.Type.ShortcutOverride and isinstance(event, QKeyEvent):
            typing = self.isModified() and bool(self.text())
            if event.key() == Qt.Key.Key_Z and not typing:
                event.ignore()
                return False
        return super().event(event)


def down_icon(colour: QColor) -> QIcon:
    """Return a small triangle in a colour."""
    side = 24
    picture = QPixmap(side, side)
    picture.fill(Qt.GlobalColor.transparent)
    painter = QPainter(picture)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(colour)
    painter.drawPolygon(QPolygonF([QPointF(5, 9), QPointF(19, 9), QPointF(12, 17)]))
    painter.end()
    return QIcon(picture)


class Cell(Line):
    """A cell whose Escape gives back what was there. Where it has `choices`, Down or its arrow opens them."""

    chosen = Signal(str)
    cancelled = Signal()
    skipped = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.stood = ""
        self.hint = ""
        self.choices: tuple[str, ...] = ()
        self.skips = False  # whether + in it empty is for Next
        self.menu: QMenu | None = None
        self._arrow: QAction | None = None
        self._colour = QColor()

    def offer(self, choices: Sequence[str]) -> None:
        """Offer these words; none: it is only typed."""
        self.choices = tuple(choices)
        if choices and self._arrow is None:
            self._arrow = QAction("Choices (Down)", self)
            self._arrow.triggered.connect(self.open_choices)
            self.addAction(self._arrow, QLineEdit.ActionPosition.TrailingPosition)
        if self._arrow is not None:
            self._arrow.setIcon(down_icon(self._colour))
            self._arrow.setVisible(bool(choices))

    def set_colour(self, colour: QColor) -> None:
        """Draw the arrow in a colour."""
        self._colour = colour
        self.offer(self.choices)

    def open_choices(self) -> None:
        """Open the list under the cell: arrows and Enter, the number, or the pointer pick one."""
        if self.menu is not None:
            self.menu.deleteLater()
        self.menu = QMenu(self)
        for k, word in enumerate(self.choices, 1):
            number = f"&{k} " if k < TEN else ""
            one = self.menu.addAction(f"{number}{word}")
            one.setCheckable(True)
            one.setChecked(word == self.stood)
            one.triggered.connect(partial(self.chosen.emit, word))
        self.menu.popup(self.mapToGlobal(QPoint(0, self.height())))

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Show the choices or the example, the whole of it where there is room."""
        super().resizeEvent(event)
        words = ", ".join(self.choices) if self.choices else f"for example {self.hint}"
        several = len(self.choices) != 1  # a lone answer would look like one given
        room = self.width() - MARGINS - (ARROW if self.choices else 0)
        fits = several and self.fontMetrics().horizontalAdvance(words) < room
        short = f"e.g. {self.hint}" if self.hint else ""  # a bare one would look like one given
        if self.choices:
            short = "choose" if self.fontMetrics().horizontalAdvance("choose") < room else ""
        self.setPlaceholderText(tr(words if fits and (self.hint or self.choices) else short))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Escape cancels typing; Down opens the choices."""
        if event.key() == Qt.Key.Key_Escape:
            self.setText(self.stood)
            self.setModified(False)
            self.cancelled.emit()
            return
        if event.key() == Qt.Key.Key_Down and self.choices:
            self.open_choices()
            return
        if event.text() == SKIP and self.skips and not self.text():
            self.skipped.emit()
            return
        super().keyPressEvent(event)
        if event.key() in ENTER:
            event.accept()  # Qt hands Enter on to what is behind a line
