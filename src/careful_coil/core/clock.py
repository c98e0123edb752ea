"""Times of a log, UTC as ISO 8601 text: how far apart they lie."""

import numpy as np

SAME_MINUTES = 0.5  # two clocks of one shop may lie apart


def minutes_between(one: str, two: str) -> float:
    """Return the minutes from one time to another."""
    return float((_time(two) - _time(one)) / np.timedelta64(1, "m"))


def is_within(one: str, two: str, minutes: float) -> bool:
    """Whether the second time lies at most so many minutes after the first, by a clock that can be right.

    A clock that was set back, or an entry that is dated ahead, tells nothing: neither is within.
    """
    return -SAME_MINUTES <= minutes_between(one, two) <= minutes


def _time(text: str) -> np.datetime64:
    return np.datetime64(text.removesuffix("Z"), "ms")
