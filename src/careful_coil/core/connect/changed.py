"""Ohms between the lines before and after joints were changed: a change of volts changes them by its square."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

from careful_coil.core.job import Entry, Job
from careful_coil.core.readings import ohm_value
from careful_coil.core.ways.way import Plan

TOUCHES = ("joint", "parted", "stands-so")  # entries that part or make a joint
RATIO_NEAR = 0.06  # of 1: ohms of the lines that changed as a change of volts makes them


@dataclass(frozen=True, slots=True, kw_only=True)
class Changed:
    """Ohms of the pairs read before and after, in Ω, the mean of after over before, ratios that are right."""

    before: tuple[float, ...]
    after: tuple[float, ...]
    ratio: float
    wanted: tuple[float, ...]

    @property
    def right(self) -> bool:
        """Whether the ohms changed as a change between two of the plate's volts makes them."""
        return any(abs(self.ratio / w - 1) <= RATIO_NEAR for w in self.wanted)


def phases_of(job: Job) -> int:
    """Return the phases of the supply, else of the plate, else three."""
    return (job.supply.phases if job.supply else job.plate.phases) or 3


def pairs_of(job: Job) -> tuple[str, ...]:
    """Return the pairs of lines there are."""
    lines = ("L1", "L2", "L3") if phases_of(job) == 3 else ("L1", "L2")
    return tuple(f"{a}-{b}" for a, b in combinations(lines, 2))


def ohms_now(job: Job) -> dict[str, float]:
    """Return the ohms of the lines as they stand, by pair: nothing was parted or joined since."""
    return {pair: ohm_value(value).value for pair, value in (job.line_ohms or {}).items()}


def _here(job: Job) -> Sequence[Entry]:
    """Return the entries that count since it was last said to be on site, all of them where it never was."""
    said = [k for k, e in enumerate(job.log) if e.said.kind == "on-site"]
    return [e for e in job.log[said[-1] if said else 0 :] if e.id not in job.struck]


def touched(job: Job) -> bool:
    """Whether a joint was parted or made, at this visit where it is one."""
    return any(e.said.kind in TOUCHES for e in _here(job))


def ohms_before(job: Job) -> dict[str, float]:
    """Return the ohms of the lines read before a joint was touched, by pair."""
    first: dict[str, float] = {}
    for entry in _here(job):
        body = entry.said
        if body.kind in TOUCHES:
            break
        if body.kind == "line-ohm":
            first.setdefault("-".join(sorted(body.lines)), ohm_value(body.value).value)
    return first


def changed(job: Job) -> Changed | None:
    """Return how the ohms of the lines changed with the joints; None while they were not read both times."""
    before, after = ohms_before(job), ohms_now(job)
    read = [p for p in before if p in after and min(before[p], after[p]) > 0]
    volts: Sequence[float] = [v for span in job.plate.volts for v in span[:1]]
    supply = job.supply
    again = touched(job) or _read_twice(job)
    if len(volts) < 2 or supply is None or not read or not again:
        return None
    new = min(volts, key=lambda v: abs(v - supply.volt))
    return Changed(
        before=tuple(before[p] for p in read),
        after=tuple(after[p] for p in read),
        ratio=sum(after[p] / before[p] for p in read) / len(read),
        wanted=tuple((new / v) ** 2 for v in volts if v != new),
    )


def coil_by_lines(job: Job, found: Plan | None) -> dict[str, float] | None:
    """Return the ohms of a winding's coils by the lines as it came, where all its coils are alike."""
    before = ohms_before(job)
    if found is None or not before or min(before.values()) <= 0:
        return None
    kinds = {c.like for c in found.network().coils}
    unit = found.line_ohm(1.0)
    read = [before[p] / unit[p] for p in before if 0 < unit.get(p, 0.0) < math.inf]
    if len(kinds) != 1 or not read or not all(map(math.isfinite, read)):
        return None
    return {kinds.pop(): sum(read) / len(read) - (job.meter.lead_ohm or 0.0)}


def _read_twice(job: Job) -> bool:
    """Whether another supply was named and the lines were read again, though no joint was written down."""
    read = [e for e in _here(job) if e.said.kind == "line-ohm"]
    return job.deeds.voiding("tags") is not None and len(read) > len(job.line_ohms or {})
