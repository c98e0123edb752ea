"""Insulation resistance to the frame, corrected to 40 °C and held against its minimum."""

import math
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.values import show_figure

Winding = Literal["thermosetting", "thermoplastic"]
LOWEST_C, MIDDLE_C, HIGHEST_C = 10.0, 40.0, 85.0


@dataclass(frozen=True, slots=True)
class Corrected:
    """Insulation at 40 °C: the factor and the figure in MΩ; both None outside the formula's range."""

    factor: float | None
    megohm: float | None
    why: str


def correction_factor(at_c: float, winding: Winding = "thermosetting") -> float:
    """Return K with R40 = K·R.

    Thermosetting: K = exp(−1245·(1/(T+273) − 1/313)) for 10–40 °C and
    exp(−4230·(1/(T+273) − 1/313)) for 40–85 °C. Thermoplastic: K = 0.5^((40−T)/10).
    Args: winding temperature in °C. Raises: ValueOutOfRange outside 10–85 °C.
    Source: IEEE 43, correction of insulation resistance to 40 °C.
    """
    if not LOWEST_C <= at_c <= HIGHEST_C:
        raise ValueOutOfRange(
            f"{at_c:g} °C", "a winding between 10 and 85 °C", "No correction holds there."
        )
    if winding == "thermoplastic":
        return float(0.5 ** ((MIDDLE_C - at_c) / 10.0))
    slope = 1245.0 if at_c <= MIDDLE_C else 4230.0
    return math.exp(-slope * (1.0 / (at_c + 273.0) - 1.0 / 313.0))


def corrected(megohm: float, at_c: float, winding: Winding = "thermosetting") -> Corrected:
    """Return a one-minute reading in MΩ brought to 40 °C; raw where no correction holds."""
    try:
        factor = correction_factor(at_c, winding)
    except ValueOutOfRange:
        return Corrected(None, None, f"No correction holds at {at_c:g} °C; 10 to 85 °C is wanted.")
    return Corrected(factor, factor * megohm, f"× {show_figure(factor)} from {at_c:g} °C to 40 °C")


EXTRA_LOW_VOLT, EXTRA_LOW_TEST = 50.0, (250.0, 250.0)


def dc_test_volts(rated_volt: float) -> tuple[float, float]:
    """Return the DC test voltage (low, high) in V for a winding's rated V.

    Source: IEEE 43, guidelines for DC voltages to be applied; up to 50 V IEC 60364-6, table 6A: 250 V.
    """
    if not rated_volt > 0:
        raise ValueOutOfRange(f"{rated_volt:g} V", "rated volts above nothing")
    if rated_volt <= EXTRA_LOW_VOLT:
        return EXTRA_LOW_TEST
    steps = ((1000, (500, 500)), (2500, (500, 1000)), (5000, (1000, 2500)), (12000, (2500, 5000)))
    for below, volts in steps:
        if rated_volt < below or (below > 1000 and rated_volt <= below):
            return float(volts[0]), float(volts[1])
    return 5000.0, 10000.0
