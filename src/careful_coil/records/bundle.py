"""A job with its files as one bundle, `.ccjob`: a ZIP of `job.json` and `attachments/`.

What comes in is untrusted: names, counts, sizes and digests are checked before anything is written; a
bad part refuses the whole bundle and changes nothing.
"""

import hashlib
import io
import zipfile
import zlib
from collections.abc import Mapping
from pathlib import Path

from careful_coil.core.errors import BadDocument, RecordsRefused, WouldChange
from careful_coil.documents.base import parse_json
from careful_coil.documents.job import JobDocument, read_job
from careful_coil.records.attachments import FOLDER, KINDS, MOST_BYTES, kept_file
from careful_coil.records.store import Imported, Store
from careful_coil.whole import write_whole

JOB = "job.json"
MOST_FILES = 400
MOST_JOB_BYTES = 60_000_000
MOST_ALL_BYTES = 600_000_000
WANTED = f"a bundle: a ZIP of {JOB} and {FOLDER}/, written by export"


def write_bundle(file: Path, document: JobDocument, shop: Path) -> tuple[str, ...]:
    """Write a job with its files whole or not at all; return the names of files the shop has lost.

    Raises: RecordsRefused where it cannot be written.
    """
    out, lost = io.BytesIO(), []
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as bundle:
        bundle.writestr(JOB, document.model_dump_json(indent=1))
        for attachment in document.attachments:
            kept = kept_file(shop, attachment.sha256)
            if kept is None:
                lost.append(attachment.name)
            else:
                bundle.write(kept, f"{FOLDER}/{kept.name}")
    try:
        write_whole(file, out.getvalue())
    except OSError as error:
        raise RecordsRefused(f"{file} was not written: {error.strerror}.") from None
    return tuple(lost)


def lost_words(lost: tuple[str, ...]) -> str:
    """Return which files a shop has lost, empty where none."""
    return f" The shop has lost: {', '.join(lost)}." if lost else ""


def imported_words(done: Imported, files: int) -> str:
    """Return what an import did."""
    if not done.added:
        return f"Job {done.number}: nothing new in it."
    if done.follows:
        return f"Job {done.number} follows {done.follows}, which is released: {done.added} entries, {files} files."
    moved = f" Number {done.wanted} is taken here." if done.number != done.wanted else ""
    return f"Job {done.number}: {done.added} entries, {files} files.{moved}"


def read_bundle(file: Path) -> tuple[JobDocument, dict[str, bytes]]:
    """Return a job and its files by digest; a plain job document has none.

    Raises: BadDocument for anything that is not as export writes it.
    """
    try:
        if file.stat().st_size > MOST_ALL_BYTES:
            raise BadDocument(file.name, f"{file.stat().st_size} bytes", WANTED)
        content = file.read_bytes()
    except OSError as error:
        raise BadDocument(str(file), error.strerror or "no file", WANTED) from None
    if not content.startswith(b"PK"):
        return _job(content), {}
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as bundle:
            return _read(bundle)
    except (zipfile.BadZipFile, zlib.error, RuntimeError, EOFError, OSError) as error:
        raise BadDocument(file.name, f"a ZIP that cannot be read ({error})", WANTED) from None


def _read(bundle: zipfile.ZipFile) -> tuple[JobDocument, dict[str, bytes]]:
    parts = bundle.infolist()
    names = [p.filename for p in parts]
    if len(parts) > MOST_FILES:
        raise BadDocument("bundle", f"{len(parts)} files", f"{MOST_FILES} at most")
    if len(set(names)) < len(names) or names.count(JOB) != 1:
        raise BadDocument("bundle", "a name twice or no job.json", WANTED)
    if sum(p.file_size for p in parts) > MOST_ALL_BYTES:
        raise BadDocument("bundle", "more than it may hold", f"{MOST_ALL_BYTES} bytes at most")
    document = _job(_content(bundle, bundle.getinfo(JOB), MOST_JOB_BYTES))
    wanted = {a.sha256 for a in document.attachments}
    files: dict[str, bytes] = {}
    for part in parts:
        if part.filename == JOB:
            continue
        digest, _, ending = part.filename.removeprefix(f"{FOLDER}/").partition(".")
        plain = part.filename == f"{FOLDER}/{digest}.{ending}"
        if not plain or digest not in wanted or f".{ending}" not in {e for _, e in KINDS}:
            raise BadDocument("bundle", part.filename, f"only {JOB} and files that the job names")
        content = _content(bundle, part, MOST_BYTES)
        if hashlib.sha256(content).hexdigest() != digest:
            raise BadDocument("bundle", part.filename, "the content its digest says")
        if next((e for start, e in KINDS if content.startswith(start)), "") != f".{ending}":
            raise BadDocument("bundle", part.filename, "a photograph, PNG or JPEG")
        files[digest] = content
    return document, files


def _content(bundle: zipfile.ZipFile, part: zipfile.ZipInfo, most: int) -> bytes:
    """Return a part's bytes, never more than `most`, whatever its header says."""
    with bundle.open(part) as stream:
        content = stream.read(most + 1)
    if len(content) > most:
        raise BadDocument("bundle", f"{part.filename} too large", f"{most} bytes at most")
    return content


def _job(content: bytes) -> JobDocument:
    try:
        return read_job(parse_json(content.decode("utf-8-sig")))
    except UnicodeDecodeError:
        raise BadDocument(JOB, "bytes that are no UTF-8", "UTF-8 text") from None


def take_in_bundle(
    store: Store,
    shop: Path,
    document: JobDocument,
    files: Mapping[str, bytes],
    accept: bool = False,
) -> Imported:
    """Import a job with its files: whole or not at all; twice adds nothing, and mends a damaged photograph.

    Raises: RecordsRefused; WouldChange, unless what it would change is accepted.
    """
    fresh: list[Path] = []
    try:
        for digest, content in files.items():
            ending = next(e for start, e in KINDS if content.startswith(start))
            kept = shop / FOLDER / f"{digest}{ending}"
            if kept_file(shop, digest) is None:
                was = kept.exists()
                write_whole(kept, content)
                fresh += [] if was else [kept]
        return store.take_in(document, accept)
    except (OSError, RecordsRefused, WouldChange) as error:
        for kept in fresh:
            kept.unlink(missing_ok=True)
        if isinstance(error, OSError):
            raise RecordsRefused(f"Nothing was imported: {error.strerror}.") from None
        raise
