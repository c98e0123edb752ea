"""The real window driven by keys: pressed where the cursor is, counted, waited for."""

from collections.abc import Callable
from datetime import datetime
from pathlib import Path

from PySide6.QtCore import QCoreApplication, QEvent, QEventLoop, Qt, QTimer
from PySide6.QtGui import QKeyEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLineEdit, QWidget

from careful_coil.desk.start import application, build
from careful_coil.desk.theme import Theme
from careful_coil.desk.window import Window

CTRL = Qt.KeyboardModifier.ControlModifier
NONE = Qt.KeyboardModifier.NoModifier
SHIFT = Qt.KeyboardModifier.ShiftModifier
Key = Qt.Key
MOST_ROUNDS = 15000  # a contradictory sheet takes seconds to think over
WAIT_MS = 5  # at most between two looks whether all is done


def _nothing() -> None:
    """Wake the event loop."""


class Driven:
    """A window on a shop folder, and the keys pressed on it so far."""

    def __init__(
        self, folder: Path, demo: bool, clock: Callable[[], datetime], theme: Theme | None = None
    ) -> None:
        application()
        self.keys = 0
        self.window: Window = build(folder, demo, clock, theme)
        self.window.show()
        QTest.qWaitForWindowExposed(self.window)
        self._steady = 0.0
        self.window.session.clock.steady = lambda: self._steady
        self.window.session.clock.muted = True
        self.window.activateWindow()
        QTest.qWaitForWindowActive(self.window)  # shortcuts act only then
        self.settle(lambda: not demo or self.window.session.open is not None)

    def settle(self, done: Callable[[], bool] = lambda: True) -> None:
        """Run the event loop until nothing is on its way and `done` holds."""
        for _ in range(MOST_ROUNDS):
            QCoreApplication.processEvents(QEventLoop.ProcessEventsFlag.AllEvents, 10)
            if self.window.session.idle and done():
                QCoreApplication.processEvents()
                if self.window.session.idle:
                    return
            QTimer.singleShot(WAIT_MS, _nothing)  # an answer of another thread wakes it before
            QCoreApplication.processEvents(QEventLoop.ProcessEventsFlag.WaitForMoreEvents)
        raise AssertionError("the window does not come to rest")

    @property
    def focus(self) -> QWidget:
        """The widget that has the cursor."""
        return self.window.focusWidget() or self.window

    def key(self, key: Key, modifier: Qt.KeyboardModifier = NONE) -> None:
        """Press a key where the cursor is, then wait."""
        self.keys += 1
        QTest.keyClick(self.focus, key, modifier)
        self.settle()

    def ctrl(self, key: Key) -> None:
        """Press Ctrl with a key."""
        self.key(key, CTRL)

    def type(self, text: str) -> None:
        """Type into what has the cursor, over what stands there."""
        focus = self.focus
        if isinstance(focus, QLineEdit):
            focus.selectAll()
        self.keys += len(text)
        for sign in text:
            if sign.isascii():
                QTest.keyClicks(focus, sign)
            else:  # a key the test library has no name for
                event = QKeyEvent(QEvent.Type.KeyPress, 0, NONE, sign)
                QCoreApplication.sendEvent(focus, event)

    def enter(self, text: str = "") -> None:
        """Type and press Enter."""
        if text:
            self.type(text)
        self.key(Key.Key_Return)

    def pass_time(self, seconds: float, step: float = 2.5) -> None:
        """Let the test's clock run so many seconds, in steps, without waiting for them."""
        clock = self.window.session.clock
        until = self._steady + seconds
        while self._steady < until:
            self._steady = min(self._steady + step, until)
            clock.tick()
        self.settle()

    def close(self) -> None:
        """Close the window; everything recorded is on disk then."""
        self.window.close()
        self.window.deleteLater()
        QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
