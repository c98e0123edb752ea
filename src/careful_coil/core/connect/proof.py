"""What proves the joints on the way: one reading after each, a list before power, what remains."""

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from careful_coil.core.connect.given import ohms_differ
from careful_coil.core.connect.present import standing_before
from careful_coil.core.connect.work import Connecting
from careful_coil.core.errors import CoilError
from careful_coil.core.identify.naming import no_earth
from careful_coil.core.job import Job
from careful_coil.core.job.at_connect import StepOhm
from careful_coil.core.readings import ohm_value
from careful_coil.core.settings import Settings
from careful_coil.core.ways.way import LINES, Joint, made
from careful_coil.core.winding.arrangements import arrangement

OPEN = float("inf")
TAKES = 2  # of a reading that does not fit, before it is believed


@dataclass(frozen=True, slots=True, kw_only=True)
class Offer:
    """One reading that proves the joint just made: between two names, Ω it must read, Ω without it.

    `untold` the leads not joined yet whose place a lead of the joint may have taken, and this reading would
    not show it: (the lead meant, the other).
    """

    joint: Joint
    between: tuple[str, str]
    ohm: float
    without: float
    untold: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Read:
    """A reading taken on the way: what it was, what it had to be, whether it is right."""

    reading: StepOhm
    acts: int  # before it
    ohm: float
    expected: float
    right: bool


def offer(job: Job, state: Connecting) -> Offer | None:
    """Return the reading that proves the last joint made; None where there is none, or no ohms known.

    Of all pairs the one that tells the joint from most of the wrong partners still possible: a lead in it
    exchanged with one that is in no joint of the plan yet. Then the one that is open without it,
    then ends easily reached.
    """
    acts = job.joined.acts
    if state.plan is None or state.ohms is None or not acts or acts[-1].do != "joint":
        return None
    joint = tuple(state.names.get(n, n) for n in acts[-1].names)
    now, loose = state.now.joints, state.now.loose
    before = tuple(j for j in now if set(j) != set(joint))
    ends = [next((n for n in j if n in LINES), j[0]) for j in now] + list(loose)
    with_it, without = (_ohms(state, joints, ends) for joints in (now, before))
    swaps = [(x, y) for x in joint if x not in LINES and "." not in x for y in still_open(state)]
    others = {swap: _swapped(state, now, ends, swap) for swap in swaps}
    found = []
    for pair, ohm in with_it.items():
        if ohm == OPEN:
            continue
        untold = tuple(s for s in swaps if not ohms_differ({"": others[s][pair]}, {"": ohm}))
        if len(untold) < len(swaps) or ohms_differ({"": without[pair]}, {"": ohm}):
            found.append(
                Offer(joint=joint, between=pair, ohm=ohm, without=without[pair], untold=untold)
            )

    def told(o: Offer) -> tuple[int, bool, int, float]:
        reached = sum(n in LINES or n in loose for n in o.between)
        much = 0.0 if o.without == OPEN or not o.ohm else abs(o.without / o.ohm - 1)
        return -len(o.untold), o.without == OPEN, reached, much - o.ohm

    return max(found, key=told, default=None)


def still_open(state: Connecting) -> tuple[str, ...]:
    """Return the leads that stand in no joint of the plan yet: any of them may bear another's mark."""
    if state.plan is None:
        return ()
    done = {n for j in state.made for n in j}
    return tuple(n for n in state.plan.network().leads if n not in done)


def _swapped(
    state: Connecting, joints: Sequence[Joint], ends: Sequence[str], swap: tuple[str, str]
) -> dict[tuple[str, str], float]:
    """Return the Ω between the same ends if two leads were exchanged under their marks."""
    other = {swap[0]: swap[1], swap[1]: swap[0]}
    really = tuple(tuple(other.get(n, n) for n in j) for j in joints)
    shown = _ohms(state, really, [other.get(n, n) for n in ends])
    pairs = itertools.combinations(dict.fromkeys(ends), 2)
    return {(a, b): shown[other.get(a, a), other.get(b, b)] for a, b in pairs}


