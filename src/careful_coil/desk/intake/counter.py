"""The counter: who, what is wrong, Enter; two stubs; the first suspicion while the customer is here."""

from functools import partial

from PySide6.QtCore import QPointF, QRect, Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QPushButton

from careful_coil.core.condition.answered import first_answer, read_symptoms
from careful_coil.core.condition.symptoms import COMPLAINTS, SYMPTOMS
from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_intake import Arrived
from careful_coil.core.job.at_release import read_place
from careful_coil.core.ledger import Judgement
from careful_coil.desk import paint
from careful_coil.desk.ask_row import AskRow, EnterButton
from careful_coil.desk.flow import Flow
from careful_coil.desk.odds import Odds
from careful_coil.desk.painted import Painted
from careful_coil.desk.part import NOT_ASKED, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme

WHO, REST = ("name", "phone"), ("customer", "place", "go-ahead", "promised", "waits")
STATES = {"dismantled": "Came dismantled", "repaired-before": "Somebody repaired it before"}
UNBROKEN = "\N{NO-BREAK SPACE}"
CAUSES_SHOWN, MOST_MISSING = 3, 40


class Stubs(Painted):
    """The two stubs: one hangs on the motor, one goes with the customer."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.number, self.lines = 0, ("", "", "")
        self.setAccessibleName("Stubs")
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows both."""
        return self.theme.px(76)

    def show_job(self, number: int, name: str, phone: str, complaint: str) -> None:
        """Show another job's stubs."""
        self.number, self.lines = number, (name, phone, complaint)
        if self.shows(number, *self.lines):
            self.setAccessibleDescription(f"Motor and customer, number {number}, {name}, {phone}")
            self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw two tags side by side, torn apart in the middle."""
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        name, phone, complaint = self.lines
        half = self.width() // 2
        for k, (title, line) in enumerate((("Motor", complaint), ("Customer", phone))):
            box = QRect(k * half + 1, 1, half - 8, self.height() - 3)
            painter.setPen(QPen(t.colour("note"), 1))
            painter.setBrush(t.colour("surface"))
            painter.drawRect(box)
            painter.setBrush(t.colour("ground"))
            painter.drawEllipse(QPointF(box.left() + t.px(12), box.center().y()), 4, 4)
            inner = box.adjusted(t.px(26), t.px(4), -8, -t.px(4))
            wide = paint.width_of(t, str(self.number), 26, True) + 12
            paint.text(
                painter,
                t,
                QRect(inner.left(), inner.top(), wide, inner.height()),
                str(self.number),
                size=26,
                bold=True,
            )
            right = inner.adjusted(wide, 0, 0, 0)
            third = right.height() // 3
            for n, (words, token, bold) in enumerate(
                ((title, "quiet", False), (name, "ink", True), (line, "quiet", False))
            ):
                row = QRect(right.left(), right.top() + n * third, right.width(), third)
                paint.text(painter, t, row, words, size=13, token=token, bold=bold)


class CounterPart(Part):
    """The part of Intake at the counter."""

    name, title, remark = "counter", "Counter", "everything else can be asked later"
    follows = False  # the customer is asked in the order the fields stand
    stubs_wanted = Signal()

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.add_sheet("ticket", 2, WHO)
        self.column.addWidget(self.add_noted("ticket", "complaint"))
        self.usual = Prose(theme, "quiet", 13)
        items = [f"{k} {w}".replace(" ", UNBROKEN) for k, w in enumerate(COMPLAINTS)]
        self.usual.say("By number, several with a blank between: " + "  ".join(items))
        self.column.addWidget(self.usual)
        self.add_field("work-place", "Where the work is done", self._placed, "1 bench, 2 site")
        self.fields["work-place"].entered.connect(session.entered)  # the last the customer is asked
        self.stubs = Stubs(theme)
        self.column.addWidget(self.stubs)
        self.write = EnterButton("Write the two stubs")
        self.write.clicked.connect(self.stubs_wanted)
        self.column.addWidget(self.write, 0, Qt.AlignmentFlag.AlignLeft)
        self.suspicion = Heading("First suspicion", theme, "a leaning; a test decides", rule=True)
        self.odds, self.asked = Odds(theme), AskRow()
        for part in (self.suspicion, self.odds, self.asked):
            self.column.addWidget(part)
        self.add_field(
            "symptom",
            "How it failed, another word for it",
            self._symptom,
            "trips-later, or no hums",
            clears=True,
        )
        self.column.addWidget(Heading("How it came", theme, rule=True))
        self.add_sheet("ticket", 2, REST)
        row = Flow(len(STATES), 0)
        self.came: dict[str, QPushButton] = {}
        for state, words in STATES.items():
            button = EnterButton(words)
            button.setCheckable(True)
            button.clicked.connect(self._came)
            row.add(button)
            self.came[state] = button
        self.column.addWidget(row)
        self.add_field("missing", "What is missing of it, ; between", self._came, "fan guard; key")

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return whether name and complaint are there."""
        ticket = judged.job.ticket
        if ticket.get("name") and ticket.get("complaint"):
            return "good", ticket["complaint"]
        return ("unproven", "complaint not asked yet") if ticket.get("name") else ("", NOT_ASKED)

    def show_judgement(self, judged: Judgement) -> None:
        """Show ticket, stubs, suspicion, how it came."""
        job, ticket = judged.job, judged.job.ticket
        self.show_notes(judged)
        number = self.session.open.number if self.session.open else 0
        self.usual.setVisible(not ticket.get("complaint"))
        self.stubs.show_job(number, job.name, ticket.get("phone", ""), ticket.get("complaint", ""))
        told = ("site" if job.on_site else "bench") if job.placed else ""
        self.fields["work-place"].show_text(told)
        came = job.seen.arrived
        for state, button in self.came.items():
            button.setChecked(came is not None and state in came.states)
        self.fields["missing"].show_text("; ".join(came.missing) if came else "")
        found = judged.facts.suspicion
        for part in (self.suspicion, self.odds, self.asked):
            part.setVisible(found is not None)
        if found is None:
            return
        self.odds.show_rows([(p, c.title, "") for c, p in found.odds[:CAUSES_SHOWN]])
        named = ", ".join(SYMPTOMS[s][0] for s in found.symptoms)
        self.suspicion.say("First suspicion", named or "a leaning; a test decides")
        self.asked.ask(found.ask, found.answers, partial(self._answered, found.key))

    def _answered(self, key: str, answer: str) -> None:
        self.session.record(*first_answer(key, answer), station="intake")

    def _symptom(self, text: str) -> None:
        if not text:
            return
        self.session.record(*read_symptoms(text), station="intake")

    def _placed(self, text: str) -> None:
        if text:
            self.session.record(read_place(text), station="intake")

    def _came(self, _: object = None) -> None:
        text = self.fields["missing"].cell.text()
        missing = tuple(w.strip() for w in text.split(";") if w.strip())
        if len(missing) > MOST_MISSING:
            raise BadValue(f"{len(missing)} things", f"at most {MOST_MISSING}")
        states = [s for s, button in self.came.items() if button.isChecked()]
        body = Arrived.model_validate({"states": states, "missing": missing})
        self.session.record(body, station="intake")
