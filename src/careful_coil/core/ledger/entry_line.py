"""What is typed on the meter strip, understood: pure, so that it can be tested alone."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from careful_coil.core.condition.typed import TypedTest, read_insulation
from careful_coil.core.errors import BadValue
from careful_coil.core.job import AnyBody, Job
from careful_coil.core.job.at_connect import LeadClamped, LowRun, StepOhm
from careful_coil.core.job.at_insulation import EarthBond, InsulationTested
from careful_coil.core.job.entries import (
    LineOhm,
    ReadingMoved,
    ReadingTaken,
    RoleKnown,
    Struck,
    TagsSwapped,
)
from careful_coil.core.job.fold import reading_of
from careful_coil.core.mechanics.typed import bars_read
from careful_coil.core.probes import Request
from careful_coil.core.readings import (
    End,
    Frame,
    Kick,
    RequestKind,
    Resistance,
    Run,
    Series,
    Shaft,
    Spin,
    Switch,
)
from careful_coil.core.trial.typed import heard_of, read_start, read_step
from careful_coil.core.values import BenchValue, Quantity, parse, show

LINES = ("L1", "L2", "L3")
KICK_WORDS = ("up-large", "up-small", "none", "down-small", "down-large")
SWITCH_WORDS = ("opens", "closes", "changes", "stays")
SHAFT_WORDS = ("varies", "steady")
TURN_WORDS = ("smooth", "rough", "none")
TEST_WORDS = {"kick": KICK_WORDS, "switch": SWITCH_WORDS, "shaft": SHAFT_WORDS}
UNITS = {
    **dict.fromkeys(("resistance", "frame", "line", "bond", "bar", "step"), "Ω"),
    "spin": "V",
    "clamp": "A",
    "insulation": "MΩ",
}
ROLES = (
    *("common", "run", "start", "high", "medium", "low", "tap", "main", "aux", "neutral"),
    *("field", "field-tap", "armature", "tachometer", "thermostat", "thermistor", "rtd", "heater"),
    *("capacitor", "switch", "protector", "brake", "empty", "junction"),
)


@dataclass(frozen=True, slots=True)
class Typed:
    """Where a typed text goes and the text of the value."""

    target: Request
    value: str


def split(text: str, target: Request | None, tags: Sequence[str]) -> Typed:
    """Return target and value of a typed line; a pair in front goes before the suggestion.

    `AF 3.92`, `A F 3.92`, `A frame open`, `3.92`. Raises: BadValue.
    """
    words = text.split()
    pair, rest = _pair(words, tags)
    if pair is not None:
        if not rest:
            raise BadValue(text, "a value after the pair, for example AF 3.92")
        kind: RequestKind = "frame" if len(pair) == 1 else "resistance"
        return Typed(Request(kind=kind, ends=pair), " ".join(rest))
    if target is None:
        raise BadValue(text, "two leads and a value, for example AF 3.92")
    return Typed(target, text.strip())


def _pair(words: list[str], tags: Sequence[str]) -> tuple[tuple[str, ...] | None, list[str]]:
    known = {t.upper(): t for t in tags}
    first = words[0].upper() if words else ""
    if len(words) > 1 and first in known and words[1].lower() in ("frame", "pe"):
        return (known[first],), words[2:]
    if len(words) > 1 and first in known and words[1].upper() in known and len(words) > 2:
        return (known[first], known[words[1].upper()]), words[2:]
    for cut in range(1, len(first)):
        if first[:cut] in known and first[cut:] in known and first[:cut] != first[cut:]:
            if not re.search(r"[A-Z]", first):
                return None, words  # numbered tags run together would swallow figures
            return (known[first[:cut]], known[first[cut:]]), words[1:]
    return None, words


def swept(text: str, tags: Sequence[str]) -> str | None:
    """Return the lead of `sweep A`, empty for `sweep off`, None when it is no sweep. Raises: BadValue."""
    words = text.split()
    if not words or words[0].lower() != "sweep":
        return None
    by_name = {t.upper(): t for t in tags} | {"OFF": ""}
    if len(words) != 2 or words[1].upper() not in by_name:
        raise BadValue(text, "a lead, for example sweep A, or sweep off")
    return by_name[words[1].upper()]


def command(text: str, job: Job) -> AnyBody | None:
    """Return the entry of a typed command, or None when the text is a value.

    `move AF AH`, `swap A B`, `strike AF dirty clip`, `know B common`. Raises: BadValue.
    """
    words = text.split()
    verb = words[0].lower() if words else ""
    if verb == "know":
        return known_of(" ".join(words[1:]), job.tags)
    wanted = {"move": "move AF AH", "swap": "swap A B", "strike": "strike AF dirty clip"}.get(verb)
    if wanted is None:
        return None
    if verb == "swap":
        known = {t.upper(): t for t in job.tags}
        tags = [known.get(w.upper()) for w in words[1:]]
        if len(tags) != 2 or None in tags or tags[0] == tags[1]:
            raise BadValue(text, f"two tags, for example {wanted}")
        return TagsSwapped(tags=(str(tags[0]), str(tags[1])))
    pair, rest = _pair([*words[1:], ""], job.tags)
    taken = reading_of(job, pair[0], pair[1]) if pair and len(pair) == 2 else None
    if taken is None:
        raise BadValue(text, f"a pair that has a reading, for example {wanted}")
    rest = [w for w in rest if w]
    if verb == "strike":
        return Struck(target=taken.entry, reason=" ".join(rest) or "mistake")
    to, more = _pair([*rest, ""], job.tags)
    if to is None or len(to) != 2 or any(more):
        raise BadValue(text, f"the pair it really was of, for example {wanted}")
    return ReadingMoved(target=taken.entry, between=(to[0], to[1]))


def known_of(text: str, tags: Sequence[str]) -> RoleKnown:
    """Return a role told as `B common`; `B nothing` takes it back. Raises: BadValue."""
    words = text.split()
    by_name = {t.upper(): t for t in tags}
    tag = by_name.get(words[0].upper()) if len(words) == 2 else None
    role = words[-1] if words else ""
    number = re.fullmatch(r"[Tt]([1-9]|1[0-3])", role)
    if tag is None or not (number or role.lower() in (*ROLES, "nothing")):
        wanted = "a tag and its role, for example B common, A T1, or B nothing to take it back"
        raise BadValue(text, wanted)
    told = role.upper() if number else role.lower()
    return RoleKnown(tag=tag, role="" if told == "nothing" else told)


@dataclass(frozen=True, slots=True, kw_only=True)
class TestSetting:
    """What a test is made under: the winding's °C, test volts, air and humidity, the other windings."""

    __test__ = False  # the name is not that of a test
    at_c: float | None = None
    volt: float = 500.0
    others: Literal["earthed", "guarded", "loose"] = "earthed"
    air_c: float | None = None
    humidity: float | None = None

    def test(self, typed: TypedTest, target: Request | None) -> InsulationTested:
        """Return the entry of a test of what the target has under test. Raises: BadValue."""
        if self.at_c is None:
            wanted = "the winding's temperature first: type it on the Insulation station"
            raise BadValue(f"{typed.megohm:g} MΩ", wanted)
        asked = target if target is not None and target.kind == "insulation" else None
        return InsulationTested(
            megohm=typed.megohm,
            at_c=self.at_c,
            test_volt=self.volt,
            above=typed.above,
            parts=asked.ends if asked else (),
            against=asked.sense if asked else (),
            others=self.others,
            readings=typed.readings,
            air_c=self.air_c,
            humidity_percent=self.humidity,
        )


