"""Sums of capacitors: by amps, discharged, several together."""

from careful_coil.core.gear import formulas
from careful_coil.core.sums.model import (
    Given,
    Input,
    Sum,
    Worked,
    hertz,
    listed,
    numbers,
    ohms,
    volt,
)
from careful_coil.core.units import Quantity


def _farads(key: str = "microfarad", many: int = 0) -> Input:
    return Input(key=key, title="µF", quantity=Quantity.CAPACITANCE, unit="µF", many=many)


def _from_amps(given: Given) -> Worked:
    found = formulas.microfarad_from_amps(*numbers(given, "volt", "amp", "hertz"))
    return {"microfarad": found}, (
        "Volts across the capacitor itself, amps in its own lead. An electrolytic for seconds only, fused.",
    )


def _discharge(given: Given) -> Worked:
    found = formulas.discharge(*numbers(given, "microfarad", "volt", "ohm", "to_volt"))
    notes = [
        "Only a wait: touched when a meter says so; the resistor stays on while it is handled."
    ]
    if found.peak_watt > PEAK_WATT:
        notes.append(f"Over {PEAK_WATT:g} W at the start: a larger resistor, or one made for it.")
    return {
        "start_volt": found.start_volt,
        "seconds": found.seconds,
        "peak_watt": found.peak_watt,
        "joule": found.joule,
    }, tuple(notes)


def _together(given: Given) -> Worked:
    how: formulas.How = "series" if given["how"] == "series" else "parallel"
    whole, most = formulas.together(listed(given, "microfarad"), listed(given, "volt"), how)
    return {"microfarad": whole, "volt": most}, (
        "All of one kind and duty. Volts are what the set may carry, rms.",
    )


PEAK_WATT = 25.0  # five times the rating of the usual 5 W resistor, for a moment

GEAR_SUMS: tuple[Sum, ...] = (
    Sum(
        name="capacitor-from-amps",
        title="Capacitor by volts and amps",
        formula="C = I/(2π·f·V), 159155·I/(f·V) in µF",
        domain="above 0",
        source="reactance of a capacitor, Xc = 1/(2π·f·C)",
        inputs=(
            volt(title="volts across it"),
            Input(key="amp", title="amps in its lead", quantity=Quantity.CURRENT, unit="A"),
            hertz(),
        ),
        units={"microfarad": "µF"},
        work=_from_amps,
    ),
    Sum(
        name="capacitor-discharge",
        title="Letting a capacitor down",
        formula="V0 = √2·V; t = R·C·ln(V0/V1); peak V0²/R; C·V0²/2",
        domain="above 0",
        source="discharge through a resistor, V = V0·e^(−t/RC)",
        inputs=(
            _farads(),
            volt(title="marked, or running if higher"),
            ohms("ohm", "resistor"),
            Input(key="to_volt", title="down to", quantity=Quantity.VOLTAGE, unit="V", usual="30"),
        ),
        units={"start_volt": "V", "seconds": "s", "peak_watt": "W", "joule": "J"},
        work=_discharge,
    ),
    Sum(
        name="capacitors-together",
        title="Several capacitors together",
        formula="parallel ΣC, least V; series 1/C = Σ1/Ck, V = least Vk·Ck/C",
        domain="above 0, as many volts as capacitances",
        source="charge is shared in parallel, alike in series",
        inputs=(
            _farads(many=-1),
            Input(key="volt", title="volts", quantity=Quantity.VOLTAGE, unit="V", many=-1),
            Input(key="how", title="how", choices=("parallel", "series")),
        ),
        units={"microfarad": "µF", "volt": "V"},
        work=_together,
    ),
)
