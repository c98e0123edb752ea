"""A switch's position table in a line of text: `0: off; 1: L-H; 2: L-M N-A`."""

import itertools
import re
from collections.abc import Mapping

from careful_coil.core.errors import BadValue
from careful_coil.core.ways.devices import Contact

WANTED = "positions with their contacts, such as 0: off; 1: L-H; 2: L-M N-A"
MOST_POSITIONS, MOST_TERMINALS = 12, 12
_WORD = re.compile(r"[A-Za-z0-9]{1,6}")


def read_table(text: str) -> dict[str, tuple[Contact, ...]]:
    """Return contacts by position. Raises: BadValue with what was read."""
    found: dict[str, tuple[Contact, ...]] = {}
    for piece in (p.strip() for p in text.split(";")):
        if not piece:
            continue
        name, colon, rest = piece.partition(":")
        name = name.strip()
        if not colon or not re.fullmatch(r"[\w ]{1,12}", name):
            raise BadValue(piece, WANTED)
        if name in found:
            raise BadValue(piece, WANTED, f"Position {name} stands there twice.")
        found[name] = tuple(_contacts(rest, piece))
    ends = {t for closed in found.values() for pair in closed for t in pair}
    if len(found) < 2 or not ends:
        raise BadValue(text, WANTED, "A switch has two positions at least, and a contact.")
    if len(found) > MOST_POSITIONS or len(ends) > MOST_TERMINALS:
        raise BadValue(text, f"at most {MOST_POSITIONS} positions and {MOST_TERMINALS} terminals")
    return found


def _contacts(rest: str, piece: str) -> list[Contact]:
    words = rest.replace(",", " ").split()
    if words in ([], ["off"], ["-"]):
        return []
    found: list[Contact] = []
    for word in words:
        ends = word.split("-")
        if len(ends) < 2 or not all(_WORD.fullmatch(e) for e in ends) or len(set(ends)) < len(ends):
            raise BadValue(piece, WANTED, f"{word} is no contact between two terminals.")
        found += itertools.pairwise(ends)
    return found


def show_table(table: Mapping[str, tuple[Contact, ...]]) -> str:
    """Return a table as text that `read_table` reads."""
    return "; ".join(
        f"{name}: {' '.join(f'{a}-{b}' for a, b in closed) or 'off'}"
        for name, closed in table.items()
    )
