"""What Test run asks: a sheet, what makes it ready, steps, starts, its end."""

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from careful_coil.core.ledger.asks.question import Question
from careful_coil.core.ledger.asks.tick import ticked
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.trial.begin import left_to_ready, ready_items

if TYPE_CHECKING:
    from careful_coil.core.ledger.judgement import Judgement


def begin(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for a sheet to be begun."""
    return replace(ticked(step, "begin", "bench", step.title), lines=step.lines)


def ready(judged: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for what must be ready before volts."""
    left = left_to_ready(judged.job, judged.facts.connecting, judged.facts.start_way)
    every = ready_items(judged.job, judged.facts.connecting, judged.facts.start_way)
    items = every if len(left) == len(every) else left
    return ticked(step, "trial-ready", "bench", "ready", [i.name for i in items])


def end(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the supply to be off and read as zero."""
    return ticked(step, "trial-end", "bench", "off, read as zero")
