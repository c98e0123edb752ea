"""Sheets of test runs, folded from their entries, each with its place in the log."""

from dataclasses import dataclass, replace
from typing import Any

from careful_coil.core.job.at_trial import (
    TrialBegun,
    TrialEnded,
    TrialHeard,
    TrialReady,
    TrialStart,
    TrialStep,
)
from careful_coil.core.job.entries import Entry


@dataclass(frozen=True, slots=True, kw_only=True)
class Trial:
    """One sheet. `place`, `at` and `by` its beginning, `last` the place of its newest entry.

    `step_at` and `start_at` are when each step and start was logged, UTC.
    """

    begun: TrialBegun
    at: str
    by: str
    place: int
    last: int
    ready: tuple[str, ...] = ()
    steps: tuple[TrialStep, ...] = ()
    starts: tuple[TrialStart, ...] = ()
    step_at: tuple[str, ...] = ()
    start_at: tuple[str, ...] = ()
    heard: tuple[TrialHeard, ...] = ()
    ended: TrialEnded | None = None

    @property
    def open(self) -> bool:
        """Whether it is still being run."""
        return self.ended is None

    @property
    def whole(self) -> bool:
        """Whether it was ended as it should be."""
        return self.ended is not None and not self.ended.abandoned

    def of(self, what: str) -> str:
        """Return the newest of what was heard, empty where nothing was."""
        return next((h.text for h in reversed(self.heard) if h.what == what), "")


@dataclass(frozen=True, slots=True, kw_only=True)
class Trials:
    """All sheets in order."""

    sheets: tuple[Trial, ...] = ()

    @property
    def now(self) -> Trial | None:
        """Return the sheet that is open."""
        return self.sheets[-1] if self.sheets and self.sheets[-1].open else None

    @property
    def last_whole(self) -> Trial | None:
        """Return the newest whole sheet without load, whatever was done since."""
        own = (t for t in reversed(self.sheets) if t.whole and t.begun.load == "none" and t.steps)
        return next(own, None)

    def standing(self, since: int) -> tuple[Trial, ...]:
        """Return the newest whole sheet of each speed, direction, load and covers begun after a place."""
        newest = {
            (t.begun.covers, t.begun.load, t.begun.speed, t.begun.direction): t
            for t in self.sheets
            if t.whole and t.place > since
        }
        return tuple(newest.values())

    def last(self, covers: str, since: int, speed: str | None = None) -> Trial | None:
        """Return the newest whole sheet without load begun after a place.

        `covers` off or on, `speed` one of several, None: whichever.
        """
        return next(
            (
                t
                for t in reversed(self.sheets)
                if t.whole
                and t.begun.covers == covers
                and t.begun.load == "none"
                and t.place > since
                and speed in (None, t.begun.speed)
            ),
            None,
        )


def notice_trial(known: Trials, entry: Entry, place: int) -> Trials:
    """Return what is known after one more entry; what belongs to no open sheet is left out."""
    body: Any = entry.body
    if isinstance(body, TrialBegun):
        sheets = known.sheets
        if known.now is not None:  # a new one closes what was left open
            left = replace(known.sheets[-1], ended=TrialEnded(abandoned="another sheet was begun"))
            sheets = (*known.sheets[:-1], left)
        fresh = Trial(begun=body, at=entry.at, by=entry.by, place=place, last=place)
        return replace(known, sheets=(*sheets, fresh))
    now = known.now
    if now is None:
        return known
    if isinstance(body, TrialReady):
        now = replace(now, ready=body.items)
    elif isinstance(body, TrialStep):
        now = replace(now, steps=(*now.steps, body), step_at=(*now.step_at, entry.at))
    elif isinstance(body, TrialStart):
        now = replace(now, starts=(*now.starts, body), start_at=(*now.start_at, entry.at))
    elif isinstance(body, TrialHeard):
        now = replace(now, heard=(*now.heard, body))
    elif isinstance(body, TrialEnded):
        now = replace(now, ended=body)
    else:
        return known
    return replace(known, sheets=(*known.sheets[:-1], replace(now, last=place)))
