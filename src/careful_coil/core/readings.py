"""Readings as they are written down: a closed set of kinds, the same in documents and in the log.

A value is a number in the base unit or a text of the bench-value grammar; it is kept as it came.
"""

from collections.abc import Collection
from dataclasses import dataclass
from decimal import Decimal
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from careful_coil.core.errors import BadDocument, BadValue
from careful_coil.core.units import Quantity
from careful_coil.core.values import BenchValue, accepted, parse

DEFAULT_ACCURACY_PERCENT = 1.5  # a hand-held meter on its ohm range
DEFAULT_OPEN_ABOVE_OHM = 2e6
LEAD_OHM_HIGHEST = 0.5  # unknown meter leads lie between nothing and this
RUN_LINES = 3  # a run is three-phase
LINES = ("L1", "L2", "L3", "N", "PE")

Loaded = Literal["none", "load", "locked"]  # what a shaft is on while volts are on

Tag = Annotated[str, Field(min_length=1, max_length=12)]
End = Tag | Annotated[tuple[Tag, ...], Field(min_length=1, max_length=16)]
Pair = tuple[Tag, Tag]
Value = Annotated[float, Field(allow_inf_nan=False)] | str


class Reading(BaseModel):
    """Common to all kinds: frozen, unknown keys ignored."""

    model_config = ConfigDict(frozen=True, extra="ignore", defer_build=True)


class Resistance(Reading):
    """Ohms between two leads as read; an end may be several leads clipped together.

    `joints` leads that stood joined at that moment; none: bare leads.
    """

    kind: Literal["resistance"] = "resistance"
    between: tuple[End, End]
    value: Value
    joints: Annotated[tuple[tuple[Tag, ...], ...], Field(max_length=16)] = ()

    @property
    def through(self) -> bool:
        """Whether leads stood joined to each other: it is no reading of bare coils."""
        return any(len([n for n in j if n not in LINES]) > 1 for j in self.joints)

    def pair(self) -> tuple[str, str] | None:
        """Return the two leads, or None for a bunched reading."""
        ends = [e if isinstance(e, str) else (e[0] if len(e) == 1 else None) for e in self.between]
        return (ends[0], ends[1]) if ends[0] and ends[1] else None


class Frame(Reading):
    """Ohms from a lead to the frame; `lug` off: its own lug was taken off the frame for it."""

    kind: Literal["frame"] = "frame"
    lead: Tag
    value: Value
    lug: Literal["", "off"] = ""


class Switch(Reading):
    """What the reading of a pair does when the start mechanism is worked by hand."""

    kind: Literal["switch"] = "switch"
    between: Pair
    value: Literal["opens", "closes", "changes", "stays"]


class Shaft(Reading):
    """Whether a reading varies as the shaft is turned."""

    kind: Literal["shaft"] = "shaft"
    between: Pair
    value: Literal["varies", "steady"]


class Spin(Reading):
    """Volts of a pair while the shaft is spun by hand."""

    kind: Literal["spin"] = "spin"
    between: Pair
    volt: Annotated[float, Field(ge=0, allow_inf_nan=False)]


KickValue = Literal["up-large", "up-small", "none", "down-small", "down-large"]


class Kick(Reading):
    """Battery + on the first source lead, meter + on the first sense lead, read at make."""

    kind: Literal["kick"] = "kick"
    source: Pair
    sense: Pair
    value: KickValue


class Series(Reading):
    """Induced volts with one end tied over."""

    kind: Literal["series"] = "series"
    source: Pair
    tie: Pair
    across: Pair
    applied_volt: Annotated[float, Field(gt=0, allow_inf_nan=False)]
    value: Value


class Run(Reading):
    """A run at reduced volts on a tentative hookup."""

    kind: Literal["run"] = "run"
    lines: tuple[tuple[Tag, ...], ...]
    joints: tuple[tuple[Tag, ...], ...] = ()
    applied_volt: Annotated[float, Field(gt=0, allow_inf_nan=False)]
    amp: tuple[float, ...]
    turns: Literal["smooth", "rough", "none"]


class Found(Reading):
    """Joints as they were found, and whether the motor ran with them."""

    kind: Literal["found"] = "found"
    joints: tuple[tuple[Tag, ...], ...]
    ran: Literal["yes", "no", "unknown"] = "unknown"


AnyReading = Annotated[
    Resistance | Frame | Switch | Shaft | Spin | Kick | Series | Run | Found,
    Field(discriminator="kind"),
]


def ohm_value(value: float | str) -> BenchValue:
    """Return a resistance given as a number in ohms or as text.

    Raises: BadValue, AmbiguousValue.
    """
    return _value(value, Quantity.RESISTANCE)


def volt_value(value: float | str) -> BenchValue:
    """Return volts given as a number or as text. Raises: BadValue, AmbiguousValue."""
    return _value(value, Quantity.VOLTAGE)


def _value(value: float | str, quantity: Quantity) -> BenchValue:
    if isinstance(value, str):
        return parse(value, quantity)
    if value != value or abs(value) == float("inf"):
        raise BadValue(str(value), accepted(quantity))
    return parse(f"{Decimal(repr(float(value))):f}", quantity)


@dataclass(frozen=True, slots=True, kw_only=True)
class Meter:
    """What the meter can do. `lead_ohm` None: unknown, between 0 and 0.5 Ω."""

    accuracy_percent: float = DEFAULT_ACCURACY_PERCENT
    resolution_ohm: float | None = None
    open_above_ohm: float = DEFAULT_OPEN_ABOVE_OHM
    lead_ohm: float | None = None


PLAIN_METER = Meter()


def check_reading(reading: AnyReading, tags: Collection[str], where: str) -> None:
    """Raise BadDocument when a reading names a lead that is not there, or a figure none can use."""
    for name in ("between", "source", "sense", "tie", "across"):
        ends = getattr(reading, name, None)
        if ends is None:
            continue
        flat = [t for e in ends for t in ((e,) if isinstance(e, str) else e)]
        _known(flat, tags, where)
        if len(set(flat)) != len(flat):
            raise BadDocument(where, f"{flat[0]} to itself", "two different leads")
    if isinstance(reading, Frame):
        _known([reading.lead], tags, where)
    for name in ("lines", "joints"):
        for joint in getattr(reading, name, ()):
            _known([t for t in joint if t not in LINES], tags, where)
    if isinstance(reading, Run):
        _check_run(reading, where)
    if isinstance(reading, Resistance | Frame | Series):
        try:
            (volt_value if isinstance(reading, Series) else ohm_value)(reading.value)
        except BadValue as error:
            raise BadDocument(where, f"“{error.read}”", error.accepted) from None


def _check_run(run: Run, where: str) -> None:
    if len(run.lines) != RUN_LINES or len(run.amp) != RUN_LINES or not all(run.lines):
        read = f"{len(run.lines)} lines and {len(run.amp)} amps"
        raise BadDocument(where, read, "three lines with their leads, and three amps")
    if not all(0 <= a < float("inf") for a in run.amp):
        raise BadDocument(where, f"amps {run.amp}", "three amps, 0 or more")
    placed = [t for j in (*run.lines, *run.joints) for t in j if t not in LINES]
    twice = next((t for t in placed if placed.count(t) > 1), None)
    if twice is not None:
        raise BadDocument(where, f"lead {twice} in two places", "each lead on one line or joint")


def _known(named: list[str], tags: Collection[str], where: str) -> None:
    for tag in named:
        if tag not in tags:
            raise BadDocument(where, f"lead {tag}", f"one of the leads {', '.join(tags)}")
