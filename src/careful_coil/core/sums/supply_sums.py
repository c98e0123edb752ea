"""Sums of the supply a motor goes to: its balance, its name, the overload."""

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.run.overload import overload_of
from careful_coil.core.run.supply import name_supply, unbalance
from careful_coil.core.sums.model import (
    Given,
    Input,
    Sum,
    Worked,
    listed,
    number,
    numbers,
    text_input,
)
from careful_coil.core.units import Quantity


def _unbalance(given: Given) -> Worked:
    found = unbalance(listed(given, "volt"))
    notes = ["Amps are 6 to 10 times as far apart as the volts."]
    if found.derate is None:
        notes.append("Above 5 %: do not run it; find the cause first.")
    return {"mean": found.mean, "percent": found.percent, "derate": found.derate}, tuple(notes)


def _name(given: Given) -> Worked:
    found = name_supply(listed(given, "line"), listed(given, "neutral"))
    special = {
        "high-leg": f"{found.special} is the high leg: never to a load for line and neutral.",
        "corner-earthed": f"{found.special} is the earthed corner: it is a live line all the same.",
    }.get(found.system)
    lost = f"Where three phases were expected {found.lost} is lost." if found.lost else None
    notes = [f"{found.words[0].upper()}{found.words[1:]}.", special, lost]
    return {"system": found.system}, tuple(n for n in notes if n)


def _overload(given: Given) -> Worked:
    (amp,) = numbers(given, "amp")
    wanted = "a service factor, 1 to 2"
    factor = number(given, "service_factor", wanted)
    if not 1 <= factor <= 2:
        raise ValueOutOfRange(f"{factor:g}", wanted)
    rise = given.get("rise_k")
    told = float(rise) if isinstance(rise, int | float) else None
    found = overload_of(amp, factor, told)
    notes = (f"The dial is set to the plate's {found.dial:g} A.", "The local code decides.")
    return {"amp": found.trip}, notes


SUPPLY_SUMS: tuple[Sum, ...] = (
    Sum(
        name="supply-unbalance",
        title="Unbalance of three line voltages",
        formula="percent = 100·largest |V − mean|/mean; derating 1.00, 0.95, 0.88, 0.82, 0.75 at 1 to 5 %",
        domain="three volts of which none is lost; derating up to 5 %",
        source="NEMA MG 1, 12.45 and 14.36",
        inputs=(
            Input(
                key="volt", title="three line volts", quantity=Quantity.VOLTAGE, unit="V", many=3
            ),
        ),
        units={"mean": "V", "percent": "%", "derate": ""},
        nothing="none",
        work=_unbalance,
    ),
    Sum(
        name="supply-name",
        title="What supply six voltages are",
        formula="the system whose picture of lines and earth is nearest to the distances read",
        domain="six readings of one of the five systems",
        source="IEC 60364-1, 312; NFPA 70, 250",
        inputs=(
            Input(
                key="line",
                title="volts A-B, B-C, C-A",
                quantity=Quantity.VOLTAGE,
                unit="V",
                many=3,
                positive=False,
            ),
            Input(
                key="neutral",
                title="volts A, B, C to neutral or earth",
                quantity=Quantity.VOLTAGE,
                unit="V",
                many=3,
                positive=False,
            ),
        ),
        units={},
        work=_name,
    ),
    Sum(
        name="overload",
        title="Overload: the highest trip, from the plate",
        formula="A·1.25 with service factor 1.15 and more or a rise of 40 K, else A·1.15",
        domain="service factor 1 to 2, rise above 0",
        source="NFPA 70, 430.32; the local code decides",
        inputs=(
            Input(key="amp", title="plate amps", quantity=Quantity.CURRENT, unit="A"),
            text_input("service_factor", "service factor", usual="1"),
            Input(
                key="rise_k",
                title="rated rise",
                quantity=Quantity.TEMPERATURE_RISE,
                unit="K",
                optional=True,
            ),
        ),
        units={"amp": "A"},
        work=_overload,
    ),
)
