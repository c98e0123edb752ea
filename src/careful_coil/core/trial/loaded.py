"""What a run under load and a locked rotor say: amps by the load, power factor by kind, the code letter."""

import math
from collections.abc import Iterator

from careful_coil.core.connect.dress import amps_at
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.job.trials import Trial
from careful_coil.core.machine.power import CODE_LETTERS, volt_amperes
from careful_coil.core.trial.told import Verdict, full_load_amps, mean, sync_of, told
from careful_coil.core.units import HORSEPOWER_W
from careful_coil.core.values import show_figure, show_percent

HP = float(HORSEPOWER_W)
THREE_PF = (0.8, 0.9)  # power factor at full load, trade practice
FULL_PF = {
    "split-phase": (0.55, 0.75),
    "capacitor-start": (0.55, 0.75),
    "permanent-capacitor": (0.9, 0.98),
    "capacitor-start-run": (0.9, 0.98),
    "shaded-pole": (0.4, 0.6),
}
PF_SLACK = 0.08  # beyond that band before it is a departure
NEARLY_FULL = 0.75  # of full load: below it the power factor is judged by its trend only
METER_ERROR = 0.03  # of 1: what a clamp meter leaves open
OVER = 1.15  # times what the load asks for: more is the motor's own
LETTERS_OFF = 1  # a letter beside the plate's is still the plate's: low volts do not saturate
USUAL_LOCKED = (3.5, 8.5)  # times plate amps: usual of the code letters in use
SWING = 0.05  # of the mean: amps at the same volts as the locked rotor is turned
SWING_STEPS = 4
ALIKE_VOLT = 0.03


def loaded(step: TrialStep, job: Job, kind: str) -> Iterator[Finding]:
    """Yield what a step under load says of a motor of a kind: amps for its load, power factor, efficiency."""
    supply = job.supply
    if supply is None:
        return
    share = load_share(step, job)
    known = full_load_amps(job)
    if known is not None:
        yield _amps(max(step.amp) / known[0], share, job.plate.service_factor or 1.0, step)
    if step.watt is None or mean(step.amp) <= 0:
        return
    factor = step.watt / volt_amperes(mean(step.volt), mean(step.amp), supply.phases)
    usual = THREE_PF if supply.phases == 3 else FULL_PF.get(kind)
    if usual is not None:
        yield _factor(factor, share, usual, step)
    out = shaft_watt(step)
    if out is not None and step.watt > 0:
        yield _efficiency(out, step.watt)


def shaft_watt(step: TrialStep) -> float | None:
    """Return W at the shaft: torque times speed; None where the brake was not read."""
    if step.newton_metre is None or step.rpm is None:
        return None
    return step.newton_metre * step.rpm * 2 * math.pi / 60


def load_share(step: TrialStep, job: Job) -> float | None:
    """Return the load of 1: by the brake, else by the slip over the plate's; None where neither is read."""
    out = shaft_watt(step)
    if out is not None and job.plate.output_w:
        return out / job.plate.output_w
    supply, rated, sync = job.supply, job.plate.rpm, sync_of(job)
    if step.rpm is None or rated is None or supply is None or sync is None:
        return None
    at_rated = 1 - rated * supply.hertz / job.plate.hertz_at(supply.hertz) / sync
    return max(1 - step.rpm / sync, 0.0) / at_rated if at_rated > 0 else None


def _amps(amps: float, share: float | None, factor: float, step: TrialStep) -> Finding:
    carries = f"at {show_percent(share)} load" if share is not None else "load not read"
    asked = max(min(share if share is not None else 1.0, factor), 0.5)
    verdict: Verdict = "good"
    why = "As the plate says."
    odd = "low volts, shorted turns, wrong joints, or the load is more than read"
    if amps > factor * (1 + METER_ERROR):
        verdict, why = "hold", f"More than plate amps times service factor allow: {odd}."
    elif amps > OVER * asked and amps > factor:
        verdict, why = "watch", f"More than its load asks for: {odd}."
    return told(
        code="trial-load",
        verdict=verdict,
        subject="Loaded amps right" if verdict == "good" else "Loaded amps high",
        why=f"{show_figure(max(step.amp))} A, {show_percent(amps)} of full load, {carries}. {why}",
        figure=round(100 * amps, 1),
        limit=round(100 * factor, 1),
        unit="%",
        source="plate amps times service factor",
    )