PLAIN_SETTING = TestSetting()


def body_of(typed: Typed, *, instrument: str, setting: TestSetting = PLAIN_SETTING) -> AnyBody:
    """Return the log entry of a value. Raises: BadValue, AmbiguousValue with what is wanted."""
    target, text, temperature_c = typed.target, typed.value, setting.at_c
    if target.kind == "switch":
        word = _choice(text, SWITCH_WORDS)
        reading = Switch(between=_two(target.ends), value=word)
        return ReadingTaken(reading=reading, instrument=instrument, temperature_c=temperature_c)
    if target.kind == "shaft":
        word = _choice(text, SHAFT_WORDS)
        turned = Shaft.model_validate({"between": _two(target.ends), "value": word})
        return ReadingTaken(reading=turned, instrument=instrument, temperature_c=temperature_c)
    if target.kind == "spin":
        volts = Spin(between=_two(target.ends), volt=max(parse(text, Quantity.VOLTAGE).value, 0.0))
        return ReadingTaken(reading=volts, instrument=instrument, temperature_c=temperature_c)
    if target.kind == "kick":
        word = _choice(text, KICK_WORDS)
        kick = Kick(source=_two(target.ends), sense=_two(target.sense), value=word)
        return ReadingTaken(reading=kick, instrument=instrument, temperature_c=temperature_c)
    if target.kind == "series":
        tied = series_of(text, target)
        return ReadingTaken(reading=tied, instrument=instrument, temperature_c=temperature_c)
    if target.kind == "run":
        ran = run_of(text, target)
        return ReadingTaken(reading=ran, instrument=instrument, temperature_c=temperature_c)
    if target.kind == "insulation":
        return setting.test(read_insulation(text), target)
    if target.kind == "low-run":
        return low_run_of(text, 3 if target.supply[0] == 3 else 1)
    if target.kind == "trial":
        return read_step(text, 3 if target.supply[0] == 3 else 1, instrument)
    if target.kind == "start":
        return read_start(text, target.nominal)
    if target.kind in ("turning", "drop-in"):
        return heard_of("starts-turning" if target.kind == "turning" else "drop-in", text)
    if target.kind == "clamp":
        return clamped_of(text, target.ends[0])
    value = parse(text, Quantity.RESISTANCE)
    if target.kind == "bond":
        return EarthBond(
            ohm=_figure(value, text),
            place=target.ends[-1],
            step_ohm=value.step,
        )
    if target.kind == "bar":
        return bars_read(text, int(target.ends[0].removeprefix("bar ")))
    shown = _as_kept(value)
    if target.kind == "step":
        return StepOhm(between=_two(target.ends), value=shown)
    if target.kind == "line":
        return LineOhm(lines=_two(target.ends), value=shown)
    if target.kind == "frame":
        frame = Frame(lead=target.ends[0], value=shown)
        return ReadingTaken(reading=frame, instrument=instrument, temperature_c=temperature_c)
    a, b = _two(target.ends)
    ohms = Resistance(between=(a, (b, *target.also) if target.also else b), value=shown)
    return ReadingTaken(reading=ohms, instrument=instrument, temperature_c=temperature_c)


