"""The ledger: the Next card, what stands before it can go, and what was found so far."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import (
    QAbstractListModel,
    QModelIndex,
    QPersistentModelIndex,
    QPointF,
    QRect,
    QSize,
    Qt,
    Signal,
)
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import (
    QFrame,
    QListView,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
)

from careful_coil.desk import paint
from careful_coil.desk.painted import Painted
from careful_coil.desk.session import Session
from careful_coil.desk.theme import Theme

if TYPE_CHECKING:
    from careful_coil.core.job import Finding
    from careful_coil.core.ledger import Judgement, NextStep

Index = QModelIndex | QPersistentModelIndex
AT_ONCE = ("ready", "trial-ready", "checks")  # lists that are looked over together
ROW = int(Qt.ItemDataRole.UserRole)
MOST_CHOICES = 8  # words of an answer that are shown
WORDS = {"good": "good", "note": "note", "watch": "watch", "hold": "hold", "unproven": "to do"}


@dataclass(frozen=True, slots=True)
class Row:
    """A heading, or a finding."""

    heading: str = ""
    count: int = 0
    finding: "Finding | None" = None


def _rows(judged: "Judgement | None") -> Iterator[Row]:
    """Yield what stands before the motor can go, then what was found besides."""
    if judged is None:
        return
    from careful_coil.core.ledger.site_rules import visit  # with the job come its rules

    if judged.gate:
        yield Row("Before it can go", len(judged.gate))
        yield from (Row(finding=f) for f in judged.gate)
    away = visit(judged.job)  # what only the bench asks is not said of a visit
    rest = [
        f
        for f in judged.findings
        if f not in judged.gate and not (away and f.verdict == "unproven")
    ]
    if rest:
        yield Row("Found so far")
        yield from (Row(finding=f) for f in rest)


class LedgerModel(QAbstractListModel):
    """Headings and findings in the order they are shown."""

    def __init__(self) -> None:
        super().__init__()
        self.rows: list[Row] = []

    def show_judgement(self, judged: "Judgement | None") -> None:
        """Take the findings of a judgement."""
        rows = list(_rows(judged))
        if rows != self.rows:
            self.beginResetModel()
            self.rows = rows
            self.endResetModel()

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008  # Qt's own signature
        """Return how many rows there are."""
        return 0 if parent.isValid() else len(self.rows)

    def data(self, index: Index, role: int = int(Qt.ItemDataRole.DisplayRole)) -> Any:
        """Return the row, or its words."""
        row = self.rows[index.row()]
        if role == ROW:
            return row
        if role in (int(Qt.ItemDataRole.DisplayRole), int(Qt.ItemDataRole.AccessibleTextRole)):
            f = row.finding
            return f"{WORDS[f.verdict]}: {f.subject}. {f.why}" if f else row.heading
        return None


class LedgerDelegate(QStyledItemDelegate):
    """Mark, subject, reason; the source of the chosen one."""

    def __init__(self, theme: Theme, view: QListView) -> None:
        super().__init__()
        self.theme, self._view = theme, view
        self.chosen = -1

    def _lines(self, row: Row, chosen: bool) -> list[tuple[str, float, bool, str]]:
        f = row.finding
        if f is None:
            return [(row.heading, 15, True, "ink")]
        lines = [
            (f"{f.subject}", 15.0, True, "ink"),
            (f"{WORDS[f.verdict]} · {f.why}", 13.0, False, "quiet"),
        ]
        if chosen and f.source:
            lines.append((f"Source: {f.source}", 13.0, False, "quiet"))
        return lines

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        """Return the room the wrapped words take."""
        row = index.data(ROW)
        room = self._view.viewport().width()
        wide = room - 1 - (28 if row.finding else 0) - 8
        lines = self._lines(row, index.row() == self.chosen)
        height = sum(paint.height_of(self.theme, w, wide, s, b) for w, s, b, _ in lines)
        return QSize(room, height + self.theme.px(12))

    def paint(self, painter: QPainter, option: Any, index: Index) -> None:
        """Draw the row."""
        t, row = self.theme, index.data(ROW)
        box: QRect = option.rect
        x, y = box.left(), box.top() + t.px(4)
        if bool(option.state & QStyle.StateFlag.State_HasFocus):
            painter.setPen(QPen(t.colour("ink"), 1))
            painter.drawRect(box.adjusted(0, 0, -1, -2))
        if row.finding is not None:
            paint.mark(painter, t, row.finding.verdict, QPointF(x + 12, y + t.px(11)), 15)
            x += 28
        wide = box.right() - x - 8
        for words, size, bold, token in self._lines(row, index.row() == self.chosen):
            height = paint.height_of(t, words, wide, size, bold)
            y += paint.text(
                painter,
                t,
                QRect(x, y, wide, height + 4),
                words,
                size=size,
                bold=bold,
                token=token,
                wrap=True,
            )
        if row.finding is None and row.count:
            paint.text(
                painter,
                t,
                QRect(box.left(), box.top() + t.px(2), box.width() - 12, t.px(22)),
                str(row.count),
                bold=True,
                token="quiet",
                align=1,
            )


class NextCard(Painted):
    """The one most useful thing to do now; Enter does it."""

    pressed = Signal()

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self._step: NextStep | None = None
        self._skipped: tuple[NextStep, ...] = ()
        self._other = ""
        self.setAccessibleName("Next")

    def show_step(self, judged: "Judgement | None") -> None:
        """Show the next step of a judgement, and what was skipped."""
        self._step = judged.next if judged else None
        self._skipped = judged.skipped if judged else ()
        released = judged is not None and judged.released
        self._other = (
            "Released. It may go." if released else "Open a motor: Ctrl+K. A new one: Ctrl+N."
        )
        words = f"{self.title()}. {self.why()} {self.asked()}".strip()
        if self.shows(words, self.foot(), self._step.words if self._step else ""):
            self.setAccessibleDescription(words)
            self.fit()

    def title(self) -> str:
        """Return the words in large type."""
        return self._step.title if self._step else "Nothing to do"

    def why(self) -> str:
        """Return the reason."""
        return self._step.why if self._step else self._other

    def asked(self) -> str:
        """Return how it is answered: the words there are, the unit, how many ticks."""
        asks = self._step.asks if self._step else ()
        if not asks:
            return ""
        first = asks[0]
        if first.type == "choice":
            return (
                f"Answer: {', '.join(c.replace('-', ' ') for c in first.choices[:MOST_CHOICES])}."
            )
        if first.type == "tick":
            if not first.choices:
                return ""
            every = ", A all of it" if first.reader in AT_ONCE else ""
            return f"{len(first.choices)} to tick: Space each{every}."
        unit = f", in {first.unit}" if first.unit else ""
        return f"Answer: {first.name}{unit}." if first.reader else ""

    def foot(self) -> str:
        """Return what the keys do besides."""
        if self._skipped:
            return f"Skipped: {self._skipped[0].title}, {len(self._skipped)} in all. Shift+N brings them back."
        asks = self._step.asks if self._step else ()
        typed = any(c.startswith("n") for q in asks for c in q.choices)  # N is a letter then
        return f"Not here? {'+' if typed else 'N'} skips it." if self._step else ""

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        t, wide = self.theme, max(self.width() - 32, 60)
        words = paint.height_of(t, self.title(), wide, 24, True) + paint.height_of(
            t, self.why(), wide, 14
        )
        if self.asked():
            words += paint.height_of(t, self.asked(), wide, 13) + t.px(7)
        foot = paint.height_of(t, self.foot(), wide, 13) if self.foot() else 0
        return t.px(32) + words + foot + t.px(36)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the card."""
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = self.rect().adjusted(1, 1, -1, -1)
        head = t.px(32)
        painter.setPen(QPen(t.colour("copper"), 2))
        painter.setBrush(t.colour("surface"))
        painter.drawRoundedRect(box, 4, 4)
        painter.fillRect(QRect(box.left(), box.top(), box.width(), head), t.colour("copper"))
        band = QRect(box.left() + 14, box.top(), box.width() - 28, head)
        paint.text(painter, t, band, "Next", bold=True, token="surface")
        key = f"Enter: {self._step.words}" if self._step and self._step.words else "Enter"
        if self._step:
            paint.text(painter, t, band, key, size=13, token="surface", align=1)
        x, wide, y = box.left() + 15, box.width() - 30, box.top() + head + t.px(10)
        for words, size, bold, token in (
            (self.title(), 24, True, "ink"),
            (self.why(), 14, False, "ink"),
            (self.asked(), 13, False, "ink"),
            (self.foot(), 13, False, "quiet"),
        ):
            height = paint.height_of(t, words, wide, size, bold)
            if words:
                paint.text(
                    painter,
                    t,
                    QRect(x, y, wide, height + 4),
                    words,
                    size=size,
                    bold=bold,
                    token=token,
                    wrap=True,
                )
                y += height + t.px(7)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """A click is Enter."""
        self.pressed.emit()


