"""Quantities of the bench with their units: what a cell of each takes, as data.

Sources: mechanical horsepower 550 ft·lbf/s = 745.7 W; metric (PS, CV) 75 kgf·m/s = 735.5 W; inch 25.4 mm
and pound 0.45359237 kg by definition (1959); lbf·ft 1.3558 N·m.
"""

from dataclasses import dataclass, field
from decimal import Decimal
from enum import StrEnum

HORSEPOWER_W = Decimal("745.7")
METRIC_HORSEPOWER_W = Decimal("735.5")
INCH_MM = Decimal("25.4")
POUND_KG = Decimal("0.45359237")
POUND_FOOT_NM = Decimal("1.3558")


class Quantity(StrEnum):
    """What a cell holds."""

    RESISTANCE = "resistance"
    INSULATION = "insulation resistance"
    CAPACITANCE = "capacitance"
    POWER = "power"
    TEMPERATURE = "temperature"
    VOLTAGE = "voltage"
    CURRENT = "current"
    FREQUENCY = "frequency"
    SPEED = "speed"
    CURRENT_DENSITY = "current density"
    TEMPERATURE_RISE = "temperature rise"
    LENGTH = "length"
    AREA = "area"
    MASS = "mass"
    TIME = "time"
    TORQUE = "torque"
    SHARE = "share"
    NUMBER = "number"


@dataclass(frozen=True, slots=True, kw_only=True)
class Family:
    """Units of one quantity: `base` in which a value is kept, `bare` that of a figure without a unit.

    `units` by spelling, in the base; `prefixes` those shown and read before it; `foreign` spellings that
    are shown again as they were read; `fractions` what a fraction needs: any unit, or one of these.
    `grouped` whether three places behind a point are asked about too.
    """

    base: str
    example: str
    units: dict[str, Decimal] = field(default_factory=dict)
    bare: str = ""
    prefixes: str = ""
    signed: bool = False
    ohms: bool = False
    foreign: tuple[str, ...] = ()
    fractions: tuple[str, ...] | None = None
    grouped: bool = False


