"""What the truth shows and the player words: a figure or a word, or why there is none."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True, kw_only=True)
class Told:
    """`number` with its `unit` where it is a figure; `text` as it is read off; `lacks` why it cannot be had."""

    text: str = ""
    number: float | None = None
    unit: str = ""
    lacks: str = ""
