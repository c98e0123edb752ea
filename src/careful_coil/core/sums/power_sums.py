"""Sums of speed, power and the supply."""

import math

from careful_coil.core.connect.plans import FLUX_HOLD, FLUX_WATCH
from careful_coil.core.machine import power
from careful_coil.core.sums.model import Given, Input, Sum, Worked, hertz, numbers, volt
from careful_coil.core.units import Quantity
from careful_coil.core.winding.speed import poles_of, slip_of


def _slip(given: Given) -> Worked:
    line, rpm = numbers(given, "hertz", "rpm")
    poles = poles_of(line, rpm)
    slip = slip_of(line, rpm)
    notes = ["Poles, not pole pairs: the largest even number whose synchronous speed is not below."]
    if slip < 1e-9:
        notes.append("No slip at all: a synchronous or reluctance motor, or a synchronous speed.")
    return {
        "poles": poles,
        "sync_rpm": 120.0 * line / poles,
        "slip_percent": 100.0 * slip,
    }, tuple(notes)


def _locked_rotor(given: Given) -> Worked:
    hp, volts = numbers(given, "hp", "volt")
    low, high = power.locked_rotor_amps(str(given["letter"]), hp, volts, int(str(given["phases"])))
    notes = () if math.isfinite(high) else ("The letter V has no upper end.",)
    return {"amp_low": low, "amp_high": high if math.isfinite(high) else None}, notes


def _power_factor(given: Given) -> Worked:
    volts, amp, watt = numbers(given, "volt", "amp", "watt")
    phases = int(str(given["phases"]))
    return {
        "va": power.volt_amperes(volts, amp, phases),
        "pf": power.power_factor(volts, amp, watt, phases),
    }, ("Idle it is 0.1 to 0.4: judge by kind and load.",)


def _flux(given: Given) -> Worked:
    at = numbers(given, "volt", "hertz", "rated_volt", "rated_hertz")
    flux = power.flux_ratio(*at)
    notes: tuple[str, ...] = ()
    if flux > FLUX_HOLD:
        notes = (f"Above {FLUX_HOLD}: the iron is too full, do not run it so.",)
    elif flux > FLUX_WATCH:
        notes = (f"Above {FLUX_WATCH}: watch the no-load amps.",)
    return {"flux_ratio": flux, "torque_ratio": power.torque_ratio(*at)}, notes


_PHASES = Input(key="phases", title="phases", choices=("1", "3"))


POWER_SUMS: tuple[Sum, ...] = (
    Sum(
        name="slip",
        title="Poles and slip from the plate",
        formula="n_sync = 120·f/poles; slip = (n_sync − n)/n_sync",
        domain="rpm above 0 and at most 60·f",
        source="IEC 60034-1",
        inputs=(
            hertz(),
            Input(key="rpm", title="rpm", quantity=Quantity.SPEED, unit="rpm"),
        ),
        units={"poles": "", "sync_rpm": "rpm", "slip_percent": "%"},
        work=_slip,
    ),
    Sum(
        name="locked-rotor",
        title="Locked-rotor amps from the code letter",
        formula="A = kVA per hp · hp · 1000/(√3·V), single phase without √3",
        domain="letters A to V without I, O, Q",
        source="NEMA MG 1, 10.37.2",
        inputs=(
            Input(key="letter", title="a code letter A to V"),
            Input(key="hp", title="horsepower", quantity=Quantity.POWER, unit="hp"),
            volt(),
            _PHASES,
        ),
        units={"amp_low": "A", "amp_high": "A"},
        work=_locked_rotor,
    ),
    Sum(
        name="power-factor",
        title="Volt-amperes and power factor",
        formula="VA = V·I (√3·V·I for three phases); pf = W/VA",
        domain="watts at most VA",
        source="IEC 60034-2-1",
        inputs=(
            volt(),
            Input(key="amp", title="amps", quantity=Quantity.CURRENT, unit="A"),
            Input(key="watt", title="watts", quantity=Quantity.POWER, unit="W"),
            _PHASES,
        ),
        units={"va": "VA", "pf": ""},
        work=_power_factor,
    ),
    Sum(
        name="flux-and-torque",
        title="Flux and torque off the rated supply",
        formula="flux = (V/f)/(V/f rated); torque = flux²",
        domain="all above 0",
        source="E = 4.44·f·N·Φ; Fitzgerald, Kingsley and Umans, ch. 6",
        inputs=(
            volt(),
            hertz(),
            volt("rated_volt", "rated volts"),
            hertz("rated_hertz", "rated hertz"),
        ),
        units={"flux_ratio": "", "torque_ratio": ""},
        work=_flux,
    ),
)
