"""What stands behind a bearing's number: seals, groove, clearance, cage, grease, as commonly printed.

Makers differ beyond these; what is not known here is handed on as printed.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

Sort = Literal["seal", "groove", "bore", "clearance", "cage", "grease", "precision", "heat"]
Closure = Literal["open", "one shield", "two shields", "one seal", "two seals", "two light seals"]
ANY = "?"  # a worn character
MOST_READINGS = 12

CLOSURES: dict[str, Closure] = {
    "Z": "one shield",
    "ZZ": "two shields",
    "2Z": "two shields",
    "RS": "one seal",
    "RS1": "one seal",
    "RSR": "one seal",
    "RSH": "one seal",
    "DU": "one seal",
    "LU": "one seal",
    "2RS": "two seals",
    "2RS1": "two seals",
    "2RSR": "two seals",
    "2RSH": "two seals",
    "DDU": "two seals",
    "LLU": "two seals",
    "2RZ": "two light seals",
    "2RSL": "two light seals",
    "VV": "two light seals",
    "LLB": "two light seals",
}


@dataclass(frozen=True, slots=True)
class Suffix:
    """One group behind the number, and what it means."""

    text: str
    sort: Sort
    means: str


def _all() -> dict[str, Suffix]:
    found = {t: Suffix(t, "seal", m) for t, m in CLOSURES.items()}
    groups: tuple[tuple[Sort, dict[str, str]], ...] = (
        ("groove", {"N": "groove in the outer ring", "NR": "groove with its snap ring"}),
        ("bore", {"K": "tapered bore"}),
        (
            "clearance",
            {
                "C1": "far less clearance than normal",
                "C2": "less clearance than normal",
                "CN": "normal clearance",
                "C3": "more clearance than normal",
                "C4": "more clearance than C3",
                "C5": "more clearance than C4",
                "CM": "clearance for electric motors",
            },
        ),
        (
            "cage",
            {
                "TN9": "polyamide cage",
                "TNH": "PEEK cage",
                "TVH": "polyamide cage",
                "TVP2": "polyamide cage",
                "M": "brass cage",
                "J": "steel cage",
            },
        ),
        (
            "grease",
            {
                "HT": "grease for high temperature",
                "LT": "grease for low temperature",
                "MT": "grease for medium temperature",
                "WT": "grease for a wide range",
            },
        ),
        ("precision", {"P6": "closer than normal", "P5": "closer than P6", "P4": "closer than P5"}),
        (
            "heat",
            {
                "S0": "stable to 150 °C",
                "S1": "stable to 200 °C",
                "S2": "stable to 250 °C",
                "S3": "stable to 300 °C",
            },
        ),
    )
    for sort, told in groups:
        found |= {t: Suffix(t, sort, m) for t, m in told.items()}
    return found


SUFFIXES: dict[str, Suffix] = _all()
_LONGEST_FIRST = sorted(SUFFIXES, key=lambda t: (-len(t), t))


def fits(worn: str, text: str) -> bool:
    """Return whether worn characters can be a text: `?` stands for one of them."""
    return len(worn) == len(text) and all(w in (ANY, t) for w, t in zip(worn, text, strict=True))


def tails(worn: str) -> tuple[tuple[Suffix, ...], ...]:
    """Return what the characters behind a number can be, each sort once, at most a dozen of them."""
    found: list[tuple[Suffix, ...]] = []
    for told in _tails(worn, ()):
        if told not in found:
            found.append(told)
        if len(found) >= MOST_READINGS:
            break
    fewest = min((len(t) for t in found), default=0)
    return tuple(t for t in found if len(t) == fewest)


def _tails(worn: str, before: tuple[Suffix, ...]) -> Iterator[tuple[Suffix, ...]]:
    worn = worn.lstrip(" ")
    if not worn:
        yield before
        return
    for text in _LONGEST_FIRST:
        one = SUFFIXES[text]
        if any(b.sort == one.sort for b in before):
            continue
        if fits(worn[: len(text)], text):
            yield from _tails(worn[len(text) :], (*before, one))


def closure_of(suffixes: Sequence[Suffix]) -> Closure:
    """Return how a bearing is closed."""
    return next((CLOSURES[s.text] for s in suffixes if s.sort == "seal"), "open")


def clearance_of(suffixes: Sequence[Suffix]) -> str:
    """Return its clearance group, CN where none is printed."""
    return next((s.text for s in suffixes if s.sort == "clearance"), "CN")
