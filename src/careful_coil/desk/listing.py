"""A stock list that keeps the Enter it has answered."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QListView

ENTER = (Qt.Key.Key_Return, Qt.Key.Key_Enter)


class Listing(QListView):
    """The rack's and the ledger's list."""

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Take a key; Qt hands Enter on to what is behind a list, which would answer it a second time."""
        super().keyPressEvent(event)
        if event.key() in ENTER:
            event.accept()
