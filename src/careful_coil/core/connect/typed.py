"""What is typed at Connect, read: a wish, the supply's volts."""

import re
from collections.abc import Sequence
from typing import Literal

from careful_coil.core.choices import Choice, pick
from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure
from careful_coil.core.job import Job
from careful_coil.core.job.entries import Supply
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse


def read_wish(text: str, allowed: Sequence[str], known: Sequence[Choice] = ()) -> str:
    """Return a wish as kept, one of those allowed now. Raises: BadValue with the choices there are."""
    told = [c for c in known if c.word in allowed]
    told += [Choice(word=w) for w in allowed if w not in {c.word for c in told}]
    return pick(text, told)


def positive(text: str, quantity: Quantity) -> float:
    """Return a figure of a supply. Raises: BadValue."""
    value = parse(text, quantity).value
    if not 0 < value <= 20000:
        raise BadValue(text, "a figure above nothing, as on the supply")
    return value


def read_supply(text: str, job: Job) -> Supply:
    """Return the supply by its volts; hertz as said before, else the plate's. Raises: BadValue.

    `231 measured` is measured; so is, of one phase, a figure that no supply is called by.
    """
    rest, phases = _phases(text)
    rest, said = _READ.subn(" ", rest)
    rest, hertz = hertz_in(rest)
    volt = positive(rest.strip(" ,;/~") or text, Quantity.VOLTAGE)
    if volt < LEAST_SUPPLY:
        raise BadValue(
            text, "the volts of the supply, such as 400 or 1~ 230", "No motor runs on so few."
        )
    usual = job.supply.hertz if job.supply else (job.plate.hertz or 50.0)
    own = 1 if job.plate.phases == 1 else 3
    read = bool(said) or ((phases or own) == 1 and volt not in NAMED_VOLTS)
    return Supply(volt=volt, hertz=hertz or usual, phases=phases or own, measured=read)


# what supplies are called by, V (IEC 60038; ANSI C84.1; names in use)
NAMED_VOLTS = frozenset({
    12, 24, 48, 100, 110, 115, 120, 125, 127, 200, 208, 220, 230, 240, 250, 277, 346, 347, 380, 400, 415, 440,
    460, 480, 500, 525, 575, 600, 660, 690,
})  # fmt: skip
LEAST_SUPPLY = 10.0  # V; the least that motors of a shop are made for is 12
_READ = re.compile(r"\b(?:as\s+)?(?:measured|read|by\s+meter)\b", re.IGNORECASE)
_ONE = r"\b(?:1|one|single|mono)[\s-]*(?:~|ph(?:ase)?s?\b)|\b1\s*(?:~|ac\b)"
_THREE = r"\b(?:3|three)[\s-]*(?:~|ph(?:ase)?s?\b|[x×]\s*(?=\d))|\b3\s*(?:~|ac\b)"
_HERTZ = re.compile(r"(\d+(?:[.,]\d+)?)\s*(?:hz|hertz|c/s)\b", re.IGNORECASE)


def _phases(text: str) -> tuple[str, Literal[1, 3] | None]:
    """Return a line without its phases, and these where it says them: `1~ 230`, `230 single phase`."""
    counts: tuple[tuple[str, Literal[1, 3]], ...] = ((_ONE, 1), (_THREE, 3))
    for pattern, count in counts:
        found = re.search(pattern, text, re.IGNORECASE)
        if found:
            return f"{text[: found.start()]} {text[found.end() :]}", count
    return text, None


def hertz_in(text: str) -> tuple[str, float | None]:
    """Return a line without its hertz, and these where it says them; BadValue out of 1 to 1000 Hz."""
    found = _HERTZ.search(text)
    if found is None:
        return text, None
    told = figure(found[1], Quantity.FREQUENCY, least=1, most=1000, wanted="hertz such as 50")
    return f"{text[: found.start()]} {text[found.end() :]}", told
