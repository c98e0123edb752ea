"""The one error tree. Fields say what was read and what would be accepted; the text is built from them."""

from collections.abc import Sequence
from typing import Any


class CoilError(Exception):
    """Anything a person can mend: shown as one line, never as a traceback."""


class BadValue(CoilError):
    """A text or number that cannot stand where it was put."""

    def __init__(self, read: str, accepted: str, why: str = "") -> None:
        self.read, self.accepted, self.why = read, accepted, why
        reason = f" {why}" if why else ""
        super().__init__(f"Read “{_short(read)}”.{reason} Wanted: {accepted}.")


class AmbiguousValue(BadValue):
    """A text that has two meanings: it is asked about, never guessed."""

    def __init__(self, read: str, first: str, second: str) -> None:
        self.first, self.second = first, second
        super().__init__(read, f"{first} or {second}, written out", "It can mean two things.")


class ValueOutOfRange(BadValue):
    """A number outside the domain of a formula."""


class BadDocument(CoilError):
    """A document, or one place in it, that does not follow its format."""

    def __init__(self, where: str, read: str, accepted: str) -> None:
        self.where, self.read, self.accepted = where, read, accepted
        super().__init__(f"{where}: read {_short(read)}. Wanted: {accepted}.")


class NotKnownYet(CoilError):
    """Something the contract names and this version does not carry yet."""

    def __init__(self, what: str, known: str) -> None:
        self.what, self.known = what, known
        super().__init__(f"{what} is not part of this version. It knows: {known}.")


class CannotConnect(CoilError):
    """A supply that this motor cannot take, or a question that must be answered first.

    `asks` what of the wish the question is about (speed, family, start, rotation; volt: the plate's),
    `choices` its answers.
    """

    def __init__(self, words: str, asks: str = "", choices: tuple[str, ...] = ()) -> None:
        self.asks, self.choices = asks, choices
        super().__init__(words)


class SupplyUnfit(CannotConnect):
    """A supply that no connection of the plate is made for: no joint mends it."""


class CannotPlace(CannotConnect):
    """Devices for which no rule here says where they belong; the hookup can be checked all the same."""


class RecordsRefused(CoilError):
    """The shop's records cannot be opened, read or written; they were not touched."""


class RecordsOvertaken(RecordsRefused):
    """Others recorded in between: `missed`, entries of a `job`, whose last row is `seq`. Nothing was written."""

    def __init__(self, words: str, job: str, missed: Sequence[Any], seq: int) -> None:
        super().__init__(words)
        self.job, self.missed, self.seq = job, tuple(missed), seq


class WouldChange(CoilError):
    """A document would change a job that is here: said, and taken only where that is accepted."""


class InstrumentError(CoilError):
    """An instrument gave no usable answer; nothing was recorded."""


def _short(text: str, limit: int = 80) -> str:
    text = " ".join(text.split())
    return text if len(text) <= limit else text[: limit - 1] + "…"
