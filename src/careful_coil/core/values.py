"""Bench values in and out of text: one grammar for every cell, file and instrument.

A value keeps the digits it was given as a Decimal in the base unit, so that what is shown again
says neither more nor less than the meter did.
"""

import math
import re
from dataclasses import dataclass
from decimal import ROUND_HALF_EVEN, Decimal
from enum import StrEnum
from fractions import Fraction

from careful_coil.core.errors import AmbiguousValue, BadValue
from careful_coil.core.units import FAMILIES, Family, Quantity

BELOW_NOTHING_OHM = Decimal("0.010")  # a zeroed meter may stand this far below nothing
LONGEST_TEXT = 40
LARGEST, SMALLEST = Decimal("1e15"), Decimal("1e-15")
COMPUTED_DIGITS = 3


class Qualifier(StrEnum):
    """What a reading is when it is not simply a figure."""

    OPEN = "open"
    RISING = "rising"
    UNSTEADY = "unsteady"
    BEEP = "beep"
    ABOVE = "above"


@dataclass(frozen=True, slots=True, kw_only=True)
class BenchValue:
    """A value as read: `number` in the base unit (None where only the qualifier stands)."""

    quantity: Quantity
    number: Decimal | None
    qualifier: Qualifier | None = None
    as_read: str = ""
    foreign: bool = False  # read in another unit of the quantity: shown again as it was read

    @property
    def value(self) -> float:
        """The number as a float; infinite when open, not a number when there is none."""
        if self.number is not None:
            return float(self.number)
        return float("inf") if self.qualifier is Qualifier.OPEN else float("nan")

    @property
    def step(self) -> float:
        """One unit of the last digit given, in the base unit."""
        exponent = 0 if self.number is None else self.number.as_tuple().exponent
        return float(Decimal(1).scaleb(int(exponent)))


_POWERS = {"p": -12, "n": -9, "µ": -6, "m": -3, "": 0, "k": 3, "M": 6, "G": 9, "T": 12}
_SPELLINGS = {"µ": ("µ", "u"), "k": ("k", "K"), "M": ("M", "meg", "Meg")}
_ONE = Decimal(1)
_OPEN_WORDS = {"ol", "o.l", "o.l.", "0l", "0.l", "open", "inf", "infinite", "∞"}
_WORDS = {q.value: q for q in (Qualifier.RISING, Qualifier.UNSTEADY, Qualifier.BEEP)}
NUMBER = r"(?:\d(?:[\d.,'’]|[ ](?=\d{3}(?!\d)))*|[.,]\d+)"  # as written, with its marks
_PLAIN = re.compile(rf"(?P<sign>[-+]?)(?P<number>{NUMBER})\s*(?P<unit>\d?/min|[^\d\s.,].*)?")
_INFIX = re.compile(r"(?P<whole>\d*)(?P<mark>[RkKMmGpnuµ])(?P<part>\d+)\s*(?P<unit>\S*)")
_FRACTION = re.compile(
    r"(?:(?P<whole>\d+)(?:\s+|\s*-\s*))?(?P<top>\d+)\s*/\s*(?P<bottom>\d+)\s*(?P<unit>\S.*)?"
)


def accepted(quantity: Quantity) -> str:
    """Return the words that tell what a cell of this quantity takes."""
    return FAMILIES[quantity].example


def parse(text: str, quantity: Quantity) -> BenchValue:
    """Return the bench value that `text` means in a cell of `quantity`.

    Raises: AmbiguousValue when it can mean two things, BadValue for anything else not understood,
    for a unit of another quantity and for a figure below nothing (further than 10 mΩ or one step
    of the digits given). Source: open formats, bench values in text.
    """
    read = text
    text = _fold(text)
    family = FAMILIES[quantity]
    if not text or len(text) > LONGEST_TEXT:
        raise BadValue(read, family.example)
    if family.ohms:
        word = text.lower()
        qualifier = Qualifier.OPEN if word in _OPEN_WORDS else _WORDS.get(word)
        if qualifier is not None:
            return BenchValue(quantity=quantity, number=None, qualifier=qualifier, as_read=read)
    qualifier = None
    if text.startswith((">", "≥")) and family.ohms:
        qualifier, text = Qualifier.ABOVE, text[1:].lstrip("= ")
    number, unit = _figure(read, text, quantity)
    if number < 0 and not family.signed:
        step = Decimal(1).scaleb(int(number.as_tuple().exponent))
        if quantity is not Quantity.RESISTANCE or -number > max(BELOW_NOTHING_OHM, step):
            raise BadValue(read, family.example, "It is below nothing.")
        number = abs(number * 0)
    if number != 0 and not SMALLEST <= abs(number) <= LARGEST:
        raise BadValue(read, family.example, "No bench has such a figure.")
    return BenchValue(
        quantity=quantity,
        number=number,
        qualifier=qualifier,
        as_read=read,
        foreign=unit.replace("°", "").strip().lower() in {u.lower() for u in family.foreign},
    )


