"""One line of a field sheet."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from careful_coil.core.job.entries import AnyBody


@dataclass(frozen=True, slots=True, kw_only=True)
class SiteLine:
    """One line of the field sheet: its key, what is read and how, how it is written, what is on record.

    `read` makes entries of what was written. Raises: BadValue.
    """

    name: str
    title: str
    how: str
    hint: str
    done: str
    read: Callable[[str], Sequence[AnyBody]]
