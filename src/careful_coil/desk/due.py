"""The shop's promises and waits as a calendar file: every job's log read in turn, the file written whole."""

from functools import partial
from typing import TYPE_CHECKING

from careful_coil.desk.papers import Said, write_papers
from careful_coil.desk.session import Session

if TYPE_CHECKING:
    from careful_coil.core.job import Entry
    from careful_coil.records.summary import Summary
    from careful_coil.report.calendar import DueOf

FILE = "calendar.ics"
NOTHING_DUE = "No job that is here is promised for a day, or waits for anything until one."


def write_calendar(session: Session, said: Said) -> None:
    """Write the calendar of all jobs that are still here."""
    here = [s for s in session.summaries if not s.gone]
    found: list[DueOf] = []
    left = [len(here)]

    def told(every: "list[DueOf]") -> None:
        found.extend(every)
        left[0] -= 1
        if not left[0]:
            _write(session, found, said)

    if not here:
        said(NOTHING_DUE)
    for one in here:
        session.entries_of(one.id, partial(_due_of, one), told)


def _due_of(job: "Summary", entries: "list[Entry]") -> "list[DueOf]":
    """Return the days that a job's log tells of."""
    from careful_coil.core.job.fold import fold
    from careful_coil.core.job.promise import due_of
    from careful_coil.report.calendar import DueOf

    ticket = fold(entries).ticket
    return [DueOf(job.id, job.number, ticket.get("name", ""), due) for due in due_of(ticket)]


def _write(session: Session, found: "list[DueOf]", said: Said) -> None:
    if not found:
        said(NOTHING_DUE)
        return
    every = sorted(found, key=lambda d: (d.due.day, d.number))

    def make() -> dict[str, bytes]:
        from careful_coil.report.calendar import calendar

        return {FILE: calendar(every, session.now())}

    write_papers(session, "The calendar", make, said)
