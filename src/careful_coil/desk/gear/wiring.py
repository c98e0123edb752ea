"""How this motor's start gear is wired: drawn in every state, with what is noted, and with a run capacitor."""

from collections.abc import Mapping

from PySide6.QtWidgets import QWidget

from careful_coil.core.connect.called import in_marks
from careful_coil.core.gear.wiring import Wiring, wiring_of, with_run_capacitor
from careful_coil.core.ledger import Judgement
from careful_coil.core.ways.states import states_by_name
from careful_coil.core.ways.way import Plan
from careful_coil.core.winding.arrangements import arrangement
from careful_coil.desk.ask_row import AskRow, EnterButton
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme
from careful_coil.drawing.hookup import draw_hookup
from careful_coil.drawing.scene import looks_of
from careful_coil.drawing.winding import Look


class WiringPart(Part):
    """The part that draws how it is wired."""

    kept = ("state",)
    name, title, remark = "wiring", "Wiring", "as the network joins it; the maker's diagram wins"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.words = Prose(theme)
        self.column.addWidget(self.words)
        self.drawing = Plot(theme, "Wiring")
        self.column.addWidget(self.drawing)
        self.states = AskRow()
        self.column.addWidget(self.states)
        self.more = EnterButton("with a run capacitor besides")
        self.more.setCheckable(True)
        self.more.clicked.connect(self._draw)
        self.column.addWidget(self.more)
        self.notes = Prose(theme, "quiet", 13)
        self.column.addWidget(self.notes)
        self.wiring: Wiring | str = ""
        self.state = "start"
        self.looks: Mapping[str, Look] = {}
        self.called: Mapping[str, str] = {}  # leads in words

    def start(self) -> QWidget:
        """Start at the states."""
        return self.states.buttons[0] if self.states.buttons else self.more

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how many parts it has."""
        found = wiring_of(
            judged.job, judged.facts.kinds, judged.facts.identification, judged.facts.naming
        )
        if isinstance(found, str):
            return "", "not known yet"
        return "", ", ".join(d.name for d in found.plan.devices)

    def show_judgement(self, judged: Judgement) -> None:
        """Show the wiring of what is noted now."""
        names = judged.facts.naming.names
        self.looks = {names[tag]: look for tag, look in looks_of(judged).items() if tag in names}
        self.called = judged.facts.connecting.called
        self.wiring = wiring_of(
            judged.job, judged.facts.kinds, judged.facts.identification, judged.facts.naming
        )
        self._draw()

    def plan(self) -> Plan | None:
        """Return the plan that is drawn."""
        if isinstance(self.wiring, str):
            return None
        more = with_run_capacitor(self.wiring)
        self.more.setVisible(more is not None)
        return more if more is not None and self.more.isChecked() else self.wiring.plan

    def _draw(self) -> None:
        plan = self.plan()
        for part in (self.drawing, self.states, self.notes):
            part.setVisible(plan is not None)
        if plan is None or isinstance(self.wiring, str):
            self.more.setVisible(False)
            self.words.say(str(self.wiring))
            return
        states = states_by_name(plan.devices)
        names = tuple(states)
        if self.state not in states:
            self.state = names[0]
        self.states.ask("In which state?", names, self._stand)
        self.states.setVisible(True)
        for button, name in zip(self.states.buttons, names, strict=True):
            button.setCheckable(True)
            button.setChecked(name == self.state)
        network = arrangement(plan.arrangement).inside(plan.variant)
        shown = draw_hookup(
            network, plan.joints, self.looks, devices=plan.devices, state=states[self.state]
        )
        joints = "; ".join(" – ".join(j) for j in plan.joints if len(j) > 1)
        words = in_marks(joints, plan.arrangement, self.called)
        self.drawing.show_whole(shown, f"{self.state}: {words}")
        guessed = self.wiring.guessed
        lacking = f" Not noted, so taken as usual: {', '.join(guessed)}." if guessed else ""
        self.words.say(f"{plan.connection[0].upper()}{plan.connection[1:]}.{lacking}")
        self.notes.say("\n".join([f"Joints: {words}.", *plan.notes]))

    def _stand(self, name: str) -> None:
        self.state = name
        self._draw()
