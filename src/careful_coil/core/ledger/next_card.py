"""The one most useful thing to do now, and why."""

from collections.abc import Collection, Iterator, Sequence
from typing import cast

from careful_coil.core.identify import Identification, Naming
from careful_coil.core.identify.result import NextReading, code_of
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.plate import unreadable
from careful_coil.core.ledger.site_rules import benched
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.readings import Frame
from careful_coil.core.stations import Station


def steps(
    job: Job,
    found: Identification | None,
    naming: Naming,
    gate: Sequence[Finding],
    wall: Sequence[NextStep] = (),
    ohmmeter_first: bool = False,
    gear: Sequence[NextStep] = (),
    connect: Sequence[NextStep] = (),
    trial: Sequence[NextStep] = (),
    site: Sequence[NextStep] = (),
    closed: Sequence[NextStep] = (),
    cause: Sequence[NextStep] = (),
) -> Iterator[NextStep]:
    """Yield everything worth doing, the most useful first.

    `wall`, `gear`, `connect`, `trial`: what those stations ask for, in order; `ohmmeter_first`: the frame is
    looked at by ohmmeter before the insulation tester; `site` the lines of a field sheet, where the motor
    is not in the shop; `closed` what the closed motor is asked for; `cause` what parts a complaint's causes.
    """
    if (job.released is not None and not gate) or job.let_go is not None:
        return
    yield from (s for s in wall if s.act == "discharge")  # before any hand goes near
    if job.trials.now is not None:  # volts may be on: nothing else is asked for
        yield from trial
    if job.on_site:
        yield from site
        if not benched(job):
            yield from _release(job, gate, closed, cause)
            return
    # once the leads are tagged the probe is in the hand: the plate can wait
    first, then = (_leads(job, found, naming), _intake(job))
    if not job.leads:
        first, then = then, first
    yield from first
    yield from then
    if ohmmeter_first:
        yield from _frame(job, found, naming)
    yield from (s for s in wall if s.act != "discharge")
    yield from gear
    yield from connect
    yield from trial if job.trials.now is None else ()
    yield from _release(job, gate, closed, cause)


def _intake(job: Job) -> Iterator[NextStep]:
    if not job.ticket.get("name"):
        yield NextStep(
            code="name",
            title="Name the motor",
            station="intake",
            focus="name",
            why="A word the shop will know it by: the customer and the machine.",
        )
    plate = job.plate
    for field_name, known, word in (
        ("phases", plate.phases, "phases"),
        ("volt", plate.volts, "volts"),
        ("hertz", plate.hertz, "hertz"),
    ):
        if not known:
            yield NextStep(
                code=f"plate-{field_name}",
                title=f"Read the plate: {word}",
                station="intake",
                focus=field_name,
                why="Limits and the hookup hang on it. As printed, both figures if there are two.",
            )
    unread = not (plate.amps or plate.power_w) and not unreadable(plate.printed("amp"))
    if plate.volts and unread:
        yield NextStep(
            code="plate-amp",
            title="Read the plate: amps",
            station="intake",
            focus="amp",
            why="Idle amps, overload and cable hang on them. ? where they cannot be read: power does too.",
        )
    if not job.leads:
        yield NextStep(
            code="tag",
            title="Tag the leads",
            station="leads",
            focus="count",
            why="Count them, tag each one, note its colour. Never clean leads with solvent: numbers come off.",
        )


def _leads(job: Job, found: Identification | None, naming: Naming) -> Iterator[NextStep]:
    if found is None:
        return
    if job.dead_proved is None and job.plate.phases != 3:
        yield NextStep(
            code="dead",
            title="Prove it dead",
            station="leads",
            act="dead",
            why="A capacitor may be hidden. Discharge it, then a meter on DC volts: under 5 V across the leads.",
        )
    nxt = found.next
    if nxt is None or naming.word == "marked":
        return
    if naming.word != "proven" or (nxt.kind == "resistance" and found.best.unread):
        if nxt.kind == "switch" and not is_open(job):
            yield OPEN_UP
        yield _reading(nxt)  # a coil that was only inferred may still be broken


def _frame(job: Job, found: Identification | None, naming: Naming) -> Iterator[NextStep]:
    """Yield a look to the frame of one lead of each group, until the tester has been on."""
    if found is None or job.tested.tests or naming.word not in ("proven", "marked"):
        return
    seen = {t.reading.lead for t in job.readings if isinstance(t.reading, Frame)}
    for group in found.best.groups:
        if not seen & set(group):
            yield NextStep(
                code=code_of("frame", group[0]),
                act="frame",
                station="leads",
                title=f"Read {group[0]} to the frame",
                why="It must be open. A first look only, before the tester stresses it: "
                f"one lead speaks for {' '.join(group)}.",
                ends=(group[0],),
            )


