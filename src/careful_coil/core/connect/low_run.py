"""The run at a quarter of the volts: what it must show, what it showed, which slip that fits.

Ohms cannot see an equal coil turned round or exchanged; three line amps at low volts can. Amps are
held against each other, not against a figure: the machine's own impedance is not known before.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

from careful_coil.core.connect.hookup import Hookup, answer, start_and_run
from careful_coil.core.connect.slips import RUN_SHARE, Likely, likely_slips
from careful_coil.core.job.at_connect import LowRun, Turning
from careful_coil.core.values import show_percent
from careful_coil.core.ways.way import Plan
from careful_coil.core.winding.single_phase import START_COILS
from careful_coil.core.winding.steady import lead_amps

NO_LOAD = (0.25, 0.60)  # of plate amps at rated volts, three-phase: usual no-load amps
ONE_PHASE_NO_LOAD = (0.50, 0.90)
WIDE = 1.6  # how much further out low volts may take them: friction weighs more
STALLED = 8.0  # times plate amps a motor at standstill takes at rated volts, at most
LEAST_FIT = 0.25  # of a logarithm: amps further from a slip's pattern do not fit it
ALIKE = 0.12
Verdict = Literal["good", "watch", "hold", "unproven"]


@dataclass(frozen=True, slots=True, kw_only=True)
class LowRunExpected:
    """What a low run must show: V to use, the lines, a band of A for each (None: plate amps unknown).

    `seconds` how long it may stay on at most, None: as long as it is watched.
    """

    volt: float
    lines: tuple[str, ...]
    amp: tuple[float, float] | None
    seconds: float | None
    words: str


@dataclass(frozen=True, slots=True, kw_only=True)
class LowRunJudged:
    """Verdict and words on a low run; `apart` of 1 from the mean; `fits` slips whose pattern it has."""

    verdict: Verdict
    words: str
    apart: float
    fits: tuple[Likely, ...] = ()


def expected_run(hookup: Hookup, plan: Plan, amp: float | None) -> LowRunExpected:
    """Return what a quarter of the volts must show; `amp` the plate's A at full volts.

    Motors with a start device that takes a winding out are looked at for seconds only, never ramped.
    """
    volt = RUN_SHARE * hookup.supply.volt
    short = is_look(plan)
    lines = plan.lines() if hookup.supply.phases == 3 else ("L1",)
    usual = NO_LOAD if hookup.supply.phases == 3 else ONE_PHASE_NO_LOAD
    band = (amp * RUN_SHARE * usual[0] / WIDE, amp * RUN_SHARE * usual[1] * WIDE) if amp else None
    if short:
        if amp:  # it need not turn: what it takes at standstill, up to
            band = (amp * RUN_SHARE * usual[0] / WIDE, amp * RUN_SHARE * STALLED)
        words = (
            "A look of 5 s at most, never a ramp: the start circuit stays in at low volts and a relay "
            "misbehaves. It may only hum; then one watched direct start decides."
        )
    elif hookup.commutator:
        words = "Unloaded it must run at these volts only: rpm is the first thing to watch."
    elif hookup.supply.phases == 3:
        words = "Three equal amps and a smooth run, free shaft. One line apart by more than a tenth is a wrong joint."
    else:
        words = "It must start and run smoothly, free shaft, without growing hot."
    return LowRunExpected(
        volt=volt, lines=lines, amp=band, seconds=5.0 if short else None, words=words
    )


def judged_run(
    run: LowRun, hookup: Hookup, plan: Plan, amp: float | None, apart_percent: float
) -> LowRunJudged:
    """Return what a low run says of the joints.

    `amp` plate A at the supply's volts; `apart_percent` how far amps may lie from their mean.
    """
    lacks = run_lacks(run, hookup)
    if lacks:
        return LowRunJudged(verdict="unproven", words=lacks, apart=0.0)
    mean = sum(run.amp) / len(run.amp)
    look = is_look(plan)
    apart = max(abs(a - mean) for a in run.amp) / mean if mean > 0 else 1.0
    three = hookup.supply.phases == 3 and len(run.amp) == 3
    fits = fitting_slips(run.amp, run.turns, hookup, plan) if three and mean > 0 else ()
    causes = " ".join(f.title for f in fits[:3])
    if mean <= 0 or min(run.amp) < 0.05 * mean:
        dead = [f"L{k + 1}" for k, a in enumerate(run.amp) if a < 0.05 * max(mean, 1e-9)]
        words = (
            f"No amps in {' and '.join(dead) or 'the lines'}: an open joint or a dead line. Volts would not "
            f"tell: a turning motor makes them. {f'It fits: {causes}' if causes else ''}"
        ).strip()
        return LowRunJudged(verdict="hold", words=words, apart=apart, fits=fits)
    quarter = RUN_SHARE * hookup.supply.volt
    if run.volt > 1.3 * quarter:
        words = (
            f"{run.volt:g} V is more than a quarter: a wrong joint would cook at it. "
            f"Take it at {quarter:.0f} V."
        )
        return LowRunJudged(verdict="watch", words=words, apart=apart)
    odd = three and apart > apart_percent / 100
    if odd or run.turns == "rough" or (run.turns == "none" and not look):
        what = (
            f"Amps {show_percent(apart)} from their mean"
            if odd
            else f"It turns {run.turns}".replace(" none", " not at all")
        )
        told = (
            f" It fits: {causes}"
            if causes
            else " No single slip fits: look at every joint, and at the shaft."
        )
        return LowRunJudged(verdict="hold", words=f"{what}.{told}", apart=apart, fits=fits)
    level = _level(mean, run.volt, hookup, amp, run.turns)
    if level:
        return LowRunJudged(verdict="watch", words=level, apart=apart)
    much = f"amps within {show_percent(apart)} of their mean, " if three else ""
    how = "it hums; the timed start decides" if run.turns == "none" else "smooth"
    return LowRunJudged(verdict="good", words=f"{run.volt:g} V, {much}{how}.", apart=apart)


def run_lacks(run: LowRun, hookup: Hookup) -> str:
    """Return what a low run does not say: all lines' amps, how it turned; empty where it is whole."""
    if hookup.supply.phases == 3 and len(run.amp) < 3:
        return "Amps of one line say nothing of the other two: read all three."
    return "" if run.turns else "How did it turn? Smooth, rough, or does not turn."


