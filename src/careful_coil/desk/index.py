"""The index of a station: a line for each part this motor has, how far it is."""

from collections.abc import Sequence
from typing import Protocol

from PySide6.QtCore import QPointF, QRect, Qt
from PySide6.QtGui import QKeyEvent, QPainter

from careful_coil.core.ledger import Judgement
from careful_coil.desk import paint
from careful_coil.desk.roll import Roll
from careful_coil.desk.said import said
from careful_coil.desk.theme import Theme

WIDE = 168
HIGH = 46
AROUND = 50  # pixels beside a title: the bar, the mark
MOST_WIDE = 16_777_215  # Qt's own: no limit


class Told(Protocol):
    """What has a line."""

    title: str

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return its mark and its words."""


class Index(Roll):
    """The lines at the left of the part, or side by side above it; the arrows open the next part."""

    def __init__(self, theme: Theme, station: str) -> None:
        super().__init__(theme, f"Parts of {station}")
        self._parts: Sequence[Told] = ()
        self.told: list[tuple[str, str]] = []
        self.above, self._next = False, -1
        self.set_theme(theme)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        super().set_theme(theme)
        self.lay(self.above)

    def lay(self, above: bool) -> None:
        """Stand above the part, or at its left."""
        self.above = above
        self.setMinimumWidth(0 if above else self.theme.px(WIDE))
        self.setMaximumWidth(MOST_WIDE if above else self.theme.px(WIDE))
        self.fit()

    def boxes(self) -> list[QRect]:
        """Return the boxes of the lines: as many beside each other as their titles leave room for."""
        if not self.above or not self.count():
            return super().boxes()
        high, columns = self.row_height(0), self._columns()
        each = self.width() // columns
        return [
            QRect(k % columns * each, k // columns * high, each, high) for k in range(self.count())
        ]

    def least_height(self) -> int:
        """Return the height that shows every line."""
        if not self.above or not self.count():
            return super().least_height()
        return -(-self.count() // self._columns()) * self.row_height(0)

    def _columns(self) -> int:
        widest = max(paint.width_of(self.theme, p.title, 15, True) for p in self._parts)
        each = min(widest + self.theme.px(AROUND), self.theme.px(WIDE))
        columns = min(max(self.steady_width() // each, 1), self.count())
        return -(-self.count() // -(-self.count() // columns))  # lines as even as may be

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Walk sideways too where they stand side by side."""
        steps = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1} if self.above else {}
        step = steps.get(Qt.Key(event.key()))
        if step is not None:
            self.go(self.current + step)
        else:
            super().keyPressEvent(event)

    def show_parts(self, parts: Sequence[Told], current: int) -> None:
        """Show these lines, one of them open."""
        if list(parts) != list(self._parts) or current != self.current:
            self._parts, self.current = parts, current
            self.told = [("", "")] * len(parts)
            self.retell()

    def mark_next(self, k: int) -> None:
        """Mark the line that Next asks at; -1: none."""
        if k != self._next:
            self._next = k
            self.update()

    def show_judgement(self, judged: Judgement) -> None:
        """Show how far each part is."""
        self.told = [p.told(judged) for p in self._parts]
        if self.shows(*self.told, *(p.title for p in self._parts)):
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
            bar = QRect(box.left(), box.top(), 4, box.height())
            if self.above:
                bar = QRect(box.left(), box.bottom() - 3, box.width(), 4)
            painter.fillRect(bar, t.colour("ink"))
        mark, words = self.told[k]
        inner = box.adjusted(14, t.px(4), -t.px(24), -t.px(4))
        half = inner.height() // 2
        if k == self._next:  # what is to be done now
            dot = QRect(
                inner.left() - t.px(10), inner.top() + half // 2 - t.px(3), t.px(6), t.px(6)
            )
            painter.fillRect(dot, t.colour("copper"))
        title = QRect(inner.left(), inner.top(), inner.width(), half)
        paint.text(painter, t, title, said(self._parts[k].title), bold=k == self.current)
        below = QRect(inner.left(), inner.top() + half, inner.width() + t.px(18), half)
        paint.text(painter, t, below, said(words), size=13, token="quiet")
        if mark:
            paint.mark(
                painter, t, mark, QPointF(box.right() - t.px(14), title.center().y() + 1), 13
            )
