"""A drawing that is made anew for the room it has, so that its figures keep their size."""

from collections.abc import Callable

from PySide6.QtCore import QRectF
from PySide6.QtGui import QPainter, QPaintEvent

from careful_coil.desk import paint
from careful_coil.desk.heard import Role
from careful_coil.desk.painted import Painted
from careful_coil.desk.theme import Theme
from careful_coil.drawing.shapes import Drawing

PER_MM = 4.3  # pixels at 100 % text: a figure of 3.1 mm is 13 pixels


class Plot(Painted):
    """`make` is called with the room in millimetres."""

    heard_as = Role.Graphic

    def __init__(self, theme: Theme, name: str, high: int = 300, share: float = 1.0) -> None:
        """`share` of its own size at which a whole drawing is shown, where others need the room."""
        super().__init__(theme)
        self._high, self._share = high, share
        self._whole: Drawing | None = None
        self._make: Callable[[float, float], Drawing] | None = None
        self.setAccessibleName(name)
        self.fit()

    def least_height(self) -> int:
        """Return the height that was asked for, or that its drawing takes in this width."""
        if self._whole is None:
            return self.theme.px(self._high)
        whole = self._whole
        per_mm = min(PER_MM * self.theme.scale, max(self.width(), 200) / max(whole.width, 1.0))
        return round(whole.height * per_mm * self._share) + 6

    def show_whole(self, drawing: Drawing, words: str) -> None:
        """Show a drawing of its own size, as high as the width allows."""
        self._whole = drawing
        self.draw(lambda *_: drawing, words)
        self.fit()

    def draw(self, make: Callable[[float, float], Drawing], words: str) -> None:
        """Show another drawing; `words` tell it to a screen reader."""
        self._make = make
        self.setAccessibleDescription(words)
        self.update()

    def drawn(self) -> Drawing | None:
        """Return the drawing in the room there is; None where there is none."""
        scale = PER_MM * self.theme.scale
        return self._make(self.width() / scale, self.height() / scale) if self._make else None

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw it in the room there is."""
        drawing = self.drawn()
        if drawing is not None:
            scale = PER_MM * self.theme.scale
            paint.drawing(QPainter(self), self.theme, drawing, QRectF(self.rect()), scale)
