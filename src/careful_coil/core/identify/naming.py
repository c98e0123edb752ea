"""What the leads of a job are called, and on whose word: readings, or marks that they bear out."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.identify.engine import SURE
from careful_coil.core.identify.evidence import PLAIN_LEANINGS, Evidence, Leanings
from careful_coil.core.identify.extras import USES, earthy
from careful_coil.core.identify.marks import nearest, says
from careful_coil.core.identify.nextmark import borne_out
from careful_coil.core.identify.owed import owed
from careful_coil.core.identify.result import Identification
from careful_coil.core.job import Job
from careful_coil.core.job.fold import Taken
from careful_coil.core.readings import (
    LINES,
    AnyReading,
    Found,
    Resistance,
    Run,
    Switch,
    ohm_value,
)
from careful_coil.core.settings import USUAL
from careful_coil.core.winding.arrangements import ARRANGEMENTS, Arrangement
from careful_coil.core.winding.network import Network

RUN_LINES = ("L1", "L2", "L3")
CONTACT_OHM = USUAL["start_contact"].value  # of a closed contact: more is dirt
APART = 0.10  # of their mean: three amps this far apart speak against a hookup
Word = Literal["proven", "kicked", "marked", "owed", "guess", "none"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Naming:
    """Lead names by tag, of the winding alone; `network` the winding's, as its leads are named.

    `word`: proven by readings; kicked, but for a closing kick or three equal amps; marked, and the ohms
    agree; owed to the run, which confirms what ohms already show; guess; none.
    """

    word: Word
    names: dict[str, str]
    arrangement: Arrangement | None
    against: tuple[str, ...] = ()  # tags whose marking the readings contradict
    variant: str = ""

    @property
    def known(self) -> bool:
        """Whether the names are good enough to connect by: what is left is owed to a run."""
        return self.word in ("proven", "kicked", "marked", "owed")

    @property
    def network(self) -> Network | None:
        """Return the winding's network with these lead names."""
        return self.arrangement.inside(self.variant) if self.arrangement else None

    def by_tag(self, joint: tuple[str, ...]) -> tuple[str, ...]:
        """Return a joint of lead names as tags; lines stay as they are."""
        tag = {name: t for t, name in self.names.items()}
        return tuple(tag.get(n, n) for n in joint)


def _as_seen(evidence: Evidence, names: Mapping[str, str], slug: str, network: Network) -> bool:
    """Whether kicks and runs, where there are any, leave the marks as they are."""
    if any(r.turns != "smooth" for r in evidence.runs):
        return False
    if not (evidence.kicks or evidence.serieses):
        return True
    marks = {evidence.tags[k]: mark for k, mark in evidence.marks}
    return all(says(slug, m, names[t], network.leads) for t, m in marks.items() if t in names)


def evidence_of(job: Job, leanings: Leanings = PLAIN_LEANINGS) -> Evidence:
    """Return a job's readings digested, joints as found with them. The job must have leads."""
    readings: list[AnyReading] = [t.reading for t in job.readings]
    found = job.found
    if found is not None and found.joints and _by_tag(found.joints, job.tags):
        readings.append(Found(joints=found.joints, ran=found.ran))
    readings += _runs_against(job)
    return Evidence.of(
        job.tags,
        readings,
        job.meter,
        job.plate.phases,
        {t: role for t, role in job.known if role not in USES},
        leanings,
        {lead.tag: lead.marking for lead in job.leads},
        uses_of(job),
        _stale(job),
    )


def _runs_against(job: Job) -> list[Run]:
    """Return reduced-voltage runs that speak against the marks a hookup was joined by.

    Where kicks were taken before it a joint is wrong, not a mark.
    """
    found: list[Run] = []
    before = job.found.joints if job.found is not None else ()
    for acts, kicked, run in job.joined.runs:
        if kicked:
            continue
        joints = job.joined.after(acts).standing(before)
        lines = [tuple(n for n in j if n in job.tags) for k in RUN_LINES for j in joints if k in j]
        rest = tuple(j for j in joints if not set(j) & set(LINES))
        mean = sum(run.amp) / len(run.amp)
        apart = max(abs(a - mean) for a in run.amp) > APART * mean
        whole = len(lines) == len(run.amp) == len(RUN_LINES) and all(lines)
        if whole and _by_tag(rest, job.tags) and (apart or run.turns in ("rough", "none")):
            turns = run.turns or "none"
            found.append(
                Run(
                    lines=tuple(lines),
                    joints=rest,
                    applied_volt=run.volt,
                    amp=run.amp,
                    turns=turns,
                )
            )
    return found


