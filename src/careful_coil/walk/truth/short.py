"""What is seen, put as shortly as a shop types it: letter codes, bare figures, names that count up."""

from collections import Counter
from collections.abc import Sequence

from careful_coil.core.can_marking import in_full
from careful_coil.core.colour_codes import CODES
from careful_coil.core.ways.devices import POSTS
from careful_coil.documents.motor import CapacitorReal, DeviceReal

SHORTEST = {colour: code for code, colour in reversed(CODES.items()) if len(code) == 2}
SAID_AS = {"speed-switch": "cs"}
# the letter of a part that is named by its place in the list; relays have K
LETTERS = {"speed-switch": "S", "selector": "S", "protector": "P", "reversing-switch": "Q"}


def code_of(colour: str) -> str:
    """Return a colour, and its tracer, by letter codes, where each has one."""
    own = [SHORTEST.get(w, "") for w in colour.split("/")]
    return "/".join(own) if all(own) else colour


def bare(marked: str) -> str:
    """Return µF and volts without their units where they read the same, else as printed."""
    short = marked.replace(" µF", "").removesuffix(" V")
    return short if in_full(short) == marked else marked


def _said(device: DeviceReal) -> str:
    """Return what a device is, with its terminals where it has posts for a capacitor."""
    words = SAID_AS.get(device.kind, device.kind.replace("-", " "))
    return f"{words} {' '.join(POSTS)}" if device.device().posts else words


def listed(cans: Sequence[CapacitorReal], devices: Sequence[DeviceReal], plate: str) -> list[str]:
    """Return cans and devices as listed, each in short, its name only where it would be given another."""
    seen = [(c.name, "C", "=" if c.marked == plate else bare(c.marked)) for c in cans if c.marked]
    others = [(d.name, LETTERS.get(d.kind, "K"), _said(d)) for d in devices]
    told: list[str] = []
    taken = Counter[str]()
    for name, letter, words in (*seen, *others):
        taken[letter] += 1
        told.append(words if name == f"{letter}{taken[letter]}" else f"{name} {words}")
    return told
