"""A shop as one verified file, made while it is in use, and brought back into a new folder.

A ZIP of the database (SQLite's online backup: a moment of it, whoever writes meanwhile), the settings, the
shelf and the photographs, with the digest of each in `manifest.json`. It is read back and opened before it
takes its name; what is kept: the newest `DAYS`, and the first of each of the newest `MONTHS` months.
"""

import hashlib
import json
import os
import re
import shutil
import sqlite3
import tempfile
import zipfile
import zlib
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path

from careful_coil.core.errors import BadDocument, RecordsRefused
from careful_coil.core.settings import Settings
from careful_coil.documents.base import parse_json
from careful_coil.records.attachments import FOLDER
from careful_coil.records.folder import DATABASE, SHOP_FILE
from careful_coil.records.shop import open_shop
from careful_coil.records.store import Store
from careful_coil.whole import check_plain, put_in_place

FORMAT, MANIFEST, ENDING = "careful-coil/backup", "manifest.json", ".ccshop"
DAYS, MONTHS = 14, 12
BESIDE = ("settings.json", "shelf.csv", "pins.json")
MOST_FILES, MOST_BYTES = 200_000, 200_000_000_000
WANTED = f"a backup of a shop ({ENDING}), as this program writes it"
_DATED = re.compile(r"shop-(\d{4}-\d\d)-(\d\d)(?:-\d+)?" + re.escape(ENDING))
_PART = re.compile(
    rf"(?:{SHOP_FILE}|{DATABASE}|{'|'.join(BESIDE)}|{FOLDER}/[0-9a-f]{{64}}\.\w{{3,4}})"
)


def backups_of(shop: Path) -> Path:
    """Return the folder a shop's backups are kept in: beside it, so that they outlive it."""
    return shop.with_name(f"{shop.name}-backups")


def daily(shop: Path, today: str) -> Path | None:
    """Write the backup of a day (ISO) where there is none yet, and let old ones go; None where there was one."""
    folder = backups_of(shop)
    file = folder / f"shop-{today}{ENDING}"
    if file.exists():
        return None
    write_backup(shop, file)
    for old in _too_old(sorted(folder.glob(f"shop-*{ENDING}"))):
        old.unlink(missing_ok=True)
    return file


def _too_old(files: list[Path]) -> Iterator[Path]:
    """Yield those that are not kept: neither of the newest days nor the first of a newer month."""
    dated = [f for f in files if _DATED.fullmatch(f.name)]
    months: dict[str, Path] = {}
    for file in dated:
        months.setdefault(file.name[5:12], file)
    kept = {*dated[-DAYS:], *(months[m] for m in sorted(months)[-MONTHS:])}
    yield from (f for f in dated if f not in kept)


def write_backup(shop: Path, file: Path) -> int:
    """Write a shop as one file, whole and verified or not at all; return how many entries it holds.

    Raises: RecordsRefused.
    """
    if not (shop / SHOP_FILE).exists():
        raise RecordsRefused(f"There is no shop in {shop}. Wanted: --shop FOLDER.")
    part = file.with_name(f".{file.name}.part")
    try:
        check_plain(file)
        part.unlink(missing_ok=True)
        file.parent.mkdir(parents=True, exist_ok=True)
        with tempfile.TemporaryDirectory(prefix="careful-coil-") as aside:
            copied = Path(aside) / DATABASE
            _copy_database(shop / DATABASE, copied)
            _pack(shop, copied, part)
        count = _verified(part)
        with part.open("rb+") as written:
            os.fsync(written.fileno())
        put_in_place(part, file)
    except (OSError, sqlite3.Error, zipfile.BadZipFile) as error:
        part.unlink(missing_ok=True)
        raise RecordsRefused(
            f"No backup was written to {file}: {getattr(error, 'strerror', None) or error}."
        ) from None
    except BadDocument:
        part.unlink(missing_ok=True)
        raise
    return count


def _copy_database(source: Path, target: Path) -> None:
    uri = f"{source.resolve().as_uri()}?mode=ro"
    with (
        closing(sqlite3.connect(uri, uri=True, timeout=30)) as here,
        closing(sqlite3.connect(target)) as there,
    ):
        here.backup(there)
        there.execute("PRAGMA journal_mode=DELETE")


