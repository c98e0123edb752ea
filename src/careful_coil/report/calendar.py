"""Promises and waits as a calendar that any calendar program reads (RFC 5545), a day each."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from icalendar import Calendar, Event

from careful_coil.core.job.promise import Due


@dataclass(frozen=True, slots=True)
class DueOf:
    """A day of a job: its number in the shop, its own name and id."""

    job: str
    number: int
    name: str
    due: Due


def calendar(every: Iterable[DueOf], at: str) -> bytes:
    """Return the calendar as made at a time (UTC, as logged).

    The same day of a job keeps its identity when it is written again.
    """
    made = Calendar()
    made.add("prodid", "-//careful-coil//shop calendar//EN")
    made.add("version", "2.0")
    for one in every:
        day = date.fromisoformat(one.due.day)
        event = Event()
        kind = "promised" if one.due.promised else one.due.what
        event.add("uid", f"{one.job}-{kind.replace(' ', '-')}@careful-coil")
        event.add("dtstamp", datetime.fromisoformat(at))
        event.add("dtstart", day)
        event.add("dtend", day + timedelta(days=1))
        what = "promised" if one.due.promised else f"waits for {one.due.what}"
        event.add("summary", f"{one.number} {one.name}: {what}")
        event.add("transp", "TRANSPARENT")  # nobody is busy for it
        made.add_component(event)
    return bytes(made.to_ical())
