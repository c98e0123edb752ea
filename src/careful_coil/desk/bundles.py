"""A job out of the shop as a bundle, and in: read and checked aside, kept by the records' own thread."""

from collections.abc import Callable, Mapping
from pathlib import Path
from typing import TYPE_CHECKING

from careful_coil.core.errors import WouldChange
from careful_coil.desk.session import Session

if TYPE_CHECKING:
    from careful_coil.documents.job import JobDocument
    from careful_coil.records.store import Imported, Store

FOLDER = "bundles"
NOTHING_OFFERED = "Nothing came in that waits to be taken."
ENDINGS = (".ccjob", ".json")


def write_out(session: Session, said: Callable[[str], None]) -> None:
    """Write the open job with its files into the shop's bundles; `said` is told where, or why not."""
    from careful_coil.records.bundle import lost_words, write_bundle

    job = session.open
    if job is None:
        return
    file = session.shop / FOLDER / f"job-{job.number}.ccjob"

    def given(document: "JobDocument") -> None:
        session.aside(lambda: write_bundle(file, document, session.shop), written, said)

    def written(lost: tuple[str, ...]) -> None:
        said(f"Written: {file}.{lost_words(lost)}")

    session.ask(lambda store: store.give_out(job.id), given, said)


def is_bundle(file: str) -> bool:
    """Whether a file's name is that of a job."""
    return file.lower().endswith(ENDINGS)


def take_in(session: Session, file: str, accept: bool = False) -> None:
    """Take a bundle, or a plain job document, into the shop and open it; the window is told what came in.

    What would change a job that is here is told, and taken by a key.
    """
    from careful_coil.records.bundle import imported_words, read_bundle, take_in_bundle

    def read(found: "tuple[JobDocument, Mapping[str, bytes]]") -> None:
        document, files = found

        def kept(done: "Imported | WouldChange") -> None:
            if isinstance(done, WouldChange):
                session.offered = lambda: take_in(session, file, accept=True)
                session.told.emit(f"{done} Ctrl+Shift+O takes it.", "watch")
                return
            session.told.emit(imported_words(done, len(files)), "good")
            session.fill(done.id)

        def keep(store: "Store") -> "Imported | WouldChange":
            try:
                return take_in_bundle(store, session.shop, document, files, accept)
            except WouldChange as error:
                return error

        session.ask(keep, kept)

    session.aside(lambda: read_bundle(Path(file).expanduser()), read)


def take_offered(session: Session) -> None:
    """Take what an import would change in a job that is here."""
    offered, session.offered = session.offered, None
    if offered is None:
        session.told.emit(NOTHING_OFFERED, "note")
    else:
        offered()
