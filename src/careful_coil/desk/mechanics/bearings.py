"""Bearings: the number as read beside the callipers, how it runs, what was done, what to order."""

from PySide6.QtWidgets import QWidget

from careful_coil.core.ledger import Judgement
from careful_coil.core.mechanics.bearing import describe
from careful_coil.core.mechanics.bearing_rules import (
    ENDS,
    callipers_of,
    found_of,
    proposal_of,
)
from careful_coil.core.mechanics.typed import SIZES
from careful_coil.desk.flow import Flow
from careful_coil.desk.part import NARROWEST, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.theme import Theme
from careful_coil.drawing.bearing import draw_bearing

SLEEVE = ("oil", "wick", "ports")
ONLY_BALL = ("number", "size", "fitted")


class BearingsPart(Part):
    """The part of the bearings, one end at a time."""

    codes = ("bearing-drive", "bearing-other")
    nothing = "not looked at"
    kept = ("end",)
    name, title, remark = "bearings", "Bearings", "? stands for a worn character"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.end = "drive"
        end = self._end
        read = Flow(3, NARROWEST, theme)
        read.add(self.add_noted("bearing", "number", end))
        read.add(
            self.add_field(
                "bearing-size",
                "Callipers: bore, outside, width",
                lambda text: self.set_down("bearing", "size", text, self.end),
                "17 x 40 x 12",
                place=False,
            )
        )
        for name in SLEEVE:
            read.add(self.add_noted("bearing", name, end))
        self.found, self.order = Prose(theme), Prose(theme)
        self.list = Verdicts(theme)
        work = Flow(2, NARROWEST, theme)
        for name in ("fitted", "seat"):
            work.add(self.add_noted("bearing", name, end))
        self.picture = Plot(theme, "The bearing in section", 10)
        self.head = Heading("To order", theme, "from what was found", rule=True)
        self.parts = Prose(theme)
        for part in (
            self.add_scale("bearing", "state", end),
            read,
            self.found,
            self.add_scale("bearing", "done", end),
            work,
            self.order,
            self.list,
            self.add_scale("bearing", "sort", end),
            self.picture,
            self.head,
            self.parts,
        ):
            self.column.addWidget(part)

    def start(self) -> QWidget:
        """Start at the number, or at how a sleeve bearing runs."""
        return self.fields[f"bearing-{'state' if self._sleeve() else 'number'}"].entry

    def _sleeve(self) -> bool:
        told = self.judged.job.hands.bearings.get(self.end, {}) if self.judged else {}
        return told.get("sort") == "sleeve"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the end chosen: what number and callipers make of it."""
        told = judged.job.hands.bearings.get(self.end, {})
        sleeve = self._sleeve()
        self.heading.say(f"Bearing, {ENDS[self.end].lower()}", self.remark)
        self.show_notes(judged)
        if not told.get("sort"):
            self.fields["bearing-sort"].show_text("ball")  # until somebody says otherwise
        self.fields["bearing-size"].show_text(" x ".join(told[n] for n in SIZES if told.get(n)))
        for name in ONLY_BALL:
            self.fields[f"bearing-{name}"].setVisible(not sleeve)
        for name in SLEEVE:
            self.fields[f"bearing-{name}"].setVisible(sleeve)
        self._show_found(judged, sleeve)
        self.list.show_findings(
            [
                f
                for f in judged.findings
                if f.code in (f"bearing-{self.end}", f"bearing-seat-{self.end}")
                or (
                    f.code in ("bearing-speed", "bearing-heat")
                    and ENDS[self.end].lower() in f.subject
                )
            ]
        )
        self.parts.say(
            "\n".join(f"{p.count} × {p.words}, {p.place}: {p.why}." for p in judged.facts.parts)
        )
        self.head.setVisible(bool(judged.facts.parts))

    def _show_found(self, judged: Judgement, sleeve: bool) -> None:
        told = judged.job.hands.bearings.get(self.end, {})
        settings = self.session.settings
        found, measured = found_of(told, settings), callipers_of(told)
        for part in (self.found, self.picture, self.order):
            part.setVisible(not sleeve and found.standing != "nothing")
        if sleeve or found.standing == "nothing":
            return
        number = (
            found.numbers[0] if found.standing in ("known", "special") and found.numbers else None
        )
        means = f"\n{describe(number.suffixes)}." if number and number.suffixes else ""
        self.found.say(f"{found.why[0].upper()}{found.why[1:]}{means}")
        size = (number.bearing.bore, number.bearing.outside, number.width) if number else None
        self.picture.setVisible(size is not None or measured.whole)
        closed = number is not None and number.closure != "open"
        self.picture.show_whole(
            draw_bearing(size, dict(measured.told), closed, settings.calliper_apart.value),
            found.why,
        )
        order = proposal_of(told, judged.job, settings)
        self.order.say(f"In its place: {order.words} ({'; '.join(order.why)})." if order else "")

    def choose(self, end: str) -> None:
        """Show the other end."""
        self.end = end
        self.again()

    def _end(self) -> str:
        return self.end
