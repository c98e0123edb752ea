"""Sums of the winding's condition: ohms and temperature, balance, insulation."""

from careful_coil.core.condition.balance import imbalance_percent
from careful_coil.core.condition.insulation import correction_factor, dc_test_volts
from careful_coil.core.condition.phases import phases_from_lines
from careful_coil.core.condition.polarization import (
    CONSTRUCTIONS,
    WAIVED_ABOVE_MEGOHM,
    insulation_minimum,
    ratios_of,
)
from careful_coil.core.condition.temperature import hot_c, resistance_at, zero_ohm_c
from careful_coil.core.errors import BadValue
from careful_coil.core.sums.model import (
    Figure,
    Given,
    Input,
    Sum,
    Worked,
    celsius,
    listed,
    megohm,
    numbers,
    ohms,
)
from careful_coil.core.units import Quantity

SECONDS = (15, 30, 60, 600)


def _resistance_at(given: Given) -> Worked:
    ohm, at, to = numbers(given, "ohm", "at_c", "to_c")
    metal = str(given["metal"])
    return {"ohm": resistance_at(ohm, at, to, metal)}, (
        f"{metal.capitalize()}: z = {zero_ohm_c(metal):g} °C. IEC reckons copper with 235.",
    )


def _balance(given: Given) -> Worked:
    return {"percent": imbalance_percent(listed(given, "ohm"))}, (
        "Of phases, all at one temperature. A fault of one phase shows at half its size between lines.",
    )


def _phases(given: Given) -> Worked:
    inside = str(given["inside"])
    found = phases_from_lines(listed(given, "ohm"), inside)
    order = "A, B, C" if inside == "wye" else "AB, BC, CA"
    return {"ohm": list(found)}, (f"In the order {order}, if it is {inside} inside.",)


def _at_40(given: Given) -> Worked:
    read, at = numbers(given, "megohm", "at_c")
    winding = str(given["winding"])
    factor = correction_factor(at, winding)  # type: ignore[arg-type]
    return {"factor": factor, "megohm": factor * read}, ("Of the reading after one minute.",)


def _minimum(given: Given) -> Worked:
    (kv,) = numbers(given, "kv")
    low, high = dc_test_volts(1000 * kv)
    return {
        "megohm": insulation_minimum(kv, str(given["winding"])),
        "test_volt": [low, high],
    }, ("At 40 °C, of the whole winding; kV line to line.",)


def _polarization(given: Given) -> Worked:
    told = {float(s): float(given[f"megohm_{s}s"]) for s in SECONDS if f"megohm_{s}s" in given}  # type: ignore[arg-type]
    found = ratios_of(told)
    results: dict[str, Figure] = {
        k: v
        for k, v in (("pi", found.pi), ("dar", found.dar), ("r60_r15", found.r60_r15))
        if v is not None
    }
    if not results:
        read = ", ".join(f"{s:g} s" for s in told) or "nothing"
        raise BadValue(read, "60 s and one of 15 s, 30 s, 600 s", "A ratio takes two.")
    notes = ["dar is 60 s over 30 s, shop custom, not the standard."]
    if told.get(60.0, 0.0) > WAIVED_ABOVE_MEGOHM:
        notes.append("Over 5 GΩ after a minute: the index says nothing (IEEE 43).")
    return results, tuple(notes)


def _rise(given: Given) -> Worked:
    cold, at, hot, air = numbers(given, "cold_ohm", "cold_c", "hot_ohm", "air_c")
    found = hot_c(cold, at, hot, str(given["metal"]))
    return {"hot_c": found, "rise_k": found - air}, (
        "Of the ohms at the moment of switching off: carry later readings back to it.",
    )


_METAL = Input(key="metal", title="metal", choices=("copper", "aluminium"), usual="copper")

CONDITION_SUMS: tuple[Sum, ...] = (
    Sum(
        name="resistance-at",
        title="Ohms at another temperature",
        formula="R₂ = R₁·(z + T₂)/(z + T₁), z = 234.5 copper, 225 aluminium",
        domain="-60 to 250 °C",
        source="IEEE 112, resistance corrected to a temperature",
        inputs=(
            ohms("ohm", "ohms as read"),
            celsius("at_c", "at"),
            celsius("to_c", "brought to"),
            _METAL,
        ),
        units={"ohm": "Ω"},
        work=_resistance_at,
    ),
    Sum(
        name="balance",
        title="Balance of coils",
        formula="largest |R − mean| / mean",
        domain="two or more ohms above 0",
        source="shop custom",
        inputs=(ohms("ohm", "ohms, / between", many=-1),),
        units={"percent": "%"},
        work=_balance,
    ),
    Sum(
        name="phases-from-lines",
        title="Phases from line ohms",
        formula="wye R_A = (R_AB + R_CA − R_BC)/2; delta through the equivalent star",
        domain="none as large as the other two together",
        source="star-delta transformation, Kennelly 1899",
        inputs=(
            ohms("ohm", "AB/BC/CA", many=3),
            Input(key="inside", title="inside", choices=("wye", "delta")),
        ),
        units={"ohm": "Ω"},
        work=_phases,
    ),
    Sum(
        name="insulation-at-40",
        title="Insulation at 40 °C",
        formula="R40 = K·R; K = exp(−1245·(1/(T+273) − 1/313)) to 40 °C, −4230 above; old 0.5^((40−T)/10)",
        domain="10 to 85 °C",
        source="IEEE 43, correction to 40 °C",
        inputs=(
            megohm("megohm", "insulation after one minute"),
            celsius("at_c", "winding at"),
            Input(
                key="winding",
                title="winding",
                choices=("thermosetting", "thermoplastic"),
            ),
        ),
        units={"factor": "", "megohm": "MΩ"},
        work=_at_40,
    ),
    Sum(
        name="insulation-minimum",
        title="Insulation, least and test volts",
        formula="random 5; form 100, below 1 kV 5; old kV + 1; armature 5 MΩ",
        domain="above 0 to 50 kV",
        source="IEEE 43, minimum insulation resistance and DC test volts",
        inputs=(
            Input(key="kv", title="rated", quantity=Quantity.VOLTAGE, unit="kV"),
            Input(key="winding", title="winding", choices=tuple(CONSTRUCTIONS)),
        ),
        units={"megohm": "MΩ", "test_volt": "V"},
        work=_minimum,
    ),
    Sum(
        name="polarization",
        title="Polarization index and its kin",
        formula="PI = R(10 min)/R(1 min); DAR = R(60 s)/R(30 s); R(60 s)/R(15 s)",
        domain="MΩ above 0, two of them",
        source="IEEE 43, polarization index; DAR is shop custom",
        inputs=tuple(megohm(f"megohm_{s}s", f"after {s} s", optional=True) for s in SECONDS),
        units={"pi": "", "dar": "", "r60_r15": ""},
        work=_polarization,
    ),
    Sum(
        name="temperature-rise",
        title="Temperature rise by resistance",
        formula="T₂ = (R₂/R₁)·(z + T₁) − z; rise = T₂ − air",
        domain="-60 to 250 °C cold, to 500 °C hot",
        source="IEEE 112, temperature by resistance; IEC 60034-1, resistance method",
        inputs=(
            ohms("cold_ohm", "cold ohms"),
            celsius("cold_c", "cold at"),
            ohms("hot_ohm", "hot ohms"),
            celsius("air_c", "air"),
            _METAL,
        ),
        units={"hot_c": "°C", "rise_k": "K"},
        work=_rise,
    ),
)
