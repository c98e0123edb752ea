"""Sums of a rewind: wire, winding factors, ohms and mass, turns for another supply, the core's loop test."""

import re

from careful_coil.core.errors import BadValue
from careful_coil.core.rewind import factors as f
from careful_coil.core.rewind.wire import area, awg_mm, awg_of, meant_by, read_awg, read_swg
from careful_coil.core.sums.model import (
    Given,
    Input,
    Sum,
    Worked,
    hertz,
    number,
    numbers,
    text_input,
    volt,
)
from careful_coil.core.units import Quantity

CONNECTIONS = ("wye", "delta", "single")


def span_of(text: str) -> int:
    """Return the slots a coil steps over from `1-9`, counted as it is written. Raises: BadValue."""
    found = re.fullmatch(r"1\s*[-–−]\s*(\d{1,3})", text.strip(), re.ASCII)
    if found is None or int(found[1]) < 2:
        raise BadValue(text, "a span as it is counted, such as 1-9")
    return int(found[1]) - 1


def _wire(given: Given) -> Worked:
    told = [k for k in ("awg", "swg", "mm") if k in given]
    if len(told) != 1:
        raise BadValue(", ".join(told) or "nothing", "one of awg, swg, mm")
    text = str(given[told[0]])
    if told[0] == "awg":
        mm = awg_mm(read_awg(text))
    elif told[0] == "swg":
        mm = read_swg(text)
    else:
        mm = number(given, "mm", "the bare diameter in mm, such as 0.75")
    found = awg_of(mm)
    near = [m for m in meant_by(mm, insulated=None) if m.name.endswith("mm")]
    notes = [f"{m.name} {m.build}: {m.off:+.3f} mm" for m in near[:4]]
    return {"mm": mm, "mm2": area(mm), "awg": found}, tuple(
        [f"A micrometer that reads this can mean {'; '.join(notes)}."] if notes else ()
    )


def _factor(given: Given) -> Worked:
    slots, poles = (
        int(number(given, k, f"a whole number of {k}", True)) for k in ("slots", "poles")
    )
    phases = int(str(given["phases"]))
    found = f.factors(slots, poles, span_of(str(given["span"])), phases)
    q = f"{found.q.numerator}" if found.q.denominator == 1 else f"{found.q}"
    return {"kp": found.pitch, "kd": found.distribution, "kw": found.winding}, (
        f"{q} slots per pole and phase; a span of 1-n steps over n − 1 slots.",
    )


def _ohms(given: Given) -> Worked:
    figures = {
        k: number(given, k, f"{k} in figures") for k in ("mean_turn_mm", "turns", "coils", "mm")
    }
    whole = {
        k: int(number(given, k, f"a whole number of {k}", True)) for k in ("circuits", "strands")
    }
    (at_c,) = numbers(given, "at_c")
    phases = int(str(given["phases"]))
    found = f.copper(
        mean_turn_mm=figures["mean_turn_mm"],
        turns=figures["turns"],
        coils=figures["coils"],
        mm=figures["mm"],
        circuits=whole["circuits"],
        strands=whole["strands"],
        at_c=at_c,
    )
    notes = [f"{found.kg:.4g} kg a phase."] if phases > 1 else []
    off = (
        "Copper; mm is the bare wire. A tenth off the measured ohms: the record is wrong somewhere."
    )
    return {"ohm": found.ohm, "kg": found.kg * phases}, (*notes, off)


def _supplied(given: Given, front: str) -> f.Supplied:
    volts, cycles = numbers(given, f"{front}volt", f"{front}hertz")
    connection: f.Connection = "wye"
    for choice in CONNECTIONS:
        if given[f"{front}connection"] == choice:
            connection = choice  # type: ignore[assignment]
    return f.Supplied(
        volt=volts,
        hertz=cycles,
        connection=connection,
        circuits=int(number(given, f"{front}circuits", "a whole number of circuits", True)),
        kw=number(given, f"{front}kw", "a winding factor such as 0.902"),
    )


def _turns(given: Given) -> Worked:
    old, new = _supplied(given, ""), _supplied(given, "to_")
    found = f.new_turns(number(given, "turns", "turns per coil"), old, new)
    notes = ["For the same flux per pole; wire area goes the other way for the same slot fill."]
    if old.hertz != new.hertz:
        notes.append("Another frequency: speed, power, µF and the start switch's speed change too.")
    return {"turns": found.turns, "ratio": found.ratio, "area_ratio": found.area_ratio}, tuple(
        notes
    )


