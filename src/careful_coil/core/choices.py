"""Answers chosen from a few: the word that is kept, and all that people type for it."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal, cast

from careful_coil.core.errors import BadValue

Verdict = Literal["", "good", "note", "watch", "hold"]
WEIGHT: tuple[str, ...] = ("hold", "watch", "note", "good", "")
_WORDS = re.compile(r"[a-z0-9°/+&.'-]+")
_NEGATED = re.compile(r"\b(not|no|never|isn.?t|doesn.?t|don.?t|without)\b")
_ENDING = re.compile(r"(?<=\w{3})(ings?|ed|es|s|y)$")
# what else is said for an answer wherever it is offered
COMMON: Mapping[str, tuple[str, ...]] = {
    "yes": ("y", "yep", "yeah", "true", "it does", "it is", "ja", "oui", "si", "ok"),
    "no": ("n", "nope", "none", "false", "it does not", "it is not", "nein", "non"),
    "good": ("ok", "okay", "fine", "sound", "yes", "all right", "as it should"),
    "right": ("ok", "good", "fine", "yes", "as it should"),
    "even": ("ok", "good", "equal", "same", "alike"),
    "does not": ("no", "nothing", "no click", "not heard", "heard nothing", "never", "stays"),
    "in and out": ("chatters", "chattering", "flutters"),
    "opens": (
        *("yes", "open", "opened", "cuts out", "drops out", "lets go"),
        *("heard it", "heard", "i heard it", "click", "clicks", "clicked"),
    ),
    "closed": ("yes", "closes", "shut", "made", "beeps"),
    "starts": ("yes", "started", "it starts", "runs"),
    "as before": ("no", "same", "no change", "the same"),
    "stays": ("no", "stuck", "does not open"),
    "arrives": ("yes", "volts there", "there"),
    "clear": ("yes", "free", "clean", "ok"),
    "steady": ("yes", "ok", "still"),
    "quiet": ("yes", "silent", "gone"),
    "not tried": ("unknown", "do not know", "don't know", "?", "not done"),
    "runs well": ("ok", "good", "fine"),
    "does not start": ("no", "dead", "only hums"),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Choice:
    """One answer: the word that is kept, what it means and why, what else people type for it."""

    word: str
    verdict: Verdict = ""
    why: str = ""
    also: tuple[str, ...] = ()


def table(text: str, **filled: str) -> tuple[Choice, ...]:
    """Return answers as a table has them: `word | verdict | why = what else is typed, for it`.

    The part behind = may be a line of its own; `filled` goes in the place of names in braces.
    """
    found: list[Choice] = []
    for line in text.format(**filled).strip().splitlines():
        head, _, more = line.partition(" = ")
        also = tuple(a.strip() for a in more.split(",") if a.strip())
        if not head.strip():
            found[-1] = replace(found[-1], also=also)
            continue
        word, verdict, why, *_ = [c.strip() for c in head.split("|")] + ["", ""]
        found.append(Choice(word=word, verdict=cast(Verdict, verdict), why=why, also=also))
    return tuple(found)


def words(*answers: str) -> tuple[Choice, ...]:
    """Return answers that mean nothing by themselves."""
    return tuple(Choice(word=w) for w in answers)


YES_NO = words("yes", "no")


def plain(text: str) -> str:
    """Return a text as it is compared: small letters, its words with a blank between, dashes as blanks."""
    typed = " ".join(w.strip(".'") for w in _WORDS.findall(text.lower()))
    return " ".join(typed.replace("-", " ").split())


def pick(text: str, choices: Sequence[Choice]) -> str:
    """Return the one answer a text means: its word, its number, its beginning, or what people say for it.

    Where several are said at once (“bulged and leaking”) the worst of them counts. Raises: BadValue with
    the answers there are.
    """
    typed, kept = plain(text), [c.word for c in choices]
    numbered = not any(k.isdecimal() for k in kept)
    if numbered and typed.isascii() and typed.isdecimal() and 1 <= int(typed) <= len(kept):
        return kept[int(typed) - 1]
    names = {plain(a): c for c in choices for a in COMMON.get(c.word, ())}
    names |= {plain(a): c for c in choices for a in c.also}
    names |= {plain(c.word): c for c in choices}
    if typed in names:
        return names[typed].word
    begun = {c.word for n, c in names.items() if typed and n.startswith(typed)}
    if len(begun) == 1:
        return begun.pop()
    stems = {_stem(n): c for n, c in names.items()}
    if typed and _stem(typed) in stems:
        return stems[_stem(typed)].word
    within = [c for n, c in names.items() if n not in ("y", "n") and _said(n, typed)]
    if within and not begun and not _NEGATED.search(typed):
        return min(within, key=lambda c: WEIGHT.index(c.verdict)).word
    raise BadValue(text, ", ".join(kept))


def one_of(text: str, answers: Sequence[str]) -> str:
    """Return the one of some answers that a text means. Raises: BadValue with the answers there are."""
    return pick(text, words(*answers))


def _stem(typed: str) -> str:
    return " ".join(_ENDING.sub("", w) for w in typed.split())


def _said(name: str, typed: str) -> bool:
    return re.search(rf"(?<!\w){re.escape(name)}(?!\w)", typed) is not None
