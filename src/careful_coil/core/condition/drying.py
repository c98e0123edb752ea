"""A damp winding's campaign over days: repeated insulation at 40 °C against hours and temperature."""

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.values import show_figure

Phase = Literal["begun", "falling", "turned", "rising", "levelled", "stuck"]
HOTTEST_C = 90.0  # at the winding; the maker's figure wins
FASTEST_K_PER_H = 20.0  # while wet: steam must find its way out
CHANGE = 1.15  # a factor between readings below which nothing has moved
LEVEL_HOURS = 4.0  # so long without a change is level
STUCK_HOURS = 24.0  # level below the minimum so long: it is not damp alone


@dataclass(frozen=True, slots=True, kw_only=True)
class DryRead:
    """A reading of the campaign: hours since it began, MΩ at 40 °C (None where no correction holds),
    the winding's °C."""

    hour: float
    megohm: float | None
    at_c: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Drying:
    """Where a campaign stands: its phase, what it means and what to do; `done` it may stop.

    `lowest` and `newest` MΩ at 40 °C; `too_hot` °C and `too_fast` K an hour where a limit was passed.
    """

    phase: Phase
    done: bool
    why: str
    lowest: float | None
    newest: float | None
    hours: float
    too_hot: float | None = None
    too_fast: float | None = None


def drying_of(
    readings: Sequence[DryRead],
    minimum: float,
    hottest_c: float = HOTTEST_C,
    fastest: float = FASTEST_K_PER_H,
    level_hours: float = LEVEL_HOURS,
    stuck_hours: float = STUCK_HOURS,
) -> Drying:
    """Return where a drying campaign stands, its readings in order of time.

    While a wet winding warms the moisture spreads and the insulation resistance falls, then turns and
    climbs as it leaves; level and above `minimum` (MΩ at 40 °C) it is dry. Source: IEEE 43, annex on
    drying; shop practice for the hours. Raises: ValueOutOfRange for times that run backwards.
    """
    if any(b.hour < a.hour for a, b in itertools.pairwise(readings)):
        raise ValueOutOfRange("hours that run backwards", "readings in order of time")
    usable = [r for r in readings if r.megohm is not None and r.megohm > 0]
    hot = max((r.at_c for r in readings), default=-math.inf)
    rates = [
        (b.at_c - a.at_c) / (b.hour - a.hour)
        for a, b in itertools.pairwise(readings)
        if b.hour - a.hour > 0.2  # minutes apart a rate is the thermometer's
    ]
    fast = max(rates, default=0.0)
    hours = readings[-1].hour if readings else 0.0
    ohms = [r.megohm or 0.0 for r in usable]
    phase, why = _phase(usable, ohms, minimum, level_hours, stuck_hours)
    return Drying(
        phase=phase,
        done=phase == "levelled",
        why=why,
        lowest=min(ohms, default=None),
        newest=ohms[-1] if ohms else None,
        hours=hours,
        too_hot=hot if hot > hottest_c else None,
        too_fast=fast if fast > fastest else None,
    )


def _phase(
    usable: list[DryRead], ohms: list[float], minimum: float, level_hours: float, stuck_hours: float
) -> tuple[Phase, str]:
    if len(usable) < 2:
        return "begun", "Read it again in an hour or two, at the winding's temperature then."
    level = _level_hours(usable)
    low = ohms.index(min(ohms))
    last, before = ohms[-1], ohms[-2]
    if level >= level_hours and last >= minimum:
        return (
            "levelled",
            f"Level for {level:.0f} h and above {minimum:g} MΩ: dry. Let it cool, test it once more.",
        )
    if level >= stuck_hours:
        return (
            "stuck",
            f"Level for {level:.0f} h and below {minimum:g} MΩ: not damp alone. Clean it, look for the fault.",
        )
    if low == len(ohms) - 1 and ohms[0] / last > CHANGE:
        return "falling", "It falls as it warms: moisture on its way. Usual; go on."
    if last > CHANGE * ohms[low] and last >= before / CHANGE:
        after = "above the minimum already; go on until it is level" if last >= minimum else "go on"
        return (
            "rising",
            f"It climbs since its lowest, {show_figure(ohms[low])} MΩ: drying; {after}.",
        )
    if last < before / CHANGE:
        return (
            "falling",
            "It falls again after it had climbed: hotter, or damp from deeper in; vents open? Go on.",
        )
    return "turned", "It has stopped falling. The climb comes next; go on."


def _level_hours(usable: list[DryRead]) -> float:
    """Return for how many hours up to the newest reading nothing has moved."""
    newest = usable[-1]
    since = newest.hour
    for r in reversed(usable[:-1]):
        ratio = (newest.megohm or 0.0) / (r.megohm or 1.0)
        if not 1 / CHANGE <= ratio <= CHANGE:
            break
        since = r.hour
    return newest.hour - since
