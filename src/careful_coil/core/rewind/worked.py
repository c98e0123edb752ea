"""What is worked out of a winding's record: factors, induction, density, fill, ohms and mass, against limits.

Each figure says what it still wants. E = 4.44·f·N·k_w·Φ with the phase volts for E; induction of the gap is
the peak of a sine, of teeth that peak over one slot pitch, of the back iron half the flux (Veinott 1959).
"""

import math
from dataclasses import dataclass

from careful_coil.core.condition.coils import by_iec
from careful_coil.core.condition.temperature import resistance_at
from careful_coil.core.errors import CoilError
from careful_coil.core.rewind.factors import SINE, wire_kg, wire_ohm
from careful_coil.core.rewind.layout import MAIN, PHASES, LaidCoil, Layout
from careful_coil.core.rewind.record import Record, copper_mm2, covered_mm2
from careful_coil.core.rewind.wire import REFERENCE_C
from careful_coil.core.settings import Limit, Settings
from careful_coil.core.sheets.winding import title_of
from careful_coil.core.values import show_figure

STACKING = 0.95  # iron over core length (trade practice)


@dataclass(frozen=True, slots=True, kw_only=True)
class Plate:
    """What the plate gives a winding: line volts of the connection as recorded, hertz, line amps."""

    volt: float | None = None
    hertz: float | None = None
    amp: float | None = None


DIGITS = {"T": 2, "A/mm²": 2}  # that mean something, by the unit; of all others three


@dataclass(frozen=True, slots=True, kw_only=True)
class Figure:
    """One figure: its name, unit, value (None while something is missing), usual range, what it wants."""

    name: str
    title: str
    unit: str = ""
    value: float | None = None
    low: Limit | None = None
    high: Limit | None = None
    wants: tuple[str, ...] = ()
    words: str = ""

    @property
    def shown(self) -> str:
        """Return it as a person writes it: no digit that the record does not carry."""
        value = self.value or 0.0
        whole = value.is_integer()  # turns are counted: all of their digits mean something
        figure = f"{value:.0f}" if whole else show_figure(value, DIGITS.get(self.unit, 3))
        return f"{figure} {self.unit}".rstrip()

    @property
    def mark(self) -> str:
        """Return good or watch where there is a usual range, else nothing."""
        if self.value is None or (self.low is None and self.high is None):
            return ""
        low = self.low.value if self.low else -math.inf
        high = self.high.value if self.high else math.inf
        return "good" if low <= self.value <= high else "watch"


@dataclass(frozen=True, slots=True, kw_only=True)
class Worked:
    """All that a record gives; `why` what stands against a layout."""

    layout: Layout | None
    why: str
    figures: tuple[Figure, ...]

    def of(self, name: str) -> Figure:
        """Return a figure by its name."""
        return next(f for f in self.figures if f.name == name)


def work_out(record: Record, plate: Plate, settings: Settings) -> Worked:
    """Return all figures that a record and a plate give."""
    laid = record.layout()
    layout = None if isinstance(laid, str) else laid
    return Worked(
        layout=layout,
        why=laid if isinstance(laid, str) else "",
        figures=tuple(_Bench(record, plate, settings, layout).all()),
    )


