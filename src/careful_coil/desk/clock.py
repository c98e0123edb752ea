"""The clock of an insulation test: beeps, takes live values, records the curve, counts the discharge."""

from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING, Any, Protocol

from PySide6.QtCore import QObject, QTimer, Signal
from PySide6.QtWidgets import QApplication

from careful_coil.core.errors import BadValue, CoilError
from careful_coil.core.probes.probe import PLAIN_SETTING, Request, TestSetting, Typing
from careful_coil.core.stations import Station
from careful_coil.desk.open_job import OpenJob

if TYPE_CHECKING:
    from careful_coil.core.job import AnyBody


class OnBench(Protocol):
    """What a test needs of the desk: the job on the bench, where the probes are, under what, where it is logged."""

    open: OpenJob | None
    bound: OpenJob | None
    told: Any

    @property
    def target(self) -> Request | None: ...
    @property
    def under(self) -> TestSetting: ...
    @property
    def setting(self) -> TestSetting: ...
    def record(self, *bodies: "AnyBody", station: Station, into: OpenJob) -> None: ...


MARKS = (15.0, 30.0, *(60.0 * k for k in range(1, 11)))
MINUTE, TEN_MINUTES = 60.0, 600.0
TICK_MS = 100


def samples(length: float) -> tuple[float, ...]:
    """Return when a live value is taken, in seconds: closer at first, as the curve bends."""
    early = [5.0 * k for k in range(1, 13)]
    late = [15.0 * k for k in range(5, int(length // 15) + 1)]
    return tuple(t for t in (*early, *late) if t <= length)


class TestClock(QObject):
    """One test or one discharge at a time, bound to the job it was started on."""

    __test__ = False  # the name is not that of a test
    changed = Signal()
    beeped = Signal(float)

    def __init__(self, session: OnBench, steady: Callable[[], float]) -> None:
        super().__init__()
        self._session, self.steady = session, steady
        self.muted = False
        self.job: OpenJob | None = None
        self.target: Request | None = None
        self.length = MINUTE
        self.readings: dict[float, float] = {}
        self.discharging = 0.0  # seconds to count; 0 while none runs
        self._setting = PLAIN_SETTING
        self._began = 0.0
        self._marked = 0.0
        self._timer = QTimer(self)
        self._timer.setInterval(TICK_MS)
        self._timer.timeout.connect(self.tick)

    @property
    def testing(self) -> bool:
        """Whether a test runs."""
        return self.target is not None

    @property
    def here(self) -> bool:
        """Whether what runs is of the motor on the bench."""
        on_bench = self._session.open
        return self.job is not None and on_bench is not None and self.job.id == on_bench.id

    def _free(self) -> None:
        """Raise BadValue while something runs, with the motor it runs on."""
        if (self.testing or self.discharging) and self.job is not None:
            name = self.job.judged.job.name
            what = "a test" if self.testing else "a discharge"
            raise BadValue(f"a clock that runs for {name}", f"the end of {what} there first")

    @property
    def elapsed(self) -> float:
        """Return the seconds since the test or the discharge began."""
        return self.steady() - self._began if self.testing or self.discharging else 0.0

    @property
    def left(self) -> float:
        """Return the seconds a discharge still has to run."""
        return max(self.discharging - self.elapsed, 0.0)

    def curve(self) -> tuple[tuple[float, float], ...]:
        """Return what was read so far."""
        return tuple(sorted(self.readings.items()))

    def waiting(self) -> float | None:
        """Return the newest mark that has passed and has no figure yet."""
        passed = [m for m in MARKS if m <= min(self.elapsed, self.length)]
        open_marks = [m for m in passed if m not in self.readings]
        return open_marks[-1] if open_marks else None

    # --- test -------------------------------------------------------------------------------------

    def start(self, length: float) -> None:
        """Begin a test of what the Next card asks for. Raises: BadValue where it cannot be."""
        s = self._session
        target = s.target
        if s.open is None or target is None or target.kind != "insulation":
            raise BadValue("no test asked for", "an insulation test as the next step")
        if s.under.at_c is None:
            raise BadValue("no temperature", "the winding's temperature before the test")
        self._free()
        self.job, self.target, self.length = s.open, target, length
        self._setting = s.setting  # what the test is made under is what stood when it began
        self.readings, self._marked = {}, 0.0
        self._began = self.steady()
        self._timer.start()
        self.changed.emit()

    def tick(self) -> None:
        """Beep at the marks, take live values, end what is over."""
        if self.discharging:
            if self.left <= 0 and not self._marked:
                self._marked = self.discharging
                self._beep(self.discharging)
                self._timer.stop()
            self.changed.emit()
            return
        if not self.testing:
            return
        now = self.elapsed
        self._sample(now)
        for mark in MARKS:
            if self._marked < mark <= min(now, self.length):
                self._marked = mark
                self._beep(mark)
        if now >= self.length and self.length in self.readings:
            self.finish()
        self.changed.emit()

    def _sample(self, now: float) -> None:
        """Take what a live instrument shows at each time that is due."""
        from careful_coil.core.probes.kinds.insulation import read_insulation

        s = self._session
        bound = s.bound
        if bound is None or bound.instrument is None or self.job is None or bound.id != self.job.id:
            return
        for second in samples(self.length):
            if second <= now and second not in self.readings and self.target is not None:
                try:
                    shown = bound.instrument.show(replace(self.target, seconds=second))
                    self.readings[second] = read_insulation(shown.text).megohm
                except CoilError as error:
                    s.told.emit(str(error), "hold")
                    return

    def typed(self, text: str) -> float:
        """Take a figure typed at the beep; return the mark it stands for. Raises: BadValue."""
        mark = self.waiting()
        if mark is None:
            following = next((m for m in MARKS if m > self.elapsed), None)
            when = f"the figure at {following:g} s" if following else "the test to end"
            raise BadValue(text, when, "No beep has gone since the last figure.")
        from careful_coil.core.probes.kinds.insulation import read_insulation

        found = read_insulation(text)
        if found.readings or found.above:
            raise BadValue(text, f"one figure in MΩ, for {mark:g} s")
        self.readings[mark] = found.megohm
        if mark >= self.length:
            self.finish()
        self.changed.emit()
        return mark

    def finish(self) -> bool:
        """End the test and record it; False where there is no figure at one minute."""
        target, job, told = self.target, self.job, self.curve()
        self._stop()
        if target is None or job is None:
            return False
        known = dict(told)
        if MINUTE not in known:
            self._session.told.emit(
                "Stopped before one minute was read: nothing recorded.", "watch"
            )
            return False
        from careful_coil.core.job.at_insulation import InsulationTested
        from careful_coil.core.probes.kinds.insulation import TypedTest, tested

        test = TypedTest(megohm=known[MINUTE], above=False, readings=told)
        under = Typing(text="", request=target, setting=self._setting)
        body = InsulationTested.model_validate(tested(test, under))
        self._session.record(body, station="insulation", into=job)
        return True

    def _stop(self) -> None:
        self._timer.stop()
        self.target, self.discharging, self._marked = None, 0.0, 0.0
        self.changed.emit()

    # --- discharge --------------------------------------------------------------------------------

    def start_discharge(self) -> None:
        """Count the discharge of the open job's newest test. Raises: BadValue."""
        s = self._session
        charged = s.open.judged.job.tested.charged() if s.open else None
        if charged is None or s.open is None:
            raise BadValue("no test", "a test whose charge is still on the winding")
        self._free()
        self.job, self._marked = s.open, 0.0
        from careful_coil.core.condition.wall_rules import discharge_seconds

        self.discharging = discharge_seconds(charged.body)
        self._began = self.steady()
        self._timer.start()
        self.changed.emit()

    def discharged(self) -> None:
        """Log that the winding was earthed long enough. Raises: BadValue while it was not."""
        if not self.discharging or self.job is None:
            raise BadValue("no countdown", "the countdown started when the earth went on")
        if self.left > 0:
            raise BadValue(f"{self.elapsed:.0f} s to earth", f"{self.left:.0f} s more")
        from careful_coil.core.job.at_insulation import Discharged

        seconds, job = self.elapsed, self.job
        self._stop()
        self._session.record(Discharged(seconds=seconds), station="insulation", into=job)

    def beep(self) -> None:
        """Beep, unless beeps are off."""
        if not self.muted:
            QApplication.beep()

    def _beep(self, mark: float) -> None:
        self.beep()
        self.beeped.emit(mark)
