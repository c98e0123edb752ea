"""Made anew for something else: old and new side by side, wires from the reels, kg to order."""

import math
import re
from collections.abc import Callable

from PySide6.QtWidgets import QWidget

from careful_coil.core.errors import BadValue, CoilError
from careful_coil.core.job import Finding, Verdict, fold
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.written import read_text
from careful_coil.core.rewind.convert import Change, Side, Wanted, coil_form, convert, old_side
from careful_coil.core.rewind.factors import Connection
from careful_coil.core.rewind.layout import PoleCoil
from careful_coil.core.rewind.record import Record, read_turns, show_wire
from careful_coil.core.rewind.reels import MOST_OFFERS, Offer, fitted, offers, read_reels
from careful_coil.core.rewind.rules import plate_of
from careful_coil.core.rewind.single import convert_single
from careful_coil.core.rewind.worked import Plate
from careful_coil.core.sheets.winding import WINDING
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse, show_figure
from careful_coil.desk.part import Part
from careful_coil.desk.rewind.compare import Compare, Line
from careful_coil.desk.rewind.record import worked_of
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.theme import Theme

ROWS = (
    ("volt", "Line volts", "230"),
    ("hertz", "Hertz", "60"),
    ("connection", "Connection", "delta"),
    ("circuits", "Circuits", "2"),
    ("span", "Span", "1-8"),
    ("poles", "Poles", "4"),
    ("turns", "Turns, if not the nearest", "46"),
    ("reels", "Gauges at hand, kg", "0.5 0.56:3.2"),
    ("strands", "Wires in hand, at most", "4"),
)
USUAL_STRANDS = 4


class AnewPart(Part):
    """The part of the new winding; nothing of it is logged until it is wound."""

    kept = ("asked",)
    name, title, remark = (
        "anew",
        "Redesign",
        "rewind for another supply or speed, on the same core; blank keeps what is",
    )

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.asked: dict[str, str] = {}
        self.found: Change | None = None
        self.offers: tuple[Offer, ...] = ()
        self.add_grid(ROWS, 3, self._typed, "anew-")
        self.words = Prose(theme)
        self.table, self.notes = Compare(theme), Verdicts(theme)
        self.head = Heading(
            "Wires from the reels", theme, "by area, wires in hand, room", rule=True
        )
        self.wires = Prose(theme)
        for part in (self.words, self.table, self.notes, self.head, self.wires):
            self.column.addWidget(part)

    def start(self) -> QWidget:
        """Start at the volts."""
        return self.fields["anew-volt"].cell

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return whether there is a record to start from."""
        return "", "from the record" if judged.job.winding else "no record yet"

    def show_judgement(self, judged: Judgement) -> None:
        """Show old and new."""
        for name, _, _ in ROWS:
            self.fields[f"anew-{name}"].show_text(self.asked.get(name, ""))
        self._show()

    def _show(self) -> None:
        self.found, self.offers = None, ()
        self.table.show_rows(())
        self.wires.say("")
        self.notes.show_findings(())
        self.head.setVisible(False)
        judged = self.judged
        if judged is None:
            return
        record, plate = judged.facts.winding, plate_of(judged.job)
        layout = worked_of(judged, self.session).layout
        if layout is None:
            self.words.say("Its record first: slots, poles, turns, wire.")
            return
        if record.phases == 1:
            self._show_single(record, plate)
            return
        try:
            old = old_side(record, plate, layout, judged.job.plate.output_w)
            found = convert(record, old, self._wanted())
            offered = offers(
                found.new.wire_mm2,
                read_reels(self.asked.get("reels", "")),
                int(self.asked.get("strands", "") or USUAL_STRANDS),
            )
        except CoilError as error:
            self.words.say(str(error))
            return
        self.words.say("")
        self.found, self.offers = found, offered
        self.table.show_rows((*_table(found), *_group(record, found), *_form(record, found)))
        self.notes.show_findings([_note(*n) for n in found.notes])
        self.head.setVisible(True)
        self.wires.say(self._wires(found, offered))

    def _show_single(self, record: Record, plate: Plate) -> None:
        """Show both windings for other volts or hertz; the rest stays the maker's."""
        told = self.asked
        try:
            found = convert_single(
                record,
                plate,
                float(told["volt"]) if told.get("volt") else None,
                float(told["hertz"]) if told.get("hertz") else None,
            )
        except CoilError as error:
            self.words.say(str(error))
            return
        self.words.say(
            "Volts and hertz only: poles, spans and the windings' ratio are the motor's kind."
        )
        rows: list[Line] = [("", "as it was", "redesigned")]
        for w in found.windings:
            rows.append((f"{w.name.capitalize()}, a pole", _pole(w.old), _pole(w.new)))
            if w.old_mm2:
                rows.append(
                    (
                        f"{w.name.capitalize()} copper",
                        f"{w.old_mm2:.3f} mm²",
                        f"{w.new_mm2:.3f} mm²",
                    )
                )
        rows.append(("Capacitor", "as it was", f"{show_figure(found.microfarad)} times its µF"))
        self.table.show_rows(rows)
        self.notes.show_findings([_note(*n) for n in found.notes])

    def _wires(self, found: Change, offered: tuple[Offer, ...]) -> str:
        """Return the wires that come nearest, with room against the old and kg to order."""
        if self.judged is None:
            return ""
        kg = worked_of(self.judged, self.session).of("kg").value
        reels = read_reels(self.asked.get("reels", ""))
        lines = []
        for k, f in enumerate(
            fitted(offered, found, self.judged.facts.winding, kg, reels)[:MOST_OFFERS], 1
        ):
            fill = f", slot fill {f.fill_percent:.0f} %" if f.fill_percent is not None else ""
            weight = f", {f.kg:.2f} kg" if f.kg is not None else ""
            lack = f"; only {', '.join(f.short)}" if f.short else ""
            words = f"{show_wire(f.offer.strands)} mm: {f.offer.off_percent:+.1f} % of area"
            lines.append(f"{k}. {words}{fill}{weight}{lack}")
        return (
            "\n".join(lines)
            or "Nothing on these reels comes near: more wires in hand, or other gauges."
        )

    def _wanted(self) -> Wanted:
        told = self.asked
        connection: Connection | None = None
        if told.get("connection"):
            connection = "delta" if told["connection"] == "delta" else "wye"
        return Wanted(
            volt=float(told["volt"]) if told.get("volt") else None,
            hertz=float(told["hertz"]) if told.get("hertz") else None,
            connection=connection,
            circuits=int(told["circuits"]) if told.get("circuits") else None,
            span=int(told["span"].partition("-")[2]) - 1 if told.get("span") else None,
            poles=int(told["poles"]) if told.get("poles") else None,
            turns=float(told["turns"]) if told.get("turns") else None,
        )

    def _typed(self, field: str, text: str) -> None:
        told = text.strip()
        read = READ[field]
        kept = read(told) if told else ""
        self.asked = {k: v for k, v in self.asked.items() if k != field}
        if kept:
            self.asked[field] = kept
        self._show()


