"""The test: its clock, the curve as it builds, every winding once, the discharge after."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import partial

from PySide6.QtCore import QPointF, QRect, Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QWidget

from careful_coil.core.condition.absorption import LEAST_FOR_ODDS, Curve
from careful_coil.core.condition.wall import (
    TestWanted,
    given,
    made_since,
    standing,
    stands,
    wanted_tests,
)
from careful_coil.core.condition.wall_rules import (
    curve_of,
    curve_through,
    discharge_seconds,
    longest_curve,
)
from careful_coil.core.errors import BadValue, CoilError
from careful_coil.core.figures import figure
from careful_coil.core.job.at_insulation import Discharged, InsulationTested
from careful_coil.core.job.tested import Logged
from careful_coil.core.ledger import Judgement
from careful_coil.core.units import Quantity
from careful_coil.core.values import show_figure, show_ohm
from careful_coil.desk import paint
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.clock import MINUTE, TEN_MINUTES
from careful_coil.desk.heard import Row
from careful_coil.desk.painted import Painted
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Caution
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose, Verdicts, finding_of, told_of
from careful_coil.desk.theme import Theme
from careful_coil.drawing.curve import draw_test

LONGEST_EARTH_S = 1e6
CODES = ("insulation", "insulation-between", "insulation-index")
OTHER_CODES = (
    *("insulation-absorption", "insulation-unsteady", "insulation-fall", "insulation-jump"),
    *("test-volts", "dew-point"),
)


class Dial(Painted):
    """The seconds large, what is tested, what comes next."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(theme)
        self._session = session
        self.fit()

    def least_height(self) -> int:
        """Return the height of one large line."""
        return self.theme.px(64 if self.words()[0] else 30)

    def words(self) -> tuple[str, str]:
        """Return the large figure and the words beside it."""
        clock = self._session.clock
        if clock.testing and clock.here and clock.target is not None:
            what = TestWanted(parts=clock.target.ends, against=clock.target.sense).words()
            due = clock.waiting()
            ask = f"Type the figure for {due:g} s." if due else "Volts are on: nobody touches."
            return _clock_words(clock.elapsed), f"{what}. {ask}"
        if clock.discharging and clock.here:
            if clock.left > 0:
                return _clock_words(clock.left), "To earth. Hands off until it is over."
            return "0:00", "Earthed long enough. Tick it."
        charged = self._session.open.judged.job.tested.charged() if self._session.open else None
        if charged is not None:
            return "!", "The winding holds the tester's charge: earth it, then start the countdown."
        target = self._session.target
        if target is not None and target.kind == "insulation":
            return "0:00", TestWanted(parts=target.ends, against=target.sense).words() + "."
        step = self._session.open.judged.next if self._session.open else None
        if step is not None and step.act == "ready":
            return "", "First tick what is off and earthed: Before the test."
        return "", "No test is asked for now."

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw both."""
        painter, t = QPainter(self), self.theme
        figure, words = self.words()
        left = t.px(132) if figure else 0
        paint.text(painter, t, QRect(0, 0, left, self.height()), figure, size=40, bold=True)
        room = QRect(left, 0, self.width() - left, self.height())
        high = paint.height_of(t, words, room.width(), 15)
        room.setTop(max((self.height() - high) // 2, 0))
        paint.text(painter, t, room, words, wrap=True)


def _clock_words(seconds: float) -> str:
    whole = int(seconds + 1e-6)
    return f"{whole // 60}:{whole % 60:02d}"


@dataclass(frozen=True, slots=True)
class TestRow:
    """A test made or still to make: its mark, what, as read, at 40 °C."""

    __test__ = False  # the name is not that of a test
    mark: str
    what: str
    read: str
    at_40: str


class TestRows(Painted):
    """The tests that count and those still to make, a row each."""

    __test__ = False  # the name is not that of a test

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.rows: tuple[TestRow, ...] = ()
        self.fit()

    def show_rows(self, rows: tuple[TestRow, ...]) -> None:
        """Show other rows."""
        self.rows = rows
        self.setAccessibleDescription("; ".join(f"{r.what} {r.read} {r.at_40}" for r in rows))
        self.setVisible(bool(rows))
        self.fit()

    def least_height(self) -> int:
        """Return the height of all rows, two lines each."""
        return self.theme.px(46) * len(self.rows) or 1

    def heard_rows(self) -> Iterator[Row]:
        """Yield each test with its verdict, its figure at 40 °C, and as it was read."""
        high = self.theme.px(46)
        for k, row in enumerate(self.rows):
            at_40 = f", {row.at_40} at 40 °C" if row.at_40 else ""
            words = f"{row.mark}: {row.what}{at_40}, {row.read}"
            yield Row(words, QRect(0, k * high, self.width(), high))

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw mark and what, the figure at 40 °C large at the right, as read below."""
        painter, t = QPainter(self), self.theme
        half = t.px(22)
        for k, row in enumerate(self.rows):
            y = k * t.px(46)
            paint.mark(painter, t, row.mark, QPointF(t.px(10), y + half / 2 + 1), 14)
            left, wide = t.px(30), self.width() - t.px(30)
            right = paint.width_of(t, row.at_40, 17, True) + 8
            paint.text(painter, t, QRect(left, y, wide - right, half), row.what, bold=True)
            at_40 = QRect(left, y, wide, half)
            paint.text(painter, t, at_40, row.at_40, size=17, bold=True, align=1)
            below = QRect(left, y + half, wide, t.px(20))
            paint.text(painter, t, below, row.read, size=13, token="quiet")


