"""What Start gear asks: first questions, tests of causes, capacitors, devices, work."""

import re
from typing import TYPE_CHECKING

from careful_coil.core.condition.causes import CAUSES
from careful_coil.core.gear.capacitor_rules import renewed_as, to_fit
from careful_coil.core.gear.device_rules import fitted, told_of
from careful_coil.core.gear.separating import TESTS
from careful_coil.core.gear.work import left_of
from careful_coil.core.ledger.asks.noted import noted
from careful_coil.core.ledger.asks.question import Question
from careful_coil.core.ledger.asks.tick import ticked, unread
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.settings import Settings

if TYPE_CHECKING:
    from careful_coil.core.ledger.judgement import Judgement

FIELDS = {"drain": "drained", "measure": "microfarad"}
LOOKED = {  # words of a step's title → field; the first that stands there
    "leads of its own": "sensing",
    "mechanism": "actuator",
    "plate": "plate",
    "across": "across",
}


def inventory(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask which capacitors, switches and relays the motor has."""
    return Question(
        id="start-gear",
        name="capacitors, switches, relays: a name and what is printed or what it is; or none",
        quantity="inventory",
        part="start-gear",
        type="text",
        reader="inventory",
    )


def first(judged: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask the first question of a complaint."""
    causes = judged.facts.causes
    return Question(
        id="cause-first",
        name=step.title,
        quantity="cause",
        part="complaint",
        type="choice",
        choices=tuple(causes.answers) if causes else (),
        ends=(causes.key,) if causes else (),
        reader="first-question",
    )


def test(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask what a test showed that tells two causes apart."""
    return Question(
        id="cause-test",
        name=step.title,
        quantity="cause",
        part="complaint",
        type="choice",
        choices=TESTS[found["name"]].outcomes,
        ends=(found["name"],),
        reader="cause-test",
    )


def cause(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the cause by name."""
    return Question(
        id="cause",
        name="the cause",
        quantity="cause",
        part="complaint",
        type="choice",
        choices=tuple(CAUSES),
        reader="cause",
    )


def capacitor(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for the charge or the µF of a capacitor."""
    return noted("capacitor", FIELDS[found["do"]], of=found["name"])


def marking(judged: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask what is printed on a capacitor."""
    fit = renewed_as(judged.job, found["name"])
    return noted("capacitor", "marking", of=found["name"], ends=(fit,) if fit else ())


def shelf(judged: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a capacitor to be renewed by what is to be fitted, and by whom; the new one's print is asked then."""
    fit = to_fit(judged.job, found["name"])
    return noted("capacitor", "renewed", of=found["name"], ends=(fit,) if fit else ())


def serves(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask whether a capacitor starts or stays in."""
    return noted("capacitor", "serves", of=found["name"], ends=("serves",))


def ohm(judged: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for the ohms of a device between two terminals in a posture."""
    name = found["name"]
    told = told_of(judged.job.gear, name, Settings(), judged.job.plate)
    left = next((t.expected for t in told if t.verdict == "unproven" and t.expected), None)
    if left is not None and left.positional:
        terminals = fitted(judged.job.gear, name).terminals()
        return Question(
            id="device-ohm",
            name="each pair that conducts with its ohms, L-3 0.05; or none",
            quantity="ohm",
            part=f"device:{name}",
            type="text",
            ends=tuple(t.partition(".")[2] for t in terminals),
            state=left.when,
            reader="device-ohm",
        )
    return Question(
        id="device-ohm",
        name="ohms",
        quantity="ohm",
        part=f"device:{name}",
        type="number",
        unit="Ω",
        ends=left.between if left else (),
        state=left.when if left else "",
        reader="device-ohm",
    )


def look(judged: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a look at a part of a device, or for a switch's positions."""
    name = found["name"]
    if "positions" in step.title:
        ends = tuple(fitted(judged.job.gear, name).terminals())
        return noted("device-noted", "table", of=name, ends=ends)
    kind = next(k for k in LOOKED if k in step.title)
    return noted("device-noted", LOOKED[kind], of=name, ends=(kind,))


def renew(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a device to be renewed, and by whom; its readings and looks are asked anew."""
    return noted("device-noted", "renewed", of=found["name"])


def work(judged: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for the next step of a piece of work."""
    for begun, done in judged.job.gear.steps.items():
        left = left_of(begun, done)
        if left and begun.replace(" ", "-") == found["name"]:
            part = f"device:{begun.partition(' ')[2]}"
            return ticked(step, "gear-step", part, begun, (left[0].name,))
    return unread(step, "start-gear")
