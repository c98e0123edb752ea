"""A step of a test run as it is typed: figures with their units in any order, words behind them."""

import re
from collections.abc import Sequence
from typing import cast

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_trial import Direction, Heard, TrialHeard, TrialStart, TrialStep
from careful_coil.core.values import Quantity, parse

WANTED = "volts, amps of each line, then what was read: 400 V 3.1/3.2/3.1 A 210 W 1493 rpm 31 °C 5 min smooth"
TURNS = ("smooth", "rough", "none")
_TOKEN = re.compile(
    r"(\d[\d.,/]*)\s*(V|A|kW|W|rpm|/min|°C|C|°F|F|min|s|N·?m)(?![A-Za-z])[,;]?\s*", re.IGNORECASE
)
_PLACE = {"v": "volt", "a": "amp", "w": "watt", "kw": "watt", "rpm": "rpm", "/min": "rpm"}
_PLACE |= {"°c": "celsius", "c": "celsius", "°f": "celsius", "f": "celsius"}
_PLACE |= {"nm": "newton_metre", "n·m": "newton_metre"}
_PLACE |= {"min": "minute", "s": "minute"}
_QUANTITY = {
    "volt": Quantity.VOLTAGE,
    "amp": Quantity.CURRENT,
    "watt": Quantity.POWER,
    "celsius": Quantity.TEMPERATURE,
}


def read_step(text: str, lines: int, instrument: str = "typed") -> TrialStep:
    """Return a step as typed, with amps of so many lines or one for all. Raises: BadValue."""
    found: dict[str, object] = {}
    rest = text.strip()
    while True:
        match = _TOKEN.match(rest)
        if match is None:
            break
        place = _PLACE[match[2].lower()]
        if place in found:
            raise BadValue(text, WANTED, f"{match[2]} stands there twice.")
        figures = [_figure(f, match[2], place, text) for f in match[1].strip("/").split("/")]
        many = place in ("volt", "amp")
        if len(figures) not in ((1, lines) if many else (1,)):
            raise BadValue(text, WANTED, f"{len(figures)} figures before {match[2]}.")
        found[place] = tuple(figures) if many else figures[0]
        rest = rest[match.end() :]
    words = rest.split()
    if words and words[0].lower() in TURNS:
        found["turns"] = words.pop(0).lower()
    if words and re.match(r"\d", words[0]):
        raise BadValue(text, WANTED, f"“{words[0]}” has no unit.")
    if not {"volt", "amp"} <= set(found):
        raise BadValue(text, WANTED)
    if "celsius" in found and not -50 <= float(str(found["celsius"])) <= 400:
        raise BadValue(text, "a temperature between -50 and 400 °C")
    told = {**found, "remark": " ".join(words), "instrument": instrument}
    return TrialStep.model_validate(told)


def step_words(step: TrialStep) -> str:
    """Return a step as it is listed and printed: V, A, W, rpm, °C, minutes, how it turned, the remark."""
    told = [f"{_figures(step.volt)} V", f"{_figures(step.amp)} A"]
    for value, unit in (
        (step.watt, "W"),
        (step.rpm, "rpm"),
        (step.celsius, "°C"),
        (step.minute, "min"),
        (step.newton_metre, "Nm"),
    ):
        if value is not None:
            told.append(f"{value:.6g} {unit}")
    return ", ".join([*told, *(t for t in (step.turns, step.remark) if t)])


def _figures(values: Sequence[float]) -> str:
    return "/".join(f"{v:g}" for v in values)


def _figure(number: str, unit: str, place: str, text: str) -> float:
    if place in ("rpm", "minute", "newton_metre"):
        try:
            value = float(number.replace(",", "."))
        except ValueError:
            raise BadValue(text, WANTED) from None
        value = value / 60 if unit.lower() == "s" else value
    else:
        shown = f"°{unit.upper()}" if place == "celsius" and len(unit) == 1 else unit
        shown = {"v": "V", "a": "A", "w": "W", "kw": "kW"}.get(shown.lower(), shown)
        value = parse(f"{number} {shown}", _QUANTITY[place]).value
    if place != "celsius" and not 0 <= value <= 1e6:
        raise BadValue(text, WANTED)
    return value


START_WANTED = "what became of it, seconds, rpm if read: dropped out 0.8 s 1120 rpm (or turns, stalled, tripped)"
_START = re.compile(
    r"(turns|dropped out|stalled|tripped)\s+([\d.,]+)\s*s(?:\s+(\d+)\s*rpm)?", re.IGNORECASE
)


def read_start(text: str, volt: float) -> TrialStart:
    """Return a timed start at `volt` as typed. Raises: BadValue."""
    found = _START.fullmatch(text.strip())
    if found is None:
        raise BadValue(text, START_WANTED)
    try:
        seconds = float(found[2].replace(",", "."))
    except ValueError:
        raise BadValue(text, START_WANTED) from None
    if not 0 <= seconds <= 3600:
        raise BadValue(text, "seconds, up to 3600")
    return TrialStart.model_validate(
        {
            "volt": volt,
            "outcome": found[1].lower(),
            "seconds": seconds,
            "rpm": float(found[3]) if found[3] else None,
        }
    )


def heard_of(what: Heard, text: str) -> TrialHeard:
    """Return what was read when it began to turn (V) or the device came back in (rpm). Raises: BadValue."""
    told = text.strip()
    unit, wanted = (
        ("V", "volts it turns from: 48 V")
        if what == "starts-turning"
        else (
            "rpm",
            "rpm at which it came back in: 620 rpm",
        )
    )
    figure = told.removesuffix(unit).strip().replace(",", ".")
    if not re.fullmatch(r"\d{1,5}(\.\d+)?", figure):
        raise BadValue(text, wanted)
    return TrialHeard(what=what, text=f"{float(figure):g} {unit}")


def sheet_of(text: str, speeds: Sequence[str]) -> tuple[str, Direction]:
    """Return speed and direction of a sheet as typed: one of its speeds, cw or ccw. Raises: BadValue."""
    speed, turns = "", ""
    for word in text.lower().split():
        if word in speeds and not speed:
            speed = word
        elif word in ("cw", "ccw") and not turns:
            turns = word
        else:
            raise BadValue(text, f"{', '.join([*speeds, 'cw or ccw'])}, or nothing")
    return speed, cast(Direction, turns)
