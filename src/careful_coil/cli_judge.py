"""The verbs judge and report: what they take, and their words for people."""

from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

from careful_coil.core.job import fold
from careful_coil.core.job.digest import in_short, log_digest, not_as_signed
from careful_coil.core.ledger import Judgement, judge
from careful_coil.core.settings import Settings
from careful_coil.documents.base import parse_json
from careful_coil.documents.curve import read_job_or_curve
from careful_coil.documents.findings import FindingsDocument, findings_document
from careful_coil.documents.job import read_job


def judged(text: str, settings: Settings, at_c: float | None) -> tuple[FindingsDocument, str, bool]:
    """Return the findings on a job or a curve, in words too, and whether one is a hold. Raises: BadDocument."""
    document = read_job_or_curve(text, at_c)
    found = judge(fold(document.entries), settings)
    altered = document.altered(found.job)
    if altered:
        found = replace(found, findings=(not_as_signed(altered), *found.findings))
    bad = any(f.verdict == "hold" for f in found.findings)
    words = "\n".join(_judgement_words(found))
    return findings_document(document.number, found), words, bad


def reported(text: str, file: Path) -> None:
    """Write the job sheet of a document. Raises: BadDocument, and OSError where it cannot be written."""
    from careful_coil.report.sheet import write_sheet  # ReportLab is slow to import

    document = read_job(parse_json(text))
    write_sheet(file, document.number, judge(fold(document.entries), Settings()))


def _judgement_words(judged: Judgement) -> Iterator[str]:
    yield judged.job.name
    if judged.released:
        yield f"  signed: log {in_short(log_digest(judged.job))}"
    for f in judged.findings:
        yield f"  {f.verdict}: {f.subject}. {f.why}"
    if judged.next is not None:
        yield f"next: {judged.next.title}. {judged.next.why}"
