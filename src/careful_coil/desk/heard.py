"""What a painted widget is to somebody who hears the window: its role, its rows, what of them is chosen or ticked.

`Painted.hears` says it; here it becomes what Qt hands on to a screen reader.
"""

from dataclasses import dataclass
from functools import partial
from typing import Any

from PySide6.QtCore import QObject, QRect
from PySide6.QtGui import QAccessible, QAccessibleEvent, QAccessibleInterface
from PySide6.QtWidgets import QAccessibleWidget, QWidget
from shiboken6 import isValid

from careful_coil.desk.tongue import tr

Role = QAccessible.Role


@dataclass(frozen=True, slots=True)
class Row:
    """A row as it is heard: its words, where it is, whether it is the current one; `ticked` None: it has no tick."""

    words: str
    box: QRect
    current: bool = False
    ticked: bool | None = None


@dataclass(frozen=True, slots=True)
class Heard:
    """A widget as it is heard: its role, its name, what it says besides, its rows."""

    role: Role
    name: str = ""
    says: str = ""
    rows: tuple[Row, ...] = ()


def tell(widget: QWidget, event: QAccessible.Event, row: int = -1) -> None:
    """Tell whoever listens that something of a widget, or of a row of it, is another now."""
    if QAccessible.isActive():
        told = QAccessibleEvent(widget, event)
        if row >= 0:
            told.setChild(row)
        QAccessible.updateAccessibility(told)


class RowFace(QAccessibleInterface):
    """A row of a painted list."""

    def __init__(self, of: Any, place: int) -> None:
        super().__init__()
        self._of, self._place = of, place

    def _row(self) -> Row | None:
        rows = self._of.hears().rows if isValid(self._of) else ()
        return rows[self._place] if self._place < len(rows) else None

    def isValid(self) -> bool:
        """Whether it is still there."""
        return self._row() is not None

    def object(self) -> Any:
        """Return nothing: a row is no object."""
        return None

    def parent(self) -> QAccessibleInterface:
        """Return its list."""
        return QAccessible.queryAccessibleInterface(self._of)

    def child(self, index: int) -> Any:
        """Return nothing: a row is whole."""
        return None

    def childAt(self, x: int, y: int) -> Any:
        """Return nothing."""
        return None

    def childCount(self) -> int:
        """Return none."""
        return 0

    def indexOfChild(self, child: QAccessibleInterface) -> int:
        """Return that there is none."""
        return -1

    def text(self, what: QAccessible.Text) -> str:
        """Return its words."""
        row = self._row()
        return tr(row.words) if row is not None and what == QAccessible.Text.Name else ""

    def setText(self, what: QAccessible.Text, text: str) -> None:
        """Take none: what is painted is not typed."""

    def rect(self) -> QRect:
        """Return where it is on the screen."""
        row = self._row()
        if row is None:
            return QRect()
        return QRect(self._of.mapToGlobal(row.box.topLeft()), row.box.size())

    def role(self) -> Role:
        """Return what it is."""
        row = self._row()
        ticks = row is not None and row.ticked is not None
        return Role.CheckBox if ticks else Role.ListItem

    def state(self) -> Any:
        """Return whether it is chosen, focused, ticked."""
        row = self._row()
        state: Any = QAccessible.State()  # Qt's stubs name none of its bits
        if row is None:
            state.invalid = True
            return state
        state.selectable = state.focusable = True
        state.selected = row.current
        state.focused = row.current and self._of.hasFocus()
        if row.ticked is not None:
            state.checkable = True
            state.checked = row.ticked
        return state


class Face(QAccessibleWidget):
    """A painted widget; its rows are its children."""

    def __init__(self, widget: Any) -> None:
        super().__init__(widget, widget.heard_as, widget.accessibleName())
        self._of = widget
        self._rows: dict[int, RowFace] = {}

    def _heard(self) -> Heard:
        try:
            heard: Heard = self._of.hears()
        except AttributeError:  # asked while it is being made
            return Heard(self._of.heard_as, self._of.accessibleName())
        return heard

    def role(self) -> Role:
        """Return what it is."""
        return self._heard().role

    def text(self, what: QAccessible.Text) -> str:
        """Return its name, and what it says besides."""
        heard = self._heard()
        if what == QAccessible.Text.Name:
            return tr(heard.name)
        if what == QAccessible.Text.Description:
            return tr(heard.says)
        return super().text(what)

    def childCount(self) -> int:
        """Return how many rows it has; without any, the widgets inside it."""
        rows = self._heard().rows
        return len(rows) if rows else super().childCount()

    def child(self, index: int) -> Any:
        """Return a row."""
        rows = self._heard().rows
        if not rows:
            return super().child(index)
        if not 0 <= index < len(rows):
            return None
        if index not in self._rows:
            self._rows[index] = RowFace(self._of, index)
            QAccessible.registerAccessibleInterface(self._rows[index])
        return self._rows[index]

    def indexOfChild(self, child: QAccessibleInterface) -> int:
        """Return the row that an interface is of."""
        own = next((k for k, face in self._rows.items() if face is child), -1)
        return own if own >= 0 else super().indexOfChild(child)


_faces: dict[int, Face] = {}  # Qt keeps no reference to what Python made


def _face_of(_: str, of: QObject | None) -> QAccessibleInterface | None:
    """Return the face of a painted widget; None leaves others to Qt."""
    if of is None or not hasattr(of, "hears") or not isValid(of):
        return None
    face = Face(of)
    _faces[id(of)] = face
    of.destroyed.connect(partial(_gone, id(of)))
    return face


def _gone(key: int, _: object = None) -> None:
    _faces.pop(key, None)


def listen() -> None:
    """Let Qt ask painted widgets what they are; once an application."""
    QAccessible.installFactory(_face_of)
