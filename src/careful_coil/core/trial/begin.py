"""How a motor is started on the bench, and what must be ready before: by its kind and its own risks."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.connect.dress import amps_at
from careful_coil.core.connect.work import Connecting
from careful_coil.core.errors import BadValue, CoilError
from careful_coil.core.identify.naming import no_earth
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.job.trials import Trial
from careful_coil.core.kind import Weighed
from careful_coil.core.settings import Settings
from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.devices import POSITIONED
from careful_coil.core.ways.way import LINES, Plan

Way = Literal["ramp", "cap", "direct"]
SWITCHED = ("split-phase", "capacitor-start", "capacitor-start-run", "repulsion-start")
BRUSHED = ("universal", "dc-wound")
CLICKS = ("speed-switch", "relay-current", "relay-voltage")  # heard to open and to reclose
NEAR_CAP, FULL_FROM = 1.1, 0.85  # of the cap or the look; of rated volts: a direct start
RUNAWAY_RPM = 10_000.0  # of an unloaded motor with brushes whose plate does not say
LIKELY = 0.5  # odds of a kind that decide how it is started


NO_VOLTS = ("hookup", "line-ohms", "low-run", "supply", "insulation", "frame-fault")  # found bad


@dataclass(frozen=True, slots=True, kw_only=True)
class StartWay:
    """How it is started: `most_volt` no step above it (None: the rated volts), words for it; its likeliest kind."""

    way: Way
    title: str
    words: str
    most_volt: float | None = None
    look_volt: float | None = None
    look_seconds: float | None = None
    kind: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Item:
    """One thing to make ready: its key, what to do, why."""

    name: str
    words: str
    why: str


def start_way(job: Job, state: Connecting, kinds: Weighed, settings: Settings) -> StartWay:
    """Return how this motor is started: ramped, only up to the rig's cap, or by one timed direct start."""
    volt = job.supply.volt if job.supply else (job.plate.volts[0][1] if job.plate.volts else 0.0)
    kind = kinds.odds[0].kind.name if kinds.odds else ""
    if _brushed(state, kinds):
        cap = settings.universal_cap.value / 100 * volt
        return StartWay(
            way="cap",
            title=f"Unloaded only up to {cap:.0f} V",
            words="Series fields let it run away: rpm is the first stop rule. That run is its test; full "
            "volts only with the load on it.",
            most_volt=cap,
            kind=kind,
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
            kind=kind,
        )
    return StartWay(
        way="ramp",
        title="Raised slowly from nothing",
        words="Watch amps while the volts rise; note the volts it starts turning at. Not turning by half voltage: "
        "off, look again.",
        kind=kind,
    )


def full_volt(job: Job, way: StartWay, trial: Trial | None = None) -> float:
    """Return the volts a run counts at: the cap of an unloaded motor with brushes, else the supply's."""
    capped = way.most_volt is not None and (trial is None or trial.begun.load == "none")
    return way.most_volt if capped and way.most_volt else job.supply.volt if job.supply else 1.0


def why_not_step(job: Job, way: StartWay, trial: Trial, volt: float) -> str:
    """Return what is wanted in place of a step at these volts, empty where it may be taken.

    Unloaded motors with brushes stay under the cap; with a start device there is a look, then one
    start at full volts: never a ramp.
    """
    full = full_volt(job, way, trial)
    if way.most_volt is not None and trial.begun.load == "none" and volt > NEAR_CAP * full:
        return f"{full:.0f} V at most: unloaded it flies apart above the cap"
    if way.look_volt is None or trial.begun.load == "locked" or started(trial):
        return ""
    if volt > NEAR_CAP * way.look_volt:
        return (
            f"a look up to {way.look_volt:.0f} V, then one timed start at {FULL_FROM * full:.0f} V or more: "
            "raised slowly its start winding stays in and cooks"
        )
    return ""


def why_no_volts(findings: Iterable[Finding]) -> str:
    """Return what was found bad that no volts go on before, empty where nothing was."""
    bad = next((f for f in findings if f.verdict == "hold" and f.code in NO_VOLTS), None)
    return f"No volts yet. {bad.subject}: {bad.why}" if bad is not None else ""


def open_sheet(job: Job, text: str) -> Trial:
    """Return the sheet that is open and ready for volts. Raises: BadValue with what is wanted first."""
    now = job.trials.now
    if now is None:
        raise BadValue(text, "a sheet first: Make ready, begin a run")
    if not now.ready:
        raise BadValue(text, "everything ticked first: Make ready")
    return now


def check_step(job: Job, way: StartWay, step: TrialStep, text: str) -> None:
    """Raise BadValue where a step cannot be taken on the open sheet."""
    why = why_not_step(job, way, open_sheet(job, text), max(step.volt))
    if why:
        raise BadValue(text, why)


def started(trial: Trial) -> bool:
    """Whether a timed start of this sheet came off."""
    return any(s.outcome in ("turns", "dropped out") for s in trial.starts)


def speeds_of(state: Connecting | None) -> tuple[str, ...]:
    """Return the speeds this winding has by its joints, fastest first; none where it has one."""
    if state is None or state.plan is None or not state.plan.speed:
        return ()
    found = dict.fromkeys(p.speed for p in _alike(state.plan))
    return tuple(sorted((s for s in found if s), key=_rank)) if len(found) > 1 else ()


