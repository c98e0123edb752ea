"""A walk through the real window: the keys that the card and the cursor show, and no others."""

import os
import sys
import tempfile
from collections.abc import Mapping, Sequence
from datetime import timedelta
from pathlib import Path
from typing import Any

from PySide6.QtCore import QMessageLogContext, QtMsgType, qInstallMessageHandler
from PySide6.QtWidgets import QLineEdit, QPushButton, QWidget

from careful_coil.core.condition.wall_rules import discharge_seconds
from careful_coil.core.job import Entry
from careful_coil.core.ledger import Judgement, NextStep
from careful_coil.core.ledger.asks import Question
from careful_coil.core.settings import Settings
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.cell import Cell
from careful_coil.desk.connect.beyond import TagRoll
from careful_coil.desk.driven import CTRL, Driven, Key
from careful_coil.desk.stations.in_section import CALLED, ENDS
from careful_coil.desk.tick_roll import TickRoll
from careful_coil.records.shop_settings import write_settings
from careful_coil.walk.bench import BEGINS, WHO, WINDING_C, CursorElsewhere, Refused
from careful_coil.walk.play import Played, play
from careful_coil.walk.truth import World

MOST_PRESSES = 3  # of Next until the cursor stands where it is answered
LOGS_ALL = ("ready", "trial-ready")  # lists that are logged by Enter when all is ticked


