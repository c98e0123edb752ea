"""What a hookup check has before it: the hookup as made, the right one, and what both show."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from careful_coil.core.connect.explain import DEVICE_SLIPS, Explanation, Slip, explain
from careful_coil.core.connect.hookup import NOTHING, Answer, Hookup
from careful_coil.core.errors import CannotPlace
from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.states import State
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
    state: str = ""  # the state of its devices in which it shows


@dataclass(frozen=True, slots=True, kw_only=True)
class Seen:
    """One state of a hookup as made and, where there is one, of the right hookup."""

    state: State
    made: Answer
    right: Answer | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Pictures:
    """The hookup as made and as it should be, in every state it is fed in, off, and protector open.

    Start and run of the first position come first.
    """

    seen: tuple[Seen, ...]
    off: Seen | None = None
    tripped: Seen | None = None

    @property
    def start(self) -> Answer:
        """Return the hookup as made at standstill."""
        return self.seen[0].made

    @property
    def run(self) -> Answer:
        """Return the hookup as made running."""
        return self.seen[1].made

    @property
    def right_start(self) -> Answer | None:
        """Return the right hookup at standstill."""
        return self.seen[0].right

    @property
    def shorted(self) -> Seen | None:
        """Return the first state that joins two lines."""
        return next((s for s in self.seen if s.made.shorted), None)


@dataclass(frozen=True, kw_only=True, eq=False)
class Given:
    """All a rule may look at; what is worked out of it is kept."""

    hookup: Hookup
    right: Plan | None
    pictures: Pictures
    rated: dict[str, float] | None

    @cached_property
    def same(self) -> bool:
        """Whether coil volts and fields are those of the right hookup, in every state."""
        p = self.pictures
        if p.shorted is not None or (p.off is not None and p.off.made.shorted):
            return False
        like = self.likes
        still = [s for s in (p.off, p.tripped) if s is not None]
        if not all(s.right is not None and _alike(s.made, s.right, like) for s in still):
            return False
        half = len(p.seen) // 2
        for rights in (p.seen, p.seen[half:] + p.seen[:half]):
            pairs = zip(p.seen, rights, strict=True)
            if all(r.right is not None and _alike(s.made, r.right, like) for s, r in pairs):
                return True
            if not p.seen[-1].state.direction:
                break  # only where a switch has both directions may they be exchanged
        return False

    @cached_property
    def equal_windings(self) -> bool:
        """Whether main and start winding are known to be equal: then either may be fed straight."""
        ohms = self.hookup.coil_ohm
        kinds = {c.like for c in self.hookup.inside().coils}
        if not isinstance(ohms, Mapping) or kinds != {"run", "start"}:
            return False
        low, high = min(ohms.values()), max(ohms.values())
        return high <= (1 + OHMS_SHARE) * low

    @cached_property
    def likes(self) -> dict[str, str]:
        """Return what each coil is like: equal windings are like each other."""
        coils = self.hookup.inside().coils
        return {c.name: coils[0].like if self.equal_windings else c.like for c in coils}

    def plans(self) -> list[Plan]:
        """Return the hookups it may have been meant for, the right one first."""
        try:
            devices = without_old_switch(self.hookup.devices)
            every = plans_of(self.hookup.arrangement, self.hookup.variant, devices)
        except CannotPlace:
            return []
        start = self.right.start if self.right else "direct"
        direct = [
            p
            for p in every
            if p.start == start
            and (not p.reversed or p.turning != "opening" or self.equal_windings)
        ]
        first = [p for p in direct if self.right and p.connection == self.right.connection]
        return first + [p for p in direct if p not in first]

    @cached_property
    def device_slip(self) -> Slip | None:
        """Return the slip of a device that coil volts do not show, where it is one."""
        plans = [self.right] if self.right is not None and self.hookup.devices else []
        found = explain(self.hookup.inside(), plans, self.hookup.joints, 1)
        slips = found.slips if found is not None else ()
        return slips[0] if slips and slips[0].kind in DEVICE_SLIPS else None

    @cached_property
    def meant(self) -> Explanation | None:
        """Return the hookup meant and the slips in it."""
        inside, joints = self.hookup.inside(), self.hookup.joints
        if self.pictures.start.shorted and not self.hookup.devices:
            return None
        if self.same and self.right is not None:
            return Explanation(plan=self.right)
        return explain(inside, self.plans(), joints)


def without_old_switch(devices: tuple[Device, ...]) -> tuple[Device, ...]:
    """Return the devices without a speed switch that another start device has taken the place of."""
    new = any(d.switches and d.kind != "speed-switch" for d in devices)
    return tuple(d for d in devices if not (new and d.switches and d.kind == "speed-switch"))


def _alike(made: Answer, right: Answer, like: dict[str, str]) -> bool:
    """Whether coil volts agree, whichever of equal coils stands where, and fields do, mirrored or not."""

    def close(a: float, b: float, size: float) -> bool:
        return abs(a - b) <= SAME_SHARE * max(size, NOTHING)

    volts = max(right.coil_volt.values())
    if volts <= NOTHING:
        return max(made.coil_volt.values()) <= NOTHING
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


def hold_of(code: str, text: str, state: str = "", **more: object) -> Fault:
    return Fault(code=code, severity="hold", text=text, state=state, **more)  # type: ignore[arg-type]


def fed(given: Given, moment: str) -> Iterator[Seen]:
    """Yield the states of a moment that can be judged."""
    if given.pictures.shorted is None:
        yield from (s for s in given.pictures.seen if s.state.moment == moment)


def largest(answer: Answer) -> float:
    return max((abs(a) for a in answer.coil_amp.values()), default=0.0)
