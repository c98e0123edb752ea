"""Bench values in and out of text: one grammar for every cell, file and instrument.

A value keeps the digits it was given as a Decimal in the base unit, so that what is shown again
says neither more nor less than the meter did.
"""

import re
from dataclasses import dataclass
from decimal import ROUND_HALF_EVEN, Decimal
from enum import StrEnum
from fractions import Fraction

from careful_coil.core.errors import AmbiguousValue, BadValue

HORSEPOWER_W = Decimal("745.7")  # mechanical horsepower, 550 ft·lbf/s
METRIC_HORSEPOWER_W = Decimal("735.5")  # PS, CV: 75 kgf·m/s
BELOW_NOTHING_OHM = Decimal("0.010")  # a zeroed meter may stand this far below nothing
LONGEST_TEXT = 40
LARGEST, SMALLEST = Decimal("1e15"), Decimal("1e-15")
COMPUTED_DIGITS = 3


class Quantity(StrEnum):
    """What a cell holds."""

    RESISTANCE = "resistance"
    CAPACITANCE = "capacitance"
    POWER = "power"
    TEMPERATURE = "temperature"
    VOLTAGE = "voltage"
    CURRENT = "current"
    FREQUENCY = "frequency"
    SPEED = "speed"
    CURRENT_DENSITY = "current density"
    TEMPERATURE_RISE = "temperature rise"


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


@dataclass(frozen=True, slots=True)
class _Family:
    base: str
    bare: str  # the unit of a figure without one
    units: dict[str, Decimal]
    prefixes: str
    example: str
    signed: bool = False


_POWERS = {"p": -12, "n": -9, "µ": -6, "m": -3, "": 0, "k": 3, "M": 6, "G": 9}
_ONE = Decimal(1)
_FAMILIES = {
    Quantity.RESISTANCE: _Family(
        "Ω",
        "Ω",
        {"Ω": _ONE, "ohm": _ONE, "ohms": _ONE, "R": _ONE},
        "µmkMG",
        "ohms, for example 12.4, 4k7, 320 m, 1.2 M, open, rising, unsteady",
    ),
    Quantity.CAPACITANCE: _Family(
        "F", "µF", {"F": _ONE}, "pnµ", "a capacitance, for example 38 µF or 38 mfd"
    ),
    Quantity.POWER: _Family(
        "W",
        "W",
        {
            "W": _ONE,
            "hp": HORSEPOWER_W,
            "HP": HORSEPOWER_W,
            "PS": METRIC_HORSEPOWER_W,
            "CV": METRIC_HORSEPOWER_W,
        },
        "mkM",
        "a power, for example 0.55 kW or 3/4 hp",
    ),
    Quantity.TEMPERATURE: _Family(
        "°C", "°C", {}, "", "a temperature, for example 21, 21 °C or 72 °F", signed=True
    ),
    Quantity.VOLTAGE: _Family("V", "V", {"V": _ONE}, "µmk", "volts, for example 230 or 1.5 kV"),
    Quantity.CURRENT: _Family("A", "A", {"A": _ONE}, "µmk", "amps, for example 6.2 or 85 mA"),
    Quantity.FREQUENCY: _Family("Hz", "Hz", {"Hz": _ONE, "hz": _ONE}, "k", "hertz, for example 50"),
    Quantity.SPEED: _Family(
        "rpm",
        "rpm",
        {"rpm": _ONE, "r/min": _ONE, "1/min": _ONE, "min-1": _ONE},
        "",
        "revolutions per minute, for example 1440",
    ),
    Quantity.CURRENT_DENSITY: _Family(
        "A/mm²",
        "A/mm²",
        {"A/mm²": _ONE, "A/mm2": _ONE},
        "",
        "amps per square millimetre, for example 6.5",
    ),
    Quantity.TEMPERATURE_RISE: _Family(
        "K", "K", {"K": _ONE}, "", "a rise in kelvin, for example 80"
    ),
}
_OPEN_WORDS = {"ol", "o.l", "o.l.", "0l", "0.l", "open", "inf", "infinite", "∞"}
_WORDS = {q.value: q for q in (Qualifier.RISING, Qualifier.UNSTEADY, Qualifier.BEEP)}
_FOREIGN = {
    Quantity.POWER: re.compile(r"(hp|HP|PS|CV)$"),
    Quantity.TEMPERATURE: re.compile(r"[FK]$"),
}
_NUMBER = r"\d+(?:[.,]\d*)?|[.,]\d+"
_PLAIN = re.compile(rf"(?P<sign>-?)(?P<number>{_NUMBER})\s*(?P<unit>1/min|[^\d\s.,].*)?")
_INFIX = re.compile(r"(?P<whole>\d+)(?P<mark>[RkKMmG])(?P<part>\d+)\s*(?P<unit>Ω|[Oo]hms?)?")
_FRACTION = re.compile(r"(?:(?P<whole>\d+)\s+)?(?P<top>\d+)/(?P<bottom>\d+)\s*(?P<unit>\S.*)?")


