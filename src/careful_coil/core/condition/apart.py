"""What must be off or earthed before an insulation tester goes on: from this motor's own parts."""

from collections.abc import Container, Sequence
from dataclasses import dataclass

from careful_coil.core.clock import is_within
from careful_coil.core.condition.checklist import CANS, LEAST_ODDS
from careful_coil.core.condition.wall import Wall
from careful_coil.core.job import Job
from careful_coil.core.kind import Weighed

SWITCHED = ("split-phase", "capacitor-start", "capacitor-start-run")
DRIVEN = ("three-phase", "three-phase-magnet", "synchronous")
SENSES = ("thermistor", "rtd", "thermostat", "tachometer", "protector")


@dataclass(frozen=True, slots=True, kw_only=True)
class Off:
    """A thing to tick: `name` its key, `words` what to do, `why`."""

    name: str
    words: str
    why: str


def clips(
    tags: Sequence[str], beside: Container[str], tested: Sequence[str], earths: bool
) -> tuple[list[str], list[str]]:
    """Return the leads on the tester's clip and those on earth with the frame.

    `beside` the earth lead, sensors and the like: they stand at the frame, never on the clip, unless they are
    what is `tested` (nothing: the whole winding); `earths` whether the other windings stand at earth.
    """
    joined = [*tested] if tested else [t for t in tags if t not in beside]
    left = [t for t in tags if t not in joined]
    return joined, [t for t in left if t in beside or earths]


def to_take_off(job: Job, wall: Wall, kinds: Weighed) -> tuple[Off, ...]:
    """Return what to take off, earth or keep clear of, each to be ticked."""
    odds: dict[str, float] = {o.kind.name: o.probability for o in kinds.odds}

    def likely(names: tuple[str, ...]) -> bool:
        return sum(odds.get(n, 0.0) for n in names) >= LEAST_ODDS

    found = [
        Off(
            name="leads",
            words="Every lead is off the line and off its joints to other parts",
            why="Hundreds of volts go on; what is joined is tested with it.",
        )
    ]
    if job.seen.sealed:
        found.append(
            Off(
                name="vacuum",
                words="Not under vacuum: gas or air in the shell",
                why="In a vacuum volts leap over at the pins: no tester, no run.",
            )
        )
    single = job.plate.phases != 3
    if job.plate.microfarad or (single and likely(CANS)):
        found.append(
            Off(
                name="capacitors",
                words="Capacitors discharged and taken off",
                why="They read as a slow rise, and keep the tester's charge.",
            )
        )
    if single and likely(SWITCHED):
        found.append(
            Off(
                name="electronic",
                words="Electronic switch or relay taken off, if there is one",
                why="The tester's volts break it down.",
            )
        )
    for tag, kind in sorted(wall.extras.items()):
        if kind in SENSES or kind in ("heater", "brake"):
            others = sorted(t for t, k in wall.extras.items() if k == kind)
            if tag != others[0]:
                continue
            found.append(
                Off(
                    name=f"{kind} {' '.join(others)}",
                    words=f"{kind.capitalize()} {' '.join(others)}: ends joined and earthed",
                    why="Its own insulation is thin, its electronics thinner.",
                )
            )
    if job.plate.phases == 3 or likely(DRIVEN):
        found.append(
            Off(
                name="drive",
                words="No drive, soft starter or surge arrester left on",
                why="They lead to earth, and break.",
            )
        )
    if len(wall.groups) > 1:
        found.append(
            Off(
                name="others",
                words="Ends of the winding under test joined, the other windings earthed",
                why="Then one test sees the frame and every other winding.",
            )
        )
    found.append(
        Off(
            name="clear",
            words="Frame earthed, nobody touches motor or leads",
            why="The winding stays charged after the test.",
        )
    )
    return tuple(found)


def ready_for(job: Job, wall: Wall, kinds: Weighed, now: str = "", minutes: float = 0.0) -> bool:
    """Whether every item was ticked, and no hand was on the motor since.

    The tick lapses after so many `minutes` (0: never) at the time `now` (UTC; empty: not known): nobody
    vouches for what was off an hour ago.
    """
    ready = job.tested.ready
    if ready is None or not job.tested.is_ready():
        return False
    latest = max((ready.at, *(t.at for t in job.tested.tests if t.place > ready.place)))
    if now and minutes and not is_within(latest, now, minutes):
        return False
    return {o.name for o in to_take_off(job, wall, kinds)} <= set(ready.body.items)
