"""What kinds of start devices are called, and what somebody's words for one mean."""

from typing import get_args

from careful_coil.core.errors import BadValue
from careful_coil.core.gear.table import FACTS
from careful_coil.core.job.at_start_gear import DeviceKind

KINDS: tuple[str, ...] = tuple(k for k in get_args(DeviceKind) if k)


def title_of(kind: str) -> str:
    """Return what a kind of device is called."""
    return "Interlock" if kind == "interlock" else FACTS[kind].title


_ALSO = {
    "centrifugal switch": "speed-switch",
    "change-over switch": "change-over",
    "potential relay": "relay-voltage",
    "thermistor": "ptc",
    "overload": "protector",
    "triac": "electronic-switch",
}


def kind_named(text: str) -> str:
    """Return the kind of device somebody's words mean. Raises: BadValue."""
    told = " ".join(text.lower().replace("-", " ").split())
    names = {kind.replace("-", " "): kind for kind in KINDS}
    names |= {title_of(kind).lower(): kind for kind in KINDS}
    names |= {also.replace("-", " "): kind for also, kind in _ALSO.items()}
    if told in names:
        return names[told]
    begun = {kind for name, kind in names.items() if told and name.startswith(told)}
    if len(begun) != 1:
        raise BadValue(text, ", ".join(title_of(k).lower() for k in KINDS))
    return begun.pop()
