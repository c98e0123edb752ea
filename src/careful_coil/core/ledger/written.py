"""What is typed into a declared field, as it is kept: read by its declaration, or by its subject's own reader."""

import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from functools import partial

from careful_coil.core.can_marking import WANTED as CAN
from careful_coil.core.can_marking import in_full, read_marking
from careful_coil.core.condition.symptoms import complaint_of
from careful_coil.core.connect.typed import read_wish
from careful_coil.core.days import read_day
from careful_coil.core.errors import AmbiguousValue, BadValue
from careful_coil.core.figures import figure
from careful_coil.core.gear.capacitor_rules import measured_of, renewed_as, serves_as
from careful_coil.core.gear.positions import read_table, show_table
from careful_coil.core.gear.typed import drained_of, let_go_at, loss_of, microfarad_of, size_read
from careful_coil.core.job import Job
from careful_coil.core.job.noted import Noted, note
from careful_coil.core.job.plate import check_field, nameplate, unreadable
from careful_coil.core.job.promise import waits_of
from careful_coil.core.mechanics.typed import (
    bearing_size,
    earlier_of,
    is_sleeve,
    megohm_of,
    number_of,
    ports_of,
)
from careful_coil.core.rewind.record import (
    ohm_of,
    pole_of,
    poles_of,
    span_of,
    turns_of,
    wire_of,
)
from careful_coil.core.sheets import SHEETS, Field, Sheet

Special = Callable[[str, Job, str, str], str]  # text, job, item, field


def _plain(read: Callable[[str], str]) -> Special:
    return lambda text, *_: read(text)


def _plate(text: str, _: Job, __: str, field: str) -> str:
    told = in_full(text) if field == "capacitor" else text
    if field == "phases":
        told = PHASES.get(re.sub(r"[\s-]*(?:phases?|ph|~)$", "", told.strip().lower()), told)
    check_field(field, told)
    if unreadable(told):
        return told
    if field == "capacitor":
        _can(told.strip())
    if field in PLATE_ENDS:
        name, least, most, wanted = PLATE_ENDS[field]
        value = getattr(nameplate({field: told}), name)
        if value is not None and not least <= value <= most:
            raise BadValue(text, wanted, "No motor's plate says so.")
    if field == "power" and BARE.fullmatch(told.strip()):
        bare = told.strip()
        power = figure(bare, wanted="the power with its unit, such as 2.2 kW, 3 hp")
        if power < LEAST_BARE_W:
            small = power >= SMALL_FROM  # a fan of 35 W, or a mill's 35 kW
            raise AmbiguousValue(text, f"{bare} {'W' if small else 'hp'}", f"{bare} kW")
    return told


def _can(told: str) -> None:
    """Refuse what no capacitor of a motor bears: 3/4 hp, 1725. Raises: BadValue, AmbiguousValue."""
    if BARE.fullmatch(told):
        figure(told, most=MOST_MICROFARAD, wanted=CAN)
    else:
        read_marking(told)


def _phone(text: str, _: Job, __: str, ___: str) -> str:
    if not any(c.isdigit() or c == "@" for c in text) and text.strip(" .").lower() not in NO_PHONE:
        wanted = "a number or an address, such as 0555 123, or none"
        raise BadValue(text, wanted, "What is wrong has its own field, the next.")
    return text


def _loss(text: str, job: Job, of: str, _: str) -> str:
    measured = measured_of(job.gear, of)
    return loss_of(text, job.plate.hertz, measured[0] if measured else None)


AS_ASKED = "="
PHASES = {**dict.fromkeys(("one", "single", "1"), "1"), **dict.fromkeys(("three", "3"), "3")}
# field of the plate → figure of it, from, to, what is accepted
PLATE_ENDS = {
    "hertz": ("hertz", 10.0, 1000.0, "hertz as printed, such as 50, 60 or 50/60"),
    "rpm": ("rpm", 1.0, 200_000.0, "revolutions a minute as printed, such as 1430"),
    "power": ("power_w", 0.1, 2e7, "the power with its unit, such as 35 W, 2.2 kW, 3 hp"),
}
MOST_MICROFARAD = 1500.0  # start capacitors end at about 1300 µF
NO_PHONE = ("none", "no", "-", "?", "unknown")
BARE = re.compile(r"[\d.,]+")
LEAST_BARE_W = (
    100.0  # watts where the unit is not typed; below it may be kilowatts or horsepower too
)
SMALL_FROM = 15.0
VG = ("10", "15", "22", "32", "46", "68", "100")  # grades of ISO 3448 that bushes run in


