"""Leads: tags, readings in the suggested order, the winding as it looks now, what it can still be."""

from functools import partial

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import (
    QBoxLayout,
    QHBoxLayout,
    QVBoxLayout,
    QWidget,
)

from careful_coil.core.job.lead_words import counted
from careful_coil.core.job.meter_words import leads_clipped
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.entry_line import known_of, said_of
from careful_coil.core.probes import PROBES, Request
from careful_coil.core.values import show_ohm
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.field import Field
from careful_coil.desk.flow import Flow
from careful_coil.desk.odds import Odds, Row
from careful_coil.desk.session import Session
from careful_coil.desk.shared.marks import Marks, marks_of
from careful_coil.desk.shared.page import Caution, Drawn, Heading, Page, plain_label
from careful_coil.desk.stations.sheet import Sheet
from careful_coil.desk.stations.why_part import WhyPart
from careful_coil.desk.theme import Theme
from careful_coil.drawing.clips import draw_bunch, draw_kick, draw_run, draw_series
from careful_coil.drawing.scene import looks_of, winding_now


def odds_rows(judged: Judgement) -> list[Row]:
    """Return the candidates of one arrangement and grouping together, likeliest first."""
    found = judged.facts.identification
    merged: dict[tuple[str, str], float] = {}
    early = found is not None and found.status == "unsettled"
    none = "Too early to say what it is" if early else "A winding not known here"
    for c in found.candidates if found else ():
        title = ARRANGEMENTS[c.arrangement].title if c.arrangement else none
        groups = "  ".join(
            "".join(g) if all(len(t) == 1 for t in g) else " ".join(g) for g in c.groups
        )
        key = (title, groups)
        merged[key] = merged.get(key, 0.0) + c.probability
    rows = sorted(merged.items(), key=lambda r: -r[1])[:3]
    if early and rows and rows[0][1] < LEAST_SHOWN:
        return [(rows[0][1], none, "")]
    return [(p, title, groups) for (title, groups), p in rows if p >= 0.001]


LEAST_SHOWN = 0.02  # odds of the likeliest grouping, below which none is worth a line
UNBOUND = 16777215  # pixels: no limit to a widget's height
CROWDED = 45.0  # mm of drawing that leave no room for a second one beside the sheet
MOST_WORDS = max(len(p.words) for p in PROBES.values())
COLUMNS = 3  # of the winding's parts, where the drawing stands below the sheet


