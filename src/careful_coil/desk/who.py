"""Who is at the bench: asked once, at the first entry; what was to be recorded waits for it."""

from PySide6.QtCore import QRect, Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QLineEdit, QVBoxLayout, QWidget

from careful_coil.core.settings_given import LONGEST_INITIALS
from careful_coil.desk.cell import Cell
from careful_coil.desk.field import Field
from careful_coil.desk.label import Label
from careful_coil.desk.shared.page import plain_label
from careful_coil.desk.theme import Theme

MOST = 40  # characters of initials
WIDE, HIGH = 420, 190
WHY = "Your initials stand beside each entry. Enter goes on; Esc goes on without them."


class WhoCard(QFrame):
    """The question, over the bench."""

    told = Signal(str)  # initials, or nothing

    def __init__(self, parent: QWidget, theme: Theme) -> None:
        super().__init__(parent)
        self.setObjectName("who-card")
        self.title = Label("Who is at the bench?")
        self.cell = QLineEdit()
        self.cell.setMaxLength(MOST)
        self.cell.setAccessibleName("Who is at the bench, initials")
        self.why = plain_label(WHY)
        column = QVBoxLayout(self)
        column.setContentsMargins(24, 18, 24, 18)
        column.setSpacing(10)
        for part in (self.title, self.cell, self.why):
            column.addWidget(part)
        self.cell.returnPressed.connect(self._entered)
        self._back: QWidget | None = None
        self.set_theme(theme)
        self.hide()

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self.theme = theme
        edge, ground = theme.colour("copper").name(), theme.colour("ground").name()
        self.setStyleSheet(
            f"{theme.sheet()} #who-card {{ background: {ground}; border: 2px solid {edge}; }}"
        )
        self.title.setFont(theme.font(20, bold=True))

    def ask(self, room: QRect, back: QWidget | None) -> None:
        """Ask, in the middle of a room; the cursor goes back where it was."""
        if self.isVisible():
            return
        self._back = back
        self.cell.clear()
        self.why.setText(WHY)
        wide, high = self.theme.px(WIDE), self.theme.px(HIGH)
        self.setGeometry(room.center().x() - wide // 2, room.center().y() - high // 2, wide, high)
        self.show()
        self.raise_()
        self.cell.setFocus(Qt.FocusReason.OtherFocusReason)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Go on without with Escape."""
        if event.key() == Qt.Key.Key_Escape:
            self._end("")
        else:
            super().keyPressEvent(event)

    def _entered(self) -> None:
        words = self.cell.text().strip()
        if words and (len(words) > LONGEST_INITIALS or any(c.isdecimal() for c in words)):
            self.why.setText(
                f"Read “{words}”. Wanted: initials such as AB, at most {LONGEST_INITIALS} letters."
            )
        elif words:
            self._end(words)

    def _end(self, words: str) -> None:
        self.hide()
        back, self._back = self._back, None
        if back is not None and back.isVisible():
            back.setFocus(Qt.FocusReason.OtherFocusReason)
            field = back.parentWidget()
            if isinstance(back, Cell) and isinstance(field, Field):
                field.go_on()
        self.told.emit(words)
