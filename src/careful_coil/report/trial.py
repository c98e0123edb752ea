"""Test runs on the job sheet: each sheet with its steps, starts, what was heard and how it ended."""

from collections.abc import Iterator

from careful_coil.core.connect.rotation import WORDS
from careful_coil.core.job.trials import Trial
from careful_coil.core.ledger import Judgement
from careful_coil.core.trial.meaning import losses_of, losses_words, pair_words, warm_words
from careful_coil.core.trial.separate import warm_points
from careful_coil.core.trial.typed import step_words

LEAST_WARM = 3  # temperatures
STARTS_TOLD = 4  # the newest of many


def trial_lines(judged: Judgement) -> Iterator[str]:
    """Yield what the sheet says of the runs, here or on somebody's word; nothing where there were none."""
    for trial in judged.job.trials.sheets:
        yield _head(trial)
        for step in trial.steps:
            yield f"  {step_words(step)}."
        for start in trial.starts[-STARTS_TOLD:]:
            yield f"  Start at {start.volt:g} V: {start.outcome} after {start.seconds:g} s."
        if trial.heard:
            yield f"  {'; '.join(f'{h.what} {h.text}' for h in trial.heard)}."
    yield from _said(judged)
    word = (judged.job.attested or {}).get("test-run")
    if word is not None:
        yield f"On somebody's word: {word.words}"


def _said(judged: Judgement) -> Iterator[str]:
    """Yield losses and warmth of the newest sheet with steps, and what changed between two."""
    job = judged.job
    shown = next((t for t in reversed(job.trials.sheets) if t.steps), None)
    if shown is None or job.supply is None:
        return
    found = losses_of(job, judged.facts.connecting, shown)
    if not isinstance(found, str):
        yield losses_words(found, job.supply.volt)
    if len(warm_points(shown)) >= LEAST_WARM:
        yield warm_words(shown)
    pairs = list(pair_words(job, judged.facts.start_way))
    if pairs:
        yield " ".join(pairs)


def _head(trial: Trial) -> str:
    begun = trial.begun
    load = {"none": "without load", "load": "under load", "locked": "locked"}[begun.load]
    told = [trial.at[:16].replace("T", " "), f"covers {begun.covers}", load]
    told += [f"{begun.speed} speed"] if begun.speed else []
    told += [f"{WORDS[begun.direction]} at the drive end"] if begun.direction else []
    if trial.ended is None:
        told.append("STILL OPEN")
    elif trial.ended.abandoned:
        told.append(f"abandoned: {trial.ended.abandoned}")
    return f"{', '.join(t for t in told if t)}{f'; {trial.by}' if trial.by else ''}:"
