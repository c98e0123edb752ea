"""The head of the bench: which motor, and the stations as a way through the shop."""

from typing import TYPE_CHECKING

from PySide6.QtCore import QPointF, QRect, QSize, Qt, Signal
from PySide6.QtGui import QAccessible, QMouseEvent, QPainter, QPaintEvent, QPen

from careful_coil.core.stations import STATIONS, Station
from careful_coil.core.stations import TITLES as SHOWN
from careful_coil.desk import paint
from careful_coil.desk.heard import Heard, Role, Row, tell
from careful_coil.desk.painted import Painted
from careful_coil.desk.theme import Theme

if TYPE_CHECKING:
    from careful_coil.core.ledger import Judgement

MARKED = 34  # pixels of a station's number with its mark
NARROWEST_GAP = 8  # pixels between the names of two stations
COUNT_WORDS = {2: "two", 3: "three", 4: "four", 5: "five", 6: "six", 9: "nine", 12: "twelve"}


class Way(Painted):
    """Name, plate in a line, stations with number and mark; the open one underlined."""

    heard_as = Role.List
    chosen = Signal(str)

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self._judged: Judgement | None = None
        self._number = 0
        self.station: Station = "intake"
        self.message, self._tone = "", ""
        self.setAccessibleName("Stations")
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return self.theme.px(96)

    def show_judgement(self, judged: "Judgement | None", number: int, station: Station) -> None:
        """Show a job and the open station."""
        self._judged, self._number, self.station = judged, number, station
        pips = judged.pips if judged else ()
        if self.shows(self.title(), self.plate_line(), station, pips):
            self.setAccessibleDescription(f"{self.title()}, {SHOWN[station]}")
            self.update()

    def say(self, words: str, tone: str) -> None:
        """Show a message in place of the plate's line."""
        if (words, tone) != (self.message, self._tone):
            self.message, self._tone = words, tone
            self.update()
            tell(self, QAccessible.Event.Alert)

    def title(self) -> str:
        """Return the motor's name."""
        return self._judged.job.name if self._judged else "Careful Coil"

    def plate_line(self) -> str:
        """Return the plate in a line."""
        judged = self._judged
        if judged is None:
            return ""
        plate, leads = judged.job.plate, len(judged.job.leads)
        volts = plate.printed("volt").rstrip(" Vv") if plate.volts else ""
        parts = [
            plate.printed("power"),
            f"{COUNT_WORDS.get(leads, leads)} leads" if leads else "",
            f"{volts} V" if volts else "",
            f"job {self._number}",
        ]
        return " · ".join(p for p in parts if p)

    def boxes_shown(self) -> tuple[Station, ...]:
        """Return the stations there are: leads alone have one."""
        return ("leads",) if self._judged and self._judged.job.loose else tuple(SHOWN)

    def _boxes(self) -> dict[Station, QRect]:
        t, x, boxes = self.theme, 20, {}
        words = {s: self._wide(s) for s in self.boxes_shown()}
        room = self.width() - x - sum(words.values())
        gap = max(min(t.px(26), room // len(words)), NARROWEST_GAP)  # closer where text is large
        for station, own in words.items():
            wide = own + gap
            boxes[station] = QRect(x, t.px(44), wide, self.height() - t.px(45))
            x += wide
        return boxes

    def box_of(self, station: Station) -> QRect:
        """Return where a station is shown."""
        return self._boxes()[station]

    def _size(self) -> int:
        """Return the size of the stations' names: smaller where they would not fit."""
        return 16 if self._fits(16) else 13

    def _fits(self, size: int) -> bool:
        wide = sum(paint.width_of(self.theme, name, size, True) for name in SHOWN.values())
        gaps = NARROWEST_GAP * (2 if size > 13 else 1) * len(SHOWN)
        return wide + gaps + 40 <= self.width()

    def _name(self, station: Station) -> str:
        """Return a station's name; where not all fit, of the open one alone: the rest are numbers and marks."""
        return SHOWN[station] if station == self.station or self._fits(13) else ""

    def _wide(self, station: Station) -> int:
        name = paint.width_of(self.theme, self._name(station), self._size(), True)
        return max(name, self.theme.px(MARKED))

    def hears(self) -> Heard:
        """Return the motor, what was said last, and the stations with how they stand."""
        rows = []
        for station, box in self._boxes().items():
            pip = self._judged.pips[STATIONS.index(station)] if self._judged else ""
            number = STATIONS.index(station) + 1
            words = f"{number} {SHOWN[station]}{f', {pip}' if pip else ''}"
            rows.append(Row(words, box, station == self.station))
        return Heard(
            Role.List, f"Stations of {self.title()}", self.message or self.plate_line(), tuple(rows)
        )

    def sizeHint(self) -> QSize:
        """Return a middling size."""
        return QSize(640, self.theme.px(96))

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Open the station under the pointer."""
        for station, box in self._boxes().items():
            if box.contains(event.position().toPoint()):
                self.chosen.emit(station)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw head and way."""
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        name = min(paint.width_of(t, self.title(), 20, True) + 18, self.width() // 2)
        paint.text(painter, t, QRect(20, t.px(8), name, t.px(32)), self.title(), size=20, bold=True)
        rest = QRect(20 + name, t.px(8), self.width() - name - 36, t.px(32))
        if self.message:
            paint.mark(
                painter, t, self._tone or "note", QPointF(rest.left() + 8, rest.center().y()), 15
            )
            paint.text(painter, t, rest.adjusted(24, 0, 0, 0), self.message, size=14)
        else:
            paint.text(painter, t, rest, self.plate_line(), token="quiet")
        painter.setPen(QPen(t.colour("hairline"), 1))
        painter.drawLine(0, self.height() - 1, self.width(), self.height() - 1)
        for station, box in self._boxes().items():
            self._station(painter, station, box)

    def _station(self, painter: QPainter, station: Station, box: QRect) -> None:
        t, here = self.theme, station == self.station
        place = STATIONS.index(station)
        paint.text(
            painter,
            t,
            QRect(box.left(), box.top(), box.width(), t.px(24)),
            self._name(station),
            size=self._size(),
            bold=here,
            token="ink" if here else "quiet",
        )
        low = QRect(box.left(), box.top() + t.px(24), t.px(14), t.px(20))
        paint.text(painter, t, low, str(place + 1), size=13, token="quiet")
        pip = self._judged.pips[place] if self._judged else ""
        verdict = {"done": "good", "hold": "hold", "open": "unproven"}.get(pip)
        if verdict:
            paint.mark(
                painter, t, verdict, QPointF(box.left() + t.px(22), low.center().y() + 1), 13
            )
        if here:
            wide = self._wide(station)
            painter.setPen(QPen(t.colour("ink"), 3, Qt.PenStyle.SolidLine, Qt.PenCapStyle.FlatCap))
            painter.drawLine(box.left(), self.height() - 2, box.left() + wide, self.height() - 2)
