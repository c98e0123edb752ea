"""The coils: each about the mean, readings made for the balance, what is off and why."""

from collections.abc import Callable, Iterator

from PySide6.QtCore import QRect
from PySide6.QtGui import QPainter, QPaintEvent, QPen

from careful_coil.core.choices import Choice, pick
from careful_coil.core.condition.coil_rules import balance_limits, coils_alike
from careful_coil.core.condition.coils import Measured, measured
from careful_coil.core.connect.called import in_marks
from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_insulation import WindingOhm
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.entry_line import coil_ohm_of
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse, show_ohm
from careful_coil.desk import paint
from careful_coil.desk.flow import Flow
from careful_coil.desk.heard import Row
from careful_coil.desk.painted import Painted
from careful_coil.desk.part import NARROWEST, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.shown import Prose, Verdicts, finding_of, told_of
from careful_coil.desk.theme import Theme

REACH = 6.0  # per cent that the bars show to each side
STATES = {"apart": "apart", "made": "as joined", "found": "as found"}
WIRES = {"2": 2, "4": 4}


class Coils(Painted):
    """Each coil's ohms as a bar about the mean of its like, with the watch limit."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.got: Measured | None = None
        self._alike, self._limits = False, (0.0, 0.0)
        self._said: Callable[[str], str] = str
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return self.theme.px(28) * max(len(self.ohms()), 1)

    def ohms(self) -> dict[str, float]:
        """Return coil ohms by name."""
        return dict(self.got.ohm) if self.got else {}

    def show_coils(
        self,
        got: Measured | None,
        alike: bool,
        limits: tuple[float, float],
        said: Callable[[str], str],
    ) -> None:
        """Take the coils of a job; `alike` whether they should be equal, `limits` in per cent.

        `said` puts a coil into words.
        """
        self.got, self._alike, self._limits, self._said = got, alike, limits, said
        words = "; ".join(f"{said(n)} {show_ohm(r)}" for n, r in self.ohms().items())
        self.setAccessibleDescription(words)
        self.fit()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw a row a coil."""
        painter, t, ohms = QPainter(self), self.theme, self.ohms()
        if not ohms or self.got is None:
            words = "No coil read yet. Leads comes first: Ctrl+2."
            paint.text(painter, t, self.rect(), words, token="quiet")
            return
        mean = sum(ohms.values()) / len(ohms)
        for k, (name, ohm) in enumerate(ohms.items()):
            y, high = k * t.px(28), t.px(28)
            label = QRect(0, y, t.px(118), high)
            paint.text(painter, t, label, self._said(name), bold=True)
            figure = QRect(t.px(118), y, t.px(92), high)
            missing = name in self.got.missing
            paint.text(
                painter,
                t,
                figure,
                "not read" if missing else show_ohm(ohm),
                token="quiet" if missing else "ink",
            )
            if self._alike and not missing:
                room = QRect(t.px(214), y, self.width() - t.px(290), high)
                self._bar(painter, room, 100 * (ohm / mean - 1))

    def heard_rows(self) -> Iterator[Row]:
        """Yield each coil with its ohms, and how far they are off the mean of its like."""
        ohms, high = self.ohms(), self.theme.px(28)
        mean = sum(ohms.values()) / max(len(ohms), 1)
        for k, (name, ohm) in enumerate(ohms.items()):
            missing = self.got is not None and name in self.got.missing
            told = f"{self._said(name)}, {'not read' if missing else show_ohm(ohm)}"
            told += f", {_off(ohm, mean)}" if self._alike and not missing else ""
            yield Row(told, QRect(0, k * high, self.width(), high))

    def _bar(self, painter: QPainter, room: QRect, percent: float) -> None:
        t = self.theme
        watch, hold = self._limits
        middle, per = room.center().x(), room.width() / 2 / REACH
        painter.setPen(QPen(t.colour("hairline"), 1))
        for edge in (-watch, watch):
            x = round(middle + edge * per)
            painter.drawLine(x, room.top() + 3, x, room.bottom() - 3)
        away = abs(percent)
        token = "good" if away <= watch else "hold" if away > hold else "watch"
        shown = max(-REACH, min(REACH, percent)) * per
        bar = QRect(middle, room.top() + t.px(9), round(shown) or 2, t.px(10)).normalized()
        painter.fillRect(bar, t.colour(token))
        at = QRect(room.right() + 8, room.top(), t.px(76), room.height())
        paint.text(painter, t, at, _signed(percent), size=13, token="quiet")


