"""What whoever connects the motor reads and sets at the machine, each line with this motor's figures."""

from collections.abc import Iterator

from careful_coil.core.condition.temperature import rise_limit
from careful_coil.core.condition.wall import class_of, class_words
from careful_coil.core.connect.beyond import Line, overload_words
from careful_coil.core.connect.dress import amps_at
from careful_coil.core.connect.rated import rated_volts
from careful_coil.core.connect.rotation import how_to_turn, reversible, turns_words
from careful_coil.core.connect.work import Connecting
from careful_coil.core.job import Job
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import StartWay, full_volt
from careful_coil.core.trial.told import at_rated


def commissioning(
    job: Job, state: Connecting, way: StartWay, settings: Settings
) -> tuple[Line, ...]:
    """Return the lines in the order they are read; none while the supply is not named."""
    return tuple(_lines(job, state, way, settings)) if job.supply is not None else ()


def idle_amps(job: Job, way: StartWay) -> str:
    """Return the amps without load that the bench read last, with the volts; empty where it did not."""
    volt = full_volt(job, way)
    for trial in reversed(job.trials.sheets):
        step = at_rated(trial, volt) if trial.whole and trial.begun.load == "none" else None
        if step is not None:
            return f"{'/'.join(f'{a:g}' for a in step.amp)} A at {max(step.volt):g} V"
    return ""


def _lines(job: Job, state: Connecting, way: StartWay, settings: Settings) -> Iterator[Line]:
    supply = job.supply
    if supply is None:
        return
    apart = settings.supply_apart.value / 100
    rated = rated_volts(job, state) or (supply.volt, supply.volt)
    low, high = rated[0] * (1 - apart), rated[1] * (1 + apart)
    even = "; the three within 1 % of their mean" if supply.phases == 3 else ""
    yield Line(
        name="volts",
        words=f"Volts at the terminals, under load: {low:.0f} to {high:.0f} V{even}",
        why="At the motor, not at the panel: a long cable takes its share at the start.",
    )
    amp = amps_at(job, supply)
    idle = idle_amps(job, way)
    most = f"at most {amp:g} A" if amp else "against the plate: not known here"
    yield Line(
        name="amps",
        words=f"Amps of {'each line' if supply.phases == 3 else 'the line'}, under load: {most}",
        why=f"On the bench without load: {idle}." if idle else "Compare the lines with each other.",
    )
    if amp:
        start = state.plan.start if state.plan else ""
        words, why = overload_words(amp, job.plate.service_factor or 1.0, start)
        yield Line(name="overload", words=words, why=why)
    turn = how_to_turn(state)
    yield Line(
        name="direction",
        words=f"Direction: {turns_words(job, state.view)}. {reversible(state)}".rstrip(". "),
        why=turn or "Uncoupled first.",
    )
    if way.way == "direct":
        yield Line(
            name="start",
            words=f"Start device heard to let go within {settings.switch_out_watch.value:g} s, at every start",
            why="Off at once where it does not: the start winding cooks.",
        )
    plate = job.plate
    factor = plate.service_factor or 1.0
    rise, _ = rise_limit(class_of(job), plate.power_w, plate.printed("enclosure"), factor)
    limit_words = f"its winding may rise {rise:g} K ({class_words(job)}), "
    yield Line(
        name="hour",
        words="An hour later: amps again, frame and bearings by thermometer, air beside it",
        why=f"In 40 °C air {limit_words}the frame lies some 30 K below the winding.",
    )
