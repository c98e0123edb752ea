"""What can be logged: a closed set of typed, versioned kinds. Entries are only ever appended."""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from careful_coil.core.readings import AnyReading, Tag

STATIONS = (
    "intake",
    "leads",
    "insulation",
    "start-gear",
    "mechanics",
    "winding",
    "connect",
    "test-run",
    "release",
)
Station = Literal[
    "intake",
    "leads",
    "insulation",
    "start-gear",
    "mechanics",
    "winding",
    "connect",
    "test-run",
    "release",
]
ShortText = Annotated[str, Field(max_length=200)]
LongText = Annotated[str, Field(max_length=4000)]
Line = Literal["L1", "L2", "L3"]
PlateName = Literal[
    "phases",
    "volt",
    "hertz",
    "amp",
    "power",
    "rpm",
    "serial",
    "poles",
    "power-factor",
    "service-factor",
    "code",
    "capacitor",
    "insulation-class",
    "ambient",
    "duty",
    "rotation",
    "frame",
    "enclosure",
]


class Body(BaseModel):
    """Common to all kinds: frozen; unknown extra keys are kept and handed on."""

    model_config = ConfigDict(frozen=True, extra="allow")
    v: Literal[1] = 1


class Ticket(Body):
    """The counter's words; each entry changes the fields it carries."""

    kind: Literal["ticket"] = "ticket"
    field: Literal["name", "customer", "phone", "complaint", "place"]
    text: LongText


class PlateField(Body):
    """One field of the nameplate, as printed."""

    kind: Literal["plate"] = "plate"
    field: PlateName
    text: ShortText


class LookNoted(Body):
    """One look at the motor that tells its kind; an empty answer takes it back."""

    kind: Literal["look"] = "look"
    sign: ShortText
    answer: ShortText


class EstimateFigure(Body):
    """One figure of what repair and replacement cost; `special` 1 where no new one can be had."""

    kind: Literal["estimate"] = "estimate"
    field: Literal[
        "parts",
        "labour",
        "replacement",
        "lead_days",
        "drive",
        "special",
        "scrap_kg",
        "scrap_price",
    ]
    value: Annotated[float, Field(ge=0, le=1e9)]


class SumWorked(Body):
    """A bench sum put into the log: its name, its inputs as typed, and what it gave in words."""

    kind: Literal["sum"] = "sum"
    name: ShortText
    inputs: dict[ShortText, ShortText]
    words: LongText


class Lead(BaseModel):
    """A lead as found: its tag, wire colour (and tracer), what is printed on it."""

    model_config = ConfigDict(frozen=True, extra="allow")
    tag: Tag
    colour: ShortText = ""
    tracer: ShortText = ""
    marking: ShortText = ""


class Leads(Body):
    """The leads of the motor, tagged; the newest such entry stands."""

    kind: Literal["leads"] = "leads"
    leads: Annotated[tuple[Lead, ...], Field(min_length=1, max_length=16)]


class TagsSwapped(Body):
    """Two tags were on each other's leads from the start: all readings change over."""

    kind: Literal["tags-swapped"] = "tags-swapped"
    tags: tuple[Tag, Tag]


class MeterUsed(Body):
    """What the meter in use can tell; its lead ohms when nulled or known."""

    kind: Literal["meter"] = "meter"
    accuracy_percent: Annotated[float, Field(gt=0, le=50)] = 1.5
    resolution_ohm: Annotated[float, Field(gt=0, le=100)] | None = None
    open_above_ohm: Annotated[float, Field(gt=0)] = 2e6
    lead_ohm: Annotated[float, Field(ge=0, le=10)] | None = None


class ReadingTaken(Body):
    """A reading of the winding, by hand or from an instrument."""

    kind: Literal["reading"] = "reading"
    reading: AnyReading
    instrument: ShortText = "typed"
    temperature_c: Annotated[float, Field(ge=-50, le=200)] | None = None


class ReadingMoved(Body):
    """A reading was of another pair than written."""

    kind: Literal["reading-moved"] = "reading-moved"
    target: ShortText
    between: tuple[Tag, Tag]


