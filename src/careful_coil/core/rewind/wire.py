"""Round winding wire: gauges, preferred sizes, what enamel adds, what a micrometer can mean.

AWG by its formula (ASTM B258), SWG by table (BS 3737), metric by preferred sizes R20 and R40 with the
largest overall diameters of grade 1 and 2 (IEC 60317-0-1). Diameters in mm, areas in mm².
"""

import math
import re
from dataclasses import dataclass
from typing import Literal

import numpy as np

from careful_coil.core.errors import BadValue, ValueOutOfRange

Metal = Literal["copper", "aluminium"]
Build = Literal["bare", "grade 1", "grade 2"]
OHM_MM2_PER_M = {"copper": 0.017241, "aluminium": 0.0282}  # at 20 °C: IEC 60028, IEC 60889
GRAM_PER_CM3 = {"copper": 8.89, "aluminium": 2.70}
REFERENCE_C = 20.0
SMALLEST_MM, LARGEST_MM = 0.02, 12.0
LEAST_AWG, MOST_AWG = -3.0, 56.0
_SWG = (
    "7/0:12.7 6/0:11.786 5/0:10.973 4/0:10.16 3/0:9.449 2/0:8.839 0:8.23 1:7.62 2:7.01 3:6.401 4:5.893 5:5.385 "
    "6:4.877 7:4.47 8:4.064 9:3.658 10:3.251 11:2.946 12:2.642 13:2.337 14:2.032 15:1.829 16:1.626 17:1.422 "
    "18:1.219 19:1.016 20:0.914 21:0.813 22:0.711 23:0.61 24:0.559 25:0.508 26:0.457 27:0.4166 28:0.3759 "
    "29:0.3454 30:0.315 31:0.2946 32:0.2743 33:0.254 34:0.2337 35:0.2134 36:0.193 37:0.1727 38:0.1524 "
    "39:0.1321 40:0.1219 41:0.1118 42:0.1016 43:0.0914 44:0.0813 45:0.0711 46:0.061 47:0.0508 48:0.0406 "
    "49:0.0305 50:0.0254"
)
SWG: dict[str, float] = {n: float(d) for n, _, d in (p.partition(":") for p in _SWG.split())}
_R20 = (
    "0.02 0.022 0.025 0.028 0.032 0.036 0.04 0.045 0.05 0.056 0.063 0.071 0.08 0.09 0.1 0.112 0.125 0.14 0.16 "
    "0.18 0.2 0.224 0.25 0.28 0.315 0.355 0.4 0.45 0.5 0.56 0.63 0.71 0.8 0.9 1 1.12 1.25 1.4 1.6 1.8 2 2.24 "
    "2.5 2.8 3.15 3.55 4 4.5 5"
)
_R40 = (
    "0.106 0.118 0.132 0.15 0.17 0.19 0.212 0.236 0.265 0.3 0.335 0.375 0.425 0.475 0.53 0.6 0.67 0.75 0.85 0.95 "
    "1.06 1.18 1.32 1.5 1.7 1.9 2.12 2.36 2.65 3 3.35 3.75 4.25 4.75"
)
METRIC: tuple[float, ...] = tuple(sorted(float(d) for d in f"{_R20} {_R40}".split()))
# nominal diameter: largest overall diameter of grade 1 and of grade 2
_OVERALL: dict[float, tuple[float, float]] = {
    0.1: (0.117, 0.125),
    0.112: (0.130, 0.139),
    0.125: (0.144, 0.154),
    0.14: (0.160, 0.171),
    0.16: (0.182, 0.194),
    0.18: (0.204, 0.217),
    0.2: (0.226, 0.239),
    0.224: (0.252, 0.266),
    0.25: (0.281, 0.297),
    0.28: (0.312, 0.329),
    0.315: (0.349, 0.367),
    0.355: (0.392, 0.411),
    0.4: (0.439, 0.459),
    0.45: (0.491, 0.513),
    0.5: (0.544, 0.566),
    0.56: (0.606, 0.630),
    0.63: (0.679, 0.704),
    0.71: (0.762, 0.789),
    0.8: (0.855, 0.884),
    0.9: (0.959, 0.989),
    1.0: (1.062, 1.094),
    1.12: (1.184, 1.217),
    1.25: (1.316, 1.349),
    1.4: (1.468, 1.502),
    1.6: (1.670, 1.706),
    1.8: (1.872, 1.909),
    2.0: (2.074, 2.112),
    2.24: (2.316, 2.355),
    2.5: (2.578, 2.618),
    2.8: (2.880, 2.922),
    3.15: (3.233, 3.276),
    3.55: (3.635, 3.679),
    4.0: (4.088, 4.133),
    4.5: (4.591, 4.637),
    5.0: (5.093, 5.141),
}