def _ohms(
    state: Connecting, joints: tuple[Joint, ...], ends: Sequence[str]
) -> dict[tuple[str, str], float]:
    """Return the Ω between each two of `ends` with these joints made; open where one is nowhere."""
    plan = state.plan
    if plan is None or state.ohms is None:
        return {}
    inside = arrangement(plan.arrangement).inside(plan.variant)
    network = made(inside, joints, plan.devices, state.ohms, "rest")
    nodes = [n for n in dict.fromkeys(ends) if n in network.nodes()]
    ohm = network.resistance(nodes)
    at = {n: k for k, n in enumerate(nodes)}
    return {
        (a, b): float(ohm[at[a], at[b]]) if a in at and b in at else OPEN
        for a, b in itertools.combinations(dict.fromkeys(ends), 2)
    }


def read_on_the_way(job: Job, state: Connecting, settings: Settings) -> list[Read]:
    """Return the readings taken while the change was under way, each held against its own moment."""
    found = []
    for acts, reading in job.joined.ohms:
        joints = standing_before(job, state.names, acts)
        a, b = (state.names.get(n, n) for n in reading.between)
        expected = _ohms(state, joints, (a, b)).get((a, b))
        try:
            ohm = ohm_value(reading.value).value - (job.meter.lead_ohm or 0.0)
        except CoilError:
            continue
        if expected is not None:
            right = state.near(ohm, expected, settings.line_ohm_apart.value)
            found.append(Read(reading=reading, acts=acts, ohm=ohm, expected=expected, right=right))
    return found


def contradicted(job: Job, state: Connecting, settings: Settings) -> bool:
    """Whether a reading after a joint was wrong and wrong again: the marks it was joined by are not true."""
    last: dict[int, list[bool]] = {}
    for r in read_on_the_way(job, state, settings):
        last.setdefault(r.acts, []).append(r.right)
    return any(len(every) >= TAKES and not any(every[-TAKES:]) for every in last.values())


def last_unproved(job: Job, state: Connecting, read: list[Read]) -> Joint | None:
    """Return the newest joint that no right reading followed: where to go back to when something is odd."""
    proved = max((r.acts for r in read if r.right), default=0)
    acts = [a for a in job.joined.acts[proved:] if a.do == "joint"]
    return tuple(state.names.get(n, n) for n in acts[-1].names) if acts else None


@dataclass(frozen=True, slots=True, kw_only=True)
class Checked:
    """One thing to see before power: its key, what to do, why."""

    name: str
    words: str
    why: str


def checks_of(job: Job, state: Connecting, extras: bool) -> Iterator[Checked]:
    """Yield what is checked by hand and eye once every joint is made; `extras` sensors are there."""
    plan = state.plan
    if plan is None:
        return
    count = len([j for j in plan.joints if len(j) > 1])
    yield Checked(
        name="count",
        words=f"Count the joints: {count}",
        why="One more or fewer than planned is a wrong hookup, whatever the ohms say.",
    )
    alone = [n for n in plan.network().leads if not any(n in j for j in plan.joints)]
    if alone:
        yield Checked(
            name="alone",
            words=f"{', '.join(alone)} insulated, each on its own",
            why="They are live while it runs.",
        )
    if not no_earth(job):
        yield Checked(
            name="earth",
            words="Earth lead on, and longest",
            why="It is there though the lid's diagram does not draw it; pulled out it is the last to go.",
        )
    if extras:
        yield Checked(
            name="sensors",
            words="Sensors and heater joined again",
            why="Thermal and leak leads, on their own terminals, never in a winding's joint.",
        )
    yield Checked(
        name="pinch",
        words="Shaft turned by hand, cover in place, no lead pinched",
        why="A lead under the cover or at the fan is bare by tomorrow.",
    )


def left_to_check(job: Job, state: Connecting, extras: bool) -> tuple[Checked, ...]:
    """Return what is not ticked since the last joint."""
    return tuple(c for c in checks_of(job, state, extras) if not job.joined.since_last_act(c.name))
