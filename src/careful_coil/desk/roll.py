"""A list painted by hand that a keyboard walks through: leads, joints, looks, parts."""

from PySide6.QtCore import QRect, Qt, Signal
from PySide6.QtGui import QAccessible, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QScrollArea, QWidget

from careful_coil.desk import paint
from careful_coil.desk.heard import Heard, Role, Row, tell
from careful_coil.desk.painted import Painted
from careful_coil.desk.theme import Theme

ROW = 36
DELETE = "delete"  # what `pressed` is told for Delete and Backspace


def reveal(widget: QWidget, box: QRect | None = None) -> None:
    """Scroll the page so that a widget, or a box in it, is seen."""
    parent = widget.parentWidget()
    while parent is not None and not isinstance(parent, QScrollArea):
        parent = parent.parentWidget()
    if parent is not None:
        box = box or widget.rect()
        at = widget.mapTo(parent.widget(), box.center())
        parent.ensureVisible(at.x(), at.y(), 0, box.height())


class Roll(Painted):
    """Rows with one current; the arrows, Home and End move, a click picks, other keys go to `pressed`.

    A subclass gives `count`, `row_words` (for a screen reader) and `paint_row`.
    """

    heard_as = Role.List
    moved = Signal(int)

    def __init__(self, theme: Theme, name: str) -> None:
        super().__init__(theme)
        self.current = 0
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(name)

    def count(self) -> int:
        """Return how many rows there are."""
        return 0

    def row_words(self, k: int) -> str:
        """Return a row in words."""
        return ""

    def paint_row(self, painter: QPainter, k: int, box: QRect) -> None:
        """Paint a row into its box; a plain roll writes its words."""
        paint.text(painter, self.theme, box.adjusted(8, 0, -8, 0), self.row_words(k))

    def pressed(self, key: str) -> bool:
        """Take a key's text; return whether it meant something."""
        return False

    def row_height(self, k: int) -> int:
        """Return a row's height in pixels."""
        return self.theme.px(ROW)

    def least_height(self) -> int:
        """Return the height that shows every row."""
        return sum(self.row_height(k) for k in range(self.count())) or self.theme.px(ROW)

    def boxes(self) -> list[QRect]:
        """Return the boxes of the rows."""
        found, y = [], 0
        for k in range(self.count()):
            high = self.row_height(k)
            found.append(QRect(0, y, self.width(), high))
            y += high
        return found

    def row_ticked(self, k: int) -> bool | None:
        """Return whether a row is ticked; None where rows are not."""
        return None

    def hears(self) -> Heard:
        """Return its rows with the current one."""
        rows = (
            Row(self.row_words(k), box, k == self.current, self.row_ticked(k))
            for k, box in enumerate(self.boxes())
        )
        return Heard(Role.List, self.accessibleName(), "", tuple(rows))

    def retell(self) -> None:
        """Fit to other rows, and tell them."""
        self.current = min(max(self.current, 0), max(self.count() - 1, 0))
        self.setAccessibleDescription("; ".join(self.row_words(k) for k in range(self.count())))
        self.fit()

    def go(self, k: int) -> None:
        """Make a row the current one."""
        if 0 <= k < self.count() and k != self.current:
            self.current = k
            self.moved.emit(k)
            self._show()
            tell(self, QAccessible.Event.Focus, k)
        self.update()

    def _show(self) -> None:
        """Scroll the page so that the current row is seen."""
        if self.count():
            reveal(self, self.boxes()[self.current])

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Walk; hand on what is no step."""
        steps = {
            Qt.Key.Key_Up: self.current - 1,
            Qt.Key.Key_Down: self.current + 1,
            Qt.Key.Key_Home: 0,
            Qt.Key.Key_End: self.count() - 1,
        }
        step = steps.get(Qt.Key(event.key()))
        if step is not None:
            self.go(step)
        elif event.modifiers() & Qt.KeyboardModifier.ControlModifier or not self.pressed(
            DELETE if event.key() in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace) else event.text()
        ):
            super().keyPressEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Pick the row under the pointer."""
        for k, box in enumerate(self.boxes()):
            if box.contains(event.position().toPoint()):
                self.go(k)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw every row; the current one on writing ground, framed while the keys go here."""
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for k, box in enumerate(self.boxes()):
            if k == self.current:
                painter.fillRect(box, t.colour("surface"))
                if self.hasFocus():
                    painter.setPen(QPen(t.colour("ink"), 2))
                    painter.setBrush(Qt.BrushStyle.NoBrush)
                    painter.drawRect(box.adjusted(1, 1, -1, -1))
            self.paint_row(painter, k, box)
