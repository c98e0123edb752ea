"""A job's connecting played by what the Next card says, one entry at a time."""

from collections.abc import Iterator, Sequence
from typing import Any

from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.settings import Settings
from tests.core.logs import judged

Body = dict[str, Any]
DONE = ("part", "joint", "insulate", "tick", "dead")


def next_at_connect(found: Judgement) -> NextStep | None:
    """Return what Connect asks for first, whatever other stations want."""
    every = [*([found.next] if found.next else []), *found.skipped]
    return next((s for s in every if s.station == "connect"), None)


def connecting_of(log: Sequence[Body], settings: Settings | None = None) -> Judgement:
    """Return the judgement of a log."""
    return judged(*log, settings=settings)


def body_of(step: NextStep, found: Judgement) -> Body:
    """Return the entry that the Next card's key logs."""
    names = list(found.facts.connecting.by_tag(step.ends))
    return {
        "part": {"kind": "parted", "leads": names},
        "joint": {"kind": "joint", "joint": names},
        "insulate": {"kind": "insulated", "lead": names[0] if names else ""},
        "tick": {"kind": "step-ticked", "step": names[0] if names else ""},
        "dead": {"kind": "proved-dead", "volt": 0.0},
    }[step.act]


def steps_of(log: list[Body], settings: Settings | None = None) -> Iterator[Judgement]:
    """Yield the judgement after every step of the change; `log` grows with it."""
    for _ in range(80):
        found = connecting_of(log, settings)
        yield found
        step = found.next
        if step is None or step.station != "connect" or step.act not in DONE:
            return
        log.append(body_of(step, found))
    raise AssertionError("the change does not end")
