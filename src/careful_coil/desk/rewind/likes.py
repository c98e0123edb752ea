"""Motors like this one: the shop's own earlier records, the nearest first."""

from functools import partial

from PySide6.QtWidgets import QWidget

from careful_coil.core.job import Entry, Job, fold
from careful_coil.core.ledger import Judgement
from careful_coil.core.rewind.alike import Alike, alike
from careful_coil.core.values import show_percent
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme


class LikesPart(Part):
    """The part that looks into the shop's other jobs."""

    name, title, remark = (
        "likes",
        "Like this one",
        "the shop's own records: slots, poles, core, volts",
    )

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self._others: list[tuple[int, Job]] = []
        self._left = 0
        self.found: tuple[Alike, ...] = ()
        self.key = EnterButton("Look through the shop's jobs")
        self.key.clicked.connect(self.look)
        self.words = Prose(theme)
        for part in (self.key, self.words):
            self.column.addWidget(part)

    def start(self) -> QWidget:
        """Start at the key."""
        return self.key

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how many were found."""
        return "", f"{len(self.found)} found" if self.found else "not looked for"

    def show_judgement(self, judged: Judgement) -> None:
        """Keep what was found for the same job; another starts anew."""

    def opened(self) -> None:
        """Look anew for another motor."""
        self.found = ()
        self.words.say("")

    def look(self) -> None:
        """Read every other job's log, one after the other, then rank them."""
        others = [s for s in self.session.summaries if s.id != self._motor]
        self._others, self._left = [], len(others)
        self.words.say("Looking." if others else "There is no other job in the shop.")
        for s in others:
            self.session.entries_of(s.id, _with_winding, partial(self._read, self._motor, s.number))

    def _read(self, asked_for: str, number: int, job: Job | None) -> None:
        if asked_for != self._motor:
            return
        self._left -= 1
        if job is not None:
            self._others.append((number, job))
        if self._left or self.judged is None:
            return
        self.found = alike(self.judged.job, self._others)
        self.words.say(
            "\n".join(
                f"{a.number} {a.name}, {show_percent(a.apart)} apart: {a.words}."
                for a in self.found
            )
            or "None of the same slots and poles with a core near this one."
        )


def _with_winding(entries: list[Entry]) -> Job | None:
    job = fold(entries)
    return job if job.winding else None
