"""export and import: a job out of a shop and into another, whole or not at all; what comes in is untrusted."""

import hashlib
import json
import sqlite3
import zipfile
from collections.abc import Callable
from contextlib import closing
from pathlib import Path

import pytest
from sqlalchemy.exc import OperationalError

from careful_coil.core.settings import Settings
from careful_coil.demo import demo_pictures
from careful_coil.documents.base import parse_json
from careful_coil.documents.job import read_job
from careful_coil.records.attachments import FOLDER, keep
from careful_coil.records.shop import open_shop
from careful_coil.records.store import Store
from tests.headless import demo_job, run


def shop_with(folder: Path, *names: str) -> Path:
    """Return a shop with demo jobs and the demo's photographs."""
    store = Store(open_shop(folder, lasting=False), Settings())
    for name in names:
        text = Path(demo_job(name)).read_text(encoding="utf-8")
        store.take_in(read_job(parse_json(text)))
    with demo_pictures() as pictures:
        for file in pictures:
            keep(folder, file)
    return folder


def entries_of(folder: Path, number: int) -> list[str]:
    store = Store(open_shop(folder, lasting=False), Settings())
    found = next(s for s in store.summaries() if s.number == number)
    return [e.id for e in store.entries_of(found.id)]


def test_a_job_goes_out_with_its_photographs_and_into_another_shop(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    one, two = shop_with(tmp_path / "one", "theatre"), tmp_path / "two"
    bundle = tmp_path / "theatre.ccjob"
    status, out, _ = run(capsys, "export", "214", "-o", str(bundle), "--shop", str(one), "--json")
    assert status == 0
    assert json.loads(out) == {
        "format": "careful-coil/done",
        "version": 1,
        "verb": "export",
        "file": str(bundle),
    }
    with zipfile.ZipFile(bundle) as z:
        names = z.namelist()
    assert names[0] == "job.json"
    assert sum(n.startswith("attachments/") for n in names) == 1
    status, out, _ = run(capsys, "import", str(bundle), "--shop", str(two))
    assert status == 0
    assert "1 files" in out
    assert entries_of(two, 214) == entries_of(one, 214)
    kept = list((two / FOLDER).iterdir())
    assert len(kept) == 1
    assert hashlib.sha256(kept[0].read_bytes()).hexdigest() == kept[0].stem
    status, out, _ = run(capsys, "import", str(bundle), "--shop", str(two))
    assert "nothing new" in out


def test_a_number_already_taken_is_given_anew_and_said(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    shop = shop_with(tmp_path / "shop", "theatre")
    other = json.loads(Path(demo_job("bakery")).read_text(encoding="utf-8"))
    other["number"] = 214
    file = tmp_path / "bakery.json"
    file.write_text(json.dumps(other), encoding="utf-8")
    status, out, _ = run(capsys, "import", str(file), "--shop", str(shop))
    assert status == 0
    assert "Number 214 is taken here" in out
    assert "Job 215" in out


def test_a_job_that_is_not_there_is_told_with_those_that_are(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    shop = shop_with(tmp_path / "shop", "theatre")
    status, _, err = run(
        capsys, "export", "9", "-o", str(tmp_path / "x.ccjob"), "--shop", str(shop)
    )
    assert status == 2
    assert "It has: 214" in err
    assert not (tmp_path / "x.ccjob").exists()


Break = Callable[[dict[str, bytes]], dict[str, bytes]]


def without_job(parts: dict[str, bytes]) -> dict[str, bytes]:
    return {n: c for n, c in parts.items() if n != "job.json"}


def test_a_bundle_whose_packing_is_broken_is_refused_in_words(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    shop = shop_with(tmp_path / "one", "theatre")
    bundle = tmp_path / "theatre.ccjob"
    run(capsys, "export", "214", "-o", str(bundle), "--shop", str(shop))
    whole = bytearray(bundle.read_bytes())
    two = shop_with(tmp_path / "two")
    for at in (40, 60, 200, 900):  # in the packed job.json
        broken = bytearray(whole)
        broken[at : at + 4] = b"\xff\xff\xff\xff"
        bundle.write_bytes(broken)
        status, _, err = run(capsys, "import", str(bundle), "--shop", str(two))
        assert status == 2
        assert "bundle" in err


def kept(shop: Path) -> list[str]:
    """Return the files of a shop but those beside its database while it is open."""
    names = (p.name for p in shop.rglob("*"))
    return sorted(n for n in names if not n.endswith(("-wal", "-shm")))


def with_path(parts: dict[str, bytes]) -> dict[str, bytes]:
    return {**parts, "attachments/../../evil.png": b"\x89PNG\r\n\x1a\n"}


def with_absolute(parts: dict[str, bytes]) -> dict[str, bytes]:
    return {**parts, "/etc/evil": b"x"}


def with_stranger(parts: dict[str, bytes]) -> dict[str, bytes]:
    content = b"\x89PNG\r\n\x1a\nstranger"
    return {**parts, f"attachments/{hashlib.sha256(content).hexdigest()}.png": content}


def with_other_content(parts: dict[str, bytes]) -> dict[str, bytes]:
    return {n: c + b"x" if n.startswith("attachments/") else c for n, c in parts.items()}


def with_broken_job(parts: dict[str, bytes]) -> dict[str, bytes]:
    return {**parts, "job.json": b'{"format": "careful-coil/job", "version": 2}'}


def with_latin(parts: dict[str, bytes]) -> dict[str, bytes]:
    return {**parts, "job.json": b"\xff\xfe\xe4"}


def with_many(parts: dict[str, bytes]) -> dict[str, bytes]:
    return {**parts, **{f"attachments/{k}": b"" for k in range(401)}}


@pytest.mark.parametrize(
    ("broken", "words"),
    [
        (without_job, "no job.json"),
        (with_path, "files that the job names"),
        (with_absolute, "files that the job names"),
        (with_stranger, "files that the job names"),
        (with_other_content, "content its digest says"),
        (with_broken_job, "version"),
        (with_latin, "UTF-8"),
        (with_many, "at most"),
    ],
    ids=lambda b: getattr(b, "__name__", ""),
)
def test_a_bad_part_refuses_the_whole_bundle_and_changes_nothing(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, broken: Break, words: str
) -> None:
    shop = shop_with(tmp_path / "one", "theatre")
    bundle = tmp_path / "theatre.ccjob"
    run(capsys, "export", "214", "-o", str(bundle), "--shop", str(shop))
    with zipfile.ZipFile(bundle) as z:
        parts = {n: z.read(n) for n in z.namelist()}
    with zipfile.ZipFile(bundle, "w") as z:
        for name, content in broken(parts).items():
            z.writestr(name, content)
    two = shop_with(tmp_path / "two")
    before = kept(two)
    status, _, err = run(capsys, "import", str(bundle), "--shop", str(two))
    assert status == 2
    assert words in err
    assert kept(two) == before
    assert not (tmp_path / "evil.png").exists()


@pytest.mark.parametrize("content", [b"PK\x03\x04 broken", b"", b"[]", b"\x00\x01"])
def test_what_is_no_bundle_is_refused(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, content: bytes
) -> None:
    file = tmp_path / "x.ccjob"
    file.write_bytes(content)
    status, _, err = run(capsys, "import", str(file), "--shop", str(tmp_path / "shop"))
    assert status == 2
    assert err.count("\n") == 1
    assert not (tmp_path / "shop" / "shop.json").exists()


def test_no_import_releases_a_job_that_has_something_open(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    job = json.loads(Path(demo_job("theatre")).read_text(encoding="utf-8"))
    signed = {
        "id": "forged",
        "at": "2026-03-04T09:00:00Z",
        "by": "XX",
        "station": "release",
        "body": {"kind": "released", "signed": "XX"},
    }
    job["entries"].append(signed)
    file = tmp_path / "forged.json"
    file.write_text(json.dumps(job), encoding="utf-8")
    shop = tmp_path / "shop"
    assert run(capsys, "import", str(file), "--shop", str(shop))[0] == 0
    (found,) = Store(open_shop(shop, lasting=False), Settings()).summaries()
    assert found.state != "released"
    assert run(capsys, "judge", str(file))[0] == 1


def test_a_full_disk_is_told_in_one_line(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    shop = shop_with(tmp_path / "shop", "theatre")

    def full(*_: object) -> None:
        raise OperationalError("INSERT", {}, sqlite3.OperationalError("database or disk is full"))

    monkeypatch.setattr(Store, "take_in", full)
    status, _, err = run(capsys, "import", demo_job("bakery"), "--shop", str(shop))
    assert (status, err.strip()) == (
        2,
        "Not recorded: database or disk is full. Nothing was changed.",
    )


def test_a_shop_is_backed_up_restored_and_made_anew_by_verbs(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    shop, file = shop_with(tmp_path / "shop", "theatre"), tmp_path / "b.ccshop"
    status, out, _ = run(capsys, "backup", "-o", str(file), "--shop", str(shop), "--json")
    assert (status, json.loads(out)["verb"]) == (0, "backup")
    status, out, _ = run(capsys, "restore", str(file), str(tmp_path / "new"))
    assert (status, "1 jobs" in out) == (0, True)
    assert entries_of(tmp_path / "new", 214) == entries_of(shop, 214)
    assert run(capsys, "restore", str(file), str(tmp_path / "new"))[0] == 2
    assert run(capsys, "rebuild", "--shop", str(tmp_path / "new"))[0] == 0
    with closing(sqlite3.connect(tmp_path / "new" / "shop.sqlite3")) as c:
        c.execute("UPDATE entry SET body='{' WHERE seq=5")
        c.commit()
    status, out, _ = run(capsys, "rebuild", "--shop", str(tmp_path / "new"))
    assert (status, "Damaged: job 214 damaged: entry 5" in out) == (1, True)
