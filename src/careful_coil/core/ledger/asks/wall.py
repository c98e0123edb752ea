"""What Insulation asks: ready, tests, discharge, drying, coil ohms, bond, covers."""

import re
from typing import TYPE_CHECKING

from careful_coil.core.condition.apart import to_take_off
from careful_coil.core.ledger.asks.noted import noted
from careful_coil.core.ledger.asks.question import Question
from careful_coil.core.ledger.asks.tick import ticked, worked
from careful_coil.core.ledger.step import NextStep

if TYPE_CHECKING:
    from careful_coil.core.ledger.judgement import Judgement


def discharge(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the earth on a charged winding."""
    return ticked(
        step, "discharge", "winding", "earthed long enough", id="discharge", state="earthed"
    )


def ready(judged: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for everything off or earthed before the tester goes on."""
    items = [o.name for o in to_take_off(judged.job, judged.facts.wall, judged.facts.kinds)]
    return ticked(step, "ready", "winding", "off or earthed", items)


def dry(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for drying, or for its end."""
    if step.title.startswith("End"):
        return ticked(step, "drying", "winding", "drying ended")
    return worked(step, "act", "winding", "dried")


def appliance(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the milliamps of the appliance test."""
    return noted("earth", "leakage")


def between(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for two windings to be parted where they touch."""
    return worked(step, "act", "winding", "cleaned")


def covers(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the covers to be put on, or taken off."""
    return worked(
        step, "act", "covers", "opened" if step.code == "open-up" else "closed", id="covers"
    )


def earth(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the earth to be made good."""
    return noted("earth", "done")


def coils(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for ohms of a coil, with the leads they were read between."""
    return Question(
        id="coil-ohm",
        name="leads, then ohms",
        quantity="ohm",
        part="winding",
        type="text",
        unit="Ω",
    )
