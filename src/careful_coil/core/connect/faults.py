"""What can be wrong with a hookup, each in trade words, by coil and lead."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.connect.explain import Explanation, Slip, explain
from careful_coil.core.connect.hookup import NOTHING, Answer, Hookup
from careful_coil.core.connect.plans import plans_of
from careful_coil.core.connect.way import LINES, Joint, Plan

Severity = Literal["note", "watch", "hold"]
LITTLE = 1e-9  # A: nothing
SAME_SHARE = 0.02  # coil volts and fields that are called the same
OHMS_SHARE = 0.03  # what a bench reading between lines can tell
DANGER_VOLT, OVER_VOLT, UNDER_VOLT = 1.30, 1.10, 0.90  # of a coil's rated volts


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


@dataclass(frozen=True, slots=True, kw_only=True)
class Given:
    """All a rule may look at."""

    hookup: Hookup
    right: Plan | None
    pictures: Pictures
    rated: dict[str, float] | None

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

    def meant(self) -> Explanation | None:
        """Return the hookup meant and the slips in it."""
        inside, joints = self.hookup.inside(), self.hookup.joints
        if self.pictures.start.shorted:
            return None
        if self.same() and self.right is not None:
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


def all_faults(given: Given) -> list[Fault]:
    """Return every fault that the joints, the figures and the devices show."""
    from careful_coil.core.connect.device_faults import device_faults

    rules: tuple[Callable[[Given], Iterator[Fault]], ...] = (
        _short,
        _forbidden,
        _explained,
        _open,
        _volts,
        _unused,
        device_faults,
        _turned,
        _edge,
    )
    found = [f for rule in rules for f in rule(given)]
    if (
        not given.same()
        and given.right is not None
        and not any(f.severity == "hold" for f in found)
    ):
        found.append(_differs(given))
    return found


def supply_mismatch(hookup: Hookup, why: str) -> Fault:
    """Return the fault of a supply that no hookup of this motor takes."""
    return Fault(code="supply-mismatch", severity="hold", text=why)


def unknown_lead(name: str, leads: Sequence[str]) -> Fault:
    """Return the fault of a name that is no lead, line or terminal."""
    return Fault(
        code="unknown-lead",
        severity="hold",
        leads=(name,),
        text=f"“{name}” is no lead of this motor, no line of this supply and no terminal. "
        f"Leads: {', '.join(leads)}.",
    )


def in_two_joints(name: str, joints: Sequence[Joint]) -> Fault:
    """Return the fault of a name that stands in several joints."""
    where = " and ".join(" – ".join(j) for j in joints)
    return Fault(
        code="lead-in-two-joints",
        severity="hold",
        leads=(name,),
        text=f"{name} is named in more than one joint: {where}. They are one joint so.",
    )


def _short(given: Given) -> Iterator[Fault]:
    lines = given.pictures.start.shorted or given.pictures.run.shorted
    if lines:
        joint = next((j for j in given.hookup.joints if len(set(j) & set(lines)) > 1), ())
        yield Fault(
            code="short-circuit",
            severity="hold",
            leads=joint or lines,
            text=f"{' and '.join(lines)} are joined to each other: a short across the supply.",
            danger=True,
        )
    index = given.pictures.start.steady.node_volt
    for c in given.hookup.inside().coils:
        if (
            not lines
            and abs(index[c.start][0] - index[c.finish][0]) == 0
            and _closed(given, c.start, c.finish)
        ):
            yield Fault(
                code="coil-shorted",
                severity="hold",
                coils=(c.name,),
                leads=(c.start, c.finish),
                text=f"Both ends of coil {c.name} are in one joint: it is shorted on itself.",
            )


def _closed(given: Given, a: str, b: str) -> bool:
    return any(a in j and b in j for j in given.hookup.joints)


def _forbidden(given: Given) -> Iterator[Fault]:
    lines = {n: line for j in given.hookup.joints for line in j if line in (*LINES, "N") for n in j}
    for a, b in given.hookup.known.never:
        if a in lines and b in lines and lines[a] != lines[b]:
            yield Fault(
                code="forbidden-pair",
                severity="hold",
                leads=(a, b),
                text=f"{a} and {b} stand straight across the line: that pair must never see line volts.",
                danger=True,
            )


def _explained(given: Given) -> Iterator[Fault]:
    """Reversed, exchanged, left out, or the hookup of another voltage."""
    if given.same():
        return
    meant = given.meant()
    if meant is None:
        return
    right = given.right
    if right is not None and meant.plan.connection != right.connection:
        yield Fault(
            code="wrong-connection",
            severity="hold",
            text=f"This is joined as {meant.plan.connection}; "
            f"{given.hookup.supply.volt:g} V needs {right.connection}.",
        )
    for slip in meant.slips:
        yield _of_slip(slip)


def _of_slip(slip: Slip) -> Fault:
    code = {"lead-left-out": "lead-unused", "joint-open": "open-coil"}.get(slip.kind, slip.kind)
    return Fault(
        code=code,
        severity="hold",
        coils=slip.coils,
        leads=slip.leads or slip.joint,
        text=slip.text(),
    )


def _open(given: Given) -> Iterator[Fault]:
    """Coils that carry nothing at standstill and lines that bring nothing, where they should."""
    p = given.pictures
    if p.start.shorted:
        return
    largest = max((abs(a) for a in p.start.coil_amp.values()), default=0.0)
    wanted = p.right_start
    for name, amp in p.start.coil_amp.items():
        needed = wanted is None or abs(wanted.coil_amp[name]) > NOTHING * max(
            abs(a) for a in wanted.coil_amp.values()
        )
        if (
            needed
            and abs(amp) <= 1e-6 * max(largest, NOTHING)
            and not _short_on_itself(given, name)
        ):
            yield Fault(
                code="open-coil",
                severity="hold",
                coils=(name,),
                text=f"No current can flow in coil {name}: an end of it leads nowhere.",
            )
    lines = [n for n in LINES[: given.hookup.supply.phases] if given.hookup.supply.phases == 3]
    live = [n for n in lines if p.start.line_amp[n] > 1e-6 * max(largest, NOTHING)]
    if lines and 0 < len(live) < 3:
        dead = [n for n in lines if n not in live]
        yield Fault(
            code="single-phased",
            severity="hold",
            leads=tuple(dead),
            text=f"{' and '.join(dead)} {'brings' if len(dead) == 1 else 'bring'} nothing: "
            "on two lines it hums and does not start.",
        )


def _short_on_itself(given: Given, coil: str) -> bool:
    c = next(c for c in given.hookup.inside().coils if c.name == coil)
    return _closed(given, c.start, c.finish)


def _volts(given: Given) -> Iterator[Fault]:
    """Coils with more or less than their rated volts, where that is not the right hookup's doing."""
    if given.pictures.start.shorted or given.rated is None:
        return
    same = given.same()
    high: dict[str, float] = {}
    low: dict[str, float] = {}
    for name, rated in given.rated.items():
        share = max(a.coil_volt[name] for a in (given.pictures.run, given.pictures.start)) / max(
            rated, NOTHING
        )
        running = given.pictures.run.coil_volt[name] / max(rated, NOTHING)
        if share > OVER_VOLT and not same:
            high[name] = share
        elif running < UNDER_VOLT and not same and abs(given.pictures.run.coil_amp[name]) > LITTLE:
            low[name] = running
    if high:
        worst = max(high.values())
        yield Fault(
            code="coil-overvolted",
            severity="hold",
            coils=tuple(high),
            text=f"{_named(high)}: up to {worst:.0%} of the volts wound for.",
            danger=worst > DANGER_VOLT,
        )
    if low:
        least = min(low.values())
        yield Fault(
            code="coil-undervolted",
            severity="hold",
            coils=tuple(low),
            text=f"{_named(low)}: as little as {least:.0%} of the volts wound for.",
        )


