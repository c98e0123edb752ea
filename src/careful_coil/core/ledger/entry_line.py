"""What is typed on the meter strip, understood: pure, so that it can be tested alone."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

from careful_coil.core.choices import one_of
from careful_coil.core.errors import BadValue
from careful_coil.core.identify.marks import is_mark
from careful_coil.core.job import AnyBody, Job
from careful_coil.core.job.entries import (
    ReadingMoved,
    RoleKnown,
    Struck,
    TagsSwapped,
)
from careful_coil.core.job.fold import reading_of
from careful_coil.core.probes import Request
from careful_coil.core.readings import (
    End,
)
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse

LINES = ("L1", "L2", "L3")
ROLES = (
    *("common", "run", "start", "high", "medium", "low", "tap", "main", "aux", "neutral"),
    *("field", "field-tap", "armature", "tachometer", "thermostat", "thermistor", "rtd", "heater"),
    *("capacitor", "switch", "protector", "brake", "empty", "junction"),
)


_STRANGE = re.compile(r"[A-Z]{2}")  # a pair as it is typed before its value


@dataclass(frozen=True, slots=True)
class Typed:
    """Where a typed text goes and the text of the value."""

    target: Request
    value: str


def split(text: str, target: Request | None, tags: Sequence[str]) -> Typed:
    """Return target and value of a typed line; a pair in front goes before the suggestion.

    `AF 3.92`, `A F 3.92`, `A frame open`, `3.92`. Raises: BadValue.
    """
    words = text.split()
    pair, rest = _pair(words, tags)
    if pair is not None:
        if not rest:
            raise BadValue(text, "a value after the pair, for example AF 3.92")
        if pair[0] == pair[-1] and len(pair) > 1:
            raise BadValue(text, f"two leads, {pair[0]} and another")
        kind = "frame" if len(pair) == 1 else "resistance"
        return Typed(Request(kind=kind, ends=pair), " ".join(rest))
    if len(words) > 1 and _STRANGE.fullmatch(words[0]) and words[1][0].isdigit() and tags:
        raise BadValue(text, f"two of {', '.join(tags)}", f"There is no {words[0]} here.")
    if target is None:
        raise BadValue(text, "two leads and a value, for example AF 3.92")
    return Typed(target, text.strip())


def _pair(words: list[str], tags: Sequence[str]) -> tuple[tuple[str, ...] | None, list[str]]:
    known = {t.upper(): t for t in tags}
    first = words[0].upper() if words else ""
    if len(words) > 1 and first in known and words[1].lower() in ("frame", "pe"):
        return (known[first],), words[2:]
    if len(words) > 1 and first in known and words[1].upper() in known and len(words) > 2:
        return (known[first], known[words[1].upper()]), words[2:]
    for cut in range(1, len(first)):
        if first[:cut] in known and first[cut:] in known and first[:cut] != first[cut:]:
            if not re.search(r"[A-Z]", first):
                return None, words  # numbered tags run together would swallow figures
            return (known[first[:cut]], known[first[cut:]]), words[1:]
    return None, words


def swept(text: str, tags: Sequence[str]) -> str | None:
    """Return the lead of `sweep A`, empty for `sweep off`, None when it is no sweep. Raises: BadValue."""
    words = text.split()
    if not words or words[0].lower() != "sweep":
        return None
    by_name = {t.upper(): t for t in tags} | {"OFF": ""}
    if len(words) != 2 or words[1].upper() not in by_name:
        raise BadValue(text, "a lead, for example sweep A, or sweep off")
    return by_name[words[1].upper()]


def command(text: str, job: Job) -> AnyBody | None:
    """Return the entry of a typed command, or None when the text is a value.

    `move AF AH`, `swap A B`, `strike AF dirty clip`, `know B common`. Raises: BadValue.
    """
    words = text.split()
    verb = words[0].lower() if words else ""
    if verb == "know":
        return known_of(" ".join(words[1:]), job.tags)
    wanted = {"move": "move AF AH", "swap": "swap A B", "strike": "strike AF dirty clip"}.get(verb)
    if wanted is None:
        return None
    if verb == "swap":
        known = {t.upper(): t for t in job.tags}
        tags = [known.get(w.upper()) for w in words[1:]]
        if len(tags) != 2 or None in tags or tags[0] == tags[1]:
            raise BadValue(text, f"two tags, for example {wanted}")
        return TagsSwapped(tags=(str(tags[0]), str(tags[1])))
    pair, rest = _pair([*words[1:], ""], job.tags)
    taken = reading_of(job, pair[0], pair[1]) if pair and len(pair) == 2 else None
    if taken is None:
        raise BadValue(text, f"a pair that has a reading, for example {wanted}")
    rest = [w for w in rest if w]
    if verb == "strike":
        return Struck(target=taken.entry, reason=" ".join(rest) or "mistake")
    to, more = _pair([*rest, ""], job.tags)
    if to is None or len(to) != 2 or any(more):
        raise BadValue(text, f"the pair it really was of, for example {wanted}")
    return ReadingMoved(target=taken.entry, between=(to[0], to[1]))


def known_of(text: str, tags: Sequence[str]) -> RoleKnown:
    """Return a role told as `B common`, or by any mark as `B U2`; `B nothing` takes it back.

    Raises: BadValue.
    """
    words = text.split()
    by_name = {t.upper(): t for t in tags}
    tag = by_name.get(words[0].upper()) if len(words) == 2 else None
    role = words[-1] if words else ""
    word = role.lower() in (*ROLES, "nothing")
    if tag is None or not (word or is_mark(role)):
        wanted = (
            "a tag and what it is: B common, A T1, C U2, E heater, or B nothing to take it back"
        )
        raise BadValue(text, wanted)
    told = role.lower() if word else role.upper()
    return RoleKnown(tag=tag, role="" if told == "nothing" else told)


def said_of(text: str, ends: Sequence[str], choices: Sequence[str]) -> list[RoleKnown]:
    """Return what a pair beside the winding is said to be, for each of its leads. Raises: BadValue."""
    word = one_of(text, choices)
    return [RoleKnown(tag=t, role=word) for t in ends]


COIL_WANTED = "leads or lines, then ohms: AD 0.5093, L1 L2 1.02, A B+C 0.38"


def coil_ohm_of(text: str, tags: Sequence[str]) -> tuple[tuple[End, End], float, float]:
    """Return the ends, Ω and the step of the digits of a reading for the balance. Raises: BadValue."""
    known = (*tags, *LINES)
    words = text.split()
    if len(words) == 3 and "+" in words[0] + words[1]:
        by_name = {t.upper(): t for t in known}
        ends = [[by_name.get(w.upper(), "") for w in word.split("+")] for word in words[:2]]
        flat = [t for e in ends for t in e]
        if not all(flat) or len(set(flat)) < len(flat):
            raise BadValue(text, COIL_WANTED)
        pair = tuple(e[0] if len(e) == 1 else tuple(e) for e in ends)
        rest = words[2]
    else:
        found, left = _pair(words, known)
        if found is None or len(found) != 2 or not left:
            raise BadValue(text, COIL_WANTED)
        pair, rest = found, " ".join(left)
    value = parse(rest, Quantity.RESISTANCE)
    if value.number is None or value.qualifier is not None or value.value <= 0:
        raise BadValue(text, COIL_WANTED)
    return (pair[0], pair[1]), value.value, value.step


def moved_pair(target: Request, tags: Sequence[str], dx: int, dy: int) -> Request:
    """Return the target one column (dx) or row (dy) further in the sheet, as far as it goes."""
    if target.kind not in ("resistance", "switch", "shaft") or len(tags) < 2:
        return target
    a, b = sorted(tags.index(t) for t in target.ends)
    b = min(max(b + dx, 1), len(tags) - 1)
    a = min(max(a + dy, 0), len(tags) - 2)
    if a >= b:
        a, b = (b - 1, b) if dx else (a, a + 1)
    return replace(target, kind="resistance", ends=(tags[a], tags[b]))
