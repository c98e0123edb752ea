"""The ledger's lines of the test run, and the gate's: the motor as it goes out, covers on."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from functools import partial
from itertools import pairwise
from typing import Literal

from careful_coil.core.connect.work import Connecting
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.trials import Trial
from careful_coil.core.settings import Settings
from careful_coil.core.trial.alarms import standing_alarms
from careful_coil.core.trial.begin import StartWay, full_volt, speeds_to_run
from careful_coil.core.trial.judge import judged
from careful_coil.core.trial.told import at_rated, mean, told
from careful_coil.core.trial.whole import lacking, minutes_wanted

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
    """Yield what the newest sheet says, what no work has cleared, and whether a run as it goes out stands."""
    shown = next((t for t in reversed(job.trials.sheets) if t.steps or t.starts or t.heard), None)
    since = job.deeds.last("runs")
    standing = list(standing_alarms(job, way, settings))
    if shown is not None and (shown.place > since or _hurt_on(job, shown)):
        codes = {f.code for t, f in standing if t is shown}
        own = (f for f in judged(job, shown, way, settings, state) if f.code not in codes)
        yield from map(_gated, own)
    told_once: dict[str, Finding] = {}
    for _, found in standing:
        told_once[found.code] = found
    yield from told_once.values()
    yield from map(_gated, (*_speeds(job, state), *_other_way(job, way, state)))
    yield _gate(job, way, settings, state, tuple(standing))


def _hurt_on(job: Job, shown: Trial) -> bool:
    """Whether nothing but what happened on this sheet itself lies after it."""
    return all(
        d.place <= shown.last
        for d in job.deeds.counted()
        if d.voids("runs") and d.place > shown.place
    )


def _gated(found: Finding) -> Finding:
    """Return a finding of a run as the gate has it: what is bad or not proven keeps it shut."""
    bad = found.verdict in ("hold", "unproven")
    return replace(found, gate=bad, waivable=not (bad and found.code in NEVER))


def _speeds(job: Job, state: Connecting) -> Iterator[Finding]:
    """Yield whether each lower speed turns and draws less than the one above it."""
    if job.supply is None:
        return
    steps = []
    for speed in speeds_to_run(state):
        since = job.deeds.last("runs")
        sheet = job.trials.last("on", since, speed) or job.trials.last("off", since, speed)
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
    ran = [t for t in job.trials.sheets if t.whole and t.place > job.deeds.last("runs")]
    if ran and len({t.begun.direction for t in ran} - {""}) < 2:
        yield told(
            code="trial-both-ways",
            verdict="note",
            subject="Run one way only",
            why="With brushes it is run both ways at the cap: off neutral it sparks one way only. "
            "A sheet for each direction.",
        )


def _gate(
    job: Job,
    way: StartWay,
    settings: Settings,
    state: Connecting,
    standing: Sequence[tuple[Trial, Finding]],
) -> Finding:
    of = partial(_of, code="test-run", gate=True, waivable=False)
    trials, since = job.trials, job.deeds.last("runs")
    bad = list(standing)
    bad += [
        (t, f)
        for t in trials.standing(since)
        for f in judged(job, t, way, settings, state)
        if f.verdict == "hold"
    ]
    if bad:
        sheet, first = bad[0]
        at = sheet.at[:16].replace("T", " ")
        why = f"{first.subject}, sheet of {at} UTC. Mend it, then run that one again."
        never = any(f.code in NEVER or not f.waivable for _, f in bad)
        return of(
            verdict="hold", subject="Test run found something bad", why=why, waivable=not never
        )
    if trials.now is not None:
        why = "Bench switch off, supply read as zero, then End: an open sheet proves nothing."
        return of(verdict="unproven", subject="A test sheet is still open", why=why)
    capped = way.most_volt is not None
    volts = f"{full_volt(job, way):.0f} V and no more, unloaded" if capped else "rated volts"
    for speed in speeds_to_run(state) or ("",):
        on = trials.last("on", since, speed or None)
        which = f" at {speed} speed" if speed else ""
        if on is None:
            return of(
                verdict="unproven",
                subject=f"Not test-run{which}",
                why=f"Covers on, {volts}: amps of every line, how it turns, its speed, "
                f"{minutes_wanted(job, way, settings):g} min.",
            )
        lacks = lacking(job, on, way, settings, state)
        if lacks:
            return of(verdict="unproven", subject=f"Test run incomplete{which}", why=lacks)
    on = trials.last("on", since)
    spoken = "" if on is None else _spoken(job, on, way)
    return of(
        verdict="good",
        subject="Test-run on the closed motor",
        why=f"{on.at[:16].replace('T', ' ')} UTC, {on.by or 'no initials'}.{spoken}" if on else "",
    )


def _spoken(job: Job, on: Trial, way: StartWay) -> str:
    step = at_rated(on, full_volt(job, way, on))
    return " Speed not measured." if step is not None and step.rpm is None else ""


def opened(job: Job) -> bool:
    """Whether it was worked on inside since it last ran closed: then it runs once before the covers."""
    if job.seen.sealed:
        return False
    ran = max(
        (t.place for t in job.trials.sheets if t.whole and t.begun.covers == "on"), default=-1
    )
    inside = ("rewound", "varnished", "bearing", "rotor", "device", "shaft")
    return any(d.place > ran for d in job.deeds.counted(inside))


def covers_next(job: Job, way: StartWay, state: Connecting) -> Literal["off", "on"]:
    """Return whether the next sheet is one with covers off or on: off once where it was opened."""
    if not opened(job) or job.tested.covers >= 0:
        return "on"
    return "off" if job.trials.last("off", job.deeds.last("runs")) is None else "on"


def speed_next(job: Job, way: StartWay, state: Connecting) -> str | None:
    """Return the speed the next sheet is for, empty where it has one; None: all are run."""
    since, covers = job.deeds.last("runs"), covers_next(job, way, state)
    for speed in speeds_to_run(state) or (None,):
        own = job.trials.last(covers, since, speed)
        if own is None or at_rated(own, full_volt(job, way, own)) is None:
            return speed or ""
    return None
