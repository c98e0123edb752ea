"""What must not leave with the motor: temporaries, changes that were not closed, parts still off."""

from collections.abc import Iterator
from functools import partial

from careful_coil.core.job import Finding, Job
from careful_coil.core.job.at_mechanics import PartOff

MOST_NAMED = 4


def open_findings(job: Job) -> Iterator[Finding]:
    """Yield temporaries, each a hold until it is cleared; changes; parts that are not back."""
    hands = job.hands
    of = partial(Finding, station="mechanics", gate=True)
    for name, it in hands.temporary.items():
        if it.cleared:
            yield of(
                code="temporary",
                verdict="good",
                subject=f"{name} cleared",
                why=f"{it.words}: {it.cleared}.",
            )
        else:
            yield of(
                code="temporary",
                verdict="hold",
                subject=f"Temporary {name}: {it.words}",
                why="It holds the motor until it is off, and said how.",
                waivable=False,
            )
    for name, change in hands.changed.items():
        yield of(
            code="changed",
            verdict="note" if change.closed else "unproven",
            subject=f"Changed {name}: {change.words}",
            why=f"Closed: {change.closed}." if change.closed else "How was it closed?",
        )
    left, missing = parts_left(job), missing_parts(job)
    if hands.off and not left and not missing:
        yield of(
            code="assembly",
            verdict="good",
            subject="All parts are back",
            why=f"{len(hands.off)} taken off, {len(hands.off)} put back.",
        )
    names = [*(p.part for p in left), *missing]
    if names:
        more = " …" if len(names) > MOST_NAMED else ""
        yield of(
            code="assembly",
            verdict="unproven",
            subject=f"{len(names)} parts not back" if len(names) > 1 else f"{names[0]} not back",
            why=f"{', '.join(names[:MOST_NAMED])}{more}."
            + (f" Came without: {', '.join(missing)}." if missing else ""),
        )


def parts_left(job: Job) -> tuple[PartOff, ...]:
    """Return the parts that are off, the last taken off first: the order they go back in."""
    return tuple(p for p in reversed(tuple(job.hands.off.values())) if not p.back)


def missing_parts(job: Job) -> tuple[str, ...]:
    """Return what was missing when it came and is not on the list of parts since."""
    came = job.seen.arrived
    listed = {p.part.lower() for p in job.hands.off.values()}
    return tuple(m for m in (came.missing if came else ()) if m.lower() not in listed)
