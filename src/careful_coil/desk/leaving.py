"""Closing the window: not before what was typed is on disk, and not at all where it was refused."""

from collections.abc import Callable

from PySide6.QtCore import QTimer

from careful_coil.desk.session import Session

WAITING = "On its way to disk: the window closes when it is there."


class Leaving:
    """Whether the window may go; `close` closes it."""

    def __init__(self, session: Session, close: Callable[[], object]) -> None:
        self._session, self._close = session, close
        self._wanted = False
        session.landed.connect(self._landed)

    def may_go(self) -> bool:
        """Whether nothing is on its way; else it is said, and the window closes by itself."""
        if not self._session.flying:
            return True
        self._wanted = True
        self._session.told.emit(WAITING, "note")
        return False

    def _landed(self, kept: bool) -> None:
        if not kept:
            self._wanted = False  # it stands at its field again: somebody must look
        elif self._wanted and not self._session.flying:
            self._wanted = False
            QTimer.singleShot(0, self._close)
