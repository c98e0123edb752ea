"""Widgets in rows of so many at most, fewer where the room or the text asks for it."""

from PySide6.QtCore import QEvent, QSize
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QGridLayout, QWidget

from careful_coil.desk.theme import Theme


class Flow(QWidget):
    """A grid whose columns follow its width: `most` columns, none but the last narrower than `narrowest` pixels.

    Without `narrowest` the widest of its widgets says how narrow a column may be.
    """

    def __init__(self, most: int, narrowest: int, theme: Theme | None = None) -> None:
        super().__init__()
        self._scale = theme.scale if theme else 1.0
        self._most, self._columns, self._narrowest = most, most, narrowest
        self._widgets: list[QWidget] = []
        self._shown: list[QWidget] = []  # those that are in sight, as they stand now
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setHorizontalSpacing(14 if narrowest else 8)
        self._grid.setVerticalSpacing(6 if narrowest else 8)

    def add(self, widget: QWidget) -> None:
        """Add a widget after the others."""
        k = len(self._widgets)
        self._widgets.append(widget)
        self._grid.addWidget(widget, k // self._columns, k % self._columns)

    def clear(self) -> None:
        """Take all widgets out and do away with them."""
        for widget in self._widgets:
            self._grid.removeWidget(widget)
            widget.deleteLater()
        self._widgets = []

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self._scale = theme.scale
        self._arrange()

    def minimumSizeHint(self) -> QSize:
        """Return the least size of one column, so that narrow windows get it."""
        wide = max((w.minimumSizeHint().width() for w in self._widgets), default=1)
        return QSize(wide, super().minimumSizeHint().height())

    def event(self, event: QEvent) -> bool:
        """Close up where one of them is hidden or shown."""
        if event.type() == QEvent.Type.LayoutRequest:
            self._arrange()
        return super().event(event)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Use as many columns as fit."""
        super().resizeEvent(event)
        self._arrange()

    def _least(self) -> int:
        if self._narrowest:
            return round(self._narrowest * self._scale)
        return max((w.sizeHint().width() for w in self._widgets), default=1)

    def _arrange(self) -> None:
        room = self.width() + self._grid.horizontalSpacing()
        each = self._least() + self._grid.horizontalSpacing()
        columns = min(max(room // each, 1), self._most)
        shown = [w for w in self._widgets if not w.isHidden()]
        if columns == self._columns and shown == self._shown:
            return
        self._columns, self._shown = columns, shown
        for k, widget in enumerate(shown):
            self._grid.addWidget(widget, k // columns, k % columns)
