"""Work on start gear: what the new part must bear, and its steps, each ticked; runs before and after covers."""

from collections.abc import Callable
from functools import partial
from typing import TypeVar

from PySide6.QtWidgets import QWidget

from careful_coil.core.errors import BadValue, CoilError
from careful_coil.core.gear.amp_relay import (
    AmpRelayNeeds,
    amp_relay_needs,
    amp_relay_needs_measured,
    amp_relay_words,
    kit_suits,
)
from careful_coil.core.gear.machine_of import known_motor
from careful_coil.core.gear.relay import (
    RelayNeeds,
    RelayOffered,
    relay_needs,
    relay_needs_measured,
    relay_suits,
)
from careful_coil.core.gear.retrofit import Needs, needs_of
from careful_coil.core.gear.typed import part_name
from careful_coil.core.gear.work import WORK, left_of, steps_of, work_kind
from careful_coil.core.job.at_start_gear import GearStep
from careful_coil.core.job.noted import note
from careful_coil.core.ledger import Judgement
from careful_coil.core.machine.estimate import estimate
from careful_coil.core.machine.motor import Motor
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse
from careful_coil.desk.ask_row import AskRow
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Caution, Heading
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme
from careful_coil.desk.tick_roll import TickRoll

TITLES = {kind: title for kind, (title, _) in WORK.items()}
VOLTS_WANTED = (
    "three volts across the start winding itself, uncoupled: at standstill, at speed with the start "
    "capacitor still in (a second), at speed with it out, such as 118/440/250"
)
AMPS_WANTED = "amps of the main winding alone, at standstill and in a loaded run, such as 28/7"
# fields of one kind of work
FIELDS = {"relay-volts": "relay", "relay-offered": "relay", "relay-amps": "amp-relay", "kit": "kit"}
Wanted = tuple[Needs | str, RelayNeeds | str, AmpRelayNeeds | str]
Found = TypeVar("Found")
OFFERED = "pick-up from-to, drop-out from-to, coil volts for good, such as 280-300 60-120 330"


