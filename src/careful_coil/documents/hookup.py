"""`careful-coil/hookup` version 1, in; `careful-coil/hookup-check` version 1, out."""

import math
from collections.abc import Iterable, Mapping
from typing import Annotated, Any, Literal, Self

from pydantic import (
    BeforeValidator,
    Field,
    SerializerFunctionWrapHandler,
    field_validator,
    model_serializer,
    model_validator,
)

from careful_coil.core.connect.check import Check, StateFigures
from careful_coil.core.connect.hookup import Hookup, Supplied
from careful_coil.core.connect.plans import Plate
from careful_coil.core.connect.slips import Likely
from careful_coil.core.errors import BadDocument
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse
from careful_coil.core.ways.devices import Device
from careful_coil.core.winding.arrangements import arrangement
from careful_coil.documents.base import Document, check_format, read_model

FORMAT = "careful-coil/hookup"


def _figure(quantity: Quantity) -> BeforeValidator:
    """Return what reads a number in the base unit, or a bench value as text."""

    def read(value: object) -> object:
        if isinstance(value, bool):
            raise ValueError("a number is wanted, not a yes or no")
        return parse(value, quantity).value if isinstance(value, str) else value

    return BeforeValidator(read)


Name = Annotated[str, Field(min_length=1, max_length=40)]
Above = Field(ge=1e-6, le=1e6, allow_inf_nan=False)  # what a motor can have, with room to spare
Ohm = Annotated[float, _figure(Quantity.RESISTANCE), Above]
Volt = Annotated[float, _figure(Quantity.VOLTAGE), Above]
Amp = Annotated[float, _figure(Quantity.CURRENT), Above]
Hertz = Annotated[float, _figure(Quantity.FREQUENCY), Field(gt=0, le=1000)]
Farad = Annotated[float, Above]
MOST_CONTACTS = 24  # positions of a switch, and contacts closed in one
Terminals = tuple[Annotated[str, Field(max_length=20)], Annotated[str, Field(max_length=20)]]
Contacts = Annotated[list[Terminals], Field(max_length=MOST_CONTACTS)]


class RatedDocument(Document):
    """What the plate says; volts rising, amps in their order."""

    volt: Annotated[tuple[Volt, ...], Field(min_length=1, max_length=8)]
    hertz: Hertz = 60.0
    amp: Annotated[tuple[Amp, ...], Field(max_length=8)] = ()
    rpm: Annotated[float, Field(gt=0, le=1e6)] | None = None
    family: Literal["wye", "delta"] | None = None

    @field_validator("volt", "amp", mode="before")
    @classmethod
    def _one_or_several(cls, value: object) -> object:
        return [value] if isinstance(value, int | float | str) else value

    @model_validator(mode="after")
    def _in_order(self) -> "RatedDocument":
        if list(self.volt) != sorted(self.volt):
            raise ValueError("rated volts in rising order")
        if self.amp and len(self.amp) != len(self.volt):
            raise ValueError("as many amps as volts")
        return self


class RatingDocument(Document):
    """One connection of a plate that needs more than `rated`."""

    connection: str = ""
    volt: Annotated[tuple[Volt, ...], Field(min_length=1, max_length=8)]
    amp: Annotated[tuple[Amp, ...], Field(max_length=8)] = ()
    hertz: Hertz | None = None


class SupplyDocument(Document):
    """What it is to run on."""

    phases: Literal[1, 3]
    volt: Volt
    hertz: Hertz = 60.0


class DeviceDocument(Document):
    """A device with its capacity (a dual one: two), ohms, action or table."""

    name: Name
    kind: Name
    microfarad: Farad | tuple[Farad, Farad] | None = None
    ohm: Ohm | None = None
    action: str = "opens"
    table: Annotated[dict[Name, Contacts], Field(max_length=MOST_CONTACTS)] = Field(
        default_factory=dict
    )

    def device(self, named: Iterable[str] = ()) -> Device:
        """Return it for the core; `named` what joints call its terminals."""
        farad = self.microfarad
        first, second = farad if isinstance(farad, tuple) else (farad or 0.0, 0.0)
        return Device(
            name=self.name,
            kind=self.kind,
            microfarad=first,
            second=second,
            ohm=self.ohm or 0.0,
            action=self.action,
            table={k: tuple(v) for k, v in self.table.items()},
            ends=tuple(
                dict.fromkeys(
                    n.removeprefix(f"{self.name}.") for n in named if n.startswith(f"{self.name}.")
                )
            ),
        )


