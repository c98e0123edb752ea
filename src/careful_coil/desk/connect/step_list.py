"""The change as a list: what stands, the one step to do now, those to come, beside it the line ohms."""

from collections.abc import Iterator

from PySide6.QtCore import QPointF, QRect, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen

from careful_coil.core.connect.steps import JOINTS, Step
from careful_coil.core.connect.work import Connecting
from careful_coil.core.ledger import Judgement
from careful_coil.core.values import show_ohm_to
from careful_coil.desk import paint
from careful_coil.desk.heard import Row as HeardRow
from careful_coil.desk.painted import Painted
from careful_coil.desk.session import Session
from careful_coil.desk.theme import Theme

NARROW = 470  # pixels at 100 % text: less than two columns take
SHOWN = 6  # steps to come; the rest is counted
Row = tuple[str, str, str]  # mark or "now", words, remark


class StepList(Painted):
    """Two columns: joints and steps on the left, line ohms on the right; a click on now is Enter."""

    chosen = Signal(object)

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(theme)
        self._session = session
        self.state = Connecting(plan=None)
        self.looks: dict[str, tuple[str, str]] = {}
        self.setAccessibleName("Steps")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        high = [
            sum(self._height(r[0]) for r in rows) for rows in (self.step_rows(), self.ohm_rows())
        ]
        return (sum(high) if self._stacked() else max(high)) + 4

    def show_judgement(self, judged: Judgement) -> None:
        """Take the state of the connecting, and the lead colours."""
        self.state = judged.facts.connecting
        lead = {x.tag: x for x in judged.job.leads}
        mark = self.state.mark
        self.looks = {
            mark(n): (lead[t].colour, lead[t].tracer) for t, n in self.state.names.items()
        }
        self.setAccessibleDescription("; ".join(" ".join(r[:2]) for r in self.rows()))
        self.fit()

    def rows(self) -> list[Row]:
        """Return mark, words and remark of every step and of every line pair."""
        return [*self.step_rows(), *self.ohm_rows()]

    def step_rows(self) -> list[Row]:
        """Return the joints that stand, the step to do now, those to come, those that must not be."""
        state = self.state
        if state.plan is None:
            return []
        rows: list[Row] = [("good", state.marks(j), "made") for j in state.made if len(j) > 1]
        doing = [s for s in state.steps if _title(s, state)]
        for k, step in enumerate(doing[: SHOWN + 1]):
            loose = f"{step.loose_after} loose" if step.loose_after else ""
            rows.append(
                ("now", _title(step, state), loose)
                if k == 0
                else ("unproven", _title(step, state), loose)
            )
        if len(doing) > SHOWN + 1:
            rows.append(("", f"and {len(doing) - SHOWN - 1} more", ""))
        return rows + [("hold", state.marks(j), "must not be") for j in state.wrong]

    def ohm_rows(self) -> list[Row]:
        """Return the line pairs with what they must read and what they read."""
        state, rows = self.state, []
        percent = self._session.settings.line_ohm_apart.value
        for pair, ohm in (state.expected or {}).items():
            name = pair.replace("-", " to ")
            wanted = "open" if ohm == float("inf") else show_ohm_to(ohm, state.step)
            if pair in (state.read or {}):
                read = (state.read or {})[pair]
                shown = "open" if read == float("inf") else show_ohm_to(read, state.step)
                verdict = "good" if state.fits(pair, percent) else "hold"
                rows.append((verdict, f"{name}  {shown}", f"{wanted} expected"))
            else:
                now = state.joined and state.unread[0] == pair
                rows.append(("now" if now else "unproven", name, f"must read {wanted}"))
        return rows

    def _height(self, kind: str) -> int:
        return self.theme.px(46 if kind == "now" else 28)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Enter does the step that is framed; all else goes on."""
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and not event.isAutoRepeat():
            self.chosen.emit(None)
        else:
            super().keyPressEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """A click on the current line is Enter."""
        for rows, x, y, wide in self._columns():
            for kind, *_ in rows:
                box = QRect(x, y, wide, self._height(kind))
                y += self._height(kind)
                if kind == "now" and box.contains(event.position().toPoint()):
                    self.chosen.emit(None)

    def heard_rows(self) -> Iterator[HeardRow]:
        """Yield steps and line pairs; the one to do now is the current one."""
        for rows, x, y, wide in self._columns():
            for kind, words, remark in rows:
                high = self._height(kind)
                told = (words, remark, kind if kind != "now" else "")
                box = QRect(x, y, wide, high)
                yield HeardRow(", ".join(w for w in told if w), box, kind == "now")
                y += high

    def _stacked(self) -> bool:
        """Whether there is no room for two columns."""
        return self.width() < self.theme.px(NARROW)

    def _columns(self) -> list[tuple[list[Row], int, int, int]]:
        """Return both lists with where they stand: x, y, width."""
        steps, ohms, wide = self.step_rows(), self.ohm_rows(), self.width()
        if self._stacked():
            below = sum(self._height(r[0]) for r in steps)
            return [(steps, 0, 0, wide), (ohms, 0, below, wide)]
        split = round(wide * 0.55)
        return [(steps, 0, 0, split - 16), (ohms, split, 0, wide - split)]

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the steps on the left, line ohms beside or below; the current line framed in copper."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for rows, x, y, wide in self._columns():
            self._column(painter, rows, x, y, wide)

    def _column(self, painter: QPainter, rows: list[Row], x: int, y: int, wide: int) -> None:
        t = self.theme
        for kind, words, remark in rows:
            high = self._height(kind)
            box = QRect(x + 1, y, wide - 2, high - 4)
            beside = paint.width_of(t, remark, 13) + 12
            if kind == "now":
                painter.setPen(QPen(t.colour("copper"), 2))
                painter.setBrush(t.colour("surface"))
                painter.drawRoundedRect(box, 4, 4)
                at = box.adjusted(14, 0, -beside - 8, 0)
                paint.text(painter, t, at, words, size=17, bold=True)
            else:
                if kind:
                    paint.mark(painter, t, kind, QPointF(x + 12, box.center().y()), 15)
                paint.text(painter, t, box.adjusted(34, 0, -beside, 0), words)
            right = box.adjusted(34, 0, -12, 0)
            paint.text(painter, t, right, remark, size=13, token="quiet", align=1)
            self._stubs(painter, words, kind, box.adjusted(0, 0, -beside, 0))
            y += high

    def _stubs(self, painter: QPainter, words: str, kind: str, box: QRect) -> None:
        """Draw the wires' own colours beside the names."""
        t = self.theme
        now = kind == "now"
        x = box.left() + (22 if now else 42)
        x += paint.width_of(t, words, 17 if now else 15, now)
        told = "" if " out of " in words else words
        for name in told.split(" – "):
            plain = name.split(" ")[-1].strip("()")
            if plain in self.looks and self.looks[plain][0] and x + 8 < box.right():
                stub = QRectF(x, box.center().y() - 7, 7, 14)
                paint.stub(painter, t, stub, *self.looks[plain])
                x += 12


def _title(step: Step, state: Connecting) -> str:
    """Return a step in a few words; nothing for one that only prepares, proves or retags."""
    joint = state.marks(step.joint)
    if step.do == "cut":
        return f"{state.marks(step.leads, ' and ')} out of {state.marks(step.joint, '–')}"
    if step.do == "insulate":
        return f"Insulate {state.marks(step.leads[:1])}"
    if step.do == "fit-device":
        return f"Fit {step.leads[0]}"
    if step.do == "remove-device":
        return f"Take out {step.leads[0]}"
    if step.do == "move-link":
        return f"Link {joint}" if joint else f"Link off {state.marks(step.leads)}"
    if state.starter is not None and step.joint and state.starter.clipped(step.joint):
        return f"Clip {joint}"
    return f"Join {joint}" if step.do in JOINTS else ""
