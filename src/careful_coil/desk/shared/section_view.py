"""A motor in section, each of its places a target for key and pointer."""

from collections.abc import Sequence

from PySide6.QtCore import QPointF, QRect, QRectF, Qt, Signal
from PySide6.QtGui import QAccessible, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen

from careful_coil.core.mechanics.places import Place, Shell
from careful_coil.desk import paint
from careful_coil.desk.heard import Heard, Role, Row, tell
from careful_coil.desk.painted import Painted
from careful_coil.desk.roll import DELETE
from careful_coil.desk.said import said
from careful_coil.desk.shared.plot import PER_MM
from careful_coil.desk.theme import Theme
from careful_coil.drawing.callouts import GAP, Callout, callouts
from careful_coil.drawing.section import HIGH, WIDE, Section, draw_section
from careful_coil.drawing.shapes import Drawing, Stroke, Words, moved, scaled

SIDES = {
    **dict.fromkeys(("drive", "shaft", "seals", "shields"), "left"),
    **dict.fromkeys(("fan", "other", "commutator", "whole"), "right"),
    **dict.fromkeys(("leads", "brushes", "switch", "capacitor"), "above"),
    **dict.fromkeys(("earth", "windings", "iron"), "below"),
}
WORDS_MM = 36.0  # of the words beside the drawing at most
LEAST_MM = 27.0
WORD_ROW = 9.4
REACH = 7.0  # mm round a place within which a click is meant for it
PLAIN = Section((), {})
COLUMNS = 3  # of the words where they stand below the drawing
SMALL = 0.78  # of the drawing's size there
NARROW_MM = 38.0  # of a column of words at least


