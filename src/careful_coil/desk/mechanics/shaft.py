"""The shaft: how it turns by hand as a short scale, then what watch and callipers say."""

from PySide6.QtWidgets import QWidget

from careful_coil.core.ledger import Judgement
from careful_coil.core.sheets.mechanics import FELT
from careful_coil.desk.ask_row import AskRow
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.theme import Theme

ROWS = (
    *("coast-down", "end-float", "radial-play", "rub", "start-before", "start-after"),
    *("bolts-drive", "bolts-other", "fan", "seals", "ends"),
)
FEEL = FELT.field("feel")


class ShaftPart(Part):
    """The part of what the hands feel."""

    codes = (
        "shaft-feel",
        "coast-down",
        "end-float",
        "radial-play",
        "rub",
        "start-volts",
        "bolts-drive",
        "bolts-other",
        "fan",
        "seals",
    )
    nothing = "not felt yet"
    name, title, remark = "shaft", "Shaft", "by hand, load off; unplugged, nothing live"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.feel = AskRow(len(FEEL.words))
        self.column.addWidget(self.feel)
        self.add_sheet("felt", 3, ROWS)
        self.words = Prose(theme, "quiet", 13)
        self.words.say(
            "Volts: on a ramp, watching amps, until it starts turning. Bolts: spin it after each one."
        )
        self.list = Verdicts(theme)
        for part in (self.words, self.list):
            self.column.addWidget(part)
        self._ask("")

    def _ask(self, felt: str) -> None:
        self.feel.ask(FEEL.label, FEEL.words, self._felt)
        self.feel.setVisible(True)
        for button, word in zip(self.feel.buttons, FEEL.words, strict=True):
            button.setCheckable(True)
            button.setChecked(word == felt)

    def start(self) -> QWidget:
        """Start at the scale, at what was felt."""
        return next((b for b in self.feel.buttons if b.isChecked()), self.feel.buttons[0])

    def show_judgement(self, judged: Judgement) -> None:
        """Show what was felt and what it means."""
        felt = judged.job.hands.felt
        self._ask(felt.get("feel", ""))
        self.show_notes(judged)
        self.list.show_findings(self.own(judged))

    def _felt(self, word: str) -> None:
        self.set_down("felt", "feel", word)