def _rows(judged: Judgement) -> tuple[TestRow, ...]:
    wall, rows = judged.facts.wall, []
    kept = standing(made_since(judged.job, "apart"), wall.groups)
    for logged in kept:
        test, got = logged.body, given(logged.body, wall)
        what = TestWanted(parts=test.parts, against=test.against).words()
        read = f"{show_ohm(1e6 * test.megohm)} at {test.at_c:g} °C with {test.test_volt:g} V"
        if got.factor is not None:
            divided = f" ÷ {got.divisor}, a part for the whole" if got.divisor > 1 else ""
            read += f"; × {show_figure(got.factor)} to 40 °C{divided}"
        least = "over " if test.above else ""
        at_40 = "not corrected" if got.megohm is None else f"{least}{show_ohm(1e6 * got.megohm)}"
        rows.append(TestRow(stands(test, wall), what, read, at_40))
    rows += [TestRow("unproven", w.words(), "still to test", "") for w in wanted_tests(wall, kept)]
    return tuple(rows)


class TestPart(Part):
    """The part in which the tester is on."""

    __test__ = False  # the name is not that of a test
    name, title, remark = "test", "The test", "curve on log-log axes; band: nine times of ten"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.caution = Caution(
            "The winding is charged after the test: earth it four times as long before a hand goes near.",
            theme,
        )
        self.column.addWidget(self.caution)
        self.dial = Dial(session, theme)
        self.column.addWidget(self.dial)
        row = QHBoxLayout()
        self.keys: dict[str, EnterButton] = {}
        for name, words, act in (
            ("minute", "One minute · T", partial(self._start, MINUTE)),
            ("ten", "Ten minutes · Shift+T", partial(self._start, TEN_MINUTES)),
            ("stop", "End here", self._stop),
            ("discharge", "Earth is on", self.discharge),
            ("sound", "Sound: on", self._sound),
        ):
            key = EnterButton(words)
            key.clicked.connect(act)
            self.keys[name] = key
            row.addWidget(key)
        row.addStretch()
        self.column.addLayout(row)
        self.add_field(
            "earthed", "Or it was earthed already, for minutes", self._earthed, "240", clears=True
        )
        self.tests = TestRows(theme)
        self.column.addWidget(self.tests)
        self.plot = Plot(theme, "Insulation over time", 256)
        self.plot.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.column.addWidget(self.plot)
        self.estimate = Prose(theme)
        self.column.addWidget(self.estimate)
        self.verdicts = Verdicts(theme)
        self.column.addWidget(self.verdicts)
        self._drawn: tuple[tuple[float, float], ...] = ()  # readings of the running test, as drawn
        session.clock.changed.connect(self._tick)
        session.target_changed.connect(self._show_keys)

    def start(self) -> QWidget:
        """Start at the key that goes on: the test, or the earth; at the curve where there is none."""
        shown = [k for k in ("discharge", "stop", "minute") if not self.keys[k].isHidden()]
        return self.keys[shown[0]] if shown else self.plot

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return the worst of what the tests say."""
        charged = finding_of(judged, "winding-charged")
        if charged is not None:
            return told_of(charged, "")
        found = [
            f for c in CODES if (f := finding_of(judged, c)) is not None and f.verdict != "note"
        ]
        order = ("hold", "unproven", "watch", "good")
        found.sort(key=lambda f: order.index(f.verdict))
        return told_of(found[0] if found else None, "no test yet")

    def show_judgement(self, judged: Judgement) -> None:
        """Show the tests made and to make, the newest curve, what it all says."""
        self.verdicts.show_findings([finding_of(judged, c) for c in (*CODES, *OTHER_CODES)])
        self.tests.show_rows(_rows(judged))
        self._show_keys()
        self._show_curve()

    # --- the curve ------------------------------------------------------------------------------

    def _newest(self) -> Logged[InsulationTested] | None:
        return longest_curve(self.judged.job, self.judged.facts.wall) if self.judged else None

    def _show_curve(self) -> None:
        clock, judged = self.session.clock, self.judged
        if judged is None:
            return
        running = clock.testing and clock.here
        newest = self._newest()
        told = clock.curve() if running else newest.body.readings if newest else ()
        curve = curve_through(told) if running else curve_of(newest.body) if newest else None
        earlier = self._earlier(None if running else newest)
        volt = self.session.setting.volt if running or newest is None else newest.body.test_volt
        self.estimate.say(_estimate(curve, volt))
        words = f"{len(told)} readings. {self.estimate.words}"
        self.plot.draw(partial(draw_test, told, curve, earlier), words)

    def _earlier(
        self, newest: Logged[InsulationTested] | None
    ) -> list[tuple[str, tuple[tuple[float, float], ...]]]:
        """Return this motor's earlier curves, of earlier jobs and of this one, the last four."""
        if self.judged is None:
            return []
        job = self.judged.job
        found = [(t.at[:4], t.readings) for e in job.tested.earlier for t in e.tests if t.readings]
        own = [t for t in job.tested.tests if len(t.body.readings) >= LEAST_FOR_ODDS]
        found += [
            (" ".join(t.body.parts) or t.at[5:16].replace("T", " "), t.body.readings)
            for t in own
            if newest is None or t.entry != newest.entry
        ]
        return found[-4:]

    # --- keys -----------------------------------------------------------------------------------

    def _tick(self) -> None:
        self.dial.update()
        self._show_keys()
        clock = self.session.clock
        if self.isVisible() and clock.testing and clock.here and self._drawn != clock.curve():
            self._drawn = clock.curve()
            self._show_curve()

    def _show_keys(self) -> None:
        s, clock = self.session, self.session.clock
        target = s.target
        testing, earthing = clock.testing and clock.here, clock.discharging and clock.here
        idle = not (testing or earthing)
        charged = s.open is not None and s.open.judged.job.tested.charged() is not None
        can = idle and target is not None and target.kind == "insulation"
        for name, shown in (
            ("minute", can),
            ("ten", can),
            ("stop", testing),
            ("discharge", (charged and idle) or bool(earthing)),
        ):
            if self.keys[name].hasFocus() and not shown:
                self.plot.setFocus()
            if self.keys[name].isHidden() == shown:
                self.keys[name].setVisible(shown)
        words = "It was earthed" if earthing else "Earth is on"
        if earthing and clock.left > 0:
            words = f"{_clock_words(clock.left)} to go"
        self.keys["discharge"].setText(words)
        self.keys["sound"].setText("Sound: off" if clock.muted else "Sound: on")
        self.keys["sound"].setVisible(can or not idle)
        self.fields["earthed"].setVisible(charged and idle)
        self.caution.setVisible(charged or not idle or can)
        self.tests.setVisible(bool(self.tests.rows) and not testing)
        self.dial.fit()

    def _start(self, length: float) -> None:
        self._try(partial(self.session.clock.start, length))

    def _stop(self) -> None:
        self.session.clock.finish()

    def discharge(self) -> None:
        """Start the countdown, or tick it when it is over."""
        clock = self.session.clock
        counting = clock.discharging and clock.here
        self._try(clock.discharged if counting else clock.start_discharge)

    def _earthed(self, text: str) -> None:
        """Take minutes to earth that ran without the clock."""
        charged = self.session.open.judged.job.tested.charged() if self.session.open else None
        if charged is None:
            raise BadValue(text, "a test whose charge is still on the winding")
        wanted = discharge_seconds(charged.body)
        minutes = figure(
            text,
            Quantity.TIME,
            unit="min",
            least=wanted / 60,
            most=LONGEST_EARTH_S / 60,
            wanted=f"minutes, {wanted / 60:g} or more",
        )
        seconds = max(60 * minutes, wanted)
        self.session.record(Discharged(seconds=seconds), station="insulation")

    def _sound(self) -> None:
        self.session.clock.muted = not self.session.clock.muted
        self._show_keys()

    def _try(self, act: object) -> None:
        try:
            act()  # type: ignore[operator]
        except CoilError as error:
            self.session.told.emit(str(error), "watch")


def _estimate(curve: Curve | None, volt: float) -> str:
    """Return the index as measured or estimated, and the current the fit gives, in words."""
    if curve is None:
        return "Three readings of one test draw a curve; ten minutes give the polarization index."
    index, n = curve.index, curve.exponent
    what = "Index" if curve.measured else "Index, estimated"
    leak, absorbed = volt / curve.leak_megohm.middle, volt / curve.absorb_megohm.middle
    low, high = (show_ohm(1e6 * m) for m in (curve.leak_megohm.low, curve.leak_megohm.high))
    current = (
        f"{show_figure(absorbed, 2)} µA·t^−{n.middle:.2f} + {show_figure(leak, 2)} µA, t in minutes"
    )
    return (
        f"{what} {index.middle:.2f} ({index.low:.2f} to {index.high:.2f}, nine times of ten). "
        f"Current {current}; leakage {low} to {high}."
    )
