"""A capacitor missing or unreadable: µF from locked windings; a running one by short runs, small upward."""

import math

from PySide6.QtWidgets import QWidget

from careful_coil.core.condition.checklist import may_have_capacitor
from careful_coil.core.connect.coil_ohms import coil_ohms
from careful_coil.core.errors import BadValue, CoilError
from careful_coil.core.gear.capacitor_rules import capacitor_of
from careful_coil.core.gear.machine_of import known_motor
from careful_coil.core.gear.shelf import Item, offers_for
from careful_coil.core.gear.unknown import StartFigures, series_of, start_figures, winding_ohms
from careful_coil.core.gear.wiring import kind_of_gear
from careful_coil.core.job.at_start_gear import RunTried, WindingLocked
from careful_coil.core.ledger import Judgement
from careful_coil.core.machine.capacitors import RUN_SHELF, RunningCapacitor, running_capacitor
from careful_coil.core.machine.estimate import estimate
from careful_coil.core.machine.facts import Facts
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse
from careful_coil.core.ways.way import Plan
from careful_coil.desk.gear.shelf import offer_words
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Caution, Heading
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme

USUAL_VOLT = 450.0  # what run capacitors are mostly made for; their own mark wins
OFFERS = 3
WITHOUT_RUN = ("capacitor-start", "split-phase")
NO_RUN = (
    "This one runs on its main winding alone: a start winding of this kind burns within a minute with a "
    "capacitor left in."
)
TRIED_WANTED = "µF, rpm, line A, start winding A, V on the capacitor: 8 1390 4.6 1.1 310"


