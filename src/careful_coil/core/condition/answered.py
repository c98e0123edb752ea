"""What is answered to a first question, and a symptom as it is typed, as entries."""

from careful_coil.core.condition.checklist import ITEMS
from careful_coil.core.condition.symptoms import BY_HAND, SYMPTOMS
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


def read_symptom(text: str) -> tuple[str, str]:
    """Return a symptom and yes or no, typed as `hums` or `no hums`. Raises: BadValue."""
    words = text.lower().split()
    answer = "yes"
    if words and words[0] in ("no", "not"):
        answer, words = "no", words[1:]
    wanted = "-".join(words)
    fits = [s for s in SYMPTOMS if s == wanted] or [
        s for s in SYMPTOMS if wanted and s.startswith(wanted)
    ]
    if len(fits) != 1:
        raise BadValue(text, "how it failed: " + ", ".join(fits or SYMPTOMS) + "; or no before it")
    return fits[0], answer
