"""What Mechanics must have settled, and the gate's line of the whole."""

import re
from functools import partial

from careful_coil.core.condition.suspicion import has_brushes
from careful_coil.core.job import Finding, Job
from careful_coil.core.kind import Weighed
from careful_coil.core.mechanics.bearing_rules import ENDS, bearing_findings
from careful_coil.core.mechanics.brush_rules import bar_findings, brush_findings
from careful_coil.core.mechanics.lead_rules import lead_findings
from careful_coil.core.mechanics.open_rules import open_findings
from careful_coil.core.mechanics.shaft_rules import shaft_findings
from careful_coil.core.settings import Settings

BY_RUN = ("bars", "bars-shaft")  # a line of its own, which the run closes where no meter reads bars
UNDONE = "Free by hand, no play, no rub; the bearing at each end."


def mechanics_findings(job: Job, kinds: Weighed, settings: Settings) -> list[Finding]:
    """Return findings on shaft, bearings, brushes, bars, leads, changes, and the gate's line of the whole.

    Of a sealed compressor nobody reaches shaft and bearings: none is judged.
    """
    if job.seen.sealed:
        return [*lead_findings(job, settings), *open_findings(job)]
    judged = [
        *shaft_findings(job, settings),
        *bearing_findings(job, settings),
        *brush_findings(job, settings),
        *bar_findings(job, settings, has_brushes(kinds)),
    ]
    rest = [*lead_findings(job, settings), *open_findings(job)]
    of = partial(Finding, code="mechanics", station="mechanics", gate=True)
    word = job.word("mechanics", "shaft", "bearings")
    word = word if word is not None and _both_ends(word.words) else None
    left = left_of(job, kinds)
    wrong = [
        f.subject
        for f in judged
        if f.gate and (f.verdict == "hold" or (f.verdict == "unproven" and f.code not in BY_RUN))
    ]
    if word is not None:
        whole = of(verdict="good", subject="Bearings and shaft judged", why=word.words)
        judged = [f for f in judged if f.verdict != "unproven"]
    elif not left and not wrong:
        whole = of(verdict="good", subject="Bearings and shaft judged", why="Shaft and both ends.")
    else:
        why = "; ".join([*wrong, *left]) + "." if not job.hands.empty else UNDONE
        whole = of(verdict="unproven", subject="Bearings and shaft not judged", why=why)
    return [*judged, *rest, whole]


def _both_ends(words: str) -> bool:
    """Whether a word says something of the shaft and of both ends, not only that all is well."""
    told = words.lower()
    ends = "both" in told or ("drive" in told and re.search(r"other|opposite|non-drive", told))
    return (
        bool(ends)
        and bool(re.search(r"bearing|end", told))
        and bool(re.search(r"shaft|by hand|turns", told))
    )


def left_of(job: Job, kinds: Weighed) -> list[str]:
    """Return what nobody has said anything of yet, in the order the hands work."""
    hands = job.hands
    found = [] if hands.felt.get("feel") else ["shaft not felt"]
    found += [
        f"{title.lower()} not looked at" for end, title in ENDS.items() if end not in hands.bearings
    ]
    if has_brushes(kinds):
        found += [] if hands.brushes else ["brushes not looked at"]
    return found