def area(mm: float) -> float:
    """Return the area in mm² of a round wire."""
    return math.pi / 4 * mm**2


def diameter(mm2: float) -> float:
    """Return the diameter in mm of a round wire's area."""
    return math.sqrt(4 * mm2 / math.pi)


def awg_mm(number: float) -> float:
    """Return the bare diameter in mm of an AWG size; 0 is 1/0, −1 is 2/0. Raises: ValueOutOfRange."""
    if not LEAST_AWG <= number <= MOST_AWG:
        raise ValueOutOfRange(f"AWG {number:g}", "4/0 to 56")
    return float(0.127 * 92 ** ((36 - number) / 39))


def awg_of(mm: float) -> float:
    """Return the AWG number, not rounded, of a bare diameter in mm. Raises: ValueOutOfRange."""
    if not SMALLEST_MM <= mm <= LARGEST_MM:
        raise ValueOutOfRange(f"{mm:g} mm", f"{SMALLEST_MM:g} to {LARGEST_MM:g} mm")
    return 36 - 39 * math.log(mm / 0.127) / math.log(92)


_NOUGHTS = re.compile(r"0+")


def read_awg(text: str) -> float:
    """Return the number of an AWG size as written: 18, 18.5, 0, 00, 2/0. Raises: BadValue."""
    wanted = "an AWG size such as 18, 18.5, 00 or 2/0"
    told = text.strip().upper().removeprefix("AWG").removesuffix("AWG").strip().replace(",", ".")
    if _NOUGHTS.fullmatch(told) and len(told) <= 4:
        return 1.0 - len(told)
    if re.fullmatch(r"[1-4]/0", told):
        return 1.0 - int(told[0])
    if not re.fullmatch(r"\d{1,2}(\.[05])?", told) or not 0 <= float(told) <= MOST_AWG:
        raise BadValue(text, wanted)
    return float(told)


def show_awg(number: float) -> str:
    """Return an AWG number as it is written, to the nearest half size."""
    half = round(2 * number) / 2
    return f"{1 - int(half)}/0" if half < 0 else f"{half:g}"


def read_swg(text: str) -> float:
    """Return the bare diameter in mm of an SWG size. Raises: BadValue."""
    told = text.strip().upper().removeprefix("SWG").removesuffix("SWG").strip()
    if told not in SWG:
        raise BadValue(text, "an SWG size, 7/0 to 50")
    return SWG[told]


def overall(mm: float, build: Build) -> float:
    """Return the largest diameter in mm over the enamel; what enamel adds goes evenly with the logarithm.

    Between and beyond the sizes of the table what is added is interpolated, or that of its end.
    """
    if build == "bare":
        return mm
    grade = ("grade 1", "grade 2").index(build)
    sizes = np.log([*_OVERALL])
    added = [both[grade] - d for d, both in _OVERALL.items()]
    return mm + float(np.interp(math.log(mm), sizes, added))


@dataclass(frozen=True, slots=True, kw_only=True)
class Meant:
    """A size that a micrometer reading can mean, and how far off it is in mm."""

    name: str
    mm: float
    build: Build
    off: float


APART_MM, APART_SHARE = 0.005, 0.012  # what a micrometer on a used wire can tell


def meant_by(read_mm: float, insulated: bool | None = None) -> tuple[Meant, ...]:
    """Return the sizes a micrometer reading can mean, the nearest first.

    `insulated` whether it was read over the enamel; None where that is not said. Raises: ValueOutOfRange.
    """
    if not SMALLEST_MM <= read_mm <= LARGEST_MM:
        raise ValueOutOfRange(f"{read_mm:g} mm", f"{SMALLEST_MM:g} to {LARGEST_MM:g} mm")
    builds: tuple[Build, ...] = ("bare",) if insulated is False else ("grade 1", "grade 2")
    if insulated is None:
        builds = ("bare", "grade 1", "grade 2")
    sizes = [(f"{d:g} mm", d) for d in METRIC]
    sizes += [(f"AWG {show_awg(n / 2)}", awg_mm(n / 2)) for n in range(-6, 101)]
    sizes += [(f"SWG {n}", d) for n, d in SWG.items()]
    near = APART_MM + APART_SHARE * read_mm
    found = [
        Meant(name=name, mm=d, build=build, off=overall(d, build) - read_mm)
        for name, d in sizes
        for build in builds
        if abs(overall(d, build) - read_mm) <= near
    ]
    return tuple(sorted(found, key=lambda m: abs(m.off)))