def _pack(shop: Path, database: Path, file: Path) -> None:
    wanted = {SHOP_FILE: shop / SHOP_FILE, DATABASE: database}
    wanted |= {n: shop / n for n in BESIDE if (shop / n).is_file()}
    pictures = shop / FOLDER
    for picture in sorted(pictures.iterdir()) if pictures.is_dir() else ():
        name = f"{FOLDER}/{picture.name}"
        if _PART.fullmatch(name):
            wanted[name] = picture
    digests = {}
    with zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED, allowZip64=True) as out:
        for name, source in wanted.items():
            packed = zipfile.ZIP_STORED if name.startswith(FOLDER) else zipfile.ZIP_DEFLATED
            out.write(source, name, compress_type=packed)
            digests[name] = _digest(source)
        told = {"format": FORMAT, "version": 1, "files": digests}
        out.writestr(MANIFEST, json.dumps(told, indent=1, sort_keys=True))


def _digest(file: Path) -> str:
    with file.open("rb") as stream:
        return hashlib.file_digest(stream, "sha256").hexdigest()


def _verified(file: Path) -> int:
    """Unpack a backup aside and open it; return how many entries it holds. Raises: BadDocument."""
    with tempfile.TemporaryDirectory(prefix="careful-coil-") as aside:
        folder = Path(aside) / "shop"
        _unpack(file, folder)
        return _count(folder)


def _count(folder: Path) -> int:
    with closing(sqlite3.connect(folder / DATABASE)) as c:
        (well,) = c.execute("PRAGMA integrity_check").fetchone()
        if well != "ok":
            raise BadDocument(DATABASE, str(well), "a database that is whole")
        return int(c.execute("SELECT count(*) FROM entry").fetchone()[0])


def _unpack(file: Path, folder: Path) -> None:
    """Unpack every part that the manifest names, each by its digest. Raises: BadDocument."""
    try:
        with zipfile.ZipFile(file) as z:
            parts = z.infolist()
            size = sum(p.file_size for p in parts)
            if len(parts) > MOST_FILES or size > MOST_BYTES:
                raise BadDocument(file.name, f"{len(parts)} files, {size} bytes", WANTED)
            told = parse_json(z.read(MANIFEST).decode())
            digests = told.get("files") if isinstance(told, dict) else None
            if not isinstance(digests, dict) or told.get("format") != FORMAT:
                raise BadDocument(file.name, "no manifest of a backup", WANTED)
            names = {p.filename for p in parts} - {MANIFEST}
            if names != set(digests) or not {SHOP_FILE, DATABASE} <= names:
                raise BadDocument(file.name, "other files than its manifest names", WANTED)
            for name, digest in digests.items():
                if not _PART.fullmatch(name):
                    raise BadDocument(file.name, name, WANTED)
                target = folder / name
                target.parent.mkdir(parents=True, exist_ok=True)
                with z.open(name) as source, target.open("wb") as out:
                    shutil.copyfileobj(source, out)
                if _digest(target) != digest:
                    raise BadDocument(file.name, name, "the content its digest says")
    except (zipfile.BadZipFile, zlib.error, KeyError, UnicodeDecodeError, EOFError) as error:
        raise BadDocument(file.name, f"a file that cannot be read ({error})", WANTED) from None


def restore(file: Path, folder: Path) -> tuple[int, int]:
    """Bring a backup back into a new folder and open it to be sure; return its jobs and entries.

    Raises: RecordsRefused, BadDocument; then the folder is as it was.
    """
    if folder.exists() and (not folder.is_dir() or any(folder.iterdir())):
        raise RecordsRefused(f"{folder} is not empty. Wanted: a new folder for the shop.")
    made = not folder.exists()
    try:
        if not file.is_file():
            raise BadDocument(str(file), "no file", WANTED)
        folder.mkdir(parents=True, exist_ok=True)
        _unpack(file, folder)
        entries = _count(folder)
        engine = open_shop(folder)
        try:
            jobs = len(Store(engine, Settings()).rack.every())
        finally:
            engine.dispose()
    except (OSError, sqlite3.Error) as error:
        _clear(folder, made)
        raise RecordsRefused(f"Nothing was restored: {error}.") from None
    except (RecordsRefused, BadDocument):
        _clear(folder, made)
        raise
    return jobs, entries


def _clear(folder: Path, made: bool) -> None:
    shutil.rmtree(folder, ignore_errors=True)
    if not made:
        folder.mkdir(exist_ok=True)
