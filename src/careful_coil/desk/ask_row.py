"""A question with its answers as keys."""

from collections.abc import Callable, Sequence
from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from careful_coil.desk.flow import Flow
from careful_coil.desk.shared.page import plain_label

COLUMNS = 4  # of answers at most


class EnterButton(QPushButton):
    """A button that Enter presses too."""

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
        self._row.clear()
        self.buttons = []
        self.question.setText(question)
        self.setVisible(bool(question))
        for answer in answers:
            button = EnterButton(answer[0].upper() + answer[1:])
            button.clicked.connect(partial(self._chosen, answer))
            self._row.add(button)
            self.buttons.append(button)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """A digit is the answer of that number."""
        place = event.key() - Qt.Key.Key_1.value
        if 0 <= place < len(self.buttons):
            self.buttons[place].click()
        else:
            super().keyPressEvent(event)

    def _chosen(self, answer: str) -> None:
        self._answered(answer)
