"""The meter strip: which motor, which probes, the value large; typed or taken live."""

from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QApplication, QFrame, QHBoxLayout, QPushButton, QWidget

from careful_coil.core import probes
from careful_coil.core.errors import CoilError
from careful_coil.core.probes.probe import Request
from careful_coil.desk.clock import MINUTE, TEN_MINUTES
from careful_coil.desk.field import Field
from careful_coil.desk.session import Session
from careful_coil.desk.strip_parts import EntryLine, Note, Probes
from careful_coil.desk.theme import Theme
from careful_coil.desk.tongue import tr

if TYPE_CHECKING:
    from careful_coil.core.job import AnyBody
    from careful_coil.core.ledger.entry_line import Typed

LARGEST = 1.75  # text from which the digits stand closer, so that the probes have room
WAIT = "The last value is on its way. Look at the pair, then again."


class Strip(QFrame):
    """The strip along the bottom."""

    next_wanted = Signal()

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.setObjectName("strip")
        self._session, self._theme = session, theme
        self._asking, self._here = False, ""
        self._drafts = dict[str, str]()  # what is half typed, by motor
        self.probes = Probes(session, theme)
        self.line = EntryLine()
        self.line.setObjectName("entry")
        self.line.setAccessibleName("Value")
        self.line.setMaxLength(120)
        self.line.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.note = Note(session, theme)
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
        self.line.timed.connect(self.time_test)
        session.clock.beeped.connect(self._beeped)
        session.clock.changed.connect(self.note.update)
        application = QApplication.instance()
        if isinstance(application, QApplication):
            application.focusChanged.connect(self._cursor_at)
        self.line.returnPressed.connect(self._typed)
        self.line.textEdited.connect(lambda _: self.note.say("", ""))
        self.key.clicked.connect(self.take)
        self.note.said.connect(lambda: self.note.setVisible(True))
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
        self.line.setFixedWidth(
            theme.px(230 if theme.scale < 1.5 else 180 if theme.scale < LARGEST else 136)
        )
        back, front, key = (theme.colour(c).name() for c in ("strip", "strip-text", "strip-key"))
        quiet = theme.colour("strip-quiet").name()
        wide = theme.px(140 if theme.scale < 1.5 else 104)
        self.setStyleSheet(f"""{theme.sheet()}
            #strip {{ background: {back}; }}
            #entry {{ background: {back}; color: {front}; border: 0; border-bottom: 2px solid {quiet};
                border-radius: 0; font-size: {theme.px(52)}px; font-weight: bold; min-height: {theme.px(64)}px; }}
            #entry:focus {{ border-bottom: 3px solid {front}; }}
            #take {{ text-align: center; }}
            #take {{ background: {key}; color: #1B1916; border: 0; border-radius: 4px; font-weight: bold;
                font-size: {theme.px(18)}px; min-width: {wide}px; min-height: {theme.px(64)}px; }}
            #take:disabled {{ background: {back}; color: {quiet}; border: 1px solid {quiet}; }}
        """)
        self.refresh()

    def refresh(self) -> None:
        """Show the motor, the probes and whether a live value can be taken."""
        s = self._session
        self._asking = False  # another job or pair: the question is asked anew
        here = s.open.id if s.open else ""
        if here != self._here:
            self._drafts[self._here] = self.line.text()  # half typed for the motor before
            self.line.setText(self._drafts.pop(here, ""))
            self._here = here
            self.note.say("", "")
        live = bool(s.bound and s.bound.instrument and s.target)
        words = probes.PROBES[s.target.kind].words if s.target else ()
        tags = self._tags()
        self.line.n_is_a_letter = "N" in tags or any(w.startswith("n") for w in words)
        insulating = s.target is not None and s.target.kind == "insulation"
        self.line.times_tests = (
            insulating or (s.clock.testing and s.clock.here)
        ) and "T" not in tags
        self.key.setEnabled(live)
        self.key.setText(tr("Take · Space" if live else "Record · Enter"))
        self.probes.refresh()
        self.note.refresh()

    def _cursor_at(self, _: QWidget | None, now: QWidget | None) -> None:
        """Say what the field with the cursor takes."""
        if now is None or now.window() is not self.window():
            return
        field: QWidget | None = now
        while field is not None and not isinstance(field, Field):
            field = field.parentWidget()
        at_field = isinstance(field, Field)
        self.note.setVisible(not at_field or bool(self.note.words))
        self.probes.at(
            *(field.label.text() or field.spoken, field.takes())
            if isinstance(field, Field)
            else ("", "")
        )

    def _tags(self) -> tuple[str, ...]:
        return self._session.open.judged.job.tags if self._session.open else ()

    def unit(self) -> str:
        """Return the unit of the value asked for."""
        asked, target = self._session.question, self._session.target
        if asked is not None:
            return asked.unit
        return probes.PROBES[target.kind].unit if target else "Ω"

    def time_test(self, ten: bool) -> None:
        """Begin a test of one or ten minutes; end the one that runs."""
        clock = self._session.clock
        if clock.testing and clock.here:
            clock.finish()
            return
        try:
            clock.start(TEN_MINUTES if ten else MINUTE)
        except CoilError as error:
            self.note.say(str(error), "watch")
            return
        self.note.say("The clock runs. Type each figure at its beep; T ends it.", "note")

    def _beeped(self, mark: float) -> None:
        clock = self._session.clock
        if clock.testing and mark not in clock.readings:
            self.note.say(f"{mark:g} s: type the figure.", "watch")

    def take(self) -> None:
        """Take the live value; asks first when the meter is on another motor."""
        s = self._session
        if s.elsewhere:
            self._ask()
            return
        if s.clock.testing and s.clock.here:
            self.note.say("The clock takes the values as they come due.", "note")
            return
        if s.busy:
            self.note.say(WAIT, "note")
            return
        if s.bound is None or s.bound.instrument is None or s.target is None:
            self.note.say("No live value: type it, then Enter.", "watch")
            return
        try:
            shown = s.bound.instrument.show(s.target)
        except CoilError as error:
            self.note.say(str(error), "hold")
            return
        from careful_coil.core.job.entries import MeterUsed
        from careful_coil.core.ledger.entry_line import Typed

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
        from careful_coil.core.ledger.entry_line import command, split, swept

        text = self.line.text().strip()
        if not text:
            return
        s = self._session
        if text.lower() == "n" and self.line.n_is_a_letter and "N" not in self._tags():
            self.line.setText("")
            s.not_here()
            return
        if s.elsewhere:
            if self._asking:
                self._move_here()
            else:
                self._ask()
            return
        job = s.open.judged.job if s.open else None
        try:
            clock = s.clock
            if clock.testing and clock.here:
                mark = clock.typed(text)
                self.line.setText("")
                self.note.say(f"{mark:g} s: {text}", "good")
                return
            if job is not None and (row := swept(text, job.tags)) is not None:
                self.line.setText("")
                s.sweep_from(row)
                self.note.say(f"{row} against every other lead" if row else "Sweep ended.", "note")
                return
            order = command(text, job) if job else None
            if order is not None:
                self.line.setText("")
                self.note.say(text, "good")
                s.record(order, station="leads", failed=lambda why: self._give_back(text, why))
                return
            target = s.target
            typed = split(text, target, job.tags if job else ())
            if s.busy and typed.target is target:
                self.note.say(WAIT, "note")  # the pair may be about to change under the hand
                return
        except CoilError as error:
            self.note.say(str(error), "hold")
            return
        self._record(typed, "typed")

    def _record(self, typed: "Typed", instrument: str, first: "tuple[AnyBody, ...]" = ()) -> None:
        from careful_coil.core.ledger.take import Taking, taken_each

        s = self._session
        try:
            judged = s.open.judged if s.open else None
            at = Taking(
                judged=judged,
                settings=s.settings,
                setting=s.setting,
                now=s.at_bench.now,
                instrument=instrument,
            )
            bodies = taken_each(typed, at)
        except CoilError as error:
            self.note.say(str(error), "hold")
            return
        station = probes.PROBES[typed.target.kind].station
        text = self.line.text()
        self.line.setText("")
        ends = " ".join((*typed.target.ends, *typed.target.sense))
        self.note.say(f"{ends}: {typed.value}" if ends else typed.value, "good")
        s.record(*first, *bodies, station=station, failed=lambda why: self._give_back(text, why))

    def _give_back(self, text: str, why: str) -> None:
        """Nothing was recorded: what was typed stands again, unless more was typed meanwhile."""
        if not self.line.text():
            self.line.setText(text)
        self.note.say(why, "hold")

    def _ask(self) -> None:
        s = self._session
        self._asking = True
        there = s.bound.judged.job.name if s.bound else ""
        here = s.open.judged.job.name if s.open else ""
        self.note.say(f"The meter is on {there}. Enter moves it to {here}; then again.", "watch")

    def _move_here(self) -> None:
        self._asking = False
        self._session.bind()
        self.note.say("Moved. Now take the value, or Enter records what is typed.", "note")

    def _enter_empty(self) -> None:
        if self._asking:
            self._move_here()
            return
        self.next_wanted.emit()

    def _moved(self, dx: int, dy: int) -> None:
        s = self._session
        tags = s.open.judged.job.tags if s.open else ()
        if len(tags) < 2:
            return
        from careful_coil.core.ledger.entry_line import moved_pair

        start = s.target or Request(kind="resistance", ends=(tags[0], tags[1]))
        s.pick(moved_pair(start, tags, dx, dy))
