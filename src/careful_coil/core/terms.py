"""The shop's own words for things that have two names in the trade, and its spelling.

Only words of the program pass through here: a name or a remark that somebody typed stays as it was typed.
"""

import re
from collections.abc import Mapping
from functools import lru_cache

from careful_coil.core.settings import Settings

STAR, WYE = "star", "wye"
AS_WRITTEN, BRITISH, AMERICAN = "as written", "british", "american"
# British, American: a word that is found in one is shown in the other; the longer before what it begins with
PAIRS: tuple[tuple[str, str], ...] = (
    ("non-drive end", "opposite drive end"),
    ("end shields", "end bells"),
    ("end shield", "end bell"),
    ("flash tests", "hipots"),
    ("flash test", "hipot"),
    ("phase sequence", "phase rotation"),
    ("protective earth", "protective ground"),
    ("earth bond", "ground bond"),
    ("earthing", "grounding"),
    ("unearthed", "ungrounded"),
    ("earthed", "grounded"),
    ("earth", "ground"),
    ("flexes", "cords"),
    ("flex", "cord"),
    ("stars", "wyes"),
    ("star", "wye"),
    ("anticlockwise", "counterclockwise"),
    ("colours", "colors"),
    ("coloured", "colored"),
    ("colour", "color"),
    ("aluminium", "aluminum"),
    ("centred", "centered"),
    ("centre", "center"),
    ("callipers", "calipers"),
    ("grey", "gray"),
    ("neighbours", "neighbors"),
    ("neighbour", "neighbor"),
    ("vapour", "vapor"),
    ("judgement", "judgment"),
)
ONE_WAY_BRITISH: Mapping[str, str] = {"sleeve bearings": "bushes", "sleeve bearing": "bush"}
ONE_WAY_AMERICAN: Mapping[str, str] = {
    "bushes": "sleeve bearings",
    "bush": "sleeve bearing",
    "metres": "meters",  # not the other way: what reads ohms is a meter everywhere
    "metre": "meter",
}


def in_terms(text: str, settings: Settings) -> str:
    """Return a text of the program in the terms this shop chose: wye or star, and British or American."""
    return said(text, settings.school("star"), settings.school("terms"))


@lru_cache(8192)
def said(text: str, star: str = WYE, terms: str = AS_WRITTEN) -> str:
    """Return a text in the terms named; the choice between wye and star by itself wins."""
    if terms != AS_WRITTEN:
        text = _exchanged(terms).sub(lambda m: _as(m[0], _table(terms)), text)
    if star == STAR:
        text = _WYE.sub(lambda m: _as(m[0], {"wye": "star", "wyes": "stars"}), text)
    return text


@lru_cache(2)
def _table(terms: str) -> dict[str, str]:
    """Return what is said for what."""
    if terms == BRITISH:
        return {american: british for british, american in PAIRS} | dict(ONE_WAY_BRITISH)
    return dict(PAIRS) | dict(ONE_WAY_AMERICAN)


@lru_cache(2)
def _exchanged(terms: str) -> re.Pattern[str]:
    words = sorted(_table(terms), key=len, reverse=True)
    return re.compile(rf"(?<![\w-])({'|'.join(map(re.escape, words))})(?![\w])", re.IGNORECASE)


_WYE = re.compile(r"(?<![\w-])(wyes?)(?!\w)", re.IGNORECASE)


def _as(found: str, table: Mapping[str, str]) -> str:
    """Return the other word, with a capital where the first one had it."""
    other = table[found.lower()]
    return other[0].upper() + other[1:] if found[0].isupper() else other
