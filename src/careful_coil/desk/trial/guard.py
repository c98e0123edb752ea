"""The stall guard: armed by a key, started as the bench switch closes, stopped by what the motor does."""

from collections.abc import Callable

from PySide6.QtCore import QRect, Qt, QTimer, Signal
from PySide6.QtGui import QKeyEvent, QPainter, QPaintEvent

from careful_coil.core.trial.stall import show_short
from careful_coil.desk import paint
from careful_coil.desk.heard import Heard, Role
from careful_coil.desk.painted import Painted
from careful_coil.desk.theme import Theme

TICK_MS = 100
LONGEST = "Next press: dropped out. T turns, D dropped out, S stalled, X tripped."
BIG, WIDE = 104, 230  # pixels at 100 % text of the seconds
KEYS = {"t": "turns", "d": "dropped out", "s": "stalled", "x": "tripped"}
PRESSES = ("\r", "\n", " ")  # what a pedal sends, too


class StallGuard(Painted):
    """Seconds, very large. A tick arms it; the next press, key or pedal, starts the clock as the bench
    switch closes; the one after says that it turns or let go. T, D, S or X say what became of it."""

    ended = Signal(str, float)  # outcome, seconds
    beeped = Signal()
    over = Signal(bool)  # the seconds allowed are used up

    def __init__(self, theme: Theme, steady: Callable[[], float]) -> None:
        super().__init__(theme)
        self._steady = steady
        self.state = "idle"  # idle, armed, running
        self.seconds, self.limit, self._began, self._beeps = 0.0, 5.0, 0.0, 0
        self.limit_words = ""
        self.says = "turns"  # what the next press says while it runs
        self.wait: Callable[[], str] = lambda: ""  # why it must not be tried now
        self._refused = ""
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Stall guard")
        self._timer = QTimer(self)
        self._timer.setInterval(TICK_MS)
        self._timer.timeout.connect(self.tick)
        self.fit()

    def hears(self) -> Heard:
        """Return the seconds, what the keys do, and the seconds allowed; an alarm once they are used up."""
        over = self.state == "running" and self.seconds >= self.limit
        role = Role.AlertMessage if over else Role.Clock
        return Heard(role, f"Stall guard, {self.seconds:.1f} s", self.told())

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        t = self.theme
        told = f"{LONGEST}\n{self._allowed()}"  # it must not jump while it runs
        words = paint.height_of(t, told, self._room().width(), 15) + t.px(8)
        return t.px(BIG) + words if self._narrow() else max(t.px(BIG), t.px(12) + words)

    def _narrow(self) -> bool:
        """Whether the words stand below the seconds."""
        return self.width() < self.theme.px(460)

    def told(self) -> str:
        """Return what the keys do and the seconds allowed."""
        return f"{self.words()}\n{self._allowed()}"

    def _allowed(self) -> str:
        return f"Seconds allowed: {show_short(self.limit)}, {self.limit_words}."

    def _room(self) -> QRect:
        """Return the room of the words: beside the seconds, or below them."""
        t = self.theme
        if self._narrow():
            return QRect(t.px(14), t.px(BIG), max(self.width() - t.px(28), t.px(120)), t.px(200))
        left = t.px(14 + WIDE + 16)
        return QRect(left, t.px(12), max(self.width() - left - t.px(14), t.px(120)), t.px(200))

    def words(self) -> str:
        """Return what the keys do now."""
        if self.state == "idle":
            return self._refused or "Enter arms it; nothing is switched from here."
        if self.state == "armed":
            return "Armed. Enter, Space or the pedal as the bench switch closes. Esc disarms."
        if self.seconds >= self.limit:
            return "OFF NOW: bench switch off. Then S stalled, X tripped."
        return f"Next press: {self.says}. T turns, D dropped out, S stalled, X tripped."

    def tick(self) -> None:
        """Let the clock go on; one beep a second."""
        if self.state != "running":
            return
        before = self.seconds
        self.seconds = self._steady() - self._began
        while self._beeps < int(self.seconds):
            self._beeps += 1
            self.beeped.emit()
        if before < self.limit <= self.seconds:
            self.over.emit(True)
        self.setAccessibleDescription(f"{self.seconds:.1f} s, {self.words()}")
        self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Arm, start, say what became of it."""
        key = event.text().lower()
        if event.isAutoRepeat():
            return
        if self.state == "running" and (key in KEYS or key in PRESSES):
            late = self._steady() - self._began >= self.limit
            if key in KEYS or not late:  # past the limit a press alone would call a stall a start
                self._end(KEYS.get(key, self.says))
        elif key in PRESSES:
            self._press()
        elif event.key() == Qt.Key.Key_Escape and self.state == "armed":
            self.state = "idle"
        else:
            super().keyPressEvent(event)
        self.update()

    def _press(self) -> None:
        self._refused = ""
        if self.state == "idle":
            self._refused = self.wait()
            if not self._refused:
                self.state, self.seconds = "armed", 0.0
        elif self.state == "armed":
            self.state, self._began, self._beeps = "running", self._steady(), 0
            self._timer.start()
        self.setAccessibleDescription(self.words())

    def _end(self, outcome: str) -> None:
        self.tick()
        self._timer.stop()
        self.state = "idle"
        self.over.emit(False)
        self.ended.emit(outcome, round(self.seconds, 1))

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the seconds, inverted from the limit on."""
        painter, t = QPainter(self), self.theme
        over = self.state == "running" and self.seconds >= self.limit
        if over:
            painter.fillRect(self.rect(), t.colour("hold"))
        elif self.hasFocus():
            painter.fillRect(self.rect(), t.colour("surface"))
        token = "ground" if over else "ink" if self.state != "idle" else "quiet"
        big = QRect(t.px(14), 0, t.px(WIDE), t.px(BIG))
        paint.text(painter, t, big, f"{self.seconds:.1f} s", size=64, bold=True, token=token)
        paint.text(painter, t, self._room(), self.told(), size=15, token=token, wrap=True)
