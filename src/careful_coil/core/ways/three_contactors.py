"""Three-phase hookups with contactors and switches: on and off, both directions, starting in stages.

Star and delta: one contactor feeds the starts in both stages, one joins the ends to the lines in
delta, one joins them to each other in star. Part winding: one for each half. Which is which follows
from the states in which each is closed.
"""

from collections.abc import Sequence
from dataclasses import replace

from careful_coil.core.errors import CannotPlace
from careful_coil.core.ways.devices import POLES, POSITIONED, Contact, Device
from careful_coil.core.ways.states import OFF, position_words, states_of
from careful_coil.core.ways.way import LINES, Joint, Plan, Stage

Joints = tuple[Joint, ...]
Poles = tuple[Contact, ...]
# what contactors that name no states are taken for, in order, by how the motor is started
_ROLES: dict[str, tuple[tuple[str, ...], ...]] = {
    "wye-delta": (("star", "delta"), ("delta",), ("star",)),
    "part-winding": (("first-half", "run"), ("run",)),
}
_WAYS = ("forward", "reverse")
SPEEDS = ("speed-1", "speed-2")


def contacted(plans: Sequence[Plan], devices: Sequence[Device]) -> tuple[Plan, ...]:
    """Return the hookups these devices can make. Raises: CannotPlace where they make none."""
    odd = [f"{d.name} ({d.kind})" for d in devices if d.kind not in POSITIONED]
    if odd:
        raise CannotPlace(
            f"{', '.join(odd)}: no plan here places it on three phases. Join it by the maker's diagram "
            "and check the hookup."
        )
    speeds = _at_speeds(plans, devices)
    if speeds is not None:
        notes = _read_with(tuple(devices))
        both = "; ".join(p.connection for p in plans)
        return tuple(
            replace(
                p,
                connection=both,
                joints=speeds,
                devices=tuple(devices),
                notes=(*p.notes, *notes),
            )
            for p in plans
        )
    found = []
    for plan in plans:
        own = _with_roles(plan.start, devices)
        joints = _joints(plan, own)
        if joints is not None:
            notes = (*plan.notes, *_read_with(own))
            found.append(replace(plan, joints=joints, devices=own, stages=(), notes=notes))
    if not found:
        names = ", ".join(d.name for d in devices)
        raise CannotPlace(
            f"{names}: closed as they are, they make no hookup of this winding. Known are one for on and "
            "off, one or two for both directions, three for star and delta, two for a part winding, two or "
            "three for two speeds."
        )
    return tuple(found)


def _read_with(devices: Sequence[Device]) -> tuple[str, ...]:
    """Return with which contactors held in the line ohms of a plan are read."""
    first = states_of(devices)[0]
    held = [
        d.name for d in devices if d.kind == "contactor" and d.contacts("rest", first.position(d))
    ]
    return (
        (f"Line ohms are read with {' and '.join(held)} held in by hand, power off.",)
        if held
        else ()
    )


def _with_roles(start: str, devices: Sequence[Device]) -> tuple[Device, ...]:
    """Return the devices, contactors without a table with the states of the usual order."""
    roles = _ROLES.get(start, tuple((w,) for w in _WAYS) if len(devices) == 2 else ())
    if len(roles) != len(devices) or any(d.table or d.kind != "contactor" for d in devices):
        return tuple(devices)
    return tuple(
        replace(d, table=dict.fromkeys(role, POLES)) for d, role in zip(devices, roles, strict=True)
    )


def _closed(device: Device, word: str) -> Poles:
    """Return the poles closed in a state."""
    known = position_words(device)
    return next((device.table[p] for p, w in known.items() if w == word), ())


def _joints(plan: Plan, devices: tuple[Device, ...]) -> Joints | None:
    """Return the joints of a plan with these devices; None where they do not belong to it."""
    roles = {d.name: {w for w in position_words(d).values() if w != OFF} for d in devices}
    if plan.start in _ROLES:
        wanted = [set(r) for r in _ROLES[plan.start]]
        own = [next((d for d in devices if roles[d.name] == r), None) for r in wanted]
        if len(devices) != len(own) or None in own:
            return None
        kept = [d for d in own if d is not None]
        build = _star_delta if plan.start == "wye-delta" else _in_halves
        return build(plan.stages, kept)
    if len(devices) == 1 and roles[devices[0].name] <= {"on", "run", "start"}:
        return _in_lines(plan.joints, devices[0])
    if set().union(*roles.values()) == set(_WAYS):
        return _reversed(plan.joints, devices)
    return None


def _three(device: Device, poles: Poles) -> Poles:
    if len(poles) != len(LINES):
        raise CannotPlace(
            f"{device.name} closes {len(poles)} poles where three lines are switched."
        )
    return poles


def _in_lines(joints: Joints, device: Device) -> Joints:
    """Return joints with one switch in the three lines."""
    closed = POLES
    if device.table:
        closed = next(device.table[p] for p, w in position_words(device).items() if w != OFF)
    poles = dict(zip(LINES, _three(device, closed), strict=True))
    feeds = tuple((n, device.at(a)) for n, (a, _) in poles.items())
    inside = (tuple(device.at(poles[n][1]) if n in poles else n for n in j) for j in joints)
    return (*feeds, *inside)


