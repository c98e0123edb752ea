"""Work where the motor stands: its own gate list, and one numbered list for paper and entry page alike."""

import re
from collections.abc import Iterator, Mapping, Sequence
from functools import partial

from careful_coil.core.condition.insulation import dc_test_volts
from careful_coil.core.condition.wall_rules import discharge_seconds
from careful_coil.core.connect.beyond import Line
from careful_coil.core.connect.changed import ohms_before, ohms_now, pairs_of, touched
from careful_coil.core.connect.typed import hertz_in, read_supply
from careful_coil.core.connect.work import Connecting
from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure, of_each
from careful_coil.core.job import Job
from careful_coil.core.job.at_connect import Installer, SupplyRead
from careful_coil.core.job.at_insulation import Covers, Discharged, EarthBond, InsulationTested
from careful_coil.core.job.entries import AnyBody, LineOhm, ProvedDead, Supply
from careful_coil.core.job.noted import note
from careful_coil.core.job.tested import Logged
from careful_coil.core.ledger.site_line import SiteLine
from careful_coil.core.ledger.site_live import alive_lines
from careful_coil.core.probes.kinds.insulation import read_insulation
from careful_coil.core.run.supply import read_three
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse, show, show_ohm

NEAR_PLATE = 0.1  # of 1: volts that are the plate's
HAD_VOLTS = "proved, had volts since"
LATER = "site-hour"  # the gate does not wait for it
ORDINARY_VOLT = 400.0  # of a plate that nobody can read
LID_ON = ("on", "lid on", "yes", "done", "closed")


def field_sheet(job: Job, state: Connecting, installer: Sequence[Line]) -> tuple[SiteLine, ...]:
    """Return the lines of a visit in the order hands make them: dead first, then what needs volts."""
    return (
        _line_side(job),
        *_dead(job, state),
        *alive_lines(job, state.view),
        *_told(job, installer),
    )


def changing(job: Job, state: Connecting) -> bool:
    """Whether joints are parted or made at this visit, or may have to be."""
    if state.plan is None:
        return touched(job) or (len(job.plate.volts) > 1 and bool(job.found and job.found.joints))
    return touched(job) or (state.now.before != "apart" and state.next_step is not None)


def _dead(job: Job, state: Connecting) -> Iterator[SiteLine]:
    yield SiteLine(
        name="site-dead",
        title="Isolated, locked, proved dead; capacitors discharged",
        how="Meter on DC and AC volts, every lead to every other and to earth: under 5 V.",
        hint="0 V",
        done="proved" if job.dead_proved is not None else HAD_VOLTS if _had_volts(job) else "",
        read=_proved,
    )
    change = changing(job, state)
    ahead = change and state.plan is not None and state.next_step is not None
    before, now = ohms_before(job), {} if ahead else ohms_now(job)  # after it all is read anew
    if change:
        yield _ohm_line(job, "site-ohms-before", "as it came", "", before)
        yield from _walls(job, "-before", "before the joints are touched", newest=False)
        yield SiteLine(
            name="site-change",
            title="The change, joint by joint",
            how=_steps(state),
            hint="each joint made, pulled",
            done="made" if state.joined else "",
            read=_at_connect,
        )
    must = "/".join(f"{(state.expected or {})[p]:.3g}" for p in pairs_of(job) if state.expected)
    words = "after the change" if change else ""
    leads = f" Of what the meter shows its leads' {state.lead_ohm:g} Ω are taken off."
    told = f"It must read {must} Ω.{leads if state.lead_ohm else ''}" if must else ""
    yield _ohm_line(job, "site-ohms", words, told, now)
    stamps = job.deeds.stamps
    opened = stamps.get("covers", -1) > stamps.get("on-site", -1)  # at this visit: they go back on
    if change or opened:
        shut = job.tested.covers > job.deeds.last("line-ohms")
        yield SiteLine(
            name="site-lid",
            title="Lid on: seal seated, no lead pinched",
            how="Before the insulation is tested again and before volts.",
            hint="on",
            done="on" if shut else "",
            read=_lid,
        )
    yield from _walls(job, "", "lid on" if change or opened else "", newest=True, ahead=ahead)
    bonds = [b for b in job.tested.bonds if b.place > job.deeds.last("bond")]
    yield SiteLine(
        name="site-bond",
        title="Bond: earth conductor to bare frame",
        how="At the motor's box, leads nulled; at most 0.1 Ω.",
        hint="0.05",
        done=show_ohm(bonds[-1].body.ohm) if bonds else "",
        read=lambda text: (EarthBond(ohm=parse(text, Quantity.RESISTANCE).value),),
    )


def _ohm_line(job: Job, name: str, when: str, how: str, read: Mapping[str, float]) -> SiteLine:
    """Return the line of the ohms between the lines, all pairs in one."""
    pairs = pairs_of(job)
    ends = "the lines" if len(pairs) > 1 else "L1 and L2"
    title = f"Ohms between {ends} at the motor's box" + (f", {when}" if when else "")
    return SiteLine(
        name=name,
        title=title,
        how=f"Supply leads off. {how}".strip(),
        hint="/".join(["5.20", "5.21", "5.20"][: len(pairs)]),
        done="/".join(f"{read[p]:.4g}" for p in pairs) if set(pairs) <= set(read) else "",
        read=partial(_ohms, pairs),
    )


