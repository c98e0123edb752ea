"""What a hookup check has before it: the hookup as made, the right one, and what both show."""

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from careful_coil.core.connect.explain import Explanation, explain
from careful_coil.core.connect.hookup import NOTHING, Answer, Hookup
from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.way import Plan

Severity = Literal["note", "watch", "hold"]
SAME_SHARE = 0.02  # coil volts and fields that are called the same
OHMS_SHARE = 0.03  # what a bench reading between lines can tell


@dataclass(frozen=True, slots=True, kw_only=True)
class Fault:
    """One finding on a hookup. `shown_by_ohms`: whether line readings would show it, None unknown."""

    code: str
    severity: Severity
    text: str
    coils: tuple[str, ...] = ()
    leads: tuple[str, ...] = ()
    shown_by_ohms: bool | None = None
    danger: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Pictures:
    """The hookup as made and as it should be, at standstill and running."""

    start: Answer
    run: Answer
    right_start: Answer | None
    right_run: Answer | None


@dataclass(frozen=True, kw_only=True, eq=False)
class Given:
    """All a rule may look at; what is worked out of it is kept."""

    hookup: Hookup
    right: Plan | None
    pictures: Pictures
    rated: dict[str, float] | None

    @cached_property
    def same(self) -> bool:
        """Whether coil volts and fields are those of the right hookup, in both states."""
        p = self.pictures
        if p.right_start is None or p.right_run is None or p.start.shorted:
            return False
        like = {c.name: c.like for c in self.hookup.inside().coils}
        pairs = ((p.start, p.right_start), (p.run, p.right_run))
        return all(_alike(made, right, like) for made, right in pairs)

    def plans(self) -> list[Plan]:
        """Return the hookups it may have been meant for, the right one first."""
        every = plans_of(self.hookup.arrangement, self.hookup.variant, self.hookup.devices)
        direct = [p for p in every if p.start == "direct"]
        first = [p for p in direct if self.right and p.connection == self.right.connection]
        return first + [p for p in direct if p not in first]

    @cached_property
    def meant(self) -> Explanation | None:
        """Return the hookup meant and the slips in it."""
        inside, joints = self.hookup.inside(), self.hookup.joints
        if self.pictures.start.shorted:
            return None
        if self.same and self.right is not None:
            return Explanation(plan=self.right)
        return explain(inside, self.plans(), joints)


def _alike(made: Answer, right: Answer, like: dict[str, str]) -> bool:
    """Whether coil volts agree, whichever of equal coils stands where, and fields do, mirrored or not."""

    def close(a: float, b: float, size: float) -> bool:
        return abs(a - b) <= SAME_SHARE * max(size, NOTHING)

    volts = max(right.coil_volt.values())
    for kind in set(like.values()):
        one, two = (sorted(a.coil_volt[n] for n in like if like[n] == kind) for a in (made, right))
        if not all(close(a, b, volts) for a, b in zip(one, two, strict=True)):
            return False
    size = max(right.forward, right.backward)
    straight = close(made.forward, right.forward, size) and close(
        made.backward, right.backward, size
    )
    mirrored = close(made.forward, right.backward, size) and close(
        made.backward, right.forward, size
    )
    return straight or mirrored


def shown_by_ohms(given: Given) -> bool | None:
    """Return whether a reading between lines differs by more than 3 % from the right hookup's."""
    if given.pictures.right_start is None:
        return None
    return ohms_differ(given.pictures.start.line_ohm, given.pictures.right_start.line_ohm)


def ohms_differ(made: dict[str, float], right: dict[str, float]) -> bool:
    """Return whether any line pair reads otherwise by 3 % or more, or conducts where it must not."""
    for pair, wanted in right.items():
        read = made.get(pair, float("inf"))
        if (read == float("inf")) != (wanted == float("inf")):
            return True
        if wanted != float("inf") and abs(read - wanted) > OHMS_SHARE * wanted:
            return True
    return False


def reversed_turn(given: Given) -> bool:
    """Whether the shaft turns against the right hookup's direction."""
    right = given.pictures.right_start
    return right is not None and given.pictures.start.turn * right.turn < 0
