"""Insulation: to the frame, corrected to 40 °C, against its limit; the coils' balance."""

from itertools import pairwise
from math import log10

from PySide6.QtCore import QPointF, QRect
from PySide6.QtGui import QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QPushButton

from careful_coil.core.condition.insulation import corrected, dc_test_volts
from careful_coil.core.errors import BadValue
from careful_coil.core.job import Finding
from careful_coil.core.job.entries import Work
from careful_coil.core.ledger import Judgement
from careful_coil.core.values import Quantity, parse, show_ohm
from careful_coil.desk import paint
from careful_coil.desk.field import Field
from careful_coil.desk.painted import Painted
from careful_coil.desk.session import Session
from careful_coil.desk.stations.page import Caution, Heading, Page
from careful_coil.desk.theme import Theme

WORKS = ("cleaned", "dried", "varnished", "rewound", "leads renewed")


class Scale(Painted):
    """The tests on a logarithmic scale of MΩ at 40 °C, the limit as a line, the newest large."""

    LOW, HIGH = 0.1, 10000.0

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.judged: Judgement | None = None
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return self.theme.px(176)

    def verdict(self) -> Finding | None:
        """Return the finding on the insulation."""
        found = self.judged.findings if self.judged else ()
        return next((f for f in found if f.code == "insulation"), None)

    def show_judgement(self, judged: Judgement) -> None:
        """Take the tests of a job."""
        self.judged = judged
        verdict = self.verdict()
        self.setAccessibleDescription(f"{verdict.subject}. {verdict.why}" if verdict else "")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw verdict, figure, scale and history."""
        judged, verdict = self.judged, self.verdict()
        if judged is None or verdict is None:
            return
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint.mark(painter, t, verdict.verdict, QPointF(t.px(12), t.px(22)), 22)
        paint.text(
            painter,
            t,
            QRect(t.px(34), 0, self.width() // 2, t.px(44)),
            verdict.subject,
            size=20,
            bold=True,
        )
        if verdict.figure is not None:
            right = QRect(self.width() // 2, 0, self.width() // 2, t.px(44))
            paint.text(
                painter, t, right, f"{verdict.figure:.3g} MΩ at 40 °C", size=26, bold=True, align=1
            )
        paint.text(
            painter,
            t,
            QRect(t.px(34), t.px(44), self.width() - t.px(34), t.px(24)),
            verdict.why,
            token="quiet",
        )
        y = t.px(122)
        painter.setPen(QPen(t.colour("ink"), 1.5))
        painter.drawLine(QPointF(self._x(self.LOW), y), QPointF(self._x(self.HIGH), y))
        for decade in (0.1, 1, 10, 100, 1000, 10000):
            x = self._x(decade)
            painter.drawLine(QPointF(x, y), QPointF(x, y + 5))
            at = QRect(round(x) - 40, y + t.px(8), 80, t.px(18))
            paint.text(painter, t, at, f"{decade:g}", size=13, token="quiet", align=0)
        caption = QRect(0, y + t.px(28), self.width(), t.px(20))
        paint.text(
            painter, t, caption, "MΩ at 40 °C, earlier tests small", size=13, token="quiet", align=0
        )
        limit = self._x(verdict.limit or 5.0)
        painter.setPen(QPen(t.colour("hold"), 2))
        painter.drawLine(QPointF(limit, y - t.px(34)), QPointF(limit, y))
        at = QRect(round(limit) + 6, y - t.px(40), 200, t.px(18))
        paint.text(painter, t, at, f"at least {verdict.limit:g}", size=13, token="hold")
        self._tests(painter, judged, verdict, y)

    def _tests(self, painter: QPainter, judged: Judgement, verdict: Finding, y: int) -> None:
        t = self.theme
        at_40 = [
            corrected(test.megohm, test.at_c, test.winding).megohm
            for _, test in judged.job.insulation
        ]
        points = [QPointF(self._x(m), y - t.px(14)) for m in at_40 if m]
        painter.setPen(QPen(t.colour("quiet"), 1.2))
        for one, two in pairwise(points):
            painter.drawLine(one, two)
        for point in points[:-1]:
            painter.setBrush(t.colour("quiet"))
            painter.drawEllipse(point, 3, 3)
        if points:
            paint.mark(painter, t, verdict.verdict, points[-1], 18)

    def _x(self, megohm: float) -> float:
        share = (log10(min(max(megohm, self.LOW), self.HIGH)) - log10(self.LOW)) / log10(
            self.HIGH / self.LOW
        )
        return 16 + share * (self.width() - 48)


class Coils(Painted):
    """Each coil's ohms as a bar about the mean, with the watch limit."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(theme)
        self.judged: Judgement | None = None
        self._session = session
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return self.theme.px(26) * max(len(self.ohms()), 1)

    def ohms(self) -> dict[str, float]:
        """Return coil ohms by name."""
        found = self.judged.identification if self.judged else None
        return dict(found.best.coil_ohm) if found else {}

    def show_judgement(self, judged: Judgement) -> None:
        """Take the coils of a job."""
        self.judged = judged
        self.fit()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw a row a coil."""
        painter, t, ohms = QPainter(self), self.theme, self.ohms()
        if not ohms or self.judged is None:
            words = "No coil read yet. Leads comes first: Ctrl+2."
            paint.text(painter, t, self.rect(), words, token="quiet")
            return
        arr = self.judged.naming.arrangement
        alike = arr is not None and arr.phases == 3
        mean = sum(ohms.values()) / len(ohms)
        for k, (name, ohm) in enumerate(ohms.items()):
            y, high = k * t.px(26), t.px(26)
            paint.text(
                painter, t, QRect(0, y, t.px(130), high), name.replace("-", " – "), bold=True
            )
            paint.text(painter, t, QRect(t.px(130), y, t.px(90), high), show_ohm(ohm))
            if alike:
                self._bar(
                    painter,
                    QRect(t.px(230), y, self.width() - t.px(330), high),
                    100 * (ohm / mean - 1),
                )

    def _bar(self, painter: QPainter, room: QRect, percent: float) -> None:
        t = self.theme
        middle, per = room.center().x(), room.width() / 2 / 6.0
        painter.setPen(QPen(t.colour("hairline"), 1))
        for edge in (
            -self._session.settings.balance_watch.value,
            self._session.settings.balance_watch.value,
        ):
            x = round(middle + edge * per)
            painter.drawLine(x, room.top() + 3, x, room.bottom() - 3)
        token = (
            "good"
            if abs(percent) <= self._session.settings.balance_watch.value
            else "hold"
            if abs(percent) > self._session.settings.balance_hold.value
            else "watch"
        )
        shown = max(-6.0, min(6.0, percent)) * per
        painter.fillRect(
            QRect(middle, room.top() + t.px(8), round(shown) or 2, t.px(10)).normalized(),
            t.colour(token),
        )
        at = QRect(room.right() + 8, room.top(), t.px(90), room.height())
        paint.text(painter, t, at, f"{percent:+.1f} %", size=13, token="quiet")


class InsulationPage(Page):
    """The station."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.column.addWidget(
            Caution(
                "Capacitors, electronics and sensors off first. The tester leaves the winding charged: "
                "earth it four times as long as the test.",
                theme,
            )
        )
        self.column.addWidget(Heading("To the frame", theme, "all leads joined, one minute"))
        self.scale = Scale(theme)
        self.column.addWidget(self.scale)
        cells = QGridLayout()
        cells.setHorizontalSpacing(14)
        self.fields["temperature"] = Field(
            "Winding temperature, °C",
            self._temperature,
            theme,
            hint="21 or 70 °F",
            name="temperature",
        )
        self.fields["test-volt"] = Field(
            "Test volts, DC", self._volt, theme, hint="500", name="test-volt"
        )
        for k, name in enumerate(("temperature", "test-volt")):
            cells.addWidget(self.fields[name], 0, k)
        self.column.addLayout(cells)
        self.column.addWidget(Heading("Work since", theme, "makes an earlier test void", rule=True))
        row = QHBoxLayout()
        for what in WORKS:
            button = QPushButton(what.capitalize())
            button.setAccessibleName(f"Record: {what}")
            button.clicked.connect(
                lambda _=False, w=what: session.record(Work(what=w), station="insulation")
            )
            row.addWidget(button)
        self.column.addLayout(row)
        self.balance_head = Heading("Coils", theme, rule=True)
        self.column.addWidget(self.balance_head)
        self.coils = Coils(session, theme)
        self.column.addWidget(self.coils)
        self.column.addStretch()

    def show_judgement(self, judged: Judgement) -> None:
        """Show tests and coils."""
        self.scale.show_judgement(judged)
        self.coils.show_judgement(judged)
        balance = next((f for f in judged.findings if f.code == "coils-balanced"), None)
        self.balance_head.say("Coils", f"{balance.subject}: {balance.why}" if balance else "")
        warm = self.session.temperature_c
        self.fields["temperature"].show_text("" if warm is None else f"{warm:g}")
        self.fields["test-volt"].show_text(f"{self.session.test_volt:g}")
        volts = judged.job.plate.volts
        if volts:
            low, high = dc_test_volts(volts[-1][1])
            span = f"{low:g} V" if low == high else f"{low:g} to {high:g} V"
            self.fields["test-volt"].label.setText(
                f"Test volts, DC ({span} for this rating, IEEE 43)"
            )

    def _temperature(self, text: str) -> None:
        value = parse(text, Quantity.TEMPERATURE).value
        if not -20 <= value <= 150:
            raise BadValue(text, "a winding between -20 and 150 °C")
        self.session.temperature_c = value
        self.session.target_changed.emit()

    def _volt(self, text: str) -> None:
        value = parse(text, Quantity.VOLTAGE).value
        if not 50 <= value <= 15000:
            raise BadValue(text, "test volts between 50 and 15000")
        self.session.test_volt = value
