"""What a run should show: the fitted machine without load, at any volts, with a band for what is assumed."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from careful_coil.core.connect.work import Connecting
from careful_coil.core.errors import CoilError
from careful_coil.core.gear.machine_of import known_motor
from careful_coil.core.identify import Identification, Naming
from careful_coil.core.job import Job
from careful_coil.core.kind import Weighed
from careful_coil.core.machine.estimate import Estimate
from careful_coil.core.machine.facts import Facts, check_facts
from careful_coil.core.machine.motor import Motor
from careful_coil.core.ways.way import Plan

BAND = {"amp": 0.35, "watt": 0.5, "rpm": 0.004}  # of 1: spread of magnetizing and drag nobody gave
KNOWN = 0.4  # of that where the plate or a reading gave them
BREAKAWAY = 1.0  # times the drag at rated speed: what a free shaft needs to begin


@dataclass(frozen=True, slots=True, kw_only=True)
class Expected:
    """At `volt`: A of a line, W, rpm, each low, middle, high."""

    volt: float
    amp: tuple[float, float, float]
    watt: tuple[float, float, float]
    rpm: tuple[float, float, float]


def facts_of(
    job: Job, state: Connecting, kinds: Weighed, found: Identification | None, naming: Naming
) -> tuple[Plan, Facts] | str:
    """Return the plan and what is known of a job's motor as it is joined, or in words what is missing."""
    if state.plan is None or job.supply is None:
        return state.why or "The hookup must be planned first."
    if state.plan.arrangement.startswith("universal"):
        return "A commutator motor is not worked out: watch rpm and sparks."
    if job.supply.phases == 1:
        return known_motor(job, kinds, found, naming)
    rating = job.plate.at(job.supply.volt, job.supply.hertz)
    rpm = (rating.rpm if rating else None) or job.plate.rpm
    if rating is None or rpm is None or not (rating.amp or job.plate.output_w):
        return "The plate's volts, rated speed and amps or power must be known first."
    facts = Facts(
        kind="three-phase",
        volt=rating.volt,
        hertz=rating.hertz or job.supply.hertz,
        rpm=rpm,
        amp=rating.amp,
        watt=job.plate.output_w,
        coil_ohm=state.ohms,
        letter=job.plate.code or "",
    )
    try:
        check_facts(facts)
    except CoilError as error:
        return str(error)
    return state.plan, facts


def no_load(motor: Motor, volt: float) -> tuple[float, float, float] | None:
    """Return A of the fullest line, W and rpm of a motor turning free at `volt`; None: it does not turn."""
    at = replace(motor, volt=volt)
    slip = np.geomspace(2e-4, 1.0, 160)
    found = at.steady(slip)
    spare = at.torque_nm(found) - at.drag_nm(slip)
    runs = np.nonzero(spare >= 0)[0]
    if not len(runs):
        return None
    k = int(
        runs[0]
    )  # the fastest speed the torque still holds; between it and the next they are equal
    share = 0.0 if k == 0 else float(-spare[k - 1] / (spare[k] - spare[k - 1]))

    def between(values: Sequence[float]) -> float:
        low = values[k - 1] if k else values[k]
        return float(low + share * (values[k] - low))

    amp = max(between(np.abs(a).tolist()) for a in found.line_amp.values())
    watt = between(found.power_in.tolist())
    return amp, watt, at.sync_rpm * (1 - between(slip.tolist()))


def expected_at(told: Estimate, volts: Sequence[float]) -> list[Expected]:
    """Return what the motor shows without load at each of `volts` where it turns, with its band."""
    assumed = {a.name for a in told.assumed}
    share = 1.0 if "magnetizing reactance" in assumed else KNOWN
    found = []
    for volt in volts:
        shown = no_load(told.motor, volt)
        if shown is not None:
            bands = [
                (v * (1 - share * BAND[n]), v, v * (1 + share * BAND[n]))
                for n, v in zip(("amp", "watt", "rpm"), shown, strict=True)
            ]
            found.append(Expected(volt=volt, amp=bands[0], watt=bands[1], rpm=bands[2]))
    return found


def turning_volt(motor: Motor, breakaway: float = BREAKAWAY) -> float:
    """Return the volts a free shaft turns from: where the torque at standstill is the breakaway.

    Torque goes with the square of the volts; `breakaway` times the drag at rated speed must be
    overcome.
    """
    still = float(motor.torque_nm(motor.standstill)[0])
    drag = float(motor.drag_nm(np.array([0.0]))[0])
    if still <= 0:
        return float("inf")
    return motor.volt * float(np.sqrt(breakaway * drag / still))
