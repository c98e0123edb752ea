"""A line of the field sheet on screen: its number and how it is read at the left, the cell at the right."""

from collections.abc import Callable

from PySide6.QtCore import QRect
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QWidget

from careful_coil.core.ledger.site_line import SiteLine
from careful_coil.desk import paint
from careful_coil.desk.field import SHORT, Field
from careful_coil.desk.painted import Painted
from careful_coil.desk.theme import Theme

NUMBER = 30  # pixels at 100 % text


class Numbered(Painted):
    """The number, what is read, how."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.number, self.title, self.how = 0, "", ""
        self.fit()

    def say(self, number: int, title: str, how: str) -> None:
        """Show another line."""
        self.number, self.title, self.how = number, title, how
        self.setAccessibleName(f"{number} {title}. {how}")
        self.fit()

    def _wide(self) -> int:
        return max(self.width() - self.theme.px(NUMBER), 120)

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        t = self.theme
        title = paint.height_of(t, self.title, self._wide(), 15)
        return title + paint.height_of(t, self.how, self._wide(), 13) + t.px(6)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Write it."""
        painter, t = QPainter(self), self.theme
        left = t.px(NUMBER)
        at = QRect(0, 0, left - t.px(8), t.px(24))
        paint.text(painter, t, at, f"{self.number}", bold=True, token="copper")
        box = QRect(left, 0, self._wide(), self.height())
        high = paint.text(painter, t, box, self.title, bold=True, wrap=True)
        below = QRect(left, high, self._wide(), self.height())
        paint.text(painter, t, below, self.how, size=13, token="quiet", wrap=True)


class SiteRow(QWidget):
    """The line and its cell; nothing is shown without a line."""

    def __init__(self, theme: Theme, commit: Callable[[str], None]) -> None:
        super().__init__()
        self.words = Numbered(theme)
        self.field = Field("", commit, theme, most=SHORT)
        self.field.label.hide()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 2, 0, 2)
        row.setSpacing(14)
        row.addWidget(self.words, 5)
        row.addWidget(self.field, 4)
        self.hide()

    def show_line(self, number: int, line: SiteLine) -> None:
        """Show a line and what is on record of it."""
        self.words.say(number, line.title, line.how)
        cell = self.field.cell
        self.field.spoken = f"{number} {line.title}"
        cell.setAccessibleName(self.field.called())
        cell.setObjectName(line.name)
        cell.hint = line.hint
        cell.setPlaceholderText(line.hint)
        self.field.show_text(line.done)
        self.show()
