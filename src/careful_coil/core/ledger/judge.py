"""A job judged: every rule asked once, the results gathered."""

from collections.abc import Collection
from dataclasses import replace

from careful_coil.core.condition.coils import measured
from careful_coil.core.condition.rules import condition_findings
from careful_coil.core.condition.seen_rules import seen_findings
from careful_coil.core.condition.suspicion import (
    has_brushes,
    suspicion_findings,
    suspicion_of,
)
from careful_coil.core.condition.wall import wall_of
from careful_coil.core.connect.as_found import as_found_findings, readings_of
from careful_coil.core.connect.beyond import installer_list
from careful_coil.core.connect.dead import NOBODY, AtBench, lapsed
from careful_coil.core.connect.plate_ohms import plate_ohm_findings
from careful_coil.core.connect.rules import connect_findings
from careful_coil.core.connect.standard import diagram_findings
from careful_coil.core.connect.work import connecting
from careful_coil.core.gear.cause_rules import cause_findings
from careful_coil.core.gear.causes import causes_after
from careful_coil.core.gear.rules import gear_findings
from careful_coil.core.gear.wiring import devices_of, wiring_of
from careful_coil.core.identify import (
    Naming,
    evidence_of,
    identify,
    name_leads,
)
from careful_coil.core.identify.rules import lead_findings
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.entries import STATIONS
from careful_coil.core.job.rules import intake_findings
from careful_coil.core.kind.lead_leanings import leanings_of
from careful_coil.core.kind.rules import kind_findings, kind_of
from careful_coil.core.kind.worth import worth_findings
from careful_coil.core.ledger.asks import asks_of
from careful_coil.core.ledger.commission import commissioning
from careful_coil.core.ledger.gate import before_it_can_go, gate_list
from careful_coil.core.ledger.judgement import Judgement
from careful_coil.core.ledger.next_card import readings_put_off, steps
from careful_coil.core.ledger.next_connect import connect_steps
from careful_coil.core.ledger.next_gear import gear_steps
from careful_coil.core.ledger.next_mechanics import mechanics_steps
from careful_coil.core.ledger.next_site import site_steps
from careful_coil.core.ledger.next_trial import trial_steps
from careful_coil.core.ledger.next_wall import insulation_steps
from careful_coil.core.ledger.parts import with_part
from careful_coil.core.ledger.site import site_findings
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.mechanics.parts import parts_wanted
from careful_coil.core.mechanics.rules import mechanics_findings
from careful_coil.core.rewind.rules import beside_ohms, record_of, winding_findings
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import start_way
from careful_coil.core.trial.rules import trial_findings

OHMMETER = "ohmmeter first"
ORDER = ("hold", "watch", "unproven", "note", "good")


def judge(
    job: Job, settings: Settings, not_here: Collection[str] = (), bench: AtBench = NOBODY
) -> Judgement:
    """Return a job's findings, gate and next step.

    `not_here` codes of steps put off; `bench` the time and whose hands, for what lapses.
    """
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
        *gear_findings(job, settings, has_brushes(kinds)),
        *mechanics_findings(job, kinds, settings),
        *winding_findings(job, record, kinds, settings),
        *trial_findings(job, way, settings, state),
        *site_findings(job, state, settings),
    ]
    causes, asks = causes_after(job, suspicion, findings, settings)
    findings = [with_part(f) for f in (*findings, *cause_findings(job, causes))]
    gate = before_it_can_go(job, findings, settings)
    wall_steps = tuple(insulation_steps(job, wall, kinds, findings, settings))
    first = settings.school("frame-test") == OHMMETER
    gear = (
        *gear_steps(job, causes, asks, findings, settings),
        *mechanics_steps(job, kinds, findings),
    )
    known = naming.word in ("proven", "marked")
    stale = lapsed(job, bench, settings)
    connect = tuple(connect_steps(job, state, findings, known, stale))
    trial = tuple(trial_steps(job, state, way, findings))
    installer = installer_list(job, state, settings)
    site = tuple(site_steps(job, state, installer))
    every = list(steps(job, found, naming, gate, wall_steps, first, gear, connect, trial, site))
    wanted = next((s for s in every if s.code not in not_here), None)
    judged = Judgement(
        job=job,
        evidence=evidence,
        identification=found,
        naming=naming,
        connecting=state,
        kinds=kinds,
        as_found=as_found,
        suspicion=suspicion,
        causes=causes,
        asks=asks,
        wall=wall,
        findings=tuple(sorted(findings, key=lambda f: ORDER.index(f.verdict))),
        gate=tuple(gate),
        gate_lines=tuple(gate_list(job, findings, settings)),
        next=wanted,
        skipped=(
            *(s for s in every if s.code in not_here),
            *readings_put_off(job, every, not_here),
        ),
        winding=record,
        at_connect=connect,
        start_way=way,
        installer=installer,
        commission=commissioning(job, state, way, settings),
        parts=parts_wanted(job, settings),
        pips=_pips(findings),
    )
    return _with_asks(judged)


def _with_asks(judged: Judgement) -> Judgement:
    """Return a judgement whose steps say what they ask."""

    def asked(steps: Collection[NextStep]) -> tuple[NextStep, ...]:
        return tuple(replace(s, asks=asks_of(judged, s)) for s in steps)

    (nxt,) = asked((judged.next,)) if judged.next else (None,)
    return replace(
        judged, next=nxt, skipped=asked(judged.skipped), at_connect=asked(judged.at_connect)
    )


def _pips(findings: list[Finding]) -> tuple[str, ...]:
    return tuple(_pip([f for f in findings if f.station == s and f.gate]) for s in STATIONS)


def _pip(own: list[Finding]) -> str:
    verdicts = {f.verdict for f in own}
    if not own:
        return ""
    if "hold" in verdicts:
        return "hold"
    return "open" if "unproven" in verdicts else "done"
