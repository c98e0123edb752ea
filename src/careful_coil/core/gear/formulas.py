"""A capacitor by its amps, its discharge, several together.

Volts are rms on alternating current, the marked ones too; discharge begins at their peak.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.errors import ValueOutOfRange

How = Literal["parallel", "series"]
SAFE_VOLT = 30.0  # what a capacitor is discharged to before the meter has the word (shop default)


def microfarad_from_amps(volt: float, amp: float, hertz: float) -> float:
    """Return µF from volts across the capacitor itself and amps in its own lead: C = I/(2πf·V)."""
    _above(volt=volt, amp=amp, hertz=hertz)
    return 1e6 * amp / (2 * math.pi * hertz * volt)


@dataclass(frozen=True, slots=True, kw_only=True)
class Discharge:
    """How a capacitor discharges: volts at the start, seconds to the safe volts, peak W, J."""

    start_volt: float
    seconds: float
    peak_watt: float
    joule: float


def discharge(microfarad: float, volt: float, ohm: float, to_volt: float = SAFE_VOLT) -> Discharge:
    """Return the discharge through `ohm` of a capacitor marked `volt` (rms): V = V0·e^(−t/RC), V0 = √2·V.

    The timer is only a wait: a meter proves it. Raises: ValueOutOfRange.
    """
    _above(microfarad=microfarad, volt=volt, ohm=ohm, to_volt=to_volt)
    start = math.sqrt(2) * volt
    farad = microfarad * 1e-6
    return Discharge(
        start_volt=start,
        seconds=max(ohm * farad * math.log(start / to_volt), 0.0),
        peak_watt=start**2 / ohm,
        joule=0.5 * farad * start**2,
    )


E12 = (10.0, 12.0, 15.0, 18.0)  # kΩ: 10 to 20 are usual across a start capacitor (trade practice)
BLEED_SECONDS = 10.0  # a relay may close again so soon (shop default)


@dataclass(frozen=True, slots=True, kw_only=True)
class Bleed:
    """A bleed resistor: Ω, seconds to the safe volts, W while the marked volts stand on it."""

    ohm: float
    seconds: float
    watt: float


def bleed_for(microfarad: float, volt: float, to_volt: float = SAFE_VOLT) -> Bleed:
    """Return the bleed resistor of a start capacitor marked `volt` (rms): the largest usual one that lets
    it down in time, else the smallest. It carries its watts for the seconds of a start only.

    Raises: ValueOutOfRange.
    """
    found = [discharge(microfarad, volt, 1e3 * k, to_volt) for k in E12]
    fits = [k for k, d in enumerate(found) if d.seconds <= BLEED_SECONDS]
    best = fits[-1] if fits else 0
    ohm = 1e3 * E12[best]
    return Bleed(ohm=ohm, seconds=found[best].seconds, watt=volt**2 / ohm)


def volts_left(microfarad: float, volt: float, ohm: float, seconds: float) -> float:
    """Return what is left of a marked `volt` (rms) after so many seconds, in V DC."""
    _above(microfarad=microfarad, volt=volt, ohm=ohm)
    return math.sqrt(2) * volt * math.exp(-seconds / (ohm * microfarad * 1e-6))


def together(microfarad: Sequence[float], volt: Sequence[float], how: How) -> tuple[float, float]:
    """Return µF of several capacitors together and the volts (rms) the set may carry.

    Parallel adds, the least volts count; in series 1/C = Σ1/C and the volts share inversely to C, so
    that the set carries what its first full capacitor allows. Raises: ValueOutOfRange.
    """
    if len(microfarad) != len(volt) or not microfarad:
        raise ValueOutOfRange(
            f"{len(microfarad)} µF and {len(volt)} V", "as many volts as capacitances, one or more"
        )
    for value in (*microfarad, *volt):
        _above(figure=value)
    if how == "parallel":
        return sum(microfarad), min(volt)
    whole = 1 / sum(1 / c for c in microfarad)
    return whole, min(v * c / whole for c, v in zip(microfarad, volt, strict=True))


def _above(**given: float) -> None:
    for name, value in given.items():
        if not 0 < value < math.inf:
            raise ValueOutOfRange(f"{name} {value:g}", "a figure above nothing")
