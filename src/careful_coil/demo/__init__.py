"""The demo shop by the river port: its jobs as documents, and the hidden truths of their motors."""

from importlib.resources import files

from careful_coil.documents.base import parse_json
from careful_coil.documents.job import JobDocument, read_job

JOBS = ("bakery", "theatre", "boatyard", "cider-mill", "school", "glasshouse")


def demo_jobs() -> list[JobDocument]:
    """Return the job documents of the demo shop."""
    folder = files(__name__) / "jobs"
    return [read_job(parse_json((folder / f"{n}.json").read_text(encoding="utf-8"))) for n in JOBS]