class Struck(Body):
    """An entry that no longer counts; it stays in the log with the reason."""

    kind: Literal["struck"] = "struck"
    target: ShortText
    reason: ShortText = "mistake"


class ProvedDead(Body):
    """Isolated, discharged, and under 5 V shown across the leads."""

    kind: Literal["proved-dead"] = "proved-dead"
    volt: Annotated[float, Field(ge=0, le=5)] = 0.0


class InsulationTested(Body):
    """Insulation to the frame after one minute, in MΩ, at a winding temperature."""

    kind: Literal["insulation"] = "insulation"
    megohm: Annotated[float, Field(ge=0, le=1e7)]
    at_c: Annotated[float, Field(ge=-50, le=200)]
    test_volt: Annotated[float, Field(gt=0, le=20000)] = 500.0
    winding: Literal["thermosetting", "thermoplastic"] = "thermosetting"
    above: bool = False  # the tester's range ended: at least this much


class Work(Body):
    """Work that makes an earlier insulation test void."""

    kind: Literal["work"] = "work"
    what: Literal["cleaned", "dried", "varnished", "rewound", "leads renewed"]
    words: LongText = ""


class FoundHookup(Body):
    """Joints as found, by tag or line; leads in none were insulated on their own."""

    kind: Literal["found-hookup"] = "found-hookup"
    joints: tuple[tuple[ShortText, ...], ...]
    ran: Literal["yes", "no", "unknown"] = "unknown"


class Supply(Body):
    """The supply the motor goes back to."""

    kind: Literal["supply"] = "supply"
    volt: Annotated[float, Field(gt=0, le=20000)]
    hertz: Annotated[float, Field(gt=0, le=1000)]
    phases: Literal[1, 3] = 3
    measured: bool = False


class JointMade(Body):
    """A joint made and pulled by hand; by tag and line, so that a later name does not move it."""

    kind: Literal["joint"] = "joint"
    joint: Annotated[tuple[ShortText, ...], Field(min_length=2, max_length=16)]


class LineOhm(Body):
    """Ohms between two lines of the finished hookup."""

    kind: Literal["line-ohm"] = "line-ohm"
    lines: tuple[Line, Line]
    value: float | ShortText


class EarthBond(Body):
    """Ohms from the earth stud or lead to bare metal of the frame, after the covers."""

    kind: Literal["earth-bond"] = "earth-bond"
    ohm: Annotated[float, Field(ge=0, le=1e6)]


class Attested(Body):
    """Something done outside the program: what, how it was seen, under whose initials."""

    kind: Literal["attested"] = "attested"
    item: Literal["start-gear", "mechanics", "hookup", "voltage-tags", "test-run"]
    words: Annotated[str, Field(min_length=1, max_length=4000)]


class Waived(Body):
    """A finding set aside by a second person, with the reason."""

    kind: Literal["waived"] = "waived"
    code: ShortText
    reason: Annotated[str, Field(min_length=1, max_length=4000)]
    second: Annotated[str, Field(min_length=1, max_length=40)]


class Released(Body):
    """The signature: the motor may go."""

    kind: Literal["released"] = "released"
    signed: Annotated[str, Field(min_length=1, max_length=40)]


AnyBody = Annotated[
    Ticket
    | PlateField
    | LookNoted
    | EstimateFigure
    | SumWorked
    | Leads
    | TagsSwapped
    | MeterUsed
    | ReadingTaken
    | ReadingMoved
    | Struck
    | ProvedDead
    | InsulationTested
    | Work
    | FoundHookup
    | Supply
    | JointMade
    | LineOhm
    | EarthBond
    | Attested
    | Waived
    | Released,
    Field(discriminator="kind"),
]


class Entry(BaseModel):
    """One line of the log: who wrote what at which station, and when (UTC, ISO 8601)."""

    model_config = ConfigDict(frozen=True, extra="allow")
    id: Annotated[str, Field(min_length=1, max_length=64)]
    at: Annotated[str, Field(pattern=r"^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z$")]
    by: Annotated[str, Field(max_length=40)] = ""
    station: Station
    body: AnyBody
