"""Two runs side by side: before and after, and whether the change is more than the noise."""

from dataclasses import dataclass

from careful_coil.core.figures import all_in
from careful_coil.core.job import Job
from careful_coil.core.job.at_trial import TrialBegun, TrialEnded
from careful_coil.core.job.trials import Trial
from careful_coil.core.trial.told import at_rated, mean


@dataclass(frozen=True, slots=True, kw_only=True)
class Pair:
    """One figure before and after: what it is, both, the change of 1, whether it is more than the noise."""

    what: str
    before: float
    after: float
    unit: str
    change: float
    more: bool


NOISE = {"amp": 0.03, "watt": 0.05, "rpm": 0.002, "turns from": 0.05}  # two readings of one thing


def run_before(job: Job) -> Trial | None:
    """Return the last run of this motor's earlier job, as it was kept; None where it was not here before."""
    kept = next((e for e in reversed(job.tested.earlier) if e.run), None)
    if kept is None:
        return None
    begun = TrialBegun(since=f"job {kept.number}")
    return Trial(begun=begun, at="", by="", place=-1, last=-1, steps=kept.run, ended=TrialEnded())


def compared(before: Trial, after: Trial, volt: float) -> list[Pair]:
    """Return the figures of two sheets side by side at rated volts."""
    one, two = at_rated(before, volt), at_rated(after, volt)
    rows: list[tuple[str, float | None, float | None, str]] = []
    if one is not None and two is not None:
        rows += [
            ("amp", mean(one.amp), mean(two.amp), "A"),
            ("watt", one.watt, two.watt, "W"),
            ("rpm", one.rpm, two.rpm, "rpm"),
        ]
    rows.append(
        (
            "turns from",
            _figure(before.of("starts-turning")),
            _figure(after.of("starts-turning")),
            "V",
        )
    )
    found = []
    for what, a, b, unit in rows:
        if a and b:
            change = b / a - 1
            found.append(
                Pair(
                    what=what,
                    before=a,
                    after=b,
                    unit=unit,
                    change=change,
                    more=abs(change) > NOISE[what],
                )
            )
    return found


def _figure(text: str) -> float | None:
    return next(iter(all_in(text)), None)
