"""`careful-coil/findings` version 1."""

from typing import Any, Literal

from careful_coil.core.job.finding import Verdict
from careful_coil.core.ledger import Judgement
from careful_coil.documents.base import Document


class FindingDocument(Document):
    """One finding."""

    code: str
    verdict: Verdict
    subject: str
    figure: float | None
    limit: float | None
    unit: str
    why: str
    source: str


class FindingsDocument(Document):
    """Every finding on a job, and the next thing to do."""

    format: Literal["careful-coil/findings"] = "careful-coil/findings"
    version: Literal[1] = 1
    job: int
    findings: list[FindingDocument]
    next: dict[str, Any] | None


def findings_document(number: int, judged: Judgement) -> FindingsDocument:
    """Return the document of a judgement."""
    step = judged.next
    return FindingsDocument(
        job=number,
        findings=[
            FindingDocument(
                code=f.code,
                verdict=f.verdict,
                subject=f.subject,
                figure=f.figure if f.figure is not None and abs(f.figure) != float("inf") else None,
                limit=f.limit,
                unit=f.unit,
                why=f.why,
                source=f.source,
            )
            for f in judged.findings
        ],
        next=None
        if step is None
        else {"code": step.code, "station": step.station, "title": step.title, "why": step.why},
    )
