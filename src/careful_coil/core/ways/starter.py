"""The starter of a winding that is started in stages: contactors, which leads go to each, interlocks, times.

In the lead box only what both stages join is joined; every other lead goes out by itself, or no second
contactor could ever be fitted. On the bench the lines are clipped to them for the run.
"""

from dataclasses import dataclass, replace

from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.three_contactors import contacted
from careful_coil.core.ways.three_phase import three_phase
from careful_coil.core.ways.usual import HALVES, HIGH_STAR, LOW_STAR, STAR_DELTA, TWO_SPEEDS
from careful_coil.core.ways.way import LINES, Joint, Plan

WYE_DELTA, PART_WINDING = "wye-delta", "part-winding"
_DEVICES: dict[str, tuple[Device, ...]] = {WYE_DELTA: STAR_DELTA, PART_WINDING: HALVES}
# of the line amps, what passes each overload relay (a phase's amps in delta; half a winding's)
RELAY_SHARE = {WYE_DELTA: 1 / 3**0.5, PART_WINDING: 0.5}
_WORDS: dict[str, tuple[str, ...]] = {
    WYE_DELTA: (
        "K1 and K3 to start, then K3 out, K2 in, once it gains no more speed.",
        "K2 and K3 interlocked, by contact and by lever: both at once short the three lines.",
        "Overload relay in the leads of K1: 0.58 of the line amps.",
    ),
    PART_WINDING: (
        "K1 to start, then K2 as well.",
        "K2 comes in only while K1 is in; both go out together.",
        "An overload relay in the leads of each: half the line amps.",
    ),
}
_OTHER = {"L1": "L2", "L2": "L1"}
_SPEEDS = (
    "K1 the low speed, K2 the high one.",
    "K1 and K2 interlocked, by contact and by lever: never both. From high to low only once it has slowed.",
    "An overload relay for each speed, at that speed's own amps.",
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Starter:
    """`plan` with its contactors; `boxed` leads that stay joined in the lead box.

    `outlets` what goes out by itself, by the contactors it goes to: leads, each with those boxed with it.
    """

    plan: Plan
    boxed: tuple[Joint, ...]
    outlets: tuple[tuple[str, tuple[Joint, ...]], ...]
    words: tuple[str, ...]

    def clipped(self, joint: Joint) -> bool:
        """Whether a joint of the run is the bench's clip: in the box its leads stay apart."""
        return bool(self.to(joint))

    def to(self, joint: Joint) -> tuple[tuple[str, Joint], ...]:
        """Return what of a joint of the run goes out by itself, and to which contactors."""
        return tuple((k, out) for k, outs in self.outlets for out in outs if set(out) <= set(joint))


def starter_of(plan: Plan) -> Starter | None:
    """Return the starter of a hookup that is started in stages, or has another speed on its own contactors.

    None for any other hookup, and for one that has devices of its own.
    """
    found = None if plan.devices else _contactors(plan)
    if found is None:
        return None
    made, words = found
    leads = plan.network().leads
    outlets: dict[str, list[Joint]] = {}
    boxed: list[Joint] = []
    for joint in made.joints:
        own = tuple(n for n in joint if n in leads)
        at = dict.fromkeys(n.split(".")[0] for n in joint if "." in n)
        if len(own) > 1:
            boxed.append(own)
        if own and at:
            outlets.setdefault(" and ".join(at), []).append(own)
    return Starter(
        plan=replace(made, notes=(*made.notes, *words)),
        boxed=tuple(boxed),
        outlets=tuple((k, tuple(outs)) for k, outs in outlets.items()),
        words=words,
    )


def _contactors(plan: Plan) -> tuple[Plan, tuple[str, ...]] | None:
    """Return a hookup with its usual contactors, and what is said of them."""
    devices = _DEVICES.get(plan.start)
    if devices is not None:
        (made,) = contacted((plan,), devices)
        return made, _WORDS[plan.start]
    every = three_phase(plan.arrangement, plan.variant)
    if plan.speed not in ("low", "high") or len(every) != 2:
        return None
    star = next((p.speed for p in every if any(not set(j) & set(LINES) for j in p.joints)), "")
    kit = {"low": LOW_STAR, "high": HIGH_STAR}.get(star, TWO_SPEEDS)
    made = next(p for p in contacted(every, kit) if p.speed == plan.speed)
    if plan.reversed:
        joints = tuple(tuple(_OTHER.get(n, n) for n in j) for j in made.joints)
        made = replace(made, joints=joints, reversed=True)
    with_star = "K1" if star == "low" else "K2"
    tied = (f"K3 ties the star of the {star} speed, with {with_star}.",) if star else ()
    return made, (*_SPEEDS, *tied)
