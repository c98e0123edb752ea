"""The nameplate: fields as printed, read into figures where they can be."""

import re
from dataclasses import dataclass

from careful_coil.core.errors import BadValue
from careful_coil.core.values import Quantity, parse

VOLTS_WANTED = "volts as printed, for example 400, 230/460 or 208-230/460"
_RANGE = re.compile(r"(\d+(?:\.\d+)?)(?:\s*[-–]\s*(\d+(?:\.\d+)?))?")


@dataclass(frozen=True, slots=True, kw_only=True)
class Nameplate:
    """Figures of the plate; None where it was not read. `volts` are ranges, in rising order."""

    phases: int | None = None
    volts: tuple[tuple[float, float], ...] = ()
    hertz: float | None = None
    amps: tuple[float, ...] = ()
    power_w: float | None = None
    rpm: float | None = None
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


def check_field(field: str, text: str) -> None:
    """Raise BadValue when a plate field cannot be read; blank and serial are always well."""
    if text.strip() and field != "serial":
        _read(field, text)


def nameplate(fields: dict[str, str]) -> Nameplate:
    """Return the plate; a field that cannot be read stays as printed and gives no figure."""
    figures: dict[str, object] = {}
    for field, text in fields.items():
        if field == "serial" or not text.strip():
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
        amps = re.sub(r"[Aa]\s*$", "", text.strip()).split("/")
        return {"amps": tuple(parse(a, Quantity.CURRENT).value for a in amps)}
    quantity, name = {
        "hertz": (Quantity.FREQUENCY, "hertz"),
        "power": (Quantity.POWER, "power_w"),
        "rpm": (Quantity.SPEED, "rpm"),
    }[field]
    figure = parse(text, quantity).value
    if not figure > 0:
        raise BadValue(text, "a figure above nothing")
    return {name: figure}
