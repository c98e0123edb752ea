"""What Intake and Leads ask: the plate, the leads, readings, kicks, runs."""

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from careful_coil.core.condition.symptoms import COMPLAINTS
from careful_coil.core.connect.standard import offered
from careful_coil.core.identify.rules import right_marks
from careful_coil.core.job.at_release import PLACES
from careful_coil.core.kind.sign_table import SIGNS
from careful_coil.core.ledger.asks.noted import noted
from careful_coil.core.ledger.asks.question import Question
from careful_coil.core.ledger.asks.tick import ticked, worked
from careful_coil.core.ledger.step import NextStep

if TYPE_CHECKING:
    from careful_coil.core.ledger.judgement import Judgement


def name(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask what the shop will call the motor."""
    return noted("ticket", "name")


def go_ahead(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the customer's go-ahead."""
    return noted("ticket", "go-ahead")


def plate(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for one field of the plate, as printed."""
    field = found["field"]
    return noted("plate", field, ends=(field,))


def count(judged: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask which leads come out: each with colour and print, or how many."""
    return Question(
        id="count",
        name="leads that come out: print of each"
        if judged.job.on_site
        else "leads that come out: colour and print of each",
        quantity="inventory",
        part="leads",
        type="text",
        ends=("prints",) if judged.job.on_site else (),
        reader="count",
    )


def found(judged: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the joints as found: `choices` the standard hookups that a number names."""
    standards = offered(judged.job, judged.facts.naming)
    return Question(
        id="found",
        name="joints as found, ; between two; apart where there are none",
        quantity="look",
        part="hookup",
        type="text",
        choices=tuple("; ".join(" ".join(j) for j in s.joints) for s in standards),
        reader="found",
    )


PAIRS = (
    "thermistor",
    "heater",
    "rtd",
    "thermostat",
    "tachometer",
    "brake",
    "protector",
    "capacitor",
)


def beside(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask what a pair beside the winding is."""
    return Question(
        id="known",
        name="what the pair is",
        quantity="word",
        part=f"lead:{step.ends[0]}",
        type="choice",
        choices=PAIRS,
        ends=step.ends,
        reader="beside",
    )


def complaint(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask what is wrong, in the customer's words or by numbers, from 0, of the usual ones."""
    asked = noted("ticket", "complaint", id="complaint", part="complaint")
    return replace(asked, choices=COMPLAINTS)


def retag(judged: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for leads to be marked as the readings have them; `state` each tag with its mark."""
    right = right_marks(judged.job, judged.facts.naming)
    state = ", ".join(f"{tag} {mark}" for tag, mark in right.items())
    return worked(step, "act", "leads", state, ends=step.ends)


def work_place(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask whether it is worked on at the bench or where it stands."""
    return Question(
        id="work-place",
        name="where the work is done",
        quantity="look",
        part="place",
        type="choice",
        choices=PLACES,
        reader="work-place",
    )


def sign(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a look that tells which kind of motor it is."""
    return Question(
        id="look",
        name=step.title,
        quantity="look",
        part="motor",
        type="choice",
        choices=SIGNS[found["name"]].answers,
        ends=(found["name"],),
        reader="look",
    )


def protection(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the protection class by its mark."""
    return Question(
        id="protection",
        name=step.title,
        quantity="look",
        part="class",
        type="choice",
        choices=("I", "II"),
        reader="noted",
        sheet="plate",
        field="protection",
    )


def clipped(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask what the test leads read, clipped together."""
    return Question(
        id="test-leads",
        name="what they read",
        quantity="ohm",
        part="bench",
        type="number",
        unit="Ω",
        reader="test-leads",
    )


def dead(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the proof of no volts."""
    return ticked(step, "dead", "bench", "under 5 V on every lead")
