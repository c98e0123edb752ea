"""Markings to put on: tag, name in the shop's own system, how sure it is."""

from collections.abc import Iterator

from PySide6.QtCore import QRect
from PySide6.QtGui import QPainter, QPaintEvent

from careful_coil.core.connect.called import SYSTEMS, role_or_mark
from careful_coil.core.ledger import Judgement
from careful_coil.core.settings import Settings
from careful_coil.core.winding.markings import mark_of
from careful_coil.desk import paint
from careful_coil.desk.heard import Row
from careful_coil.desk.painted import Painted
from careful_coil.desk.theme import Theme

WIDE_MARK, NAME = 210, 82  # pixels of a mark, and of the name in it
CERTAIN = {"proven": "proven", "convention": "free to choose", "leaning": "guess", "open": "open"}
OWED = {"kicked": "kicked", "marked": "as marked", "owed": "by its ohms"}


def marks_of(judged: Judgement, settings: Settings) -> list[tuple[str, str, str]]:
    """Return tag, marking, certainty in words; – where the marking is open.

    Where the shop's system has no mark of its own for a lead its role stands.
    """
    naming, found = judged.facts.naming, judged.facts.identification
    sure = found.best.certainty if found else {}
    beside = found.best.extras if found else {}
    slug = naming.arrangement.slug if naming.arrangement else ""
    system = SYSTEMS[settings.school("marks")]
    rows = []
    for tag in judged.job.tags:
        name = naming.names.get(tag)
        own = (mark_of(slug, name, system) or role_or_mark(slug, name)) if name else ""
        mark = own or beside.get(tag, "?")
        word = OWED.get(naming.word) or CERTAIN[sure.get(tag, "open")]
        rows.append((tag, "–" if word == "open" else mark, word))
    return rows


class Marks(Painted):
    """The markings as they stand."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.rows: list[tuple[str, str, str]] = []
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return self.theme.px(26) * max(-(-len(self.rows) // self._columns()), 1)

    def show_rows(self, rows: list[tuple[str, str, str]]) -> None:
        """Show other markings."""
        self.rows = rows
        self.setAccessibleDescription("; ".join(" ".join(r) for r in self.rows))
        self.fit()

    def heard_rows(self) -> Iterator[Row]:
        """Yield each lead with its mark and how sure that is."""
        for k, (tag, name, sure) in enumerate(self.rows):
            yield Row(f"{tag}: {name}, {sure}", self._box(k))

    def _box(self, k: int) -> QRect:
        t, columns = self.theme, self._columns()
        x, y = (k % columns) * t.px(WIDE_MARK), (k // columns) * t.px(26)
        return QRect(x, y, t.px(WIDE_MARK), t.px(26))

    def _columns(self) -> int:
        return max(1, self.width() // self.theme.px(WIDE_MARK))

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw tag → name, certainty."""
        painter, t = QPainter(self), self.theme
        for k, (tag, name, sure) in enumerate(self.rows):
            x, y = self._box(k).left(), self._box(k).top()
            open_ = sure == "open"
            token = "quiet" if open_ else "ink"
            paint.text(painter, t, QRect(x, y, t.px(24), t.px(26)), tag, bold=True)
            at = QRect(x + t.px(24), y, t.px(NAME), t.px(26))
            paint.text(painter, t, at, name, token=token)
            at = QRect(x + t.px(28 + NAME), y, t.px(WIDE_MARK - NAME - 32), t.px(26))
            paint.text(painter, t, at, sure, size=13, token="unproven" if open_ else "quiet")
