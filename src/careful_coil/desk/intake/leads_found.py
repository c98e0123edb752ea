"""Leads as found: colour, print, size, length, insulation, end; all alike in one key."""

from PySide6.QtCore import QEvent, QObject, QRect, QRectF, Qt
from PySide6.QtGui import QKeyEvent, QPainter
from PySide6.QtWidgets import QWidget

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_intake import Lead, Leads
from careful_coil.core.job.lead_words import alike, counted, lead_words, read_lead
from careful_coil.core.kind.colours import colour_words
from careful_coil.core.kind.plug import pin_of
from careful_coil.core.ledger import Judgement
from careful_coil.desk import paint
from careful_coil.desk.part import NOT_ASKED, Part
from careful_coil.desk.roll import Roll
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import plain_label
from careful_coil.desk.theme import Theme


class LeadRoll(Roll):
    """A stub in the wire's own colour, its tag, what was said of it."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme, "Leads as found")
        self.leads: tuple[Lead, ...] = ()
        self.pins: dict[str, int | None] = {}
        self.fit()

    def count(self) -> int:
        """Return how many leads there are."""
        return len(self.leads)

    def show_leads(self, leads: tuple[Lead, ...], pins: dict[str, int | None]) -> None:
        """Show other leads."""
        self.leads, self.pins = leads, pins
        self.retell()

    def row_words(self, k: int) -> str:
        """Return a lead in words."""
        lead = self.leads[k]
        pin = f" pin {self.pins[lead.tag]}" if self.pins.get(lead.tag) else ""
        return f"{lead.tag} {lead_words(lead) or NOT_ASKED}{pin}"

    def paint_row(self, painter: QPainter, k: int, box: QRect) -> None:
        """Draw a lead."""
        t, lead = self.theme, self.leads[k]
        stub = QRectF(box.left() + 8, box.center().y() - t.px(6), t.px(46), t.px(12))
        paint.stub(painter, t, stub, lead.colour, "")
        if lead.tracer:  # along the wire, as it runs on it
            inner = QRectF(stub.left(), stub.center().y() - 2, stub.width(), 4)
            paint.stub(painter, t, inner, lead.tracer, "")
        x = box.left() + t.px(64)
        paint.text(painter, t, QRect(x, box.top(), t.px(28), box.height()), lead.tag, bold=True)
        rest = QRect(x + t.px(30), box.top(), box.right() - x - t.px(36), box.height())
        words = self.row_words(k).partition(" ")[2]
        quiet = not lead_words(lead)
        paint.text(painter, t, rest, words, token="quiet" if quiet else "ink")


class LeadsPart(Part):
    """The part of Intake that keeps what each lead is like."""

    kept = (
        "_counted",
        "_pending",
    )
    name, title = "leads", "Leads"
    remark = "never clean leads with solvent: printed numbers come off"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.add_field("lead-count", "How many leads come out?", self._count, "6", clears=True)
        self._counted = False
        field = self.add_field(
            "lead", "Lead", self._typed, "brown/white T1 1.5mm² 120mm cracked ring", clears=True
        )
        field.cell.installEventFilter(self)
        field.cell.setObjectName("lead")
        self.keys = plain_label("Up and Down: another lead. = with nothing typed: all alike.")
        self.column.addWidget(self.keys)
        self.roll = LeadRoll(theme)
        self.roll.moved.connect(self._named)
        self.column.addWidget(self.roll)
        self.alike = plain_label()
        self.column.addWidget(self.alike)
        self._pending: tuple[Lead, ...] = ()

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how many leads were described."""
        leads = judged.job.leads
        said = sum(bool(lead_words(x)) for x in leads)
        if not leads or not said:
            return "", NOT_ASKED if not leads else f"{len(leads)} leads, looks {NOT_ASKED}"
        return ("good" if said == len(leads) else "unproven"), f"{said} of {len(leads)} described"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the leads."""
        leads, plug = judged.job.leads, judged.job.seen.plug
        pins = {x.tag: pin_of(plug, x.tag) for x in leads} if plug else {}
        self.roll.show_leads(self._newest(leads), pins)
        self.fields["lead-count"].setVisible(not leads)
        for part in (self.roll, self.keys, self.fields["lead"]):
            part.setVisible(bool(leads))
        self.alike.setText(colour_words(leads))
        self._named()
        if self._counted and leads:
            self._counted = False
            self.fields["lead"].cell.setFocus(Qt.FocusReason.OtherFocusReason)

    def opened(self) -> None:
        """Begin at the first lead."""
        self.roll.current = 0

    def start(self) -> QWidget:
        """Return the cell for the current lead, or for their number."""
        return self.fields["lead" if self.roll.leads else "lead-count"].cell

    def _count(self, text: str) -> None:
        if text:
            self.session.record(counted(text), station="intake")
            self._counted = True

    def _named(self, _: int = 0) -> None:
        """Say which lead is being described."""
        if self.roll.leads:
            lead = self.roll.leads[self.roll.current]
            said = lead_words(lead)
            self.fields["lead"].label.setText(f"Lead {lead.tag}" + (f": {said}" if said else ""))

    def _newest(self, recorded: tuple[Lead, ...]) -> tuple[Lead, ...]:
        """Return the leads with what is typed but still on its way to disk."""
        pending = self._pending
        if self.session.busy and [x.tag for x in pending] == [x.tag for x in recorded]:
            return pending
        return recorded

    def _typed(self, text: str) -> None:
        if not self.roll.leads:
            raise BadValue(text, "the leads counted first")
        if not text:
            return
        leads = self._newest(self.roll.leads)
        here = leads[self.roll.current]
        told = read_lead(text, here)
        self._record(tuple(told if x.tag == here.tag else x for x in leads))
        self.roll.go(self.roll.current + 1)

    def _all_alike(self) -> None:
        """Give all leads what the current one, or the one before it, is like."""
        leads = self._newest(self.roll.leads)
        here = self.roll.current
        if not lead_words(leads[here]) and here:
            here -= 1
        if lead_words(leads[here]):
            self._record(alike(leads, leads[here].tag))

    def _record(self, leads: tuple[Lead, ...]) -> None:
        self._pending = leads
        self.session.record(Leads(leads=leads), station="intake")

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """In the empty cell the arrows walk through the leads and = makes all alike."""
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            step = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(event.key()))
            if step is not None:
                self.roll.go(self.roll.current + step)
                return True
            if event.text() == "=" and not self.fields["lead"].cell.text() and self.roll.leads:
                self._all_alike()
                return True
            enter = event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter)
            last = self.roll.current >= len(self.roll.leads) - 1
            if enter and self.fields["lead"].cell.text() and not last:
                self.fields["lead"].finish()
                return True  # the cursor stays for the next lead
        return super().eventFilter(watched, event)
