"""What can be wrong with a hookup, each in trade words, by coil and lead."""

import itertools
from collections.abc import Callable, Iterator, Sequence

from careful_coil.core.connect.device_faults import device_faults
from careful_coil.core.connect.explain import Slip
from careful_coil.core.connect.given import Fault, Given, reversed_turn
from careful_coil.core.connect.hookup import NOTHING
from careful_coil.core.ways.book import unlined
from careful_coil.core.ways.way import LINES, Joint

LITTLE = 1e-9  # A: nothing
DANGER_VOLT, OVER_VOLT, UNDER_VOLT = 1.30, 1.10, 0.90  # of a coil's rated volts


def all_faults(given: Given) -> list[Fault]:
    """Return every fault that the joints, the figures and the devices show."""
    rules: tuple[Callable[[Given], Iterator[Fault]], ...] = (
        _short,
        _forbidden,
        _explained,
        _mixed,
        _open,
        _volts,
        _unused,
        device_faults,
        _turned,
        _edge,
    )
    found = [f for rule in rules for f in rule(given)]
    if not given.same and not any(f.severity == "hold" for f in found):
        found += _differs(given)
    return found


def supply_mismatch(why: str) -> Fault:
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
    if given.same:
        return
    meant = given.meant
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


def _mixed(given: Given) -> Iterator[Fault]:
    """Joints of two hookups at once."""
    if given.same or given.pictures.start.shorted or given.meant is not None:
        return
    made = {next(iter(unlined([j]))): j for j in given.hookup.joints if unlined([j])}
    belongs = [(p, unlined(p.joints) & set(made)) for p in given.plans() if not p.reversed]
    for (one, first), (two, second) in itertools.combinations(belongs, 2):
        if first - second and second - first and first | second == set(made):
            parts = [
                f"{', '.join('–'.join(made[j]) for j in made if j in own)} "
                f"{'belong' if len(own) > 1 else 'belongs'} to {p.connection}"
                for p, own in ((one, first - second), (two, second - first))
            ]
            yield Fault(
                code="mixed-hookup",
                severity="hold",
                leads=tuple(n for j in made.values() for n in j if n not in LINES),
                text=f"Joints of two hookups at once: {'; '.join(parts)}.",
            )
            return


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
    same = given.same
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
    same = given.same
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
    if reversed_turn(given) and given.same:
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
    if given.right is None or not given.same:
        return
    for note in given.right.notes:
        if "at the edge" in note or "Hz on a" in note:
            heavy = "do not run" in note
            yield Fault(code="supply-at-edge", severity="hold" if heavy else "watch", text=note)


def _differs(given: Given) -> Iterator[Fault]:
    """What no other rule has put into words: the joints that the right hookup has and this has not."""
    if given.right is None:
        return
    made = {frozenset(j) for j in given.hookup.joints}
    missing = ["–".join(j) for j in given.right.joints if frozenset(j) not in made]
    yield Fault(
        code="not-the-right-hookup",
        severity="hold",
        text=f"Coil volts or fields are not those of {given.right.connection}. "
        f"Joints it should have: {', '.join(missing) or 'as made'}.",
    )