def _marking(text: str, job: Job, of: str, _: str) -> str:
    """Return what stands on a capacitor; = where the new one is just what was asked for."""
    fit = renewed_as(job, of)
    if text == AS_ASKED and not fit:
        raise BadValue(text, "what stands on it, such as 25 µF 450 V")
    return read_marking(fit if text == AS_ASKED else text).text


def _bearing(text: str, job: Job, of: str, field: str) -> str:
    """Return a bearing's number; = where the new one is as the old, or this end's as the other's."""
    if text != AS_ASKED:
        return number_of(text)
    ends = job.hands.bearings
    same = ends.get(of, {}) if field == "fitted" else _other_end(ends, of)
    if not same.get("number"):
        raise BadValue(text, "its number, such as 6203-2RS C3")
    return number_of(same["number"])


def _is_sleeve(text: str, job: Job, of: str) -> bool:
    """Whether a bearing's number says that it is a sleeve, = where the other end is one."""
    same = text.strip() == AS_ASKED
    return is_sleeve(text) or (same and _other_end(job.hands.bearings, of).get("sort") == "sleeve")


def _oil(text: str, job: Job, of: str, _: str) -> str:
    """Return an oil; a bare grade is a VG number, = the oil of the other end."""
    if text == AS_ASKED:
        text = _other_end(job.hands.bearings, of).get("oil", "")
        if not text:
            raise BadValue(AS_ASKED, "which oil, such as ISO VG 32, or 32")
    return f"ISO VG {text}" if text in VG else text


def _other_end(ends: Mapping[str, Mapping[str, str]], of: str) -> Mapping[str, str]:
    return next((told for end, told in ends.items() if end != of), {})


SPECIALS: Mapping[str, Special] = {
    "megohm": _plain(megohm_of),
    "bearing-number": _bearing,
    "oil": _oil,
    "complaint": _plain(complaint_of),
    "phone": _phone,
    "day": _plain(read_day),
    "waits": _plain(waits_of),
    "ports": _plain(ports_of),
    "earlier-length": _plain(earlier_of),
    "poles": _plain(poles_of),
    "span": _plain(span_of),
    "turns": _plain(turns_of),
    "wire": _plain(wire_of),
    "pole": _plain(pole_of),
    "phase-ohm": _plain(ohm_of),
    "marking": _marking,
    "microfarad": _plain(microfarad_of),
    "can-size": _plain(size_read),
    "drained": _plain(drained_of),
    "loss": _loss,
    "opens-at": _plain(partial(let_go_at, field="out")),
    "recloses-at": _plain(partial(let_go_at, field="back")),
    "positions": _plain(lambda t: show_table(read_table(t))),
    "plate": _plate,
}
WISHES = "wish"  # answers that hang on the hookup: read by them


def read_text(
    sheet: Sheet, field: Field, text: str, job: Job, of: str = "", choices: Sequence[str] = ()
) -> str:
    """Return a text as it is kept, nothing for a blank; `choices` those there are now, where they hang on it.

    Raises: BadValue with what would be accepted, AmbiguousValue.
    """
    told = text.strip()
    if not told or (field.unread and told == "?"):
        return told
    if field.special == WISHES or (choices and sheet.name == "wished"):
        return read_wish(told, choices or field.words, field.choices)
    special = SPECIALS.get(field.special)
    return special(told, job, of, field.name) if special is not None else field.read(told)


def written(
    name: str, field: str, text: str, job: Job, of: str = "", choices: Sequence[str] = ()
) -> Iterator[Noted]:
    """Yield what a typed text becomes: one field, or each of the three a bearing's size is.

    Raises: BadValue, AmbiguousValue.
    """
    sheet = SHEETS[name]
    if sheet.name == "bearing" and field == "size":
        for one, told in bearing_size(
            text, job.hands.bearings.get(of, {}).get("number", "")
        ).items():
            yield note(name, one, told, of=of)
    elif sheet.name == "bearing" and field == "number" and _is_sleeve(text, job, of):
        yield note(name, "sort", "sleeve", of=of)
    elif sheet.free:
        yield note(name, field, text.strip(), of=of)
    else:
        same = name == "capacitor" and field == "marking" and text.strip() == AS_ASKED
        serves = serves_as(job, of) if same else ""
        if serves:
            yield note(name, "serves", serves, of=of)
        yield note(name, field, read_text(sheet, sheet.field(field), text, job, of, choices), of=of)
