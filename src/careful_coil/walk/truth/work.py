"""What hands and volts do to a motor: one table of work, and every energising on the true hookup."""

import re
from collections.abc import Callable, Sequence

from careful_coil.bench.low_run import run_of
from careful_coil.bench.trial_run import Rig
from careful_coil.bench.wound import halves_of
from careful_coil.core.errors import InstrumentError
from careful_coil.core.probes import Request
from careful_coil.core.ways.devices import Moment
from careful_coil.walk.told import Told
from careful_coil.walk.truth.eyes import WHO
from careful_coil.walk.truth.plated import middle_microfarad
from careful_coil.walk.truth.world import Ask, World

DRY_MEGOHM = 320.0
REWOUND_MEGOHM = 900.0
GOOD_EARTH_OHM = 0.03
WET_WICK = "soaks"
BUSHES = ("sleeve", "bush")  # in place of a number
EASED, RENEWED, CLEAN = "free", "good", 1.15  # of MΩ after cleaning alone
Done = Callable[[World, Ask, str], str]


def energised(world: World, ask: Ask, kind: str) -> Told:
    """Return what the motor shows under volts, on its joints as they really are."""
    own = world.motor.supply
    volt = float(ask["volt"]) or own.volt / 4
    if volt > 1.15 * own.volt:
        return Told(lacks=f"the bench has no {volt:g} V")
    joints, devices = world.nodes(), world.devices
    if not any("L1" in j for j in joints):
        return Told(lacks="nothing is joined to the lines")
    supply = (own.phases, volt, own.hertz)
    moment: Moment = "start" if kind in ("start", "low-run", "turning") else "run"
    hurt, coil = world.power.harm(world.inner, joints, devices, supply, moment)
    if hurt:
        world.harm.append({"step": world.step, "what": hurt})
        world.cook(coil)
        return Told(lacks=f"off at once: {hurt}")
    request = Request(
        kind=kind,
        ends=tuple(ask["ends"]),
        joints=tuple(tuple(j) for j in joints),
        devices=devices,
        supply=supply,
        nominal=own.volt,
        minutes=float(str(ask["state"]).removesuffix(" min") or 0.0) if kind == "trial" else 0.0,
    )
    meter = world.meter_on()
    turns, _, way, _ = run_of(world.inner, joints, devices, supply, halves_of(world.motor))
    text = (
        _low_run(meter.rig(request), turns, way, volt)
        if kind == "low-run"
        else meter.show(request).text
    )
    if turns != "none":
        world.turned = way
    world.changed("run", kind)
    return Told(text=_asked_of(text, ask["wants"])) if kind != "turning" else _turning(text)


TURNED = {"smooth": "sm", "rough": "ro"}  # as people type it
SHOWN = {
    "outcome": r"(?:dropped )?(out|turns|stalled|tripped)",
    "seconds": r"([\d.]+) s\b",
    "amp": r"(?:V )?((?:[\d.]+/)*[\d.]+)(?= A| smooth| rough| none)",
    "rpm": r"(\d+) rpm",
    "turns": r"(smooth|rough|none)",
    "way": r"\b(c?cw)\b",
}


def _asked_of(text: str, wants: Sequence[str]) -> str:
    """Return of what the bench shows what was asked for, all of it where nothing is named."""
    found = [m[1] for w in wants if (m := re.search(SHOWN[w], text)) is not None]
    return " ".join(TURNED.get(f, f) for f in found) or text


def _low_run(rig: Rig, turns: str, way: str, volt: float) -> str:
    """Return volts, amps of the lines, how it turns and which way, the rotor free."""
    amps, _, _, turned = rig.step()
    if turned == "none":
        turns, way = "none", ""
    shown = "/".join(f"{a:.3g}" for a in amps.values())
    return f"{volt:.0f} V {shown} {turns} {way}".rstrip()


def _turning(text: str) -> Told:
    figure = text.partition(" ")[0]
    try:
        return Told(text=text, number=float(figure), unit="V")
    except ValueError:
        raise InstrumentError(text) from None


def worked(world: World, ask: Ask) -> Told:
    """Do the work an ask wants; the answer is what its part is like afterwards."""
    kind, _, name = str(ask["part"]).partition(":")
    act = WORK.get(kind)
    if act is None:
        return Told(lacks=f"no such work on {ask['part']}")
    told = act(world, ask, name)
    if told.startswith("?"):
        return Told(lacks=told[1:])
    world.changed(ask["part"], ask["state"])
    return Told(text=told)


def _joints(world: World, ask: Ask, _: str) -> str:
    names = [str(n) for n in ask["ends"]]
    missing = next((n for n in names if not world.knows(n)), "")
    if missing:
        return f"?there is no {missing} to be joined"
    if ask["state"] == "joined":
        met = [j for j in world.joints if j & set(names)]
        world.joints = [j for j in world.joints if j not in met]
        world.joints.append(set(names).union(*met))
    elif ask["state"] == "parted":
        world.joints = [j - set(names) for j in world.joints]
    return "all"


def _covers(world: World, ask: Ask, _: str) -> str:
    world.covers_off = ask["state"] == "opened"
    return "all"