def _loop(given: Given) -> Worked:
    volts, cycles = numbers(given, "volt", "hertz")
    tesla = number(given, "tesla", "the flux density in T, such as 1.3")
    depth, core = (
        number(given, k, f"{k.removesuffix('_mm')} in mm") for k in ("depth_mm", "core_mm")
    )
    stacking = number(given, "stacking", "iron over length, such as 0.95")
    found = f.core_loop(volts, cycles, tesla, depth, core, stacking)
    return {"area_mm2": found.area_mm2, "turns": found.turns}, (
        "Depth is the iron behind the slots. W/kg up by 20 % over before: watch; spots 10 to 15 °C hotter: hold.",
        "Line volts on a few turns: fused, guarded, by qualified people.",
    )


def _supply(front: str, title: str) -> tuple[Input, ...]:
    return (
        volt(f"{front}volt", f"{title}: line volts"),
        hertz(f"{front}hertz", f"{title}: hertz"),
        Input(key=f"{front}connection", title=f"{title}: connection", choices=CONNECTIONS),
        text_input(f"{front}circuits", f"{title}: circuits in parallel"),
        text_input(f"{front}kw", f"{title}: winding factor"),
    )


REWIND_SUMS: tuple[Sum, ...] = (
    Sum(
        name="wire",
        title="Wire from one gauge to the others",
        formula="AWG: d = 0.127·92^((36−n)/39) mm",
        domain="one of awg, swg, mm; 0.02 to 12 mm",
        source="ASTM B258; BS 3737; IEC 60317-0-1",
        inputs=(
            text_input("awg", "AWG size, such as 18, 18.5 or 2/0", optional=True),
            text_input("swg", "SWG size", optional=True),
            text_input("mm", "bare diameter in mm", optional=True),
        ),
        units={"mm": "mm", "mm2": "mm²", "awg": ""},
        work=_wire,
    ),
    Sum(
        name="winding-factor",
        title="Winding factor of equal coils",
        formula="k_p = sin(90°·y/τ); k_d = sin(90°/m)/(a·sin(90°/(m·a))), a the numerator of q",
        domain="equal coils in belts of 180° over the phases; a span 1-n steps over n − 1",
        source="distribution and pitch of distributed windings, Veinott 1959",
        inputs=(
            text_input("slots", "slots"),
            text_input("poles", "poles"),
            text_input("span", "span, such as 1-9"),
            Input(key="phases", title="phases", choices=("1", "2", "3"), usual="3"),
        ),
        units={"kp": "", "kd": "", "kw": ""},
        work=_factor,
    ),
    Sum(
        name="winding-ohms",
        title="Ohms and mass of a winding",
        formula="R = 0.017241·l·N·coils/(circuits²·strands·A); m = density·A·strands·l·N·coils",
        domain="copper, round wire; mm bare",
        source="IEC 60028: 0.017241 Ω·mm²/m at 20 °C, 8.89 g/cm³",
        inputs=(
            text_input("mean_turn_mm", "mean turn, mm"),
            text_input("turns", "turns per coil"),
            text_input("coils", "coils per phase"),
            text_input("circuits", "circuits in parallel"),
            text_input("strands", "wires in hand"),
            text_input("mm", "bare diameter, mm"),
            Input(
                key="at_c",
                title="°C",
                quantity=Quantity.TEMPERATURE,
                unit="°C",
                positive=False,
                usual="20",
            ),
            Input(key="phases", title="phases", choices=("1", "2", "3"), usual="3"),
        ),
        units={"ohm": "Ω", "kg": "kg"},
        work=_ohms,
    ),
    Sum(
        name="rewind-turns",
        title="Turns for another supply",
        formula="N₂ = N₁·(V₂/V₁)·(f₁/f₂)·(k_w1/k_w2)·(a₂/a₁), V of a phase",
        domain="the same core and poles; volts of lines",
        source="E = 4.44·f·N·k_w·Φ at the same flux per pole",
        inputs=(
            text_input("turns", "turns per coil now"),
            *_supply("", "now"),
            *_supply("to_", "wanted"),
        ),
        units={"turns": "", "ratio": "", "area_ratio": ""},
        work=_turns,
    ),
    Sum(
        name="core-loop",
        title="Loop test of a core",
        formula="N = V/(4.44·f·B·A), A = stacking·depth·length",
        domain="the back iron behind the slots",
        source="IEEE 1068: core loss test before and after burning out",
        inputs=(
            volt("volt", "volts of the loop"),
            hertz(),
            text_input("tesla", "flux density wanted, T"),
            text_input("depth_mm", "back iron behind the slots, mm"),
            text_input("core_mm", "core length, mm"),
            text_input("stacking", "iron over length", usual="0.95"),
        ),
        units={"area_mm2": "mm²", "turns": ""},
        work=_loop,
    ),
)
