"""Parts between leads and lines: which of their terminals are joined in which state.

Here a device is plain contacts, capacitors and resistors: closed at rest or not, closed in run or
not. Kinds and terminals are those of the hookup document.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from careful_coil.core.errors import BadDocument, NotKnownYet
from careful_coil.core.winding.network import Capacitor, Network, Part

State = Literal["start", "run"]
CAPACITORS = ("capacitor-start", "capacitor-run", "capacitor-dual")
RELAY_COIL_OHM = 10_000.0  # a voltage relay's own coil: some kΩ to about 20 kΩ
Contact = tuple[str, str]
# kind → contacts closed at rest and while starting, contacts closed in run
_CONTACTS: dict[str, tuple[tuple[Contact, ...], tuple[Contact, ...]]] = {
    "ptc": ((("1", "2"),), ()),
    "electronic-switch": ((("1", "2"),), ()),
    "relay-current": ((("L", "M"), ("L", "S")), (("L", "M"),)),
    "hot-wire": ((("L", "M"), ("L", "S")), (("L", "M"),)),
    "relay-voltage": ((("1", "2"),), ()),
    "protector": ((("1", "2"),), (("1", "2"),)),
    "link": ((("1", "2"),), (("1", "2"),)),
}
_SWITCH: dict[str, tuple[tuple[Contact, ...], tuple[Contact, ...]]] = {
    "opens": ((("1", "2"),), ()),
    "closes": ((), (("1", "2"),)),
}
_POSITIONS = ("selector", "reversing-switch", "contactor")
KINDS = (*CAPACITORS, "speed-switch", *_CONTACTS, "resistor", *_POSITIONS)


@dataclass(frozen=True, slots=True, kw_only=True)
class Device:
    """A part by name; µF of a capacitor (a dual one: `microfarad` of a, `second` of b), Ω of a resistor."""

    name: str
    kind: str
    microfarad: float = 0.0
    second: float = 0.0
    ohm: float = 0.0
    action: str = "opens"
    table: Mapping[str, tuple[Contact, ...]] = field(default_factory=dict)

    def terminals(self) -> tuple[str, ...]:
        """Return its terminals as joints name them: C1.1, C1.2."""
        if self.kind == "capacitor-dual":
            own: tuple[str, ...] = ("common", "a", "b")
        elif self.kind in ("relay-current", "hot-wire"):
            own = ("L", "M", "S")
        elif self.kind == "relay-voltage":
            own = ("1", "2", "5")
        else:
            own = ("1", "2")
        return tuple(f"{self.name}.{t}" for t in own)

    @property
    def switches(self) -> bool:
        """Whether it takes something out of circuit as the motor comes up to speed."""
        return self.contacts("start") != self.contacts("run")

    def contacts(self, state: State) -> tuple[Contact, ...]:
        """Return the pairs of its terminals that are joined in a state."""
        if self.kind in _POSITIONS:
            raise NotKnownYet(
                f"Device {self.name}: working out the positions of a {self.kind}",
                ", ".join(k for k in KINDS if k not in _POSITIONS),
            )
        closed = (
            _SWITCH[self.action]
            if self.kind == "speed-switch"
            else _CONTACTS.get(self.kind, ((), ()))
        )
        return tuple((f"{self.name}.{a}", f"{self.name}.{b}") for a, b in closed[state == "run"])


def with_devices(network: Network, devices: Sequence[Device], state: State) -> Network:
    """Return a hookup with its devices in a state; their terminals become nodes."""
    capacitors: list[Capacitor] = list(network.capacitors)
    parts: list[Part] = list(network.parts)
    contacts: list[Contact] = []
    for d in devices:
        ends = d.terminals()
        contacts += d.contacts(state)
        if d.kind == "capacitor-dual":
            capacitors += [
                Capacitor(
                    name=f"{d.name}.a", start=ends[0], finish=ends[1], microfarad=d.microfarad
                ),
                Capacitor(name=f"{d.name}.b", start=ends[0], finish=ends[2], microfarad=d.second),
            ]
        elif d.kind in CAPACITORS:
            capacitors.append(
                Capacitor(name=d.name, start=ends[0], finish=ends[1], microfarad=d.microfarad)
            )
        elif d.kind == "relay-voltage":
            parts.append(
                Part(name=d.name, kind=d.kind, start=ends[2], finish=ends[1], ohm=RELAY_COIL_OHM)
            )
        elif d.kind == "resistor":
            parts.append(Part(name=d.name, kind=d.kind, start=ends[0], finish=ends[1], ohm=d.ohm))
    made = replace(network, capacitors=tuple(capacitors), parts=tuple(parts))
    alone = [(end,) for d in devices for end in d.terminals()]  # every terminal is a node
    return made.joined([*contacts, *alone])


def check_devices(devices: Sequence[Device]) -> None:
    """Refuse devices that cannot be worked with. Raises: BadDocument, NotKnownYet."""
    names = [d.name for d in devices]
    for d in devices:
        if names.count(d.name) > 1:
            raise BadDocument("devices", f"{d.name} twice", "a name of its own for each device")
        if d.kind not in KINDS:
            raise BadDocument(f"devices {d.name}", d.kind, "one of " + ", ".join(KINDS))
        if d.kind in CAPACITORS and not d.microfarad > 0:
            raise BadDocument(
                f"devices {d.name}", f"{d.microfarad:g} µF", "a capacity above nothing"
            )
        if d.kind == "capacitor-dual" and not d.second > 0:
            raise BadDocument(
                f"devices {d.name}", f"{d.second:g} µF", "two capacities, of a and of b"
            )
        if d.kind == "resistor" and not d.ohm > 0:
            raise BadDocument(f"devices {d.name}", f"{d.ohm:g} Ω", "ohms above nothing")
        if d.kind == "speed-switch" and d.action not in _SWITCH:
            raise BadDocument(f"devices {d.name}", d.action, "opens or closes")
        d.contacts("start")
