"""`careful-coil/identification` version 1."""

from typing import Any, Literal

from careful_coil.core.identify.result import Certainty, Identification, Status
from careful_coil.documents.base import Document


class CandidateDocument(Document):
    """One explanation of the readings."""

    arrangement: str | None
    probability: float
    extras: list[str]
    groups: list[list[str]]
    roles: dict[str, str]
    certainty: dict[str, Certainty]
    coil_ohm: dict[str, float]
    notes: list[str]
    order: list[str]


class SuspectDocument(Document):
    """A reading that does not fit; counted from 0."""

    reading: int
    expected_ohm: list[float] | None
    why: str


class IdentificationDocument(Document):
    """What the readings say about the leads."""

    format: Literal["careful-coil/identification"] = "careful-coil/identification"
    version: Literal[1] = 1
    status: Status
    candidates: list[CandidateDocument]
    suspect: list[SuspectDocument]
    next: dict[str, Any] | None
    never_energise: list[list[str]]
    notes: list[str]


def _plain(value: object) -> object:
    """Return tuples as lists, all the way down."""
    return [_plain(v) for v in value] if isinstance(value, tuple) else value


def identification_document(found: Identification) -> IdentificationDocument:
    """Return the document of an identification."""
    nxt: dict[str, Any] | None = None
    if found.next is not None:
        keys = ("between", "source", "sense", "tie", "across", "lines", "joints", "applied_volt")
        asked = {k: _plain(getattr(found.next, k)) for k in keys}
        nxt = {"kind": found.next.kind} | {k: v for k, v in asked.items() if v is not None}
        nxt |= {"gain_bits": float(found.next.gain_bits), "why": found.next.why}
    return IdentificationDocument(
        status=found.status,
        candidates=[
            CandidateDocument(
                arrangement=c.arrangement,
                probability=c.probability,
                extras=list(dict.fromkeys(c.extras.values())),
                groups=[list(g) for g in c.groups],
                roles=c.roles,
                certainty=c.certainty,
                coil_ohm=c.coil_ohm,
                notes=list(c.notes),
                order=list(c.order),
            )
            for c in found.candidates
        ],
        suspect=[
            SuspectDocument(
                reading=s.reading,
                expected_ohm=list(s.expected_ohm) if s.expected_ohm else None,
                why=s.why,
            )
            for s in found.suspects
        ],
        next=nxt,
        never_energise=[list(p) for p in found.never_energise],
        notes=list(found.notes),
    )
