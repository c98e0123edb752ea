"""What a run without load says of amps, speed and watts at rated volts."""

import math
import re
from collections.abc import Iterator

from careful_coil.core.job import Finding, Job
from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.machine.power import volt_amperes
from careful_coil.core.settings import Limit, Settings
from careful_coil.core.trial.told import Verdict, full_load_amps, mean, step_speed_of, sync_of, told
from careful_coil.core.values import show_figure

SMALL_W = 750.0  # below it three-phase motors may idle near plate amps
SMALL_OVER = 110.0  # % of plate: a small motor's idle amps up to so much are watched, not held
GENTLE_OVER = 130.0  # % of plate: of kinds that idle near it, and of fans off their fan
FAR_LOW = 0.6  # of the lower end: so few amps are those of another connection
MOST_IDLE = 95.0  # %: whatever the poles
MIDDLE_W = 5000.0  # a size where the plate does not say
# what multiplies the usual band: poles up to, watts below
BY_POLES = ((2, 0.85), (4, 1.0), (6, 1.2), (8, 1.35), (math.inf, 1.5))
BY_SIZE = ((370.0, 1.5), (1100.0, 1.35), (4000.0, 1.2), (22000.0, 1.0), (math.inf, 0.9))
IDLE_HIGH = ("shaded-pole", "permanent-capacitor")  # kinds that may idle near plate amps
FAN = re.compile(r"\b(fans?|blowers?|ventilators?)\b", re.IGNORECASE)  # run without its air
RUN_CAPACITOR = ("permanent-capacitor", "capacitor-start-run")
COMPENSATED = (
    0.3  # of idle amps, where a run capacitor carries the magnetizing current (trade practice)
)
IDLE_PF = (0.05, 0.5)  # power factor without load: judged by its trend first


def idle(
    step: TrialStep,
    job: Job,
    settings: Settings,
    kind: str = "",
    lower: bool = False,
    anew: bool = False,
) -> Iterator[Finding]:
    """Yield what a step without load says of a `kind`; at a `lower` speed of several the plate's says nothing.

    `anew`: its joints were a guess that these amps refute, and are made anew first.
    """
    yield from _level(step, job, settings, kind, lower, anew)
    if not lower:
        yield from _speed(step, job, settings)
    yield from _power(step, job, kind)


def _fan(job: Job) -> bool:
    """Whether its name says that it drives a fan: off its fan it has neither load nor air."""
    return bool(FAN.search(job.ticket.get("name", "")))


def idle_band(job: Job, settings: Settings) -> tuple[float, float]:
    """Return the idle amps usual of a motor's size and poles, in % of full load.

    The shop's band is that of an ordinary four-pole motor of some kilowatts. Source: shop practice; the
    magnetizing share grows with the poles and falls with the size.
    """
    if job.supply is not None and job.supply.phases == 1:
        return settings.idle_one_from.value, settings.idle_one_to.value
    low, high = settings.idle_from.value, settings.idle_to.value
    sync = sync_of(job)
    poles = round(120 * job.supply.hertz / sync) if job.supply is not None and sync else 4
    power = job.plate.power_w or MIDDLE_W
    factor = next(f for n, f in BY_POLES if poles <= n) * next(f for w, f in BY_SIZE if power < w)
    return low * min(factor, 1.0), min(high * factor, MOST_IDLE)


