"""A short scale of answers as numbered keys; what is typed in letters goes into a cell beside them."""

from collections.abc import Callable, Mapping

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.cell import SKIP
from careful_coil.desk.field import Field
from careful_coil.desk.flow import Flow
from careful_coil.desk.theme import Theme


class ScaleField(Field):
    """A field whose answers are keys: a digit, Enter or a click picks one, Delete takes it back.

    Letters are typed in one's own words.
    """

    def __init__(
        self,
        label: str,
        words: tuple[str, ...],
        commit: Callable[[str], None],
        theme: Theme,
        *,
        name: str = "",
        says: Mapping[str, str] | None = None,
    ) -> None:
        """`says` what stands on the key of an answer that is kept as a short word."""
        self.buttons: list[EnterButton] = []
        super().__init__(label, commit, theme, name=name)
        self.words = words
        self._row = Flow(len(words), 0, theme)
        for k, word in enumerate(words, 1):
            said = (says or {}).get(word, word)
            button = EnterButton(f"{said[0].upper()}{said[1:]}", k)
            button.setCheckable(True)
            button.setObjectName(name)  # whose answer it is
            button.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
            button.clicked.connect(lambda _=False, word=word: self._picked(word))
            self._row.add(button)
            self.buttons.append(button)
        layout = self.layout()
        if layout is not None:
            layout.addWidget(self._row)
            layout.removeWidget(self.cell)
            layout.addWidget(self.cell)
            layout.removeWidget(self.message)
            layout.addWidget(self.message)
        self.cell.hide()
        self._mark("")

    def takes(self) -> str:
        """Return in a line what it takes: its answers with their digits."""
        return "  ".join(f"{k} {word}" for k, word in enumerate(self.words, 1))

    @property
    def entry(self) -> QWidget:
        """Return what the cursor goes to: what is typed, the key of what stands, else the first one."""
        if self.cell.isModified() and self.cell.text():
            return self.cell
        return next((b for b in self.buttons if b.isChecked()), self.buttons[0])

    def take_cursor(self) -> None:
        """Put the cursor on the scale."""
        self.entry.setFocus(Qt.FocusReason.OtherFocusReason)

    def show_text(self, text: str) -> None:
        """Show what is on record; in a cell where it is none of the scale's words."""
        super().show_text(text)
        self._mark(text)
        own = bool(text) and text not in self.words
        if not self.cell.isModified():
            self.cell.setVisible(own)

    def refuse(self, words: str) -> None:
        """Say why it cannot stand, the cell in sight."""
        super().refuse(words)
        if words and self.buttons:
            self.cell.show()

    def ask(self, asked: bool) -> None:
        """Let each key say what it answers."""
        super().ask(asked)
        for button in self.buttons:
            button.setAccessibleDescription(self.called())

    def cancel(self) -> None:
        """Go back to the keys."""
        super().cancel()
        if self.cell.text() in ("", *self.words):
            self.take_cursor()
            self.cell.hide()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Take a digit as the answer of that number, letters as words."""
        text, key = event.text(), event.key()
        if event.modifiers() & (
            Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.AltModifier
        ):
            super().keyPressEvent(event)
        elif (
            text.isascii()
            and text.isdecimal()
            and 0 < int(text) <= len(self.buttons)
            and not self.cell.isModified()
        ):
            self.buttons[int(text) - 1].click()
        elif text == SKIP and self.cell.skips and not self.cell.isModified():
            self.cell.skipped.emit()
        elif key in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self._picked("")
        elif text and text.isprintable() and text != " ":
            self.cell.show()
            self.cell.setText((self.cell.text() if self.cell.isModified() else "") + text)
            self.cell.setModified(True)
            self.cell.setFocus(Qt.FocusReason.OtherFocusReason)
        else:
            super().keyPressEvent(event)

    def _picked(self, word: str) -> None:
        if word and word == self.cell.stood and not self.asked and self.on_empty is not None:
            self._mark(word)
            self.on_empty()  # it stands already, and Next asks for something else
            return
        self.cell.setText(word)
        self.cell.setModified(True)
        self.finish()
        self._mark(word if not self.message.text() else self.cell.stood)
        if not self.message.text():
            self.entered.emit()

    def _mark(self, text: str) -> None:
        for button, word in zip(self.buttons, self.words, strict=False):
            button.setChecked(word == text)
