"""What a run on the closed motor lacks before it proves anything: volts, every line's amps, minutes, speed."""

import re

import numpy as np

from careful_coil.core.condition.cures import cured_by
from careful_coil.core.condition.suspicion import symptoms_in
from careful_coil.core.connect.work import Connecting
from careful_coil.core.job import Job
from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.job.plate import unreadable
from careful_coil.core.job.trials import Trial
from careful_coil.core.job.voids import VOIDS
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import StartWay, full_volt
from careful_coil.core.trial.idle import idle_band
from careful_coil.core.trial.told import at_rated, full_load_amps, mean, near_rated

LINES = 3
SHORT_MINUTES = 2.0  # unloaded motors with brushes: more heats nothing but their bearings
SEALED_MINUTES = 0.2  # a compressor without its gas and oil circuit: seconds only (trade practice)
SHORT_TIME = re.compile(r"S2\D{0,3}(\d+)\s*min", re.IGNORECASE)


def minutes_wanted(job: Job, way: StartWay, settings: Settings) -> float:
    """Return how long a run lasts: longer after bearing or winding work, and while a cause is not found."""
    if job.seen.sealed:
        return SEALED_MINUTES
    if way.way == "cap":
        return SHORT_MINUTES
    short = SHORT_TIME.search(job.plate.printed("duty"))
    if short is not None:
        return min(float(short[1]), settings.run_minutes.value)
    longer = any(VOIDS[d.kind].minutes for d in job.deeds.counted())
    return (
        settings.run_minutes_worked if longer or cause_open(job) else settings.run_minutes
    ).value


def cause_open(job: Job) -> bool:
    """Whether the customer complained of something whose cause nobody has found."""
    told = set(symptoms_in(job.ticket.get("complaint", "")))
    told |= {k for k, v in job.seen.symptoms.items() if v == "yes"}
    return bool(told) and not job.gear.cause and not cured_by(job, tuple(told))[0]


def since_last_run(job: Job) -> tuple[str, ...]:
    """Return in words what was done since the last sheet was begun."""
    sheets = job.trials.sheets
    return job.deeds.since(sheets[-1].place if sheets else -1)


def minutes_run(trial: Trial, volt: float) -> float:
    """Return the minutes a sheet says it ran, as noted or as logged between steps at rated volts."""
    noted = max((s.minute for s in trial.steps if s.minute is not None), default=0.0)
    at = [
        np.datetime64(when.removesuffix("Z"), "ms")
        for s, when in zip(trial.steps, trial.step_at, strict=False)
        if near_rated(s, volt)
    ]
    logged = float((max(at) - min(at)) / np.timedelta64(1, "m")) if len(at) > 1 else 0.0
    return max(noted, logged)


def lacking(job: Job, trial: Trial, way: StartWay, settings: Settings, state: Connecting) -> str:
    """Return in words what a sheet lacks to prove that the motor runs; empty where it is whole."""
    if job.supply is None:
        return "Name the supply first."
    step = at_rated(trial, full_volt(job, way, trial))
    if step is None:
        return "A step at rated volts (unloaded with brushes: at the cap) is what counts."
    if job.supply.phases == LINES and len(step.amp) < LINES:
        return "Amps of one line say nothing of the other two: read all three."
    if not step.turns:
        return "How did it turn? Smooth, rough, or does not turn: nothing said is not smooth."
    if full_load_amps(job) is None and way.way != "cap" and not _unreadable(job):
        return "Amps at full load are not known: the plate's amps or its power, or say that it is unreadable."
    wanted, ran = minutes_wanted(job, way, settings), minutes_run(trial, full_volt(job, way, trial))
    if ran < wanted:
        return f"{ran:g} min noted, {wanted:g} min wanted: read it again then."
    if way.way == "direct" and not _timed(job, trial):
        return "A timed start with the covers on: the start device must let go in time."
    return _speed(step, job, way, settings)


def _unreadable(job: Job) -> bool:
    """Whether somebody said that neither amps nor power can be read on the plate."""
    return any(unreadable(job.plate.printed(f)) for f in ("amp", "power"))


def _timed(job: Job, trial: Trial) -> bool:
    """Whether the start device was seen to let go on a sheet with the covers on that still counts."""
    since = max(job.deeds.last("timed-start"), job.deeds.last("runs"))
    sheets = [t for t in job.trials.sheets if t.place > since and t.begun.covers == "on"]
    return any(s.outcome == "dropped out" for t in sheets for s in t.starts)


def _speed(step: TrialStep, job: Job, way: StartWay, settings: Settings) -> str:
    """Return what is wanted where speed was not read: amps that fell to the idle band show it too."""
    if step.rpm is not None or job.supply is None or way.way == "cap":
        return ""
    known = full_load_amps(job)
    if known is None:
        return "Amps at full load are not known: the plate's amps or power, or read the speed."
    if job.supply.phases != LINES:  # amps that need not fall: it starts unaided and runs steadily
        return ""
    share = 100 * mean(step.amp) / known[0]
    low, high = idle_band(job, settings)
    if low <= share <= high:
        return ""
    return (
        f"Amps are {share:.0f} % of full load, {low:.0f} to {high:.0f} % is usual: read the speed."
    )
