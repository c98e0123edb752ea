"""What is typed or pasted at Mechanics, read: each field as it is kept, or why it cannot be."""

import re

import numpy as np

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_mechanics import MOST_BARS, BarsRead
from careful_coil.core.mechanics.bearing import numbers_of, spelled
from careful_coil.core.mechanics.lengths import read_mm
from careful_coil.core.probes.kinds.bar import read_bars
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse

LEAST = 0.001
LONGEST_COAST, MOST_WEEK = 600.0, 168.0
FEWEST_BARS = 3
_DAY = re.compile(r"\d{4}-\d\d-\d\d")
_PORTS = re.compile(r"(\d{1,2})\s*(?:of|/)\s*(\d{1,2})")


def seconds_of(text: str) -> str:
    """Return seconds as kept. Raises: BadValue."""
    return _figure(text.lower().removesuffix("s"), text, LONGEST_COAST, "seconds such as 4.5")


def hours_of(text: str) -> str:
    """Return running hours a week as kept. Raises: BadValue."""
    return _figure(
        text.lower().removesuffix("h"), text, MOST_WEEK, "running hours a week, at most 168"
    )


def volts_of(text: str) -> str:
    """Return volts above nothing as kept. Raises: BadValue."""
    value = parse(text, Quantity.VOLTAGE)
    if value.number is None or not LEAST <= value.value < 1e5:
        raise BadValue(text, "volts such as 62 V")
    return f"{value.value:g}"


def mm_of(text: str) -> str:
    """Return a length as kept, in mm. Raises: BadValue."""
    return f"{read_mm(text):.6g}"


def number_of(text: str) -> str:
    """Return a bearing's number as kept, also one that is not known here. Raises: BadValue."""
    told = spelled(text)
    if not told or not any(c.isdigit() or c == "?" for c in told):
        raise BadValue(text, "a number such as 6203-2RS C3, with ? for a worn character")
    numbers_of(text)
    return " ".join(text.upper().split())


def ports_of(text: str) -> str:
    """Return oil ports found and there, as kept: `2 of 3`. Raises: BadValue."""
    found = _PORTS.fullmatch(text.strip().lower())
    if found is None or int(found[1]) > int(found[2]) or int(found[2]) == 0:
        raise BadValue(text, "oil ports found of those there are, such as 2 of 2")
    return f"{int(found[1])} of {int(found[2])}"


def earlier_of(text: str) -> str:
    """Return an older length and its day as kept: `14.5 2025-11-02`. Raises: BadValue."""
    wanted = "a length and its day, such as 14.5 mm 2025-11-02"
    length, _, day = text.strip().rpartition(" ")
    try:
        told = np.datetime64(day if _DAY.fullmatch(day) else "no day")
    except ValueError:
        raise BadValue(text, wanted) from None
    return f"{mm_of(length)} {told}"


def megohm_of(text: str) -> str:
    """Return MΩ as kept, or open. A bare figure is MΩ. Raises: BadValue, AmbiguousValue."""
    told = text.strip()
    if told.lower() in ("open", "ol"):
        return "open"
    bare = re.fullmatch(r"\d+(?:[.,]\d+)?", told)
    value = parse(f"{told} MΩ" if bare else told, Quantity.RESISTANCE)
    if value.number is None or value.value < 0:
        raise BadValue(text, "MΩ bars to shaft, such as 12, or open")
    return f"{value.value / 1e6:g}"


def bars_count(text: str) -> int:
    """Return a count of bars, 0 for none. Raises: BadValue."""
    told = text.strip()
    if (
        not told.isascii()
        or not told.isdecimal()
        or not (int(told) == 0 or FEWEST_BARS <= int(told) <= MOST_BARS)
    ):
        raise BadValue(text, f"the number of bars, {FEWEST_BARS} to {MOST_BARS}, or 0 for none")
    return int(told)


def bars_read(text: str, first: int) -> BarsRead:
    """Return ohms from bar `first` on, each to the next, typed in a line or pasted. Raises: BadValue."""
    return BarsRead.model_validate(read_bars(text, first))


def _figure(figure: str, text: str, most: float, wanted: str) -> str:
    try:
        value = float(figure.strip().replace(",", "."))
    except ValueError:
        raise BadValue(text, wanted) from None
    if not LEAST <= value <= most:
        raise BadValue(text, wanted)
    return f"{value:g}"
