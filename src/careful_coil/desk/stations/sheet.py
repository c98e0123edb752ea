"""The triangular sheet of readings: every pair once, the suggested one marked."""

from PySide6.QtCore import QPoint, QPointF, QRect, QRectF, QSize, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen

from careful_coil.core.job.fold import reading_of
from careful_coil.core.ledger import Judgement
from careful_coil.core.readings import Resistance, ohm_value
from careful_coil.core.values import show
from careful_coil.desk import paint
from careful_coil.desk.painted import Painted
from careful_coil.desk.theme import Theme

CELL_WIDE, CELL_HIGH, GAP = 50, 34, 3
HEAD = 44


class Sheet(Painted):
    """Cells above the diagonal; a click picks a pair."""

    picked = Signal(str, str)

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self._judged: Judgement | None = None
        self._target: frozenset[str] = frozenset()
        self.setAccessibleName("Readings")

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        _, high = self._cell()
        return self.theme.px(HEAD) + max(self._count() - 1, 1) * (high + GAP) + 4

    def show_judgement(self, judged: Judgement, target: frozenset[str]) -> None:
        """Show the readings of a job and the pair the probes should be on."""
        self._judged, self._target = judged, target
        self.fit()
        self.setAccessibleDescription("; ".join(self.cell_words()))

    def cell_words(self) -> list[str]:
        """Return every filled cell in words."""
        tags = self._judged.job.tags if self._judged else ()
        return [
            f"{a} to {b} {self.shown(a, b)}"
            for k, a in enumerate(tags)
            for b in tags[k + 1 :]
            if self.shown(a, b)
        ]

    def shown(self, a: str, b: str) -> str:
        """Return what stands in a cell."""
        taken = reading_of(self._judged.job, a, b) if self._judged else None
        if taken is None or not isinstance(taken.reading, Resistance):
            return ""
        return show(ohm_value(taken.reading.value)).removesuffix(" Ω")

    def suspect_pairs(self) -> set[frozenset[str]]:
        """Return the pairs whose reading does not fit."""
        judged = self._judged
        if judged is None or judged.identification is None:
            return set()
        found = set()
        for s in judged.identification.suspects:
            reading = judged.job.readings[s.reading].reading
            pair = reading.pair() if isinstance(reading, Resistance) else None
            if pair:
                found.add(frozenset(pair))
        return found

    def least_width(self) -> int:
        """Return the width that shows every value whole."""
        return max(self._count() - 1, 1) * (self.theme.px(40) + GAP) + self.theme.px(30)

    def _count(self) -> int:
        return len(self._judged.job.tags) if self._judged else 0

    def _cell(self) -> tuple[int, int]:
        """Return the width and height of a cell, smaller where there are many leads."""
        count = max(self._count(), 2)
        wide = (self.width() - self.theme.px(30)) // (count - 1) - GAP
        return max(min(self.theme.px(CELL_WIDE), wide), 26), self.theme.px(
            CELL_HIGH if count < 11 else 26
        )

    def sizeHint(self) -> QSize:
        """Return the room of nine leads."""
        return QSize(430, 380)

    def _box(self, row: int, column: int) -> QRect:
        wide, high = self._cell()
        left = self.theme.px(30) + (column - 1) * (wide + GAP)
        return QRect(left, self.theme.px(HEAD) + row * (high + GAP), wide, high)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Pick the pair under the pointer."""
        pair = self.pair_at(event.position().toPoint())
        if pair:
            self.picked.emit(*pair)

    def pair_at(self, at: QPoint) -> tuple[str, str] | None:
        """Return the pair of the cell at a point."""
        tags = self._judged.job.tags if self._judged else ()
        for row in range(len(tags)):
            for column in range(row + 1, len(tags)):
                if self._box(row, column).contains(at):
                    return tags[row], tags[column]
        return None

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw stubs, tags and cells."""
        judged = self._judged
        if judged is None:
            return
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        leads = judged.job.leads
        suspects = self.suspect_pairs()
        for column, lead in enumerate(leads):
            if column:
                box = self._box(0, column)
                middle = box.center().x()
                paint.stub(
                    painter, t, QRectF(middle - 5, 2, 10, t.px(18)), lead.colour, lead.tracer
                )
                at = QRect(box.left(), t.px(21), box.width(), t.px(21))
                paint.text(painter, t, at, lead.tag, bold=True, align=0)
        for row, lead in enumerate(leads[:-1]):
            first = self._box(row, row + 1)
            y = first.center().y()
            paint.stub(
                painter, t, QRectF(first.left() - t.px(28), y - 6, 7, 13), lead.colour, lead.tracer
            )
            at = QRect(first.left() - t.px(20), first.top(), t.px(17), first.height())
            paint.text(painter, t, at, lead.tag, bold=True, align=0)
            for column in range(row + 1, len(leads)):
                pair = frozenset((lead.tag, leads[column].tag))
                self._paint_cell(
                    painter, self._box(row, column), lead.tag, leads[column].tag, pair in suspects
                )

    def _paint_cell(self, painter: QPainter, box: QRect, a: str, b: str, suspect: bool) -> None:
        t, words = self.theme, self.shown(a, b)
        wanted = frozenset((a, b)) == self._target
        edge = "copper" if wanted else "watch" if suspect else "hairline"
        painter.setPen(QPen(t.colour(edge), 3 if wanted else 2 if suspect else 1))
        painter.setBrush(t.colour("surface" if words or wanted else "ground"))
        painter.drawRoundedRect(box, 3, 3)
        if not words:
            if wanted:
                paint.text(painter, t, box, "Ω?", bold=True, token="copper", align=0)
            return
        figure = words[0].isdigit() or words[0] == ">"
        token = "watch" if suspect else "ink" if figure else "quiet"
        fits = figure and paint.width_of(t, words, 15, True) < box.width() - 4
        size = 15 if fits else 13
        paint.text(
            painter,
            t,
            box.adjusted(2, 0, -2, 0),
            words,
            size=size,
            bold=figure,
            token=token,
            align=0,
        )
        if suspect:
            paint.mark(painter, t, "watch", QPointF(box.right() - 7, box.top() + 7), 9)
