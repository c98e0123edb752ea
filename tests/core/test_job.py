"""The log folded into a job: what counts, what is struck, what is left out."""

import random
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from careful_coil.core.errors import BadValue
from careful_coil.core.job import Entry, fold
from careful_coil.core.job.fold import Folding, frame_of, reading_of
from careful_coil.core.job.plate import check_field, nameplate, read_volts
from careful_coil.demo import demo_jobs
from careful_coil.documents.job import JobDocument
from tests.core.logs import entries, job_of, leads, ohm, plate, ticket


def test_the_newest_word_of_the_counter_stands() -> None:
    job = job_of(*ticket(name="Mill", complaint="hums"), *ticket(name="Mill, press"))
    assert job.name == "Mill, press"
    assert job.ticket["complaint"] == "hums"


def test_a_struck_entry_no_longer_counts_but_stays_in_the_log() -> None:
    log = entries(
        leads("A", "B"), ohm("AB", "3.9"), {"kind": "struck", "target": "e2", "reason": "wrong"}
    )
    job = fold(log)
    assert job.readings == ()
    assert job.struck == {"e2"}
    assert len(log) == 3


def test_a_strike_may_be_struck() -> None:
    job = job_of(
        leads("A", "B"),
        ohm("AB", "3.9"),
        {"kind": "struck", "target": "e2"},
        {"kind": "struck", "target": "e3"},
    )
    assert len(job.readings) == 1


def test_a_reading_moves_to_the_pair_it_was_of() -> None:
    job = job_of(
        leads("A", "B", "C"),
        ohm("AB", "3.9"),
        {"kind": "reading-moved", "target": "e2", "between": ["A", "C"]},
    )
    assert reading_of(job, "A", "B") is None
    assert reading_of(job, "C", "A") is not None


def test_two_tags_swapped_swap_in_all_readings_so_far() -> None:
    job = job_of(
        leads("A", "B", "C"),
        ohm("AC", "3.9"),
        {"kind": "reading", "reading": {"kind": "frame", "lead": "A", "value": "open"}},
        {"kind": "tags-swapped", "tags": ["A", "B"]},
        ohm("AC", "5.0"),
    )
    moved, later = reading_of(job, "B", "C"), reading_of(job, "A", "C")
    assert moved is not None
    assert later is not None
    assert getattr(moved.reading, "value", None) == "3.9"
    assert getattr(later.reading, "value", None) == "5.0"
    assert frame_of(job, "B") is not None
    assert frame_of(job, "A") is None


def test_what_was_tested_and_found_by_tag_goes_over_with_its_tag() -> None:
    log = (
        leads("A", "B", "C"),
        {"kind": "found-hookup", "joints": [["A", "C"]], "ran": "yes"},
        {"kind": "insulation", "megohm": 3.0, "at_c": 20, "parts": ["A"], "against": ["B", "C"]},
        {"kind": "winding-ohm", "between": ["A", "C"], "value": 5.2},
        {"kind": "tags-swapped", "tags": ["A", "B"]},
        {"kind": "winding-ohm", "between": ["A", "C"], "value": 6.1},
    )
    job = job_of(*log)
    assert job.found is not None
    assert job.found.joints == (("B", "C"),)
    (test,) = job.tested.tests
    assert (test.body.parts, test.body.against) == (("B",), ("A", "C"))
    assert [o.body.between for o in job.tested.ohms] == [("B", "C"), ("A", "C")]
    assert job.remarks == ()
    (remark,) = job.exchanged
    assert "insulation tests, winding ohms" in remark
    assert "the hookup as found" in remark
    back = job_of(*log, {"kind": "tags-swapped", "tags": ["B", "A"]})
    assert back.found is not None
    assert back.found.joints == (("A", "C"),)


def test_the_newest_reading_of_a_pair_is_shown() -> None:
    job = job_of(leads("A", "B"), ohm("AB", "9.0"), ohm("BA", "3.9"))
    newest = reading_of(job, "A", "B")
    assert newest is not None
    assert newest.entry == "e3"


def test_a_reading_of_a_lead_that_is_not_there_is_left_out_and_said() -> None:
    job = job_of(leads("A", "B"), ohm("AX", "3.9"), ohm("AB", "4 V"))
    assert job.readings == ()
    assert len(job.remarks) == 2
    assert "X" in job.remarks[0]


def test_joints_made_twice_are_one_joint() -> None:
    joint = {"kind": "joint", "joint": ["L1", "T1"]}
    assert job_of(joint, {"kind": "joint", "joint": ["T1", "L1"]}).joints == (("T1", "L1"),)


def test_the_place_of_work_and_of_the_test_is_kept() -> None:
    test = {"kind": "insulation", "megohm": 480, "at_c": 20}
    work = {"kind": "work", "what": "dried"}
    one, two = job_of(test, work), job_of(work, test)
    assert one.tested.valid(one.deeds.last("insulation")) == ()
    assert len(two.tested.valid(two.deeds.last("insulation"))) == 1


