"""A bench sum as data: its inputs and how their text is read, its results with their units."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from decimal import Decimal

from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure, with_unit
from careful_coil.core.units import HORSEPOWER_W, Quantity
from careful_coil.core.values import accepted, parse

Figure = float | int | str | list[float] | None
Given = Mapping[str, "float | str | list[float]"]
Worked = tuple[dict[str, Figure], tuple[str, ...]]
_PER_UNIT = {
    "hp": HORSEPOWER_W,
    "MΩ": Decimal(10**6),
    "kV": Decimal(1000),
    "µF": Decimal(1).scaleb(-6),
}  # base units in the unit of an input


@dataclass(frozen=True, slots=True, kw_only=True)
class Input:
    """One input: `key`, what it is, and how its text is read.

    `unit` is what a bare number is in and what the figure is given in; `quantity` None: one of
    `choices`, or a text where there are none. `many` how many values with / between it takes: 0 one,
    −1 two or more. `usual` stands where nothing is typed; an `optional` one may be left out.
    """

    key: str
    title: str
    quantity: Quantity | None = None
    unit: str = ""
    choices: tuple[str, ...] = ()
    positive: bool = True
    many: int = 0
    usual: str = ""
    optional: bool = False

    def wanted(self) -> str:
        """Return what is accepted."""
        if self.choices:
            return " or ".join(self.choices)
        what = accepted(self.quantity) if self.quantity else self.title
        count = str(self.many) if self.many > 0 else "two or more"
        return f"{count} values with / between, each {what}" if self.is_list else what

    @property
    def is_list(self) -> bool:
        """Whether it takes several values."""
        return self.many != 0

    def read(self, text: str) -> float | int | str | list[float]:
        """Return the figure in `unit`, several, or the choice. Raises: BadValue, AmbiguousValue."""
        text = text.strip()
        if self.choices:
            if text.lower() not in self.choices:
                raise BadValue(text, self.wanted(), f"{self.key}.")
            return int(text) if text.isdecimal() else text.lower()
        if self.quantity is None:
            return text
        if not self.is_list:
            return self._figure(text, text)
        parts = text.split("/")
        if len(parts) < 2 or (self.many > 0 and len(parts) != self.many):
            raise BadValue(text, self.wanted(), f"{self.key}.")
        return [self._figure(p.strip(), text) for p in parts]

    def _figure(self, text: str, whole: str) -> float:
        if self.quantity is None:
            raise BadValue(whole, self.wanted())
        value = parse(with_unit(text, self.unit), self.quantity)
        number = value.number
        if value.qualifier is not None:
            raise BadValue(whole, self.wanted(), f"{self.key} must be a figure.")
        if number is None or (self.positive and number <= 0):
            raise BadValue(whole, self.wanted(), f"{self.key} must be above nothing.")
        return float(number / _PER_UNIT.get(self.unit, Decimal(1)))


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
    work: Callable[[Given], Worked]
    nothing: str = "no upper end"  # what a result that is None says


@dataclass(frozen=True, slots=True, kw_only=True)
class Answer:
    """What a sum gave: inputs as read, results unrounded, remarks."""

    sum: Sum
    inputs: dict[str, float | str | list[float]]
    results: dict[str, Figure]
    notes: tuple[str, ...]

    def lines(self) -> list[str]:
        """Return the results with their units, then the remarks."""
        shown = []
        for key, value in self.results.items():
            unit = self.sum.units.get(key, "")
            told = value if isinstance(value, list) else [value]
            figure = " / ".join(_shown(v, self.sum.nothing) for v in told)
            figure = figure if value is None else f"{figure} {unit}".rstrip()
            shown.append(f"{key.replace('_', ' ').capitalize()}: {figure}")
        return [*shown, *self.notes]


def _shown(value: float | str | None, nothing: str) -> str:
    if isinstance(value, str):
        return value
    return nothing if value is None else f"{value:.6g}"


def numbers(given: Given, *keys: str) -> tuple[float, ...]:
    """Return several inputs as figures."""
    return tuple(float(given[k]) for k in keys)  # type: ignore[arg-type]


def listed(given: Given, key: str) -> list[float]:
    """Return an input of several figures; a single one counts as a list of one."""
    value = given[key]
    return value if isinstance(value, list) else [float(value)]


def volt(key: str = "volt", title: str = "volts") -> Input:
    """Return an input of volts."""
    return Input(key=key, title=title, quantity=Quantity.VOLTAGE, unit="V")


def hertz(key: str = "hertz", title: str = "hertz") -> Input:
    """Return an input of hertz."""
    return Input(key=key, title=title, quantity=Quantity.FREQUENCY, unit="Hz")


def celsius(key: str, title: str) -> Input:
    """Return an input of a temperature."""
    return Input(key=key, title=title, quantity=Quantity.TEMPERATURE, unit="°C", positive=False)


def ohms(key: str, title: str, many: int = 0, optional: bool = False) -> Input:
    """Return an input of ohms, several with `many`."""
    return Input(
        key=key,
        title=title,
        quantity=Quantity.RESISTANCE,
        unit="Ω",
        many=many,
        optional=optional,
    )


def megohm(key: str, title: str, optional: bool = False) -> Input:
    """Return an input of megohms."""
    return Input(key=key, title=title, quantity=Quantity.RESISTANCE, unit="MΩ", optional=optional)


def text_input(key: str, title: str, optional: bool = False, usual: str = "") -> Input:
    """Return an input that is taken as text."""
    return Input(key=key, title=title, optional=optional, usual=usual)


def number(given: Given, key: str, wanted: str, whole: bool = False) -> float:
    """Return an input that is a bare number. Raises: BadValue."""
    text, length = str(given[key]), key == "mm" or key.endswith("_mm")
    value = figure(
        text, Quantity.LENGTH if length else Quantity.NUMBER, most=1e9, wanted=f"{key}: {wanted}"
    )
    if whole and value != int(value):
        raise BadValue(text, wanted, f"{key}.")
    return value
