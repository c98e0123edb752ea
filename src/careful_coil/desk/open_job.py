"""The job on the bench: its log as recorded, and the judgement of it."""

from dataclasses import dataclass, field

from careful_coil.bench import Instrument
from careful_coil.core.job import Entry
from careful_coil.core.ledger import Judgement


@dataclass(slots=True)
class OpenJob:
    """The job on the bench: its log as recorded, and the judgement of it."""

    id: str
    number: int
    entries: list[Entry]
    judged: Judgement
    instrument: Instrument | None = None
    not_here: set[str] = field(default_factory=set)
