"""Which way it turns: what is wanted and what was seen, from both ends, and how to turn it round.

IEC 60034-8 looks at the drive end, NEMA MG 1 at the end opposite the drive: a direction without an
end says nothing.
"""

import itertools
import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from pydantic import ValidationError

from careful_coil.core.choices import plain
from careful_coil.core.condition.suspicion import symptoms_in
from careful_coil.core.connect.called import in_words
from careful_coil.core.connect.plans import turned_round
from careful_coil.core.connect.steps import in_order
from careful_coil.core.connect.work import Connecting
from careful_coil.core.errors import BadValue
from careful_coil.core.job import Job
from careful_coil.core.job.at_connect import TurnSeen
from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.way import LINES, Joint, Plan

DRIVE = "drive-end"  # the end that IEC 60034-8 looks at
WORDS = {"cw": "clockwise", "ccw": "counter-clockwise"}
OTHER = {"cw": "ccw", "ccw": "cw"}
ENDS = {"drive-end": "the drive end", "opposite": "the end opposite the drive"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Direction:
    """A direction at the drive end, cw or ccw; `words` it from both ends."""

    at_drive: str

    def words(self, view: str = DRIVE) -> str:
        """Return it from both ends, that of the shop's `view` first."""
        here, there = WORDS[self.at_drive], WORDS[OTHER[self.at_drive]]
        if view != DRIVE:
            return f"{there} seen from the opposite end, {here} from the drive end"
        return f"{here} seen from the drive end, {there} from the opposite end"


def direction(turns: str, seen_from: str) -> Direction:
    """Return a direction told from one end."""
    return Direction(at_drive=turns if seen_from == "drive-end" else OTHER[turns])


def wanted_direction(job: Job) -> Direction | None:
    """Return the direction that is wanted; None where none is, or the end is not said."""
    turns = job.joined.wish.get("rotation", "")
    end = job.joined.wish.get("seen-from", "")
    if turns in WORDS and end in ENDS:
        return direction(turns, end)
    printed = PLATE.match(job.plate.printed("rotation").strip())
    if turns or end or printed is None:
        return None
    return direction(
        printed[1].lower(), "opposite" if printed[2].upper() in LEAD_END else "drive-end"
    )


PLATE = re.compile(r"(CC?W)[\s,]*(?:from\s*)?(DE|SE|LE|OPE|ODE|NDE)\b", re.IGNORECASE)
LEAD_END = ("LE", "OPE", "ODE", "NDE")


def seen_direction(job: Job) -> Direction | None:
    """Return the direction that was seen last since the last joint: by eye, or as a sheet has it."""
    turned = job.joined.turned
    since = job.deeds.last("direction")
    sheet = next(
        (
            t
            for t in reversed(job.trials.sheets)
            if t.begun.direction and t.steps and t.place > since
        ),
        None,
    )
    if sheet is not None and sheet.place > job.deeds.stamps.get("turn-seen", -1):
        return Direction(at_drive=sheet.begun.direction)
    return direction(turned.turns, turned.seen_from) if turned is not None else None


PUMPS = re.compile(r"\bpumps?\b", re.IGNORECASE)
BACKWARDS = ("reversed", "backwards")


def matters(job: Job) -> str:
    """Return why its direction matters though nobody said which is wanted; empty where it does not."""
    if PUMPS.search(f"{job.ticket.get('name', '')} {job.ticket.get('place', '')}"):
        return "A pump running backwards pumps little, and may unscrew its wheel."
    if came_backwards(job):
        return "It came in running backwards."
    if job.plate.printed("rotation").strip():
        return "The plate gives a direction."
    return ""


def came_backwards(job: Job) -> bool:
    """Whether it is said to have run backwards: then only a wanted direction tells that it is mended."""
    told = {*symptoms_in(job.ticket.get("complaint", ""))}
    told |= {k for k, v in job.seen.symptoms.items() if v == "yes"}
    return bool(told & {*BACKWARDS})


def turns_words(job: Job, view: str = DRIVE) -> str:
    """Return which way it turns, as seen or as wanted."""
    seen, wanted = seen_direction(job), wanted_direction(job)
    if seen is not None:
        return f"{seen.words(view)}, as seen"
    return f"{wanted.words(view)}, wanted" if wanted is not None else "not seen yet"


def wrong_way(job: Job) -> bool:
    """Whether it was seen turning against what is wanted."""
    wanted, seen = wanted_direction(job), seen_direction(job)
    return wanted is not None and seen is not None and wanted != seen


def how_to_turn(state: Connecting) -> str:
    """Return in words how this motor's direction is changed, which leads exactly."""
    plan = state.plan
    return in_words(_turned_by(plan, state.by_other), state.called) if plan is not None else ""


def _turned_by(plan: Plan, by_other: bool) -> str:
    if not plan.turning:
        joints = {n: j for j in plan.joints for n in ("L1", "L2") if n in j}
        one, two = (" – ".join(n for n in joints.get(k, ()) if n != k) for k in ("L1", "L2"))
        return (
            f"Exchange L1 and L2: {one} to L2, {two} to L1. Any two lines do, at the motor's own box; "
            "on the supply it would turn every motor on it."
        )
    if plan.turning == "opening":
        return (
            "Not by its leads: by opening it, or, where both windings read equal ohms, by putting the line "
            "on the capacitor's other end."
        )
    if plan.turning == "no":
        return "Not by leads: turn the stator or the rotor end for end in the frame."
    other = (not plan.reversed and turned_round(plan, by_other)) or _other_way(plan)
    if other is None:
        return "This hookup has no other direction by leads."
    moved = moved_leads(plan.joints, other.joints)
    what = "field against armature" if "universal" in plan.arrangement else "one winding, not both"
    return f"Exchange {moved}: {what}."


def _other_way(plan: Plan) -> Plan | None:
    """Return the same hookup the other way round."""
    return next(
        (
            p
            for p in plans_of(plan.arrangement, plan.variant, plan.devices)
            if p.reversed != plan.reversed
            and (p.connection, p.speed, p.start) == (plan.connection, plan.speed, plan.start)
        ),
        None,
    )


def moved_leads(before: tuple[Joint, ...], after: tuple[Joint, ...]) -> str:
    """Return the leads that are exchanged, in words: T5 and T8; T6 and T7."""
    wanted = {frozenset(j) for j in after}
    names = (n for j in before for n in j if "." not in n and n not in (*LINES, "N"))
    leads = in_order(names)
    pairs = list(itertools.combinations(leads, 2))
    for several in ((p,) for p in pairs), itertools.combinations(pairs, 2):
        for exchanged in several:
            other = {n: m for a, b in exchanged for n, m in ((a, b), (b, a))}
            if {frozenset(other.get(n, n) for n in j) for j in before} == wanted:
                return "; ".join(f"{a} and {b}" for a, b in exchanged)
    moved = sorted({n for j in before if frozenset(j) not in wanted for n in j if n in leads})
    return ", ".join(moved)


def read_direction(
    text: str, how: Literal["indicator", "low run", "bump", "run"], view: str = DRIVE
) -> TurnSeen:
    """Return a direction as seen: cw or ccw, then the end, the shop's `view` where none is said. Raises: BadValue."""
    turns, _, end = text.strip().lower().partition(" ")
    try:
        told = {"turns": turns, "seen_from": end.strip() or view, "how": how}
        return TurnSeen.model_validate(told)
    except ValidationError:
        raise BadValue(text, "cw or ccw, then drive-end or opposite") from None


TURN_WANTED = "which way, from which end, how: cw drive-end indicator (or low run, bump, run)"
HOW = ("indicator", "low run", "bump", "run")
_TURNS = {
    **dict.fromkeys(("ccw", "counterclockwise", "counter clockwise", "anticlockwise"), "ccw"),
    **dict.fromkeys(("anti clockwise", "acw"), "ccw"),
    **dict.fromkeys(("cw", "clockwise"), "cw"),
}
_ENDS = {
    **dict.fromkeys(("opposite drive end", "opposite end", "opposite", "ode", "nde"), "opposite"),
    **dict.fromkeys(("non drive end", "fan end", "rear"), "opposite"),
    **dict.fromkeys(("drive end", "shaft end", "load end", "drive", "de", "shaft"), "drive-end"),
}
_FILLING = {"from", "the", "seen", "by", "at", "with", "on", "a", "looking"}


def read_turn(text: str) -> TurnSeen:
    """Return which way it turned, from which end and how that was seen, as typed. Raises: BadValue."""
    told = plain(text)
    turns = _said(_TURNS, told)
    rest = re.sub(rf"(?<!\w){re.escape(turns[1])}(?!\w)", " ", told, count=1) if turns else told
    end, how = _said(_ENDS, rest), _said({h: h for h in HOW}, rest)
    if turns is None or end is None:
        raise BadValue(text, TURN_WANTED)
    over = rest
    for words in (end[1], how[1] if how else ""):
        over = re.sub(rf"(?<!\w){re.escape(words)}(?!\w)", " ", over, count=1) if words else over
    if set(over.split()) - _FILLING:
        raise BadValue(text, TURN_WANTED)
    return TurnSeen.model_validate(
        {"turns": turns[0], "seen_from": end[0], "how": how[0] if how else "low run"}
    )


def _said(meant: Mapping[str, str], told: str) -> tuple[str, str] | None:
    """Return what is meant by the longest of some words that are said, and these words."""
    found = [w for w in meant if re.search(rf"(?<!\w){re.escape(w)}(?!\w)", told)]
    words = max(found, key=len, default="")
    return (meant[words], words) if words else None


def reversible(state: Connecting) -> str:
    """Return whether its direction can be changed, from outside, by opening it, or not; empty while unknown."""
    plan = state.plan
    if plan is None:
        return ""
    return {
        "": "Reversible outside: exchange two lines",
        "outside": "Reversible outside, by leads",
        "opening": "Reversible only by opening it",
        "no": "Not reversible by leads",
    }[plan.turning]