class FittingPart(Part):
    """The part of retrofit, relay and dressing."""

    codes = ("gear-work",)
    nothing = "nothing begun"
    kept = (
        "_begun",
        "offered",
        "device",
        "kind",
    )
    name, title, remark = (
        "fitting",
        "Fitting",
        "a new part, or the old one made good, step by step",
    )

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self._asked: object = None
        self.needs: Needs | str = ""
        self.relay: RelayNeeds | str = ""
        self.amp_relay: AmpRelayNeeds | str = ""
        self.device, self.kind, self._begun = "", "retrofit", False
        self.offered: RelayOffered | None = None
        self.which = AskRow()
        self.column.addWidget(self.which)
        self.add_field("fitting-device", "On which switch or relay", self._device, "S1")
        self.must = Prose(theme)
        self.column.addWidget(self.must)
        self.add_field(
            "relay-volts", "Start winding: V at rest / held in / out", self._volts, "118/440/250"
        )
        self.add_field(
            "relay-offered",
            "A relay at hand: pick-up, drop-out, coil V",
            self._offered,
            "280-300 60-120 330",
        )
        self.add_field(
            "relay-amps", "Main winding: A at rest / in a loaded run", self._amps, "28/7"
        )
        self.add_field(
            "kit", "What the kit is made for, as printed", self._kit, "1/12-1/2 hp 90-120 V"
        )
        self.suits = Prose(theme)
        self.column.addWidget(self.suits)
        self.head = Heading(
            "Steps", theme, "Space ticks, one by one; the motor is held until the last", rule=True
        )
        self.roll = TickRoll(theme, "Steps of this work")
        self.roll.ticked.connect(self._ticked)
        self.powered = Caution(
            "A step that puts volts on: guards on, frame earthed, clamped; initials at the bench.",
            theme,
        )
        for part in (self.head, self.powered, self.roll):
            self.column.addWidget(part)

    def start(self) -> QWidget:
        """Start at the steps, where a device is chosen."""
        return self.roll if self.device else self.fields["fitting-device"].cell

    @property
    def work(self) -> str:
        """Return the piece of work that is shown: its kind and the device."""
        return f"{self.kind} {self.device}" if self.device else ""

    def show_judgement(self, judged: Judgement) -> None:
        """Show the work chosen: what is wanted, its steps."""
        gear = judged.job.gear
        if not self._begun:
            self._begun = True
            begun = next(iter(gear.steps), "")
            self.kind = work_kind(begun) or "retrofit"
            self.device = begun.partition(" ")[2] or next(iter(gear.devices), "")
        self.which.ask("Which work?", tuple(TITLES.values()), self._chosen)
        for button, kind in zip(self.which.buttons, TITLES, strict=True):
            button.setCheckable(True)
            button.setChecked(kind == self.kind)
        self.fields["fitting-device"].show_text(self.device)
        for name, kind in FIELDS.items():
            self.fields[name].setVisible(kind == self.kind)
        self.fields["relay-amps"].show_text(gear.noted.get((self.device, "amps"), ""))
        self.fields["relay-volts"].show_text(gear.noted.get((self.device, "volts"), ""))
        self._show_steps()
        self._ask_machine(judged)
        self._show_needs()

    def _show_steps(self) -> None:
        gear = self.judged.job.gear if self.judged else None
        done = gear.steps.get(self.work, ()) if gear else ()
        steps = steps_of(self.work) if self.device else ()
        self.roll.show_items(steps, set(done))
        left = left_of(self.work, done)
        for part in (self.head, self.roll):
            part.setVisible(bool(steps))
        self.powered.setVisible(bool(left) and left[0].powered)

    def _ask_machine(self, judged: Judgement) -> None:
        """Work the motor out, off this thread, where what is known of it has changed."""
        known = known_motor(
            judged.job, judged.facts.kinds, judged.facts.identification, judged.facts.naming
        )
        if known == self._asked:
            return
        self._asked = known
        if isinstance(known, str):
            self.needs = self.relay = self.amp_relay = known
            return
        self.needs = self.relay = self.amp_relay = "Working it out."

        def arrived(found: Wanted) -> None:
            if self._asked == known:
                self.needs, self.relay, self.amp_relay = found
                self._show_needs()

        self.session.aside(lambda: _wanted(estimate(*known).motor), arrived, self.must.say)

    def _show_needs(self) -> None:
        self.suits.say("")
        if self.kind not in ("retrofit", "relay", "amp-relay"):
            self.must.say("")
            return
        if self.kind == "amp-relay":
            wanted = self._amp_relay()
            self.must.say(wanted if isinstance(wanted, str) else amp_relay_words(wanted))
            return
        if self.kind == "retrofit":
            self.must.say(self.needs if isinstance(self.needs, str) else _needs(self.needs))
            return
        needs = self._relay()
        self.must.say(needs if isinstance(needs, str) else _relay(needs))
        if self.offered is not None and not isinstance(needs, str):
            verdict, why = relay_suits(needs, self.offered)
            word = {"good": "serves", "watch": "serves, though", "hold": "does not serve"}[verdict]
            self.suits.say(f"This relay {word}: {'; '.join(why)}.")

    def _relay(self) -> RelayNeeds | str:
        """Return what the relay must be: by measured volts where there are any, else by the estimate."""
        gear = self.judged.job.gear if self.judged else None
        text = gear.noted.get((self.device, "volts"), "") if gear else ""
        if not text:
            return self.relay
        try:
            return relay_needs_measured(*_three(text))
        except CoilError as error:
            return str(error)

    def _amp_relay(self) -> AmpRelayNeeds | str:
        """Return what a current relay must be: by measured amps where there are any, else by the estimate."""
        gear = self.judged.job.gear if self.judged else None
        text = gear.noted.get((self.device, "amps"), "") if gear else ""
        try:
            return amp_relay_needs_measured(*_two(text)) if text else self.amp_relay
        except CoilError as error:
            return str(error)

    # --- typing ------------------------------------------------------------------------------------

    def _chosen(self, title: str) -> None:
        self.kind = next(k for k, t in TITLES.items() if t == title)
        self.again()

    def _device(self, text: str) -> None:
        self.device = part_name(text, "S1")
        self.again()

    def _volts(self, text: str) -> None:
        if not self.device:
            raise BadValue("no relay", "its name first, such as K1")
        kept = "/".join(f"{v:g}" for v in _three(text)) if text.strip() else ""
        self.session.record(
            note("device-noted", "volts", kept, of=self.device), station="start-gear"
        )

    def _amps(self, text: str) -> None:
        if not self.device:
            raise BadValue("no relay", "its name first, such as K1")
        kept = "/".join(f"{v:g}" for v in _two(text)) if text.strip() else ""
        self.session.record(
            note("device-noted", "amps", kept, of=self.device), station="start-gear"
        )

    def _kit(self, text: str) -> None:
        if not text.strip() or self.judged is None:
            self.suits.say("")
            return
        serves, why = kit_suits(text, self.judged.job.plate)
        self.suits.say(f"This kit {'serves' if serves else 'does not serve'}: {why}.")

    def _offered(self, text: str) -> None:
        self.offered = _read_offered(text) if text.strip() else None
        self._show_needs()

    def _ticked(self) -> None:
        """Log the step that was ticked or taken back; where it may not be yet, its tick goes again."""
        gear = self.judged.job.gear if self.judged else None
        before = set(gear.steps.get(self.work, ())) if gear else set()
        for name in before ^ self.roll.done:
            step = GearStep(work=self.work, step=name, done=name in self.roll.done)
            self.session.record(
                step, station="start-gear", failed=partial(self._not_yet, name, before)
            )

    def _not_yet(self, name: str, before: set[str], _: str) -> None:
        steps = steps_of(self.work)
        self.roll.show_items(steps, before)
        self.roll.go(next(k for k, s in enumerate(steps) if s.name == name))