BODIES = st.one_of(
    st.builds(ohm, st.sampled_from(["AB", "AC", "XY", "AA"]), st.text(max_size=6)),
    st.builds(lambda t: {"kind": "struck", "target": t}, st.sampled_from(["e1", "e2", "e3", "zz"])),
    st.builds(
        lambda a, b: {"kind": "tags-swapped", "tags": [a, b]},
        st.sampled_from("ABX"),
        st.sampled_from("ABX"),
    ),
    st.builds(
        lambda t, a: {"kind": "reading-moved", "target": t, "between": [a, "B"]},
        st.sampled_from(["e1", "e2", "e9"]),
        st.sampled_from("ACX"),
    ),
    st.builds(
        lambda f, t: {"kind": "plate", "field": f, "text": t},
        st.sampled_from(["volt", "hertz", "amp"]),
        st.text(max_size=9),
    ),
    st.builds(lambda n: leads(*"ABCDEFGH"[:n]), st.integers(1, 8)),
    st.builds(
        lambda m, c: {"kind": "insulation", "megohm": m, "at_c": c},
        st.floats(0, 1e6),
        st.floats(-50, 200),
    ),
    st.builds(
        lambda j: {"kind": "joint", "joint": j},
        st.lists(st.text(min_size=1, max_size=4), min_size=2, max_size=4),
    ),
    st.builds(
        lambda v: {"kind": "line-ohm", "lines": ["L1", "L2"], "value": v},
        st.one_of(st.text(max_size=5), st.floats(0, 9)),
    ),
    st.just({"kind": "released", "signed": "AB"}),
)


@given(st.lists(BODIES, max_size=12))
def test_folding_any_log_gives_a_job(bodies: list[dict[str, Any]]) -> None:
    job = job_of(*bodies)
    assert len(job.readings) <= len(bodies)
    assert all(t.entry not in job.struck for t in job.readings)


@pytest.mark.parametrize(
    "change",
    [
        {"at": "yesterday"},
        {"at": "2026-03-01 08:00"},
        {"station": "kitchen"},
        {"body": {"kind": "dance"}},
        {"body": {"kind": "ticket", "field": "shoe", "text": ""}},
        {"body": {"kind": "insulation", "megohm": -1, "at_c": 20}},
        {"body": {"kind": "ticket", "v": 2, "field": "name", "text": "x"}},
        {"id": ""},
    ],
)
def test_an_entry_that_is_not_one_of_the_closed_set_is_refused(change: dict[str, Any]) -> None:
    good = {
        "id": "e1",
        "at": "2026-03-01T08:00:00Z",
        "station": "intake",
        "body": ticket(name="x")[0],
    }
    with pytest.raises(ValidationError):
        Entry.model_validate(good | change)


def test_unknown_keys_of_an_entry_are_kept() -> None:
    good = {
        "id": "e1",
        "at": "2026-03-01T08:00:00Z",
        "station": "intake",
        "body": ticket(name="x")[0] | {"mood": 3},
    }
    kept = Entry.model_validate(good | {"bench": 2}).model_dump(mode="json")
    assert kept["bench"] == 2
    assert kept["body"]["mood"] == 3


@pytest.mark.parametrize(
    ("text", "volts"),
    [
        ("400", ((400, 400),)),
        ("230/460", ((230, 230), (460, 460))),
        ("208-230/460", ((208, 230), (460, 460))),
        ("208–230/460 V", ((208, 230), (460, 460))),
        (" 230 / 400 ", ((230, 230), (400, 400))),
    ],
)
def test_rated_volts_are_read_as_printed(text: str, volts: tuple[tuple[float, float], ...]) -> None:
    assert read_volts(text) == volts


@pytest.mark.parametrize(
    "text", ["", "abc", "460/230", "230/", "0", "230-208", "99999", "-230", "230;460"]
)
def test_other_volts_are_refused_with_an_example(text: str) -> None:
    with pytest.raises(BadValue, match="230/460"):
        read_volts(text)


@pytest.mark.parametrize(
    ("field", "text"),
    [
        ("phases", "2"),
        ("volt", "x"),
        ("hertz", "50 V"),
        ("amp", "5/x"),
        ("power", "1 horse"),
        ("rpm", "0"),
    ],
)
def test_a_plate_field_that_cannot_be_read_is_refused(field: str, text: str) -> None:
    with pytest.raises(BadValue):
        check_field(field, text)


def test_a_plate_is_read_into_figures_and_kept_as_printed() -> None:
    found = nameplate(
        {
            "phases": "3",
            "volt": "230/460",
            "amp": "5.8/2.9 A",
            "power": "3/4 hp",
            "rpm": "1755",
            "hertz": "6o",
        }
    )
    assert (found.phases, found.amps, found.rpm) == (3, (5.8, 2.9), 1755.0)
    assert found.power_w == pytest.approx(559.3, abs=0.1)
    assert found.hertz is None
    assert found.printed("hertz") == "6o"


def test_plate_entries_fold_field_by_field() -> None:
    job = job_of(*plate(volt="230", hertz="50"), *plate(volt="230/400"))
    assert job.plate.volts == ((230, 230), (400, 400))
    assert job.plate.hertz == 50


@pytest.mark.parametrize("document", demo_jobs(), ids=lambda d: d.id)
def test_a_log_that_grows_folds_on_to_what_it_folds_to_anew(document: JobDocument) -> None:
    """By steps of one to five, with a strike and an exchange of tags; what was given out stays as it was."""
    rng, folding = random.Random(3), Folding()
    log = list(document.entries)
    at = rng.randrange(1, len(log))
    struck = {"kind": "struck", "target": log[at - 1].id, "reason": "wrong"}
    back = {"kind": "struck", "target": "strike-1", "reason": "not wrong"}
    swap = {"kind": "tags-swapped", "tags": ["A", "B"]}
    for k, body in ((at, struck), (len(log), back), (at + 1, swap)):
        told = {"id": f"strike-{k if body is not struck else 1}", "at": log[-1].at, "by": "AB"}
        log.insert(k, Entry.model_validate({**told, "station": "leads", "body": body}))
    given, end = [], 0
    while end < len(log):
        end = min(end + rng.randrange(1, 6), len(log))
        given.append((end, folding.job(log[:end])))
    assert all(job == fold(log[:end]) for end, job in given)
    assert folding.job(log[: end - 4]) == fold(
        log[: end - 4]
    )  # a log that is shorter is begun anew
