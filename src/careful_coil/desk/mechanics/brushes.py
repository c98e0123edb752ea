"""Brushes: length against its least with the hours left, spring, seating, how it sparked."""

from PySide6.QtWidgets import QWidget

from careful_coil.core.errors import BadValue
from careful_coil.core.gear.typed import part_name
from careful_coil.core.job.at_mechanics import BrushNoted, Felt
from careful_coil.core.ledger import Judgement
from careful_coil.core.mechanics.brush_rules import SEATINGS, SPARKS, SPRINGS
from careful_coil.core.mechanics.fields import BRUSH, FELT, read_field
from careful_coil.desk.insulation.shown import Prose, Verdicts
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.theme import Theme

ROWS = (
    ("name", "Which: B1, B2", "B1"),
    ("length", "Length, mm", "13.5"),
    ("least", "Least length, mm", "7"),
    ("earlier", "Earlier, and its day", "16 2025-09-01"),
    ("spring", "Spring", "even"),
    ("seating", "Seating", "bedded"),
    ("spark", "Sparks", "light"),
    ("done", "Done", "renewed"),
    ("week", "It runs, hours a week", "20"),
)


class BrushesPart(Part):
    """The part of the brushes."""

    name, title, remark = "brushes", "Brushes", "renewed as a set, bedded in at low volts"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.chosen, self._shown = "", ""
        self._judged: Judgement | None = None
        self.add_grid(ROWS, 3, self._typed, "brush-")
        self.words = Prose(theme, "quiet", 13)
        self.words.say(
            f"Spring: {', '.join(SPRINGS)}. Seating: {', '.join(SEATINGS)}. Sparks: {', '.join(SPARKS)}."
        )
        self.list = Verdicts(theme)
        for part in (self.list, self.words):
            self.column.addWidget(part)

    def start(self) -> QWidget:
        """Start at the length, where a brush is chosen."""
        return self.fields["brush-length" if self.chosen else "brush-name"].cell

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how the brushes stand."""
        own = [f for f in judged.findings if f.code == "brush"]
        if not own:
            return "", "none noted"
        return own[0].verdict, own[0].subject[0].lower() + own[0].subject[1:]

    def show_judgement(self, judged: Judgement) -> None:
        """Show the brush chosen and how each one stands."""
        self._judged = judged
        hands = judged.job.hands
        here = self.session.open.id if self.session.open else ""
        if self._shown != here:
            self._shown, self.chosen = here, next(iter(hands.brushes), "")
        told = hands.brushes.get(self.chosen, {})
        for name, _, _ in ROWS:
            week = {"name": self.chosen, "week": hands.felt.get("hours-week", "")}
            self.fields[f"brush-{name}"].show_text(week.get(name, told.get(name, "")))
        self.list.show_findings([f for f in judged.findings if f.code == "brush"])

    def _typed(self, field: str, text: str) -> None:
        if field == "name":
            self.chosen = part_name(text, "B1")
            if self._judged is not None:
                self.show_judgement(self._judged)
            return
        if field == "week":
            kept = read_field(FELT, "hours-week", text)
            self.session.record(Felt(field="hours-week", text=kept), station="mechanics")
            return
        if not self.chosen:
            raise BadValue("no name", "its name first, such as B1")
        kept = read_field(BRUSH, field, text)
        body = BrushNoted.model_validate({"name": self.chosen, "field": field, "text": kept})
        self.session.record(body, station="mechanics")
