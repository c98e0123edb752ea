"""What the insulation asks for next: make ready, test each winding, earth it, find, clean, dry."""

from collections.abc import Iterator
from dataclasses import replace

from careful_coil.core.condition.apart import ready_for
from careful_coil.core.condition.bond import places_left
from careful_coil.core.condition.later_rules import campaign_of
from careful_coil.core.condition.wall import Wall, made_since, search_tests, standing, wanted_tests
from careful_coil.core.condition.wall_rules import (
    closed_left,
    discharge_seconds,
    electronic,
    open_to_frame,
    weakest,
)
from careful_coil.core.identify.naming import no_earth
from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.step import NextStep

CODES = ("insulation", "insulation-between", "insulation-index")


def insulation_steps(c: Facts) -> Iterator[NextStep]:
    """Yield what the insulation asks for, the most useful first."""
    job, wall, findings, settings = c.job, c.wall, c.findings, c.settings
    charged = job.tested.charged()
    if charged is not None:
        seconds = discharge_seconds(charged.body)
        yield NextStep(
            code="discharge",
            act="discharge",
            title="Earth the winding",
            station="insulation",
            focus="test",
            why=f"It holds the tester's charge. To earth for {seconds / 60:g} min, then tick it.",
            words="the earth is on",
        )
    shut = {f.code: f for f in findings if f.code in CODES and f.gate and f.verdict != "good"}
    low = shut.get("insulation")
    if low is not None and low.verdict == "unproven" and closed_left(job, wall):
        shut.pop("insulation")  # asked for once it is closed
        low = None
    if not shut:
        return
    run, found = job.tested.campaign(), campaign_of(job, wall, settings)
    state = found[0] if found and run and run[1] is None else None  # while it dries
    if state is not None and state.done:
        yield NextStep(
            code="dry", title="End drying", station="insulation", focus="drying", why=state.why
        )
    elif state is not None and state.phase != "stuck":
        yield _test(c, (), "Read it again while it dries", state.why)
        return
    if low is not None and low.verdict == "hold":
        failed = weakest(job, wall)
        find = list(search_tests(wall, failed[0].body)) if failed else []
        done = {
            (t.body.parts, t.body.against) for t in standing(made_since(job, "apart"), wall.groups)
        }
        worked = job.deeds.last("insulation") > (failed[0].place if failed else -1)
        for one in find:
            if (one.parts, one.against) not in done:
                yield _test(
                    c,
                    one.parts,
                    f"{'Test again' if worked else 'Find it'}: {' '.join(one.parts)}",
                    low.why,
                    one.against,
                )
        if not worked:  # dried or washed since: it is tested first
            yield NextStep(
                code="dry",
                act="dried",
                title="Clean and dry it, then test again",
                station="insulation",
                focus="drying",
                words="it is clean and dry",
                why=low.why,
            )
        yield _test(c, (), "Test the insulation again", low.why)
        return
    between = shut.get("insulation-between")
    if between is not None and between.verdict == "hold":
        yield NextStep(
            code="between",
            act="cleaned",
            title="Part the two windings",
            station="insulation",
            focus="drying",
            words="they are apart and clean",
            why=f"{between.why} Look at end turns and leads where they cross; clean, dry, test again.",
        )
    wanted = wanted_tests(wall, standing(made_since(job, "apart"), wall.groups))
    index = shut.get("insulation-index")
    for k, one in enumerate(wanted):
        named = f"Test {' '.join(one.parts)} to the frame" if one.parts else "Test the insulation"
        beside = " ".join(t for t in job.tags if t in wall.beside)
        joined = (
            f"all leads of the winding joined, {beside} at earth" if beside else "all leads joined"
        )
        rest = "the other windings earthed" if one.parts else joined
        long = "ten minutes, for the index too" if index is not None and k == 0 else "one minute"
        yield _test(c, one.parts, named, f"{rest[0].upper()}{rest[1:]}, {long}.")
    if not wanted and low is not None:
        yield _test(c, (), "Test the insulation", low.why)
    if index is not None:
        yield _test(c, (), "Ten minutes under volts", index.why)


