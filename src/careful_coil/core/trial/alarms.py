"""What at any step of any sheet must not be forgotten: it stands until work and a later sheet cleared it."""

from collections.abc import Iterator
from dataclasses import replace

from careful_coil.core.condition.wall import THERMAL, class_of, class_words
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.alarms import words_of_harm, words_of_roughness
from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.job.trials import Trial
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import NEAR_CAP, StartWay, most_rpm
from careful_coil.core.trial.told import dead_lines, mean, told

STANDING = 0.5  # of rated volts: below it a motor on a ramp need not turn yet
FAST_WARM = 15.0  # K a minute without load: no healthy winding does that
WARM_FROM = 40.0  # °C: what a motor may have had before
RUNAWAY = 1.05  # times the rpm it may reach
NOT_WORK = ("harm", "stood", "stored", "supply")  # deeds that mend nothing


def alarms(trial: Trial, job: Job, way: StartWay, settings: Settings) -> Iterator[Finding]:
    """Yield what of one sheet holds whatever came after it on that sheet."""
    for step in trial.steps:
        yield from _step(step, trial, job, way)
    for start in trial.starts:
        if start.outcome in ("stalled", "tripped"):
            yield _alarm(
                "trial-start",
                "Did not start",
                f"{start.outcome.capitalize()} after {start.seconds:g} s at {start.volt:g} V.",
            )
    for said in trial.heard:
        words = words_of_harm(said.text)
        if said.what != "smoke" and words:
            yield _alarm("trial-smoke", f"Heard or seen: {words[0]}", f"{said.text}.")
    if trial.ended is not None and words_of_harm(trial.ended.abandoned):
        yield _alarm("trial-smoke", "The run was broken off", f"{trial.ended.abandoned}.")


def standing_alarms(job: Job, way: StartWay, settings: Settings) -> Iterator[tuple[Trial, Finding]]:
    """Yield the alarms that no work and later sheet of the kind have cleared, each with its sheet."""
    sheets = job.trials.sheets
    clear = [t for t in sheets if t.whole and t.steps and not any(alarms(t, job, way, settings))]
    for trial in sheets:
        for found in alarms(trial, job, way, settings):
            worked = _worked(job, trial, found)
            after = [t for t in clear if t.place > worked and _of_kind(t, trial)] if worked else []
            if not after:
                yield trial, replace(found, why=f"{found.why} {_way_out(worked)}")


def _way_out(worked: int) -> str:
    if worked:
        return "Worked on since; a run of the same kind must show it gone."
    return "Nothing was done to the motor since: find it, mend it, then run it again."


def _worked(job: Job, trial: Trial, found: Finding) -> int:
    """Return the place of the last work after a sheet, 0 where there was none."""
    places = [d.place for d in job.deeds.counted() if d.kind not in NOT_WORK and d.voids("runs")]
    if found.code == "trial-dead-line":  # the supply may have been what was dead
        places.append(job.deeds.stamps.get("supply-read", -1))
    return max((p for p in places if p > trial.last), default=0)


def _of_kind(later: Trial, trial: Trial) -> bool:
    same = later.begun.covers == "on" or later.begun.covers == trial.begun.covers
    return same and later.begun.load == trial.begun.load


def _alarm(code: str, subject: str, why: str) -> Finding:
    return told(code=code, verdict="hold", subject=subject, why=why, gate=True, waivable=False)


def _step(step: TrialStep, trial: Trial, job: Job, way: StartWay) -> Iterator[Finding]:
    volt, locked = mean(step.volt), trial.begun.load == "locked"
    if len(step.amp) > 1 and volt > 0 and dead_lines(step.amp):
        yield _alarm(
            "trial-dead-line",
            f"No amps in {' and '.join(dead_lines(step.amp))}",
            "A lost phase, though it may run: it would not start again.",
        )
    look = way.look_volt is not None and volt <= NEAR_CAP * way.look_volt
    if step.turns == "rough" or (words_of_roughness(step.remark) and not locked):
        told_so = f" “{step.remark}”" if step.remark else ""
        yield _alarm("trial-turns", "Runs rough", f"At {volt:g} V.{told_so}")
    elif step.turns == "none" and not locked and not look and _must_turn(volt, job):
        yield _alarm("trial-turns", "Does not turn", f"At {volt:g} V it stood.")
    words = words_of_harm(step.remark)
    if words:
        yield _alarm("trial-smoke", f"Noted at a step: {words[0]}", f"“{step.remark}”")
    yield from _hot(step, trial, job)
    if way.way == "cap" and trial.begun.load == "none" and step.rpm is not None:
        most = RUNAWAY * most_rpm(job)
        if step.rpm > most:
            yield _alarm(
                "trial-speed",
                "Runs away",
                f"{step.rpm:.0f} rpm at {volt:g} V unloaded, {most:.0f} at most.",
            )


def _must_turn(volt: float, job: Job) -> bool:
    return job.supply is not None and volt >= STANDING * job.supply.volt


def _hot(step: TrialStep, trial: Trial, job: Job) -> Iterator[Finding]:
    if step.celsius is None:
        return
    most = THERMAL[class_of(job)]
    fast = (
        trial.begun.load == "none"
        and step.minute is not None
        and step.celsius > WARM_FROM + FAST_WARM * max(step.minute, 1.0)
    )
    if step.celsius > most or fast:
        after = f" after {step.minute:g} min" if step.minute is not None else ""
        yield _alarm(
            "trial-hot",
            "Too hot",
            f"{step.celsius:g} °C{after}; {class_words(job)} ends at {most} °C, and no load heats so fast.",
        )