COIL_WANTED = "leads or lines, then ohms: AD 0.5093, L1 L2 1.02, A B+C 0.38"


def coil_ohm_of(text: str, tags: Sequence[str]) -> tuple[tuple[End, End], float, float]:
    """Return the ends, Ω and the step of the digits of a reading for the balance. Raises: BadValue."""
    known = (*tags, *LINES)
    words = text.split()
    if len(words) == 3 and "+" in words[0] + words[1]:
        by_name = {t.upper(): t for t in known}
        ends = [[by_name.get(w.upper(), "") for w in word.split("+")] for word in words[:2]]
        flat = [t for e in ends for t in e]
        if not all(flat) or len(set(flat)) < len(flat):
            raise BadValue(text, COIL_WANTED)
        pair = tuple(e[0] if len(e) == 1 else tuple(e) for e in ends)
        rest = words[2]
    else:
        found, left = _pair(words, known)
        if found is None or len(found) != 2 or not left:
            raise BadValue(text, COIL_WANTED)
        pair, rest = found, " ".join(left)
    value = parse(rest, Quantity.RESISTANCE)
    if value.number is None or value.qualifier is not None or value.value <= 0:
        raise BadValue(text, COIL_WANTED)
    return (pair[0], pair[1]), value.value, value.step


SERIES_WANTED = "volts put on, then volts read: 12 V 23.1"


def series_of(text: str, target: Request) -> Series:
    """Return a series test as typed. Raises: BadValue."""
    found = re.fullmatch(r"\s*([\d.,]+)\s*V?\s+([\d.,]+)\s*V?\s*", text)
    if found is None:
        raise BadValue(text, SERIES_WANTED)
    applied, read = (parse(f"{found[k]} V", Quantity.VOLTAGE).value for k in (1, 2))
    if applied <= 0:
        raise BadValue(text, SERIES_WANTED)
    (a, b), (c, d) = target.ends, target.sense
    return Series(source=(a, b), tie=(b, c), across=(a, d), applied_volt=applied, value=read)


