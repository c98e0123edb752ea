"""The demo shop by the river port: its jobs as documents, and the hidden truths of their motors."""

from collections.abc import Iterator
from contextlib import contextmanager
from importlib.resources import as_file, files
from pathlib import Path

from careful_coil.documents.base import parse_json
from careful_coil.documents.job import JobDocument, read_job

JOBS = (
    "bakery",
    "theatre",
    "boatyard",
    "cider-mill",
    "school",
    "glasshouse",
    "ropewalk",
    "sander",
    "chandlery",
    "coldstore",
    "dairy",
    "lock-house",
    "quarry",
)


def demo_jobs() -> list[JobDocument]:
    """Return the job documents of the demo shop."""
    folder = files(__name__) / "jobs"
    return [read_job(parse_json((folder / f"{n}.json").read_text(encoding="utf-8"))) for n in JOBS]


def demo_shelf() -> str:
    """Return the shop's list of capacitors."""
    return (files(__name__) / "shelf.csv").read_text(encoding="utf-8")


@contextmanager
def demo_pictures() -> Iterator[list[Path]]:
    """Give the photographs of the demo shop as files; they are drawn, not taken."""
    with as_file(files(__name__) / "pictures") as folder:
        yield sorted(folder.iterdir())
