"""The window turned to its own negative: a stall that has lasted too long is seen from across the shop."""

from PySide6.QtCore import QPoint
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QGraphicsEffect, QMainWindow, QWidget


class Negative(QGraphicsEffect):
    """Draws what it is on with every colour turned round."""

    def draw(self, painter: QPainter) -> None:
        """Draw the negative."""
        image = self.sourcePixmap().toImage()
        image.invertPixels()
        painter.drawImage(QPoint(0, 0), image)


def invert(inside: QWidget, on: bool) -> None:
    """Turn the window that a widget is in to its negative, or back."""
    window = inside.window()
    whole = window.centralWidget() if isinstance(window, QMainWindow) else inside
    if isinstance(whole.graphicsEffect(), Negative) != on:
        whole.setGraphicsEffect(Negative(whole) if on else None)  # type: ignore[arg-type]
