"""What a run says: each departure named with its likely causes, small ones with the meter's doubt."""

from collections.abc import Iterator

from careful_coil.core.connect.low_run import fitting_slips
from careful_coil.core.connect.usual_wish import ran_low
from careful_coil.core.connect.work import Connecting
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.job.trials import Trial
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import StartWay, full_volt, most_rpm, speeds_of
from careful_coil.core.trial.heard import heard
from careful_coil.core.trial.idle import idle
from careful_coil.core.trial.loaded import loaded, locked
from careful_coil.core.trial.told import Verdict, at_rated, dead_lines, mean, told
from careful_coil.core.values import show_percent

AMPS_PER_VOLT = 10.0  # amps lie up to so many times as far apart as volts (NEMA MG 1, 14.36)


def judged(
    job: Job, trial: Trial, way: StartWay, settings: Settings, state: Connecting | None = None
) -> list[Finding]:
    """Return what a sheet says of its motor; `state` the joints, for the slip its amps fit."""
    found = [*_starts(trial, settings), *heard(trial, job, settings)]
    if job.supply is None:
        return found
    if trial.begun.load == "locked":
        step = trial.steps[-1] if trial.steps else None
        lines = _lines(step, settings, state) if step is not None else ()
        return [*found, *lines, *locked(trial, job)]
    volt = full_volt(job, way, trial)
    step = at_rated(trial, volt)
    if step is None:
        return found
    found += _lines(step, settings, state)
    if trial.begun.load == "load":
        return [*found, *loaded(step, job, way.kind)]
    if way.way == "cap":
        return [*found, *_universal(step, job)]
    speeds = speeds_of(state)
    lower = trial.begun.speed in speeds[1:]
    anew = state is not None and bool(state.wrong) and ran_low(job)
    return [*found, *idle(step, job, settings, way.kind, lower, anew)]


def _starts(trial: Trial, settings: Settings) -> Iterator[Finding]:
    for start in trial.starts:
        if start.outcome in ("stalled", "tripped"):
            yield told(
                code="trial-start",
                verdict="hold",
                subject="Did not start",
                why=f"{start.outcome.capitalize()} after {start.seconds:g} s at {start.volt:g} V. Hums: start "
                "circuit open, a lost phase or stiff. Start gear says which test parts them.",
                figure=start.seconds,
                unit="s",
            )
        elif start.outcome == "dropped out":
            watch, hold = settings.switch_out_watch, settings.switch_out_hold
            verdict: Verdict = (
                "hold"
                if start.seconds > hold.value
                else "watch"
                if start.seconds > watch.value
                else "good"
            )
            late = "Late: stiff shaft, low volts, weak capacitor, or the switch itself."
            yield told(
                code="trial-start",
                verdict=verdict,
                subject="Start device let go" if verdict == "good" else "Start device late",
                why=f"Out after {start.seconds:g} s." + ("" if verdict == "good" else f" {late}"),
                figure=start.seconds,
                limit=hold.value if verdict == "hold" else watch.value,
                unit="s",
                source=watch.source,
            )


def _lines(step: TrialStep, settings: Settings, state: Connecting | None) -> Iterator[Finding]:
    """Yield a dead line, amps apart beyond what the volts explain; a lost phase is told as such."""
    if len(step.amp) < 3:
        return
    middle = mean(step.amp)
    dead = dead_lines(step.amp)
    if dead:
        yield told(
            code="trial-dead-line",
            verdict="hold",
            subject=f"No amps in {' and '.join(dead)}",
            why="A lost phase though it runs: it would not start again. Stop, read upstream of the open point.",
        )
        return
    apart = max(abs(a - middle) for a in step.amp) / middle
    volts = (
        max(abs(v - mean(step.volt)) for v in step.volt) / mean(step.volt)
        if len(step.volt) == 3
        else 0.0
    )
    limit = settings.amps_apart.value / 100
    explained = apart <= AMPS_PER_VOLT * volts + 0.02
    if apart <= limit:
        verdict: Verdict = "good"
        why = f"Within {show_percent(apart)} of their mean."
    elif explained:
        verdict = "watch"
        why = (
            f"{show_percent(apart)} apart, as volts {show_percent(volts)} apart explain. Read again on "
            "balanced volts."
        )
    else:
        verdict = "hold"
        why = (
            f"{show_percent(apart)} apart at volts {show_percent(volts)} apart. {_fits(step, state)}"
            "One high and slip: an exchanged or turned coil, shorted turns; one low: a joint with ohms. "
            "Exchange lines: what goes along is the supply's."
        )
    yield told(
        code="trial-lines",
        verdict=verdict,
        subject="Line amps equal" if verdict == "good" else "Line amps apart",
        why=why,
        figure=round(100 * apart, 1),
        limit=settings.amps_apart.value,
        unit="%",
        source=settings.amps_apart.source,
    )


def _fits(step: TrialStep, state: Connecting | None) -> str:
    """Return the slip of the joints whose amps these are, empty where none is or the joints are not known."""
    if state is None or state.hookup is None or state.plan is None:
        return ""
    fits = fitting_slips(step.amp, step.turns, state.hookup, state.plan)
    return f"They fit: {fits[0].title} " if fits else ""


def _universal(step: TrialStep, job: Job) -> Iterator[Finding]:
    most = most_rpm(job)
    if step.rpm is not None and step.rpm > most:
        yield told(
            code="trial-speed",
            verdict="hold",
            subject="Runs away at the cap",
            why=f"{step.rpm:.0f} rpm unloaded, {most:.0f} at most. Off. Field turns shorted, or too many volts.",
            figure=step.rpm,
            limit=most,
            unit="rpm",
        )
    else:
        speed = f"{step.rpm:.0f} rpm" if step.rpm is not None else "speed not read"
        yield told(
            code="trial-speed",
            verdict="good" if step.rpm is not None else "watch",
            subject="Runs at the cap",
            why=f"{mean(step.volt):g} V, {speed}. Light even sparking only, both ways if it reverses.",
        )
