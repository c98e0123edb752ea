"""Places that hands feel and eyes see: a short scale of answers, then what watch and callipers say."""

from typing import ClassVar

from PySide6.QtWidgets import QWidget

from careful_coil.core.ledger import Judgement
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.theme import Theme


class FeltPart(Part):
    """A place with its scales and its figures, all of the one sheet of what is felt."""

    scales: ClassVar[tuple[str, ...]] = ()
    rows: ClassVar[tuple[str, ...]] = ()
    advice: ClassVar[str] = ""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        for name in self.scales:
            self.column.addWidget(self.add_scale("felt", name))
        if self.rows:
            self.add_sheet("felt", 4, self.rows)
        words = Prose(theme, "quiet", 13)
        words.say(self.advice)
        self.list = Verdicts(theme)
        for part in (words, self.list):
            self.column.addWidget(part)

    def start(self) -> QWidget:
        """Start at the first scale that says nothing yet, else at the first."""
        scales = [self.fields[f"felt-{n}"] for n in self.scales]
        felt = self.judged.job.hands.felt if self.judged else {}
        left = (f for f, n in zip(scales, self.scales, strict=True) if not felt.get(n))
        return next(left, scales[0]).entry

    def show_judgement(self, judged: Judgement) -> None:
        """Show what was felt and what it means."""
        self.show_notes(judged)
        self.list.show_findings(self.own(judged))


class ShaftPart(FeltPart):
    """How the shaft turns, and what watch, callipers and a ramp of volts say."""

    codes = ("shaft-feel", "coast-down", "end-float", "radial-play", "rub", "start-volts")
    nothing = "not felt yet"
    name, title, remark = "shaft", "Shaft", "by hand, load off; unplugged, nothing live"
    scales = ("feel",)
    rows = (
        *("coast-down", "end-float", "radial-play", "rub"),
        *("start-before", "start-after", "ends"),
    )
    advice = "Volts: on a ramp, watching amps, until it starts turning."


class FanPart(FeltPart):
    """Fan, guard and air ways."""

    codes = ("fan",)
    nothing = "not looked at"
    name, title, remark = "fan", "Fan, guard", "blades whole and fast, air ways clear"
    scales = ("fan",)


class SealsPart(FeltPart):
    """Seals and grommets."""

    codes = ("seals",)
    nothing = "not looked at"
    name, title, remark = "seals", "Seals", "seals and grommets, where it works wet"
    scales = ("seals",)


class ShieldsPart(FeltPart):
    """The end shields, drawn down on the frame."""

    codes = ("bolts-drive", "bolts-other")
    nothing = "not drawn down yet"
    name, title, remark = "shields", "End shields", "drawn down crosswise, spun after each bolt"
    scales = ("bolts-drive", "bolts-other")