def accepted(quantity: Quantity) -> str:
    """Return the words that tell what a cell of this quantity takes."""
    return _FAMILIES[quantity].example


def parse(text: str, quantity: Quantity) -> BenchValue:
    """Return the bench value that `text` means in a cell of `quantity`.

    Raises: AmbiguousValue when it can mean two things, BadValue for anything else not understood,
    for a unit of another quantity and for a figure below nothing (further than 10 mΩ or one step
    of the digits given). Source: open formats, bench values in text.
    """
    read = text
    text = _fold(text)
    family = _FAMILIES[quantity]
    if not text or len(text) > LONGEST_TEXT:
        raise BadValue(read, family.example)
    if quantity is Quantity.RESISTANCE:
        word = text.lower()
        if word in _OPEN_WORDS:
            return BenchValue(
                quantity=quantity, number=None, qualifier=Qualifier.OPEN, as_read=read
            )
        if word in _WORDS:
            return BenchValue(quantity=quantity, number=None, qualifier=_WORDS[word], as_read=read)
    qualifier = None
    if text.startswith(">") and quantity is Quantity.RESISTANCE:
        qualifier, text = Qualifier.ABOVE, text[1:].strip()
    number = _figure(read, text, quantity)
    if number < 0 and not family.signed:
        step = Decimal(1).scaleb(int(number.as_tuple().exponent))
        if quantity is not Quantity.RESISTANCE or -number > max(BELOW_NOTHING_OHM, step):
            raise BadValue(read, family.example, "It is below nothing.")
        number = abs(number * 0)
    if number != 0 and not SMALLEST <= abs(number) <= LARGEST:
        raise BadValue(read, family.example, "No bench has such a figure.")
    foreign = _FOREIGN.get(quantity)
    return BenchValue(
        quantity=quantity,
        number=number,
        qualifier=qualifier,
        as_read=read,
        foreign=bool(foreign and foreign.search(text)),
    )


def show(value: BenchValue) -> str:
    """Return the value as text: the digits given, the best prefix, always the unit."""
    if value.number is None:
        return str(value.qualifier)
    if value.foreign:
        return _fold(value.as_read)
    mark = ">" if value.qualifier is Qualifier.ABOVE else ""
    return mark + _show_number(value.number, _FAMILIES[value.quantity])


def show_number(number: float, quantity: Quantity, digits: int = COMPUTED_DIGITS) -> str:
    """Return a computed figure as text, to `digits` significant digits, with prefix and unit."""
    if number != number or number in (float("inf"), float("-inf")):
        return "open" if quantity is Quantity.RESISTANCE and number > 0 else "no figure"
    return _show_number(_round_to(Decimal(repr(float(number))), digits), _FAMILIES[quantity])


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
    table = {"\u2126": "Ω", "\u03bc": "µ", "\u2212": "-", "\u00a0": " ", "\u202f": " "}
    for other, ours in table.items():
        text = text.replace(other, ours)
    return " ".join(text.split())