def _reversed(joints: Joints, devices: Sequence[Device]) -> Joints | None:
    """Return joints fed through one reversing switch, or two contactors that exchange two lines."""
    at = {n: [n] for n in LINES}
    behind: dict[str, list[str]] = {n: [] for n in LINES}
    ways = [(d, _closed(d, w)) for w in _WAYS for d in devices if _closed(d, w)]
    if len(ways) != len(_WAYS):
        return None
    (first, forward), (second, reverse) = ways
    outs = dict(zip(LINES, (b for _, b in _three(first, forward)), strict=True))
    for n, (a, b) in zip(LINES, forward, strict=True):
        at[n].append(first.at(a))
        behind[n].append(first.at(b))
    if second is first:
        back = {a: b for pair in reverse for a, b in (pair, pair[::-1])}
        moved = [n for n, (a, _) in zip(LINES, forward, strict=True) if back.get(a) != outs[n]]
        if len(moved) != 2 or {back.get(a) for a, _ in forward} != set(outs.values()):
            raise CannotPlace(f"{first.name}: reverse must exchange two of the three lines.")
    else:
        for n, to, (a, b) in zip(LINES, ("L2", "L1", "L3"), _three(second, reverse), strict=True):
            at[n].append(second.at(a))
            behind[to].append(second.at(b))
    inside = (tuple(x for n in j for x in behind.get(n, [n])) for j in joints)
    return (*(tuple(j) for j in at.values()), *inside)


def _star_delta(stages: Sequence[Stage], devices: Sequence[Device]) -> Joints:
    """Return joints of line, delta and star contactor round a winding of two stages."""
    line, delta, star = devices
    feeds = _three(line, _closed(line, "delta"))
    ends = _three(delta, _closed(delta, "delta"))
    stars = _three(star, _closed(star, "star"))
    first, then = (s.joints for s in stages)
    joints: list[Joint] = []
    for k, n in enumerate(LINES):
        joints.append((n, line.at(feeds[k][0])))
        near = tuple(x for x in next(j for j in first if n in j) if x != n)
        far = tuple(x for x in next(j for j in then if n in j) if x != n and x not in near)
        joints.append((line.at(feeds[k][1]), *near, delta.at(ends[k][0])))
        joints.append((*far, delta.at(ends[k][1]), star.at(stars[k][0])))
    joints.append(tuple(star.at(b) for _, b in stars))
    both = [j for j in first if not set(j) & set(LINES) and j in then]
    return (*joints, *both)


def _at_speeds(plans: Sequence[Plan], devices: Sequence[Device]) -> Joints | None:
    """Return joints of a contactor for each of two speeds, and of one that ties a star; None for others."""
    low, high = (next((p for p in plans if p.speed == s), None) for s in ("low", "high"))
    roles = [{w for w in position_words(d).values() if w != OFF} for d in devices]
    if low is None or high is None or any(len(r) != 1 for r in roles):
        return None
    of = {w: [d for d, r in zip(devices, roles, strict=True) if r == {w}] for w in SPEEDS}
    stars = [[j for j in p.joints if not set(j) & set(LINES)] for p in (low, high)]
    wanted = [1 + len(own) for own in stars]
    if [len(of[w]) for w in SPEEDS] != wanted or sum(wanted) != len(devices):
        return None
    nodes: dict[str, list[str]] = {}
    feeds: dict[str, list[str]] = {n: [n] for n in LINES}
    ties: list[Joint] = []
    for plan, own, word in zip((low, high), stars, SPEEDS, strict=True):
        line, *star = of[word]
        poles = _three(line, _closed(line, word))
        for n, (a, b) in zip(LINES, poles, strict=True):
            feeds[n].append(line.at(a))
            for lead in next(j for j in plan.joints if n in j):
                if lead != n:
                    nodes.setdefault(lead, [lead]).append(line.at(b))
        for device, joint in zip(star, own, strict=True):
            ends = _three(device, _closed(device, word))
            ties.append(tuple(device.at(b) for _, b in ends))
            for lead, (a, _) in zip(joint, ends, strict=True):
                nodes.setdefault(lead, [lead]).append(device.at(a))
    return (*(tuple(f) for f in feeds.values()), *(tuple(n) for n in nodes.values()), *ties)


def _in_halves(stages: Sequence[Stage], devices: Sequence[Device]) -> Joints:
    """Return joints of the contactors of both halves."""
    one, two = devices
    first, then = (s.joints for s in stages)
    feeds = _three(one, _closed(one, "run")), _three(two, _closed(two, "run"))
    joints: list[Joint] = []
    for k, n in enumerate(LINES):
        near = tuple(x for x in next(j for j in first if n in j) if x != n)
        far = tuple(x for x in next(j for j in then if n in j) if x != n and x not in near)
        joints.append((n, one.at(feeds[0][k][0]), two.at(feeds[1][k][0])))
        joints += [(one.at(feeds[0][k][1]), *near), (two.at(feeds[1][k][1]), *far)]
    return (*joints, *(j for j in then if not set(j) & set(LINES)))
