"""What Mechanics found, folded from its entries."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from careful_coil.core.job.at_mechanics import (
    BarsRead,
    Commutator,
    LeadMended,
    Modified,
    PartOff,
    Temporary,
)
from careful_coil.core.job.entries import Entry
from careful_coil.core.job.noted import Noted

Told = Mapping[str, str]


@dataclass(frozen=True, slots=True, kw_only=True)
class Hands:
    """Newest of each; maps keep the order in which things were first said.

    `bearings` and `brushes` by name and field; `measured` lengths of each brush with their day, oldest
    first; `ohms` of bars that were read, by bar; `changed`, `temporary`, `off` by name.
    """

    felt: Told = field(default_factory=dict)
    bearings: Mapping[str, Told] = field(default_factory=dict)
    brushes: Mapping[str, Told] = field(default_factory=dict)
    measured: Mapping[str, tuple[tuple[str, str], ...]] = field(default_factory=dict)
    bars: int = 0
    ohms: Mapping[int, float | None] = field(default_factory=dict)
    bar_steps: Mapping[int, float] = field(
        default_factory=dict
    )  # Ω of the meter's last figure, by bar
    mended: Mapping[str, LeadMended] = field(default_factory=dict)
    changed: Mapping[str, Modified] = field(default_factory=dict)
    temporary: Mapping[str, Temporary] = field(default_factory=dict)
    off: Mapping[str, PartOff] = field(default_factory=dict)

    @property
    def empty(self) -> bool:
        """Whether nothing was noted."""
        return self == Hands()


def free_name(letter: str, known: Mapping[str, object]) -> str:
    """Return the first name of a letter that is not taken: T1, T2."""
    return next(f"{letter}{k}" for k in range(1, len(known) + 2) if f"{letter}{k}" not in known)


def notice_hands(hands: Hands, entry: Entry) -> Hands:
    """Return what is known after one more entry."""
    body = entry.said
    if isinstance(body, Noted):
        return _measured(hands, body, entry.at)
    if isinstance(body, Commutator):
        if body.bars == hands.bars:
            return hands
        return replace(hands, bars=body.bars, ohms={}, bar_steps={})
    if isinstance(body, BarsRead):
        return _bars(hands, body)
    if isinstance(body, LeadMended):
        kept = {t: m for t, m in hands.mended.items() if t != body.tag or body.how}
        return replace(hands, mended={**kept, body.tag: body} if body.how else kept)
    if isinstance(body, Modified):
        rest = {n: m for n, m in hands.changed.items() if n != body.name or body.words}
        return replace(hands, changed={**rest, body.name: body} if body.words else rest)
    if isinstance(body, Temporary):
        left = {n: t for n, t in hands.temporary.items() if n != body.name or body.words}
        return replace(hands, temporary={**left, body.name: body} if body.words else left)
    if isinstance(body, PartOff):
        others = {p: o for p, o in hands.off.items() if p != body.part or not body.gone}
        return replace(hands, off=others if body.gone else {**others, body.part: body})
    return hands


def _measured(hands: Hands, body: Noted, at: str) -> Hands:
    """Return what is known with a brush's length of a day."""
    if body.sheet != "brush" or body.field != "length" or not body.text:
        return hands
    day = at.split("T", maxsplit=1)[0]
    before = tuple(m for m in hands.measured.get(body.of, ()) if m[0] != day)
    return replace(hands, measured={**hands.measured, body.of: (*before, (day, body.text))})


def _bars(hands: Hands, body: BarsRead) -> Hands:
    if not hands.bars:
        return hands
    read = {(body.first - 1 + k) % hands.bars + 1: ohm for k, ohm in enumerate(body.ohms)}
    return replace(
        hands,
        ohms={**hands.ohms, **read},
        bar_steps={**hands.bar_steps, **dict.fromkeys(read, body.step_ohm or 0.0)},
    )
