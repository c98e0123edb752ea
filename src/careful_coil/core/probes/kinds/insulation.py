"""Insulation resistance: one minute's figure, or the curve over ten."""

import re
from dataclasses import dataclass

from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure, with_unit
from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.units import Quantity
from careful_coil.core.values import Qualifier, parse, show_ohm

# seconds that a list of so many figures stands for
TIMES: dict[int, tuple[float, ...]] = {
    1: (60,),
    3: (15, 30, 60),
    4: (15, 30, 60, 600),
    10: tuple(60.0 * k for k in range(1, 11)),
    12: (15, 30, 60, *(60.0 * k for k in range(2, 11))),
}
MINUTE, LONGEST = 60.0, 7200
HIGHEST_MEGOHM = 1e7
ABSORPTION = 0.75  # how the bench motor's absorption current fades: t to the minus this
WANTED = (
    "MΩ: 550, 0.4, 320 k, >2 G; or 15/30/60 s as 120/180/260, a fourth for 10 min; "
    "or with times: 30s 180 60s 260 10m 900"
)
NO_CELSIUS = "the winding's temperature first: type it on the Insulation station"
_TIME = re.compile(r"(\d+(?:[.,]\d+)?)(sec|s|min|m)\s+(?=[>\d])")  # 30s 180: no blank inside a time
_TAIL = re.compile(r"[\d.,]\s*([kMGT]?\s*(?:Ω|ohm)?)$")


@dataclass(frozen=True, slots=True, kw_only=True)
class TypedTest:
    """One minute's MΩ, whether it is only a least, and the readings (s, MΩ) where there are several."""

    megohm: float
    above: bool
    readings: tuple[tuple[float, float], ...]


def read_insulation(text: str) -> TypedTest:
    """Return a test typed in one line. Raises: BadValue, AmbiguousValue."""
    plain = text.strip()
    timed = _timed(plain)
    if timed is None:
        parts = [p.strip() for p in plain.split("/")]
        if len(parts) not in TIMES:
            raise BadValue(text, WANTED, f"{len(parts)} figures have no times of their own.")
        found = _TAIL.search(parts[-1])
        tail = found[1].strip() if found else ""
        timed = list(zip(TIMES[len(parts)], (with_unit(p, tail) for p in parts), strict=True))
    if len(timed) == 1 and timed[0][0] == MINUTE:
        value, above = megohm_of(timed[0][1], text)
        return TypedTest(megohm=value, above=above, readings=())
    readings = []
    for second, told in timed:
        value, above = megohm_of(told, text)
        if above:
            raise BadValue(
                text, WANTED, "Where the tester's range ends one figure is all there is."
            )
        readings.append((float(second), value))
    seconds = [s for s, _ in readings]
    if len(set(seconds)) < len(seconds) or seconds != sorted(seconds) or seconds[0] <= 0:
        raise BadValue(text, WANTED, "Times must rise.")
    if seconds[-1] > LONGEST:
        raise BadValue(text, WANTED, "Two hours at most.")
    known = dict(readings)
    if MINUTE not in known:
        raise BadValue(text, WANTED, "The figure after 60 s is what counts; it is missing.")
    return TypedTest(megohm=known[MINUTE], above=False, readings=tuple(readings))


def _timed(text: str) -> list[tuple[float, str]] | None:
    """Return `30s 180 60s 260` as times and figures; None where no time stands in front."""
    if not _TIME.match(text):
        return None
    marks = list(_TIME.finditer(text))
    marks = [m for m in marks if m.start() == 0 or text[m.start() - 1] in " ,;:/"]
    found = []
    for k, mark in enumerate(marks):
        end = marks[k + 1].start() if k + 1 < len(marks) else len(text)
        second = figure(f"{mark[1]} {mark[2]}", Quantity.TIME)
        found.append((second, text[mark.end() : end].strip(" ,;:/")))
    return found


def megohm_of(text: str, whole: str) -> tuple[float, bool]:
    """Return MΩ and whether it is only a least. Raises: BadValue, AmbiguousValue."""
    value = parse(text, Quantity.INSULATION)
    if value.number is None:
        raise BadValue(whole, WANTED + "; where the tester's range ends, > and that range")
    megohm = value.value / 1e6
    if megohm > HIGHEST_MEGOHM:
        raise BadValue(whole, WANTED)
    return megohm, value.qualifier is Qualifier.ABOVE


def tested(test: TypedTest, typed: Typing) -> Body:
    """Return the entry of a test of what the probes are on. Raises: BadValue without the winding's °C."""
    setting, asked = typed.setting, typed.request
    if setting.at_c is None:
        raise BadValue(f"{test.megohm:g} MΩ", NO_CELSIUS)
    on = asked if asked.kind == "insulation" else None
    return {
        "kind": "insulation",
        "megohm": test.megohm,
        "at_c": setting.at_c,
        "test_volt": setting.volt,
        "above": test.above,
        "parts": on.ends if on else (),
        "against": on.sense if on else (),
        "others": setting.others,
        "readings": test.readings,
        "air_c": setting.air_c,
        "humidity_percent": setting.humidity,
    }


def _read(typed: Typing) -> Body:
    return tested(read_insulation(typed.text), typed)


def _shown(bench: Bench, request: Request) -> Shown:
    """Return MΩ after so many seconds: absorption fades, leakage stays."""
    share, seconds = bench.motor.leak_share, max(request.seconds, 1.0)
    current = share + (1 - share) * (seconds / MINUTE) ** -ABSORPTION
    megohm = bench.motor.frame_megohm / current * bench.chance.gauss(1, 0.005)
    return Shown(text=show_ohm(1e6 * megohm), unit="MΩ")


PROBE = Probe(
    kind="insulation",
    station="insulation",
    prompt="one minute, or longer",
    asks=("insulation", "megohms after a minute"),
    unit="MΩ",
    against=("frame",),
    read=_read,
    shown=_shown,
)
