"""Worth repairing? A balance of what repair and a new one cost, and what would tip it."""

from careful_coil.core.job import Finding
from careful_coil.core.kind.balance import FIELDS, FIRST, TITLES, balance_of
from careful_coil.core.ledger import Judgement
from careful_coil.core.sheets.intake import ESTIMATE
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.flow import Flow
from careful_coil.desk.part import NARROWEST, NOT_ASKED, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import plain_label
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme
from careful_coil.drawing.balance import HIGH, draw_balance

BESIDE = ("special", "needed", "payer", "lead_days")  # no weight of their own
ALWAYS = (*(f for n in FIRST for f in FIELDS[n]), *BESIDE)


class WorthPart(Part):
    """The part of Intake that weighs repair against replacement."""

    kept = ("every",)
    name, title, remark = "worth", "Worth it?", "repair on one side, a new one on the other"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.every = False  # whether figures are shown that could not tip it
        self.balance = Plot(theme, "Repair against a new one", round(HIGH * 4.3))
        self.column.addWidget(self.balance)
        self.answer = plain_label()
        self.column.addWidget(self.answer)
        grid = Flow(3, NARROWEST, theme)
        for field in ESTIMATE.fields:
            grid.add(self.add_noted("estimate", field.name))
        self.column.addWidget(grid)
        self.rest = Prose(theme, "quiet", 13)
        self.column.addWidget(self.rest)
        self.more = EnterButton("All figures")
        self.more.setCheckable(True)
        self.more.clicked.connect(self._turn)
        self.column.addWidget(self.more)

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return the answer, once there is one."""
        own = _finding(judged)
        if own is not None:
            return ("good" if own.verdict == "note" else "watch"), own.subject.lower()
        return ("unproven", "begun") if judged.job.seen.estimate else ("", NOT_ASKED)

    def show_judgement(self, judged: Judgement) -> None:
        """Show the balance, the figures that could tip it, and the answer."""
        self.show_notes(judged)
        settings = self.session.settings
        limit = settings.repair_threshold.value / 100
        figures = dict(judged.job.seen.estimate)
        found = balance_of(figures, limit)
        self.balance.draw(
            lambda wide, _: draw_balance(found, limit, settings.money, wide),
            "; ".join(f"{p.title} {p.amount:g}" for p in (*found.repair, *found.new) if p.given),
        )
        asked = {*ALWAYS, *found.fields, *figures}
        for field in ESTIMATE.fields:
            shown = self.every or field.name in asked
            self.fields[f"worth-{field.name}"].setVisible(shown)
        cannot = ", ".join(TITLES[n].removeprefix("less ") for n in found.cannot)
        self.rest.say(f"Not asked, for it could not tip it: {cannot}." if cannot else "")
        self.more.setChecked(self.every)
        own = _finding(judged)
        both = "Both sides first: parts or labour, and what a new one costs."
        self.answer.setText(f"{own.subject}. {own.why}" if own else both)

    def _turn(self) -> None:
        self.every = not self.every
        self.again()


def _finding(judged: Judgement) -> Finding | None:
    return next((f for f in judged.findings if f.code == "worth-repairing"), None)
