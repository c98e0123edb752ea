"""What can be logged: a closed set of typed, versioned kinds. Entries are only ever appended."""

from typing import Annotated, Any, Literal

import numpy as np
from pydantic import BaseModel, ConfigDict, Field, field_validator

from careful_coil.core.job.at_connect import (
    Installer,
    Insulated,
    LeadClamped,
    LowRun,
    Parted,
    StandsSo,
    StepOhm,
    StepTicked,
    SupplyRead,
    TurnSeen,
)
from careful_coil.core.job.at_insulation import (
    Covers,
    Discharged,
    DryingRun,
    EarthBond,
    HeatRun,
    InsulationTested,
    SameMotor,
    Steps,
    Surged,
    TestReady,
    WindingOhm,
    Work,
)
from careful_coil.core.job.at_intake import (
    Arrived,
    FoundHookup,
    Leads,
    PictureAdded,
    PicturePin,
    PlugSeen,
    PrintedDiagram,
    RestFine,
    SpeedRead,
)
from careful_coil.core.job.at_mechanics import (
    BarsRead,
    Commutator,
    LeadMended,
    Modified,
    PartOff,
    Temporary,
)
from careful_coil.core.job.at_release import FollowsUp, LetGo, OnSite
from careful_coil.core.job.at_start_gear import (
    DeviceFitted,
    DeviceRead,
    GearStep,
    RunTried,
    WindingLocked,
)
from careful_coil.core.job.at_trial import (
    TrialBegun,
    TrialEnded,
    TrialHeard,
    TrialReady,
    TrialStart,
    TrialStep,
)
from careful_coil.core.job.body import Body, LongText, ShortText
from careful_coil.core.job.noted import Noted, Old
from careful_coil.core.readings import AnyReading, Tag
from careful_coil.core.stations import Station

Line = Literal["L1", "L2", "L3"]


class SumWorked(Body):
    """A bench sum put into the log: its name, its inputs as typed, and what it gave in words."""

    kind: Literal["sum"] = "sum"
    name: ShortText
    inputs: dict[ShortText, ShortText]
    words: LongText


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
    name: ShortText = ""
    checked: ShortText = ""  # the day it was checked last, as the shop keeps it


class ReadingTaken(Body):
    """A reading of the winding, by hand or from an instrument."""

    kind: Literal["reading"] = "reading"
    reading: AnyReading
    instrument: ShortText = "typed"
    temperature_c: Annotated[float, Field(ge=-50, le=200)] | None = None


class RoleKnown(Body):
    """What a lead is on somebody's word: a leaning with initials, never proof. No role takes it back."""

    kind: Literal["role-known"] = "role-known"
    tag: Tag
    role: Annotated[str, Field(max_length=20)] = ""


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
    by_pin: bool = False  # it was given with a PIN


AnyBody = Annotated[
    Noted
    | Old
    | Arrived
    | SpeedRead
    | PlugSeen
    | PrintedDiagram
    | PictureAdded
    | PicturePin
    | RestFine
    | SumWorked
    | Leads
    | TagsSwapped
    | MeterUsed
    | ReadingTaken
    | RoleKnown
    | ReadingMoved
    | Struck
    | ProvedDead
    | WindingOhm
    | TestReady
    | InsulationTested
    | Discharged
    | Steps
    | Surged
    | HeatRun
    | Work
    | DryingRun
    | SameMotor
    | DeviceFitted
    | DeviceRead
    | WindingLocked
    | RunTried
    | GearStep
    | Commutator
    | BarsRead
    | LeadMended
    | Modified
    | Temporary
    | PartOff
    | Covers
    | FoundHookup
    | Supply
    | JointMade
    | LineOhm
    | SupplyRead
    | StandsSo
    | Parted
    | Insulated
    | StepTicked
    | StepOhm
    | LowRun
    | LeadClamped
    | TurnSeen
    | Installer
    | TrialBegun
    | TrialReady
    | TrialStep
    | TrialStart
    | TrialHeard
    | TrialEnded
    | EarthBond
    | Attested
    | LetGo
    | OnSite
    | FollowsUp
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

    @field_validator("at")
    @classmethod
    def _is_a_time(cls, at: str) -> str:
        np.datetime64(at.removesuffix("Z"))  # a thirteenth month is none
        return at

    @property
    def said(self) -> Any:
        """Return the body as it is read: kinds of before lifted."""
        return self.body.lifted if isinstance(self.body, Old) else self.body
