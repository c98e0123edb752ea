"""Beyond the motor: what a change of voltage asks of the installer, each line with its figures."""

from collections.abc import Iterator
from dataclasses import dataclass

from careful_coil.core.connect.dress import amps_at
from careful_coil.core.connect.plans import Plate, rating_of
from careful_coil.core.connect.work import Connecting
from careful_coil.core.job import Job
from careful_coil.core.run.overload import overload_of
from careful_coil.core.settings import Settings
from careful_coil.core.shop_lists import size_for
from careful_coil.core.values import show_figure
from careful_coil.core.ways.starter import PART_WINDING, RELAY_SHARE, WYE_DELTA

CODE = "the local code decides"
# by the practice `cable`: of the plate's amps, what the cable carries
CARRIED = {"setting": 1.0, "more": 1.25}
IN_STARTER = {
    WYE_DELTA: "the relay in the leads of K1",
    PART_WINDING: "each of the two relays",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Line:
    """One line for the installer: its key, what to do, why."""

    name: str
    words: str
    why: str


def installer_list(job: Job, state: Connecting, settings: Settings) -> tuple[Line, ...]:
    """Return what the change reaches beyond the motor; empty while there is no plan."""
    if state.plan is None or job.supply is None:
        return ()
    return tuple(_lines(job, state, settings))


def old_amps(job: Job, state: Connecting) -> float | None:
    """Return plate amps in the connection the motor came in; None where that is not known."""
    if state.found is None:
        return None
    plate = Plate(job.plate.volts, job.plate.hertz or 60.0)
    rated = rating_of(state.found, plate)
    at = job.plate.at(rated[1], plate.hertz) if rated else None
    return at.amp if at else None


def overload_words(amp: float, service_factor: float, start: str = "") -> tuple[str, str]:
    """Return the overload's dial in words, and the highest trip with what else moves it."""
    share = RELAY_SHARE.get(start, 1.0)
    found = overload_of(amp, service_factor, share=share)
    where = f", {IN_STARTER[start]}" if start in IN_STARTER else ""
    words = f"Overload dial at {show_figure(found.dial)} A{where}"
    why = (
        f"Plate amps of this connection{f' × {show_figure(share, 2)}' if share != 1 else ''}. "
        f"Its trip at most {show_figure(found.trip)} A, service factor {service_factor:g}; with a capacitor at the "
        f"motor, behind the relay, what it reads then. {CODE[0].upper()}{CODE[1:]}."
    )
    return words, why


def _lines(job: Job, state: Connecting, settings: Settings) -> Iterator[Line]:
    supply = job.supply
    amp = amps_at(job, supply) if supply else None
    if amp is None or supply is None:
        yield Line(
            name="amps",
            words="Amps at this voltage: not on the plate",
            why="Overload, cable and fuse hang on them: measure under load.",
        )
        return
    old = old_amps(job, state) if state.changed else None
    was = f" (was {old:g} A)" if old else ""
    yield Line(name="amps", words=f"Amps {amp:g} A at {supply.volt:g} V{was}", why="Plate figure.")
    factor = job.plate.service_factor or 1.0
    start = state.plan.start if state.plan else ""
    words, why = overload_words(amp, factor, start)
    yield Line(name="overload", words=words, why=why)
    if not state.changed:
        return
    yield Line(
        name="fuse",
        words=f"Fuse or breaker for {amp:g} A and its start",
        why=f"Amps are {'not known before' if not old else f'× {show_figure(amp / old, 2)}'}; {CODE}.",
    )
    yield Line(
        name="contactor",
        words=f"Contactor for {amp:g} A; its coil for the control volts",
        why="A contactor of half the amps welds; a coil on twice its volts burns.",
    )
    carried = amp * CARRIED[settings.school("cable")]
    size = size_for(settings.lists, carried)
    cable = f"at least {size.mm2:g} mm²" if size else "beyond the shop's list"
    yield Line(
        name="cable",
        words=f"Cable {cable} for {show_figure(carried)} A",
        why=f"It carries at least what the overload is set to. Shop's list; {CODE}.",
    )
    yield Line(
        name="transformer",
        words=f"Control transformer: primary on {supply.volt:g} V",
        why="Left on its old tap the control gets double or half its volts.",
    )
    devices = state.plan.devices if state.plan else ()
    if any(d.kind.startswith("capacitor") for d in devices):
        yield Line(
            name="capacitor",
            words="Capacitor's volts mark against its place in the new hookup",
            why="In some hookups it stands on twice the volts it had.",
        )
    yield Line(
        name="drive",
        words=f"Drive, soft starter: {supply.volt:g} V, {amp:g} A in its motor data",
        why="Parameters kept from before trip it or cook the motor. None there: waive it.",
    )


def still_open(job: Job, lines: tuple[Line, ...]) -> tuple[Line, ...]:
    """Return the lines that are neither told to the installer nor waived."""
    return tuple(x for x in lines if x.name not in job.joined.installer)