def _wanted(motor: Motor) -> Wanted:
    """Return what a switch, a voltage relay and a current relay must be in a motor, or why nobody can say."""
    return _or_why(needs_of, motor), _or_why(relay_needs, motor), _or_why(amp_relay_needs, motor)


def _or_why(work: Callable[[Motor], Found], motor: Motor) -> Found | str:
    try:
        return work(motor)
    except CoilError as error:
        return str(error)


def _needs(needs: Needs) -> str:
    held = (
        f"; {needs.charged_volt:.0f} V peak while the start capacitor is still charged"
        if needs.microfarad
        else ""
    )
    farad = f" It switches {needs.microfarad:.3g} µF." if needs.microfarad else ""
    return (
        f"It must bear {needs.amp:.1f} A for the seconds of a start, {needs.open_volt:.0f} V across its open "
        f"contact in run{held}.{farad} The start winding has {needs.sense_still:.0f} V at standstill and "
        f"{needs.sense_out:.0f} V when it must let go. As estimated, the line 10 % high; the maker's figures win."
    )


def _relay(needs: RelayNeeds) -> str:
    low, high = needs.pick_up
    return (
        f"Wanted: pick-up {low:.0f} to {high:.0f} V, drop-out below {needs.drop_out_below:.0f} V, coil good for "
        f"{needs.continuous:.0f} V. At rest it sees {needs.standstill:.0f} V."
    )


def _two(text: str) -> tuple[float, float]:
    """Return two amps, the first the larger. Raises: BadValue."""
    pieces = text.replace("A", " ").split("/")
    if len(pieces) != 2:
        raise BadValue(text, AMPS_WANTED)
    still, running = (parse(p.strip(), Quantity.CURRENT).value for p in pieces)
    if not 0 < running < still:
        raise BadValue(text, AMPS_WANTED, "At standstill it takes more.")
    return still, running


def _three(text: str) -> tuple[float, float, float]:
    """Return three volts. Raises: BadValue."""
    pieces = text.replace("V", " ").split("/")
    if len(pieces) != 3:
        raise BadValue(text, VOLTS_WANTED)
    still, held, running = (parse(p.strip(), Quantity.VOLTAGE).value for p in pieces)
    if min(still, held, running) <= 0:
        raise BadValue(text, VOLTS_WANTED, "Each is above nothing.")
    return still, held, running


def _read_offered(text: str) -> RelayOffered:
    pieces = text.split()
    spans = []
    for piece in pieces[:2]:
        low, dash, high = piece.replace("–", "-").partition("-")
        try:
            spans.append((float(low), float(high) if dash else float(low)))
        except ValueError:
            raise BadValue(text, OFFERED) from None
    try:
        most = float(pieces[2])
    except (ValueError, IndexError):
        raise BadValue(text, OFFERED) from None
    if len(pieces) != 3 or any(not 0 < low <= high < 1e4 for low, high in (*spans, (most, most))):
        raise BadValue(text, OFFERED, "Each span runs upward, above nothing.")
    return RelayOffered(pick_up=spans[0], drop_out=spans[1], continuous=most)
