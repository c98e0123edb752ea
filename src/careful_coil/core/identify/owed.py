"""Leads that ohms tell apart by their size alone: run from start, the main section from a speed's.

A start winding is the thinner wire: it has more ohms. Over one and a half times is taken for proof with
a clean start at rated volts and idle amps in their band; a permanent split motor with two windings
nearly alike may be tried either way. Where a start mechanism may lie in the path it is worked first.
"""

from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.result import Candidate, Identification

OVER = 1.5  # of the smaller ohms: trade practice for common, run and start
ALIKE = 0.05  # of its figure: ohms this close are the same
EITHER_WAY = {
    "T1",  # two windings of two speeds, each on the line's volts either way
    "T2",
    "T3",
    "T11",
    "T12",
    "T13",
    "run",
    "start",
    "main",
    "aux",
}  # windings of a permanent split motor; no tap among them
RARE = 0.002  # candidates less likely are not asked
NO_MECHANISM = 0.1  # odds of a start mechanism in the path, below which none is asked to be worked


def owed(found: Identification, evidence: Evidence) -> bool:
    """Whether readings show no more, and what is left is which winding is which."""
    best = found.best
    if found.suspects or best.unread or best.broken or found.status == "contradictory":
        return False
    if found.next is not None and found.next.kind == "resistance":
        return False
    if not all(best.certainty[t] == "proven" for t in best.extras):
        return False
    path = evidence.leanings.path
    speeds = best.variant == "two-windings"  # no kick tells which of two windings is the slow one
    bare = speeds or (bool(path) and path[1] < NO_MECHANISM)
    if not bare and not evidence.switches:
        return False
    others = [
        c for c in found.candidates[1:] if c.probability >= RARE and c.arrangement is not None
    ]
    own = [c for c in others if c.arrangement == best.arrangement and c.variant == best.variant]
    return all(_told_by_ohms(best, c, bare) for c in own)


def _told_by_ohms(best: Candidate, other: Candidate, bare: bool) -> bool:
    """Whether two candidates differ only in windings whose ohms are far enough apart, or that may be either."""
    if best.groups != other.groups:
        return False
    differ = {r for t, r in best.roles.items() if other.roles.get(t) != r}
    either = bare and differ <= EITHER_WAY
    ratios = [_ratio(ohm, other.coil_ohm.get(c, ohm)) for c, ohm in best.coil_ohm.items()]
    if max(ratios, default=1.0) >= OVER or either:
        return True
    return not any(ratio > 1 + ALIKE for ratio in ratios)


def _ratio(one: float, two: float) -> float:
    low, high = sorted((one, two))
    return high / low if low > 0 else float("inf")
