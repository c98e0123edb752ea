"""What is answered to a first question, and symptoms and looks as they are typed, as entries."""

import re

from careful_coil.core.choices import Choice, pick, plain
from careful_coil.core.condition.burn import BURN, BURNS
from careful_coil.core.condition.checklist import ITEMS, MADE_GOOD
from careful_coil.core.condition.suspicion import symptoms_in
from careful_coil.core.condition.symptoms import BY_HAND, NO, SYMPTOMS, YES
from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_intake import RestFine
from careful_coil.core.job.noted import Noted, note


def first_answer(key: str, answer: str) -> tuple[Noted | RestFine, ...]:
    """Return what is logged of a first question; how it turned by hand stands on the checklist too."""
    felt: tuple[Noted | RestFine, ...] = ()
    if key == BY_HAND and answer == "free":
        felt = (note("condition", BY_HAND, ""), RestFine(items=(BY_HAND,)))
    elif key == BY_HAND and answer in ITEMS[BY_HAND].wrong:
        felt = (note("condition", BY_HAND, answer),)
    return note("symptom", key, answer), *felt


def read_symptoms(text: str) -> tuple[Noted, ...]:
    """Return symptoms as typed, several at once: `hums, no smoke`. Raises: BadValue."""
    pieces = [plain(p) for p in re.split(r"[,;.]|\band\b|\bbut\b", text.lower()) if plain(p)]
    found = [n for p in pieces for n in _symptoms(p, alone=len(pieces) == 1)]
    if not found:
        raise BadValue(text, f"how it failed: {', '.join(SYMPTOMS)}; or no before it")
    return tuple(found)


def _symptoms(piece: str, alone: bool) -> list[Noted]:
    names = {plain(s): s for s in SYMPTOMS}
    asked = _NO.sub("", piece)
    answer = YES if asked == piece else NO
    begun = [s for n, s in names.items() if asked and n.startswith(asked)]
    fits = [names[asked]] if asked in names else begun
    if len(fits) > 1:
        raise BadValue(piece, f"how it failed: {', '.join(fits)}; or no before it")
    inside = _INSIDE.search(asked) is None  # “hums without load” says two things
    fits = fits or list(symptoms_in(asked) if inside else ())
    if not fits and answer == NO:  # “no power” is a symptom, not the lack of one
        fits, answer = list(symptoms_in(piece)), YES
    if not fits and (alone or not _IMPLIED.search(piece)):
        raise BadValue(piece, f"how it failed: {', '.join(SYMPTOMS)}; or no before it")
    return [note("symptom", s, answer) for s in fits]


_NO = re.compile(r"^(?:it )?(?:no|not|never|does not|doesn't|do not|isn't|is not) ")
_INSIDE = re.compile(r"\b(?:no|not|never|without)\b|n't\b")
_IMPLIED = re.compile(r"\b(?:not|n't) (?:start|run|turn)|will not|won't")  # beside another symptom


def read_looks(text: str) -> tuple[Noted | RestFine, ...]:
    """Return looks typed as `windings burnt, one side; leads stiff; fan fine`. Raises: BadValue.

    What follows the comma is kept in the bench's own words; so is an answer not on the list.
    """
    names = "|".join(re.escape(n) for n in sorted((*ITEMS, *ALSO, BURN), key=len, reverse=True))
    pieces = re.split(rf"[;\n]|,(?=\s*(?:{names})\b)", text)
    found = [body for p in pieces if p.strip() for body in _look(p)]
    if not found:
        raise BadValue(text, _LOOKS)
    return tuple(found)


LONGEST = 200
FINE = Choice(word="fine", also=("ok", "okay", "good", "sound", "all right"))
ALSO = {"shaft": BY_HAND, "by hand": BY_HAND, "winding": "windings"}
MORE = {
    (BY_HAND, "stiff"): ("tight", "binding", "binds", "hard to turn", "drags"),
    (BY_HAND, "rubs"): ("scrapes", "touches"),
    (BY_HAND, "seized"): ("stuck", "locked", "solid", "will not turn"),
    ("capacitor", "bulged"): ("swollen", "blown up"),
    ("capacitor", "vented"): ("burst",),
    ("contacts", "burnt"): ("black", "sooted"),
    ("leads", "stiff"): ("hard", "brittle"),
    ("leads", "bare"): ("bare copper",),
}
_LOOKS = f"a look and what is wrong, for example windings burnt; looks: {', '.join((*ITEMS, BURN))}"


def _look(piece: str) -> tuple[Noted | RestFine, ...]:
    head, _, words = piece.strip().partition(",")
    plainly = " ".join(head.lower().split())
    named = max((n for n in (*ITEMS, *ALSO, BURN) if plainly.startswith(n)), key=len, default="")
    name, answer = ALSO.get(named, named), " ".join(head.split())[len(named) :].strip(" :")
    if not name or not answer:
        raise BadValue(piece, _LOOKS)
    if name == BURN:
        answer = pick(answer, [Choice(word=b, also=(u.title,)) for b, u in BURNS.items()])
        return (note("condition", name, answer, words=words.strip()),)
    known = [
        Choice(word=w, verdict=wrong.weight, also=MORE.get((name, w), ()))
        for w, wrong in ITEMS[name].wrong.items()
    ]
    try:
        answer = pick(answer, [*known, Choice(word=MADE_GOOD), FINE])
    except BadValue:
        if len(answer) > LONGEST:
            raise BadValue(
                f"{len(answer)} characters", f"at most {LONGEST}; more after a comma"
            ) from None
    if answer == FINE.word:
        return note("condition", name, ""), RestFine(items=(name,))
    return (note("condition", name, answer, words=words.strip()),)
