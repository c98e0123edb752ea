"""Old and new beside each other: what it is, as it was, as it will be."""

from collections.abc import Iterator, Sequence

from PySide6.QtCore import QRect
from PySide6.QtGui import QPainter, QPaintEvent

from careful_coil.desk import paint
from careful_coil.desk.heard import Row
from careful_coil.desk.painted import Painted
from careful_coil.desk.theme import Theme

ROW, NAMES = 26, 0.27  # pixels of a row at 100 % text; share of the width that names take
Line = tuple[str, str, str]


class Compare(Painted):
    """Rows of three: a name, the old, the new; where they differ the new stands bold."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.rows: tuple[Line, ...] = ()
        self.setAccessibleName("Old and new")
        self.fit()

    def show_rows(self, rows: Sequence[Line]) -> None:
        """Show other rows; none takes no room."""
        self.rows = tuple(rows)
        self.setAccessibleDescription("; ".join(f"{n}: {old}, then {new}" for n, old, new in rows))
        self.setVisible(bool(rows))
        self.fit()

    def _heights(self) -> list[int]:
        wide = self._columns()
        return [
            max(
                self.theme.px(ROW),
                max(
                    paint.height_of(self.theme, t, w - 10, 15)
                    for t, w in zip(row, wide, strict=True)
                )
                + 4,
            )
            for row in self.rows
        ]

    def _columns(self) -> tuple[int, int, int]:
        whole = max(self.width(), 200)
        names = round(whole * NAMES)
        old = (whole - names) // 2
        return names, old, whole - names - old

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return sum(self._heights()) or 1

    def heard_rows(self) -> Iterator[Row]:
        """Yield each line: as it was, as it will be."""
        y = 0
        for (name, old, new), high in zip(self.rows, self._heights(), strict=True):
            words = f"{name}: {old}" + (f", then {new}" if new != old else ", as it was")
            yield Row(words, QRect(0, y, self.width(), high))
            y += high

    def paintEvent(self, event: QPaintEvent) -> None:
        """Write the rows."""
        painter, t, y = QPainter(self), self.theme, 0
        wide = self._columns()
        for row, high in zip(self.rows, self._heights(), strict=True):
            x = 0
            for k, (text, width) in enumerate(zip(row, wide, strict=True)):
                box = QRect(x, y, width - 10, high)
                token = "quiet" if k < 2 else "ink"
                bold = k == 2 and row[1] != row[2]
                paint.text(painter, t, box, text, token=token, bold=bold, wrap=True)
                x += width
            y += high
