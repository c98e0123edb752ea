"""What Intake and Leads ask: the plate, the leads, readings, kicks, runs."""

import re
from typing import TYPE_CHECKING

from careful_coil.core.ledger.asks.question import Quantity, Question
from careful_coil.core.ledger.asks.tick import ticked
from careful_coil.core.ledger.entry_line import KICK_WORDS, SHAFT_WORDS, SWITCH_WORDS
from careful_coil.core.ledger.step import NextStep

if TYPE_CHECKING:
    from careful_coil.core.ledger.judgement import Judgement

BUNCHED = "+"
# act → quantity, what it is called, type, unit, choices
PROBES: dict[str, tuple[Quantity, str, str, tuple[str, ...]]] = {
    "resistance": ("ohm", "ohms", "Ω", ()),
    "frame": ("ohm", "ohms to the frame", "Ω", ()),
    "switch": ("switch", "what it does", "", SWITCH_WORDS),
    "shaft": ("turn", "what it does", "", SHAFT_WORDS),
    "spin": ("spin", "volts", "V", ()),
    "kick": ("kick", "which way it kicks", "", KICK_WORDS),
    "series": ("series", "volts put on, volts read", "", ()),
    "run": ("run", "volts, three amps, how it turns", "", ()),
}


def name(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask what the shop will call the motor."""
    return Question(
        id="name", name="motor", quantity="word", part="ticket", type="text", reader="ticket"
    )


def plate(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for one field of the plate, as printed."""
    field = found["field"]
    return Question(
        id=field,
        name=field,
        quantity="plate",
        part="plate",
        type="text",
        ends=(field,),
        reader="plate",
    )


def count(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask how many leads come out."""
    return Question(
        id="count",
        name="leads that come out",
        quantity="inventory",
        part="leads",
        type="number",
        reader="count",
    )


def dead(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the proof of no volts."""
    return ticked(step, "dead", "bench", "under 5 V on every lead")


def reading(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for what the probes are on."""
    kind, *named = step.code.split("-")  # one put off is known by its code
    quantity, words, unit, choices = PROBES[step.act if step.act in PROBES else kind]
    ends = step.ends or tuple(named)
    if step.also:
        ends = (ends[0], BUNCHED.join((ends[1], *step.also)))
    return Question(
        id=step.code,
        name=words,
        quantity=quantity,
        part=f"lead:{ends[0]}" if step.act == "frame" else "winding",
        type="choice" if choices else "number" if unit else "text",
        unit=unit,
        choices=choices,
        ends=(*ends, "frame") if step.act == "frame" else ends,
        sense=step.sense,
        lines=step.lines,
        joints=step.joints,
        reader="strip",
    )
