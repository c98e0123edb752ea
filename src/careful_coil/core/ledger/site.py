"""Work where the motor stands: its own gate list, and one numbered list for paper and entry page alike."""

import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import partial
from itertools import combinations

from careful_coil.core.condition.wall_rules import discharge_seconds
from careful_coil.core.connect.beyond import Line
from careful_coil.core.connect.rotation import read_direction, seen_direction
from careful_coil.core.connect.work import Connecting
from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure
from careful_coil.core.job import Job
from careful_coil.core.job.at_connect import Installer, SupplyRead
from careful_coil.core.job.at_insulation import Discharged, EarthBond, InsulationTested
from careful_coil.core.job.entries import AnyBody, LineOhm, ProvedDead, Supply
from careful_coil.core.job.noted import note
from careful_coil.core.job.tested import Logged
from careful_coil.core.probes.kinds.insulation import read_insulation
from careful_coil.core.readings import ohm_value
from careful_coil.core.run.supply import read_three
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse, show, show_ohm

ITEMS: Mapping[str, tuple[str, str]] = {
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


def phases_of(job: Job) -> int:
    """Return the phases of the supply, else of the plate, else three."""
    return (job.supply.phases if job.supply else job.plate.phases) or 3


def pairs_of(job: Job) -> tuple[str, ...]:
    """Return the pairs of lines there are."""
    lines = ("L1", "L2", "L3") if phases_of(job) == 3 else ("L1", "L2")
    return tuple(f"{a}-{b}" for a, b in combinations(lines, 2))


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
    for pair in pairs_of(job):
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
        read=lambda text: (note("site-checked", "hour", text.strip()),),
    )


def _measured(job: Job) -> str:
    own = job.supply is not None and job.supply.measured and job.plate.phases == 1
    return f"{job.supply.volt:g} V" if own and job.supply is not None else ""


def _drained(charged: Logged[InsulationTested] | None, text: str) -> Sequence[AnyBody]:
    seconds = figure(text, Quantity.TIME, wanted="how long it was earthed: 240 s, 4 min")
    least = discharge_seconds(charged.body) if charged is not None else 0.0
    if seconds < least:
        raise BadValue(text, f"{least:g} s at least: it builds up again")
    return (Discharged(seconds=min(seconds, 1e6)),)


def _proved(text: str) -> Sequence[AnyBody]:
    volt = figure(text, Quantity.VOLTAGE, most=5, wanted="under 5 V: it is not dead")
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
    celsius = figure(told[2], Quantity.TEMPERATURE, least=-40, most=200, wanted=MEGOHM_WANTED)
    volt = figure(told[3], Quantity.VOLTAGE, least=10, most=15000, wanted=MEGOHM_WANTED)
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


def _checked(item: str, count: int, text: str) -> Sequence[AnyBody]:
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
    return (note("site-checked", item, told),)


def _installer(name: str, text: str) -> Sequence[AnyBody]:
    if not text.strip():
        raise BadValue(text, "what was set, or who was told")
    return (Installer(item=name, state="done", words=text.strip()),)
