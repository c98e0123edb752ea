"""The supply measured and named: six voltages, what system they are, how far out of balance.

A system is a picture of three lines and a neutral (or earth) as points in the plane, volts being the
distances between them. The picture that fits the readings best names the system.
"""

import cmath
import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

from careful_coil.core.errors import BadValue, ValueOutOfRange
from careful_coil.core.figures import of_each
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse

FITS_SHARE = 0.06  # of the largest reading: two systems lie further apart than this
DEAD_SHARE = 0.15  # of the largest reading: less is no volts
LOST_SHARE = 0.60  # of the largest: a line between two such is lost, not unbalanced
PHANTOM_VOLT = (
    100.0  # induced on dead lines a high-impedance meter shows up to so much (trade practice)
)
DERATING = ((1.0, 1.0), (2.0, 0.95), (3.0, 0.88), (4.0, 0.82), (5.0, 0.75))  # NEMA MG 1, 14.36
# what a system's name promises at the motor's terminals: NEMA MG 1, 1.16; IEC 60038
SIXTY = 55.0  # Hz: above it a 60 Hz system
SYSTEM_OF_PLATE = {115: 120, 200: 208, 230: 240, 460: 480, 575: 600}
_A, _B, _C = (cmath.exp(1j * math.radians(d)) / math.sqrt(3) for d in (90, -30, 210))
Points = tuple[complex, complex, complex | None, complex]
# name → words, lines A B C and the neutral or earth, for 1 V between lines; None: a lead that is not there
PICTURES: dict[str, tuple[tuple[str, Points], ...]] = {
    "star": (("star, neutral or earth in the middle", (_A, _B, _C, 0j)),),
    "high-leg": (("high-leg delta, earth in the middle of one side", (_A, _B, _C, (_A + _B) / 2)),),
    "corner-earthed": (("delta with one corner earthed", (_A, _B, _C, _A)),),
    "split": (
        ("split single-phase, the third lead is the neutral", (0.5, -0.5, 0j, 0j)),
        ("split single-phase, two leads are the same leg", (0.5, -0.5, 0.5, 0j)),
        ("split single-phase, two lines", (0.5, -0.5, None, 0j)),
    ),
    "single": (
        ("single-phase, one line and neutral", (1 + 0j, 0j, 0j, 0j)),
        ("single-phase, two leads are the same line", (1 + 0j, 0j, 1 + 0j, 0j)),
        ("single-phase, two leads", (1 + 0j, 0j, None, 0j)),
        ("two legs of a star, the third lead dead or the neutral", (_A, _B, 0j, 0j)),
        ("two legs of a star, the third lead dead", (_A, _B, None, 0j)),
    ),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class SupplyNamed:
    """A supply as measured: its system, words for it, phases it can feed, V between lines (mean).

    `special` the line at another voltage to earth than the rest (high leg, earthed corner), `lost`
    the line that is dead where three phases were looked for.
    """

    system: str
    words: str
    phases: int
    volt: float
    special: str = ""
    lost: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Unbalance:
    """Mean in V, largest departure in % of it, what share of rated power may be drawn; None: none."""

    mean: float
    percent: float
    derate: float | None


def name_supply(line: Sequence[float], neutral: Sequence[float]) -> SupplyNamed:
    """Return what system six readings are: A-B, B-C, C-A in V, then A, B, C to neutral or earth.

    Of two lines alone give one reading between them, and two to neutral. Raises: ValueOutOfRange
    where the readings are none of the systems (a line lost while something turns, a floating delta).
    Source: geometry of the systems of IEC 60364-1, 312, and NFPA 70, 250.
    """
    line, neutral = _filled(line, neutral)
    most = max(*line, *neutral)
    if most <= 0 or min(*line, *neutral) < 0:
        raise ValueOutOfRange(
            _told(line, neutral), "volts on at least two lines", "Nothing is live."
        )
    best = min(
        (
            (_apart(line, neutral, points, order), system, words, order)
            for system, pictures in PICTURES.items()
            for words, points in pictures
            for order in itertools.permutations(range(3))
        ),
        key=lambda t: t[0],
    )
    apart, system, words, order = best
    if apart > FITS_SHARE * most:
        raise ValueOutOfRange(
            _told(line, neutral), "six readings of one of " + WANTED, _odd(line, neutral)
        )
    if system == "star" and most < PHANTOM_VOLT:
        raise ValueOutOfRange(
            _told(line, neutral),
            "volts that a lamp or a low-impedance meter does not bring down",
            f"So few volts, and even, may stand on dead wires: under {PHANTOM_VOLT:g} V nothing is named a star.",
        )
    names = [f"L{order.index(k) + 1}" for k in range(3)]
    three = system in ("star", "high-leg", "corner-earthed")
    volts = line if three else [v for v in line if v > DEAD_SHARE * most]
    lost = names[2] if words.startswith("two legs") else ""
    return SupplyNamed(
        system=system,
        words=words,
        phases=3 if three else 1,
        volt=sum(volts) / len(volts) if three else max(volts),
        special={"high-leg": names[2], "corner-earthed": names[0]}.get(system, ""),
        lost=lost,
    )


WANTED = "star, split, high-leg, corner-earthed, single"


def _filled(
    line: Sequence[float], neutral: Sequence[float]
) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """Return six readings: of two lines alone the third lead is taken to be the neutral."""
    if len(line) == 1 and len(neutral) == 2:
        (ab,), (a, b) = line, neutral
        return (ab, b, a), (a, b, 0.0)
    if len(line) == 3 and len(neutral) == 3:
        return tuple(line), tuple(neutral)
    read = f"{len(line)} between lines, {len(neutral)} to neutral"
    raise ValueOutOfRange(read, "three and three, or one and two where there are two lines")


def _apart(
    line: Sequence[float], neutral: Sequence[float], points: Points, order: Sequence[int]
) -> float:
    """Return how far readings are from a picture turned so, in V (root of the mean square)."""
    p = [points[k] for k in order]
    pairs = [(p[0], p[1]), (p[1], p[2]), (p[2], p[0]), *((q, points[3]) for q in p)]
    shown = [0.0 if a is None or b is None else abs(a - b) for a, b in pairs]
    read = [*line, *neutral]
    scale = sum(a * b for a, b in zip(shown, read, strict=True)) / sum(a * a for a in shown)
    return math.sqrt(sum((scale * a - b) ** 2 for a, b in zip(shown, read, strict=True)) / 6)


def _odd(line: Sequence[float], neutral: Sequence[float]) -> str:
    lost = lost_line(line, neutral)
    if lost:
        return f"{lost} is lost: a lost phase, not unbalance."
    equal = max(line) - min(line) <= FITS_SHARE * max(line)
    if equal:
        return "Three equal volts between lines and odd ones to earth: a floating delta, or a bad earth."
    return "Unequal as no system is: a line lost while a motor turns, or a lead on the wrong post."


def lost_line(line: Sequence[float], neutral: Sequence[float]) -> str:
    """Return the line that is dead or fed backwards, empty where none is; A-B, B-C, C-A and to neutral in V.

    A line is lost where its volts to neutral are far under the others', or where both voltages it
    takes part in are.
    """
    most_line, most = max(line), max(neutral, default=0.0)
    for k in range(3):
        own = (line[k], line[k - 1])
        other = line[(k + 1) % 3]
        # an earthed corner also reads nothing to earth, with all three volts between lines
        corner = max(own) >= 0.95 * most_line and max(neutral, default=0.0) >= DEAD_SHARE * most
        low = len(neutral) == 3 and neutral[k] < LOST_SHARE * sorted(neutral)[1]
        if low and not corner:
            return f"L{k + 1}"
        if other == most_line and max(own) <= LOST_SHARE * most_line:
            return f"L{k + 1}"
    return ""


def whole(volts: Sequence[float]) -> bool:
    """Whether three line-to-line volts are those of a supply of which no line is lost."""
    return min(volts) > LOST_SHARE * max(volts)


def unbalance(volts: Sequence[float]) -> Unbalance:
    """Return the unbalance of three line-to-line volts and what it derates to.

    Percent is the largest departure from the mean over the mean; between the table's points the
    derating is interpolated, beyond its end there is none. Raises: ValueOutOfRange for a lost phase,
    which is not unbalance. Source: NEMA MG 1, 12.45 and 14.36.
    """
    if not whole(volts):
        read = " / ".join(f"{v:g}" for v in volts)
        raise ValueOutOfRange(
            read, "three volts of which none is lost", "A lost phase is not unbalance."
        )
    mean = sum(volts) / len(volts)
    percent = 100 * max(abs(v - mean) for v in volts) / mean
    return Unbalance(mean=mean, percent=percent, derate=_derate(percent))


def _derate(percent: float) -> float | None:
    if percent <= DERATING[0][0]:
        return 1.0
    for (low, much), (high, less) in itertools.pairwise(DERATING):
        if percent <= high + 1e-9:
            return much + (less - much) * (percent - low) / (high - low)
    return None


def system_words(volt: float, hertz: float = 60.0) -> str:
    """Return how a motor's rated volts and a system's name belong together, empty where they are one.

    Names that differ from plates are those of 60 Hz systems; a 230 V plate at 50 Hz is of a 230 V system.
    """
    if hertz < SIXTY:
        return ""
    plate = next((p for p in SYSTEM_OF_PLATE if abs(p - volt) < 0.5), None)
    if plate is not None:
        return f"A plate of {plate} V is made for a {SYSTEM_OF_PLATE[plate]} V system."
    system = next((p for p, s in SYSTEM_OF_PLATE.items() if abs(s - volt) < 0.5), None)
    return f"A {volt:g} V system feeds motors with {system} V on the plate." if system else ""


def _told(line: Sequence[float], neutral: Sequence[float]) -> str:
    return " ".join(" / ".join(f"{v:g}" for v in part) for part in (line, neutral))


def read_three(text: str, wanted: str, alike: bool = False) -> tuple[float, float, float]:
    """Return three voltages typed with a slash between; `alike`: one figure where all read the same.

    Raises: BadValue with what is `wanted`.
    """
    parts = of_each(text)
    if len(parts) == 1 and alike:
        parts = 3 * parts
    if len(parts) != 3:
        raise BadValue(text, wanted)
    a, b, c = (parse(p if p.endswith("V") else f"{p} V", Quantity.VOLTAGE).value for p in parts)
    if not all(0 <= v <= 40000 for v in (a, b, c)):
        raise BadValue(text, wanted)
    return a, b, c
