"""Winding resistance against its like, all at one temperature."""

from collections.abc import Sequence

from careful_coil.core.errors import ValueOutOfRange


def imbalance_percent(ohm: Sequence[float]) -> float:
    """Return the largest departure from the mean over the mean, in per cent.

    `ohm` two or more values in Ω, all > 0. Raises: ValueOutOfRange.
    """
    if len(ohm) < 2 or not all(0 < x < float("inf") for x in ohm):
        raise ValueOutOfRange(str(list(ohm)), "two or more ohms above nothing")
    mean = sum(ohm) / len(ohm)
    return 100.0 * max(abs(x - mean) for x in ohm) / mean
