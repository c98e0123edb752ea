"""Lines typed at Insulation, understood: readings over time, steps, cooling ohms, bonds."""

import itertools
import re
from collections.abc import Sequence

from careful_coil.core.condition.absorption import MOST_READINGS, check_readings
from careful_coil.core.condition.traces import read_columns
from careful_coil.core.errors import BadDocument, BadValue, ValueOutOfRange
from careful_coil.core.figures import figure
from careful_coil.core.job.at_insulation import BOND_PLACES, BondPlace
from careful_coil.core.probes.kinds.insulation import TypedTest, megohm_of
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse

MINUTE = 60.0
HIGHEST_MEGOHM = 1e7
MOST_STEPS = 40


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
        second = figure(words[0], Quantity.TIME, most=7200, wanted=COOLING_WANTED)
        value = parse(" ".join(words[1:]) or "?", Quantity.RESISTANCE)
        if value.number is None or value.qualifier is not None:
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
        volt = figure(words[0], Quantity.VOLTAGE, wanted=STEPS_WANTED)
        megohm, above = megohm_of(" ".join(words[1:]), text)
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
