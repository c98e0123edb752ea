"""What Connect must have settled before the motor can go."""

from functools import partial

from careful_coil.core.connect.work import Connecting
from careful_coil.core.job import Finding, Job
from careful_coil.core.settings import Settings
from careful_coil.core.values import show_ohm


def connect_findings(job: Job, state: Connecting, settings: Settings) -> list[Finding]:
    """Return findings on supply, joints and the ohms that prove them."""
    attested = job.attested or {}
    found = [_supply(job, state)]
    changed = (
        state.found is not None
        and state.plan is not None
        and state.found.connection != state.plan.connection
    )
    if state.outside:
        found.append(_attested_hookup("hookup" in attested, state.why))
    else:
        found.append(_hookup(state, changed))
    if state.plan is not None and not state.to_make:
        found.append(_line_ohms(state, settings))
    if changed:
        done = "voltage-tags" in attested
        found.append(
            Finding(
                code="voltage-tags",
                verdict="good" if done else "unproven",
                subject="Voltage tags changed" if done else "Voltage tags not changed",
                why="All of them: lead box, cable, control end. Last, after proof.",
                station="connect",
                gate=True,
            )
        )
    return found


def _supply(job: Job, state: Connecting) -> Finding:
    if job.supply is None:
        return Finding(
            code="supply",
            verdict="unproven",
            subject="Supply not named",
            gate=True,
            station="connect",
            why="Name the volts, hertz and phases it goes back to; measure where the volts were changed.",
        )
    moved = (
        state.found is not None
        and state.plan is not None
        and state.found.connection != state.plan.connection
    )
    measured = job.supply.measured
    words = f"{job.supply.volt:g} V, {job.supply.hertz:g} Hz, {job.supply.phases}-phase"
    if measured:
        return Finding(
            code="supply",
            verdict="good",
            subject="Supply measured",
            why=words + ".",
            station="connect",
            gate=True,
        )
    return Finding(
        code="supply",
        verdict="unproven" if moved else "watch",
        subject="Supply assumed, not measured",
        why=words
        + (". The volts are changed: measure it." if moved else ". Assumed by word of mouth."),
        station="connect",
        gate=moved,
    )


def _hookup(state: Connecting, changed: bool) -> Finding:
    of = partial(Finding, code="hookup", station="connect", gate=True)
    if state.plan is None:
        return of(verdict="unproven", subject="Hookup not chosen", why=state.why)
    if state.wrong:
        joint = " to ".join(state.wrong[0])
        return of(
            verdict="hold",
            subject=f"A joint the plan does not have: {joint}",
            waivable=False,
            why=f"For {state.plan.connection} it must not be there. Part it and strike the tick.",
        )
    if state.to_make:
        total = len(state.plan.joints)
        found_wrong = changed and not state.made
        before = f"Found joined for {state.found.connection}. " if state.found and changed else ""
        return of(
            verdict="hold" if found_wrong else "unproven",
            subject="Joined for the wrong voltage"
            if found_wrong
            else f"{len(state.made)} of {total} joints made",
            why=f"{before}It must be {state.plan.connection}.",
            waivable=False,
        )
    return of(
        verdict="good",
        subject="All joints made and pulled",
        why=f"{state.plan.connection.capitalize()}.",
    )


def _attested_hookup(done: bool, why: str) -> Finding:
    return Finding(
        code="hookup",
        verdict="good" if done else "unproven",
        subject="Hookup checked outside this program" if done else "Hookup not checked",
        why=why,
        station="connect",
        gate=True,
    )


def _line_ohms(state: Connecting, settings: Settings) -> Finding:
    of = partial(Finding, code="line-ohms", station="connect", gate=True, unit="Ω")
    limit = settings.line_ohm_apart
    if not state.expected:
        return of(
            verdict="unproven", subject="Line ohms not known", why="The coils have no ohms yet."
        )
    if state.unread:
        pair = state.unread[0]
        return of(
            verdict="unproven",
            subject="Line ohms not read",
            figure=None,
            why=f"{pair.replace('-', ' to ')} must read {show_ohm(state.expected[pair])}.",
        )
    read, expected = state.read or {}, state.expected
    worst = max(expected, key=lambda p: abs(read[p] / expected[p] - 1))
    right = state.fits(worst, limit.value)
    pair = worst.replace("-", " to ")
    return of(
        verdict="good" if right else "hold",
        subject="Line ohms right" if right else "Line ohms wrong",
        why=f"{pair} reads {show_ohm(read[worst])}; {show_ohm(expected[worst])} is expected.",
        figure=read[worst] if read[worst] != float("inf") else None,
        limit=expected[worst],
        source=limit.source,
        waivable=right,
    )
