"""`careful-coil/walk` version 1: how a motor was played by what Next says, held against its truth."""

from typing import Any, Literal

from careful_coil.documents.base import Document
from careful_coil.documents.findings import AskDocument


class WalkStep(Document):
    """One step: what Next said and asked, what was answered, or why it could not be (`skip`).

    `refused` what was typed first and not taken.
    """

    code: str
    title: str
    station: str
    asks: list[AskDocument]
    answer: str
    skip: str
    refused: list[str]


class Span(Document):
    """A hold or watch: its first and last step, from 0."""

    code: str
    part: str
    subject: str
    first: int
    last: int


class Skip(Document):
    """What could not be answered, and why."""

    code: str
    why: str


class Harm(Document):
    """What volts did to the motor, at which step."""

    step: int
    what: str


class WalkDocument(Document):
    """A walk, with what the referee says of it."""

    format: Literal["careful-coil/walk"] = "careful-coil/walk"
    version: Literal[1] = 1
    name: str
    seed: int
    end: Literal["released", "held", "unrepaired", "stuck"]
    right: bool
    at: str
    steps: list[WalkStep]
    job: dict[str, Any]
    truth_at_end: dict[str, Any]
    holds: list[Span]
    watches: list[Span]
    skips: list[Skip]
    words: list[str]
    harm: list[Harm]
    entries: int
    readings: int
    kicks: int
    runs: int
    minutes: float
    keys: int | None
    false_holds: list[str]
    false_watches: list[str]
    unnamed: list[str]
    asked_twice: list[str]
    out_of_order: list[str]
