"""How many keys a walk may take through the window: so many for each thing that is asked, none for a motor."""

from collections.abc import Iterable, Mapping
from typing import Any

ENTER, WAY = 1, 1  # after what is typed; to another station
ACT, LIST = 1, 2  # what is done by one key; what is ticked as a whole, then taken
PUT_OFF = 2
LISTS = ("ready", "discharge")
PAST = {"complaint": 1}  # the telephone stands before it


def allowed_keys(steps: Iterable[Mapping[str, Any]]) -> int:
    """Return the keys a walk's steps may take: the signs of each answer, Enter, one key to another station."""
    keys, station = 0, ""
    for step in (s for s in steps if s["asks"]):
        ask = step["asks"][0]
        keys += WAY if step["station"] != station else 0
        station = step["station"]
        if step["skip"]:
            keys += PUT_OFF
        elif ask["type"] == "tick" or (ask["quantity"] == "work" and step["answer"] == "all"):
            keys += LIST if ask["id"] in LISTS else ACT
        else:
            keys += len(step["answer"]) + ENTER + PAST.get(ask["id"], 0)
    return keys