class HookupDocument(Document):
    """A hookup as made. `inside` names a variant of the arrangement where it has several."""

    format: Literal["careful-coil/hookup"]
    version: Literal[1]
    arrangement: str
    inside: str = ""
    coil_ohm: Ohm | dict[str, Ohm] | None = None
    rated: RatedDocument
    ratings: Annotated[tuple[RatingDocument, ...], Field(max_length=8)] = ()
    supply: SupplyDocument
    joints: Annotated[tuple[tuple[Name, ...], ...], Field(max_length=200)]
    devices: Annotated[tuple[DeviceDocument, ...], Field(max_length=40)] = ()

    def _by_volts(self) -> list[RatingDocument]:
        return sorted(self.ratings, key=lambda r: (min(r.volt), max(r.volt)))

    def amps_at(self, volt: float) -> tuple[float, ...]:
        """Return the rated amps of each rating, of a range those at the volts nearest to `volt`."""
        if not self.ratings:
            return self.rated.amp
        found = []
        for r in self._by_volts():
            if len(r.amp) not in (1, len(r.volt)):
                return ()
            nearest = min(range(len(r.volt)), key=lambda k: abs(r.volt[k] - volt))
            found.append(r.amp[nearest if len(r.amp) > 1 else 0])
        return tuple(found)

    def called(self, names: Mapping[str, str]) -> Self:
        """Return it with the marks in its joints and coils as the leads they mean."""
        if not names:
            return self
        joints = tuple(tuple(names.get(n, n) for n in j) for j in self.joints)
        ohms = self.coil_ohm
        if isinstance(ohms, dict):
            ohms = {"-".join(names.get(n, n) for n in c.split("-")): v for c, v in ohms.items()}
        return self.model_copy(update={"joints": joints, "coil_ohm": ohms})

    def hookup(self) -> Hookup:
        """Return it for the core; without ohms the coils count as 1 Ω. Raises: NotKnownYet."""
        arrangement(self.arrangement).inside(self.inside)
        volts = [(v, v) for v in self.rated.volt]
        if self.ratings:
            volts = [(min(r.volt), max(r.volt)) for r in self._by_volts()]
        return Hookup(
            arrangement=self.arrangement,
            variant=self.inside,
            joints=self.joints,
            plate=Plate(tuple(volts), self.rated.hertz),
            supply=Supplied(
                phases=self.supply.phases, volt=self.supply.volt, hertz=self.supply.hertz
            ),
            coil_ohm=1.0 if self.coil_ohm is None else self.coil_ohm,
            family=self.rated.family or "",
            rpm=self.rated.rpm,
            devices=tuple(
                d.device(n for joint in self.joints for n in joint) for d in self.devices
            ),
        )


def read_hookup(found: dict[str, Any]) -> HookupDocument:
    """Return a hookup document. Raises: BadDocument."""
    check_format(found, FORMAT)
    if "supply" in found and isinstance(found["supply"], dict):
        phases = found["supply"].get("phases")
        if isinstance(phases, bool) or phases not in (1, 3):
            raise BadDocument("supply.phases", repr(phases), "1 or 3")
    return read_model(HookupDocument, found)


OhmOut = float | Literal["open"]


class FindingOut(Document):
    """One finding on a hookup; `state` the state of its devices in which it shows."""

    code: str
    severity: Literal["note", "watch", "hold"]
    coils: list[str]
    leads: list[str]
    text: str
    shown_by_ohms: bool | None
    state: str | None = None


class StateOut(Document):
    """The figures of one state."""

    state: str
    line_ohm: dict[str, OhmOut] | None
    coil_volt: dict[str, float]
    line_amp_ratio: dict[str, float | None]
    field: Literal["forward", "backward"] | None


