"""What the rack and the search need of a job, without folding its log."""

import hashlib
import json
from bisect import bisect_left
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
            if found.keys() != _FIELDS:
                return None
            kept = cls(**found | {"pips": tuple(found["pips"])})
        except (ValueError, TypeError, AttributeError):
            return None  # damaged: it is made anew
        right = isinstance(kept.seq, int) and isinstance(kept.number, int)
        return kept if right and isinstance(kept.mark, str) else None

    @property
    def urgency(self) -> tuple[int, int]:
        """Holds first, then open work, then what is ready, what is gone last; older numbers first."""
        return GONE if self.gone else RANKS.get(self.mark, REST), self.number


def place_of(rack: Sequence[Summary], summary: Summary) -> int:
    """Return where a summary stands, or would, on a rack in order of urgency."""
    return bisect_left(rack, summary.urgency, key=lambda s: s.urgency)


SIGNED_ELSEWHERE = "signed elsewhere"
ELSEWHERE = "signed-elsewhere"  # beside a job: the signature it came in with
RELEASED, DAMAGED = "released", "damaged"
UNJUDGED = "not judged yet"
RANKS = {"hold": 0, "watch": 1, "good": 3}
GONE, REST = 9, 2


def as_here(summary: Summary, number: int, extra: str) -> Summary:
    """Return a summary under its number here, as signed elsewhere where it came in signed."""
    state = summary.state
    if state == RELEASED and f'"{ELSEWHERE}"' in extra:
        state = SIGNED_ELSEWHERE
    if (state, number) == (summary.state, summary.number):
        return summary
    return replace(summary, number=number, state=state)


def unjudged(id: str, number: int, name: str, seq: int) -> Summary:
    """Return what the rack shows of a job that nobody has judged here yet."""
    name = name or f"Job {number}"
    return Summary(
        id=id,
        number=number,
        name=name,
        state=UNJUDGED,
        pips=(),
        mark="",
        search=f"{number} {name}".lower(),
        gone=False,
        seq=seq,
    )


def by_digest(settings: Settings) -> str:
    """Return a short digest of settings: what was judged by others is judged anew."""
    told = json.dumps(settings.told(), sort_keys=True, ensure_ascii=False)
    return hashlib.sha256(told.encode()).hexdigest()[:12]


_FIELDS = {f.name for f in fields(Summary)}
