"""What Leads asks for next: the leads, a reading, a look to the frame."""

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import replace

from careful_coil.core.connect.present import stand_joined
from careful_coil.core.identify.extras import EARTH_OHM
from careful_coil.core.identify.result import Candidate, NextReading, code_of
from careful_coil.core.identify.rules import right_marks
from careful_coil.core.job import Job
from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.next_kind import looks_for_leads
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.probes.kinds.frame import LUG_OFF
from careful_coil.core.readings import Frame, Kick, Resistance, ohm_value
from careful_coil.core.stations import Station


def _as_found(job: Job) -> Iterator[NextStep]:
    """Yield the question how the leads came joined, before anything is read or parted."""
    apart = job.seen.arrived is not None and "dismantled" in job.seen.arrived.states
    begun = job.readings or job.joined.acts or job.joined.start is not None or job.before
    if job.leads and job.found is None and not apart and not begun:
        yield NextStep(
            code="found-hookup",
            title="How do its leads come joined?",
            station="intake",
            focus="found",
            why="Before anything is parted: it tells what it was joined for, and ohms through a joint are not "
            "those of a bare coil. L1 A G; D E F, or 0 where they are apart.",
        )


def _taken_apart(c: Facts) -> Iterator[NextStep]:
    """Yield the parting of joints that stand, where leads must be read by themselves."""
    joints = stand_joined(c.job)
    names = tuple(n for j in joints for n in j)
    if c.job.dead_proved is None:
        yield DEAD
    yield NextStep(
        code=f"cut-{'-'.join(names)}",
        title="Take it apart first",
        station="leads",
        act="part",
        words="all apart",
        ends=names,
        why=f"Joined now: {', '.join('–'.join(j) for j in joints)}. Ohms through joints are not those of a "
        "coil. Part them, keep the ends apart.",
    )


def _changed_as_it_is(c: Facts) -> bool:
    """Whether its joints are one of its hookups by the marks, and it ran so or is being changed from it.

    Then they are changed one by one by the plan, and line ohms and the run prove it.
    """
    found = c.job.found
    begun = bool(c.job.joined.acts)
    return c.connecting.by_marks and found is not None and (found.ran == "yes" or begun)


DEAD = NextStep(
    code="dead",
    title="Prove it dead",
    station="leads",
    act="dead",
    why="A capacitor may be hidden. Discharge it, then a meter on DC volts: under 5 V across the leads.",
)


def _mended(c: Facts) -> Iterator[NextStep]:
    """Yield each lead whose insulation is bad: what is done to it voids its readings, so it comes first."""
    for f in c.findings:
        if f.code == "seen-leads" and f.part.startswith("lead:") and f.verdict == "hold":
            tag = f.part.partition(":")[2]
            yield NextStep(
                code=f"mend-lead-{tag}",
                title=f"Mend lead {tag}",
                station="mechanics",
                focus="lead-done",
                why=f"{f.subject}. {f.why} Before it is read: what is done to it voids its readings.",
            )


def _energised(job: Job) -> Station:
    """Return the station where it last had volts: there it is proved dead; before any, at its leads."""
    if job.trials.sheets:
        return "test-run"
    return "connect" if job.joined.run else "leads"


def lead_steps(c: Facts) -> Iterator[NextStep]:
    """Yield the proof of no volts and the reading that identification asks for."""
    job, found, naming = c.job, c.identification, c.naming
    if found is None:
        return
    if job.dead_proved is None and job.plate.phases != 3:
        yield replace(DEAD, station=_energised(job))
    yield from _mended(c)
    yield from _as_found(job)
    if naming.word in ("proven", "kicked"):
        yield from _retag(c)
    if stand_joined(job):
        if not (naming.known or _changed_as_it_is(c)):
            yield from _taken_apart(c)
        return
    yield from _test_leads(job)
    yield from _odd_leads(c)
    nxt = found.next
    if nxt is None and not naming.known:
        yield from _beside(found.best, dict(job.known))
    yield from looks_for_leads(c)
    open_ = bool(found.best.unread or found.suspects) or _again(c, nxt)
    unread = nxt is not None and nxt.kind == "resistance" and open_
    worth = {
        "proven": unread,  # a coil that was only inferred may still be broken
        "kicked": unread or not job.plate.volts,  # else the reduced-voltage run closes it
        "marked": nxt is not None and nxt.kind == "switch",  # it tells where the start switch lies
        "owed": nxt is not None and nxt.kind in ("switch", "kick"),
    }
    if nxt is None or not worth.get(naming.word, True):
        yield from _retag(c)
        return
    if nxt.kind == "switch" and not is_open(job):
        yield OPEN_UP
    step = _reading(nxt)
    if nxt.kind == "kick" and _kicked(job, step):
        a, b = step.sense
        title = f"Exchange the probes, kick {''.join(step.ends)}, watch {b}{a}"
        yield replace(step, sense=(b, a), title=title)
    else:
        yield _exchanged(step) if nxt.kind == "resistance" and _again(c, nxt) else step


