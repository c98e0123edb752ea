"""The meter strip: which motor, which probes, the value large; typed or taken live."""

from PySide6.QtCore import QEvent, QPointF, QRect, Qt, Signal
from PySide6.QtGui import QKeyEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QSizePolicy, QWidget

from careful_coil.bench import Request
from careful_coil.core.errors import CoilError
from careful_coil.core.job import AnyBody
from careful_coil.core.job.entries import MeterUsed
from careful_coil.desk import paint
from careful_coil.desk.entry_line import (
    KICK_WORDS,
    SWITCH_WORDS,
    UNITS,
    Typed,
    body_of,
    command,
    moved_pair,
    split,
)
from careful_coil.desk.field import Line
from careful_coil.desk.session import Session
from careful_coil.desk.theme import Theme

ARROWS = {
    Qt.Key.Key_Left: (-1, 0),
    Qt.Key.Key_Right: (1, 0),
    Qt.Key.Key_Up: (0, -1),
    Qt.Key.Key_Down: (0, 1),
}


class EntryLine(Line):
    """The large digits. Single keys act only while nothing is typed."""

    take = Signal()
    enter_empty = Signal()
    not_here = Signal()
    strike = Signal()
    moved = Signal(int, int)
    n_is_a_tag = False

    def event(self, event: QEvent) -> bool:
        """Leave Shift+N to the window while nothing is typed."""
        if event.type() == QEvent.Type.ShortcutOverride and isinstance(event, QKeyEvent):
            shifted = event.modifiers() == Qt.KeyboardModifier.ShiftModifier
            if event.key() == Qt.Key.Key_N and shifted and not self.text() and not self.n_is_a_tag:
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
        if not self.text():
            pad = bool(event.modifiers() & Qt.KeyboardModifier.KeypadModifier)
            single = {Qt.Key.Key_Space: self.take, Qt.Key.Key_Plus: self.not_here}.get(Qt.Key(key))
            if key == Qt.Key.Key_Minus and pad:  # elsewhere a minus begins a figure
                single = self.strike
            if key == Qt.Key.Key_N and not self.n_is_a_tag and not event.modifiers():
                single = self.not_here
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


