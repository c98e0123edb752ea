"""How the winding is made: what its limits hang on."""

from careful_coil.core.condition.polarization import CONSTRUCTIONS
from careful_coil.core.condition.wall import THERMAL
from careful_coil.core.condition.wall_rules import wanted_index
from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_insulation import MADE, MadeField, WindingMade
from careful_coil.core.ledger import Judgement
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse
from careful_coil.desk.insulation.shown import Prose
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.theme import Theme

FIELDS: tuple[tuple[MadeField, str, str], ...] = (
    ("construction", "Construction: random, form, old, armature", "random"),
    ("class", "Insulation class: A, E, B, F, H", "F"),
    ("material", "Varnish: thermosetting, thermoplastic", "thermosetting"),
    ("metal", "Wire: copper, aluminium", "copper"),
    ("design-ohm", "Design ohms of a coil at 20 °C", "2.60"),
)


def read_made(field: str, text: str) -> str:
    """Return a field as it is kept; blank takes it back. Raises: BadValue."""
    if not text:
        return ""
    if field == "design-ohm":
        value = parse(text, Quantity.RESISTANCE)
        if value.number is None or value.value <= 0 or value.qualifier is not None:
            raise BadValue(text, "ohms in figures, for example 2.60")
        return f"{value.value:g}"
    for word in MADE[field]:
        if word.lower() == text.lower() or (len(text) > 2 and word.startswith(text.lower())):
            return word
    raise BadValue(text, ", ".join(MADE[field]))


class MadePart(Part):
    """The part that names construction, class, varnish and wire."""

    name, title, remark = "made", "How it is made", "its limits hang on it; blank is the usual"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.add_grid(FIELDS, 2, self._typed, "made-")
        self.answer = Prose(theme)
        self.column.addWidget(self.answer)

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return what it is."""
        wall = judged.wall
        return (
            "good" if judged.job.tested.made else ""
        ), f"{wall.construction}, class {wall.letter}"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the fields and what follows from them."""
        for name, *_ in FIELDS:
            self.fields[f"made-{name}"].show_text(judged.job.tested.made.get(name, ""))
        wall = judged.wall
        span = wall.test_volts()
        volts = "unknown while the plate's volts are"
        if span is not None:
            low, high = span
            volts = f"{low:g} V" if low == high else f"{low:g} to {high:g} V"
        want = wanted_index(wall, self.session.settings)
        index = f"at least {want.least:g}" if want.least else f"not asked for: {want.why}"
        self.answer.say(
            f"{CONSTRUCTIONS[wall.construction].capitalize()}, class {wall.letter} ({THERMAL[wall.letter]} °C), "
            f"{wall.material}, {wall.metal}.\n"
            f"Insulation at 40 °C: at least {wall.minimum:g} MΩ. {wall.minimum_source}.\n"
            f"Test volts, DC: {volts}. {wall.volts_why()}\n"
            f"Polarization index: {index}"
        )

    def _typed(self, field: str, text: str) -> None:
        kept = read_made(field, text)
        self.session.record(
            WindingMade.model_validate({"field": field, "text": kept}), station="insulation"
        )
