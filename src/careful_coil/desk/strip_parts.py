"""The parts of the meter strip: the line one types on, where the probes are, the note beside."""

from collections.abc import Sequence

from PySide6.QtCore import QEvent, QPointF, QRect, Qt, Signal
from PySide6.QtGui import QAccessible, QKeyEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy

from careful_coil.core import probes
from careful_coil.core.probes.probe import Request
from careful_coil.core.stations import Station
from careful_coil.desk import paint
from careful_coil.desk.cell import Line
from careful_coil.desk.heard import Heard, Role, tell
from careful_coil.desk.listing import ENTER
from careful_coil.desk.painted import Painted
from careful_coil.desk.session import Session
from careful_coil.desk.theme import Theme

ARROWS = {
    Qt.Key.Key_Left: (-1, 0),
    Qt.Key.Key_Right: (1, 0),
    Qt.Key.Key_Up: (0, -1),
    Qt.Key.Key_Down: (0, 1),
}
PAIR = "A pair of leads and its ohms: AF 3.92"
NEXT = "Enter does what Next says. What you see goes into its field."
# what the strip takes at a station while no probe is asked for
HERE: dict[Station, str] = {
    "intake": NEXT,
    "leads": PAIR,
    "insulation": PAIR,
    "start-gear": NEXT,
    "mechanics": NEXT,
    "winding": NEXT,
    "connect": PAIR,
    "test-run": NEXT,
    "release": NEXT,
}
NO_LEADS = "Enter does what Next says. No lead is tagged yet: that comes first."
PAGES = {Qt.Key.Key_PageDown: 1, Qt.Key.Key_PageUp: -1}


class EntryLine(Line):
    """The large digits. Single keys act only while nothing is typed."""

    take = Signal()
    enter_empty = Signal()
    not_here = Signal()
    strike = Signal()
    moved = Signal(int, int)
    paged = Signal(int)  # to the part after or before
    timed = Signal(bool)  # begin a test: of ten minutes?
    n_is_a_letter = False
    times_tests = False  # whether T begins a test

    def event(self, event: QEvent) -> bool:
        """Leave Shift+N to the window while nothing is typed."""
        if event.type() == QEvent.Type.ShortcutOverride and isinstance(event, QKeyEvent):
            shifted = event.modifiers() == Qt.KeyboardModifier.ShiftModifier
            if (
                event.key() == Qt.Key.Key_N
                and shifted
                and not self.text()
                and not self.n_is_a_letter
            ):
                event.ignore()
                return False
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Handle the strip's single keys; the rest is typing."""
        key = event.key()
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            if event.isAutoRepeat():
                return
            if not self.text().strip():
                self.enter_empty.emit()
                return
        if key == Qt.Key.Key_Escape:
            self.clear()
            return
        if key in PAGES:
            self.paged.emit(PAGES[Qt.Key(key)])
            return
        if not self.text():
            pad = bool(event.modifiers() & Qt.KeyboardModifier.KeypadModifier)
            single = {Qt.Key.Key_Space: self.take, Qt.Key.Key_Plus: self.not_here}.get(Qt.Key(key))
            if key == Qt.Key.Key_Minus and pad:  # elsewhere a minus begins a figure
                single = self.strike
            if key == Qt.Key.Key_N and not self.n_is_a_letter and not event.modifiers():
                single = self.not_here
            if key == Qt.Key.Key_T and self.times_tests and not event.isAutoRepeat():
                self.timed.emit(bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier))
                return
            if single is not None:
                if not event.isAutoRepeat():
                    single.emit()
                return
            if key in ARROWS:
                self.moved.emit(*ARROWS[Qt.Key(key)])
                return
            word = {Qt.Key.Key_Asterisk: "open", Qt.Key.Key_Slash: "rising"}.get(Qt.Key(key))
            if word:
                self.setText(word)
                return
        super().keyPressEvent(event)
        if key in ENTER:
            event.accept()  # Qt hands Enter on to what is behind a line


LARGE, SMALL = (17, 22, 38), (13, 12, 0)  # letters of the probes' places, round them, least box


