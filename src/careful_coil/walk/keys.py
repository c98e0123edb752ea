"""How many keys a walk may take through the window: so many for each thing that is asked, none for a motor."""

from collections.abc import Iterable, Mapping
from typing import Any

# by the quantity of a question; the cursor's way there and Enter are in it
KEYS: Mapping[str, int] = {
    "word": 6,  # each word of it: the motor's name, the customer's own words, who signs
    "inventory": 12,  # a lead with colour and print, a capacitor with what stands on it; so many each
    "plate": 5,
    "print": 12,  # each position of a switch
    "look": 5,  # a joint as found; so many each
    "feel": 3,
    "size": 4,
    "ohm": 8,
    "kick": 8,
    "switch": 6,
    "insulation": 7,
    "bond": 9,  # of all places at once
    "volt": 8,
    "microfarad": 10,
    "run": 20,  # amps of three lines, how it turned and which way
    "step": 19,
    "start": 9,
    "turning": 5,
    "heard": 5,
    "amp": 16,
    "work": 1,  # a joint, a part renewed, the covers
    "tick": 2,
    "direction": 3,
}
OTHER = 4


# questions whose answer names several things, and what stands between them
SEVERAL = {"inventory": ";", "look": ";", "print": ";", "ohm": ";", "word": " "}


def allowed_keys(steps: Iterable[Mapping[str, Any]]) -> int:
    """Return the keys a walk's steps may take; a step that was put off counts as one that was answered."""
    return sum(_of(step) for step in steps if step["asks"])


def _of(step: Mapping[str, Any]) -> int:
    ask = step["asks"][0]
    quantity = ask["quantity"]
    own = SEVERAL.get(quantity, "") if quantity != "word" or ask["type"] == "text" else ""
    things = len(step["answer"].split(own)) if own else 1
    return things * KEYS.get(quantity, OTHER)
