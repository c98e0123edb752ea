"""Whether one switch worked by hand can stand in for another: the same contacts, position by position.

What the hand finds must stay where it was: a knob whose off has moved, or that gives medium where high was,
does not serve, though every contact of the old one is somewhere in it.
"""

import itertools
import math
from collections.abc import Iterator, Mapping, Sequence

from careful_coil.core.ways.devices import Contact, Device

MOST_TRIED = 50_000
Position = frozenset[frozenset[str]]
FEWER = "it has fewer contacts or positions"
NO_ORDER = "no order of its terminals gives the same contacts in the same positions"


def stands_in(old: Device, new: Device) -> tuple[bool, str]:
    """Return whether a switch can stand in for another, and how its terminals go or what has moved.

    Terminals that bear the same names are taken as what they say; others are matched by what they do.
    """
    if not old.table or not new.table:
        return old.kind == new.kind, "kinds compared; neither or one has a position table"
    wanted, there = _positions(old.table), _positions(new.table)
    ends, others = _ends(old), _ends(new)
    if len(ends) > len(others) or len(wanted) > len(there):
        return False, FEWER
    if math.perm(len(others), len(ends)) > MOST_TRIED:
        return False, "too many terminals to match by themselves: name them alike"
    same = dict(zip(ends, ends, strict=True)) if set(ends) <= set(others) else None
    if same is not None and _fits(wanted, there, same):
        return True, "terminal for terminal"
    if same is not None:
        moved = _exchanged(old, new, wanted, there, ends) or _moved(old, new, wanted, there, same)
        return False, moved or NO_ORDER
    every = [
        dict(zip(ends, names, strict=True)) for names in itertools.permutations(others, len(ends))
    ]
    called = next((c for c in every if _fits(wanted, there, c)), None)
    if called is not None:
        return True, ", ".join(f"{a} is {b}" for a, b in called.items() if a != b)
    moved = next((m for c in every if (m := _moved(old, new, wanted, there, c))), "")
    return False, moved or NO_ORDER


def _positions(table: Mapping[str, Sequence[Contact]]) -> list[Position]:
    return [frozenset(frozenset(p) for p in closed) for closed in table.values()]


def _ends(device: Device) -> list[str]:
    every = (t for closed in device.table.values() for pair in closed for t in pair)
    return list(dict.fromkeys(every))


def _as_called(wanted: Sequence[Position], called: Mapping[str, str]) -> list[Position]:
    return [frozenset(frozenset(called[t] for t in p) for p in closed) for closed in wanted]


def _kept(there: Sequence[Position], called: Mapping[str, str]) -> list[Position]:
    """Return what the new one closes among the terminals that are used."""
    used = set(called.values())
    return [frozenset(p for p in closed if p <= used) for closed in there]


def _fits(wanted: Sequence[Position], there: Sequence[Position], called: Mapping[str, str]) -> bool:
    """Whether each position closes the same, in the order they stand."""
    own = _kept(there, called)
    return all(n == k for n, k in zip(_as_called(wanted, called), own, strict=False))


def _exchanged(
    old: Device,
    new: Device,
    wanted: Sequence[Position],
    there: Sequence[Position],
    ends: Sequence[str],
) -> str:
    """Return which terminals have changed places, empty where that alone does not tell it."""
    for names in itertools.permutations(ends):
        called = dict(zip(ends, names, strict=True))
        if _fits(wanted, there, called):
            pairs = ", ".join(f"{a} where {b} was" for b, a in called.items() if a != b)
            first = next(_unlike(old, new))
            return f"{pairs}: {first}. Wired as it is marked it does not serve"
    return ""


def _unlike(old: Device, new: Device) -> Iterator[str]:
    """Yield each position that closes something else than before."""
    for (name, was), now in zip(old.table.items(), new.table.values(), strict=False):
        if _set(was) != _set(now):
            yield f"in position {name} it closes {_words(now)} in place of {_words(was)}"


def _moved(
    old: Device,
    new: Device,
    wanted: Sequence[Position],
    there: Sequence[Position],
    called: Mapping[str, str],
) -> str:
    """Return which positions have moved along the travel, empty where the contacts are not all there."""
    needed, own = _as_called(wanted, called), _kept(there, called)
    if any(n not in own for n in needed):
        return ""
    names = list(old.table)
    told = [
        f"{_called(names[k], closed)} is its position {own.index(closed) + 1}, it was {k + 1}"
        for k, closed in enumerate(needed)
        if own[k] != closed
    ]
    return f"{'; '.join(told)}: the hand would find it elsewhere"


def _called(name: str, closed: Position) -> str:
    return name if closed else "off"


def _set(closed: Sequence[Contact]) -> Position:
    return frozenset(frozenset(p) for p in closed)


def _words(closed: Sequence[Contact]) -> str:
    return ", ".join(f"{a}–{b}" for a, b in closed) or "nothing"