def groups_of(target: Request) -> list[str]:
    """Return where the probes are, in words, from the first place to the last."""
    ends = list(target.ends)
    groups = [ends, list(target.sense)] if target.sense else [[e] for e in ends]
    if target.also:
        groups[1] += target.also
    if target.lines:
        groups = [list(j) for j in target.lines]
    if target.kind == "frame":
        groups = [ends, ["frame"]]
    if target.kind == "insulation":
        groups = [ends or ["all leads"], list(target.sense) or ["frame"]]
    return [" ".join(g) for g in groups]


class Probes(Painted):
    """Where the probes are, as two tags and an arrow, with what is asked of them."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(theme)
        self._session = session
        self._field, self._takes = "", ""  # the field with the cursor, what it takes
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def hears(self) -> Heard:
        """Return what the probes or the field with the cursor want."""
        s = self._session
        ends = " ".join(s.target.ends) if s.target is not None and not self._field else ""
        motor = s.bound.judged.job.name if s.bound else "No motor on the bench"
        return Heard(self.heard_as, f"{self._field or ends}: {self.words()}", motor)

    def at(self, field: str, takes: str) -> None:
        """Say what the field with the cursor takes; nothing where none has it."""
        self._field, self._takes = field, takes
        self.refresh()

    def refresh(self) -> None:
        """Paint where the probes are, where that is elsewhere now."""
        s = self._session
        bound = (s.bound.judged.job.name, s.bound.instrument) if s.bound else ()
        if self.shows(bound, s.elsewhere, s.under.at_c, s.target, self.words(), self._field):
            self.setAccessibleDescription(f"{self._field} {self.words()}".strip())
            self.update()

    def words(self) -> str:
        """Return what is asked, in words: by the field with the cursor, by the probes, else what is taken here."""
        if self._field:
            return self._takes
        target = self._session.target
        if target is None:
            job = self._session.open
            if job is None:
                return ""
            return HERE[self._session.station] if job.judged.job.tags else NO_LEADS
        if target.also:
            return "the first against the others clipped together"
        return probes.PROBES[target.kind].prompt

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw motor, instrument and probes; the probes alone where the strip has no room for both."""
        painter, t, s = QPainter(self), self.theme, self._session
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        line = t.px(22)
        top = max((self.height() - 3 * line) // 2, 0)
        left = t.px(196 if t.scale < 1.5 else 124 if t.scale < 1.75 else 96)
        x = 20 + left + 14
        told = groups_of(s.target) if s.target is not None and not self._field else []
        alone = not s.elsewhere and x + self._taken(told, SMALL) > self.width()
        if alone:
            x = 12
        else:
            self._motor(painter, QRect(20, top, left, line))
            painter.setPen(QPen(t.colour("strip-quiet"), 1))
            painter.drawLine(x - 8, 12, x - 8, self.height() - 12)
        if self._field:
            self._at_field(painter, QRect(x + 8, 0, self.width() - x - 12, self.height()))
            return
        if told:
            x = self._tags(painter, told, x)
        room = QRect(x + 8, top + line // 2, max(self.width() - x - 12, 0), 2 * line)
        if room.width() > t.px(110):
            paint.text(painter, t, room, self.words(), size=13, token="strip-quiet", wrap=True)

    def _motor(self, painter: QPainter, first: QRect) -> None:
        """Write motor, instrument and temperature, a line each."""
        t, s, line = self.theme, self._session, first.height()
        motor = s.bound.judged.job.name if s.bound else "No motor on the bench"
        at = QRect(first)
        if s.elsewhere:  # the meter is not on the motor on the bench
            centre = QPointF(28, first.top() + line / 2)
            paint.mark(painter, t, "watch", centre, 14, strip=True)
            at.setLeft(at.left() + 20)
        paint.text(painter, t, at, motor, bold=True, token="strip-text")
        instrument = s.bound.instrument if s.bound else None
        warm = (
            f"winding {s.under.at_c:g} °C"
            if s.under.at_c is not None
            else "winding temperature not set"
        )
        # where there is no instrument, nothing speaks of one
        for k, words in enumerate((instrument.name if instrument is not None else "", warm), 1):
            below = first.translated(0, k * line)
            paint.text(painter, t, below, words, size=13, token="strip-quiet")

    def _at_field(self, painter: QPainter, room: QRect) -> None:
        """Write which field has the cursor, and what it takes."""
        t = self.theme
        named = paint.height_of(t, self._field, room.width(), 15, True)
        high = paint.height_of(t, self._takes, room.width(), 13) if self._takes else 0
        high = max(min(high, self.height() - named - 8), 0)
        top = max((self.height() - named - high) // 2, 0)
        first = QRect(room.left(), top, room.width(), named)
        paint.text(painter, t, first, self._field, bold=True, token="strip-text", wrap=True)
        rest = QRect(room.left(), top + named, room.width(), high)
        paint.text(painter, t, rest, self._takes, size=13, token="strip-quiet", wrap=True)

    def _taken(self, told: Sequence[str], size: tuple[int, int, int]) -> int:
        """Return the room that places of the probes take, `size` their letters, what is round them, a box at least."""
        letters, round_it, least = size
        wide = (paint.width_of(self.theme, w, letters, True) + round_it for w in told)
        return sum(max(w, self.theme.px(least)) for w in wide) + 32 * (len(told) - 1)

    def _tags(self, painter: QPainter, told: Sequence[str], x: int) -> int:
        t, h = self.theme, self.theme.px(38)
        y = (self.height() - h) // 2
        fits = x + self._taken(told, LARGE) <= self.width()
        size, round_it, _ = LARGE if fits else SMALL
        for k, words in enumerate(told):
            w = max(paint.width_of(t, words, size, True) + round_it, h if fits else 0)
            painter.setPen(QPen(t.colour("strip-text"), 2))
            painter.drawRoundedRect(x, y, w, h, 4, 4)
            paint.text(
                painter,
                t,
                QRect(x, y, w, h),
                words,
                size=size,
                bold=True,
                token="strip-text",
                align=0,
            )
            x += w
            if k + 1 < len(told):
                painter.drawLine(x + 6, y + h // 2, x + 26, y + h // 2)
                painter.drawPolyline(
                    [
                        QPointF(x + 20, y + h / 2 - 5),
                        QPointF(x + 26, y + h / 2),
                        QPointF(x + 20, y + h / 2 + 5),
                    ]
                )
                x += 32
        return x


class Note(Painted):
    """What the last value did, or what the keys mean, beside the digits."""

    said = Signal()

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(theme)
        self._session = session
        self.words, self.tone = "", ""
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def say(self, words: str, tone: str) -> None:
        """Show one message with its mark."""
        self.words, self.tone = words, tone
        self.refresh()
        tell(self, QAccessible.Event.Alert)
        self.said.emit()

    def refresh(self) -> None:
        """Paint what it says, where that is another."""
        if self.shows(self.words, self.tone, self.hint()):
            self.setAccessibleDescription(self.words)
            self.update()

    def hears(self) -> Heard:
        """Return what the last value did, else what may be typed."""
        return Heard(Role.AlertMessage, self.words or self.hint(), self.tone)

    def hint(self) -> str:
        """Return what may be typed for the target."""
        target = self._session.target
        if target is None:
            return ""
        words, unit = probes.PROBES[target.kind].words, probes.PROBES[target.kind].unit
        if words:
            return "  ".join(f"{k} {w.replace('-', ' ')}" for k, w in enumerate(words, 1))
        if target.kind == "insulation":
            clock = self._session.clock
            ends = clock.testing and clock.here
            keys = (
                "type it at the beep, T ends it" if ends else "T starts the clock, or 120/180/260"
            )
            return f"{unit}    {keys}"
        return f"{unit}    * open  / rising" if target.kind == "resistance" else unit

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the message, or the unit with the keys."""
        painter, t = QPainter(self), self.theme
        words = self.words or self.hint()
        token = "strip-text" if self.words else "strip-quiet"
        x = 0
        if self.words and self.tone:
            paint.mark(painter, t, self.tone, QPointF(t.px(9), self.height() / 2), 15, strip=True)
            x = t.px(24)
        room = QRect(x, 0, self.width() - x, self.height())
        height = paint.height_of(t, words, room.width(), 13)
        room.setTop(max((self.height() - height) // 2, 0))
        paint.text(painter, t, room, words, size=13, token=token, wrap=True)
