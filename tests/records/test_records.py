"""The shop's records: what is appended stays, what comes in is whole or not at all."""

import json
import sqlite3
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any, TypeVar

import pytest

from careful_coil.core.errors import RecordsRefused, WouldChange
from careful_coil.core.settings import Settings
from careful_coil.demo import demo_jobs
from careful_coil.documents.job import JobDocument, read_job
from careful_coil.records import RecordsThread, Summary
from careful_coil.records.folder import DATABASE, SHOP_FILE, VERSION
from careful_coil.records.look import look
from careful_coil.records.rack import OnRack
from careful_coil.records.store import Store
from careful_coil.records.summary import UNJUDGED
from tests.core.logs import READY, SIX_LEADS, entries

T = TypeVar("T")
Ask = Callable[[Callable[[Store], T]], T]


@pytest.fixture
def shop(tmp_path: Path) -> Iterator[Ask[Any]]:
    """Ask a shop's records and wait for the answer."""
    thread = RecordsThread(tmp_path / "shop", Settings())
    thread.start()
    yield lambda call: thread.ask(call).result()
    thread.close()


def document(id: str = "j1", number: int = 300, **more: Any) -> JobDocument:
    log = [e.model_dump(mode="json") for e in entries(*SIX_LEADS)]
    return read_job(
        {
            "format": "careful-coil/job",
            "version": 1,
            "id": id,
            "number": number,
            "entries": log,
            "attachments": [],
        }
        | more
    )


def test_entries_come_back_in_order_and_whole(shop: Ask[Any]) -> None:
    log = entries(*READY)
    number = shop(lambda s: s.open_job("j1", log[:3]))
    for entry in log[3:]:
        shop(lambda s, e=entry: s.append("j1", [e]))  # type: ignore[misc]
    assert number == 101
    assert shop(lambda s: s.entries_of("j1")) == log


def test_the_same_entry_twice_is_refused_and_changes_nothing(shop: Ask[Any]) -> None:
    log = entries(*SIX_LEADS)
    shop(lambda s: s.open_job("j1", log))
    with pytest.raises(RecordsRefused, match="Not recorded"):
        shop(lambda s: s.append("j1", log[:1]))
    assert len(shop(lambda s: s.entries_of("j1"))) == len(log)


def test_an_entry_of_no_job_is_refused(shop: Ask[Any]) -> None:
    with pytest.raises(RecordsRefused):
        shop(lambda s: s.append("nobody", entries(*SIX_LEADS)[:1]))


def test_importing_twice_adds_nothing(shop: Ask[Any]) -> None:
    first = shop(lambda s: s.take_in(document()))
    again = shop(lambda s: s.take_in(document()))
    assert (first.added, again.added) == (len(SIX_LEADS), 0)
    assert (first.number, again.number) == (300, 300)


def test_importing_a_longer_log_adds_what_is_new(shop: Ask[Any]) -> None:
    short = document().model_copy(update={"entries": document().entries[:4]})
    shop(lambda s: s.take_in(short))
    with pytest.raises(WouldChange, match="would get"):
        shop(lambda s: s.take_in(document()))
    assert len(shop(lambda s: s.entries_of("j1"))) == 4
    more = shop(lambda s: s.take_in(document(), accept=True))
    assert more.added == len(SIX_LEADS) - 4


def test_a_number_already_taken_is_given_anew_and_said(shop: Ask[Any]) -> None:
    shop(lambda s: s.take_in(document()))
    other = document(id="j2").model_dump(mode="json")
    for k, entry in enumerate(other["entries"]):
        entry["id"] = f"other-{k}"
    done = shop(lambda s: s.take_in(read_job(other)))
    assert (done.wanted, done.number) == (300, 301)


def test_an_entry_of_another_job_refuses_the_whole_document(shop: Ask[Any]) -> None:
    shop(lambda s: s.take_in(document()))
    with pytest.raises(RecordsRefused, match="part of another job"):
        shop(lambda s: s.take_in(document(id="j2", number=400)))
    assert [s.id for s in shop(lambda s: s.summaries())] == ["j1"]


def test_a_job_goes_out_as_it_came_in(shop: Ask[Any]) -> None:
    wanted = document(colour="red", attachments=[{"name": "plate.jpg", "sha256": "0" * 64}])
    shop(lambda s: s.take_in(wanted))
    assert shop(lambda s: s.give_out("j1")) == wanted


def test_a_job_that_is_not_there_cannot_go_out(shop: Ask[Any]) -> None:
    with pytest.raises(RecordsRefused, match="no job"):
        shop(lambda s: s.give_out("nobody"))


def test_summaries_can_always_be_rebuilt(shop: Ask[Any]) -> None:
    for job in demo_jobs():
        shop(lambda s, j=job: s.take_in(j))  # type: ignore[misc]
    first = shop(lambda s: s.summaries())
    assert shop(lambda s: s.rebuild()) == first
    assert [s.mark for s in first] == ["hold"] * 6 + ["watch"] * 3 + [""] * 5 + ["good", ""]
    assert Summary.of_text(first[0].text()) == first[0]
    assert Summary.of_text(first[0].text().replace('"gone"', '"released"')) is None


