"""What the rack and the search need of a job, without folding its log."""

import json
from collections.abc import Iterable
from dataclasses import asdict, dataclass, fields

from careful_coil.core.job import Entry, fold
from careful_coil.core.ledger import Judgement, judge
from careful_coil.core.ledger.gate import way_out
from careful_coil.core.settings import Settings


@dataclass(frozen=True, slots=True, kw_only=True)
class Summary:
    """A job on the rack. `mark` is the worst verdict that matters: hold, watch, good or nothing."""

    id: str
    number: int
    name: str
    state: str
    pips: tuple[str, ...]
    mark: str
    search: str
    gone: bool  # released, or let go unrepaired

    def text(self) -> str:
        """Return the summary as canonical JSON."""
        return json.dumps(asdict(self), sort_keys=True, ensure_ascii=False)

    @classmethod
    def of_text(cls, text: str | None) -> "Summary | None":
        """Return the summary a text holds; none where it was made by another version."""
        found = json.loads(text) if text else {}
        if set(found) != {f.name for f in fields(cls)}:
            return None
        found["pips"] = tuple(found["pips"])
        return cls(**found)

    @property
    def urgency(self) -> tuple[int, int]:
        """Holds first, then open work, then what is ready, what is gone last; older numbers first."""
        rank = 9 if self.gone else {"hold": 0, "watch": 1, "good": 3}.get(self.mark, 2)
        return rank, self.number


def summary_of(id: str, number: int, judged: Judgement) -> Summary:
    """Return the summary of a judged job."""
    job = judged.job
    verdicts = {f.verdict for f in judged.findings}
    gone = judged.released or bool(way_out(job))
    if gone:
        mark = ""
    elif "hold" in verdicts:
        mark = "hold"
    elif not judged.gate:
        mark = "good"
    else:
        mark = "watch" if "watch" in verdicts else ""
    words = [str(number), job.name, *job.ticket.values(), *(t for _, t in job.plate.as_printed)]
    return Summary(
        id=id,
        number=number,
        name=job.name,
        state=judged.state,
        pips=judged.pips,
        mark=mark,
        search=" ".join(words).lower(),
        gone=gone,
    )


def summarise(id: str, number: int, entries: Iterable[Entry], settings: Settings) -> Summary:
    """Fold and judge a log for its summary."""
    return summary_of(id, number, judge(fold(entries), settings))
