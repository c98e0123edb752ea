"""What is logged at Connect: the supply measured, what is wanted, every cut and joint, what proves them."""

from typing import Annotated, Literal

from pydantic import Field

from careful_coil.core.job.body import Body, LongText, ShortText

Volt = Annotated[float, Field(ge=0, le=40000, allow_inf_nan=False)]
Amp = Annotated[float, Field(ge=0, le=20000, allow_inf_nan=False)]
Names = Annotated[tuple[ShortText, ...], Field(min_length=1, max_length=24)]
Joint = Annotated[tuple[ShortText, ...], Field(min_length=2, max_length=24)]
Turning = Literal["smooth", "rough", "none", ""]  # nothing: it was not said


class SupplyRead(Body):
    """Six voltages: L1-L2, L2-L3, L3-L1, then L1, L2, L3 to neutral or earth; motor running or off."""

    kind: Literal["supply-read"] = "supply-read"
    line: tuple[Volt, Volt, Volt]
    neutral: tuple[Volt, Volt, Volt] | None = None
    running: bool = False


class StandsSo(Body):
    """The joints as they stand now, by tag and line: what was joined or cut before no longer counts."""

    kind: Literal["stands-so"] = "stands-so"
    joints: Annotated[tuple[Joint, ...], Field(max_length=24)] = ()


class Parted(Body):
    """Leads taken out of the joint they stood in; the length left, if it was noted."""

    kind: Literal["parted"] = "parted"
    leads: Names
    left_mm: Annotated[float, Field(gt=0, le=5000)] | None = None


class Insulated(Body):
    """A lead insulated on its own."""

    kind: Literal["insulated"] = "insulated"
    lead: ShortText


class StepTicked(Body):
    """Something done that leaves no joint: marks read, device fitted, earth, sensors, covers, a tag."""

    kind: Literal["step-ticked"] = "step-ticked"
    step: ShortText
    done: bool = True


class StepOhm(Body):
    """Ohms between two names while the change is under way, Ω; the joints as they stood then."""

    kind: Literal["step-ohm"] = "step-ohm"
    between: tuple[ShortText, ShortText]
    value: float | ShortText


class LowRun(Body):
    """A run at a quarter of the volts or less: V between lines, A of each line, how it turns.

    `way` the direction seen from the drive end, nothing where it was not watched.
    """

    kind: Literal["low-run"] = "low-run"
    volt: Annotated[float, Field(gt=0, le=20000, allow_inf_nan=False)]
    amp: Annotated[tuple[Amp, ...], Field(min_length=1, max_length=3)]
    turns: Turning
    way: Literal["", "cw", "ccw"] = ""
    instrument: ShortText = "typed"


class LeadClamped(Body):
    """Amps in one lead of several in parallel, A."""

    kind: Literal["lead-clamped"] = "lead-clamped"
    lead: ShortText
    amp: Amp


class TurnSeen(Body):
    """Which way it turns, from which end, and how that was seen."""

    kind: Literal["turn-seen"] = "turn-seen"
    turns: Literal["cw", "ccw"]
    seen_from: Literal["drive-end", "opposite"]
    how: Literal["indicator", "low run", "bump", "run"] = "low run"


class Installer(Body):
    """One line of what the change asks beyond the motor: done, waived with a reason, or open again."""

    kind: Literal["installer"] = "installer"
    item: ShortText
    state: Literal["done", "waived", "open"] = "done"
    words: LongText = ""
