"""A job judged: every rule asked once, the results gathered."""

from collections.abc import Collection
from dataclasses import replace

from careful_coil.core.connect.beyond import installer_list
from careful_coil.core.connect.dead import NOBODY, AtBench, lapsed
from careful_coil.core.job import Finding, Job
from careful_coil.core.ledger.asks import asks_of
from careful_coil.core.ledger.commission import commissioning
from careful_coil.core.ledger.conclude import conclude
from careful_coil.core.ledger.gate import before_it_can_go, gate_list
from careful_coil.core.ledger.judgement import Judgement
from careful_coil.core.ledger.law import under_law
from careful_coil.core.ledger.next_card import readings_put_off, steps
from careful_coil.core.ledger.next_connect import connect_steps
from careful_coil.core.ledger.next_gear import cause_steps, gear_steps
from careful_coil.core.ledger.next_mechanics import mechanics_steps
from careful_coil.core.ledger.next_site import site_steps
from careful_coil.core.ledger.next_trial import trial_steps
from careful_coil.core.ledger.next_wall import closed_steps, insulation_steps
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.mechanics.parts import parts_wanted
from careful_coil.core.settings import Settings
from careful_coil.core.stations import STATIONS

OHMMETER = "ohmmeter first"
ORDER = ("hold", "watch", "unproven", "note", "good")


def judge(
    job: Job, settings: Settings, not_here: Collection[str] = (), bench: AtBench = NOBODY
) -> Judgement:
    """Return a job's findings, gate and next step.

    `not_here` codes of steps put off; `bench` the time and whose hands, for what lapses.
    """

    def ruled(job: Job, now: str = "") -> Job:
        stall, stood = settings.look_seconds.value, settings.stood_days.value
        return replace(job, deeds=job.deeds.by_limits(stall, stood, now))

    gone = job.released is not None or job.let_go is not None
    job = ruled(job, "" if gone else bench.now)
    c = conclude(job, settings, not_here)
    found, state = c.found, c.state
    findings, waived = under_law(
        job, c.findings, c.naming, state, lambda j: conclude(ruled(j), settings).findings
    )
    job = replace(job, waived=waived)
    gate = before_it_can_go(job, findings, settings)
    wall_steps = tuple(insulation_steps(job, c.wall, c.kinds, findings, settings))
    first = settings.school("frame-test") == OHMMETER
    gear = (
        *gear_steps(job, c.causes, c.asks, findings, settings),
        *mechanics_steps(job, c.kinds, findings),
    )
    known = c.naming.word in ("proven", "marked")
    stale = lapsed(job, bench, settings)
    connect = tuple(connect_steps(job, state, findings, known, stale))
    closed = tuple(closed_steps(job, c.wall, c.kinds))
    trial = tuple(trial_steps(job, state, c.way, findings, settings, closed))
    installer = installer_list(job, state, settings)
    site = tuple(site_steps(job, state, installer))
    every = list(
        steps(
            job,
            found,
            c.naming,
            gate,
            wall_steps,
            first,
            gear,
            connect,
            trial,
            site,
            closed,
            tuple(cause_steps(c.causes, c.asks)) if c.causes else (),
        )
    )
    wanted = next((s for s in every if s.code not in not_here), None)
    judged = Judgement(
        job=job,
        evidence=c.evidence,
        identification=found,
        naming=c.naming,
        connecting=state,
        kinds=c.kinds,
        as_found=c.as_found,
        suspicion=c.suspicion,
        causes=c.causes,
        asks=c.asks,
        wall=c.wall,
        findings=tuple(sorted(findings, key=lambda f: ORDER.index(f.verdict))),
        gate=tuple(gate),
        gate_lines=tuple(gate_list(job, findings, settings)),
        steps=tuple(every),
        next=wanted,
        skipped=(
            *(s for s in every if s.code in not_here),
            *readings_put_off(job, every, not_here),
        ),
        winding=c.record,
        at_connect=connect,
        start_way=c.way,
        installer=installer,
        commission=commissioning(job, state, c.way, settings),
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
