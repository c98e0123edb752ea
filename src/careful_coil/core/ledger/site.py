"""Work where the motor stands: its own gate list, and one numbered list for paper and entry page alike."""

import math
import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import partial
from itertools import combinations

from careful_coil.core.condition.typed import read_insulation
from careful_coil.core.condition.wall_rules import discharge_seconds
from careful_coil.core.connect.beyond import Line
from careful_coil.core.connect.dress import amps_at
from careful_coil.core.connect.rotation import read_direction, seen_direction
from careful_coil.core.connect.work import Connecting
from careful_coil.core.errors import BadValue
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.at_connect import Installer, SupplyRead
from careful_coil.core.job.at_insulation import Discharged, EarthBond, InsulationTested
from careful_coil.core.job.at_release import SiteChecked, SiteItem
from careful_coil.core.job.entries import AnyBody, LineOhm, ProvedDead, Supply
from careful_coil.core.job.tested import Logged
from careful_coil.core.readings import ohm_value
from careful_coil.core.run.supply import read_three
from careful_coil.core.settings import Settings
from careful_coil.core.trial.told import dead_lines
from careful_coil.core.values import Quantity, parse, show, show_ohm, show_percent

# what the bench does and a visit does not: after it the bench's own gate stays
BENCH = ("trial-begun", "low-run", "work", "bearing", "gear-step")
# what says so where it came before the visit: readings of the motor in the shop
IN_SHOP = (*BENCH, "reading", "winding-ohm", "insulation", "earth-bond", "felt", "covers", "joint")
ON_LIST = (
    "cause",
    "line-ohms",
    "insulation",
    "supply",
    "supply-unbalance",
    "direction",
    "installer",
)
ITEMS: Mapping[SiteItem, tuple[str, str]] = {
    "phase-order": ("Phase order at the motor", "Indicator on the supply, motor off."),
    "amps": (
        "Three amps within ten seconds",
        "Each line right after the start: a lost phase shows there.",
    ),
    "volts": ("Volts at the terminals", "Under load, at the motor, not at the panel."),
}
NEAR_PLATE = 0.1  # of 1: volts that are the plate's
HAD_VOLTS = "proved, had volts since"
LATER = "site-hour"  # the gate does not wait for it
ORDERS = ("L1 L2 L3", "L1 L3 L2")


@dataclass(frozen=True, slots=True, kw_only=True)
class SiteLine:
    """One line of the field sheet: its key, what is read and how, how it is written, what is on record.

    `read` makes entries of what was written. Raises: BadValue.
    """

    name: str
    title: str
    how: str
    hint: str
    done: str
    read: Callable[[str], Sequence[AnyBody]]


def site_findings(job: Job, state: Connecting, settings: Settings) -> Iterator[Finding]:
    """Yield what a site's own list asks for besides what the stations prove."""
    if not job.on_site:
        return
    if not state.expected:
        yield _ohms(job, settings)
    yield from _change(job)
    yield _bond(job, settings)
    for item, (subject, why) in ITEMS.items():
        if item == "phase-order" and _phases(job) == 1:
            continue
        words = job.site.get(item, "")
        found = Finding(
            code=f"site-{item}",
            verdict="good" if words else "unproven",
            subject=subject if words else f"{subject}: not read",
            why=words or why,
            station="release",
            gate=True,
        )
        yield _judged(found, item, words, job, settings)


def benched(job: Job) -> bool:
    """Whether the bench has worked on a motor that is now on site: nothing of its gate is dropped."""
    kinds = [e.body.kind for e in job.log]
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


RATIO_NEAR = 0.06  # of 1: ohms of the lines that changed as a change of volts makes them


