"""Taken off in this order; put back in reverse, each ticked; what was missing when it came."""

from dataclasses import dataclass

from PySide6.QtCore import QRect, QSize
from PySide6.QtGui import QImage, QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_intake import PictureAdded
from careful_coil.core.job.at_mechanics import PartOff
from careful_coil.core.ledger import Judgement
from careful_coil.core.mechanics.open_rules import missing_parts, parts_left
from careful_coil.desk.painted import Painted
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.files import load_picture
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.theme import Theme
from careful_coil.desk.tick_roll import TickRoll
from careful_coil.records.attachments import kept_file

PICTURE = QSize(320, 200)
HIGH = 170  # pixels of the photograph at 100 % text
OFF_WANTED = "a part, a remark if you like, a photograph's number: fan; key inside; picture 2"


@dataclass(frozen=True, slots=True)
class Row:
    """A part as it is ticked."""

    name: str
    words: str
    why: str


class Shown(Painted):
    """The photograph of the part that is next; nothing where there is none."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.image = QImage()
        self.fit()

    def least_height(self) -> int:
        """Return the height of the photograph."""
        return self.theme.px(HIGH) if not self.image.isNull() else 1

    def show_image(self, image: QImage, words: str) -> None:
        """Show another photograph."""
        self.image = image
        self.setAccessibleName(words)
        self.setVisible(not image.isNull())
        self.fit()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw it at the left, as large as the height allows."""
        if not self.image.isNull():
            high = self.height() - 4
            wide = round(self.image.width() * high / max(self.image.height(), 1))
            QPainter(self).drawImage(QRect(0, 2, wide, high), self.image)


class AssemblyPart(Part):
    """The part of what was taken off."""

    codes = ("assembly",)
    nothing = "nothing noted"
    name, title, remark = "assembly", "Taken off", "in turn, a photograph before each"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.add_field(
            "part-off", "Taken off now", self._off, "fan; key inside; picture 2", clears=True
        )
        self.add_field("part-gone", "Not to be on this list", self._gone, "fan", clears=True)
        self.missing = Prose(theme)
        self.head = Heading("Put back", theme, "the last off first on; Space ticks", rule=True)
        self.roll = TickRoll(theme, "Parts to put back")
        self.roll.ticked.connect(self._ticked)
        self.roll.moved.connect(lambda _: self._show_picture())
        self.picture = Shown(theme)
        self.list = Verdicts(theme)
        for part in (self.missing, self.head, self.roll, self.picture, self.list):
            self.column.addWidget(part)

    def start(self) -> QWidget:
        """Start at the list where parts are off, else at the first to come."""
        hands = self.judged.job.hands if self.judged else None
        return self.roll if hands is not None and hands.off else self.fields["part-off"].cell

    def show_judgement(self, judged: Judgement) -> None:
        """Show what is off, the last first."""
        off = judged.job.hands.off
        rows = [
            Row(p.part, p.part, p.words or ("back" if p.back else "not back"))
            for p in reversed(tuple(off.values()))
        ]
        self.roll.show_items(rows, {n for n, p in off.items() if p.back})
        for part in (self.head, self.roll):
            part.setVisible(bool(rows))
        missing = missing_parts(judged.job)
        self.missing.say(
            f"Came without: {', '.join(missing)}. Get them, note them here, tick them."
            if missing
            else ""
        )
        self.list.show_findings(self.own(judged))
        self._show_picture()

    def _pictures(self) -> tuple[PictureAdded, ...]:
        return self.judged.job.seen.pictures if self.judged else ()

    def _show_picture(self) -> None:
        rows = self.roll.items
        name = rows[self.roll.current].name if rows and self.roll.current < len(rows) else ""
        off = self.judged.job.hands.off.get(name) if self.judged else None
        kept = next((p for p in self._pictures() if off and p.sha256 == off.sha256), None)
        file = kept_file(self.session.shop, kept.sha256) if kept else None
        words = f"{name}: {kept.caption or kept.name}" if kept else ""
        self.picture.show_image(load_picture(file, PICTURE), words)

    def _off(self, text: str) -> None:
        pieces = [p.strip() for p in text.split(";") if p.strip()]
        if not pieces:
            return
        sha, words = "", []
        for piece in pieces[1:]:
            head, _, number = piece.rpartition(" ")
            if head.lower() == "picture":
                sha = self._picture(number, text)
            else:
                words.append(piece)
        known = {p.lower() for p in (self.judged.job.hands.off if self.judged else ())}
        if pieces[0].lower() in known or len(pieces[0]) > 60:
            raise BadValue(
                pieces[0], "a name of its own, at most 60 characters, such as fan, drive end"
            )
        body = PartOff(part=pieces[0], words="; ".join(words)[:200], sha256=sha)
        self.session.record(body, station="mechanics")

    def _picture(self, number: str, text: str) -> str:
        every = self._pictures()
        if not number.isascii() or not number.isdecimal() or not 0 < int(number) <= len(every):
            has = f"it has {len(every)}" if every else "there is none yet: Intake, Pictures"
            raise BadValue(text, OFF_WANTED, f"No such photograph; {has}.")
        return every[int(number) - 1].sha256

    def _gone(self, text: str) -> None:
        if not text.strip():
            return
        off = self.judged.job.hands.off if self.judged else {}
        name = next((p for p in off if p.lower() == text.strip().lower()), None)
        if name is None:
            raise BadValue(text, ", ".join(off) or "nothing is on the list")
        self.session.record(PartOff(part=name, gone=True), station="mechanics")

    def _ticked(self) -> None:
        """Record the parts whose tick changed."""
        off = self.judged.job.hands.off if self.judged else {}
        bodies = [
            p.model_copy(update={"back": n in self.roll.done})
            for n, p in off.items()
            if p.back != (n in self.roll.done)
        ]
        if bodies:
            self.session.record(*bodies, station="mechanics")

    @property
    def left(self) -> tuple[str, ...]:
        """Return what is not back, the next first."""
        return tuple(p.part for p in parts_left(self.judged.job)) if self.judged else ()