def _named(coils: dict[str, float]) -> str:
    return f"Coil {next(iter(coils))}" if len(coils) == 1 else "Coils " + ", ".join(coils)


def _unused(given: Given) -> Iterator[Fault]:
    """Leads that are in no joint: a hold where the right hookup needs them, else a note."""
    used = {n for j in given.hookup.joints if len(j) > 1 for n in j}
    wanted = {n for j in given.right.joints if len(j) > 1 for n in j} if given.right else set()
    same = given.same()
    for lead in given.hookup.inside().leads:
        if lead in used:
            continue
        needed = lead in wanted and not same
        yield Fault(
            code="lead-unused",
            severity="hold" if needed else "note",
            leads=(lead,),
            text=f"{lead} is in no joint; the right hookup uses it."
            if needed
            else f"{lead} is in no joint: insulate it on its own.",
            shown_by_ohms=None if needed else False,
        )


def _turned(given: Given) -> Iterator[Fault]:
    if reversed_turn(given) and given.same():
        three = given.hookup.supply.phases == 3
        yield Fault(
            code="rotation-reversed",
            severity="watch",
            leads=tuple(LINES) if three else (),
            text="It turns the other way than the plan: two lines are exchanged. Exchange any two to turn it back."
            if three
            else "It turns the other way than the plan.",
        )


def _edge(given: Given) -> Iterator[Fault]:
    """What the plan itself remarks: volts at the edge of the band, another frequency."""
    if given.right is None or not given.same():
        return
    for note in given.right.notes:
        if "at the edge" in note or "Hz on a" in note:
            heavy = "do not run" in note
            yield Fault(code="supply-at-edge", severity="hold" if heavy else "watch", text=note)


def _differs(given: Given) -> Fault:
    right = given.right
    assert right is not None  # noqa: S101 - asked only with a right hookup
    made = {frozenset(j) for j in given.hookup.joints}
    missing = ["–".join(j) for j in right.joints if frozenset(j) not in made]
    return Fault(
        code="not-the-right-hookup",
        severity="hold",
        text=f"Coil volts or fields are not those of {right.connection}. "
        f"Joints it should have: {', '.join(missing) or 'as made'}.",
    )
