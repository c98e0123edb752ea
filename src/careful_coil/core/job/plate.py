"""The nameplate: fields as printed, read into figures where they can be."""

import re
from dataclasses import dataclass

from careful_coil.core.errors import BadValue
from careful_coil.core.values import Quantity, parse

VOLTS_WANTED = "volts as printed, for example 400, 230/460 or 208-230/460"
_RANGE = re.compile(r"(\d+(?:\.\d+)?)(?:\s*[-–]\s*(\d+(?:\.\d+)?))?")


@dataclass(frozen=True, slots=True, kw_only=True)
class Nameplate:
    """Figures of the plate; None where it was not read. `volts` are ranges, in rising order.

    `amps` the larger of a range each; `hertz` and `rpm` the first of several; `microfarad` of the
    capacitor it names.
    """

    phases: int | None = None
    volts: tuple[tuple[float, float], ...] = ()
    hertz: float | None = None
    amps: tuple[float, ...] = ()
    power_w: float | None = None
    rpm: float | None = None
    poles: int | None = None
    power_factor: float | None = None
    service_factor: float | None = None
    code: str | None = None
    microfarad: float | None = None
    as_printed: tuple[tuple[str, str], ...] = ()

    def printed(self, field: str) -> str:
        """Return a field as it was typed, or nothing."""
        return dict(self.as_printed).get(field, "")


def read_volts(text: str) -> tuple[tuple[float, float], ...]:
    """Return the rated volts of each connection, rising. Raises: BadValue."""
    found = []
    for part in re.sub(r"[Vv]\s*$", "", text.strip()).split("/"):
        match = _RANGE.fullmatch(part.strip())
        if match is None:
            raise BadValue(text, VOLTS_WANTED)
        low = float(match[1])
        high = float(match[2]) if match[2] else low
        if not 1 <= low <= high <= 20000:
            raise BadValue(text, VOLTS_WANTED)
        found.append((low, high))
    if sorted(found) != found:
        raise BadValue(text, VOLTS_WANTED + ", the lower first")
    return tuple(found)


UNREADABLE = "unreadable"
CODE_LETTERS = "ABCDEFGHJKLMNPRSTUV"  # NEMA MG 1, 10.37.2


def check_field(field: str, text: str) -> None:
    """Raise BadValue when a plate field cannot be read; blank and “unreadable” are always well."""
    if text.strip() and not unreadable(text):
        _read(field, text)


def readable(field: str, text: str) -> bool:
    """Whether a plate field gives what it should."""
    try:
        check_field(field, text)
    except BadValue:
        return False
    return True


def unreadable(text: str) -> bool:
    """Whether a field says that this part of the plate cannot be read."""
    return text.strip().lower() in (UNREADABLE, "?")


def nameplate(fields: dict[str, str]) -> Nameplate:
    """Return the plate; a field that cannot be read stays as printed and gives no figure."""
    figures: dict[str, object] = {}
    for field, text in fields.items():
        if not text.strip() or unreadable(text):
            continue
        try:
            figures.update(_read(field, text))
        except BadValue:
            continue  # shown as printed; the ledger asks for it
    return Nameplate(as_printed=tuple(sorted(fields.items())), **figures)  # type: ignore[arg-type]


def _read(field: str, text: str) -> dict[str, object]:
    if field == "volt":
        return {"volts": read_volts(text)}
    if field == "phases":
        if text.strip() not in ("1", "3"):
            raise BadValue(text, "1 or 3")
        return {"phases": int(text)}
    if field == "amp":
        return {"amps": _amps(text)}
    if field == "poles":
        if not text.strip().isdigit() or int(text) % 2 or not 2 <= int(text) <= 96:
            raise BadValue(text, "an even number of poles, 2 to 96 (poles, not pairs)")
        return {"poles": int(text)}
    if field == "code":
        if text.strip().upper() not in CODE_LETTERS or len(text.strip()) != 1:
            raise BadValue(text, "a code letter A to V, without I, O and Q")
        return {"code": text.strip().upper()}
    if field in _SHARES:
        return {field.replace("-", "_"): _share(text, *_SHARES[field])}
    if field == "capacitor":
        first = re.split(r"(?<=F)\s+|(?<=mfd)\s+|(?<=MFD)\s+|/", text.strip())[0]
        return {"microfarad": 1e6 * parse(first, Quantity.CAPACITANCE).value}
    if field not in _FIGURES:
        return {}
    quantity, name = _FIGURES[field]
    figure = parse(text.split("/", maxsplit=1)[0] if field != "power" else text, quantity).value
    if not figure > 0:
        raise BadValue(text, "a figure above nothing")
    return {name: figure}


_FIGURES = {
    "hertz": (Quantity.FREQUENCY, "hertz"),
    "power": (Quantity.POWER, "power_w"),
    "rpm": (Quantity.SPEED, "rpm"),
}
_SHARES = {"power-factor": (0.1, 1.0), "service-factor": (0.8, 2.0)}


def _share(text: str, low: float, high: float) -> float:
    try:
        found = float(text.strip().replace(",", "."))
    except ValueError:
        raise BadValue(text, f"a figure {low:g} to {high:g}") from None
    if not low <= found <= high:
        raise BadValue(text, f"a figure {low:g} to {high:g}")
    return found


def _amps(text: str) -> tuple[float, ...]:
    """Return the amps of each connection, the larger of a range."""
    found = []
    for part in re.sub(r"[Aa]\s*$", "", text.strip()).split("/"):
        ends = [parse(end, Quantity.CURRENT).value for end in re.split(r"\s*[-–]\s*", part.strip())]
        if not all(e > 0 for e in ends) or len(ends) > 2:
            raise BadValue(text, "amps as printed, for example 18/9 or 13.8-12.8/6.4")
        found.append(max(ends))
    return tuple(found)
