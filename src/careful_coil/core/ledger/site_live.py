"""What a visit reads under volts: phase order, the bump, the start, amps, volts, half an hour on its load."""

import re
from collections.abc import Iterator, Mapping, Sequence
from functools import partial

from careful_coil.core.condition.suspicion import symptoms_in
from careful_coil.core.connect.rotation import read_direction, seen_direction, wanted_direction
from careful_coil.core.errors import BadValue
from careful_coil.core.figures import of_each
from careful_coil.core.gear.cause_rules import NOT_FOUND_MINUTES
from careful_coil.core.job import Job
from careful_coil.core.job.entries import AnyBody
from careful_coil.core.job.noted import note
from careful_coil.core.ledger.site_line import SiteLine
from careful_coil.core.probes.turning import turning
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse

ITEMS: Mapping[str, tuple[str, str]] = {
    "phase-order": ("Phase order at the motor", "Indicator on the supply, motor off."),
    "amps": (
        "Three amps within ten seconds",
        "Each line right after the start: a lost phase shows there.",
    ),
    "volts": ("Volts at the terminals", "Under load, at the motor, not at the panel."),
}
UNDER_VOLTS = ("amps", "volts", "ran", "start")  # what joints and covers void
ORDERS = ("L1 L2 L3", "L1 L3 L2")
SHOWN = ("123", "132")  # the same, as an indicator has it
_ENDS = ("drive-end", "opposite")


def turns_from(view: str) -> tuple[str, ...]:
    """Return the answers on a direction: bare from the end the shop looks at, then from the other."""
    other = next(e for e in _ENDS if e != view)
    return ("cw", "ccw", f"cw {other}", f"ccw {other}")


HINTS = {"phase-order": "123", "amps": "6.1/6.2/6.1", "volts": "398/399/400"}


def alive_lines(job: Job, view: str = "drive-end") -> Iterator[SiteLine]:
    """Yield what needs volts: phase order, the bump, amps, volts under load."""
    three = job.plate.phases != 1
    if three:
        yield _check_line(job, "phase-order", 3)
    if three or wanted_direction(job) is not None:
        seen = seen_direction(job)
        yield SiteLine(
            name="site-direction",
            title="Direction, and the end it is seen from",
            how="One short bump, uncoupled where it can be. 1 cw, 2 ccw from "
            f"the {view.replace('-', ' ')}{' end' if view == 'opposite' else ''}; 3, 4 from the other.",
            hint="cw drive-end",
            done=f"{seen.at_drive} drive-end" if seen is not None else "",
            read=lambda text: (read_direction(_picked(text, turns_from(view)), "bump", view),),
        )
    if not three:
        yield SiteLine(
            name="site-start",
            title="From rest: seconds to the click of the start device, or until it turns",
            how="One start, hand at the switch: off at once where it only hums.",
            hint="out 0.3, turns 0.8, stalled 3",
            done=checked(job, "start"),
            read=_started,
        )
    yield _check_line(job, "amps", 3 if three else 1)
    yield _check_line(job, "volts", 3 if three else 1)
    if symptoms_in(job.ticket.get("complaint", "")):
        yield SiteLine(
            name="site-ran",
            title=f"It has run {NOT_FOUND_MINUTES:g} minutes on its load: amps, how it runs",
            how="There was a complaint: its cause is mended and it runs, or it does not show again.",
            hint="6.1/6.2/6.1 smooth" if three else "6.1 smooth",
            done=checked(job, "ran"),
            read=_ran,
        )


_START = re.compile(r"(out|turns|stalled|tripped)\s+(\d+(?:[.,]\d+)?)\s*s?(?:\s.*)?", re.IGNORECASE)


def start_told(text: str) -> tuple[str, float] | None:
    """Return what became of a start, and after how many seconds; None for what is no start."""
    found = _START.fullmatch(text.strip())
    return (found[1].lower(), float(found[2].replace(",", "."))) if found is not None else None


def _started(text: str) -> Sequence[AnyBody]:
    told = " ".join(text.lower().replace("dropped out", "out").split())
    if start_told(told) is None:
        raise BadValue(
            text, "out 0.3 (the start device opened after 0.3 s), turns 0.8, stalled 3, tripped 2"
        )
    return (note("site-checked", "start", told),)


def _check_line(job: Job, item: str, count: int) -> SiteLine:
    title, how = ITEMS[item]
    if count == 1 and item == "amps":
        title = "Amps within ten seconds"
        how = "Right after the start; once more when the start device has let go."
    return SiteLine(
        name=f"site-{item}",
        title=title,
        how=how,
        hint=HINTS[item] if count == 3 else HINTS[item].split("/")[0],
        done=checked(job, item),
        read=partial(_checked, item, count),
    )


def checked(job: Job, item: str) -> str:
    """Return what was read of the site's own list, empty once it is void: joints were touched since."""
    words = job.site.get(item, "")
    if item in UNDER_VOLTS and not job.deeds.stands("runs", f"site-checked:{item}"):
        return ""
    return words


def _ran(text: str) -> Sequence[AnyBody]:
    told = " ".join(turning(w) or w for w in text.split())
    if not re.search(r"\d", told) or not re.search(r"[a-z]{4,}", told.lower()):
        raise BadValue(text, "its amps and how it runs: 6.1/6.2/6.1 smooth, or what is wrong")
    return (note("site-checked", "ran", f"{NOT_FOUND_MINUTES:g} min {told}"),)


def _picked(text: str, choices: Sequence[str]) -> str:
    """Return the choice whose number was typed, else the text."""
    own = text.strip()
    known = own.isdecimal() and own.isascii() and 1 <= int(own) <= len(choices)
    return choices[int(own) - 1] if known else own


def _checked(item: str, count: int, text: str) -> Sequence[AnyBody]:
    told = text.strip()
    if item == "phase-order":
        told = ORDERS[SHOWN.index(told)] if told in SHOWN else _picked(told, ORDERS)
        if told.upper() not in ORDERS:
            raise BadValue(text, " or ".join((*SHOWN, *ORDERS)))
        told = told.upper()
    else:
        unit, quantity = ("A", Quantity.CURRENT) if item == "amps" else ("V", Quantity.VOLTAGE)
        parts = of_each(re.sub(rf"\s*{unit}\s*$", "", told, flags=re.I))
        if item == "volts" and len(parts) == 1:  # all lines alike
            parts = count * parts
        if len(parts) != count:
            raise BadValue(text, "/".join(["400" if unit == "V" else "6.1"] * count) + f" {unit}")
        values = [parse(f"{p} {unit}", quantity).value for p in parts]
        told = "/".join(f"{v:g}" for v in values) + f" {unit}"
    return (note("site-checked", item, told),)
