"""The job on the bench: its log as recorded, and the judgement of it."""

from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from careful_coil.bench import Instrument
    from careful_coil.core.job import Entry
    from careful_coil.core.job.fold import Folding
    from careful_coil.core.ledger import Judgement


@dataclass(slots=True)
class Record:
    """A job's log as it is on disk: its entries, the last row's number, what of it is damaged.

    `folding` what it is folded by as it grows, used where it is judged.
    `flying` ids of entries that are on their way there, `others` of those that another window wrote meanwhile.
    """

    entries: "list[Entry]" = field(default_factory=list)
    seq: int = 0
    damaged: tuple[str, ...] = ()
    folding: "Folding | None" = None
    flying: set[str] = field(default_factory=set)
    others: set[str] = field(default_factory=set)

    def take(self, more: "Iterable[Entry]", seq: int) -> int:
        """Take entries that are on disk now; return how many of them were new."""
        known = {e.id for e in self.entries}
        fresh = [e for e in more if e.id not in known]
        self.others |= {e.id for e in fresh if e.id not in self.flying}
        self.entries += fresh
        self.flying -= {e.id for e in fresh}
        self.seq = max(self.seq, seq)
        return len(fresh)


@dataclass(slots=True)
class OpenJob:
    """The job on the bench: its log as recorded, and the judgement of it."""

    id: str
    number: int
    record: Record
    judged: "Judgement"
    instrument: "Instrument | None" = None
    not_here: set[str] = field(default_factory=set)

    @property
    def entries(self) -> "list[Entry]":
        """Return its log."""
        return self.record.entries
