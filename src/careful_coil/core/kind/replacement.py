"""The replacement card: all that a replacement must match, and whether another plate's motor would."""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.figures import all_in
from careful_coil.core.job import Job
from careful_coil.core.job.plate import Nameplate, nameplate
from careful_coil.core.kind.kinds import KINDS
from careful_coil.core.kind.weigh import SETTLED, Weighed
from careful_coil.core.winding.speed import poles_of

Answer = Literal["good", "watch", "hold", "unproven"]

VOLT_APART = 0.10  # NEMA MG 1, 12.44: rated volts ±10 %
EDGE_APART = 0.05  # IEC 60034-1: zone A
MUCH_LARGER = 1.5  # over this the load, cable and protection no longer suit
SHAFT_APART_MM = 0.05

# lines that the plate does not give: name, title, what is wanted
LINES_TYPED: dict[str, tuple[str, str]] = {
    "kind": ("Kind", "capacitor-start"),
    "rotation": ("Rotation and its end", "CW from the drive end, or reversible"),
    "mounting": ("Mounting", "foot, face, cradle"),
    "frame": ("Frame", "90L"),
    "shaft": ("Shaft in mm", "24x50"),
    "flats": ("Flats, key, thread", "key 8"),
    "shaft-ends": ("Shaft ends", "one"),
    "speeds": ("Speeds", "1"),
    "capacitor": ("Capacitor", "25 µF 450 V"),
    "protector": ("Protector", "automatic"),
    "duty": ("Duty", "S1"),
    "enclosure": ("Enclosure", "IP55"),
    "plug": ("Plug", "none"),
    "control": ("Works with which control", "drive, none, brush control"),
}
PLATE_LINES = ("phases", "volt", "hertz", "amp", "power", "rpm", "poles")


@dataclass(frozen=True, slots=True)
class Line:
    """A line of the card: what must match, what the other offers, whether it serves and why."""

    title: str
    wanted: str
    offered: str
    answer: Answer
    why: str


def wanted_of(job: Job, kinds: Weighed) -> dict[str, str]:
    """Return what this motor needs, by line: plate, kind, and what was typed, which wins."""
    found = {
        f: t for f, t in job.plate.as_printed if f in (*PLATE_LINES, *LINES_TYPED) and t.strip()
    }
    best = kinds.odds[0]
    if best.probability >= SETTLED:
        found["kind"] = best.kind.name
    return {**found, **job.seen.wanted}


def card_of(job: Job, kinds: Weighed) -> tuple[Line, ...]:
    """Return the card, line by line; without another plate every line is only what is wanted."""
    wanted, offered = wanted_of(job, kinds), dict(job.seen.offered)
    return (*_plate_lines(wanted, offered), *_typed_lines(wanted, offered))


def serves(lines: tuple[Line, ...]) -> tuple[Answer, str]:
    """Return whether the other motor would serve, and what speaks against it or is not known."""
    bad = [x.title.lower() for x in lines if x.answer == "hold"]
    open_ = [x.title.lower() for x in lines if x.answer == "unproven"]
    watch = [x.title.lower() for x in lines if x.answer == "watch"]
    if bad:
        return "hold", f"It does not serve: {', '.join(bad)}."
    if open_:
        return "unproven", f"Not known yet: {', '.join(open_)}."
    return (
        ("watch", f"It serves, with an eye on {', '.join(watch)}.")
        if watch
        else ("good", "It serves.")
    )


def _plate_lines(wanted: Mapping[str, str], offered: Mapping[str, str]) -> Iterator[Line]:
    here, there = _plate(wanted), _plate(offered)
    yield _line("Phases", wanted, offered, "phases", _phases(here, there))
    yield _line("Volts", wanted, offered, "volt", _volts(here, there))
    yield _line("Hertz", wanted, offered, "hertz", _hertz(here, there))
    yield _line("Power", wanted, offered, "power", _power(here, there))
    speed = "rpm" if "rpm" in wanted or "rpm" in offered else "poles"
    yield _line("Poles, by its speed", wanted, offered, speed, _poles(here, there))


def _plate(fields: Mapping[str, str]) -> Nameplate:
    return nameplate({k: v for k, v in fields.items() if k in PLATE_LINES})


Told = tuple[Answer, str]
NOT_TOLD: Told = ("unproven", "Not known of both.")


def _phases(here: Nameplate, there: Nameplate) -> Told:
    if not here.phases or not there.phases:
        return NOT_TOLD
    same = here.phases == there.phases
    return ("good", "") if same else ("hold", "Another supply, or a drive.")


def _volts(here: Nameplate, there: Nameplate) -> Told:
    if not here.volts or not there.volts:
        return NOT_TOLD
    other = there.hertz if there.hertz and here.hertz else 0.0
    ratio = (
        here.hertz / other if other and here.hertz else 1.0
    )  # volts per hertz: a plate's go along
    offered = [(w[0] * min(ratio, 1.0), w[1] * ratio) for w in there.volts]
    missing = [v for v in here.volts if not any(_near(v, w, VOLT_APART) for w in offered)]
    if not missing:
        far = [v for v in here.volts if not any(_near(v, w, EDGE_APART) for w in offered)]
        if not far:
            return "good", ""
        return "watch", f"{far[0][0]:g} V is at the edge of its plate: {_edge(far[0], offered)}"
    if len(missing) < len(here.volts):
        return "watch", f"Not for {missing[0][0]:g} V: good only where that is not the supply."
    return "hold", "Not for these volts."


