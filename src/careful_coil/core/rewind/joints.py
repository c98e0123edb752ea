"""The connection table: which slots belong to which group, and the order in which groups are joined."""

from collections.abc import Sequence
from dataclasses import dataclass

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.rewind.layout import LaidCoil, Layout, circuits_of


@dataclass(frozen=True, slots=True)
class GroupEnd:
    """An end of a group: its number, and whether it is where the group starts."""

    group: int
    start: bool

    @property
    def words(self) -> str:
        """Return it as it is said at the bench."""
        return f"{self.group}{'s' if self.start else 'f'}"


@dataclass(frozen=True, slots=True, kw_only=True)
class Circuit:
    """One circuit of a phase: its groups in the order they are joined, each with the end that comes first."""

    phase: str
    groups: tuple[tuple[int, bool], ...]  # group, whether its start comes first

    @property
    def begins(self) -> GroupEnd:
        """Return the end that goes to the lead."""
        group, forward = self.groups[0]
        return GroupEnd(group, forward)

    @property
    def ends(self) -> GroupEnd:
        """Return the end that goes to the star point, or to the next phase's lead."""
        group, forward = self.groups[-1]
        return GroupEnd(group, not forward)

    @property
    def joints(self) -> tuple[tuple[GroupEnd, GroupEnd], ...]:
        """Return the joints between groups, in order."""
        found = []
        for (one, first), (two, second) in zip(self.groups, self.groups[1:], strict=False):
            found.append((GroupEnd(one, not first), GroupEnd(two, second)))
        return tuple(found)


def circuits(layout: Layout, phase: str, count: int, skip: bool = False) -> tuple[Circuit, ...]:
    """Return the circuits of a phase, their groups joined so that neighbours help each other.

    `skip` joins every second pole first (finish to start, start to finish of like poles), then comes back;
    without it neighbours are joined, finish to finish. Raises: ValueOutOfRange for circuits that do not fit.
    """
    fit = circuits_of(layout)
    if count not in fit:
        raise ValueOutOfRange(f"{count} circuits", f"one of {', '.join(map(str, fit))}")
    groups = layout.groups(phase)
    each = len(groups) // count
    if _equal(layout, [groups[k::count] for k in range(count)]):
        parts = [groups[k::count] for k in range(count)]
    else:
        parts = [groups[k * each : (k + 1) * each] for k in range(count)]
    found = []
    for part in parts:
        told = [(g[0].group, g[0].sense > 0) for g in part]
        if skip:
            told = [t for t in told if t[1]] + [t for t in reversed(told) if not t[1]]
        found.append(Circuit(phase=phase, groups=tuple(told)))
    return tuple(found)


def _equal(layout: Layout, parts: Sequence[Sequence[Sequence[LaidCoil]]]) -> bool:
    vectors = [layout.vector([c for g in part for c in g]) for part in parts]
    return all(abs(v - vectors[0]) < 1e-6 * max(abs(vectors[0]), 1.0) for v in vectors)


def slot_table(layout: Layout) -> list[tuple[int, str]]:
    """Return what lies in each slot: phase with the way of its current, group, coil, start or finish."""
    return [
        (slot, ", ".join(_side(c, slot) for c in coils) or "empty")
        for slot, coils in layout.sides.items()
    ]


def _side(coil: LaidCoil, slot: int) -> str:
    first = coil.start == slot
    way = "" if (coil.sense > 0) == first else "-"
    return f"{way}{coil.phase} g{coil.group} c{coil.number}{'s' if first else 'f'}"
