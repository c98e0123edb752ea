"""The ledger's lines of the test run, and the gate's: before and after the covers."""

from collections.abc import Iterator
from dataclasses import replace
from functools import partial
from itertools import pairwise
from typing import Literal

from careful_coil.core.connect.work import Connecting
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.trials import Trial
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import StartWay, full_volt, speeds_of
from careful_coil.core.trial.judge import judged
from careful_coil.core.trial.told import at_rated, mean, told

NEVER = (
    "trial-start",
    "trial-lines",
    "trial-dead-line",
    "trial-smoke",
)  # holds that nobody sets aside
SAME_RPM, SAME_AMP = (
    0.005,
    0.03,
)  # of 1: a lower speed that is no more than so much above is not above
_of = partial(Finding, station="test-run")


def trial_findings(
    job: Job, way: StartWay, settings: Settings, state: Connecting
) -> Iterator[Finding]:
    """Yield what the newest sheet says, and whether a run before and after the covers stands."""
    shown = next((t for t in reversed(job.trials.sheets) if t.steps or t.starts or t.heard), None)
    if shown is not None and shown.changes == job.trials.changes:
        yield from map(_gated, judged(job, shown, way, settings, state))
    smoked = next((t for t in _of_this_motor(job) if t is not shown and t.of("smoke")), None)
    if smoked is not None:
        yield _of(
            code="trial-smoke",
            verdict="hold",
            subject="Smoke seen at an earlier run",
            why=f"{smoked.of('smoke')}. Nothing was done to the motor since: open it.",
            gate=True,
            waivable=False,
        )
    yield from map(_gated, (*_speeds(job, state), *_other_way(job, way, state)))
    yield _gate(job, way, settings, state)


def _gated(found: Finding) -> Finding:
    """Return a finding of a run as the gate has it: what is bad stands before release."""
    bad = found.verdict == "hold"
    return replace(found, gate=bad, waivable=not (bad and found.code in NEVER))


def _speeds(job: Job, state: Connecting) -> Iterator[Finding]:
    """Yield whether each lower speed turns and draws less than the one above it."""
    if job.supply is None:
        return
    steps = []
    for speed in speeds_of(state):
        sheet = job.trials.last("off", speed) or job.trials.last("on", speed)
        step = at_rated(sheet, job.supply.volt) if sheet is not None else None
        if step is not None:
            steps.append((speed, step))
    for (fast, one), (slow, two) in pairwise(steps):
        turns = one.rpm is not None and two.rpm is not None and two.rpm > one.rpm * (1 + SAME_RPM)
        draws = mean(two.amp) > mean(one.amp) * (1 + SAME_AMP) and not _poles(state)
        odd = " and ".join(w for w, so in (("turns", turns), ("draws", draws)) if so)
        yield told(
            code="trial-speeds",
            verdict="watch" if odd else "good",
            subject="Speeds in another order" if odd else "Speeds in order",
            why=f"{slow.capitalize()} {odd} more than {fast}: leads of the speeds exchanged."
            if odd
            else f"{slow.capitalize()} turns and draws no more than {fast}.",
        )


def _poles(state: Connecting) -> bool:
    """Whether its speeds are pole numbers: then amps at the lower one may well be more."""
    return state.plan is not None and not state.plan.arrangement.startswith("single-phase")


def _other_way(job: Job, way: StartWay, state: Connecting) -> Iterator[Finding]:
    """Yield a motor with brushes that reverses and was run one way only."""
    plan = state.plan
    if way.way != "cap" or plan is None or plan.turning != "outside":
        return
    ran = [t for t in job.trials.sheets if t.whole and t.changes == job.trials.changes]
    if ran and len({t.begun.direction for t in ran} - {""}) < 2:
        yield told(
            code="trial-both-ways",
            verdict="watch",
            subject="Run one way only",
            why="With brushes it is run both ways at the cap: off neutral it sparks one way only. "
            "A sheet for each direction.",
        )


def _of_this_motor(job: Job) -> Iterator[Trial]:
    """Yield the sheets since the last change to the motor, abandoned ones too."""
    return (t for t in job.trials.sheets if t.changes == job.trials.changes)


def _gate(job: Job, way: StartWay, settings: Settings, state: Connecting) -> Finding:
    of = partial(_of, code="test-run", gate=True)
    trials = job.trials
    off, on = trials.last("off"), trials.last("on")
    bad = [
        (t, f)
        for t in trials.standing()
        for f in judged(job, t, way, settings, state)
        if f.verdict == "hold"
    ]
    if bad:
        sheet, first = bad[0]
        at = sheet.at[:16].replace("T", " ")
        why = f"{first.subject}, sheet of {at} UTC. Mend it, then run that one again."
        never = any(f.code in NEVER for _, f in bad)
        return of(
            verdict="hold", subject="Test run found something bad", why=why, waivable=not never
        )
    word = (job.attested or {}).get("test-run")
    if word is not None:
        return of(verdict="good", subject="Test-run", why=word.words)
    if off is None:
        stale = [t for t in trials.sheets if t.whole]
        why = (
            f"Something was changed since: {', '.join(trials.done)}. Run it again."
            if stale and trials.done
            else "Before and after covers: equal amps on the lines, direction from a named end."
        )
        return of(verdict="unproven", subject="Not test-run", why=why)
    if not _whole(job, off, way):
        return of(
            verdict="unproven",
            subject="Test run without rated volts",
            why="A step at rated volts (unloaded with brushes: at the cap) is what counts.",
        )
    for speed in speeds_of(state):
        own = trials.last("off", speed)
        if own is None or not _whole(job, own, way):
            why = f"One sheet for each speed; {speed} has none with a step at rated volts."
            return of(verdict="unproven", subject=f"Not run at {speed} speed", why=why)
    if on is None:
        why = "Covers can press a lead against rotor, fan or shaft: run it again with them on."
        return of(verdict="unproven", subject="Not run after the covers", why=why)
    if not _whole(job, on, way):
        why = "The run with covers on had no step at rated volts."
        return of(verdict="unproven", subject="Run after the covers not whole", why=why)
    return of(
        verdict="good",
        subject="Test-run before and after covers",
        why=f"{off.at[:16].replace('T', ' ')} and {on.at[:16].replace('T', ' ')} UTC, {on.by or 'no initials'}.",
    )


def covers_next(job: Job, way: StartWay, state: Connecting) -> Literal["off", "on"]:
    """Return whether the next sheet is one with covers off or on: on once whole ones without stand."""
    return "off" if speed_next(job, way, state) is not None else "on"


def speed_next(job: Job, way: StartWay, state: Connecting) -> str | None:
    """Return the speed the next sheet with covers off is for, empty where it has one; None: all are run."""
    for speed in speeds_of(state) or (None,):
        own = job.trials.last("off", speed)
        if own is None or not _whole(job, own, way):
            return speed or ""
    return None


def _whole(job: Job, trial: Trial, way: StartWay) -> bool:
    if job.supply is None:
        return False
    return at_rated(trial, full_volt(job, way, trial)) is not None
