"""A list of things to do, ticked one by one."""

from collections.abc import Sequence
from typing import Protocol

from PySide6.QtCore import QPointF, QRect, QRectF, Signal
from PySide6.QtGui import QAccessible, QPainter, QPen

from careful_coil.desk import paint
from careful_coil.desk.heard import tell
from careful_coil.desk.roll import Roll
from careful_coil.desk.theme import Theme

ALL = "a"  # ticks what is left, where all of it is looked over together
BOX = 18  # of a tick, in pixels


class Item(Protocol):
    """What can be ticked: its key, what to do, why."""

    @property
    def name(self) -> str:
        """Return its key."""

    @property
    def words(self) -> str:
        """Return what to do."""

    @property
    def why(self) -> str:
        """Return why."""


class TickRoll(Roll):
    """What to do, each with why; Space ticks and moves on, Enter is for all of it.

    `at_once`: things that are looked over together may be ticked by one key, A.
    """

    ticked = Signal()
    entered = Signal()

    def __init__(self, theme: Theme, name: str, at_once: bool = False) -> None:
        super().__init__(theme, name)
        self.at_once = at_once
        self.items: tuple[Item, ...] = ()
        self.done: set[str] = set()
        self.fit()

    def show_items(self, items: Sequence[Item], done: set[str]) -> None:
        """Show other items."""
        self.items, self.done = tuple(items), done & {i.name for i in items}
        self.retell()

    @property
    def left(self) -> list[Item]:
        """Return what is not ticked yet."""
        return [i for i in self.items if i.name not in self.done]

    @property
    def still(self) -> str:
        """Return what is to be ticked before Enter takes the list, nothing where all of it is."""
        left = self.left
        return f"Still to tick: {left[0].words[0].lower()}{left[0].words[1:]}." if left else ""

    def count(self) -> int:
        """Return how many there are."""
        return len(self.items)

    def row_words(self, k: int) -> str:
        """Return an item in words."""
        state = "ticked" if self.items[k].name in self.done else "not ticked"
        return f"{self.items[k].words}: {state}"

    def row_ticked(self, k: int) -> bool | None:
        """Return whether an item is ticked."""
        return self.items[k].name in self.done

    def row_height(self, k: int) -> int:
        """Return a row's height: as many lines as its words need."""
        t = self.theme
        wide = max(self.width() - t.px(BOX + 30), 120)
        words = paint.height_of(t, self.items[k].words, wide)
        return max(words + paint.height_of(t, self.items[k].why, wide, 13) + t.px(12), t.px(46))

    def pressed(self, key: str) -> bool:
        """Space ticks or unticks the row and goes on to the next; Enter is for all."""
        if key == " " and self.items:
            name = self.items[self.current].name
            self.done ^= {name}
            left = [k for k, i in enumerate(self.items) if i.name not in self.done]
            if name in self.done and left:
                self.go(next((k for k in left if k > self.current), left[0]))
            self.retell()
            tell(self, QAccessible.Event.StateChanged, self.current)
            self.ticked.emit()
            return True
        if key.lower() == ALL and self.at_once and self.items:
            self.done = {i.name for i in self.items}
            self.retell()
            self.ticked.emit()
            return True
        if key in ("\r", "\n"):
            self.entered.emit()
            return True
        return False

    def paint_row(self, painter: QPainter, k: int, box: QRect) -> None:
        """Draw the box with its tick, what to do, why."""
        t, item = self.theme, self.items[k]
        side = t.px(BOX)
        square = QRectF(box.left() + 8, box.top() + t.px(7), side, side)
        painter.setPen(QPen(t.colour("ink"), 1.6))
        painter.setBrush(t.colour("surface"))
        painter.drawRect(square)
        if item.name in self.done:
            paint.mark(painter, t, "good", QPointF(square.center()), BOX)
        x = box.left() + side + 20
        wide = max(box.width() - side - 30, 120)
        at = QRect(x, box.top() + t.px(4), wide, box.height())
        high = paint.text(painter, t, at, item.words, wrap=True, bold=True)
        below = QRect(x, box.top() + t.px(4) + high, wide, box.height())
        paint.text(painter, t, below, item.why, size=13, token="quiet", wrap=True)

    def mousePressEvent(self, event: object) -> None:
        """A click ticks the row it falls on."""
        super().mousePressEvent(event)  # type: ignore[arg-type]
        self.pressed(" ")
