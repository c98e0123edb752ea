"""Brushes: length against its least with the hours left, spring, seating, how it sparked."""

from PySide6.QtWidgets import QWidget

from careful_coil.core.errors import BadValue
from careful_coil.core.gear.typed import part_name
from careful_coil.core.ledger import Judgement
from careful_coil.core.mechanics.places import shell_of
from careful_coil.core.sheets.bearings import BRUSH
from careful_coil.desk.flow import Flow
from careful_coil.desk.part import NARROWEST, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.shown import Verdicts
from careful_coil.desk.theme import Theme

FIRST = "B1"  # until another one is named


class BrushesPart(Part):
    """The part of the brushes."""

    codes = ("brush",)
    nothing = "none noted"
    kept = ("chosen",)
    name, title, remark = "brushes", "Brushes", "renewed as a set, bedded in at low volts"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.chosen = ""
        grid = Flow(3, NARROWEST, theme)
        grid.add(self.add_field("brush-name", "Which: B1, B2", self._named, "B1", place=False))
        for field in BRUSH.fields:
            grid.add(self.add_noted("brush", field.name, self._one))
        grid.add(self.add_noted("felt", "hours-week"))
        self.column.addWidget(grid)
        self.list = Verdicts(theme)
        self.column.addWidget(self.list)

    def wanted(self, judged: Judgement) -> bool:
        """Whether it has brushes."""
        return shell_of(judged.job, judged.facts.kinds).brushes

    def start(self) -> QWidget:
        """Start at the length, where a brush is chosen."""
        return self.fields["brush-length" if self.chosen else "brush-name"].entry

    def show_judgement(self, judged: Judgement) -> None:
        """Show the brush chosen and how each one stands."""
        hands = judged.job.hands
        self.chosen = self.chosen or next(iter(hands.brushes), FIRST)
        self.fields["brush-name"].show_text(self.chosen)
        self.show_notes(judged)
        self.list.show_findings(self.own(judged))

    def _one(self) -> str:
        return self.chosen

    def _named(self, text: str) -> None:
        self.chosen = part_name(text, "B1")
        self.again()

    def set_down(self, sheet: str, name: str, text: str, of: str = "") -> None:
        """Record a field of the brush chosen. Raises: BadValue while none is."""
        if sheet == "brush" and not of:
            raise BadValue("no name", "its name first, such as B1")
        super().set_down(sheet, name, text, of)
