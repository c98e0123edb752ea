"""How a job's start gear is wired: the plan on its own winding, with the devices noted, or usual ones."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from careful_coil.core.can_marking import Marking, read_marking, serves_of
from careful_coil.core.connect.coil_ohms import coil_ohms
from careful_coil.core.connect.hookup import Hookup, Supplied
from careful_coil.core.connect.plans import Plate
from careful_coil.core.connect.work import Gear as ConnectedGear
from careful_coil.core.errors import CannotPlace, CoilError
from careful_coil.core.gear.positions import read_table
from careful_coil.core.identify import Identification, Naming
from careful_coil.core.job import Job
from careful_coil.core.job.gear import Gear
from careful_coil.core.kind import Weighed
from careful_coil.core.machine.facts import Kind
from careful_coil.core.readings import Switch
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.devices import POSITIONED, POSTS, SENSING, Device
from careful_coil.core.ways.usual import FOUR, SWITCH
from careful_coil.core.ways.way import Ohms, Plan

KINDS: dict[str, Kind] = {
    "split-phase": "split-phase",
    "capacitor-start": "capacitor-start",
    "permanent-capacitor": "psc",
    "capacitor-start-run": "capacitor-start-run",
}
LEAST_ODDS = 0.3  # of a kind that a wiring may be drawn for
USUAL_OHMS: Ohms = {
    "main-1-main-2": 2.0,
    "aux-1-aux-2": 6.0,
}  # a start winding has about three times
USUAL_VOLT, USUAL_HERTZ = 230.0, 50.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Wiring:
    """A plan with its devices; `own` whether it is on the motor's own winding, `ohms` its coils' in Ω.

    `guessed` what of it was not noted, in words.
    """

    kind: Kind
    plan: Plan
    own: bool
    ohms: Ohms | None
    guessed: tuple[str, ...] = ()
    inside: tuple[str, ...] = ()  # devices that are joined inside the motor already


def device_of(name: str, kind: str, table: str = "", sensing: str = "", posts: str = "") -> Device:
    """Return a device of the list; an interlock is a speed switch that closes, `table` its positions.

    `sensing` yes where an electronic switch has leads of its own for the start winding's volts, `posts` the
    terminals of a current relay where they are not L, M, S.
    """
    if kind == "interlock":
        return Device(name=name, kind="speed-switch", action="closes")
    if kind == "change-over":  # its start contact, 1 to 2; 3 is another circuit's
        return Device(name=name, kind="speed-switch")
    if kind in POSITIONED:
        try:
            return Device(name=name, kind=kind, table=read_table(table) if table else {})
        except CoilError:
            return Device(name=name, kind=kind)
    if kind == "electronic-switch" and sensing == "yes":
        return Device(name=name, kind=kind, ends=SENSING)
    if kind == "relay-current" and posts == " ".join(POSTS):
        return Device(name=name, kind=kind, ends=POSTS)
    return Device(name=name, kind=kind)


def noted_device(gear: Gear, name: str) -> Device:
    """Return a device of the job by name, as it is noted."""
    told = (gear.noted.get((name, field), "") for field in ("table", "sensing", "posts"))
    return device_of(name, gear.devices[name], *told)


def wiring_of(
    job: Job, kinds: Weighed, found: Identification | None, naming: Naming
) -> Wiring | str:
    """Return how its start gear is wired, or in words what is missing."""
    kind = kind_of_gear(job.gear, kinds)
    if kind is None:
        return (
            "It is not known yet which kind of single-phase motor it is: say so at Intake, or note its "
            "capacitors and where they serve."
        )
    devices, guessed = list(_capacitors(job, kind)), []
    if kind != "split-phase" and not any(d.kind.startswith("capacitor") for d in devices):
        return "Its capacitor must be noted first: marking, and where it serves."
    fitted = [noted_device(job.gear, n) for n in job.gear.devices]
    takes_out = next((d for d in fitted if d.switches), None)
    inside = kind != "psc" and built_in(job, takes_out)
    if kind != "psc":
        if takes_out is None:
            guessed.append("a centrifugal switch")
        devices.append(takes_out or SWITCH)
    others = [
        d
        for d in fitted
        if d.kind == "protector" or (d.kind in POSITIONED and d.table) or d.kind == "resistor"
    ]
    parts = _apart([*devices, *others], guessed)
    plan, own = _plan(naming, parts[: len(devices)], parts[len(devices) :], guessed)
    if isinstance(plan, str):
        return plan
    ohms = coil_ohms(found, naming) if own and found else None
    switch = takes_out.name if takes_out is not None else SWITCH.name
    return Wiring(
        kind=kind,
        plan=plan,
        own=own,
        ohms=ohms,
        guessed=tuple(guessed),
        inside=(switch,) if inside else (),
    )


def built_in(job: Job, switch: Device | None) -> bool:
    """Whether the start contact is joined inside already: its path opened as the mechanism was worked.

    Not where somebody has joined its terminals at Connect: then it is a part of its own.
    """
    opens = any(isinstance(t.reading, Switch) and t.reading.value == "opens" for t in job.readings)
    if not opens or switch is None:
        return opens
    if switch.kind != "speed-switch":  # on the shaft it is in; a module or relay was added
        return False
    names = {n for a in job.joined.acts for n in a.names}
    names |= {n for j in job.joined.start or () for n in j}
    joined = any(n.startswith(f"{switch.name}.") for n in names)
    return not joined and f"fit {switch.name}" not in job.joined.ticked


def devices_of(wiring: Wiring | str) -> ConnectedGear:
    """Return the devices that Connect joins; in words why they are not known."""
    if isinstance(wiring, str):
        return ConnectedGear(why=wiring)
    if not wiring.own:
        names = ", ".join(d.name for d in wiring.plan.devices)
        why = f"No rule here places {names} on this winding. Join it by the maker's diagram."
        return ConnectedGear(why=why)
    devices = tuple(d for d in wiring.plan.devices if d.name not in wiring.inside)
    return ConnectedGear(devices=devices, guessed=wiring.guessed, inside=bool(wiring.inside))


def _apart(devices: list[Device], guessed: list[str]) -> list[Device]:
    """Return devices each with a name of its own: two cards may bear one name, a joint may not."""
    found: list[Device] = []
    for d in devices:
        taken, name, k = {f.name for f in found}, d.name, 2
        while name in taken:
            name, k = f"{d.name}-{k}", k + 1
        if name != d.name:
            guessed.append(f"{d.name} stands for two parts: the second is called {name}")
        found.append(replace(d, name=name))
    return found


def with_run_capacitor(wiring: Wiring) -> Plan | None:
    """Return the same with a run capacitor besides; None where it has one, or no rule places it."""
    devices = wiring.plan.devices
    if any(d.kind in ("capacitor-run", "capacitor-dual") for d in devices):
        return None
    second = Device(name="C2", kind="capacitor-run", microfarad=20)
    more = _apart([*devices, second], [])[-1]
    try:
        return plans_of(wiring.plan.arrangement, wiring.plan.variant, (*devices, more))[0]
    except CoilError:
        return None


def hookup_of(wiring: Wiring, job: Job) -> Hookup:
    """Return the wiring as a hookup on the plate's volts; usual ohms where none are known."""
    volt = job.plate.volts[0][0] if job.plate.volts else USUAL_VOLT
    hertz = job.plate.hertz or USUAL_HERTZ
    usual = USUAL_OHMS if wiring.plan.arrangement == FOUR else 2.0
    return Hookup(
        arrangement=wiring.plan.arrangement,
        variant=wiring.plan.variant,
        joints=wiring.plan.joints,
        devices=wiring.plan.devices,
        plate=Plate(((volt, volt),), hertz),
        supply=Supplied(phases=1, volt=volt, hertz=hertz),
        coil_ohm=wiring.ohms or usual,
        rpm=job.plate.rpm,
    )