class Answers(QWidget):
    """What a kick or a switch test may show, as keys; the caution above them."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        self.caution = Caution("", theme)
        column.addWidget(self.caution)
        row = Flow(MOST_WORDS, 0)
        self.keys: list[EnterButton] = []
        for k in range(MOST_WORDS):
            key = EnterButton(number=k + 1)
            key.setFocusPolicy(Qt.FocusPolicy.NoFocus)  # the strip keeps the cursor
            key.clicked.connect(partial(self._press, k))
            self.keys.append(key)
            row.add(key)
        column.addWidget(row)

    def show_kind(self, kind: str) -> None:
        """Show the answers of a kind of test, or nothing."""
        probe = PROBES.get(kind)
        words, caution = (probe.words, probe.caution) if probe else ((), "")
        self.setVisible(bool(caution))
        self.caution.say(caution)
        for k, key in enumerate(self.keys):
            key.setVisible(k < len(words))
            key.setText(words[k].replace("-", " ") if k < len(words) else "")

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
        count = Field(
            "Leads that come out",
            self._tag,
            theme,
            hint="6   or   bn T1 bu T4 gnye earth   or   black T1-T9",
            name="count",
        )
        count.setMaximumWidth(theme.px(520))
        self.fields["count"] = count
        teach.addWidget(count)
        teach.addStretch()
        self.dead = Caution(
            "Isolated and proved dead? Discharge every capacitor, then show under 5 V across the leads.",
            theme,
        )
        self.sheet_head = Heading("Readings", theme)
        self.sheet = Sheet(theme)
        self.drawn_head = Heading("The winding as it looks now", theme)
        self.drawn = Drawn(theme)
        self.odds = Odds(theme)
        self.marks = Marks(theme)
        self.answers = Answers(session, theme)
        self.marks_head = Heading("Markings to put on", theme, rule=True)
        self.guide_head = Heading("What to clip where", theme)
        self.guide = Drawn(theme)
        self.why = WhyPart(session, theme)
        self.fields["known"] = Field(
            "I know this: tag and role, kept as a leaning under your initials",
            self._know,
            theme,
            hint="B common",
            name="known",
            clears=True,
        )
        self.fields["test-leads"] = Field(
            "Test leads clipped together, Ω; 0 when nulled",
            self._clipped,
            theme,
            hint="0.2",
            name="test-leads",
        )
        for field in self.fields.values():
            field.entered.connect(session.entered)
        self.known = plain_label()
        self.strip_of_tags = EnterButton("Write the strip of tags   Ctrl+T")
        self.strip_of_tags.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.strip_of_tags.clicked.connect(self.tags_wanted)
        self.keep = EnterButton("Keep it as a job: give it a name")
        self.keep.clicked.connect(lambda: session.station_wanted.emit("intake", "name"))
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
        left.addWidget(self.fields["test-leads"])
        left.addStretch()
        right.addWidget(self.drawn_head)
        right.addWidget(self.drawn, 3)
        right.addWidget(self.guide_head)
        right.addWidget(self.guide, 2)
        top.addLayout(left, 58)
        top.addSpacing(12)
        top.addLayout(right, 42)
        column.addWidget(self.dead)
        column.addWidget(self.answers)  # its caution before what to clip where
        column.addLayout(top, 1)
        column.addWidget(
            Heading("What it can still be", theme, "at the right what belongs together", rule=True)
        )
        column.addWidget(self.odds)
        column.addWidget(self.marks_head)
        column.addWidget(self.marks)
        column.addWidget(self.never)
        column.addWidget(self.notes)
        foot = QHBoxLayout()
        foot.addWidget(self.fields["known"], 1)
        foot.addSpacing(16)
        foot.addWidget(self.keep, 0, Qt.AlignmentFlag.AlignBottom)
        foot.addWidget(self.strip_of_tags, 0, Qt.AlignmentFlag.AlignBottom)
        column.addWidget(self.why)
        column.addLayout(foot)
        column.addWidget(self.known)
        self.column.addWidget(self.empty)
        self.column.addWidget(self.work, 1)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Put the drawing below the sheet where both do not fit beside each other."""
        super().resizeEvent(event)
        self._make_room()

    def _make_room(self) -> None:
        beside = self.sheet.least_width() <= 0.56 * (self.viewport().width() - 52)
        ways = QBoxLayout.Direction
        guided = self.guide.isVisibleTo(self)  # then what to clip comes first
        stacked_way = ways.BottomToTop if guided else ways.TopToBottom
        self.top.setDirection(ways.LeftToRight if beside else stacked_way)
        self.columns = 1 if beside else COLUMNS
        job = self.session.open
        if job is not None and job.judged.job.leads:
            drawing = winding_now(job.judged, self.columns)
            self.drawn.show_drawing(drawing, "; ".join(self.sheet.cell_words()))
            high = drawing.height * (self.viewport().width() - 60) / max(drawing.width, 1.0)
            stacked = round(min(high, self.theme.px(260)))
            self.drawn.setMinimumHeight(0 if beside else stacked)
            self.drawn.setMaximumHeight(UNBOUND if beside else stacked)
            crowded = guided and (not beside or drawing.height > CROWDED)
            self.drawn.setVisible(not crowded)
            self.guide.setMinimumHeight(0 if beside else self.theme.px(200))
            self.drawn_head.setVisible(not crowded)

    def opened(self, id: str) -> None:
        """Begin at the top."""
        self._tagging = False
        self.verticalScrollBar().setValue(0)

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
        wanted: set[frozenset[str]] = set()
        if target and target.kind in ("resistance", "switch", "shaft", "spin"):
            wanted = {frozenset((target.ends[0], t)) for t in (target.ends[1], *target.also)}
        self.sheet.show_judgement(judged, frozenset(wanted))
        self._guide(judged, target)
        self.answers.show_kind(target.kind if target else "")
        count = len(judged.job.tags)
        meter = judged.job.meter
        nulled = "leads nulled" if meter.lead_ohm == 0 else "leads not nulled"
        if meter.lead_ohm:
            nulled = f"leads {show_ohm(meter.lead_ohm)}, taken off"
        own = self.fields["test-leads"]
        own.show_text("" if meter.lead_ohm is None else f"{meter.lead_ohm:g}")
        own.setVisible(judged.next is not None and judged.next.code == "test-leads")
        filled = len(self.sheet.cell_words())
        self.sheet_head.say("Readings", f"{filled} of {count * (count - 1) // 2} pairs, {nulled}")
        self.dead.setVisible(judged.job.dead_proved is None and judged.job.plate.phases != 3)
        suspects = judged.facts.identification.suspects if judged.facts.identification else ()
        said = self.sheet.say(suspects[0].why if suspects else "")
        self.suspect.setVisible(bool(suspects) and not said)
        self.suspect.say(suspects[0].why if suspects else "")
        self._make_room()
        self.odds.show_rows(odds_rows(judged))
        rows = marks_of(judged, self.session.settings)
        self.marks.show_rows(rows)
        self.strip_of_tags.setVisible(any(mark != "–" for _, mark, _ in rows))
        self.keep.setVisible(judged.job.loose)
        self.why.show_judgement(judged)
        known = [f"{t} {role}" for t, role in judged.job.known]
        self.known.setText(f"On somebody's word, not proof: {', '.join(known)}." if known else "")
        self.known.setVisible(bool(known))
        found = judged.facts.identification
        status = {
            "proven": "proven",
            "kicked": "by kicks: one more, or three equal amps at reduced volts, proves them",
            "marked": "as marked, the ohms agree; the run decides",
            "owed": "by their ohms; the run decides",
        }.get(judged.facts.naming.word, found.status if found else "")
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

    def _guide(self, judged: Judgement, target: Request | None) -> None:
        """Draw what to clip where, for tests that are more than two probes."""
        looks, drawn, words = looks_of(judged), None, ""
        if target is not None and target.kind == "kick":
            drawn = draw_kick(target.ends, target.sense, looks)
            words = f"battery on {' '.join(target.ends)}, meter on {' '.join(target.sense)}"
        elif target is not None and target.kind == "series":
            drawn = draw_series(target.ends, target.sense, looks)
            words = f"volts on {' '.join(target.ends)}, {target.ends[1]} tied to {target.sense[0]}"
        elif target is not None and target.kind == "run":
            drawn = draw_run(target.lines, target.joints, looks)
            words = "; ".join(f"L{k + 1} on {' '.join(j)}" for k, j in enumerate(target.lines))
        elif target is not None and target.also:
            several = (target.ends[1], *target.also)
            drawn = draw_bunch(target.ends[0], several, looks)
            words = f"{target.ends[0]} against {' '.join(several)} clipped together"
        self.guide_head.setVisible(drawn is not None)
        self.guide.setVisible(drawn is not None)
        if drawn is not None:
            self.guide.show_drawing(drawn, words)

    def explain(self) -> bool:
        """Fold the reasons out or away."""
        job = self.session.open
        if job is not None and self.why.toggle(job.judged):
            QTimer.singleShot(0, lambda: self.ensureWidgetVisible(self.why))  # once it is laid out
        return True

    def _know(self, text: str) -> None:
        if not text:
            return
        job = self.session.open
        step = job.judged.next if job else None
        asked = next((q for q in step.asks if q.reader == "beside"), None) if step else None
        if asked is not None and len(text.split()) == 1:  # a pair that Next asks about
            bodies = said_of(text, asked.ends, asked.choices)
            self.session.record(*bodies, station="leads")
            return
        self.session.record(known_of(text, job.judged.job.tags if job else ()), station="leads")

    def _clipped(self, text: str) -> None:
        job = self.session.open
        if text and job is not None:
            self.session.record(leads_clipped(text, job.judged.job), station="leads")

    def start(self) -> bool:
        """Begin with the count while there are no leads, else at the top of the sheet."""
        self.verticalScrollBar().setValue(0)
        return self.put_cursor("count")

    def _tag(self, text: str) -> None:
        leads = counted(text)
        self._tagging = True
        self.session.record(leads, station="leads")