def is_look(plan: Plan) -> bool:
    """Whether its low run is a look of seconds only: a start device takes a winding out."""
    return any(d.switches or d.kind == "capacitor-start" for d in plan.devices)


def _level(
    mean: float, volt: float, hookup: Hookup, amp: float | None, turns: Turning = "smooth"
) -> str:
    """Return what is odd about equal amps: far above or under what low volts give, empty where nothing."""
    if not amp:
        return ""
    share = volt / hookup.supply.volt
    usual = NO_LOAD if hookup.supply.phases == 3 else ONE_PHASE_NO_LOAD
    if turns == "none":  # it stands: amps are those of standstill
        return (
            "More than it would take at standstill: joined for lower volts, or shorted turns."
            if mean > amp * share * STALLED
            else ""
        )
    if mean > amp * share * STALLED:
        return "Equal amps, but more than it would take at standstill: joined for lower volts, or shorted turns."
    if mean > 2.2 * amp * share * usual[1] * WIDE:
        return (
            "Equal amps, but several times what it should idle at: stiff shaft, or joined for lower volts. "
            "Compare the line ohms once more."
        )
    if mean < amp * share * usual[0] / (2.2 * WIDE):
        return "Equal amps, but far too few: joined for higher volts, or half the winding open."
    return ""


def fitting_slips(
    amps: Sequence[float], turns: Turning, hookup: Hookup, plan: Plan
) -> tuple[Likely, ...]:
    """Return the slips whose pattern of amps is the one read, the nearest first, alike ones together."""
    found: list[tuple[float, int, Likely]] = []
    for likely, still, running in _patterns(replace(hookup, coil_ohm=1.0), plan):
        shown = [still] if turns == "none" else [still, running]
        off = min(_off(amps, pattern) for pattern in shown)
        if off < LEAST_FIT:
            found.append((off, len(found), likely))
    found.sort(key=lambda t: t[:2])
    best = found[0][0] if found else 0.0
    return tuple(likely for off, _, likely in found if off <= best + ALIKE)