def _change(job: Job) -> Iterator[Finding]:
    """Yield whether the ohms of the lines changed in the ratio the change of volts demands."""
    log = [e.body for e in job.log if e.id not in job.struck]
    first: dict[str, float] = {}
    last: dict[str, float] = {}
    touched = False
    for body in log:
        touched = touched or body.kind in ("joint", "parted", "stands-so")
        if body.kind == "line-ohm":
            pair, ohm = "-".join(sorted(body.lines)), ohm_value(body.value).value
            if pair not in first and not touched:
                first[pair] = ohm
            last[pair] = ohm
    volts = [v for span in job.plate.volts for v in span[:1]]
    read = [p for p in first if p in last and min(first[p], last[p]) > 0]
    again = len([b for b in log if b.kind == "line-ohm"]) > len(last)
    if len(volts) < 2 or job.supply is None or not read or not again:
        return
    new = min(volts, key=lambda v: abs(v - job.supply.volt))  # type: ignore[union-attr]
    wanted = [(new / v) ** 2 for v in volts if v != new]
    ratio = sum(last[p] / first[p] for p in read) / len(read)
    changed = touched or job.deeds.voiding("tags") is not None
    if not changed:
        return
    right = any(abs(ratio / w - 1) <= RATIO_NEAR for w in wanted)
    told = f"{show_ohm(first[read[0]])} before, {show_ohm(last[read[0]])} after: {ratio:.2f} times."
    ask = " or ".join(f"{w:.3g}" for w in wanted)
    yield Finding(
        code="site-change",
        verdict="good" if right else "hold",
        subject="Ohms changed as the volts demand"
        if right
        else "Line ohms did not change as they must",
        why=f"{told} {ask} times is wanted for {job.supply.volt:g} V.",
        station="release",
        figure=round(ratio, 3),
        limit=wanted[0],
        gate=True,
        waivable=False,
    )


def _phases(job: Job) -> int:
    return (job.supply.phases if job.supply else job.plate.phases) or 3


def _pairs(job: Job) -> tuple[str, ...]:
    lines = ("L1", "L2", "L3") if _phases(job) == 3 else ("L1", "L2")
    return tuple(f"{a}-{b}" for a, b in combinations(lines, 2))


def _ohms(job: Job, settings: Settings) -> Finding:
    """Return what the ohms between the lines say of a motor whose hookup nobody has opened."""
    of = partial(Finding, code="site-ohms", station="release", gate=True, unit="%")
    known = job.line_ohms or {}
    read = {p: ohm_value(known[p]).value for p in _pairs(job) if p in known}
    left = [p for p in _pairs(job) if p not in read]
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


def _judged(found: Finding, item: SiteItem, words: str, job: Job, settings: Settings) -> Finding:
    """Return a line as what was read makes it: a lost phase and volts far off the plate are bad."""
    figures = [float(f) for f in re.findall(r"\d+(?:\.\d+)?", words.replace(",", "."))]
    if not words:
        return found
    count = _phases(job)
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
    off = abs(middle / job.supply.volt - 1)
    if off > settings.supply_apart.value / 100:
        return replace(
            found,
            verdict="hold",
            subject="Volts at the terminals wrong",
            why=f"{words}: {show_percent(off)} off {job.supply.volt:g} V.",
            waivable=False,
        )
    if apart > settings.unbalance_watch.value / 100:
        return replace(found, verdict="watch", why=f"{words}: {show_percent(apart)} apart.")
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


def field_sheet(job: Job, state: Connecting, installer: Sequence[Line]) -> tuple[SiteLine, ...]:
    """Return the lines of a visit in the order hands make them: dead first, then what needs volts."""
    return (*_dead(job, state), *_alive(job), *_told(job, installer))


