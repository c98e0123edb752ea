"""What is logged at Start gear: capacitors, devices and their readings, tests that part causes."""

from typing import Annotated, Literal

from pydantic import Field

from careful_coil.core.job.body import Body, ShortText

PartName = Annotated[str, Field(min_length=1, max_length=20, pattern=r"^[A-Za-z][\w-]*$")]
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