class Probes(QWidget):
    """Where the probes are, as two tags and an arrow, with what is asked of them."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self._theme = theme
        self.update()

    def words(self) -> str:
        """Return what is asked, in words."""
        target = self._session.target
        if target is None:
            return "type a pair and its ohms: AF 3.92"
        return {
            "resistance": "pair to read, arrows change it",
            "frame": "lead to the bare frame",
            "switch": "watch while the start mechanism is worked",
            "kick": "battery on the first pair, watch the second",
            "insulation": "tester on, one minute",
            "line": "between the lines, proves the joints",
            "bond": "earth lead or stud to bare frame",
        }[target.kind]

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw motor, instrument and probes."""
        painter, t, s = QPainter(self), self._theme, self._session
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        motor = s.bound.judged.job.name if s.bound else "No motor on the bench"
        line = t.px(22)
        top = max((self.height() - 3 * line) // 2, 0)
        left = t.px(196 if t.scale < 1.5 else 150)
        paint.text(painter, t, QRect(20, top, left, line), motor, bold=True, token="strip-text")
        instrument = s.bound.instrument if s.bound else None
        name = instrument.name if instrument else "no instrument, type the values"
        paint.text(
            painter, t, QRect(20, top + line, left, line), name, size=13, token="strip-quiet"
        )
        warm = (
            f"winding {s.temperature_c:g} °C"
            if s.temperature_c is not None
            else "winding temperature not set"
        )
        paint.text(
            painter, t, QRect(20, top + 2 * line, left, line), warm, size=13, token="strip-quiet"
        )
        x = 20 + left + 14
        painter.setPen(QPen(t.colour("strip-quiet"), 1))
        painter.drawLine(x - 8, 12, x - 8, self.height() - 12)
        if s.target is not None:
            x = self._tags(painter, s.target, x)
        room = QRect(x + 8, top + line // 2, max(self.width() - x - 12, 0), 2 * line)
        if room.width() > t.px(110):
            paint.text(painter, t, room, self.words(), size=13, token="strip-quiet", wrap=True)

    def _tags(self, painter: QPainter, target: Request, x: int) -> int:
        t, h = self._theme, self._theme.px(38)
        y = (self.height() - h) // 2
        ends = list(target.ends)
        groups = [ends, list(target.sense)] if target.sense else [[e] for e in ends]
        if target.kind == "frame":
            groups = [ends, ["frame"]]
        for k, group in enumerate(groups):
            words = " ".join(group)
            w = max(paint.width_of(t, words, 17, True) + 22, h)
            painter.setPen(QPen(t.colour("strip-text"), 2))
            painter.drawRoundedRect(x, y, w, h, 4, 4)
            paint.text(
                painter,
                t,
                QRect(x, y, w, h),
                words,
                size=17,
                bold=True,
                token="strip-text",
                align=0,
            )
            x += w
            if k + 1 < len(groups):
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


class Strip(QFrame):
    """The strip along the bottom."""

    next_wanted = Signal()

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.setObjectName("strip")
        self._session, self._theme = session, theme
        self._asking = False
        self.probes = Probes(session, theme)
        self.line = EntryLine()
        self.line.setObjectName("entry")
        self.line.setAccessibleName("Value")
        self.line.setMaxLength(40)
        self.line.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.note = _Note(session, theme)
        self.key = QPushButton()
        self.key.setObjectName("take")
        self.key.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 8, 16, 8)
        row.setSpacing(12)
        row.addWidget(self.probes, 5)
        row.addWidget(self.line)
        row.addWidget(self.note, 3)
        row.addWidget(self.key)
        self.line.take.connect(self.take)
        self.line.enter_empty.connect(self._enter_empty)
        self.line.not_here.connect(session.not_here)
        self.line.strike.connect(session.strike_last)
        self.line.moved.connect(self._moved)
        self.line.returnPressed.connect(self._typed)
        self.line.textChanged.connect(lambda _: self.note.say("", ""))
        self.key.clicked.connect(self.take)
        session.answered.connect(self._answered)
        session.target_changed.connect(self.refresh)
        session.job_changed.connect(self.refresh)
        self.set_theme(theme)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self._theme = theme
        self.probes.set_theme(theme)
        self.note.set_theme(theme)
        self.setFixedHeight(theme.px(88))
        self.line.setFixedWidth(theme.px(230 if theme.scale < 1.5 else 180))
        back, front, key = (theme.colour(c).name() for c in ("strip", "strip-text", "strip-key"))
        quiet = theme.colour("strip-quiet").name()
        self.setStyleSheet(f"""
            #strip {{ background: {back}; }}
            #entry {{ background: {back}; color: {front}; border: 0; border-bottom: 2px solid {quiet};
                border-radius: 0; font-size: {theme.px(52)}px; font-weight: bold; min-height: {theme.px(64)}px; }}
            #entry:focus {{ border-bottom: 3px solid {front}; }}
            #take {{ text-align: center; }}
            #take {{ background: {key}; color: #1B1916; border: 0; border-radius: 4px; font-weight: bold;
                font-size: {theme.px(18)}px; min-width: {theme.px(140)}px; min-height: {theme.px(64)}px; }}
            #take:disabled {{ background: {back}; color: {quiet}; border: 1px solid {quiet}; }}
        """)
        self.refresh()

    def refresh(self) -> None:
        """Show the motor, the probes and whether a live value can be taken."""
        s = self._session
        live = bool(s.bound and s.bound.instrument and s.target)
        self.line.n_is_a_tag = bool(s.open and "N" in s.open.judged.job.tags)
        self.key.setEnabled(live)
        self.key.setText("Take · Space" if live else "Record · Enter")
        self.probes.update()
        self.note.update()

    def unit(self) -> str:
        """Return the unit of the value asked for."""
        target = self._session.target
        return UNITS.get(target.kind, "") if target else "Ω"

    def take(self) -> None:
        """Take the live value; asks first when the meter is on another motor."""
        s = self._session
        if s.elsewhere:
            self._ask()
            return
        if s.bound is None or s.bound.instrument is None or s.target is None:
            self.note.say("No live value: type it, then Enter.", "watch")
            return
        try:
            shown = s.bound.instrument.show(s.target)
        except CoilError as error:
            self.note.say(str(error), "hold")
            return
        meter, job = s.bound.instrument.meter, s.bound.judged.job
        used = MeterUsed(
            accuracy_percent=meter.accuracy_percent,
            resolution_ohm=meter.resolution_ohm,
            open_above_ohm=meter.open_above_ohm,
            lead_ohm=meter.lead_ohm,
        )
        self._record(
            Typed(s.target, shown.text),
            s.bound.instrument.name,
            () if meter == job.meter else (used,),
        )

    def _answered(self, word: str) -> None:
        self.line.setText(word)
        self._typed()

    def _typed(self) -> None:
        text = self.line.text().strip()
        if not text:
            return
        s = self._session
        if s.elsewhere:
            self._ask()
            return
        job = s.open.judged.job if s.open else None
        try:
            order = command(text, job) if job else None
            if order is not None:
                s.record(order, station="leads")
                self.line.setText("")
                self.note.say(text, "good")
                return
            typed = split(text, s.target, job.tags if job else ())
        except CoilError as error:
            self.note.say(str(error), "hold")
            return
        self._record(typed, "typed")

    def _record(self, typed: Typed, instrument: str, first: tuple[AnyBody, ...] = ()) -> None:
        s = self._session
        try:
            body = body_of(
                typed, instrument=instrument, temperature_c=s.temperature_c, test_volt=s.test_volt
            )
        except CoilError as error:
            self.note.say(str(error), "hold")
            return
        station = {"insulation": "insulation", "line": "connect", "bond": "release"}.get(
            typed.target.kind, "leads"
        )
        s.record(*first, body, station=station)  # type: ignore[arg-type]
        self.line.setText("")
        ends = " ".join((*typed.target.ends, *typed.target.sense))
        self.note.say(f"{ends}: {typed.value}", "good")

    def _ask(self) -> None:
        s = self._session
        if self._asking:
            return
        self._asking = True
        there = s.bound.judged.job.name if s.bound else ""
        here = s.open.judged.job.name if s.open else ""
        self.note.say(
            f"The meter is on {there}. Enter moves it to {here}; then take again.", "watch"
        )
        self.line.setText("")
        self.note.say(
            f"The meter is on {there}. Enter moves it to {here}; then take again.", "watch"
        )

    def _enter_empty(self) -> None:
        if self._asking:
            self._asking = False
            self._session.bind()
            self.note.say("Moved. Take or type the value now.", "note")
            return
        self.next_wanted.emit()

    def _moved(self, dx: int, dy: int) -> None:
        s = self._session
        tags = s.open.judged.job.tags if s.open else ()
        if len(tags) < 2:
            return
        start = s.target or Request(kind="resistance", ends=(tags[0], tags[1]))
        s.pick(moved_pair(start, tags, dx, dy))


class _Note(QWidget):
    """What the last value did, or what the keys mean, beside the digits."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self.words, self._tone = "", ""
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self._theme = theme
        self.update()

    def say(self, words: str, tone: str) -> None:
        """Show one message with its mark."""
        self.words, self._tone = words, tone
        self.setAccessibleDescription(words)
        self.update()

    def hint(self) -> str:
        """Return what may be typed for the target."""
        target = self._session.target
        if target is None:
            return "Ω"
        words = {"kick": KICK_WORDS, "switch": SWITCH_WORDS}.get(target.kind)
        if words:
            return "  ".join(f"{k} {w.replace('-', ' ')}" for k, w in enumerate(words, 1))
        unit = UNITS.get(target.kind, "")
        return f"{unit}    * open  / rising" if target.kind == "resistance" else unit

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the message, or the unit with the keys."""
        painter, t = QPainter(self), self._theme
        words = self.words or self.hint()
        token = "strip-text" if self.words else "strip-quiet"
        x = 0
        if self.words and self._tone:
            paint.mark(painter, t, self._tone, QPointF(t.px(9), self.height() / 2), 15, strip=True)
            x = t.px(24)
        room = QRect(x, 0, self.width() - x, self.height())
        height = paint.height_of(t, words, room.width(), 13)
        room.setTop(max((self.height() - height) // 2, 0))
        paint.text(painter, t, room, words, size=13, token=token, wrap=True)