def _dead(job: Job, state: Connecting) -> Iterator[SiteLine]:
    yield SiteLine(
        name="site-dead",
        title="Isolated, locked, proved dead; capacitors discharged",
        how="Meter on DC and AC volts, every lead to every other and to earth: under 5 V.",
        hint="0 V",
        done="proved" if job.dead_proved is not None else HAD_VOLTS if _had_volts(job) else "",
        read=_proved,
    )
    for pair in _pairs(job):
        a, _, b = pair.partition("-")
        wanted = (state.expected or {}).get(pair)
        read = (job.line_ohms or {}).get(pair)
        yield SiteLine(
            name=f"site-ohm-{pair}",
            title=f"Ohms {a} to {b} at the motor's box",
            how=f"Supply leads off. It must read {wanted:.3g} Ω."
            if wanted
            else "Supply leads off.",
            hint="5.20",
            done=show(ohm_value(read)) if read is not None else "",
            read=partial(_ohm, (a, b)),
        )
    tests = job.tested.tests
    done = f"{tests[-1].body.megohm:g} MΩ" if tests else ""
    yield SiteLine(
        name="site-megohm",
        title="Insulation to the frame, one minute",
        how="Drive, surge arresters and electronics off; volts of the tester and the winding's °C with it.",
        hint="480 MΩ 20 °C 500 V",
        done=done,
        read=_megohm,
    )
    charged = job.tested.charged()
    yield SiteLine(
        name="site-drained",
        title="Winding earthed after the test",
        how="Four times the test's length, four minutes at least after one minute; then proved.",
        hint="240 s",
        done="earthed" if tests and charged is None else "",
        read=partial(_drained, charged),
    )
    bonds = job.tested.bonds
    yield SiteLine(
        name="site-bond",
        title="Bond: earth conductor to bare frame",
        how="At the motor's box, leads nulled; at most 0.1 Ω.",
        hint="0.05",
        done=show_ohm(bonds[-1].body.ohm) if bonds else "",
        read=lambda text: (EarthBond(ohm=parse(text, Quantity.RESISTANCE).value),),
    )


def _had_volts(job: Job) -> bool:
    """Whether volts went on since it was proved dead."""
    return job.joined.turned is not None or bool(job.site.get("amps") or job.site.get("volts"))


def _alive(job: Job) -> Iterator[SiteLine]:
    read = job.joined.read
    three = job.plate.phases != 1
    yield SiteLine(
        name="site-supply",
        title="Volts of the supply, motor off",
        how="L1-L2/L2-L3/L3-L1 at the isolator." if three else "Line to line, or line to neutral.",
        hint="401/398/403" if three else "231",
        done="/".join(f"{v:g}" for v in read.line) if read else _measured(job),
        read=partial(_supply, job),
    )
    for item in ITEMS:
        title, how = ITEMS[item]
        hint = {"phase-order": "L1 L2 L3", "amps": "6.1/6.2/6.1", "volts": "398/399/400"}[item]
        if item == "volts" or three:
            yield SiteLine(
                name=f"site-{item}",
                title=title,
                how=how,
                hint=hint if three else hint.split("/")[0],
                done=job.site.get(item, ""),
                read=partial(_checked, item, 3 if three else 1),
            )
        elif item == "amps":
            yield SiteLine(
                name="site-amps",
                title="Amps within ten seconds",
                how="Right after the start; once more when the start device has let go.",
                hint="6.1",
                done=job.site.get("amps", ""),
                read=partial(_checked, "amps", 1),
            )
    seen = seen_direction(job)
    yield SiteLine(
        name="site-direction",
        title="Direction, and the end it is seen from",
        how="Uncoupled, one short bump.",
        hint="cw drive-end",
        done=f"{seen.at_drive} drive-end" if seen is not None else "",
        read=lambda text: (read_direction(text, "bump"),),
    )


def _told(job: Job, installer: Sequence[Line]) -> Iterator[SiteLine]:
    for line in installer:
        done = job.joined.installer.get(line.name)
        yield SiteLine(
            name=f"site-told-{line.name}",
            title=line.words,
            how=line.why,
            hint="set, told",
            done=(done.words or done.state) if done else "",
            read=partial(_installer, line.name),
        )
    yield SiteLine(
        name=LATER,
        title="An hour later: amps, frame, bearings, air",
        how="Loaded; by thermometer, not by hand. The gate does not wait for it, the sheet does.",
        hint="6.0 A, frame 58 °C, air 24 °C",
        done=job.site.get("hour", ""),
        read=lambda text: (SiteChecked(item="hour", words=text.strip()),),
    )


def _measured(job: Job) -> str:
    own = job.supply is not None and job.supply.measured and job.plate.phases == 1
    return f"{job.supply.volt:g} V" if own and job.supply is not None else ""