class Ledger(QFrame):
    """The right column."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        self.card = NextCard(theme)
        self.model = LedgerModel()
        self.list = QListView()
        self.list.setAccessibleName("Findings")
        self.list.setModel(self.model)
        self.delegate = LedgerDelegate(theme, self.list)
        self.list.setItemDelegate(self.delegate)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setResizeMode(QListView.ResizeMode.Adjust)
        self.list.setVerticalScrollMode(QListView.ScrollMode.ScrollPerPixel)
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 12, 12, 0)
        column.setSpacing(10)
        column.addWidget(self.card)
        column.addWidget(self.list)
        self.list.clicked.connect(self._choose)
        self.list.activated.connect(self._visit)
        self.list.selectionModel().currentChanged.connect(lambda now, _: self._choose(now))
        session.job_changed.connect(self.refresh)
        self.set_theme(theme)
        self.refresh()

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self.delegate.theme = theme
        self.setStyleSheet(theme.sheet())
        self.setFixedWidth(theme.px(306 if theme.scale < 1.5 else 250))
        self.card.set_theme(theme)
        self.list.doItemsLayout()

    def refresh(self) -> None:
        """Show the judgement of the open job."""
        judged = self._session.open.judged if self._session.open else None
        self.delegate.chosen = -1
        self.card.show_step(judged)
        self.model.show_judgement(judged)

    def _choose(self, index: Index) -> None:
        self.delegate.chosen = index.row()
        self.list.doItemsLayout()

    def _visit(self, index: Index) -> None:
        finding = self.model.rows[index.row()].finding
        if finding is not None:
            self._session.station_wanted.emit(finding.station, "")