def _level(
    step: TrialStep, job: Job, settings: Settings, kind: str, lower: bool, anew: bool
) -> Iterator[Finding]:
    supply = job.supply
    known = full_load_amps(job)
    if known is None or supply is None:
        return
    plate, source = known
    amp = mean(step.amp)
    three = supply.phases == 3
    low, high = idle_band(job, settings)
    if kind in RUN_CAPACITOR:
        low *= COMPENSATED
    share = 100 * amp / plate
    guessed = source != "plate"
    small = (job.plate.power_w or SMALL_W) < SMALL_W or not three
    limit = 100.0 if share > 100 else high if share > low else low
    if share > 100:
        gentle = kind in IDLE_HIGH or _fan(job)
        over = share <= GENTLE_OVER if gentle or guessed else small and share <= SMALL_OVER
        verdict: Verdict = "watch" if over else "hold"
        why = (
            "Over full-load amps without load. All lines high at low speed: wrong voltage's joints, a stiff "
            "shaft, shorted turns; at full speed: too many volts, too wide a gap, turns too few."
        )
    elif share > high:
        verdict = "good" if small else "watch"
        why = (
            "Small motors idle near plate amps."
            if small
            else "High for no load: volts, air gap, turns; many poles draw more."
        )
    elif share < low and lower:
        verdict, why = "good", "A lower speed draws less than the plate's."
    elif share < low:
        far = three and not guessed and share < low * FAR_LOW
        verdict = "unproven" if far and anew else "hold" if far else "watch"
        why = "Low for no load: joined for higher volts, half the winding open, or the plate is another's."
    else:
        verdict, why = "good", "Usual for no load."
    of = "plate" if not guessed else f"{show_figure(plate)} A, {source}"
    yield told(
        code="trial-amps",
        verdict=verdict,
        subject="No-load amps right" if verdict == "good" else "No-load amps odd",
        why=f"{show_figure(amp)} A, {share:.0f} % of {of}. {why}",
        figure=round(share, 1),
        limit=round(limit, 1),
        unit="%",
        source=settings.idle_to.source if three else settings.idle_one_to.source,
    )


IN_STEP = 0.2  # % that a tachometer may be off


def _in_step(rpm: float, wanted: float, limit: Limit) -> Finding:
    """Return how a motor runs whose plate gives a synchronous speed: in step, or with the slip of an induction motor.

    Plates of induction motors give the field's speed at times: slip alone does not hold it.
    """
    slip = 100 * (wanted - rpm) / wanted
    right, slips = abs(slip) <= IN_STEP, 0 < slip <= limit.value
    verdict: Verdict = "good" if right or slips else "watch"
    words = "Not in step: load, low volts, its rotor; or an induction motor that drags."
    if right:
        words = "No slip."
    elif slips:
        words = "It slips as an induction motor: a synchronous or reluctance motor would run at the plate's speed."
    return told(
        code="trial-speed",
        verdict=verdict,
        subject="Runs in step" if right else "Not at the plate's synchronous speed",
        why=f"{rpm:.0f} rpm, {wanted:.0f} by the plate. {words}",
        figure=round(slip, 2),
        limit=IN_STEP,
        unit="%",
        source="a synchronous speed on the plate: 120·f/p",
    )


def _speed(step: TrialStep, job: Job, settings: Settings) -> Iterator[Finding]:
    supply, plate = job.supply, job.plate
    in_step = step_speed_of(job)
    if in_step is not None and step.rpm is not None:
        limit = settings.idle_slip if supply and supply.phases == 3 else settings.idle_slip_one
        yield _in_step(step.rpm, in_step, limit)
        return
    sync = sync_of(job)
    if step.rpm is None or supply is None or sync is None:
        return
    rated = plate.hertz_at(supply.hertz)
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
        verdict, why = "good", f"{show_figure(slip, 2)} % below {sync:.0f} rpm."
    yield told(
        code="trial-speed",
        verdict=verdict,
        subject="No-load speed right" if verdict == "good" else "No-load speed odd",
        why=f"{step.rpm:.0f} rpm. {why}",
        figure=round(slip, 2),
        limit=limit.value,
        unit="%",
        source=limit.source,
    )


def _power(step: TrialStep, job: Job, kind: str) -> Iterator[Finding]:
    supply = job.supply
    if step.watt is None or supply is None or mean(step.amp) <= 0:
        return
    va = volt_amperes(mean(step.volt), mean(step.amp), supply.phases)
    factor = step.watt / va
    if factor > 1.02:
        yield told(
            code="trial-power",
            verdict="watch",
            subject="Watts above volt-amperes",
            why=f"{step.watt:g} W at {va:.0f} VA: a clamp the wrong way, a factor of the meter, or one phase read.",
        )
        return
    high = factor > IDLE_PF[1] and kind not in RUN_CAPACITOR
    why = (
        "High for no load: a rub, a stiff bearing, a fan, or iron that was overheated."
        if high
        else "Usual for no load; its trend says more than the figure."
    )
    yield told(
        code="trial-power",
        verdict="watch" if high else "good",
        subject="No-load watts high" if high else "No-load watts noted",
        why=f"{step.watt:g} W, {va:.0f} VA, power factor {factor:.2f}. {why}",
        figure=round(factor, 2),
        limit=IDLE_PF[1],
    )
