"""The index of a station: a line for each part, how far it is; what is not asked yet says so."""

from PySide6.QtCore import QPointF, QRect
from PySide6.QtGui import QPainter

from careful_coil.core.ledger import Judgement
from careful_coil.desk import paint
from careful_coil.desk.part import Part
from careful_coil.desk.roll import Roll
from careful_coil.desk.theme import Theme

WIDE = 168
HIGH = 46


class Index(Roll):
    """The lines; the arrows open the next part."""

    def __init__(self, theme: Theme, parts: list[Part], station: str) -> None:
        super().__init__(theme, f"Parts of {station}")
        self._parts = parts
        self.told: list[tuple[str, str]] = [("", "")] * len(parts)
        self.set_theme(theme)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        super().set_theme(theme)
        self.setFixedWidth(theme.px(WIDE))

    def show_judgement(self, judged: Judgement) -> None:
        """Show how far each part is."""
        self.told = [p.told(judged) for p in self._parts]
        if self.shows(*self.told):
            self.retell()

    def count(self) -> int:
        """Return how many parts there are."""
        return len(self._parts)

    def row_height(self, k: int) -> int:
        """Return a row's height in pixels."""
        return self.theme.px(HIGH)

    def row_words(self, k: int) -> str:
        """Return a part in words."""
        return f"{self._parts[k].title}: {self.told[k][1]}"

    def paint_row(self, painter: QPainter, k: int, box: QRect) -> None:
        """Draw the title, how far it is, the mark; a bar beside the open one."""
        t = self.theme
        if k == self.current:
            painter.fillRect(QRect(box.left(), box.top(), 4, box.height()), t.colour("ink"))
        mark, words = self.told[k]
        inner = box.adjusted(14, t.px(4), -t.px(24), -t.px(4))
        half = inner.height() // 2
        title = QRect(inner.left(), inner.top(), inner.width(), half)
        paint.text(painter, t, title, self._parts[k].title, bold=k == self.current)
        below = QRect(inner.left(), inner.top() + half, inner.width() + t.px(18), half)
        paint.text(painter, t, below, words, size=13, token="quiet")
        if mark:
            paint.mark(
                painter, t, mark, QPointF(box.right() - t.px(14), title.center().y() + 1), 13
            )
