"""The diagram printed on the motor, transcribed to joints; what standard hookup it is."""

from careful_coil.core.connect.as_found import meant_by
from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_intake import PrintedDiagram
from careful_coil.core.job.spoken import check_once, words_of
from careful_coil.core.ledger import Judgement
from careful_coil.core.readings import LINES
from careful_coil.core.winding.arrangements import ARRANGEMENTS
from careful_coil.desk.field import LONG
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Drawn, plain_label
from careful_coil.desk.theme import Theme
from careful_coil.drawing.hookup import draw_hookup
from careful_coil.drawing.winding import Look

LONGEST = 40


class DiagramPart(Part):
    """The part of Intake that keeps a printed diagram."""

    name, title, remark = "diagram", "Printed diagram", "by the names printed on it"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.add_field(
            "diagram-title", "Where it stands, for which volts", self._titled, "lid, low volts"
        )
        self.add_field(
            "diagram",
            "Its joints, ; between",
            self._typed,
            "L1 T1 T7; L2 T2 T8; L3 T3 T9; T4 T5 T6",
            most=LONG,
        )
        self.told_words = plain_label()
        self.column.addWidget(self.told_words)
        self.drawn = Drawn(theme)
        self.drawn.setMinimumHeight(theme.px(240))
        self.column.addWidget(self.drawn)

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return what the diagram is."""
        own = next((f for f in judged.findings if f.code == "diagram"), None)
        if own is None:
            return "", "not given"
        return ("good" if own.verdict == "note" else own.verdict), own.why

    def show_judgement(self, judged: Judgement) -> None:
        """Show the joints and what they are."""
        diagram = judged.job.seen.diagram
        self.fields["diagram-title"].show_text(diagram.title if diagram else "")
        joints = diagram.joints if diagram else ()
        self.fields["diagram"].show_text("; ".join(" ".join(j) for j in joints))
        own = [f for f in judged.findings if f.code == "diagram"]
        self.told_words.setText("\n".join(f.why for f in own) or "None found: leave it empty.")
        marks = {n: n for j in joints for n in j if n not in LINES}
        meant = meant_by(joints, marks) if joints else ()
        self.drawn.setVisible(bool(meant))
        if meant:
            first = meant[0]
            network = ARRANGEMENTS[first.arrangement].inside(first.variant)
            printed = {name: Look(tag=mark, token="ink") for mark, name in first.names.items()}
            dark = {coil: "watch" for slip in first.meant.slips for coil in slip.coils}
            self.drawn.show_drawing(
                draw_hookup(network, first.joints, printed, marks=dark), self.told_words.text()
            )

    def _titled(self, text: str) -> None:
        self._record(text, self.fields["diagram"].cell.text())

    def _typed(self, text: str) -> None:
        self._record(self.fields["diagram-title"].cell.text(), text)

    def _record(self, title: str, text: str) -> None:
        joints = read_diagram(text)
        self.session.record(PrintedDiagram(title=title, joints=joints), station="intake")


def read_diagram(text: str) -> tuple[tuple[str, ...], ...]:
    """Return joints by the names printed, typed as `L1 T1 T7; T4 T5 T6`. Raises: BadValue."""
    joints = []
    for part in text.split(";"):
        names = tuple(w.upper() for w in words_of(part))
        if len(names) == 1 or any(len(n) > LONGEST for n in names):
            raise BadValue(part.strip(), "two names or more to a joint, for example L1 T1 T7")
        joints += [names] if names else []
    if len(joints) > LONGEST:
        raise BadValue(f"{len(joints)} joints", f"at most {LONGEST}")
    check_once([tuple(n for n in j if n not in LINES) for j in joints])
    return _by_line(joints)


def _by_line(joints: list[tuple[str, ...]]) -> tuple[tuple[str, ...], ...]:
    """Return the joints with those of one line made one: a line may be drawn to each end apart."""
    found: list[tuple[str, ...]] = []
    for joint in joints:
        lines = set(joint) & set(LINES)
        same = next((j for j in found if lines & set(j)), None)
        if same is None:
            found.append(joint)
        else:
            found[found.index(same)] = (*same, *(n for n in joint if n not in same))
    return tuple(found)
