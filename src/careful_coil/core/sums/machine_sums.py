"""Sums of a motor's start: capacitor, stalled winding."""

from careful_coil.core.errors import BadValue
from careful_coil.core.machine.capacitors import impedance, start_microfarad
from careful_coil.core.machine.heating import PER_KELVIN, Metal, heating_rate, stall_seconds
from careful_coil.core.sums.model import Given, Input, Sum, Worked, hertz, numbers, ohms, volt
from careful_coil.core.units import Quantity


def _winding(given: Given, name: str) -> tuple[complex, bool]:
    """Return a winding's locked impedance in Ω, and whether its ohms stand for R."""
    volts, amp = numbers(given, f"{name}_volt", f"{name}_amp")
    if f"{name}_watt" in given:
        return impedance(volts, amp, *numbers(given, f"{name}_watt")), False
    if f"{name}_ohm" not in given:
        raise BadValue("nothing", f"{name}_watt, or {name}_ohm in its place", f"{name} winding.")
    return impedance(volts, amp, ohm=numbers(given, f"{name}_ohm")[0]), True


def _start_capacitor(given: Given) -> Worked:
    (main, bare), (aux, thin) = (_winding(given, n) for n in ("main", "aux"))
    square, most = start_microfarad(main, aux, *numbers(given, "hertz"))
    notes = ["Starting figures: neither may be left in once it runs."]
    if bare or thin:
        notes.append("Without watts the ohms stand for R: the rotor's share is left out.")
    return {"microfarad_quadrature": square, "microfarad_torque": most}, tuple(notes)


def _stall(given: Given) -> Worked:
    density, rise = numbers(given, "amp_per_mm2", "rise_k")
    metal: Metal = "aluminium" if given["metal"] == "aluminium" else "copper"
    return {
        "k_per_s": heating_rate(density, metal),
        "seconds": stall_seconds(density, rise, metal),
    }, ("No heat leaves the wire: true for seconds only.",)


def _locked(name: str, title: str) -> tuple[Input, ...]:
    return (
        volt(f"{name}_volt", f"{title} volts"),
        Input(key=f"{name}_amp", title=f"{title} amps", quantity=Quantity.CURRENT, unit="A"),
        Input(
            key=f"{name}_watt",
            title=f"{title} watts",
            quantity=Quantity.POWER,
            unit="W",
            optional=True,
        ),
        ohms(f"{name}_ohm", f"{title} ohms", optional=True),
    )


MACHINE_SUMS: tuple[Sum, ...] = (
    Sum(
        name="start-capacitor",
        title="Start capacitor from locked readings",
        formula="90° apart: Xc = Xa + Ra·Rm/Xm; most torque: Xc = Xa + Ra·Rm/(|Zm| + Xm)",
        domain="each winding locked, alone: W at most V·A, the main with reactance",
        source="Fitzgerald, Kingsley and Umans, Electric Machinery, ch. 9; Veinott 1959",
        inputs=(*_locked("main", "main"), *_locked("aux", "start winding"), hertz()),
        units={"microfarad_quadrature": "µF", "microfarad_torque": "µF"},
        work=_start_capacitor,
    ),
    Sum(
        name="stall-heating",
        title="Heating of a stalled winding",
        formula="dT/dt = J²/170 copper, J²/74 aluminium",
        domain="above 0",
        source="adiabatic heating, the metal near 65 °C",
        inputs=(
            Input(
                key="amp_per_mm2",
                title="density",
                quantity=Quantity.CURRENT_DENSITY,
                unit="A/mm²",
            ),
            Input(key="rise_k", title="rise", quantity=Quantity.TEMPERATURE_RISE, unit="K"),
            Input(key="metal", title="metal", choices=tuple(PER_KELVIN), usual="copper"),
        ),
        units={"k_per_s": "K/s", "seconds": "s"},
        work=_stall,
    ),
)
