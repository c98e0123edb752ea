"""Each field of Mechanics: how its text is read and kept. Blank takes it back."""

from collections.abc import Callable
from functools import partial

from careful_coil.core.mechanics.bearing_rules import DONE, SEATS, SORTS, STATES, WICKS
from careful_coil.core.mechanics.brush_rules import SEATINGS, SPARKS, SPRINGS
from careful_coil.core.mechanics.lead_rules import CORD_DONE, CORDS, RELIEFS
from careful_coil.core.mechanics.shaft_rules import BOLTS, FAN, FEEL, RUB, SEALS
from careful_coil.core.mechanics.typed import (
    earlier_of,
    hours_of,
    megohm_of,
    mm_of,
    number_of,
    ports_of,
    seconds_of,
    volts_of,
)
from careful_coil.core.values import one_of

Read = Callable[[str], str]
LONGEST = 200


def _word(*words: str) -> Read:
    return partial(one_of, words=words)


def _plain(text: str) -> str:
    return text[:LONGEST]


FELT: dict[str, Read] = {
    "feel": _word(*FEEL),
    "coast-down": seconds_of,
    "end-float": mm_of,
    "radial-play": mm_of,
    "rub": _word(*RUB),
    "start-before": volts_of,
    "start-after": volts_of,
    "bolts-drive": _word(*BOLTS),
    "bolts-other": _word(*BOLTS),
    "fan": _word(*FAN),
    "ends": _plain,
    "hours-week": hours_of,
    "bars-shaft": megohm_of,
    "cord": _word(*CORDS),
    "cord-done": _word(*CORD_DONE),
    "relief": _word(*RELIEFS),
    "seals": _word(*SEALS),
}
BEARING: dict[str, Read] = {
    "sort": _word(*SORTS),
    "number": number_of,
    "bore": mm_of,
    "outside": mm_of,
    "width": mm_of,
    "seat": _word(*SEATS),
    "state": _word(*STATES),
    "done": _word(*DONE),
    "fitted": number_of,
    "oil": _plain,
    "wick": _word(*WICKS),
    "ports": ports_of,
}
BRUSH: dict[str, Read] = {
    "length": mm_of,
    "earlier": earlier_of,
    "least": mm_of,
    "spring": _word(*SPRINGS),
    "seating": _word(*SEATINGS),
    "spark": _word(*SPARKS),
    "done": _word("renewed"),
}


def read_field(table: dict[str, Read], field: str, text: str) -> str:
    """Return a field's text as it is kept, nothing for a blank. Raises: BadValue, AmbiguousValue."""
    told = text.strip()
    return table[field](told) if told else ""
