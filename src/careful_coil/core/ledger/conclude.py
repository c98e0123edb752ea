"""What is concluded of a job from the evidence of all stations: every rule asked once."""

from collections.abc import Collection
from dataclasses import dataclass

from careful_coil.core.condition.coils import measured
from careful_coil.core.condition.rules import condition_findings
from careful_coil.core.condition.seen_rules import seen_findings
from careful_coil.core.condition.suspicion import Suspicion, suspicion_findings, suspicion_of
from careful_coil.core.condition.wall import Wall, wall_of
from careful_coil.core.connect.as_found import Reading, as_found_findings, readings_of
from careful_coil.core.connect.plate_ohms import plate_ohm_findings
from careful_coil.core.connect.rules import connect_findings
from careful_coil.core.connect.standard import diagram_findings
from careful_coil.core.connect.work import Connecting, connecting
from careful_coil.core.gear.cause_rules import cause_findings
from careful_coil.core.gear.causes import causes_after
from careful_coil.core.gear.rules import gear_findings
from careful_coil.core.gear.separating import Ask
from careful_coil.core.gear.wiring import devices_of, wiring_of
from careful_coil.core.identify import (
    Evidence,
    Identification,
    Naming,
    evidence_of,
    identify,
    name_leads,
)
from careful_coil.core.identify.rules import lead_findings
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.rules import intake_findings
from careful_coil.core.kind import Weighed
from careful_coil.core.kind.lead_leanings import leanings_of
from careful_coil.core.kind.rules import kind_findings, kind_of
from careful_coil.core.kind.worth import worth_findings
from careful_coil.core.ledger.parts import with_part
from careful_coil.core.ledger.site_rules import site_findings
from careful_coil.core.mechanics.rules import mechanics_findings
from careful_coil.core.rewind.record import Record
from careful_coil.core.rewind.rules import beside_ohms, record_of, winding_findings
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import StartWay, start_way
from careful_coil.core.trial.rules import trial_findings


@dataclass(frozen=True, slots=True, kw_only=True)
class Concluded:
    """What is concluded of a job from the evidence of all stations, each thing once."""

    evidence: Evidence | None
    found: Identification | None
    naming: Naming
    kinds: Weighed
    as_found: tuple[Reading, ...]
    state: Connecting
    suspicion: Suspicion | None
    causes: Suspicion | None
    asks: tuple[Ask, ...]
    wall: Wall
    way: StartWay
    record: Record
    findings: tuple[Finding, ...]


def conclude(job: Job, settings: Settings, not_here: Collection[str] = ()) -> Concluded:
    """Return what is concluded of a job: every rule asked once."""
    evidence = evidence_of(job, leanings_of(job, settings, not_here)) if job.leads else None
    found = identify(evidence) if evidence else None
    naming = name_leads(job, found) if found else Naming(word="none", names={}, arrangement=None)
    kinds = kind_of(job, found)
    as_found = readings_of(job, naming)
    wiring = wiring_of(job, kinds, found, naming)
    state = connecting(job, found, naming, as_found, devices_of(wiring), settings)
    suspicion = suspicion_of(job, kinds)
    wall = wall_of(job, found, naming, settings)
    way = start_way(job, state, kinds, settings)
    ohms = measured(job, found, naming, wall, settings) if job.winding else None
    record = beside_ohms(record_of(job), naming, ohms)
    findings = [
        *intake_findings(job),
        *kind_findings(job, kinds),
        *as_found_findings(job, as_found),
        *diagram_findings(job),
        *seen_findings(job, kinds, settings),
        *suspicion_findings(suspicion),
        *worth_findings(job, settings),
        *lead_findings(job, found, naming),
        *condition_findings(job, found, naming, wall, settings),
        *plate_ohm_findings(job, found, naming, settings),
        *connect_findings(job, state, settings, tuple(found.best.extras) if found else ()),
        *gear_findings(job, settings, kinds),
        *mechanics_findings(job, kinds, settings),
        *winding_findings(job, record, kinds, settings),
        *trial_findings(job, way, settings, state),
        *site_findings(job, state, settings),
    ]
    causes, asks = causes_after(job, suspicion, findings, settings)
    findings += cause_findings(job, causes)
    return Concluded(
        evidence=evidence,
        found=found,
        naming=naming,
        kinds=kinds,
        as_found=tuple(as_found),
        state=state,
        suspicion=suspicion,
        causes=causes,
        asks=tuple(asks),
        wall=wall,
        way=way,
        record=record,
        findings=tuple(with_part(f) for f in findings),
    )
