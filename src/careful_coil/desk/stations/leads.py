"""Leads: tags, readings in the suggested order, the winding as it looks now, what it can still be."""

from functools import partial

from PySide6.QtCore import QRect, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QResizeEvent
from PySide6.QtWidgets import (
    QBoxLayout,
    QHBoxLayout,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from careful_coil.bench import Request
from careful_coil.core.job.lead_words import counted
from careful_coil.core.ledger import Judgement
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.desk import paint
from careful_coil.desk.entry_line import KICK_WORDS, TEST_WORDS
from careful_coil.desk.field import Field
from careful_coil.desk.odds import Odds, Row
from careful_coil.desk.painted import Painted
from careful_coil.desk.session import Session
from careful_coil.desk.stations.page import Caution, Drawn, Heading, Page, plain_label
from careful_coil.desk.stations.sheet import Sheet
from careful_coil.desk.theme import Theme
from careful_coil.drawing.scene import winding_now

WIDE_MARK, NAME = 210, 82  # pixels of a mark, and of the name in it
CERTAIN = {"proven": "proven", "convention": "free to choose", "leaning": "guess", "open": "open"}


def odds_rows(judged: Judgement) -> list[Row]:
    """Return the candidates of one arrangement and grouping together, likeliest first."""
    found = judged.identification
    merged: dict[tuple[str, str], float] = {}
    early = found is not None and found.status == "unsettled"
    none = "Too early to say what it is" if early else "A winding not known here"
    for c in found.candidates if found else ():
        title = ARRANGEMENTS[c.arrangement].title if c.arrangement else none
        groups = "  ".join(
            "".join(g) if all(len(t) == 1 for t in g) else " ".join(g) for g in c.groups
        )
        key = (title, f"belongs together: {groups}")
        merged[key] = merged.get(key, 0.0) + c.probability
    rows = sorted(merged.items(), key=lambda r: -r[1])[:3]
    return [(p, title, groups) for (title, groups), p in rows if p >= 0.001]


class Marks(Painted):
    """Markings to put on: tag, name, and how sure it is."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.rows: list[tuple[str, str, str]] = []
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return self.theme.px(26) * max(-(-len(self.rows) // self._columns()), 1)

    def show_judgement(self, judged: Judgement) -> None:
        """Show names and certainty of every tag."""
        naming, found = judged.naming, judged.identification
        sure = found.best.certainty if found else {}
        beside = found.best.extras if found else {}
        words = "as marked" if naming.word == "marked" else ""
        self.rows = [
            (
                tag,
                naming.names.get(tag) or beside.get(tag, "?"),
                words or CERTAIN[sure.get(tag, "open")],
            )
            for tag in judged.job.tags
        ]
        self.setAccessibleDescription("; ".join(" ".join(r) for r in self.rows))
        self.fit()

    def _columns(self) -> int:
        return max(1, self.width() // self.theme.px(WIDE_MARK))

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw tag → name, certainty."""
        painter, t = QPainter(self), self.theme
        columns = self._columns()
        for k, (tag, name, sure) in enumerate(self.rows):
            x, y = (k % columns) * t.px(WIDE_MARK), (k // columns) * t.px(26)
            open_ = sure == "open"
            token = "quiet" if open_ else "ink"
            paint.text(painter, t, QRect(x, y, t.px(24), t.px(26)), tag, bold=True)
            paint.text(
                painter,
                t,
                QRect(x + t.px(24), y, t.px(NAME), t.px(26)),
                name if not open_ else "–",
                token=token,
            )
            at = QRect(x + t.px(28 + NAME), y, t.px(WIDE_MARK - NAME - 32), t.px(26))
            paint.text(painter, t, at, sure, size=13, token="unproven" if open_ else "quiet")


TEST_CAUTIONS = {
    "kick": "Through a fuse or a lamp, rotor still. Hands off the sense leads: the break bites.",
    "shaft": "Supply off and proved dead, load off. Turn it slowly by hand; hands clear of the fan.",
    "switch": "Supply off and proved dead. Work the start mechanism by hand, not by running it.",
}


class Answers(QWidget):
    """What a kick or a switch test may show, as keys; the caution above them."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        self.caution = Caution("", theme)
        column.addWidget(self.caution)
        row = QHBoxLayout()
        self.keys: list[QPushButton] = []
        for k in range(len(KICK_WORDS)):
            key = QPushButton()
            key.setFocusPolicy(Qt.FocusPolicy.NoFocus)  # the strip keeps the cursor
            key.clicked.connect(partial(self._press, k))
            self.keys.append(key)
            row.addWidget(key)
        column.addLayout(row)

    def show_kind(self, kind: str) -> None:
        """Show the answers of a kind of test, or nothing."""
        words = TEST_WORDS.get(kind, ())
        self.setVisible(bool(words))
        self.caution.say(TEST_CAUTIONS.get(kind, ""))
        for k, key in enumerate(self.keys):
            key.setVisible(k < len(words))
            key.setText(f"{k + 1}  {words[k].replace('-', ' ')}" if k < len(words) else "")

    def _press(self, k: int) -> None:
        self._session.answered.emit(str(k + 1))


class LeadsPage(Page):
    """The station."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self._tagging = False
        self.empty = QWidget()
        teach = QVBoxLayout(self.empty)
        teach.setContentsMargins(0, 0, 0, 0)
        teach.addWidget(Heading("Leads: what belongs together, and what each one is", theme))
        teach.addWidget(
            plain_label(
                "Put a tag on every lead that comes out of the frame. Then read ohms between two leads at a "
                "time, in the order asked for: far fewer than all pairs are needed."
            )
        )
        count = Field("How many leads come out?", self._tag, theme, hint="6", name="count")
        count.setFixedWidth(260)
        self.fields["count"] = count
        teach.addWidget(count)
        teach.addStretch()
        self.dead = Caution(
            "Isolated and proved dead? Discharge every capacitor, then show under 5 V across the leads.",
            theme,
        )
        self.sheet_head = Heading("Readings", theme)
        self.sheet = Sheet(theme)
        self.drawn = Drawn(theme)
        self.odds = Odds(theme)
        self.marks = Marks(theme)
        self.answers = Answers(session, theme)
        self.marks_head = Heading("Markings to put on", theme, rule=True)
        self.suspect = Caution("", theme)
        self.never = plain_label()
        self.notes = plain_label()
        self._lay_out(theme)
        self.sheet.picked.connect(
            lambda a, b: session.pick(Request(kind="resistance", ends=(a, b)))
        )

    def _lay_out(self, theme: Theme) -> None:
        self.work = QWidget()
        column = QVBoxLayout(self.work)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(8)
        self.top = top = QHBoxLayout()
        left, right = QVBoxLayout(), QVBoxLayout()
        left.addWidget(self.sheet_head)
        left.addWidget(self.sheet)
        left.addWidget(self.suspect)
        left.addStretch()
        right.addWidget(Heading("The winding as it looks now", theme))
        right.addWidget(self.drawn, 1)
        top.addLayout(left, 58)
        top.addSpacing(12)
        top.addLayout(right, 42)
        column.addWidget(self.dead)
        column.addLayout(top, 1)
        column.addWidget(self.answers)
        column.addWidget(Heading("What it can still be", theme, rule=True))
        column.addWidget(self.odds)
        column.addWidget(self.marks_head)
        column.addWidget(self.marks)
        column.addWidget(self.never)
        column.addWidget(self.notes)
        self.column.addWidget(self.empty)
        self.column.addWidget(self.work, 1)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Put the drawing below the sheet where both do not fit beside each other."""
        super().resizeEvent(event)
        self._make_room()

    def _make_room(self) -> None:
        beside = self.sheet.least_width() <= 0.56 * (self.viewport().width() - 52)
        ways = QBoxLayout.Direction
        self.top.setDirection(ways.LeftToRight if beside else ways.TopToBottom)
        self.drawn.setMinimumHeight(0 if beside else self.theme.px(250))

    def show_judgement(self, judged: Judgement) -> None:
        """Show the leads as they stand."""
        tagged = bool(judged.job.leads)
        if tagged and self._tagging:
            self._tagging = False
            self.session.station_wanted.emit("leads", "")  # the probe is in the hand now
        self.empty.setVisible(not tagged)
        self.work.setVisible(tagged)
        if not tagged:
            return
        target = self.session.target
        on = (
            frozenset(target.ends)
            if target and target.kind in ("resistance", "switch", "shaft")
            else frozenset[str]()
        )
        self.sheet.show_judgement(judged, on)
        self.answers.show_kind(target.kind if target else "")
        self._make_room()
        count = len(judged.job.tags)
        meter = judged.job.meter
        nulled = "leads nulled" if meter.lead_ohm == 0 else "leads not nulled"
        filled = len(self.sheet.cell_words())
        self.sheet_head.say("Readings", f"{filled} of {count * (count - 1) // 2} pairs, {nulled}")
        self.dead.setVisible(judged.job.dead_proved is None and judged.job.plate.phases != 3)
        suspects = judged.identification.suspects if judged.identification else ()
        self.suspect.setVisible(bool(suspects))
        self.suspect.say(suspects[0].why if suspects else "")
        self.drawn.show_drawing(winding_now(judged), "; ".join(self.sheet.cell_words()))
        self.odds.show_rows(odds_rows(judged))
        self.marks.show_judgement(judged)
        found = judged.identification
        status = {"proven": "proven", "marked": "as marked, borne out by the ohms"}.get(
            judged.naming.word, found.status if found else ""
        )
        self.marks_head.say("Markings to put on", status)
        pairs = ", ".join(f"{a} to {b}" for a, b in found.never_energise) if found else ""
        never = (
            "Never line voltage"
            if found and found.status == "settled"
            else "No line voltage until it is known"
        )
        self.never.setText(f"{never}: {pairs}." if pairs else "")
        self.never.setVisible(bool(pairs))
        self.notes.setText(" ".join(found.notes) if found else "")
        self.notes.setVisible(bool(found and found.notes))
        hold = self.theme.colour("hold").name()
        self.never.setStyleSheet(f"color: {hold}; font-weight: bold;")
        self.notes.setStyleSheet(
            f"color: {self.theme.colour('quiet').name()}; font-size: {self.theme.px(13)}px;"
        )

    def start(self) -> bool:
        """Begin with the count while there are no leads."""
        return self.put_cursor("count")

    def _tag(self, text: str) -> None:
        leads = counted(text)
        self._tagging = True
        self.session.record(leads, station="leads")
