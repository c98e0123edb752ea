"""Sheets of test runs, folded from their entries, each with how often hands were on the motor before it."""

from dataclasses import dataclass, field, replace
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

# entries that make an earlier run speak of another motor, and how they are named
CHANGES = {
    "joint": "a joint made",
    "parted": "leads parted",
    "stands-so": "joints taken as they stand",
    "work": "work on the winding",
    "lead-mended": "a lead mended",
    "gear-step": "start gear worked on",
    "bearing": "bearings",
    "brush": "brushes",
    "part-off": "parts off and on",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Trial:
    """One sheet. `changes` how many changes to the motor came before it; `at` and `by` its beginning.

    `step_at` and `start_at` are when each step and start was logged, UTC.
    """

    begun: TrialBegun
    at: str
    by: str
    changes: int
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
    """All sheets in order; `changes` to the motor so far, `done` what was changed since the last sheet."""

    sheets: tuple[Trial, ...] = ()
    changes: int = 0
    done: tuple[str, ...] = field(default=())

    @property
    def now(self) -> Trial | None:
        """Return the sheet that is open."""
        return self.sheets[-1] if self.sheets and self.sheets[-1].open else None

    @property
    def last_whole(self) -> Trial | None:
        """Return the newest whole sheet without load, whatever was done since."""
        own = (t for t in reversed(self.sheets) if t.whole and t.begun.load == "none" and t.steps)
        return next(own, None)

    def standing(self) -> tuple[Trial, ...]:
        """Return the newest whole sheet of each speed, direction, load and covers, of the motor as it is."""
        newest = {
            (t.begun.covers, t.begun.load, t.begun.speed, t.begun.direction): t
            for t in self.sheets
            if t.whole and t.changes == self.changes
        }
        return tuple(newest.values())

    def last(self, covers: str, speed: str | None = None) -> Trial | None:
        """Return the newest whole sheet without load that speaks of the motor as it is.

        `covers` off or on, `speed` one of several, None: whichever.
        """
        return next(
            (
                t
                for t in reversed(self.sheets)
                if t.whole
                and t.begun.covers == covers
                and t.begun.load == "none"
                and t.changes == self.changes
                and speed in (None, t.begun.speed)
            ),
            None,
        )


def notice_trial(known: Trials, entry: Entry) -> Trials:
    """Return what is known after one more entry; what belongs to no open sheet is left out."""
    body: Any = entry.body
    if isinstance(body, TrialBegun):
        sheets = known.sheets
        if known.now is not None:  # a new one closes what was left open
            left = replace(known.sheets[-1], ended=TrialEnded(abandoned="another sheet was begun"))
            sheets = (*known.sheets[:-1], left)
        fresh = Trial(begun=body, at=entry.at, by=entry.by, changes=known.changes)
        return replace(known, sheets=(*sheets, fresh), done=())
    if body.kind in CHANGES:
        words = CHANGES[body.kind]
        done = (*known.done, words) if words not in known.done else known.done
        return replace(known, changes=known.changes + 1, done=done)
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
    return replace(known, sheets=(*known.sheets[:-1], now))