def _signed(percent: float) -> str:
    return f"{percent if abs(percent) >= 0.05 else 0:+.1f} %"


def _off(ohm: float, mean: float) -> str:
    return f"{_signed(100 * (ohm / mean - 1))} about the mean"


class CoilsPart(Part):
    """The part of the winding's ohms."""

    kept = (
        "wires",
        "lead_ohm",
        "state",
    )
    name, title, remark = "coils", "Coils", "ohms at one temperature, about their mean"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.wires, self.lead_ohm, self.state = 2, "", "apart"
        self.coils = Coils(theme)
        self.column.addWidget(self.coils)
        self.how = Prose(theme)
        self.column.addWidget(self.how)
        self.add_field(
            "coil-ohm",
            "A reading for the balance: leads or lines, then ohms",
            self._reading,
            "AD 0.5093, L1 L2 1.02, A B+C 0.38",
            clears=True,
        )
        grid = Flow(3, NARROWEST, theme)
        for name, label, commit, hint in (
            ("wires", "Wires", self._wires, "4"),
            ("lead-ohm", "Test leads, Ω", self._lead_ohm, "blank: unknown"),
            ("coil-state", "The coils stand", self._state, "as joined"),
        ):
            grid.add(self.add_field(name, label, commit, hint, place=False))
        self.fields["coil-state"].cell.offer(tuple(STATES.values()))
        self.fields["wires"].cell.offer(tuple(WIRES))
        self.column.addWidget(grid)
        self.verdicts = Verdicts(theme)
        self.column.addWidget(self.verdicts)

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how balanced they are."""
        return told_of(finding_of(judged, "coils-balanced"), "none read yet")

    def show_judgement(self, judged: Judgement) -> None:
        """Show the coils, how they were read, what is off."""
        got = measured(
            judged.job,
            judged.facts.identification,
            judged.facts.naming,
            judged.facts.wall,
            self.session.settings,
        )
        limits = balance_limits(judged.facts.wall, self.session.settings)
        watch, hold = (limit.value for limit in limits)
        naming = judged.facts.naming
        slug = naming.arrangement.slug if naming.arrangement is not None else ""
        words = judged.facts.connecting.called
        self.coils.show_coils(
            got,
            coils_alike(judged.facts.naming),
            (watch, hold),
            lambda name: in_marks(name, slug, words).replace("-", " to "),
        )
        self.how.say(_how(got))
        self.fields["wires"].show_text(str(self.wires))
        self.fields["lead-ohm"].show_text(self.lead_ohm)
        self.fields["coil-state"].show_text(STATES[self.state])
        codes = [f for f in judged.findings if f.code.startswith(("ohms-", "plate-ohms"))]
        self.verdicts.show_findings([finding_of(judged, "coils-balanced"), *codes])

    def _reading(self, text: str) -> None:
        job = self.session.open.judged.job if self.session.open else None
        between, value, step = coil_ohm_of(text, job.tags if job else ())
        lead = parse(self.lead_ohm, Quantity.RESISTANCE).value if self.lead_ohm else None
        self.session.record(
            WindingOhm(
                between=between,
                value=value,
                wires=4 if self.wires == 4 else 2,
                lead_ohm=lead,
                step_ohm=step,
                at_c=self.session.under.at_c,
                connected=self.state,
            ),
            station="insulation",
        )

    def _wires(self, text: str) -> None:
        if text not in WIRES:
            raise BadValue(text, "2 or 4")
        self.wires = WIRES[text]

    def _lead_ohm(self, text: str) -> None:
        if text:
            value = parse(text, Quantity.RESISTANCE)
            if value.number is None or not 0 <= value.value <= 10:
                raise BadValue(text, "ohms of the test leads, 0 when they are nulled")
        self.lead_ohm = text

    def _state(self, text: str) -> None:
        told = [Choice(word=w, also=(k,)) for k, w in STATES.items()]
        word = pick(text, told)
        self.state = next(k for k, w in STATES.items() if w == word)


def _how(got: Measured | None) -> str:
    if got is None:
        return ""
    warm = f"brought to {got.at_c:g} °C" if got.at_c is not None else "temperature not written down"
    if got.from_leads:
        warm = "all at the temperature of that hour"
    off = (
        f" Readings and coils part by up to {got.off_percent:.1f} %."
        if got.off_percent > 0.5
        else ""
    )
    return f"{got.how[0].upper()}{got.how[1:]}, {warm}.{off}"