OPEN_UP = NextStep(
    code="open-up",
    act="covers",
    title="Take the covers off",
    station="leads",
    why="The start mechanism sits behind them: it is worked and looked at by hand.",
    words="covers are off",
)


def is_open(job: Job) -> bool:
    """Whether somebody said that the covers came off, and they are not back on."""
    return "covers" in job.deeds.stamps and job.tested.covers < 0


READS = ("resistance", "switch", "shaft", "spin", "kick", "series", "run")


def readings_put_off(
    job: Job, every: Sequence[NextStep], put_off: Collection[str]
) -> list[NextStep]:
    """Return the readings put off: identification asks for the next best in their place."""
    known = {s.code for s in every}
    known |= {code_of(t.reading.kind, *getattr(t.reading, "between", ())) for t in job.readings}
    found = []
    for code in sorted(put_off):
        kind, _, ends = code.partition("-")
        if kind in READS and code not in known:
            verb = "Read" if kind == "resistance" else kind.capitalize()
            title = f"{verb} {ends.replace('-', ' to ' if ends.count('-') == 1 else ' ')}"
            found.append(NextStep(code=code, title=title, why="Put off.", station="leads"))
    return found


def _reading(nxt: NextReading) -> NextStep:
    """Return the reading that identification asks for."""
    if nxt.source:
        sense, title = (
            nxt.sense or (),
            f"Kick {''.join(nxt.source)}, watch {''.join(nxt.sense or ())}",
        )
        if nxt.tie and nxt.across:
            sense = (nxt.tie[1], nxt.across[1])
            title = f"Tie {nxt.tie[0]} to {nxt.tie[1]}, read {nxt.across[0]} to {nxt.across[1]}"
        return NextStep(
            code=nxt.code,
            act=nxt.kind,
            station="leads",
            title=title,
            why=nxt.why,
            ends=nxt.source,
            sense=sense,
        )
    if nxt.kind == "run":
        lines, joints = nxt.lines or (), nxt.joints or ()
        made = [f"L{k + 1} on {' '.join(j)}" for k, j in enumerate(lines)]
        made += [f"{' '.join(j)} joined" for j in joints]
        return NextStep(
            code=nxt.code,
            act="run",
            station="leads",
            title="Run it at reduced volts",
            why=f"{'; '.join(made)}. {nxt.why}",
            lines=lines,
            joints=joints,
        )
    one, two = nxt.between or ("", "")
    a = one if isinstance(one, str) else one[0]
    several = (two,) if isinstance(two, str) else two
    verb = {
        "switch": "Work the switch on",
        "shaft": "Turn the shaft, watch",
        "spin": "Spin the shaft, volts of",
    }.get(nxt.kind, "Read")
    return NextStep(
        code=nxt.code,
        act=nxt.kind,
        station="leads",
        title=f"{verb} {a} to {' + '.join(several)}",
        why=nxt.why,
        ends=(a, several[0]),
        also=several[1:],
    )


def _release(
    job: Job, gate: Sequence[Finding], closed: Sequence[NextStep], cause: Sequence[NextStep]
) -> Iterator[NextStep]:
    for f in gate:
        if f.verdict == "hold" or f.code in ("insulation", "insulation-between", "leads-proven"):
            continue
        if f.code in ("earth-bond", "cause"):
            yield from closed if f.code == "earth-bond" else cause
            continue
        title = {
            "supply": "Measure the supply",
        }.get(f.code)
        if title:
            yield NextStep(code=f.code, title=title, why=f.why, station="connect", focus=f.code)
    ran = not any(f.code == "test-run" for f in gate)
    for f in gate:
        if f.code == "direction" and f.verdict == "unproven" and not ran:
            continue  # the run shows it
        focus = {"coils-balanced": "coil-ohm"}.get(f.code, "")
        yield NextStep(
            code=f"open-{f.code}",
            title=f.subject,
            why=f.why,
            station=cast(Station, f.station),
            focus=focus,
        )
    if not gate:
        yield NextStep(
            code="sign",
            act="sign",
            title="Sign and let it go",
            station="release",
            focus="sign",
            why="Nothing stands open. The sheet goes with the motor.",
        )
