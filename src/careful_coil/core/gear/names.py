"""What kinds of start devices are called, and what somebody's words for one mean."""

from collections.abc import Mapping
from typing import get_args

from careful_coil.core.choices import Choice, pick, plain
from careful_coil.core.errors import BadValue
from careful_coil.core.gear.table import FACTS
from careful_coil.core.job.at_start_gear import DeviceKind

KINDS: tuple[str, ...] = tuple(k for k in get_args(DeviceKind) if k)


def title_of(kind: str) -> str:
    """Return what a kind of device is called."""
    return "Interlock" if kind == "interlock" else FACTS[kind].title


# the letter of a name where none is given, by kind: others are relays
LETTERS: Mapping[str, str] = {
    "speed-switch": "S",
    "selector": "S",
    "change-over": "S",
    "protector": "P",
    "reversing-switch": "Q",
}
OTHER_LETTER = "K"

_ALSO: Mapping[str, tuple[str, ...]] = {
    "speed-switch": (
        *("speed switch", "speed switch on the shaft", "start switch", "starting switch"),
        *("centrifugal", "switch"),
        *("governor switch", "cs"),
    ),
    "change-over": ("speed switch that changes over", "change over switch", "changeover switch"),
    "relay-current": ("amp relay", "current coil relay"),
    "relay-voltage": ("potential relay", "volt relay"),
    "hot-wire": ("bimetal relay", "hotwire relay"),
    "ptc": ("thermistor", "ptc thermistor", "ptc relay"),
    "protector": ("overload", "overload protector", "motor protector", "thermal cut out"),
    "electronic-switch": ("triac", "electronic relay", "solid state switch"),
    "selector": ("speed selector", "selector switch", "pole switch"),
    "reversing-switch": ("drum switch", "reversing drum", "forward reverse switch"),
}


def kind_named(text: str) -> str:
    """Return the kind of device somebody's words mean. Raises: BadValue."""
    known = [Choice(word=k, also=(title_of(k), *_ALSO.get(k, ()))) for k in KINDS]
    try:
        return pick(text, known)
    except BadValue:
        near = [k for k in KINDS if plain(text) in plain(title_of(k)).split()] or KINDS
        raise BadValue(text, ", ".join(title_of(k).lower() for k in near)) from None
