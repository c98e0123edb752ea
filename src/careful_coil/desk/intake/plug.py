"""Where the motor ends in a plug: its face, pins numbered, both views told apart."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QWidget

from careful_coil.core.job.at_intake import PlugSeen
from careful_coil.core.kind.plug import mirrored, plug_words, read_plug
from careful_coil.core.ledger import Judgement
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Drawn, plain_label
from careful_coil.desk.theme import Theme
from careful_coil.drawing.plug import draw_plug
from careful_coil.drawing.scene import looks_of

FACE, WIRES = "Read on its face", "Read from the wires"


class PlugPart(Part):
    """The part of Intake that keeps a plug."""

    name, title, remark = "plug", "Plug", "rows from above, positions from the left"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.view = EnterButton(FACE)
        self.view.setCheckable(True)
        self.view.toggled.connect(lambda on: self.view.setText(WIRES if on else FACE))
        self.column.addWidget(self.view, 0, Qt.AlignmentFlag.AlignLeft)
        self.add_field(
            "plug", "Rows, and what each position carries", self._typed, "3+3 A B C D empty dummy"
        )
        self.pins = plain_label()
        self.column.addWidget(self.pins)
        self.pair = QWidget()
        row = QHBoxLayout(self.pair)
        row.setContentsMargins(0, 0, 0, 0)
        self.face, self.wires = Drawn(theme), Drawn(theme)
        for drawn in (self.face, self.wires):
            drawn.setMinimumHeight(theme.px(220))
            row.addWidget(drawn)
        self.column.addWidget(self.pair)

    def wanted(self, judged: Judgement) -> bool:
        """Whether it may have a plug: a three-phase motor comes with leads or a board."""
        return judged.job.plate.phases != 3 or judged.job.seen.plug is not None

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return what the plug carries."""
        plug = judged.job.seen.plug
        if plug is None:
            return "", "not given"
        return ("unproven" if "?" in plug.pins else "good"), f"{len(plug.pins)} positions"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the plug from both sides."""
        plug = judged.job.seen.plug
        self.pair.setVisible(plug is not None)
        self.pins.setText(plug_words(plug) if plug else "No plug: leave it empty.")
        self.fields["plug"].show_text(_as_typed(plug) if plug else "")
        if plug is None:
            return
        self.view.setChecked(plug.view == "wires")
        looks = looks_of(judged)
        self.face.show_drawing(draw_plug(plug, looks, wires=False), plug_words(plug))
        self.wires.show_drawing(draw_plug(plug, looks, wires=True), "mirrored")

    def _typed(self, text: str) -> None:
        leads = self.session.open.judged.job.leads if self.session.open else ()
        view = "wires" if self.view.isChecked() else "face"
        body = read_plug(text, leads, view) if text else PlugSeen(rows=(), pins=())
        self.session.record(body, station="intake")


def _as_typed(plug: PlugSeen) -> str:
    """Return a plug as it was typed, in the view it was read in."""
    pins = mirrored(plug) if plug.view == "wires" else plug.pins
    return f"{'+'.join(str(n) for n in plug.rows)} {' '.join(pins)}"
