"""Sums of what the hands find: a bearing by its number."""

from careful_coil.core.errors import BadValue
from careful_coil.core.mechanics.bearing import WANTED, Callipers, describe, look_up
from careful_coil.core.sums.model import Given, Input, Sum, Worked


def _bearing(given: Given) -> Worked:
    text = str(given["number"])
    found = look_up(text, Callipers(), 0.0)
    if found.standing != "known":
        raise BadValue(text, WANTED, found.why)
    number = found.numbers[0]
    notes = [f"{number.words}: {number.closure}, clearance {number.clearance}."]
    if number.suffixes:
        notes.append(f"{describe(number.suffixes)}.")
    if number.unknown:
        notes.append(f"{number.unknown} is not known here: order it as printed.")
    if len(found.numbers) > 1:
        notes.append(f"Behind the number it can be: {', '.join(n.words for n in found.numbers)}.")
    if number.bearing.closed != number.bearing.width:
        notes.append(
            f"Open it is {number.bearing.width:.4g} mm wide, with shields or seals {number.bearing.closed:.4g} mm."
        )
    notes.append("Callipers beside the number: where they disagree it is special.")
    return {
        "bore_mm": number.bearing.bore,
        "outside_mm": number.bearing.outside,
        "width_mm": number.width,
    }, tuple(notes)


MECHANICS_SUMS: tuple[Sum, ...] = (
    Sum(
        name="bearing",
        title="Bearing by its number",
        formula="bore 10, 12, 15, 17 mm for 00 to 03, from 04 five times the code; the rest by table",
        domain="deep-groove ball bearings 60, 62, 63, 68, 69, inch R; ? for a worn character",
        source="ISO 15 boundary dimensions; ANSI/ABMA 12.2 for inch sizes",
        inputs=(Input(key="number", title="its number, such as 6203-2RS C3"),),
        units={"bore_mm": "mm", "outside_mm": "mm", "width_mm": "mm"},
        work=_bearing,
    ),
)
