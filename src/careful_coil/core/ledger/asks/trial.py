"""What Test run asks: a sheet, what makes it ready, steps, starts, its end."""

import re
from typing import TYPE_CHECKING

from careful_coil.core.ledger.asks.question import Quantity, Question
from careful_coil.core.ledger.asks.tick import ticked
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.trial.begin import left_to_ready, ready_items

if TYPE_CHECKING:
    from careful_coil.core.ledger.judgement import Judgement

PROBES: dict[str, tuple[Quantity, str, str]] = {
    "trial": ("step", "volts, amps, watts, rpm, how it turns", "text"),
    "start": ("start", "what became of it, seconds, rpm", "text"),
    "turning": ("turning", "volts it turns from", "number"),
    "drop-in": ("heard", "rpm at which it comes back in", "text"),
}


def begin(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for a sheet to be begun."""
    return ticked(step, "begin", "bench", step.title)


def ready(judged: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for what must be ready before volts."""
    left = left_to_ready(judged.job, judged.connecting, judged.start_way)
    every = ready_items(judged.job, judged.connecting, judged.start_way)
    items = every if len(left) == len(every) else left
    return ticked(step, "trial-ready", "bench", "ready", [i.name for i in items])


def probe(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for what is read while volts are on."""
    quantity, words, kind = PROBES[step.act]
    return Question(
        id=step.code,
        name=words,
        quantity=quantity,
        part="run",
        type="number" if kind == "number" else "text",
        unit="V" if kind == "number" else "",
        ends=step.ends,
        volt=step.volt,
        state=step.state,
        reader="strip",
    )


def end(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the supply to be off and read as zero."""
    return ticked(step, "trial-end", "bench", "off, read as zero")
