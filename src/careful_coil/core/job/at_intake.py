"""What Intake logs: counter, plate, leads, joints, plug, pictures, condition, what it may cost."""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from careful_coil.core.job.body import Body, ShortText
from careful_coil.core.readings import Tag

Joints = Annotated[tuple[tuple[ShortText, ...], ...], Field(max_length=40)]
MOST_PINS = 40
LOOSE = "Loose leads"  # the name of leads that are no job


class Arrived(Body):
    """How the motor came: whole when `states` is empty; what is missing of it."""

    kind: Literal["arrived"] = "arrived"
    states: tuple[Literal["dismantled", "repaired-before"], ...] = ()
    missing: Annotated[tuple[ShortText, ...], Field(max_length=40)] = ()


class SpeedRead(Body):
    """Tachometer readings in rev/min, in the order they were taken."""

    kind: Literal["speed-read"] = "speed-read"
    rpm: Annotated[tuple[Annotated[float, Field(ge=0, le=200000)], ...], Field(max_length=50)]


class Lead(BaseModel):
    """A lead as found: tag, wire colour (and tracer), what is printed on it, what it is like.

    `size` of the wire as said (1.5 mm², 14 AWG); `end` what it ends in (ring, spade, cut, plug);
    `use` what it serves where it is no winding (thermostat, heater, brake, earth).
    """

    model_config = ConfigDict(frozen=True, extra="allow", defer_build=True)
    tag: Tag
    colour: ShortText = ""
    tracer: ShortText = ""
    marking: ShortText = ""
    size: ShortText = ""
    length_mm: Annotated[float, Field(gt=0, le=20000)] | None = None
    insulation: Literal["", "fine", "stiff", "cracked", "frayed", "bare", "burnt", "cloth"] = ""
    end: ShortText = ""
    use: ShortText = ""


class Leads(Body):
    """The leads of the motor, tagged; the newest such entry stands."""

    kind: Literal["leads"] = "leads"
    leads: Annotated[tuple[Lead, ...], Field(min_length=1, max_length=16)]


class FoundHookup(Body):
    """Joints as found, by tag or line; leads in none were insulated on their own."""

    kind: Literal["found-hookup"] = "found-hookup"
    joints: tuple[tuple[ShortText, ...], ...]
    ran: Literal["yes", "no", "unknown"] = "unknown"


class PlugSeen(Body):
    """A plug's face: positions by row, what each carries: a tag, `empty`, `dummy`, or `?`.

    `view`: on the face of the plug, or from the side the wires go in.
    """

    kind: Literal["plug"] = "plug"
    rows: Annotated[tuple[Annotated[int, Field(ge=1, le=20)], ...], Field(max_length=8)]
    pins: Annotated[tuple[ShortText, ...], Field(max_length=MOST_PINS)]
    view: Literal["face", "wires"] = "face"


class PrintedDiagram(Body):
    """A diagram printed on the motor, transcribed: joints by the names printed."""

    kind: Literal["diagram"] = "diagram"
    title: ShortText = ""
    joints: Joints


class PictureAdded(Body):
    """A photograph in the shop's keeping, by its digest."""

    kind: Literal["picture"] = "picture"
    name: Annotated[str, Field(min_length=1, max_length=200)]
    sha256: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
    caption: ShortText = ""


class PicturePin(Body):
    """A mark on a photograph: where (of width and of height), and what is there."""

    kind: Literal["pin"] = "pin"
    sha256: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
    x: Annotated[float, Field(ge=0, le=1)]
    y: Annotated[float, Field(ge=0, le=1)]
    words: Annotated[str, Field(min_length=1, max_length=200)]


class RestFine(Body):
    """Everything else on the checklist was looked at and is fine."""

    kind: Literal["rest-fine"] = "rest-fine"
    items: Annotated[tuple[ShortText, ...], Field(max_length=60)]