def show(value: BenchValue) -> str:
    """Return the value as text: the digits given, the best prefix, always the unit."""
    if value.number is None:
        return str(value.qualifier)
    if value.foreign:
        return _fold(value.as_read)
    mark = ">" if value.qualifier is Qualifier.ABOVE else ""
    return mark + _show_number(value.number, FAMILIES[value.quantity])


def show_number(number: float, quantity: Quantity, digits: int = COMPUTED_DIGITS) -> str:
    """Return a computed figure as text, to `digits` significant digits, with prefix and unit."""
    if number != number or number in (float("inf"), float("-inf")):
        return "open" if FAMILIES[quantity].ohms and number > 0 else "no figure"
    return _show_number(_round_to(Decimal(repr(float(number))), digits), FAMILIES[quantity])


def show_figure(value: float, digits: int = 3) -> str:
    """Return a figure to so many digits, as a person writes it: 2350, 0.0004, never with an exponent."""
    if not math.isfinite(value) or value == 0:
        return f"{value:g}"
    places = digits - 1 - math.floor(math.log10(abs(value)))
    rounded = round(value, places)
    text = f"{rounded:.{max(places, 0)}f}"
    return text.rstrip("0").rstrip(".") if "." in text else text


def show_percent(share: float) -> str:
    """Return a share of one in whole per cent."""
    return f"{100 * share:.0f} %"


def show_ohm(ohm: float) -> str:
    """Return ohms as text to three digits."""
    return show_number(ohm, Quantity.RESISTANCE)


def show_ohm_to(ohm: float, step: float | None) -> str:
    """Return ohms as text with no more places than a meter of resolution `step` Ω shows."""
    digits = COMPUTED_DIGITS
    if step and 0 < ohm < float("inf"):
        size = Decimal(repr(ohm)).adjusted()
        digits = min(digits, max(size - Decimal(repr(step)).adjusted() + 1, 1))
    return show_number(ohm, Quantity.RESISTANCE, digits)


def _fold(text: str) -> str:
    """One code point for each sign, one blank for each run of white space."""
    table = {"\u2126": "Ω", "\u03bc": "µ", "\u2212": "-", "⁄": "/"}
    for other, ours in table.items():
        text = text.replace(other, ours)
    return " ".join(text.split())


def _figure(read: str, text: str, quantity: Quantity) -> tuple[Decimal, str]:
    """Return the number in the base unit, and the unit as it was written."""
    family = FAMILIES[quantity]
    infix = _INFIX.fullmatch(text)
    if infix is not None and (number := _infix(infix, family)) is not None:
        return number, ""
    fraction = _FRACTION.fullmatch(text)
    if fraction is not None and family.fractions is not None:
        unit = fraction["unit"] or ""
        if int(fraction["bottom"]) and (not family.fractions or unit in family.fractions):
            told = int(fraction["whole"] or 0)
            whole = told + Fraction(int(fraction["top"]), int(fraction["bottom"]))
            number = Decimal(whole.numerator) / Decimal(whole.denominator)
            return _in_base(read, _round_to(number, 6), unit, quantity), unit
        raise BadValue(read, family.example)
    match = _PLAIN.fullmatch(text)
    if match is None:
        raise BadValue(read, family.example)
    number = written(match["number"], read, family.example, family.grouped)
    unit = match["unit"] or ""
    return _in_base(read, -number if match["sign"] == "-" else number, unit, quantity), unit


def _infix(found: re.Match[str], family: Family) -> Decimal | None:
    """Return a number whose unit's letter stands in the place of the point: 4k7, 0R47, 4µ7."""
    mark = {"u": "µ", "K": "k"}.get(found["mark"], found["mark"])
    unit = found["unit"]
    ohms = family.ohms and mark in "RkMmG" and unit.lower() in ("", "ω", "ohm", "ohms")
    farads = family.base == "F" and mark in "pnµ" and unit in ("", "F")
    if not ohms and not farads:
        return None
    power = _POWERS["" if mark == "R" else mark]
    return Decimal(f"{found['whole'] or '0'}.{found['part']}").scaleb(power)


def written(text: str, read: str, wanted: str, grouped: bool = False) -> Decimal:
    """Return a number as people write it: decimal point or comma, thousands by comma, point, ' or blank.

    `grouped` a point before just three digits is asked about too, as a comma always is.
    Raises: AmbiguousValue, BadValue with what was `read` and `wanted`.
    """
    text = text.replace("’", "'").rstrip()
    for mark in ("'", " "):
        text = _ungrouped(text, mark, read, wanted)
    if not set(text) <= set("0123456789.,"):
        raise BadValue(read, wanted)
    point, comma = text.count("."), text.count(",")
    if point and comma:
        last = max(text.rfind("."), text.rfind(","))
        other = "," if text[last] == "." else "."
        if text.count(text[last]) > 1:
            raise BadValue(read, wanted)
        whole = _ungrouped(text[:last], other, read, wanted)
        return Decimal(f"{whole}.{text[last + 1 :]}")
    mark = "." if point else ","
    if max(point, comma) > 1:
        return Decimal(_ungrouped(text, mark, read, wanted))
    whole, found, part = text.partition(mark)
    asked = comma or grouped
    if found and asked and len(part) == 3 and whole not in ("0", "") and len(whole) <= 3:
        raise AmbiguousValue(read, f"{whole}.{part}", f"{whole}{part}")
    return Decimal(f"{whole or '0'}.{part}" if part else whole or "0")


