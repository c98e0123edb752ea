"""Look, smell, feel: only what is wrong is marked; one key says the rest was looked at and fine."""

import math

from PySide6.QtCore import QPointF, QRect, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPen
from PySide6.QtWidgets import QWidget

from careful_coil.core.condition.answered import read_looks
from careful_coil.core.condition.burn import BURN, Burn, burns_for, dark_coils
from careful_coil.core.condition.checklist import MADE_GOOD, Item, items_for
from careful_coil.core.condition.seen_rules import unseen_items
from careful_coil.core.job.at_intake import RestFine
from careful_coil.core.job.noted import note
from careful_coil.core.ledger import Judgement
from careful_coil.core.mechanics.look_places import (
    AT,
    FINE,
    looked_at,
    said_of,
    shell_looked_at,
)
from careful_coil.desk import paint
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.field import LONG
from careful_coil.desk.part import NOT_ASKED, Part
from careful_coil.desk.roll import DELETE, Roll
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Caution
from careful_coil.desk.shared.section_view import SectionView
from careful_coil.desk.theme import Theme

CHIP_HIGH, GAP = 26, 8
ASKED, ROOM = 216, 440  # width of the question; below ROOM the answers have no place beside it
RING = 40
NOTHING = ""


class CheckRoll(Roll):
    """Each look with what may be wrong, numbered; the burn pictures drawn."""

    marked = Signal(str, str)  # item, answer
    rest_fine = Signal()
    left = Signal()  # upward from the first row

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme, "Look, smell, feel")
        self.items: tuple[Item, ...] = ()
        self.burns: tuple[Burn, ...] = ()
        self.said: dict[str, str] = {}
        self.fit()

    def show_job(
        self, items: tuple[Item, ...], burns: tuple[Burn, ...], said: dict[str, str]
    ) -> None:
        """Show the looks of a motor and what was said of each."""
        self.items, self.burns, self.said = items, burns, said
        self.retell()

    def count(self) -> int:
        """Return the looks and, last, the burn picture where it belongs to them."""
        return len(self.items) + bool(self.burns)

    def name_of(self, k: int) -> str:
        """Return the item of a row."""
        return self.items[k].name if k < len(self.items) else BURN

    def answers(self, k: int) -> tuple[str, ...]:
        """Return what may be wrong in a row."""
        if k < len(self.items):
            return tuple(self.items[k].wrong)
        return tuple(b.name for b in self.burns)

    def row_words(self, k: int) -> str:
        """Return a row in words."""
        question = self.items[k].question if k < len(self.items) else "Burn picture"
        return f"{question}: {self.said.get(self.name_of(k), NOT_ASKED)}"

    def row_height(self, k: int) -> int:
        """Return a row's height: as many lines of answers as its width needs."""
        if k == len(self.items):
            return self.theme.px(RING + 46)
        lines = max((c[2] for c in self._chips(k)), default=0) + 1
        return lines * self.theme.px(CHIP_HIGH) + self.theme.px(10)

    def pressed(self, key: str) -> bool:
        """Mark what is wrong by number; 0 or F fine, G made good, R all the rest fine, Delete back."""
        if not self.count():
            return False
        name, answers = self.name_of(self.current), self.answers(self.current)
        if key.isdecimal() and 1 <= int(key) <= len(answers):
            self.marked.emit(name, answers[int(key) - 1])
        elif key and key in "0fF":
            self.marked.emit(name, FINE)
        elif key in ("g", "G"):
            self.marked.emit(name, MADE_GOOD)
        elif key in ("r", "R"):
            self.rest_fine.emit()
        elif key == DELETE:
            self.marked.emit(name, NOTHING)
        else:
            return False
        return True

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Go back to the drawing upward from the first row, and with Escape."""
        up = event.key() == Qt.Key.Key_Up and self.current == 0
        if up or event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)

    def _chips(self, k: int) -> list[tuple[int, int, int]]:
        """Return left edge, width and line of each answer of a row."""
        t, found = self.theme, []
        stacked = self.width() < t.px(ROOM)  # the answers go below the question
        first, line = (t.px(26), 1) if stacked else (t.px(ASKED), 0)
        x = first
        for n, answer in enumerate(self.answers(k), 1):
            wide = paint.width_of(t, f"{n} {answer}", 13, True) + t.px(GAP)
            if x + wide > self.width() - 4 and x > first:
                x, line = first, line + 1
            found.append((x, wide, line))
            x += wide + t.px(GAP)
        return found

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """A click on an answer marks it."""
        super().mousePressEvent(event)
        box, at = self.boxes()[self.current], event.position().toPoint()
        if self.current == len(self.items):
            each = self.width() // max(len(self.burns), 1)
            chosen = at.x() // max(each, 1)
            if at.y() > box.top() + self.theme.px(24) and chosen < len(self.burns):
                self.marked.emit(BURN, self.burns[chosen].name)
            return
        for n, (x, wide, line) in enumerate(self._chips(self.current)):
            top = box.top() + self.theme.px(5) + line * self.theme.px(CHIP_HIGH)
            if QRect(x, top, wide, self.theme.px(CHIP_HIGH)).contains(at):
                self.marked.emit(self.name_of(self.current), self.answers(self.current)[n])

    def paint_row(self, painter: QPainter, k: int, box: QRect) -> None:
        """Draw the question with its mark, the answers below."""
        t = self.theme
        said = self.said.get(self.name_of(k), "")
        question = self.items[k].question if k < len(self.items) else "Burn picture"
        high = t.px(CHIP_HIGH)
        head = QRect(box.left() + t.px(30), box.top() + t.px(5), t.px(ASKED - 34), high)
        mark = "" if not said else "good" if said in (FINE, MADE_GOOD) else "watch"
        if k < len(self.items) and said in self.items[k].wrong:
            mark = self.items[k].wrong[said].weight
        if mark:
            paint.mark(painter, t, mark, QPointF(box.left() + t.px(15), head.center().y()), 13)
        paint.text(painter, t, head, question, bold=bool(said))
        if k == len(self.items):
            self._rings(painter, box, said)
            return
        chips = self._chips(k)
        if said and said not in self.answers(k):  # fine, made good, or the bench's own words
            edge = max([x + wide for x, wide, line in chips if line == 0] or [head.right()]) + 8
            rest = QRect(edge, head.top(), box.right() - edge - 6, high)
            if rest.width() >= paint.width_of(t, said, 13):
                paint.text(painter, t, rest, said, size=13, align=1)
        for n, (x, wide, line) in enumerate(chips, 1):
            top = box.top() + t.px(5) + line * high
            answer = self.answers(k)[n - 1]
            at = QRect(x, top, wide, high - 2)
            if answer == said:
                painter.fillRect(at, t.colour("ink"))
            token = "ground" if answer == said else "quiet"
            paint.text(
                painter,
                t,
                at.adjusted(5, 0, 0, 0),
                f"{n} {answer}",
                size=13,
                token=token,
                bold=answer == said,
            )

    def _rings(self, painter: QPainter, box: QRect, said: str) -> None:
        """Draw each burn picture as a ring of end turns, the burnt ones dark."""
        t, each = self.theme, self.width() // max(len(self.burns), 1)
        radius = t.px(RING) / 2
        for n, burn in enumerate(self.burns):
            centre = QPointF(each * n + each / 2, box.top() + t.px(24) + radius + 4)
            for c, dark in enumerate(dark_coils(burn.dark)):
                turn = 2 * math.pi * c / 12
                at = centre + QPointF(math.sin(turn), -math.cos(turn)) * radius * 0.8
                painter.setPen(QPen(t.colour("quiet"), 1))
                painter.setBrush(t.colour("ink") if dark else t.colour("surface"))
                r = radius * (0.2 if burn.dark != "ends" else 0.13)
                painter.drawEllipse(at, r, r)
            label = QRectF(each * n, centre.y() + radius + 1, each, t.px(18)).toRect()
            chosen = burn.name == said
            if chosen:
                painter.fillRect(label, t.colour("ink"))
            paint.text(
                painter,
                t,
                label,
                f"{n + 1} {LABELS[burn.name]}",
                size=13,
                token="ground" if chosen else "quiet",
                align=0,
            )


LABELS = {
    "two-phases": "two phases",
    "one-phase": "one phase",
    "all": "all",
    "spot": "one spot",
    "start": "start only",
    "ends": "ends only",
}


class ConditionPart(Part):
    """The part of Intake that keeps what hands, eyes and nose found."""

    name, title = "condition", "Look, smell, feel"
    remark = "point at a place, or its number; R: the rest is fine"
    kept = ("place",)

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.place = ""
        self.caution = Caution(
            "Load off, isolated, capacitors discharged before a hand goes in. Clamp what you turn.",
            theme,
        )
        self.view = SectionView(theme, "Look, smell, feel: the motor in section")
        self.roll = CheckRoll(theme)
        self.view.chosen.connect(self._chosen)
        self.view.entered.connect(lambda _: self.roll.setFocus())
        self.view.pressed.connect(self.roll.pressed)
        self.roll.marked.connect(self._marked)
        self.roll.rest_fine.connect(self._rest)
        self.roll.left.connect(self.view.setFocus)
        self.rest = EnterButton("The rest was looked at and is fine")
        self.rest.clicked.connect(self._rest)
        for part in (self.caution, self.view, self.roll):
            self.column.addWidget(part)
        self.column.addWidget(self.rest, 0, Qt.AlignmentFlag.AlignLeft)
        self.add_field(
            "condition",
            "A look in your own words",
            self._typed,
            "windings burnt, one side",
            clears=True,
            most=LONG,
        )

    def start(self) -> QWidget:
        """Return the drawing."""
        return self.view

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return the worst that was found, or that all is fine."""
        seen = judged.job.seen
        if not seen.condition and not seen.fine:
            return "", NOT_ASKED
        own = {f.verdict for f in judged.findings if f.code.startswith("seen-")}
        wrong = [n for n, b in seen.condition.items() if b.text != MADE_GOOD]
        left = unseen_items(judged.job, judged.facts.kinds)
        worst = next((v for v in ("hold", "watch") if v in own), "unproven" if left else "good")
        return worst, ", ".join(wrong[:3]) if wrong else "fine" if not left else "begun"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the places of this kind, and the looks of the one that is chosen."""
        job, kinds = judged.job, judged.facts.kinds
        self.view.show_places(looked_at(job, kinds), shell_looked_at(job, kinds), self.place)
        self.place = self.view.current
        here = tuple(i for i in items_for(kinds) if AT[i.name] == self.place)
        burns = burns_for(job.plate.phases) if AT[BURN] == self.place else ()
        self.roll.show_job(here, burns, said_of(job))
        left = len(unseen_items(job, kinds))
        self.rest.setText(f"R: the rest ({left}) was looked at and is fine")
        self.rest.setVisible(bool(left))

    def _chosen(self, place: str) -> None:
        self.place = place
        self.roll.current = 0
        self.again()

    def _marked(self, item: str, answer: str) -> None:
        if answer == FINE:
            taken_back, fine = note("condition", item, ""), RestFine(items=(item,))
            self.session.record(taken_back, fine, station="intake")
            return
        self.session.record(note("condition", item, answer), station="intake")

    def _rest(self) -> None:
        left = unseen_items(self.judged.job, self.judged.facts.kinds) if self.judged else ()
        if left:
            self.session.record(RestFine(items=tuple(i.name for i in left)), station="intake")

    def _typed(self, text: str) -> None:
        if text:
            self.session.record(*read_looks(text), station="intake")