def _drained(charged: Logged[InsulationTested] | None, text: str) -> Sequence[AnyBody]:
    found = re.fullmatch(r"(\d{1,6}(?:[.,]\d+)?)\s*(s|min)?", text.strip(), re.IGNORECASE)
    if found is None:
        raise BadValue(text, "how long it was earthed: 240 s, 4 min")
    seconds = float(found[1].replace(",", ".")) * (60 if (found[2] or "s").lower() == "min" else 1)
    least = discharge_seconds(charged.body) if charged is not None else 0.0
    if seconds < least:
        raise BadValue(text, f"{least:g} s at least: it builds up again")
    return (Discharged(seconds=min(seconds, 1e6)),)


def _proved(text: str) -> Sequence[AnyBody]:
    volt = parse(
        text if text.strip().upper().endswith("V") else f"{text} V", Quantity.VOLTAGE
    ).value
    if not 0 <= volt <= 5:
        raise BadValue(text, "under 5 V: it is not dead")
    return (ProvedDead(volt=volt),)


def _ohm(lines: tuple[str, str], text: str) -> Sequence[AnyBody]:
    return (
        LineOhm.model_validate({"lines": lines, "value": show(parse(text, Quantity.RESISTANCE))}),
    )


_MEGOHM = re.compile(r"(.+?)\s+(-?\d+(?:[.,]\d+)?)\s*°?C\s+(\d+(?:[.,]\d+)?)\s*V", re.IGNORECASE)
MEGOHM_WANTED = "megohms after a minute, the winding's °C, the tester's volts: 480 MΩ 20 °C 500 V"


def _megohm(text: str) -> Sequence[AnyBody]:
    told = _MEGOHM.fullmatch(text.strip())
    if told is None:
        raise BadValue(text, MEGOHM_WANTED)
    test = read_insulation(told[1])
    celsius, volt = (float(told[k].replace(",", ".")) for k in (2, 3))
    if not (-40 <= celsius <= 200 and 10 <= volt <= 15000):
        raise BadValue(text, MEGOHM_WANTED)
    return (
        InsulationTested(
            megohm=test.megohm,
            at_c=celsius,
            test_volt=volt,
            above=test.above,
            readings=test.readings,
            others="earthed",
        ),
    )


def _supply(job: Job, text: str) -> Sequence[AnyBody]:
    if job.plate.phases == 1:
        volt = parse(text if text.strip().upper().endswith("V") else f"{text} V", Quantity.VOLTAGE)
        if not 0 < volt.value <= 20000:
            raise BadValue(text, "the supply's volts, such as 231")
        hertz = job.supply.hertz if job.supply else job.plate.hertz or 50.0
        own = Supply(volt=volt.value, hertz=hertz, phases=1, measured=True)
        return (own,)
    line = read_three(text, "three voltages such as 401/398/403")
    read = SupplyRead(line=line)
    return (read,) if job.supply is not None else (_named(job, sum(line) / 3), read)


def _named(job: Job, volt: float) -> Supply:
    """Return the supply that was measured: the plate's volts nearest to it, else the volts read."""
    rated = [v for span in job.plate.volts for v in span]
    near = min(rated, key=lambda v: abs(v - volt), default=volt)
    own = near if abs(near / volt - 1) <= NEAR_PLATE else round(volt)
    return Supply(volt=own, hertz=job.plate.hertz or 50.0, phases=3, measured=True)


def _checked(item: SiteItem, count: int, text: str) -> Sequence[AnyBody]:
    told = text.strip()
    if item == "phase-order":
        if told.upper() not in ORDERS:
            raise BadValue(text, " or ".join(ORDERS))
        told = told.upper()
    else:
        unit, quantity = ("A", Quantity.CURRENT) if item == "amps" else ("V", Quantity.VOLTAGE)
        parts = [p.strip() for p in re.sub(rf"\s*{unit}\s*$", "", told, flags=re.I).split("/")]
        if len(parts) != count:
            raise BadValue(text, "/".join(["400" if unit == "V" else "6.1"] * count) + f" {unit}")
        values = [parse(f"{p} {unit}", quantity).value for p in parts]
        told = "/".join(f"{v:g}" for v in values) + f" {unit}"
    return (SiteChecked(item=item, words=told),)


def _installer(name: str, text: str) -> Sequence[AnyBody]:
    if not text.strip():
        raise BadValue(text, "what was set, or who was told")
    return (Installer(item=name, state="done", words=text.strip()),)