SHUT_II = (
    "Leads tucked in: none pinched, none near rotor or fan. Class II: the plastic body whole, every barrier, "
    "sleeve and cap of it back; nothing of it is earthed."
)
COVERS = NextStep(
    code="covers",
    act="covers",
    title="Put the covers on",
    station="insulation",
    focus="bond",
    why="Leads tucked in: none pinched, none near rotor or fan, the earth lead the longest of all. The earth bond "
    "is measured after the last screw: paint and gaskets part it.",
    words="covers are on",
)


def closed_steps(c: Facts) -> Iterator[NextStep]:
    """Yield what the closed motor is asked for before its run: covers, insulation once more, bond."""
    job, wall = c.job, c.wall
    if job.tested.covers < 0 and not job.seen.sealed:
        yield replace(COVERS, why=SHUT_II) if no_earth(job) else COVERS
    if closed_left(job, wall) and not open_to_frame(job):
        if electronic(job) and job.tags:
            tag = job.tags[0]
            yield NextStep(
                code=f"frame-{tag}",
                act="frame",
                title=f"Read {tag} to the frame",
                station="leads",
                ends=(tag,),
                why="An electronic part forbids the tester now: it must be open by ohmmeter.",
            )
        else:
            why = "All leads tied, covers on: a pinched lead shows now, before volts."
            yield _test(c, (), "Test the closed motor", why)
    bond = next((f for f in c.findings if f.code == "earth-bond"), None)
    if bond is not None and bond.verdict == "hold":
        yield NextStep(
            code="mend-earth",
            title="Make the earth good",
            station="insulation",
            focus="earth-done",
            why=bond.why,
        )
    places = places_left(job)
    at_once = (
        f" All at once: {'/'.join(('0.03', '0.04', '0.03')[: len(places)])}."
        if len(places) > 1
        else ""
    )
    for place in places:
        yield NextStep(
            code=f"bond-{place.replace(' ', '-')}",
            act="bond",
            title=f"Earth bond: {place}",
            station="insulation",
            ends=("earth lead", place),
            focus="bond",
            why="From the stud or the earth lead to bare metal, leads nulled. Its colour proves nothing."
            + at_once,
        )
    test = next((f for f in c.findings if f.code == "appliance"), None)
    if (
        test is not None
        and test.verdict == "unproven"
        and not places
        and not closed_left(job, wall)
    ):
        yield NextStep(
            code="appliance",
            title="Measure its leakage",
            station="insulation",
            focus="earth-leakage",
            why=f"{test.why} On the mains through the tester, covers on; class II at every metal one touches.",
        )


def _test(
    c: Facts,
    parts: tuple[str, ...],
    title: str,
    why: str,
    against: tuple[str, ...] = (),
) -> NextStep:
    """Return a test; where the motor is not ticked ready for it, getting ready comes first."""
    wall = c.wall
    code = "-".join(("insulation", *parts, *(("to", *against) if against else ())))
    if not ready_for(c.job, wall, c.kinds, c.bench.now, c.settings.dead_minutes.value):
        return NextStep(
            code=f"ready-{code}",
            act="ready",
            title="Make ready for the insulation test",
            station="insulation",
            focus="ready",
            why=f"{title}. First tick what is off and earthed: {_volts(wall)} go on.",
            words="tick it",
        )
    volts = _volts(wall)
    return NextStep(
        code=code,
        act="insulation",
        title=title,
        station="insulation",
        ends=parts,
        sense=against,
        focus="test",
        why=f"{volts[0].upper()}{volts[1:]}. {why}",
    )


def _volts(wall: Wall) -> str:
    span = wall.test_volts()
    if span is None:
        return "hundreds of volts"
    low, high = span
    return f"{low:g} V" if low == high else f"{low:g} to {high:g} V"
