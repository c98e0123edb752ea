"""A sign: a look at a motor, its answers, and how likely each is for each kind."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from careful_coil.core.kind.kinds import KINDS


@dataclass(frozen=True, slots=True, kw_only=True)
class Sign:
    """A look: its question, its answers, and P(answer | kind), shape by answer then kind.

    `open` whether the motor must be open for it; `why` what it tells.
    """

    name: str
    question: str
    answers: tuple[str, ...]
    chance: Mapping[str, Mapping[str, float]]
    why: str
    open: bool = False
    given: bool = False  # the plate tells it or nobody: never asked


def of_kinds(names: tuple[str, ...], chance: float) -> dict[str, float]:
    """Return one chance for several kinds."""
    return dict.fromkeys(names, chance)


def yes_no(
    name: str,
    question: str,
    why: str,
    rest: float,
    chance: Mapping[str, float],
    open_: bool = False,
) -> Sign:
    """Return a sign answered yes or no; `chance` P(yes) by kind, `rest` of all others."""
    yes = {k: chance.get(k, rest) for k in KINDS}
    no = {k: 1 - p for k, p in yes.items()}
    return Sign(
        name=name,
        question=question,
        answers=("yes", "no"),
        chance={"yes": yes, "no": no},
        why=why,
        open=open_,
    )


def choice(
    name: str,
    question: str,
    why: str,
    table: Mapping[str, Mapping[str, float]],
    rest: float = 0.01,
    open_: bool = False,
) -> Sign:
    """Return a sign with several answers; `table` weights by answer and kind, made to add to 1."""
    raw = {a: {k: table[a].get(k, rest) for k in KINDS} for a in table}
    total = {k: sum(raw[a][k] for a in raw) for k in KINDS}
    return Sign(
        name=name,
        question=question,
        answers=tuple(table),
        chance={a: {k: raw[a][k] / total[k] for k in KINDS} for a in raw},
        why=why,
        open=open_,
    )


def printed_kind() -> Sign:
    """Return what a plate prints of its kind: right but for a rewound start circuit or a plate of another motor."""
    rows = {k: {k: 0.97} for k in KINDS}
    rows["capacitor-start"]["capacitor-start-run"] = 0.1  # the run capacitor is often left unsaid
    sign = choice("plate-kind", "What kind does it print?", "Its maker named it.", rows, 0.002)
    return replace(sign, given=True)
