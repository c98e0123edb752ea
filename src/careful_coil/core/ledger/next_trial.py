"""What Test run asks for next: a sheet, what makes it ready, the start, the steps of a ramp, the end."""

from collections.abc import Iterator, Sequence

from careful_coil.core.connect.work import Connecting
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.trials import Trial
from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.next_wall import closed_steps
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import (
    StartWay,
    clicks,
    clips_at,
    full_volt,
    left_to_ready,
    started,
)
from careful_coil.core.trial.rules import covers_next, speed_next
from careful_coil.core.trial.told import at_rated, mean
from careful_coil.core.trial.whole import minutes_run, minutes_wanted

RAMP = (0.5, 1.0)  # of rated volts: where a ramp is read, after the run at a quarter
EASED = ("bearing", "shaft", "rotor")  # work that the volts it begins to turn from speak of
OPEN_FIRST = "It was opened: one start with the inside in sight, then close it for the run."
STOP = "Off at plate amps, smoke, or not turning by half voltage."
STARTED = "Off at plate amps, smoke, or a start circuit that stays in."
BEFORE = ("hookup", "line-ohms", "before-power", "low-run", "supply")  # findings at Connect


def trial_steps(c: Facts) -> Iterator[NextStep]:
    """Yield what the test run asks for, once nothing at Connect stands before power."""
    job, state, way, findings = c.job, c.connecting, c.start_way, c.findings
    gate = next((f for f in findings if f.code == "test-run"), None)
    now = job.trials.now
    if job.supply is None or (now is None and (gate is None or gate.verdict == "good")):
        return
    if now is None:
        before = any(f.code in BEFORE and f.verdict in ("hold", "unproven") for f in findings)
        if not before and not _run_twice(job, findings):
            if covers_next(job, way, state) == "on":
                yield from closed_steps(c)
            yield _sheet(job, state, way, gate.why if gate is not None else "")
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
    low = any(f.code == "low-run" and f.verdict == "good" for f in findings)
    yield from _run(job, state, way, now, c.settings, low)
    yield NextStep(
        code="trial-end",
        act="end",
        title="Bench switch off, then End",
        station="test-run",
        why="Read the supply as zero before a lead is touched. End closes the sheet.",
        words="it is off",
    )


TAKES = 2  # a run that found something bad is taken once more, then what it shows is mended


def _run_twice(job: Job, findings: Sequence[Finding]) -> bool:
    """Whether the run has shown something bad as often as it is taken, and nothing was mended since."""
    bad = any(f.station == "test-run" and f.verdict == "hold" for f in findings)
    since = job.deeds.last("runs")
    return bad and sum(t.whole and t.place > since for t in job.trials.sheets) >= TAKES


def _sheet(job: Job, state: Connecting, way: StartWay, why: str) -> NextStep:
    covers, speed = covers_next(job, way, state), speed_next(job, way, state)
    first = f"{OPEN_FIRST} " if covers == "off" else ""
    clips = clips_at(state, speed) if speed else ()
    moved = "".join(
        f"The bench's {line} on {tag}, the other speeds' leads insulated. " for line, tag in clips
    )
    return NextStep(
        code=f"trial-begin-{covers}-{speed}" if speed else f"trial-begin-{covers}",
        title=f"Begin a run, {speed} speed" if speed else f"Begin a run, covers {covers}",
        station="test-run",
        focus=f"covers-{covers}",
        why=f"{first}{moved}{why}",
        lines=clips,
    )


def _run(
    job: Job, state: Connecting, way: StartWay, now: Trial, settings: Settings, low: bool
) -> Iterator[NextStep]:
    """Yield what an open sheet is still read for; `low` whether it ran well at low volts just before."""
    if job.supply is None:
        return
    full = full_volt(job, way, now)
    lines = ("L1", "L2", "L3") if job.supply.phases == 3 else ("L1",)
    direct = way.way == "direct" and now.begun.load != "locked"
    if direct and not started(now):
        if way.look_volt is not None and not now.steps and not now.starts and not low:
            yield _step(
                way.look_volt, lines, "Look at", f"{way.look_seconds:g} s at most, then off."
            )
        yield NextStep(
            code="trial-start",
            act="start",
            title="One timed start",
            station="test-run",
            ends=lines,
            focus="stall",
            why=way.words,
            volt=full,
        )
        return
    if direct and now.begun.covers == "off":
        return  # its start was watched with the mechanism in sight: what is left is read once closed
    wanted = minutes_wanted(job, way, settings)
    if (
        at_rated(now, full) is not None
        and now.begun.covers == "on"
        and minutes_run(now, full) < wanted
    ):
        yield NextStep(
            code=f"trial-run-{wanted:g}",
            act="trial",
            title=f"Let it run {wanted:g} min, read again",
            station="test-run",
            ends=lines,
            focus="step",
            why=f"When the {wanted:g} min are over: amps, rpm, how it turns; W and °C where they are read. {STOP}",
            volt=full,
            state=f"{wanted:g} min",
        )
    if at_rated(now, full) is not None:
        if direct and clicks(job, state) and not now.of("drop-in"):
            yield NextStep(
                code="trial-drop-in",
                act="drop-in",
                title="Off: hear it reclose",
                station="test-run",
                ends=lines,
                focus="heard",
                why="On run-down the start device clicks back in. One that stays out does not start it again.",
            )
        return
    before = _before(job, now)
    ran = any(at_rated(t, full) is not None for t in before)
    if (
        way.way == "ramp"
        and (now.begun.covers == "off" or not any(t.of("starts-turning") for t in before))
        and now.begun.load == "none"
        and not now.steps
        and not now.of("starts-turning")
        and any(job.deeds.counted(EASED))
    ):
        yield NextStep(
            code="trial-turning",
            act="turning",
            title="Raise until it turns",
            station="test-run",
            ends=lines,
            focus="heard",
            why="The volts it begins to turn from: they fall when a bearing is eased.",
            volt=full,
        )
    high = max((mean(s.volt) for s in now.steps), default=0.0)
    shares = (1.0,) if direct or ran or now.begun.covers == "off" else RAMP
    volt = next((share * full for share in shares if share * full > 1.05 * high), full)
    # never raised where it was started at these volts
    word, stop = ("Keep it at", STARTED) if direct else ("Raise to", STOP)
    yield _step(volt, lines, word, stop)


def _before(job: Job, now: Trial) -> list[Trial]:
    """Return the sheets since it was worked on inside or joined, open or at another speed."""
    eased = max((d.place for d in job.deeds.counted(EASED)), default=-1)
    since = max(eased, job.deeds.last("low-run"))
    return [t for t in job.trials.sheets if t is not now and t.place > since]


def _step(volt: float, lines: tuple[str, ...], word: str, stop: str) -> NextStep:
    return NextStep(
        code=f"trial-step-{volt:.0f}",
        act="trial",
        title=f"{word} {volt:.0f} V, read",
        station="test-run",
        ends=lines,
        focus="step",
        why=f"Amps of each line and how it turns; W, rpm, °C where they are read. {stop}",
        volt=volt,
    )
