"""What proves a hookup before power, and what must be told with it: findings."""

import re
from collections.abc import Iterator, Sequence
from functools import partial

from careful_coil.core.connect.beyond import installer_list, still_open
from careful_coil.core.connect.changed import changed
from careful_coil.core.connect.dress import amps_at
from careful_coil.core.connect.low_run import clamps_judged, judged_run, unclamped
from careful_coil.core.connect.proof import last_unproved, left_to_check, read_on_the_way
from careful_coil.core.connect.rotation import (
    came_backwards,
    how_to_turn,
    matters,
    seen_direction,
    wanted_direction,
    wrong_way,
)
from careful_coil.core.connect.work import Connecting
from careful_coil.core.job import Finding, Job
from careful_coil.core.settings import Settings
from careful_coil.core.shop_lists import conductor, line_colours, same_colour
from careful_coil.core.values import show_ohm

_of = partial(Finding, station="connect")
TAG_NEAR = 0.10  # of 1: a tag's volts that are this supply's
LEFTOVER = "leftover differs"
_VOLTS = re.compile(r"(\d{2,5}(?:\.\d+)?)")


def proof_findings(
    job: Job, state: Connecting, settings: Settings, extras: Sequence[str] = ()
) -> Iterator[Finding]:
    """Yield findings on readings on the way, checks, the low run, direction, tags, the installer's list.

    `extras` leads of sensors and heaters.
    """
    yield from _direction(job, state)
    if state.plan is None:
        return
    yield from _on_the_way(job, state, settings)
    yield from _colours(job, state, settings)
    if state.by_marks:
        found = changed(job)
        read = read_on_the_way(job, state, settings)
        shown = (found is not None and found.right) or (bool(read) and all(r.right for r in read))
        yield _of(
            code="by-marks",
            verdict="note" if shown else "watch",
            subject="Planned from the lead numbers, not measured",
            why="Its ohms changed as they must: the marks agree. Three equal amps close it."
            if shown
            else "No coil was read by itself. Line ohms and a reduced-voltage run must confirm them before full volts.",
        )
    if state.joined:
        yield from _checks(job, state, bool(extras))
        yield from _low_run(job, state, settings)
        yield from _clamps(job, state, settings)
    yield from _tags(job, state)
    yield from _installer(job, state, settings)


def _on_the_way(job: Job, state: Connecting, settings: Settings) -> Iterator[Finding]:
    read = read_on_the_way(job, state, settings)
    if LEFTOVER in job.joined.ticked:
        back = last_unproved(job, state, read)
        where = f"Go back to {state.said(back)}: nothing has proved it yet." if back else ""
        yield _of(
            code="leftover",
            verdict="hold",
            subject="What is left over differs from the plan",
            why=f"A lead went into a joint under a wrong mark. {where}".strip(),
            waivable=False,
        )
    if read and not read[-1].right:
        last = read[-1]
        a, b = (state.names.get(n, n) for n in last.reading.between)
        yield _of(
            code="step-ohm",
            verdict="hold",
            subject=f"{a} to {b} does not read right",
            figure=last.ohm if last.ohm != float("inf") else None,
            limit=last.expected if last.expected != float("inf") else None,
            unit="Ω",
            why=f"Reads {_ohm(last.ohm)}; {_ohm(last.expected)} with the joints as ticked. Look at the last "
            "joint: both marks, the crimp, then read again.",
            source=settings.line_ohm_apart.source,
            waivable=False,
        )


def _ohm(value: float) -> str:
    return "open" if value == float("inf") else show_ohm(value)


def _colours(job: Job, state: Connecting, settings: Settings) -> Iterator[Finding]:
    clashes = colour_clashes(job, state, settings)
    if clashes:
        yield _of(
            code="colour-clash",
            verdict="note",
            subject="A lead has a line's colour and does not belong to it",
            why=f"{'; '.join(clashes)}. Go by the marks.",
        )


def colour_clashes(job: Job, state: Connecting, settings: Settings) -> list[str]:
    """Return leads of a line's colour that do not stand on that line, in words."""
    if state.plan is None or job.supply is None:
        return []
    at = (job.supply.volt, job.supply.hertz, job.supply.phases)
    colours = line_colours(settings.school("supply-colours"), *at)
    joint_of = {n: j for j in state.plan.joints for n in j}
    return [
        f"{state.mark(state.names[lead.tag])} is {lead.colour} as {conductor(line, *at)} is"
        for lead in job.leads
        if lead.tag in state.names
        for line in state.plan.lines()
        if same_colour(lead.colour, colours[line])
        and line not in joint_of.get(state.names[lead.tag], ())
    ]


def _checks(job: Job, state: Connecting, extras: bool) -> Iterator[Finding]:
    left = left_to_check(job, state, extras)
    done = not left
    yield _of(
        code="before-power",
        verdict="good" if done else "unproven",
        subject="Checked by hand and eye" if done else f"{len(left)} things to see before power",
        why="; ".join(c.words for c in left) + "." if left else "Joints, earth, covers, shaft.",
        gate=True,
    )


