"""What must be tested again after what, as a page of the handbook: the rows that every rule goes by.

`python -m careful_coil.documents.voids_table` writes the table of docs/handbook/again.md.
"""

from collections.abc import Iterator
from pathlib import Path

from careful_coil.core.job.voids import FACTS, STALL_SECONDS, STOOD_DAYS, STORED_DAYS, VOIDS

TABLE = Path("docs/handbook/again.md")
MORE = {
    "rewound": "a high-potential test once, a run of 30 min; the old readings stay as history",
    "varnished": "bore clear; a run of 30 min",
    "flooded": "bearings and seals renewed, not only looked at",
    "bearing": "a run of 30 min",
    "harm": "no good run alone lifts it; a stall counts from "
    f"{STALL_SECONDS:g} s, a trip and smoke always",
    "stored": f"from {STORED_DAYS:g} days on",
    "stood": f"from {STOOD_DAYS:g} days on (a setting)",
    "covers": "where an electronic part forbids the tester: open to the frame by ohmmeter",
    "lead": "that winding alone, that mark, that joint",
    "device": "its looks too; old and new stand side by side",
    "capacitor": "held against the plate, its place and the old one; old and new stand side by side",
    "supply": "where volts, hertz or phases differ",
    "temporary": "it ran with it in",
}
FIRST, LAST = "|---|---|---|\n", "\n\nMade from the rows"


def rows() -> Iterator[str]:
    """Yield the rows of the table."""
    for name, row in VOIDS.items():
        again = [*row.again, *(f for f in row.own if f not in row.again)]
        told = ", ".join(FACTS[f] for f in again)
        yield f"| {row.words} | {told} | {MORE.get(name, '')} |"


def page(text: str) -> str:
    """Return the page with its table made anew."""
    before, _, rest = text.partition(FIRST)
    _, _, after = rest.partition(LAST)
    return before + FIRST + "\n".join(rows()) + LAST + after


if __name__ == "__main__":
    TABLE.write_text(page(TABLE.read_text(encoding="utf-8")), encoding="utf-8")
