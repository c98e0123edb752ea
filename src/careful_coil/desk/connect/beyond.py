"""Beyond the motor: voltage tags in every place, and what the installer must be told."""

from PySide6.QtCore import QPointF, QRect, Signal
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QWidget

from careful_coil.core.connect.beyond import Line
from careful_coil.core.connect.proof_rules import tags_left
from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_connect import Installer
from careful_coil.core.job.noted import note
from careful_coil.core.ledger import Judgement
from careful_coil.desk import paint
from careful_coil.desk.field import LONG
from careful_coil.desk.part import Part
from careful_coil.desk.roll import Roll
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme
from careful_coil.desk.tick_roll import TickRoll


class TagRoll(Roll):
    """A place a row with what its tag says; Enter or Space: it is changed."""

    changed = Signal(str)

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme, "Voltage tags")
        self.rows: tuple[tuple[str, str, bool], ...] = ()  # place, words, right
        self.fit()

    def show_rows(self, rows: tuple[tuple[str, str, bool], ...]) -> None:
        """Show other tags."""
        self.rows = rows
        self.retell()

    def count(self) -> int:
        """Return how many there are."""
        return len(self.rows)

    def row_words(self, k: int) -> str:
        """Return a tag in words."""
        place, words, right = self.rows[k]
        return f"{place}: {words}, {'right' if right else 'to be changed'}"

    def pressed(self, key: str) -> bool:
        """Enter or Space: the tag is changed."""
        if key in ("\r", "\n", " ") and self.rows:
            self.changed.emit(self.rows[self.current][0])
            return True
        return False

    def paint_row(self, painter: QPainter, k: int, box: QRect) -> None:
        """Draw the mark, the place, what it says."""
        t = self.theme
        place, words, right = self.rows[k]
        verdict = "good" if right else "unproven"
        paint.mark(painter, t, verdict, QPointF(box.left() + 16, box.center().y()), 15)
        paint.text(painter, t, box.adjusted(34, 0, -box.width() // 2, 0), place)
        at = QRect(box.center().x(), box.top(), box.width() // 2 - 8, box.height())
        paint.text(painter, t, at, words, size=13, token="quiet")


class BeyondPart(Part):
    """The part of tags and the installer."""

    name, title, remark = (
        "beyond",
        "Beyond the motor",
        "tags last, after proof; then who connects it",
    )

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.tags_words = Prose(theme)
        self.tags = TagRoll(theme)
        self.tags.changed.connect(self._tag)
        self.column.addWidget(self.tags_words)
        self.column.addWidget(self.tags)
        self.column.addWidget(
            Heading("For the installer", theme, "Space: told. The local code decides.", rule=True)
        )
        self.roll = TickRoll(theme, "For the installer", at_once=True)
        self.roll.ticked.connect(self._told)
        self.column.addWidget(self.roll)
        self.add_field("waive", "Waive this line, why", self._waive, "no drive there", most=LONG)
        self.waived = Prose(theme, "quiet", 13)
        self.column.addWidget(self.waived)
        self._lines: tuple[Line, ...] = ()

    def start(self) -> QWidget:
        """Start at the tags while one is wrong, else at the list."""
        return self.tags if any(not right for *_, right in self.tags.rows) else self.roll

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return what is open of tags and list."""
        own = [f for f in judged.findings if f.code in ("voltage-tags", "installer")]
        bad = next((f for f in own if f.verdict in ("hold", "unproven")), None)
        if bad is not None:
            return bad.verdict, bad.subject[0].lower() + bad.subject[1:]
        return ("good", "done") if own else ("", "nothing changes")

    def show_judgement(self, judged: Judgement) -> None:
        """Show tags and lines."""
        job = judged.job
        wrong = tags_left(job, judged.facts.connecting.changed)
        tags = {**wrong, **job.seen.voltage_tags}
        self.tags.show_rows(tuple((p, w, p not in wrong) for p, w in sorted(tags.items())))
        self.tags.setVisible(bool(tags))
        volt = f"{job.supply.volt:g} V" if job.supply else "its volts"
        self.tags_words.say(
            f"Each must say {volt}. Space or Enter when it is changed."
            if tags
            else "No voltage tag was noted at Intake. Look in the lead box, on the cable, at the control."
        )
        self._lines = judged.facts.installer
        done = job.joined.installer
        self.roll.show_items(self._lines, set(done))
        told = [f"{n}: waived, {e.words}" for n, e in done.items() if e.state == "waived"]
        self.waived.say("\n".join(told))
        self.fields["waive"].show_text("")

    def _tag(self, place: str) -> None:
        job = self.session.open
        if job is None or job.judged.job.supply is None:
            return
        if not job.judged.facts.connecting.joined or job.judged.facts.connecting.unread:
            words = "Tags come last, after the joints are made and their ohms read."
            self.session.told.emit(words, "watch")
            return
        volt = job.judged.job.supply.volt
        self.session.record(note("voltage-tag", place, f"{volt:g} V"), station="connect")

    def _told(self) -> None:
        job = self.session.open
        if job is None:
            return
        before = set(job.judged.job.joined.installer)
        for name in (k.name for k in self._lines if k.name in self.roll.done ^ before):
            told = name in self.roll.done
            body = Installer(item=name, state="done" if told else "open")
            self.session.record(body, station="connect")

    def _waive(self, text: str) -> None:
        if not text.strip() or not self._lines:
            raise BadValue(text, "why this line does not apply here")
        name = self._lines[self.roll.current].name
        body = Installer(item=name, state="waived", words=text.strip())
        self.session.record(body, station="connect")
