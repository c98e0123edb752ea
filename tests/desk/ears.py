"""Somebody who hears the window and does not see it: each answer goes where the accessibility tree says it is asked."""

import tempfile
from collections.abc import Mapping
from pathlib import Path
from typing import Any

from PySide6.QtGui import QAccessible, QAccessibleInterface

from careful_coil.core.ledger import NextStep
from careful_coil.core.ledger.asks import Question
from careful_coil.core.settings import Settings
from careful_coil.desk.driven import Key
from careful_coil.desk.walk_window import LOGS_ALL, MOST_PRESSES, WindowBench
from careful_coil.desk.way import SHOWN
from careful_coil.walk.bench import CursorElsewhere, Refused
from careful_coil.walk.play import Played, play
from careful_coil.walk.truth import World

Role, Name, More = QAccessible.Role, QAccessible.Text.Name, QAccessible.Text.Description
DONE_BY_ENTER = ("act", "dead", "discharge", "trial-end")


def under(of: QAccessibleInterface) -> list[QAccessibleInterface]:
    """Return everything below an interface, and itself."""
    found = [of]
    for k in range(of.childCount()):
        child = of.child(k)
        if child is not None:
            found += under(child)
    return found


class Ears(WindowBench):
    """The window driven by keys, by what is heard of it."""

    def hear(self) -> QAccessibleInterface:
        """Return what has the cursor."""
        return QAccessible.queryAccessibleInterface(self.driven.focus)

    def words(self) -> str:
        """Return name and description of what has the cursor."""
        of = self.hear()
        return f"{of.text(Name)} {of.text(More)}".strip()

    def announced(self, begins: str) -> QAccessibleInterface:
        """Return what of the window has a name that begins so."""
        whole = QAccessible.queryAccessibleInterface(self.driven.window)
        return next(i for i in under(whole) if i.text(Name).startswith(begins))

    def station(self) -> str:
        """Return the station that is said to be open."""
        way = self.announced("Stations of")
        rows = [way.child(k) for k in range(way.childCount())]
        return next(r.text(Name) for r in rows if r.state().selected)

    def put(self, step: NextStep, question: Question, text: str) -> None:
        """Hear what Next asks, go where it is answered, answer there.

        Raises: CursorElsewhere, Refused.
        """
        card = self.announced("Next")
        if step.title not in card.text(Name):
            raise CursorElsewhere(question.id, f"heard: {card.text(Name)}")
        before = len(self.entries)
        for _ in range(MOST_PRESSES):
            if self.asked_here(step, question):
                break
            self.driven.ctrl(Key.Key_Return)
            if question.reader == "discharge":
                self._wait_earthed()
            if len(self.entries) > before:
                return
        if not self.asked_here(step, question):
            raise CursorElsewhere(question.id, self.words())
        self.answer(question, text)
        self.driven.settle()
        if len(self.entries) == before:
            if self.hear().role() == Role.EditableText:
                self.driven.key(Key.Key_Escape)
            raise Refused("what the field takes")

    def asked_here(self, step: NextStep, question: Question) -> bool:
        """Whether what has the cursor is heard to be what is asked."""
        of, words = self.hear(), self.words().lower()
        if SHOWN[step.station] not in self.station():
            return False
        if question.reader in DONE_BY_ENTER:
            return False
        if question.reader == "strip":
            return of.text(Name) == "Value"
        if of.role() == Role.List:
            return question.type == "tick" and of.childCount() > 0
        if of.role() == Role.EditableText:
            return of.text(Name).startswith("next")
        if question.reader == "begin":
            return words.startswith("begin a run")
        own = of.text(Name).lower()
        if not question.choices:
            return own == step.title.lower()
        answers = own in [c.lower() for c in question.choices]
        return answers and (not of.text(More) or of.text(More).startswith("next"))

    def answer(self, question: Question, text: str) -> None:
        """Tick until all is heard to be ticked, press the key of the answer, else type it."""
        of = self.hear()
        if of.role() == Role.List:
            rows = [of.child(k) for k in range(of.childCount())]
            for row in rows:
                if not row.state().checked:
                    self.driven.key(Key.Key_Space)
            if question.reader in LOGS_ALL:
                self.driven.key(Key.Key_Return)
        elif of.role() == Role.EditableText:
            self.driven.enter(text)
        elif text.isdecimal() and len(text) == 1:
            self.driven.key(Key(Key.Key_0.value + int(text)))
        else:
            self.press(question, text)

    def press(self, question: Question, text: str) -> None:
        """Walk along the keys until the answer is heard, and press it; a scale takes it typed."""
        for _ in range(len(question.choices) + 1):
            if (
                question.reader == "begin"
                or not question.choices
                or self.hear().text(Name).lower() == text.lower()
            ):
                self.driven.key(Key.Key_Return)
                return
            if self.hear().text(More).startswith("next"):
                self.driven.enter(text)
                return
            self.driven.key(Key.Key_Tab)
        raise Refused(f"There is no key {text}.")


def by_ear(document: Mapping[str, Any], seed: int, settings: Settings) -> tuple[Played, World]:
    """Play a motor through a window that is only heard."""
    with tempfile.TemporaryDirectory(prefix="careful-coil-ears-") as folder:
        bench = Ears(Path(folder), settings)
        try:
            world = World(document, seed)
            return play(world, seed, bench), world
        finally:
            bench.driven.close()
