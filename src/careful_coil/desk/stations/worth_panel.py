"""Worth repairing? What repair and a new one cost, and what would change the answer."""

from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QPushButton, QVBoxLayout, QWidget

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_intake import EstimateFigure
from careful_coil.core.ledger import Judgement
from careful_coil.desk.field import Field
from careful_coil.desk.session import Session
from careful_coil.desk.stations.page import Heading, plain_label
from careful_coil.desk.theme import Theme

FIELDS = (
    ("parts", "Parts", "45"),
    ("labour", "Labour", "120"),
    ("replacement", "A new one", "310"),
    ("lead_days", "Days until it comes", "14"),
    ("drive", "A drive, if it needs one", ""),
    ("scrap_kg", "Copper in it, kg", "3.5"),
    ("scrap_price", "Scrap, for a kg", "6"),
    ("special", "Cannot be had new: yes or no", "no"),
)
MOST = 1e9


class WorthPanel(QWidget):
    """The part of Intake that weighs repair against replacement; folded until it is asked."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        self.heading = Heading("Worth repairing?", theme, rule=True)
        self.ask = QPushButton("Work it out")
        self.ask.setCheckable(True)
        self.answer = plain_label()
        self.fields: dict[str, Field] = {}
        self._cells = QWidget()
        grid = QGridLayout(self._cells)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(14)
        for k, (name, label, hint) in enumerate(FIELDS):
            field = Field(label, partial(self._typed, name), theme, hint=hint, name=f"worth-{name}")
            self.fields[f"worth-{name}"] = field
            grid.addWidget(field, k // 4, k % 4)
        self.ask.toggled.connect(self._cells.setVisible)
        self._cells.hide()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(8)
        column.addWidget(self.heading)
        column.addWidget(self.ask, 0, Qt.AlignmentFlag.AlignLeft)
        column.addWidget(self._cells)
        column.addWidget(self.answer)

    def show_judgement(self, judged: Judgement) -> None:
        """Show the figures and the answer."""
        figures = dict(judged.job.seen.estimate)
        for name, *_ in FIELDS:
            value = figures.get(name)
            text = "" if value is None else f"{value:g}"
            if name == "special" and value is not None:
                text = "yes" if value else "no"
            self.fields[f"worth-{name}"].show_text(text)
        if figures and not self.ask.isChecked():
            self.ask.setChecked(True)
        own = next((f for f in judged.findings if f.code == "worth-repairing"), None)
        words = (
            f"{own.subject}. {own.why}" if own else "Repair on one side, a new one on the other."
        )
        self.answer.setText(words)
        self.answer.setVisible(self.ask.isChecked())

    def _typed(self, name: str, text: str) -> None:
        value = read_amount(name, text)
        body = EstimateFigure.model_validate({"field": name, "value": value})
        self._session.record(body, station="intake")


def read_amount(name: str, text: str) -> float:
    """Return a figure of the estimate; blank is nothing. Raises: BadValue."""
    if name == "special":
        if text.lower() not in ("yes", "no", ""):
            raise BadValue(text, "yes or no")
        return float(text.lower() == "yes")
    if not text:
        return 0.0
    try:
        value = float(text.replace(",", "."))
    except ValueError:
        raise BadValue(text, "a figure, for example 120 or 45.50") from None
    if not 0 <= value <= MOST:
        raise BadValue(text, "a figure of nothing or more")
    return value
