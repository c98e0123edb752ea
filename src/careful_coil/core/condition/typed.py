"""Lines typed at Insulation, understood: readings over time, steps, cooling ohms, bonds."""

import itertools
import re
from collections.abc import Sequence
from dataclasses import dataclass

from careful_coil.core.condition.absorption import MOST_READINGS, check_readings
from careful_coil.core.condition.traces import read_columns
from careful_coil.core.errors import BadDocument, BadValue, ValueOutOfRange
from careful_coil.core.job.at_insulation import BOND_PLACES, BondPlace
from careful_coil.core.values import Qualifier, Quantity, parse

# seconds that a list of so many figures stands for
TIMES: dict[int, tuple[float, ...]] = {
    1: (60,),
    3: (15, 30, 60),
    4: (15, 30, 60, 600),
    10: tuple(60.0 * k for k in range(1, 11)),
    12: (15, 30, 60, *(60.0 * k for k in range(2, 11))),
}
MINUTE = 60.0
HIGHEST_MEGOHM = 1e7
MOST_STEPS = 40
WANTED = (
    "MΩ: 550, 0.4, 320 k, >2 G; or 15/30/60 s as 120/180/260, a fourth for 10 min; "
    "or with times: 30s 180 60s 260 10m 900"
)
_TIME = re.compile(r"(\d+(?:[.,]\d+)?)(sec|s|min|m)\s+(?=[>\d])")  # 30s 180: no blank inside a time
_BARE = re.compile(r">?\s*[\d.,]+")
_TAIL = re.compile(r"[\d.,]\s*([kMGT]?\s*(?:Ω|ohm)?)$")


@dataclass(frozen=True, slots=True, kw_only=True)
class TypedTest:
    """One minute's MΩ, whether it is only a least, and the readings (s, MΩ) where there are several."""

    megohm: float
    above: bool
    readings: tuple[tuple[float, float], ...]


def read_insulation(text: str) -> TypedTest:
    """Return a test typed in one line. Raises: BadValue, AmbiguousValue."""
    plain = text.strip()
    timed = _timed(plain)
    if timed is None:
        parts = [p.strip() for p in plain.split("/")]
        if len(parts) not in TIMES:
            raise BadValue(text, WANTED, f"{len(parts)} figures have no times of their own.")
        tail = _unit_of(parts[-1])
        timed = list(zip(TIMES[len(parts)], (_with(p, tail) for p in parts), strict=True))
    if len(timed) == 1 and timed[0][0] == MINUTE:
        value, above = _megohm(timed[0][1], text)
        return TypedTest(megohm=value, above=above, readings=())
    readings = []
    for second, figure in timed:
        value, above = _megohm(figure, text)
        if above:
            raise BadValue(
                text, WANTED, "Where the tester's range ends one figure is all there is."
            )
        readings.append((float(second), value))
    seconds = [s for s, _ in readings]
    if len(set(seconds)) < len(seconds) or seconds != sorted(seconds) or seconds[0] <= 0:
        raise BadValue(text, WANTED, "Times must rise.")
    if seconds[-1] > 7200:
        raise BadValue(text, WANTED, "Two hours at most.")
    known = dict(readings)
    if MINUTE not in known:
        raise BadValue(text, WANTED, "The figure after 60 s is what counts; it is missing.")
    return TypedTest(megohm=known[MINUTE], above=False, readings=tuple(readings))


def _timed(text: str) -> list[tuple[float, str]] | None:
    """Return `30s 180 60s 260` as times and figures; None where no time stands in front."""
    if not _TIME.match(text):
        return None
    marks = list(_TIME.finditer(text))
    marks = [m for m in marks if m.start() == 0 or text[m.start() - 1] in " ,;:/"]
    found = []
    for k, mark in enumerate(marks):
        end = marks[k + 1].start() if k + 1 < len(marks) else len(text)
        number = float(mark[1].replace(",", "."))
        second = number * (MINUTE if mark[2].lower().startswith("m") else 1.0)
        found.append((second, text[mark.end() : end].strip(" ,;:/")))
    return found


def _unit_of(text: str) -> str:
    found = _TAIL.search(text)
    return found[1].strip() if found else ""


def _with(part: str, unit: str) -> str:
    return f"{part} {unit}" if unit and _BARE.fullmatch(part) else part


def _megohm(text: str, whole: str) -> tuple[float, bool]:
    value = parse(f"{text} M" if _BARE.fullmatch(text) else text, Quantity.RESISTANCE)
    if value.number is None:
        raise BadValue(whole, WANTED + "; where the tester's range ends, > and that range")
    megohm = value.value / 1e6
    if megohm > HIGHEST_MEGOHM:
        raise BadValue(whole, WANTED)
    return megohm, value.qualifier is Qualifier.ABOVE


