"""The stator as a picture one can walk through: the arrows choose a coil, a click the nearest side."""

import math

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent

from careful_coil.core.rewind.layout import Layout
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.theme import Theme
from careful_coil.drawing.stator import draw_stator


class StatorPlot(Plot):
    """A layout with one coil drawn out."""

    chosen = Signal(int)

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme, "The stator as recorded", 10)
        self.layout_shown: Layout | None = None
        self.coil = 1
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def show_layout(self, layout: Layout | None) -> None:
        """Show another layout; the coil stays where there is one of that number."""
        self.layout_shown = layout
        self.setVisible(layout is not None)
        if layout is not None:
            self.coil = min(self.coil, len(layout.coils))
            self._show()

    def go(self, coil: int) -> None:
        """Draw another coil out, round and round."""
        if self.layout_shown is not None:
            self.coil = (coil - 1) % len(self.layout_shown.coils) + 1
            self._show()
            self.chosen.emit(self.coil)

    def _show(self) -> None:
        if self.layout_shown is None:
            return
        c = self.layout_shown.coils[self.coil - 1]
        words = f"coil {c.number}, slots {c.start} and {c.finish}, group {c.group}, {c.phase}"
        self.show_whole(draw_stator(self.layout_shown, self.coil), words)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Walk round the stator; Home is the first coil."""
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()))
        if step is not None:
            self.go(self.coil + step)
        elif event.key() == Qt.Key.Key_Home:
            self.go(1)
        else:
            super().keyPressEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Choose the coil that starts in the slot pointed at."""
        layout = self.layout_shown
        if layout is None:
            return
        x = event.position().x() - self.width() / 2
        y = event.position().y() - self.height() / 2
        turn = (math.atan2(y, x) + math.pi / 2) % (2 * math.pi)
        slot = round(turn / (2 * math.pi) * layout.slots) % layout.slots + 1
        sides = layout.sides[slot]
        if sides:
            self.go(sides[0].number)
