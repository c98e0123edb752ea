"""`careful-coil/motor` version 1: what a motor really is. Only the simulated bench and a walk's truth see it."""

from collections import Counter
from collections.abc import Mapping
from typing import Annotated, Any, Literal

from pydantic import ConfigDict, Field, model_validator

from careful_coil.core.errors import BadDocument, CoilError
from careful_coil.core.readings import LINES
from careful_coil.core.ways.devices import KINDS, Device, check_devices
from careful_coil.core.winding.arrangements import arrangement
from careful_coil.core.winding.coupling import Halves
from careful_coil.documents.base import Document, check_format, read_model

FORMAT = "careful-coil/motor"
TWO_LEADS = "single-phase-2-lead"  # its start circuit is all inside
EXTRA_PAIRS = ("tachometer", "thermostat", "thermistor", "heater", "brake", "capacitor")
NO_WINDING = ("earth", "none", *(f"{k}-{n}" for k in EXTRA_PAIRS for n in (1, 2)))
FAULTS = (
    *("coil-open", "turns-shorted", "phase-half", "earth-fault", "damp", "flooded"),
    *("coil-reversed", "wrong-hookup", "joint-loose", "switch-stuck-open", "switch-stuck-closed"),
    *("switch-dirty", "switch-bridged", "switch-missing", "relay-misplaced", "capacitor-weak"),
    *("capacitor-shorted", "capacitor-open", "capacitor-wrong-value", "capacitor-low-volts"),
    *("start-capacitor-left-in", "protector-open", "protector-bridged", "temporary-left"),
    *("shaft-rough", "shaft-binding", "shaft-rubbing", "shaft-seized", "bearing-worn"),
    *("bearing-dry", "bearing-seized", "wrong-bearing", "fan-missing", "lead-cracked", "earth-off"),
    *("wrong-supply", "wrong-direction", "selector-miswired"),
)
Name = Annotated[str, Field(min_length=1, max_length=40)]
Word = Annotated[str, Field(max_length=200)]
Ohm = Annotated[float, Field(gt=0, le=1e7, allow_inf_nan=False)]
State = Literal["good", "stuck-open", "stuck-closed", "dirty", "missing", "bridged"]
Feel = Literal["free", "rough", "binding", "rubbing", "seized"]


class Kept(Document):
    """A part of the document: keys it does not know are kept."""

    model_config = ConfigDict(frozen=True, extra="allow", defer_build=True)


class PlateSeen(Kept):
    """The plate as printed, and which fields of it cannot be read."""

    text: Word = ""
    unreadable: tuple[Word, ...] = ()


class LeadReal(Kept):
    """A lead: the bench's tag, what it really is, its colour, what is printed on it."""

    tag: Annotated[str, Field(min_length=1, max_length=12)]
    is_: Annotated[Name, Field(alias="is")]
    colour: Word = ""
    mark: Word = ""
    model_config = ConfigDict(frozen=True, extra="allow", populate_by_name=True, defer_build=True)


class DeviceReal(Kept):
    """A switch, relay, protector or selector, and what state it is in; `inside` in the winding `in`.

    `ends` terminals besides the usual: 3 and 4 that sense, or the 1, 2, M, 3 of a current relay with posts.
    """

    name: Name
    kind: Name
    inside: bool = False
    in_: Annotated[Word, Field(alias="in")] = ""
    state: State = "good"
    table: dict[str, list[tuple[str, str]]] = Field(default_factory=dict)
    action: Literal["opens", "closes"] = "opens"
    ohm: Annotated[float, Field(ge=0, le=1e7)] = 0.0
    ends: tuple[Name, ...] = ()
    model_config = ConfigDict(frozen=True, extra="allow", populate_by_name=True, defer_build=True)

    def device(self) -> Device:
        """Return it as the network knows it, healthy."""
        table = {p: tuple(closed) for p, closed in self.table.items()}
        return Device(
            name=self.name,
            kind=self.kind,
            action=self.action,
            ohm=self.ohm,
            table=table,
            ends=self.ends,
        )


class CapacitorReal(Kept):
    """A capacitor: what it serves, what is printed on it, the µF it has now (0 open), how it looks."""

    name: Name
    serves: Literal["start", "run"] = "start"
    marked: Word = ""
    microfarad: Annotated[float, Field(ge=0, le=1e5, allow_inf_nan=False)]
    looks: Word = "sound"
    size_mm: tuple[float, ...] = ()
    shorted: bool = False

    def device(self) -> Device:
        """Return it as the network knows it."""
        farad = max(self.microfarad, 1e-6)
        return Device(name=self.name, kind=f"capacitor-{self.serves}", microfarad=farad)


class ShaftReal(Kept):
    """How the shaft turns by hand."""

    feel: Feel = "free"
    end_float_mm: Annotated[float, Field(ge=0, le=100)] = 0.3


