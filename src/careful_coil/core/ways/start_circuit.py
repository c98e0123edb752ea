"""Where devices of a single-phase motor belong: line switch, protector, start circuit, selector.

The start circuit runs from the line, where a current or hot-wire relay stands before the main
winding, through switch, start capacitor and a voltage relay's contact to the start winding; a run
capacitor bridges all of that. A voltage relay's coil lies across the start winding, on the motor's
side of the protector (trade practice for potential relays).
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from careful_coil.core.errors import CannotPlace
from careful_coil.core.ways.devices import POSITIONED, POSTS, Device
from careful_coil.core.ways.states import OFF, position_words
from careful_coil.core.ways.way import Joint

Joints = tuple[Joint, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Outline:
    """A single-phase winding without its devices: which leads go where.

    `main` and `back` the main winding's ends, `start` and `back_start` the start winding's (the last
    empty where it ends inside); `near` where the start circuit begins if not at the line; `taps`
    leads by speed, fastest first, standing in for `main` or `back` as `tapped` says.
    """

    line: str = "L1"
    back_line: str = "L2"
    main: Joint = ()
    start: Joint = ()
    back: Joint = ()
    back_start: Joint = ()
    near: Joint = ()
    taps: Joint = ()
    tapped: str = ""
    rest: Joints = ()


_NOTES = {
    "relay-current": "{0}: L to the line, M to the main winding, S to the start circuit; mounted the "
    "right way up, or its weight holds the contact closed.",
    "relay-voltage": "{0}: its coil, 5 to 2, lies across the start winding on the motor's side of the "
    "protector. Makers number otherwise: go by the coil's ohms.",
    "ptc": "{0} needs an overload of its own and minutes to cool before another start.",
    "hot-wire": "{0} is an obsolete kind: a start thermistor or an electronic switch can take its place.",
    "electronic-switch": "{0}: the old switch's leads come off. Not to be insulation-tested.",
    "capacitor-dual": "{0}: section b serves another motor; insulate it here.",
}
_POSTS = (
    "{0}: 1 to the line, M to the main winding, 3 to the start winding; the start capacitor between 2 and 3, or "
    "their link where there is none, never both; mounted the right way up."
)
_THREE = "{0}: contact from 1 to 3, heater from 3 to 2, as it is usually marked; the maker's diagram decides."


def device_notes(devices: Iterable[Device]) -> tuple[str, ...]:
    """Return what is said of each device in a plan."""
    noted = [d for d in devices if d.kind in _NOTES]
    said = [_NOTES[d.kind].format(d.name) for d in noted]
    said = [_POSTS.format(d.name) if d.posts else s for d, s in zip(noted, said, strict=True)]
    return (*said, *(_THREE.format(d.name) for d in devices if d.three))


def poles_of(device: Device) -> tuple[tuple[str, str], ...]:
    """Return the poles of an on and off switch, by terminal; () where it is something else."""
    if device.kind == "contactor" and not device.table:
        return tuple((a.split(".")[-1], b.split(".")[-1]) for a, b in device.contacts("run", "on"))
    closed = [device.table[p] for p, w in position_words(device).items() if w != OFF]
    return tuple(closed[0]) if len(closed) == 1 else ()


@dataclass(frozen=True, slots=True)
class Throws:
    """A switch of one common terminal and a throw for each speed; `also` poles in at every speed."""

    common: str
    throws: tuple[str, ...]
    also: tuple[tuple[str, str], ...] = ()


def throws_of(device: Device) -> Throws | None:
    """Return how a switch with several positions besides off throws; None if it is built otherwise."""
    closed = [device.table[p] for p, w in position_words(device).items() if w != OFF]
    if len(closed) < 2:
        return None
    always = set.intersection(*(set(c) for c in closed))
    thrown = [[pair for pair in c if pair not in always] for c in closed]
    if any(len(c) != 1 for c in thrown):
        return None
    common = set.intersection(*(set(c[0]) for c in thrown))
    if len(common) != 1:
        return None
    own = next(iter(common))
    throws = tuple(next(t for t in c[0] if t != own) for c in thrown)
    also = tuple(pair for pair in closed[0] if pair in always)
    return Throws(own, throws, also) if len(set(throws)) == len(throws) else None


@dataclass(frozen=True, slots=True)
class Crossing:
    """A switch that joins a–c, b–d one way and a–d, b–c the other; `also` poles in both ways.

    `off` whether it has a position in which nothing of it is closed.
    """

    a: str
    b: str
    c: str
    d: str
    also: tuple[tuple[str, str], ...] = ()
    off: bool = False


LINE_NAMES = ("L", "N", "L1", "L2")  # terminals that a maker means for the supply


def crossing_of(device: Device) -> Crossing | None:
    """Return how a reversing switch crosses a winding's ends, its supply side first; None if it is built otherwise."""
    words = position_words(device)
    closed = [device.table[p] for p, w in words.items() if w != OFF]
    if len(closed) != 2:
        return None
    one, two = ({frozenset(pair) for pair in c} for c in closed)
    crossed = [pair for pair in closed[0] if frozenset(pair) not in two]
    if len(crossed) != 2 or len(two - one) != 2:
        return None
    (a, c), (b, d) = crossed
    if two - one != {frozenset((a, d)), frozenset((b, c))}:
        b, d = d, b
    if two - one != {frozenset((a, d)), frozenset((b, c))}:
        return None
    if {c, d} & set(LINE_NAMES):
        a, b, c, d = c, d, a, b
    also = tuple(pair for pair in closed[0] if frozenset(pair) in two)
    return Crossing(a, b, c, d, also, OFF in words.values())


