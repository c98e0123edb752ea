"""A bearing's number as read, worn or whole, held against callipers; what is ordered in its place."""

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from careful_coil.core.errors import BadValue
from careful_coil.core.mechanics.bearing_suffix import (
    ANY,
    CLOSURES,
    SUFFIXES,
    Closure,
    Suffix,
    clearance_of,
    closure_of,
    fits,
    tails,
)
from careful_coil.core.mechanics.bearing_table import BEARINGS, SPELLINGS, Bearing

LONGEST = 30
MOST_NAMED = 8
WANTED = "a number such as 6203-2RS C3, with ? for a worn character"
_PREFIX = {"SS": "stainless steel", "W": "stainless steel", "F": "flange on the outer ring"}
_MARKS = re.compile(r"[\s\-.,_]+")
_STROKE = re.compile(
    r"(?<![\d?])/|/(?![\d?])"
)  # a stroke that is no part of a number such as 62/22
SEALED_WORDS: dict[Closure, str] = {c: t for t, c in reversed(CLOSURES.items())}
Standing = Literal["known", "several", "special", "unknown", "nothing"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Number:
    """One number that what was read can be."""

    bearing: Bearing
    suffixes: tuple[Suffix, ...] = ()
    unknown: str = ""  # characters behind it that are not known here
    prefix: str = ""

    @property
    def closure(self) -> Closure:
        """Return how it is closed."""
        return closure_of(self.suffixes)

    @property
    def clearance(self) -> str:
        """Return its clearance group."""
        return clearance_of(self.suffixes)

    @property
    def width(self) -> float:
        """Return its width in mm, with its shields or seals."""
        return self.bearing.width if self.closure == "open" else self.bearing.closed

    @property
    def words(self) -> str:
        """Return it as it is written."""
        tail = [s.text for s in self.suffixes] + ([self.unknown] if self.unknown else [])
        seal = next((s.text for s in self.suffixes if s.sort == "seal"), "")
        rest = " ".join(t for t in tail if t != seal)
        name = f"{self.bearing.name}-{seal}" if seal else self.bearing.name
        return " ".join(p for p in (self.prefix, name, rest) if p)


@dataclass(frozen=True, slots=True, kw_only=True)
class Callipers:
    """What was measured, in mm; None where it was not."""

    bore: float | None = None
    outside: float | None = None
    width: float | None = None

    @property
    def told(self) -> tuple[tuple[str, float], ...]:
        """Return what was measured, by name."""
        every = (("bore", self.bore), ("outside", self.outside), ("width", self.width))
        return tuple((n, v) for n, v in every if v is not None)

    @property
    def whole(self) -> bool:
        """Whether all three were measured."""
        return len(self.told) == len(("bore", "outside", "width"))


@dataclass(frozen=True, slots=True, kw_only=True)
class Found:
    """Numbers that fit what was read and measured; `standing` what that makes of it, `why` in words.

    known: one envelope; several: callipers would tell; special: by dimensions; unknown: not in the
    table and not measured; nothing: neither read nor measured.
    """

    standing: Standing
    numbers: tuple[Number, ...] = ()
    why: str = ""


def spelled(text: str) -> str:
    """Return a number as it is compared: capitals, one blank between groups. Raises: BadValue."""
    told = _MARKS.sub(" ", _STROKE.sub(" ", text.upper().replace("−", "-"))).strip()
    if len(told) > LONGEST or not all(c.isalnum() or c in f" /{ANY}" for c in told):
        raise BadValue(text, WANTED)
    if not told.isascii():
        raise BadValue(text, WANTED)
    return told


@lru_cache(maxsize=256)
def numbers_of(text: str) -> tuple[Number, ...]:
    """Return every number that a text, worn or whole, can be. Raises: BadValue for no number at all.

    Where a blank, a hyphen or a stroke ends one of them, only those that end there are meant.
    """
    told = spelled(text)
    if not told:
        return ()
    found: list[tuple[bool, Number]] = []
    for name, bearing in SPELLINGS.items():
        for prefix in ("", *_PREFIX):
            # worn characters are looked for in the number, never taken for a word before it
            rest = _behind(told, f"{prefix}{name}") if told.startswith(prefix) else None
            if rest is None:
                continue
            marked = rest == "" or rest[0] in " /"
            for number in _with_tail(bearing, prefix, rest.lstrip(" /")):
                found.append((marked, number))
    marked_only = [n for m, n in found if m] or [n for _, n in found]
    whole = [n for n in marked_only if not n.unknown] or marked_only
    return tuple(dict.fromkeys(whole))


def _behind(told: str, name: str) -> str | None:
    """Return what stands behind a name at the front, blanks within it passed over; None if it is not."""
    at = 0
    for wanted in name:
        while at < len(told) and told[at] == " " and wanted != " ":
            at += 1
        if at >= len(told) or not fits(told[at], wanted):
            return None
        at += 1
    return told[at:]


def _with_tail(bearing: Bearing, prefix: str, rest: str) -> Iterable[Number]:
    rest = rest.replace("/", " ")
    readings = tails(rest)
    if readings:
        for tail in readings:
            yield Number(bearing=bearing, suffixes=tail, prefix=prefix)
        return
    if rest and rest[0].isdigit() and not rest.startswith("2"):
        return  # figures go on: it is another number, not this one with something behind it
    known, left = _longest(rest)
    yield Number(bearing=bearing, suffixes=known, unknown=left, prefix=prefix)


def _longest(rest: str) -> tuple[tuple[Suffix, ...], str]:
    """Return the groups that are known in front, and what is left as printed."""
    groups = rest.split(" ")
    for cut in range(len(groups), 0, -1):
        readings = tails(" ".join(groups[:cut]))
        if readings:
            return readings[0], " ".join(groups[cut:])
    return (), rest


def off_by(number: Number, measured: Callipers) -> float:
    """Return the largest difference in mm between a number's dimensions and what was measured.

    Of a number with nothing behind it the width may be that with seals: they may be worn off the print.
    """
    b = number.bearing
    widths = (number.width,) if number.suffixes else (b.width, b.closed)
    wanted = {"bore": (b.bore,), "outside": (b.outside,), "width": widths}
    return max((min(abs(w - v) for w in wanted[n]) for n, v in measured.told), default=0.0)


def with_envelope(measured: Callipers, apart: float) -> tuple[Number, ...]:
    """Return numbers whose three dimensions are those measured within `apart` mm, the nearest first."""
    every = [
        Number(bearing=b, suffixes=s)
        for b in BEARINGS.values()
        for s in ((), (SUFFIXES["2RS"],))
        if not s or b.closed != b.width
    ]
    near = [n for n in every if off_by(n, measured) <= apart]
    return tuple(sorted(near, key=lambda n: off_by(n, measured)))


def look_up(text: str, measured: Callipers, apart: float) -> Found:
    """Return what a number as read and callipers make of a bearing; `apart` mm may lie between.

    Raises: BadValue for what is no number.
    """
    numbers = numbers_of(text)
    if not text.strip() and not measured.told:
        return Found(standing="nothing", why="Neither read nor measured.")
    if not numbers:
        return _by_dimensions(text, measured, apart)
    near = tuple(n for n in numbers if off_by(n, measured) <= apart)
    if not near:
        told = ", ".join(f"{n} {v:g}" for n, v in measured.told)
        first = numbers[0]
        return Found(
            standing="special",
            numbers=numbers,
            why=f"Number and callipers disagree: {first.words} is {_size(first)} mm, measured {told}. Special: "
            "order by dimensions, both ends.",
        )
    if len({n.bearing.name for n in near}) > 1:
        every = list(dict.fromkeys(n.bearing.name for n in near))
        more = f" and {len(every) - MOST_NAMED} more" if len(every) > MOST_NAMED else ""
        names = ", ".join(every[:MOST_NAMED]) + more
        left = [w for w in ("bore", "outside", "width") if w not in dict(measured.told)]
        ask = (
            f"Measure {left[0]}."
            if left
            else "The callipers do not part them: clean it and read again."
        )
        return Found(standing="several", numbers=near, why=f"It can be {names}. {ask}")
    first = near[0]
    tail = f" {first.unknown} is not known here: order it as printed." if first.unknown else ""
    seals = list(dict.fromkeys(n.closure for n in near))
    behind = ", ".join(n.words for n in near[:MOST_NAMED])
    more = f" With what stands behind it can be: {behind}." if len(near) > 1 else ""
    checked = "the callipers agree" if measured.whole else "not all measured yet"
    return Found(
        standing="known",
        numbers=near,
        why=f"{_size(first)} mm, {' or '.join(seals)}, {clearance_of(first.suffixes)}; {checked}.{tail}{more}",
    )


def _by_dimensions(text: str, measured: Callipers, apart: float) -> Found:
    read = f"{text.strip()} is no number known here. " if text.strip() else ""
    if not measured.whole:
        left = [w for w in ("bore", "outside", "width") if w not in dict(measured.told)]
        return Found(standing="unknown", why=f"{read}Measure {', '.join(left)}.")
    near = with_envelope(measured, apart)
    if not near:
        size = " × ".join(f"{v:g}" for _, v in measured.told)
        return Found(
            standing="special",
            why=f"{read}No common one measures {size} mm. Special: order by dimensions, both ends.",
        )
    if read:
        return Found(
            standing="special",
            numbers=near[:3],
            why=f"{read}By dimensions it is the envelope of {near[0].words}: compare seal and clearance, both ends.",
        )
    return Found(
        standing="known" if len({n.bearing.name for n in near}) == 1 else "several",
        numbers=near[:3],
        why=f"By dimensions {' or '.join(dict.fromkeys(n.words for n in near[:3]))}. Look for its number.",
    )


def _size(number: Number) -> str:
    b = number.bearing
    return f"{b.bore:.4g} × {b.outside:.4g} × {number.width:.4g}"


def describe(suffixes: Sequence[Suffix]) -> str:
    """Return what the groups behind a number mean."""
    return "; ".join(f"{s.text} {s.means}" for s in suffixes)
