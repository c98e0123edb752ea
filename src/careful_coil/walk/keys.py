"""How many keys a walk may take through the window: so many for each thing that is asked, none for a motor."""

from collections.abc import Iterable, Mapping
from typing import Any

# by the quantity of a question; the cursor's way there and Enter are in it
KEYS: Mapping[str, int] = {
    "word": 18,  # the motor's name, the customer's own words
    "inventory": 12,  # a lead with colour and print, a capacitor with what stands on it; so many each
    "plate": 6,
    "print": 10,
    "look": 8,  # a joint as found; so many each
    "feel": 4,
    "size": 4,
    "ohm": 8,
    "kick": 4,
    "switch": 2,
    "insulation": 5,
    "bond": 6,
    "volt": 8,
    "microfarad": 9,
    "run": 28,  # amps of three lines, how it turned and which way
    "step": 24,
    "start": 8,
    "turning": 5,
    "heard": 4,
    "amp": 10,
    "work": 3,  # a joint, a part renewed, the covers
    "tick": 2,
    "direction": 3,
}
OTHER = 5


SEVERAL = ("inventory", "look")  # questions whose answer names several things, a ; between


def allowed_keys(steps: Iterable[Mapping[str, Any]]) -> int:
    """Return the keys a walk's steps may take; a step that was put off counts as one that was answered."""
    return sum(_of(step) for step in steps if step["asks"])


def _of(step: Mapping[str, Any]) -> int:
    quantity = step["asks"][0]["quantity"]
    things = step["answer"].count(";") + 1 if quantity in SEVERAL else 1
    return things * KEYS.get(quantity, OTHER)
