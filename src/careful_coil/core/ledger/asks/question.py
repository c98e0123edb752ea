"""One question of the Next card: which field it fills, what is measured, of which part, how it is answered."""

from dataclasses import dataclass
from typing import Literal, get_args

from careful_coil.core.sheets.field import Ask

QUANTITIES: tuple[str, ...] = get_args(Ask)
AnswerType = Literal["number", "choice", "text", "tick"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Question:
    """`id` the field it fills, `name` the field's words, `quantity` what is found out, `part` of what.

    `type` how it is answered: a number with its `unit`, one of `choices`, a text, or a tick (of each of
    `choices` where there are some). `ends` what the probes or hands are on, leads clipped together with +;
    `sense` the second pair of a kick or series test, or what an insulation test is held against; `lines`
    and `joints` the hookup of a run. `state` what a work must come to, or the posture of a reading;
    `volt` at which it is read, V. `reader` how an answer becomes entries; empty where nothing takes one.
    `sheet`, `field`, `of` the declared field it fills, where it is one. `wants` what of a run must be said;
    whatever else is read may be.
    """

    id: str
    name: str
    quantity: Ask
    part: str
    type: AnswerType
    reader: str = ""
    unit: str = ""
    choices: tuple[str, ...] = ()
    ends: tuple[str, ...] = ()
    sense: tuple[str, ...] = ()
    lines: tuple[tuple[str, ...], ...] = ()
    joints: tuple[tuple[str, ...], ...] = ()
    state: str = ""
    volt: float = 0.0
    sheet: str = ""
    field: str = ""
    of: str = ""
    wants: tuple[str, ...] = ()