def _stale(job: Job) -> frozenset[int]:
    """Return the readings, by number, that count no more.

    A path read open, or read through its start contact, before its device was mended.
    """
    mended = max((d.place for d in job.deeds.every if d.kind == "device"), default=-1)
    pairs = [t.reading for t in job.readings if isinstance(t.reading, Resistance)]
    joined = {n for r in pairs if not _open(r) for n in (r.pair() or ())}
    worked = [t.reading for t in job.readings if isinstance(t.reading, Switch)]
    through = [set(r.between) for r in worked if r.value == "opens"] if _was_dirty(job) else []

    def stale(taken: Taken) -> bool:
        reading = taken.reading
        if taken.place > mended:
            return False
        if isinstance(reading, Switch):
            return reading.value == "stays"  # what opened, opened
        pair = reading.pair() if isinstance(reading, Resistance) else None
        return pair is not None and (set(pair) in through or not set(pair) & joined)

    return frozenset(k for k, t in enumerate(job.readings) if stale(t))


def _was_dirty(job: Job) -> bool:
    """Whether a contact read ohms of its own before it was mended: they were in the path's reading too."""
    mended = {d.part.partition(":")[2]: d.place for d in job.deeds.every if d.kind == "device"}
    for place, entry in enumerate(job.log):
        body = entry.said
        if body.kind != "device-read" or place >= mended.get(body.name, -1):
            continue
        if body.ohm is not None and body.ohm > CONTACT_OHM:
            return True
    return False


def _open(reading: Resistance) -> bool:
    return ohm_value(reading.value).value == float("inf")


def no_earth(job: Job) -> bool:
    """Whether it is class II: by its mark, and no earth lead comes out of it."""
    return job.plate.double_insulated and "earth" not in uses_of(job).values()


def uses_of(job: Job) -> dict[str, str]:
    """Return what leads beside the winding are said to be: at Intake, by their colour, on a word."""
    said = {x.tag: x.use or ("earth" if earthy(x.colour, x.tracer) else "") for x in job.leads}
    return said | {t: role for t, role in job.known if role in USES}


def _by_tag(joints: tuple[tuple[str, ...], ...], tags: tuple[str, ...]) -> bool:
    """Whether joints name nothing but tags and lines."""
    return all(n in tags or n in LINES for j in joints for n in j)


def name_leads(job: Job, found: Identification, evidence: Evidence) -> Naming:
    """Return what the leads may be called now, the marks followed where naming is free."""
    best = found.best
    arr = ARRANGEMENTS.get(best.arrangement or "")
    if arr is None:
        return Naming(word="none", names={}, arrangement=None)
    network = arr.inside(best.variant)
    settled = found.status == "settled" or found.to_close
    marks = {evidence.tags[k]: mark for k, mark in evidence.marks}
    names = nearest(network, best.names, marks, arr.slug, settled)
    same_kind = sum(c.probability for c in found.candidates if c.arrangement == arr.slug)
    sure = settled or (same_kind >= SURE and best.probability >= SURE and not found.suspects)
    against = tuple(
        t for t, m in marks.items() if t in names and not says(arr.slug, m, names[t], network.leads)
    )
    word: Word = "guess"
    if settled:
        word = "kicked" if found.to_close else "proven"
    elif sure and not against and not best.unread and borne_out(evidence):
        word = "marked" if _as_seen(evidence, best.names, arr.slug, network) else "guess"
    elif same_kind >= SURE and not against and owed(found, evidence):
        word = "owed"
    return Naming(
        word=word,
        names=names,
        arrangement=arr,
        against=against if sure else (),
        variant=best.variant,
    )
