"""`careful-coil/findings` version 1."""

import math
from dataclasses import asdict
from typing import Literal

from careful_coil.core.job import Finding
from careful_coil.core.job.finding import Verdict
from careful_coil.core.ledger import Judgement, NextStep
from careful_coil.core.ledger.asks import Question
from careful_coil.core.ledger.asks.question import AnswerType
from careful_coil.core.sheets.field import Ask
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
    part: str


class AskDocument(Document):
    """What a Next wants to know: the field, what is measured of which part, how it is answered."""

    id: str
    name: str
    quantity: Ask
    part: str
    type: AnswerType
    unit: str
    choices: list[str]
    ends: list[str]
    sense: list[str]
    lines: list[list[str]]
    joints: list[list[str]]
    state: str
    volt: float
    reader: str


class NextDocument(Document):
    """The next thing to do."""

    code: str
    station: str
    title: str
    why: str
    asks: list[AskDocument]


class GateLine(Document):
    """A line of the gate: what it comes to, and who has set it aside, empty where nobody has."""

    code: str
    verdict: Verdict
    subject: str
    waived_by: str


class FindingsDocument(Document):
    """Every finding on a job, the next thing to do, what is still needed before release."""

    format: Literal["careful-coil/findings"] = "careful-coil/findings"
    version: Literal[1] = 1
    job: int
    findings: list[FindingDocument]
    next: NextDocument | None
    gate: list[GateLine]
    released: bool


def ask_document(question: Question) -> AskDocument:
    """Return the document of a question."""
    return AskDocument.model_validate(asdict(question))


def next_document(step: NextStep) -> NextDocument:
    """Return the document of a step."""
    asks = [ask_document(q) for q in step.asks]
    return NextDocument(
        code=step.code, station=step.station, title=step.title, why=step.why, asks=asks
    )


def _finite(figure: float | None) -> float | None:
    return figure if figure is not None and math.isfinite(figure) else None


def _finding(f: Finding) -> FindingDocument:
    return FindingDocument(
        code=f.code,
        verdict=f.verdict,
        subject=f.subject,
        figure=_finite(f.figure),
        limit=_finite(f.limit),
        unit=f.unit,
        why=f.why,
        source=f.source,
        part=f.part,
    )


def _gate(judged: Judgement) -> list[GateLine]:
    """Return what is still needed, then what a second person has set aside."""
    waived = judged.job.waived or {}
    lines = [
        GateLine(code=f.code, verdict=f.verdict, subject=f.subject, waived_by="")
        for f in judged.gate
    ]
    for state, f, _ in judged.gate_lines:
        if state == "waived":
            second = waived[f.code].second
            lines.append(
                GateLine(code=f.code, verdict=f.verdict, subject=f.subject, waived_by=second)
            )
    return lines


def findings_document(number: int, judged: Judgement) -> FindingsDocument:
    """Return the document of a judgement."""
    return FindingsDocument(
        job=number,
        findings=[_finding(f) for f in judged.findings],
        next=next_document(judged.next) if judged.next else None,
        gate=_gate(judged),
        released=judged.released,
    )
