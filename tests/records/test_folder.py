"""The shop's folder moved, deleted, replaced, without rights: said, nothing lost, and on without a restart."""

import shutil
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest
from sqlalchemy import Engine

from careful_coil.core.errors import RecordsRefused
from careful_coil.core.settings import Settings
from careful_coil.records import RecordsThread, shop
from careful_coil.records.folder import DATABASE, SHOP_FILE
from careful_coil.records.store import Store
from careful_coil.whole import put_in_place
from tests.core.logs import SIX_LEADS, entries

Ask = Callable[[Callable[[Any], Any]], Any]
LOG = entries(*SIX_LEADS)


@pytest.fixture
def folder(tmp_path: Path) -> Path:
    return tmp_path / "100 % shop? #1"


@pytest.fixture
def ask(folder: Path) -> Iterator[Ask]:
    """Ask the records of a shop whose path has every odd character."""
    thread = RecordsThread(folder, Settings())
    thread.start()
    thread.ask(lambda s: s.open_job("j", LOG[:3])).result()
    yield lambda call: thread.ask(call).result()
    thread.close()


def test_a_path_may_hold_any_character(ask: Ask, folder: Path) -> None:
    assert (folder / DATABASE).exists()
    assert ask(lambda s: s.entries_of("j")) == LOG[:3]


def test_a_folder_that_was_moved_takes_nothing_and_goes_on_when_it_is_back(
    ask: Ask, folder: Path
) -> None:
    away = folder.with_name("away")
    folder.rename(away)
    for _ in range(2):
        with pytest.raises(RecordsRefused, match="goes on by itself when it is back"):
            ask(lambda s: s.append("j", LOG[3:4], 3))
    assert not folder.exists()  # no new shop in its place
    away.rename(folder)
    assert ask(lambda s: s.append("j", LOG[3:4], 3)).seq == 4
    assert ask(lambda s: s.entries_of("j")) == LOG[:4]


def test_a_folder_that_was_deleted_loses_nothing_in_silence(ask: Ask, folder: Path) -> None:
    shutil.rmtree(folder)
    with pytest.raises(RecordsRefused, match="Nothing was recorded since"):
        ask(lambda s: s.append("j", LOG[3:4], 3))


def test_a_folder_that_was_replaced_is_read_anew(ask: Ask, folder: Path) -> None:
    """As where a backup is put in its place: the old one's last entry is not in it."""
    copy = folder.with_name("copy")
    shutil.copytree(folder, copy)
    ask(lambda s: s.append("j", LOG[3:4], 3))
    folder.rename(folder.with_name("old"))
    copy.rename(folder)
    assert ask(lambda s: s.entries_of("j")) == LOG[:3]
    assert ask(lambda s: s.append("j", LOG[4:5], 3)).seq == 4


def test_a_shop_that_cannot_be_opened_yet_is_tried_again(tmp_path: Path) -> None:
    blocked = tmp_path / "shop"
    blocked.write_text("no folder")
    thread = RecordsThread(blocked, Settings())
    thread.start()
    with pytest.raises(RecordsRefused, match="cannot be read"):
        thread.ask(lambda s: s.summaries()).result()
    blocked.unlink()
    assert thread.ask(lambda s: s.summaries()).result() == []
    thread.close()


def test_an_upgrade_is_tried_on_a_copy_and_the_old_shop_is_kept(
    ask: Ask, folder: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """One that fails half way leaves the shop as it was; one that is whole takes its place."""
    before = ask(lambda s: s.entries_of("j"))
    monkeypatch.setattr(shop, "VERSION", 2)

    def half(engine: Engine) -> None:
        with engine.begin() as c:
            c.exec_driver_sql("DELETE FROM entry WHERE seq > 1")

    def whole(engine: Engine) -> None:
        with engine.begin() as c:
            c.exec_driver_sql("ALTER TABLE job ADD COLUMN colour TEXT")

    monkeypatch.setattr(shop, "_upgrade", half)
    with pytest.raises(RecordsRefused, match="is not whole"):
        shop.open_shop(folder)
    assert ask(lambda s: s.entries_of("j")) == before
    assert '"version": 1' in (folder / SHOP_FILE).read_text()
    monkeypatch.setattr(shop, "_upgrade", whole)
    engine = shop.open_shop(folder)
    assert Store(engine, Settings()).entries_of("j") == before
    engine.dispose()
    assert '"version": 2' in (folder / SHOP_FILE).read_text()
    assert (folder / "shop-version-1.sqlite3").exists()
    assert not list(folder.glob("*.upgrading"))
    assert (
        ask(lambda s: s.append("j", LOG[3:4], 3)).seq == 4
    )  # a window that was open goes on in the new one


def test_an_upgrade_leaves_nothing_of_the_old_shop_to_be_written_into_the_new_one(
    ask: Ask, folder: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """A machine may stop between the two; and who is at work in the old one is not written over."""
    beside, left = folder / f"{DATABASE}-wal", []
    assert beside.stat().st_size  # the open window's

    def placed(copy: Path, old: Path) -> None:
        left.append(beside.stat().st_size if beside.exists() else 0)
        put_in_place(copy, old)

    monkeypatch.setattr(shop, "VERSION", 2)
    monkeypatch.setattr(shop, "put_in_place", placed)
    monkeypatch.setattr(shop, "PATIENCE", 0.05)
    with closing(sqlite3.connect(folder / DATABASE)) as reader:
        reader.execute("BEGIN")
        reader.execute("SELECT * FROM entry").fetchone()
        with pytest.raises(RecordsRefused, match="another window is at work in it"):
            shop.open_shop(folder)
    shop.open_shop(folder).dispose()
    assert left == [0]
    assert len(ask(lambda s: s.entries_of("j"))) == 3


def test_a_new_shop_is_what_the_migrations_make(tmp_path: Path) -> None:
    """A new shop is made without them, for they are slow to load; the newest stands in it all the same."""

    def told(folder: Path) -> tuple[list[str], list[tuple[str]]]:
        with closing(sqlite3.connect(folder / DATABASE)) as c:
            tables = c.execute("SELECT sql FROM sqlite_master ORDER BY name").fetchall()
            version = c.execute("SELECT version_num FROM alembic_version").fetchall()
        return ["".join(str(t[0]).split()) for t in tables], version

    shop.open_shop(tmp_path / "new").dispose()
    (tmp_path / "old").mkdir()
    (tmp_path / "old" / DATABASE).touch()  # a database without a version: brought up to date
    shop.open_shop(tmp_path / "old").dispose()
    assert told(tmp_path / "new") == told(tmp_path / "old")
