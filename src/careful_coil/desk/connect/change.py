"""The change: the joints as they are beside those that must be, one step at a time, each proved."""

from dataclasses import replace

from PySide6.QtWidgets import QBoxLayout, QVBoxLayout, QWidget

from careful_coil.core.connect.order import MOST_JOINTS
from careful_coil.core.connect.plans import Plate, rating_of, span_words
from careful_coil.core.connect.proof import Offer, last_unproved, offer, read_on_the_way
from careful_coil.core.connect.proof_rules import LEFTOVER
from careful_coil.core.gear.work import steps_of
from careful_coil.core.job.at_connect import StandsSo, StepTicked
from careful_coil.core.job.spoken import EXAMPLE, read_joints
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.targets import hooked
from careful_coil.core.shop_lists import line_colours
from careful_coil.core.values import show_ohm
from careful_coil.core.ways.states import OFF, State, states_by_name
from careful_coil.desk.ask_row import AskRow, EnterButton
from careful_coil.desk.connect.step_list import StepList
from careful_coil.desk.field import LONG
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Drawn, Heading
from careful_coil.desk.shared.shown import Prose, Verdicts, finding_of, told_of
from careful_coil.desk.theme import Theme
from careful_coil.drawing.scene import hookup_drawing, joints_drawing

KITS = {
    "electronic-switch": "retrofit",
    "relay-voltage": "relay",
    "relay-current": "amp-relay",
    "hot-wire": "exchange",
}
STANDS = ("as found", "all apart")
WIDEST = 90.0  # mm of a drawing that still fits beside another
HIGH = 230  # pixels of a drawing at 100 % text


