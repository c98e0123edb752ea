"""Questions that are answered by doing and saying so."""

from collections.abc import Sequence

from careful_coil.core.ledger.asks.question import Question
from careful_coil.core.ledger.step import NextStep


def ticked(
    step: NextStep,
    reader: str,
    part: str,
    name: str,
    items: Sequence[str] = (),
    id: str = "",
    state: str = "",
) -> Question:
    """Return a tick, or a list of them to be ticked one by one."""
    return Question(
        id=id or step.focus or step.code,
        name=name,
        quantity="tick",
        part=part,
        type="tick",
        choices=tuple(items),
        ends=step.ends or (id or step.focus or step.code,),
        state=state,
        reader=reader,
    )


def worked(
    step: NextStep,
    reader: str,
    part: str,
    state: str,
    ends: Sequence[str] = (),
    choices: Sequence[str] = (),
    id: str = "",
) -> Question:
    """Return work to be done: the state that is wanted; ticked, or said by one of `choices`."""
    return Question(
        id=id or step.focus or step.code,
        name="done" if not choices else "what it is now",
        quantity="work",
        part=part,
        type="choice" if choices else "tick",
        choices=tuple(choices),
        ends=tuple(ends) or step.ends,
        state=state,
        reader=reader,
    )


def unread(step: NextStep, part: str) -> Question:
    """Return a look whose answer no field takes yet."""
    return Question(
        id=step.focus or step.code, name="what is seen", quantity="look", part=part, type="text"
    )