def _retag(c: Facts) -> Iterator[NextStep]:
    """Yield the change of prints that the readings contradict, once the leads are proven."""
    right = right_marks(c.job, c.naming)
    if right and c.naming.known:
        marks = {x.tag: x.marking for x in c.job.leads}
        told = ", ".join(f"{tag}: {marks[tag]} off, {mark} on" for tag, mark in right.items())
        yield NextStep(
            code=f"retag-{'-'.join(right)}",
            title=f"Mark {' and '.join(right)} again",
            why=f"{told}. Whoever opens it next reads the print.",
            station="leads",
            act="retag",
            ends=tuple(right),
            words="marked again",
        )


def _kicked(job: Job, step: NextStep) -> bool:
    """Whether a kick was read so before."""
    kicks = (t.reading for t in job.readings if isinstance(t.reading, Kick))
    return any((tuple(k.source), tuple(k.sense)) == (step.ends, step.sense) for k in kicks)


def _exchanged(step: NextStep) -> NextStep:
    """Return a reading that is taken again: the probes exchanged and set anew, so that no clip is read twice."""
    a, b = step.ends
    return replace(step, ends=(b, a), title=f"Exchange the probes, read {b} to {a}")


def _again(c: Facts, nxt: NextReading | None) -> bool:
    """Whether a reading that does not fit is asked for again: a bad clip, or a coil of its own."""
    if nxt is None or nxt.between is None or c.evidence is None:
        return False
    tags = c.evidence.tags
    read = {frozenset((tags[o.a], tags[o.b])) for o in c.evidence.ohms}
    return all(isinstance(e, str) for e in nxt.between) and frozenset(nxt.between) in read


LOW_OHM = 2.0  # of a coil: up to here test leads that are not known change what is concluded


def _test_leads(job: Job) -> Iterator[NextStep]:
    """Yield the ohms of the test leads, where a coil reads so low that they count."""
    readings = [t.reading for t in job.readings if isinstance(t.reading, Resistance)]
    low = any(0 < ohm_value(r.value).value < LOW_OHM for r in readings if not r.through)
    if low and job.meter.lead_ohm is None:
        yield NextStep(
            code="test-leads",
            title="Clip the test leads together",
            station="leads",
            focus="test-leads",
            why="A coil of so few ohms: what the leads add is taken off every reading. 0 when the meter is nulled.",
        )


def _odd_leads(c: Facts) -> Iterator[NextStep]:
    """Yield the test of each lead that is said or seen to lie beside the winding."""
    evidence, found = c.evidence, c.identification
    if evidence is None or found is None:
        return
    frame, said = dict(evidence.frame), {evidence.tags[k]: use for k, use in evidence.uses}
    lone = [
        t
        for t, kind in found.best.extras.items()
        if kind in ("empty", "earth")
        and found.best.probability >= LIKELY
        and found.status == "narrowed"
    ]
    for tag in evidence.tags:
        if tag not in frame and (said.get(tag) == "earth" or tag in lone):
            why = (
                "An earth lead reads under 1 Ω to bare metal of the frame, and open to every other."
            )
            yield _to_frame(tag, why)
        elif said.get(tag) == "earth" and frame[tag] < EARTH_OHM and tag not in evidence.lugs_off:
            why = "Its lug off the frame: now it must read open. A winding that reaches the frame would not."
            yield _to_frame(tag, why, LUG_OFF)


def _beside(best: Candidate, said: Mapping[str, str]) -> Iterator[NextStep]:
    """Yield the question what a pair beside the winding is, where no reading tells."""
    for group in best.groups:
        told = best.extras.get(group[0], "")
        doubt = f"Its ohms are none of a {told}: read it again, or say what it is."
        agreed = said.get(group[0]) == told and best.certainty[group[0]] == "leaning"
        if told and best.certainty[group[0]] != "proven" and not agreed:
            yield NextStep(
                code=f"beside-{'-'.join(group)}",
                title=f"What is the pair {' and '.join(group)}?",
                station="leads",
                focus="known",
                ends=group,
                why=doubt
                if group[0] in said
                else f"By its ohms probably a {told}; it belongs to nothing else. By its print, where it goes, or "
                "what it does: a heater warms on its volts, a brake clicks, a thermistor's ohms leap when hot.",
            )


def _to_frame(tag: str, why: str, against: str = "") -> NextStep:
    return NextStep(
        code=code_of("frame", tag),
        act="frame",
        station="leads",
        title=f"Read {tag} to the frame{', its lug off' if against else ''}",
        why=why,
        ends=(tag,),
        sense=(against,) if against else (),
    )


def frame_steps(c: Facts) -> Iterator[NextStep]:
    """Yield a look to the frame of one lead of each group, until the tester has been on."""
    job, found = c.job, c.identification
    if found is None or job.tested.tests or not c.known:
        return
    seen = {t.reading.lead for t in job.readings if isinstance(t.reading, Frame)}
    for group in found.best.groups:
        if not seen & set(group):
            why = "It must be open. A first look only, before the tester stresses it: "
            yield _to_frame(group[0], f"{why}one lead speaks for {' '.join(group)}.")


LIKELY = 0.8  # a lead is taken for one that conducts to no other

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
            found.append(NextStep(code=code, title=title, why="Skipped.", station="leads"))
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
