"""What a visit's own list asks for and what it says: ohms in the ratio of the change, bond, amps, volts."""

import math
import re
from collections.abc import Iterator, Sequence
from dataclasses import replace
from functools import partial

from careful_coil.core.connect.changed import changed, pairs_of, phases_of, touched
from careful_coil.core.connect.dress import amps_at
from careful_coil.core.connect.rated import off_rated, rated_volts
from careful_coil.core.connect.work import Connecting
from careful_coil.core.figures import all_in
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.alarms import words_of_harm, words_of_roughness
from careful_coil.core.ledger.site_live import ITEMS, ORDERS, checked, start_told
from careful_coil.core.readings import ohm_value
from careful_coil.core.settings import Settings
from careful_coil.core.trial.told import dead_lines
from careful_coil.core.values import show_ohm, show_percent

# what the bench does and a visit does not: after it the bench's own gate stays
BENCH = ("trial-begun", "low-run", "work")
# what says so where it came before the visit: readings of the motor in the shop
IN_SHOP = (
    *BENCH,
    "bearing",
    "gear-step",
    "reading",
    "winding-ohm",
    "insulation",
    "earth-bond",
    "felt",
    "covers",
    "joint",
)
ON_LIST = (
    "cause",
    "line-ohms",
    "insulation",
    "supply",
    "supply-unbalance",
    "direction",
    "installer",
    "voltage-tags",
)


def site_findings(job: Job, state: Connecting, settings: Settings) -> Iterator[Finding]:
    """Yield what a site's own list asks for besides what the stations prove."""
    if not job.on_site:
        return
    if not state.expected:
        yield _ohms(job, settings)
    if state.changed or state.found is None:
        yield from _change(job, state)
    yield _bond(job, settings)
    yield from _ran(job)
    yield from _start(job, settings)
    for item, (subject, why) in ITEMS.items():
        if item == "phase-order" and phases_of(job) == 1:
            continue
        words = checked(job, item)
        found = Finding(
            code=f"site-{item}",
            verdict="good" if words else "unproven",
            subject=subject if words else f"{subject}: not read",
            why=words or why,
            station="release",
            gate=True,
        )
        yield _judged(found, item, words, (job, state), settings)


def on_list(found: Finding, findings: Sequence[Finding]) -> bool:
    """Whether a visit asks for a line of the gate: its own lines, and what the bench's gate shares with it.

    Line ohms that nobody can expect, the coils not being read by themselves, have lines of their own.
    """
    if found.code == "line-ohms" and any(f.code == "site-ohms" for f in findings):
        return False
    return found.code in ON_LIST or found.code.startswith("site-")


def visit(job: Job) -> bool:
    """Whether it is worked on where it stands only: the bench's gate is not asked of it."""
    return job.on_site and not benched(job)


def benched(job: Job) -> bool:
    """Whether the bench has worked on a motor that is now on site: nothing of its gate is dropped."""
    kinds = [e.said.topic for e in job.log]
    first = kinds.index("on-site") if "on-site" in kinds else len(kinds)
    return any(k in BENCH for k in kinds) or any(k in IN_SHOP for k in kinds[:first])


def _bond(job: Job, settings: Settings) -> Finding:
    """Return the line of the bond to the earth conductor where the motor stands."""
    since = job.deeds.last("bond")
    own = [b for b in job.tested.bonds if b.body.place == "frame" and b.place > since]
    of = partial(Finding, code="site-bond", station="release", gate=True, unit="Ω", waivable=False)
    if not own:
        why = "From the earth conductor of its cable to bare metal of the frame, leads nulled."
        return of(verdict="unproven", subject="Bond to the earth conductor: not read", why=why)
    ohm, limit = own[-1].body.ohm, settings.earth_bond
    good = ohm <= limit.value
    return of(
        verdict="good" if good else "hold",
        subject="Bond to the earth conductor" + ("" if good else " failed"),
        why=f"{show_ohm(ohm)}; at most {limit.value:g} Ω.",
        figure=ohm,
        limit=limit.value,
        source=limit.source,
    )


def _change(job: Job, state: Connecting) -> Iterator[Finding]:
    """Yield whether the ohms of the lines changed in the ratio the change of volts demands."""
    of = partial(Finding, code="site-change", station="release", gate=True, waivable=False)
    found = changed(job)
    if found is None:
        if touched(job) and state.changed and not state.expected:
            why = "Read before the joints are touched and after: their ratio proves the change."
            yield of(verdict="unproven", subject="Line ohms before and after: not read", why=why)
        return
    told = f"{show_ohm(found.before[0])} before, {show_ohm(found.after[0])} after: {found.ratio:.2f} times."
    ask = " or ".join(f"{w:.3g}" for w in found.wanted)
    volt = job.supply.volt if job.supply is not None else 0.0
    yield of(
        verdict="good" if found.right else "hold",
        subject="Ohms changed as the volts demand"
        if found.right
        else "Line ohms did not change as they must",
        why=f"{told} {ask} times is wanted for {volt:g} V.",
        figure=round(found.ratio, 3),
        limit=found.wanted[0],
    )