def kind_of_gear(gear: Gear, kinds: Weighed) -> Kind | None:
    """Return the kind: by its capacitors where both are noted, else the likeliest Intake saw."""
    serve = {serves_of(told) for told in gear.capacitors.values()}
    if {"start", "run"} <= serve:
        return "capacitor-start-run"
    if "start" in serve:
        return "capacitor-start"
    if "run" in serve:
        return "psc"
    best = max(kinds.odds, key=lambda o: o.probability, default=None)
    if best is None or best.probability < LEAST_ODDS:
        return None
    return KINDS.get(best.kind.name)


def _capacitors(job: Job, kind: Kind) -> Iterator[Device]:
    """Yield capacitors as marked, the first of each duty."""
    seen: set[str] = set()
    for name, told in job.gear.capacitors.items():
        try:
            marking = read_marking(told.get("marking", ""))
        except CoilError:
            continue
        serves = serves_of(told) or ("run" if kind == "psc" else "start")
        if serves in ("start", "run") and serves not in seen:
            seen.add(serves)
            yield _capacitor(name, serves, marking)
    if not job.gear.capacitors and job.plate.microfarad:
        which = "capacitor-run" if kind == "psc" else "capacitor-start"
        yield Device(name="C1", kind=which, microfarad=job.plate.microfarad)


def _capacitor(name: str, serves: str, marking: Marking) -> Device:
    farad = (marking.low + marking.high) / 2
    if len(marking.sections) == 2 and serves == "run":
        return Device(
            name=name, kind="capacitor-dual", microfarad=farad, second=marking.sections[1]
        )
    return Device(name=name, kind=f"capacitor-{serves}", microfarad=farad)


def _plan(
    naming: Naming, devices: list[Device], others: list[Device], guessed: list[str]
) -> tuple[Plan | str, bool]:
    """Return the plan on its own winding, else on a main and a start pair; whether it is its own.

    Devices no rule places together are left out, the less needed first, and it is said.
    """
    slugs = [FOUR]
    if naming.arrangement is not None and naming.arrangement.phases == 1:
        slugs.insert(0, naming.arrangement.slug)
    why = ""
    for slug in slugs:
        for count in range(len(others), -1, -1):
            try:
                plan = plans_of(slug, devices=(*devices, *others[:count]))[0]
            except CannotPlace as error:
                why = str(error)
                continue
            except CoilError as error:
                why = str(error)
                break
            if count < len(others):
                left = ", ".join(d.name for d in others[count:])
                guessed.append(f"without {left} ({why.rstrip('.')})" if why else f"without {left}")
            if slug == FOUR and len(slugs) < 2:
                guessed.append("a main and a start pair")
            return replace(plan), slug == slugs[0] and len(slugs) > 1
    return why, False
