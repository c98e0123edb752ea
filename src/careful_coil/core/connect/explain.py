"""Which slip turns a right hookup into the one that was made: found by trying them all.

A slip renames leads in the joints: two exchanged, a coil turned round, two coils exchanged; or it
takes a lead out of its joint, or undoes a joint. Slips of devices are in `device_slips`. Hookups are
compared as sets of joints, all lines alike, so that an exchange of lines is no slip here, and both
ends of a device that has no direction alike.
"""

import itertools
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from careful_coil.core.ways.book import unlined
from careful_coil.core.ways.devices import POSITIONED, Device, Moment
from careful_coil.core.ways.way import LINES, Joint, Plan
from careful_coil.core.winding.network import Coil, Network
from careful_coil.core.winding.symmetry import kick_symmetries

LeadSlip = Literal[
    "coil-reversed", "coils-exchanged", "leads-exchanged", "lead-left-out", "joint-open"
]
DeviceSlip = Literal[
    "terminals-exchanged",
    "devices-exchanged",
    "terminal-moved",
    "terminal-left-out",
    "device-bridged",
]
SlipKind = LeadSlip | DeviceSlip
MOST_TOUCHED = 8  # joints before and after that one slip can change: two coils exchanged
MOST_MOVED = 8  # with more devices no terminal is looked for in another joint
MANY_DEVICES = 3  # from so many on only single slips are looked for
DEVICE_SLIPS: tuple[DeviceSlip, ...] = get_args(DeviceSlip)
Joints = tuple[Joint, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Slip:
    """One slip: what kind, which coils or leads, the renaming or removal it is.

    `joint` is the one a lead or terminal is missing from; `into` the one a terminal went to.
    """

    kind: SlipKind
    coils: tuple[str, ...] = ()
    leads: tuple[str, ...] = ()
    joint: Joint = ()
    into: Joint = ()

    def text(self) -> str:
        """Return it in the words of the bench."""
        if self.kind == "coil-reversed":
            a, b = self.leads
            return f"Coil {self.coils[0]} is reversed: {a} and {b} are exchanged."
        if self.kind == "coils-exchanged":
            pairs = "; ".join(
                f"{a} and {b}" for a, b in zip(self.leads[::2], self.leads[1::2], strict=True)
            )
            return f"Coils {self.coils[0]} and {self.coils[1]} are exchanged ({pairs})."
        if self.kind == "leads-exchanged":
            return f"Leads {self.leads[0]} and {self.leads[1]} are exchanged."
        if self.kind in ("lead-left-out", "terminal-left-out"):
            word = "Lead" if self.kind == "lead-left-out" else "Terminal"
            return f"{word} {self.leads[0]} is not in its joint {' – '.join(self.joint)}."
        if self.kind == "terminals-exchanged":
            return f"Terminals {' and '.join(self.leads)} are exchanged."
        if self.kind == "devices-exchanged":
            one, two = (n.split(".")[0] for n in self.leads[:2])
            return f"{one} and {two} are exchanged."
        if self.kind == "terminal-moved":
            return (
                f"Terminal {self.leads[0]} is joined to {' – '.join(self.into)}; it belongs to "
                f"{' – '.join(n for n in self.joint if n != self.leads[0])}."
            )
        if self.kind == "device-bridged":
            name = self.leads[0].split(".")[0]
            return f"{name} is bridged from {self.leads[0]} to {self.leads[1]}: it does nothing."
        return f"The joint {' – '.join(self.joint)} is not made."

    def done_to(self, joints: Joints) -> Joints:
        """Return joints with the slip made in them."""
        if self.kind in ("lead-left-out", "terminal-left-out"):
            return tuple(tuple(n for n in j if n != self.leads[0]) for j in joints)
        if self.kind == "terminal-moved":
            own = self.leads[0]
            without = (tuple(n for n in j if n != own) for j in joints)
            return tuple((*j, own) if frozenset(j) == frozenset(self.into) else j for j in without)
        if self.kind == "device-bridged":
            touched = [j for j in joints if set(self.leads) & set(j)]
            rest = [j for j in joints if j not in touched]
            return (*rest, tuple(n for j in touched for n in j))
        if self.kind == "joint-open":
            return tuple(j for j in joints if frozenset(j) != frozenset(self.joint))
        other = dict(zip(self.leads[::2], self.leads[1::2], strict=True))
        other |= {b: a for a, b in other.items()}
        return tuple(tuple(other.get(n, n) for n in j) for j in joints)


def slips_of(network: Network, joints: Joints, devices: Sequence[Device] = ()) -> Iterator[Slip]:
    """Yield every single slip from a right hookup, each result once, the telling names first."""
    seen = {plain(joints, devices)}
    every = itertools.chain(
        _turns(network),
        _exchanges(network),
        _lead_pairs(network),
        device_slips(joints, devices),
        _left_out(network, joints),
    )
    for slip in every:
        after = plain(slip.done_to(joints), devices)
        if after not in seen:
            seen.add(after)
            yield slip


def plain(joints: Joints, devices: Sequence[Device]) -> frozenset[frozenset[str]]:
    """Return joints as they are compared: lines alike, both ends of a device without direction alike."""
    if not devices:
        return unlined(joints)
    ends = {t: d for d in devices if len(d.terminals()) == 2 for t in d.terminals()}

    def called(name: str, joint: Joint) -> str:
        d = ends.get(name)
        if d is None:
            return name
        return f"{d.name} both" if set(d.terminals()) <= set(joint) else d.name

    return unlined(tuple(called(n, j) for n in j) for j in joints)


def device_slips(joints: Joints, devices: Sequence[Device]) -> Iterator[Slip]:
    """Yield slips of devices: terminals or devices exchanged, bridged, moved, left out."""
    used = {n: j for j in joints for n in j}
    own = {d.name: [t for t in d.terminals() if t in used] for d in devices}
    for d in devices:
        if len(own[d.name]) > 2:
            for pair in itertools.combinations(own[d.name], 2):
                yield Slip(kind="terminals-exchanged", leads=pair)
    for one, two in itertools.combinations(devices, 2):
        ends = own[one.name], own[two.name]
        if len(ends[0]) == len(ends[1]) == 2 and one.kind != two.kind:
            leads = tuple(itertools.chain.from_iterable(zip(*ends, strict=True)))
            yield Slip(kind="devices-exchanged", leads=leads)
    for d in devices:
        for a, b in working_pairs(d):
            if a in used and b in used:
                yield Slip(kind="device-bridged", leads=(a, b))
    for d in devices:
        for t in own[d.name]:
            if d.kind not in POSITIONED and len(devices) <= MOST_MOVED:
                for j in joints:
                    if j != used[t] and set(j) - {t}:
                        yield Slip(kind="terminal-moved", leads=(t,), joint=used[t], into=j)
            yield Slip(kind="terminal-left-out", leads=(t,), joint=used[t])


def working_pairs(device: Device) -> tuple[tuple[str, str], ...]:
    """Return the pairs of terminals between which a device does its work, joined in some state or not."""
    if device.kind in ("capacitor-dual", "capacitor-start", "capacitor-run"):
        first, *rest = device.terminals()
        return tuple((first, t) for t in rest)
    moments: tuple[Moment, ...] = ("rest", "start", "run")
    found: dict[tuple[str, str], None] = {}
    for moment, position in itertools.product(moments, device.table or ("",)):
        found |= dict.fromkeys(device.contacts(moment, position))
    for part in device.parts("start", 1.0):
        found[part.start, part.finish] = None
    return tuple(found)


def _own(network: Network, lead: str) -> bool:
    """Whether a lead is the end of one coil only."""
    return lead in network.leads and sum(lead in (c.start, c.finish) for c in network.coils) == 1


def _turns(network: Network) -> Iterator[Slip]:
    for c in network.coils:
        if _own(network, c.start) and _own(network, c.finish):
            yield Slip(kind="coil-reversed", coils=(c.name,), leads=(c.start, c.finish))


def _exchanges(network: Network) -> Iterator[Slip]:
    for one, two in itertools.combinations(network.coils, 2):
        pairs = _matched(network, one, two)
        if pairs:
            leads = tuple(itertools.chain.from_iterable(pairs))
            yield Slip(kind="coils-exchanged", coils=(one.name, two.name), leads=leads)


def _matched(network: Network, one: Coil, two: Coil) -> list[tuple[str, str]]:
    """Return which leads change places when two coils do; nothing where they cannot."""
    pairs = []
    for a, b in ((one.start, two.start), (one.finish, two.finish)):
        if _own(network, a) and _own(network, b):
            pairs.append((a, b))
        elif a != b:
            return []
    return pairs


def _lead_pairs(network: Network) -> Iterator[Slip]:
    for pair in itertools.combinations(network.leads, 2):
        yield Slip(kind="leads-exchanged", leads=pair)


def _left_out(network: Network, joints: Joints) -> Iterator[Slip]:
    for joint in joints:
        if len(joint) > 2 or any(n in LINES for n in joint):
            for lead in joint:
                if lead in network.leads:
                    yield Slip(kind="lead-left-out", leads=(lead,), joint=joint)
        if len(joint) > 1 and not any(n in (*LINES, "N") for n in joint):
            yield Slip(kind="joint-open", joint=joint)


@dataclass(frozen=True, slots=True, kw_only=True)
class Explanation:
    """The hookup meant, and the slips that lead from it to the one made; none: it is the one made."""

    plan: Plan
    slips: tuple[Slip, ...] = ()


def explain(
    network: Network, plans: Sequence[Plan], joints: Joints, most: int = 2
) -> Explanation | None:
    """Return the fewest slips from one of `plans`, the likeliest first; None beyond `most` (0 to 2)."""
    devices = plans[0].devices if plans else ()
    wanted = plain(joints, devices)
    meant = [(p, as_good) for p in plans for as_good in equals(network, p)]
    for p, as_good in meant:
        if plain(as_good, devices) == wanted:
            return Explanation(plan=p)
    made, best = set(map(frozenset, joints)), None
    for p, as_good in meant if most else ():
        if len(plain(as_good, devices) ^ wanted) > MOST_TOUCHED:
            continue
        for slip in slips_of(network, as_good, devices):
            after = slip.done_to(as_good)
            if plain(after, devices) == wanted:
                apart = len(set(map(frozenset, after)) ^ made)  # lines as they are, if it can be
                if best is None or apart < best[0]:
                    best = apart, Explanation(plan=p, slips=(slip,))
        if best is not None and best[0] == 0:
            break
    if best is not None:
        return best[1]
    for p in plans if most > 1 and len(devices) < MANY_DEVICES else ():
        for one in slips_of(network, p.joints, devices):
            once = one.done_to(p.joints)
            for two in slips_of(network, once, devices if one.kind not in DEVICE_SLIPS else ()):
                if plain(two.done_to(once), devices) == wanted:
                    return Explanation(plan=p, slips=(one, two))
    return None


def equals(network: Network, plan: Plan) -> list[Joints]:
    """Return the joints of hookups that nothing can tell from a plan: by the winding's symmetries."""
    found: dict[frozenset[frozenset[str]], Joints] = {plain(plan.joints, plan.devices): plan.joints}
    for relabelling in kick_symmetries(network):
        other = {network.leads[k]: network.leads[to] for k, to in enumerate(relabelling)}
        joints = renamed(plan.joints, other)
        found.setdefault(plain(joints, plan.devices), joints)
    return list(found.values())


def renamed(joints: Joints, names: Mapping[str, str]) -> Joints:
    """Return joints with leads called by other names."""
    return tuple(tuple(names.get(n, n) for n in j) for j in joints)
