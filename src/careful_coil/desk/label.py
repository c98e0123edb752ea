"""A label that never reads markup into what somebody typed, and speaks the window's language."""

from PySide6.QtCore import QEvent, Qt
from PySide6.QtWidgets import QLabel

from careful_coil.desk.tongue import tr


class Label(QLabel):
    """Plain words; `text` returns them as they were given."""

    def __init__(self, words: str = "") -> None:
        super().__init__()
        self._words = ""
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setText(words)

    def text(self) -> str:
        """Return the words, whatever language they are shown in."""
        return self._words

    def setText(self, words: str) -> None:
        """Show other words."""
        self._words = words
        super().setText(tr(words))

    def changeEvent(self, event: QEvent) -> None:
        """Say them in another language as the sheet is laid on anew."""
        super().changeEvent(event)
        if event.type() == QEvent.Type.StyleChange and tr(self._words) != super().text():
            super().setText(tr(self._words))
