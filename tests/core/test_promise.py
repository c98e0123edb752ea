"""Days, promises, waits: how they are read, what they say, what the calendar holds."""

from datetime import date

import pytest
from icalendar import Calendar

from careful_coil.core.days import read_day
from careful_coil.core.errors import AmbiguousValue, BadValue
from careful_coil.core.job import Entry
from careful_coil.core.job.fold import Job, fold
from careful_coil.core.job.noted import note
from careful_coil.core.job.promise import Due, due_of, promise_findings, waits_of
from careful_coil.report.calendar import DueOf, calendar

NOW = "2026-03-07T08:00:00.000000Z"


def job(**ticket: str) -> Job:
    bodies = [note("ticket", field, text) for field, text in ticket.items()]
    return fold(
        [
            Entry(id=f"e{k}", at="2026-03-04T08:00:00Z", by="AB", station="intake", body=body)
            for k, body in enumerate(bodies)
        ]
    )


@pytest.mark.parametrize("text", ["2026-03-10", "10.3.2026", "10.03.2026", " 2026-3-10 "])
def test_a_day_is_kept_as_the_standard_writes_it(text: str) -> None:
    assert read_day(text) == "2026-03-10"


def test_a_day_with_strokes_is_read_where_it_has_one_meaning_and_asked_about_where_two() -> None:
    assert read_day("25/3/2026") == read_day("3/25/2026") == "2026-03-25"
    assert read_day("4/4/2026") == "2026-04-04"
    with pytest.raises(AmbiguousValue) as asked:
        read_day("3/4/2026")
    assert {asked.value.first, asked.value.second} == {"2026-03-04", "2026-04-03"}


@pytest.mark.parametrize("text", ["", "soon", "31.2.2026", "2026-13-01", "13/13/2026", "10.3.26"])
def test_what_is_no_day_is_refused(text: str) -> None:
    with pytest.raises(BadValue, match=r"2026-03-10"):
        read_day(text)


def test_waits_are_kept_each_with_its_day() -> None:
    told = waits_of("run capacitor 6.3.2026; customer: 2026-03-08")
    assert told == "run capacitor 2026-03-06; customer 2026-03-08"
    assert waits_of(" None ") == "none"
    for wrong in ("capacitor", "2026-03-06", "capacitor soon", "a 2026-03-06;"):
        with pytest.raises(BadValue):
            waits_of(wrong)


def test_what_is_past_or_outlasts_the_promise_is_watched() -> None:
    told = job(promised="2026-03-09", waits="capacitor 2026-03-06; customer 2026-03-12")
    lines = {f.subject: (f.verdict, f.why) for f in promise_findings(told, NOW)}
    assert lines["Promised for 2026-03-09"][0] == "note"
    assert lines["Waits for capacitor: 2026-03-06"] == (
        "watch",
        "That day is over. Has it come? Then type none; else its new day.",
    )
    assert lines["Waits for customer: 2026-03-12"][0] == "watch"
    assert not list(promise_findings(job(waits="none"), NOW))


def test_the_calendar_holds_each_day_once_and_knows_it_again() -> None:
    due = list(due_of({"promised": "2026-03-09", "waits": "capacitor 2026-03-06"}))
    assert due == [Due("2026-03-06", "capacitor", False), Due("2026-03-09", "promised", True)]
    every = [DueOf("j1", 214, "Bakery, mixer; ü", one) for one in due]
    first, again = (
        Calendar.from_ical(calendar(every, at)) for at in (NOW, "2026-03-08T09:00:00.000000Z")
    )
    events = first.walk("VEVENT")
    assert [str(e["summary"]) for e in events] == [
        "214 Bakery, mixer; ü: waits for capacitor",
        "214 Bakery, mixer; ü: promised",
    ]
    assert [e.decoded("dtstart") for e in events] == [date(2026, 3, 6), date(2026, 3, 9)]
    assert [e["uid"] for e in events] == [e["uid"] for e in again.walk("VEVENT")]
