"""Curves of this very motor: torque, currents, field, its run-up against a load; and what if."""

from dataclasses import replace
from typing import Any

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QWidget

from careful_coil.core.errors import CoilError
from careful_coil.core.gear.machine_of import known_motor
from careful_coil.core.gear.what_if import AS_NOTED, Asked, Picture, heat_of, picture, presets
from careful_coil.core.ledger import Judgement
from careful_coil.core.machine.curves import apart_words, field_of, phasors, starts_words
from careful_coil.core.machine.estimate import Estimate, estimate
from careful_coil.core.machine.facts import Facts
from careful_coil.core.machine.motor import Motor
from careful_coil.core.machine.run_up import OUT_SHARE
from careful_coil.core.rewind.record import copper_mm2, read_wire
from careful_coil.core.values import show_figure, show_percent
from careful_coil.core.ways.way import Plan
from careful_coil.desk.ask_row import AskRow
from careful_coil.desk.flow import Flow
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.slider import Slider
from careful_coil.desk.theme import Theme
from careful_coil.drawing.gear import draw_run_up
from careful_coil.drawing.over_speed import amp_lines, draw_over_speed, volt_lines
from careful_coil.drawing.start import draw_field, draw_phasors, draw_torque

LEAST_LOAD, MOST_LOAD = 0.05, 3.0  # of full-load torque
SLIDER = 250  # pixels of a slider at least
SPREAD = 4.0  # µF and ohms go down and up so many times
TORQUE, AMPS, VOLTS = OVER_SPEED = ("torque", "amps", "volts")
OUTCOMES = {
    "up": "runs up",
    "stall": "does not turn: the load holds it",
    "hangs": "hangs below switching speed with the start winding in: it cooks",
    "chatters": "chatters in and out near the switch speed",
    "still rising": "is still running up",
}