class BearingReal(Kept):
    """A bearing: its number, how it runs."""

    number: Word = "6204-2Z"
    state: Literal["good", "rough", "dry", "noisy", "loose", "seized"] = "good"


class BearingsReal(Kept):
    """The bearings of both ends."""

    drive: BearingReal = BearingReal()
    other: BearingReal = BearingReal(number="6203-2Z")


class InsulationReal(Kept):
    """Insulation to the frame, MΩ after a minute; leakage's share of the current then; whether it is wet."""

    megohm: Annotated[float, Field(ge=0, le=1e6)] = 500.0
    leak_share: Annotated[float, Field(gt=0, le=1)] = 0.3
    wet: bool = False


class SupplyReal(Kept):
    """The supply it goes to: what it is, what a meter reads of it, whether a drive feeds it."""

    phases: Literal[1, 3] = 3
    volt: Annotated[float, Field(gt=0, le=20000)] = 400.0
    hertz: Annotated[float, Field(gt=0, le=1000)] = 50.0
    measured: Word = ""
    drive: bool = False


class Wanted(Kept):
    """The direction that the load or the customer wants, empty where it does not matter."""

    direction: Literal["", "cw", "ccw"] = ""
    seen_from: Literal["", "drive-end", "opposite"] = ""


class Fault(Kept):
    """A fault, what it is of, and what cures it."""

    what: Annotated[str, Field(pattern="^(" + "|".join(FAULTS) + ")$")]
    of: Word = ""
    cure: Literal["renew", "rejoin", "dry", "clean", "rewind", "ease", "earth", "remove", "none"]


class MotorDocument(Kept):
    """What a motor really is; parts not listed are healthy and usual."""

    format: Literal["careful-coil/motor"]
    version: Literal[1]
    name: Word
    kind: Word = ""
    customer: Word = ""
    place: Literal["bench", "site"] = "bench"
    class_: Annotated[Literal["I", "II"], Field(alias="class")] = "I"
    plate: PlateSeen = PlateSeen()
    arrangement: Name
    inside: Word = ""
    ohm: Annotated[dict[str, Ohm], Field(min_length=1, max_length=24)]
    spread_percent: Annotated[float, Field(ge=0, le=20)] = 0.4
    halves: Halves = "alternate"
    poles: Annotated[int, Field(ge=2, le=48)] = 4
    leads: Annotated[tuple[LeadReal, ...], Field(min_length=1, max_length=16)]
    joints: tuple[tuple[Name, ...], ...] = ()
    devices: tuple[DeviceReal, ...] = ()
    capacitors: tuple[CapacitorReal, ...] = ()
    shaft: ShaftReal = ShaftReal()
    fan: Literal["good", "broken", "missing"] = "good"
    seals: Literal["good", "renewed", "leaking"] = "good"
    bearings: BearingsReal = BearingsReal()
    insulation: InsulationReal = InsulationReal()
    earth_ohm: Annotated[float, Field(ge=0, le=1e6)] = 0.03
    supply: SupplyReal = SupplyReal()
    wanted: Wanted = Wanted()
    faults: tuple[Fault, ...] = ()
    right_end: Literal["released", "held"] = "released"
    must_name: tuple[Word, ...] = ()
    model_config = ConfigDict(frozen=True, extra="allow", populate_by_name=True, defer_build=True)

    @model_validator(mode="after")
    def _agrees(self) -> "MotorDocument":
        """Refuse leads, joints and devices that do not fit each other."""
        try:
            self._check()
        except CoilError as error:
            raise ValueError(str(error)) from None
        return self

    def _check(self) -> None:
        tags = [x.tag for x in self.leads]
        twice = next((t for t, n in Counter(tags).items() if n > 1), None)
        if twice is not None:
            raise BadDocument("leads", f"tag {twice} twice", "each tag once")
        known = self.lead_names()
        for lead in self.leads:
            if lead.is_ not in (*known, *NO_WINDING):
                wanted = "one of " + ", ".join((*known, *NO_WINDING[:2]))
                raise BadDocument(f"lead {lead.tag}, is", lead.is_, wanted)
        for device in self.devices:
            if device.kind not in KINDS:
                raise BadDocument(f"devices {device.name}", device.kind, ", ".join(KINDS))
        made = [d.device() for d in self.devices] + [c.device() for c in self.capacitors]
        check_devices(made)
        ends = {t for d in made for t in d.terminals()}
        for joint in self.joints:
            for name in joint:
                if name not in (*tags, *LINES, *ends):
                    raise BadDocument("joints", name, "a tag, a line or a device's terminal")

    def lead_names(self) -> tuple[str, ...]:
        """Return the lead names of its arrangement. Raises: NotKnownYet."""
        return tuple(arrangement(self.arrangement).inside(self.inside).leads)


def read_motor(found: Mapping[str, Any]) -> MotorDocument:
    """Return a motor document. Raises: BadDocument naming the field."""
    check_format(dict(found), FORMAT)
    return read_model(MotorDocument, dict(found))
