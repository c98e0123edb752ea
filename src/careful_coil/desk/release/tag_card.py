"""The motor's tag as it would be written now: hung by its hole, volts large or DO NOT CONNECT."""

from PySide6.QtCore import QRect, QRectF
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen

from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.tag import tag_words
from careful_coil.desk import paint
from careful_coil.desk.painted import Painted
from careful_coil.desk.theme import Theme
from careful_coil.report.code import QUIET, code_rows

WIDE, HIGH, HEAD, CODE = 480, 250, 26, 150  # pixels at 100 % text


class TagCard(Painted):
    """A picture of the tag."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.head, self.lines = "", list[str]()
        self._good = False
        self._rows: list[list[bool]] = []
        self.setAccessibleName("The tag as it stands now")
        self.fit()

    def show_tag(self, number: int, judged: Judgement, day: str) -> None:
        """Show the tag of a job."""
        self.head, self.lines = tag_words(number, judged, day)
        self._good = judged.released
        self._rows = code_rows("\n".join((self.head, *self.lines)))
        self.setAccessibleDescription("; ".join((self.head, *self.lines)))
        self.update()

    def least_height(self) -> int:
        """Return the height of the card."""
        return self.theme.px(HIGH) + 4

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the card, its hole, what stands on it."""
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        wide = min(t.px(WIDE), self.width() - 4)
        painter.setPen(QPen(t.colour("ink" if self._good else "hold"), 2))
        painter.setBrush(t.colour("surface"))
        painter.drawRoundedRect(QRectF(2, 2, wide, t.px(HIGH)), t.px(12), t.px(12))
        painter.setBrush(t.colour("ground"))
        painter.drawEllipse(QRectF(wide / 2 - t.px(7), t.px(12), t.px(14), t.px(14)))
        self._paint_code(painter, wide)
        left, y = t.px(18), t.px(34)
        token = "ink" if self._good else "hold"
        at = QRect(left, y, wide - 2 * left, t.px(36))
        paint.text(painter, t, at, self.head, size=HEAD, bold=True, token=token)
        y += t.px(42)
        for line in self.lines:
            box = QRect(left, y, wide - 2 * left - t.px(CODE), t.px(HIGH) - y)
            y += paint.text(painter, t, box, line, size=14, wrap=True) + t.px(3)

    def _paint_code(self, painter: QPainter, wide: int) -> None:
        """Draw the code at the lower right, dark on white in any theme: readers want it so."""
        t = self.theme
        side = t.px(CODE)
        step = side / (len(self._rows) + 2 * QUIET) if self._rows else 0.0
        place = QRectF(wide - side - t.px(12), t.px(HIGH) - side - t.px(10), side, side)
        painter.fillRect(place, QColor("white"))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
        for r, row in enumerate(self._rows):
            for c, dark in enumerate(row):
                if dark:
                    x, y = place.left() + (c + QUIET) * step, place.top() + (r + QUIET) * step
                    painter.fillRect(QRectF(x, y, step, step), QColor("black"))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing, True)
