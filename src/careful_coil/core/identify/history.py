"""How the odds moved, reading by reading, and what each reading speaks for."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from careful_coil.core.identify.engine import identify
from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.naming import evidence_of
from careful_coil.core.identify.result import Identification
from careful_coil.core.job import Job
from careful_coil.core.job.fold import Taken
from careful_coil.core.readings import Frame, Reading


@dataclass(frozen=True, slots=True)
class Moment:
    """What stood after a reading: its place from 1, the reading in words, odds of groups and winding."""

    place: int
    words: str
    arrangement: str | None
    odds: float  # of the likeliest winding, all ways to lay it together
    groups: float  # of the likeliest grouping
    status: str


def history(job: Job, evidence: Evidence) -> tuple[Moment, ...]:
    """Return how the odds moved; `evidence` of the whole job tells the leanings."""
    found = []
    kept = [t for t in job.readings if not isinstance(t.reading, Frame)]
    for count in range(1, len(kept) + 1):
        part = evidence_of(replace(job, readings=tuple(kept[:count])), evidence.leanings)
        found.append(_moment(count, kept[count - 1], identify(part)))
    return tuple(found)


def _moment(place: int, taken: Taken, told: Identification) -> Moment:
    best = told.best
    return Moment(
        place=place,
        words=reading_words(taken.reading),
        arrangement=best.arrangement,
        odds=sum(c.probability for c in told.candidates if c.arrangement == best.arrangement),
        groups=sum(c.probability for c in told.candidates if c.groups == best.groups),
        status=told.status,
    )


def reading_words(r: Reading) -> str:
    """Return a reading in a few words."""
    ends: Sequence[object] = getattr(r, "between", None) or (
        *getattr(r, "source", ()),
        *getattr(r, "sense", getattr(r, "across", ())),
    )
    pair = " ".join(e if isinstance(e, str) else "+".join(e) for e in ends)  # type: ignore[arg-type]
    shown = getattr(r, "value", None) or getattr(r, "turns", None) or getattr(r, "ran", "")
    kind = getattr(r, "kind", "")
    return f"{kind if kind != 'resistance' else ''} {pair} {shown}".strip()