def _walls(
    job: Job, suffix: str, when: str, *, newest: bool, ahead: bool = False
) -> Iterator[SiteLine]:
    """Yield the insulation test and its discharge: the first of the visit, or one that nothing voided.

    Nothing is done yet where a change lies `ahead` of it.
    """
    every = job.tested.tests
    tests = [t for t in every if not newest or t.place > job.deeds.last("insulation")]
    tests = [] if ahead else tests
    charged = job.tested.charged()
    own = tests[-1 if newest else 0] if tests else None
    volt = dc_test_volts(max((v for span in job.plate.volts for v in span), default=ORDINARY_VOLT))[
        0
    ]
    yield SiteLine(
        name=f"site-megohm{suffix}",
        title="Insulation to the frame, one minute" + (f", {when}" if when else ""),
        how=f"Drive, surge arresters and electronics off. MΩ, the winding's °C; {volt:g} V where no others are said.",
        hint="480 20",
        done=f"{own.body.megohm:g} MΩ" if own else "",
        read=partial(_megohm, volt, every[-1].body.at_c if every else None),
    )
    yield SiteLine(
        name=f"site-drained{suffix}",
        title="Winding earthed after the test",
        how="Four times the test's length, four minutes at least after one minute; then proved.",
        hint="240 s",
        done="earthed" if own and (charged is None or charged.place != own.place) else "",
        read=partial(_drained, charged),
    )


def _steps(state: Connecting) -> str:
    left = [s.text.split(". ")[0].rstrip(".") for s in state.steps if s.joint or s.do == "cut"]
    return ". ".join(left) + "." if left else "Nothing is left to part or to join."


def _at_connect(text: str) -> Sequence[AnyBody]:
    raise BadValue(text, "each joint by itself, at Connect (Ctrl+7)")


def _lid(text: str) -> Sequence[AnyBody]:
    if text.strip().lower() not in LID_ON:
        raise BadValue(text, "on")
    return (Covers(on=True),)


def _had_volts(job: Job) -> bool:
    """Whether volts went on since it was proved dead."""
    return job.joined.turned is not None or bool(job.site.get("amps") or job.site.get("volts"))


def _line_side(job: Job) -> SiteLine:
    read, three = job.joined.read, job.plate.phases != 1
    return SiteLine(
        name="site-supply",
        title="Volts of the supply at the isolator's line side",
        how="Motor off. L1-L2/L2-L3/L3-L1."
        if three
        else "Motor off. Line to line, or line to neutral.",
        hint="401/398/403" if three else "231",
        done="/".join(f"{v:g}" for v in read.line) if read else _measured(job),
        read=partial(_supply, job),
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


def _ohms(pairs: Sequence[str], text: str) -> Sequence[AnyBody]:
    """Return the ohms of each pair: `5.20/5.21/5.20`, open where a pair is."""
    parts = of_each(text)
    if len(parts) != len(pairs):
        raise BadValue(
            text, f"{len(pairs)} readings, {', '.join(pairs)}: 5.20/5.21/5.20, or 3x5.20"
        )
    return [
        LineOhm.model_validate(
            {"lines": tuple(pair.split("-")), "value": show(parse(part, Quantity.RESISTANCE))}
        )
        for pair, part in zip(pairs, parts, strict=True)
    ]


FIGURE = r"(-?\d+(?:[.,]\d+)?)"
_MEGOHM = re.compile(rf"(.+?)\s+{FIGURE}\s*(?:°?C)?(?:\s+{FIGURE}\s*V)?", re.IGNORECASE)
MEGOHM_WANTED = "megohms after a minute, the winding's °C: 480 20, or 480 MΩ 20 °C 500 V"


def _megohm(volts: float, at_c: float | None, text: str) -> Sequence[AnyBody]:
    """Return the test; the tester's volts and the winding's °C are the last ones where none are typed."""
    told = _MEGOHM.fullmatch(text.strip())
    if told is None and at_c is not None:
        told = _MEGOHM.fullmatch(f"{text.strip()} {at_c:g}")
    if told is None:
        raise BadValue(text, MEGOHM_WANTED)
    test = read_insulation(told[1])
    celsius = figure(told[2], Quantity.TEMPERATURE, least=-40, most=200, wanted=MEGOHM_WANTED)
    volt = volts
    if told[3]:
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
    rest, told = hertz_in(text)
    if "/" in text and told is not None:
        wanted = "three voltages and hertz such as 401/398/403 60 Hz"
        line = read_three(rest.strip(), wanted, alike=True)
        named = _named(job, sum(line) / 3)
        return (named.model_copy(update={"hertz": told}), SupplyRead(line=line))
    if "~" in text or "Hz" in text:  # the supply's own words, where no plate says them
        own = read_supply(text, job).model_copy(update={"measured": True})
        return (own, SupplyRead(line=(own.volt, own.volt, own.volt)))
    line = read_three(
        text, "three voltages such as 401/398/403, one where all are alike", alike=True
    )
    read = SupplyRead(line=line)
    return (read,) if job.supply is not None else (_named(job, sum(line) / 3), read)


def _named(job: Job, volt: float) -> Supply:
    """Return the supply that was measured: the plate's volts nearest to it, else the volts read."""
    rated = [v for span in job.plate.volts for v in span]
    near = min(rated, key=lambda v: abs(v - volt), default=volt)
    own = near if abs(near / volt - 1) <= NEAR_PLATE else round(volt)
    return Supply(volt=own, hertz=job.plate.hertz or 50.0, phases=3, measured=True)


def _installer(name: str, text: str) -> Sequence[AnyBody]:
    if not text.strip():
        raise BadValue(text, "what was set, or who was told")
    return (Installer(item=name, state="done", words=text.strip()),)
