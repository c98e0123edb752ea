"""What comes in never strikes, renames or signs what is here unless that is accepted."""

import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

from careful_coil.cli import run
from careful_coil.core.errors import RecordsRefused, WouldChange
from careful_coil.core.settings import Settings
from careful_coil.demo import demo_pictures
from careful_coil.documents.job import JobDocument, read_job
from careful_coil.records.attachments import FOLDER, keep
from careful_coil.records.bundle import read_bundle, take_in_bundle, write_bundle
from careful_coil.records.shop import open_shop
from careful_coil.records.store import Store
from tests.core.logs import SIX_LEADS
from tests.gate.careful import document, three_phase

NAME = {"kind": "ticket", "field": "name", "text": "Press"}
OTHER = {"kind": "ticket", "field": "name", "text": "Another press"}
STRIKE = {"kind": "struck", "target": "e2", "reason": "undone"}


@pytest.fixture
def store(tmp_path: Path) -> Iterator[Store]:
    """Return the records of a shop."""
    engine = open_shop(tmp_path / "shop", lasting=False)
    yield Store(engine, Settings())
    engine.dispose()


def job(*bodies: dict[str, Any], **more: Any) -> JobDocument:
    return read_job(document(bodies) | {"id": "j", "number": 300} | more)


def test_what_would_change_is_said_and_taken_only_where_it_is_accepted(store: Store) -> None:
    store.take_in(job(NAME, *SIX_LEADS))
    before = store.give_out("j")
    more = job(NAME, *SIX_LEADS, STRIKE, OTHER, {"kind": "released", "signed": "CD"}, number=7)
    with pytest.raises(WouldChange) as told:
        store.take_in(more)
    for words in ("3 entries by AB", "strikes 1 here", "signs it", "names it “Another press”"):
        assert words in str(told.value)
    assert store.give_out("j") == before
    done = store.take_in(more, accept=True)
    assert (done.number, done.added) == (300, 3)
    assert store.take_in(more).added == 0


def test_a_released_job_is_never_changed_a_follow_up_takes_what_came(store: Store) -> None:
    signed = three_phase()
    store.take_in(job(*signed))
    before = store.give_out("j")
    more = job(*signed, {**STRIKE, "target": f"e{len(signed)}"}, OTHER, number=8)
    late = more.model_copy(update={"entries": (*before.entries, *more.entries[-1:])})
    with pytest.raises(WouldChange, match="released here, so a follow-up"):
        store.take_in(late)
    done = store.take_in(late, accept=True)
    assert done.follows == 300
    assert store.give_out("j") == before
    strike = more.model_copy(update={"entries": (*before.entries, more.entries[-2])})
    with pytest.raises(RecordsRefused, match="nothing of it was taken"):
        store.take_in(strike, accept=True)
    kinds = [e.body.kind for e in store.entries_of(done.id)]
    assert kinds[0] == "follows-up"
    assert store.entries_of(done.id)[-1] == more.entries[-1]


def test_a_signature_from_elsewhere_is_shown_as_such(store: Store) -> None:
    store.take_in(job(*three_phase()))
    assert [s.state for s in store.summaries()] == ["signed elsewhere"]
    assert "signed-elsewhere" not in store.give_out("j").model_dump_json()
    log = store.entries_of("j")
    strike, again = (
        read_job(document([*three_phase(), body]))
        .entries[-1]
        .model_copy(update={"id": f"here-{k}"})
        for k, body in enumerate(
            ({**STRIKE, "target": log[-1].id}, {"kind": "released", "signed": "CD"})
        )
    )
    store.append("j", [strike])
    store.append("j", [again])
    assert [s.state for s in store.summaries()] == ["released"]  # here, by another


def test_a_log_that_is_not_the_one_that_was_signed_is_told(
    store: Store, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    store.take_in(job(*three_phase()))
    whole = json.loads(store.give_out("j").model_dump_json())
    assert len(whole["digest"]) == 64
    entry = next(e for e in whole["entries"] if e["body"].get("field") == "rpm")
    file = tmp_path / "j.json"

    def judged() -> tuple[int, str]:
        file.write_text(json.dumps(whole), encoding="utf-8")
        return run(["judge", str(file)]), capsys.readouterr().out

    status, out = judged()
    assert (status, f"signed: log {whole['digest'][:4]}" in out) == (0, True)
    entry["body"]["text"] = "1455"
    status, out = judged()
    assert (status, "Not the log that was signed" in out) == (1, True)
    whole["id"] = "copy"
    for k, e in enumerate(whole["entries"]):
        e["id"] = f"copy-{k}"
    with pytest.raises(RecordsRefused, match="not the one that was signed"):
        store.take_in(read_job(whole))


def test_a_second_import_mends_a_damaged_photograph(store: Store, tmp_path: Path) -> None:
    one, two = tmp_path / "one", tmp_path / "shop"
    with demo_pictures() as pictures:
        kept = keep(one, pictures[0])
    told = job(NAME, attachments=[{"name": kept.name, "sha256": kept.sha256}])
    write_bundle(tmp_path / "j.ccjob", told, one)
    found, files = read_bundle(tmp_path / "j.ccjob")
    take_in_bundle(store, two, found, files)
    (file,) = (two / FOLDER).iterdir()
    whole = file.read_bytes()
    file.write_bytes(whole[:100])
    take_in_bundle(store, two, found, files)
    assert file.read_bytes() == whole
    assert json.loads(told.model_dump_json())["number"] == 300
