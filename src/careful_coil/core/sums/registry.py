"""The registry of bench sums: names, inputs and results for functions that live in the subjects."""

import math
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from careful_coil.core.connect.plans import FLUX_HOLD, FLUX_WATCH
from careful_coil.core.errors import BadValue, NotKnownYet
from careful_coil.core.run import power
from careful_coil.core.values import HORSEPOWER_W, Quantity, accepted, parse
from careful_coil.core.winding.speed import poles_of, slip_of

Figure = float | int | list[float] | None
_BARE = re.compile(r"[\d\s.,/]+")


@dataclass(frozen=True, slots=True, kw_only=True)
class Input:
    """One input: `key`, what it is, and how its text is read.

    `unit` is what a bare number is in and what the figure is given in; `quantity` None: one of
    `choices`, or a text where there are none.
    """

    key: str
    title: str
    quantity: Quantity | None = None
    unit: str = ""
    choices: tuple[str, ...] = ()
    positive: bool = True

    def wanted(self) -> str:
        """Return what is accepted."""
        if self.choices:
            return " or ".join(self.choices)
        return accepted(self.quantity) if self.quantity else self.title

    def read(self, text: str) -> float | int | str:
        """Return the figure in `unit`, or the choice. Raises: BadValue, AmbiguousValue."""
        text = text.strip()
        if self.choices:
            if text.lower() not in self.choices:
                raise BadValue(text, self.wanted(), f"{self.key}.")
            return int(text) if text.isdigit() else text.lower()
        if self.quantity is None:
            return text
        asked = f"{text} {self.unit}" if _BARE.fullmatch(text) else text
        number = parse(asked, self.quantity).number
        if number is None or (self.positive and number <= 0):
            raise BadValue(text, self.wanted(), f"{self.key} must be above nothing.")
        return float(number / HORSEPOWER_W if self.unit == "hp" else number)


@dataclass(frozen=True, slots=True, kw_only=True)
class Sum:
    """A bench sum. `work` takes the inputs by key and returns results by key, with remarks."""

    name: str
    title: str
    formula: str
    domain: str
    source: str
    inputs: tuple[Input, ...]
    units: Mapping[str, str]
    work: Callable[[Mapping[str, float | str]], tuple[dict[str, Figure], tuple[str, ...]]]


@dataclass(frozen=True, slots=True, kw_only=True)
class Answer:
    """What a sum gave: inputs as read, results unrounded, remarks."""

    sum: Sum
    inputs: dict[str, float | str]
    results: dict[str, Figure]
    notes: tuple[str, ...]

    def lines(self) -> list[str]:
        """Return the results with their units, then the remarks."""
        shown = []
        for key, value in self.results.items():
            unit = self.sum.units.get(key, "")
            figure = "no upper end" if value is None else f"{value:.6g} {unit}".rstrip()
            shown.append(f"{key.replace('_', ' ').capitalize()}: {figure}")
        return [*shown, *self.notes]


def work_out(name: str, texts: Mapping[str, str]) -> Answer:
    """Return a sum worked out from texts by key.

    Raises: NotKnownYet for a name; BadValue for a key or text; ValueOutOfRange outside its domain.
    """
    if name not in SUMS:
        raise NotKnownYet(f"The sum “{name}”", ", ".join(SUMS))
    chosen = SUMS[name]
    keys = [i.key for i in chosen.inputs]
    for key in texts:
        if key not in keys:
            raise BadValue(key, ", ".join(keys), f"{name} has no such input.")
    missing = [i for i in chosen.inputs if not texts.get(i.key, "").strip()]
    if missing:
        raise BadValue(
            "nothing", "; ".join(f"{i.key}: {i.wanted()}" for i in missing), f"{name} needs more."
        )
    inputs = {i.key: i.read(texts[i.key]) for i in chosen.inputs}
    results, notes = chosen.work(inputs)
    return Answer(sum=chosen, inputs=inputs, results=results, notes=notes)


def _numbers(given: Mapping[str, float | str], *keys: str) -> tuple[float, ...]:
    return tuple(float(given[k]) for k in keys)


def _slip(given: Mapping[str, float | str]) -> tuple[dict[str, Figure], tuple[str, ...]]:
    hertz, rpm = _numbers(given, "hertz", "rpm")
    poles = poles_of(hertz, rpm)
    slip = slip_of(hertz, rpm)
    notes = ["Poles, not pole pairs: the largest even number whose synchronous speed is not below."]
    if slip < 1e-9:
        notes.append("No slip at all: a synchronous or reluctance motor, or a synchronous speed.")
    return {
        "poles": poles,
        "sync_rpm": 120.0 * hertz / poles,
        "slip_percent": 100.0 * slip,
    }, tuple(notes)


def _locked_rotor(given: Mapping[str, float | str]) -> tuple[dict[str, Figure], tuple[str, ...]]:
    hp, volt = _numbers(given, "hp", "volt")
    low, high = power.locked_rotor_amps(str(given["letter"]), hp, volt, int(given["phases"]))
    notes = () if math.isfinite(high) else ("The letter V has no upper end.",)
    return {"amp_low": low, "amp_high": high if math.isfinite(high) else None}, notes


def _power_factor(given: Mapping[str, float | str]) -> tuple[dict[str, Figure], tuple[str, ...]]:
    volt, amp, watt = _numbers(given, "volt", "amp", "watt")
    phases = int(given["phases"])
    return {
        "va": power.volt_amperes(volt, amp, phases),
        "pf": power.power_factor(volt, amp, watt, phases),
    }, ("Idle it is 0.1 to 0.4: judge by kind and load.",)


def _flux(given: Mapping[str, float | str]) -> tuple[dict[str, Figure], tuple[str, ...]]:
    at = _numbers(given, "volt", "hertz", "rated_volt", "rated_hertz")
    flux = power.flux_ratio(*at)
    notes: tuple[str, ...] = ()
    if flux > FLUX_HOLD:
        notes = (f"Above {FLUX_HOLD}: the iron is too full, do not run it so.",)
    elif flux > FLUX_WATCH:
        notes = (f"Above {FLUX_WATCH}: watch the no-load amps.",)
    return {"flux_ratio": flux, "torque_ratio": power.torque_ratio(*at)}, notes


_PHASES = Input(key="phases", title="phases", choices=("1", "3"))


def _volt(key: str = "volt", title: str = "volts") -> Input:
    return Input(key=key, title=title, quantity=Quantity.VOLTAGE, unit="V")


def _hertz(key: str = "hertz", title: str = "hertz") -> Input:
    return Input(key=key, title=title, quantity=Quantity.FREQUENCY, unit="Hz")


SUMS: dict[str, Sum] = {
    s.name: s
    for s in (
        Sum(
            name="slip",
            title="Poles and slip from the plate",
            formula="n_sync = 120·f/poles; slip = (n_sync − n)/n_sync",
            domain="rpm above 0 and at most 60·f",
            source="IEC 60034-1",
            inputs=(
                _hertz(),
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
                _volt(),
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
                _volt(),
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
                _volt(),
                _hertz(),
                _volt("rated_volt", "rated volts"),
                _hertz("rated_hertz", "rated hertz"),
            ),
            units={"flux_ratio": "", "torque_ratio": ""},
            work=_flux,
        ),
    )
}