_ONE = Decimal(1)
_OHM = {"Ω": _ONE, "ohm": _ONE, "ohms": _ONE, "R": _ONE}
_INCHES = ("in", "inch", "inches", '"', "″", "''")
FAMILIES = {
    Quantity.RESISTANCE: Family(
        base="Ω",
        bare="Ω",
        units=_OHM,
        prefixes="µmkMG",
        ohms=True,
        example="ohms, for example 12.4, 4k7, 320 m, 1.2 M, open, rising, unsteady",
    ),
    Quantity.INSULATION: Family(
        base="Ω",
        bare="MΩ",
        units=_OHM,
        prefixes="kMGT",
        ohms=True,
        example="megohms, for example 480, 2.2 G or >2 G",
    ),
    Quantity.CAPACITANCE: Family(
        base="F",
        bare="µF",
        units={
            "F": _ONE,
            **dict.fromkeys(("mfd", "MFD", "Mfd"), Decimal("1e-6")),
            **dict.fromkeys(("mmf", "mmfd", "MMF", "MMFD"), Decimal("1e-12")),
        },
        prefixes="pnµ",
        example="a capacitance, for example 38 µF or 38 mfd",
    ),
    Quantity.POWER: Family(
        base="W",
        bare="W",
        units={
            "W": _ONE,
            "hp": HORSEPOWER_W,
            "HP": HORSEPOWER_W,
            "PS": METRIC_HORSEPOWER_W,
            "CV": METRIC_HORSEPOWER_W,
        },
        prefixes="mkM",
        foreign=("hp", "HP", "PS", "CV"),
        fractions=(),
        example="a power, for example 0.55 kW or 3/4 hp",
    ),
    Quantity.TEMPERATURE: Family(
        base="°C",
        bare="°C",
        signed=True,
        foreign=("F", "K"),
        example="a temperature, for example 21, 21 °C or 72 °F",
    ),
    Quantity.VOLTAGE: Family(
        base="V",
        bare="V",
        units={"V": _ONE, "v": _ONE, "volt": _ONE, "volts": _ONE},
        prefixes="µmk",
        example="volts, for example 230 or 1.5 kV",
    ),
    Quantity.CURRENT: Family(
        base="A",
        bare="A",
        units={"A": _ONE, "a": _ONE, "amp": _ONE, "amps": _ONE},
        prefixes="µmk",
        example="amps, for example 6.2 or 85 mA",
    ),
    Quantity.FREQUENCY: Family(
        base="Hz",
        bare="Hz",
        units={"Hz": _ONE, "hz": _ONE, "HZ": _ONE},
        prefixes="k",
        example="hertz, for example 50",
    ),
    Quantity.SPEED: Family(
        base="rpm",
        bare="rpm",
        units=dict.fromkeys(
            ("rpm", "RPM", "r/min", "1/min", "/min", "min-1", "min⁻¹", "U/min", "tr/min", "t/min"),
            _ONE,
        ),
        grouped=True,
        example="revolutions per minute, for example 1440",
    ),
    Quantity.CURRENT_DENSITY: Family(
        base="A/mm²",
        bare="A/mm²",
        units={"A/mm²": _ONE, "A/mm2": _ONE},
        example="amps per square millimetre, for example 6.5",
    ),
    Quantity.TEMPERATURE_RISE: Family(
        base="K", bare="K", units={"K": _ONE}, example="a rise in kelvin, for example 80"
    ),
    Quantity.LENGTH: Family(
        base="mm",
        bare="mm",
        units={
            "mm": _ONE,
            "MM": _ONE,
            "cm": Decimal(10),
            "m": Decimal(1000),
            "µm": Decimal("0.001"),
            "um": Decimal("0.001"),
            "thou": INCH_MM / 1000,
            **dict.fromkeys(_INCHES, INCH_MM),
        },
        foreign=("cm", "m", "µm", "um", "thou", *_INCHES),
        fractions=_INCHES,
        example="millimetres such as 17 or 17.05, or inches such as 5/8 in",
    ),
    Quantity.AREA: Family(
        base="mm²",
        bare="mm²",
        units={
            "mm²": _ONE,
            "mm2": _ONE,
            "sq": _ONE,
            "cm²": Decimal(100),
            "cm2": Decimal(100),
            "in²": INCH_MM * INCH_MM,
            "in2": INCH_MM * INCH_MM,
        },
        foreign=("cm²", "cm2", "in²", "in2"),
        example="square millimetres, for example 95 or 0.15 in²",
    ),
    Quantity.MASS: Family(
        base="kg",
        bare="kg",
        units={
            "kg": _ONE,
            "g": Decimal("0.001"),
            **dict.fromkeys(("lb", "lbs"), POUND_KG),
            "oz": POUND_KG / 16,
        },
        foreign=("g", "lb", "lbs", "oz"),
        fractions=("lb", "lbs", "oz"),
        example="kilograms, for example 3.8, or 8 1/2 lb",
    ),
    Quantity.TIME: Family(
        base="s",
        bare="s",
        units={
            **dict.fromkeys(("s", "sec", "secs", "second", "seconds"), _ONE),
            **dict.fromkeys(("m", "min", "mins", "minute", "minutes"), Decimal(60)),
            **dict.fromkeys(("h", "hr", "hrs", "hour", "hours"), Decimal(3600)),
            **dict.fromkeys(("d", "day", "days"), Decimal(86400)),
            "ms": Decimal("0.001"),
            "µs": Decimal("1e-6"),
            "us": Decimal("1e-6"),
        },
        foreign=(
            *("m", "min", "mins", "minute", "minutes", "h", "hr", "hrs", "hour", "hours"),
            *("d", "day", "days", "ms", "µs", "us"),
        ),
        example="a time, for example 4.5 s, 10 min or 6 h",
    ),
    Quantity.TORQUE: Family(
        base="N·m",
        bare="N·m",
        units={
            **dict.fromkeys(("N·m", "Nm", "N m", "N.m"), _ONE),
            **dict.fromkeys(("lbf·ft", "lb-ft", "ft-lb", "lb·ft", "ft·lb"), POUND_FOOT_NM),
        },
        foreign=("lbf·ft", "lb-ft", "ft-lb", "lb·ft", "ft·lb"),
        example="a torque, for example 5.2 N·m or 4 lb-ft",
    ),
    Quantity.SHARE: Family(
        base="%", bare="%", units={"%": _ONE, "percent": _ONE}, example="per cent, for example 55"
    ),
    Quantity.NUMBER: Family(base="", example="a figure, for example 12 or 0.4"),
}
