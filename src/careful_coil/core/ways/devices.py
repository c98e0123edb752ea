"""Parts between leads and lines: their terminals, and what of them conducts in a state.

Kinds and terminals are those of the hookup document. Contacts join terminals; what has ohms (relay
coils, heaters, a thermistor) is a resistive part. Numbering of relays and protectors differs by
maker: here 1 and 2 are a voltage relay's contact and 5 to 2 its coil; a protector of three terminals
has its contact from 1 to 3 and its heater from 3 to 2. A current relay with posts for its capacitor has
its coil from 1 to M, its contact from 1 to 2, and 3 for the start winding: a link or the capacitor joins 2 to 3.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

from careful_coil.core.errors import BadDocument
from careful_coil.core.winding.network import Part

Moment = Literal["rest", "start", "run", "tripped"]
Contact = tuple[str, str]
CAPACITORS = ("capacitor-start", "capacitor-run", "capacitor-dual")
POSITIONED = ("selector", "reversing-switch", "contactor")
RELAY_COIL_OHM = 10_000.0  # a voltage relay's own coil: some kΩ to about 20 kΩ
SENSING = (
    "3",
    "4",
)  # leads of an electronic switch that watch the start winding's volts, where it has them
POSTS = ("1", "2", "M", "3")  # of a current relay with terminals for its capacitor
SENSING_OHM = 1e6  # what they draw: next to nothing
PTC_HOT_OHM = 20_000.0  # a hot start thermistor: tens of kΩ
SERIES_SHARE = 0.01  # ohms of a series element that names none, over the least coil's
POLES: tuple[Contact, ...] = (("1", "2"), ("3", "4"), ("5", "6"))  # IEC 60947-4-1, main contacts
_NAMED = {
    "capacitor-dual": ("common", "a", "b"),
    "relay-current": ("L", "M", "S"),
    "hot-wire": ("L", "M", "S"),
    "relay-voltage": ("1", "2", "5"),
}
# kind → contacts closed with the power off, while starting, in run
_Closed = tuple[tuple[Contact, ...], tuple[Contact, ...], tuple[Contact, ...]]
_ONE: tuple[Contact, ...] = (("1", "2"),)
_START: tuple[Contact, ...] = (("L", "S"),)
_CLOSED: dict[str, _Closed] = {
    "electronic-switch": ((), _ONE, ()),  # what it reads with the power off is the maker's
    "relay-current": ((), _START, ()),  # open upright, pulled in by the main winding's inrush
    "hot-wire": (_START, _START, ()),
    "relay-voltage": (_ONE, _ONE, ()),
    "link": (_ONE, _ONE, _ONE),
}
_SWITCH: dict[str, _Closed] = {"opens": (_ONE, _ONE, ()), "closes": ((), (), _ONE)}
START_DEVICES = (
    "speed-switch",
    "ptc",
    "electronic-switch",
    "relay-current",
    "hot-wire",
    "relay-voltage",
)
KINDS = (*CAPACITORS, *START_DEVICES, "protector", "link", "resistor", *POSITIONED)


@dataclass(frozen=True, slots=True, kw_only=True)
class Device:
    """A part by name; µF of a capacitor (a dual one: `microfarad` of a, `second` of b).

    `ohm` in Ω: a resistor's, a cold thermistor's, a relay coil's or a heater's own, 0 a usual one;
    `table` contacts closed in each position, by terminal; `ends` terminals it has besides the usual.
    """

    name: str
    kind: str
    microfarad: float = 0.0
    second: float = 0.0
    ohm: float = 0.0
    action: str = "opens"
    table: Mapping[str, tuple[Contact, ...]] = field(default_factory=dict)
    ends: tuple[str, ...] = ()

    def terminals(self) -> tuple[str, ...]:
        """Return its terminals as joints name them: C1.1, C1.2."""
        return tuple(self.at(t) for t in self._own())

    def at(self, terminal: str) -> str:
        """Return a terminal as joints name it."""
        return f"{self.name}.{terminal}"

    def _own(self) -> tuple[str, ...]:
        if self.kind in POSITIONED and self.table:
            pairs = (t for closed in self.table.values() for pair in closed for t in pair)
            return tuple(dict.fromkeys((*pairs, *self.ends)))
        if self.kind == "contactor":
            poles = [p for p in POLES if set(p) & set(self.ends)] or POLES[:1]
            return tuple(t for p in poles for t in p)
        usual = POSTS if self.posts else _NAMED.get(self.kind, ("1", "2"))
        more = self.ends if self.kind in ("protector", "relay-voltage", "electronic-switch") else ()
        return tuple(dict.fromkeys((*usual, *more)))

    @property
    def switches(self) -> bool:
        """Whether it takes something out of circuit as the motor comes up to speed."""
        return self.kind in START_DEVICES and not (
            self.kind == "speed-switch" and self.action == "closes"
        )

    @property
    def watches(self) -> tuple[str, ...]:
        """Return the terminals by which it watches the start winding's volts; () for one that does not."""
        if self.kind == "relay-voltage":
            return ("5", "2")
        sensing = self.kind == "electronic-switch" and set(SENSING) <= set(self.ends)
        return SENSING if sensing else ()

    @property
    def posts(self) -> bool:
        """Whether it is a current relay whose capacitor's terminals, 2 and 3, are its own."""
        return self.kind == "relay-current" and bool({"1", "2", "3"} & set(self.ends))

    @property
    def pulled(self) -> tuple[Contact, Contact]:
        """Return the contact and the coil (or hot wire) of a relay in the main winding's amps."""
        return (("1", "2"), ("1", "M")) if self.posts else (("L", "S"), ("L", "M"))

    @property
    def three(self) -> bool:
        """Whether it is a protector of three terminals."""
        return self.kind == "protector" and "3" in self.ends

    def contacts(self, moment: Moment, position: str = "") -> tuple[Contact, ...]:
        """Return the pairs of its terminals that are joined; `position` of one that has several."""
        if self.kind in POSITIONED:
            closed = self.table.get(position, ())
            if self.kind == "contactor" and not self.table and position != "off":
                closed = tuple(p for p in POLES if p[0] in self._own())
        elif self.three:
            closed = () if moment == "tripped" else (("1", "3"),)
        else:
            each = _SWITCH[self.action] if self.kind == "speed-switch" else _CLOSED.get(self.kind)
            closed = each[{"rest": 0, "run": 2}.get(moment, 1)] if each else ()
            closed = (self.pulled[0],) if self.posts and closed else closed
        return tuple((self.at(a), self.at(b)) for a, b in closed)

    def parts(self, moment: Moment, base_ohm: float) -> tuple[Part, ...]:
        """Return what of it has ohms; `base_ohm` the least coil's, to which usual ohms are scaled."""
        series = self.ohm or SERIES_SHARE * base_ohm
        found: dict[str, tuple[str, str, float]] = {
            "relay-voltage": ("5", "2", self.ohm or RELAY_COIL_OHM),
            "relay-current": (*self.pulled[1], series),
            "hot-wire": (*self.pulled[1], series),
            "ptc": ("1", "2", PTC_HOT_OHM if moment == "run" else series),
            "resistor": ("1", "2", self.ohm),
        }
        if self.kind == "electronic-switch" and self.watches:
            found["electronic-switch"] = (*SENSING, SENSING_OHM)
        if self.kind == "protector":
            if self.three:
                found["protector"] = ("3", "2", series)
            elif moment != "tripped":
                found["protector"] = ("1", "2", series)
        if self.kind not in found:
            return ()
        a, b, ohm = found[self.kind]
        return (Part(name=self.name, kind=self.kind, start=self.at(a), finish=self.at(b), ohm=ohm),)