class UnknownPart(Part):
    """The part that works a capacitor out of its winding."""

    kept = ("most_amp",)
    name, title, remark = "unknown", "No marking", "µF worked out of the winding itself"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.items: tuple[Item, ...] = ()
        self._asked: object = None
        self.running: RunningCapacitor | None = None
        self.most_amp = math.inf
        self.column.addWidget(
            Caution(
                "Rotor held, low volts, seconds only; earthed and clamped. It heats fast.", theme
            )
        )
        self.add_grid(
            (
                ("main", "Main alone, held: V A W", "40 7.5 190"),
                ("start", "Start alone, held: V A W", "40 3.1 95"),
            ),
            2,
            self._locked,
            "locked-",
        )
        self.figures, self.offers = Prose(theme), Prose(theme, "quiet", 13)
        self.notes = Prose(theme, "quiet", 13)
        for part in (self.figures, self.offers, self.notes):
            self.column.addWidget(part)
        self.column.addWidget(
            Heading("A running capacitor", theme, "short runs, from small upward", rule=True)
        )
        self.worked, self.without = Prose(theme), Prose(theme, "quiet", 13)
        for part in (self.worked, self.without):
            self.column.addWidget(part)
        self.add_field(
            "most-amp", "Start winding bears, A (its wire times the density)", self._most, "1.4"
        )
        self.add_field(
            "tried",
            "A run: µF, rpm, line A, start A, V on the capacitor",
            self._tried,
            "8 1390 4.6 1.1 310",
            True,
        )
        self.series, self.list = Prose(theme), Prose(theme, "quiet", 13)
        self.column.addWidget(self.series)
        self.column.addWidget(self.list)

    def start(self) -> QWidget:
        """Start at the main winding, or at the runs where it has a run capacitor only."""
        return self.fields["tried" if self._psc() else "locked-main"].cell

    def wanted(self, judged: Judgement) -> bool:
        """Whether it may have a capacitor."""
        plate = judged.job.plate.printed("capacitor")
        return may_have_capacitor(judged.facts.kinds, judged.job.gear.capacitors, plate)

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how far it is."""
        gear = judged.job.gear
        if gear.tried:
            return "", f"{len(gear.tried)} runs made"
        return (
            "",
            f"{len(gear.locked)} of 2 windings held" if gear.locked else "for one nobody can read",
        )

    def take(self, items: tuple[Item, ...]) -> None:
        """Take the shop's shelf."""
        self.items = items
        self.again()

    def show_judgement(self, judged: Judgement) -> None:
        """Show what the readings tell."""
        gear = judged.job.gear
        for winding in ("main", "start"):
            body = gear.locked.get(winding)
            self.fields[f"locked-{winding}"].show_text(_shown(body) if body else "")
        self._show_figures(judged)
        self._show_running(judged)

    def _show_figures(self, judged: Judgement) -> None:
        plate, gear = judged.job.plate, judged.job.gear
        for part in (self.offers, self.notes):
            part.say("")
        if not {"main", "start"} <= set(gear.locked):
            self.figures.say(
                "Volts, amps and watts of each winding alone; without watts its ohms stand in."
            )
            return
        if not plate.volts or not plate.hertz:
            self.figures.say("The plate's volts and hertz must be known first.")
            return
        try:
            found = start_figures(gear.locked, _ohms(judged), plate.volts[0][1], plate.hertz)
        except CoilError as error:
            self.figures.say(str(error))
            return
        self.figures.say(_figures(found))
        wanted = found.wanted()
        offers, _ = offers_for(wanted, self.items)
        near = "\n".join(f"{n}. {offer_words(o)}" for n, o in enumerate(offers[:OFFERS], 1))
        self.offers.say(
            f"Start, {wanted.low:.3g} to {wanted.high:.3g} µF, at least {wanted.volt:.0f} V. "
            + (f"On the shelf:\n{near}" if near else "Nothing of it on the shelf.")
        )
        self.notes.say("\n".join(found.notes))

    # --- a running one ------------------------------------------------------------------------------

    def _psc(self) -> bool:
        judged = self.judged
        return judged is not None and kind_of_gear(judged.job.gear, judged.facts.kinds) == "psc"

    def _most_volt(self, judged: Judgement) -> float:
        """Return the volts of the run capacitor noted, else usual ones."""
        for name, told in judged.job.gear.capacitors.items():
            marking, _ = capacitor_of(judged.job.gear, name, self.session.settings)
            if (
                marking is not None
                and marking.volt
                and (told.get("serves") or marking.kind) == "run"
            ):
                return marking.volt
        return USUAL_VOLT

    def _show_running(self, judged: Judgement) -> None:
        """Show where the series stands, and what the estimated machine would want."""
        gear = judged.job.gear
        runs_with_one = kind_of_gear(gear, judged.facts.kinds) not in WITHOUT_RUN
        for field in ("most-amp", "tried"):
            self.fields[field].setVisible(runs_with_one)
        for part in (self.worked, self.series, self.list):
            part.setVisible(runs_with_one)
        self.without.say("" if runs_with_one else NO_RUN)
        if not runs_with_one:
            return
        most_volt = self._most_volt(judged)
        own = [(i.low + i.high) / 2 for i in self.items if i.kind == "run" and i.count > 0]
        ceiling = 2 * self.running.chosen.microfarad if self.running else math.inf
        at_hand = [c for c in (own or RUN_SHELF) if c <= ceiling]
        state = series_of(gear.tried, at_hand, self.most_amp, most_volt)
        best = f" Best so far {state.best.microfarad:g} µF." if state.best else ""
        following = f" Fit {state.next:g} µF." if state.next else ""
        self.series.say(f"{state.why}{best}{following}")
        self.list.say(
            "\n".join(
                f"{t.microfarad:g} µF: {t.rpm:g} rpm, {t.line_amp:g} A line, {t.aux_amp:g} A start, "
                f"{t.capacitor_volt:g} V on it"
                for t in gear.tried
            )
        )
        known = known_motor(
            judged.job, judged.facts.kinds, judged.facts.identification, judged.facts.naming
        )
        if isinstance(known, str) or not any(d.kind == "capacitor-run" for d in known[0].devices):
            self._asked, self.running = None, None
            self.worked.say("" if isinstance(known, str) else "No run capacitor is noted.")
            return
        asked = (known, self.most_amp, most_volt)
        if asked == self._asked:
            return
        self._asked = asked
        self.worked.say("Working it out.")
        name = next(d.name for d in known[0].devices if d.kind == "capacitor-run")

        def arrived(found: RunningCapacitor) -> None:
            if self._asked == asked and self.judged is not None:
                self.running = found
                self.worked.say(_running(found))
                self._show_running(self.judged)

        self.session.aside(
            lambda: _work(known, name, self.most_amp, most_volt), arrived, self.worked.say
        )

    # --- typing ------------------------------------------------------------------------------------

    def _locked(self, winding: str, text: str) -> None:
        pieces = text.split()
        if len(pieces) not in (2, 3):
            raise BadValue(
                text, "volts, amps and watts, such as 40 7.5 190; without a wattmeter 40 7.5"
            )
        units = (Quantity.VOLTAGE, Quantity.CURRENT, Quantity.POWER)
        figures = [parse(p, q).value for p, q in zip(pieces, units, strict=False)]
        if min(figures) <= 0 or max(figures) > 1e6:
            raise BadValue(text, "figures above nothing")
        if len(figures) == 3 and figures[2] > figures[0] * figures[1]:
            raise BadValue(
                text, "watts of at most volts times amps", "More watts than volt-amperes."
            )
        body = WindingLocked.model_validate(
            {
                "winding": winding,
                "volt": figures[0],
                "amp": figures[1],
                "watt": figures[2] if len(figures) == 3 else None,
            }
        )
        self.session.record(body, station="start-gear")

    def _most(self, text: str) -> None:
        if not text.strip():
            self.most_amp = math.inf
        else:
            value = parse(text, Quantity.CURRENT).value
            if not 0 < value < 1e4:
                raise BadValue(text, "amps above nothing")
            self.most_amp = value
        if self.judged is not None:
            self._show_running(self.judged)

    def _tried(self, text: str) -> None:
        if not text.strip():
            return
        pieces = text.split()
        units = (
            Quantity.CAPACITANCE,
            Quantity.SPEED,
            Quantity.CURRENT,
            Quantity.CURRENT,
            Quantity.VOLTAGE,
        )
        if len(pieces) != len(units):
            raise BadValue(text, TRIED_WANTED)
        first = pieces[0] if pieces[0][-1].isalpha() else f"{pieces[0]} µF"
        figures = [parse(p, q).value for p, q in zip((first, *pieces[1:]), units, strict=True)]
        figures[0] *= 1e6
        if min(figures) <= 0 or max(figures) > 1e6:
            raise BadValue(text, TRIED_WANTED, "Each figure is above nothing.")
        names = ("microfarad", "rpm", "line_amp", "aux_amp", "capacitor_volt")
        body = RunTried.model_validate(dict(zip(names, figures, strict=True)))
        self.session.record(body, station="start-gear")


