"""Questions that a declared field is the answer to: quantity, words, choices come from its sheet."""

from collections.abc import Sequence
from dataclasses import replace

from careful_coil.core.ledger.asks.question import AnswerType, Question
from careful_coil.core.sheets import SHEETS


def noted(
    sheet: str,
    field: str,
    *,
    id: str = "",
    of: str = "",
    part: str = "",
    ends: Sequence[str] = (),
    choices: Sequence[str] = (),
) -> Question:
    """Return the question a field answers; `choices` those there are now, where they hang on something.

    `id` what the window calls the field, where it is not its sheet's prefix and its name.
    """
    own = SHEETS[sheet]
    f = own.field(field)
    told = tuple(choices) or f.words
    number = f.quantity is not None or f.whole is not None
    kind: AnswerType = "choice" if told else "number" if number else "text"
    return Question(
        id=id or f"{own.prefix}{f.name}",
        name=f.asked or f.label,
        quantity=f.ask,
        part=part or (f.part or own.part).format(of),
        type=kind,
        unit=f.unit,
        choices=told,
        ends=tuple(ends),
        state=f.comes_to if f.ask == "work" else "",
        reader="noted",
        sheet=sheet,
        field=field,
        of=of,
    )


def mended(question: Question) -> Question:
    """Return the same asked as work: what it is once it was put right."""
    comes_to = SHEETS[question.sheet].field(question.field).comes_to
    return replace(question, quantity="work", name="what it is now", state=comes_to)
