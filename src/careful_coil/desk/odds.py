"""Odds as bars: what it can still be, likeliest first."""

from collections.abc import Iterator, Sequence

from PySide6.QtCore import QRect
from PySide6.QtGui import QPainter, QPaintEvent

from careful_coil.core.values import show_percent
from careful_coil.desk import paint
from careful_coil.desk.heard import Row as HeardRow
from careful_coil.desk.painted import Painted
from careful_coil.desk.theme import Theme

Row = tuple[float, str, str]
BAR, NARROW_BAR, WIDE = 110, 36, 460  # pixels at 100 % text: the bar gives way to the name


class Odds(Painted):
    """A bar, the odds, the plain name, and at the right what parts it from the rest."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.rows: list[Row] = []
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return self.theme.px(28) * max(len(self.rows), 1)

    def show_rows(self, rows: Sequence[Row]) -> None:
        """Show other odds."""
        self.rows = list(rows)
        if not self.shows(*self.rows):
            return
        self.setAccessibleDescription(
            "; ".join(f"{p:.0%} {t}" + (f", {g}" if g else "") for p, t, g in rows)
        )
        self.fit()

    def heard_rows(self) -> Iterator[HeardRow]:
        """Yield each with its odds."""
        high = self.theme.px(28)
        for k, (odds, title, beside) in enumerate(self.rows):
            words = f"{title}, {_percent(odds)}" + (f", {beside}" if beside else "")
            yield HeardRow(words, QRect(0, k * high, self.width(), high))

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the rows."""
        painter, t = QPainter(self), self.theme
        bar = t.px(BAR if self.width() >= t.px(WIDE) else NARROW_BAR)
        told = bar + t.px(10)
        name_at = told + t.px(60)
        for k, (odds, title, rest_words) in enumerate(self.rows):
            y, high = t.px(28) * k, t.px(28)
            track = QRect(0, y + t.px(7), bar, t.px(12))
            painter.fillRect(track, t.colour("hairline"))
            painter.fillRect(
                QRect(track.left(), track.top(), round(track.width() * odds), track.height()),
                t.colour("ink"),
            )
            paint.text(painter, t, QRect(told, y, t.px(60), high), _percent(odds), bold=True)
            wide = max(self.width() - name_at, 0)
            name = min(paint.width_of(t, title) + 16, wide)
            paint.text(painter, t, QRect(name_at, y, name, high), title)
            rest = QRect(name_at + name, y, wide - name, high)
            paint.text(painter, t, rest, rest_words, size=13, token="quiet", align=1)


def _percent(odds: float) -> str:
    return ">99 %" if 0.995 <= odds < 1 - 1e-9 else show_percent(odds)
