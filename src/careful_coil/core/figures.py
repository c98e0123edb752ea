"""Figures out of typed text: one, a whole one, several with strokes, a range, dimensions; one reader for all.

Every cell, line and file that wants a float asks here; what a number looks like is known in `values` alone.
"""

import re
from collections.abc import Sequence
from statistics import median

from careful_coil.core.errors import AmbiguousValue, BadValue
from careful_coil.core.units import FAMILIES, Quantity
from careful_coil.core.values import NUMBER, BenchValue, accepted, parse, show

THOUSAND = 300.0, 3000.0  # how often a figure is its neighbours that may be read in another prefix
FEWEST_NEIGHBOURS = 2
_BARE = re.compile(rf"[<>≥-]?\s*(?:{NUMBER}|(?:\d+\s+)?\d+\s*/\s*\d+)")
_WRITTEN = re.compile(r"\d[\d.,'’]*")
_DASH = re.compile(r"\s*(?:[-–—]|\.\.+|\bto\b|\bbis\b)\s*")
_UNIT = re.compile(rf"{NUMBER}\s*(?P<unit>[^\d\s.,/].*)$")


def with_unit(text: str, unit: str) -> str:
    """Return a text with a unit behind it where it is a bare figure."""
    return f"{text} {unit}" if unit and _BARE.fullmatch(text.strip()) else text


def figure(
    text: str,
    quantity: Quantity = Quantity.NUMBER,
    *,
    unit: str = "",
    least: float = 0.0,
    most: float = 1e12,
    wanted: str = "",
) -> float:
    """Return a figure from `least` to `most`, in `unit`, which a bare one is in too; empty: the base unit.

    Raises: AmbiguousValue where it can mean two things, BadValue with what is `wanted` for the rest.
    """
    try:
        value = parse(with_unit(text, unit), quantity)
    except AmbiguousValue:
        raise
    except BadValue as error:
        raise BadValue(text, wanted or error.accepted, error.why) from None
    wanted = wanted or accepted(quantity)
    if value.number is None or value.qualifier is not None:
        raise BadValue(text, wanted)
    found = value.value / one(unit, quantity)
    if not least <= found <= most:
        raise BadValue(text, wanted, f"From {least:g} to {most:g} {unit}".rstrip() + ".")
    return found


def one(unit: str, quantity: Quantity) -> float:
    """Return one of a unit in the base of its quantity."""
    return parse(f"1 {unit}", quantity).value if unit else 1.0


def kept(value: float) -> str:
    """Return a figure as it is kept."""
    return f"{value:.6g}"


def whole(text: str, least: int, most: int, wanted: str) -> int:
    """Return a whole number in its range. Raises: BadValue."""
    value = figure(text, least=least, most=most, wanted=wanted)
    if value != int(value):
        raise BadValue(text, wanted)
    return int(value)


def figures(
    text: str,
    quantity: Quantity = Quantity.NUMBER,
    *,
    unit: str = "",
    counts: Sequence[int] = (),
    least: float = 0.0,
    most: float = 1e12,
    wanted: str = "",
) -> tuple[float, ...]:
    """Return figures with a stroke between two; a unit behind the last is that of all.

    `counts` how many there may be, none: any. Raises: BadValue, AmbiguousValue.
    """
    parts = [p.strip() for p in text.split("/")]
    if counts and len(parts) not in counts:
        raise BadValue(text, wanted or accepted(quantity), f"{len(parts)} figures.")
    tail = _UNIT.search(parts[-1])
    own = tail["unit"].strip() if tail and quantity is not Quantity.NUMBER else ""
    every = [with_unit(p, own) for p in parts]
    return tuple(
        figure(p, quantity, unit=unit, least=least, most=most, wanted=wanted) for p in every
    )


def span(
    text: str,
    quantity: Quantity = Quantity.NUMBER,
    *,
    unit: str = "",
    least: float = 0.0,
    most: float = 1e12,
    wanted: str = "",
) -> tuple[float, float]:
    """Return the ends of a range, `208-230`; a figure alone is both. Raises: BadValue, AmbiguousValue."""
    ends = _DASH.split(text.strip(), maxsplit=1)
    tail = _UNIT.search(ends[-1])
    own = tail["unit"].strip() if tail and quantity is not Quantity.NUMBER else ""
    read = [
        figure(with_unit(e, own), quantity, unit=unit, least=least, most=most, wanted=wanted)
        for e in ends
    ]
    if read[0] > read[-1]:
        raise BadValue(text, wanted or accepted(quantity), "The lower end stands first.")
    return read[0], read[-1]


def dimensions(text: str, count: int, wanted: str, most: float = 5000.0) -> tuple[float, ...]:
    """Return so many lengths in mm, with x or blanks between; a unit behind the last is that of all.

    Raises: BadValue, AmbiguousValue.
    """
    told = text.strip()
    crossed = re.split(r"\s*[x×X*]\s*", told)
    unit = re.search(r"\s*(mm|cm|in|inch|\"|″|thou)\s*$", told)
    parts = crossed
    if len(crossed) == 1:
        bare = told[: unit.start()] if unit else told
        parts = bare.split()
        if any("/" in p for p in parts) and len(parts) > count:
            parts = _fractions(parts)
    own = unit[1] if unit else ""
    if len(parts) != count:
        raise BadValue(text, wanted)
    return tuple(
        figure(
            p if re.search(r"[a-z\"″]\s*$", p) else f"{p} {own}".strip(),
            Quantity.LENGTH,
            least=0.001,
            most=most,
            wanted=wanted,
        )
        for p in parts
    )


def _fractions(parts: Sequence[str]) -> list[str]:
    """Return words with a whole number put before the fraction that follows it: 1 3/8."""
    found: list[str] = []
    for part in parts:
        if "/" in part and found and found[-1].isdecimal():
            found[-1] = f"{found[-1]} {part}"
        else:
            found.append(part)
    return found


def all_in(text: str) -> tuple[float, ...]:
    """Return every figure that stands in words; one that can mean two things is left out."""
    found = []
    for written in _WRITTEN.finditer(text):
        try:
            found.append(parse(written[0].rstrip(".,"), Quantity.NUMBER).value)
        except BadValue:
            continue
    return tuple(found)


def beside(text: str, value: BenchValue, neighbours: Sequence[float]) -> BenchValue:
    """Return a value as typed, asked about where it is about a thousand times off its neighbours.

    A unit written out with its prefix (`4.2 kΩ`) settles it. Raises: AmbiguousValue with both meanings.
    """
    near = [n for n in neighbours if 0 < n < float("inf")]
    if len(near) < FEWEST_NEIGHBOURS or value.number is None or value.value <= 0:
        return value
    if text.rstrip().endswith(tuple(FAMILIES[value.quantity].units)):
        return value
    ratio = value.value / median(near)
    low, high = THOUSAND
    if not (low <= ratio <= high or low <= 1 / ratio <= high):
        return value
    meant = value.number.scaleb(-3 if ratio > 1 else 3)
    other = BenchValue(quantity=value.quantity, number=meant)
    shown = BenchValue(quantity=value.quantity, number=value.number)
    raise AmbiguousValue(text, show(other), show(shown))


_EACH = re.compile(r"(\d)\s*[x×]\s*(\S.*)", re.IGNORECASE)


def of_each(text: str) -> list[str]:
    """Return the readings of several lines as typed: 5.20/5.21/5.20, or 3x5.20 where all read the same."""
    alike = _EACH.fullmatch(text.strip())
    if alike is not None:
        return int(alike[1]) * [alike[2].strip()]
    return [p.strip() for p in text.split("/")]
