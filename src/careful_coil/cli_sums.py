"""The verb sum: what it takes, and its words for people."""

from collections.abc import Sequence

from careful_coil.core.errors import BadValue
from careful_coil.core.sums import SUMS, Answer, Input, Sum, work_out


def sum_answer(words: Sequence[str]) -> Answer:
    """Return the sum that the words of the command line ask for. Raises: CoilError."""
    if not words:
        raise BadValue("nothing", "a sum and its inputs, as: sum slip hertz=50 rpm=1440")
    name, *pairs = words
    texts: dict[str, str] = {}
    for pair in pairs:
        key, equals, text = pair.partition("=")
        if not equals or not key:
            raise BadValue(pair, "key=value, as hertz=50")
        if key in texts:
            raise BadValue(pair, f"{key} once")
        texts[key] = text
    return work_out(name, texts)


def sum_words(answer: Answer) -> str:
    """Return results with units, formula, remarks and source."""
    return "\n".join((*answer.lines(), answer.sum.formula, f"Source: {answer.sum.source}"))


def list_words() -> str:
    """Return every sum with its inputs, a line each."""
    return "\n".join(f"{s.name}  {_inputs(s)}  {s.title}" for s in SUMS.values())


def _inputs(chosen: Sum) -> str:
    return " ".join(_input(i) for i in chosen.inputs)


def _input(one: Input) -> str:
    told = f"{one.key}={'|'.join(one.choices) or ('a/b…' if one.is_list else '…')}"
    return f"[{told}]" if one.usual or one.optional else told
