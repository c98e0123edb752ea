"""Lead colours that are easily taken for each other: named before work starts."""

import itertools
from collections.abc import Sequence

from careful_coil.core.job.at_intake import Lead

# pairs that dirt, heat or a bad lamp makes alike, the commonest first: a bench's experience
ALIKE: dict[frozenset[str], str] = {
    frozenset(pair.split()): why
    for pair, why in (
        ("grey white", "by dirt"),
        ("yellow white", "by dirt"),
        ("orange red", "by lamplight"),
        ("brown red", "by heat"),
        ("black brown", "by heat"),
        ("black blue", "by lamplight"),
        ("blue violet", "by lamplight"),
        ("orange brown", "by heat"),
        ("blue green", "by heat"),
        ("pink white", "by dirt"),
        ("pink red", "by heat"),
        ("grey blue", "by dirt"),
        ("orange yellow", "by lamplight"),
    )
}
RANK = list(ALIKE)
MOST = 5
SAME = {"gray": "grey", "purple": "violet", "natural": "white", "tan": "brown"}


def confusable(leads: Sequence[Lead]) -> tuple[tuple[str, str, str], ...]:
    """Return pairs of leads whose colours are easily confused, with the reason, the worst first."""
    found = []
    for a, b in itertools.combinations(leads, 2):
        why = _why(a, b) if a.colour.strip() and b.colour.strip() else ""
        if why:
            pair = frozenset((_plain(a.colour), _plain(b.colour)))
            found.append((RANK.index(pair) if pair in ALIKE else -1, a.tag, b.tag, why))
    return tuple((a, b, why) for _, a, b, why in sorted(found, key=lambda f: f[0]))


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
    word = colour.strip().lower().rpartition("-")[2]  # a light blue is a blue
    return SAME.get(word, word)


def colour_words(leads: Sequence[Lead]) -> str:
    """Return the worst pairs in words, or nothing; all of one colour in one word."""
    said = [x for x in leads if x.colour.strip()]
    if len(said) > 2 and len({(_plain(x.colour), _plain(x.tracer)) for x in said}) == 1:
        return f"All {_plain(said[0].colour)}: go by tags, never by colour."
    pairs = [f"{a} and {b} ({why})" for a, b, why in confusable(leads)]
    more = f"; {len(pairs) - MOST} pairs more" if len(pairs) > MOST else ""
    return f"Easily taken for each other: {'; '.join(pairs[:MOST])}{more}." if pairs else ""


# single-phase leads by custom (NEMA MG 1, lead colours of single-phase motors): worth a little, never proof
CUSTOM = {
    "blue": "T1",
    "white": "T2",
    "orange": "T3",
    "yellow": "T4",
    "black": "T5",
    "red": "T8",
    "brown": "P2",
}
FEWEST = 2  # so many leads of such colours make a set


def by_custom(leads: Sequence[Lead]) -> str:
    """Return which marks the colours of unmarked single-phase leads would have by custom, or nothing."""
    told = [
        f"{x.tag} {_plain(x.colour)} {CUSTOM[_plain(x.colour)]}"
        for x in leads
        if _plain(x.colour) in CUSTOM and not (x.tracer.strip() or x.marking.strip())
    ]
    apart = len({t.rpartition(" ")[2] for t in told}) == len(told)
    if len(told) < FEWEST or not apart:
        return ""
    return f"By custom {', '.join(told)}. Makers differ and repairs more: readings decide."
