"""What is logged at Mechanics: what the hands feel, bearings, brushes, bars, leads, what was changed."""

import re
from collections.abc import Mapping
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from careful_coil.core.job.body import Body, ShortText
from careful_coil.core.readings import Tag

BearingEnd = Literal["drive", "other"]
FeltField = Literal[
    "feel",
    "coast-down",
    "end-float",
    "radial-play",
    "rub",
    "start-before",
    "start-after",
    "bolts-drive",
    "bolts-other",
    "fan",
    "ends",
    "hours-week",
    "bars-shaft",
    "cord",
    "cord-done",
    "relief",
    "seals",
]
BearingField = Literal[
    "sort",
    "number",
    "bore",
    "outside",
    "width",
    "seat",
    "state",
    "done",
    "fitted",
    "oil",
    "wick",
    "ports",
]
BrushField = Literal["length", "earlier", "least", "spring", "seating", "spark", "done"]
Mend = Literal["sleeved", "spliced", "renewed", ""]
PartName = Annotated[str, Field(min_length=1, max_length=60)]
MOST_BARS = 240
Bar = Annotated[int, Field(ge=1, le=MOST_BARS)]
BarOhm = Annotated[float, Field(ge=0, le=1e7, allow_inf_nan=False)] | None


_NUMBER = r"\d{1,12}(\.\d{1,12})?(e[+-]?\d{1,2})?"
_FIGURE = re.compile(_NUMBER)
FIGURES: Mapping[str, tuple[re.Pattern[str], str]] = {
    **dict.fromkeys(
        (
            *(
                "coast-down",
                "end-float",
                "radial-play",
                "start-before",
                "start-after",
                "hours-week",
            ),
            *("bore", "outside", "width", "length", "least"),
        ),
        (_FIGURE, "a figure such as 0.4"),
    ),
    "bars-shaft": (re.compile(f"{_NUMBER}|open"), "MΩ such as 12, or open"),
    "earlier": (
        re.compile(rf"{_NUMBER} \d{{4}}-\d\d-\d\d"),
        "a length and its day such as 14.5 2025-11-02",
    ),
}  # what a field's text is where it is a figure


class _Told(Body):
    """A field with its text; figures are refused where they are none."""

    field: str
    text: ShortText = ""

    @model_validator(mode="after")
    def _figure(self) -> Self:
        pattern, wanted = FIGURES.get(self.field, (None, ""))
        if self.text and pattern is not None and not pattern.fullmatch(self.text):
            raise ValueError(f"{self.field} “{self.text}”: wanted {wanted}")
        return self


class Felt(_Told):
    """One thing that hands or eyes found of the motor as a whole; an empty text takes it back.

    Figures as kept: seconds, millimetres, volts.
    """

    kind: Literal["felt"] = "felt"
    field: FeltField


class BearingNoted(_Told):
    """One thing of the bearing at one end; an empty text takes it back. Dimensions in mm."""

    kind: Literal["bearing"] = "bearing"
    end: BearingEnd
    field: BearingField


class BrushNoted(_Told):
    """One thing of a brush by its name (B1); an empty text takes it back. Lengths in mm.

    `earlier` a length and its date from an older record.
    """

    kind: Literal["brush"] = "brush"
    name: Annotated[str, Field(pattern=r"^[A-Za-z][\w-]*$", max_length=12)]
    field: BrushField


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
