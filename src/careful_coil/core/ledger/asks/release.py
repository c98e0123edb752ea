"""What Release asks: words for what was done outside, the site's list, what is still open, the signature."""

import re
from typing import TYPE_CHECKING

from careful_coil.core.ledger.asks.question import Question
from careful_coil.core.ledger.asks.tick import unread
from careful_coil.core.ledger.asks.wall import coils
from careful_coil.core.ledger.parts import part_of
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.probes import PROBES
from careful_coil.core.sheets.field import Ask

if TYPE_CHECKING:
    from careful_coil.core.ledger.judgement import Judgement

# a line of the field sheet → quantity, part, type, unit
SITE: dict[str, tuple[Ask, str, str, str]] = {
    "site-dead": ("volt", "bench", "number", "V"),
    "site-megohm": ("insulation", "winding", "text", "MΩ"),
    "site-bond": ("bond", "earth", "number", "Ω"),
    "site-drained": ("tick", "winding", "text", "s"),
    "site-supply": ("volt", "supply", "text", "V"),
    "site-phase-order": ("direction", "supply", "text", ""),
    "site-amps": ("amp", "run", "text", "A"),
    "site-volts": ("volt", "hookup", "text", "V"),
    "site-direction": ("direction", "shaft", "text", ""),
}


def site(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a line of the field sheet."""
    code = step.code
    pair = re.fullmatch(r"site-ohm-(L\d)-(L\d)", code)
    if pair is not None:
        return Question(
            id=code,
            name=step.title,
            quantity="ohm",
            part="hookup",
            type="number",
            unit="Ω",
            ends=(pair[1], pair[2]),
            reader="site",
        )
    if code.startswith("site-told-"):
        return Question(
            id=code, name=step.title, quantity="word", part="installer", type="text", reader="site"
        )
    quantity, part, kind, unit = SITE[code]
    return Question(
        id=code,
        name=step.title,
        quantity=quantity,
        part=part,
        type="number" if kind == "number" else "text",
        unit=unit,
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
