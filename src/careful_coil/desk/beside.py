"""Other windows on the same shop: what they recorded, opened, struck or set is taken in."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

from PySide6.QtCore import QTimer

from careful_coil.core.errors import RecordsOvertaken
from careful_coil.core.settings import Settings
from careful_coil.records import Summary
from careful_coil.records.shop_settings import read_settings

if TYPE_CHECKING:
    from careful_coil.core.job import Entry
    from careful_coil.desk.session import Session
    from careful_coil.records.store import News, Store

EVERY_MS = 1000  # others' entries are seen within two seconds


class Beside:
    """What this window knows of others on its shop."""

    def __init__(self, session: "Session") -> None:
        self._session = session
        self._asked, self._behind, self._late = False, False, False
        self._gone = ""  # why the shop does not answer, said once
        self._timer = QTimer(session)
        self._timer.timeout.connect(self.look_around)
        session.overtaken.connect(self.overtaken)
        session.rested.connect(self.go_on)

    def watch(self) -> None:
        """Look around every second."""
        self._timer.start(EVERY_MS)

    def look_around(self) -> None:
        """Take in what other windows did since this was asked last."""
        s = self._session
        if self._asked:
            return
        self._asked = True
        job = s.open
        id, seq = (job.id, job.record.seq) if job is not None else ("", 0)

        def seen(found: "tuple[News | None, Settings]") -> None:
            self._asked = False
            if self._gone:
                self._gone = ""
                s.told.emit("The shop is there again.", "good")
                s.fill(s.open.id if s.open is not None else "")  # as it stands there now
            news, settings = found
            if settings.told() != s.settings.told():
                s.settings = settings
                s.settings_changed.emit()
                s.told.emit("Another window changed the shop's settings.", "note")
                self.anew()
            if news is None:
                return
            for summary in news.summaries:
                s.ranked(summary)
            self.catch_up()
            if job is not None and s.open is not None and s.open.id == id:
                fresh = [e for e in news.log.entries if e.id not in job.record.flying]
                if job.record.take(fresh, news.log.seq):
                    self.say(fresh)
                    s.judge_anew()

        def refused(words: str) -> None:
            self._asked, self._gone = False, words

        def ask(store: "Store") -> "tuple[News | None, Settings]":
            return store.news(id, seq), read_settings(s.shop)[0]

        s.ask(ask, seen, refused, tell=not self._gone)

    def say(self, missed: "Sequence[Entry]") -> None:
        """Say who recorded how much in between."""
        who = ", ".join(dict.fromkeys(e.by or "somebody" for e in missed))
        words = f"{who} recorded {len(missed)} more in this job; it is judged again."
        self._session.told.emit(words, "note")

    def overtaken(self, error: RecordsOvertaken) -> None:
        """Show what came in between where a signature was refused over it."""
        job = self._session.open
        if job is not None and job.id == error.job:
            job.record.take(error.missed, error.seq)
            self._session.judge_anew()

    def anew(self) -> None:
        """Judge the open job by the settings there are now, then all others behind it, the newest first."""
        s = self._session
        settings = s.settings
        s.judge_anew()

        def taken(summaries: list[Summary]) -> None:
            s.filled(summaries)
            self.catch_up()

        s.ask(lambda store: store.rack.judge_by(settings), taken)

    def go_on(self) -> None:
        """Judge behind what had to wait for what a hand waited for."""
        if self._late:
            self.catch_up()

    def catch_up(self) -> None:
        """Judge what waits for it one after the other, each in its turn with what hands record."""
        s = self._session
        if self._behind:
            return
        if s.busy:  # first what a hand waits for
            self._late = True
            return
        self._behind, self._late = True, False

        def more(summary: Summary | None) -> None:
            self._behind = summary is not None
            if summary is not None:
                s.ranked(summary)
                s.ask_behind(lambda store: store.rack.behind(), more, stopped)

        def stopped(_: str) -> None:
            self._behind = False

        s.ask_behind(lambda store: store.rack.behind(), more, stopped)
