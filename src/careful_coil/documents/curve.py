"""A tester's curve as CSV (seconds, MΩ) judged on its own: a job of one test."""

from typing import Any

from careful_coil.core.condition.typed import read_curve_csv
from careful_coil.core.errors import BadDocument
from careful_coil.documents.base import parse_json
from careful_coil.documents.job import JobDocument, read_job

FIRST_MOMENT = "1970-01-01T00:00:00Z"  # a curve does not say when it was taken
NUMBER = 1


def read_job_or_curve(text: str, at_c: float | None = None) -> JobDocument:
    """Return a job document, or the job that a CSV of seconds and MΩ makes with the winding's °C.

    Raises: BadDocument.
    """
    if text.lstrip("\ufeff \t\r\n")[:1] in ("{", "[", ""):
        return read_job(parse_json(text))
    if at_c is None:
        raise BadDocument("CSV", "a curve without a temperature", "--at-c with the winding's °C")
    typed = read_curve_csv(text)
    body: dict[str, Any] = {
        "kind": "insulation",
        "megohm": typed.megohm,
        "at_c": at_c,
        "readings": typed.readings,
    }
    entry = {"id": "curve", "at": FIRST_MOMENT, "station": "insulation", "body": body}
    found = {"format": "careful-coil/job", "version": 1, "id": "curve", "number": NUMBER}
    return read_job(found | {"entries": [entry]})