def _figure(text: str, quantity: Quantity, wanted: str) -> str:
    value = parse(text, quantity)
    if value.number is None or not 0 < value.value < 1e5:
        raise BadValue(text, wanted)
    return f"{value.value:g}"


def _one_turn(text: str) -> str:
    found = read_turns(text)
    if len(found) != 1:
        raise BadValue(text, "turns per coil, one figure")
    return f"{found[0]:g}"


def _strands(text: str) -> str:
    if not re.fullmatch(r"[1-9]|[1-3]\d|40", text, re.ASCII):
        raise BadValue(text, "wires in hand, 1 to 40")
    return text


def _reels(text: str) -> str:
    read_reels(text)
    return text


def _datum(field: str) -> Callable[[str], str]:
    return lambda text: read_text(WINDING, WINDING.field(field), text, fold(()))


READ: dict[str, Callable[[str], str]] = {
    "volt": lambda t: _figure(t, Quantity.VOLTAGE, "line volts such as 230"),
    "hertz": lambda t: _figure(t, Quantity.FREQUENCY, "hertz such as 60"),
    "connection": _datum("connection"),
    "circuits": _datum("circuits"),
    "span": _datum("span"),
    "poles": _datum("poles"),
    "turns": _one_turn,
    "reels": _reels,
    "strands": _strands,
}


VERDICTS: dict[str, Verdict] = {"hold": "hold", "watch": "watch"}


def _note(verdict: str, words: str) -> Finding:
    return Finding(
        code="anew",
        verdict=VERDICTS.get(verdict, "note"),
        subject=words.split(":", maxsplit=1)[0].rstrip("."),
        why=words,
        station="winding",
    )


def _pole(coils: tuple[PoleCoil, ...]) -> str:
    return " ".join(f"{c.first}-{c.last}:{c.turns:g}" for c in coils)


def _table(found: Change) -> tuple[Line, ...]:
    """Return old and new, one datum a row."""
    old, new = found.old, found.new
    return (
        ("", "as it was", "redesigned"),
        ("Supply", _supply(old), _supply(new)),
        (
            "Circuits, span",
            f"{old.circuits}, 1-{old.span + 1}",
            f"{new.circuits}, 1-{new.span + 1}",
        ),
        ("Turns per coil", f"{old.turns:g}", f"{new.turns:g} ({found.turns:.2f} exactly)"),
        ("Winding factor", f"{old.kw:.3f}", f"{new.kw:.3f}"),
        ("Copper in hand", f"{old.wire_mm2:.3f} mm²", f"{new.wire_mm2:.3f} mm²"),
        ("Gap, back iron", "as it was", f"{new.gap:.1%}, {new.back:.1%} of before"),
        ("Amps", _amp(old), _amp(new)),
        ("Power", _watt(old), _watt(new)),
    )


def _group(record: Record, found: Change) -> tuple[Line, ...]:
    """Return the turns of a group's coils, where they differ."""
    if len(record.turns) < 2:
        return ()
    ratio = found.new.turns / found.old.turns
    was, now = (
        "/".join(f"{n:g}" for n in every)
        for every in (record.turns, [round(n * ratio) for n in record.turns])
    )
    return (("Coils of a group", was, now),)


def _form(record: Record, found: Change) -> tuple[Line, ...]:
    """Return the coil form, where the core is measured."""
    sizes = [coil_form(record, side.span) for side in (found.old, found.new)]
    told = [f"{s[0]:.0f} mm straight, {s[1]:.0f} mm across" if s else "" for s in sizes]
    return (("Coil form", told[0], told[1]),) if all(told) else ()


def _supply(side: Side) -> str:
    return f"{show_figure(side.volt, 4)} V {side.connection}, {side.hertz:g} Hz, {side.poles} poles"


def _amp(side: Side) -> str:
    return "not known" if side.amp is None else f"{show_figure(side.amp)} A"


def _watt(side: Side) -> str:
    if side.watt is None or not math.isfinite(side.watt):
        return "not known"
    return f"{show_figure(side.watt / 1000)} kW"
