"""The hookup that a job's wish asks for: start, speed, direction, what nobody said taken as usual."""

from collections.abc import Mapping
from dataclasses import replace

from careful_coil.core.connect.plans import (
    Plate,
    Wish,
    against_default,
    plan,
    with_lines_exchanged,
)
from careful_coil.core.connect.usual_wish import as_usual, ran_low
from careful_coil.core.errors import CannotConnect
from careful_coil.core.job import Job
from careful_coil.core.job.entries import Supply
from careful_coil.core.settings import Settings
from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.way import Plan

EQUAL_SHARE = 0.05  # of 1: two windings that are wound alike
MAIN, FIELD = "main", "field"


def other_winding(slug: str, settings: Settings) -> bool:
    """Whether this shop turns such a motor round by its main winding, a universal one by its field."""
    if slug.startswith("universal"):
        return settings.school("universal") == FIELD
    return slug.startswith("single-phase") and settings.school("reverse") == MAIN


def view_of(settings: Settings) -> str:
    """Return the end from which this shop sees a direction where nobody says one: drive-end or opposite."""
    return "opposite" if settings.school("view") == "opposite" else "drive-end"


def wish_of(
    job: Job,
    variant: str,
    devices: tuple[Device, ...],
    ohms: Mapping[str, float] | None,
    settings: Settings,
) -> Wish:
    """Return what a job wishes of its hookup; `ohms` of each kind of coil, where read."""
    wish = job.joined.wish
    return Wish(
        start=wish.get("start", "direct"),
        family=wish.get("family", ""),
        speed=wish.get("speed", ""),
        variant=variant,
        devices=devices,
        equal=_alike(ohms),
        apart=settings.supply_apart.value,
        edge=settings.supply_edge.value,
        reverse=against_default(wish.get("rotation", ""), wish.get("seen-from", "")),
    )


def plan_wished(job: Job, supply: Supply, slug: str, asked: Wish) -> Plan:
    """Return the hookup this supply needs, as it is wished. Raises: CannotConnect."""
    hertz = job.plate.hertz_at(supply.hertz)
    plate = Plate(job.plate.volts_at(hertz), hertz)
    try:
        found = plan(slug, plate, supply.volt, supply.hertz, asked)
    except CannotConnect as error:
        asked, said = as_usual(asked, error, ran_low(job))
        try:
            found = plan(slug, plate, supply.volt, supply.hertz, asked)
        except CannotConnect as second:
            asked, more = as_usual(asked, second, ran_low(job))
            said = f"{said} {more}"
            found = plan(slug, plate, supply.volt, supply.hertz, asked)
        found = replace(found, notes=(*found.notes, said))
    if "exchanged" not in job.joined.wish:
        return found
    if not found.turning:
        return with_lines_exchanged(found)
    return plan(slug, plate, supply.volt, supply.hertz, replace(asked, reverse=not asked.reverse))


def _alike(ohms: Mapping[str, float] | None) -> bool:
    """Whether run and start winding read alike, so that each can be the other."""
    if not ohms or not {"run", "start"} <= set(ohms):
        return False
    return abs(ohms["run"] / ohms["start"] - 1) <= EQUAL_SHARE