class WindowBench:
    """The window on an empty shop, driven by keys; who is at the bench and the °C are set once before."""

    def __init__(self, folder: Path, settings: Settings) -> None:
        self._later = timedelta()
        write_settings(folder, settings)
        self.driven = Driven(folder, False, lambda: BEGINS + self._later)
        session = self.driven.window.session
        session.who = WHO
        session.put_under(at_c=WINDING_C)
        self.driven.ctrl(Key.Key_N)
        self.driven.settle(lambda: session.open is not None)
        self.driven.settle()

    @property
    def keys(self) -> int:
        """Return the keys pressed so far."""
        return self.driven.keys

    @property
    def entries(self) -> Sequence[Entry]:
        """Return the log."""
        job = self.driven.window.session.open
        return job.entries if job is not None else ()

    def judged(self) -> Judgement:
        """Return the judgement the window shows."""
        job = self.driven.window.session.open
        if job is None:
            raise AssertionError("the walk's job is closed")
        return job.judged

    def pass_time(self, minutes: float) -> None:
        """Let the wall clock run; what lapses by it is judged as the window's own look at the clock does."""
        self._later += timedelta(minutes=minutes)
        self.driven.window.session.by_the_clock()
        self.driven.settle()

    def skip(self, step: NextStep) -> None:
        """Go to the strip and put the step off."""
        self.driven.ctrl(Key.Key_M)
        self.driven.key(Key.Key_Plus)

    def put(self, step: NextStep, question: Question, text: str) -> None:
        """Do what the card says, then answer where the cursor is.

        Raises: CursorElsewhere; Refused where the window does not take it.
        """
        before = len(self.entries)
        if self._go(step, question, before):
            return
        focus = self.driven.focus
        if isinstance(focus, TickRoll):
            self._tick(focus, question, before)
        elif isinstance(focus, TagRoll):
            for _ in question.choices:
                self.driven.key(Key.Key_Space)
        elif isinstance(focus, QPushButton):
            self._choose(step, question, text)
        else:
            self.driven.enter(text)
        self.driven.settle()
        if len(self.entries) == before:
            words = self._refused()
            if isinstance(focus, Cell):
                self.driven.key(Key.Key_Escape)
            raise Refused(words)

    # --- to where it is answered ---------------------------------------------------------------------

    def _go(self, step: NextStep, question: Question, before: int) -> bool:
        """Press Next until the log grows (the card does it itself) or the cursor is at the question.

        At the strip Enter alone is Next.
        """
        if self._at(step, question):
            return False
        for _ in range(MOST_PRESSES):
            line = self.driven.window.strip.line
            at_strip = self.driven.focus is line and not line.text()
            self.driven.key(Key.Key_Return, *(() if at_strip else (CTRL,)))
            if question.reader == "discharge":
                self._wait_earthed()
            if len(self.entries) > before:
                return True
            if self._at(step, question):
                return False
        raise CursorElsewhere(question.id, self._where())

    def _wait_earthed(self) -> None:
        """Let the earth stay on as long as the countdown says."""
        session = self.driven.window.session
        charged = self.judged().job.tested.charged()
        if session.clock.discharging and charged is not None:
            self.driven.pass_time(discharge_seconds(charged.body), 30.0)

    def _at(self, step: NextStep, question: Question) -> bool:
        """Whether the cursor is where an answer is taken: the strip, the field, its list, its keys."""
        focus = self.driven.focus
        if self.driven.window.session.station != step.station:
            return False
        if question.reader == "strip":
            return focus is self.driven.window.strip.line
        if question.reader in ("act", "dead", "discharge", "trial-end"):
            return False  # the card does it
        if question.type == "tick" and isinstance(focus, TickRoll):
            return set(question.choices) <= {i.name for i in focus.items}
        if question.type == "tick" and isinstance(focus, TagRoll):
            return set(question.choices) <= {place for place, *_ in focus.rows}
        if isinstance(focus, QPushButton):
            return self._button(focus, step, question)
        return isinstance(focus, QLineEdit) and focus.objectName() in _names(question)

    def _button(self, focus: QPushButton, step: NextStep, question: Question) -> bool:
        words = focus.text().lower()
        if focus.objectName():  # of a scale: it says of which field
            return focus.objectName() in _names(question)
        if question.reader == "begin":
            return words == f"begin a run, {question.id.replace('-', ' ')}"
        if not question.choices:
            return words == step.title.lower()
        return any(words == c.lower() for c in question.choices)

    def _where(self) -> str:
        focus: QWidget = self.driven.focus
        name = focus.objectName() or focus.accessibleName()
        if isinstance(focus, QPushButton):
            name = focus.text()
        return f"{self.driven.window.session.station}, {name or type(focus).__name__}"

    # --- answers --------------------------------------------------------------------------------------

    def _tick(self, roll: TickRoll, question: Question, before: int) -> None:
        """Tick what is not ticked yet, by A where all is looked over at once, else each with Space.

        Enter where the list is logged as a whole.
        """
        if roll.at_once and any(i.name not in roll.done for i in roll.items):
            self.driven.key(Key.Key_A)
        for _ in range(len(roll.items)):
            if all(i.name in roll.done for i in roll.items):
                break
            self.driven.key(Key.Key_Space)
        if question.reader in LOGS_ALL:
            self.driven.key(Key.Key_Return)

    def _choose(self, step: NextStep, question: Question, text: str) -> None:
        """Walk to the key with the word, and press it; a digit is pressed where the cursor is."""
        if text.isdecimal() and len(text) == 1:
            self.driven.key(Key(Key.Key_0.value + int(text)))
            return
        words = [c.lower() for c in question.choices]
        here = self.driven.focus
        if isinstance(here, EnterButton) and here.objectName():
            self._on_scale(here, text)
            return
        at = here.text().lower() if isinstance(here, QPushButton) else ""
        back = at in words and text.lower() in words and words.index(text.lower()) < words.index(at)
        for _ in range(len(question.choices) + 1):
            focus = self.driven.focus
            if not isinstance(focus, QPushButton):
                break
            own = not question.choices and focus.text().lower() == step.title.lower()
            if question.reader == "begin" or own or focus.text().lower() == text.lower():
                self.driven.key(Key.Key_Return)
                return
            self.driven.key(Key.Key_Backtab if back else Key.Key_Tab)
        raise Refused(f"There is no key {text}.")

    def _on_scale(self, here: EnterButton, text: str) -> None:
        """Press the digit of the answer, else type it in one's own words."""
        row: Any = here.parentWidget()
        keys: list[EnterButton] = row.findChildren(EnterButton)
        digit = next((b.number for b in keys if b.text().lower() == text.lower()), 0)
        if digit:
            self.driven.key(Key(Key.Key_0.value + digit))
        else:
            self.driven.enter(text)

    def _refused(self) -> str:
        window = self.driven.window
        focus = self.driven.focus
        shown = [f.message.text() for f in window.pages[window.session.station].fields.values()]
        said = next((t for t in shown if t), "")
        if focus is window.strip.line:
            return window.strip.note.words
        return said or window.way.message or "what the field takes"


def _names(question: Question) -> tuple[str, ...]:
    """Return what the field of a question may be called: a bearing's is the same at both ends."""
    end, _, rest = question.id.partition("-")
    name = CALLED.get(question.id, question.id)
    return (name, f"bearing-{rest}") if end in ENDS else (name,)


def without_monitor() -> None:
    """Let Qt run where there is no display, and keep what its offscreen plugin says at every show to itself."""
    if not os.environ.get("DISPLAY") and not os.environ.get("WAYLAND_DISPLAY"):
        os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    qInstallMessageHandler(_told)


def _told(_: QtMsgType, __: QMessageLogContext, words: str) -> None:
    if "propagateSizeHints" not in words:
        print(words, file=sys.stderr)


def play_in_window(
    document: Mapping[str, Any], seed: int, settings: Settings
) -> tuple[Played, World]:
    """Play a motor through the window, on a shop of its own that is thrown away."""
    with tempfile.TemporaryDirectory(prefix="careful-coil-walk-") as folder:
        bench = WindowBench(Path(folder), settings)
        try:
            world = World(document, seed)
            return play(world, seed, bench), world
        finally:
            bench.driven.close()
