"""Worth repairing? What repair and a new one cost, and what would change the answer."""

from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure
from careful_coil.core.job import Finding
from careful_coil.core.job.at_intake import EstimateFigure
from careful_coil.core.kind.worth import FLAGS
from careful_coil.core.ledger import Judgement
from careful_coil.desk.part import NOT_ASKED, Part
from careful_coil.desk.session import Session
from careful_coil.desk.stations.page import plain_label
from careful_coil.desk.theme import Theme

FIELDS = (
    ("parts", "Parts", "45"),
    ("bearings", "Bearings", "24"),
    ("labour", "Labour", "120"),
    ("rewind_kg", "Wire for a rewind, kg", "3.5"),
    ("rewind_price", "Rewind, for a kg", "60"),
    ("drive", "A drive, if it needs one", ""),
    ("replacement", "A new one", "310"),
    ("lead_days", "Days until it comes", "14"),
    ("special", "Cannot be had new", "no"),
    ("needed", "Is one needed at all", "yes"),
    ("scrap_kg", "Copper in it, kg", "3.5"),
    ("scrap_price", "Copper, for a kg", "6"),
    ("aluminium_kg", "Aluminium in it, kg", "1.2"),
    ("aluminium_price", "Aluminium, for a kg", "1.5"),
)
MOST = 1e9


class WorthPart(Part):
    """The part of Intake that weighs repair against replacement."""

    name, title, remark = "worth", "Worth it?", "repair on one side, a new one on the other"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.add_grid(FIELDS, 3, self._typed, "worth-")
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
        figures = dict(judged.job.seen.estimate)
        for name, *_ in FIELDS:
            value = figures.get(name)
            text = "" if value is None else f"{value:g}"
            if name in FLAGS and value is not None:
                text = "yes" if value else "no"
            self.fields[f"worth-{name}"].show_text(text)
        own = _finding(judged)
        self.answer.setText(f"{own.subject}. {own.why}" if own else "")

    def _typed(self, name: str, text: str) -> None:
        value = read_amount(name, text)
        body = EstimateFigure.model_validate({"field": name, "value": value})
        self.session.record(body, station="intake")


def _finding(judged: Judgement) -> Finding | None:
    return next((f for f in judged.findings if f.code == "worth-repairing"), None)


def read_amount(name: str, text: str) -> float:
    """Return a figure of the estimate; blank is nothing. Raises: BadValue."""
    if name in FLAGS:
        if text.lower() not in ("yes", "no", ""):
            raise BadValue(text, "yes or no")
        usual = name == "needed"
        return float(text.lower() == "yes" if text else usual)
    if not text:
        return 0.0
    return figure(text, most=MOST, wanted="a figure, for example 120 or 45.50")
