"""What the probes should be on: what the Next card asks for, or the row that is swept."""

from dataclasses import replace

from careful_coil.core.connect.slips import RUN_SHARE
from careful_coil.core.job.fold import reading_of
from careful_coil.core.ledger.judgement import Judgement
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.probes import PROBES, Request
from careful_coil.core.trial.begin import at_speed


def wanted(judged: Judgement) -> Request | None:
    """Return what the Next card asks the probes for; None where it asks for something else."""
    step = judged.next
    if step is None or step.act not in PROBES:
        return None
    where = PROBES[step.act].hooked
    if where == "sheet":
        return on_trial(judged, step)
    if where == "hookup":
        return hooked(judged, step.act, step.ends)
    return Request(
        kind=step.act,
        ends=step.ends,
        sense=step.sense,
        also=step.also,
        lines=step.lines,
        joints=step.joints,
    )


def on_trial(judged: Judgement, step: NextStep) -> Request:
    """Return a request on the hookup of the open sheet's speed, at the volts that are asked for."""
    request = hooked(judged, step.act, step.ends)
    state, now = judged.facts.connecting, judged.job.trials.now
    plan = at_speed(state, now.begun.speed) if now is not None else None
    if plan is not None and plan is not state.plan:
        request = replace(
            request, joints=tuple(state.by_tag(j) for j in plan.joints), devices=plan.devices
        )
    phases, _, hertz = request.supply
    return replace(
        request,
        supply=(phases, step.volt, hertz),
        loaded=now.begun.load if now is not None else "none",
        minutes=float(step.state.removesuffix(" min") or 0.0),
    )


def hooked(judged: Judgement, kind: str, ends: tuple[str, ...]) -> Request:
    """Return a request on the hookup as it stands, by tag, its devices in it, at a quarter of the volts."""
    state, supply = judged.facts.connecting, judged.job.supply
    low = (supply.phases, RUN_SHARE * supply.volt, supply.hertz) if supply else (3, 60.0, 60.0)
    return Request(
        kind=kind,
        ends=ends,
        joints=tuple(state.by_tag(j) for j in state.now.joints),
        devices=state.plan.devices if state.plan else (),
        supply=low,
        nominal=supply.volt if supply else 0.0,
    )


def swept(judged: Judgement, sweep: str) -> Request | None:
    """Return the next pair of the row that is swept."""
    job = judged.job
    if sweep not in job.tags:
        return None
    left = [t for t in job.tags if t != sweep and not reading_of(job, sweep, t)]
    return Request(kind="resistance", ends=(sweep, left[0])) if left else None