def _winding(world: World, ask: Ask, _: str) -> str:
    own = world.motor.insulation
    if ask["state"] == "dried" and own.wet:
        world.put(insulation={**own.model_dump(), "megohm": DRY_MEGOHM, "wet": False})
    elif ask["state"] == "rewound":
        dry = {**own.model_dump(), "megohm": REWOUND_MEGOHM, "wet": False}
        world.put(hurt={}, turned=[], insulation=dry)
        world.joints = [j for j in world.joints if not j & set(world.lead_of)]
    elif ask["state"] == "cleaned":
        world.put(insulation={**own.model_dump(), "megohm": CLEAN * own.megohm})
    return "all"


def _shaft(world: World, ask: Ask, _: str) -> str:
    """Ease the shaft: one that rubs or is seized stays so until its bearing is renewed."""
    feel = world.motor.shaft.feel
    if feel in ("binding", "rough"):
        world.put(shaft={**world.motor.shaft.model_dump(), "feel": EASED})
    return world.motor.shaft.feel


def _bearing(world: World, ask: Ask, end: str) -> str:
    ends = world.motor.bearings.model_dump()
    if "wick" in ask["ends"]:
        world.put(bearings={**ends, end: {**ends[end], "wick": WET_WICK}})
        return WET_WICK
    sleeve = ends[end]["number"] in BUSHES
    done = "oiled" if sleeve and ends[end]["state"] == "dry" else "renewed"
    fits = str(ends[end].get("seat", "")) or ends[end]["number"]
    ends[end] = {**ends[end], "number": fits, "state": RENEWED}
    world.put(bearings=ends)
    if all(b["state"] == RENEWED for b in ends.values()) and world.motor.shaft.feel != EASED:
        world.put(shaft={**world.motor.shaft.model_dump(), "feel": EASED})
    return done


def _device(world: World, ask: Ask, name: str) -> str:
    if ask["state"] == "removed":
        world.gone.add(name)
        return "all"
    if ask["state"] == "fitted":
        names = {d.name for d in world.motor.devices} | {c.name for c in world.motor.capacitors}
        world.gone.discard(name)
        return "all" if name in names else f"?there is no {name} at hand"
    own = next((d for d in world.motor.devices if d.name == name), None)
    if own is not None and own.inside and not world.covers_off:
        return "?the covers are on"
    devices = [d.model_dump(by_alias=True) for d in world.motor.devices]
    world.put(devices=[{**d, "state": RENEWED} if d["name"] == name else d for d in devices])
    return WHO


def _capacitor(world: World, ask: Ask, name: str) -> str:
    """Fit one as Next says, else as it is printed on the old: its middle µF, sound."""
    cans = [c.model_dump() for c in world.motor.capacitors]
    own = next((c for c in world.motor.capacitors if c.name == name), None)
    fit = str(ask["ends"][0]) if ask["ends"] else own.marked if own is not None else ""
    if own is None or not fit:
        return "?what to fit is not said"
    middle = middle_microfarad(fit)
    if not middle:
        return "?what stands on it cannot be read"
    fresh = {"marked": fit, "microfarad": middle, "looks": "sound", "shorted": False}
    world.put(capacitors=[{**c, **fresh} if c["name"] == name else c for c in cans])
    return WHO


def _lead(world: World, ask: Ask, tag: str) -> str:
    leads = [x.model_dump(by_alias=True) for x in world.motor.leads]
    world.put(leads=[{**x, "looks": ""} if x["tag"] == tag else x for x in leads])
    return f"{tag} renewed"


def _marks(world: World, ask: Ask, _: str) -> str:
    """Mark leads anew: `state` says each tag with its mark."""
    right = dict(told.split(" ", 1) for told in str(ask["state"]).split(", "))
    leads = [x.model_dump(by_alias=True) for x in world.motor.leads]
    world.put(leads=[{**x, "mark": right.get(x["tag"], x["mark"])} for x in leads])
    return "all"


def _earth(world: World, ask: Ask, _: str) -> str:
    world.put(earth_ohm=GOOD_EARTH_OHM)
    return "cleaned"


def _temporary(world: World, ask: Ask, _: str) -> str:
    world.put(temporary="")
    return "taken off"


def _said(state: str) -> Done:
    def done(world: World, ask: Ask, _: str) -> str:
        fields = {"fan": "fan", "seals": "seals"}
        kind = str(ask["part"]).partition(":")[0]
        if kind in fields:
            world.put(**{fields[kind]: "renewed" if kind == "seals" else state})
        return "renewed" if kind in ("seals", "cord", "brush") else state

    return done


WORK: dict[str, Done] = {
    "hookup": _joints,
    "covers": _covers,
    "lead": _lead,
    "leads": _marks,
    "earth": _earth,
    "winding": _winding,
    "shaft": _shaft,
    "bearing": _bearing,
    "device": _device,
    "capacitor": _capacitor,
    "place": lambda world, ask, name: "all",
    "direction": lambda world, ask, name: "all",
    "fan": _said("good"),
    "seals": _said("good"),
    "cord": _said("renewed"),
    "brush": _said("renewed"),
    "bolts": _said("turns free"),
    "temporary": _temporary,
}
