"""One who only obeys: words what was seen as people type it. Sees the ask, never the motor, never the rules."""

import random
from collections.abc import Mapping, Sequence
from typing import Any

from careful_coil.walk.told import Told

Ask = Mapping[str, Any]
# what people type beside the word they were given
OPEN = ("open", "OL", "inf")
NUMBERS = ("{v} {u}", "{v}", "{v}{u}", "{c}")
OHMS = {"Ω": ("ohm", "Ω", ""), "µF": ("µF", "uF", "mfd"), "MΩ": ("MΩ", "M", "")}
MOST_TRIES = 3


class Player:
    """Words answers; `seed` makes what it types repeatable."""

    def __init__(self, seed: int) -> None:
        self._chance = random.Random(seed)

    def words(self, ask: Ask, told: Told) -> Sequence[str]:
        """Return what is typed first, and what is tried if that is refused."""
        if ask["type"] == "tick":
            return (told.text,)
        if ask["type"] == "choice":
            return self._choice(ask["choices"], told.text)
        if ask["type"] == "number" and told.number is not None:
            return self._number(told)
        if told.text == "open":
            return (self._chance.choice(OPEN), told.text)
        return (told.text,)

    def _choice(self, choices: Sequence[str], word: str) -> Sequence[str]:
        if word in choices and self._chance.random() < 0.5:
            return (str(list(choices).index(word) + 1), word)
        return (word,)

    def _number(self, told: Told) -> Sequence[str]:
        value = told.text.partition(" ")[0]
        plain = f"{value} {told.unit}".strip()
        units = OHMS.get(told.unit, (told.unit,))
        way = self._chance.choice(NUMBERS)
        unit = self._chance.choice(units)
        three = len(value.partition(".")[2]) == 3  # a comma before three digits is asked about
        comma = value if three else value.replace(".", ",")
        first = way.format(v=value, u=unit, c=comma).strip()
        return tuple(dict.fromkeys((first, plain, value)))[:MOST_TRIES]
