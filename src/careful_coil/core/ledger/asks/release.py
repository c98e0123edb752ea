"""What Release asks: words for what was done outside, the site's list, what is still open, the signature."""

import re
from typing import TYPE_CHECKING

from careful_coil.core.connect.changed import pairs_of
from careful_coil.core.gear.cause_rules import NOT_FOUND_MINUTES
from careful_coil.core.ledger.asks.noted import noted
from careful_coil.core.ledger.asks.question import AnswerType, Question
from careful_coil.core.ledger.asks.tick import unread, worked
from careful_coil.core.ledger.asks.wall import coils
from careful_coil.core.ledger.parts import part_of
from careful_coil.core.ledger.site import field_sheet
from careful_coil.core.ledger.site_live import SHOWN, turns_from
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.probes import PROBES
from careful_coil.core.sheets.field import Ask

if TYPE_CHECKING:
    from careful_coil.core.ledger.judgement import Judgement

# a line of the field sheet → quantity, part, type, unit
SITE: dict[str, tuple[Ask, str, AnswerType, str]] = {
    "site-megohm": ("insulation", "winding", "text", "MΩ"),
    "site-bond": ("bond", "earth", "number", "Ω"),
    "site-drained": ("tick", "winding", "text", "s"),
    "site-supply": ("volt", "supply", "text", "V"),
    "site-phase-order": ("direction", "supply", "choice", ""),
    "site-amps": ("amp", "run", "text", "A"),
    "site-volts": ("volt", "run", "text", "V"),
    "site-start": ("start", "run", "text", "s"),
    "site-ran": ("step", "run", "text", "A"),
    "site-direction": ("direction", "shaft", "choice", ""),
}
STATES = {"site-ran": f"{NOT_FOUND_MINUTES:g} min"}
WANTS = {"site-start": ("outcome", "seconds"), "site-amps": ("amp",), "site-ran": ("amp", "turns")}
VOLTS_ON = ("site-start", "site-amps", "site-direction", "site-ran")


def site(judged: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a line of the field sheet, named by how it is written."""
    code, facts = step.code.removesuffix("-before"), judged.facts
    lines = field_sheet(judged.job, facts.connecting, facts.installer)
    name = next((f"such as {k.hint}" for k in lines if k.name == step.code), step.title)
    if code == "site-ohms":
        pairs = pairs_of(judged.job)
        return Question(
            id=step.code,
            name=name,
            quantity="ohm",
            part="hookup",
            type="text",
            unit="Ω",
            ends=tuple(dict.fromkeys(end for pair in pairs for end in pair.split("-"))),
            reader="site",
        )
    if code.startswith("site-told-"):
        return Question(
            id=code, name=name, quantity="word", part="installer", type="text", reader="site"
        )
    supply = judged.job.supply
    quantity, part, kind, unit = SITE[code]
    choices = {"site-phase-order": SHOWN, "site-direction": turns_from(facts.connecting.view)}
    return Question(
        id=step.code,
        name=name,
        quantity=quantity,
        part=part,
        type="number" if quantity == "insulation" and judged.job.tested.tests else kind,
        unit=unit,
        choices=choices.get(code, ()),
        state=STATES.get(code, ""),
        wants=WANTS.get(code, ()),
        volt=supply.volt if supply is not None and code in VOLTS_ON else 0.0,
        sense=PROBES["insulation"].against if quantity == "insulation" else (),
        reader="site",
    )


def still_open(judged: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for what keeps the gate shut and has no step of its own."""
    if found["code"] == "coils-balanced":
        return coils(judged, step, found)
    part = next((f.part for f in judged.gate if f.code == found["code"] and f.part), "")
    return unread(step, part or part_of(found["code"]))


def rewind(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the rewind to be done."""
    return Question(
        id="rewind",
        name="rewound, here or outside",
        quantity="work",
        part="winding",
        type="tick",
        state="rewound",
        reader="act",
    )


def bring_in(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the motor to be brought to the bench."""
    return worked(step, "act", "place", "bench")


def wound_by(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the winder's word."""
    return noted("winding-made", "wound")


def let_go(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask how it goes instead, and why."""
    return Question(
        id="let-go",
        name="unrepaired or scrap, and why",
        quantity="word",
        part="customer",
        type="text",
        ends=("out",),
        reader="let-go",
    )


def sign(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for the signature."""
    return Question(
        id="sign",
        name="initials of who lets it go",
        quantity="word",
        part="release",
        type="text",
        reader="sign",
    )
