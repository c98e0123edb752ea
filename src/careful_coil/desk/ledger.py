"""The ledger: the Next card, what was found, and a line a station of what is still needed."""

from collections.abc import Iterator, Sequence
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
)
from PySide6.QtGui import QPainter, QPen
from PySide6.QtWidgets import (
    QFrame,
    QListView,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
)

from careful_coil.core.stations import STATIONS
from careful_coil.core.stations import TITLES as SHOWN
from careful_coil.desk import paint
from careful_coil.desk.listing import Listing
from careful_coil.desk.next_card import NextCard
from careful_coil.desk.session import Session
from careful_coil.desk.theme import Theme

if TYPE_CHECKING:
    from careful_coil.core.job import Finding
    from careful_coil.core.ledger import Judgement

Index = QModelIndex | QPersistentModelIndex
ROW = int(Qt.ItemDataRole.UserRole)
WORDS = {"good": "good", "note": "note", "watch": "watch", "hold": "hold", "unproven": "to do"}
FOUND = ("hold", "watch")
REST = "rest"  # what is good or only noted


@dataclass(frozen=True, slots=True)
class Row:
    """A heading; a finding; or a line that several findings are folded behind, by `key`.

    `brief` a finding whose reason the Next card says already, `inside` one that was unfolded.
    """

    heading: str = ""
    count: int = 0
    finding: "Finding | None" = None
    key: str = ""
    folded: "tuple[Finding, ...]" = ()
    opened: bool = False
    brief: bool = False
    inside: bool = False

    @property
    def words(self) -> str:
        """Return it in words, with all that is folded behind it."""
        if self.finding is not None:
            return told(self.finding)
        if not self.key:
            return self.heading
        inner = " ".join(told(f) for f in self.folded)
        return f"{self.heading}, {'Enter folds it' if self.opened else 'Enter opens it'}. {inner}"

    @property
    def gist(self) -> str:
        """Return in a few words what is folded behind it."""
        words = [f.subject[0].lower() + f.subject[1:] for f in self.folded]
        return ", ".join(words)


def told(f: "Finding") -> str:
    """Return a finding in words."""
    return f"{WORDS[f.verdict]}: {f.subject}. {f.why}"


def _rows(judged: "Judgement | None", opened: set[str]) -> Iterator[Row]:
    """Yield what was found, then what each station still needs, then the rest."""
    if judged is None:
        return
    from careful_coil.core.ledger.site_rules import visit  # with the job come its rules

    away = visit(judged.job)  # what only the bench asks is not said of a visit
    every = [*judged.gate, *(f for f in judged.findings if f not in judged.gate)]
    said = judged.next.why if judged.next else ""
    found = [f for f in every if f.verdict in FOUND]
    if found:
        yield Row("Found")
        yield from (Row(finding=f, brief=bool(f.why) and f.why in said) for f in found)
    left = [f for f in every if f.verdict == "unproven" and not (away and f not in judged.gate)]
    if left:
        yield Row("Still needed", len(left))
        for station in STATIONS:
            own = tuple(f for f in left if f.station == station)
            yield from _fold(SHOWN[station], station, own, opened)
    rest = tuple(f for f in every if f.verdict in ("good", "note"))
    if rest:
        yield Row("Good, noted", len(rest))
        yield from _fold(f"{len(rest)} line{'s' if len(rest) > 1 else ''}", REST, rest, opened)


def _fold(title: str, key: str, findings: "Sequence[Finding]", opened: set[str]) -> Iterator[Row]:
    if not findings:
        return
    yield Row(title, len(findings), key=key, folded=tuple(findings), opened=key in opened)
    if key in opened:
        yield from (Row(finding=f, inside=True) for f in findings)


class LedgerModel(QAbstractListModel):
    """Headings, findings and folded lines in the order they are shown."""

    def __init__(self) -> None:
        super().__init__()
        self.rows: list[Row] = []
        self._opened = set[str]()
        self._judged: Judgement | None = None

    def show_judgement(self, judged: "Judgement | None") -> None:
        """Take the findings of a judgement."""
        self._judged = judged
        rows = list(_rows(judged, self._opened))
        if rows != self.rows:
            self.beginResetModel()
            self.rows = rows
            self.endResetModel()

    def turn(self, key: str) -> int:
        """Fold a line out or away; return its row."""
        self._opened ^= {key}
        self.show_judgement(self._judged)
        return next(k for k, row in enumerate(self.rows) if row.key == key)

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008  # Qt's own signature
        """Return how many rows there are."""
        return 0 if parent.isValid() else len(self.rows)

    def data(self, index: Index, role: int = int(Qt.ItemDataRole.DisplayRole)) -> Any:
        """Return the row, or its words."""
        row = self.rows[index.row()]
        if role == ROW:
            return row
        if role in (int(Qt.ItemDataRole.DisplayRole), int(Qt.ItemDataRole.AccessibleTextRole)):
            return row.words
        return None


