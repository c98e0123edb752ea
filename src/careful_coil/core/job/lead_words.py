"""A lead described in a line, in any order: `brown/white T1 1.5mm² 120mm cracked ring`."""

import re
from collections.abc import Sequence
from typing import Any, get_args

from careful_coil.core.colour_codes import CODES
from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure, kept, whole
from careful_coil.core.job.at_intake import Lead, Leads
from careful_coil.core.units import Quantity

TAGS = "ABCDEFGHJKLMNPRS"  # no I, O, Q: they are misread on a tag

COLOURS = (
    *("black", "white", "red", "blue", "yellow", "green", "brown", "orange", "grey", "gray"),
    *("purple", "violet", "lilac", "pink", "turquoise", "tan", "natural", "clear"),
)
INSULATIONS = tuple(
    w for w in get_args(Lead.model_fields["insulation"].annotation) if isinstance(w, str) and w
)
ENDS = ("ring", "spade", "fork", "cut", "pin", "plug", "socket", "soldered", "crimp", "clamp")
USES = ("thermostat", "thermistor", "rtd", "tachometer", "heater", "brake", "earth", "protector")
_SIZE = re.compile(r"(\d+(?:[.,]\d+)?)\s?(mm2|mm²|sq|awg|swg)", re.I)
_LENGTH = re.compile(r"(\d+(?:[.,]\d+)?)\s?(mm|cm|in|m)", re.I)
WANTED = (
    "colour/tracer, print, size, length, insulation, end: brown/white T1 1.5mm² 120mm cracked ring"
)


COUNT = (
    f"how many, 2 to {len(TAGS)}, each in turn: brown T1; blue T4; green/yellow earth, or by letter codes: "
    "bn T1 bu T4 gnye earth; or a row: black T1-T9; or prints alone: U1 V1 W1 U2 V2 W2"
)


def counted(text: str) -> Leads:
    """Return so many leads with tags, or one for each that is described, in turn. Raises: BadValue.

    A description may begin with the tag: `A brown T1; B blue T4`. Where each begins with its colour nothing
    need stand between them: `bn T1 bu T4`. Prints alone stand in a row too: `U1 V1 W1 U2 V2 W2`.
    """
    prints = _prints(text.split())
    if prints:
        # A B C: tags, nothing printed
        own = [p.upper() for p in prints] == list(TAGS[: len(prints)])
        return Leads(
            leads=tuple(
                Lead(tag=t) if own else read_lead(p, Lead(tag=t))
                for t, p in zip(TAGS, prints, strict=False)
            )
        )
    told = [item.strip() for item in re.split(r"[;\n]|, ", text.strip()) if item.strip()]
    if len(told) == 1:
        told = _by_colours(told[0])
    told = [each for item in told for each in _row(item)]
    if len(told) < 2:
        count = whole(text, 2, len(TAGS), COUNT)
        return Leads(leads=tuple(Lead(tag=t) for t in TAGS[:count]))
    if len(told) > len(TAGS):
        raise BadValue(f"{len(told)} leads", COUNT)
    leads = []
    for tag, item in zip(TAGS, told, strict=False):
        first, _, rest = item.partition(" ")
        if first.upper() == tag and (rest or len(first) == 1):
            item = rest
        leads.append(read_lead(item, Lead(tag=tag)) if item.strip() else Lead(tag=tag))
    return Leads(leads=tuple(leads))


_PRINT = re.compile(r"[A-Za-z]{1,2}\d{0,2}|\d[UVWZ]\d|\d{1,2}", re.I)


def _prints(words: Sequence[str]) -> Sequence[str]:
    """Return words that are what is printed on a lead each, none twice; nothing where they may be something else."""
    if not 2 <= len(words) <= len(TAGS) or len(set(words)) < len(words):
        return ()
    if not all(_PRINT.fullmatch(w) and not _colour(w) and w.lower() not in USES for w in words):
        return ()
    numbers = all(w.isdecimal() for w in words)  # 1 2 3 4; 12 6 is a slip
    return () if numbers and [int(w) for w in words] != list(range(1, len(words) + 1)) else words


_GLUED = re.compile(rf"({'|'.join(CODES)})([TUVWZ]?\d{{1,2}}|\d?[UVW]\d?)", re.I)
_SHADE = re.compile(rf"\b(light|dark|pale)[ -]+(?=(?:{'|'.join(COLOURS)})\b)", re.I)