def ends_of(device: Device) -> tuple[str, str, str, str]:
    """Return a, b, c, d of a switch that crosses a winding's ends. Raises: CannotPlace for any other."""
    made = crossing_of(device)
    if made is None:
        raise CannotPlace(f"{device.name}: its table crosses nothing.")
    return made.a, made.b, made.c, made.d


@dataclass(slots=True)
class _Kit:
    """Devices by where they belong."""

    line: list[Device]
    relay: Device | None  # current or hot-wire
    contacts: list[Device]
    voltage: Device | None
    starts: list[Device]
    runs: list[Device]
    bleeds: list[Device]
    protector: Device | None
    selector: Device | None
    crossing: Device | None


def _one(devices: Sequence[Device], *kinds: str) -> Device | None:
    found = [d for d in devices if d.kind in kinds]
    if len(found) > 1:
        names = " and ".join(d.name for d in found)
        raise CannotPlace(f"{names}: a plan here takes one of them.")
    return found[0] if found else None


def _sorted(devices: Sequence[Device]) -> _Kit:
    starters = [d for d in devices if d.switches]
    if len({d.kind for d in starters}) > 1 or (
        len(starters) > 1 and starters[0].kind != "speed-switch"
    ):
        names = " and ".join(d.name for d in starters)
        raise CannotPlace(
            f"{names} each take the start winding out: a motor has one start device. Take the old one's "
            "leads off."
        )
    switches = [d for d in devices if d.kind in POSITIONED]
    kit = _Kit(
        line=[d for d in switches if poles_of(d)],
        relay=_one(devices, "relay-current", "hot-wire"),
        contacts=[d for d in starters if d.kind in ("speed-switch", "ptc", "electronic-switch")],
        voltage=_one(devices, "relay-voltage"),
        starts=[d for d in devices if d.kind == "capacitor-start"],
        runs=[d for d in devices if d.kind in ("capacitor-run", "capacitor-dual")],
        bleeds=[d for d in devices if d.kind == "resistor"],
        protector=_one(devices, "protector"),
        selector=None,
        crossing=None,
    )
    if len(kit.line) > 1:
        _one(kit.line, *POSITIONED)
    for d in switches:
        if d in kit.line:
            continue
        if d.kind == "selector" and throws_of(d) and kit.selector is None:
            kit.selector = d
        elif crossing_of(d) and kit.crossing is None:
            kit.crossing = d
        else:
            raise CannotPlace(f"{d.name}: its table is none that a plan here can place.")
    links = [d.name for d in devices if d.kind == "link"]
    if links:
        raise CannotPlace(
            f"{', '.join(links)}: a link is a joint of its own; no plan here needs it."
        )
    if kit.voltage and not kit.starts:
        raise CannotPlace(
            f"{kit.voltage.name}: a voltage relay always works with a start capacitor."
        )
    if kit.bleeds and not kit.starts:
        raise CannotPlace(
            f"{kit.bleeds[0].name}: a bleed resistor belongs across a start capacitor."
        )
    return kit


