"""The nameplate: pasted or typed in any order, what it implies, its ratings, the tachometer."""

from PySide6.QtCore import Qt

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_intake import SpeedRead
from careful_coil.core.job.noted import note
from careful_coil.core.job.pasted import read_pasted
from careful_coil.core.job.plate import Nameplate, readable, unreadable
from careful_coil.core.kind.plate_checks import plate_told
from careful_coil.core.ledger import Judgement
from careful_coil.core.run.tacho import speed_words, speeds_of
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse
from careful_coil.desk.ask_row import AskRow, EnterButton
from careful_coil.desk.field import LONG, SHORT
from careful_coil.desk.part import NOT_ASKED, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading, plain_label
from careful_coil.desk.theme import Theme

PLATE = ("phases", "volt", "hertz", "amp", "power", "rpm", "serial", "capacitor", "protection")
MORE = (
    *(
        "poles",
        "power-factor",
        "service-factor",
        "code",
        "insulation-class",
        "ambient",
    ),
    *("duty", "rotation", "frame", "enclosure", "kind", "connection", "protector"),
    "power-side",
)
NEEDED = ("phases", "volts", "hertz")
MOST_READINGS, FASTEST = 50, 200_000
IN, OUT = "taken from the line", "given at the shaft"


class PlatePart(Part):
    """The part of Intake that reads the plate."""

    name, title = "plate", "Plate"
    remark = "as printed, both figures where there are two; ? where it cannot be read"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.add_field(
            "paste",
            "The whole plate in any order, typed or pasted",
            self._paste,
            "3~ 1.5 kW 230/400 V 5.9/3.4 A 50 Hz 1420 r/min",
            clears=True,
            most=LONG,
        )
        self.left, self.implied = plain_label(), plain_label()
        self.left.hide()
        self.column.addWidget(self.left)
        self.add_sheet("plate", 4, PLATE)
        self.column.addWidget(self.implied)
        self.side = AskRow()
        self.column.addWidget(self.side)
        self.add_sheet("plate", 4, MORE)
        self.more = EnterButton("More of the plate")
        self.more.setCheckable(True)
        self.more.toggled.connect(self._show_more)
        self.column.addWidget(self.more, 0, Qt.AlignmentFlag.AlignLeft)
        self.column.addWidget(self.add_noted("plate", "ratings"))
        self.rated = plain_label()
        self.column.addWidget(self.rated)
        self.column.addWidget(
            Heading("Tachometer", theme, "mark on the shaft; keep several", rule=True)
        )
        self.add_field("tachometer", "Rev/min, / between readings", self._speeds, "1418/1422/1420")
        self.speeds = plain_label()
        self.column.addWidget(self.speeds)

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return the plate in a line."""
        plate = judged.job.plate
        texts = [t for _, t in plate.as_printed if t.strip()]
        if not texts:
            return "", NOT_ASKED
        if any(f.code.startswith("plate-") and f.verdict == "watch" for f in judged.findings):
            return "watch", "something cannot be true"
        missing = [n for n in NEEDED if not getattr(plate, n)]
        if missing:
            lost = any(unreadable(t) for t in texts)
            return "unproven", "partly unreadable" if lost else f"{', '.join(missing)} missing"
        return "good", f"{plate.printed('volt')} V {plate.hertz:g} Hz"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the plate as printed and what it implies."""
        plate = judged.job.plate
        self.show_notes(judged)
        self._show_more(self.more.isChecked())
        told = plate_told(plate)
        self.implied.setText(f"So it has {'; '.join(told)}." if told else "")
        self.implied.setVisible(bool(told))
        asked = any(f.code == "plate-power" and "Say in or out" in f.why for f in judged.findings)
        question = "More power than can come out of these volts and amps: is it" if asked else ""
        self.side.ask(question, (IN, OUT) if asked else (), self._side)
        self.rated.setText("\n".join(rating_lines(plate)))
        self.rated.setVisible(len(plate.ratings) > 1)
        speeds = judged.job.seen.speeds
        self.fields["tachometer"].show_text("/".join(f"{s:g}" for s in speeds))
        self.speeds.setText(". ".join(self._speed_words(judged)))

    def _speed_words(self, judged: Judgement) -> tuple[str, ...]:
        speeds, plate = judged.job.seen.speeds, judged.job.plate
        hertz = judged.job.supply.hertz if judged.job.supply else plate.hertz
        if not speeds:
            return ()
        fits = hertz is not None and sum(speeds) / len(speeds) <= 60 * hertz
        words = speed_words(speeds_of(speeds, hertz if fits else None), plate.poles)
        return (
            words if fits or hertz is None else (*words, f"Faster than two poles at {hertz:g} Hz")
        )

    def _side(self, answer: str) -> None:
        self.set_down("plate", "power-side", "in" if answer == IN else "out")

    def _show_more(self, wanted: bool) -> None:
        """Show the rarer fields that are filled, all of them where they are wanted."""
        for name in MORE:
            field = self.fields[name]
            field.setVisible(wanted or bool(field.cell.text()))
        filled = bool(self.fields["ratings"].cell.text())
        self.fields["ratings"].setVisible(wanted or filled)

    def _paste(self, text: str) -> None:
        found = read_pasted(text)
        if not found.fields:
            raise BadValue(text, "a nameplate, for example 3~ 1.5 kW 230/400 V 50 Hz 1420 r/min")
        odd = [
            f for f, value in found.fields.items() if not readable(f, value) or len(value) > SHORT
        ]
        left = [*found.left, *(found.fields[f] for f in odd)]
        self.left.setText(f"Not placed, look again: {', '.join(left)}." if left else "")
        self.left.setVisible(bool(left))
        self.session.record(
            *(note("plate", f, value) for f, value in found.fields.items() if f not in odd),
            station="intake",
        )

    def _speeds(self, text: str) -> None:
        parts = [p for p in text.split("/") if p.strip()]
        rpm = tuple(parse(p, Quantity.SPEED).value for p in parts)
        if rpm:
            speeds_of(rpm, None)  # refuses what no speed can be
        if len(rpm) > MOST_READINGS or any(r > FASTEST for r in rpm):
            raise BadValue(text, f"at most {MOST_READINGS} readings, none above {FASTEST} rev/min")
        self.session.record(SpeedRead(rpm=rpm), station="intake")


def rating_lines(plate: Nameplate) -> list[str]:
    """Return the ratings, a line for each connection."""
    lines = []
    places = sorted({r.connection for r in plate.ratings if r.connection is not None})
    for k in places:
        own = "; ".join(r.words() for r in plate.ratings if r.connection == k)
        name = "Only connection" if len(places) == 1 else ("Lower volts", "Higher volts")[min(k, 1)]
        lines.append(f"{name}: {own}.")
    return lines
