"""What is typed at the capacitor bench, read: each field as it is kept, or why it cannot be."""

import math
import re
from collections.abc import Collection, Sequence

from careful_coil.core.can_marking import read_marking
from careful_coil.core.errors import BadValue
from careful_coil.core.figures import dimensions, figure, kept
from careful_coil.core.gear.formulas import microfarad_from_amps
from careful_coil.core.gear.names import LETTERS, OTHER_LETTER, kind_named
from careful_coil.core.gear.table import POSITION, Expected
from careful_coil.core.job.at_start_gear import DeviceFitted, DeviceRead
from careful_coil.core.job.gear import Gear
from careful_coil.core.job.hands import free_name
from careful_coil.core.job.noted import Noted, note
from careful_coil.core.readings import ohm_value
from careful_coil.core.sheets.gear import LARGEST_MM, MOST_LEFT
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse
from careful_coil.core.ways.devices import POSTS

MOST_SECTIONS = 3
# what a meter shows that finds no µF
NO_FARAD = {
    "shorted": ("shorted", "short", "dead short", "0 ohm", "0 Ω", "0ω"),
    "open": (
        "open",
        "ol",
        "o.l",
        "inf",
        "infinite",
        "0",
        "0 µf",
        "0 uf",
        "nothing",
        "no reading",
        "∞",
    ),
}
SAME = "="  # as the plate has it
NOTHING = ("none", "no", "nothing", "-", "there is none", "no start gear")
RAW_OHM = 0.5  # what test leads that are not nulled may add


def part_name(text: str, example: str, others: Collection[str] = ()) -> str:
    """Return the name of a part; `others` those of parts of another sort. Raises: BadValue."""
    name = text.strip().upper()
    if not name or len(name) > 20 or not name[0].isalpha() or not name.replace("-", "").isalnum():
        raise BadValue(text, f"a name such as {example}")
    if name in others:
        raise BadValue(text, f"a name such as {example}", f"{name} is another part here.")
    return name


LISTED = (
    "each with what it is, ; between: 25 µF 450 V; centrifugal switch, a name before it where it has one: C2; "
    "or none"
)
_LONE = re.compile(r"[A-Za-z]\d{0,2}")  # a name, and not what it is
# what somebody says before the print of one
_CAN = re.compile(r"(?:(?:start|run)(?:ing)?[\s-]+)?cap(?:acitor)?\b[\s:,]*", re.I)
_POSTED = re.compile(r"\s+1[ ,]*(?:2[ ,]*M|M[ ,]*2)[ ,]*3$", re.I)  # terminals of a current relay
_NAMED = re.compile(r"(?P<name>[A-Za-z]|[A-Za-z][\w-]*\d[\w-]*)\s+(?P<rest>.+)")


def read_inventory(text: str, gear: Gear, plate: str = "") -> list[Noted | DeviceFitted]:
    """Return capacitors and devices as listed: `C1 25 µF 450 V; S1 centrifugal switch`, or none.

    What has no name is the one of the `gear` that is just so, else it gets the next name of its letter.
    = is the capacitor that the `plate` names. Raises: BadValue.
    """
    found: dict[str, Noted | DeviceFitted] = {}
    if text.strip().lower() in NOTHING:
        return [note("look", "capacitors", "none"), note("look", "speed-switch", "none")]
    known = {name: told.get("marking", "") for name, told in gear.capacitors.items()}
    known |= gear.devices
    for piece in (p.strip() for p in text.split(";")):
        if not piece or _LONE.fullmatch(piece):
            raise BadValue(piece, LISTED)
        own = _NAMED.fullmatch(piece)
        name, rest = (own["name"], own["rest"]) if own else ("", piece)
        can = _CAN.match(rest)
        rest = rest[can.end() :] if can else rest
        if not rest or (rest == SAME and not plate):
            raise BadValue(piece, "what stands on it, such as 25 µF 450 V")
        posts = _POSTED.search(rest)
        rest = rest[: posts.start()] if posts else rest
        marked = name[:1].upper() == "C" if name else rest == SAME or rest[0].isdigit()
        if not marked and "," in rest:
            raise BadValue(piece, LISTED)
        told = read_marking(plate if rest == SAME else rest).text if marked else kind_named(rest)
        if told == "relay-current" and not posts and re.search(r"\d", rest):
            raise BadValue(piece, "a current relay, its terminals 1 2 M 3 or L M S behind it")
        if not name:
            letter = "C" if marked else LETTERS.get(told, OTHER_LETTER)
            alike = [n for n, k in known.items() if k == told and n not in found]
            name = alike[0] if alike else free_name(letter, {**known, **found})
        name = part_name(name, "S1", found)
        if marked:
            found[name] = note("capacitor", "marking", told, of=name)
        else:
            found[name] = DeviceFitted.model_validate({"name": name, "device": told})
            if told == "relay-current" and posts:
                found[f"{name} posts"] = note("device-noted", "posts", " ".join(POSTS), of=name)
    return list(found.values())


