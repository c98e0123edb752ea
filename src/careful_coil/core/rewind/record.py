"""The record of a winding: each datum as it is typed and kept, and what the record is then."""

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import TypeVar

from careful_coil.core.errors import BadValue, CoilError
from careful_coil.core.figures import figure, figures, kept, whole
from careful_coil.core.rewind.layout import Layout, PoleCoil, Shape, single_phase, three_phase
from careful_coil.core.rewind.wire import (
    LARGEST_MM,
    SMALLEST_MM,
    Metal,
    area,
    awg_mm,
    overall,
    read_awg,
    read_swg,
)
from careful_coil.core.sheets.winding import MOST_POLES, MOST_SLOTS
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse

T = TypeVar("T")
MOST_STRANDS, MOST_TURNS, LARGEST = 40, 5000.0, 20000.0
WIRE_WANTED = (
    "the bare wire in mm, wires in hand before it: 0.75, 2 x 0.75, 0.75 + 0.80, 2 x AWG 20"
)
SPAN_WANTED = "a span as it is counted, such as 1-8"
POLE_WANTED = "coils of one pole with their turns, such as 1-8:40 2-7:35 3-6:20"
_SPAN = re.compile(r"1\s*[-–−]\s*(\d{1,3})", re.ASCII)
_POLE = re.compile(r"(\d{1,3})\s*[-–−]\s*(\d{1,3})\s*:\s*(\d{1,4}(?:[.,]\d)?)", re.ASCII)
_STRANDS = re.compile(r"(?:(\d{1,2})\s*[x×]\s*)?(.+)", re.ASCII)
_OHM = re.compile(r"(.+?)(?:\s*(?:at|@)\s*(.+))?")


@dataclass(frozen=True, slots=True)
class Strand:
    """Wires of one gauge in hand: how many, bare mm, as they are named."""

    count: int
    mm: float
    name: str


def read_wire(text: str) -> tuple[Strand, ...]:
    """Return the wires in hand. Raises: BadValue."""
    found = []
    for piece in text.split("+"):
        told = _STRANDS.fullmatch(piece.strip())
        if told is None:
            raise BadValue(text, WIRE_WANTED)
        count = int(told[1] or 1)
        name = " ".join(told[2].upper().removesuffix("MM").split())
        if name.startswith("AWG") or name.endswith("AWG"):
            mm = awg_mm(read_awg(name))
        elif name.startswith("SWG") or name.endswith("SWG"):
            mm = read_swg(name)
        else:
            mm = figure(told[2], Quantity.LENGTH, wanted=WIRE_WANTED)
            name = kept(mm)
        if not (1 <= count <= MOST_STRANDS and SMALLEST_MM <= mm <= LARGEST_MM):
            raise BadValue(text, WIRE_WANTED)
        found.append(Strand(count, mm, name))
    return tuple(found)


def show_wire(strands: tuple[Strand, ...]) -> str:
    """Return wires in hand as they are kept."""
    return " + ".join(f"{s.count} x {s.name}" if s.count > 1 else s.name for s in strands)


def copper_mm2(strands: tuple[Strand, ...]) -> float:
    """Return the area of all wires in hand, mm²."""
    return sum(s.count * area(s.mm) for s in strands)


def covered_mm2(strands: tuple[Strand, ...]) -> float:
    """Return the room all wires in hand take as squares over their enamel (grade 2), mm²."""
    return sum(s.count * overall(s.mm, "grade 2") ** 2 for s in strands)


def read_pole(text: str) -> tuple[PoleCoil, ...]:
    """Return the coils of one pole with their turns. Raises: BadValue."""
    rest = _POLE.sub(" ", text)
    found = [PoleCoil(int(m[1]), int(m[2]), figure(m[3])) for m in _POLE.finditer(text)]
    if rest.strip(" ,;") or not found or any(c.first >= c.last or c.turns <= 0 for c in found):
        raise BadValue(text, POLE_WANTED)
    return tuple(found)


def read_turns(text: str) -> tuple[float, ...]:
    """Return turns per coil, one figure or one for each coil of a group. Raises: BadValue."""
    wanted = "turns per coil such as 28, or of each coil of a group such as 28/26/24"
    return figures(text, least=0.1, most=MOST_TURNS, wanted=wanted)


