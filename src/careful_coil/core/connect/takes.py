"""What this motor can take: each supply of the shop's list, and each way of starting, with the reason."""

from dataclasses import dataclass
from typing import Literal

from careful_coil.core.connect.plans import Plate, Wish, plan
from careful_coil.core.errors import CannotConnect, CoilError
from careful_coil.core.job import Job
from careful_coil.core.machine.power import flux_ratio, torque_ratio
from careful_coil.core.shop_lists import ShopSupply
from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.devices import Device
from careful_coil.core.winding.arrangements import arrangement

NEAR = 0.25  # of 1: a rating further from the supply is no comparison


@dataclass(frozen=True, slots=True, kw_only=True)
class Takes:
    """One supply or way: good, at the edge (watch), or not (hold), with words."""

    verdict: Literal["good", "watch", "hold"]
    what: str
    words: str


def takes(
    job: Job, slug: str, variant: str, devices: tuple[Device, ...], supplies: tuple[ShopSupply, ...]
) -> list[Takes]:
    """Return for each supply what the motor does on it, or why not and how far off it is."""
    return [_on(job, slug, variant, devices, s) for s in supplies] if job.plate.volts else []


def starts_of(slug: str, variant: str = "") -> tuple[str, ...]:
    """Return the ways of starting that a winding has."""
    return tuple(dict.fromkeys(p.start for p in plans_of(slug, variant)))


def _on(
    job: Job, slug: str, variant: str, devices: tuple[Device, ...], supply: ShopSupply
) -> Takes:
    hertz = job.plate.hertz_at(supply.hertz)
    plate = Plate(job.plate.volts_at(hertz), hertz)
    own = job.joined.wish
    wish = Wish(
        family=own.get("family", ""),
        speed=own.get("speed", "") or _any_speed(slug, variant, devices),
        variant=variant,
        devices=devices,
        phases=supply.phases,
    )
    try:
        found = plan(slug, plate, supply.volt, supply.hertz, wish)
    except CannotConnect as error:
        return Takes(
            verdict="hold", what=supply.words, words=_why_not(str(error), plate, supply, slug)
        )
    except CoilError as error:
        return Takes(verdict="hold", what=supply.words, words=str(error))
    edge = [n for n in found.notes if "at the edge" in n or "volts per hertz" in n]
    words = f"{found.connection}. {' '.join(edge)}".strip()
    bad = any("Too much iron flux" in n for n in edge)
    return Takes(
        verdict="hold" if bad else "watch" if edge else "good", what=supply.words, words=words
    )


def _any_speed(slug: str, variant: str, devices: tuple[Device, ...]) -> str:
    try:
        return next((p.speed for p in plans_of(slug, variant, devices) if p.speed), "")
    except CoilError:
        return ""


def _why_not(reason: str, plate: Plate, supply: ShopSupply, slug: str) -> str:
    """Return the reason, and flux and torque on the rating that is nearest in volts per hertz."""
    if supply.phases != arrangement(slug).phases:
        return reason
    low, high = min(plate.volts, key=lambda v: abs(v[1] - supply.volt))
    rated = min(max(supply.volt, low), high)
    if abs(supply.volt / rated - 1) > NEAR:
        return reason
    at = (supply.volt, supply.hertz, rated, plate.hertz)
    return (
        f"{reason} On {rated:g} V it would have flux × {flux_ratio(*at):.2f}, torque × "
        f"{torque_ratio(*at):.2f}, speed × {supply.hertz / plate.hertz:.2f}."
    )
