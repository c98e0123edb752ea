"""Two writers on one shop: nothing is signed over what was not seen, nothing written behind a signature."""

from collections.abc import Iterator
from itertools import islice
from pathlib import Path
from typing import Any

import pytest

from careful_coil.core.errors import RecordsOvertaken, RecordsRefused
from careful_coil.core.job import Entry
from careful_coil.core.settings import Settings
from careful_coil.documents.job import read_job
from careful_coil.records.shop import open_shop
from careful_coil.records.store import LAST_NUMBER, Store
from careful_coil.records.summarise import summarise
from careful_coil.records.summary import Summary
from tests.core.logs import SIX_LEADS, entries
from tests.gate.careful import document, three_phase

SIGNED = document(three_phase())


@pytest.fixture
def two(tmp_path: Path) -> Iterator[tuple[Store, Store]]:
    """Return two stores on one shop folder."""
    engines = [open_shop(tmp_path / "shop", lasting=False) for _ in range(2)]
    yield Store(engines[0], Settings()), Store(engines[1], Settings())
    for engine in engines:
        engine.dispose()


def log_of(told: dict[str, Any]) -> list[Entry]:
    return list(read_job(told).entries)


def test_what_came_in_between_is_handed_back_and_both_are_kept(two: tuple[Store, Store]) -> None:
    a, b = two
    log = entries(*SIX_LEADS)
    a.open_job("j", log[:3])
    assert b.append("j", log[3:4], 3).missed == ()
    answer = a.append("j", log[4:5], 3)
    assert (answer.missed, answer.seq) == ((log[3],), 5)
    assert a.append("j", log[5:6], 3, {log[4].id}).missed == (log[3],)  # his own are none
    assert a.entries_of("j") == log[:6]


def test_nobody_signs_over_what_he_has_not_seen(two: tuple[Store, Store]) -> None:
    a, b = two
    *before, hold, sign = log_of(SIGNED)
    a.open_job("j", before)
    b.append("j", [hold], len(before))
    with pytest.raises(RecordsOvertaken, match="look at it, then sign") as refused:
        a.append("j", [sign], len(before))
    assert (refused.value.missed, refused.value.seq) == ((hold,), len(before) + 1)
    assert a.entries_of("j") == [*before, hold]
    assert a.append("j", [sign], refused.value.seq).missed == ()


def test_a_released_job_is_frozen_for_every_writer(two: tuple[Store, Store]) -> None:
    a, b = two
    log = log_of(SIGNED)
    a.open_job("j", log)
    (late,) = entries(SIX_LEADS[-1])
    with pytest.raises(RecordsRefused, match="Released and frozen"):
        b.append("j", [late.model_copy(update={"id": "late"})], len(log) - 1)
    assert len(a.entries_of("j")) == len(log)
    strike = Entry.model_validate(
        {"id": "s", "at": "2026-03-02T08:00:00Z", "by": "AB", "station": "release"}
        | {"body": {"kind": "struck", "target": log[-1].id, "reason": "undone"}}
    )
    b.append("j", [strike])
    b.append("j", [late.model_copy(update={"id": "late"})])
    assert [e.id for e in a.entries_of("j")][-2:] == ["s", "late"]


def test_several_entries_are_one_record(two: tuple[Store, Store]) -> None:
    a, _ = two
    log = entries(*SIX_LEADS)
    a.open_job("j", log[:2])
    with pytest.raises(Exception, match="UNIQUE"):
        a.append("j", [log[2], log[3], log[1]])  # the last is there already
    assert a.entries_of("j") == log[:2]


def test_the_other_window_is_told_once(two: tuple[Store, Store]) -> None:
    a, b = two
    log = entries(*SIX_LEADS)
    assert a.news("", 0) is None
    b.open_job("j", log[:3])
    told = a.news("", 0)
    assert told is not None
    assert [s.id for s in told.summaries] == ["j"]
    assert a.news("j", 3) is None
    a.append("j", log[3:4], 3)
    assert a.news("j", 4) is None  # one's own is no news
    b.append("j", log[4:5])
    told = a.news("j", 4)
    assert told is not None
    assert (told.log.entries, told.log.seq) == (log[4:5], 5)


def test_a_stale_summary_hides_nothing(two: tuple[Store, Store]) -> None:
    a, b = two
    log = entries(*SIX_LEADS)
    number = a.open_job("j", log[:3])
    stale = summarise("j", number, a.log_of("j"), Settings())
    b.append("j", log[3:5])
    a.rack.save(stale)
    (shown,) = b.summaries()
    assert (shown.seq, stale.seq) == (5, 3)
    claims = Summary.of_text(shown.text().replace('"seq": 5', '"seq": 9'))
    assert claims is not None
    b.rack.save(claims)  # says more than the log does
    assert b.summaries()[0].seq == 5


def test_other_settings_are_judged_behind_the_newest_first(two: tuple[Store, Store]) -> None:
    a, _ = two
    log = entries(*SIX_LEADS)
    for k in range(3):
        fresh = [e.model_copy(update={"id": f"{k}-{e.id}"}) for e in log]
        a.open_job(f"j{k}", fresh)
    old = {s.id: s.by for s in a.summaries()}
    wanted = Settings().changed({"insulation_minimum": 50})
    assert {s.by for s in a.rack.judge_by(wanted)} == set(old.values())  # at once, as they were
    rounds = []
    while made := a.rack.behind():
        rounds.append({s.id for s in a.rack.every() if s.by != old[s.id]})
        assert made in a.rack.every()
    assert rounds == [{"j2"}, {"j2", "j1"}, {"j2", "j1", "j0"}]


def test_a_job_that_cannot_be_judged_keeps_no_other_behind(
    two: tuple[Store, Store], monkeypatch: pytest.MonkeyPatch
) -> None:
    a, _ = two
    for id in ("good", "bad"):  # the bad one is the newest
        a.open_job(
            id, [e.model_copy(update={"id": f"{id}-{e.id}"}) for e in entries(*SIX_LEADS[:3])]
        )
    a.summaries()

    def some(id: str, *told: Any) -> Summary:
        if id == "bad":
            raise ArithmeticError("of a rule")
        return summarise(id, *told)

    monkeypatch.setattr("careful_coil.records.summarise.summarise", some)
    old = {s.id: s.by for s in a.rack.judge_by(Settings().changed({"insulation_minimum": 50}))}
    assert [s.id for s in islice(iter(a.rack.behind, None), 5)] == ["good"]
    assert {s.id for s in a.rack.every() if s.by != old[s.id]} == {"good"}


def test_numbers_stay_in_this_shops_own_range(two: tuple[Store, Store]) -> None:
    a, _ = two
    far = document(SIX_LEADS) | {"id": "far", "number": 10**9}
    done = a.take_in(read_job(far))
    assert (done.number, done.wanted) == (101, 10**9)
    assert a.open_job("j", []) == 102
    assert a.give_out("far").number <= LAST_NUMBER
