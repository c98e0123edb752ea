"""Why it is believed: each reading, what the likeliest winding and the next one expect of it."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from careful_coil.core.identify.blocks import P_FALSE_OPEN, P_STRAY
from careful_coil.core.identify.evidence import Evidence, Ohms
from careful_coil.core.identify.fit import COIL_SPREAD, LOG_RANGE, P_BAD_CLIP
from careful_coil.core.identify.result import Candidate
from careful_coil.core.readings import LEAD_OHM_HIGHEST
from careful_coil.core.values import show_ohm
from careful_coil.core.winding.arrangements import ARRANGEMENTS
from careful_coil.core.winding.network import Network

SPEAKS = math.log(3.0)  # a reading three times likelier under one of two speaks for it


@dataclass(frozen=True, slots=True)
class Reason:
    """A reading with what is expected of it; `weight` above 0 speaks for the first, below for the other.

    In natural logarithms of odds.
    """

    pair: tuple[str, str]
    read: str
    expected: str
    other: str
    weight: float

    def words(self, second: str) -> str:
        """Return it in words; `second` the name of the other."""
        a, b = self.pair
        said = f"{a} to {b} reads {self.read}, {self.expected} expected"
        return f"{said}; {second}: {self.other}" if self.other not in ("", self.expected) else said


def reasons(first: Candidate, second: Candidate | None, evidence: Evidence) -> list[Reason]:
    """Return the readings that part two candidates, the strongest first.

    Without a second one, or where that is no winding known, each reading against nothing known.
    """
    found = []
    second = second if second is not None and second.arrangement else None
    for o in evidence.ohms:
        if o.state not in ("value", "open"):
            continue
        one = _expected(first, o, evidence)
        two = _expected(second, o, evidence) if second else None
        log = _log(one, o, evidence)
        weight = log - (_log(two, o, evidence) if second else _broad(o))
        if abs(weight) < SPEAKS:
            continue
        pair = (evidence.tags[o.a], evidence.tags[o.b])
        read = show_ohm(o.ohm) if o.state == "value" else "open"
        found.append(Reason(pair, read, _say(one), _say(two) if second else "", weight))
    return sorted(found, key=lambda r: -abs(r.weight))


def _expected(c: Candidate | None, o: Ohms, evidence: Evidence) -> float | None:
    """Return the ohms a candidate expects of a pair; None where it expects none."""
    if c is None or c.arrangement is None:
        return None
    network = _with_ohms(c)
    a, b = (c.names.get(evidence.tags[k]) for k in (o.a, o.b))
    if a is None or b is None:
        together = any({evidence.tags[o.a], evidence.tags[o.b]} <= set(g) for g in c.groups)
        return o.ohm if together and o.state == "value" else None
    ohm = network.ohm_between(a, b)
    return ohm + (evidence.meter.lead_ohm or 0.0) if math.isfinite(ohm) else None


def _with_ohms(c: Candidate) -> Network:
    network = ARRANGEMENTS[c.arrangement or ""].inside(c.variant)
    if c.broken:
        dead = {c.names[t] for t in c.broken}
        own = {k: {k.start, k.finish} & set(network.leads) for k in network.coils}
        whole = tuple(k for k, ends in own.items() if not ends or ends - dead)
        network = replace(network, coils=whole)
    return network.with_ohm(c.coil_ohm)


def _log(expected: float | None, o: Ohms, evidence: Evidence) -> float:
    if o.state == "open":
        return 0.0 if expected is None else o.again * math.log(P_FALSE_OPEN)
    if expected is None:
        return math.log(P_STRAY) + _broad(o)
    loose = LEAD_OHM_HIGHEST / 3.5 if evidence.meter.lead_ohm is None else 0.0
    sigma = math.sqrt(o.sigma**2 + (2 * COIL_SPREAD * expected) ** 2 + loose**2)
    off = (o.ohm - expected) / sigma
    log = -0.5 * off**2 - math.log(sigma * math.sqrt(2 * math.pi))
    return max(log, math.log(P_BAD_CLIP) + _broad(o))


def _broad(o: Ohms) -> float:
    """Return the log density of a reading about which nothing is known."""
    return -math.log(o.size * LOG_RANGE) if o.state == "value" else math.log(0.6)


def _say(expected: float | None) -> str:
    return "open" if expected is None else show_ohm(expected)


def told(found: Sequence[Reason], second: str, most: int = 4) -> tuple[list[str], list[str]]:
    """Return what speaks for and against in words, the strongest of each."""
    favour = [r.words(second) for r in found if r.weight > 0][:most]
    against = [r.words(second) for r in found if r.weight < 0][:most]
    return favour, against
