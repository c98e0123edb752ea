"""A drawing that follows a slider, below its page of the handbook."""

from PySide6.QtWidgets import QVBoxLayout, QWidget

from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.slider import Slider
from careful_coil.desk.theme import Theme
from careful_coil.drawing.why import Why

SHARE = 0.7  # of the drawing's own size: the page above it is read too


class Alive(QWidget):
    """Slider, drawing, and what the figure means."""

    def __init__(self, theme: Theme, why: Why) -> None:
        super().__init__()
        self._why = why
        self.slider = Slider(theme, why.name, why.low, why.high, why.told)
        self.plot = Plot(theme, why.name, 10, SHARE)
        self.words = Prose(theme)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 8, 0, 0)
        for part in (self.slider, self.plot, self.words):
            column.addWidget(part)
        self.slider.moved.connect(self.show_at)
        self.show_at(1.0)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        for part in (self.slider, self.plot, self.words):
            part.set_theme(theme)

    def show_at(self, factor: float) -> None:
        """Show what follows from the figure."""
        value = self._why.usual * factor
        self.words.say(self._why.says(value))
        self.plot.show_whole(self._why.draw(value), self.words.words)
