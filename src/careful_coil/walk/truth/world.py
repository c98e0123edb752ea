"""One motor with a will of nature: it answers what it is asked, and what hands and volts do changes it."""

import random
from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from careful_coil.bench.simulated import HiddenMotor, SimulatedMeter
from careful_coil.bench.wound import devices_of, hidden_of, lead_of, wound
from careful_coil.core.readings import LINES, Meter
from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.states import state_at, with_devices
from careful_coil.core.winding.network import Network
from careful_coil.documents.motor import read_motor
from careful_coil.walk.truth.baked import SHORTED_SHARE, baked
from careful_coil.walk.truth.plated import poles_of
from careful_coil.walk.truth.power import Power

METER = Meter(accuracy_percent=0.5, resolution_ohm=0.01, lead_ohm=0.0)
STIFF = {"free": 1.0, "rough": 2.0, "binding": 12.0, "rubbing": 30.0, "seized": 1e6}
Ask = Mapping[str, Any]


class World:
    """The truth of one motor, as it stands now. `seed` makes its meter repeatable.

    What a document says of faults, kind and the right end is taken out before anything is built.
    """

    def __init__(self, document: Mapping[str, Any], seed: int) -> None:
        self.document = baked(dict(document))
        text = self.document.get("plate", {}).get("text", "")
        self.document.setdefault("poles", poles_of(text))
        self.motor = read_motor(self.document)
        self.chance = random.Random(seed)
        self.lead_of = lead_of(self.motor)
        self.power = Power(self.motor)
        self.joints: list[set[str]] = [set(j) for j in self.motor.joints]
        self.covers_off = False
        self.gone: set[str] = set()  # devices and capacitors taken off
        self.changes: list[dict[str, Any]] = []
        self.harm: list[dict[str, Any]] = []
        self.step = 0  # of the walk: when a change was made
        self.turned = ""  # which way it last turned at the drive end
        self._inner = wound(self.motor)
        self._meter = SimulatedMeter(self._hidden(self._inner), seed, METER)
        self.misjoined = self.power.misjoined(self._inner, self.nodes(), self.devices, self._fed)

    # --- as it is now -----------------------------------------------------------------------------

    def put(self, **fields: Any) -> None:
        """Change the document, and with it everything built of it."""
        self.document = {**self.document, **fields}
        self.motor = read_motor(self.document)
        self._inner = wound(self.motor)

    def cook(self, coil: str) -> None:
        """Leave a coil with shorted turns, as volts far over its own do; none where it is no coil."""
        if coil:
            self.put(hurt={**self.document.get("hurt", {}), coil: SHORTED_SHARE})

    def changed(self, part: str, state: str) -> None:
        """Write down that hands changed a part."""
        told: dict[str, Any] = {"step": self.step, "part": part, "state": state}
        if (part, state) == ("hookup", "joined"):
            fed = self._fed
            told["sound"] = self.power.sound(self._inner, self.nodes(), self.devices, fed)
        self.changes.append(told)

    @property
    def _fed(self) -> tuple[int, float, float]:
        own = self.motor.supply
        return own.phases, own.volt, own.hertz

    def clip(self, line: str, tag: str) -> None:
        """Put a clip of the bench on a lead: it leaves the joint it was on."""
        apart = [j - {line} for j in self.joints]
        met = [j for j in apart if tag in j]
        self.joints = [j for j in apart if tag not in j] + [{line, tag}.union(*met)]

    @property
    def devices(self) -> tuple[Device, ...]:
        """Return the devices that stand in a joint, and those inside."""
        inside = {d.name for d in self.motor.devices if d.inside}
        joined = {n.split(".")[0] for j in self.joints for n in j if "." in n}
        return tuple(
            d for d in devices_of(self.motor, tuple(self.gone)) if d.name in inside | joined
        )

    def node(self, name: str) -> str:
        """Return the node of a tag; lines and terminals are themselves."""
        return self.lead_of.get(name, name)

    def knows(self, name: str) -> bool:
        """Whether hands can reach something of that name: a tag, a line, a terminal outside."""
        device, dot, _ = name.partition(".")
        if not dot:
            return name in self.lead_of or name in LINES or name == "N"
        parts = [d for d in devices_of(self.motor) if d.name == device]
        hidden = any(d.name == device and d.inside for d in self.motor.devices)
        return bool(parts) and not hidden and name in parts[0].terminals()

    def nodes(self) -> list[list[str]]:
        """Return the joints as they are, by what the leads really are."""
        return [[self.node(n) for n in j] for j in self.joints if len(j) > 1]

    def network(self, extra: Sequence[Sequence[str]] = ()) -> Network:
        """Return the winding with its joints and devices at rest."""
        joined = self._inner.joined([*self.nodes(), *extra])
        devices = self.devices
        return with_devices(joined, devices, state_at(devices, "rest")) if devices else joined

    # --- instruments -------------------------------------------------------------------------------

    def _hidden(self, network: Network) -> HiddenMotor:
        stiff = STIFF[self.motor.shaft.feel]
        found = hidden_of(self.motor, network, self.power.magnetizing, stiff)
        return replace(found, start_device="")  # what is inside stands in the network here

    def meter_on(self, network: Network | None = None) -> SimulatedMeter:
        """Return the meter, on a network (the bare winding where none is given)."""
        self._meter.put_on(self._hidden(self._inner if network is None else network))
        return self._meter

    @property
    def inner(self) -> Network:
        """Return the winding itself, without joints."""
        return self._inner

    def at_end(self) -> dict[str, Any]:
        """Return the document as the motor is now, its joints, what was changed and what was hurt."""
        joints = [sorted(j) for j in self.joints if len(j) > 1]
        return {
            **self.document,
            "joints": joints,
            "changes": self.changes,
            "harm": self.harm,
            "misjoined": self.misjoined,
        }
