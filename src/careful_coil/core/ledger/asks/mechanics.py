"""What Mechanics asks: shaft, bearings, brushes, bars, what must be mended or must not leave."""

import re
from typing import TYPE_CHECKING

from careful_coil.core.ledger.asks.question import Question
from careful_coil.core.ledger.asks.tick import ticked, unread, worked
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.mechanics.bearing_rules import DONE, STATES
from careful_coil.core.mechanics.lead_rules import CORD_DONE, RELIEFS
from careful_coil.core.mechanics.shaft_rules import BOLTS, FAN, FEEL, SEALS

if TYPE_CHECKING:
    from careful_coil.core.ledger.judgement import Judgement

# what is found bad → its part, the state that is wanted, how it is said
MENDED: dict[str, tuple[str, str, tuple[str, ...]]] = {
    "feel": ("shaft", "free", tuple(FEEL)),
    "felt-bolts-drive": ("bolts:drive", "free", tuple(BOLTS)),
    "felt-bolts-other": ("bolts:other", "free", tuple(BOLTS)),
    "felt-fan": ("fan", "good", tuple(FAN)),
    "felt-seals": ("seals", "good", tuple(SEALS)),
    "felt-cord-done": ("cord", "renewed", tuple(CORD_DONE)),
    "felt-relief": ("cord", "fast", tuple(RELIEFS)),
    "brush-done": ("brush", "renewed", ("renewed",)),
}


def feel(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask how the shaft turns by hand."""
    return Question(
        id="feel",
        name="turned by hand it is",
        quantity="feel",
        part="shaft",
        type="choice",
        choices=tuple(FEEL),
        reader="felt",
    )


def bearing(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a bearing's number, how it runs, its size, or what was done to it."""
    end, part = found["end"], f"bearing:{found['end']}"
    field = step.focus.removeprefix(f"{end}-")
    if field == "done":
        return worked(step, "bearing", part, "renewed", choices=tuple(DONE))
    if field == "state":
        return Question(
            id=step.focus,
            name="it runs",
            quantity="feel",
            part=part,
            type="choice",
            choices=tuple(STATES),
            reader="bearing",
        )
    number = field in ("number", "fitted")
    return Question(
        id=step.focus,
        name="number as read" if number else "bore, outside, width in mm",
        quantity="print" if number else "size",
        part=part,
        type="text",
        reader="bearing",
    )


def brushes(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for a brush's length."""
    return Question(
        id="brush-length",
        name="length, mm",
        quantity="size",
        part="brush:B1",
        type="number",
        unit="mm",
        reader="brush",
    )


def count(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask how many bars the commutator has."""
    return Question(
        id="bars-count",
        name="bars",
        quantity="inventory",
        part="commutator",
        type="number",
        reader="bars-count",
    )


def to_shaft(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for MΩ from the bars to the shaft."""
    return Question(
        id="bars-shaft",
        name="megohms",
        quantity="insulation",
        part="commutator",
        type="number",
        unit="MΩ",
        ends=("bars", "shaft"),
        reader="felt",
    )


def mend(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for what was found bad to be put right."""
    if step.focus not in MENDED:
        return unread(step, "commutator" if step.focus.startswith("bars") else "lead")
    part, state, choices = MENDED[step.focus]
    return worked(step, "felt" if part != "brush" else "brush", part, state, choices=choices)


def temporary(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a temporary to be taken off, and how."""
    return Question(
        id="temporary-cleared",
        name="how it was taken off",
        quantity="work",
        part=f"temporary:{found['name']}",
        type="text",
        state="removed",
        reader="temporary",
    )


def back(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a part to be put back."""
    return ticked(step, "back", f"cover:{found['name']}", "put back", (found["name"],))