def speeds_to_run(state: Connecting | None) -> tuple[str, ...]:
    """Return the speeds that are run: those a switch or a moved clip reaches, else the one it is joined for.

    Three-phase speeds and a universal motor's field taps want other joints between leads: without their
    switch the machine's own run shows the others.
    """
    every = speeds_of(state)
    plan = state.plan if state is not None else None
    if plan is None or state is None or any(d.kind in POSITIONED for d in plan.devices):
        return every
    return tuple(s for s in every if _between_leads(at_speed(state, s)) == _between_leads(plan))


def _between_leads(plan: Plan | None) -> frozenset[frozenset[str]]:
    """Return what a hookup joins besides its lines: no clip of the bench changes that."""
    joints = (frozenset(j) - set(LINES) for j in (plan.joints if plan is not None else ()))
    return frozenset(j for j in joints if len(j) > 1)


def at_speed(state: Connecting, speed: str) -> Plan | None:
    """Return the hookup for one of several speeds; the plan as it is where none is named or known."""
    plan = state.plan
    if plan is None or speed in ("", plan.speed):
        return plan
    return next((p for p in _alike(plan) if p.speed == speed and p.reversed == plan.reversed), plan)


def clips_at(state: Connecting, speed: str) -> tuple[tuple[str, str], ...]:
    """Return where each clip of the bench goes for a speed, line and tag; only those that speeds move.

    Clips of the bench are no joints: a speed that a moved clip reaches is run so.
    """
    own = at_speed(state, speed)
    every = [p for s in speeds_to_run(state) if (p := at_speed(state, s)) is not None]
    if own is None or len(every) < 2:
        return ()
    lines = [n for j in own.joints for n in j if n in LINES]
    moved = (k for k in lines if len({_beside(p, k) for p in every}) > 1)
    return tuple((k, state.by_tag(_beside(own, k)[:1])[0]) for k in moved if _beside(own, k))


def _beside(plan: Plan, line: str) -> tuple[str, ...]:
    """Return the leads and terminals in a line's joint."""
    joint = next((j for j in plan.joints if line in j), ())
    return tuple(n for n in joint if n not in LINES)


def _rank(speed: str) -> tuple[int, str]:
    return {"high": 0, "low": 2}.get(speed, 1), speed


def _alike(plan: Plan) -> tuple[Plan, ...]:
    try:
        return tuple(plans_of(plan.arrangement, plan.variant, plan.devices))
    except CoilError:
        return (plan,)


def clicks(job: Job, state: Connecting) -> bool:
    """Whether its start device is heard: on run-down it comes back in."""
    fitted = [d.kind for d in state.plan.devices] if state.plan else []
    return any(k in CLICKS for k in (*fitted, *job.gear.devices.values()))


def stop_rules(job: Job, way: StartWay, settings: Settings) -> str:
    """Return when the bench switch goes off, in the order that matters for this motor."""
    supply = job.supply
    amp = amps_at(job, supply) if supply is not None else None
    told = [f"rpm over {most_rpm(job):.0f} or still climbing"] if way.way == "cap" else []
    if amp:
        told.append(f"amps over {amp:g}\u00a0A")
    told.append("smoke")
    if way.way == "ramp" and supply is not None:
        told.append(f"not turning by {supply.volt / 2:.0f}\u00a0V")
    if way.way == "direct":
        told.append(f"start device not out by {settings.switch_out_hold.value:g}\u00a0s")
    return f"Bench switch off at: {'; '.join(told)}. Then press End."


def most_rpm(job: Job) -> float:
    """Return the rpm an unloaded motor with brushes may reach: the plate's, else the usual limit."""
    return job.plate.rpm or RUNAWAY_RPM


def _brushed(state: Connecting, kinds: Weighed) -> bool:
    if state.plan is not None:
        return state.plan.arrangement.startswith("universal")
    odds = sum(o.probability for o in kinds.odds if o.kind.name in BRUSHED)
    return odds >= LIKELY


def _switched(state: Connecting, kinds: Weighed) -> bool:
    if state.plan is not None and state.plan.devices:
        return any(d.switches or d.kind == "capacitor-start" for d in state.plan.devices)
    return sum(o.probability for o in kinds.odds if o.kind.name in SWITCHED) >= LIKELY


def ready_items(job: Job, state: Connecting, way: StartWay) -> tuple[Item, ...]:
    """Return what must be ready before volts, of this motor's own risks."""
    return tuple(_items(job, state, way))


def _shaft_items() -> Iterator[Item]:
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


def _items(job: Job, state: Connecting, way: StartWay) -> Iterator[Item]:
    yield Item(name="clamp", words="Clamped to the bench", why="It twists at the start.")
    frame = "Nothing to earth: class II" if no_earth(job) else "Frame earthed"
    yield Item(
        name="earth",
        words=f"{frame}, bench protection tried",
        why="An autotransformer does not part it from the line.",
    )
    if job.seen.sealed:
        yield Item(
            name="vacuum",
            words="Not under vacuum, oil in it; seconds only",
            why="In a vacuum volts leap over at the pins; without gas it is not cooled.",
        )
    else:
        yield from _shaft_items()
    if not state.joined or state.unread:
        yield Item(
            name="joints",
            words="Joints and line ohms seen right: Connect has not proven them",
            why="A wrong pair on the line is cooked before its amps are read.",
        )
    devices = state.plan.devices if state.plan else ()
    if job.gear.capacitors or any(d.kind.startswith("capacitor") for d in devices):
        yield Item(
            name="discharged",
            words="Capacitors discharged, and again after every run",
            why="They hold up to 1.4 times their volts.",
        )
    now = job.trials.now
    if way.way == "cap" and (now is None or now.begun.load == "none"):
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
