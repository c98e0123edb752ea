"""A cell one types in: label above, message below, committed by Enter or by leaving it."""

from collections.abc import Callable

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtGui import (
    QFontMetrics,
    QResizeEvent,
)
from PySide6.QtWidgets import (
    QBoxLayout,
    QHBoxLayout,
    QLabel,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from careful_coil.core.errors import BadValue, CoilError
from careful_coil.desk.at_field import typed_in
from careful_coil.desk.cell import Cell
from careful_coil.desk.label import Label
from careful_coil.desk.painted import BAR
from careful_coil.desk.said import said
from careful_coil.desk.theme import Theme
from careful_coil.desk.tongue import tr

SHORT, LONG = 200, 4000  # characters of what an entry holds
NARROW = 40  # pixels of a label that is not laid out yet


class Title(QLabel):
    """A line of words, or two where one has no room; cut with dots beyond that. It never asks for more width."""

    def __init__(self, words: str) -> None:
        super().__init__()
        self._words, self._mark = words, ""
        self._two = False  # whether they stand in two lines
        self.setTextFormat(Qt.TextFormat.PlainText)

    def setText(self, words: str) -> None:
        """Show other words."""
        self._words = words
        self._fit()

    def mark(self, word: str) -> None:
        """Put a word before them."""
        self._mark = word
        self._fit()
        self.updateGeometry()

    def _shown(self) -> str:
        words = said(self._words)
        return f"{tr(self._mark)} · {words}" if self._mark else words

    def text(self) -> str:
        """Return the whole words."""
        return self._words

    def minimumSizeHint(self) -> QSize:
        """Return next to nothing: words give way."""
        return QSize(1, self._high())

    def _high(self) -> int:
        metrics = self.fontMetrics()
        return metrics.height() + self._two * metrics.lineSpacing()

    def sizeHint(self) -> QSize:
        """Return the room of the whole words."""
        metrics = self.fontMetrics()
        return QSize(metrics.horizontalAdvance(self._shown()) + 2, self._high())

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Cut to the room."""
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        metrics, wide, words = self.fontMetrics(), max(self.width(), 1), self._shown()
        long = metrics.horizontalAdvance(words)
        # a scroll bar that two lines bring must not make them one again
        two = wide > NARROW and long > (wide - BAR if self._two else wide)
        if two != self._two:
            self._two = two
            self.updateGeometry()
        super().setText(_in_lines(words, metrics, wide, 2 if two else 1))


def _in_lines(words: str, metrics: QFontMetrics, wide: int, most: int) -> str:
    """Return words broken into at most so many lines, the last cut with dots."""
    lines: list[str] = []
    rest = words
    while len(lines) < most - 1 and metrics.horizontalAdvance(rest) > wide and " " in rest:
        first = rest
        while metrics.horizontalAdvance(first) > wide and " " in first:
            first = first.rpartition(" ")[0]
        lines.append(first)
        rest = rest[len(first) :].strip()
    return "\n".join([*lines, metrics.elidedText(rest, Qt.TextElideMode.ElideRight, wide)])


class Field(QWidget):
    """`commit` is called with the new text; it raises a CoilError to refuse it in place."""

    entered = Signal()

    def __init__(
        self,
        label: str,
        commit: Callable[[str], None],
        theme: Theme,
        *,
        hint: str = "",
        name: str = "",
        clears: bool = False,
        holds: bool = False,
        most: int = LONG,
        beside: int = 0,
    ) -> None:
        """`holds` what was typed until a key logs it; `clears` after Enter; `beside` pixels at 100 % text of
        the label at the left of the cell, 0: above it."""
        super().__init__()
        self._beside = beside
        self._commit, self._clears, self._most = commit, clears, most
        self.on_empty: Callable[[], None] | None = (
            None  # Enter where nothing is typed; None: goes on
        )
        self.on_skip: Callable[[], None] | None = None  # + where Next asks it and nothing is typed
        self._holds = holds
        self.asked = False
        self.spoken = ""  # its name where its words stand beside it, not in its label
        self._of, self._drafts = "", dict[str, tuple[str, str]]()
        self.label = Title(label)
        self.cell = Cell()
        self.cell.setAccessibleName(label)
        self.cell.hint = hint
        self.cell.setObjectName(name)
        self.cell.setMaxLength(LONG)
        self.message = Label()
        self.label.setObjectName("label")  # the window's sheet styles both by these names
        self.message.setObjectName("message")
        self.message.setWordWrap(True)
        self.message.hide()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(3)
        row: QBoxLayout = column
        if beside:
            row = QHBoxLayout()
            row.setSpacing(6)
            column.addLayout(row)
        for part in (self.label, self.cell):
            row.addWidget(part)
        column.addWidget(self.message)
        self.cell.returnPressed.connect(self._entered)
        self.cell.editingFinished.connect(self.finish)
        self.cell.chosen.connect(self._chosen)
        self.cell.cancelled.connect(self.cancel)
        self.cell.skipped.connect(self._skipped)
        self.set_theme(theme)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self.cell.set_colour(theme.colour("quiet"))
        self.label.setText(self.label.text())  # the terms may be others too
        if self._beside:
            self.label.setFixedWidth(theme.px(self._beside))

    def take(self, of: str) -> None:
        """Show another motor's, or another item's: what is half typed stays with its own, and comes back with it."""
        if of == self._of:
            return
        draft = (self.cell.text(), self.message.text()) if self.cell.isModified() else ("", "")
        self._drafts[self._of] = draft
        self._of = of
        text, words = self._drafts.pop(of, ("", ""))
        self.cell.setText(text)
        self.cell.setModified(bool(text))
        self.cell.stood = ""
        self.refuse(words)

    def show_text(self, text: str) -> None:
        """Show what is on record, unless something else is being typed or was refused; Escape gives it back."""
        self.cell.stood = text
        if not self.cell.isModified():
            self.cell.setText(text)
            self.cell.setCursorPosition(0)
            self.cell.setModified(False)

    def ask(self, asked: bool) -> None:
        """Show that Next asks for it, or does not any more."""
        if asked == self.asked:
            return
        self.asked = asked
        self.cell.skips = asked and self.on_skip is not None
        for part in (self.label, self.cell):
            part.setProperty("asked", asked)
            part.style().unpolish(part)
            part.style().polish(part)
        self.label.mark("next" if asked else "")
        self.cell.setAccessibleName(self.called())

    def called(self) -> str:
        """Return its label as it is heard, with what Next asks for marked."""
        words = said(self.label.text() or self.spoken)
        return f"next: {words}" if self.asked else words

    def takes(self) -> str:
        """Return in a line what it takes: its answers, or an example."""
        if self.cell.choices:
            return ", ".join(self.cell.choices)
        return f"e.g. {self.cell.hint}" if self.cell.hint else ""

    @property
    def entry(self) -> QWidget:
        """Return what the cursor goes to."""
        return self.cell

    def take_cursor(self) -> None:
        """Put the cursor into it, over what stands there."""
        self.cell.setFocus(Qt.FocusReason.OtherFocusReason)
        self.cell.selectAll()

    def refuse(self, words: str) -> None:
        """Say under the cell why it cannot stand."""
        self.message.setText(words)
        self.message.setVisible(bool(words))

    def finish(self) -> None:
        """Commit what was typed, or refuse it and keep it for mending."""
        if not self.cell.isModified():
            return
        text = self.cell.text().strip()
        try:
            if len(text) > self._most:
                raise BadValue(f"{len(text)} characters", f"at most {self._most}")
            with typed_in(lambda words: self._give_back(text, words)):
                self._commit(text)
        except CoilError as error:
            self.refuse(str(error))
            return
        self.refuse("")
        if self._holds:
            return
        self.cell.setModified(False)
        if self._clears:
            self.cell.setText("")  # not clear(): that counts as typing
        else:
            self.cell.stood = self.cell.text()

    def _give_back(self, text: str, words: str) -> None:
        """Show a text that did not reach the disk again, and why, unless something else is typed by now."""
        if not self.cell.isModified():
            self.cell.setText(text)
            self.cell.setModified(True)
            self.cell.stood = ""
        self.refuse(words)

    def cancel(self) -> None:
        """Say nothing more of what was typed: it is taken back."""
        self.refuse("")

    def drop(self) -> None:
        """Show nothing: what was held is logged."""
        self.cell.setText("")
        self.cell.stood = ""
        self.refuse("")

    def _chosen(self, word: str) -> None:
        self.cell.setText(word)
        self.cell.setModified(True)
        self._entered()

    def _skipped(self) -> None:
        if self.on_skip is not None:
            self.on_skip()

    def _entered(self) -> None:
        if self.on_empty is not None and not self.cell.text() and not self.cell.isModified():
            self.on_empty()
            return
        self.finish()
        if self.message.isVisible():
            return
        if self.window().focusWidget() is self.cell:  # else somebody asks who is at the bench
            self.go_on()
        self.entered.emit()

    def go_on(self) -> None:
        """Put the cursor into the next field of the station."""
        self.focusNextChild()
        station, at = self._station(), self.window().focusWidget()
        if station is not None and (at is None or not station.isAncestorOf(at)):
            self.cell.setFocus(Qt.FocusReason.OtherFocusReason)  # the last field: it stays here

    def _station(self) -> QWidget | None:
        """Return the station's page that this field stands in, None outside of one."""
        at = self.parentWidget()
        while at is not None and not isinstance(at, QScrollArea):
            at = at.parentWidget()
        return at
