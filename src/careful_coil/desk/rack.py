"""The rack: the shop's motors as tags in order of urgency, with a search above."""

from bisect import bisect_left
from collections.abc import Sequence
from typing import Any

from PySide6.QtCore import (
    QAbstractListModel,
    QModelIndex,
    QPersistentModelIndex,
    QPointF,
    QRect,
    QRectF,
    QSize,
    Qt,
    Signal,
)
from PySide6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import (
    QLineEdit,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
    QWidget,
)

from careful_coil.desk import paint
from careful_coil.desk.bundles import is_bundle
from careful_coil.desk.heard import Heard, Role
from careful_coil.desk.label import Label
from careful_coil.desk.listing import Listing
from careful_coil.desk.painted import Painted
from careful_coil.desk.session import Session
from careful_coil.desk.theme import Theme
from careful_coil.desk.tongue import tr
from careful_coil.records import Summary

Index = QModelIndex | QPersistentModelIndex
SUMMARY = int(Qt.ItemDataRole.UserRole)
PAGE = 200  # rows the view is given at once


def _looks(summary: Summary) -> tuple[object, ...]:
    """Return what of a summary a tag shows."""
    return summary.name, summary.state, summary.pips, summary.mark


class RackModel(QAbstractListModel):
    """The summaries that a search leaves, the nearest to what is typed first, else in order of urgency.

    The view has as many rows as it scrolled to.
    """

    def __init__(self) -> None:
        super().__init__()
        self._all: Sequence[Summary] = ()
        self._typed, self._wanted = "", list[str]()
        self.shown: list[Summary] = []
        self._rows = 0

    def show_all(self, summaries: Sequence[Summary]) -> None:
        """Take the summaries of the shop; the list goes on to be theirs."""
        self._all = summaries
        self._show()

    def search(self, words: str) -> None:
        """Keep the jobs that have every word."""
        self._typed = words.lower().strip()
        self._wanted = self._typed.split()
        self._show()

    def _show(self) -> None:
        self.beginResetModel()
        self.shown = list(self._all)
        for word in self._wanted:
            self.shown = [s for s in self.shown if word in s.search]
        if len(self._typed) > 1:  # one letter leaves nearly all of them: the order stays
            self.shown.sort(key=self._far)  # of those as near the order stays
        self._rows = min(len(self.shown), PAGE)
        self.endResetModel()

    def _far(self, summary: Summary) -> int:
        """Return 0 where the number or the name begins as typed, 1 where every word is a whole one, else 2."""
        search, typed = summary.search, self._typed
        if len(typed) < 2:
            return 0
        if search.startswith(typed) or search.startswith(typed, search.find(" ") + 1):
            return 0
        whole = f" {search.replace(',', ' ')} "
        return 1 if all(f" {w} " in whole for w in self._wanted) else 2

    def _place(self, summary: Summary) -> tuple[int, ...]:
        return self._far(summary), *summary.urgency

    def _row_of(self, summary: Summary) -> int:
        """Return the row of a summary, or the one where it would be."""
        return bisect_left(self.shown, self._place(summary), key=self._place)

    def rank(self, old: Summary | None, now: Summary) -> None:
        """Show one job as it is now, at its new place: nothing else is touched."""
        nowhere = QModelIndex()
        row = self._row_of(old) if old is not None else len(self.shown)
        if old is not None and row < len(self.shown) and self.shown[row].id == old.id:
            if self._place(old) == self._place(now) and self._fits(now):
                self.shown[row] = now
                if row < self._rows and _looks(old) != _looks(now):
                    self.dataChanged.emit(self.index(row), self.index(row))
                return
            seen = row < self._rows
            if seen:
                self.beginRemoveRows(nowhere, row, row)
                self._rows -= 1
            del self.shown[row]
            if seen:
                self.endRemoveRows()
        if self._fits(now):
            row = self._row_of(now)
            seen = row <= self._rows
            if seen:
                self.beginInsertRows(nowhere, row, row)
                self._rows += 1
            self.shown.insert(row, now)
            if seen:
                self.endInsertRows()

    def _fits(self, summary: Summary) -> bool:
        return all(w in summary.search for w in self._wanted)

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008  # Qt's own signature
        """Return how many rows the view has."""
        return 0 if parent.isValid() else self._rows

    def canFetchMore(self, parent: Index) -> bool:
        """Whether there are more than the view has."""
        return not parent.isValid() and self._rows < len(self.shown)

    def fetchMore(self, parent: Index) -> None:
        """Let the view have some more, as it is scrolled to its end."""
        more = min(PAGE, len(self.shown) - self._rows)
        if more <= 0:
            return
        self.beginInsertRows(QModelIndex(), self._rows, self._rows + more - 1)
        self._rows += more
        self.endInsertRows()

    def data(self, index: Index, role: int = int(Qt.ItemDataRole.DisplayRole)) -> Any:
        """Return the summary, or words for a screen reader."""
        summary = self.shown[index.row()]
        if role == SUMMARY:
            return summary
        if role in (int(Qt.ItemDataRole.DisplayRole), int(Qt.ItemDataRole.AccessibleTextRole)):
            return f"{summary.number} {summary.name}, {summary.state}"
        return None


