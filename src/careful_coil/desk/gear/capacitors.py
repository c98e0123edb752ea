"""Capacitors: discharged and proved, marking, looks, measured by meter or by volts and amps, its losses."""

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QWidget

from careful_coil.core.can_marking import Marking
from careful_coil.core.condition.checklist import may_have_capacitor
from careful_coil.core.errors import BadValue
from careful_coil.core.gear.capacitor_rules import bleed_of, capacitor_of
from careful_coil.core.gear.formulas import bleed_for, discharge, volts_left
from careful_coil.core.gear.typed import part_name
from careful_coil.core.ledger import Judgement
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse, show_ohm
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.flow import Flow
from careful_coil.desk.gear.follow import asked_of
from careful_coil.desk.part import NARROWEST, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.theme import Theme
from careful_coil.drawing.gear import draw_decay

FIRST = ("serves", "looks", "renewed")
REST = ("drained", "microfarad", "loss", "size", "bleed")
TICK_MS = 100


class CapacitorsPart(Part):
    """The part of the capacitor bench."""

    codes = ("capacitor",)
    nothing = "none noted"
    kept = (
        "chosen",
        "followed",
        "ohm",
    )
    name, title, remark = (
        "capacitor",
        "Capacitors",
        "discharge through a resistor first, then prove it",
    )

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.chosen = self.followed = ""
        self.ohm = session.settings.discharge_ohm.value
        self._began: float | None = None
        self._marking: Marking | None = None
        grid = Flow(4, NARROWEST, theme)
        grid.add(self.add_field("can-name", "Which: C1, C2", self._named, "C1", place=False))
        for name in FIRST:
            grid.add(self.add_noted("capacitor", name, self._one))
        self.column.addWidget(grid)
        self.column.addWidget(self.add_noted("capacitor", "marking", self._one))
        self.verdicts = Verdicts(theme)
        self.column.addWidget(self.verdicts)
        self.count = Prose(theme, "ink", 20)
        self.column.addWidget(self.count)
        self.wait_key = EnterButton("Resistor on: count the wait")
        self.wait_key.clicked.connect(self.begin)
        self.column.addWidget(self.wait_key)
        self.decay = Plot(theme, "Its volts while it discharges", 160)
        self.column.addWidget(self.decay)
        rest = Flow(3, NARROWEST, theme)
        for name in REST:
            rest.add(self.add_noted("capacitor", name, self._one))
        rest.add(
            self.add_field("can-resistor", "Discharge through", self._resistor, "20 k", place=False)
        )
        self.column.addWidget(rest)
        sections = Prose(theme, "quiet", 13)
        sections.say("Sections of one can are measured apart: 34.6/4.9, common to each.")
        self.column.addWidget(sections)
        self.wait = Prose(theme, "quiet", 13)
        self.column.addWidget(self.wait)
        self._timer = QTimer(self)
        self._timer.setInterval(TICK_MS)
        self._timer.timeout.connect(self.tick)

    def start(self) -> QWidget:
        """Start at the marking."""
        return self.fields["can-marking"].cell

    def wanted(self, judged: Judgement) -> bool:
        """Whether it may have a capacitor."""
        plate = judged.job.plate.printed("capacitor")
        return may_have_capacitor(judged.facts.kinds, judged.job.gear.capacitors, plate)

    def show_judgement(self, judged: Judgement) -> None:
        """Show the chosen capacitor's fields and what is thought of all of them."""
        gear = judged.job.gear
        followed = self.followed
        self.followed = asked_of(judged, "capacitor", gear.capacitors, followed) or followed
        self.chosen = self.followed if self.followed != followed else self.chosen
        self.chosen = self.chosen or next(iter(gear.capacitors), "C1")
        told = gear.capacitors.get(self.chosen, {})
        self.fields["can-name"].show_text(self.chosen)
        self.fields["can-resistor"].show_text(show_ohm(self.ohm))
        self.show_notes(judged)
        marking, thought = capacitor_of(gear, self.chosen, self.session.settings)
        self._marking = marking
        if marking is None or thought is None:
            self.wait.say("")
        else:
            words = [f"{thought.low:.4g} to {thought.high:.4g} µF allowed."]
            if marking.volt:
                bleed = bleed_of(gear, self.chosen)
                words += self._times(marking, told.get("serves", "") or marking.kind, bleed)
            self.wait.say("\n".join([*words, *marking.notes]))
        self._draw()
        self.verdicts.show_findings(self.own(judged))

    def _times(self, marking: Marking, serves: str, bleed: float | None) -> list[str]:
        """Return how long the resistors take, and what bleed it should have."""
        safe = self.session.settings.safe_volt.value
        most = max((marking.high, *marking.sections))
        down = discharge(most, marking.volt, self.ohm, safe)
        words = [
            f"Charged it may hold {down.start_volt:.0f} V; through {show_ohm(self.ohm)} it is at {safe:g} V "
            f"after {down.seconds:.1f} s. Only a wait: the meter has the word."
        ]
        if bleed:
            own = discharge(most, marking.volt, bleed, safe)
            words.append(
                f"Its own bleed of {show_ohm(bleed)} would take {own.seconds:.1f} s: never relied on, "
                "one end may be loose."
            )
        if serves == "run" and bleed:
            words.append("On a capacitor that stays on the line a bleed only heats: leave it off.")
        if serves == "start" and not bleed:
            wanted = bleed_for(most, marking.volt, safe)
            words.append(
                f"With a relay it wants a bleed: {show_ohm(wanted.ohm)}, 2 W, at {safe:g} V after "
                f"{wanted.seconds:.1f} s."
            )
        return words

    # --- the wait ----------------------------------------------------------------------------------

    def begin(self) -> None:
        """Begin to count: the resistor was put on now."""
        if self._marking is None or not self._marking.volt:
            self.count.say("Its marking first: µF and volts say how long it takes.")
            return
        self._began = self.session.clock.steady()
        self._timer.start()
        self.tick()

    def tick(self) -> None:
        """Count on; beep once when the wait is over, and send the hand to the meter."""
        if self._began is None or self._marking is None or not self._marking.volt:
            return
        now = self.session.clock.steady() - self._began
        most = max((self._marking.high, *self._marking.sections))
        safe = self.session.settings.safe_volt.value
        left = discharge(most, self._marking.volt, self.ohm, safe).seconds - now
        volts = volts_left(most, self._marking.volt, self.ohm, max(now, 0.0))
        if left > 0:
            self.count.say(f"{self.chosen}: {left:.0f} s more, about {volts:.0f} V left on it.")
        else:
            if self._timer.isActive():
                self.session.clock.beep()
            self._timer.stop()
            self.count.say(
                f"{self.chosen}: the wait is over. Resistor on; now the meter: V DC left on it?"
            )
            if self.isVisible() and self.wait_key.hasFocus():
                self.fields["can-drained"].cell.setFocus()
        self._draw()

    def _stop(self) -> None:
        self._timer.stop()
        self._began = None
        self.count.say("")

    def _draw(self) -> None:
        marking = self._marking
        there = marking is not None and marking.volt > 0
        self.decay.setVisible(there and self._began is not None)
        self.wait_key.setVisible(there)
        if marking is None or not there:
            return
        now = None if self._began is None else self.session.clock.steady() - self._began
        most, ohm = max((marking.high, *marking.sections)), self.ohm
        volt, safe = marking.volt, self.session.settings.safe_volt.value
        self.decay.draw(
            lambda wide, high: draw_decay(most, volt, ohm, safe, now, (wide, high)),
            self.count.words or "Its volts over the seconds, down to the safe ones",
        )

    # --- typing ------------------------------------------------------------------------------------

    def _resistor(self, text: str) -> None:
        value = parse(text, Quantity.RESISTANCE)
        if value.number is None or not value.value >= 1:
            raise BadValue(text, "the ohms it is discharged through, such as 20 k")
        self.ohm = value.value
        self.again()

    def _named(self, text: str) -> None:
        judged = self.session.open.judged if self.session.open else None
        self.chosen = part_name(text, "C1", judged.job.gear.devices if judged else ())
        self._stop()
        self.again()

    def _one(self) -> str:
        return self.chosen

    def opened(self) -> None:
        """Count no wait of another motor."""
        self._stop()

    def set_down(self, sheet: str, name: str, text: str, of: str = "") -> None:
        """Record a field; what is left on it ends the wait."""
        super().set_down(sheet, name, text, of)
        if name == "drained" and text.strip():
            self._stop()
