"""Isolated and proved dead: it lapses, and is asked again before the next cut or joint."""

from dataclasses import dataclass

from careful_coil.core.clock import is_within, minutes_between
from careful_coil.core.job import Job
from careful_coil.core.settings import Settings


@dataclass(frozen=True, slots=True)
class AtBench:
    """Now, in UTC as ISO 8601 text (empty: not known), and whose hands (empty: not said)."""

    now: str = ""
    who: str = ""


NOBODY = AtBench()


def lapsed(job: Job, bench: AtBench, settings: Settings) -> str:
    """Return why the proof no longer holds, empty while it does: time, other initials, a power step."""
    proved = job.dead_proved
    if proved is None:
        return (
            "Not proved dead since it last had volts." if job.joined.run else "Not proved dead yet."
        )
    if bench.who and proved.by and proved.by != bench.who:
        return f"Proved by {proved.by}; these are other hands."
    if bench.now:
        limit = settings.dead_minutes.value
        minutes = minutes_between(proved.at, bench.now)
        if minutes > limit:
            return f"Proved {minutes:.0f} min ago; it holds for {limit:g} min."
        if not is_within(proved.at, bench.now, limit):
            return (
                f"Proved {proved.at[:16].replace('T', ' ')} by a clock that is ahead of this one."
            )
    return ""