def _figure(read: str, text: str, quantity: Quantity) -> Decimal:
    family = _FAMILIES[quantity]
    if quantity is Quantity.RESISTANCE and (match := _INFIX.fullmatch(text)):
        mark = match["mark"].replace("R", "").replace("K", "k")
        return Decimal(f"{match['whole']}.{match['part']}").scaleb(_POWERS[mark])
    if quantity is Quantity.POWER and (match := _FRACTION.fullmatch(text)):
        if int(match["bottom"]) == 0:
            raise BadValue(read, family.example)
        fraction = int(match["whole"] or 0) + Fraction(int(match["top"]), int(match["bottom"]))
        number = Decimal(fraction.numerator) / Decimal(fraction.denominator)
        return _in_base(read, _round_to(number, 6), match["unit"] or "", quantity)
    match = _PLAIN.fullmatch(text)
    if match is None:
        raise BadValue(read, family.example)
    number = _decimal(read, match["number"])
    return _in_base(read, -number if match["sign"] else number, match["unit"] or "", quantity)


def _decimal(read: str, text: str) -> Decimal:
    whole, comma, part = text.partition(",")
    if comma:
        if len(part) == 3 and whole not in ("0", ""):
            raise AmbiguousValue(read, f"{whole}.{part}", f"{whole}{part}")
        text = f"{whole}.{part}"
    return Decimal(f"0{text}" if text.startswith(".") else text.rstrip("."))


def _in_base(read: str, number: Decimal, unit: str, quantity: Quantity) -> Decimal:
    family = _FAMILIES[quantity]
    if quantity is Quantity.TEMPERATURE:
        return _celsius(read, number, unit)
    if quantity is Quantity.CAPACITANCE:
        if unit in ("mF", "MF"):
            raise AmbiguousValue(read, f"{number} µF", f"{number * 1000} µF (millifarad)")
        unit = {"mfd": "µF", "MFD": "µF", "Mfd": "µF", "mmf": "pF", "mmfd": "pF", "MMF": "pF"}.get(
            unit, unit
        )
    unit = unit or family.bare
    for prefix in ("", *family.prefixes):
        spellings = {"µ": ("µ", "u"), "k": ("k", "K"), "M": ("M", "meg"), "": ("",)}
        for spelling in spellings.get(prefix, (prefix,)):
            rest = unit[len(spelling) :].strip() if unit.startswith(spelling) else None
            if rest is None or (rest == "" and quantity is not Quantity.RESISTANCE):
                continue
            rest = rest.lower() if rest.lower() in ("ohm", "ohms") else rest
            factor = _ONE if rest == "" else family.units.get(rest)
            if factor is not None:
                scaled = number.scaleb(_POWERS[prefix])
                return scaled if factor == 1 else scaled * factor
    raise BadValue(read, family.example, f"“{unit}” is not a unit of {quantity.value}.")


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


def _show_number(number: Decimal, family: _Family) -> str:
    if family.base == "°C":
        return f"{number:f} °C"
    size = abs(number)
    exponent = size.adjusted() if size else 0
    powers = sorted(_POWERS[p] for p in family.prefixes) or [0]
    candidates = [0, *powers]
    if size == 0 or (-1 <= exponent < 3 and family.base != "F"):
        power = 0
    else:
        power = max((p for p in candidates if p <= exponent), default=min(candidates))
    prefix = next(p for p, value in _POWERS.items() if value == power)
    scaled = number.scaleb(-power)
    return f"{scaled:f} {prefix}{family.base}"


def one_of(text: str, words: tuple[str, ...]) -> str:
    """Return the one word that begins as typed, or is picked by its number from 1. Raises: BadValue."""
    told = text.strip().lower()
    if told.isascii() and told.isdecimal() and told not in words and 1 <= int(told) <= len(words):
        return words[int(told) - 1]
    fits = [w for w in words if w == told] or [w for w in words if told and w.startswith(told)]
    if len(fits) != 1:
        raise BadValue(text, ", ".join(words))
    return fits[0]
