"""While groups are sought: the pair, or the lead against several at once, that parts most of them."""

from itertools import combinations

import numpy as np

from careful_coil.core.identify.cover import Cover
from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.nextstep import LEAST_BITS, effort, entropy
from careful_coil.core.identify.result import NextReading
from careful_coil.core.values import show_percent

LEAST_BUNCHED = 7  # leads from which clipping several together saves readings
MOST_BUNCHED = 8  # in one clip
BUNCH_WORTH = 1.15  # a bunched reading gives no coil ohms: it must be worth so much more


def next_group(groups: Cover, evidence: Evidence) -> NextReading | None:
    """Return the reading whose conducting or not parts most of the groupings that still stand."""
    count, clips = len(evidence.tags), evidence.leanings.clips
    read = {(o.a, o.b) for o in evidence.ohms if o.state != "unsteady"}
    found: NextReading | None = None
    best = 0.0
    for a, b in combinations(range(count), 2):
        odds = float(groups.conduct[a, b])
        asked = 0 < odds < 1 and (a, b) not in read and not evidence.waits("resistance", a, b)
        gain = entropy((odds, 1 - odds)) if asked else 0.0
        worth = gain / effort((a, b), clips)
        if worth > best + 1e-9 and gain >= LEAST_BITS:
            best, found = worth, _pair(a, b, odds, gain, evidence)
    if count < LEAST_BUNCHED or not evidence.leanings.bunching:
        return found
    for lead in range(count):
        many, odds = _half(groups, lead, read)
        if len(many) < 2 or evidence.waits("resistance", lead, many):
            continue
        gain = entropy((odds, 1 - odds))
        worth = gain / effort((lead, *many), clips) / BUNCH_WORTH
        if worth > best + 1e-9:
            best, found = worth, _bunch(lead, many, odds, gain, evidence)
    return found


def _half(groups: Cover, lead: int, read: set[tuple[int, int]]) -> tuple[tuple[int, ...], float]:
    """Return the leads, likeliest first, of which it is even odds that one belongs to `lead`."""
    row = groups.conduct[lead].copy()
    row[lead] = 0.0
    order = [
        int(k)
        for k in np.argsort(-row, kind="stable")
        if 0 < row[k] < 1 and (min(lead, k), max(lead, k)) not in read
    ]
    total = np.minimum(np.cumsum(row[order]), 1.0)[:MOST_BUNCHED]
    if not len(total):
        return (), 0.0
    cut = int(np.argmin(np.abs(total - 0.5)))
    return tuple(sorted(order[: cut + 1])), float(total[cut])


def _pair(a: int, b: int, odds: float, gain: float, evidence: Evidence) -> NextReading:
    one, two = evidence.tags[a], evidence.tags[b]
    return NextReading(
        kind="resistance",
        between=(one, two),
        gain_bits=round(gain, 3),
        why=f"It settles whether {one} and {two} belong together: {show_percent(odds)} that they do.",
    )


def _bunch(
    lead: int, many: tuple[int, ...], odds: float, gain: float, evidence: Evidence
) -> NextReading:
    one, several = evidence.tags[lead], tuple(evidence.tags[k] for k in many)
    return NextReading(
        kind="resistance",
        between=(one, several),
        gain_bits=round(gain, 3),
        why=f"Clip {', '.join(several)} together as one end: does {one} belong to any of them? "
        f"{show_percent(odds)} that it does; open rules out {len(several)} pairs at once.",
    )
