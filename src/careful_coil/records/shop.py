"""A shop's folder: its version, its database, opened and brought up to date."""

import json
import sqlite3
from contextlib import closing
from pathlib import Path

from sqlalchemy import URL, Connection, Engine, create_engine, event
from sqlalchemy.exc import SQLAlchemyError

from careful_coil.core.errors import RecordsRefused
from careful_coil.records.folder import DATABASE, FORMAT, SHOP_FILE, VERSION, version_in
from careful_coil.records.tables import metadata
from careful_coil.whole import put_in_place, write_whole

REVISION = "0001"  # of the tables as they are: the newest migration
TRIES, PATIENCE = 3, 5.0  # seconds each, to be the only one before a shop is brought up to date


def open_shop(folder: Path, lasting: bool = True) -> Engine:
    """Return the engine of the shop in `folder`, made or brought up to date where needed.

    A shop that is thrown away is not `lasting`: its commits do not wait for the disk.
    Raises: RecordsRefused for a shop of a newer version (not touched) or a folder that cannot be
    used.
    """
    version = version_in(folder)
    if version > VERSION:
        raise RecordsRefused(
            f"The shop in {folder} was written by a newer version (records {version}; this one knows {VERSION}). "
            "It was not touched. Open it with that version, or choose another folder."
        )
    try:
        folder.mkdir(parents=True, exist_ok=True)
        if 0 < version < VERSION:
            _upgrade_copy(folder, version)
            _write_version(folder)
        fresh = not (folder / DATABASE).exists()
        engine = _engine(folder / DATABASE, lasting)
        if version == 0:
            if fresh:
                _make(engine)
            else:
                _upgrade(engine)
            _write_version(folder)
        else:
            with engine.connect():
                pass
    except (OSError, sqlite3.Error, SQLAlchemyError) as error:
        raise RecordsRefused(
            f"The shop in {folder} cannot be opened: {_plain(error)}. A local folder with room is wanted."
        ) from error
    return engine


def identity(folder: Path) -> tuple[int, int] | None:
    """Return which file the shop's database is; None where it is not there."""
    try:
        told = (folder / DATABASE).stat()
    except OSError:
        return None
    return told.st_dev, told.st_ino


def _write_version(folder: Path) -> None:
    """Write shop.json whole or not at all."""
    text = json.dumps({"format": FORMAT, "version": VERSION}) + "\n"
    write_whole(folder / SHOP_FILE, text.encode())


def _engine(file: Path, lasting: bool) -> Engine:
    wait = "FULL" if lasting else "OFF"
    place = URL.create("sqlite", database=str(file))  # a path may hold ?, % and #
    engine = create_engine(place, connect_args={"timeout": 10})

    @event.listens_for(engine, "connect")
    def _on_connect(connection: sqlite3.Connection, _record: object) -> None:
        connection.isolation_level = None  # transactions are begun by hand, at once for writing
        cursor = connection.cursor()
        for pragma in ("journal_mode=WAL", "foreign_keys=ON", f"synchronous={wait}"):
            cursor.execute(f"PRAGMA {pragma}")
        cursor.close()

    @event.listens_for(engine, "begin")
    def _on_begin(connection: Connection) -> None:
        reading = connection.get_execution_options().get("reading")
        connection.exec_driver_sql("BEGIN" if reading else "BEGIN IMMEDIATE")

    return engine


def _make(engine: Engine) -> None:
    """Make the tables of a new shop as the migrations would, without the time they take to load."""
    with engine.begin() as connection:
        metadata.create_all(connection)
        connection.exec_driver_sql(
            "CREATE TABLE alembic_version (version_num VARCHAR(32) NOT NULL, "
            "CONSTRAINT alembic_version_pkc PRIMARY KEY (version_num))"
        )
        connection.exec_driver_sql(f"INSERT INTO alembic_version VALUES ('{REVISION}')")


def _upgrade(engine: Engine) -> None:
    from alembic import command  # slow to load, and needed only where the version differs
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


def _upgrade_copy(folder: Path, version: int) -> None:
    """Bring a copy up to date and open it; only then it takes the place of the old one, which is kept."""
    old, copy = folder / DATABASE, folder / f".{DATABASE}.upgrading"
    kept = folder / f"shop-version-{version}.sqlite3"
    with closing(sqlite3.connect(old, timeout=PATIENCE, isolation_level=None)) as here:
        _alone(here, old)
        count = here.execute("SELECT count(*) FROM entry").fetchone()
        try:
            for file in (copy, kept):
                file.unlink(missing_ok=True)
                with closing(sqlite3.connect(old)) as source, closing(sqlite3.connect(file)) as out:
                    source.backup(out)
                    out.execute("PRAGMA journal_mode=DELETE")
            engine = _engine(copy, lasting=True)
            try:
                _upgrade(engine)
            finally:
                engine.dispose()
            with closing(sqlite3.connect(copy)) as made:
                whole = made.execute("PRAGMA integrity_check").fetchone() == ("ok",)
                same = made.execute("SELECT count(*) FROM entry").fetchone() == count
                made.execute("PRAGMA journal_mode=DELETE")
            if not (whole and same):
                raise sqlite3.DatabaseError("the copy that was brought up to date is not whole")
            put_in_place(copy, old)
            for rest in ("-wal", "-shm"):  # of the old file, empty: the new one begins its own
                old.with_name(f"{DATABASE}{rest}").unlink(missing_ok=True)
        finally:
            copy.unlink(missing_ok=True)


def _alone(here: sqlite3.Connection, file: Path) -> None:
    """Let nobody write until `here` is closed, and nothing be left beside the file to be written into it.

    What was left there would be written into the file that takes its place, were the machine to stop in between.
    """
    beside = file.with_name(f"{DATABASE}-wal")
    for _ in range(TRIES):
        here.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchall()
        here.execute("BEGIN IMMEDIATE")
        if not beside.exists() or not beside.stat().st_size:
            return
        here.execute("ROLLBACK")
    raise sqlite3.OperationalError("another window is at work in it")


def _plain(error: Exception) -> str:
    return str(getattr(error, "orig", None) or getattr(error, "strerror", None) or error)
