"""What Test run asks for next: a sheet, what makes it ready, the steps of a ramp, the end."""

from collections.abc import Iterator, Sequence

from careful_coil.core.connect.work import Connecting
from careful_coil.core.job import Finding, Job
from careful_coil.core.ledger.next_card import COVERS, NextStep
from careful_coil.core.trial.begin import StartWay, left_to_ready
from careful_coil.core.trial.judge import at_rated
from careful_coil.core.trial.rules import covers_next

RAMP = (0.25, 0.5, 0.75, 1.0)  # of rated volts: where a ramp is read
STOP = "Off at plate amps, smoke, or not turning by half voltage."


def trial_steps(
    job: Job, state: Connecting, way: StartWay, findings: Sequence[Finding]
) -> Iterator[NextStep]:
    """Yield what the test run asks for, once nothing at Connect stands before power."""
    gate = next((f for f in findings if f.code == "test-run"), None)
    now = job.trials.now
    if job.supply is None or (now is None and (gate is None or gate.verdict == "good")):
        return
    before = ("hookup", "line-ohms", "before-power", "low-run", "supply")
    if now is None and any(
        f.code in before and f.verdict in ("hold", "unproven") for f in findings
    ):
        return
    if now is None:
        covers = covers_next(job, way)
        if covers == "on" and job.tested.covers < 0:
            yield COVERS
            return
        yield NextStep(
            code=f"trial-begin-{covers}",
            title=f"Begin a run, covers {covers}",
            station="test-run",
            focus=f"covers-{covers}",
            why=gate.why if gate is not None else "",
        )
        return
    left = left_to_ready(job, state, way)
    if left:
        yield NextStep(
            code="trial-ready",
            title="Make ready for volts",
            station="test-run",
            focus="ready",
            why="; ".join(i.words for i in left) + ".",
        )
        return
    yield from _run(job, way)
    yield NextStep(
        code="trial-end",
        act="end",
        title="Bench switch off, then End",
        station="test-run",
        why="Read the supply as zero before a lead is touched. End closes the sheet.",
        words="it is off",
    )


def _run(job: Job, way: StartWay) -> Iterator[NextStep]:
    now, supply = job.trials.now, job.supply
    if now is None or supply is None:
        return
    if way.way == "direct" and not now.starts:
        yield NextStep(
            code="trial-start",
            title="One timed start",
            station="test-run",
            focus="stall",
            why=way.words,
        )
        return
    most = way.most_volt or supply.volt
    if at_rated(now, most) is not None:
        return
    high = max((sum(s.volt) / len(s.volt) for s in now.steps), default=0.0)
    shares = (1.0,) if way.way == "direct" else RAMP
    volt = next(share * most for share in shares if share * most > 1.05 * high)
    lines = ("L1", "L2", "L3") if supply.phases == 3 else ("L1",)
    yield NextStep(
        code=f"trial-step-{volt:.0f}",
        act="trial",
        title=f"Raise to {volt:.0f} V, read",
        station="test-run",
        ends=lines,
        focus="step",
        why=f"Volts, amps of each line, watts, rpm. {STOP}",
        volt=volt,
    )
