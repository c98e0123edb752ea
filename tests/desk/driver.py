"""A hand at the real window: presses keys, waits for what is on its way, reads what a person reads."""

import shutil
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from pathlib import Path

from PySide6.QtCore import QCoreApplication, QEvent, QEventLoop, QPoint, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLineEdit, QWidget

from careful_coil.core.job.entries import Station
from careful_coil.core.ledger import Judgement
from careful_coil.core.settings import Settings
from careful_coil.demo import demo_jobs
from careful_coil.desk.field import Field
from careful_coil.desk.session import OpenJob
from careful_coil.desk.start import application, build
from careful_coil.desk.stations.page import Page
from careful_coil.desk.theme import Theme
from careful_coil.desk.window import Window
from careful_coil.records import RecordsThread

CTRL = Qt.KeyboardModifier.ControlModifier
NONE = Qt.KeyboardModifier.NoModifier
SHIFT = Qt.KeyboardModifier.ShiftModifier
Key = Qt.Key


def demo_template(folder: Path) -> Path:
    """Return a demo shop with its summaries made, to be copied: judging six jobs takes a second."""
    records = RecordsThread(folder, Settings(), lasting=False)
    records.start()
    for document in demo_jobs():
        records.ask(lambda s, d=document: s.take_in(d)).result()  # type: ignore[misc]
    records.ask(lambda s: s.summaries()).result()
    records.close()
    return folder


class Bench:
    """The window on a shop folder, driven by keys."""

    def __init__(
        self,
        folder: Path,
        demo: bool = True,
        theme: Theme | None = None,
        template: Path | None = None,
    ) -> None:
        application()
        self.keys = 0  # pressed so far
        if template is not None:
            shutil.copytree(template, folder)
        self._ticks = 0
        self.later = timedelta()  # what the wall clock has moved on besides
        self.window: Window = build(folder, demo, self._clock, theme)
        self.window.show()
        QTest.qWaitForWindowExposed(self.window)
        self._steady = 0.0
        self.window.session.clock.steady = lambda: self._steady
        self.window.session.clock.muted = True
        self.window.activateWindow()
        self.settle(lambda: not demo or self.window.session.open is not None)

    def _clock(self) -> datetime:
        self._ticks += 1
        return datetime(2026, 3, 4, 9, tzinfo=UTC) + timedelta(seconds=2 * self._ticks) + self.later

    def settle(self, done: Callable[[], bool] = lambda: True) -> None:
        """Run the event loop until nothing is on its way and `done` holds."""
        for _ in range(4000):
            QCoreApplication.processEvents(QEventLoop.ProcessEventsFlag.AllEvents, 10)
            if not self.window.session.busy and done():
                QCoreApplication.processEvents()
                if not self.window.session.busy:
                    return
            QTest.qWait(2)
        raise AssertionError("the window does not come to rest")

    # --- hands ----------------------------------------------------------------------------------

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

    def click(self, widget: QWidget, at: QPoint) -> None:
        """Click into a widget."""
        QTest.mouseClick(widget, Qt.MouseButton.LeftButton, NONE, at)
        self.settle()

    def open(self, words: str) -> None:
        """Find a motor by words and open it."""
        self.ctrl(Key.Key_K)
        self.enter(words)

    def meter_here(self) -> None:
        """Move the meter to the motor on the bench, as its question asks."""
        self.ctrl(Key.Key_M)
        if self.window.session.elsewhere:
            self.key(Key.Key_Space)
            self.key(Key.Key_Return)

    def pass_time(self, seconds: float, step: float = 2.5) -> None:
        """Let the test's clock run so many seconds, in steps, without waiting for them."""
        clock = self.window.session.clock
        until = self._steady + seconds
        while self._steady < until:
            self._steady = min(self._steady + step, until)
            clock.tick()
        self.settle()

    # --- eyes -----------------------------------------------------------------------------------

    @property
    def job(self) -> OpenJob:
        """The open job."""
        found = self.window.session.open
        assert found is not None
        return found

    @property
    def judged(self) -> Judgement:
        """The judgement the window shows."""
        return self.job.judged

    @property
    def next(self) -> str:
        """What the Next card says in large type."""
        return self.window.ledger.card.title()

    @property
    def station(self) -> Station:
        """The open station."""
        return self.window.session.station

    @property
    def page(self) -> Page:
        """The page of the open station."""
        return self.window.pages[self.station]

    @property
    def note(self) -> str:
        """What the strip says beside the digits."""
        return self.window.strip.note.words

    @property
    def message(self) -> str:
        """What the head of the bench says."""
        return self.window.way.message

    def field(self, name: str) -> Field:
        """A field of the open station."""
        return self.page.fields[name]

    def ledger(self) -> list[str]:
        """The rows of the ledger as a screen reader hears them."""
        model = self.window.ledger.model
        return [str(model.data(model.index(k))) for k in range(model.rowCount())]

    def rack(self) -> list[str]:
        """The tags on the rack as a screen reader hears them."""
        model = self.window.rack.model
        return [str(model.data(model.index(k))) for k in range(model.rowCount())]

    def close(self) -> None:
        """Close the window; everything recorded is on disk then."""
        self.window.close()
        self.window.deleteLater()
        QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
