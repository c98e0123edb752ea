"""Synchronous speed, poles and slip."""

from careful_coil.core.errors import ValueOutOfRange

MOST_POLES = 96


def poles_of(hertz: float, rpm: float) -> int:
    """Return the poles a rated speed tells: the largest even number whose n_sync is not below it.

    n_sync = 120·f/poles (IEC 60034-1). Raises: ValueOutOfRange where no pole number fits.
    """
    found = [p for p in range(2, MOST_POLES + 1, 2) if 120.0 * hertz / p >= rpm * (1 - 1e-9)]
    if rpm <= 0 or not found:
        raise ValueOutOfRange(
            f"{rpm:g} rpm at {hertz:g} Hz", f"a speed above 0 and at most {60 * hertz:g} rpm"
        )
    return found[-1]


def slip_of(hertz: float, rpm: float) -> float:
    """Return the slip at a rated speed, of 1. Raises: ValueOutOfRange."""
    return 1.0 - rpm * poles_of(hertz, rpm) / (120.0 * hertz)
