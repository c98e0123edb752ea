"""Worked out: every figure with its usual range, or what it still wants; the field's wave, the star of slots."""

from PySide6.QtWidgets import QWidget

from careful_coil.core.job import Finding, Verdict
from careful_coil.core.ledger import Judgement
from careful_coil.core.rewind.worked import Figure
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.part import Part
from careful_coil.desk.rewind.record import worked_of
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.theme import Theme
from careful_coil.drawing.stator import draw_star, draw_wave

MARKS: dict[str, Verdict] = {"good": "good", "watch": "watch", "": "note"}


class WorkedPart(Part):
    """The part of what follows from the record."""

    name, title, remark = "worked", "Worked out", "from record and plate; each says what it wants"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.figures: tuple[Figure, ...] = ()
        self.list, self.wants = Verdicts(theme), Prose(theme, "quiet", 13)
        self.head = Heading("The field", theme, "steps round the bore, and its sine", rule=True)
        self.wave = Plot(theme, "The field round the bore", 10)
        self.star = Plot(theme, "Star of slots", 10)
        self.card = EnterButton("Redesign: rewind for another supply or speed")
        self.card.clicked.connect(lambda: session.station_wanted.emit("winding", "anew"))
        for part in (self.list, self.wants, self.head, self.wave, self.star, self.card):
            self.column.addWidget(part)

    def start(self) -> QWidget:
        """Start at the key."""
        return self.card

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how many figures are known."""
        if not judged.job.winding:
            return "", "nothing noted"
        every = worked_of(judged, self.session).figures
        known = [f for f in every if f.value is not None]
        off = [f for f in known if f.mark == "watch"]
        return ("watch" if off else ""), f"{len(known)} of {len(every)} figures"

    def show_judgement(self, judged: Judgement) -> None:
        """Show figures, wave and star."""
        worked = worked_of(judged, self.session)
        self.figures = worked.figures
        self.list.show_findings([_row(f) for f in worked.figures if f.value is not None])
        missing = [f for f in worked.figures if f.value is None]
        self.wants.say(
            "\n".join(
                f"{f.title} wants {', '.join(dict.fromkeys(f.wants))}." for f in missing if f.wants
            )
        )
        layout = worked.layout
        for part in (self.head, self.wave, self.star):
            part.setVisible(layout is not None)
        if layout is not None:
            self.wave.show_whole(
                draw_wave(layout), "the field round the bore in steps, with its sine"
            )
            self.star.show_whole(draw_star(layout), "star of slots, a ray for each slot's angle")


def _row(f: Figure) -> Finding:
    usual = ""
    if f.high is not None:
        low = f"{f.low.value:g} to" if f.low is not None else "At most"
        usual = f"{low} {f.high.value:g} {f.unit} usual. "
    return Finding(
        code="winding-row",
        verdict=MARKS[f.mark],
        subject=f"{f.title}: {f.shown}",
        why=f"{usual}{f.words[0].upper()}{f.words[1:]}." if f.words else usual.strip(),
        station="winding",
    )
