"""What the leads of a job are called, and on whose word: readings, or marks that they bear out."""

from dataclasses import dataclass
from typing import Literal

from careful_coil.core.identify.engine import SURE
from careful_coil.core.identify.evidence import PLAIN_LEANINGS, Evidence, Leanings
from careful_coil.core.identify.result import Identification
from careful_coil.core.job import Job
from careful_coil.core.readings import LINES, AnyReading, Found
from careful_coil.core.winding.arrangements import ARRANGEMENTS, Arrangement
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.symmetry import dc_symmetries, kick_symmetries


@dataclass(frozen=True, slots=True, kw_only=True)
class Naming:
    """Lead names by tag, of the winding alone. `word`: proven by readings, marked and borne out by
    ohms, guess, none; `network` the winding's, as its leads are named."""

    word: Literal["proven", "marked", "guess", "none"]
    names: dict[str, str]
    arrangement: Arrangement | None
    against: tuple[str, ...] = ()  # tags whose marking the readings contradict
    variant: str = ""

    @property
    def network(self) -> Network | None:
        """Return the winding's network with these lead names."""
        return self.arrangement.inside(self.variant) if self.arrangement else None

    def by_tag(self, joint: tuple[str, ...]) -> tuple[str, ...]:
        """Return a joint of lead names as tags; lines stay as they are."""
        tag = {name: t for t, name in self.names.items()}
        return tuple(tag.get(n, n) for n in joint)


def evidence_of(job: Job, leanings: Leanings = PLAIN_LEANINGS) -> Evidence:
    """Return a job's readings digested, joints as found with them. The job must have leads."""
    readings: list[AnyReading] = [t.reading for t in job.readings]
    found = job.found
    if found is not None and found.joints and _by_tag(found.joints, job.tags):
        readings.append(Found(joints=found.joints, ran=found.ran))
    return Evidence.of(job.tags, readings, job.meter, job.plate.phases, dict(job.known), leanings)


def _by_tag(joints: tuple[tuple[str, ...], ...], tags: tuple[str, ...]) -> bool:
    """Whether joints name nothing but tags and lines."""
    return all(n in tags or n in LINES for j in joints for n in j)


def name_leads(job: Job, found: Identification) -> Naming:
    """Return what the leads may be called now, the marks followed where naming is free."""
    best = found.best
    arr = ARRANGEMENTS.get(best.arrangement or "")
    if arr is None:
        return Naming(word="none", names={}, arrangement=None)
    network = arr.inside(best.variant)
    marks = {
        lead.tag: lead.marking.strip().upper()
        for lead in job.leads
        if lead.marking.strip() and lead.tag in best.names
    }
    if found.status == "settled":
        names = _nearest(network, best.names, marks, kick_symmetries(network))
        against = tuple(t for t, m in marks.items() if m != names[t].upper())
        return Naming(
            word="proven", names=names, arrangement=arr, against=against, variant=best.variant
        )
    same_kind = sum(c.probability for c in found.candidates if c.arrangement == arr.slug)
    names = _nearest(network, best.names, marks, dc_symmetries(network))
    against = tuple(t for t, m in marks.items() if m != names[t].upper())
    borne_out = not against and len(marks) == len(best.names)
    sure = same_kind >= SURE and best.probability >= SURE and not found.suspects
    word: Literal["marked", "guess"] = "marked" if borne_out and sure else "guess"
    return Naming(
        word=word,
        names=names,
        arrangement=arr,
        against=against if sure else (),
        variant=best.variant,
    )


def _nearest(
    network: Network,
    roles: dict[str, str],
    marks: dict[str, str],
    symmetries: tuple[tuple[int, ...], ...],
) -> dict[str, str]:
    """Return the equally right names that agree with most marks."""
    leads = network.leads
    number = {lead: k for k, lead in enumerate(leads)}
    options = [{t: leads[s[number[r]]] for t, r in roles.items()} for s in symmetries]
    return max(options, key=lambda o: sum(o[t].upper() == m for t, m in marks.items()))