def drained_of(text: str) -> str:
    """Return the volts DC left on it as kept: few enough to touch. Raises: BadValue."""
    volt = parse(text, Quantity.VOLTAGE).value
    if volt > MOST_LEFT:
        raise BadValue(
            text, f"at most {MOST_LEFT:g} V", "It still holds a charge: discharge it again."
        )
    return f"{volt:g}"


def microfarad_of(text: str) -> str:
    """Return µF, by sections with a stroke between, or by volts, amps and hertz; shorted or open.

    Raises: BadValue.
    """
    word = next((w for w, said in NO_FARAD.items() if text.strip().lower() in said), "")
    if word:
        return word
    if "/" in text:
        pieces = [p.strip() for p in text.split("/")]
        if len(pieces) > MOST_SECTIONS or not all(pieces):
            raise BadValue(text, "the µF of each section, such as 34.6/4.9")
        return "/".join(_farad(p, text) for p in pieces)
    parts = text.split()
    if len(parts) == 3:
        quantities = (Quantity.VOLTAGE, Quantity.CURRENT, Quantity.FREQUENCY)
        figures = [parse(p, q).value for p, q in zip(parts, quantities, strict=True)]
        return f"{microfarad_from_amps(*figures):.5g}"
    return _farad(text, text)


def _farad(piece: str, text: str) -> str:
    value = parse(piece, Quantity.CAPACITANCE)
    if value.number is None or value.value <= 0:
        raise BadValue(text, "µF in figures, volts, amps and hertz, or: shorted, open")
    return f"{value.value * 1e6:.6g}"


def loss_of(text: str, hertz: float | None, microfarad: float | None) -> str:
    """Return the loss as kept, in % of the volt-amperes, from % or from the ohms in series (ESR): tan δ = 2πf·C·R.

    `hertz` the plate's, `microfarad` the measured µF; ohms say nothing without. Raises: BadValue.
    """
    if text.endswith("%"):
        share = (
            figure(text, Quantity.SHARE, wanted="a loss such as 4 %, or the ohms in series") / 100
        )
    else:
        ohm = parse(text, Quantity.RESISTANCE).value
        if not hertz or not microfarad:
            raise BadValue(text, "the plate's hertz and its µF first, or the loss in %")
        share = 2 * math.pi * hertz * microfarad * 1e-6 * ohm
    if not 0 <= share < 1:
        raise BadValue(text, "a loss below 100 %: ohms in series, or %")
    return f"{100 * share:.4g} %"


def size_read(text: str) -> str:
    """Return diameter and length in mm as kept. Raises: BadValue."""
    wanted = f"diameter and length in mm, such as 37 x 70, each up to {LARGEST_MM:g}"
    wide, long = dimensions(text, 2, wanted, LARGEST_MM)
    return f"{kept(wide)} x {kept(long)}"


def size_of(text: str) -> tuple[float, float]:
    """Return diameter and length in mm of a kept size; 0 for none."""
    try:
        wide, long = (float(p) for p in text.split(" x "))
    except ValueError:
        return 0.0, 0.0
    return wide, long


