"""A slider with its name and its figure: the arrows move it, Home and End go to its ends."""

import math
from collections.abc import Callable

from PySide6.QtCore import QRect, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen

from careful_coil.desk import paint
from careful_coil.desk.heard import Heard, Role
from careful_coil.desk.painted import Painted
from careful_coil.desk.theme import Theme

STEPS = 60  # from end to end; a page is a tenth
PAGE = STEPS // 10
HANDLE = 10  # pixels, half of it
WORDS = 20  # pixels of the line of words at 100 % text


class Slider(Painted):
    """A factor from `low` to `high`, even on a logarithmic scale, 1 in its place; `told` shows it."""

    heard_as = Role.Slider
    moved = Signal(float)

    def __init__(
        self, theme: Theme, name: str, low: float, high: float, told: Callable[[float], str]
    ) -> None:
        super().__init__(theme)
        self._name, self._told = name, told
        self._low, self._high = math.log(low), math.log(high)
        self.factor = 1.0
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(name)
        self.put(1.0)
        self.fit()

    def hears(self) -> Heard:
        """Return its name and its figure."""
        return Heard(Role.Slider, self._name, self._told(self.factor))

    def least_height(self) -> int:
        """Return its height: words, and the handle below them."""
        return self.theme.px(WORDS) + 2 * HANDLE + 8

    def put(self, factor: float) -> None:
        """Show a factor without telling of it."""
        self.factor = factor
        self.setAccessibleDescription(self._told(factor))
        self.update()

    def go(self, share: float) -> None:
        """Move to a share of the way, and tell of it."""
        share = min(max(share, 0.0), 1.0)
        self.put(math.exp(self._low + share * (self._high - self._low)))
        self.moved.emit(self.factor)

    @property
    def share(self) -> float:
        """Return how far the handle stands, of 1."""
        return (math.log(self.factor) - self._low) / (self._high - self._low)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Arrows step, Page keys of the keyboard belong to the station, Home and End go to the ends."""
        steps = {
            Qt.Key.Key_Left: -1,
            Qt.Key.Key_Down: -1,
            Qt.Key.Key_Right: 1,
            Qt.Key.Key_Up: 1,
            Qt.Key.Key_Minus: -PAGE,
            Qt.Key.Key_Plus: PAGE,
        }
        step = steps.get(Qt.Key(event.key()))
        if step is not None:
            self.go(self.share + step / STEPS)
        elif event.key() == Qt.Key.Key_Home:
            self.go(0.0)
        elif event.key() == Qt.Key.Key_End:
            self.go(1.0)
        else:
            super().keyPressEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """A press takes the handle there."""
        self._drag(event)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """A drag takes the handle along."""
        self._drag(event)

    def _drag(self, event: QMouseEvent) -> None:
        left, right = self._track()
        self.go((event.position().x() - left) / max(right - left, 1))

    def _track(self) -> tuple[float, float]:
        return HANDLE + 2.0, self.width() - HANDLE - 2.0

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw name, track, handle and figure."""
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        line = QRect(0, 0, self.width(), t.px(WORDS))
        paint.text(painter, t, line, self._name, size=13, token="quiet")
        paint.text(painter, t, line, self._told(self.factor), bold=True, align=1)
        left, right = self._track()
        y = t.px(WORDS) + (self.height() - t.px(WORDS)) / 2
        painter.setPen(QPen(t.colour("quiet"), 3))
        painter.drawLine(int(left), int(y), int(right), int(y))
        x = left + self.share * (right - left)
        painter.setPen(QPen(t.colour("ink"), 4 if self.hasFocus() else 2.4))
        painter.setBrush(t.colour("surface"))
        painter.drawEllipse(QRectF(x - HANDLE, y - HANDLE, 2 * HANDLE, 2 * HANDLE))
