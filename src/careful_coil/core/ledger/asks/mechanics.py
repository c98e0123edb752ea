"""What Mechanics asks: shaft, bearings, brushes, bars, what must be mended or must not leave."""

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from careful_coil.core.ledger.asks.noted import mended, noted
from careful_coil.core.ledger.asks.question import Question
from careful_coil.core.ledger.asks.tick import ticked, unread
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.mechanics.bearing_rules import DRY_WICK
from careful_coil.core.sheets import SHEETS

if TYPE_CHECKING:
    from careful_coil.core.ledger.judgement import Judgement

OF_SLEEVE = ("wick", "ports", "oil")  # places of a sleeve bearing
SHEET_OF = {"felt": "felt", "brush": "brush"}  # by what its fields begin with in the window


def feel(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask how the shaft turns by hand."""
    return noted("felt", "feel", id="feel")


def fan(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask how fan and guard look."""
    return noted("felt", "fan")


def bearing(judged: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a bearing's number, how it runs, its size, or what was done to it."""
    end = found["end"]
    field = step.focus.removeprefix(f"{end}-")
    if field != "size":
        place = (field,) if field in OF_SLEEVE else ()
        asked = noted("bearing", field, of=end, id=step.focus, ends=place)
        wick = judged.job.hands.bearings.get(end, {}).get("wick") if field == "wick" else ""
        return mended(asked) if wick in DRY_WICK else asked
    return Question(
        id=step.focus,
        name="outside diameter in mm" if step.ends else "bore, outside, width in mm",
        ends=step.ends,
        quantity="size",
        part=f"bearing:{end}",
        type="text",
        reader="noted",
        sheet="bearing",
        field=field,
        of=end,
    )


def brushes(judged: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for a brush's length."""
    return noted("brush", "length", of=_brush(judged))


def _brush(judged: "Judgement") -> str:
    return next(iter(judged.job.hands.brushes), "B1")


def count(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask how many bars the commutator has."""
    return Question(
        id="bars-count",
        name="bars",
        quantity="inventory",
        part="commutator",
        type="number",
        reader="bars-count",
    )


def to_shaft(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for MΩ from the bars to the shaft."""
    return noted("felt", "bars-shaft", id="bars-shaft", ends=("bars", "shaft"))


def mend(judged: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask for what was found bad to be put right, in the field it was found in or beside it."""
    name, _, field = step.focus.partition("-")
    sheet = SHEETS.get(SHEET_OF.get(name, "felt"))
    field = field or name
    if sheet is None or not sheet.knows(field):
        return unread(step, "commutator" if step.focus.startswith("bars") else "lead")
    of = _brush(judged) if sheet.name == "brush" else ""
    return mended(noted(sheet.name, field, of=of, id=step.focus))


def mend_lead(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a lead to be sleeved or renewed: which, and what was done."""
    return Question(
        id="lead-done",
        name="the lead and what was done",
        quantity="work",
        part=f"lead:{found['tag']}",
        type="text",
        state="renewed",
        reader="lead-mended",
    )


def left_on(_: "Judgement", step: NextStep, __: re.Match[str]) -> Question:
    """Ask what is temporary on it, or nothing."""
    return replace(noted("felt", "temporary", id="temporary"), reader="left-on")


def temporary(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a temporary to be taken off, and how."""
    return Question(
        id="temporary-cleared",
        name="how it was taken off",
        quantity="work",
        part=f"temporary:{found['name']}",
        type="text",
        state="removed",
        reader="temporary",
    )


def back(_: "Judgement", step: NextStep, found: re.Match[str]) -> Question:
    """Ask for a part to be put back."""
    return ticked(step, "back", f"cover:{found['name']}", "put back", (found["name"],))
