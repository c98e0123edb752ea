"""Lead colours that are easily taken for each other: named before work starts."""

import itertools
from collections.abc import Sequence

from careful_coil.core.job.at_intake import Lead

# pairs that dirt, heat or a bad lamp makes alike: a bench's experience
ALIKE: dict[frozenset[str], str] = {
    frozenset(pair.split()): why
    for why, pairs in {
        "by dirt": ("grey white", "white yellow", "grey blue", "pink white", "green grey"),
        "by heat": (
            "brown red",
            "black brown",
            "orange brown",
            "pink red",
            "blue green",
            "white brown",
        ),
        "by lamplight": (
            "orange red",
            "orange yellow",
            "violet blue",
            "black blue",
            "violet brown",
        ),
    }.items()
    for pair in pairs
}
SAME = {"gray": "grey", "purple": "violet", "natural": "white", "tan": "brown"}


def confusable(leads: Sequence[Lead]) -> tuple[tuple[str, str, str], ...]:
    """Return pairs of leads whose colours are easily confused, with the reason."""
    found = []
    for a, b in itertools.combinations(leads, 2):
        if not a.colour.strip() or not b.colour.strip():
            continue
        why = _why(a, b)
        if why:
            found.append((a.tag, b.tag, why))
    return tuple(found)


def _why(a: Lead, b: Lead) -> str:
    one, two = _plain(a.colour), _plain(b.colour)
    stripe, other = _plain(a.tracer), _plain(b.tracer)
    if one == two:
        if stripe == other:
            return f"both {one}{f' with {stripe}' if stripe else ''}"
        if not stripe or not other:
            return f"{one}, plain and with {stripe or other}"
        close = ALIKE.get(frozenset((stripe, other)))
        return f"{one}, stripes alike {close}" if close else ""
    if stripe and other and {one, stripe} == {two, other}:
        return f"{one} with {stripe}, {two} with {other}"
    close = ALIKE.get(frozenset((one, two)))
    return f"{one} and {two}, alike {close}" if close and stripe == other else ""


def _plain(colour: str) -> str:
    word = colour.strip().lower()
    return SAME.get(word, word)


def colour_words(leads: Sequence[Lead]) -> str:
    """Return the pairs in words, or nothing."""
    pairs = [f"{a} and {b} ({why})" for a, b, why in confusable(leads)]
    return f"Easily taken for each other: {'; '.join(pairs)}." if pairs else ""
