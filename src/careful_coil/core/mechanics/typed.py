"""What is typed or pasted at Mechanics, read: each field as it is kept, or why it cannot be."""

import re
from collections.abc import Mapping, Sequence

from careful_coil.core.choices import one_of
from careful_coil.core.days import read_day
from careful_coil.core.errors import AmbiguousValue, BadValue
from careful_coil.core.figures import dimensions, figure, kept, whole
from careful_coil.core.job.at_mechanics import MOST_BARS, BarsRead, LeadMended, Temporary
from careful_coil.core.job.hands import free_name
from careful_coil.core.job.noted import Noted, note
from careful_coil.core.mechanics.bearing import numbers_of, spelled
from careful_coil.core.probes.kinds.bar import read_bars
from careful_coil.core.units import Quantity

LEAST, LARGEST_MM = 0.001, 5000.0
LEAST_BORE = 3.0  # mm, of a motor's ball bearing (623)
MM = "millimetres such as 17 or 17.05, or inches such as 5/8 in"
THREE = "bore, outside diameter and width in mm, such as 17 x 40 x 12"
SIZES = ("bore", "outside", "width")
FEWEST_BARS = 3
# 17 mm, 1 1/8 in
_ALONE = re.compile(r"(?:\d+\s+\d+/\d+|[\d.,]+(?:/\d+)?)\s*(?:mm|in|inch|\"|″)?", re.I)
_PORTS = re.compile(r"(\d{1,2})\s*(?:of|/)\s*(\d{1,2})")


SLEEVE = (
    "sleeve",
    "sleeve bearing",
    "bush",
    "bushing",
    "plain",
    "plain bearing",
    "bronze",
    "sintered",
)


def is_sleeve(text: str) -> bool:
    """Whether what is typed for a number says that it is no ball bearing."""
    return " ".join(text.lower().split()) in SLEEVE


def number_of(text: str) -> str:
    """Return a bearing's number as kept, also one that is not known here. Raises: BadValue."""
    told = spelled(text)
    if not told or not any(c.isdigit() or c == "?" for c in told):
        raise BadValue(text, "a number such as 6203-2RS C3, with ? for a worn character; or sleeve")
    numbers_of(text)
    return " ".join(text.upper().split())


def ports_of(text: str) -> str:
    """Return oil ports found and there, as kept: `2 of 3`. Raises: BadValue."""
    found = _PORTS.fullmatch(text.strip().lower())
    if found is None or int(found[1]) > int(found[2]) or int(found[2]) == 0:
        raise BadValue(text, "oil ports found of those there are, such as 2 of 2")
    return f"{int(found[1])} of {int(found[2])}"


MENDS = ("sleeved", "spliced", "renewed", "nothing")
MEND_WANTED = f"a lead and what was done, more if you like: A sleeved 155 °C ({', '.join(MENDS)})"


def of_lead(text: str, tags: Sequence[str], wanted: str) -> tuple[str, str]:
    """Return the lead a text begins with and what is said of it. Raises: BadValue."""
    by_name = {t.upper(): t for t in tags}
    first, _, rest = text.strip().partition(" ")
    if first.upper() not in by_name or not rest.strip():
        raise BadValue(text, wanted)
    return by_name[first.upper()], rest.strip()


def read_mended(text: str, tags: Sequence[str]) -> LeadMended:
    """Return what was done to a lead, as typed: `A sleeved 155 °C`. Raises: BadValue."""
    tag, rest = of_lead(text, tags, MEND_WANTED)
    word, _, words = rest.partition(" ")
    how = one_of(word, MENDS)
    told = {"tag": tag, "how": "" if how == "nothing" else how, "words": words.strip()}
    return LeadMended.model_validate(told)


NOTHING = ("nothing", "none", "no", "clear", "-")


def left_on(text: str, known: Mapping[str, object]) -> Temporary | Noted:
    """Return a temporary as typed, or that there is nothing. Raises: BadValue for a blank."""
    told = " ".join(text.split())
    if not told:
        raise BadValue(text, "what it is and where: jumper across the protector; or nothing")
    if told.lower() in NOTHING:
        return note("felt", "temporary", "nothing")
    return Temporary(name=free_name("T", known), words=told)


def earlier_of(text: str) -> str:
    """Return an older length and its day as kept: `14.5 2025-11-02`. Raises: BadValue."""
    wanted = "a length and its day, such as 14.5 mm 2025-11-02"
    length, _, day = text.strip().rpartition(" ")
    try:
        told = read_day(day)
    except AmbiguousValue:
        raise
    except BadValue:
        raise BadValue(text, wanted) from None
    mm = figure(length, Quantity.LENGTH, least=LEAST, most=LARGEST_MM, wanted=wanted)
    return f"{kept(mm)} {told}"


def megohm_of(text: str) -> str:
    """Return MΩ as kept, with the winding's °C where they are said (`12 at 25`), or open. A bare figure is MΩ.

    Raises: BadValue, AmbiguousValue.
    """
    if text.lower() in ("open", "ol"):
        return "open"
    told, at, celsius = text.partition(" at ")
    wanted = "MΩ bars to shaft, such as 12, or 12 at 25 °C, or open"
    read = kept(figure(told.strip(), Quantity.INSULATION, unit="MΩ", wanted=wanted))
    if not at:
        return read
    warm = figure(celsius.strip(), Quantity.TEMPERATURE, least=10, most=85, wanted="10 to 85 °C")
    return f"{read} at {kept(warm)} °C"


def bearing_size(text: str, number: str = "") -> dict[str, str]:
    """Return bore, outside and width in mm as kept: all three, one of them, or nothing. Raises: BadValue.

    One alone is the outside diameter where a `number` is read and it lies nearer to that one's, else the bore.
    """
    told: tuple[float, ...] = ()
    if text.strip():
        if _ALONE.fullmatch(text.strip()):
            one = figure(text, Quantity.LENGTH, least=LEAST_BORE, most=LARGEST_MM, wanted=MM)
            told = (one,) if _is_bore(one, number) else (0.0, one)
        else:
            told = dimensions(text, 3, THREE, LARGEST_MM)
            if not told[0] < told[1]:
                raise BadValue(text, THREE, "The bore is smaller than the outside.")
    found = {n: kept(v) for n, v in zip(SIZES, told, strict=False) if v}
    return {n: found.get(n, "") for n in SIZES}


def _is_bore(mm: float, number: str) -> bool:
    """Whether a dimension given alone is nearer to a number's bore than to its outside; so without one."""
    try:
        known = numbers_of(number) if number else ()
    except BadValue:
        known = ()
    return not known or abs(mm - known[0].bearing.bore) < abs(mm - known[0].bearing.outside)


def bars_count(text: str) -> int:
    """Return a count of bars, 0 for none. Raises: BadValue."""
    wanted = f"the number of bars, {FEWEST_BARS} to {MOST_BARS}, or 0 for none"
    found = whole(text, 0, MOST_BARS, wanted)
    if 0 < found < FEWEST_BARS:
        raise BadValue(text, wanted)
    return found


def bars_read(text: str, first: int) -> BarsRead:
    """Return ohms from bar `first` on, each to the next, typed in a line or pasted. Raises: BadValue."""
    return BarsRead.model_validate(read_bars(text, first))
