"""A bench sum over the bench: inputs, the result as you type, formula, range, source."""

from functools import partial

from PySide6.QtCore import QMargins, QRect, Qt, Signal
from PySide6.QtGui import QKeyEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import (
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from careful_coil.core.errors import CoilError
from careful_coil.core.job.entries import SumWorked
from careful_coil.core.sums import SUMS, Answer, work_out
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.cell import Line
from careful_coil.desk.label import Label
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading, plain_label
from careful_coil.desk.theme import Theme

COLUMNS, WIDEST = 2, 620
MANY, MANY_COLUMNS, MANY_WIDEST = 6, 4, 940  # more inputs than that stand four in a row


def sum_fits(text: str) -> list[str]:
    """Return the sums whose name or title a search text begins or stands in."""
    wanted = text.strip().lower()
    if not wanted:
        return []
    return [
        n for n, s in SUMS.items() if n.startswith(wanted) or wanted in s.title.lower().split(" ")
    ]


class SumCard(QWidget):
    """The card; Escape closes it."""

    closed = Signal()

    def __init__(self, parent: QWidget, session: Session, theme: Theme) -> None:
        super().__init__(parent)
        self._session, self.theme = session, theme
        self.name = ""
        self.answer: Answer | None = None
        self.cells: dict[str, Line] = {}
        self.heading = Heading("", theme)
        self._grid_box = QWidget()
        self._grid = QGridLayout(self._grid_box)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setHorizontalSpacing(14)
        self.result, self.remarks, self.about = plain_label(), plain_label(), plain_label()
        self.log = EnterButton("Into the job's log")
        self.log.clicked.connect(self._log)
        self.shut = EnterButton("Close, Escape")
        self.shut.clicked.connect(self.fold)
        keys = QHBoxLayout()
        for button in (self.log, self.shut):
            keys.addWidget(button)
        keys.addStretch()
        self._body = QWidget()
        inner = QVBoxLayout(self._body)
        inner.setContentsMargins(0, 0, 8, 0)
        inner.setSpacing(12)
        for part in (self.heading, self._grid_box, self.about):
            inner.addWidget(part)
        inner.addStretch()
        self._scroll = QScrollArea()
        self._scroll.setWidgetResizable(True)
        self._scroll.setFrameShape(QFrame.Shape.NoFrame)
        self._scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._scroll.setWidget(self._body)
        column = QVBoxLayout(self)
        column.setContentsMargins(24, 20, 16, 20)
        column.setSpacing(12)
        foot = QVBoxLayout()
        foot.setSpacing(12)
        foot.addWidget(self.result)  # always in sight, whatever the text size
        foot.addWidget(self.remarks)
        foot.addLayout(keys)
        column.addWidget(self._scroll, 1)
        column.addLayout(foot)
        self._foot = foot
        self.hide()

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self.theme = theme
        self.setStyleSheet(theme.sheet())
        self.heading.set_theme(theme)
        quiet = theme.colour("quiet").name()
        self.result.setStyleSheet(f"font-size: {theme.px(20)}px; font-weight: bold;")
        self.about.setStyleSheet(f"color: {quiet}; font-size: {theme.px(13)}px;")
        ground = theme.colour("surface").name()
        self._scroll.viewport().setStyleSheet(f"background: {ground};")
        self._body.setStyleSheet(f"QWidget#body {{ background: {ground}; }}")
        self.update()

    def unfold(self, name: str, room: QRect) -> None:
        """Show a sum over the bench, its inputs empty."""
        self.name = name
        chosen = SUMS[name]
        self.heading.say(chosen.title, name)
        while (item := self._grid.takeAt(0)) is not None:
            widget = item.widget()
            if widget is not None:
                widget.deleteLater()
        self.cells = {}
        many = len(chosen.inputs) > MANY
        columns, widest = (MANY_COLUMNS, MANY_WIDEST) if many else (COLUMNS, WIDEST)
        for k, one in enumerate(chosen.inputs):
            label = Label(f"{one.title}{f', {one.unit}' if one.unit else ''}")
            cell = Line()
            cell.setAccessibleName(one.title)
            cell.setPlaceholderText(one.usual or " or ".join(one.choices))
            cell.textChanged.connect(self._work)
            cell.returnPressed.connect(partial(self._onward, k))
            row, place = 2 * (k // columns), k % columns
            self._grid.addWidget(label, row, place)
            self._grid.addWidget(cell, row + 1, place)
            self.cells[one.key] = cell
        self.about.setText(f"{chosen.formula}\nRange: {chosen.domain}.\nSource: {chosen.source}")
        self.set_theme(self.theme)
        self._work()
        wide = min(self.theme.px(widest), room.width())
        self.setFixedWidth(wide)
        high = min(self.layout_height(), room.height())
        self.setGeometry(QRect(room.center().x() - wide // 2, room.top(), wide, high))
        self.show()
        self.raise_()
        next(iter(self.cells.values())).setFocus(Qt.FocusReason.OtherFocusReason)

    def layout_height(self) -> int:
        """Return the height that shows all of it, with room for a message of some lines."""
        around = self.layout().contentsMargins() if self.layout() else QMargins()
        wide = self.width() - around.left() - around.right()
        body = max(self._body.sizeHint().height(), self._body.heightForWidth(wide))
        foot = self._foot.sizeHint().height() + 12
        return body + foot + around.top() + around.bottom() + self.theme.px(60)

    def fold(self) -> None:
        """Close it."""
        self.hide()
        self.closed.emit()

    def _texts(self) -> dict[str, str]:
        return {k: c.text().strip() for k, c in self.cells.items() if c.text().strip()}

    def _work(self) -> None:
        typed = self._texts()
        texts = {k: typed.get(k, "") for k in self.cells}
        self.answer, remarks = None, ""
        if all(texts[i.key] for i in SUMS[self.name].inputs if not (i.usual or i.optional)) and any(
            texts.values()
        ):
            try:
                self.answer = work_out(self.name, typed)
                lines = self.answer.lines()
                told = len(self.answer.results)
                words, remarks = "\n".join(lines[:told]), "\n".join(lines[told:])
            except CoilError as error:
                words = str(error)
        else:
            words = "Fill in all of them: the result comes as you type."
        self.result.setText(words)
        self.remarks.setText(remarks)
        self.remarks.setVisible(bool(remarks))
        self.log.setEnabled(self.answer is not None and self._session.open is not None)

    def focusNextPrevChild(self, forward: bool) -> bool:
        """Go on by Tab, what it comes to in sight."""
        moved = super().focusNextPrevChild(forward)
        self._in_sight()
        return moved

    def _in_sight(self) -> None:
        here = self.focusWidget()
        if here is not None and self._body.isAncestorOf(here):
            self._scroll.ensureWidgetVisible(here)

    def _onward(self, number: int) -> None:
        cells = list(self.cells.values())
        after = cells[number + 1] if number + 1 < len(cells) else self.log
        after.setFocus(Qt.FocusReason.TabFocusReason)
        self._in_sight()

    def _log(self) -> None:
        if self.answer is None:
            return
        words = "; ".join(self.answer.lines())
        self._session.record(SumWorked(name=self.name, inputs=self._texts(), words=words))
        self.fold()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Escape closes it; Enter in a cell is not for the window."""
        if event.key() == Qt.Key.Key_Escape:
            self.fold()
        elif event.key() not in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the ground it stands on, with an edge."""
        painter, t = QPainter(self), self.theme
        painter.fillRect(self.rect(), t.colour("surface"))
        painter.setPen(t.colour("ink"))
        painter.drawRect(self.rect().adjusted(0, 0, -1, -1))
