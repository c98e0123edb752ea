"""Proof before power: what is seen and counted, line ohms, the low run, parallel leads, the direction."""

from PySide6.QtWidgets import QWidget

from careful_coil.core.connect.dress import amps_at
from careful_coil.core.connect.low_run import expected_run, parallel_leads, unclamped
from careful_coil.core.connect.proof import checks_of
from careful_coil.core.connect.rotation import how_to_turn, read_turn
from careful_coil.core.connect.work import Connecting
from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_connect import StepTicked
from careful_coil.core.job.at_mechanics import Temporary
from careful_coil.core.job.entries import AnyBody
from careful_coil.core.job.hands import free_name
from careful_coil.core.job.noted import note
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.entry_line import Typed
from careful_coil.core.ledger.take import Taking, taken
from careful_coil.core.ledger.targets import hooked
from careful_coil.core.probes.probe import Request
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.flow import Flow
from careful_coil.desk.part import NARROWEST, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Caution, Heading
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.theme import Theme
from careful_coil.desk.tick_roll import TickRoll

CODES = ("line-ohms", "before-power", "low-run", "direction", "by-marks", "temporary")


class ProofPart(Part):
    """The part of what proves it."""

    name, title, remark = "proof", "Before power", "nothing is energised on a guess"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.caution = Caution(
            "Bench supply through its own protection, motor clamped and earthed, shaft guarded. "
            "Off and read as zero before a lead is touched.",
            theme,
        )
        self.column.addWidget(self.caution)
        self.roll = TickRoll(theme, "To see before power", at_once=True)
        self.roll.ticked.connect(self._ticked)
        self.column.addWidget(self.roll)
        self.column.addWidget(Heading("At a quarter of the volts", theme, "", rule=True))
        self.expected = Prose(theme)
        self.unseen = Prose(theme, "quiet", 13)
        self.column.addWidget(self.expected)
        self.column.addWidget(self.unseen)
        grid = Flow(2, 2 * NARROWEST, theme)
        for name, label, commit, hint in (
            (
                "low-run",
                "Reduced-voltage run, as read",
                self._low_run,
                "115 V 3.1/3.2/3.1 smooth cw",
            ),
            ("clamps", "One lead, A", self._clamped, "T1 3.1"),
            ("turn-seen", "Which way it turned", self._turn_seen, "cw drive-end indicator"),
            ("temporary", "Temporary made, it holds", self._temporary, "jumper T4 to T5"),
        ):
            grid.add(self.add_field(name, label, commit, hint, place=False))
        self.column.addWidget(grid)
        keys = Flow(2, 0, theme)
        self.clamp = EnterButton("Clamp the next lead")
        self.clamp.clicked.connect(self._clamp_next)
        self.turn = EnterButton("Turn it round")
        self.turn.clicked.connect(self._turn_round)
        for key in (self.clamp, self.turn):
            keys.add(key)
        self.column.addWidget(keys)
        self.how = Prose(theme, "quiet", 13)
        self.verdicts = Verdicts(theme)
        self.column.addWidget(self.how)
        self.column.addWidget(self.verdicts)

    def start(self) -> QWidget:
        """Start at the list while something of it is open, else at the run."""
        left = [i for i in self.roll.items if i.name not in self.roll.done]
        return self.roll if left else self.fields["low-run"].cell

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how far the proof is: the worst of what belongs to it."""
        if not judged.facts.connecting.joined:
            return "", "after the last joint"
        own = [f for f in judged.findings if f.code in CODES or f.code.startswith("clamp-")]
        bad = next((f for f in own if f.verdict in ("hold", "unproven", "watch")), None)
        bad = next((f for f in own if f.verdict == "hold"), bad)
        if bad is None:
            return "good", "proved"
        return bad.verdict, bad.subject[0].lower() + bad.subject[1:]

    def show_judgement(self, judged: Judgement) -> None:
        """Show the list, what the run must show, what it showed."""
        state, job = judged.facts.connecting, judged.job
        extras = bool(judged.facts.identification and judged.facts.identification.best.sensors)
        items = tuple(checks_of(job, state, extras)) if state.joined else ()
        self.roll.show_items(items, {i.name for i in items if job.joined.since_last_act(i.name)})
        self.roll.setVisible(bool(items))
        self._expect(judged)
        self._show_run(judged)
        lines = state.plan is not None and bool(parallel_leads(state.plan))
        self.fields["clamps"].setVisible(lines)
        left = (
            unclamped(state.plan, state.by_name(job.joined.clamps))
            if state.plan is not None
            else ()
        )
        self.clamp.setVisible(bool(left) and state.joined)
        self.turn.setVisible(state.plan is not None and state.plan.turning not in ("no", "opening"))
        self.how.say(f"To turn it round: {how_to_turn(state)}" if state.plan else "")
        own = [f for f in judged.findings if f.code in CODES or f.code.startswith("clamp-")]
        self.verdicts.show_findings(own)

    def _expect(self, judged: Judgement) -> None:
        state, job = judged.facts.connecting, judged.job
        if not state.joined or state.hookup is None or state.plan is None or job.supply is None:
            self.expected.say(
                "When the last joint is made it says here what must be seen and read."
            )
            self.unseen.say("")
            return
        wanted = expected_run(state.hookup, state.plan, amps_at(job, job.supply))
        band = ""
        if wanted.amp is not None:
            low, high = wanted.amp
            band = f" Running free each line takes about {low:.2g} to {high:.2g} A."
        self.expected.say(f"{wanted.volt:.0f} V on {', '.join(wanted.lines)}.{band} {wanted.words}")
        seen = "; ".join(state.unseen)
        self.unseen.say(f"Ohms cannot show: {seen}." if seen else "")

    def _show_run(self, judged: Judgement) -> None:
        run, turned = judged.job.joined.run, judged.job.joined.turned
        told = ""
        if run is not None:
            amps = "/".join(f"{a:g}" for a in run.amp)
            told = f"{run.volt:g} V {amps} {run.turns} {run.way}".strip()
        self.fields["low-run"].show_text(told)
        seen = f"{turned.turns} {turned.seen_from} {turned.how}" if turned else ""
        self.fields["turn-seen"].show_text(seen)
        by_name = judged.facts.connecting.by_name(judged.job.joined.clamps)
        self.fields["temporary"].show_text("")
        clamps = " ".join(f"{n} {a:g}" for n, a in by_name.items())
        self.fields["clamps"].show_text(clamps)

    def _ticked(self) -> None:
        job = self.session.open
        if job is None:
            return
        before = {i.name for i in self.roll.items if job.judged.job.joined.since_last_act(i.name)}
        changed = self.roll.done ^ before
        for name in (i.name for i in self.roll.items if i.name in changed):
            body = StepTicked(step=name, done=name in self.roll.done)
            self.session.record(body, station="connect")

    def _state(self, text: str) -> Connecting:
        job = self.session.open
        state = job.judged.facts.connecting if job else None
        if state is None or not state.joined or state.plan is None:
            raise BadValue(text, "the last joint first: a half-made hookup is not run")
        return state

    def _low_run(self, text: str) -> None:
        state = self._state(text)
        phases = state.hookup.supply.phases if state.hookup else 3
        target = Request(kind="low-run", ends=(), supply=(phases, 0.0, 0.0))
        self.session.record(self._taken(text, target), station="connect")

    def _taken(self, text: str, target: Request) -> AnyBody:
        at = Taking(judged=None, settings=self.session.settings)
        return taken(Typed(target, text), at)

    def _clamped(self, text: str) -> None:
        state = self._state(text)
        groups = parallel_leads(state.plan) if state.plan else ()
        leads = {n.upper(): n for g in groups for n in g}
        words = text.split()
        wanted = "pairs of a lead and its amps, such as T1 3.1 T7 3.0"
        if not words or len(words) % 2 or any(w.upper() not in leads for w in words[::2]):
            raise BadValue(text, wanted)
        bodies = [
            self._taken(amp, Request(kind="clamp", ends=state.by_tag((leads[lead.upper()],))))
            for lead, amp in zip(words[::2], words[1::2], strict=True)
        ]
        self.session.record(*bodies, station="connect")

    def _clamp_next(self) -> None:
        job = self.session.open
        if job is None:
            return
        state = job.judged.facts.connecting
        left = (
            unclamped(state.plan, state.by_name(job.judged.job.joined.clamps)) if state.plan else ()
        )
        if left and state.joined:
            self.session.pick(hooked(job.judged, "clamp", state.by_tag(left[:1])))
            self.session.strip_wanted.emit()

    def _turn_seen(self, text: str) -> None:
        self.session.record(read_turn(text), station="connect")

    def _temporary(self, text: str) -> None:
        job = self.session.open
        if job is not None and text.strip():
            name = free_name("T", job.judged.job.hands.temporary)
            self.session.record(Temporary(name=name, words=text.strip()), station="connect")

    def _turn_round(self) -> None:
        job = self.session.open
        if job is not None:
            now = job.judged.job.joined.wish.get("exchanged", "")
            body = note("wished", "exchanged", "" if now else "yes")
            self.session.record(body, station="connect")
