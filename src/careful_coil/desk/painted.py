"""What every widget painted by hand has: a theme, and a height that follows its words."""

from PySide6.QtGui import QFocusEvent, QResizeEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from careful_coil.desk.theme import Theme


class Painted(QWidget):
    """Base of the painted widgets. `least_height` may depend on the width."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self.theme = theme
        self.fit()

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
