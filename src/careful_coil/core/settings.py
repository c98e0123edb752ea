"""Limits and schools of the shop: one frozen object, every figure with its source."""

from collections.abc import Mapping
from dataclasses import dataclass, field, fields, replace
from typing import Any

from careful_coil.core.errors import BadDocument
from careful_coil.core.schools import SCHOOLS
from careful_coil.core.settings_given import (
    currency_given,
    initials_given,
    odds_given,
    schools_given,
)
from careful_coil.core.shop_lists import LISTS, ShopLists

OWN = "this shop's setting"


@dataclass(frozen=True, slots=True)
class Limit:
    """A figure a verdict hangs on: unit, where it comes from, what it is in plain words."""

    value: float
    unit: str
    source: str
    title: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Settings:
    """The shop's limits and schools. A settings file may change them, never what is a hold.

    `schools` the choices that differ from the usual one, by name; `arrangement_odds` how much oftener
    than usual this shop meets a winding, by slug; `currency` the sign of money; `foreman` the
    initials of who may set a line of the gate aside, empty: any second person; `lists` its supplies,
    connectors, lead wire, what its bench can give.
    """

    balance_watch: Limit = Limit(
        2.0, "%", "shop default for random windings", "Coils apart: watch above"
    )
    balance_hold: Limit = Limit(
        5.0, "%", "shop default for random windings", "Coils apart: hold above"
    )
    balance_form: Limit = Limit(
        2.0, "%", "shop default for form wound coils", "Form wound coils apart: hold above"
    )
    insulation_minimum: Limit = Limit(
        5.0, "MΩ", "IEEE 43: random wound, below 1 kV, at 40 °C", "Insulation to frame, at least"
    )
    insulation_sealed: Limit = Limit(
        0.5, "MΩ", "trade practice; the maker's figure wins", "Insulation of a sealed compressor"
    )
    index_130: Limit = Limit(
        2.0, "", "IEEE 43: class B (130) and up", "Polarization index, class B (130) up, at least"
    )
    index_105: Limit = Limit(
        1.5, "", "IEEE 43: class A (105)", "Polarization index, class A (105), at least"
    )
    index_from: Limit = Limit(
        75.0,
        "kW",
        "shop default: smaller ones absorb too little",
        "Index of random windings, asked from",
    )
    index_doubt_from: Limit = Limit(
        7.5,
        "kW",
        "shop default: rewound, wet or burnt",
        "Index where there is doubt, asked from",
    )
    apart_from: Limit = Limit(75.0, "kW", "shop default", "Windings tested one by one, asked from")
    stood_days: Limit = Limit(
        30.0, "days", "shop practice: damp and standing marks", "Tested again when it stood over"
    )
    run_minutes: Limit = Limit(10.0, "min", "shop practice", "Run on the closed motor, at least")
    run_minutes_worked: Limit = Limit(
        30.0,
        "min",
        "shop practice: bearings and windings settle",
        "Run after bearing or winding work, at least",
    )
    absorption_least: Limit = Limit(
        1.25, "", "shop custom, not the standard", "Absorption R60/R30: watch below"
    )
    trend_fall: Limit = Limit(
        3.0, "times", "shop default", "Insulation fallen since earlier: watch from"
    )
    dew_margin: Limit = Limit(
        3.0,
        "K",
        "shop default for the thermometers' doubt",
        "Winding above the dew point, at least",
    )
    step_fall: Limit = Limit(
        25.0, "%", "shop default; IEEE 95 asks for none", "Insulation falls with volts: watch above"
    )
    surge_apart: Limit = Limit(
        10.0, "%", "shop default for random windings", "Surge traces apart: watch above"
    )
    drying_hottest: Limit = Limit(
        90.0, "°C", "shop default; the maker's figure wins", "Drying, hottest winding"
    )
    drying_rate: Limit = Limit(20.0, "K/h", "shop default while wet", "Drying, fastest warming")
    drying_level: Limit = Limit(4.0, "h", "shop practice", "Drying: level so long is dry")
    drying_stuck: Limit = Limit(
        24.0, "h", "shop practice", "Drying: level and too low so long is no damp"
    )
    copper_low: Limit = Limit(
        1.0, "%", "shop default, three-phase from 0.75 kW", "Copper loss at plate amps, at least"
    )
    copper_high: Limit = Limit(
        20.0, "%", "shop default, three-phase from 0.75 kW", "Copper loss at plate amps, at most"
    )
    ohms_moved: Limit = Limit(
        5.0, "%", "shop default against the record", "Ohms off design or earlier: watch above"
    )
    earth_bond: Limit = Limit(0.1, "Ω", "shop default, stud to bare frame", "Earth bond, at most")
    earth_bond_cord: Limit = Limit(
        0.2, "Ω", "shop default, through the cord", "Earth bond through the cord, at most"
    )
    appliance_earth: Limit = Limit(
        0.3,
        "Ω",
        "EN 50678, cord up to 5 m; the standard in force decides",
        "Appliance, earth at most",
    )
    appliance_insulation: Limit = Limit(
        1.0,
        "MΩ",
        "EN 50678, class I; the standard in force decides",
        "Appliance, class I, at least",
    )
    appliance_insulation_two: Limit = Limit(
        2.0,
        "MΩ",
        "EN 50678, class II; the standard in force decides",
        "Appliance, class II, at least",
    )
    appliance_leakage: Limit = Limit(
        3.5,
        "mA",
        "EN 50678, protective conductor; the standard in force decides",
        "Appliance, current in the earth conductor, at most",
    )
    appliance_touch: Limit = Limit(
        0.5,
        "mA",
        "EN 50678, touch current; the standard in force decides",
        "Appliance, class II, touch current, at most",
    )
    line_ohm_apart: Limit = Limit(
        3.0,
        "%",
        "what a hookup check can tell from a coil's spread",
        "Line ohms off the plan: hold above",
    )
    supply_apart: Limit = Limit(
        10.0,
        "%",
        "NEMA MG 1, 12.44: rated volts ±10 % at rated frequency",
        "Supply off the plate: hold above",
    )
    supply_edge: Limit = Limit(
        5.0,
        "%",
        "IEC 60034-1, 7.3: zone A ±5 %, zone B ±10 %; torque goes with volts squared",
        "Supply off the plate: watch above",
    )
    start_microfarad_below: Limit = Limit(
        0.0,
        "%",
        "shop default for one figure on a start capacitor",
        "Start capacitor, µF at least under",
    )
    start_microfarad_above: Limit = Limit(
        20.0,
        "%",
        "shop default for one figure on a start capacitor",
        "Start capacitor, µF at most over",
    )
    run_microfarad_apart: Limit = Limit(
        5.0, "%", "shop default; 6 and 10 are printed too", "Run capacitor, µF off at most"
    )
    start_contact: Limit = Limit(
        0.5, "Ω", "trade practice, freshly nulled", "Start contact or protector, at most"
    )
    switch_contact: Limit = Limit(
        0.1, "Ω", "trade practice, four wires or freshly nulled", "Selector's contact, at most"
    )
    switch_out_from: Limit = Limit(
        70.0, "%", "trade practice, of synchronous speed", "Start device out, from"
    )
    switch_out_to: Limit = Limit(
        80.0, "%", "trade practice, of synchronous speed", "Start device out, up to"
    )
    switch_out_watch: Limit = Limit(
        3.0, "s", "trade practice", "Start device out in time: watch above"
    )
    switch_out_hold: Limit = Limit(
        5.0, "s", "trade practice", "Start device out in time: hold above"
    )
    safe_volt: Limit = Limit(
        30.0, "V", "shop default before the meter has the word", "Capacitor discharged to"
    )
    discharge_ohm: Limit = Limit(
        20000.0, "Ω", "shop default, 5 W", "Resistor a capacitor is discharged through"
    )
    coast_down: Limit = Limit(
        3.0, "s", "shop default, uncoupled, spun by hand", "Shaft runs on by hand, at least"
    )
    end_float_from: Limit = Limit(0.1, "mm", "trade practice", "End float, from")
    end_float_to: Limit = Limit(0.8, "mm", "trade practice", "End float, up to")
    radial_play: Limit = Limit(
        0.05, "mm", "shop default for ball bearings", "Radial play: watch above"
    )
    calliper_apart: Limit = Limit(
        0.2, "mm", "what callipers on a bearing can tell", "Bearing and callipers apart, at most"
    )
    grease_speed: Limit = Limit(
        500e3, "mm/min", "trade practice, rpm times mean diameter", "Greased bearing, speed"
    )
    seal_speed: Limit = Limit(
        350e3, "mm/min", "trade practice, rpm times mean diameter", "Rubbing seals, speed"
    )
    brush_least: Limit = Limit(
        7.0, "mm", "shop default where none is marked", "Brush length, at least"
    )
    bars_watch: Limit = Limit(5.0, "%", "trade practice", "Like bars apart: watch above")
    bars_hold: Limit = Limit(10.0, "%", "trade practice", "Like bars apart: hold above")
    bars_shaft: Limit = Limit(5.0, "MΩ", "IEEE 43-2013, at 40 °C", "Bars to shaft, at least")
    gap_from: Limit = Limit(0.5, "T", "usual of random wound motors", "Air gap, from")
    gap_to: Limit = Limit(0.9, "T", "usual of random wound motors", "Air gap, up to")
    tooth_from: Limit = Limit(1.3, "T", "usual of random wound motors", "Teeth, from")
    tooth_to: Limit = Limit(1.8, "T", "usual of random wound motors", "Teeth, up to")
    back_from: Limit = Limit(1.1, "T", "usual of random wound motors", "Back iron, from")
    back_to: Limit = Limit(1.6, "T", "usual of random wound motors", "Back iron, up to")
    density_from: Limit = Limit(3.0, "A/mm²", "usual, random wound", "Current density, from")
    density_to: Limit = Limit(8.0, "A/mm²", "usual, random wound", "Current density, up to")
    fill_most: Limit = Limit(
        80.0, "%", "shop default, squares over the enamel", "Slot fill: watch above"
    )
    record_ohm_apart: Limit = Limit(
        10.0, "%", "a tenth off: the record is wrong somewhere", "Record off measured ohms, at most"
    )
    unbalance_watch: Limit = Limit(
        1.0, "%", "NEMA MG 1, 12.45", "Supply out of balance: watch above"
    )
    unbalance_hold: Limit = Limit(5.0, "%", "NEMA MG 1, 14.36", "Supply out of balance: hold above")
    run_amps_apart: Limit = Limit(
        10.0, "%", "shop default at balanced volts", "Reduced-voltage amps apart: hold above"
    )
    clamp_apart: Limit = Limit(10.0, "%", "trade practice", "Parallel leads apart: hold above")
    dead_minutes: Limit = Limit(30.0, "min", "shop default", "Proved dead holds for")
    universal_cap: Limit = Limit(
        25.0,
        "%",
        "shop default for unloaded motors with brushes",
        "Universal unloaded, volts at most",
    )
    look_volt: Limit = Limit(
        22.0, "%", "trade practice, motors with a start device", "Look before a direct start, volts"
    )
    look_seconds: Limit = Limit(5.0, "s", "trade practice", "Look before a direct start, at most")
    stall_rise: Limit = Limit(
        60.0,
        "K",
        "shop default: leaves a warm winding under its class",
        "Stalled winding, rise up to",
    )
    start_pause: Limit = Limit(
        5.0, "min", "shop default; two starts in a row: NEMA MG 1, 12.54", "Pause after two starts"
    )
    idle_from: Limit = Limit(
        25.0, "%", "usual of three-phase motors", "No-load amps, three-phase, from"
    )
    idle_to: Limit = Limit(
        60.0, "%", "usual; small and many-pole ones more", "No-load amps, three-phase, up to"
    )
    idle_one_from: Limit = Limit(
        50.0, "%", "usual of single-phase motors", "No-load amps, single-phase, from"
    )
    idle_one_to: Limit = Limit(
        90.0, "%", "usual of single-phase motors", "No-load amps, single-phase, up to"
    )
    amps_apart: Limit = Limit(
        10.0, "%", "trade practice at balanced volts", "Line amps from their mean, at most"
    )
    idle_slip: Limit = Limit(1.5, "%", "usual of no-load slip", "No-load slip, three-phase, up to")
    idle_slip_one: Limit = Limit(
        3.0, "%", "usual, small motors", "No-load slip, single-phase, up to"
    )
    repair_threshold: Limit = Limit(
        60.0,
        "%",
        "shop default: repair below this share of a new one",
        "Repair below this share of a new one",
    )
    adjacent_halves: Limit = Limit(
        15.0,
        "%",
        "shop experience; their kicks show nothing",
        "Halves lie on adjacent poles in",
    )
    frame_ohm: Limit = Limit(
        2e6, "Ω", "ohmmeter's first look only", "Open to frame, ohmmeter, above"
    )
    schools: Mapping[str, str] = field(default_factory=dict)
    arrangement_odds: Mapping[str, float] = field(default_factory=dict)
    currency: str = ""
    foreman: str = ""
    lists: ShopLists = field(default_factory=ShopLists)

    def limits(self) -> dict[str, Limit]:
        """Return every limit by name."""
        found = {f.name: getattr(self, f.name) for f in fields(self)}
        return {name: limit for name, limit in found.items() if isinstance(limit, Limit)}

    def school(self, name: str) -> str:
        """Return what this shop chose."""
        return self.schools.get(name, SCHOOLS[name].usual)

    def money(self, amount: float) -> str:
        """Return an amount with the shop's sign."""
        return f"{amount:.0f} {self.currency}".rstrip()

    def changed(self, told: Mapping[str, Any]) -> "Settings":
        """Return settings with other figures, schools or currency.

        Limits stand by their names, schools in a map `schools`, the currency as text. Raises:
        BadDocument for an unknown name or what a setting cannot be.
        """
        limits, schools, currency = self.limits(), dict(self.schools), self.currency
        lists, foreman = self.lists, self.foreman
        odds = dict(self.arrangement_odds)
        changes: dict[str, Limit] = {}
        for name, wanted in told.items():
            if name == "schools":
                schools |= schools_given(wanted)
            elif name == "arrangement_odds":
                odds |= odds_given(wanted)
            elif name == "currency":
                currency = currency_given(wanted)
            elif name == "foreman":
                foreman = initials_given(wanted)
            elif name in LISTS:
                lists = lists.changed(name, wanted)
            elif name not in limits:
                known = ", ".join(
                    sorted([*limits, *LISTS, "schools", "arrangement_odds", "currency", "foreman"])
                )
                raise BadDocument("settings", name, f"one of {known}")
            else:
                figure = _figure(name, wanted)
                usual = USUAL[name]
                changes[name] = (
                    usual if figure == usual.value else replace(usual, value=figure, source=OWN)
                )
        odds = {slug: factor for slug, factor in odds.items() if factor != 1}
        return replace(
            self,
            schools=schools,
            arrangement_odds=odds,
            currency=currency,
            foreman=foreman,
            lists=lists,
            **changes,
        )

    def told(self) -> dict[str, Any]:
        """Return what differs from the usual settings, as `changed` takes it."""
        found: dict[str, Any] = {
            n: limit.value for n, limit in self.limits().items() if limit.value != USUAL[n].value
        }
        chosen = {n: c for n, c in self.schools.items() if c != SCHOOLS[n].usual}
        found |= {"schools": chosen} if chosen else {}
        own = dict(self.arrangement_odds)
        found |= {"arrangement_odds": own} if own else {}
        found |= self.lists.told()
        found |= {"foreman": self.foreman} if self.foreman else {}
        return found | ({"currency": self.currency} if self.currency else {})


USUAL = Settings().limits()


def _figure(name: str, wanted: object) -> float:
    plain = isinstance(wanted, int | float) and not isinstance(wanted, bool)
    nothing = plain and wanted == 0 and USUAL[name].value == 0
    if nothing:
        return 0.0
    if not plain or not 0 < float(str(wanted)) < float("inf"):
        raise BadDocument(f"settings, {name}", str(wanted), "a number above nothing")
    return float(str(wanted))