def placed(outline: Outline, devices: Sequence[Device]) -> Joints:
    """Return the joints of a winding with its devices. Raises: CannotPlace."""
    return _Placing(outline, _sorted(devices)).joints()


class _Placing:
    """Joints as they grow: each a list that later devices still put terminals into."""

    def __init__(self, outline: Outline, kit: _Kit) -> None:
        self._o, self._kit = outline, kit
        self._bridge: list[str] = []  # where run capacitors begin
        self._made: list[list[str]] = [list(j) for j in outline.rest]

    def joints(self) -> Joints:
        """Return all joints."""
        kit = self._kit
        if not self._o.start and (kit.relay or kit.contacts or kit.starts or kit.runs):
            raise CannotPlace("This winding has no start winding for these devices.")
        line, back = self._lines()
        start, back_start = [*self._o.start], [*self._o.back_start]
        self._isolated()
        start, back_start = self._crossed(start, back_start)
        begin = self._main(line)
        self._circuit(begin, start)
        self._back(back, back_start)
        made = [tuple(dict.fromkeys(j)) for j in self._made if len(j) > 1]
        return tuple(sorted(made, key=lambda j: ("L1" not in j) + ("L2" in j)))

    def _node(self, *names: str) -> list[str]:
        node = [*names]
        self._made.append(node)
        return node

    def _lines(self) -> tuple[list[str], list[str]]:
        """Return the nodes behind a switch in the lines, else the lines themselves."""
        ends = [self._node(self._o.line), self._node(self._o.back_line)]
        for d in self._kit.line:
            poles = poles_of(d)
            if len(poles) > 2:
                raise CannotPlace(f"{d.name} has {len(poles)} poles; one phase has two lines.")
            for k, (a, b) in enumerate(poles):
                ends[k].append(d.at(a))
                ends[k] = self._node(d.at(b))
        switch = self._kit.crossing
        made = crossing_of(switch) if switch is not None and not self._kit.line else None
        if switch is not None and made is not None:
            for k, (a, b) in enumerate(made.also[:2]):
                ends[k].append(switch.at(a))
                ends[k] = self._node(switch.at(b))
        return ends[0], ends[1]

    def _isolated(self) -> None:
        """Refuse a reversing switch whose off parts the start winding alone."""
        switch = self._kit.crossing
        made = crossing_of(switch) if switch else None
        if (
            switch is not None
            and made is not None
            and made.off
            and not made.also
            and not self._kit.line
        ):
            raise CannotPlace(
                f"{switch.name}: off would leave the main winding on the line. It needs a switch in both "
                "lines before it, or a drum with a pole for the line."
            )

    def _tapped(self, node: list[str], side: str, leads: Joint) -> None:
        """Put a side's leads on its node, through the selector where the taps are there."""
        selector = self._kit.selector
        if self._o.tapped != side or selector is None:
            node += leads
            return
        made = throws_of(selector)
        if made is None or len(made.throws) != len(self._o.taps):
            raise CannotPlace(f"{selector.name} must have {len(self._o.taps)} speeds.")
        node.append(selector.at(made.common))
        for tap, throw in zip(self._o.taps, made.throws, strict=True):
            self._node(tap, selector.at(throw))

    def _poled(self, node: list[str]) -> list[str]:
        """Return the node behind the selector's contact that is in at every speed, if it has one."""
        selector = self._kit.selector
        made = throws_of(selector) if selector else None
        if selector is None or made is None or not made.also:
            return node
        a, b = made.also[0]
        node.append(selector.at(a))
        return self._node(selector.at(b))

    def _main(self, line: list[str]) -> list[str]:
        """Put the main winding on the line; return where the start circuit begins."""
        relay, o = self._kit.relay, self._o
        if self._kit.selector is not None and not o.taps:
            raise CannotPlace(f"{self._kit.selector.name}: this winding has no speed taps.")
        if relay is None:
            begin = next((j for j in self._made if set(o.near) & set(j)), line)
            if o.tapped == "main":
                begin = self._poled(line) if o.start else line
                if begin is line and o.start and self._kit.selector and not self._kit.line:
                    raise CannotPlace(
                        f"{self._kit.selector.name}: off would leave the start winding on the line. It "
                        "needs a contact of its own for it, in at every speed, or a line switch."
                    )
            elif o.tapped:
                begin = line = self._poled(line)
            self._tapped(line, "main", o.main)
            self._bridge = begin
            return begin
        if o.near:
            raise CannotPlace(f"{relay.name} would put the line's volts on the start winding here.")
        (near, out), (_, end) = relay.pulled
        line.append(relay.at(near))
        self._bridge = self._node(relay.at(end))
        self._tapped(self._bridge, "main", o.main)
        return self._node(relay.at(out))

    def _crossed(self, start: list[str], back_start: list[str]) -> tuple[list[str], list[str]]:
        crossing = self._kit.crossing
        if crossing is None:
            return start, back_start
        if not start or not back_start:
            raise CannotPlace(
                f"{crossing.name}: both ends of the start winding must come out to be reversed."
            )
        a, b, c, d = (crossing.at(t) for t in ends_of(crossing))
        own = [n for n in back_start if n not in self._shared()]
        self._node(c, *start)
        self._node(d, *own)
        return [a], [b, *(n for n in back_start if n not in own)]

    def _shared(self) -> set[str]:
        """Return leads of the second main half that only lie in the start winding's joint."""
        return {"T2"} & set(self._o.back_start)

    def _circuit(self, begin: list[str], start: list[str]) -> None:
        """Chain switch, start capacitors and a voltage relay's contact; run capacitors bridge them."""
        kit, node = self._kit, begin
        for d in kit.contacts:
            node.append(d.at("1"))
            node = self._node(d.at("2"))
        if kit.starts:
            node += [d.at("1") for d in (*kit.starts, *kit.bleeds)]
            node = self._node(*(d.at("2") for d in (*kit.starts, *kit.bleeds)))
        if kit.voltage:
            node.append(kit.voltage.at("1"))
            node = self._node(kit.voltage.at("2"))
        if node is begin and kit.runs and begin is self._bridge:
            node = self._node()
        node += start
        if kit.relay and kit.relay.posts:  # with no capacitor its link joins 2 to 3
            node.append(kit.relay.at(POSTS[-1]))
        node += [d.at(d.watches[0]) for d in kit.contacts if d.watches]
        for d in kit.runs:
            one, two = ("common", "a") if d.kind == "capacitor-dual" else ("1", "2")
            self._bridge.append(d.at(one))
            node.append(d.at(two))

    def _back(self, back: list[str], back_start: list[str]) -> None:
        kit = self._kit
        coil = [kit.voltage.at("5")] if kit.voltage else []
        coil += [d.at(d.watches[1]) for d in kit.contacts if d.watches]
        if kit.protector is not None:
            back.append(kit.protector.at("1"))
            back = self._node(kit.protector.at("2"))
            if kit.protector.three:
                if not back_start:
                    raise CannotPlace(
                        f"{kit.protector.name}: three terminals need both windings' ends apart."
                    )
                self._node(kit.protector.at("3"), *back_start, *coil)
                back_start, coil = [], []
        back += coil
        self._tapped(back, "back", self._o.back)
        back += back_start
