"""What the rack and the search need of a job, without folding its log."""

import hashlib
import json
from collections.abc import Sequence
from dataclasses import asdict, dataclass, fields, replace

from careful_coil.core.settings import Settings


@dataclass(frozen=True, slots=True, kw_only=True)
class Summary:
    """A job on the rack. `mark` is the worst verdict that matters: hold, watch, good or nothing.

    `seq` the last row of the log it was made from, `by` the digest of the settings it was judged by.
    """

    id: str
    number: int
    name: str
    state: str
    pips: tuple[str, ...]
    mark: str
    search: str
    gone: bool  # released, or let go unrepaired
    seq: int = 0
    by: str = ""

    def text(self) -> str:
        """Return the summary as canonical JSON."""
        return json.dumps(asdict(self), sort_keys=True, ensure_ascii=False)

    @classmethod
    def of_text(cls, text: str | None) -> "Summary | None":
        """Return the summary a text holds; none where it was made by another version."""
        try:
            found = json.loads(text) if text else {}
            if set(found) != {f.name for f in fields(cls)}:
                return None
            kept = cls(**found | {"pips": tuple(found["pips"])})
        except (ValueError, TypeError):
            return None  # damaged: it is made anew
        right = isinstance(kept.seq, int) and isinstance(kept.number, int)
        return kept if right and isinstance(kept.mark, str) else None

    @property
    def urgency(self) -> tuple[int, int]:
        """Holds first, then open work, then what is ready, what is gone last; older numbers first."""
        rank = 9 if self.gone else {"hold": 0, "watch": 1, "good": 3}.get(self.mark, 2)
        return rank, self.number


def put_on(rack: Sequence[Summary], summary: Summary) -> list[Summary]:
    """Return the rack with a job's new summary; one that came in signed stays so."""
    old = next((s for s in rack if s.id == summary.id), None)
    if old is not None and (old.state, summary.state) == (SIGNED_ELSEWHERE, RELEASED):
        summary = replace(summary, state=SIGNED_ELSEWHERE)
    return sorted([s for s in rack if s.id != summary.id] + [summary], key=lambda s: s.urgency)


SIGNED_ELSEWHERE = "signed elsewhere"
RELEASED, DAMAGED = "released", "damaged"


def by_digest(settings: Settings) -> str:
    """Return a short digest of settings: what was judged by others is judged anew."""
    told = json.dumps(settings.told(), sort_keys=True, ensure_ascii=False)
    return hashlib.sha256(told.encode()).hexdigest()[:12]
