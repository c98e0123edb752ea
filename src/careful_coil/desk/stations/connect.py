"""Connect: the joints as they are and as they must be, one joint at a time, proved by ohms."""

from PySide6.QtCore import QPointF, QRect, QRectF, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import (
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from careful_coil.core.connect.work import Connecting
from careful_coil.core.errors import BadValue
from careful_coil.core.job.entries import Supply
from careful_coil.core.ledger import Judgement
from careful_coil.core.values import Quantity, parse, show_ohm_to
from careful_coil.desk import paint
from careful_coil.desk.field import Field
from careful_coil.desk.painted import Painted
from careful_coil.desk.session import Session
from careful_coil.desk.stations.page import Caution, Drawn, Heading, Page, plain_label
from careful_coil.desk.theme import Theme
from careful_coil.drawing.scene import hookup_drawing


class Joints(Painted):
    """The checklist: joints made, the one to make now, those to come, then the line ohms."""

    chosen = Signal(object)

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(theme)
        self._session = session
        self.state = Connecting(plan=None)
        self.looks: dict[str, tuple[str, str]] = {}
        self.setAccessibleName("Joints")
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        columns = (self.joint_rows(), self.ohm_rows())
        return max(sum(self._height(r[0]) for r in rows) for rows in columns) + 4

    def show_judgement(self, judged: Judgement) -> None:
        """Take the state of the connecting, and the lead colours."""
        self.state = judged.connecting
        lead = {x.tag: x for x in judged.job.leads}
        self.looks = {n: (lead[t].colour, lead[t].tracer) for t, n in judged.naming.names.items()}
        self.setAccessibleDescription("; ".join(" ".join(r[:2]) for r in self.rows()))
        self.fit()

    def rows(self) -> list[tuple[str, str, str]]:
        """Return state, words and remark of every joint and of every line pair."""
        return [*self.joint_rows(), *self.ohm_rows()]

    def joint_rows(self) -> list[tuple[str, str, str]]:
        """Return the joints: made, now, to come, and those that must not be."""
        state, rows = self.state, []
        if state.plan is None:
            return []
        current = state.to_make[0] if state.to_make else None
        for joint in state.plan.joints:
            words = " – ".join(joint)
            if joint in state.made:
                rows.append(("good", words, "made, pulled"))
            elif joint == current:
                rows.append(("now", f"Join {words}", "Enter: joint good"))
            else:
                rows.append(("unproven", words, ""))
        return rows + [("hold", " – ".join(j), "part it, strike the tick") for j in state.wrong]

    def ohm_rows(self) -> list[tuple[str, str, str]]:
        """Return the line pairs with what they must read and what they read."""
        state, rows = self.state, []
        for pair, ohm in (state.expected or {}).items():
            name, wanted = pair.replace("-", " to "), show_ohm_to(ohm, state.step)
            if pair in (state.read or {}):
                read = (state.read or {})[pair]
                verdict = (
                    "good"
                    if state.fits(pair, self._session.settings.line_ohm_apart.value)
                    else "hold"
                )
                rows.append(
                    (verdict, f"{name}  {show_ohm_to(read, state.step)}", f"{wanted} expected")
                )
            else:
                now = not state.to_make and state.unread[0] == pair
                rows.append(("now" if now else "unproven", name, f"must read {wanted}"))
        return rows

    def _height(self, kind: str) -> int:
        return self.theme.px(46 if kind == "now" else 28)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """A click on the current line is Enter."""
        left = event.position().x() < self._split()
        y = 0
        for kind, *_ in self.joint_rows() if left else self.ohm_rows():
            y += self._height(kind)
            if event.position().y() < y:
                if kind == "now":
                    self.chosen.emit(None)
                return

    def _split(self) -> int:
        return round(self.width() * 0.56)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw joints on the left, line ohms on the right; the current line framed in copper."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        split = self._split()
        self._column(painter, self.joint_rows(), 0, split - 16)
        self._column(painter, self.ohm_rows(), split, self.width() - split)

    def _column(
        self, painter: QPainter, rows: list[tuple[str, str, str]], x: int, wide: int
    ) -> None:
        t, y = self.theme, 0
        for kind, words, remark in rows:
            high = self._height(kind)
            box = QRect(x + 1, y, wide - 2, high - 4)
            if kind == "now":
                painter.setPen(QPen(t.colour("copper"), 2))
                painter.setBrush(t.colour("surface"))
                painter.drawRoundedRect(box, 4, 4)
                paint.text(painter, t, box.adjusted(14, 0, -12, 0), words, size=17, bold=True)
            else:
                paint.mark(painter, t, kind, QPointF(x + 12, box.center().y()), 15)
                paint.text(painter, t, box.adjusted(34, 0, -12, 0), words)
            paint.text(
                painter, t, box.adjusted(34, 0, -12, 0), remark, size=13, token="quiet", align=1
            )
            self._stubs(painter, words, kind, box)
            y += high

    def _stubs(self, painter: QPainter, words: str, kind: str, box: QRect) -> None:
        """Draw the wires' own colours beside the names."""
        t = self.theme
        x = (
            box.left()
            + (22 if kind == "now" else 42)
            + paint.width_of(t, words, 17 if kind == "now" else 15, kind == "now")
        )
        for name in words.removeprefix("Join ").split(" – "):
            if name in self.looks and self.looks[name][0]:
                paint.stub(painter, t, QRectF(x, box.center().y() - 7, 7, 14), *self.looks[name])
                x += 12


class ConnectPage(Page):
    """The station."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.column.addWidget(
            Caution(
                "Isolate, lock out, prove dead before the first joint. Supply work: qualified people only.",
                theme,
            )
        )
        row = QGridLayout()
        row.setHorizontalSpacing(14)
        self.fields["supply"] = Field("Supply, volts", self._volt, theme, hint="460", name="supply")
        self.fields["supply-hertz"] = Field(
            "Hertz", self._hertz, theme, hint="60", name="supply-hertz"
        )
        self.measured = QPushButton("Measured")
        self.measured.setCheckable(True)
        self.measured.clicked.connect(self._measured)
        row.addWidget(self.fields["supply"], 0, 0)
        row.addWidget(self.fields["supply-hertz"], 0, 1)
        row.addWidget(self.measured, 0, 2)
        self.column.addLayout(row)
        self.why = plain_label()
        self.column.addWidget(self.why)
        pictures = QHBoxLayout()
        self.before, self.after = Drawn(theme), Drawn(theme)
        self.before_head, self.after_head = (
            Heading("As it is", theme),
            Heading("As it must be", theme),
        )
        for head, drawn in ((self.before_head, self.before), (self.after_head, self.after)):
            side = QVBoxLayout()
            side.addWidget(head)
            side.addWidget(drawn, 1)
            pictures.addLayout(side, 1)
        self.pictures = QWidget()
        self.pictures.setLayout(pictures)
        self.column.addWidget(self.pictures, 1)
        self.steps_head = Heading("One joint at a time", theme, rule=True)
        self.column.addWidget(self.steps_head)
        self.joints = Joints(session, theme)
        self.column.addWidget(self.joints)
        self.unseen_head = Heading("Ohms would not show", theme, rule=True)
        self.unseen = plain_label()
        self.column.addWidget(self.unseen_head)
        self.column.addWidget(self.unseen)
        self.column.addStretch()

    def set_theme(self, theme: Theme) -> None:
        """Take another theme; the drawings grow with the text."""
        super().set_theme(theme)
        for drawn in (self.before, self.after):
            drawn.setMinimumHeight(theme.px(258))

    def show_judgement(self, judged: Judgement) -> None:
        """Show supply, drawings and steps."""
        state, supply = judged.connecting, judged.job.supply
        self.fields["supply"].show_text(f"{supply.volt:g}" if supply else "")
        self.fields["supply-hertz"].show_text(f"{supply.hertz:g}" if supply else "")
        self.measured.setChecked(bool(supply and supply.measured))
        self.measured.setText(
            "Measured" if supply and supply.measured else "Assumed, press when measured"
        )
        self.measured.setEnabled(supply is not None)
        notes = " ".join(state.plan.notes) if state.plan else state.why
        self.why.setText(notes)
        self.why.setVisible(bool(notes))
        plan, found = state.plan, state.found
        had, has = (p.joints if p else () for p in (found, plan))
        after = hookup_drawing(judged, plan, found, beside=had) if plan else None
        before = hookup_drawing(judged, found, None, beside=has) if found else None
        self.pictures.setVisible(after is not None or before is not None)
        for drawn, head, picture in (
            (self.before, self.before_head, before),
            (self.after, self.after_head, after),
        ):
            drawn.setVisible(picture is not None)
            head.setVisible(picture is not None)
            if picture is not None:
                drawn.show_drawing(picture)
        self.before_head.say("As it was found", found.connection if found else "")
        self.after_head.say("As it must be", plan.connection if plan else "")
        total = len(plan.joints) if plan else 0
        self.steps_head.say(
            "One joint at a time", f"{len(state.made)} of {total} made" if plan else ""
        )
        self.steps_head.setVisible(plan is not None)
        self.joints.show_judgement(judged)
        self.unseen.setText("\n".join(u[0].upper() + u[1:] + "." for u in state.unseen))
        self.unseen.setVisible(bool(state.unseen))
        self.unseen_head.setVisible(bool(state.unseen))
        self.unseen_head.say("Ohms would not show", "the run at a quarter of the volts decides")

    def _now(self) -> Supply | None:
        return self.session.open.judged.job.supply if self.session.open else None

    def _volt(self, text: str) -> None:
        volt = _positive(text, Quantity.VOLTAGE)
        judged = self.session.open.judged if self.session.open else None
        plate = judged.job.plate if judged else None
        old = self._now()
        hertz = old.hertz if old else (plate.hertz if plate and plate.hertz else 50.0)
        phases = 1 if plate is not None and plate.phases == 1 else 3
        self.session.record(
            Supply(volt=volt, hertz=hertz, phases=phases, measured=False), station="connect"
        )

    def _hertz(self, text: str) -> None:
        old = self._now()
        if old is None:
            raise BadValue(text, "the volts first")
        hertz = _positive(text, Quantity.FREQUENCY)
        self.session.record(old.model_copy(update={"hertz": hertz}), station="connect")

    def _measured(self) -> None:
        old = self._now()
        if old is not None:
            self.session.record(
                old.model_copy(update={"measured": not old.measured}), station="connect"
            )


def _positive(text: str, quantity: Quantity) -> float:
    value = parse(text, quantity).value
    if not 0 < value <= 20000:
        raise BadValue(text, "a figure above nothing, as on the supply")
    return value