class SlipOut(Document):
    """A single slip from the right hookup and what each test shows of it.

    `line_ohm` the pair that changes most, with its reading and the right one; `amp_ratio` at
    standstill; `kick` source and sense leads; `cheapest` ohms, run, kick or none.
    """

    text: str
    shown_by_ohms: bool
    line_ohm: dict[str, list[OhmOut]] | None
    shown_by_run: bool
    amp_ratio: dict[str, float] | None
    shown_by_kick: bool
    kick: list[list[str]] | None
    cheapest: Literal["ohms", "run", "kick", "none"]


def slip_out(likely: Likely) -> SlipOut:
    """Return a slip for the document; of a short the amps are left out."""
    ohms = None
    if likely.ohms:
        pair, read, wanted = likely.ohms
        ohms = {pair: ["open" if math.isinf(v) else v for v in (read, wanted)]}
    return SlipOut.model_validate(
        {
            "text": likely.title,
            "shown_by_ohms": likely.ohms_show,
            "line_ohm": ohms,
            "shown_by_run": likely.run_shows,
            "amp_ratio": None if likely.short else likely.amps,
            "shown_by_kick": likely.kick is not None,
            "kick": [list(p) for p in likely.kick] if likely.kick else None,
            "cheapest": likely.cheapest,
        }
    )


class HookupCheckDocument(Document):
    """The verdict on a hookup; `right` the connection its supply needs, `direction` how to change it.

    `states` with devices, `slips` (from the right hookup) where asked for.
    """

    format: Literal["careful-coil/hookup-check"] = "careful-coil/hookup-check"
    version: Literal[1] = 1
    verdict: Literal["sound", "wrong", "dangerous"]
    connection: str | None
    findings: list[FindingOut]
    line_ohm: dict[str, OhmOut] | None
    coil_volt: dict[str, float]
    coil_rated_volt: dict[str, float] | None
    line_amp_ratio: dict[str, float | None]
    field: Literal["forward", "backward"] | None
    rotation_reversed: bool
    right: str | None
    direction: str
    states: list[StateOut] | None = None
    slips: list[SlipOut] | None = None

    @model_serializer(mode="wrap")
    def _without_what_was_not_asked(self, plain: SerializerFunctionWrapHandler) -> dict[str, Any]:
        found: dict[str, Any] = plain(self)
        return {k: v for k, v in found.items() if v is not None or k not in ("states", "slips")}


DIRECTIONS = {
    "lines": "from outside: exchange any two lines",
    "outside": "from outside: by its leads",
    "opening": "only by opening the motor",
    "no": "not by leads",
}


def hookup_check_document(
    found: Check, ohms_known: bool = True, slips: tuple[Likely, ...] | None = None
) -> HookupCheckDocument:
    """Return the document of a check; without coil ohms line ohms are left out."""
    top = _state(found.figures, ohms_known)
    return HookupCheckDocument(
        verdict=found.verdict,
        connection=found.connection,
        findings=[
            FindingOut(
                code=f.code,
                severity=f.severity,
                coils=list(f.coils),
                leads=list(f.leads),
                text=f.text,
                shown_by_ohms=f.shown_by_ohms,
                state=f.state or None,
            )
            for f in found.faults
        ],
        line_ohm=top.line_ohm,
        coil_volt=top.coil_volt,
        coil_rated_volt=found.coil_rated_volt,
        line_amp_ratio=top.line_amp_ratio,
        field=top.field,
        rotation_reversed=found.rotation_reversed,
        right=found.right.connection if found.right else None,
        direction=DIRECTIONS[found.turning],
        states=[_state(s, ohms_known) for s in found.states] or None,
        slips=None if slips is None else [slip_out(s) for s in slips],
    )


def ohms_out(ohms: dict[str, float]) -> dict[str, OhmOut]:
    """Return ohms by line pair with “open” for infinity."""
    return {k: "open" if math.isinf(v) else v for k, v in ohms.items()}


def _state(figures: StateFigures, ohms_known: bool) -> StateOut:
    return StateOut.model_validate(
        {
            "state": figures.state,
            "line_ohm": ohms_out(figures.line_ohm) if ohms_known else None,
            "coil_volt": figures.coil_volt,
            "line_amp_ratio": figures.line_amp_ratio,
            "field": figures.field,
        }
    )
