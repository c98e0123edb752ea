"""Times of a log, UTC as ISO 8601 text: how far apart they lie."""

import numpy as np


def minutes_between(one: str, two: str) -> float:
    """Return the minutes from one time to another."""
    return float((_time(two) - _time(one)) / np.timedelta64(1, "m"))


def _time(text: str) -> np.datetime64:
    return np.datetime64(text.removesuffix("Z"), "ms")
