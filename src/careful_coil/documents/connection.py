"""`careful-coil/connection` version 1."""

from typing import Literal

from careful_coil.core.connect import Plan
from careful_coil.documents.base import Document


class ConnectionDocument(Document):
    """The hookup for a supply; `line_ohm` when coil ohms are known."""

    format: Literal["careful-coil/connection"] = "careful-coil/connection"
    version: Literal[1] = 1
    arrangement: str
    connection: str
    joints: list[list[str]]
    line_ohm: dict[str, float] | None = None
    notes: list[str]


def connection_document(plan: Plan, coil_ohm: float | None) -> ConnectionDocument:
    """Return the document of a plan."""
    return ConnectionDocument(
        arrangement=plan.arrangement,
        connection=plan.connection,
        joints=[list(j) for j in plan.joints],
        line_ohm=plan.line_ohm(coil_ohm) if coil_ohm else None,
        notes=list(plan.notes),
    )
