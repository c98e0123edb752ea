"""What is promised of a job and what it waits for, each with its day."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from careful_coil.core.days import read_day
from careful_coil.core.errors import AmbiguousValue, BadValue
from careful_coil.core.job.finding import Finding
from careful_coil.core.job.fold import Job

WAITS = "what it waits for and its day, such as capacitor 2026-03-06; none when it has come"
NOTHING = "none"


@dataclass(frozen=True, slots=True)
class Due:
    """A day (ISO 8601), what it is the day of: `promised`, or what is waited for."""

    day: str
    what: str
    promised: bool


def waits_of(text: str) -> str:
    """Return what is waited for as kept: `capacitor 2026-03-06; customer 2026-03-08`, or none.

    Raises: BadValue, AmbiguousValue.
    """
    if text.strip().lower() == NOTHING:
        return NOTHING
    kept = []
    for piece in text.split(";"):
        what, _, day = piece.strip().rpartition(" ")
        if not what:
            raise BadValue(text, WAITS)
        try:
            kept.append(f"{what.strip().rstrip(',:')} {read_day(day)}")
        except AmbiguousValue:
            raise
        except BadValue as error:
            raise BadValue(text, WAITS, error.why) from None
    return "; ".join(kept)


def due_of(ticket: Mapping[str, str]) -> Iterator[Due]:
    """Yield the days a ticket tells of, the earliest first."""
    found = [Due(ticket["promised"], "promised", True)] if ticket.get("promised") else []
    for piece in ticket.get("waits", "").split(";"):
        what, _, day = piece.strip().rpartition(" ")
        if what:
            found.append(Due(day, what, False))
    yield from sorted(found, key=lambda d: (d.day, d.promised))


def promise_findings(job: Job, now: str = "") -> Iterator[Finding]:
    """Yield a line for each of these days; watched once it is past, and where a wait outlasts the promise."""
    if job.released is not None or job.let_go is not None:
        return
    every = list(due_of(job.ticket))
    promised = next((d.day for d in every if d.promised), "")
    for one in every:
        past = bool(now) and one.day < now[:10]
        late = bool(promised) and not one.promised and one.day > promised
        subject = f"Promised for {one.day}" if one.promised else f"Waits for {one.what}: {one.day}"
        why = (
            "That day is over. Tell the customer a new one."
            if past and one.promised
            else "That day is over. Has it come? Then type none; else its new day."
            if past
            else f"Later than promised ({promised}): tell the customer."
            if late
            else "As agreed at the counter."
        )
        yield Finding(
            code="promised" if one.promised else "waits",
            verdict="watch" if past or late else "note",
            subject=subject,
            why=why,
            station="intake",
        )
