"""The triangular sheet of readings: every pair once, the suggested one marked."""

from collections.abc import Iterator
from itertools import combinations

from PySide6.QtCore import QPoint, QPointF, QRect, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen

from careful_coil.core.job.at_intake import Lead
from careful_coil.core.job.fold import reading_of
from careful_coil.core.ledger import Judgement
from careful_coil.core.readings import Resistance, ohm_value
from careful_coil.core.values import show
from careful_coil.desk import paint
from careful_coil.desk.heard import Row
from careful_coil.desk.painted import Painted
from careful_coil.desk.theme import Theme

IN_BUNCH = ("(", "1 of ")  # how what a bunched reading says of a pair begins
CELL_WIDE, CELL_HIGH, GAP = 50, 34, 3
ROOM_FROM = 7  # leads from which the sheet's lower left has room for a remark
HEAD = 50


class Sheet(Painted):
    """Cells above the diagonal; a click picks a pair."""

    picked = Signal(str, str)

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self._judged: Judgement | None = None
        self._said = ""
        self._wanted: frozenset[frozenset[str]] = frozenset()
        self.setAccessibleName("Readings")

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        _, high = self._cell()
        return self.theme.px(HEAD) + max(self._count() - 1, 1) * (high + GAP) + 4

    def show_judgement(self, judged: Judgement, wanted: frozenset[frozenset[str]]) -> None:
        """Show the readings of a job and the pairs the probes should be on."""
        self._judged, self._wanted = judged, wanted
        self.fit()
        self.setAccessibleDescription("; ".join(self.cell_words()))

    def say(self, words: str) -> bool:
        """Write a remark where the sheet is empty, below its left; False when there is no room."""
        self._said = words if self._count() >= ROOM_FROM else ""
        self.update()
        return bool(self._said)

    def cell_words(self) -> list[str]:
        """Return every filled cell in words."""
        tags = self._judged.job.tags if self._judged else ()
        return [
            f"{a} to {b} {self.shown(a, b)}"
            for k, a in enumerate(tags)
            for b in tags[k + 1 :]
            if self.shown(a, b)
        ]

    def heard_rows(self) -> Iterator[Row]:
        """Yield every pair that is read or wanted; those wanted are the current ones."""
        tags = self._judged.job.tags if self._judged else ()
        suspects = self.suspect_pairs()
        for row, column in combinations(range(len(tags)), 2):
            a, b = tags[row], tags[column]
            words, wanted = self.shown(a, b), frozenset((a, b)) in self._wanted
            if words or wanted:
                told = f"{a} to {b}, {words or 'to read'}"
                told += ", does not fit" if frozenset((a, b)) in suspects else ""
                yield Row(told, self._box(row, column), wanted)

    def shown(self, a: str, b: str) -> str:
        """Return what stands in a cell."""
        if self._judged is None:
            return ""
        taken = reading_of(self._judged.job, a, b)
        if taken is None or not isinstance(taken.reading, Resistance):
            return self._in_bunch(a, b)
        return show(ohm_value(taken.reading.value)).removesuffix(" Ω")

    def _in_bunch(self, a: str, b: str) -> str:
        """Return what a reading of several leads in one clip says of a pair: open, or one of so many."""
        words = ""
        for taken in self._judged.job.readings if self._judged else ():
            if not isinstance(taken.reading, Resistance) or taken.reading.pair() is not None:
                continue
            one, many = sorted(
                ((e,) if isinstance(e, str) else e for e in taken.reading.between), key=len
            )
            if not ((a in one and b in many) or (b in one and a in many)):
                continue
            if show(ohm_value(taken.reading.value)) == "open":
                return "(open)"
            words = f"1 of {len(many)}" if len(one) == 1 else words
        return words

    def suspect_pairs(self) -> set[frozenset[str]]:
        """Return the pairs whose reading does not fit."""
        judged = self._judged
        if judged is None or judged.facts.identification is None:
            return set()
        found = set()
        for s in judged.facts.identification.suspects:
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
                self._paint_lead(painter, box, lead)
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
        if self._said:
            self._paint_said(painter)

    def _paint_said(self, painter: QPainter) -> None:
        """Draw the remark in a box below the left of the sheet."""
        t, count = self.theme, self._count()
        last = self._box(count - 2, count - 1)
        wide = self._box(0, (count + 1) // 2).left() - t.px(46)
        high = paint.height_of(t, self._said, wide - t.px(44), 14) + t.px(16)
        box = QRect(0, last.bottom() - high, wide, high)
        painter.setPen(QPen(t.colour("watch"), 1))
        painter.setBrush(t.colour("surface"))
        painter.drawRect(box)
        paint.mark(painter, t, "watch", QPointF(t.px(16), box.top() + t.px(18)), 14)
        into = box.adjusted(t.px(32), t.px(8), -t.px(8), -t.px(6))
        paint.text(painter, t, into, self._said, size=14, wrap=True)

    def _paint_lead(self, painter: QPainter, box: QRect, lead: Lead) -> None:
        """Draw a lead of the fan: bare copper, its insulation, its tag hung on it."""
        t, middle = self.theme, box.center().x()
        wide = min(14, box.width() // 2)
        painter.fillRect(QRectF(middle - wide / 4, 0, wide / 2, t.px(7)), t.colour("copper"))
        wire = QRectF(middle - wide / 2, t.px(7), wide, t.px(17))
        paint.stub(painter, t, wire, lead.colour, lead.tracer)
        tag = QRect(
            middle - min(box.width(), t.px(34)) // 2, t.px(24), min(box.width(), t.px(34)), t.px(20)
        )
        painter.setPen(QPen(t.colour("ink"), 1))
        painter.setBrush(t.colour("surface"))
        painter.drawRoundedRect(tag, 3, 3)
        paint.text(painter, t, tag, lead.tag, size=15, bold=True, align=0)

    def _paint_cell(self, painter: QPainter, box: QRect, a: str, b: str, suspect: bool) -> None:
        t, words = self.theme, self.shown(a, b)
        several = words.startswith(IN_BUNCH)  # known of a bunch only: a dashed edge, short words
        wanted = frozenset((a, b)) in self._wanted
        edge = "copper" if wanted else "watch" if suspect else "hairline"
        pen = QPen(t.colour(edge), 3 if wanted else 2 if suspect else 1)
        if several and not wanted:
            pen = QPen(t.colour("quiet"), 1, Qt.PenStyle.DashLine)
        painter.setPen(pen)
        painter.setBrush(t.colour("surface" if words or wanted else "ground"))
        painter.drawRoundedRect(box, 3, 3)
        if not words:
            if wanted:
                paint.text(painter, t, box, "Ω?", bold=True, token="copper", align=0)
            return
        figure = (words[0].isdecimal() or words[0] == ">") and not several
        token = "watch" if suspect else "ink" if figure else "quiet"
        room = box.adjusted(2, 0, -9 if suspect else -2, 0)
        fits = figure and paint.width_of(t, words, 15, True) < room.width()
        size = 15 if fits else 13
        paint.text(
            painter,
            t,
            room,
            words.strip("()").replace(" of ", "/") if several else words,
            size=size,
            bold=figure,
            token=token,
            align=0,
        )
        if suspect:
            paint.mark(painter, t, "watch", QPointF(box.right() - 7, box.top() + 7), 9)
