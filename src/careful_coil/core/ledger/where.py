"""Where somebody was who comes back to a motor: what can hurt first, what is half done, what came last."""

from collections.abc import Iterator

import numpy as np

from careful_coil.core.ledger.judgement import Judgement

BREAK_MINUTES = 10.0  # without an entry: somebody who opens it then has been away
MOST_NAMED = 6


def where_was_i(judged: Judgement, now: str = "") -> str:
    """Return in a line how a motor was left, empty where nothing is open or nobody was away.

    `now`, UTC, says how long; empty: whatever the time.
    """
    job = judged.job
    if not job.log or job.released is not None or job.let_go is not None:
        return ""
    minutes = _minutes(job.log[-1].at, now)
    if now and minutes < BREAK_MINUTES:
        return ""
    left = list(_left(judged))
    last = judged.next.title if judged.next is not None else ""
    told = f"{'. '.join(left)}. " if left else ""
    return f"Where you were, {_ago(minutes)}: {told}Next: {last}." if last else ""


def _left(judged: Judgement) -> Iterator[str]:
    """Yield what stands open on the motor itself, what can hurt first."""
    job, state = judged.job, judged.facts.connecting
    if job.tested.charged() is not None:
        yield "the winding is CHARGED by the tester"
    if job.trials.now is not None:
        yield "a test sheet is open, volts may be on"
    cans = [n for n, told in job.gear.capacitors.items() if not told.get("drained")]
    if cans:
        yield f"not discharged: {', '.join(cans[:MOST_NAMED])}"
    if job.joined.acts and not state.joined and job.tags:
        loose = [t for t in job.tags if state.names.get(t, t) in state.now.loose]
        names = f": {' '.join(loose[:MOST_NAMED])}" if loose else ""
        yield f"joints half made, loose leads{names}" if loose else "joints half made"
    if "covers" in job.deeds.stamps and job.tested.covers < 0:
        yield "covers off"
    standing = [n for n, t in job.hands.temporary.items() if not t.cleared]
    if standing:
        yield f"temporary still on: {', '.join(standing[:MOST_NAMED])}"
    ends = judged.next.ends if judged.next is not None else ()
    if ends:
        yield f"probes go to {' and '.join(ends[:2])}"


def _minutes(at: str, now: str) -> float:
    if not now:
        return 0.0
    gone = np.datetime64(now.removesuffix("Z")) - np.datetime64(at.removesuffix("Z"))
    return float(gone / np.timedelta64(1, "m"))


def _ago(minutes: float) -> str:
    if minutes < BREAK_MINUTES:
        return "just now"
    for unit, size in (("days", 1440.0), ("hours", 60.0)):
        if minutes >= 2 * size:
            return f"{minutes / size:.0f} {unit} ago"
    return f"{minutes:.0f} minutes ago"