LOW_RUN_WANTED = (
    "volts, amps of each line, how it turned, which way at the drive end if seen: "
    "115 V 3.1/3.2/3.1 smooth cw (or rough, none; ccw)"
)


def low_run_of(text: str, lines: int) -> LowRun:
    """Return a low run as typed, with amps of so many lines. Raises: BadValue."""
    found = re.fullmatch(
        r"\s*([\d.,]+)\s*V?\s+(\S+?)\s*A?\s+([A-Za-z]+)(?:\s+(cw|ccw))?\s*", text, re.IGNORECASE
    )
    if found is None or found[3].lower() not in TURN_WORDS:
        raise BadValue(text, LOW_RUN_WANTED)
    volt = parse(f"{found[1]} V", Quantity.VOLTAGE).value
    amps = [parse(a, Quantity.CURRENT).value for a in found[2].split("/")]
    if not 0 < volt <= 20000 or len(amps) != lines or not all(0 <= a <= 20000 for a in amps):
        raise BadValue(text, LOW_RUN_WANTED, f"{lines} amps are wanted." if lines > 1 else "")
    told = {"volt": volt, "amp": amps, "turns": found[3].lower(), "way": (found[4] or "").lower()}
    return LowRun.model_validate(told)


def clamped_of(text: str, lead: str) -> LeadClamped:
    """Return the amps of one lead as typed. Raises: BadValue."""
    amp = parse(text, Quantity.CURRENT).value
    if not 0 <= amp <= 20000:
        raise BadValue(text, "amps, for example 3.1")
    return LeadClamped(lead=lead, amp=amp)


RUN_WANTED = "volts, three amps and how it turned: 60 V 0.41/0.40/0.41 smooth (or rough, none)"


def run_of(text: str, target: Request) -> Run:
    """Return a run at reduced volts as typed. Raises: BadValue."""
    found = re.fullmatch(r"\s*([\d.,]+)\s*V?\s+(\S+/\S+/\S+)\s+([A-Za-z]+)\s*", text)
    if found is None or found[3].lower() not in TURN_WORDS:
        raise BadValue(text, RUN_WANTED)
    volt = parse(f"{found[1]} V", Quantity.VOLTAGE).value
    amps = [parse(a, Quantity.CURRENT).value for a in found[2].split("/")]
    if volt <= 0:
        raise BadValue(text, RUN_WANTED)
    return Run(
        lines=target.lines,
        joints=target.joints,
        applied_volt=volt,
        amp=tuple(amps),
        turns=found[3].lower(),
    )


def _as_kept(value: BenchValue) -> str:
    """Return the text that is kept: the digits given, in the best prefix."""
    return show(value)


def _figure(value: BenchValue, text: str) -> float:
    if value.number is None:
        raise BadValue(text, "ohms in figures, for example 0.03")
    return value.value


def _choice(text: str, words: Sequence[str]) -> str:
    word = text.strip().lower().replace(" ", "-")
    if word in words:
        return word
    if word.isdecimal() and 1 <= int(word) <= len(words):
        return words[int(word) - 1]
    keys = ", ".join(f"{k} {w.replace('-', ' ')}" for k, w in enumerate(words, 1))
    raise BadValue(text, keys)


def _two(ends: Sequence[str]) -> tuple[str, str]:
    return ends[0], ends[1]


def moved_pair(target: Request, tags: Sequence[str], dx: int, dy: int) -> Request:
    """Return the target one column (dx) or row (dy) further in the sheet, as far as it goes."""
    if target.kind not in ("resistance", "switch", "shaft") or len(tags) < 2:
        return target
    a, b = sorted(tags.index(t) for t in target.ends)
    b = min(max(b + dx, 1), len(tags) - 1)
    a = min(max(a + dy, 0), len(tags) - 2)
    if a >= b:
        a, b = (b - 1, b) if dx else (a, a + 1)
    return replace(target, kind="resistance", ends=(tags[a], tags[b]))