def _factor(
    factor: float, share: float | None, usual: tuple[float, float], step: TrialStep
) -> Finding:
    low, high = usual
    full = share is not None and share >= NEARLY_FULL
    verdict: Verdict = "good"
    why = f"Usual at full load {low:g} to {high:g}."
    if factor > 1.02:
        verdict, why = (
            "watch",
            "Above 1: a clamp the wrong way, a factor of the meter, one phase read.",
        )
    elif full and not low - PF_SLACK <= factor <= high + PF_SLACK:
        verdict = "watch"
        why += (
            " Lower: a wide air gap, too many volts, a tired run capacitor. Higher: too few volts, or watts "
            "lost in a rub."
        )
    elif not full:
        why = "Under part of the load it is lower; its trend says more than the figure."
    return told(
        code="trial-load-pf",
        verdict=verdict,
        subject="Power factor under load" if verdict == "good" else "Power factor odd",
        why=f"{step.watt:g} W, power factor {factor:.2f}. {why}",
        figure=round(factor, 3),
        limit=low,
        source="usual by kind",
    )


def _efficiency(out: float, watt: float) -> Finding:
    found = out / watt
    bad = found > 1
    why = "More out than in: read brake and watts again." if bad else "Losses leave as heat."
    return told(
        code="trial-efficiency",
        verdict="watch" if bad else "good",
        subject="Efficiency cannot be" if bad else "Efficiency",
        why=f"{out:.0f} W at the shaft of {watt:.0f} W: {show_percent(found)}. {why}",
        figure=round(100 * found, 1),
        unit="%",
    )


def locked(trial: Trial, job: Job) -> Iterator[Finding]:
    """Yield what a locked rotor says: its amps at full volts by the code letter; amps as it is turned."""
    if not trial.steps or job.supply is None:
        return
    yield from _letter(trial.steps[-1], job)
    yield from _bars(trial)


def _letter(step: TrialStep, job: Job) -> Iterator[Finding]:
    supply, plate = job.supply, job.plate
    if supply is None or mean(step.volt) <= 0:
        return
    amp = mean(step.amp) * supply.volt / mean(step.volt)
    low = "Measured low it reads a little low: iron that does not saturate."
    if plate.code and plate.output_w:
        kva = volt_amperes(supply.volt, amp, supply.phases) / 1000 / (plate.output_w / HP)
        letters = list(CODE_LETTERS)
        found = next(x for x in letters if kva < CODE_LETTERS[x])
        off = letters.index(found) - letters.index(plate.code)
        verdict: Verdict = "good" if abs(off) <= LETTERS_OFF else "watch"
        why = f"{show_figure(amp)} A at {supply.volt:g} V: {kva:.1f} kVA a hp, letter {found}, plate {plate.code}."
        far = off
        source = "NEMA MG 1, 10.37.2"
    else:
        rated = amps_at(job, supply)
        if not rated:
            return
        times = amp / rated
        far = (
            0
            if USUAL_LOCKED[0] <= times <= USUAL_LOCKED[1]
            else 1
            if times > USUAL_LOCKED[1]
            else -1
        )
        verdict = "good" if not far else "watch"
        why = f"{show_figure(amp)} A at {supply.volt:g} V, {times:.1f} times plate."
        source = "usual of the code letters in use"
    more = {
        "good": low,
        "watch": "Joined for lower volts, shorted turns, too few turns."
        if far > 0
        else "Open bars, joined for higher volts, a joint with ohms. " + low,
    }
    yield told(
        code="trial-locked",
        verdict=verdict,
        subject="Locked amps right" if verdict == "good" else "Locked amps odd",
        why=f"{why} {more[verdict]}",
        figure=round(amp, 2),
        unit="A",
        source=source,
    )


def _bars(trial: Trial) -> Iterator[Finding]:
    """Yield whether amps of a line swing as the locked rotor is turned by hand at the same volts.

    Each line by itself: broken bars pass one phase after the other, and the mean of three stays even.
    """
    volt = mean(trial.steps[-1].volt)
    alike = [s for s in trial.steps if abs(mean(s.volt) - volt) <= ALIKE_VOLT * volt]
    if len(alike) < SWING_STEPS:
        return
    lines = list(zip(*(s.amp for s in alike if len(s.amp) == len(alike[0].amp)), strict=True))
    swings = [(max(amps) - min(amps)) / max(mean(amps), 1e-9) for amps in lines]
    swing = max(swings)
    worst = f"line {swings.index(swing) + 1}" if len(lines) > 1 else "the line"
    verdict: Verdict = "watch" if swing > SWING else "good"
    yield told(
        code="trial-bars",
        verdict=verdict,
        subject="Rotor bars" if verdict == "good" else "Amps swing as the rotor is turned",
        why=f"{show_percent(swing)} in {worst} over {len(alike)} places. "
        + ("Even." if verdict == "good" else "Broken or loose bars; see the rotor's end rings."),
        figure=round(100 * swing, 1),
        limit=100 * SWING,
        unit="%",
        source="trade practice, single-phase rotor test",
    )
