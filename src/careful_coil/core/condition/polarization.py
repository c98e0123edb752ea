"""Ratios over the minutes, minima by construction, and where a ratio says nothing."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.errors import ValueOutOfRange

Construction = Literal["random", "form", "old", "armature"]
CONSTRUCTIONS: dict[str, str] = {
    "random": "random wound",
    "form": "form wound",
    "old": "wound before about 1970, or a field",
    "armature": "direct-current armature",
}
FORM_KV = 1.0  # form wound below it is held as random wound is
WAIVED_ABOVE_MEGOHM = 5000.0  # IEEE 43: the current is then too small to judge by
BRITTLE = 8.0
DAMP_BELOW = 1.2  # a polarization index near 1: leakage is all there is
SMALL_W = 7500.0  # below it a random winding's index says little
IEEE_43 = "IEEE 43"


def insulation_minimum(kv: float, construction: str = "random") -> float:
    """Return the least insulation resistance in MΩ at 40 °C of a whole winding.

    `kv` rated kV, line to line, above 0. Random wound, form wound below 1 kV, armatures 5;
    form wound 100; older windings and fields kV + 1. Source: IEEE 43, minimum insulation resistance.
    Raises: ValueOutOfRange.
    """
    if not 0 < kv <= 50:
        raise ValueOutOfRange(f"{kv:g} kV", "rated kV above nothing, at most 50")
    if construction not in CONSTRUCTIONS:
        raise ValueOutOfRange(construction, ", ".join(CONSTRUCTIONS))
    if construction == "old":
        return kv + 1.0
    return 100.0 if construction == "form" and kv >= FORM_KV else 5.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Ratios:
    """What can be had of a test: R(10 min)/R(1 min), R(60 s)/R(30 s), R(60 s)/R(15 s)."""

    pi: float | None
    dar: float | None
    r60_r15: float | None


def ratios_of(megohm: Mapping[float, float]) -> Ratios:
    """Return the ratios of readings in MΩ by seconds (15, 30, 60, 600).

    Raises: ValueOutOfRange for a reading not above nothing. Source: IEEE 43, polarization index; the one-minute
    ratios are shop custom.
    """
    for second, value in megohm.items():
        if not 0 < value < math.inf:
            raise ValueOutOfRange(f"{value:g} MΩ at {second:g} s", "MΩ above nothing")

    def over(late: float, early: float) -> float | None:
        both = late in megohm and early in megohm
        return megohm[late] / megohm[early] if both else None

    return Ratios(pi=over(600, 60), dar=over(60, 30), r60_r15=over(60, 15))


@dataclass(frozen=True, slots=True, kw_only=True)
class Wanted:
    """The least index of a winding, and why none is asked for where `least` is None."""

    least: float | None
    why: str


def index_wanted(
    megohm_60: float | None,
    thermal_class: int,
    construction: str,
    power_w: float | None,
    from_w: float = SMALL_W,
) -> Wanted:
    """Return the polarization index that is wanted: 1.5 class 105, 2.0 class 130 and above.

    `thermal_class` in °C. None where the current is too small to judge by, where field or armature
    has too little winding to it, and on random windings of motors below `from_w` watts.
    Source: IEEE 43, polarization index.
    """
    if megohm_60 is not None and megohm_60 > WAIVED_ABOVE_MEGOHM:
        return Wanted(
            least=None, why="Over 5 GΩ after a minute the current is too small to judge by."
        )
    if construction == "armature":
        return Wanted(least=None, why="On armatures with bare bars the index says nothing.")
    if construction == "random" and (power_w is None or power_w < from_w):
        return Wanted(least=None, why="On a small random winding the index says little.")
    return Wanted(
        least=1.5 if thermal_class < 130 else 2.0,
        why=f"Class {thermal_class}, {CONSTRUCTIONS[construction]}.",
    )