def _low_run(job: Job, state: Connecting, settings: Settings) -> Iterator[Finding]:
    run, plan, hookup = job.joined.run, state.plan, state.hookup
    if plan is None or hookup is None or job.supply is None:
        return
    if run is None:
        what = state.unseen[0] if state.unseen else "a joint that only a run shows"
        yield _of(
            code="low-run",
            verdict="unproven",
            subject="Not run at low volts",
            why=f"Ohms cannot show {what}. A quarter of the volts first, then power.",
            gate=True,
            waivable=False,
        )
        return
    limit = settings.run_amps_apart
    told = judged_run(run, hookup, plan, amps_at(job, job.supply), limit.value)
    left = unclamped(plan, state.by_name(job.joined.clamps))
    if told.verdict == "good" and left:
        yield _of(
            code="low-run",
            verdict="unproven",
            subject="Parallel leads not clamped",
            why=f"{told.words} Clamp {', '.join(left)} one by one: an open half or a missing star hides in "
            "the line's amps.",
            gate=True,
        )
        return
    yield _of(
        code="low-run",
        verdict=told.verdict,
        subject={
            "good": "Reduced-voltage run good",
            "watch": "Reduced-voltage run: look again",
            "hold": "Do not raise the voltage",
            "unproven": "Reduced-voltage run incomplete",
        }[told.verdict],
        why=told.words,
        figure=round(100 * told.apart, 1) if len(run.amp) == 3 else None,
        limit=limit.value if len(run.amp) == 3 else None,
        unit="%" if len(run.amp) == 3 else "",
        source=limit.source,
        gate=True,
        waivable=told.verdict != "hold",
    )


def _clamps(job: Job, state: Connecting, settings: Settings) -> Iterator[Finding]:
    if state.plan is None or state.hookup is None:
        return
    for group, verdict, words in clamps_judged(
        state.by_name(job.joined.clamps), state.hookup, state.plan, settings.clamp_apart.value
    ):
        yield _of(
            code=f"clamp-{'-'.join(group)}",
            verdict=verdict,
            subject="Parallel leads share" if verdict == "good" else "Parallel leads do not share",
            why=words,
            source=settings.clamp_apart.source,
            waivable=verdict != "hold",
        )


def _direction(job: Job, state: Connecting) -> Iterator[Finding]:
    wanted, seen = wanted_direction(job), seen_direction(job)
    if wrong_way(job) and wanted and seen:
        yield _of(
            code="direction",
            verdict="hold",
            subject="Turns the wrong way",
            why=f"It turns {seen.words(state.view)}; wanted is {wanted.words(state.view)}. {how_to_turn(state)}",
            gate=True,
        )
    elif wanted and seen:
        yield _of(
            code="direction",
            verdict="good",
            subject="Direction right",
            why=f"{seen.words(state.view)[0].upper()}{seen.words(state.view)[1:]}.",
            gate=True,
        )
    elif not wanted and matters(job) and seen and not came_backwards(job):
        yield _of(
            code="direction",
            verdict="good",
            subject="Direction seen",
            why=f"It turns {seen.words(state.view)}: said on the tag. Nobody said which way the machine "
            "wants it: its arrow is looked at before it is coupled.",
            gate=True,
        )
    elif not wanted and matters(job):
        yield _of(
            code="direction",
            verdict="unproven",
            subject="Direction wanted: not given",
            why=f"{matters(job)} Say which way it must turn, seen from which end; then watch it turn.",
            gate=True,
            waivable=False,
        )
    elif wanted:
        back = came_backwards(job)
        yield _of(
            code="direction",
            verdict="hold" if back else "unproven",
            subject="Direction wrong as it came" if back else "Direction not seen yet",
            why=f"Wanted: {wanted.words(state.view)}. A phase-order indicator, the reduced-voltage run or a bump "
            "tells; never a bump of a coupled pump.",
            gate=True,
        )


LEAD_BOX = "lead box"  # where a voltage tag belongs, whether or not one was noted


def tags_left(job: Job, changed: bool = False) -> dict[str, str]:
    """Return the places whose voltage tag says other volts than the supply, with what they say.

    `changed`: it goes to other volts than it came for, and so wants a tag where none was noted.
    """
    if job.supply is None:
        return {}
    found = {LEAD_BOX: "none"} if changed and not job.seen.voltage_tags else {}
    for place, words in job.seen.voltage_tags.items():
        volts = [float(v) for v in _VOLTS.findall(words)]
        if not any(abs(v / job.supply.volt - 1) <= TAG_NEAR for v in volts):
            found[place] = words
    return found


def _tags(job: Job, state: Connecting) -> Iterator[Finding]:
    left = tags_left(job)
    attested = "voltage-tags" in (job.attested or {})
    of = partial(_of, code="voltage-tags", gate=True)
    if job.seen.voltage_tags and left:
        told = "; ".join(f"{place}: “{words}”" for place, words in left.items())
        proven = state.joined and not state.unread
        yield of(
            verdict="hold" if proven else "unproven",
            subject="A voltage tag contradicts the joints"
            if proven
            else "Voltage tags not changed",
            why=f"{told}. The joints win: change every tag. Last, after proof.",
            waivable=not proven,
        )
    elif state.changed or job.seen.voltage_tags:
        done = attested or bool(job.seen.voltage_tags)
        yield of(
            verdict="good" if done else "unproven",
            subject="Voltage tags changed" if done else "Voltage tags not changed",
            why="All of them: lead box, cable, control end. Last, after proof.",
        )


def _installer(job: Job, state: Connecting, settings: Settings) -> Iterator[Finding]:
    if not state.changed:
        return
    lines = installer_list(job, state, settings)
    left = still_open(job, lines)
    yield _of(
        code="installer",
        verdict="unproven" if left else "good",
        subject=f"{len(left)} lines for the installer open" if left else "Installer told",
        why="; ".join(x.words for x in left) + "." if left else "Each line told or waived.",
        gate=True,
    )
