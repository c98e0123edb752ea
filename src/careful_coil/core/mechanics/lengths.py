"""Lengths as they are typed at a bench: mm, or inches with their mark, decimals or fractions."""

import re
from fractions import Fraction

from careful_coil.core.errors import BadValue
from careful_coil.core.mechanics.bearing_table import INCH

WANTED = "millimetres such as 17 or 17.05, or inches such as 5/8 in"
SMALLEST_MM, LARGEST_MM = 0.001, 5000.0
_ONE = re.compile(r"(?:(\d+)[ -])?(\d+(?:\.\d+)?)(?:/(\d+))?")
_UNIT = re.compile(r"\s*(mm|in|inch|\"|″)?$")


def read_mm(text: str) -> float:
    """Return a length in mm; a bare figure is mm. Raises: BadValue."""
    told = text.strip().lower().replace(",", ".")
    unit = _UNIT.search(told)
    figure = told[: unit.start()] if unit else told
    found = _ONE.fullmatch(figure)
    if found is None or unit is None:
        raise BadValue(text, WANTED)
    inches = unit[1] in ("in", "inch", '"', "″")
    whole, top, below = found[1], found[2], found[3]
    if ((whole or below) and not inches) or (below and ("." in top or int(below) == 0)):
        raise BadValue(text, WANTED)
    value = float(Fraction(top) / Fraction(below)) if below else float(top)
    value += float(whole or 0)
    value *= INCH if inches else 1.0
    if not SMALLEST_MM <= value <= LARGEST_MM:
        raise BadValue(text, WANTED)
    return value


def read_three(text: str) -> tuple[float, float, float]:
    """Return bore, outside diameter and width in mm, typed in one line. Raises: BadValue."""
    wanted = "bore, outside diameter and width in mm, such as 17 x 40 x 12"
    told = text.lower().replace("×", " ").replace("x", " ")
    inches = bool(re.search(r"(in|inch|\"|″)\s*$", told))
    pieces = re.sub(r"(mm|inch|in|\"|″)", " ", told).split()
    if len(pieces) != len(("bore", "outside", "width")):
        raise BadValue(text, wanted)
    bore, outside, width = (read_mm(f"{p} in" if inches else p) for p in pieces)
    if not bore < outside:
        raise BadValue(text, wanted, "The bore is smaller than the outside.")
    return bore, outside, width
