"""What Connect asks for next: the supply, each cut and joint, its proof, the checks before power."""

from collections.abc import Iterator, Sequence

from careful_coil.core.connect.dead import lapsed
from careful_coil.core.connect.dress import amps_at
from careful_coil.core.connect.low_run import expected_run, unclamped
from careful_coil.core.connect.proof import offer, read_on_the_way, still_open
from careful_coil.core.connect.rotation import wanted_direction
from careful_coil.core.connect.work import Connecting, fit_key, out_key
from careful_coil.core.identify.naming import no_earth
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.plate import unreadable
from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.step import NextStep

ASKED = {
    "seen-from": "Seen from which end",
    "rotation": "Which way must it turn",
    "family": "Say the internal connection",
}


def connect_steps(c: Facts) -> Iterator[NextStep]:
    """Yield what Connect asks for, in order."""
    job, state, findings, known = c.job, c.connecting, c.findings, c.known
    stale = lapsed(job, c.bench, c.settings)  # why the proof of no volts does not hold
    direction = next((f for f in findings if f.code == "direction"), None)
    if direction is not None and wanted_direction(job) is None:
        yield from _wanted(job, direction.why)
    if not known and state.plan is None:
        return
    lost = [f for f in ("volt", "hertz") if unreadable(job.plate.printed(f))]
    if job.supply is None and lost:
        yield NextStep(
            code="supply",
            title="Name the supply it ran on",
            station="connect",
            focus="supply",
            why="Its plate cannot be read: volts, hertz and phases it ran on, by who knows it. The tag then says "
            "that its ratings are not from the plate.",
        )
    elif job.supply is None:
        yield NextStep(
            code="supply",
            title="Name the supply",
            station="connect",
            focus="supply",
            why="Volts, hertz and phases it goes back to. Measure it where the volts were changed.",
        )
    if state.asks == "volt":
        yield NextStep(
            code="plate-volt",
            title="Read the plate's volts again",
            station="intake",
            focus="volt",
            why=state.why,
        )
    elif state.asks:
        yield NextStep(
            code=f"wish-{state.asks}",
            title=ASKED.get(state.asks, f"Say which {state.asks}"),
            station="connect",
            focus=f"wish-{state.asks}",
            why=state.why,
        )
    held = next((f for f in findings if f.code in ("step-ohm", "leftover")), None)
    proving = _proving(c)
    if proving is not None and (held is None or held.code == "step-ohm"):
        yield proving  # taken anew before anything is blamed
    elif held is not None:
        yield NextStep(
            code=held.code, title=held.subject, station="connect", why=held.why, focus="step-ohm"
        )
    change = list(_change(state))
    if change and stale:
        yield NextStep(
            code="dead-again",
            title="Prove it dead",
            station="connect",
            act="dead",
            why=f"{stale} Isolate, lock out. Meter on a live source, on every lead, on the live source again.",
            words="it is dead",
        )
    yield from change
    if state.joined:
        yield from _proof(job, state, findings)


def _proving(c: Facts) -> NextStep | None:
    """Return the reading after a joint made by the marks alone: it tells the lead from those still loose."""
    job, state = c.job, c.connecting
    if not state.by_marks:
        return None
    found = offer(job, state)
    here = [r for r in read_on_the_way(job, state, c.settings) if r.acts == len(job.joined.acts)]
    if found is None or any(r.right for r in here) or not still_open(state):
        return None  # no lead is left that could have been taken for one of these
    a, b = found.between if not here else found.between[::-1]  # again: the probes exchanged
    tags = state.by_tag((a, b))
    left = ", ".join(f"{state.mark(x)} from {state.mark(y)}" for x, y in found.untold)
    untold = f" It does not tell {left}: three equal amps do." if left else ""
    again = "It did not fit. Exchange the probes and put them on again. " if here else ""
    return NextStep(
        code=f"step-{tags[0]}-{tags[1]}",
        act="step",
        station="connect",
        ends=tags,
        title=f"Read {state.said((a,))} to {state.said((b,))}",
        why=f"{again}It must read {state.must(found.ohm)}: a lead under a wrong mark shows here.{untold}",
    )


def _change(state: Connecting) -> Iterator[NextStep]:
    """Yield every step of the change; cuts and joints are dead work."""
    for step in state.steps:
        if step.do == "cut" or (step.do == "move-link" and not step.joint):
            yield NextStep(
                code=f"cut-{'-'.join(step.leads)}",
                act="part",
                station="connect",
                ends=step.leads,
                title=f"Take {state.said(step.leads, ' and ')} out",
                why=step.text,
                words="it is out",
            )
        elif step.do == "insulate":
            yield NextStep(
                code=f"insulate-{step.leads[0]}",
                act="insulate",
                station="connect",
                ends=step.leads,
                title=f"Insulate {state.said(step.leads[:1])}",
                why="On its own, so that nothing touches it: it is live while the motor runs.",
                words="insulated",
            )
        elif step.do in ("fit-device", "remove-device"):
            key = fit_key if step.do == "fit-device" else out_key
            yield NextStep(
                code=f"{step.do}-{step.leads[0]}",
                act="tick",
                station="connect",
                ends=(key(step.leads[0]),),
                title=step.text.split(";", maxsplit=1)[0].rstrip("."),
                why=f"{step.text} A capacitor only after its discharge is proved.",
                words="done",
            )
        elif step.joint:
            joint = step.joint
            board = step.do == "move-link"
            clip = state.starter is not None and state.starter.clipped(joint)
            verb = "Link" if board else "Clip" if clip else "Join"
            to = "on" if clip else "to"
            yield NextStep(
                code=f"joint-{'-'.join(joint)}",
                act="joint",
                station="connect",
                ends=joint,
                title=f"{verb} {state.said(joint[:1])} {to} {state.said(joint[1:], ' and ')}",
                why=step.text
                if board or clip
                else f"Read both marks, make it, pull it hard. {_dressed(step.text)}",
                words="link good" if board else "joint good",
            )


