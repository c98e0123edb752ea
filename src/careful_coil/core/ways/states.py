"""What the devices of a hookup stand at: start or run, speed, direction, stage of starting, off.

Words are those of the hookup document. Positions called otherwise are speeds in their order on a
selector, forward and reverse on a reversing switch; a position without contacts is off.
"""

import itertools
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from careful_coil.core.errors import BadDocument
from careful_coil.core.ways.devices import POSITIONED, Contact, Device, Moment
from careful_coil.core.winding.network import Capacitor, Network, Part

OFF = "off"
DIRECTIONS = ("forward", "reverse")
STAGES = (("star", "delta"), ("first-half", "run"))
_WORDS = (OFF, "start", "run", *DIRECTIONS, "first-half", "star", "delta")
_SPEED = re.compile(r"speed-[1-9]\d?")
_ALWAYS = ("on", "closed")  # a contactor that is in whatever the stage
SERIES = ("relay-current", "hot-wire", "protector")  # parts that line volts pass as good as whole


@dataclass(frozen=True, slots=True)
class State:
    """What everything stands at: the moment of start devices and protector, the positions by device.

    `name` is the word for it; `words` what it is made of besides the moment.
    """

    name: str
    moment: Moment
    positions: tuple[tuple[str, str], ...] = ()
    words: tuple[str, ...] = ()

    @property
    def speed(self) -> str:
        """Return the speed's word, empty where there is one speed."""
        return next((w for w in self.words if _SPEED.fullmatch(w)), "")

    @property
    def direction(self) -> str:
        """Return forward or reverse, empty where no switch has them."""
        return next((w for w in self.words if w in DIRECTIONS), "")

    def position(self, device: Device) -> str:
        """Return what a device with positions stands at."""
        return dict(self.positions).get(device.name, "")


def position_words(device: Device) -> dict[str, str]:
    """Return for each position of a device its word, in order.

    Raises: BadDocument for a contactor's position that is no state, and for two of one word.
    """
    found: dict[str, str] = {}
    speeds = turns = 0
    for position, closed in device.table.items():
        name = position.strip().lower()
        if name in _WORDS or _SPEED.fullmatch(name):
            word = name
        elif name in _ALWAYS:
            word = "on"
        elif not closed:
            word = OFF
        elif device.kind == "selector":
            speeds += 1
            word = f"speed-{speeds}"
        elif device.kind == "reversing-switch" and turns < len(DIRECTIONS):
            word = DIRECTIONS[turns]
            turns += 1
        else:
            raise BadDocument(
                f"devices {device.name}, table", position, "a state: " + ", ".join(_WORDS)
            )
        if word in found.values():
            raise BadDocument(f"devices {device.name}, table", f"{word} twice", "each state once")
        found[position] = word
    if device.kind == "selector" and [w for w in found.values() if w != OFF] == ["speed-1"]:
        found = {p: "on" if w == "speed-1" else w for p, w in found.items()}
    return found


def states_of(devices: Sequence[Device]) -> tuple[State, ...]:
    """Return every state in which the motor is meant to be fed, start and run of the first first."""
    manual = [d for d in devices if d.kind in POSITIONED]
    words = {w for d in manual for w in position_words(d).values()}
    directions = [w for w in DIRECTIONS if w in words] or [""]
    speeds = sorted((w for w in words if _SPEED.fullmatch(w)), key=lambda w: int(w[6:])) or [""]
    stages = next((s for s in STAGES if s[0] in words), ("start", "run"))
    moments: tuple[Moment, Moment] = ("start", "run")
    found = []
    for direction, speed in itertools.product(directions, speeds):
        own = tuple(w for w in (speed, direction) if w)
        for stage, moment in zip(stages, moments, strict=True):
            name = ", ".join((stage, *own)) if own else stage
            at = tuple((d.name, _at(d, {*own, stage})) for d in manual)
            found.append(State(name, moment, at, (*own, stage)))
    return tuple(found)


def off_of(devices: Sequence[Device]) -> State | None:
    """Return the state off, None where nothing can be switched off."""
    manual = [d for d in devices if d.kind in POSITIONED]
    if not any(d.kind == "contactor" or OFF in position_words(d).values() for d in manual):
        return None
    return State(OFF, "rest", tuple((d.name, _at(d, {OFF})) for d in manual))


def tripped_of(devices: Sequence[Device]) -> State | None:
    """Return the first state with the protector open, None where there is none."""
    if not any(d.kind == "protector" for d in devices):
        return None
    return replace(states_of(devices)[0], name="protector open", moment="tripped")


def states_by_name(devices: Sequence[Device]) -> dict[str, State]:
    """Return what devices stand at, by name, off and with the protector open last."""
    every = [*states_of(devices), off_of(devices), tripped_of(devices)]
    return {s.name: s for s in every if s is not None}


def state_at(devices: Sequence[Device], moment: Moment) -> State:
    """Return the first state of a moment; at rest nothing is fed yet, switches stand at their first."""
    first, second = states_of(devices)[:2]
    state = second if moment == "run" else first
    return state if state.moment == moment else replace(state, name=moment, moment=moment)


def _at(device: Device, words: set[str]) -> str:
    """Return the position of a device in a state of these words, empty: all its contacts open."""
    known = position_words(device)
    for position, word in known.items():
        if word in words:
            return position
    if device.kind == "contactor" and not device.table:
        return OFF if OFF in words else "on"
    if OFF in words:
        always = next(iter(known)) if device.kind == "reversing-switch" else ""
        return always
    always = next((p for p, w in known.items() if w == "on"), "")
    if always or device.kind == "contactor":
        return always
    return next((p for p, w in known.items() if w != OFF), "")


def with_devices(network: Network, devices: Sequence[Device], state: State) -> Network:
    """Return a hookup with its devices in a state; their terminals become nodes."""
    capacitors: list[Capacitor] = list(network.capacitors)
    parts: list[Part] = list(network.parts)
    contacts: list[Contact] = []
    base = min((c.ohm for c in network.coils), default=1.0)
    for d in devices:
        contacts += d.contacts(state.moment, state.position(d))
        parts += d.parts(state.moment, base)
        capacitors += _capacitors(d)
    made = replace(network, capacitors=tuple(capacitors), parts=tuple(parts))
    alone = [(end,) for d in devices for end in d.terminals()]  # every terminal is a node
    return made.joined([*contacts, *alone])


def _capacitors(device: Device) -> Iterator[Capacitor]:
    ends = device.terminals()
    if device.kind == "capacitor-dual":
        for name, end, farad in (
            ("a", ends[1], device.microfarad),
            ("b", ends[2], device.second),
        ):
            yield Capacitor(
                name=f"{device.name}.{name}", start=ends[0], finish=end, microfarad=farad
            )
    elif device.kind.startswith("capacitor"):
        yield Capacitor(
            name=device.name, start=ends[0], finish=ends[1], microfarad=device.microfarad
        )


def tied(network: Network) -> dict[str, int]:
    """Return for each node its number when relay coils in series and heaters count as wire."""
    through = [(p.start, p.finish) for p in network.parts if p.kind in SERIES]
    return dict((network.joined(through) if through else network).node_index())
