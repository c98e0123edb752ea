"""`careful-coil/sum` version 1."""

from typing import Literal

from careful_coil.core.sums import Answer
from careful_coil.documents.base import Document


class SumDocument(Document):
    """A bench sum worked out; results unrounded, null where there is no end."""

    format: Literal["careful-coil/sum"] = "careful-coil/sum"
    version: Literal[1] = 1
    name: str
    inputs: dict[str, float | str | list[float]]
    results: dict[str, int | float | str | list[float] | None]
    source: str
    notes: list[str]


def sum_document(answer: Answer) -> SumDocument:
    """Return the document of a sum."""
    return SumDocument(
        name=answer.sum.name,
        inputs=answer.inputs,
        results=answer.results,
        source=answer.sum.source,
        notes=list(answer.notes),
    )