class CurvesPart(Part):
    """The part that draws how this motor starts."""

    kept = (
        "over",
        "wire",
    )
    changed = Signal()  # the motor is worked out
    name, title, remark = "curves", "Curves", "this motor, as estimated from plate and ohms"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.found: Estimate | None = None
        self.asked, self._class = AS_NOTED, "B"
        self._known: tuple[Plan, Facts] | str = ""
        self.words = Prose(theme)
        self.column.addWidget(self.words)
        self.shown, self.over = AskRow(), TORQUE
        self.torque = Plot(theme, "Torque and speed", 190)
        self.amps, self.field = Plot(theme, "Currents", 190), Plot(theme, "Field", 190)
        self.column.addWidget(self.torque)
        self.sliders = {
            "farad": Slider(theme, "Capacitor", 1 / SPREAD, SPREAD, self._farad_words),
            "ohm": Slider(theme, "Start ohms", 1 / SPREAD, SPREAD, lambda f: f"× {f:.2f}"),
            "volt": Slider(theme, "Volts", 0.5, 1.2, self._volt_words),
            "load": Slider(theme, "Load", LEAST_LOAD, MOST_LOAD, self._load_words),
        }
        pairs = Flow(2, SLIDER, theme)
        for what, slider in self.sliders.items():
            slider.moved.connect(lambda value, what=what: self._slid(what, value))
            pairs.add(slider)
        self.column.addWidget(pairs)
        self.what_if = AskRow()
        row = QHBoxLayout()
        row.addWidget(self.amps)
        row.addWidget(self.field)
        self.column.addLayout(row)
        self.column.addWidget(self.shown)
        self.column.addWidget(self.what_if)
        self.up_words, self.up = Prose(theme), Plot(theme, "Run-up", 160)
        self.column.addWidget(self.up_words)
        self.column.addWidget(self.up)
        self.wire = ""
        self.add_field(
            "start-wire", "Start winding's wire, mm (strands x mm)", self._wire, "2 x 0.45"
        )
        self.heat, self.assumed = Prose(theme), Prose(theme, "quiet", 13)
        self.column.addWidget(self.heat)
        self.column.addWidget(self.assumed)

    def start(self) -> QWidget:
        """Start at the first slider."""
        return next(
            s for s in self.sliders.values() if not s.isHidden() or s is self.sliders["volt"]
        )

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return whether there are any."""
        return "", "estimated" if self.found is not None else "torque, amps, what if"

    def show_judgement(self, judged: Judgement) -> None:
        """Work the motor out anew where what is known of it has changed."""
        known = known_motor(
            judged.job, judged.facts.kinds, judged.facts.identification, judged.facts.naming
        )
        self._class = judged.job.plate.printed("insulation-class") or "B"
        if known == self._known:
            return
        self._known, self.found = known, None
        self._ask(AS_NOTED)
        if isinstance(known, str):
            return
        plan, facts = known

        def arrived(found: Estimate) -> None:
            if self._known == known:
                self.found = found
                self._ask(AS_NOTED)
                self.changed.emit()

        self.session.aside(lambda: estimate(plan, facts), arrived, self.words.say)

    # --- what is asked -----------------------------------------------------------------------------

    def _slid(self, what: str, value: float) -> None:
        change: dict[str, Any] = {what: value}
        self.asked = replace(self.asked, **change)
        self._draw()

    def _ask(self, asked: Asked) -> None:
        self.asked = asked
        for what, slider in self.sliders.items():
            slider.put(
                max(getattr(asked, what), LEAST_LOAD) if what == "load" else getattr(asked, what)
            )
        self._draw()

    def _preset(self, words: str) -> None:
        if self.found is not None:
            self._ask(presets(self.found.motor)[words])

    def _wire(self, text: str) -> None:
        if text.strip():
            read_wire(text)
        self.wire = text.strip()
        self._draw()

    def _farad_words(self, factor: float) -> str:
        cans = _cans(self.found.motor) if self.found else ()
        return f"{show_figure(cans[0] * factor)} µF" if cans else f"× {factor:.2f}"

    def _load_words(self, factor: float) -> str:
        return show_percent(factor) if self.asked.load else "none"

    def _volt_words(self, factor: float) -> str:
        return f"{self.found.motor.volt * factor:.0f} V" if self.found else show_percent(factor)

    # --- what is shown -----------------------------------------------------------------------------

    def _draw(self) -> None:
        shown: tuple[QWidget, ...] = (
            self.torque,
            self.amps,
            self.field,
            self.assumed,
            self.what_if,
            self.shown,
            self.up,
            self.fields["start-wire"],
            *self.sliders.values(),
        )
        for part in shown:
            part.setVisible(self.found is not None)
        if self.found is None or isinstance(self._known, str):
            self.words.say(self._known if isinstance(self._known, str) else "Working it out.")
            for words in (self.up_words, self.heat):
                words.say("")
            return
        noted, slip = self.found.motor, self._known[1].slip
        self.sliders["farad"].setVisible(bool(_cans(noted)))
        try:
            seen = picture(noted, slip, self.asked)
        except CoilError as error:
            self.words.say(str(error))
            return
        self._show_questions(noted)
        self._show_curves(seen)
        self._show_run_up(seen)
        told = [f"{a.name} {show_figure(a.value)} {a.unit} ({a.why})" for a in self.found.assumed]
        self.assumed.say(
            "The windings lie 90 electrical degrees apart in the iron, whatever the angle of their currents. "
            f"Assumed: {'; '.join(told)}."
        )

    def _show_questions(self, noted: Motor) -> None:
        every = presets(noted)
        self.what_if.ask("What if:", tuple(every), self._preset)
        self.what_if.setVisible(True)
        for button, asked in zip(self.what_if.buttons, every.values(), strict=True):
            button.setCheckable(True)
            button.setChecked(asked == self.asked)

    def _show_curves(self, seen: Picture) -> None:
        motor = seen.motor
        leaves = any(d.switches for d in motor.devices) and not self.asked.stays
        switch = OUT_SHARE if leaves else None
        starts = seen.start.shaft[0] / seen.rated
        self._show_over_speed(seen, switch, starts_words(starts))
        still = motor.standstill
        amps, path = phasors(motor, still), field_of(still)
        self.amps.draw(
            lambda *_: draw_phasors(amps), f"Currents at standstill. {apart_words(amps)}"
        )
        self.field.draw(lambda *_: draw_field(path), f"The field's path: {path.shape}")
        cans = ", ".join(
            f"{d.name} {show_figure(d.microfarad)} µF"
            for d in motor.devices
            if d.kind.startswith("capacitor")
        )
        ways = " It turns the other way." if seen.backward else ""
        volts = list(seen.start.capacitor_volt.values())
        stands = f", {max(float(v[0]) for v in volts):.0f} V on the capacitor" if volts else ""
        self.words.say(
            f"{motor.volt:.0f} V{', ' if cans else ''}{cans}: {starts_words(starts)} at "
            f"{seen.start.line_amp[0]:.1f} A, {seen.start.aux_amp[0]:.1f} A in the start "
            f"winding{stands}; at most {seen.run.shaft.max() / seen.rated:.2f} times in run.{ways} {apart_words(amps)}"
        )

    def _show_over_speed(self, seen: Picture, switch: float | None, words: str) -> None:
        """Draw torque, amps or volts over speed, as was asked for."""
        self.shown.ask("Over speed, above:", OVER_SPEED, self._over)
        self.shown.setVisible(True)
        for button, name in zip(self.shown.buttons, OVER_SPEED, strict=True):
            button.setCheckable(True)
            button.setChecked(name == self.over)
        curves, load = (seen.start, seen.run), seen.load if self.asked.load else None
        if self.over == TORQUE:
            self.torque.draw(
                lambda wide, high: draw_torque(curves, seen.rated, switch, load, (wide, high)),
                words,
            )
            return
        lines = amp_lines(*curves) if self.over == AMPS else volt_lines(*curves)
        unit = "A" if self.over == AMPS else "V"
        self.torque.draw(
            lambda wide, high: draw_over_speed(seen.start, lines, unit, switch, (wide, high)),
            "; ".join(f"{n} {show_figure(v[0])} {unit} at standstill" for n, _, v, _ in lines),
        )

    def _over(self, name: str) -> None:
        self.over = name
        self._draw()

    def _show_run_up(self, seen: Picture) -> None:
        up = seen.up
        over = f", start winding out after {up.switch_over:.2f} s" if up.switch_over else ""
        words = OUTCOMES[up.outcome]
        if self.asked.stays and up.outcome == "up":
            words = "runs up, and its start winding stays in: it cooks"
        self.up_words.say(
            f"Against {show_percent(self.asked.load)} of full load from standstill it {words}{over}. "
            "Time by a rotor that full load brings up in half a second."
        )
        sync = float(seen.start.rpm[-1])
        self.up.draw(lambda wide, high: draw_run_up(up, sync, (wide, high)), words)
        self.heat.say("")
        if not self.wire:
            return
        hot = heat_of(seen.start, copper_mm2(read_wire(self.wire)), self._class)
        self.heat.say(
            f"Start winding held: {hot.held_density:.0f} A/mm², {hot.held_seconds:.0f} s from 40 °C to its class "
            f"({self._class}). Left in at speed: {hot.in_density:.0f} A/mm², {hot.in_seconds:.0f} s. No heat lost."
        )


def _cans(motor: Motor) -> tuple[float, ...]:
    """Return the µF of its capacitors, the start capacitor first."""
    every = [d for d in motor.devices if d.kind.startswith("capacitor")]
    every.sort(key=lambda d: d.kind != "capacitor-start")
    return tuple(d.microfarad for d in every)
