"""How long a start may take: the seconds a stalled winding has, and the pause between tries."""

from dataclasses import dataclass

import numpy as np

from careful_coil.core.connect.dress import amps_at
from careful_coil.core.connect.hookup import answer
from careful_coil.core.connect.work import Connecting
from careful_coil.core.errors import BadValue
from careful_coil.core.job import Job
from careful_coil.core.machine.heating import heating_rate, stall_seconds
from careful_coil.core.machine.power import locked_rotor_amps
from careful_coil.core.rewind.record import Record, copper_mm2
from careful_coil.core.rewind.rules import plate_of
from careful_coil.core.rewind.worked import work_out
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import StartWay
from careful_coil.core.trial.loaded import HP
from careful_coil.core.winding.arrangements import arrangement
from careful_coil.core.winding.single_phase import START_COILS

STANDSTILL = 7.0  # times plate amps at standstill where no code letter says (usual)
IN_A_ROW = 2  # starts in succession before a pause (NEMA MG 1, 12.54)


@dataclass(frozen=True, slots=True, kw_only=True)
class Allowed:
    """Seconds at full volts without turning, and in words where they come from."""

    seconds: float
    words: str


def allowed(
    job: Job, record: Record, way: StartWay, state: Connecting, settings: Settings
) -> Allowed:
    """Return how long this motor may stand energised: by its wire's heating, else by the shop's limit.

    The start winding counts where its wire is on record; with a start device never longer than that
    may stay in. Source: adiabatic heating, J²/170 K/s copper, J²/74 aluminium, up to the setting's rise.
    """
    device = settings.switch_out_hold if way.way == "direct" else None
    limit = device or settings.look_seconds
    times, why = standstill_times(job)
    density = work_out(record, plate_of(job), settings).of("density").value
    still, which = (density or 0.0) * times, ""
    start = _start_density(job, record, state, times)
    if start > still:
        still, which = start, " in the start winding"
    if not still:
        return Allowed(seconds=limit.value, words="the shop's limit: no wire on record")
    rate = heating_rate(still, record.metal)
    seconds = stall_seconds(still, settings.stall_rise.value, record.metal)
    words = (
        f"{still:.0f} A/mm² at standstill{which} ({why}): {show_short(rate)} K/s, "
        f"{settings.stall_rise.value:g} K in {show_short(seconds)} s"
    )
    if device is not None and device.value < seconds:
        return Allowed(seconds=device.value, words=f"{words}; the start device must be out by then")
    return Allowed(seconds=seconds, words=words)


def show_short(value: float) -> str:
    """Return a figure in whole numbers from ten on, else to two figures."""
    return f"{value:.0f}" if value >= 10 else f"{value:.2g}"


def _start_density(job: Job, record: Record, state: Connecting, times: float) -> float:
    """Return A/mm² of the start winding at standstill, by its share of the line's amps; 0 where not known."""
    wires = record.wire("start-wire")
    rated = amps_at(job, job.supply) if job.supply is not None else None
    if not wires or not rated or state.hookup is None or state.plan is None:
        return 0.0
    inside = arrangement(state.plan.arrangement).inside(state.plan.variant)
    names = [c.name for c in inside.coils if c.like in START_COILS]
    found = answer(state.hookup.of_plan(state.plan), "start", 1.0, state.plan.field)
    line = found.line_amp.get("L1", 0.0)
    most = max((abs(found.coil_amp[n]) for n in names), default=0.0)
    return most / line * times * rated / copper_mm2(wires) if line > 0 else 0.0


def standstill_times(job: Job) -> tuple[float, str]:
    """Return standstill amps over plate amps, and where that comes from."""
    supply, plate = job.supply, job.plate
    rated = amps_at(job, supply) if supply is not None else None
    if supply is None or not (plate.code and plate.output_w and rated):
        return STANDSTILL, f"{STANDSTILL:g} times plate amps, usual"
    low, high = locked_rotor_amps(plate.code, plate.output_w / HP, supply.volt, supply.phases)
    amp = high if np.isfinite(high) else 1.2 * low
    return amp / rated, f"code letter {plate.code}"


PAUSE_BY_W = (
    (750.0, 0.6),
    (7500.0, 1.0),
    (30_000.0, 2.0),
    (np.inf, 3.0),
)  # below W, times the setting


def pause_of(job: Job, settings: Settings) -> float:
    """Return the minutes a motor of its size cools after two starts: the bigger, the longer (NEMA MG 1, 12.54)."""
    power = job.plate.power_w or PAUSE_BY_W[1][0] - 1
    return settings.start_pause.value * next(times for below, times in PAUSE_BY_W if power < below)


def pause_left(job: Job, now: str, settings: Settings) -> float:
    """Return the minutes to wait before another start, none where it may be tried now.

    `now` UTC as in the log. Two starts may follow each other; after them the winding must cool.
    """
    tried = [
        np.datetime64(at.removesuffix("Z"), "ms") for t in job.trials.sheets for at in t.start_at
    ]
    if len(tried) < IN_A_ROW or not now:
        return 0.0
    here = np.datetime64(now.removesuffix("Z"), "ms")
    ago = [float((here - at) / np.timedelta64(1, "m")) for at in tried[-IN_A_ROW:]]
    pause = pause_of(job, settings)
    if min(ago) < 0:
        return 0.0  # a clock was set: nothing is known of the time between
    left = pause - ago[-1]
    return left if left > 0 and ago[0] < IN_A_ROW * pause else 0.0


def check_pause(job: Job, now: str, settings: Settings) -> None:
    """Raise BadValue while the winding must cool after two starts."""
    left = pause_left(job, now, settings)
    if left:
        raise BadValue(
            "a third start", f"a pause of {left:.1f} min first", "Two in a row: it must cool."
        )