def _dressed(text: str) -> str:
    """Return the words on connector and insulation, behind those on the joint itself."""
    return text.split("ull it.", maxsplit=1)[-1].strip()


def _in_turn(left: Sequence[str]) -> str:
    """Return how what is left is typed at once, nothing where it is one."""
    return f" All {len(left)} may be typed in one line, / between." if len(left) > 1 else ""


def _proof(job: Job, state: Connecting, findings: Sequence[Finding]) -> Iterator[NextStep]:
    """Yield the line ohms, the checks, the low run, the direction, tags and the installer's list."""
    in_turn = _in_turn(state.unread)
    for pair in state.unread:
        a, b = pair.split("-")
        yield NextStep(
            code=f"line-{pair}",
            act="line",
            station="connect",
            ends=(a, b),
            title=f"Read {a} to {b}",
            why=f"It must read {state.must((state.expected or {})[pair])}: that proves the joints.{in_turn}",
        )
    by_code = {f.code: f for f in findings}
    wrong = by_code.get("line-ohms")
    if (
        wrong is not None
        and wrong.verdict == "unproven"
        and not state.unread
        and state.lead_unknown
    ):
        yield CLIPPED
    if wrong is not None and wrong.verdict == "hold":
        worst = state.worst_line()
        yield NextStep(
            code="line-ohms",
            act="line",  # the same pair again is what the strip takes
            ends=worst,
            title="Look at the joints",
            station="connect",
            why=f"{wrong.why} Both marks and the crimp of each, the clips on bare metal; then type what "
            f"{' to '.join(worst)} reads now.",
        )
    yield from _open(by_code, "before-power", "Look it over before power", "before-power")
    run = by_code.get("low-run")
    left = unclamped(state.plan, state.by_name(job.joined.clamps)) if state.plan else ()
    if run is not None and run.verdict == "unproven" and job.joined.run is not None and left:
        yield NextStep(
            code=f"clamp-{left[0]}",
            title=f"Clamp {state.said(left[:1])} alone",
            station="connect",
            act="clamp",
            ends=(state.by_tag((left[0],))[0],),
            why=f"{run.why}{_in_turn(left)}",
        )
    elif (
        run is not None and run.verdict == "unproven" and state.hookup and state.plan and job.supply
    ):
        wanted = expected_run(state.hookup, state.plan, amps_at(job, job.supply))
        yield NextStep(
            code="low-run",
            title=f"Run it at {wanted.volt:.0f} V",
            station="connect",
            act="low-run",
            ends=wanted.lines,
            why=f"Bench supply, {'' if no_earth(job) else 'earthed and '}clamped. {wanted.words}",
        )
    elif run is not None and run.verdict == "hold":
        yield NextStep(
            code="low-run-wrong",
            title="Off, and look at the joints",
            station="connect",
            focus="low-run",
            why=run.why,
        )
    direction = by_code.get("direction")
    if direction is not None and direction.verdict == "hold":
        yield NextStep(
            code="direction",
            title="Turn it round",
            station="connect",
            focus="turn-round",
            why=direction.why,
        )
    else:
        yield from _open(by_code, "direction", "See which way it turns", "turn-seen")
    yield from _open(by_code, "voltage-tags", "Change the voltage tags", "voltage-tags")
    yield from _open(by_code, "installer", "Tell the installer", "installer")


def _wanted(job: Job, why: str) -> Iterator[NextStep]:
    """Yield what is asked of the direction that is wanted: which way, then from which end."""
    for field in ("rotation", "seen-from"):
        if field not in job.joined.wish:
            yield NextStep(
                code=f"wish-{field}",
                title=ASKED[field],
                station="connect",
                focus=f"wish-{field}",
                why=why,
            )


CLIPPED = NextStep(
    code="test-leads",
    title="Clip the test leads together",
    station="leads",
    focus="test-leads",
    why="So few ohms: what the test leads add decides whether the joints are right. 0 when the meter is nulled.",
)


def _open(by_code: dict[str, Finding], code: str, title: str, focus: str) -> Iterator[NextStep]:
    f = by_code.get(code)
    if f is not None and f.verdict in ("unproven", "hold"):
        yield NextStep(code=code, title=title, station="connect", focus=focus, why=f.why)