def _edge(volts: tuple[float, float], offered: Sequence[tuple[float, float]]) -> str:
    """Return what volts near the end of a plate's mean: torque goes with their square."""
    nearest = min(offered, key=lambda w: abs(sum(w) - sum(volts)))
    if volts[1] < nearest[0]:
        return f"{(volts[1] / nearest[0]) ** 2:.2f} of its torque, warmer under full load."
    return "more iron loss, warmer without load."


def _near(one: tuple[float, float], two: tuple[float, float], apart: float) -> bool:
    return two[0] * (1 - apart) <= one[1] and one[0] <= two[1] * (1 + apart)


def _hertz(here: Nameplate, there: Nameplate) -> Told:
    if not here.hertz or not there.hertz:
        return NOT_TOLD
    rated = {r.hertz for r in there.ratings if r.hertz} | {there.hertz}
    if here.hertz in rated:
        return "good", ""
    times = here.hertz / (there.hertz or here.hertz)
    fits = _volts(here, there)[0] in ("good", "watch")
    if fits and here.volts and there.volts:
        words = f"At {here.hertz:g} Hz it runs at × {times:.2f} of its speed and gives × {times:.2f} of its power"
        return "watch", f"{words}: power, load and fan must suit."
    return "hold", f"At {here.hertz:g} Hz its speed and flux are others."


def _power(here: Nameplate, there: Nameplate) -> Told:
    if not here.power_w or not there.power_w:
        return NOT_TOLD
    ratio = there.power_w / here.power_w
    if ratio < 0.98:
        return "hold", f"Only {100 * ratio:.0f} % of the power."
    if ratio > MUCH_LARGER:
        return "watch", "Much larger: amps at start, protection and cable change."
    return "good", ""


def _poles(here: Nameplate, there: Nameplate) -> Told:
    one, two = _pole_count(here), _pole_count(there)
    if one is None or two is None:
        return NOT_TOLD
    return ("good", f"{one} poles") if one == two else ("hold", f"{two} poles for {one}.")


def _pole_count(plate: Nameplate) -> int | None:
    if plate.poles:
        return plate.poles
    if not plate.rpm or not plate.hertz:
        return None
    try:
        return poles_of(plate.hertz, plate.rpm)
    except ValueOutOfRange:
        return None


def _typed_lines(wanted: Mapping[str, str], offered: Mapping[str, str]) -> Iterator[Line]:
    tests = {"kind": _kind, "shaft": _shaft, "enclosure": _enclosure, "control": _control}
    for name, (title, _) in LINES_TYPED.items():
        if name not in wanted and name not in offered:
            continue
        one, two = wanted.get(name, ""), offered.get(name, "")
        if not one:
            told: Told = ("unproven", "What this motor needs is not known.")
        elif not two and name != "control":
            told = ("unproven", "The other does not say.")
        else:
            told = tests.get(name, _same)(one, two)
        if name == "control" and _brush_control(one):
            told = _control(one, offered.get("kind", "") or wanted.get("kind", ""))
        yield _line(title, wanted, offered, name, told)


def _same(one: str, two: str) -> Told:
    if "reversible" in two.lower():
        return "good", "It can be reversed."
    same = re.sub(r"\W", "", one).lower() == re.sub(r"\W", "", two).lower()
    return ("good", "") if same else ("hold", "Not the same.")


def _kind(one: str, two: str) -> Told:
    if one == two:
        return "good", ""
    here, there = KINDS.get(one), KINDS.get(two)
    if here is None or there is None:
        return _same(one, two)
    if here.torque and there.torque:
        if there.torque[1] < here.torque[0]:
            return "hold", "It starts with less torque than this one."
        return "watch", "Another kind: starting torque, slowing and control must suit."
    return "hold", "Another kind of motor."


def _shaft(one: str, two: str) -> Told:
    sizes = [all_in(t) for t in (one, two)]
    if not all(sizes):
        return _same(one, two)
    if abs(sizes[0][0] - sizes[1][0]) > SHAFT_APART_MM:
        return "hold", f"{sizes[1][0]:g} mm for {sizes[0][0]:g} mm."
    if len(sizes[0]) > 1 and len(sizes[1]) > 1 and sizes[1][1] < sizes[0][1]:
        return "watch", f"{sizes[1][1]:g} mm long, {sizes[0][1]:g} mm wanted."
    return "good", ""


def _enclosure(one: str, two: str) -> Told:
    digits = [re.search(r"IP\s?(\d)(\d)", t, re.I) for t in (one, two)]
    if digits[0] is None or digits[1] is None:
        return _same(one, two)
    worse = [b < a for a, b in zip(digits[0].groups(), digits[1].groups(), strict=True)]
    return ("hold", "It lets in more than this one.") if any(worse) else ("good", "")


def _brush_control(text: str) -> bool:
    return "brush" in text.lower()


def _control(one: str, two: str) -> Told:
    kind = KINDS.get(two)
    if (
        _brush_control(one)
        and kind is not None
        and kind.name not in ("universal", "dc-magnet", "dc-wound")
    ):
        return "hold", "A control made for brush motors cannot slow an induction motor."
    return "good", ""


def _line(
    title: str, wanted: Mapping[str, str], offered: Mapping[str, str], name: str, told: Told
) -> Line:
    return Line(title, _shown(name, wanted), _shown(name, offered), *told)


def _shown(name: str, side: Mapping[str, str]) -> str:
    """Return a line's text, a kind by its plain name."""
    text = side.get(name, "")
    return KINDS[text].title if name == "kind" and text in KINDS else text
