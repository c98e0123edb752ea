"""Which slip turns a right hookup into the one that was made: found by trying them all.

A slip renames leads in the joints: two exchanged, a coil turned round, two coils exchanged; or it
takes a lead out of its joint, or undoes a joint. Hookups are compared as sets of joints, all lines
alike, so that an exchange of lines is no slip here.
"""

import itertools
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.ways.book import unlined
from careful_coil.core.ways.way import LINES, Joint, Plan
from careful_coil.core.winding.network import Coil, Network
from careful_coil.core.winding.symmetry import kick_symmetries

SlipKind = Literal[
    "coil-reversed", "coils-exchanged", "leads-exchanged", "lead-left-out", "joint-open"
]
Joints = tuple[Joint, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Slip:
    """One slip: what kind, which coils or leads, the renaming or removal it is."""

    kind: SlipKind
    coils: tuple[str, ...] = ()
    leads: tuple[str, ...] = ()
    joint: Joint = ()

    def text(self) -> str:
        """Return it in the words of the bench."""
        if self.kind == "coil-reversed":
            a, b = self.leads
            return f"Coil {self.coils[0]} is turned round: {a} and {b} stand in each other's place."
        if self.kind == "coils-exchanged":
            pairs = "; ".join(
                f"{a} and {b}" for a, b in zip(self.leads[::2], self.leads[1::2], strict=True)
            )
            return (
                f"Coils {self.coils[0]} and {self.coils[1]} stand in each other's place ({pairs})."
            )
        if self.kind == "leads-exchanged":
            return f"Leads {self.leads[0]} and {self.leads[1]} stand in each other's place."
        if self.kind == "lead-left-out":
            return f"Lead {self.leads[0]} is not in its joint {' – '.join(self.joint)}."
        return f"The joint {' – '.join(self.joint)} is not made."

    def done_to(self, joints: Joints) -> Joints:
        """Return joints with the slip made in them."""
        if self.kind == "lead-left-out":
            return tuple(tuple(n for n in j if n != self.leads[0]) for j in joints)
        if self.kind == "joint-open":
            return tuple(j for j in joints if frozenset(j) != frozenset(self.joint))
        other = dict(zip(self.leads[::2], self.leads[1::2], strict=True))
        other |= {b: a for a, b in other.items()}
        return tuple(tuple(other.get(n, n) for n in j) for j in joints)


def slips_of(network: Network, joints: Joints) -> Iterator[Slip]:
    """Yield every single slip from a right hookup, each result once, the telling names first."""
    seen = {unlined(joints)}
    every = itertools.chain(
        _turns(network), _exchanges(network), _lead_pairs(network), _left_out(network, joints)
    )
    for slip in every:
        after = unlined(slip.done_to(joints))
        if after not in seen:
            seen.add(after)
            yield slip


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
    wanted = unlined(joints)
    meant = [(p, as_good) for p in plans for as_good in equals(network, p)]
    for p, as_good in meant:
        if unlined(as_good) == wanted:
            return Explanation(plan=p)
    for p, as_good in meant if most else ():
        for slip in slips_of(network, as_good):
            if unlined(slip.done_to(as_good)) == wanted:
                return Explanation(plan=p, slips=(slip,))
    for p in plans if most > 1 else ():
        for one in slips_of(network, p.joints):
            once = one.done_to(p.joints)
            for two in slips_of(network, once):
                if unlined(two.done_to(once)) == wanted:
                    return Explanation(plan=p, slips=(one, two))
    return None


def equals(network: Network, plan: Plan) -> list[Joints]:
    """Return the joints of hookups that nothing can tell from a plan: by the winding's symmetries."""
    found: dict[frozenset[frozenset[str]], Joints] = {unlined(plan.joints): plan.joints}
    for relabelling in kick_symmetries(network):
        other = {network.leads[k]: network.leads[to] for k, to in enumerate(relabelling)}
        joints = renamed(plan.joints, other)
        found.setdefault(unlined(joints), joints)
    return list(found.values())


def renamed(joints: Joints, names: Mapping[str, str]) -> Joints:
    """Return joints with leads called by other names."""
    return tuple(tuple(names.get(n, n) for n in j) for j in joints)
