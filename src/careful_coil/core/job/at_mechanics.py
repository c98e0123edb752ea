"""What is logged at Mechanics: what the hands feel, bearings, brushes, bars, leads, what was changed."""

from typing import Annotated, Literal

from pydantic import Field

from careful_coil.core.job.body import Body, ShortText
from careful_coil.core.readings import Tag

Mend = Literal["sleeved", "spliced", "renewed", ""]
PartName = Annotated[str, Field(min_length=1, max_length=60)]
MOST_BARS = 240
Bar = Annotated[int, Field(ge=1, le=MOST_BARS)]
BarOhm = Annotated[float, Field(ge=0, le=1e7, allow_inf_nan=False)] | None


class Commutator(Body):
    """How many bars it has; 0 takes the commutator and its readings back."""

    kind: Literal["commutator"] = "commutator"
    bars: Annotated[int, Field(ge=0, le=MOST_BARS)]


class BarsRead(Body):
    """Ohms from each of some bars to the next, from bar `first` on; None is open. Four wires at best.

    `step_ohm` what the meter's last figure means.
    """

    kind: Literal["bars-read"] = "bars-read"
    first: Bar
    ohms: Annotated[tuple[BarOhm, ...], Field(min_length=1, max_length=MOST_BARS)]
    step_ohm: Annotated[float, Field(ge=0, le=100)] | None = None


class LeadMended(Body):
    """What was done to a lead's insulation, with size and class where it is new; nothing takes it back."""

    kind: Literal["lead-mended"] = "lead-mended"
    tag: Tag
    how: Mend = ""
    words: ShortText = ""


class Modified(Body):
    """A hole, a surface machined, a pad: what, where, and how it was closed. No words take it back."""

    kind: Literal["modified"] = "modified"
    name: PartName
    words: ShortText = ""
    closed: ShortText = ""


class Temporary(Body):
    """A jumper, clip, tape-only joint, bypass, speed left off; it holds the motor until it is cleared.

    No words take the entry back: it never was.
    """

    kind: Literal["temporary"] = "temporary"
    name: PartName
    words: ShortText = ""
    cleared: ShortText = ""


class PartOff(Body):
    """A part taken off, in its turn, with a photograph's digest; `back` when it is on again.

    `gone` takes the line back.
    """

    kind: Literal["part-off"] = "part-off"
    part: PartName
    words: ShortText = ""
    sha256: Annotated[str, Field(pattern=r"^([0-9a-f]{64})?$")] = ""
    back: bool = False
    gone: bool = False
