"""What Connect asks: supply, wishes, every cut and joint, what proves them."""

import re
from typing import TYPE_CHECKING

from careful_coil.core.connect.proof import checks_of
from careful_coil.core.connect.proof_rules import tags_left
from careful_coil.core.ledger.asks.noted import noted
from careful_coil.core.ledger.asks.question import Question
from careful_coil.core.ledger.asks.tick import ticked, unread, worked
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.sheets import SHEETS

if TYPE_CHECKING:
    from careful_coil.core.ledger.judgement import Judgement

STATES = {"cut": "parted", "joint": "joined", "insulate": "insulated"}
FITTED = {"fit-device": "fitted", "remove-device": "removed"}


def supply(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the supply's volts."""
    return Question(
        id="supply",
        name="volts of the supply",
        quantity="volt",
        part="supply",
        type="number",
        unit="V",
        reader="supply",
    )


def supply_line(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the volts between its lines, as measured."""
    return Question(
        id="supply-line",
        name="volts between lines, one figure or three",
        quantity="volt",
        part="supply",
        type="text",
        unit="V",
        state="measured",
        reader="supply-line",
    )


def wish(judged: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask what is wanted of the hookup, where several would do."""
    field = found["field"]
    own = SHEETS["wished"].field(field)
    now = () if own.special != "wish" else tuple(judged.facts.connecting.choices)
    if field == "seen-from":  # the end this shop looks at is the first
        view = judged.facts.connecting.view
        now = (view, *(w for w in own.words if w != view))
    return noted("wished", field, ends=(field,), choices=now, part=own.part or field)


def dead_work(judged: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a cut, a joint, a lead covered, by tag."""
    ends = judged.facts.connecting.by_tag(step.ends)
    return worked(step, "act", "hookup", STATES[found["do"]], ends, id=step.code)


def device(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a device to be fitted or taken out."""
    return worked(
        step, "act", f"device:{found['name']}", FITTED[found["do"]], (found["name"],), id=step.code
    )


def look(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for a look at the joints."""
    return unread(step, "hookup")


def checks(judged: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for what is seen and felt before power."""
    found = judged.facts.identification
    extras = bool(found and found.best.sensors)
    items = [c.name for c in checks_of(judged.job, judged.facts.connecting, extras)]
    left = [n for n in items if not judged.job.joined.since_last_act(n)]
    return ticked(step, "checks", "hookup", "seen before power", left)


def direction(judged: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask which way it turns, or for that to be changed."""
    if step.focus == "turn-round":
        return worked(step, "exchange", "direction", "reversed")
    return Question(
        id="turn-seen",
        name="which way, from which end, how",
        quantity="direction",
        part="shaft",
        type="text",
        reader="turn-seen",
    )


def tags(judged: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for every voltage tag to be changed."""
    return ticked(
        step,
        "tags",
        "tags",
        "changed",
        sorted(tags_left(judged.job, judged.facts.connecting.changed)),
    )


def installer(judged: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for what the installer must be told."""
    done = judged.job.joined.installer
    items = [x.name for x in judged.facts.installer if x.name not in done]
    return ticked(step, "installer", "installer", "told", items)
