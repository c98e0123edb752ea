"""Damage touches one job and says so; a backup is one verified file and comes back whole."""

import random
import sqlite3
import zipfile
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from pathlib import Path

import pytest

from careful_coil.core.errors import CoilError, RecordsRefused
from careful_coil.core.settings import Settings
from careful_coil.demo import demo_jobs
from careful_coil.records.backup import (
    DAYS,
    ENDING,
    MONTHS,
    backups_of,
    daily,
    restore,
    write_backup,
)
from careful_coil.records.folder import DATABASE
from careful_coil.records.shop import open_shop
from careful_coil.records.store import Store
from tests.core.logs import SIX_LEADS, entries

HURT, WHOLE = "demo-theatre", "demo-bakery"


@pytest.fixture
def shop(tmp_path: Path) -> Path:
    """Return a shop of two jobs."""
    with opened(tmp_path / "shop") as store:
        for job in demo_jobs():
            if job.id in (HURT, WHOLE):
                store.take_in(job)
        store.summaries()
    return tmp_path / "shop"


@contextmanager
def opened(folder: Path) -> Iterator[Store]:
    """Open the records of a shop for a while."""
    engine = open_shop(folder, lasting=False)
    yield Store(engine, Settings())
    engine.dispose()


DAMAGE = {
    "a row that is no JSON": "UPDATE entry SET body='{\"kind\":' WHERE job_id=? AND seq=12",
    "an entry nobody knows": 'UPDATE entry SET body=\'{"kind":"x"}\' WHERE job_id=? AND seq=12',
    "a station that is none": "UPDATE entry SET station='moon' WHERE job_id=? AND seq=12",
    "a time that is none": "UPDATE entry SET at='yesterday' WHERE job_id=? AND seq=12",
    "extra that is no map": "UPDATE entry SET extra='[1]' WHERE job_id=? AND seq=12",
}


@pytest.mark.parametrize("how", DAMAGE)
def test_a_damaged_entry_is_named_and_everything_else_goes_on(shop: Path, how: str) -> None:
    with closing(sqlite3.connect(shop / DATABASE)) as c:
        c.execute(DAMAGE[how], (HURT,))
        c.commit()
    with opened(shop) as store:
        log = store.log_of(HURT)
        assert len(log.damaged) == 1
        assert log.damaged[0].startswith("entry 12 of ")
        rack = {s.id: s for s in store.rebuild()}
        assert rack[HURT].state.startswith("damaged: entry 12")
        assert rack[HURT].mark == "hold"
        assert not rack[WHOLE].state.startswith("damaged")
        assert store.give_out(WHOLE).id == WHOLE
        with pytest.raises(RecordsRefused, match="damaged and was not written"):
            store.give_out(HURT)
        more = entries(*SIX_LEADS)[-1].model_copy(update={"id": "more"})
        store.append(HURT, [more], log.seq)  # work on it goes on
        sign = {"kind": "released", "signed": "AB"}
        signing = entries(sign)[0].model_copy(update={"id": "sign"})
        with pytest.raises(RecordsRefused, match="its log is damaged"):
            store.append(HURT, [signing])


@pytest.mark.parametrize("text", ["", "{", "[]", '{"id": 3}', "null", '{"pips": 4}'])
def test_a_damaged_summary_is_made_anew(shop: Path, text: str) -> None:
    with opened(shop) as store:
        before = store.summaries()
    with closing(sqlite3.connect(shop / DATABASE)) as c:
        c.execute("UPDATE job SET summary=? WHERE id=?", (text, HURT))
        c.commit()
    with opened(shop) as store:
        assert store.summaries() == before


def test_a_backup_is_made_while_somebody_writes_and_comes_back(shop: Path, tmp_path: Path) -> None:
    file = tmp_path / f"b{ENDING}"
    with closing(sqlite3.connect(shop / DATABASE, isolation_level=None)) as writer:
        writer.execute("BEGIN IMMEDIATE")  # a value that is not committed is not in it
        writer.execute("UPDATE job SET number=9 WHERE id=?", (WHOLE,))
        count = write_backup(shop, file)
        writer.execute("ROLLBACK")
    assert restore(file, tmp_path / "new") == (2, count)
    with opened(shop) as old, opened(tmp_path / "new") as new:
        assert old.give_out(WHOLE) == new.give_out(WHOLE)
        assert old.summaries() == new.summaries()
    with pytest.raises(RecordsRefused, match="not empty"):
        restore(file, tmp_path / "new")


def cut(content: bytes) -> bytes:
    return content[: len(content) // 2]


def turned(content: bytes) -> bytes:
    chance = random.Random(3)
    found = bytearray(content)
    for _ in range(200):
        found[chance.randrange(len(found))] ^= 0x55
    return bytes(found)


@pytest.mark.parametrize("spoil", [cut, turned, lambda _: b"", lambda c: b"x" + c[1:3] * 9])
def test_a_spoilt_backup_is_refused_and_leaves_nothing(
    shop: Path, tmp_path: Path, spoil: Callable[[bytes], bytes]
) -> None:
    file = tmp_path / f"b{ENDING}"
    write_backup(shop, file)
    file.write_bytes(spoil(file.read_bytes()))
    with pytest.raises(CoilError):
        restore(file, tmp_path / "new")
    assert not (tmp_path / "new").exists()


@pytest.mark.parametrize("name", ["../evil", "/etc/evil", "attachments/x.png", "more.txt"])
def test_a_backup_with_a_part_of_another_name_is_refused(
    shop: Path, tmp_path: Path, name: str
) -> None:
    file = tmp_path / f"b{ENDING}"
    write_backup(shop, file)
    with zipfile.ZipFile(file, "a") as z:
        z.writestr(name, b"x")
    with pytest.raises(CoilError):
        restore(file, tmp_path / "new")
    assert not (tmp_path / "evil").exists()


def days(first: int, last: int) -> Iterator[str]:
    for day in range(first, last):
        yield f"2026-{1 + day // 28:02d}-{1 + day % 28:02d}"


def test_a_day_has_one_backup_and_old_ones_go(shop: Path) -> None:
    """Kept: the newest days, and the first of each of the newest months."""
    folder = backups_of(shop)
    folder.mkdir()
    for day in days(0, 11 * 28):
        (folder / f"shop-{day}{ENDING}").write_bytes(b"")
    (folder / "mine.ccshop").write_bytes(b"")
    assert daily(shop, "2026-12-01") is not None
    assert daily(shop, "2026-12-01") is None
    names = sorted(f.name for f in folder.iterdir())
    assert (
        len(names) == DAYS + 11 + 1
    )  # eleven months, the twelfth's first is among the days; and one by hand
    assert MONTHS == 12
    assert "mine.ccshop" in names
    assert f"shop-2026-03-01{ENDING}" in names
    assert f"shop-2026-03-02{ENDING}" not in names
