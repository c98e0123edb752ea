"""A question with its answers as keys."""

from collections.abc import Callable, Sequence
from functools import partial
from typing import Any

from PySide6.QtCore import QEvent, QSize, Qt
from PySide6.QtGui import QKeyEvent, QResizeEvent
from PySide6.QtWidgets import QPushButton, QSizePolicy, QVBoxLayout, QWidget

from careful_coil.desk.flow import Flow
from careful_coil.desk.said import said
from careful_coil.desk.shared.page import plain_label

COLUMNS = 4  # of answers at most
AROUND = 1.7  # heights of a line beside the words of a button, both sides together


class EnterButton(QPushButton):
    """A button that Enter presses too; words that are wider than it stand in lines."""

    def __init__(self, words: str = "", number: int = 0) -> None:
        super().__init__()
        self.number = number  # the digit that presses it, shown before its words; 0: none does
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
        self.setText(words)

    def text(self) -> str:
        """Return the words, whatever lines they stand in."""
        return self._words

    def setText(self, words: str) -> None:  # Qt's own name
        """Show other words."""
        self._words = words
        self._fit()

    def sizeHint(self) -> QSize:
        """Return the room of the words in one line, as high as they stand now."""
        wide = self.fontMetrics().horizontalAdvance(self._shown()) + self._around()
        return QSize(wide, super().sizeHint().height())

    def minimumSizeHint(self) -> QSize:
        """Return the room of the longest word: the rest stands below."""
        metrics = self.fontMetrics()
        words = said(self._words).split()
        widest = max((metrics.horizontalAdvance(w) for w in words), default=0)
        return QSize(widest + self._around(), super().sizeHint().height())

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Break the words as the width wants."""
        super().resizeEvent(event)
        self._fit()

    def changeEvent(self, event: QEvent) -> None:
        """Break them as another face wants."""
        super().changeEvent(event)
        if event.type() in (QEvent.Type.FontChange, QEvent.Type.StyleChange):
            self._fit()

    def _around(self) -> int:
        """Return the pixels beside the words."""
        return round(AROUND * self.fontMetrics().height())

    def _shown(self) -> str:
        """Return the words with their digit."""
        words = said(self._words)
        return f"{self.number}  {words}" if self.number else words

    def _fit(self) -> None:
        metrics, lines = self.fontMetrics(), [""]
        self.setAccessibleName(said(self._words))
        room = max(self.width() - self._around(), 1)
        for word in self._shown().split(" "):
            longer = f"{lines[-1]} {word}" if lines[-1] else word
            if lines[-1] and metrics.horizontalAdvance(longer) > room:
                lines.append(word)
            else:
                lines[-1] = longer
        shown = "\n".join(lines) if len(lines) > 1 else self._shown()
        if shown != super().text():
            super().setText(shown)
            self.updateGeometry()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Enter is a press."""
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.click()
        else:
            super().keyPressEvent(event)


class AskRow(QWidget):
    """The question above, the answers in rows below; nothing is shown without a question."""

    def __init__(self, columns: int = COLUMNS) -> None:
        super().__init__()
        self.question = plain_label()
        self.buttons: list[QPushButton] = []
        self._row = Flow(columns, 0)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(8)
        column.addWidget(self.question)
        column.addWidget(self._row)
        column.addStretch()
        self._asked: tuple[str, tuple[str, ...]] = ("", ())
        self._answered: Callable[[str], None] = lambda _: None
        self.hide()

    def ask(self, question: str, answers: Sequence[str], answered: Callable[[str], None]) -> None:
        """Ask; `answered` is called with the answer chosen. The same question keeps its keys."""
        self._answered = answered
        if self._asked == (question, tuple(answers)):
            return
        self._asked = (question, tuple(answers))
        had = self._has_cursor()
        self._row.clear()
        self.buttons = []
        self.question.setText(said(question))
        self.setVisible(bool(question))
        for answer in answers:
            button = EnterButton(
                answer[0].upper() + answer[1:], len(self.buttons) + 1 if len(answers) < 10 else 0
            )
            button.clicked.connect(partial(self._chosen, answer))
            self._row.add(button)
            self.buttons.append(button)
        for made in self.buttons if question else ():
            if made.parentWidget() is not None:
                made.show()  # at once: the cursor may be wanted on it before the layout shows it
        if had:
            self._keep_cursor()

    def _has_cursor(self) -> bool:
        focus = self.window().focusWidget()
        return focus is not None and self.isAncestorOf(focus)

    def _keep_cursor(self) -> None:
        """Put the cursor on the next question's answers, else on the strip: it must not be nowhere."""
        if self.buttons:
            self.buttons[0].setFocus(Qt.FocusReason.OtherFocusReason)
            return
        at = self.parentWidget()
        while at is not None and not hasattr(at, "session"):
            at = at.parentWidget()
        session: Any = getattr(at, "session", None)
        if session is not None:
            session.strip_wanted.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """A digit is the answer of that number."""
        place = event.key() - Qt.Key.Key_1.value
        if 0 <= place < len(self.buttons):
            self.buttons[place].click()
        else:
            super().keyPressEvent(event)

    def _chosen(self, answer: str) -> None:
        self._answered(answer)
