"""What is logged at Start gear: capacitors, devices and their readings, tests that part causes."""

from typing import Annotated, Literal

from pydantic import Field

from careful_coil.core.job.body import Body, ShortText

PartName = Annotated[str, Field(min_length=1, max_length=20, pattern=r"^[A-Za-z][\w-]*$")]
CapacitorField = Literal[
    "marking",
    "serves",
    "looks",
    "microfarad",
    "loss",
    "size",
    "bleed",
    "drained",
    "gone",
    "renewed",
]
DeviceField = Literal["actuator", "plate", "out", "back", "table", "stand-in", "volts", "renewed"]
Positive = Annotated[float, Field(gt=0, le=1e6, allow_inf_nan=False)]
DeviceKind = Literal[
    "speed-switch",
    "interlock",
    "change-over",
    "relay-current",
    "relay-voltage",
    "hot-wire",
    "ptc",
    "electronic-switch",
    "protector",
    "selector",
    "reversing-switch",
    "",
]


class CauseTested(Body):
    """What a test showed that parts the causes of a complaint; an empty outcome takes it back."""

    kind: Literal["cause-tested"] = "cause-tested"
    test: ShortText
    outcome: ShortText = ""


class CauseFound(Body):
    """The cause of the complaint as found, by its name; an empty one takes it back."""

    kind: Literal["cause-found"] = "cause-found"
    cause: ShortText = ""


class CapacitorNoted(Body):
    """One thing of a capacitor by its name (C1); an empty text takes it back, `gone` takes the whole.

    `renewed` by whom: what was noted before is the old one's, what follows the new one's.
    """

    kind: Literal["capacitor"] = "capacitor"
    name: PartName
    field: CapacitorField
    text: ShortText = ""


class DeviceFitted(Body):
    """A start device or protector that the motor has; an empty kind takes it off the list."""

    kind: Literal["device-fitted"] = "device-fitted"
    name: PartName
    device: DeviceKind = ""


class DeviceRead(Body):
    """Ohms of a device between two terminals in a posture; None is open. `left_open` what the meter leaves
    open in Ω: its resolution, and test leads that are not nulled."""

    kind: Literal["device-read"] = "device-read"
    name: PartName
    between: tuple[ShortText, ShortText]
    when: ShortText
    ohm: Annotated[float, Field(ge=0, le=1e9, allow_inf_nan=False)] | None
    left_open: Annotated[float, Field(ge=0, le=100)] = 0.0


class DeviceNoted(Body):
    """One thing of a device besides its ohms; an empty text takes it back.

    `actuator` and `plate` how they look and feel, `out` and `back` the rpm (or seconds) at which it goes
    out and comes back in, `table` the positions of a switch, `stand-in` the table of one offered in its
    place, `volts` the start winding's at standstill and at speed; `renewed` by whom: readings and looks
    before it are the old one's.
    """

    kind: Literal["device-noted"] = "device-noted"
    name: PartName
    field: DeviceField
    text: ShortText = ""


class WindingLocked(Body):
    """One winding alone at low volts with the rotor held: V, A, W; None without a wattmeter."""

    kind: Literal["winding-locked"] = "winding-locked"
    winding: Literal["main", "start"]
    volt: Positive
    amp: Positive
    watt: Positive | None = None


class RunTried(Body):
    """A short run with a capacitor off the shelf: µF, rpm, A of line and start winding, V on it."""

    kind: Literal["run-tried"] = "run-tried"
    microfarad: Positive
    rpm: Positive
    line_amp: Positive
    aux_amp: Positive
    capacitor_volt: Positive


class GearStep(Body):
    """A step of a piece of work (`retrofit S1`, `relay K1`) done, or taken back."""

    kind: Literal["gear-step"] = "gear-step"
    work: ShortText
    step: ShortText
    done: bool = True