def _ohms(job: Job, settings: Settings) -> Finding:
    """Return what the ohms between the lines say of a motor whose hookup nobody has opened."""
    of = partial(Finding, code="site-ohms", station="release", gate=True, unit="%")
    known = job.line_ohms or {}
    read = {p: ohm_value(known[p]).value for p in pairs_of(job) if p in known}
    left = [p for p in pairs_of(job) if p not in read]
    if left:
        why = "At the motor's box, supply leads off: an open winding or joint shows before volts."
        return of(verdict="unproven", subject="Ohms of the lines: not read", why=why)
    told = ", ".join(f"{p} {show_ohm(v)}" for p, v in read.items())
    if any(not math.isfinite(v) or v <= 0 for v in read.values()):
        why = f"{told}. A winding, a joint or the protector is open."
        return of(verdict="hold", subject="A line pair is open", why=why, waivable=False)
    middle = sum(read.values()) / len(read)
    apart = 100 * max(abs(v - middle) for v in read.values()) / middle
    bad, odd = apart > settings.balance_hold.value, apart > settings.balance_watch.value
    return of(
        verdict="hold" if bad else "watch" if odd else "good",
        subject="Ohms of the lines apart" if bad or odd else "Ohms of the lines alike",
        why=f"{told}.",
        figure=round(apart, 2),
        limit=settings.balance_hold.value if bad else settings.balance_watch.value,
        source=settings.balance_hold.source,
    )


def _ran(job: Job) -> Iterator[Finding]:
    """Yield what was heard and seen of it on its load: words of harm or roughness hold."""
    words = checked(job, "ran")
    bad = (*words_of_harm(words), *words_of_roughness(words))
    if bad or re.search(r"\bnone\b", words):
        yield Finding(
            code="site-ran",
            verdict="hold",
            subject="It does not run as it must",
            why=f"“{words}”. Off; find the cause before it runs again.",
            station="release",
            gate=True,
            waivable=False,
        )


def _start(job: Job, settings: Settings) -> Iterator[Finding]:
    """Yield a start that did not come off, or whose start device opened late."""
    told = start_told(checked(job, "start"))
    if told is None:
        return
    outcome, seconds = told
    most = settings.switch_out_hold
    late = outcome == "out" and seconds > most.value
    if outcome in ("stalled", "tripped") or late:
        yield Finding(
            code="site-start",
            verdict="hold",
            subject="The start device opens late" if late else "It does not start",
            why=f"{outcome.capitalize()} after {seconds:g} s. Start circuit, volts under load, a stiff shaft: off, and "
            "its devices each by its own test.",
            station="release",
            figure=seconds,
            limit=most.value if late else None,
            unit="s",
            source=most.source if late else "",
            gate=True,
            waivable=False,
        )


def _judged(
    found: Finding, item: str, words: str, of: tuple[Job, Connecting], settings: Settings
) -> Finding:
    """Return a line as what was read makes it: a lost phase and volts far off the plate are bad."""
    job, state = of
    figures = all_in(words)
    if not words:
        return found
    count = phases_of(job)
    if item == "phase-order":
        if words.strip().upper() in ORDERS:
            return found
        return replace(found, verdict="unproven", why=f"“{words}” is no reading: {ORDERS[0]}.")
    if len(figures) < count:
        wanted = "three figures" if count == 3 else "a figure"
        return replace(found, verdict="unproven", why=f"“{words}” is no reading: {wanted}.")
    if job.supply is None:
        return found
    own = figures[:count]
    middle = sum(own) / count
    apart = max(abs(f - middle) for f in own) / middle if middle > 0 else 1.0
    if item == "amps":
        return _amps(found, own, apart, job, settings)
    rated = rated_volts(job, state) or (job.supply.volt, job.supply.volt)
    off = off_rated(middle, rated)
    if abs(off) > settings.supply_apart.value / 100:
        side = "under" if off < 0 else "over"
        plate = rated[0] if off < 0 else rated[1]
        return replace(
            found,
            verdict="hold",
            subject="Volts at the terminals wrong",
            why=f"{words}: {show_percent(abs(off))} {side} the plate's {plate:g} V.",
            source=settings.supply_apart.source,
            waivable=False,
        )
    if apart > settings.unbalance_watch.value / 100:
        return replace(found, verdict="watch", why=f"{words}: {show_percent(apart)} apart.")
    if abs(off) > settings.supply_edge.value / 100:
        told = f"{words}: {show_percent(abs(off))} off the plate: it runs so, warmer and weaker."
        return replace(found, why=f"{told} {show_percent((1 + off) ** 2)} of its torque.")
    return found


def _amps(
    found: Finding, own: Sequence[float], apart: float, job: Job, settings: Settings
) -> Finding:
    plate = amps_at(job, job.supply) if job.supply else None
    dead = dead_lines(own)
    if dead:
        return replace(
            found,
            verdict="hold",
            subject=f"No amps in {' and '.join(dead)}",
            why="A lost phase: off at once. Look upstream of the motor, contact by contact.",
            waivable=False,
        )
    if plate and max(own) > plate * (job.plate.service_factor or 1.0):
        why = f"{max(own):g} A, plate {plate:g} A: the load, low volts, or wrong joints."
        return replace(found, verdict="watch", subject="Amps over the plate", why=why)
    if apart > settings.amps_apart.value / 100:
        why = f"{show_percent(apart)} apart: exchange lines; what goes along is the supply's."
        return replace(found, verdict="watch", subject="Amps of the lines apart", why=why)
    return found
