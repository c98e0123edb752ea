"""Bearings: the number as read beside the callipers, how it runs, what was done, what to order."""

from functools import partial

from PySide6.QtWidgets import QWidget

from careful_coil.core.job.at_mechanics import BearingNoted
from careful_coil.core.ledger import Judgement
from careful_coil.core.mechanics.bearing import describe
from careful_coil.core.mechanics.bearing_rules import (
    DONE,
    ENDS,
    SEATS,
    STATES,
    WICKS,
    callipers_of,
    found_of,
    proposal_of,
)
from careful_coil.core.mechanics.bearing_typed import bearing_size
from careful_coil.core.mechanics.fields import BEARING, read_field
from careful_coil.desk.ask_row import AskRow
from careful_coil.desk.flow import Flow
from careful_coil.desk.insulation.plot import Plot
from careful_coil.desk.insulation.shown import Prose, Verdicts
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.stations.page import Heading
from careful_coil.desk.theme import Theme
from careful_coil.drawing.bearing import draw_bearing

BALL = (
    ("number", "Number as read, ? worn", "62?3 ZZ"),
    ("size", "Callipers: bore, outside, width", "17 x 40 x 12"),
    ("state", "How it runs", "rough"),
    ("seat", "Its seat", "tight"),
    ("done", "Done", "renewed"),
    ("fitted", "Fitted new", "6203-2RS C3"),
)
SLEEVE = (
    ("oil", "Oil", "ISO VG 32, no additives"),
    ("wick", "Wick", "soaks"),
    ("ports", "Oil ports found of those there", "2 of 2"),
)
ONLY_BALL = ("number", "size", "fitted")
SORT_WORDS = {"ball": "ball", "sleeve": "sleeve"}


class BearingsPart(Part):
    """The part of the bearings, one end at a time."""

    name, title, remark = "bearings", "Bearings", "? stands for a worn character"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.end, self._shown = "drive", ""
        self._judged: Judgement | None = None
        self.which, self.sort = AskRow(), AskRow()
        both = Flow(2, 0)
        for row in (self.which, self.sort):
            both.add(row)
        self.column.addWidget(both)
        self.add_grid((*BALL, *SLEEVE), 3, self._typed, "bearing-")
        self.picture = Plot(theme, "The bearing in section", 10)
        self.found, self.order = Prose(theme), Prose(theme)
        self.words = Prose(theme, "quiet", 13)
        self.words.say(
            f"It runs: {', '.join(STATES)}. Seat: {', '.join(SEATS)}. Done: {', '.join(DONE)}. "
            f"Wick: {', '.join(WICKS)}."
        )
        self.list = Verdicts(theme)
        self.head = Heading("To order", theme, "from what was found", rule=True)
        self.parts = Prose(theme)
        for part in (
            self.found,
            self.picture,
            self.order,
            self.list,
            self.words,
            self.head,
            self.parts,
        ):
            self.column.addWidget(part)

    def start(self) -> QWidget:
        """Start at the number, or at how a sleeve bearing runs."""
        return self.fields[f"bearing-{'state' if self._sleeve() else 'number'}"].cell

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how the worse of both ends stands."""
        own = [f for f in judged.findings if f.code in ("bearing-drive", "bearing-other")]
        if not own:
            return "", "not looked at"
        return own[0].verdict, own[0].subject[0].lower() + own[0].subject[1:]

    def _sleeve(self) -> bool:
        told = self._judged.job.hands.bearings.get(self.end, {}) if self._judged else {}
        return told.get("sort") == "sleeve"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the end chosen: what number and callipers make of it."""
        self._judged = judged
        here = self.session.open.id if self.session.open else ""
        if self._shown != here:
            self._shown, self.end = here, "drive"
        told = judged.job.hands.bearings.get(self.end, {})
        sleeve = self._sleeve()
        self._ask(
            self.which, "Which end?", {n: w.lower() for n, w in ENDS.items()}, self.end, self.choose
        )
        sort = "sleeve" if sleeve else "ball"
        self._ask(self.sort, "What is it?", SORT_WORDS, sort, partial(self._kept, "sort"))
        for name, _, _ in (*BALL, *SLEEVE):
            field = self.fields[f"bearing-{name}"]
            size = " x ".join(told[n] for n in ("bore", "outside", "width") if told.get(n))
            field.show_text(size if name == "size" else told.get(name, ""))
        for name in ONLY_BALL:
            self.fields[f"bearing-{name}"].setVisible(not sleeve)
        for name, _, _ in SLEEVE:
            self.fields[f"bearing-{name}"].setVisible(sleeve)
        self._show_found(judged, sleeve)
        self.list.show_findings(
            [
                f
                for f in judged.findings
                if f.code in (f"bearing-{self.end}", f"bearing-seat-{self.end}")
                or (f.code in ("bearing-speed", "bearing-heat") and ENDS[self.end] in f.subject)
            ]
        )
        self.parts.say(
            "\n".join(f"{p.count} × {p.words}, {p.place}: {p.why}." for p in judged.parts)
            or "Nothing yet."
        )

    def _ask(
        self, row: AskRow, question: str, words: dict[str, str], chosen: str, answered: object
    ) -> None:
        """Show a choice with the chosen one pressed."""
        names = {w: n for n, w in words.items()}
        row.ask(question, tuple(names), lambda w: answered(names[w]))  # type: ignore[operator]
        row.setVisible(True)
        for button, name in zip(row.buttons, words, strict=True):
            button.setCheckable(True)
            button.setChecked(name == chosen)

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
        if self._judged is not None:
            self.show_judgement(self._judged)

    def _typed(self, field: str, text: str) -> None:
        if field == "size":
            self._size(text)
        else:
            self._kept(field, read_field(BEARING, field, text))

    def _size(self, text: str) -> None:
        """Record what callipers said: all three, the bore alone, or nothing."""
        self.session.record(
            *(self._body(n, t) for n, t in bearing_size(text).items()), station="mechanics"
        )

    def _kept(self, field: str, text: str) -> None:
        self.session.record(self._body(field, text), station="mechanics")

    def _body(self, field: str, text: str) -> BearingNoted:
        return BearingNoted.model_validate({"end": self.end, "field": field, "text": text})
