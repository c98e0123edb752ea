"""The nameplate: fields as printed, read into figures where they can be."""

import re
from dataclasses import dataclass
from typing import Any

from careful_coil.core.can_marking import in_full, read_marking
from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure, span, whole
from careful_coil.core.job.pasted import read_pasted
from careful_coil.core.job.ratings import Rating, rating_at, ratings_of, volts_at, with_further
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse

VOLTS_WANTED = "volts as printed, for example 400, 230/460 or 208-230/460"


@dataclass(frozen=True, slots=True, kw_only=True)
class Nameplate:
    """Figures of the plate; None where it was not read. `volts` are ranges, in rising order.

    `amps` the larger of a range each; `hertz` and `rpm` the first of several; `microfarad` of the
    capacitor it names; `power_side` whether the power is what goes in or what comes out, where that
    was asked; `ratings` all volts with their amps, hertz and speeds.
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
    power_side: str = ""
    ratings: tuple[Rating, ...] = ()
    as_printed: tuple[tuple[str, str], ...] = ()
    assumed: tuple[str, ...] = ()  # figures that are not from the plate: it cannot be read

    def at(self, volt: float, hertz: float) -> Rating | None:
        """Return the rating a supply is held against, None where none is near."""
        return rating_at(self.ratings, volt, hertz)

    def volts_at(self, hertz: float) -> tuple[tuple[float, float], ...]:
        """Return the volts of each connection at a frequency the plate rates, else its own."""
        return volts_at(self.volts, self.ratings, hertz)

    def hertz_at(self, hertz: float) -> float:
        """Return the rated frequency nearest to a supply's, the supply's where none is told."""
        rated = [r.hertz for r in self.ratings if r.hertz] or [self.hertz or hertz]
        return min(rated, key=lambda f: abs(f - hertz))

    @property
    def output_w(self) -> float | None:
        """Return the power at the shaft in W, None where the plate gives what is taken in."""
        return None if self.power_side == "in" else self.power_w

    @property
    def double_insulated(self) -> bool:
        """Whether nothing of it is earthed: class II by its mark, or III on extra-low volts."""
        return self.protection in ("II", "III")

    @property
    def protection(self) -> str:
        """Return the class of protection, I, II or III, empty where nobody says."""
        told = self.printed("protection").strip().upper().removeprefix("CLASS").strip()
        return PROTECTION.get(told, "")

    def printed(self, field: str) -> str:
        """Return a field as it was typed, or nothing."""
        return dict(self.as_printed).get(field, "")


def read_volts(text: str) -> tuple[tuple[float, float], ...]:
    """Return the rated volts of each connection, rising. Raises: BadValue."""
    found = []
    for part in re.sub(r"[Vv]\s*$", "", text.strip()).split("/"):
        found.append(span(part, Quantity.VOLTAGE, least=1, most=20000, wanted=VOLTS_WANTED))
    if sorted(found) != found:
        raise BadValue(text, VOLTS_WANTED + ", the lower first")
    return tuple(found)


PROTECTION = {"I": "I", "1": "I", "II": "II", "2": "II", "III": "III", "3": "III"}
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
    """Whether a field says that this part of the plate cannot be read, or is not printed there."""
    return text.strip().lower() in (UNREADABLE, "?") or not_printed(text)


def not_printed(text: str) -> bool:
    """Whether a field says that the plate does not have it."""
    return text.strip().lower() in ("none", "no", "-", "–", "not printed")


def nameplate(fields: dict[str, str]) -> Nameplate:
    """Return the plate; a field that cannot be read stays as printed and gives no figure."""
    figures: dict[str, Any] = {}
    for field, text in fields.items():
        if not text.strip() or unreadable(text):
            continue
        try:
            figures.update(_read(field, text))
        except BadValue:
            continue  # shown as printed; the ledger asks for it
    further = figures.pop("further", ())
    main = ratings_of(
        figures.get("volts", ()),
        figures.pop("amp_ends", ()),
        figures.pop("all_hertz", ()),
        figures.pop("all_rpm", ()),
    )
    return Nameplate(
        as_printed=tuple(sorted(fields.items())), ratings=with_further(main, further), **figures
    )


def _read(field: str, text: str) -> dict[str, object]:
    if field == "volt":
        return {"volts": read_volts(text)}
    if field == "ratings":
        return {"further": tuple(_further(p) for p in text.split(";") if p.strip())}
    if field == "power-side":
        if text.strip().lower() not in ("in", "out"):
            raise BadValue(text, "in (taken from the line) or out (given at the shaft)")
        return {"power_side": text.strip().lower()}
    if field == "protection":
        told = text.strip().upper().removeprefix("CLASS").strip()
        if told not in PROTECTION:
            raise BadValue(
                text, "I (earthed), II (a square within a square) or III (extra-low volts)"
            )
        return {}
    if field == "phases":
        if text.strip() not in ("1", "3"):
            raise BadValue(text, "1 or 3")
        return {"phases": int(text)}
    if field == "amp":
        ends = _amps(text)
        return {"amps": tuple(max(e) for e in ends), "amp_ends": ends}
    if field == "poles":
        wanted = "an even number of poles, 2 to 96 (poles, not pairs)"
        poles = whole(text, 2, 96, wanted)
        if poles % 2:
            raise BadValue(text, wanted)
        return {"poles": poles}
    if field == "code":
        if text.strip().upper() not in CODE_LETTERS or len(text.strip()) != 1:
            raise BadValue(text, "a code letter A to V, without I, O and Q")
        return {"code": text.strip().upper()}
    if field in _SHARES:
        return {field.replace("-", "_"): _share(text, *_SHARES[field])}
    if field == "capacitor":
        return {"microfarad": _microfarad(text.strip())}
    if field not in _FIGURES:
        return {}
    quantity, name = _FIGURES[field]
    if field == "rpm":  # 14,000-22,000: thousands, and of a controlled speed the highest
        text = re.sub(r"(?<=\d),(?=\d{3}\b)", "", text)
        text = "/".join(re.split(r"\s*(?:[-–]|\bto\b)\s*", p)[-1] for p in text.split("/"))
    parts = [text] if field == "power" else text.split("/")
    figures = tuple(parse(p, quantity).value for p in parts)
    if not all(f > 0 for f in figures):
        raise BadValue(text, "a figure above nothing")
    every: dict[str, object] = {} if field == "power" else {f"all_{name}": figures}
    return {name: figures[0], **every}


def _microfarad(text: str) -> float:
    """Return µF as printed: of a range its middle, of several sections the first. Raises: BadValue."""
    if re.fullmatch(r"[\d.,/ ]+", text) and in_full(text) == text:
        return 1e6 * parse(text.split("/", maxsplit=1)[0], Quantity.CAPACITANCE).value
    marking = read_marking(text)
    return (marking.low + marking.high) / 2


def _further(text: str) -> Rating:
    """Return one more rating, typed as `460 V 2.9 A 60 Hz 1720 rpm`. Raises: BadValue."""
    found = read_pasted(text)
    wanted = "a further rating, for example 460 V 2.9 A 60 Hz 1720 rpm; ; between two"
    fields = dict(found.fields)
    if len(found.left) == 1 and found.left[0].isdecimal() and "rpm" not in fields:
        fields["rpm"] = found.left[0]  # the one figure without a unit
    elif found.left:
        raise BadValue(text, wanted)
    if not {"volt"} <= set(fields) <= {"volt", "amp", "hertz", "rpm"}:
        raise BadValue(text, wanted)
    read = nameplate(fields)
    if len(read.ratings) != 1:
        raise BadValue(text, wanted)
    return read.ratings[0]


_FIGURES = {
    "hertz": (Quantity.FREQUENCY, "hertz"),
    "power": (Quantity.POWER, "power_w"),
    "rpm": (Quantity.SPEED, "rpm"),
}
_SHARES = {"power-factor": (0.1, 1.0), "service-factor": (0.8, 2.0)}


def _share(text: str, low: float, high: float) -> float:
    return figure(text, least=low, most=high, wanted=f"a figure {low:g} to {high:g}")


def _amps(text: str) -> tuple[tuple[float, ...], ...]:
    """Return the amps of each connection: one figure, or the ends of a range as printed."""
    found = []
    for part in re.sub(r"[Aa]\s*$", "", text.strip()).split("/"):
        ends = [parse(end, Quantity.CURRENT).value for end in re.split(r"\s*[-–]\s*", part.strip())]
        if not all(e > 0 for e in ends) or len(ends) > 2:
            raise BadValue(text, "amps as printed, for example 18/9 or 13.8-12.8/6.4")
        found.append(tuple(ends))
    return tuple(found)