def device_read(name: str, wanted: Expected, text: str, nulled: bool = True) -> DeviceRead:
    """Return the ohms of a device as typed; `nulled` whether the test leads were. Raises: BadValue."""
    value = ohm_value(text)
    ohm = value.value
    step = value.step if value.number is not None else 0.0
    return DeviceRead(
        name=name,
        between=wanted.between,
        when=wanted.when,
        ohm=None if ohm == float("inf") else ohm,
        left_open=step / 2 + (0.0 if nulled else RAW_OHM),
    )


POSITION_WANTED = "each pair that conducts with its ohms, such as L-3 0.05; L-2 0.04, or none"
_PAIR = re.compile(r"(?P<a>\w{1,6})\s*[-–]\s*(?P<b>\w{1,6})\s+(?P<ohm>.+)")


def position_read(
    name: str, wanted: Sequence[Expected], text: str, nulled: bool = True
) -> list[DeviceRead]:
    """Return every pair of a switch's terminals in one position: those named with their ohms, the others open.

    Raises: BadValue, also for a pair it does not have.
    """
    told: dict[frozenset[str], str] = {}
    if text.strip().lower() not in (*NOTHING, "open", "off"):
        for piece in (p.strip() for p in re.split(r"[;\n]|,\s", text) if p.strip()):
            found = _PAIR.fullmatch(piece)
            if found is None:
                raise BadValue(piece, POSITION_WANTED)
            told[frozenset((found["a"].upper(), found["b"].upper()))] = found["ohm"]
    pairs = {frozenset(t.upper() for t in e.between): e for e in wanted}
    strange = next((p for p in told if p not in pairs), None)
    if strange is not None:
        ends = sorted({t for e in wanted for t in e.between})
        raise BadValue("-".join(sorted(strange)), f"two of its terminals: {', '.join(ends)}")
    return [device_read(name, e, told.get(pair, "open"), nulled) for pair, e in pairs.items()]


def reading_typed(
    name: str, left: Sequence[Expected], text: str, nulled: bool = True
) -> list[DeviceRead]:
    """Return what was typed of the next reading: ohms of one pair, every pair of one position, or of all.

    All positions in one line bear their names: `0: none; 1: L-H 0.05; 2: L-M 0.04`. Raises: BadValue.
    """
    if not left[0].positional:
        return [device_read(name, left[0], text, nulled)]
    if ":" in text:
        return _by_position(name, left, text, nulled)
    return position_read(name, [e for e in left if e.when == left[0].when], text, nulled)


_NAMED_POSITION = re.compile(r"(?:^|[;\n])\s*([\w ]{1,12}):")


def _by_position(name: str, left: Sequence[Expected], text: str, nulled: bool) -> list[DeviceRead]:
    """Return the readings of every position that is named. Raises: BadValue for one it does not have."""
    known = dict.fromkeys(e.when for e in left)
    named = {when.removeprefix(POSITION).removesuffix(", off").lower(): when for when in known}
    pieces = _NAMED_POSITION.split(text)
    if pieces[0].strip():
        raise BadValue(
            pieces[0].strip(), f"a position first, such as {next(iter(named))}: {POSITION_WANTED}"
        )
    found: list[DeviceRead] = []
    for position, told in zip(pieces[1::2], pieces[2::2], strict=True):
        when = named.pop(position.strip().lower(), "")
        if not when:
            raise BadValue(position.strip(), f"one of its positions, each once: {', '.join(named)}")
        found += position_read(name, [e for e in left if e.when == when], told.strip(" ;"), nulled)
    return found


def let_go_at(text: str, field: str) -> str:
    """Return a speed or a time as it is kept. Raises: BadValue."""
    told = text.strip()
    if field == "out" and re.search(r"\d\s*(s|sec|ms)$", told.lower()):
        wanted = "seconds such as 1.4 s, or rpm such as 1150 rpm"
        return f"{kept(figure(told, Quantity.TIME, least=0.001, most=600, wanted=wanted))} s"
    wanted = "rpm such as 1150 rpm"
    return f"{kept(figure(told, Quantity.SPEED, least=0.001, wanted=wanted))} rpm"
