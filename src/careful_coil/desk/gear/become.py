"""Kinds side by side: what each starts with, and what this motor can be turned into, and what not."""

from PySide6.QtWidgets import QWidget

from careful_coil.core.errors import CoilError
from careful_coil.core.gear.machine_of import known_motor
from careful_coil.core.gear.turned import Turn, compared, turns_of
from careful_coil.core.gear.wiring import kind_of_gear
from careful_coil.core.job import Finding, Verdict
from careful_coil.core.kind.kinds import KINDS
from careful_coil.core.ledger import Judgement
from careful_coil.core.machine.curves import start_curves
from careful_coil.core.machine.estimate import estimate
from careful_coil.core.machine.facts import Facts
from careful_coil.core.ways.way import Plan
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.theme import Theme
from careful_coil.drawing.gear import draw_kinds

HIGH = 270  # pixels of the bars at 100 % text
MARKS: dict[str, Verdict] = {"yes": "good", "with care": "watch", "no": "note"}


class BecomePart(Part):
    """The part on kinds."""

    name, title, remark = (
        "become",
        "Kinds",
        "each is made for its own winding, switch and capacitor",
    )

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.bars = Plot(theme, "Starting torque of the kinds", HIGH)
        self.column.addWidget(self.bars)
        self.column.addWidget(
            Heading("What this one can be turned into", theme, "and what not", rule=True)
        )
        self.words, self.list = Prose(theme), Verdicts(theme)
        self.column.addWidget(self.words)
        self.column.addWidget(self.list)
        self.card = EnterButton("What a replacement must match")
        self.card.clicked.connect(lambda: session.station_wanted.emit("intake", "replacement"))
        self.column.addWidget(self.card)
        self.own_kind: tuple[str, float] | None = None
        self.turns: tuple[Turn, ...] = ()
        self._asked: object = None
        self._kind = ""

    def start(self) -> QWidget:
        """Start at the key."""
        return self.card

    def wanted(self, judged: Judgement) -> bool:
        """Whether it can be turned into another kind: a three-phase motor is none of them."""
        return judged.job.plate.phases != 3

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return what it is taken for."""
        name = _kind(judged)
        return "", KINDS[name].title.lower() if name in KINDS else "kind not known"

    def show_judgement(self, judged: Judgement) -> None:
        """Show kinds and what this one can become; figures follow from another thread."""
        self._kind = _kind(judged)
        known = known_motor(
            judged.job, judged.facts.kinds, judged.facts.identification, judged.facts.naming
        )
        asked = (self._kind, known)
        if asked == self._asked:
            return
        self._asked, self.own_kind = asked, None
        self.turns = turns_of(self._kind)
        self._show()
        if isinstance(known, str):
            return

        def arrived(found: tuple[float, tuple[Turn, ...]]) -> None:
            if self._asked == asked and self._kind in KINDS:
                self.own_kind = (KINDS[self._kind].title, found[0])
                self.turns = found[1]
                self._show()

        self.session.aside(lambda: _worked(known, self._kind), arrived, lambda _: None)

    def _show(self) -> None:
        kinds, own = compared(), self.own_kind
        self.bars.draw(
            lambda wide, _: draw_kinds(kinds, own, wide),
            "; ".join(f"{n} {low:g} to {high:g} times" for n, low, high in kinds),
        )
        if not self.turns:
            self.words.say("Its kind is not known yet: say so at Intake.")
            self.list.show_findings(())
            return
        self.words.say("")
        self.list.show_findings(
            [
                Finding(
                    code="turned-into",
                    verdict=MARKS[t.word],
                    subject=f"{t.into}: {t.word}",
                    why=f"{t.why[0].upper()}{t.why[1:]}.",
                    station="start-gear",
                )
                for t in self.turns
            ]
        )


def _kind(judged: Judgement) -> str:
    """Return the kind it is taken for: by its capacitors, else the likeliest."""
    own = kind_of_gear(judged.job.gear, judged.facts.kinds)
    if own is not None:
        return "permanent-capacitor" if own == "psc" else own
    best = max(judged.facts.kinds.odds, key=lambda o: o.probability, default=None)
    return best.kind.name if best is not None else ""


def _worked(known: tuple[Plan, Facts], kind: str) -> tuple[float, tuple[Turn, ...]]:
    """Return this motor's starting torque over full load, and what it can become with its own figures."""
    plan, facts = known
    motor = estimate(plan, facts).motor
    rated = motor.rated_nm(facts.slip)
    share = float(start_curves(motor, 2)[0].shaft[0]) / rated if rated > 0 else 0.0
    try:
        return share, turns_of(kind, motor)
    except CoilError:
        return share, turns_of(kind)
