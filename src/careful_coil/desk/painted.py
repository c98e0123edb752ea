"""What every widget painted by hand has: a theme, and a height that follows its words."""

from collections.abc import Iterable

from PySide6.QtCore import Signal
from PySide6.QtGui import QFocusEvent, QPainter, QPaintEvent, QResizeEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from careful_coil.desk.heard import Heard, Role, Row
from careful_coil.desk.theme import Theme

BAR = 12  # pixels of a scroll bar, and some


class Painted(QWidget):
    """Base of the painted widgets. `least_height` may depend on the width."""

    heard_as = Role.StaticText

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self._shown: tuple[object, ...] = ()
        self._held_width = 0
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self.theme = theme
        self.fit()

    def shows(self, *what: object) -> bool:
        """Whether this is other than what it showed: what is the same is not painted again."""
        other, self._shown = what != self._shown, what
        return other

    def hears(self) -> Heard:
        """Return what it is to somebody who hears the window."""
        rows = tuple(self.heard_rows())
        if rows:
            return Heard(Role.List, self.accessibleName(), "", rows)
        return Heard(self.heard_as, self.accessibleName(), self.accessibleDescription())

    def heard_rows(self) -> Iterable[Row]:
        """Return its rows as they are heard, where it is a list."""
        return ()

    def steady_width(self) -> int:
        """Return the width, the same with and without a scroll bar beside it.

        What decides by it how high it is would else take the bar away that its height has brought.
        """
        if abs(self.width() - self._held_width) > BAR:
            self._held_width = self.width()
        return self._held_width

    def least_height(self) -> int:
        """Return the height in pixels that shows all of it; 0 leaves it to the layout."""
        return 0

    def fit(self) -> None:
        """Fit the height to what is shown, and paint anew."""
        height = self.least_height()
        if height:
            self.setFixedHeight(height)
        self.update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Fit the height to the width."""
        super().resizeEvent(event)
        self.fit()

    def focusInEvent(self, event: QFocusEvent) -> None:
        """Show that the keys go here."""
        super().focusInEvent(event)
        self.update()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        """Show that the keys go elsewhere."""
        super().focusOutEvent(event)
        self.update()


class Ground(QWidget):
    """What lies under everything: painted, for a style sheet up here would restyle pages out of sight."""

    first_painted = Signal()

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme, self._seen = theme, False

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self._theme = theme
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Fill it."""
        QPainter(self).fillRect(event.rect(), self._theme.colour("ground"))
        if not self._seen:
            self._seen = True
            self.first_painted.emit()
