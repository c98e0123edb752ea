"""Worth repairing? What repair and a new one cost, and what would change the answer."""

from careful_coil.core.job import Finding
from careful_coil.core.ledger import Judgement
from careful_coil.desk.part import NOT_ASKED, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import plain_label
from careful_coil.desk.theme import Theme


class WorthPart(Part):
    """The part of Intake that weighs repair against replacement."""

    name, title, remark = "worth", "Worth it?", "repair on one side, a new one on the other"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.add_sheet("estimate", 3)
        self.answer = plain_label()
        self.column.addWidget(self.answer)

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return the answer, once there is one."""
        own = _finding(judged)
        if own is not None:
            return ("good" if own.verdict == "note" else "watch"), own.subject.lower()
        return ("unproven", "begun") if judged.job.seen.estimate else ("", NOT_ASKED)

    def show_judgement(self, judged: Judgement) -> None:
        """Show the figures and the answer."""
        self.show_notes(judged)
        own = _finding(judged)
        self.answer.setText(f"{own.subject}. {own.why}" if own else "")


def _finding(judged: Judgement) -> Finding | None:
    return next((f for f in judged.findings if f.code == "worth-repairing"), None)
