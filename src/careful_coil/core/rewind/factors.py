"""Winding factors, ohms and mass, turns for another supply, the loop test of a core: in figures.

Pitch and 60° belts: Veinott 1959 and any machine text; resistivity and density as in `wire`; the loop test is
E = 4.44·f·N·B·A (IEEE 1068).
"""

import math
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from careful_coil.core.condition.temperature import resistance_at
from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.rewind.wire import (
    GRAM_PER_CM3,
    OHM_MM2_PER_M,
    REFERENCE_C,
    Metal,
    area,
)
from careful_coil.core.sheets.winding import MOST_POLES, MOST_SLOTS

Connection = Literal["wye", "delta", "single"]
SINE = 4.44  # volts of a sine: 2π/√2


@dataclass(frozen=True, slots=True, kw_only=True)
class Factors:
    """Pitch, distribution and winding factor of the fundamental; slots per pole and phase."""

    pitch: float
    distribution: float
    q: Fraction

    @property
    def winding(self) -> float:
        """Return k_w = k_p · k_d."""
        return self.pitch * self.distribution


def check_core(slots: int, poles: int, phases: int = 3) -> None:
    """Refuse slots and poles no stator has. Raises: ValueOutOfRange."""
    if not 3 <= slots <= MOST_SLOTS:
        raise ValueOutOfRange(f"{slots} slots", f"3 to {MOST_SLOTS}")
    if not 2 <= poles <= MOST_POLES or poles % 2:
        raise ValueOutOfRange(f"{poles} poles", f"an even number, 2 to {MOST_POLES}")
    if not 1 <= phases <= 3:
        raise ValueOutOfRange(f"{phases} phases", "1, 2 or 3")


def factors(slots: int, poles: int, span: int, phases: int = 3) -> Factors:
    """Return the factors of equal coils in belts of 180°/phases; `span` the slots a coil steps over.

    A whole or fractional q is told by its numerator in lowest terms. Raises: ValueOutOfRange.
    """
    check_core(slots, poles, phases)
    if not 1 <= span < slots:
        raise ValueOutOfRange(f"a span of {span} slots", f"1 to {slots - 1}, typed as 1-{span + 1}")
    q = Fraction(slots, poles * phases)
    many = q.numerator
    belt = math.pi / 2 / phases
    pole_pitch = slots / poles
    return Factors(
        pitch=abs(math.sin(math.pi / 2 * span / pole_pitch)),
        distribution=math.sin(belt) / (many * math.sin(belt / many)),
        q=q,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Copper:
    """Ohms of one phase and kg of wire of one phase."""

    ohm: float
    kg: float


def wire_ohm(metres: float, mm2: float, circuits: int = 1, metal: Metal = "copper") -> float:
    """Return the ohms at 20 °C of all wire of a phase, `metres` of `mm2` in hand, parted into circuits."""
    return OHM_MM2_PER_M[metal] * metres / mm2 / circuits**2


def wire_kg(metres: float, mm2: float, metal: Metal = "copper") -> float:
    """Return the mass in kg of `metres` of wire of `mm2` in hand."""
    return GRAM_PER_CM3[metal] * mm2 * metres / 1000


def copper(
    *,
    mean_turn_mm: float,
    turns: float,
    coils: float,
    circuits: int,
    strands: int,
    mm: float,
    at_c: float = REFERENCE_C,
    metal: Metal = "copper",
) -> Copper:
    """Return ohms and kg of a phase of `coils` coils of `turns` turns, `circuits` of them in parallel.

    `strands` wires of `mm` mm bare in hand. Raises: ValueOutOfRange.
    """
    for name, value in (
        ("mean turn", mean_turn_mm),
        ("turns", turns),
        ("coils", coils),
        ("mm", mm),
    ):
        if not value > 0:
            raise ValueOutOfRange(f"{name} {value:g}", "above nothing")
    if circuits < 1 or strands < 1:
        raise ValueOutOfRange(f"{circuits} circuits, {strands} strands", "one or more of each")
    if coils % circuits:
        raise ValueOutOfRange(
            f"{coils:g} coils in {circuits} circuits", "circuits that divide the coils of a phase"
        )
    if not -50 <= at_c <= 250:
        raise ValueOutOfRange(f"{at_c:g} °C", "-50 to 250 °C")
    metres = mean_turn_mm / 1000 * turns * coils
    mm2 = area(mm) * strands
    return Copper(
        ohm=resistance_at(wire_ohm(metres, mm2, circuits, metal), REFERENCE_C, at_c, metal),
        kg=wire_kg(metres, mm2, metal),
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Supplied:
    """What a winding is on: line volts, hertz, connection, circuits in parallel, winding factor."""

    volt: float
    hertz: float
    connection: Connection
    circuits: int
    kw: float

    @property
    def phase_volt(self) -> float:
        """Return the volts of one phase."""
        return self.volt / math.sqrt(3) if self.connection == "wye" else self.volt


@dataclass(frozen=True, slots=True, kw_only=True)
class NewTurns:
    """Turns of the new winding for the same flux, over the old ones, and the wire's area over the old."""

    turns: float
    ratio: float
    area_ratio: float


def new_turns(turns: float, old: Supplied, new: Supplied) -> NewTurns:
    """Return turns for the same flux per pole on another supply. Raises: ValueOutOfRange."""
    for one in (old, new):
        if not (one.volt > 0 and one.hertz > 0 and one.circuits >= 1):
            raise ValueOutOfRange(
                f"{one.volt:g} V, {one.hertz:g} Hz, {one.circuits} circuits", "each above nothing"
            )
        if not 0 < one.kw <= 1:
            raise ValueOutOfRange(f"a winding factor of {one.kw:g}", "above 0, at most 1")
    if not turns > 0:
        raise ValueOutOfRange(f"{turns:g} turns", "above nothing")
    ratio = (
        new.phase_volt
        / old.phase_volt
        * (old.hertz / new.hertz)
        * (old.kw / new.kw)
        * (new.circuits / old.circuits)
    )
    return NewTurns(turns=turns * ratio, ratio=ratio, area_ratio=1 / ratio)


@dataclass(frozen=True, slots=True, kw_only=True)
class Loop:
    """The loop test of a core: area of the back iron in mm², turns round it."""

    area_mm2: float
    turns: float


def core_loop(
    volt: float, hertz: float, tesla: float, depth_mm: float, core_mm: float, stacking: float = 0.95
) -> Loop:
    """Return the turns that bring the back iron to `tesla`; `depth_mm` behind the slots. Raises:
    ValueOutOfRange."""
    for name, value in (
        ("volts", volt),
        ("hertz", hertz),
        ("tesla", tesla),
        ("back iron", depth_mm),
        ("core", core_mm),
    ):
        if not value > 0:
            raise ValueOutOfRange(f"{name} {value:g}", "above nothing")
    if not 0.5 <= stacking <= 1:
        raise ValueOutOfRange(f"a stacking of {stacking:g}", "0.5 to 1, usually 0.95")
    mm2 = stacking * depth_mm * core_mm
    return Loop(area_mm2=mm2, turns=volt / (SINE * hertz * tesla * mm2 * 1e-6))