def read_ohm(text: str) -> tuple[float, float | None]:
    """Return ohms of a phase and the °C they were read at, where said: `3.35 at 22`. Raises: BadValue."""
    told = _OHM.fullmatch(text.strip())
    if told is None:
        raise BadValue(text, "ohms of one phase, such as 3.35 at 22")
    value = parse(told[1], Quantity.RESISTANCE)
    if value.number is None or value.value <= 0:
        raise BadValue(text, "ohms of one phase, such as 3.35 at 22")
    at_c = parse(told[2], Quantity.TEMPERATURE).value if told[2] else None
    return value.value, at_c


def poles_of(text: str) -> str:
    """Return a count of poles as kept. Raises: BadValue."""
    found = whole(text, 2, MOST_POLES, f"poles: an even number, 2 to {MOST_POLES}")
    if found % 2:
        raise BadValue(text, "poles: an even number")
    return str(found)


def span_of(text: str) -> str:
    """Return a span as kept: `1-8`. Raises: BadValue."""
    found = _SPAN.fullmatch(text.strip())
    if found is None or not 2 <= int(found[1]) <= MOST_SLOTS:
        raise BadValue(text, SPAN_WANTED)
    return f"1-{int(found[1])}"


def wire_of(text: str) -> str:
    """Return wires in hand as kept. Raises: BadValue."""
    return show_wire(read_wire(text))


def pole_of(text: str) -> str:
    """Return the coils of one pole as kept. Raises: BadValue."""
    return " ".join(f"{c.first}-{c.last}:{c.turns:g}" for c in read_pole(text))


def turns_of(text: str) -> str:
    """Return turns per coil as kept. Raises: BadValue."""
    return "/".join(f"{n:g}" for n in read_turns(text))


def ohm_of(text: str) -> str:
    """Return ohms of a phase with their °C as kept. Raises: BadValue."""
    ohm, at_c = read_ohm(text)
    return f"{ohm:.6g}" + (f" at {at_c:g}" if at_c is not None else "")


@dataclass(frozen=True, slots=True)
class Record:
    """Data of a winding by field, as kept; what cannot be read any more counts as not said."""

    told: Mapping[str, str]
    phases: int

    def whole(self, field: str) -> int | None:
        """Return a whole number."""
        text = self.told.get(field, "")
        return int(text) if text.isascii() and text.isdecimal() else None

    def figure(self, field: str) -> float | None:
        """Return a figure in mm, mm² or kg."""
        try:
            return float(self.told.get(field, ""))
        except ValueError:
            return None

    def word(self, field: str, usual: str) -> str:
        """Return a word, the usual one where nothing is said."""
        return self.told.get(field, "") or usual

    @property
    def span(self) -> int | None:
        """Return the slots a coil steps over."""
        found = _SPAN.fullmatch(self.told.get("span", ""))
        return int(found[1]) - 1 if found else None

    @property
    def turns(self) -> tuple[float, ...]:
        """Return turns of the coils of a group."""
        return self._read(read_turns, "turns")

    def wire(self, field: str = "wire") -> tuple[Strand, ...]:
        """Return the wires in hand."""
        return self._read(read_wire, field)

    def pole(self, field: str) -> tuple[PoleCoil, ...]:
        """Return the coils of one pole of a single-phase winding."""
        return self._read(read_pole, field)

    @property
    def metal(self) -> Metal:
        """Return copper or aluminium."""
        return "aluminium" if self.told.get("metal") == "aluminium" else "copper"

    @property
    def phase_ohm(self) -> tuple[float, float | None] | None:
        """Return ohms of a phase and their °C."""
        text = self.told.get("phase-ohm", "")
        if not text:
            return None
        try:
            return read_ohm(text)
        except CoilError:
            return None

    def _read(self, read: Callable[[str], tuple[T, ...]], field: str) -> tuple[T, ...]:
        text = self.told.get(field, "")
        if not text:
            return ()
        try:
            return read(text)
        except CoilError:
            return ()

    def layout(self) -> Layout | str:
        """Return where the coils lie, or in words what is missing or cannot be."""
        slots, poles = self.whole("slots"), self.whole("poles")
        if slots is None or poles is None:
            return "Slots and poles first."
        try:
            if self.phases == 1:
                return single_phase(
                    slots, poles, self.pole("main"), self.pole("start"), self.whole("start-at")
                )
            turns = self.turns
            shape: Shape = "concentric" if self.told.get("shape") == "concentric" else "lap"
            return three_phase(
                slots,
                poles,
                layers=self.whole("layers") or 2,
                span=self.span,
                shape=shape,
                consequent=self.told.get("consequent") == "yes",
                turns=turns or (1.0,),
            )
        except CoilError as error:
            return str(error)
