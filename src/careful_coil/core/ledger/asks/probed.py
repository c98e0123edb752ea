"""What is read with probes: the question, as the probe itself declares it."""

import re
from typing import TYPE_CHECKING, cast

from careful_coil.core.condition.bond import places_left
from careful_coil.core.ledger.asks.question import Question
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.probes import PROBES
from careful_coil.core.sheets.field import Ask

if TYPE_CHECKING:
    from careful_coil.core.ledger.judgement import Judgement

BUNCHED = "+"
TIMED = ("amp", "rpm", "turns")  # of the reading after the minutes of a run: its speed too


def probed(judged: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for what the probes of a step are on; one that was skipped is known by its code."""
    kind, *named = step.code.split("-")
    probe = PROBES[step.act if step.act in PROBES else kind]
    ends = step.ends or tuple(named)
    first = ends[0] if ends else ""
    if step.also:
        ends = (ends[0], BUNCHED.join((ends[1], *step.also)))
    quantity, name = probe.asks
    places = places_left(judged.job) if probe.kind == "bond" else ()
    return Question(
        id=step.code,
        name=name,
        quantity=cast(Ask, quantity),
        part=probe.part.format(first),
        type="choice" if probe.words else "number" if probe.unit else "text",
        unit=probe.unit,
        choices=probe.words or (places if len(places) > 1 else ()),
        ends=(*ends, "frame") if probe.kind == "frame" else ends,
        sense=step.sense or probe.against,
        lines=step.lines,
        joints=step.joints,
        volt=step.volt,
        state=step.state,
        reader="strip",
        wants=TIMED if probe.kind == "trial" and step.state else probe.wants,
    )
