"""What a run says, one line each: its code, verdict, why, figure and limit; the step that counts."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.job.trials import Trial

Verdict = Literal["good", "watch", "hold"]
RATED_NEAR = 0.10  # of 1: a step at rated volts


@dataclass(frozen=True, slots=True, kw_only=True)
class Told:
    """One departure, or that something is right: code, verdict, subject, why, figure and limit."""

    code: str
    verdict: Verdict
    subject: str
    why: str
    figure: float | None = None
    limit: float | None = None
    unit: str = ""
    source: str = ""


def mean(values: Sequence[float]) -> float:
    """Return the mean."""
    return sum(values) / len(values)


def at_rated(trial: Trial, volt: float) -> TrialStep | None:
    """Return the newest step at rated volts; None where there was none."""
    return next(
        (s for s in reversed(trial.steps) if abs(mean(s.volt) / volt - 1) <= RATED_NEAR), None
    )


def worst(told: Sequence[Told]) -> Verdict:
    """Return the worst verdict of several."""
    order: tuple[Verdict, ...] = ("hold", "watch", "good")
    return next((v for v in order if any(t.verdict == v for t in told)), "good")
