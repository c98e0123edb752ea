"""Leads alone: a sheet without a job. It asks for its leads only, and is never signed; a name makes it a job."""

from collections.abc import Iterator, Mapping, Sequence

from careful_coil.core.job import Finding
from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.stations import Station

OPEN = Finding(
    code="loose",
    verdict="unproven",
    subject="Leads alone, not a job",
    why="Nothing but its leads is asked for: a name makes it a job, and the rest with it.",
    station="intake",
    gate=True,
    waivable=False,
)
COUNT = NextStep(
    code="leads",
    title="How many leads come out?",
    why="A tag goes on each; then two at a time are read, in the order asked for.",
    station="leads",
    focus="count",
)
KEEP = NextStep(
    code="keep",
    title="Keep it as a job?",
    why="What each lead is stands here; Ctrl+T writes the strip of tags. A name makes it a job.",
    station="intake",
    focus="name",
)


def only_leads(findings: Sequence[Finding]) -> list[Finding]:
    """Return what is said of leads alone: their own lines, what was found bad, and that it is no job."""
    return [*(f for f in findings if f.station == "leads" or f.verdict == "hold"), OPEN]


def loose_steps(c: Facts, asked: Mapping[Station, Sequence[NextStep]]) -> Iterator[NextStep]:
    """Yield what is asked of leads alone, then whether they are kept."""
    if not c.job.leads:
        yield COUNT
        return
    yield from (s for s in asked["leads"] if s.station == "leads")
    yield KEEP
