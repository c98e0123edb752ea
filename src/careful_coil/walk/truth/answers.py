"""What a motor shows when it is asked: by quantity and part, in tags and prints."""

import itertools
import math
from collections.abc import Callable, Mapping
from dataclasses import replace

from careful_coil.bench.wound import DIRTY_OHM, OPEN_OHM, acting
from careful_coil.core.errors import InstrumentError
from careful_coil.core.probes import Request
from careful_coil.core.ways.devices import Device, Moment
from careful_coil.core.ways.states import state_at, with_devices
from careful_coil.core.winding.extras import CONTACT_OHM
from careful_coil.core.winding.network import Network
from careful_coil.documents.motor import DeviceReal
from careful_coil.walk.told import Told
from careful_coil.walk.truth import eyes
from careful_coil.walk.truth.plated import figures
from careful_coil.walk.truth.work import energised, worked
from careful_coil.walk.truth.world import METER, Ask, World

LINK = {"2", "3"}  # a current relay's posts for its capacitor
BUNCHED, FRAME, POSITION = "+", "frame", "position "
# what a device stands at by the words of the posture it is read in; at rest by all others
POSTURES: dict[str, Moment] = {
    "worked": "run",
    "hot": "run",
    "after a run": "run",
    "turned over": "start",
    "pulled": "start",
    "tripped": "tripped",
}
# what a part reads by itself where its document gives no ohms: a cold thermistor, a relay's coil, a heater
OWN_OHM = {"ptc": 22.0, "relay-current": 0.35, "hot-wire": 0.6}
DEAD_VOLT, DRAINED_VOLT = "0.1 V", "0.3 V"
LEAKAGE_MA = 0.1  # through the stray capacity of a small motor
OPEN_FRAME_OHM = 2e6
Answer = Callable[[World, Ask], Told]


def answer(world: World, ask: Ask) -> Told:
    """Return what the motor shows for an ask; `lacks` says why it cannot be had."""
    teller = TELLERS.get(ask["quantity"])
    if teller is None:
        return Told(lacks=f"no means to find out {ask['quantity']}")
    try:
        return teller(world, ask)
    except InstrumentError as error:
        return Told(lacks=str(error))


def _name(ask: Ask) -> str:
    return str(ask["part"]).partition(":")[2]


def _missing(world: World, ask: Ask) -> str:
    """Return why the ends cannot be reached, empty where they can."""
    for end in ask["ends"]:
        for name in str(end).split(BUNCHED):
            if name != FRAME and not world.knows(name):
                return f"there is no {name}"
    return ""


def _number(value: float, unit: str, digits: int = 3) -> Told:
    """Return a figure as a meter shows it: no exponents, MΩ from a million ohms on."""
    if unit == "Ω" and value >= 1e6:
        value, unit = value / 1e6, "MΩ"
    places = max(0, digits - 1 - math.floor(math.log10(value))) if value > 0 else 0
    return Told(number=value, unit=unit, text=f"{value:.{min(places, 4)}f} {unit}")


# --- probes -----------------------------------------------------------------------------------------


def _ohm(world: World, ask: Ask) -> Told:
    kind = ask["part"].partition(":")[0]
    if kind == "device":
        return _device_ohm(world, ask)
    if kind == "commutator":
        return Told(lacks="no four-wire meter for bars")
    if kind == "bench":
        return Told(number=METER.lead_ohm or 0.0, unit="Ω", text=f"{METER.lead_ohm or 0.0:.2f}")
    if not ask["ends"]:
        return Told(lacks="it does not say between which leads")
    missing = _missing(world, ask)
    if missing:
        return Told(lacks=missing)
    if ask["part"] == "hookup" and ask["type"] == "text":  # all lines at once
        pairs = itertools.combinations(ask["ends"], 2)
        each = [_ohm(world, {**ask, "type": "number", "ends": pair}).text for pair in pairs]
        alike = len(each) > 1 and len(set(each)) == 1
        return Told(text=f"{len(each)}x{each[0]}" if alike else "/".join(each))
    if FRAME in ask["ends"]:
        return _to_frame(world, ask["ends"][0], bool(ask["sense"]))
    one, two = (str(e).split(BUNCHED) for e in ask["ends"])
    together = [[world.node(n) for n in group] for group in (one, two) if len(group) > 1]
    network = world.network(together)
    a, b = world.node(one[0]), world.node(two[0])
    if a not in network.nodes() or b not in network.nodes():
        return Told(text="open")
    ohm = network.ohm_between(a, b)
    if math.isinf(ohm) and _charges(world, a, b):
        return Told(text="rising")
    shown = world.meter_on(network).show(Request(kind="line", ends=(one[0], two[0])))
    return _read(shown.text)


