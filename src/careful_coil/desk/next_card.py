"""The Next card: the one most useful thing to do now."""

from typing import TYPE_CHECKING

from PySide6.QtCore import QRect, Signal
from PySide6.QtGui import QAccessible, QMouseEvent, QPainter, QPaintEvent, QPen

from careful_coil.core.stations import TITLES as SHOWN
from careful_coil.desk import paint
from careful_coil.desk.heard import Heard, Role, tell
from careful_coil.desk.painted import Painted
from careful_coil.desk.theme import Theme

if TYPE_CHECKING:
    from careful_coil.core.ledger import Judgement, NextStep

AT_ONCE = ("ready", "trial-ready", "checks")  # lists that are looked over together
SIGNED = ("ready", "trial-ready")  # and logged as a whole
BY_KEY = ("strip", "act", "dead", "discharge", "trial-end", *AT_ONCE)  # the cursor is in no field
MOST_CHOICES = 8  # words of an answer that are shown


class NextCard(Painted):
    """The one most useful thing to do now; Enter does it."""

    heard_as = Role.AlertMessage
    pressed = Signal()

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self._step: NextStep | None = None
        self._skipped: tuple[NextStep, ...] = ()
        self._other, self._here = "", ""
        self.setAccessibleName("Next")

    def show_step(self, judged: "Judgement | None") -> None:
        """Show the next step of a judgement, and what was skipped."""
        self._step = judged.next if judged else None
        self._skipped = judged.skipped if judged else ()
        released = judged is not None and judged.released
        self._other = (
            "Released. It may go." if released else "Open a motor: Ctrl+K. A new one: Ctrl+N."
        )
        words = f"{self.title()}. {self.why()} {self.asked()}".strip()
        if self.shows(words, self.foot(), self._step.words if self._step else ""):
            self.setAccessibleDescription(words)
            self.fit()
            tell(self, QAccessible.Event.Alert)

    def look_from(self, station: str) -> None:
        """Take the station that is open."""
        if station != self._here:
            self._here = station
            self.update()

    @property
    def elsewhere(self) -> str:
        """Return the station that the step is done at, where that is not the open one."""
        step = self._step
        return SHOWN[step.station] if step is not None and step.station != self._here else ""

    def title(self) -> str:
        """Return the words in large type."""
        return self._step.title if self._step else "Nothing to do"

    def why(self) -> str:
        """Return the reason."""
        return self._step.why if self._step else self._other

    def asked(self) -> str:
        """Return how it is answered: the words there are, the unit, how many ticks."""
        asks = self._step.asks if self._step else ()
        if not asks:
            return ""
        first = asks[0]
        if first.type == "choice":
            return (
                f"Answer: {', '.join(c.replace('-', ' ') for c in first.choices[:MOST_CHOICES])}."
            )
        if first.type == "tick":
            if not first.choices:
                return ""
            every = ", A all of it" if first.reader in AT_ONCE else ""
            then = ", then Enter" if first.reader in SIGNED else ""
            return f"{len(first.choices)} to tick: Space each{every}{then}."
        unit = f", in {first.unit}" if first.unit else ""
        return f"Answer: {first.name}{unit}." if first.reader else ""

    def foot(self) -> str:
        """Return what the keys do besides."""
        if self._skipped:
            return f"Skipped: {self._skipped[0].title}, {len(self._skipped)} in all. Shift+N brings them back."
        asks = self._step.asks if self._step else ()
        typed = any(c.startswith("n") for q in asks for c in q.choices)  # N is a letter then
        in_field = bool(asks) and asks[0].reader not in BY_KEY
        return f"Not here? {'+' if typed or in_field else 'N'} skips it." if self._step else ""

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        t, wide = self.theme, max(self.width() - 32, 60)
        words = paint.height_of(t, self.title(), wide, 24, True) + paint.height_of(
            t, self.why(), wide, 14
        )
        if self.asked():
            words += paint.height_of(t, self.asked(), wide, 13) + t.px(7)
        foot = paint.height_of(t, self.foot(), wide, 13) if self.foot() else 0
        return t.px(32) + words + foot + t.px(36)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the card."""
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = self.rect().adjusted(1, 1, -1, -1)
        high = t.px(32)
        painter.setPen(QPen(t.colour("copper"), 2))
        painter.setBrush(t.colour("surface"))
        painter.drawRoundedRect(box, 4, 4)
        painter.fillRect(QRect(box.left(), box.top(), box.width(), high), t.colour("copper"))
        band = QRect(box.left() + 14, box.top(), box.width() - 28, high)
        at = self.elsewhere
        head = f"Next · {at}" if at else "Next"
        paint.text(painter, t, band, head, bold=True, token="surface")
        key = f"Enter: {self._step.words}" if self._step and self._step.words else "Enter"
        room = band.width() - paint.width_of(t, head, 15, True) - t.px(10)
        key = paint.fitting(t, room, "Enter goes there" if at else key, "Enter")
        if self._step:
            paint.text(painter, t, band, key, size=13, token="surface", align=1)
        x, wide, y = box.left() + 15, box.width() - 30, box.top() + high + t.px(10)
        for words, size, bold, token in (
            (self.title(), 24, True, "ink"),
            (self.why(), 14, False, "ink"),
            (self.asked(), 13, False, "ink"),
            (self.foot(), 13, False, "quiet"),
        ):
            height = paint.height_of(t, words, wide, size, bold)
            if words:
                paint.text(
                    painter,
                    t,
                    QRect(x, y, wide, height + 4),
                    words,
                    size=size,
                    bold=bold,
                    token=token,
                    wrap=True,
                )
                y += height + t.px(7)

    def hears(self) -> Heard:
        """Return what is to be done, where, why, and how it is answered."""
        at = f" at {self.elsewhere}" if self.elsewhere else ""
        says = f"{self.why()} {self.asked()} {self.foot()}".strip()
        return Heard(self.heard_as, f"Next{at}: {self.title()}", says)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """A click is Enter."""
        self.pressed.emit()