class ChangePart(Part):
    """The part of the joints."""

    kept = ("state",)
    name, title, remark = "change", "The change", ""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.heading.hide()  # the drawings have their own
        self.why = Prose(theme)
        self.column.addWidget(self.why)
        self._side_by_side = QBoxLayout(QBoxLayout.Direction.LeftToRight)
        self._side_by_side.setContentsMargins(0, 0, 0, 0)
        self.before, self.after = Drawn(theme), Drawn(theme)
        self.before_head, self.after_head = (
            Heading("As it is", theme),
            Heading("As it must be", theme),
        )
        for head, drawn in ((self.before_head, self.before), (self.after_head, self.after)):
            side = QWidget()
            own = QVBoxLayout(side)
            own.setContentsMargins(0, 0, 0, 0)
            own.addWidget(head)
            own.addWidget(drawn, 1)
            self._side_by_side.addWidget(side, 1)
        self.pictures = QWidget()
        self.pictures.setLayout(self._side_by_side)
        self.column.addWidget(self.pictures, 1)
        self.states = AskRow()
        self.column.addWidget(self.states)
        self.state = ""
        self.kit = Prose(theme)
        self.column.addWidget(self.kit)
        self.steps_head = Heading("One step at a time", theme, rule=True)
        self.column.addWidget(self.steps_head)
        self.steps = StepList(session, theme)
        self.column.addWidget(self.steps)
        self.offered = Prose(theme)
        self.read = EnterButton("Read it")
        self.read.clicked.connect(self._read)
        self.left = Prose(theme, "quiet", 13)
        self.differs = EnterButton("What is left over differs")
        self.differs.setCheckable(True)
        self.differs.clicked.connect(self._differs)
        self.verdicts = Verdicts(theme)
        for part in (self.offered, self.read, self.left, self.differs, self.verdicts):
            self.column.addWidget(part)
        self.stands = AskRow()
        self.column.addWidget(self.stands)
        self.add_field("stands", "Joints as they stand", self._stands, EXAMPLE, most=LONG)
        self._offer: Offer | None = None
        self.set_theme(theme)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme; the drawings grow with the text."""
        self.theme = theme
        for drawn in (self.before, self.after):
            drawn.setMinimumHeight(theme.px(HIGH))

    def start(self) -> QWidget:
        """Start at the steps, where there are any, else at the joints as they stand."""
        return self.steps if self.steps.state.steps else self.fields["stands"].cell

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how many joints stand."""
        return told_of(finding_of(judged, "step-ohm", "leftover", "hookup"), "no plan yet")

    def show_judgement(self, judged: Judgement) -> None:
        """Show both drawings, the steps, what proves the last joint, what is left."""
        state = judged.facts.connecting
        self.why.say(" ".join(state.plan.notes) if state.plan else state.why)
        self._pictures(judged)
        total = len([j for j in state.plan.joints if len(j) > 1]) if state.plan else 0
        loose, most = len(state.now.loose), max((s.loose_after for s in state.steps), default=0)
        remark = f"{len(state.made)} of {total} made; loose now {loose}, at most {max(loose, most)}"
        self.steps_head.say("One step at a time", remark)
        self.steps_head.setVisible(state.plan is not None)
        self.steps.show_judgement(judged)
        self._kit(judged)
        self._proof(judged)
        self._left(judged)
        codes = ("step-ohm", "leftover")
        self.verdicts.show_findings([f for f in judged.findings if f.code in codes])
        found = judged.job.found
        choices = STANDS if found and found.joints else STANDS[1:]
        self.stands.ask(
            f"Before the first step: {state.now.before}. They stand", choices, self._stood
        )
        self.fields["stands"].show_text("")

    def _pictures(self, judged: Judgement) -> None:
        state = judged.facts.connecting
        plan, now = state.drawn, state.now.joints
        lines = self._lines(judged)
        before = joints_drawing(judged, now, plan.joints if plan else (), lines)
        stands = self._states(judged)
        after = hookup_drawing(judged, plan, now, lines, stands) if plan else None
        if not now:
            before = None
        shown = [p for p in (before, after) if p is not None]
        wide, high = (
            max((getattr(p, side) for p in shown), default=0.0) for side in ("width", "height")
        )
        self.pictures.setVisible(before is not None or after is not None)
        way = QBoxLayout.Direction
        stacked = wide > WIDEST
        self._side_by_side.setDirection(way.TopToBottom if stacked else way.LeftToRight)
        for drawn, picture in ((self.before, before), (self.after, after)):
            drawn.parentWidget().setVisible(picture is not None)
            if picture is not None:  # the same room for both: the same coil in the same place
                drawn.show_drawing(replace(picture, width=wide, height=high))
        self.before_head.say("As it is", now_words(judged))
        self.after_head.say("As it must be", judged.facts.connection)

    def _states(self, judged: Judgement) -> State | None:
        """Offer the states its devices have; return the one that is drawn."""
        plan = judged.facts.connecting.drawn
        states = states_by_name(plan.devices) if plan is not None and plan.devices else {}
        names = tuple(states) if OFF in states else ("at rest", *states)
        self.state = self.state if self.state in states else names[0]

        def stand(name: str) -> None:
            self.state = name
            self._pictures(judged)

        self.states.ask("Drawn in which state?" if states else "", names if states else (), stand)
        self.states.setVisible(bool(states))
        for button, name in zip(self.states.buttons, names, strict=False):
            button.setCheckable(True)
            button.setChecked(name == self.state)
        return states.get(self.state)

    def _kit(self, judged: Judgement) -> None:
        """Say what must lie on the bench before a start device is changed."""
        state = judged.facts.connecting
        fresh = {s.leads[0] for s in state.steps if s.do == "fit-device"}
        kinds = {d.kind for d in state.plan.devices if d.name in fresh} if state.plan else set()
        work = next((KITS[k] for k in KITS if k in kinds), "")
        first = steps_of(work)[0] if work else None
        self.kit.say(f"First, on the bench: {first.words} {first.why}" if first else "")

    def _lines(self, judged: Judgement) -> dict[str, str]:
        """Return the colours of the supply's conductors by this shop's scheme."""
        supply = judged.job.supply
        scheme = self.session.settings.school("supply-colours")
        if supply is None:
            return {}
        return line_colours(scheme, supply.volt, supply.hertz, supply.phases)

    def _proof(self, judged: Judgement) -> None:
        state = judged.facts.connecting
        many = len(state.now.joints) > MOST_JOINTS
        self._offer = None if many else offer(judged.job, state)
        o = self._offer
        self.read.setVisible(o is not None and not state.joined)
        self.offered.say("")
        if o is not None and not state.joined:
            a, b = (state.said((n,)) for n in o.between)
            left = ", ".join(f"{state.mark(x)} from {state.mark(y)}" for x, y in o.untold)
            untold = f" It does not tell {left}: a kick or three equal amps do." if left else ""
            was = "open" if o.without == float("inf") else show_ohm(o.without)
            self.offered.say(
                f"{state.said(o.joint)} proves itself: {a} to {b} reads {show_ohm(o.ohm)}, {was} without it.{untold}"
            )

    def _left(self, judged: Judgement) -> None:
        state, job = judged.facts.connecting, judged.job
        to_make = state.to_make if state.plan else ()
        acting = bool(job.joined.acts) and bool(to_make)
        differs = LEFTOVER in job.joined.ticked
        self.differs.setVisible(acting or differs)
        self.differs.setChecked(differs)
        if not acting:
            self.left.say("")
            return
        rest = "; ".join(state.said(j) for j in to_make)
        last = state.said(to_make[-1])
        back = last_unproved(job, state, read_on_the_way(job, state, self.session.settings))
        where = f" Then go back to {state.said(back)}." if back else ""
        self.left.say(
            f"Still to join: {rest}. The last that remains must be {last}; if other marks are left over, "
            f"one went into a joint under a wrong mark.{where}"
        )

    def _read(self) -> None:
        job = self.session.open
        if job is None or self._offer is None:
            return
        ends = job.judged.facts.connecting.by_tag(self._offer.between)
        self.session.pick(hooked(job.judged, "step", ends))
        self.session.strip_wanted.emit()

    def _differs(self) -> None:
        done = self.differs.isChecked()
        self.session.record(StepTicked(step=LEFTOVER, done=done), station="connect")

    def _stood(self, answer: str) -> None:
        job = self.session.open
        found = job.judged.job.found if job else None
        joints = found.joints if found and answer == STANDS[0] else ()
        self.session.record(StandsSo(joints=joints), station="connect")

    def _stands(self, text: str) -> None:
        job = self.session.open
        leads = job.judged.job.leads if job else ()
        joints = read_joints(text, leads)
        self.session.record(StandsSo.model_validate({"joints": joints}), station="connect")


def now_words(judged: Judgement) -> str:
    """Return what the joints as they stand are: a connection with its volts, or how far they are."""
    state = judged.facts.connecting
    made = {frozenset(j) for j in state.now.joints}
    if state.found is not None and made == {frozenset(j) for j in state.found.joints}:
        rated = rating_of(
            state.found, Plate(judged.job.plate.volts, judged.job.plate.hertz or 60.0)
        )
        return f"{span_words(rated)}: {state.found.connection}" if rated else state.found.connection
    if state.plan is not None and state.joined:
        return judged.facts.connection
    count = len(state.now.joints)
    return f"{count} joint{'' if count == 1 else 's'}"
