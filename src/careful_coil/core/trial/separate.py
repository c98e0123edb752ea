"""Losses at no load taken apart: what does not change with volts is friction, the rest beside copper is iron.

Watts less the stator's copper, over the square of the volts, lie on a line while the iron is not
saturated; where it meets no volts stand friction and windage.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.job.trials import Trial

LEAST_STEPS = 4
SPREAD = 1.6  # the largest volts over the least must be at least this
LEAST_WATT = 1e-6
ONE_SIGMA = 0.8413  # of Student's t: few steps know their own scatter badly


@dataclass(frozen=True, slots=True, kw_only=True)
class NoLoad:
    """One step without load: V between lines, A (mean of lines), W, slip of 1."""

    volt: float
    amp: float
    watt: float
    slip: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Losses:
    """W at rated volts: copper, iron, and friction with windage, each with the error two of three keep to.

    `points` V² and W less copper of each step used, `line` watts at no volts and W per V².
    """

    copper: float
    iron: float
    friction: float
    iron_error: float
    friction_error: float
    points: tuple[tuple[float, float], ...]
    line: tuple[float, float]


def no_load_steps(trial: Trial, sync: float | None = None) -> list[NoLoad]:
    """Return the steps of a sheet that can be taken apart: without load, with watts, turning smoothly.

    `sync` rpm, for the slip of steps whose speed was read.
    """
    if trial.begun.load != "none":
        return []
    return [
        NoLoad(
            volt=sum(s.volt) / len(s.volt),
            amp=sum(s.amp) / len(s.amp),
            watt=s.watt,
            slip=_slip(s, sync),
        )
        for s in trial.steps
        if s.watt is not None and s.turns == "smooth"
    ]


def _slip(step: TrialStep, sync: float | None) -> float:
    if step.rpm is None or not sync:
        return 0.0
    return min(max(1 - step.rpm / sync, 0.0), 1.0)


def separated(
    steps: Sequence[NoLoad], line_ohm: float, rated_volt: float, phases: int = 3
) -> Losses:
    """Return the losses at rated volts from steps without load.

    `line_ohm` between two lines, Ω, at the winding's temperature. Copper is 1.5·I²·R_line for three
    phases, I²·R for one; the rotor's is the slip's share of what crosses the gap.
    Raises: ValueOutOfRange for too few steps or volts too close.
    Source: IEEE 112, 5.5: friction and windage by the intercept of input less stator copper over V².
    """
    from scipy.special import stdtrit  # late: it is slow to load

    if len(steps) < LEAST_STEPS:
        raise ValueOutOfRange(
            f"{len(steps)} steps", f"{LEAST_STEPS} steps of volts, amps and watts"
        )
    volts = np.array([s.volt for s in steps])
    if volts.max() < SPREAD * volts.min():
        read = f"{volts.min():g} to {volts.max():g} V"
        raise ValueOutOfRange(read, f"volts that lie {SPREAD:g} to 1 apart or more")
    times = 1.5 if phases == 3 else 1.0
    copper = np.array([times * s.amp**2 * line_ohm for s in steps])
    slip = np.array([s.slip for s in steps])
    rest = (np.array([s.watt for s in steps]) - copper) * (1 - slip)
    square = volts**2
    table = np.column_stack([np.ones_like(square), square])
    weight = 1 / np.array([max(s.watt, LEAST_WATT) for s in steps])  # a meter errs by a share
    found, *_ = np.linalg.lstsq(table * weight[:, None], rest * weight, rcond=None)
    left = (rest - table @ found) * weight
    free = max(len(steps) - 2, 1)
    spread = float(left @ left) / free
    cover = spread * np.linalg.inv((table * weight[:, None]).T @ (table * weight[:, None]))
    wider = float(stdtrit(free, ONE_SIGMA))
    order = np.argsort(volts)
    at = float(np.interp(rated_volt, volts[order], copper[order]))
    return Losses(
        copper=at,
        iron=float(found[1]) * rated_volt**2,
        friction=float(found[0]),
        iron_error=wider * math.sqrt(max(float(cover[1, 1]), 0.0)) * rated_volt**2,
        friction_error=wider * math.sqrt(max(float(cover[0, 0]), 0.0)),
        points=tuple(zip(square.tolist(), rest.tolist(), strict=True)),
        line=(float(found[0]), float(found[1])),
    )


def warm_points(trial: Trial) -> list[tuple[float, float]]:
    """Return minutes and °C of a sheet's steps: minutes as typed, where none is typed as they were logged."""
    read = [
        (s, at) for s, at in zip(trial.steps, trial.step_at, strict=True) if s.celsius is not None
    ]
    if any(s.minute is not None for s, _ in read):
        return [
            (s.minute, s.celsius) for s, _ in read if s.minute is not None and s.celsius is not None
        ]
    if not read:
        return []
    logged = [np.datetime64(at.removesuffix("Z"), "ms") for _, at in read]
    minutes = [float((at - logged[0]) / np.timedelta64(1, "m")) for at in logged]
    return [
        (m, s.celsius) for m, (s, _) in zip(minutes, read, strict=True) if s.celsius is not None
    ]


@dataclass(frozen=True, slots=True, kw_only=True)
class Warming:
    """Temperature over minutes: where it ends in °C and how fast in minutes; `steady` under 1 K in half an hour."""

    end_c: float
    minutes: float
    steady: bool


READ_C = 0.6  # a temperature is written down to a degree
LEAST_SURE = 0.8  # of the rise: where it ends may lie so far apart, among all that fit as well


def warming(points: Sequence[tuple[float, float]]) -> Warming:
    """Return where a temperature will end, from minutes and °C of three points or more, evenly or not.

    θ = θ_end − (θ_end − θ_0)·e^(−t/τ), by least squares over τ. Raises: ValueOutOfRange for too few
    points, or a temperature that does not level off within ten times what was watched.
    Source: one-body heating; IEC 60034-1, 8.4: steady when the change is under 1 K in half an hour.
    """
    if len(points) < 3:
        raise ValueOutOfRange(f"{len(points)} readings", "three temperatures with their minutes")
    t = np.array([p[0] for p in points], dtype=float)
    y = np.array([p[1] for p in points], dtype=float)
    span = float(t.max() - t.min())
    if span <= 0:
        raise ValueOutOfRange("one moment", "temperatures at different minutes")
    tau = np.geomspace(span / 20, span * 10, 160)
    x = np.exp(-(t - t.min()) / tau[:, None])  # a straight line of y on x for every τ at once
    dx, dy = x - x.mean(axis=1, keepdims=True), y - y.mean()
    slope = dx @ dy / (dx**2).sum(axis=1)
    end = y.mean() - slope * x.mean(axis=1)
    off = dy - slope[:, None] * dx
    best = int(np.argmin((off**2).sum(axis=1)))
    if tau[best] >= span * 9.5:
        raise ValueOutOfRange("a temperature still rising straight on", "more minutes")
    fits = np.abs(off).max(axis=1) <= max(READ_C, 1.01 * float(np.abs(off[best]).max()))
    if float(np.ptp(end[fits])) > LEAST_SURE * abs(float(end[best]) - float(y[0])) + 2 * READ_C:
        raise ValueOutOfRange(
            "temperatures that leave the end open", "more of them, over more minutes"
        )
    rate = abs(float(y[-1] - y[-2])) / max(float(t[-1] - t[-2]), 1e-9)
    return Warming(end_c=float(end[best]), minutes=float(tau[best]), steady=rate * 30 < 1.0)