class LedgerDelegate(QStyledItemDelegate):
    """Mark, subject, reason in a line; of the chosen one all of it with its source."""

    def __init__(self, theme: Theme, view: QListView) -> None:
        super().__init__()
        self.theme, self._view = theme, view
        self.chosen = -1

    def _lines(self, row: Row, chosen: bool) -> list[tuple[str, float, bool, str, bool]]:
        """Return each line: words, size, bold, colour, whether it wraps."""
        f = row.finding
        if row.key:
            lines = [(row.heading, 15.0, True, "ink", False)]
            if row.key != REST and not row.opened:
                lines.append((row.gist, 13.0, False, "quiet", chosen))
            return lines
        if f is None:
            return [(row.heading, 15.0, True, "ink", False)]
        lines = [(f.subject, 15.0, not row.inside, "ink", True)]
        if f.why and (chosen or not row.brief):
            lines.append((f.why, 13.0, False, "quiet", chosen))
        if chosen and f.source:
            lines.append((f"Source: {f.source}", 13.0, False, "quiet", True))
        return lines

    def _left(self, row: Row) -> int:
        return 28 if row.finding or row.key else 0

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        """Return the room the words take."""
        row = index.data(ROW)
        room = self._view.viewport().width()
        wide = room - 1 - self._left(row) - 8
        height = sum(
            paint.height_of(self.theme, w if wraps else "M", wide, s, b)
            for w, s, b, _, wraps in self._lines(row, index.row() == self.chosen)
        )
        return QSize(room, height + self.theme.px(12 if row.finding or row.key else 16))

    def paint(self, painter: QPainter, option: Any, index: Index) -> None:
        """Draw the row."""
        t, row = self.theme, index.data(ROW)
        box: QRect = option.rect
        x, y = box.left(), box.top() + t.px(4 if row.finding or row.key else 8)
        if bool(option.state & QStyle.StateFlag.State_HasFocus):
            painter.setPen(QPen(t.colour("ink"), 1))
            painter.drawRect(box.adjusted(0, 0, -1, -2))
        mark = row.finding.verdict if row.finding else _mark(row)
        if mark:
            paint.mark(painter, t, mark, QPointF(x + 12, y + t.px(11)), 15)
        x += self._left(row)
        wide = box.right() - x - 8
        for words, size, bold, token, wraps in self._lines(row, index.row() == self.chosen):
            height = paint.height_of(t, words if wraps else "M", wide, size, bold)
            at = QRect(x, y, wide, height + (4 if wraps else 0))
            paint.text(painter, t, at, words, size=size, bold=bold, token=token, wrap=wraps)
            y += height
        if row.count:
            at = QRect(box.left(), box.top() + t.px(4), box.width() - 12, t.px(22))
            paint.text(painter, t, at, str(row.count), size=13, token="quiet", align=1)


def _mark(row: Row) -> str:
    """Return the mark of a line that findings are folded behind."""
    if not row.key:
        return ""
    return "good" if row.key == REST else "unproven"


class Ledger(QFrame):
    """The right column."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        self.card = NextCard(theme)
        self.model = LedgerModel()
        self.list = Listing()
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
        self.list.clicked.connect(self._clicked)
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
        self.card.look_from(self._session.station)
        self.card.show_step(judged)
        self.model.show_judgement(judged)

    def _clicked(self, index: Index) -> None:
        self._choose(index)
        if self.model.rows[index.row()].key:
            self._visit(index)

    def _choose(self, index: Index) -> None:
        self.delegate.chosen = index.row()
        self.list.doItemsLayout()

    def _visit(self, index: Index) -> None:
        """Go to where a finding belongs; fold a line out or away."""
        row = self.model.rows[index.row()]
        if row.key:
            self.list.setCurrentIndex(self.model.index(self.model.turn(row.key)))
        elif row.finding is not None:
            self._session.station_wanted.emit(row.finding.station, "")
