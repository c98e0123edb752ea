"""What a document from elsewhere would change in a job that is here: said before anything is taken."""

import uuid
from collections import Counter
from collections.abc import Sequence

from careful_coil.core.job import Entry
from careful_coil.core.job.follow_up import follow_up

# kinds of entries that do more than add: how they are said
GRAVE = {
    "struck": "strikes {n} here",
    "released": "signs it",
    "let-go": "lets it go",
    "waived": "sets {n} lines of the gate aside",
    "attested": "gives {n} words for what was not measured",
}


def changes_of(fresh: Sequence[Entry]) -> str:
    """Return in words what entries that are not here would do to the job."""
    count = Counter(str(e.body.kind) for e in fresh)
    who = ", ".join(dict.fromkeys(e.by or "somebody" for e in fresh))
    told = [words.format(n=count[kind]) for kind, words in GRAVE.items() if count[kind]]
    renames = [str(getattr(e.said, "text", "")) for e in fresh if _names(e)]
    if renames:
        told.append(f"names it “{renames[-1]}”")
    rest = f": {'; '.join(told)}" if told else ""
    return f"{len(fresh)} entries by {who}, {fresh[0].at[:10]} to {fresh[-1].at[:10]}{rest}"


def _names(entry: Entry) -> bool:
    body = entry.said
    told = (getattr(body, "sheet", ""), getattr(body, "field", ""))
    return told == ("ticket", "name")


def follow_up_of(
    job: str, number: int, here: Sequence[Entry], fresh: Sequence[Entry]
) -> tuple[str, list[Entry]]:
    """Return a job that follows one that is released here: whose motor it is, then what came in since.

    A signature that came in is none of this job's, and a strike of what is not in it strikes nothing; where
    nothing else came, no entry is returned.
    """
    first = fresh[0]
    carried = [
        Entry(id=str(uuid.uuid4()), at=first.at, by=first.by, station="intake", body=body)
        for body in follow_up(job, number, here)
    ]
    own = {e.id for e in fresh}
    kept = [
        e
        for e in fresh
        if e.body.kind not in ("released", "let-go")
        and not (e.body.kind == "struck" and e.body.target not in own)
    ]
    return str(uuid.uuid4()), [*carried, *kept] if kept else []
