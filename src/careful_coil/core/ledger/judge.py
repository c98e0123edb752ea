"""A job judged: every rule asked once, the results gathered."""

from collections.abc import Collection, Mapping
from dataclasses import replace

from careful_coil.core.connect.called import in_words
from careful_coil.core.connect.dead import NOBODY, AtBench
from careful_coil.core.job import Finding, Job
from careful_coil.core.ledger.asks import asks_of
from careful_coil.core.ledger.at_stations import EVERY
from careful_coil.core.ledger.conclude import conclude
from careful_coil.core.ledger.gate import before_it_can_go, gate_list
from careful_coil.core.ledger.judgement import Judgement
from careful_coil.core.ledger.law import under_law
from careful_coil.core.ledger.loose import only_leads
from careful_coil.core.ledger.next_card import in_order
from careful_coil.core.ledger.next_leads import readings_put_off
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.settings import Settings
from careful_coil.core.stations import STATIONS
from careful_coil.core.terms import in_terms

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
    c = conclude(job, settings, not_here, bench)
    findings, waived = under_law(
        job, c.findings, c.naming, c.connecting, lambda j: conclude(ruled(j), settings).findings
    )
    findings = [_worded(f, c.connecting.called, settings) for f in findings]
    if job.loose:
        findings = only_leads(findings)
    job = replace(c.job, waived=waived)
    gate = tuple(before_it_can_go(job, findings, settings))
    c = replace(c, job=job, findings=tuple(findings), gate=gate)
    asked = {
        station.name: tuple(_said(s, c.connecting.called, settings) for s in station.steps(c))
        for station in EVERY
    }
    every = tuple(in_order(c, asked))
    judged = Judgement(
        job=job,
        facts=c,
        findings=tuple(sorted(findings, key=lambda f: ORDER.index(f.verdict))),
        gate=gate,
        gate_lines=tuple(gate_list(job, findings, settings)),
        steps=every,
        next=next((s for s in every if s.code not in not_here), None),
        skipped=(
            *(s for s in every if s.code in not_here),
            *readings_put_off(job, every, not_here),
        ),
        at_connect=asked["connect"],
        pips=_pips(findings),
    )
    return _with_asks(judged)


# stations whose words speak of leads by what the model calls them
BY_NAME = ("start-gear", "connect", "test-run", "release")


def _worded(found: Finding, called: Mapping[str, str], settings: Settings) -> Finding:
    """Return a finding whose leads are called by what is on them, in the shop's terms."""
    subject, why = in_terms(found.subject, settings), in_terms(found.why, settings)
    if (subject, why) != (found.subject, found.why):
        found = replace(found, subject=subject, why=why)
    if found.station not in BY_NAME:
        return found
    return replace(found, subject=in_words(found.subject, called), why=in_words(found.why, called))


def _said(step: NextStep, called: Mapping[str, str], settings: Settings) -> NextStep:
    """Return a step whose leads are called by what is on them, in the shop's terms."""
    title, why = in_terms(step.title, settings), in_terms(step.why, settings)
    if (title, why) != (step.title, step.why):
        step = replace(step, title=title, why=why)
    if step.station not in BY_NAME:
        return step
    return replace(step, title=in_words(step.title, called), why=in_words(step.why, called))


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