class SectionView(Painted):
    """The places of a motor, one chosen; digits and arrows choose, Enter goes into it."""

    heard_as = Role.List
    chosen = Signal(str)
    entered = Signal(str)
    pressed = Signal(str)  # another key's text

    def __init__(self, theme: Theme, name: str) -> None:
        super().__init__(theme)
        self.places: tuple[Place, ...] = ()
        self.current, self.next = "", ""
        self._shell = Shell()
        self._all_round = True  # whether each place is in the drawing, and its words beside it
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(name)
        self.fit()

    def show_places(
        self, places: Sequence[Place], shell: Shell, current: str, next: str = ""
    ) -> None:
        """Show the places of a motor; `next` is the one that is asked for."""
        self.places, self._shell, self.next = tuple(places), shell, next
        names = [p.name for p in places]
        drawn = draw_section(shell, {}).targets
        self._all_round = all(n in drawn and n in SIDES for n in names)
        self.current = current if current in names else next if next in names else names[0]
        if self.shows(self.places, shell, self.current, next):
            self.setAccessibleDescription(
                "; ".join(f"{k} {p.title}: {p.words}" for k, p in enumerate(self.places, 1))
            )
            self.fit()

    def number(self, name: str) -> int:
        """Return the number of a place, from 1."""
        return [p.name for p in self.places].index(name) + 1

    # --- where things are -----------------------------------------------------------------------

    def _mm(self) -> float:
        return PER_MM * self.theme.scale

    def _beside(self) -> float:
        """Return the mm of the words at the left and the right, 0 where they stand below."""
        if not self._all_round:
            return 0.0
        room = (self.steady_width() / self._mm() - WIDE - 2 * GAP) / 2
        return min(room, WORDS_MM) if room >= LEAST_MM else 0.0

    def _section(self) -> Section:
        tokens = {p.name: self._token(p) for p in self.places}
        tokens = {n: t for n, t in tokens.items() if t}
        return draw_section(self._shell, tokens, self.current)

    def _token(self, place: Place) -> str:
        """Return the colour of a place: what is to do now, what is bad, what is renewed; else none."""
        if place.name == self.current:
            return "copper"
        if place.mark in ("hold", "watch"):
            return place.mark
        return "good" if place.renewed else ""

    def laid_out(self) -> tuple[Section, list[Callout]]:
        """Return the drawing where it stands, in mm, and the words round it; none where they stand below."""
        wide, beside = self.width() / self._mm(), self._beside()
        plain = self._section()
        top, size = (WORD_ROW * 0.62, 1.0) if beside else (0.0, SMALL)
        left = (wide - WIDE * size) / 2 + 1.0
        targets = {n: (x * size + left, y * size + top) for n, (x, y) in plain.targets.items()}
        shapes = (
            scaled(Drawing(plain.shapes, WIDE, HIGH), size).shapes if size < 1 else plain.shapes
        )
        section = Section(moved(shapes, left, top), targets)
        if not beside:
            return section, []
        high = self._drawn_high()
        own = {p.name: targets[p.name] for p in self.places if p.name in targets}
        return section, callouts(own, SIDES, wide, high, beside, WORD_ROW)

    def _drawn_high(self) -> float:
        return HIGH + WORD_ROW * 1.35 if self._beside() else HIGH * SMALL

    def _columns(self) -> int:
        """Return how many words stand side by side below the drawing."""
        return min(max(int(self.steady_width() / self._mm() / NARROW_MM), 1), COLUMNS)

    def least_height(self) -> int:
        """Return the height of the drawing with its words."""
        high = self._drawn_high()
        if not self._beside():
            high += WORD_ROW * -(-len(self.places) // self._columns())
        return round(high * self._mm()) + 2

    def boxes(self) -> dict[str, QRect]:
        """Return where the words of each place stand."""
        mm = self._mm()
        _, round_it = self.laid_out()
        row = round(WORD_ROW * mm)
        if round_it:
            return {
                c.name: QRect(round(c.x * mm), round(c.y * mm), round(c.wide * mm), row)
                for c in round_it
            }
        columns = self._columns()
        top, each = round(self._drawn_high() * mm), self.width() // columns
        return {
            p.name: QRect(k % columns * each, top + k // columns * row, each, row)
            for k, p in enumerate(self.places)
        }

    def drawn(self) -> Drawing:
        """Return the motor with the numbers and words of its places, as shapes."""
        section, round_it = self.laid_out()
        shapes = list(section.shapes)
        at = {c.name: c for c in round_it}
        for k, place in enumerate(self.places, 1):
            if place.name in at:
                c = at[place.name]
                shapes.append(Stroke(points=c.line, token="quiet", width=0.3))
                words = f"{k} {place.title}: {place.words}"
                shapes.append(
                    Words(at=(c.x, c.y + 3.0), text=words, size=3.0, anchor=-1, token="ink")
                )
            elif place.name in section.targets:
                shapes.append(
                    Words(at=section.targets[place.name], text=str(k), bold=True, token="ink")
                )
        return Drawing(tuple(shapes), self.width() / self._mm(), self._drawn_high())

    def hears(self) -> Heard:
        """Return each place as a row, the chosen one current."""
        boxes = self.boxes()
        rows = tuple(
            Row(
                f"{k} {p.title}: {p.words}, {p.mark}{', renewed' if p.renewed else ''}"
                f"{', next' if p.name == self.next else ''}",
                boxes[p.name],
                p.name == self.current,
            )
            for k, p in enumerate(self.places, 1)
        )
        return Heard(Role.List, self.accessibleName(), "", rows)

    # --- hands ----------------------------------------------------------------------------------

    def choose(self, name: str) -> None:
        """Choose a place."""
        if name != self.current and any(p.name == name for p in self.places):
            self.current = name
            self.fit()
            tell(self, QAccessible.Event.Focus, self.number(name) - 1)
            self.chosen.emit(name)

    def step(self, by: int) -> None:
        """Choose the place after or before."""
        names = [p.name for p in self.places]
        self.choose(names[(names.index(self.current) + by) % len(names)])

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """A digit is the place of that number; the arrows go on; Enter goes into it."""
        steps = {
            Qt.Key.Key_Right: 1,
            Qt.Key.Key_Down: 1,
            Qt.Key.Key_Left: -1,
            Qt.Key.Key_Up: -1,
        }
        key, text = Qt.Key(event.key()), event.text()
        if key in steps:
            self.step(steps[key])
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.entered.emit(self.current)
        elif text.isascii() and text.isdecimal() and 0 < int(text) <= len(self.places):
            self.choose(self.places[int(text) - 1].name)
            self.entered.emit(self.current)
        elif key in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self.pressed.emit(DELETE)
        elif (
            text.isprintable()
            and text
            and not event.modifiers()
            & (Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.AltModifier)
        ):
            self.pressed.emit(text)
        else:
            super().keyPressEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """A click on the words or on the place chooses it."""
        at, mm = event.position(), self._mm()
        name = next((n for n, box in self.boxes().items() if box.contains(at.toPoint())), "")
        if not name:
            targets = {
                n: QPointF(x * mm, y * mm)
                for n, (x, y) in self.laid_out()[0].targets.items()
                if any(p.name == n for p in self.places)
            }
            near = min(targets, key=lambda n: (targets[n] - at).manhattanLength(), default="")
            if near and (targets[near] - at).manhattanLength() < REACH * mm:
                name = near
        if name:
            self.choose(name)
            self.entered.emit(name)

    # --- paint ----------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the motor, its words, and the lines to what they speak of."""
        painter, t, mm = QPainter(self), self.theme, self._mm()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        section, round_it = self.laid_out()
        whole = Drawing(section.shapes, self.width() / mm, self._drawn_high())
        paint.drawing(painter, t, whole, QRectF(0, 0, self.width(), self._drawn_high() * mm), mm)
        for c in round_it:
            here = c.name == self.current
            painter.setPen(QPen(t.colour("copper" if here else "quiet"), 1.6 if here else 1))
            painter.drawLine(*(QPointF(x * mm, y * mm) for x, y in c.line))
        boxes = self.boxes()
        for k, place in enumerate(self.places, 1):
            self._words(painter, boxes[place.name], k, place)
            if not round_it and place.name in section.targets:
                self._bubble(painter, section.targets[place.name], k, place)
        if self.hasFocus():
            painter.setPen(QPen(t.colour("ink"), 2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(boxes[self.current].adjusted(1, 1, -2, -1))

    def _words(self, painter: QPainter, box: QRect, k: int, place: Place) -> None:
        t = self.theme
        half = box.height() // 2
        if place.name == self.current:
            painter.fillRect(box.adjusted(1, 1, -2, -1), t.colour("surface"))
        paint.mark(
            painter, t, place.mark, QPointF(box.left() + t.px(11), box.top() + half / 2 + 2), 13
        )
        left = t.px(24)
        title = QRect(box.left() + left, box.top() + 2, box.width() - left - 2, half)
        asked = " · next" if place.name == self.next else ""
        paint.text(painter, t, title, f"{k} {said(place.title)}{asked}", bold=True)
        below = QRect(title.left(), box.top() + half, title.width(), half - 2)
        paint.text(painter, t, below, place.words, size=13, token="quiet")

    def _bubble(self, painter: QPainter, at: tuple[float, float], k: int, place: Place) -> None:
        t, mm = self.theme, self._mm()
        centre = QPointF(at[0] * mm, at[1] * mm)
        painter.setPen(QPen(t.colour("copper" if place.name == self.current else "ink"), 1.6))
        painter.setBrush(t.colour("surface"))
        r = t.px(10)
        painter.drawEllipse(centre, r, r)
        box = QRectF(centre.x() - r, centre.y() - r, 2 * r, 2 * r).toRect()
        paint.text(painter, t, box, str(k), size=13, bold=True, align=0)