def _by_colours(item: str) -> list[str]:
    """Return a description for each lead where the first word and others are colours; any other as it is."""
    words: list[str] = []
    for word in _SHADE.sub(r"\1-", item).split():
        glued = _GLUED.fullmatch(word)
        words += glued.groups() if glued is not None else (word,)
    begins = [k for k, word in enumerate(words) if _colour(word)]
    if len(begins) < 2 or begins[0] != 0:
        return [item]
    ends = (*begins[1:], len(words))
    return [" ".join(words[a:b]) for a, b in zip(begins, ends, strict=True)]


_ROW = re.compile(
    r"(?P<before>.*?)\bT(?P<first>\d{1,2})\s*(?:-|–|to|\.\.)\s*T?(?P<last>\d{1,2})\b(?P<after>.*)",
    re.I,
)


def _row(item: str) -> list[str]:
    """Return a description for each lead of a row of prints: `black T1-T9`; any other as it is."""
    found = _ROW.fullmatch(item)
    if found is None or not 0 < int(found["first"]) < int(found["last"]) <= len(TAGS):
        return [item]
    numbers = range(int(found["first"]), int(found["last"]) + 1)
    return [f"{found['before']}T{n}{found['after']}".strip() for n in numbers]


def read_lead(text: str, lead: Lead) -> Lead:
    """Return a lead as described; what is not said stays as it was. Raises: BadValue.

    A word that is none of colour, size, length, state or end is what is printed on it; `-` takes
    the print away.
    """
    said: dict[str, Any] = {}
    joined = re.sub(r"(?<=\d)\s+(?=(?:mm2|mm²|sq|awg|swg|mm|cm|in|m)\b)", "", text, flags=re.I)
    for word in _SHADE.sub(r"\1-", joined).split():
        for field, value in _meaning(word).items():
            if field in said:
                raise BadValue(word, f"one {field.replace('_mm', '')} a lead: {WANTED}")
            said[field] = value
    if not said:
        raise BadValue(text, WANTED)
    return lead.model_copy(update=said)


def _meaning(word: str) -> dict[str, Any]:
    plain = word.lower()
    if own := _colour(plain):
        base, _, stripe = own.partition("/")
        return {"colour": base, "tracer": stripe}
    if plain in INSULATIONS:
        return {"insulation": plain}
    if plain in ENDS:
        return {"end": plain}
    if plain in USES:
        return {"use": plain}
    size = _SIZE.fullmatch(plain)
    if size:
        unit = "mm²" if size[2] in ("mm2", "mm²", "sq") else size[2].upper()
        return {"size": f"{kept(figure(size[1]))} {unit}"}
    length = _LENGTH.fullmatch(plain)
    if length:
        long = figure(plain, Quantity.LENGTH, least=0.1, most=20000, wanted="a length up to 20 m")
        return {"length_mm": long}
    if plain == "-":
        return {"marking": ""}
    return {"marking": word}


def _colour(word: str) -> str:
    """Return the colour a word or its letter codes name, a tracer behind a stroke; empty for any other word."""
    if word.lower() in CODES:
        return CODES[word.lower()]
    base, stroke, stripe = word.lower().partition("/")
    told = [CODES.get(w, w) for w in (base, stripe) if w]
    plain = all(re.sub(r"^(light|dark|pale)-", "", w) in COLOURS for w in told)
    return "/".join(told) if plain and base and (stripe or not stroke) else ""


def alike(leads: tuple[Lead, ...], tag: str) -> tuple[Lead, ...]:
    """Return the leads with all that one lead is, but for its print and use, given to every other."""
    model = next(x for x in leads if x.tag == tag)
    same = {
        f: getattr(model, f) for f in ("colour", "tracer", "size", "length_mm", "insulation", "end")
    }
    return tuple(x.model_copy(update=same) for x in leads)


def lead_words(lead: Lead) -> str:
    """Return a lead as it would be typed."""
    colour = f"{lead.colour}/{lead.tracer}" if lead.tracer else lead.colour
    long = f"{lead.length_mm:g}mm" if lead.length_mm else ""
    size = lead.size.replace(" ", "")
    parts = (colour, lead.marking, size, long, lead.insulation, lead.end, lead.use)
    return " ".join(p for p in parts if p)
