"""Test runs on the job sheet: each sheet with its steps, starts, what was heard and how it ended."""

from collections.abc import Iterator, Sequence

from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.job.trials import Trial
from careful_coil.core.ledger import Judgement

STARTS_TOLD = 4  # the newest of many


def trial_lines(judged: Judgement) -> Iterator[str]:
    """Yield what the sheet says of the runs, here or on somebody's word; nothing where there were none."""
    for trial in judged.job.trials.sheets:
        yield _head(trial)
        for step in trial.steps:
            yield f"  {_step(step)}."
        for start in trial.starts[-STARTS_TOLD:]:
            yield f"  Start at {start.volt:g} V: {start.outcome} after {start.seconds:g} s."
        if trial.heard:
            yield f"  {'; '.join(f'{h.what} {h.text}' for h in trial.heard)}."
    word = (judged.job.attested or {}).get("test-run")
    if word is not None:
        yield f"On somebody's word: {word.words}"


def _head(trial: Trial) -> str:
    begun = trial.begun
    load = {"none": "without load", "load": "under load", "locked": "locked"}[begun.load]
    told = [trial.at[:16].replace("T", " "), f"covers {begun.covers}", load, begun.speed]
    if trial.ended is None:
        told.append("STILL OPEN")
    elif trial.ended.abandoned:
        told.append(f"abandoned: {trial.ended.abandoned}")
    return f"{', '.join(t for t in told if t)}{f'; {trial.by}' if trial.by else ''}:"


def _step(step: TrialStep) -> str:
    told = [f"{_figures(step.volt)} V", f"{_figures(step.amp)} A"]
    for value, unit in (
        (step.watt, "W"),
        (step.rpm, "rev/min"),
        (step.celsius, "°C"),
        (step.minute, "min"),
    ):
        if value is not None:
            told.append(f"{value:g} {unit}")
    return ", ".join([*told, step.turns, *([step.remark] if step.remark else [])])


def _figures(values: Sequence[float]) -> str:
    return "/".join(f"{v:g}" for v in values)