def test_the_most_urgent_come_first_and_what_came_in_is_judged_behind(shop: Ask[Any]) -> None:
    jobs = demo_jobs()[:5]
    for job in jobs:
        shop(lambda s, j=job: s.take_in(j))  # type: ignore[misc]
    names = {j.id: j.entries[0].body.text for j in jobs}
    told = shop(lambda s: s.rack.first(9))
    assert told.whole
    assert {s.id: s.name for s in told.summaries} == names
    assert {s.state for s in told.summaries} == {UNJUDGED}
    judged = list(iter(lambda: shop(lambda s: s.rack.behind()), None))
    assert [s.number for s in judged] == sorted((j.number for j in jobs), reverse=True)
    more = document(id="late", number=900)
    shop(lambda s: s.take_in(more))  # while nothing waits
    late = shop(lambda s: s.rack.behind())
    assert (late.id, shop(lambda s: s.rack.behind())) == ("late", None)
    names["late"] = late.name
    every = shop(lambda s: s.rack.every())
    assert every == shop(lambda s: s.summaries())
    assert shop(lambda s: s.rack.first(2)) == OnRack(every[:2], False)
    shop(lambda s: s.rack.forget())
    assert {s.id: s.name for s in shop(lambda s: s.rack.every())} == names


def test_a_first_look_sees_what_the_records_tell(shop: Ask[Any], tmp_path: Path) -> None:
    folder = tmp_path / "shop"
    assert look(folder, 9) is None  # nothing there yet
    for job in demo_jobs()[:3]:
        shop(lambda s, j=job: s.take_in(j))  # type: ignore[misc]
    shop(lambda s: s.summaries())
    seen = look(folder, 2)
    assert seen is not None
    assert seen.summaries == shop(lambda s: s.rack.first(2)).summaries
    assert seen.log == shop(lambda s: s.log_of(seen.summaries[0].id))
    shop(lambda s: s.rack.forget())
    assert look(folder, 2) is None  # what no summary stands for the records must tell
    (folder / SHOP_FILE).write_text('{"format": "careful-coil/shop", "version": 99}')
    assert look(folder, 2) is None


def test_numbers_go_on_from_the_highest(shop: Ask[Any]) -> None:
    shop(lambda s: s.take_in(document(number=500)))
    assert shop(lambda s: s.open_job("new", [])) == 501


def test_the_shop_is_one_folder_with_its_version(shop: Ask[Any], tmp_path: Path) -> None:
    shop(lambda s: s.summaries())
    found = json.loads((tmp_path / "shop" / SHOP_FILE).read_text())
    assert found == {"format": "careful-coil/shop", "version": VERSION}
    with sqlite3.connect(tmp_path / "shop" / DATABASE) as c:
        assert c.execute("PRAGMA journal_mode").fetchone() == ("wal",)
        assert c.execute("SELECT version_num FROM alembic_version").fetchone() == ("0001",)
    c.close()


def opened(folder: Path) -> list[Summary]:
    thread = RecordsThread(folder, Settings())
    thread.start()
    try:
        return thread.ask(lambda s: s.summaries()).result()
    finally:
        thread.close()


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ('{"format": "careful-coil/shop", "version": 2}', "newer version"),
        ('{"format": "other", "version": 1}', "not a shop"),
        ("nonsense", "not a shop"),
        ('{"format": "careful-coil/shop", "version": "1"}', "not a shop"),
    ],
)
def test_a_shop_this_version_cannot_open_is_refused_and_not_touched(
    tmp_path: Path, text: str, words: str
) -> None:
    (tmp_path / SHOP_FILE).write_text(text)
    with pytest.raises(RecordsRefused, match=words):
        opened(tmp_path)
    assert [f.name for f in tmp_path.iterdir()] == [SHOP_FILE]
    assert (tmp_path / SHOP_FILE).read_text() == text


def test_a_folder_that_is_a_file_is_refused(tmp_path: Path) -> None:
    (tmp_path / "shop").write_text("")
    with pytest.raises(RecordsRefused):
        opened(tmp_path / "shop")


def test_a_database_that_is_none_is_refused(tmp_path: Path) -> None:
    (tmp_path / SHOP_FILE).write_text(
        json.dumps({"format": "careful-coil/shop", "version": VERSION})
    )
    (tmp_path / DATABASE).write_bytes(b"this is no database, whatever it is called" * 40)
    with pytest.raises(RecordsRefused, match="cannot be opened"):
        opened(tmp_path)


def test_a_first_opening_cut_short_is_finished_the_next_time(tmp_path: Path) -> None:
    """The database is made before shop.json says so."""
    assert opened(tmp_path) == []
    (tmp_path / SHOP_FILE).unlink()
    assert opened(tmp_path) == []
    assert (tmp_path / SHOP_FILE).exists()


def test_after_a_failed_call_the_records_go_on(shop: Ask[Any]) -> None:
    with pytest.raises(ZeroDivisionError):
        shop(lambda s: 1 // 0)
    assert shop(lambda s: s.summaries()) == []


def test_photographs_of_the_log_stand_among_a_jobs_attachments(shop: Ask[Any]) -> None:
    shas = [k * 64 for k in "ab"]
    log = entries(
        *({"kind": "picture", "name": f"{s[0]}.png", "sha256": s} for s in (*shas, shas[0]))
    )
    came = {"name": "old.png", "sha256": "c" * 64}
    wanted = document(entries=[e.model_dump(mode="json") for e in log], attachments=[came])
    shop(lambda s: s.take_in(wanted))
    given = shop(lambda s: s.give_out("j1"))
    assert [a.sha256 for a in given.attachments] == ["c" * 64, *shas]
