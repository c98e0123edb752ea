"""The demo shop by the river port: its jobs as documents, and the hidden truths of their motors."""

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import date, timedelta
from functools import cache
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
    "waterworks",
    "garage",
    "scrapyard",
)


@cache
def _jobs() -> tuple[JobDocument, ...]:
    folder = files(__name__) / "jobs"
    texts = ((folder / f"{n}.json").read_text(encoding="utf-8") for n in JOBS)
    return tuple(read_job(parse_json(t)) for t in texts)


def demo_jobs(today: date | None = None) -> list[JobDocument]:
    """Return the job documents of the demo shop, moved by whole days so that the newest is of `today`."""
    jobs = list(_jobs())
    newest = date.fromisoformat(max(e.at for j in jobs for e in j.entries)[:10])
    moved = today - newest if today is not None else timedelta()
    return [_moved(j, moved) for j in jobs] if moved > timedelta() else jobs


def _moved(job: JobDocument, by: timedelta) -> JobDocument:
    def later(at: str) -> str:
        return f"{date.fromisoformat(at[:10]) + by}{at[10:]}"

    entries = tuple(e.model_copy(update={"at": later(e.at)}) for e in job.entries)
    return job.model_copy(update={"entries": entries})


def demo_shelf() -> str:
    """Return the shop's list of capacitors."""
    return (files(__name__) / "shelf.csv").read_text(encoding="utf-8")


@contextmanager
def demo_pictures() -> Iterator[list[Path]]:
    """Give the photographs of the demo shop as files; they are drawn, not taken."""
    with as_file(files(__name__) / "pictures") as folder:
        yield sorted(folder.iterdir())
