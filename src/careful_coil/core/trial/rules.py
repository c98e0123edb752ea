"""The ledger's lines of the test run, and the gate's: before and after the covers."""

from collections.abc import Iterator
from functools import partial
from typing import Literal

from careful_coil.core.job import Finding, Job
from careful_coil.core.job.trials import Trial
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import StartWay
from careful_coil.core.trial.judge import at_rated, judged, worst

NEVER = ("trial-start", "trial-lines", "trial-smoke")  # holds that nobody sets aside
_of = partial(Finding, station="test-run")


def trial_findings(job: Job, way: StartWay, settings: Settings) -> Iterator[Finding]:
    """Yield what the newest sheet says, and whether a run before and after the covers stands."""
    shown = next((t for t in reversed(job.trials.sheets) if t.steps or t.starts or t.heard), None)
    if shown is not None and shown.changes == job.trials.changes:
        for t in judged(job, shown, way, settings):
            yield _of(
                code=t.code,
                verdict=t.verdict,
                subject=t.subject,
                why=t.why,
                figure=t.figure,
                limit=t.limit,
                unit=t.unit,
                source=t.source,
                gate=t.verdict == "hold",
                waivable=not (t.verdict == "hold" and t.code in NEVER),
            )
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
    yield _gate(job, way, settings)


def _of_this_motor(job: Job) -> Iterator[Trial]:
    """Yield the sheets since the last change to the motor, abandoned ones too."""
    return (t for t in job.trials.sheets if t.changes == job.trials.changes)


def _gate(job: Job, way: StartWay, settings: Settings) -> Finding:
    of = partial(_of, code="test-run", gate=True)
    trials = job.trials
    off, on = trials.last("off"), trials.last("on")
    told = [x for t in (off, on) if t is not None for x in judged(job, t, way, settings)]
    if worst(told) == "hold":
        why = "What was found stands above or on the sheet before; mend it, then run it again."
        never = any(x.verdict == "hold" and x.code in NEVER for x in told)
        return of(
            verdict="hold", subject="Test run found something bad", why=why, waivable=not never
        )
    word = (job.attested or {}).get("test-run")
    if word is not None:
        return of(verdict="good", subject="Test-run", why=word.words)
    if off is None:
        stale = [t for t in trials.sheets if t.ended is not None and not t.ended.abandoned]
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


def covers_next(job: Job, way: StartWay) -> Literal["off", "on"]:
    """Return whether the next sheet is one with covers off or on: on once a whole one without stands."""
    off = job.trials.last("off")
    return "on" if off is not None and _whole(job, off, way) else "off"


def _whole(job: Job, trial: Trial, way: StartWay) -> bool:
    if job.supply is None:
        return False
    return at_rated(trial, way.most_volt or job.supply.volt) is not None
