"""What the probes should be on: what the Next card asks for, or the row that is swept."""

from dataclasses import replace

from careful_coil.bench import Request
from careful_coil.core.connect.slips import RUN_SHARE
from careful_coil.core.job.fold import reading_of
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.next_card import PROBED
from careful_coil.core.readings import RequestKind


def wanted(judged: Judgement) -> Request | None:
    """Return what the Next card asks the probes for; None where it asks for something else."""
    step = judged.next
    if step is None or step.act not in PROBED:
        return None
    if step.act == "trial":
        request = hooked(judged, step.act, step.ends)
        phases, _, hertz = request.supply
        return replace(request, supply=(phases, step.volt, hertz))
    if step.act in ("line", "low-run", "clamp"):
        return hooked(judged, step.act, step.ends)
    return Request(
        kind=step.act,
        ends=step.ends,
        sense=step.sense,
        also=step.also,
        lines=step.lines,
        joints=step.joints,
    )


def hooked(judged: Judgement, kind: RequestKind, ends: tuple[str, ...]) -> Request:
    """Return a request on the hookup as it stands, by tag, its devices in it, at a quarter of the volts."""
    state, supply = judged.connecting, judged.job.supply
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