@lru_cache(maxsize=16)
def _patterns(
    hookup: Hookup, plan: Plan
) -> tuple[tuple[Likely, tuple[float, ...], tuple[float, ...]], ...]:
    """Return every slip with its line amps at standstill and running, for coils that are alike."""
    found = []
    for likely in likely_slips(hookup, plan):
        if likely.short or likely.slip is None:
            continue
        wrong = replace(hookup, joints=likely.slip.done_to(plan.joints))
        answers = start_and_run(wrong, plan.field)
        still, running = (tuple(a.line_amp[n] for n in plan.lines()) for a in answers)
        found.append((likely, still, running))
    return tuple(found)


def _off(amps: Sequence[float], pattern: Sequence[float]) -> float:
    """Return how far amps are from a pattern, whatever the scale (root of the mean square, of a logarithm)."""
    if len(amps) != len(pattern) or max(pattern) <= 0:
        return math.inf
    floor = 0.03
    one = [math.log(max(a / max(amps), floor)) for a in amps]
    two = [math.log(max(p / max(pattern), floor)) for p in pattern]
    shift = sum(a - b for a, b in zip(one, two, strict=True)) / len(one)
    return math.sqrt(sum((a - b - shift) ** 2 for a, b in zip(one, two, strict=True)) / len(one))


def parallel_leads(plan: Plan) -> tuple[tuple[str, ...], ...]:
    """Return the leads of like coils that share a line: each is clamped by itself.

    Main and start winding on one line are no parallel leads: they never share alike.
    """
    lines = plan.lines()
    like = {n: c.like for c in plan.network().coils for n in (c.start, c.finish)}
    found: list[tuple[str, ...]] = []
    for joint in plan.joints:
        if set(joint) & set(lines):
            leads = [n for n in joint if n not in lines and "." not in n]
            for kind in dict.fromkeys(like.get(n, "") for n in leads):
                if kind in START_COILS:  # they carry nothing once it turns
                    continue
                found.append(tuple(n for n in leads if like.get(n, "") == kind))
    return tuple(g for g in found if len(g) > 1)


def unclamped(plan: Plan, clamps: Mapping[str, float]) -> tuple[str, ...]:
    """Return the parallel leads that were not clamped yet."""
    return tuple(n for group in parallel_leads(plan) for n in group if n not in clamps)


def lead_shares(hookup: Hookup, plan: Plan) -> dict[str, float]:
    """Return A in each lead of the right hookup at standstill: a corner of a delta carries two coils'."""
    found = answer(hookup.of_plan(plan), "start", 1.0, plan.field)
    return lead_amps(found.network, found.coil_amp)


def clamps_judged(
    clamps: Mapping[str, float], hookup: Hookup, plan: Plan, apart_percent: float
) -> list[tuple[tuple[str, ...], Verdict, str]]:
    """Return for each set of parallel leads that was clamped its verdict and words.

    Held against the network's own split, so that a corner lead may carry more than its neighbours.
    """
    found: list[tuple[tuple[str, ...], Verdict, str]] = []
    groups = [g for g in parallel_leads(plan) if all(n in clamps for n in g)]
    shares = lead_shares(hookup, plan) if groups else {}
    for group in groups:
        least = max(clamps[n] for n in group) * 0.05
        dead = [n for n in group if clamps[n] <= least]
        read = {n: clamps[n] / shares[n] for n in group if shares.get(n, 0.0) > 0}
        mean = sum(read.values()) / len(read) if read else 0.0
        apart = max((abs(a - mean) / mean for a in read.values()), default=0.0) if mean > 0 else 1.0
        names = " and ".join(group)
        if dead or mean <= 0:
            what = " and ".join(dead) or names
            words = f"Nothing in {what}: an open half or a missing star that the line's amps hide."
            found.append((group, "hold", words))
        elif apart > apart_percent / 100:
            words = f"{names} share {show_percent(apart)} off what they must: a joint with ohms, or a wrong half."
            found.append((group, "hold", words))
        else:
            found.append(
                (group, "good", f"{names} share as they must, within {show_percent(apart)}.")
            )
    return found