def check_devices(devices: Sequence[Device]) -> None:
    """Refuse devices that cannot be worked with. Raises: BadDocument."""
    names = [d.name for d in devices]
    for d in devices:
        where = f"devices {d.name}"
        if names.count(d.name) > 1:
            raise BadDocument("devices", f"{d.name} twice", "a name of its own for each device")
        if d.kind not in KINDS:
            raise BadDocument(where, d.kind, "one of " + ", ".join(KINDS))
        if d.kind in CAPACITORS and not d.microfarad > 0:
            raise BadDocument(where, f"{d.microfarad:g} µF", "a capacity above nothing")
        if d.kind == "capacitor-dual" and not d.second > 0:
            raise BadDocument(where, f"{d.second:g} µF", "two capacities, of a and of b")
        if d.kind == "resistor" and not d.ohm > 0:
            raise BadDocument(where, f"{d.ohm:g} Ω", "ohms above nothing")
        if d.kind == "speed-switch" and d.action not in _SWITCH:
            raise BadDocument(where, d.action, "opens or closes")
        _check_table(d, sum(other.kind == "contactor" for other in devices))


def _check_table(device: Device, contactors: int) -> None:
    where = f"devices {device.name}, table"
    wanted = "a position table {position: [[terminal, terminal], …]}"
    if device.table and device.kind not in POSITIONED:
        raise BadDocument(where, f"positions of a {device.kind}", "none: its contacts are known")
    if not device.table:
        if device.kind in ("selector", "reversing-switch"):
            raise BadDocument(where, "nothing", wanted)
        if device.kind == "contactor" and contactors > 1:
            raise BadDocument(
                where, "nothing", f"{wanted}: in which state each of several contactors is closed"
            )
        return
    for position, closed in device.table.items():
        for a, b in closed:
            if a == b or not a or not b:
                raise BadDocument(f"{where} {position}", f"{a} to {b}", "two terminals")
    if not any(device.table.values()):
        raise BadDocument(where, "no contact in any position", wanted)