def _work(
    known: tuple[Plan, Facts], name: str, most_amp: float, most_volt: float
) -> RunningCapacitor:
    plan, facts = known
    return running_capacitor(estimate(plan, facts).motor, name, facts.slip, most_amp, most_volt)


def _ohms(judged: Judgement) -> dict[str, float]:
    """Return the DC ohms of both windings, where leads and readings tell them."""
    found, network = judged.facts.identification, judged.facts.naming.network
    if found is None or network is None:
        return {}
    ohms = coil_ohms(found, judged.facts.naming)
    return winding_ohms(network.coils, ohms) if isinstance(ohms, dict) else {}


def _shown(body: WindingLocked) -> str:
    watts = f" {body.watt:g}" if body.watt is not None else ""
    return f"{body.volt:g} {body.amp:g}{watts}"


def _figures(found: StartFigures) -> str:
    return (
        f"Main {found.main.real:.3g} + j{found.main.imag:.3g} Ω, start {found.aux.real:.3g} + "
        f"j{found.aux.imag:.3g} Ω.\n"
        f"Currents 90° apart: {found.quadrature:.3g} µF, {found.quadrature_volt:.0f} V on it. Most starting "
        f"torque: {found.most_torque:.3g} µF, {found.most_torque_volt:.0f} V on it, at {found.volt:g} V."
    )


def _running(found: RunningCapacitor) -> str:
    chosen = found.chosen
    capped = f" What stops it there: {found.capped}." if found.capped else ""
    return (
        f"As estimated it wants {chosen.microfarad:.3g} µF in run: {chosen.backward:.0%} backward field, "
        f"{chosen.aux_amp:.2f} A in the start winding, {chosen.capacitor_volt:.0f} V on it.{capped} Start "
        "figures are two to five times too much."
    )
