"""What can be wrong with a hookup, each in trade words, by coil and lead."""

import itertools
from collections.abc import Callable, Iterator, Sequence

from careful_coil.core.connect.device_faults import device_faults
from careful_coil.core.connect.explain import DEVICE_SLIPS, Slip
from careful_coil.core.connect.given import Fault, Given, Seen, reversed_turn
from careful_coil.core.connect.hookup import NOTHING, Answer
from careful_coil.core.ways.book import unlined
from careful_coil.core.ways.states import tied
from careful_coil.core.ways.way import LINES, Joint

LITTLE = 1e-9  # A: nothing
LITTLE_SHARE = 1e-6  # of the largest: no current
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
    bad = any(f.severity == "hold" for f in found)
    if given.same and bad and given.device_slip is not None:
        found.append(_of_slip(given.device_slip))
    if not given.same and not bad:
        found += _differs(given)
    return found


def supply_mismatch(why: str) -> Fault:
    """Return the fault of a supply that no hookup of this motor takes."""
    return Fault(code="supply-mismatch", severity="hold", text=why)


def no_plan(why: str) -> Fault:
    """Return the remark on devices whose place no rule knows: each state is judged by itself."""
    return Fault(
        code="no-plan-for-devices",
        severity="watch",
        text=f"{why} Without a right hookup to compare with, each state is judged by itself.",
    )


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
    seen = given.pictures.shorted
    if seen is not None:
        lines = seen.made.shorted
        joint = next((j for j in given.hookup.joints if len(set(j) & set(lines)) > 1), ())
        when = "" if joint or not given.hookup.devices else f" in the state {seen.state.name}"
        yield Fault(
            code="short-circuit",
            severity="hold",
            leads=joint or lines,
            text=f"{' and '.join(lines)} are joined to each other{when}: a short across the supply.",
            danger=True,
            state=seen.state.name if when else "",
        )
        return
    index = given.pictures.start.steady.node_volt
    for c in given.hookup.inside().coils:
        if abs(index[c.start][0] - index[c.finish][0]) == 0 and _closed(given, c.start, c.finish):
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
    """Pairs that lines stand on in run; what a start device does for seconds, or a plan does, is not that."""
    told: set[tuple[str, str]] = set()
    running = [s for s in given.pictures.seen if s.state.moment == "run"]
    meant = {p for s in running if s.right is not None for p in _fed_pairs(s.right, given)}
    for seen in running:
        for a, b in _fed_pairs(seen.made, given) - meant - told:
            told.add((a, b))
            yield Fault(
                code="forbidden-pair",
                severity="hold",
                leads=(a, b),
                text=f"{a} and {b} stand straight across the line: that pair must never see line volts.",
                danger=True,
                state=seen.state.name if given.hookup.devices else "",
            )


def _fed_pairs(shown: Answer, given: Given) -> set[tuple[str, str]]:
    """Return the pairs never to be fed that lie on two lines."""
    index = tied(shown.network)
    lines = {index[n]: n for n in LINES if n in index}
    found = set()
    for a, b in () if given.equal_windings else given.hookup.known.never:
        ends = {lines.get(index[n]) for n in (a, b) if n in index}
        if len(ends) == 2 and None not in ends:
            found.add((a, b))
    return found


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
    if given.same or given.pictures.shorted or given.meant is not None:
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
    code: str = {"lead-left-out": "lead-unused", "joint-open": "open-coil"}.get(
        slip.kind, slip.kind
    )
    if slip.kind in DEVICE_SLIPS:
        code = "device-misplaced"
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
    if p.shorted is not None:
        return
    for name, state in _dead(given):
        yield Fault(
            code="open-coil",
            severity="hold",
            coils=(name,),
            text=f"No current can flow in coil {name}: an end of it leads nowhere.",
            state=state if given.hookup.devices else "",
        )
    largest = max((abs(a) for a in p.start.coil_amp.values()), default=0.0)
    lines = [n for n in LINES[: given.hookup.supply.phases] if given.hookup.supply.phases == 3]
    live = [n for n in lines if p.start.line_amp[n] > LITTLE_SHARE * max(largest, NOTHING)]
    if lines and 0 < len(live) < 3:
        dead = [n for n in lines if n not in live]
        yield Fault(
            code="single-phased",
            severity="hold",
            leads=tuple(dead),
            text=f"{' and '.join(dead)} {'brings' if len(dead) == 1 else 'bring'} nothing: "
            "on two lines it hums and does not start.",
        )


def _dead(given: Given) -> Iterator[tuple[str, str]]:
    """Yield coils that carry nothing where they should, each with the first state in which that shows.

    Without a right hookup a coil must carry something in some state.
    """
    still = [s for s in given.pictures.seen if s.state.moment == "start"]
    for c in given.hookup.inside().coils:
        idle = [s.state.name for s in still if _idle(s, c.name)]
        compared = given.right is not None
        if (idle if compared else len(idle) == len(still)) and not _short_on_itself(given, c.name):
            yield c.name, idle[0]


def _idle(seen: Seen, coil: str) -> bool:
    """Whether a coil carries nothing in a state in which it should."""

    def share(shown: Answer) -> float:
        largest = max((abs(a) for a in shown.coil_amp.values()), default=0.0)
        return abs(shown.coil_amp[coil]) / max(largest, NOTHING)

    needed = seen.right is None or share(seen.right) > LITTLE_SHARE
    return needed and share(seen.made) <= LITTLE_SHARE


def _short_on_itself(given: Given, coil: str) -> bool:
    c = next(c for c in given.hookup.inside().coils if c.name == coil)
    return _closed(given, c.start, c.finish)


def _volts(given: Given) -> Iterator[Fault]:
    """Coils with more or less than their rated volts, where that is not the right hookup's doing."""
    if given.pictures.shorted or given.rated is None:
        return
    same = given.same
    high: dict[str, float] = {}
    low: dict[str, float] = {}
    for name, rated in given.rated.items():
        share = max(s.made.coil_volt[name] for s in given.pictures.seen) / max(
            _allowed(given, name, rated), NOTHING
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


def _allowed(given: Given, coil: str, rated: float) -> float:
    """Return what a coil may see: a start winding with devices as much as the right hookup gives it."""
    if not given.hookup.devices:
        return rated
    return max([rated, *(s.right.coil_volt[coil] for s in given.pictures.seen if s.right)])


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
