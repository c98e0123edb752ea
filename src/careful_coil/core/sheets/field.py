"""A field that is noted, declared once: what it is called, how its text is read, what it proves and prints."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.choices import Choice, pick
from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure, kept, whole
from careful_coil.core.stations import Station
from careful_coil.core.units import Quantity

Ask = Literal[
    "ohm",
    "kick",
    "series",
    "run",
    "switch",
    "turn",
    "spin",
    "insulation",
    "bond",
    "volt",
    "amp",
    "microfarad",
    "size",
    "look",
    "feel",
    "plate",
    "print",
    "inventory",
    "direction",
    "step",
    "start",
    "turning",
    "heard",
    "tick",
    "work",
    "cause",
    "word",
]
UNITS = ("mm", "mm²", "kg", "s", "V")  # behind a label's comma
LONGEST = 200  # characters of a noted text
MOST = 1e12
FIGURE = r"\d{1,12}(\.\d{1,12})?(e[+-]?\d{1,2})?"  # as it is kept


@dataclass(frozen=True, slots=True)
class Field:
    """`label` as the screen and the sheet say it, `hint` as it may be typed.

    Read as one of `choices`; else as a figure of a `quantity`, kept in `unit` (empty: its base), from
    `least` to `most`; else as a `whole` number between two; else by the reader of its subject that bears
    the `special` name; else as it is, up to `longest` characters. `wanted` says what is accepted where the
    quantity does not; `shape` what the kept text of a special one looks like; `unread` whether ? is kept,
    as what cannot be read any more. `ask` is the quantity of Next's question, `asked` its words, `part`
    of which part where it is not its sheet's, `comes_to` the state a work on it must come to. `deed` is the
    row of the void table that the field does when one of `deed_on` is noted (none named: any text), said
    as `deed_words`.
    `prints` how a paper says it, {} for the text; empty: label and text; None: no paper does.
    `judged` whether the chosen answer's own meaning is a line of the ledger, under the `label`.
    """

    name: str
    label: str
    hint: str = ""
    choices: tuple[Choice, ...] = ()
    quantity: Quantity | None = None
    unit: str = ""
    least: float = 0.0
    most: float = MOST
    whole: tuple[int, int] | None = None
    special: str = ""
    shape: str = ""
    wanted: str = ""
    longest: int = LONGEST
    unread: bool = False
    ask: Ask = "look"
    asked: str = ""
    part: str = ""
    comes_to: str = ""
    deed: str = ""
    deed_on: tuple[str, ...] = ()
    deed_words: str = ""
    judged: bool = False
    prints: str | None = ""

    @property
    def words(self) -> tuple[str, ...]:
        """Return the words that may be kept, where it is a choice."""
        return tuple(c.word for c in self.choices)

    @property
    def is_figure(self) -> bool:
        """Whether what is kept is a figure."""
        return (self.quantity is not None or self.whole is not None) and not self.special

    def means(self, word: str) -> Choice | None:
        """Return the answer of a kept word; None for a word of the bench's own, or none."""
        return next((c for c in self.choices if c.word == word), None)

    @property
    def title(self) -> str:
        """Return what it is called within a sentence: its label up to the comma."""
        name = self.label.split(",")[0]
        return name[0].lower() + name[1:]

    def line(self, text: str) -> str:
        """Return it with its text as a paper says it."""
        if self.prints:
            return self.prints.format(text)
        _, comma, unit = self.label.rpartition(", ")
        return f"{self.title} {text}" + (f" {unit}" if comma and unit in UNITS else "")

    def read(self, text: str) -> str:
        """Return a text as it is kept, nothing for a blank. Raises: BadValue, AmbiguousValue."""
        told = text.strip()
        if not told or (self.unread and told == "?"):
            return told
        if self.choices:
            return pick(told, self.choices)
        if self.quantity is not None:
            return kept(
                figure(
                    told,
                    self.quantity,
                    unit=self.unit,
                    least=self.least,
                    most=self.most,
                    wanted=self.wanted,
                )
            )
        if self.whole is not None:
            return str(whole(told, *self.whole, self.wanted or self.label.lower()))
        if len(told) > self.longest:
            raise BadValue(told, f"at most {self.longest} characters")
        return told

    def check(self, text: str) -> None:
        """Raise BadValue for a kept text that no rule could use: no figure where one is wanted."""
        if not text or (self.unread and text == "?"):
            return
        if self.is_figure:
            self.read(text)
        elif self.shape and not re.fullmatch(self.shape, text):
            raise BadValue(text, self.wanted or self.hint, f"{self.label}.")


@dataclass(frozen=True, slots=True, kw_only=True)
class Sheet:
    """Fields of one thing, or of several of a sort by `of`: ends, or names such as C1 (`example`).

    `name` is what its entries were called before there was one kind; `prefix` stands before a field's
    name in the window; `part` is what of the motor it is about. `free` sheets take any field: their
    table lies with their subject. `proves` a fact of the void table; `bad` whether what was found bad
    stays before the gate when it is struck or blanked; `renews` what of an item outlives its renewal.
    """

    name: str
    title: str
    station: Station
    fields: tuple[Field, ...] = ()
    of: tuple[str, ...] = ()
    example: str = ""
    prefix: str = ""
    part: str = ""
    free: bool = False
    proves: str = ""
    bad: bool = False
    renews: tuple[str, ...] = ()

    def field(self, name: str) -> Field:
        """Return a field. Raises: KeyError."""
        for f in self.fields:
            if f.name == name:
                return f
        raise KeyError(name)

    def lines(self, told: Mapping[str, str]) -> list[str]:
        """Return what is told as a paper says it, in the sheet's order."""
        own = [f for f in self.fields if told.get(f.name) and f.prints is not None]
        return [f.line(told[f.name]) for f in own]

    def knows(self, name: str) -> bool:
        """Whether it has a field."""
        return self.free or any(f.name == name for f in self.fields)

    def part_of(self, of: str) -> str:
        """Return the part of the motor that one of its items is."""
        return self.part.format(of)
