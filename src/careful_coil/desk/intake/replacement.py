"""The replacement card: what a replacement must match, and whether the motor of another plate would."""

from collections.abc import Iterator

from PySide6.QtCore import QPointF, QRect
from PySide6.QtGui import QPainter, QPaintEvent

from careful_coil.core.errors import BadValue
from careful_coil.core.job.noted import note
from careful_coil.core.job.pasted import read_pasted
from careful_coil.core.job.plate import readable
from careful_coil.core.kind.kinds import KINDS
from careful_coil.core.kind.replacement import LINES_TYPED, PLATE_LINES, Line, card_of, serves
from careful_coil.core.ledger import Judgement
from careful_coil.desk import paint
from careful_coil.desk.field import LONG, SHORT
from careful_coil.desk.heard import Row
from careful_coil.desk.painted import Painted
from careful_coil.desk.part import NOT_ASKED, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import plain_label
from careful_coil.desk.theme import Theme

ROW = 40


class Card(Painted):
    """Three columns: what, wanted, offered; the mark and why."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.lines: tuple[Line, ...] = ()
        self.setAccessibleName("Replacement card")
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows every line."""
        return self.theme.px(24) + self.theme.px(ROW) * len(self.lines)

    def show_lines(self, lines: tuple[Line, ...]) -> None:
        """Show other lines."""
        self.lines = lines
        self.setAccessibleDescription("; ".join(r.words for r in self.heard_rows()))
        self.fit()

    def heard_rows(self) -> Iterator[Row]:
        """Yield each point: wanted, offered, whether it serves and why."""
        high = self.theme.px(ROW)
        for k, x in enumerate(self.lines):
            wanted, offered = x.wanted or "not known", x.offered or "not known"
            words = f"{x.title}: wanted {wanted}, offered {offered}, {x.answer} {x.why}".strip()
            yield Row(words, QRect(0, self.theme.px(24) + k * high, self.width(), high))

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the lines."""
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        third = (self.width() - t.px(30)) // 3
        columns = [t.px(30) + third * k for k in range(3)]
        for x, head in zip(columns, ("Must match", "This motor", "The other"), strict=True):
            paint.text(painter, t, QRect(x, 0, third - 8, t.px(22)), head, size=13, token="quiet")
        for k, line in enumerate(self.lines):
            y = t.px(24) + k * t.px(ROW)
            painter.setPen(t.colour("hairline"))
            painter.drawLine(0, y, self.width(), y)
            upper = t.px(22) if line.why else t.px(ROW)
            paint.mark(painter, t, line.answer, QPointF(t.px(13), y + upper / 2), 13)
            for x, words, bold in zip(
                columns,
                (line.title, line.wanted or "–", line.offered or "–"),
                (False, True, True),
                strict=True,
            ):
                paint.text(painter, t, QRect(x, y, third - 8, upper), words, bold=bold)
            if line.why:
                low = QRect(columns[0], y + upper - 2, self.width() - columns[0], t.px(17))
                paint.text(painter, t, low, line.why, size=13, token="quiet")


class ReplacementPart(Part):
    """The part of Intake that compares with another plate."""

    name, title, remark = "replacement", "Replacement", "point by point"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.add_field(
            "card-wanted",
            "What this motor needs besides its plate, ; between",
            self._wanted,
            "shaft 24x50; frame 90L; rotation CW from the drive end",
            clears=True,
            most=LONG,
        )
        self.add_field(
            "card-offered",
            "The other motor: its plate in any order, then ; and the rest",
            self._offered,
            "1~ 0.75 kW 230 V 50 Hz 1420 r/min; shaft 24x50; frame 90L",
            clears=True,
            most=LONG,
        )
        self.answer, self.card = plain_label(), Card(theme)
        self.column.addWidget(self.answer)
        self.column.addWidget(self.card)

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return whether another plate serves."""
        if not judged.job.seen.offered:
            return "", NOT_ASKED
        return serves(card_of(judged.job, judged.facts.kinds))

    def show_judgement(self, judged: Judgement) -> None:
        """Show the card."""
        lines = card_of(judged.job, judged.facts.kinds)
        self.card.show_lines(lines)
        offered = bool(judged.job.seen.offered)
        self.answer.setText(serves(lines)[1] if offered else "Describe another motor to compare.")

    def _wanted(self, text: str) -> None:
        self._record("wanted", read_card(text))

    def _offered(self, text: str) -> None:
        self._record("offered", read_card(text))

    def _record(self, side: str, fields: dict[str, str]) -> None:
        bodies = [note("card", f, t, of=side) for f, t in fields.items()]
        if bodies:
            self.session.record(*bodies, station="intake")


def read_card(text: str) -> dict[str, str]:
    """Return lines typed as a plate in any order and `name text`, parted by ;. Raises: BadValue."""
    found: dict[str, str] = {}
    for part in (p.strip() for p in text.split(";")):
        if not part:
            continue
        name, _, rest = part.partition(" ")
        if name.lower() in LINES_TYPED:
            found[name.lower()] = _kind(rest.strip()) if name.lower() == "kind" else rest.strip()
            continue
        plate = {f: v for f, v in read_pasted(part).fields.items() if readable(f, v)}
        known = {f: v for f, v in plate.items() if f in (*PLATE_LINES, *LINES_TYPED)}
        if not known:
            raise BadValue(part, "a plate, or one of " + ", ".join(LINES_TYPED) + " and its words")
        found |= known
    long = next((f for f, v in found.items() if len(v) > SHORT), None)
    if long is not None:
        raise BadValue(f"{len(found[long])} characters of {long}", f"at most {SHORT}")
    return found


def _kind(text: str) -> str:
    """Return the name of a kind told by name or title. Raises: BadValue."""
    wanted = text.lower()
    for kind in KINDS.values():
        if wanted in (kind.name, kind.title.lower()):
            return kind.name
    raise BadValue(text, "a kind: " + ", ".join(KINDS))
