"""What a run says: each departure named with its likely causes, small ones with the meter's doubt."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.job import Job
from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.job.trials import Trial
from careful_coil.core.machine.power import volt_amperes
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import StartWay, most_rpm
from careful_coil.core.values import show_percent
from careful_coil.core.winding.speed import poles_of

Verdict = Literal["good", "watch", "hold"]
RATED_NEAR = 0.10  # of 1: a step at rated volts
DEAD = 0.05  # of the mean: a line without amps
AMPS_PER_VOLT = 10.0  # amps lie up to so many times as far apart as volts (NEMA MG 1, 14.36)
SMALL_W = 750.0  # below it three-phase motors may idle near plate amps
IDLE_PF = (0.05, 0.5)  # power factor without load: judged by its trend first
STIFF = 0.5  # of rated volts: later than that something holds it


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


def at_rated(trial: Trial, volt: float) -> TrialStep | None:
    """Return the newest step at rated volts; None where there was none."""
    return next(
        (s for s in reversed(trial.steps) if abs(_mean(s.volt) / volt - 1) <= RATED_NEAR), None
    )


def judged(job: Job, trial: Trial, way: StartWay, settings: Settings) -> list[Told]:
    """Return what a sheet says of its motor."""
    found = [*_starts(trial, settings), *_heard(trial)]
    supply = job.supply
    if supply is None:
        return found
    volt = way.most_volt or supply.volt
    step = at_rated(trial, volt)
    if step is None:
        return found
    found += _lines(step, settings)
    if way.way == "cap":
        return [*found, *_universal(step, job)]
    if trial.begun.load == "none":
        found += _level(step, job, settings)
        found += _speed(step, job, settings)
        found += _power(step, job)
    return found


def worst(told: Sequence[Told]) -> Verdict:
    """Return the worst verdict of several."""
    order: tuple[Verdict, ...] = ("hold", "watch", "good")
    return next((v for v in order if any(t.verdict == v for t in told)), "good")


def _mean(values: Sequence[float]) -> float:
    return sum(values) / len(values)


def _starts(trial: Trial, settings: Settings) -> Iterator[Told]:
    for start in trial.starts:
        if start.outcome in ("stalled", "tripped"):
            yield Told(
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
            yield Told(
                code="trial-start",
                verdict=verdict,
                subject="Start device let go" if verdict == "good" else "Start device late",
                why=f"Out after {start.seconds:g} s." + ("" if verdict == "good" else f" {late}"),
                figure=start.seconds,
                limit=hold.value if verdict == "hold" else watch.value,
                unit="s",
                source=watch.source,
            )


def _heard(trial: Trial) -> Iterator[Told]:
    if trial.of("smoke"):
        yield Told(
            code="trial-smoke",
            verdict="hold",
            subject="Smoke seen",
            why=f"{trial.of('smoke')}. Off, and open it.",
        )
    spark = trial.of("spark").lower()
    if spark and not any(w in spark for w in ("none", "light", "even")):
        yield Told(
            code="trial-spark",
            verdict="hold",
            subject="Brushes spark",
            why=f"{trial.of('spark')}. Short brush, high bar, weak spring or a fault in the armature.",
        )


def _lines(step: TrialStep, settings: Settings) -> Iterator[Told]:
    """Yield a dead line, amps apart beyond what the volts explain; a lost phase is told as such."""
    if len(step.amp) < 3:
        return
    mean = _mean(step.amp)
    dead = [f"L{k + 1}" for k, a in enumerate(step.amp) if a < DEAD * mean]
    if dead or mean <= 0:
        yield Told(
            code="trial-lines",
            verdict="hold",
            subject=f"No amps in {' and '.join(dead) or 'any line'}",
            why="A lost phase though it runs: it would not start again. Stop, read upstream of the open point.",
        )
        return
    apart = max(abs(a - mean) for a in step.amp) / mean
    volts = (
        max(abs(v - _mean(step.volt)) for v in step.volt) / _mean(step.volt)
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
            f"{show_percent(apart)} apart at volts {show_percent(volts)} apart. One high and slip: an exchanged or "
            "turned coil, shorted turns; one low: a joint with ohms. Exchange lines: what goes along is the supply's."
        )
    yield Told(
        code="trial-lines",
        verdict=verdict,
        subject="Line amps equal" if verdict == "good" else "Line amps apart",
        why=why,
        figure=round(100 * apart, 1),
        limit=settings.amps_apart.value,
        unit="%",
        source=settings.amps_apart.source,
    )


def _level(step: TrialStep, job: Job, settings: Settings) -> Iterator[Told]:
    supply = job.supply
    rating = job.plate.at(supply.volt, supply.hertz) if supply else None
    plate = (rating.amp if rating else None) or (
        max(job.plate.amps, default=None) if len(job.plate.volts) < 2 else None
    )
    if not plate or supply is None:
        return
    amp = _mean(step.amp)
    three = supply.phases == 3
    low, high = (
        (settings.idle_from, settings.idle_to)
        if three
        else (settings.idle_one_from, settings.idle_one_to)
    )
    share = 100 * amp / plate
    small = (job.plate.power_w or SMALL_W) < SMALL_W or not three
    if share > 100:
        verdict: Verdict = "watch" if small and share <= 110 else "hold"
        why = (
            "Over plate amps without load. All lines high at low speed: wrong voltage's joints, a stiff shaft, "
            "shorted turns; at full speed: too many volts, too wide a gap, turns too few."
        )
    elif share > high.value:
        verdict = "good" if small else "watch"
        why = (
            "Small motors idle near plate amps."
            if small
            else "High for no load: volts, air gap, turns; many poles draw more."
        )
    elif share < low.value:
        verdict = "watch"
        why = "Low for no load: joined for higher volts, half the winding open, or the plate is another's."
    else:
        verdict, why = "good", "Usual for no load."
    yield Told(
        code="trial-amps",
        verdict=verdict,
        subject="No-load amps right" if verdict == "good" else "No-load amps odd",
        why=f"{amp:.3g} A, {share:.0f} % of plate. {why}",
        figure=round(share, 1),
        limit=100.0 if share > 100 else high.value if share > low.value else low.value,
        unit="%",
        source=high.source,
    )


def _speed(step: TrialStep, job: Job, settings: Settings) -> Iterator[Told]:
    supply, plate = job.supply, job.plate
    if step.rpm is None or supply is None or not (plate.rpm or plate.poles):
        return
    rated = plate.hertz_at(supply.hertz)
    poles = plate.poles or poles_of(rated, plate.rpm or 1.0)
    sync = 120.0 * supply.hertz / poles
    slip = 100 * (sync - step.rpm) / sync
    limit = settings.idle_slip if supply.phases == 3 else settings.idle_slip_one
    drags = "Drag, low volts, a wrong tap, broken bars or a lost phase."
    under = plate.rpm is not None and step.rpm <= plate.rpm * supply.hertz / rated
    if slip < -0.2:
        verdict: Verdict = "watch"
        why = f"Above {sync:.0f} rpm: the tachometer, the poles or the hertz are not what was said."
    elif under:
        verdict, why = "hold", f"At or under the plate's speed without load. {drags}"
    elif slip > limit.value:
        verdict, why = "watch", f"More slip than a free motor has. {drags}"
    else:
        verdict, why = "good", f"{slip:.2g} % below {sync:.0f} rpm."
    yield Told(
        code="trial-speed",
        verdict=verdict,
        subject="No-load speed right" if verdict == "good" else "No-load speed odd",
        why=f"{step.rpm:.0f} rpm. {why}",
        figure=round(slip, 2),
        limit=limit.value,
        unit="%",
        source=limit.source,
    )


def _power(step: TrialStep, job: Job) -> Iterator[Told]:
    supply = job.supply
    if step.watt is None or supply is None or _mean(step.amp) <= 0:
        return
    va = volt_amperes(_mean(step.volt), _mean(step.amp), supply.phases)
    factor = step.watt / va
    if factor > 1.02:
        yield Told(
            code="trial-power",
            verdict="watch",
            subject="Watts above volt-amperes",
            why=f"{step.watt:g} W at {va:.0f} VA: a clamp the wrong way, a factor of the meter, or one phase read.",
        )
        return
    high = factor > IDLE_PF[1]
    why = (
        "High for no load: a rub, a stiff bearing, a fan, or iron that was overheated."
        if high
        else "Usual for no load; its trend says more than the figure."
    )
    yield Told(
        code="trial-power",
        verdict="watch" if high else "good",
        subject="No-load watts high" if high else "No-load watts noted",
        why=f"{step.watt:g} W, {va:.0f} VA, power factor {factor:.2f}. {why}",
        figure=round(factor, 2),
        limit=IDLE_PF[1],
    )


def _universal(step: TrialStep, job: Job) -> Iterator[Told]:
    most = most_rpm(job)
    if step.rpm is not None and step.rpm > most:
        yield Told(
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
        yield Told(
            code="trial-speed",
            verdict="good" if step.rpm is not None else "watch",
            subject="Runs at the cap",
            why=f"{_mean(step.volt):g} V, {speed}. Light even sparking only, both ways if it reverses.",
        )


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


def compared(before: Trial, after: Trial, volt: float) -> list[Pair]:
    """Return the figures of two sheets side by side at rated volts."""
    one, two = at_rated(before, volt), at_rated(after, volt)
    rows: list[tuple[str, float | None, float | None, str]] = []
    if one is not None and two is not None:
        rows += [
            ("amp", _mean(one.amp), _mean(two.amp), "A"),
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
    word = text.replace("V", " ").split()
    try:
        return float(word[0].replace(",", ".")) if word else None
    except ValueError:
        return None
