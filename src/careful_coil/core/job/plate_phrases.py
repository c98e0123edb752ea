"""Phrases of a nameplate that are several words: kind, protector, rotation with its end, connection, duty.

Taken out before figures are read, so that a word of a phrase is not taken for a unit: the PH of SPLIT PH, the
D of D/Y.
"""

import re
from collections.abc import Callable

_CAP = r"CAP(?:ACITOR|\.)?"
_END = r"(?:FROM\s+|FACING\s+|LOOKING AT\s+)*(?:THE\s+)?"
_ENDS = (
    (r"OP(?:P|POSITE)?\.?[\s-]*(?:PULLEY|SHAFT|DRIVE)?[\s-]*END|OPE|ODE|NDE", "OPE"),
    (r"LEAD[\s-]*END|LE", "LE"),
    (r"(?:DRIVE|SHAFT|PULLEY)[\s-]*END|DE|SE", "DE"),
)
_ANY_END = "|".join(words for words, _ in _ENDS)
KIND = (
    rf"{_CAP}[\s-]*START(?:[\s,/&+-]*(?:{_CAP}|IND(?:UCTION|\.)?)[\s-]*RUN)?|{_CAP}[\s-]*RUN"
    r"|SPLIT[\s-]*PH(?:ASE)?\b|PERM(?:ANENT|\.)?[\s-]*SPLIT(?:[\s-]*CAP(?:ACITOR)?)?|PSC|SHADED[\s-]*POLE"
    r"|REPULSION(?:[\s-]*START)?|UNIVERSAL(?:\s+MOTOR)?|SERIES(?:\s+MOTOR)"
)
PROTECTOR = (
    r"THERMAL(?:LY)?[\s-]*PROT(?:ECT(?:ED|OR|ION))?\.?(?:[\s,-]*(?:AUTO(?:MATIC)?|MAN(?:UAL)?)\b(?:[\s-]*RESET)?)?"
    r"|(?:AUTO(?:MATIC)?|MAN(?:UAL)?)[\s-]*RESET|IMPEDANCE[\s-]*PROTECTED"
)
CONNECTION = r"(?:[DY]|YY|DELTA|STAR|WYE)\s*/\s*(?:YY|[DY]|DELTA|STAR|WYE)"
ENCLOSURE = r"TENV|TEFC|TEAO|TEBC|ODP|DRIP[\s-]*PROOF"
_WORDS: tuple[tuple[str, str], ...] = (
    ("kind", KIND),
    ("protector", PROTECTOR),
    ("connection", CONNECTION),
    ("enclosure", ENCLOSURE),
)


def _tidy(words: str) -> str:
    return re.sub(r"\s+", " ", words.strip(" ,;/-")).upper()


def _end_of(words: str) -> str:
    return next(short for told, short in _ENDS if re.fullmatch(told, words.strip(), re.IGNORECASE))


def phrases_of(text: str) -> tuple[dict[str, str], str]:
    """Return the fields that phrases tell, and the text without them."""
    found: dict[str, str] = {}

    def take(field: str, said: Callable[[re.Match[str]], str]) -> Callable[[re.Match[str]], str]:
        def taken(match: re.Match[str]) -> str:
            words = said(match)
            found[field] = f"{found[field]}, {words}" if field in found else words
            return " , "

        return taken

    for field, pattern in _WORDS:
        whole = rf"(?<![\w/])(?:{pattern})(?![\w/])"
        text = re.sub(whole, take(field, lambda m: _tidy(m[0])), text, flags=re.IGNORECASE)
    turned = rf"\b(CC?W)[\s,-]+{_END}({_ANY_END})\b"
    text = re.sub(
        turned,
        take("rotation", lambda m: f"{m[1].upper()} {_end_of(m[2])}"),
        text,
        flags=re.IGNORECASE,
    )
    timed = r"\b(?:DUTY|TIME|RATING)\W+(\d+)\s*(MIN|HR|HOURS?)\b"
    text = re.sub(
        timed, take("duty", lambda m: f"{m[1]} {m[2].lower()}"), text, flags=re.IGNORECASE
    )
    mark = r"\b(?:PROTECTION\s+)?CLASS\s+(I{1,3})\b"
    text = re.sub(
        mark, take("protection", lambda m: (m[1] or "II").upper()), text, flags=re.IGNORECASE
    )
    return found, text
