"""What a walk is played on: the bare core here, the real window in the desk."""

from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from typing import Protocol

from careful_coil.core.connect.dead import AtBench
from careful_coil.core.errors import CoilError
from careful_coil.core.job import Entry, fold
from careful_coil.core.ledger import Judgement, NextStep, judge
from careful_coil.core.ledger.answers import Answer, Hands, read_answer
from careful_coil.core.ledger.asks import Question
from careful_coil.core.probes import TestSetting
from careful_coil.core.settings import Settings

BEGINS = datetime(2026, 3, 2, 8, 0, tzinfo=UTC)
WHO, WINDING_C = "AB", 20.0


class CursorElsewhere(CoilError):
    """The cursor is not where the question is answered: one who only obeys is stuck."""

    def __init__(self, asked: str, at: str) -> None:
        super().__init__(f"{asked} is asked, the cursor is at {at}")


class Refused(CoilError):
    """What was typed was not taken; the words are the window's own."""


class Bench(Protocol):
    """Where answers are put and the next question comes from."""

    def judged(self) -> Judgement:
        """Return the judgement of the log as it is now."""

    def put(self, step: NextStep, question: Question, text: str) -> None:
        """Answer what is asked.

        Raises: CursorElsewhere; any other CoilError where the answer is refused.
        """

    def skip(self, step: NextStep) -> None:
        """Put a step aside."""

    def pass_time(self, minutes: float) -> None:
        """Let the clock run."""

    @property
    def entries(self) -> Sequence[Entry]:
        """Return the log."""

    @property
    def keys(self) -> int | None:
        """Return the keys pressed so far, None where there are none."""


class CoreBench:
    """The log and the core, no window."""

    keys = None

    def __init__(self, settings: Settings) -> None:
        self._settings = settings
        self._entries: list[Entry] = []
        self._aside: set[str] = set()
        self._now = BEGINS
        self._judged: Judgement | None = None

    @property
    def now(self) -> str:
        """Return the time as it is written."""
        return self._now.strftime("%Y-%m-%dT%H:%M:%S.%fZ")

    @property
    def entries(self) -> Sequence[Entry]:
        """Return the log."""
        return self._entries

    def judged(self) -> Judgement:
        """Return the judgement of the log as it is now."""
        if self._judged is None:
            bench = AtBench(self.now, WHO)
            self._judged = judge(fold(self._entries), self._settings, self._aside, bench)
        return self._judged

    def put(self, step: NextStep, question: Question, text: str) -> None:
        """Answer what is asked. Raises: CoilError where it is refused."""
        judged = self.judged()
        span = judged.facts.wall.test_volts()
        setting = TestSetting(at_c=WINDING_C, volt=span[0] if span else 500.0)
        hands = Hands(who=WHO, now=self.now, setting=setting, settings=self._settings)
        bodies, station = read_answer(
            Answer(judged=judged, step=step, question=question, text=text, hands=hands)
        )
        for body in bodies:
            number = len(self._entries) + 1
            own = Entry(id=f"walk-{number}", at=self.now, by=WHO, station=station, body=body)
            self._entries.append(own)
        self._judged = None

    def skip(self, step: NextStep) -> None:
        """Put a step aside."""
        self._aside.add(step.code)
        self._judged = None

    def pass_time(self, minutes: float) -> None:
        """Let the clock run."""
        self._now += timedelta(minutes=minutes)
        self._judged = None
