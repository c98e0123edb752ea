"""Over the years: this motor's tests at 40 °C, the limit, what was done in between."""

from itertools import pairwise
from math import log10

from PySide6.QtCore import QPointF, QRect
from PySide6.QtGui import QPainter, QPaintEvent, QPen

from careful_coil.core.condition.earlier import earlier_of
from careful_coil.core.condition.wall_beside import history
from careful_coil.core.errors import BadValue
from careful_coil.core.job import Entry, Finding, fold
from careful_coil.core.job.at_insulation import SameMotor
from careful_coil.core.ledger import Judgement, judge
from careful_coil.core.values import show_figure
from careful_coil.desk import paint
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.painted import Painted
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.shown import Prose, Verdicts, finding_of
from careful_coil.desk.theme import Theme

LEAST_SERIAL = 4  # signs of a serial number that can be told from others


class Scale(Painted):
    """The tests on a logarithmic scale of MΩ at 40 °C, the limit as a line, the newest large."""

    LOW, HIGH = 0.1, 10000.0

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.told: list[tuple[str, float]] = []
        self.limit = 5.0
        self.verdict: Finding | None = None
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return self.theme.px(34) * max(len(self.told), 1) + self.theme.px(56)

    def show_tests(
        self, told: list[tuple[str, float]], limit: float, verdict: Finding | None
    ) -> None:
        """Take the tests (day, MΩ at 40 °C) in order."""
        self.told, self.limit, self.verdict = told[-10:], limit, verdict
        self.setAccessibleDescription("; ".join(f"{d}: {show_figure(m)} MΩ" for d, m in self.told))
        self.fit()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw a row a test, joined by a line, the limit through all."""
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        row = t.px(34)
        floor = row * max(len(self.told), 1) + t.px(4)
        painter.setPen(QPen(t.colour("ink"), 1.5))
        painter.drawLine(QPointF(self._x(self.LOW), floor), QPointF(self._x(self.HIGH), floor))
        narrow = self._x(1.0) - self._x(0.1) < t.px(48)
        for k, decade in enumerate((0.1, 1, 10, 100, 1000, 10000)):
            x = self._x(decade)
            painter.setPen(QPen(t.colour("ink"), 1.2))
            painter.drawLine(QPointF(x, floor), QPointF(x, floor + 5))
            if k % 2 and narrow:
                continue  # figures would run into each other
            at = QRect(round(x) - 40, floor + t.px(7), 80, t.px(18))
            paint.text(painter, t, at, f"{decade:g}", size=13, token="quiet", align=0)
        caption = QRect(0, floor + t.px(28), self.width(), t.px(20))
        paint.text(
            painter,
            t,
            caption,
            f"MΩ at 40 °C; line: at least {self.limit:g}",
            size=13,
            token="quiet",
            align=0,
        )
        x = self._x(self.limit)
        painter.setPen(QPen(t.colour("hold"), 2))
        painter.drawLine(QPointF(x, 0), QPointF(x, floor))
        points = [QPointF(self._x(m), row * (k + 0.5)) for k, (_, m) in enumerate(self.told)]
        painter.setPen(QPen(t.colour("quiet"), 1.2))
        for one, two in pairwise(points):
            painter.drawLine(one, two)
        for k, (point, (day, megohm)) in enumerate(zip(points, self.told, strict=True)):
            newest = k == len(self.told) - 1
            if newest and self.verdict is not None:
                paint.mark(painter, t, self.verdict.verdict, point, 18)
            else:
                painter.setBrush(t.colour("quiet"))
                painter.drawEllipse(point, 3, 3)
            label = QRect(0, row * k, t.px(126), row)
            paint.text(painter, t, label, day, size=13, token="quiet")
            figure = QRect(round(point.x()) + t.px(14), row * k, t.px(110), row)
            paint.text(
                painter, t, figure, f"{show_figure(megohm)}", bold=newest, size=15 if newest else 13
            )

    def _x(self, megohm: float) -> float:
        low, high = log10(self.LOW), log10(self.HIGH)
        share = (log10(min(max(megohm, self.LOW), self.HIGH)) - low) / (high - low)
        left = self.theme.px(134)
        return left + share * (self.width() - left - self.theme.px(48))


class YearsPart(Part):
    """The part of this motor's history."""

    name, title, remark = "years", "Over the years", "every test of this motor, at 40 °C"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self._like = 0
        self.scale = Scale(theme)
        self.column.addWidget(self.scale)
        self.verdicts = Verdicts(theme)
        self.column.addWidget(self.verdicts)
        self.words = Prose(theme)
        self.column.addWidget(self.words)
        self.key = EnterButton("")
        self.key.clicked.connect(lambda: self._same(str(self._like)))
        self.column.addWidget(self.key)
        self.add_field(
            "same-motor", "It was here before, as job number", self._same, "118", clears=True
        )

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how many tests there are."""
        fall = finding_of(judged, "insulation-trend")
        tests = len(history(judged.job, judged.facts.wall))
        words = "no test yet" if not tests else f"{tests} test{'s' if tests > 1 else ''}"
        return ("watch", "fallen") if fall else ("", words)

    def show_judgement(self, judged: Judgement) -> None:
        """Show the tests, what they say, which other job may be this motor's."""
        told = history(judged.job, judged.facts.wall)
        self.scale.show_tests(told, judged.facts.wall.minimum, finding_of(judged, "insulation"))
        works = [f for f in judged.findings if f.code.startswith("work-")]
        self.verdicts.show_findings([finding_of(judged, "insulation-trend"), *works])
        known = {e.number for e in judged.job.tested.earlier}
        self.words.say(
            f"Earlier jobs of it: {', '.join(map(str, sorted(known)))}." if known else ""
        )
        self._like = self._alike(judged, known)
        self.key.setVisible(bool(self._like))
        self.key.setText(f"Job {self._like} has the same serial number: it is this motor")

    def _alike(self, judged: Judgement, known: set[int]) -> int:
        """Return the number of a job with this plate's serial number; 0 for none."""
        serial = judged.job.plate.printed("serial").strip().lower()
        here = self.session.open.number if self.session.open else 0
        if len(serial) < LEAST_SERIAL:
            return 0
        elsewhere = {here, *known}
        for s in self.session.summaries:
            if serial in s.search and s.number not in elsewhere and serial in s.search.split():
                return s.number
        return 0

    def _same(self, text: str) -> None:
        s = self.session
        number = int(text) if text.isdecimal() else 0
        other = next((x for x in s.summaries if x.number == number), None)
        if other is None or s.open is None or number == s.open.number:
            raise BadValue(text, "the number of another job in this shop")
        job = s.open

        def told(entries: list[Entry]) -> SameMotor:
            found = judge(fold(entries), s.settings)
            return earlier_of(
                number,
                found.job,
                found.facts.identification,
                found.facts.naming,
                found.facts.wall,
                s.settings,
            )

        s.entries_of(other.id, told, lambda body: s.record(body, station="insulation", into=job))
