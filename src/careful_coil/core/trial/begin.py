"""How a motor is started on the bench, and what must be ready before: by its kind and its own risks."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.connect.work import Connecting
from careful_coil.core.job import Job
from careful_coil.core.kind import Weighed
from careful_coil.core.settings import Settings

Way = Literal["ramp", "cap", "direct"]
SWITCHED = ("split-phase", "capacitor-start", "capacitor-start-run")
RUNAWAY_RPM = 10_000.0  # of an unloaded motor with brushes whose plate does not say
LIKELY = 0.5  # odds of a kind that decide how it is started


@dataclass(frozen=True, slots=True, kw_only=True)
class StartWay:
    """How it is started: `most_volt` no step above it (None: the rated volts), words for it."""

    way: Way
    title: str
    words: str
    most_volt: float | None = None
    look_volt: float | None = None
    look_seconds: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Item:
    """One thing to make ready: its key, what to do, why."""

    name: str
    words: str
    why: str


def start_way(job: Job, state: Connecting, kinds: Weighed, settings: Settings) -> StartWay:
    """Return how this motor is started: ramped, only up to the rig's cap, or by one timed direct start."""
    volt = job.supply.volt if job.supply else (job.plate.volts[0][1] if job.plate.volts else 0.0)
    if _brushed(state, kinds):
        cap = settings.universal_cap.value / 100 * volt
        return StartWay(
            way="cap",
            title=f"Unloaded only up to {cap:.0f} V",
            words="Series fields let it run away: rpm is the first stop rule. That run is its test; full "
            "volts only with the load on it.",
            most_volt=cap,
        )
    if _switched(state, kinds):
        look = settings.look_volt.value / 100 * volt
        return StartWay(
            way="direct",
            title="A short look, then one timed start",
            words="Never ramped: at low volts the start winding stays in and cooks. A look, then one direct "
            "start at 85 to 100 % volts; the start device must let go by "
            f"{settings.switch_out_watch.value:g} s. A pause between tries.",
            look_volt=look,
            look_seconds=settings.look_seconds.value,
        )
    return StartWay(
        way="ramp",
        title="Raised slowly from nothing",
        words="Watch amps while the volts rise; note the volts it turns from. Not turning by half voltage: "
        "off, look again.",
    )


def stop_rules(job: Job, way: StartWay, settings: Settings) -> str:
    """Return when the bench switch goes off, in the order that matters for this motor."""
    supply = job.supply
    rating = job.plate.at(supply.volt, supply.hertz) if supply else None
    amp = (rating.amp if rating else None) or max(job.plate.amps, default=None)
    told = [f"rpm over {most_rpm(job):.0f} or still climbing"] if way.way == "cap" else []
    if amp:
        told.append(f"amps over {amp:g} A")
    told.append("smoke")
    if way.way == "ramp" and supply is not None:
        told.append(f"not turning by {supply.volt / 2:.0f} V")
    if way.way == "direct":
        told.append(f"start device not out by {settings.switch_out_hold.value:g} s")
    return f"Bench switch off at: {'; '.join(told)}. Then press End."


def most_rpm(job: Job) -> float:
    """Return the rpm an unloaded motor with brushes may reach: the plate's, else the usual limit."""
    return job.plate.rpm or RUNAWAY_RPM


def _brushed(state: Connecting, kinds: Weighed) -> bool:
    if state.plan is not None:
        return state.plan.arrangement.startswith("universal")
    odds = sum(o.probability for o in kinds.odds if o.kind.name in ("universal", "series-dc"))
    return odds >= LIKELY


def _switched(state: Connecting, kinds: Weighed) -> bool:
    if state.plan is not None and state.plan.devices:
        return any(d.switches or d.kind == "capacitor-start" for d in state.plan.devices)
    return sum(o.probability for o in kinds.odds if o.kind.name in SWITCHED) >= LIKELY


def ready_items(job: Job, state: Connecting, way: StartWay) -> tuple[Item, ...]:
    """Return what must be ready before volts, of this motor's own risks."""
    return tuple(_items(job, state, way))


def _items(job: Job, state: Connecting, way: StartWay) -> Iterator[Item]:
    yield Item(name="clamp", words="Clamped to the bench", why="It twists at the start.")
    yield Item(
        name="earth",
        words="Frame earthed, bench protection tried",
        why="An autotransformer does not part it from the line.",
    )
    yield Item(
        name="guard",
        words="Shaft, fan and belt guarded; no loose key",
        why="A key flies out at the first turn.",
    )
    yield Item(
        name="load",
        words="Load off, shaft turned by hand once more",
        why="A seized load looks like a dead motor.",
    )
    devices = state.plan.devices if state.plan else ()
    if job.gear.capacitors or any(d.kind.startswith("capacitor") for d in devices):
        yield Item(
            name="discharged",
            words="Capacitors discharged, and again after every run",
            why="They hold up to 1.4 times their volts.",
        )
    if way.way == "cap":
        yield Item(
            name="reduced",
            words="Supply set so that it cannot go above the cap",
            why="Unloaded at full volts it flies apart.",
        )
    if way.way == "direct":
        yield Item(
            name="watch",
            words="Stop watch at hand, one hand at the switch",
            why="Five seconds with the start winding in are the end of it.",
        )
    yield Item(
        name="meter",
        words="Volts, amps of every line, watts and tachometer on",
        why="What is not read cannot be compared.",
    )
    if job.hands.felt.get("feel", "free") not in ("free", ""):
        yield Item(
            name="stiff",
            words=f"Shaft felt {job.hands.felt['feel']}: expect a late start and more watts",
            why="Stiff bearings make electrical faults.",
        )


def left_to_ready(job: Job, state: Connecting, way: StartWay) -> tuple[Item, ...]:
    """Return what is not ticked on the open sheet."""
    now = job.trials.now
    done = now.ready if now is not None else ()
    return tuple(i for i in ready_items(job, state, way) if i.name not in done)