def _ungrouped(text: str, mark: str, read: str, wanted: str) -> str:
    """Return a whole number without the marks between its thousands. Raises: BadValue."""
    if mark not in text:
        return text
    whole, point, part = text, "", ""
    for decimal in ".,":
        if decimal != mark and decimal in text:
            whole, point, part = text.partition(decimal)
    head, *groups = whole.split(mark)
    if not 1 <= len(head) <= 3 or any(len(g) != 3 or not g.isdecimal() for g in groups):
        raise BadValue(read, wanted)
    return f"{head}{''.join(groups)}{point}{part}"


def _in_base(read: str, number: Decimal, unit: str, quantity: Quantity) -> Decimal:
    family = FAMILIES[quantity]
    if quantity is Quantity.TEMPERATURE:
        return _celsius(read, number, unit)
    if quantity is Quantity.CAPACITANCE and unit.lower() == "mf":
        raise AmbiguousValue(read, f"{number} µF", f"{number * 1000} µF (millifarad)")
    unit = unit or family.bare
    if not unit:
        return number
    factor = family.units.get(unit)
    if factor is not None:
        return _times(number, factor)
    for prefix in family.prefixes:
        for spelling in _SPELLINGS.get(prefix, (prefix,)):
            rest = unit[len(spelling) :].strip() if unit.startswith(spelling) else None
            if rest is None or (rest == "" and not family.ohms):
                continue
            rest = rest.lower() if rest.lower() in ("ohm", "ohms") else rest
            known = _ONE if rest == "" else family.units.get(rest)
            if known is not None:
                return _times(number.scaleb(_POWERS[prefix]), known)
    plain = _whatever_case(unit.lower(), family)
    if plain is not None:
        return _times(number.scaleb(_POWERS[plain[0]]), plain[1])
    raise BadValue(read, family.example, f"“{unit}” is not a unit of {quantity.value}.")


def _whatever_case(unit: str, family: Family) -> tuple[str, Decimal] | None:
    """Return prefix and factor of a unit typed in small letters; never of m or M, whose case tells them apart."""
    units = {name.lower(): factor for name, factor in family.units.items()}
    if unit in units:
        return "", units[unit]
    for prefix in family.prefixes:
        for spelling in (prefix, *_SPELLINGS.get(prefix, ())):
            rest = unit.removeprefix(spelling.lower()).strip()
            if spelling in ("m", "M") or not unit.startswith(spelling.lower()):
                continue
            if rest in units or (not rest and family.ohms):
                return prefix, units.get(rest, _ONE)
    return None


def _times(number: Decimal, factor: Decimal) -> Decimal:
    """Return a number by a factor; a power of ten moves the point and keeps the digits."""
    _, digits, exponent = factor.as_tuple()
    if digits == (1,):
        return number.scaleb(int(exponent))
    return number * factor


def _celsius(read: str, number: Decimal, unit: str) -> Decimal:
    unit = unit.replace("°", "").strip() or "C"
    if unit == "C":
        found = number
    elif unit == "F":
        found = _round_to((number - 32) * 5 / 9, 5)
    elif unit == "K":
        found = number - Decimal("273.15")
    else:
        raise BadValue(read, accepted(Quantity.TEMPERATURE), f"“{unit}” is not a temperature unit.")
    if found < Decimal("-273.15"):
        raise BadValue(read, accepted(Quantity.TEMPERATURE), "It is below the absolute zero.")
    return found


def _round_to(number: Decimal, digits: int) -> Decimal:
    if number == 0:
        return Decimal(0)
    for _ in range(2):  # rounding up to the next decade adds a digit: once more takes it off
        place = Decimal(1).scaleb(number.adjusted() - digits + 1)
        number = number.quantize(place, rounding=ROUND_HALF_EVEN)
    return number


def _show_number(number: Decimal, family: Family) -> str:
    if not family.prefixes:
        return f"{number:f} {family.base}".rstrip()
    size = abs(number)
    exponent = size.adjusted() if size else 0
    powers = sorted(_POWERS[p] for p in family.prefixes)
    if size == 0 or (-1 <= exponent < 3 and 0 in (0, *powers) and family.bare == family.base):
        power = 0
    else:
        power = max((p for p in (0, *powers) if p <= exponent), default=min((0, *powers)))
    prefix = next(p for p, value in _POWERS.items() if value == power)
    scaled = number.scaleb(-power)
    return f"{scaled:f} {prefix}{family.base}"
