"""What a run says, one finding each; the step that counts."""

from collections.abc import Sequence
from functools import partial
from typing import Literal

from careful_coil.core.connect.dress import amps_at
from careful_coil.core.errors import CoilError
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.job.trials import Trial
from careful_coil.core.machine.power import volt_amperes
from careful_coil.core.winding.speed import poles_of

Verdict = Literal["good", "watch", "hold", "unproven"]
DEAD = 0.05  # of the mean: a line without amps
RATED_NEAR = 0.10  # of 1: a step at rated volts


told = partial(Finding, station="test-run")


def mean(values: Sequence[float]) -> float:
    """Return the mean."""
    return sum(values) / len(values)


def dead_lines(amps: Sequence[float]) -> list[str]:
    """Return the lines that carry no amps, by name; all of them where none does."""
    middle = mean(amps)
    return [f"L{k}" for k, a in enumerate(amps, 1) if a <= DEAD * middle]


# efficiency times power factor of common motors, where the plate gives no amps (middle of a wide band)
USUAL_OVER_VA = {3: 0.65, 1: 0.46}


def full_load_amps(job: Job) -> tuple[float, str] | None:
    """Return amps at full load on this supply and where they come from; None where nobody can say.

    The plate's, else worked out from its power and the volts by usual efficiency and power factor.
    """
    supply = job.supply
    if supply is None:
        return None
    plate = amps_at(job, supply)
    if plate:
        return plate, "plate"
    if not job.plate.power_w:
        return None
    share = 1.0 if job.plate.power_side == "in" else USUAL_OVER_VA[supply.phases]
    amp = job.plate.power_w / share / volt_amperes(supply.volt, 1.0, supply.phases)
    return amp, "worked out from power and volts"


EXACT = 1e-3  # of 1: a plate's rpm that is a synchronous speed


def step_speed_of(job: Job) -> float | None:
    """Return the speed of a motor whose plate gives a synchronous one, at the supply's hertz; None for any other.

    Of three phases: a tool with a commutator may well have 3000 rpm on its plate.
    """
    plate, supply = job.plate, job.supply
    if not plate.rpm or not plate.hertz or supply is None or supply.phases != 3:
        return None
    poles = 120 * plate.hertz / plate.rpm
    even = round(poles / 2) * 2
    if even < 2 or abs(poles - even) > EXACT * even:
        return None
    return 120 * supply.hertz / even


def sync_of(job: Job) -> float | None:
    """Return n_sync of a job's motor on its supply in rpm; None while supply or speed is not known."""
    supply, plate = job.supply, job.plate
    if supply is None or not (plate.poles or plate.rpm):
        return None
    try:
        poles = plate.poles or poles_of(plate.hertz_at(supply.hertz), plate.rpm or 1.0)
    except CoilError:
        return None
    return 120.0 * supply.hertz / poles


def at_rated(trial: Trial, volt: float) -> TrialStep | None:
    """Return the newest step at rated volts; None where there was none."""
    return next((s for s in reversed(trial.steps) if near_rated(s, volt)), None)


def near_rated(step: TrialStep, volt: float) -> bool:
    """Whether a step was at rated volts."""
    return abs(mean(step.volt) / volt - 1) <= RATED_NEAR
