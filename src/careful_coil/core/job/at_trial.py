"""What is logged at Test run: a sheet begun, made ready, its steps, starts, what was heard, its end."""

from typing import Annotated, Literal

from pydantic import Field

from careful_coil.core.job.at_connect import Amp, Turning
from careful_coil.core.job.body import Body, LongText, ShortText
from careful_coil.core.readings import Loaded

Watt = Annotated[float, Field(ge=0, le=1e8, allow_inf_nan=False)]
Rpm = Annotated[float, Field(ge=0, le=200000, allow_inf_nan=False)]
Degree = Annotated[float, Field(ge=-50, le=400, allow_inf_nan=False)]
Heard = Literal["drop-out", "drop-in", "sound", "spark", "starts-turning", "smoke"]
Outcome = Literal["turns", "dropped out", "stalled", "tripped"]
Direction = Literal["", "cw", "ccw"]


class TrialBegun(Body):
    """A sheet of its own for a speed, a direction, covers off or on; what was done since the last."""

    kind: Literal["trial-begun"] = "trial-begun"
    covers: Literal["off", "on"] = "off"
    load: Loaded = "none"
    speed: ShortText = ""
    direction: Direction = ""  # at the drive end
    since: ShortText = ""


class TrialReady(Body):
    """What was made ready before volts, each ticked; it lapses with the sheet."""

    kind: Literal["trial-ready"] = "trial-ready"
    items: Annotated[tuple[ShortText, ...], Field(min_length=1, max_length=24)]


class TrialStep(Body):
    """Readings of one moment: V between lines (each, or one), A of each line, W, rpm, °C, minutes on, N·m.

    `volt` and `amp` one figure or three; `celsius` of winding or frame as noted in the remark.
    """

    kind: Literal["trial-step"] = "trial-step"
    volt: Annotated[
        tuple[Annotated[float, Field(ge=0, le=40000)], ...], Field(min_length=1, max_length=3)
    ]
    amp: Annotated[tuple[Amp, ...], Field(min_length=1, max_length=3)]
    watt: Watt | None = None
    rpm: Rpm | None = None
    celsius: Degree | None = None
    minute: Annotated[float, Field(ge=0, le=10000)] | None = None
    newton_metre: Annotated[float, Field(ge=0, le=1e6)] | None = None
    turns: Turning = ""
    remark: LongText = ""
    instrument: ShortText = "typed"


class TrialStart(Body):
    """One start under the stall guard: V, what became of it, seconds on, rpm the device let go at."""

    kind: Literal["trial-start"] = "trial-start"
    volt: Annotated[float, Field(gt=0, le=40000)]
    outcome: Outcome
    seconds: Annotated[float, Field(ge=0, le=3600)]
    rpm: Rpm | None = None


class TrialHeard(Body):
    """Something heard or seen: drop-out or drop-in (rpm or s), sound, sparking, volts it turns from."""

    kind: Literal["trial-heard"] = "trial-heard"
    what: Heard
    text: Annotated[str, Field(min_length=1, max_length=400)]


class TrialEnded(Body):
    """Bench switch off, supply read as zero: the sheet is closed; with a reason where it was abandoned."""

    kind: Literal["trial-ended"] = "trial-ended"
    zero_volt: Annotated[float, Field(ge=0, le=5)] = 0.0
    abandoned: ShortText = ""
