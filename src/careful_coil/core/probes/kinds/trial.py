"""A step of a test run: figures with their units in any order, words behind them."""

import re

from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure
from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.probes.turning import turning
from careful_coil.core.units import Quantity

WANTED = "volts, amps of each line, then what was read: 400 V 3.1/3.2/3.1 A 210 W 1493 rpm 31 °C 5 min smooth"
MOST, NOISE_SHARE = 1e6, 1e-3
AS_ASKED = 0.05  # share of the volts asked for within which a step is the one that was asked
_TOKEN = re.compile(
    r"(\d[\d.,'’/]*)\s*(V|A|kW|W|rpm|/min|°C|C|°F|F|min|s|N·?m)(?![A-Za-z])[,;]?\s*", re.IGNORECASE
)
# a unit → the place it fills, as it is written for the reader, the quantity
_UNITS: dict[str, tuple[str, str, Quantity]] = {
    "v": ("volt", "V", Quantity.VOLTAGE),
    "a": ("amp", "A", Quantity.CURRENT),
    "w": ("watt", "W", Quantity.POWER),
    "kw": ("watt", "kW", Quantity.POWER),
    "rpm": ("rpm", "rpm", Quantity.SPEED),
    "/min": ("rpm", "/min", Quantity.SPEED),
    "°c": ("celsius", "°C", Quantity.TEMPERATURE),
    "c": ("celsius", "°C", Quantity.TEMPERATURE),
    "°f": ("celsius", "°F", Quantity.TEMPERATURE),
    "f": ("celsius", "°F", Quantity.TEMPERATURE),
    "nm": ("newton_metre", "Nm", Quantity.TORQUE),
    "n·m": ("newton_metre", "Nm", Quantity.TORQUE),
    "min": ("minute", "min", Quantity.TIME),
    "s": ("minute", "s", Quantity.TIME),
}


def step_told(
    text: str, lines: int, instrument: str = "typed", volt: float = 0.0, minutes: float = 0.0
) -> Body:
    """Return a step as typed, with amps of so many lines or one for all. Raises: BadValue.

    Where it is asked for at `volt`, and after so many `minutes`, these need not be typed: a first figure
    without unit is the amps, the next, or one of three digits later, rpm; volts may stand before.
    """
    found: Body = {}
    rest = _with_units(text.strip()) if volt else text.strip()
    while (match := _TOKEN.match(rest) or _speed_of(rest, bool(volt))) is not None:
        place, unit, quantity = _UNITS[match[2].lower() or "rpm"]
        if place in found:
            raise BadValue(text, WANTED, f"{match[2] or match[1]} stands there twice.")
        least = -50.0 if place == "celsius" else 0.0
        most = 400.0 if place == "celsius" else MOST
        base = "min" if place == "minute" else ""
        wanted = "a temperature between -50 and 400 °C" if place == "celsius" else WANTED
        figures = [
            figure(f"{f} {unit}", quantity, unit=base, least=least, most=most, wanted=wanted)
            for f in match[1].strip("/").split("/")
        ]
        many = place in ("volt", "amp")
        if len(figures) not in ((1, lines) if many else (1,)):
            raise BadValue(text, WANTED, f"{len(figures)} figures before {match[2]}.")
        found[place] = tuple(figures) if many else figures[0]
        rest = rest[match.end() :]
    if volt and "amp" in found:
        volts = found.setdefault("volt", (volt,))
        if minutes and all(abs(v / volt - 1) <= AS_ASKED for v in volts):
            found.setdefault("minute", minutes)
    words = rest.split()
    if words and turning(words[0]):
        found["turns"] = turning(words.pop(0))
    if words and re.match(r"\d", words[0]):
        raise BadValue(text, WANTED, f"“{words[0]}” has no unit.")
    if not {"volt", "amp"} <= set(found):
        raise BadValue(text, WANTED)
    return {"kind": "trial-step", **found, "remark": " ".join(words), "instrument": instrument}


_VOLTS = re.compile(r"(\d[\d.,]*)\s*V[,;]?\s+(?=\d)|(\d[\d.,]*)\s+(?=\d[\d.,'’]*/)", re.IGNORECASE)
_AMPS = re.compile(r"(\d[\d.,'’/]*)(?=\s|$)\s*")
_SECOND = re.compile(r"\d[\d.,]*(?=\s|$)")
_SPEED = re.compile(r"(\d{3,}(?:[.,]\d)?)()(?=\s|$)\s*")


def _speed_of(rest: str, asked: bool) -> re.Match[str] | None:
    """Return a figure that can only be rpm: without unit, of three digits and more, its unit empty."""
    return _SPEED.match(rest) if asked else None


def _with_units(text: str) -> str:
    """Return a text with the units of its first figures: volts where amps of each line follow, amps, then rpm."""
    volts = _VOLTS.match(text)
    said = f"{volts[1] or volts[2]} V " if volts else ""
    rest = text[volts.end() :] if volts else text
    amps = _AMPS.match(rest)
    if amps is None or _TOKEN.match(rest):
        return said + rest
    rest = rest[amps.end() :]
    speed = _SECOND.match(rest)
    if speed is not None and not _TOKEN.match(rest):
        rest = f"{speed[0]} rpm{rest[speed.end() :]}"
    return f"{said}{amps[1]} A {rest}"


def _read(typed: Typing) -> Body:
    own = typed.request
    return step_told(typed.text, own.amps, typed.instrument, own.supply[1], own.minutes)


def _shown(bench: Bench, request: Request) -> Shown:
    """Return one step of a test run, in the words it is typed in."""
    minutes = bench.steps(request)
    amps, watt, rpm, turns = bench.rig(request).step(request.loaded)
    shown = "/".join(f"{a * bench.chance.gauss(1, NOISE_SHARE):.3g}" for a in amps.values())
    speed = f" {rpm:.0f} rpm" if rpm else ""
    text = f"{request.supply[1]:.0f} V {shown} A {watt:.0f} W{speed} {bench.warm(minutes):.0f} °C {minutes} min {turns}"
    return Shown(text=text, unit="")


PROBE = Probe(
    kind="trial",
    station="test-run",
    prompt="amps, rpm: 3.1 1493 smooth",
    asks=("step", "amps of each line, how it turns; watts, rpm, °C where they are read"),
    wants=("amp", "turns"),
    part="run",
    hooked="sheet",
    read=_read,
    shown=_shown,
)
