"""The shaft: how it turns by hand as a short scale, then what watch and callipers say."""

from PySide6.QtWidgets import QWidget

from careful_coil.core.job.at_mechanics import Felt
from careful_coil.core.ledger import Judgement
from careful_coil.core.mechanics.fields import FELT, read_field
from careful_coil.core.mechanics.shaft_rules import BOLTS, FAN, FEEL, RUB, SEALS
from careful_coil.desk.ask_row import AskRow
from careful_coil.desk.insulation.shown import Prose, Verdicts
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.theme import Theme

CODES = (
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
ROWS = (
    ("coast-down", "Runs on by hand, s", "6"),
    ("end-float", "End float, mm", "0.4"),
    ("radial-play", "Radial play, mm", "0.02"),
    ("rub", "Rub marks", "none"),
    ("start-before", "Turns from, V, before", "48"),
    ("start-after", "… after easing, V", "31"),
    ("bolts-drive", "Bolts, drive end", "turns free"),
    ("bolts-other", "Bolts, other end", "turns free"),
    ("fan", "Fan and guard", "good"),
    ("seals", "Seals", "good"),
    ("ends", "Shaft ends, which load", "one, pulley"),
)


class ShaftPart(Part):
    """The part of what the hands feel."""

    name, title, remark = "shaft", "Shaft", "by hand, load off; unplugged, nothing live"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.feel = AskRow(len(FEEL))
        self.column.addWidget(self.feel)
        self.add_grid(ROWS, 3, self._typed, "felt-")
        self.words = Prose(theme, "quiet", 13)
        self.words.say(
            f"Rub marks: {', '.join(RUB)}. Bolts, spun after each one: {', '.join(BOLTS)}. "
            f"Fan: {', '.join(FAN)}. Seals: {', '.join(SEALS)}. Volts: on a ramp, watching amps, from which it turns."
        )
        self.list = Verdicts(theme)
        for part in (self.words, self.list):
            self.column.addWidget(part)
        self._ask("")

    def _ask(self, felt: str) -> None:
        self.feel.ask("Turned by hand it is", tuple(FEEL), self._felt)
        self.feel.setVisible(True)
        for button, word in zip(self.feel.buttons, FEEL, strict=True):
            button.setCheckable(True)
            button.setChecked(word == felt)

    def start(self) -> QWidget:
        """Start at the scale, at what was felt."""
        return next((b for b in self.feel.buttons if b.isChecked()), self.feel.buttons[0])

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how the shaft stands: the worst of what was found."""
        own = [f for f in judged.findings if f.code in CODES]
        if not own:
            return "", "not felt yet"
        return own[0].verdict, own[0].subject[0].lower() + own[0].subject[1:]

    def show_judgement(self, judged: Judgement) -> None:
        """Show what was felt and what it means."""
        felt = judged.job.hands.felt
        self._ask(felt.get("feel", ""))
        for name, _, _ in ROWS:
            self.fields[f"felt-{name}"].show_text(felt.get(name, ""))
        self.list.show_findings([f for f in judged.findings if f.code in CODES])

    def _felt(self, word: str) -> None:
        self.session.record(Felt(field="feel", text=word), station="mechanics")

    def _typed(self, field: str, text: str) -> None:
        kept = read_field(FELT, field, text)
        body = Felt.model_validate({"field": field, "text": kept})
        self.session.record(body, station="mechanics")
