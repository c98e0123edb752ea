"""How the winding is made: what its limits hang on."""

from careful_coil.core.condition.polarization import CONSTRUCTIONS
from careful_coil.core.condition.wall import THERMAL
from careful_coil.core.condition.wall_rules import wanted_index
from careful_coil.core.ledger import Judgement
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme


class MadePart(Part):
    """The part that names construction, class, varnish and wire."""

    name, title, remark = "made", "How it is made", "its limits hang on it; blank is the usual"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.add_sheet("winding-made", 2)
        self.answer = Prose(theme)
        self.column.addWidget(self.answer)

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return what it is."""
        wall = judged.facts.wall
        return (
            "good" if judged.job.tested.made else ""
        ), f"{wall.construction}, class {wall.letter}{' assumed' if wall.class_assumed else ''}"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the fields and what follows from them."""
        self.show_notes(judged)
        wall = judged.facts.wall
        span = wall.test_volts()
        volts = "unknown while the plate's volts are"
        if span is not None:
            low, high = span
            volts = f"{low:g} V" if low == high else f"{low:g} to {high:g} V"
        want = wanted_index(wall, self.session.settings)
        index = f"at least {want.least:g}" if want.least else f"not asked for: {want.why}"
        self.answer.say(
            f"{CONSTRUCTIONS[wall.construction].capitalize()}, class {wall.letter}"
            f"{', assumed' if wall.class_assumed else ''} "
            f"({THERMAL[wall.letter]} °C), "
            f"{wall.material}, {wall.metal}.\n"
            f"Insulation at 40 °C: at least {wall.minimum:g} MΩ. {wall.minimum_source}.\n"
            f"Test volts, DC: {volts}. {wall.volts_why()}\n"
            f"Polarization index: {index}"
        )
