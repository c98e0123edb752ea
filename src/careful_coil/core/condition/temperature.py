"""Winding resistance and temperature: brought to another, rise by resistance, carried back in time."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.values import show_figure
from careful_coil.core.winding.network import COPPER_ZERO_C, ohms_share

Metal = Literal["copper", "aluminium"]
# temperature in °C, below nothing, at which the straight line of the resistance would be nothing
ZERO_OHM_C: dict[str, float] = {
    "copper": COPPER_ZERO_C,
    "aluminium": 225.0,
}  # IEEE 112, resistance corrected to a temperature
IEC_COPPER_C = 235.0  # IEC 60034-1, resistance method
COLDEST_C, HOTTEST_C = -60.0, 250.0
# limits of rise by resistance in K at 40 °C air, by column: IEC 60034-1, limits of temperature rise, items 1
# c), d), e); NEMA MG 1, 12.43
RISE_LIMITS: dict[str, float] = {"A": 60.0, "E": 75.0, "B": 80.0, "F": 105.0, "H": 125.0}
SMALL_RISE: dict[str, float] = {"A": 65.0, "E": 75.0, "B": 85.0, "F": 110.0, "H": 130.0}
FACTOR_RISE: dict[str, float] = {"A": 70.0, "B": 90.0, "F": 115.0}  # at its service factor's load
SMALL_WATT = 600.0
UNCOOLED = ("tenv", "encapsulated", "ic40", "ic410", "no fan")  # as a plate's enclosure says it
ROOMY_FACTOR = 1.15
LEAST_COOLING = 2  # readings that a straight line of logarithms needs
WILD = math.log(20.0)  # carried back further than this above the readings is no result
SLOPE_SURE = 1.7  # sigmas of a curve's bend that let it count


def rise_limit(
    letter: str, watt: float | None = None, enclosure: str = "", service_factor: float = 1.0
) -> tuple[float, str]:
    """Return the rise by resistance in K that a class allows in air up to 40 °C, and its column.

    Source: IEC 60034-1 (under 600 W; without fan or encapsulated; else); NEMA MG 1, 12.43 with a service
    factor of 1.15 and more, at that load. Raises: KeyError for another letter.
    """
    closed = enclosure.strip().lower().replace(" ", "")
    if any(w.replace(" ", "") in closed for w in UNCOOLED):
        return SMALL_RISE[letter], "IEC 60034-1, without fan or encapsulated"
    if service_factor >= ROOMY_FACTOR and letter in FACTOR_RISE:
        return FACTOR_RISE[letter], f"NEMA MG 1, 12.43, at service factor {service_factor:g}"
    if watt is not None and watt < SMALL_WATT:
        return SMALL_RISE[letter], "IEC 60034-1, under 600 W"
    return RISE_LIMITS[letter], "IEC 60034-1"


def zero_ohm_c(metal: str, iec: bool = False) -> float:
    """Return z of R ∝ z + T in °C. Raises: ValueOutOfRange for another metal."""
    if metal not in ZERO_OHM_C:
        raise ValueOutOfRange(metal, "copper or aluminium")
    return IEC_COPPER_C if iec and metal == "copper" else ZERO_OHM_C[metal]


def _in_range(celsius: float) -> float:
    if not COLDEST_C <= celsius <= HOTTEST_C:
        raise ValueOutOfRange(f"{celsius:g} °C", f"{COLDEST_C:g} to {HOTTEST_C:g} °C")
    return celsius


def _ohms(*ohm: float) -> None:
    for value in ohm:
        if not 0 < value < math.inf:
            raise ValueOutOfRange(f"{value:g} Ω", "ohms above nothing")


def resistance_at(
    ohm: float, at_c: float, to_c: float, metal: str = "copper", iec: bool = False
) -> float:
    """Return the ohms a winding has at `to_c` °C that reads `ohm` at `at_c` °C.

    R₂ = R₁·(z + T₂)/(z + T₁), z 234.5 copper, 225 aluminium: IEEE 112; 235 by IEC 60034-1.
    Raises: ValueOutOfRange outside −60 to 250 °C and for ohms not above nothing.
    """
    _ohms(ohm)
    return ohm * ohms_share(_in_range(at_c), _in_range(to_c), zero_ohm_c(metal, iec))


def hot_c(cold_ohm: float, cold_c: float, hot_ohm: float, metal: str = "copper") -> float:
    """Return the temperature in °C of a winding by its resistance.

    T₂ = (R₂/R₁)·(z + T₁) − z: IEEE 112, temperature by resistance. Raises: ValueOutOfRange.
    """
    _ohms(cold_ohm, hot_ohm)
    z = zero_ohm_c(metal)
    found = hot_ohm / cold_ohm * (z + _in_range(cold_c)) - z
    if not COLDEST_C <= found <= 2 * HOTTEST_C:
        raise ValueOutOfRange(
            f"{hot_ohm:g} Ω hot against {cold_ohm:g} Ω cold",
            "readings of one winding: no copper gets there and lives",
            f"It would be at {found:.0f} °C.",
        )
    return found


@dataclass(frozen=True, slots=True, kw_only=True)
class SwitchedOff:
    """Ohms at the moment of switching off; `low`, `high` where nine of ten times it lies, in Ω.

    `carried` False: too little to carry back; the first reading stands and is too low.
    """

    ohm: float
    low: float
    high: float
    carried: bool
    why: str


def at_switching_off(
    readings: Sequence[tuple[float, float]], air_ohm: float, step_ohm: float = 0.0
) -> SwitchedOff:
    """Return the ohms of a cooling winding carried back to the moment it was switched off.

    `readings` (seconds after it, Ω), two or more for a figure; `air_ohm` what the winding has at air
    temperature. ln(R − R_air) falls on a straight line while it cools, bent at first as the copper
    gives to the iron: a square term is taken in where five readings or more show it beyond doubt.
    `step_ohm` the meter's resolution. Source: IEC 60034-1, resistance method, extrapolation.
    Raises: ValueOutOfRange for readings that do not cool or are not above air.
    """
    told = sorted((float(s), float(r)) for s, r in readings)
    _ohms(air_ohm, *(r for _, r in told))
    if not told or told[0][0] < 0:
        raise ValueOutOfRange(str(list(readings)), "seconds after switching off, then ohms")
    seconds = np.array([s for s, _ in told])
    above = np.array([r - air_ohm for _, r in told])
    if np.any(above <= 0):
        raise ValueOutOfRange(
            f"{told[int(np.argmin(above))][1]:g} Ω hot",
            f"more than the {show_figure(air_ohm, 4)} Ω it has at air temperature",
        )
    first = told[0][1]
    if len(set(seconds)) < LEAST_COOLING:
        return SwitchedOff(
            ohm=first,
            low=first,
            high=math.inf,
            carried=False,
            why=f"One reading, {told[0][0]:g} s after: it was hotter than that. Two or more are carried back.",
        )
    y, weight = np.log(above), above
    line, spread = _line(seconds, y, weight, 1, step_ohm)
    if line[1] >= 0:
        raise ValueOutOfRange(
            "ohms that do not fall", "readings of a winding that cools, the time beside each"
        )
    if len(told) >= 5:  # two for a line, one for the bend, two to see by
        bent, bent_spread = _line(seconds, y, weight, 2, step_ohm)
        if bent[2] > SLOPE_SURE * math.sqrt(bent_spread[2]) and bent[1] < 0:
            line, spread = bent, bent_spread
    from scipy.special import stdtrit  # late: it is slow to load

    wide = float(stdtrit(max(len(told) - len(line), 1), 0.95)) * math.sqrt(spread[0])
    if line[0] + wide > math.log(float(above.max())) + WILD:
        raise ValueOutOfRange(
            "; ".join(f"{s:g} s {r:g} Ω" for s, r in told[:4]),
            "readings of a winding that cools evenly",
            "Carried back they give nothing: they scatter too much.",
        )
    ohm = air_ohm + math.exp(line[0])
    low, high = (air_ohm + math.exp(line[0] + k * wide) for k in (-1, 1))
    return SwitchedOff(
        ohm=ohm,
        low=low,
        high=high,
        carried=True,
        why=f"Carried back {told[0][0]:g} s from {len(told)} readings: "
        f"{show_figure(first, 4)} to {show_figure(ohm, 4)} Ω.",
    )


def _line(
    x: "np.typing.NDArray[np.float64]",
    y: "np.typing.NDArray[np.float64]",
    weight: "np.typing.NDArray[np.float64]",
    degree: int,
    step: float,
) -> tuple[list[float], list[float]]:
    """Return the coefficients of a weighted polynomial, lowest first, and their variances."""
    design = np.vander(x, degree + 1, increasing=True) * weight[:, None]
    found, *_ = np.linalg.lstsq(design, y * weight, rcond=None)
    left = y * weight - design @ found
    free = max(len(x) - degree - 1, 1)
    noise = max(
        float(left @ left) / free, step * step / 12.0
    )  # rounding is evenly spread: step²/12
    spread = noise * np.linalg.pinv(design.T @ design)
    return [float(v) for v in found], [float(v) for v in np.diag(spread)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Rise:
    """Temperature in °C at switching off and rise over air in K, each with where it may lie."""

    hot_c: float
    rise_k: float
    low_k: float
    high_k: float
    carried: bool
    why: str


def rise_of(
    cold_ohm: float,
    cold_c: float,
    hot: Sequence[tuple[float, float]],
    air_c: float,
    metal: str = "copper",
    step_ohm: float = 0.0,
) -> Rise:
    """Return the rise by resistance from cold ohms and readings (seconds after, Ω) while it cools.

    Raises: ValueOutOfRange.
    """
    air_ohm = resistance_at(cold_ohm, cold_c, air_c, metal)
    off = at_switching_off(hot, air_ohm, step_ohm)
    at = hot_c(cold_ohm, cold_c, off.ohm, metal)
    z = zero_ohm_c(metal)

    def rise(ohm: float) -> float:
        return ohm / cold_ohm * (z + cold_c) - z - air_c

    return Rise(
        hot_c=at,
        rise_k=at - air_c,
        low_k=rise(off.low),
        high_k=rise(off.high),
        carried=off.carried,
        why=off.why,
    )
