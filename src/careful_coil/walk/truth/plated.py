"""What is printed on a plate, by field, and what of it the physics needs."""

import re

USUAL_POLES, MOST_POLES = 4, 16
FIELDS = {
    "phases": re.compile(r"\b([13])\s?(?:~|ph\b|phase)", re.I),
    "volt": re.compile(r"([\d.,]+(?:\s?[-–/]\s?[\d.,]+)*)\s?V\b"),
    "hertz": re.compile(r"([\d.]+)\s?Hz", re.I),
    "amp": re.compile(r"([\d.,]+(?:\s?[-–/]\s?[\d.,]+)*)\s?A\b"),
    "power": re.compile(r"([\d./ ]+?\s?(?:kW|hp|W|PS))\b"),
    "rpm": re.compile(r"(\d{3,5})\s?(?:rpm|r/min|/min)", re.I),
    "power-factor": re.compile(r"(?:cos|PF)\s?φ?\s?([\d.]+)", re.I),
    "capacitor": re.compile(r"(\d[\d.\-–]*\s?µF(?:\s?\d+\s?V)?)"),
    "code": re.compile(r"\bcode\s([A-V])\b", re.I),
    "insulation-class": re.compile(r"\bCL\.?\s?([A-H])\b", re.I),
    "rotation": re.compile(r"\b((?:CW|CCW)\s?(?:DE|OPE|LE)?)\b"),
}


def printed(text: str, field: str) -> str:
    """Return a field as printed, empty where the plate does not have it."""
    pattern = FIELDS.get(field)
    found = pattern.search(text) if pattern is not None else None
    return found[1].strip() if found is not None else ""


def poles_of(text: str) -> int:
    """Return the poles a plate's rpm and hertz mean: the most whose n_sync is not below the rpm; 4 unknown."""
    rpm, hertz = figures(text, "rpm"), figures(text, "hertz")
    if not rpm or not hertz:
        return USUAL_POLES
    found = 2 * int(60 * hertz[-1] / rpm[-1])
    return found if 2 <= found <= MOST_POLES else USUAL_POLES


def figures(text: str, field: str) -> tuple[float, ...]:
    """Return the figures of a field, rising."""
    return tuple(sorted(float(f) for f in re.findall(r"\d+(?:\.\d+)?", printed(text, field))))


def middle_microfarad(marking: str) -> float:
    """Return the µF of a capacitor's print, the middle of a range; 0 where it has none."""
    found = [float(f) for f in re.findall(r"\d+(?:\.\d+)?", marking.split("µF", maxsplit=1)[0])]
    return sum(found) / len(found) if found and "µF" in marking else 0.0