class _Bench:
    def __init__(
        self, record: Record, plate: Plate, settings: Settings, layout: Layout | None
    ) -> None:
        self._r, self._p, self._s, self._l = record, plate, settings, layout
        self._one = record.phases == 1
        self._phase = MAIN if self._one else PHASES[0]
        self._circuits = record.whole("circuits") or 1

    def all(self) -> list[Figure]:
        """Return every figure, in the order they are shown."""
        return [
            self._q(),
            self._factor(),
            self._turns(),
            self._density(),
            *self._magnetic(),
            self._fill(),
            self._mean_turn(),
            self._ohm(),
            self._mass(),
        ]

    def _q(self) -> Figure:
        told = self._l
        words = ""
        if told is not None and not self._one:
            sizes = [len(g) for g in told.groups(PHASES[0])]
            even = len(set(sizes)) == 1
            words = f"groups of {sizes[0]}" if even else f"groups of {', '.join(map(str, sizes))}"
        q = None if told is None else float(told.q)
        title = "Slots per pole, phase"
        if told is not None and self._one:
            q, title = told.slots / told.poles, "Slots per pole"
        wants = self._missing("slots", "poles")
        return Figure(name="q", title=title, value=q, words=words, wants=wants)

    def _factor(self) -> Figure:
        told = self._l
        words = ""
        if told is not None:
            orders = " ".join(f"{n}th {told.factor(self._phase, n):.3f}" for n in (5, 7))
            words = orders
        return Figure(
            name="kw",
            title="Winding factor",
            value=told.factor(self._phase) if told is not None else None,
            wants=self._missing("slots", "poles", *(("main",) if self._one else ("span",))),
            words=words,
        )

    def _turns(self) -> Figure:
        """Return turns of a phase in series."""
        value = self._series_turns()
        coils = len(self._l.of(self._phase)) if self._l is not None else 0
        many = "circuit" if self._circuits == 1 else "circuits"
        words = f"{coils} coils, {self._circuits} {many}" if coils else ""
        wants = self._missing("slots", "poles", "main" if self._one else "turns")
        return Figure(
            name="turns",
            title="Turns of the main" if self._one else "Turns per phase",
            value=value,
            words=words,
            wants=wants,
        )

    def _series_turns(self) -> float | None:
        if self._l is None or (not self._one and not self._r.turns):
            return None
        return sum(c.turns for c in self._l.of(self._phase)) / self._circuits

    def _phase_volt(self) -> float | None:
        volt = self._p.volt
        if volt is None:
            return None
        if self._one or self._r.told.get("connection") == "delta":
            return volt
        return volt / math.sqrt(3) if self._r.told.get("connection") == "wye" else None

    def _density(self) -> Figure:
        """Return A/mm² of the wires of one circuit."""
        wires = self._r.wire("main-wire" if self._one else "wire")
        amp = self._p.amp
        value = None
        connection = self._r.told.get("connection", "")
        if wires and amp and (self._one or connection):
            own = amp / math.sqrt(3) if connection == "delta" and not self._one else amp
            value = own / self._circuits / copper_mm2(wires)
        wants = [*self._missing("main-wire" if self._one else "wire")]
        wants += [] if self._one else self._missing("connection")
        wants += [] if amp else ["plate amps"]
        return Figure(
            name="density",
            title="Current density",
            unit="A/mm²",
            value=value,
            low=self._s.density_from,
            high=self._s.density_to,
            wants=tuple(wants),
        )

    def flux(self) -> float | None:
        """Return the flux of a pole in Wb."""
        volt, turns, cycles = self._phase_volt(), self._series_turns(), self._p.hertz
        if volt is None or not turns or not cycles or self._l is None:
            return None
        factor = self._l.factor(self._phase)
        return volt / (SINE * cycles * turns * factor) if factor else None

    def _magnetic(self) -> list[Figure]:
        flux, r = self.flux(), self._r
        base = [*([] if self._p.volt else ["plate volts"]), *([] if self._p.hertz else ["hertz"])]
        base += [] if self._one else [*self._missing("connection", "turns")]
        base += self._missing("slots", "poles")
        core, bore, poles, slots = (
            r.figure("core"),
            r.figure("bore"),
            r.whole("poles"),
            r.whole("slots"),
        )
        gap = None
        if flux is not None and core and bore and poles:
            pole_mm2 = math.pi * bore / poles * core
            gap = flux / (pole_mm2 * 1e-6) * math.pi / 2
        tooth, back = r.figure("tooth"), r.figure("back-iron")
        teeth = behind = None
        if gap is not None and bore and tooth and slots:
            teeth = gap * math.pi * bore / slots / (tooth * STACKING)
        if flux is not None and core and back:
            behind = flux / 2 / (core * back * STACKING * 1e-6)
        s = self._s
        return [
            Figure(
                name="flux",
                title="Flux per pole",
                unit="mWb",
                value=flux * 1000 if flux is not None else None,
                wants=tuple(base),
            ),
            Figure(
                name="gap",
                title="Air gap",
                unit="T",
                value=gap,
                low=s.gap_from,
                high=s.gap_to,
                wants=(*base, *self._missing("core", "bore")),
            ),
            Figure(
                name="teeth",
                title="Teeth",
                unit="T",
                value=teeth,
                low=s.tooth_from,
                high=s.tooth_to,
                wants=(*base, *self._missing("core", "bore", "tooth")),
            ),
            Figure(
                name="back",
                title="Back iron",
                unit="T",
                value=behind,
                low=s.back_from,
                high=s.back_to,
                wants=(*base, *self._missing("core", "back-iron")),
            ),
        ]

    def _fill(self) -> Figure:
        """Return the room the wires of the fullest slot take, squares over the enamel, of what there is."""
        room, r = self._r.figure("slot-area"), self._r
        value = None
        if room and self._l is not None:
            each = {
                phase: covered_mm2(r.wire(f"{phase}-wire" if self._one else "wire"))
                for phase in self._l.phases
            }
            known = all(each[p] for p in self._l.phases) and (self._one or r.turns)
            if known:
                fullest = max(
                    sum(c.turns * each[c.phase] for c in sides) for sides in self._l.sides.values()
                )
                value = 100 * fullest / room
        wire = ("main-wire",) if self._one else ("wire", "turns")
        return Figure(
            name="fill",
            title="Slot fill",
            unit="%",
            value=value,
            high=self._s.fill_most,
            wants=self._missing("slot-area", "slots", "poles", *wire),
        )

    def _mean_turn(self) -> Figure:
        """Return the mean turn in mm: as measured, else from the mass of wire that came out."""
        own, mass = self._r.figure("mean-turn"), self._r.figure("mass")
        if own is not None:
            return Figure(
                name="mean-turn", title="Mean turn", unit="mm", value=own, words="as measured"
            )
        each = self._kg_a_metre()
        return Figure(
            name="mean-turn",
            title="Mean turn",
            unit="mm",
            value=1000 * mass / each if mass and each else None,
            words="from the mass of wire" if mass and each else "",
            wants=("mean turn, or mass of wire",),
        )

    def _wound(self) -> list[tuple[LaidCoil, float]]:
        """Return every coil with the mm² of its wires; nothing while a wire or the turns are not known."""
        if self._l is None or not (self._one or self._r.turns):
            return []
        each = {
            phase: copper_mm2(self._r.wire(f"{phase}-wire" if self._one else "wire"))
            for phase in self._l.phases
        }
        return [(c, each[c.phase]) for c in self._l.coils] if all(each.values()) else []

    def _kg_a_metre(self) -> float:
        """Return the kg of all wire for each metre of the mean turn."""
        return sum(wire_kg(c.turns, mm2, self._r.metal) for c, mm2 in self._wound())

    def _ohm(self) -> Figure:
        """Return the ohms of a phase, or of the main winding, at 20 °C."""
        turn, own = self._mean_turn(), [w for w in self._wound() if w[0].phase == self._phase]
        value = None
        if turn.value and own:
            metres = turn.value / 1000 * sum(c.turns for c, _ in own)
            value = wire_ohm(metres, own[0][1], self._circuits, self._r.metal)
        measured = self.measured_ohm()
        words = f"{measured:.3g} Ω measured" if measured is not None else "none measured"
        return Figure(
            name="ohm",
            title="Main ohms, 20 °C" if self._one else "Phase ohms, 20 °C",
            unit="Ω",
            value=value,
            wants=self._copper_wants(),
            words="" if self._one else words,
        )

    def _mass(self) -> Figure:
        """Return the mass of all wire."""
        turn, mass = self._mean_turn().value, self._r.figure("mass")
        each = self._kg_a_metre()
        return Figure(
            name="kg",
            title="Wire, all of it",
            unit="kg",
            value=each * turn / 1000 if turn and each else None,
            wants=self._copper_wants(),
            words=f"{mass:g} kg came out" if mass else "",
        )

    def _copper_wants(self) -> tuple[str, ...]:
        fields = ("main", "main-wire") if self._one else ("wire", "turns")
        wants = self._missing("slots", "poles", *fields)
        if self._one and self._r.told.get("start"):
            wants += self._missing("start-wire")
        turn = self._mean_turn()
        return (*wants, *(turn.wants if turn.value is None else ()))

    def measured_ohm(self) -> float | None:
        """Return the measured ohms of a phase at 20 °C."""
        told = self._r.phase_ohm
        if told is None:
            return None
        ohm, at_c = told
        if at_c is None:
            return ohm
        try:
            return resistance_at(ohm, at_c, REFERENCE_C, self._r.metal, by_iec(self._s))
        except CoilError:
            return None

    def _missing(self, *fields: str) -> tuple[str, ...]:
        return tuple(title_of(f) for f in fields if not self._r.told.get(f))


def measured_ohm(record: Record, plate: Plate, settings: Settings) -> float | None:
    """Return the measured ohms of a phase at 20 °C, None where none were."""
    return _Bench(record, plate, settings, None).measured_ohm()
