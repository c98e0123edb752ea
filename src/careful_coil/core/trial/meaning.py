"""What sheets say beyond single findings: losses, where it warms to, before and after; in words."""

from collections.abc import Iterator

from careful_coil.core.connect.work import Connecting
from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.job import Job
from careful_coil.core.job.trials import Trial
from careful_coil.core.trial.begin import StartWay, full_volt
from careful_coil.core.trial.pairs import compared, run_before
from careful_coil.core.trial.separate import (
    Losses,
    no_load_steps,
    separated,
    warm_points,
    warming,
)
from careful_coil.core.trial.told import sync_of
from careful_coil.core.values import show_figure, show_percent


def losses_of(job: Job, state: Connecting, trial: Trial) -> Losses | str:
    """Return the losses of a sheet, or in words what is missing for them."""
    supply = job.supply
    lines = state.read or state.expected or {}
    ohms = [v for v in lines.values() if v != float("inf")]
    if supply is None or not ohms or trial.begun.load != "none":
        return "Line ohms and a run without load are wanted."
    try:
        steps = no_load_steps(trial, sync_of(job))
        return separated(steps, sum(ohms) / len(ohms), supply.volt, supply.phases)
    except ValueOutOfRange as error:
        return str(error)


def losses_words(found: Losses, volt: float) -> str:
    """Return losses in words."""
    return (
        f"At {volt:g} V: friction and windage {found.friction:.0f} ± {found.friction_error:.0f} W, iron "
        f"{found.iron:.0f} ± {found.iron_error:.0f} W, copper {found.copper:.0f} W."
    )


def warm_words(trial: Trial) -> str:
    """Return where the temperature of a sheet will end, or what is missing for it."""
    points = warm_points(trial)
    if len(points) < 3:
        return "After three steps with °C it says where they will end."
    try:
        found = warming(points)
    except ValueOutOfRange:
        return "Still rising straight on: more minutes are wanted."
    steady = "steady" if found.steady else "still moving"
    return f"It ends near {found.end_c:.0f} °C, time constant {found.minutes:.0f} min; {steady}."


def _same(one: Trial, other: Trial) -> bool:
    """Whether two sheets are of one speed and direction."""
    return (one.begun.speed, one.begun.direction) == (other.begun.speed, other.begun.direction)


def pair_words(job: Job, way: StartWay) -> Iterator[str]:
    """Yield each figure of the last two whole sheets side by side, and what was done between them.

    The first sheet of a job stands beside the last of this motor's earlier job.
    """
    whole = [t for t in job.trials.sheets if t.whole and t.begun.load == "none"]
    alike = [t for t in whole if _same(t, whole[-1])]
    before = alike[-2] if len(alike) > 1 else run_before(job)
    if not alike or before is None or job.supply is None:
        return
    after, volt = alike[-1], full_volt(job, way)
    covered = "covers put on" if after.begun.covers == "on" else "nothing logged"
    done = after.begun.since or covered
    if len(alike) < 2:
        done = f"the time since {before.begun.since}"
    pairs = compared(before, after, volt)
    if pairs:
        yield f"Between them: {done}."
    for p in pairs:
        more = "more than two readings of one thing differ" if p.more else "no real change"
        sign = "+" if p.change >= 0 else "−"
        change = show_percent(abs(p.change))
        yield f"{p.what}: {show_figure(p.before, 4)} → {show_figure(p.after, 4)} {p.unit}, {sign}{change}: {more}."