def _charges(world: World, a: str, b: str) -> bool:
    """Whether a capacitor stands between two points that no direct current passes."""
    network = world.network()
    index = network.node_index()
    return any({index[a], index[b]} <= island for island in network.islands())


def _read(text: str) -> Told:
    try:
        return Told(text=text, number=float(text), unit="Ω")
    except ValueError:
        return Told(text=text)


def _to_frame(world: World, tag: str, lug_off: bool) -> Told:
    if world.lead_of[tag] == "earth":  # its lug off, nothing ties it to anything
        return Told(text="open") if lug_off else _number(world.motor.earth_ohm, "Ω")
    ohm = 1e6 * world.motor.insulation.megohm
    return Told(text="open") if ohm > OPEN_FRAME_OHM else _number(ohm, "Ω")


def _device_ohm(world: World, ask: Ask) -> Told:
    own = next((d for d in world.motor.devices if d.name == _name(ask)), None)
    if own is None:
        return Told(lacks=f"there is no {_name(ask)}")
    if own.inside and not world.covers_off:
        return Told(lacks="the covers are on")
    device = acting(own)
    if str(ask["state"]).startswith(POSITION):
        return _position(own, device, str(ask["state"]).removeprefix(POSITION).partition(",")[0])
    if len(ask["ends"]) != 2:
        return Told(lacks="it does not say between which terminals")
    device = replace(device, ohm=device.ohm or OWN_OHM.get(device.kind, 0.0))
    ends = [device.at(t) for t in ask["ends"]]
    if not set(ends) <= set(device.terminals()):
        return Told(lacks=f"{own.name} has no such terminals")
    posture = str(ask["state"])
    moment: Moment = next((m for word, m in POSTURES.items() if word in posture), "rest")
    alone = with_devices(
        Network(coils=(), leads=device.terminals()), [device], state_at([device], moment)
    )
    ohm = alone.ohm_between(*ends)
    if own.device().posts and set(ask["ends"]) == LINK and not _starts(world):
        ohm = 0.0  # its link is fitted where no capacitor takes its place
    if ohm >= OPEN_OHM / 2:
        return Told(text="open")
    contact = DIRTY_OHM if own.state == "dirty" else CONTACT_OHM
    return _number(ohm + contact, "Ω", 2)


def _starts(world: World) -> bool:
    return any(c.serves == "start" for c in world.motor.capacitors)


def _position(own: DeviceReal, device: Device, position: str) -> Told:
    """Return every pair of a switch's terminals that conducts in a position, with its ohms."""
    contact = DIRTY_OHM if own.state == "dirty" else CONTACT_OHM
    group = {t: {t} for pair in device.table.get(position, ()) for t in pair}
    for a, b in device.table.get(position, ()):
        joined = group[a] | group[b]
        group.update(dict.fromkeys(joined, joined))
    shut = sorted({tuple(sorted((a, b))) for a in group for b in group[a] if a != b})
    return Told(text="; ".join(f"{a}-{b} {contact:.2f}" for a, b in shut) or "none")


def _switch(world: World, ask: Ask) -> Told:
    """Work the start mechanism: only where the shaft and its weights can be reached."""
    inside = [d for d in world.motor.devices if d.inside and d.kind == "speed-switch"]
    if not inside:
        return Told(text="stays")
    if not world.covers_off:
        return Told(lacks="the covers are on: the mechanism cannot be reached")
    a, b = (world.node(str(e)) for e in ask["ends"])
    ohms = []
    for moment in ("rest", "run"):
        network = with_devices(
            world.inner.joined(world.nodes()), world.devices, state_at(world.devices, moment)
        )
        ohms.append(network.ohm_between(a, b))
    if math.isinf(ohms[1]) and not math.isinf(ohms[0]):
        return Told(text="opens")
    return Told(text="stays" if ohms[0] == ohms[1] else "changes")


def _probe(kind: str) -> Answer:
    """Return what asks the simulated meter of the bare winding, its devices at rest."""

    def told(world: World, ask: Ask) -> Told:
        missing = _missing(world, ask)
        if missing:
            return Told(lacks=missing)
        request = Request(
            kind=kind,
            ends=tuple(ask["ends"]),
            sense=tuple(ask["sense"]),
            lines=tuple(tuple(j) for j in ask["lines"]),
            joints=tuple(tuple(j) for j in ask["joints"]),
        )
        network = world.inner if kind == "run" else world.network()
        shown = world.meter_on(network).show(request)
        return Told(text=shown.text)

    return told


def _run(world: World, ask: Ask) -> Told:
    if ask["part"] == "hookup":
        return energised(world, ask, "low-run")
    return _probe("run")(world, ask)