def read_steps_csv(text: str) -> tuple[tuple[float, float], ...]:
    """Return steps from a CSV of volts and MΩ. Raises: BadDocument."""
    names, columns = read_columns(text, MOST_STEPS)
    if len(names) != 2:
        raise BadDocument("CSV, header", ", ".join(names), "two columns: volts, MΩ")
    steps = tuple(zip(*columns, strict=True))
    bad = any(not (0 < v <= 20000 and 0 < m <= HIGHEST_MEGOHM) for v, m in steps)
    if bad or len(steps) < 2 or any(a[0] >= b[0] for a, b in itertools.pairwise(steps)):
        raise BadDocument(
            "CSV", f"{len(steps)} rows", "two or more of rising volts, each with its MΩ"
        )
    return steps


COOLING_WANTED = "seconds after switching off and ohms: 30 6.12; 60 6.05; 90 5.99"


def read_cooling(text: str) -> tuple[tuple[float, float], ...]:
    """Return cooling readings, (s, Ω) each. Raises: BadValue."""
    if not text.strip():
        raise BadValue(text, COOLING_WANTED)
    found = []
    for part in re.split(r"[;\n]", text.strip()):
        words = part.split()
        if not words:
            continue
        try:
            second = float(words[0].rstrip("s").replace(",", "."))
        except ValueError:
            raise BadValue(text, COOLING_WANTED) from None
        value = parse(" ".join(words[1:]) or "?", Quantity.RESISTANCE)
        if value.number is None or value.qualifier is not None or not 0 <= second <= 7200:
            raise BadValue(text, COOLING_WANTED)
        found.append((second, value.value))
    if not found or any(r <= 0 for _, r in found) or len({s for s, _ in found}) < len(found):
        raise BadValue(text, COOLING_WANTED)
    return tuple(sorted(found))


STEPS_WANTED = "two or more steps of volts and MΩ: 500 420; 1000 410; 1500 390"


def read_steps(text: str) -> tuple[tuple[float, float], ...]:
    """Return steps, (V, MΩ) each, volts rising. Raises: BadValue."""
    found = []
    for part in re.split(r"[;\n]", text.strip()):
        words = part.split()
        if not words:
            continue
        if len(words) < 2:
            raise BadValue(text, STEPS_WANTED)
        volt = parse(words[0] if words[0][-1:] in "Vv" else f"{words[0]} V", Quantity.VOLTAGE).value
        megohm, above = _megohm(" ".join(words[1:]), text)
        if above or megohm <= 0 or not 0 < volt <= 20000:
            raise BadValue(text, STEPS_WANTED)
        found.append((volt, megohm))
    if len(found) < 2 or any(a[0] >= b[0] for a, b in itertools.pairwise(found)):
        raise BadValue(text, STEPS_WANTED)
    return tuple(found)


def read_curve_csv(text: str) -> TypedTest:
    """Return a test from a CSV of time in s and MΩ, with a row at 60 s. Raises: BadDocument."""
    names, columns = read_columns(text, MOST_READINGS)
    if len(names) != 2:
        raise BadDocument("CSV, header", ", ".join(names), "two columns: time in s, MΩ")
    told = list(zip(*columns, strict=True))
    try:
        readings = check_readings(told)
    except ValueOutOfRange as error:
        raise BadDocument("CSV", error.read, error.accepted) from None
    known = dict(readings)
    if MINUTE not in known:
        raise BadDocument("CSV, time", f"{len(told)} rows without 60 s", "a row at 60 s")
    return TypedTest(megohm=known[MINUTE], above=False, readings=tuple(readings))


BOND_WANTED = "ohms in figures: 0.03, or for frame and both end bells 0.03/0.04/0.03"


def read_bonds(text: str, left: Sequence[BondPlace]) -> tuple[tuple[BondPlace, float, float], ...]:
    """Return place, Ω and the step of its digits: one for the first place still to read, or three.

    Raises: BadValue.
    """
    parts = [p.strip() for p in text.split("/")]
    places: tuple[BondPlace, ...] = BOND_PLACES
    if len(parts) == 1:
        places = (*left, *BOND_PLACES)[:1]
    if len(parts) != len(places):
        raise BadValue(text, BOND_WANTED)
    found = []
    for place, part in zip(places, parts, strict=True):
        value = parse(part, Quantity.RESISTANCE)
        if value.number is None or value.qualifier is not None:
            raise BadValue(text, BOND_WANTED)
        found.append((place, value.value, value.step))
    return tuple(found)
