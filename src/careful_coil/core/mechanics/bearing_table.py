"""Boundary dimensions of deep-groove ball bearings, by number.

Metric series from ISO 15 (dimension series 18, 19, 10, 02, 03, and 22, 23 for the wide ones), bore by
code; inch R series from ANSI/ABMA 12.2. mm; inch sizes exactly 25.4 mm to the inch. Where shields or
seals make a bearing wider than an open one, both widths are given.
"""

from dataclasses import dataclass
from fractions import Fraction

INCH = 25.4


@dataclass(frozen=True, slots=True, kw_only=True)
class Bearing:
    """One basic number: bore, outside diameter, width in mm; `closed` its width with shields or seals.

    `names` other spellings of the same; `inch` whether it is made in inches.
    """

    name: str
    series: str
    bore: float
    outside: float
    width: float
    closed: float
    names: tuple[str, ...] = ()
    inch: bool = False

    @property
    def mean(self) -> float:
        """Return the mean of bore and outside diameter, mm."""
        return (self.bore + self.outside) / 2


# bore code or last figure: outside x width; the small ones are three-figure numbers
_SMALL: dict[str, str] = {
    "60": "4:12x4 5:14x5 6:17x6 7:19x6 8:22x7 9:24x7",
    "62": "3:10x4 4:13x5 5:16x5 6:19x6 7:22x7 8:24x8 9:26x8",
    "63": "4:16x5 5:19x6 6:22x7 7:26x9 8:28x9 9:30x10",
    "68": "3:7x2/3 4:9x2.5/4 5:11x3/5 6:13x3.5/5 7:14x3.5/5 8:16x4/5 9:17x4/5",
    "69": "3:8x3/4 4:11x4 5:13x4 6:15x5 7:17x5 8:19x6 9:20x6",
}
_LARGE: dict[str, str] = {
    "60": "26x8 28x8 32x9 35x10 42x12 47x12 55x13 62x14 68x15 75x16 80x16 90x18 95x18 100x18 110x20 115x20 "
    "125x22 130x22 140x24 145x24 150x24 160x26 170x28",
    "62": "30x9 32x10 35x11 40x12 47x14 52x15 62x16 72x17 80x18 85x19 90x20 100x21 110x22 120x23 125x24 130x25 "
    "140x26 150x28 160x30 170x32 180x34 190x36 200x38",
    "63": "35x11 37x12 42x13 47x14 52x15 62x17 72x19 80x21 90x23 100x25 110x27 120x29 130x31 140x33 150x35 "
    "160x37 170x39 180x41 190x43 200x45 215x47 225x49 240x50",
    "68": "19x5 21x5 24x5 26x5 32x7 37x7 42x7 47x7 52x7 58x7 65x7 72x9 78x10 85x10 90x10 95x10 100x10 110x13 "
    "115x13 120x13 125x13",
    "69": "22x6 24x6 28x7 30x7 37x9 42x9 47x9 55x10 62x12 68x12 72x12 80x13 85x13 90x13 100x16 105x16 110x16 "
    "120x18 125x18 130x18 140x20",
    "622": "30x14 32x14 35x14 40x16 47x18 52x18 62x20 72x23 80x23 85x23 90x23",
    "623": "35x17 37x17 42x17 47x19 52x21 62x24 72x27 80x31 90x33 100x36 110x40",
}
_BETWEEN: dict[str, str] = {  # bore in mm after the stroke
    "60": "22:44x12 28:52x12 32:58x13",
    "62": "22:50x14 28:58x16 32:65x17",
    "63": "22:56x16 28:68x18 32:75x20",
}
_INCH = (
    "R2 1/8 3/8 5/32 5/32, R3 3/16 1/2 5/32 0.196, R4 1/4 5/8 0.196 0.196, R4A 1/4 3/4 7/32 9/32, "
    "R6 3/8 7/8 7/32 9/32, R8 1/2 9/8 1/4 5/16, R10 5/8 11/8 9/32 11/32, R12 3/4 13/8 5/16 7/16, "
    "R14 7/8 15/8 3/8 1/2, R16 1 2 3/8 1/2, R18 9/8 17/8 3/8 1/2, R20 5/4 9/4 3/8 1/2, "
    "R22 11/8 5/2 7/16 9/16, R24 3/2 21/8 7/16 9/16, R144 1/8 1/4 7/64 7/64, R155 5/32 5/16 1/8 1/8, "
    "R156 3/16 5/16 1/8 1/8, R166 3/16 3/8 1/8 1/8, R168 1/4 3/8 1/8 1/8, R188 1/4 1/2 1/8 3/16"
)
_THIN = {"68": "618", "69": "619"}  # the thin series are also printed with these in front


def bore_of(code: int) -> float:
    """Return the bore in mm that a two-figure bore code means: 10, 12, 15, 17, from 04 five times it."""
    return {0: 10.0, 1: 12.0, 2: 15.0, 3: 17.0}.get(code, 5.0 * code)


def _sizes(text: str) -> tuple[float, float, float]:
    outside, _, widths = text.partition("x")
    width, _, closed = widths.partition("/")
    return float(outside), float(width), float(closed or width)


def _metric(name: str, series: str, bore: float, text: str, *names: str) -> Bearing:
    outside, width, closed = _sizes(text)
    return Bearing(
        name=name,
        series=series,
        bore=bore,
        outside=outside,
        width=width,
        closed=closed,
        names=names,
    )


def _table() -> dict[str, Bearing]:
    found: list[Bearing] = []
    for series, text in _SMALL.items():
        for piece in text.split():
            last, _, size = piece.partition(":")
            thin = (f"{_THIN[series]}/{last}",) if series in _THIN else ()
            # a three-figure number drops the nought of 60; the other series keep their second figure
            found.append(_metric(f"6{series[1]}{last}", series, float(last), size, *thin))
    for series, text in _LARGE.items():
        for code, size in enumerate(text.split()):
            thin = (f"{_THIN[series]}{code:02d}",) if series in _THIN else ()
            found.append(_metric(f"{series}{code:02d}", series, bore_of(code), size, *thin))
    for series, text in _BETWEEN.items():
        for piece in text.split():
            bore, _, size = piece.partition(":")
            found.append(_metric(f"{series}/{bore}", series, float(bore), size))
    for piece in _INCH.split(", "):
        name, *sizes = piece.split()
        inch = [float(Fraction(s)) * INCH for s in sizes]
        found.append(
            Bearing(
                name=name,
                series="R",
                bore=inch[0],
                outside=inch[1],
                width=inch[2],
                closed=inch[3],
                inch=True,
            )
        )
    return {b.name: b for b in found}


BEARINGS: dict[str, Bearing] = _table()
SPELLINGS: dict[str, Bearing] = {n: b for b in BEARINGS.values() for n in (b.name, *b.names)}