def _amps(world: World, ask: Ask) -> Told:
    """Return amps of a run, or what leaks to where a hand would be: the insulation alone decides."""
    if ask["part"] == "earth":
        leak = LEAKAGE_MA + world.motor.supply.volt / (
            1e3 * max(world.motor.insulation.megohm, 0.01)
        )
        return _number(leak, "mA", 2)
    return energised(world, ask, "clamp" if ask["ends"] else "trial")


def _insulation(world: World, ask: Ask) -> Told:
    if ask["part"] == "commutator":
        return _number(max(world.motor.insulation.megohm, 0.01), "MΩ")
    own = world.motor.insulation
    shown = own.megohm * world.chance.gauss(1, 0.01)
    if ask["type"] == "text":  # a line of a field sheet wants °C with it
        return Told(text=f"{shown:.3g} 20")
    return _number(max(shown, 0.0), "MΩ")


def _bond(world: World, ask: Ask) -> Told:
    if world.motor.class_ == "II":
        return Told(lacks="there is no earth: class II")
    if len(ask["choices"]) > 1 and world.motor.earth_ohm < OPEN_FRAME_OHM:  # every place at once
        return Told(text=f"{len(ask['choices'])}x{world.motor.earth_ohm:.2f}")
    if world.motor.earth_ohm >= 1e6:
        return Told(text=f"{world.motor.earth_ohm / 1e6:g} MΩ")
    return (
        Told(number=world.motor.earth_ohm, unit="Ω", text=f"{world.motor.earth_ohm:.2f}")
        if world.motor.earth_ohm < OPEN_FRAME_OHM
        else Told(text="open")
    )


def _direction(world: World, ask: Ask) -> Told:
    """Return which way it turns; on site one bump shows it."""
    if ask["part"] == "shaft" and ask["reader"] == "site":
        told = energised(world, ask, "turning")
        if told.lacks.startswith("off at once"):
            return told
    return eyes.direction(world, ask)


def _volt(world: World, ask: Ask) -> Told:
    if ask["part"] == "bench":
        return Told(text=DEAD_VOLT, number=0.1, unit="V")
    if ask["part"].startswith("capacitor"):
        return Told(text=DRAINED_VOLT, number=0.3, unit="V")
    own = world.motor.supply
    if ask["part"] == "run":  # at its terminals, under load
        return Told(text=own.measured or f"{own.volt:g}")
    rated = figures(world.motor.plate.text, "hertz")
    if not rated or {"hertz", "phases", "volt"} & set(world.motor.plate.unreadable):
        return Told(text=f"{own.phases}~ {own.volt:g} V {own.hertz:g} Hz")
    if ask["type"] == "number" and rated and own.hertz not in rated:  # said: it is not the plate's
        return Told(text=f"{own.volt:g} V {own.hertz:g} Hz")
    if ask["type"] == "number":
        return Told(number=own.volt, unit="V", text=f"{own.volt:g} V")
    text = own.measured or f"{own.volt:g}"
    other = ask["reader"] == "site" and rated and own.hertz not in rated
    return Told(text=f"{text} {own.hertz:g} Hz" if other else text)


def _microfarad(world: World, ask: Ask) -> Told:
    own = next((c for c in world.motor.capacitors if c.name == _name(ask)), None)
    if own is None:
        return Told(lacks=f"there is no {_name(ask)}")
    if own.shorted or not own.microfarad:
        return Told(text="shorted" if own.shorted else "open")
    return _number(own.microfarad * world.chance.gauss(1, 0.003), "µF", 4)


def _with_shaft(kind: str) -> Answer:
    """Return what turns the shaft to see: not where it is seized."""

    def told(world: World, ask: Ask) -> Told:
        if world.motor.shaft.feel == "seized":
            return Told(lacks="the shaft does not turn")
        return _probe(kind)(world, ask)

    return told


TELLERS: Mapping[str, Answer] = {
    "ohm": _ohm,
    "kick": _probe("kick"),
    "series": _probe("series"),
    "spin": _with_shaft("spin"),
    "turn": _with_shaft("shaft"),
    "switch": _switch,
    "run": _run,
    "amp": _amps,
    "step": lambda w, a: energised(w, a, "trial"),
    "start": lambda w, a: energised(w, a, "start"),
    "turning": lambda w, a: energised(w, a, "turning"),
    "heard": lambda w, a: energised(w, a, "drop-in"),
    "insulation": _insulation,
    "bond": _bond,
    "volt": _volt,
    "microfarad": _microfarad,
    "plate": eyes.plate,
    "inventory": eyes.inventory,
    "print": eyes.prints,
    "size": eyes.size,
    "feel": eyes.feel,
    "look": eyes.look,
    "direction": _direction,
    "tick": eyes.tick,
    "work": worked,
    "word": eyes.word,
}
