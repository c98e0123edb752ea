"""A hand at the real window: presses keys, waits for what is on its way, reads what a person reads."""

import shutil
from datetime import UTC, datetime, timedelta
from pathlib import Path

from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QWidget

from careful_coil.core.ledger import Judgement
from careful_coil.core.settings import Settings
from careful_coil.core.stations import Station
from careful_coil.demo import demo_jobs
from careful_coil.desk.driven import CTRL, NONE, SHIFT, Driven, Key
from careful_coil.desk.field import Field
from careful_coil.desk.ledger import told
from careful_coil.desk.open_job import OpenJob
from careful_coil.desk.shared.page import Page
from careful_coil.desk.theme import Theme
from careful_coil.records import RecordsThread


def demo_template(folder: Path) -> Path:
    """Return a demo shop with its summaries made, to be copied: judging six jobs takes a second."""
    records = RecordsThread(folder, Settings(), lasting=False)
    records.start()
    for document in demo_jobs():
        records.ask(lambda s, d=document: s.take_in(d)).result()  # type: ignore[misc]
    records.ask(lambda s: s.summaries()).result()
    records.close()
    return folder


__all__ = ["CTRL", "NONE", "SHIFT", "Bench", "Key", "demo_template"]


class Bench(Driven):
    """The window on a shop folder, driven by keys."""

    def __init__(
        self,
        folder: Path,
        demo: bool = True,
        theme: Theme | None = None,
        template: Path | None = None,
    ) -> None:
        if template is not None:
            shutil.copytree(template, folder)
        self._ticks = 0
        self.later = timedelta()  # what the wall clock has moved on besides
        super().__init__(folder, demo, self._clock, theme)
        self.window.session.asks_who = False  # a test of its own types initials

    def _clock(self) -> datetime:
        self._ticks += 1
        return datetime(2026, 3, 4, 9, tzinfo=UTC) + timedelta(seconds=2 * self._ticks) + self.later

    # --- hands ----------------------------------------------------------------------------------

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
        """The rows of the ledger as a screen reader hears them, each folded line with all behind it."""
        model = self.window.ledger.model
        found: list[str] = []
        for row in model.rows:
            found.append(row.heading if row.key else row.words)
            found += [told(f) for f in row.folded if not row.opened]
        return found

    def rack(self) -> list[str]:
        """The tags on the rack as a screen reader hears them."""
        model = self.window.rack.model
        return [str(model.data(model.index(k))) for k in range(model.rowCount())]