class TagDelegate(QStyledItemDelegate):
    """A shop tag: hole, name, state in words, nine pips, one mark."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self.open_id = ""

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        """Return the room of a tag with the gap below it."""
        return QSize(10, self.theme.px(80))

    def paint(self, painter: QPainter, option: Any, index: Index) -> None:
        """Draw the tag."""
        t, summary = self.theme, index.data(SUMMARY)
        box: QRect = option.rect.adjusted(2, 2, -2, -6)
        is_open = summary.id == self.open_id
        focused = bool(option.state & QStyle.StateFlag.State_HasFocus)
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        cut = 14
        corners = [
            QPointF(box.left() + cut, box.top()),
            QPointF(box.right(), box.top()),
            QPointF(box.right(), box.bottom()),
            QPointF(box.left(), box.bottom()),
            QPointF(box.left(), box.top() + cut),
        ]
        painter.setBrush(t.colour("surface") if is_open else t.colour("ground"))
        painter.setPen(
            QPen(t.colour("ink" if is_open or focused else "hairline"), 2 if is_open else 1)
        )
        painter.drawPolygon(QPolygonF(corners))
        painter.setPen(QPen(t.colour("quiet"), 1.2))
        painter.setBrush(t.colour("ground"))
        painter.drawEllipse(QPointF(box.left() + 15, box.center().y()), 4, 4)
        left, wide = box.left() + 28, box.width() - 38
        paint.text(
            painter, t, QRect(left, box.top() + t.px(6), wide, t.px(20)), summary.name, bold=True
        )
        paint.text(
            painter,
            t,
            QRect(left, box.top() + t.px(26), wide, t.px(18)),
            summary.state,
            size=13,
            token="quiet",
        )
        self._pips(painter, summary, left, box.top() + t.px(54))
        if summary.mark:
            paint.mark(
                painter, t, summary.mark, QPointF(box.right() - 18, box.top() + t.px(56)), 15
            )
        painter.restore()

    def _pips(self, painter: QPainter, summary: Summary, left: int, y: int) -> None:
        t = self.theme
        for k, pip in enumerate(summary.pips):
            at = QRectF(left + k * 14.0, y, 9, 5)
            if pip == "done":
                painter.fillRect(at, t.colour("good"))
            elif pip == "hold":
                painter.fillRect(at.adjusted(0, -2, 0, 2), t.colour("hold"))
            else:
                painter.setPen(QPen(t.colour("ink" if pip == "open" else "hairline"), 1))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRect(at)


class Head(Painted):
    """The rack's heading with its count."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.theme, self._count = theme, 0
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return self.theme.px(30)

    def count(self, jobs: int) -> None:
        """Show how many jobs there are."""
        self._count = jobs
        self.update()

    def hears(self) -> Heard:
        """Return the heading with its count."""
        return Heard(Role.Heading, f"In the shop, {self._count} jobs")

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw it."""
        painter, t = QPainter(self), self.theme
        paint.text(painter, t, self.rect(), "In the shop", size=18, bold=True)
        words = "1 job" if self._count == 1 else f"{self._count} jobs" if self._count else ""
        room = self.width() - paint.width_of(t, "In the shop", 18, True) - t.px(8)
        words = paint.fitting(t, room, words, str(self._count or ""))
        paint.text(painter, t, self.rect(), words, size=13, token="quiet", align=1)


class Rack(QWidget):
    """Search and list."""

    opened = Signal(str)
    sum_wanted = Signal(str)
    file_wanted = Signal(str)
    next_wanted = Signal()

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        self.model = RackModel()
        self.head = Head(theme)
        self.search = QLineEdit()
        self.search.setAccessibleName(
            "Find a motor, or a bench sum by name; or the path of a job to take in"
        )
        self.list = Listing()
        self.list.setAccessibleName("Motors in the shop")
        self.list.setModel(self.model)
        self.list.setUniformItemSizes(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.delegate = TagDelegate(theme)
        self.list.setItemDelegate(self.delegate)
        self.who = QLineEdit()
        self.who.setAccessibleName("Who is at the bench, initials")
        self.who.setMaxLength(40)
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 12, 8, 8)
        self.who_label = Label("At the bench")
        for part in (self.head, self.search, self.list, self.who_label, self.who):
            column.addWidget(part)
        self.search.textChanged.connect(self.model.search)
        self.search.returnPressed.connect(self._open_first)
        self.list.activated.connect(self._open)
        self.list.clicked.connect(self._open)
        self.who.textChanged.connect(self._named)
        session.jobs_changed.connect(self.refresh)
        session.job_changed.connect(self._opened)
        session.job_ranked.connect(self._ranked)
        self.set_theme(theme)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self.delegate.theme = theme
        self.search.setPlaceholderText(tr("Motor or sum   Ctrl+K"))
        self.who.setPlaceholderText(tr("your initials"))
        self.setStyleSheet(theme.sheet())
        self.head.set_theme(theme)
        self.setFixedWidth(theme.px(214) if theme.scale < 1.5 else theme.px(186))
        self.who_label.setStyleSheet(
            f"color: {theme.colour('quiet').name()}; font-size: {theme.px(13)}px;"
        )
        self.list.doItemsLayout()
        self.list.viewport().update()

    def refresh(self) -> None:
        """Show the shop's jobs, the open one marked."""
        self.model.show_all(self._session.summaries)
        self.head.count(len(self._session.summaries))
        self._opened()

    def _opened(self) -> None:
        """Mark the open job."""
        here = self._session.open.id if self._session.open else ""
        if here != self.delegate.open_id:
            self.delegate.open_id = here
            self.list.viewport().update()

    def _ranked(self, old: Summary | None, now: Summary) -> None:
        self.model.rank(old, now)
        if old is None:
            self.head.count(len(self._session.summaries))

    def _named(self, words: str) -> None:
        self._session.who = words.strip()

    def _open(self, index: Index) -> None:
        self.opened.emit(self.model.shown[index.row()].id)

    def _open_first(self) -> None:
        if not self.search.text().strip():
            self.next_wanted.emit()
        elif is_bundle(self.search.text().strip()):
            self.file_wanted.emit(self.search.text().strip())
            self.search.clear()
        elif self.model.shown:
            self.opened.emit(self.model.shown[0].id)
            self.search.clear()
        else:
            # the sums are loaded when one is wanted
            from careful_coil.desk.sum_card import sum_fits

            if fits := sum_fits(self.search.text()):
                self.sum_wanted.emit(fits[0])
                self.search.clear()
