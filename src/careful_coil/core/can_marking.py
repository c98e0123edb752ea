"""What is printed on a capacitor: µF or a range of it, volts, tolerance, sections, what kind it says.

`88-108 µF 250 V`, `189–227 mfd 110 VAC`, `35 µF ±5 % 450 V`, `35/5 MFD 440`. What cannot be true is
named, never mended.
"""

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

from careful_coil.core.errors import BadValue, CoilError
from careful_coil.core.figures import figure
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse

Kind = Literal["start", "run", "dc", ""]
WANTED = "for example 88-108 µF 250 V, 35 µF ±5 % 450 V, 35/5 µF 440 V, or in short 35 450"
LONGEST = 120
RANGE_OF_START = 1.12  # high over low from which a range speaks for a start capacitor
START_VOLTS = (
    130.0  # a single figure at so few volts or less, and this many µF, is a start capacitor
)
START_MICROFARAD = 40.0
_UNIT = r"(?:(?i:µF|μF|uF|mfd|mF|nF|pF|mmf)|F)"
_NUMBER = r"\d+(?:[.,]\d+)?"
_FARADS = re.compile(
    rf"(?P<first>{_NUMBER})\s*(?:(?P<dash>-|–|—|to|\.\.)\s*(?P<last>{_NUMBER}))?"
    rf"(?P<more>(?:\s*[/+]\s*{_NUMBER})*)\s*(?P<unit>{_UNIT})(?![A-Za-z])"
)
_VOLTS = re.compile(
    rf"(?P<volt>{_NUMBER})(?:\s*/\s*(?P<more>{_NUMBER}))?\s*"
    r"(?:V(?:AC|DC|~|\s?D[A-D]|\.?\s?a\.?c\.?|\.?\s?d\.?c\.?)?|volts?)(?![A-Za-z])",
    re.I,
)
# class of operation, which only capacitors that stay in have (IEC 60252-1)
_CLASS = re.compile(r"V\s?D[A-D]\b|\bD?B\b|\bclass\s*[A-D]\b|\bS[0-3]\b|\bP[0-2]\b", re.I)
# two figures without a unit: µF first, as it is printed
_BARE = re.compile(
    rf"(?P<farad>{_NUMBER}(?:\s?[-–/]\s?{_NUMBER})?)\s+(?P<volt>{_NUMBER})\s*(?P<unit>V(?:\s?[AD]C)?)?",
    re.I,
)
EITHER = (
    370.0,
    440.0,
)  # V: a can that is made for 440 V and takes the place of one for 370 V as well
_BARE_VOLT = re.compile(r"(?P<volt>[1-9]\d{2})(?P<more>(?!))?")  # three figures behind the µF
LEAST_VOLT = 100.0  # of a motor's capacitor: less beside a bare µF is read as something else
_DC = re.compile(r"V\s*DC|\bDC\b|d\.c\.|polari[sz]ed|\bPOL\b", re.I)
_TOLERANCE = re.compile(
    rf"(?:±|\+/?-|\+\s*/\s*-)\s*(?P<both>{_NUMBER})\s*%|[-−]\s*(?P<low>{_NUMBER})\s*(?:%\s*)?/?\s*\+\s*(?P<high>{_NUMBER})\s*%|\+\s*(?P<up>{_NUMBER})\s*(?:%\s*)?/?\s*[-−]\s*(?P<down>{_NUMBER})\s*%"
    rf"|(?<![\d.,/+−-])(?P<bare>{_NUMBER})\s*%"
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Marking:
    """A marking as read: µF from `low` to `high` (equal for a single figure), V rms, 0 where none.

    `sections` of a can with several, in order, each a single figure; `tolerance` in % below and above,
    where printed: it proves no kind; `kind` what it says or speaks for; `notes` what is missing or odd.
    Of two voltages the lower counts.
    """

    text: str
    low: float
    high: float
    volt: float = 0.0
    tolerance: tuple[float, float] | None = None
    sections: tuple[float, ...] = ()
    kind: Kind = ""
    notes: tuple[str, ...] = ()

    @property
    def ranged(self) -> bool:
        """Whether a range is printed."""
        return self.high > self.low

    def allowed(self, below: float, above: float) -> tuple[float, float]:
        """Return the µF it may measure: its range, else its tolerance, else so many % below and above."""
        if self.ranged:
            return self.low, self.high
        down, up = self.tolerance or (below, above)
        return self.low * (1 - down / 100), self.high * (1 + up / 100)


def in_full(text: str) -> str:
    """Return µF and volts with their units where two bare figures are given, any other text as it is."""
    bare = _BARE.fullmatch(text.strip())
    if bare is None or figure(bare["volt"]) < LEAST_VOLT:
        return text
    return f"{bare['farad']} µF {bare['volt']} {(bare['unit'] or 'V').upper()}"


def read_marking(text: str) -> Marking:
    """Return a capacitor's marking. Raises: BadValue, AmbiguousValue with what was read and is accepted."""
    told = " ".join(text.split())
    if not told or len(told) > LONGEST:
        raise BadValue(text, WANTED)
    told = in_full(told)
    found = _FARADS.search(told)
    if found is None:
        raise BadValue(text, WANTED, "No µF in it.")
    unit = found["unit"].replace("μ", "µ")
    values = [_farad(v, unit, text) for v in _all_figures(found)]
    if any(v <= 0 for v in values):
        raise BadValue(text, "a capacitance above nothing", "A capacitor of 0 µF is none.")
    low = high = values[0]
    sections: tuple[float, ...] = ()
    if found["dash"]:
        high = values[1]
        if high < low:
            raise BadValue(
                text, f"the smaller figure first: {high:g}-{low:g} µF", "The range runs backwards."
            )
    elif found["more"]:
        sections = tuple(values)
    rest = told[: found.start()] + " " + told[found.end() :]
    tolerance = _tolerance(rest)
    unsaid = _TOLERANCE.sub(" ", rest)
    volts = _VOLTS.search(unsaid) or _BARE_VOLT.fullmatch(unsaid.strip())
    told_volt = [volts[k] for k in ("volt", "more") if volts[k]] if volts else []
    each = tuple(figure(v, Quantity.VOLTAGE) for v in told_volt)
    volt = max(each) if each == EITHER else min(each, default=0.0)
    marking = Marking(
        text=told, low=low, high=high, volt=volt, tolerance=tolerance, sections=sections
    )
    return replace(marking, kind=_kind(marking, told), notes=tuple(_notes(marking, told)))


def _all_figures(found: re.Match[str]) -> list[str]:
    last = [found["last"]] if found["last"] else []
    return [found["first"], *last, *re.findall(_NUMBER, found["more"] or "")]


def _farad(number: str, unit: str, text: str) -> float:
    """Return µF by the one parser of bench values."""
    try:
        return parse(f"{number} {unit}", Quantity.CAPACITANCE).value * 1e6
    except BadValue as error:
        if "0" in number and figure(number) == 0:
            return 0.0
        raise type(error)(text, *_reasons(error)) from error
    except CoilError:
        raise


def _reasons(error: BadValue) -> tuple[str, str]:
    first, second = getattr(error, "first", ""), getattr(error, "second", "")
    return (first, second) if first else (error.accepted, error.why)


def _tolerance(rest: str) -> tuple[float, float] | None:
    found = _TOLERANCE.search(rest)
    if found is None:
        return None
    if found["both"] or found["bare"]:
        both = figure(found["both"] or found["bare"])
        return both, both
    down, up = (found["low"], found["high"]) if found["low"] else (found["down"], found["up"])
    return figure(down), figure(up)


def _kind(marking: Marking, text: str) -> Kind:
    if _DC.search(text):
        return "dc"
    words = text.lower()
    if "start" in words:
        return "start"
    if "run" in words or marking.sections or _CLASS.search(text):
        return "run"
    if marking.ranged:
        return "start" if marking.high / marking.low >= RANGE_OF_START else "run"
    if marking.low >= START_MICROFARAD and 0 < marking.volt <= START_VOLTS:
        return "start"
    return ""


def _notes(marking: Marking, text: str) -> list[str]:
    notes = []
    if not marking.volt:
        notes.append(
            "No volts on it: the replacement's volts must come from what stands on it in run."
        )
    if _DC.search(text):
        notes.append("A polarised or direct-current capacitor: never on alternating current.")
    if marking.ranged and marking.high / marking.low > 1.5:
        notes.append("A range this wide is odd: read it again.")
    return notes


RUN_VOLT, START_VOLT, MOST_RUN = 370.0, 330.0, 80.0  # V and µF on usual cans: a leaning


def duty_of(text: str) -> str:
    """Return whether a marking speaks for a start or a run capacitor, empty where it does not."""
    try:
        found = read_marking(text) if text else None
    except CoilError:
        return ""
    if found is None or found.kind in ("start", "run"):
        return found.kind if found else ""
    if found.volt >= RUN_VOLT and found.high <= MOST_RUN:
        return "run"
    return "start" if 0 < found.volt <= START_VOLT and found.low > MOST_RUN else ""


def serves_of(told: Mapping[str, str]) -> str:
    """Return what a capacitor serves: as said, else by what is printed on it."""
    return told.get("serves", "") or duty_of(told.get("marking", ""))
