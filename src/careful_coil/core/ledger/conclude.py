"""What is concluded of a job from the evidence of all stations: every rule asked once."""

from collections.abc import Collection
from dataclasses import replace

from careful_coil.core.condition.coils import measured
from careful_coil.core.condition.suspicion import suspicion_of
from careful_coil.core.condition.wall import wall_of
from careful_coil.core.connect.as_found import readings_of
from careful_coil.core.connect.beyond import installer_list
from careful_coil.core.connect.dead import NOBODY, AtBench
from careful_coil.core.connect.proof import contradicted
from careful_coil.core.connect.work import connecting
from careful_coil.core.gear.cause_rules import cause_findings
from careful_coil.core.gear.causes import causes_after
from careful_coil.core.gear.wiring import devices_of, wiring_of
from careful_coil.core.identify import (
    Naming,
    evidence_of,
    identify,
    name_leads,
)
from careful_coil.core.job import Job
from careful_coil.core.kind.lead_leanings import excluded, leanings_of
from careful_coil.core.kind.rules import kind_of
from careful_coil.core.ledger.assumed import with_assumed
from careful_coil.core.ledger.at_stations import EVERY
from careful_coil.core.ledger.commission import commissioning
from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.parts import with_part
from careful_coil.core.mechanics.parts import parts_wanted
from careful_coil.core.rewind.rules import beside_ohms, record_of
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import start_way
from careful_coil.core.trial.whole import minutes_wanted


def conclude(
    job: Job, settings: Settings, not_here: Collection[str] = (), bench: AtBench = NOBODY
) -> Facts:
    """Return what is concluded of a job: every rule of every station asked once."""
    evidence = evidence_of(job, leanings_of(job, settings, not_here)) if job.leads else None
    found = identify(evidence) if evidence else None
    naming = (
        name_leads(job, found, evidence)
        if found and evidence
        else Naming(word="none", names={}, arrangement=None)
    )
    job = with_assumed(job, naming)
    kinds = kind_of(job, found)
    if found is not None and not naming.known:
        found = replace(found, notes=(*found.notes, *excluded(job, kinds)))
    as_found = readings_of(job, naming)
    wiring = wiring_of(job, kinds, found, naming)
    gear = devices_of(wiring)
    state = connecting(job, found, naming, as_found, gear, settings)
    if state.by_marks and contradicted(job, state, settings):
        state = connecting(
            job, found, naming, (), gear, settings
        )  # the marks are no ground any more
    wall = wall_of(job, found, naming, settings)
    way = start_way(job, state, kinds, settings)
    ohms = measured(job, found, naming, wall, settings) if job.winding else None
    facts = Facts(
        job=job,
        settings=settings,
        not_here=not_here,
        bench=bench,
        evidence=evidence,
        identification=found,
        naming=naming,
        kinds=kinds,
        as_found=tuple(as_found),
        connecting=state,
        suspicion=suspicion_of(job, kinds),
        wall=wall,
        start_way=way,
        winding=beside_ohms(record_of(job), naming, ohms),
        installer=installer_list(job, state, settings),
        commission=commissioning(job, state, way, settings),
        parts=parts_wanted(job, settings),
    )
    findings = [f for station in EVERY for f in station.rules(facts)]
    causes, asks = causes_after(job, facts.suspicion, findings, settings)
    cause = cause_findings(job, causes, minutes_wanted(job, way, settings))
    if any(f.verdict == "good" for f in cause):  # found: what was suspected first says no more
        findings = [f for f in findings if f.code != "suspicion"]
    findings += cause
    return replace(
        facts, causes=causes, asks=tuple(asks), findings=tuple(with_part(f) for f in findings)
    )
