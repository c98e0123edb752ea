"""How this shop dresses a joint: connector and strip length by its own list, insulation by its habit."""

import math
import re
from collections.abc import Callable, Mapping, Sequence

from careful_coil.core.connect.steps import Ways
from careful_coil.core.errors import CoilError
from careful_coil.core.figures import figure
from careful_coil.core.job import Job
from careful_coil.core.job.entries import Supply
from careful_coil.core.rewind.wire import area, awg_mm, read_awg
from careful_coil.core.settings import Settings
from careful_coil.core.shop_lists import (
    conductor,
    connector_for,
    line_colours,
    same_colour,
    size_for,
)
from careful_coil.core.units import Quantity
from careful_coil.core.ways.starter import PART_WINDING, Starter
from careful_coil.core.ways.way import LINES, Joint, Plan

_MM2 = re.compile(r"(\d{1,3}(?:[.,]\d{1,2})?)\s?(?:mm2|mm²|sq)", re.IGNORECASE)
_AWG = re.compile(r"(.+?)\s?AWG", re.IGNORECASE)
BOARD = "board"  # the wish `terminals`
# how a joint is made, beyond what the connector's line says
MADE = {
    "crimp": "",
    "wire connector": "Turn the wire connector on until each lead alone holds a tug.",
    "solder": "Twist them so that they hold by themselves, then solder; the tin carries no pull.",
}


def mm2_of(size: str) -> float | None:
    """Return the area of a wire as it was noted, in mm²; None where it cannot be told."""
    metric = _MM2.fullmatch(size.strip())
    if metric:
        return figure(metric[1], Quantity.AREA)
    gauge = _AWG.fullmatch(size.strip())
    if gauge is None:
        return None
    try:
        return area(awg_mm(read_awg(gauge[1])))
    except CoilError:
        return None


def amps_at(job: Job, supply: Supply) -> float | None:
    """Return the plate's amps on this supply; None where it does not say.

    At other hertz those of the rating with the same volts per hertz: the same flux, the same amps.
    """
    rating = job.plate.at(supply.volt, supply.hertz)
    rated = job.plate.hertz
    if rating is None and rated and rated != supply.hertz:
        rating = job.plate.at(supply.volt * rated / supply.hertz, rated)
    if rating is not None and rating.amp:
        return rating.amp
    return max(job.plate.amps, default=None) if len(job.plate.volts) < 2 else None


def cable_mm2(job: Job, settings: Settings, supply: Supply) -> float | None:
    """Return the supply conductor's mm²: as noted, else the shop's size for the amps."""
    noted = job.joined.wish.get("cable-mm2", "")
    if noted:
        return mm2_of(noted if _MM2.fullmatch(noted) else f"{noted} mm²")
    amp = amps_at(job, supply)
    size = size_for(settings.lists, amp) if amp else None
    return size.mm2 if size else None


def ways_of(
    job: Job,
    settings: Settings,
    loose: tuple[str, ...],
    names: Mapping[str, str],
    supply: Supply,
    wanted: Plan,
) -> Ways:
    """Return how the steps of a job are made: board or splices, the shop's order, words of a joint."""
    leads = {x.tag: mm2_of(x.size) for x in job.leads}
    own = {names[t]: mm2 for t, mm2 in leads.items() if t in names}
    cable = cable_mm2(job, settings, supply)

    def dress(joint: Joint) -> str:
        alike = _alike(job, joint, names, supply, settings)
        return f"{alike}{joint_words(joint, own, cable, settings)}"

    return Ways(
        board=job.joined.wish.get("terminals") == BOARD,
        lines_first=settings.school("order") == "lines",
        bare=loose,
        dress=dress,
    )


def starter_words(starter: Starter, settings: Settings) -> tuple[str, ...]:
    """Return what is said of a starter, with this shop's time of a part winding's second half."""
    if starter.plan.start != PART_WINDING:
        return starter.words
    return (*starter.words, f"Set here: K2 after {settings.school('part-winding')}.")


def clip_words(
    starter: Starter | None, joint: Joint, say: Callable[[Sequence[str], str], str]
) -> str:
    """Return the words on a joint that is the bench's clip on leads of a starter, empty for any other."""
    lines = [n for n in joint if n in LINES]
    outs = starter.to(joint) if starter is not None else ()
    if not outs:
        return ""
    alone = "; ".join(f"{say(out, ' – ')} to {k}" for k, out in outs)
    on = say(tuple(n for _, out in outs for n in out), ", ")
    clip = f"Clip {lines[0]} on {on}" if lines else f"Clip {on} together"
    return f"{clip}, for runs on the bench alone: no crimp. In the box they go out apart, to the starter: {alone}."


def _alike(
    job: Job, joint: Joint, names: Mapping[str, str], supply: Supply, settings: Settings
) -> str:
    """Return a warning of leads that have the colour of a line of this joint and do not belong to it."""
    at = (supply.volt, supply.hertz, supply.phases)
    colours = line_colours(settings.school("supply-colours"), *at)
    told = [
        f"{conductor(line, *at)} is {colours[line]}, and so is {names.get(x.tag, x.tag)}, "
        "which does not belong here. "
        for line in joint
        if line in colours
        for x in job.leads
        if same_colour(x.colour, colours[line]) and names.get(x.tag) not in joint
    ]
    return "".join(told)


def joint_words(
    joint: Joint, own: dict[str, float | None], cable: float | None, settings: Settings
) -> str:
    """Return connector, strip length and insulation of a joint; what is not known is said."""
    areas = [cable if n in LINES else own.get(n) for n in joint if "." not in n]
    known = [a for a in areas if a]
    words = []
    if known and len(known) == len(areas):
        total = math.fsum(known)
        fit = connector_for(settings.lists, total)
        if fit is None:
            words.append(f"{total:.3g} mm² together: no connector of the shop's list takes it.")
        else:
            words.append(f"{total:.3g} mm² together: {fit.name}, strip {fit.strip_mm:g} mm.")
    else:
        words.append("Strip to the connector's length; note the leads' mm² for which one.")
    made = MADE[settings.school("joint")]
    words += [made] if made else []
    if settings.school("finish") == "each":
        tape = settings.school("tape") == "yes"
        words.append(
            "Sleeve and tape it, label both marks." if tape else "Sleeve it, label both marks."
        )
    return " ".join(words)
