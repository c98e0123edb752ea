"""What Connect must have settled before the motor can go."""

from collections.abc import Iterator, Sequence
from functools import partial

from careful_coil.core.connect.plans import FLUX_HOLD, FLUX_WATCH
from careful_coil.core.connect.proof_rules import proof_findings
from careful_coil.core.connect.work import Connecting
from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.job import Finding, Job, Verdict
from careful_coil.core.job.at_connect import SupplyRead
from careful_coil.core.job.entries import Supply
from careful_coil.core.machine.power import flux_ratio
from careful_coil.core.run.supply import lost_line, name_supply, unbalance, whole
from careful_coil.core.settings import Settings
from careful_coil.core.values import show_ohm
from careful_coil.core.ways.book import unlined

HERTZ_NEAR = 0.03  # of 1: hertz that are the plate's
NEAR_SHARE = 0.10  # of 1: measured volts that are those named


def connect_findings(
    job: Job, state: Connecting, settings: Settings, extras: Sequence[str] = ()
) -> list[Finding]:
    """Return findings on supply, joints and what proves them; `extras` leads of sensors and heaters."""
    found = [_supply(job, state), *_measured(job, settings), *_flux(job, state)]
    if state.outside:
        found.append(_outside_hookup(state.why))
    else:
        found.append(_hookup(state))
    found += _unfit(state)
    if state.plan is not None and not state.to_make:
        found.append(_line_ohms(state, settings))
    return [*found, *proof_findings(job, state, settings, extras)]


def _supply(job: Job, state: Connecting) -> Finding:
    of = partial(Finding, code="supply", station="connect")
    if job.supply is None:
        return of(
            verdict="unproven",
            subject="Supply not named",
            gate=True,
            why="Name the volts, hertz and phases it goes back to; measure it where the volts were changed.",
        )
    words = f"{job.supply.volt:g} V, {job.supply.hertz:g} Hz, {job.supply.phases}-phase"
    read = job.joined.read
    if read is not None:
        return _read_supply(job.supply, read, words)
    if job.supply.measured:
        return of(verdict="good", subject="Supply measured", why=words + ".", gate=True)
    if not state.changed and job.supply_by:
        why = f"{words}, said by {job.supply_by}."
        return of(verdict="good", subject="Supply as stated", why=why, gate=True)
    return of(
        verdict="unproven",
        subject="Supply assumed, not measured",
        why=f"{words}. "
        + ("The volts are changed: measure it." if state.changed else "Who says so?"),
        gate=True,
    )


def _flux(job: Job, state: Connecting) -> Iterator[Finding]:
    """Yield volts per hertz of the supply over the plate's: iron saturates above, torque is lost below."""
    supply, plate = job.supply, job.plate
    brushed = state.plan is not None and state.plan.arrangement.startswith("universal")
    if supply is None or not plate.volts or brushed:
        return
    rated = [(v, r.hertz or plate.hertz) for r in plate.ratings for v in (r.volt,)]
    rated += [(v, plate.hertz) for span in plate.volts for v in span]
    shares = [flux_ratio(supply.volt, supply.hertz, v, f) for v, f in rated if f]
    same = any(f and abs(f / supply.hertz - 1) < HERTZ_NEAR for _, f in rated)
    if not shares or same:
        return  # at its own hertz the plan compares volts
    share = min(shares, key=lambda s: abs(s - 1))
    of = partial(
        Finding,
        code="supply-hertz",
        station="connect",
        figure=round(100 * share, 1),
        limit=100 * FLUX_HOLD,
        unit="%",
        source="E = 4.44·f·N·Φ; NEMA MG 1, 12.44",
    )
    told = f"{supply.volt:g} V {supply.hertz:g} Hz on a plate for {plate.hertz:g} Hz: flux {share:.2f} of rated."
    if share > FLUX_HOLD:
        yield of(
            verdict="hold",
            subject="Hertz of the supply are not the plate's",
            why=f"{told} It saturates and burns: fewer volts, or a drive.",
            gate=True,
            waivable=False,
        )
    elif share > FLUX_WATCH or share < 1 / FLUX_HOLD:
        yield of(
            verdict="watch",
            subject="Other hertz than the plate's",
            why=f"{told} Speed and torque are others; watch amps and warmth.",
        )


def _read_supply(supply: Supply, read: SupplyRead, words: str) -> Finding:
    """Return what six voltages say of the supply that was named."""
    of = partial(Finding, code="supply", station="connect", gate=True)
    if read.neutral is None:
        volt, told = sum(read.line) / 3, "three volts between lines; to neutral not read"
    else:
        try:
            named = name_supply(read.line, read.neutral)
        except ValueOutOfRange as error:
            return of(verdict="hold", subject="Supply is no system", why=error.why or str(error))
        volt, told = named.volt, named.words
        if supply.phases == 3 and named.phases != 3:
            lost = f"{named.lost} is lost: a lost phase." if named.lost else f"It is {named.words}."
            return of(verdict="hold", subject="No three phases there", why=lost, waivable=False)
        if named.special:
            told += (
                f", {named.special} {'the high leg' if named.system == 'high-leg' else 'earthed'}"
            )
    if abs(volt / supply.volt - 1) > NEAR_SHARE:
        return of(
            verdict="hold",
            subject="Measured volts are not the supply's",
            why=f"{volt:.0f} V read, {words} named. Name what is there.",
        )
    when = " Read with the motor running." if read.running else ""
    return of(verdict="good", subject="Supply measured", why=f"{words}: {told}.{when}")


def _measured(job: Job, settings: Settings) -> Iterator[Finding]:
    """Yield the unbalance of a supply that was read; a lost phase is never called so."""
    read, supply = job.joined.read, job.supply
    if read is None or supply is None or supply.phases != 3:
        return
    of = partial(Finding, code="supply-unbalance", station="connect", unit="%")
    lost = lost_line(read.line, read.neutral or ())
    if lost or not whole(read.line):
        yield of(
            verdict="hold",
            subject=f"{lost} is lost" if lost else "A line is lost, or a lead on the wrong post",
            why="A lost phase, not unbalance. Look upstream: fuse, contact, terminal. The dead side can still kill.",
            gate=True,
            waivable=False,
        )
        return
    watch, hold = settings.unbalance_watch, settings.unbalance_hold
    found = unbalance(read.line)
    over = found.percent > hold.value
    verdict: Verdict = "hold" if over else "watch" if found.percent > watch.value else "good"
    why = f"Mean {found.mean:.0f} V. "
    if found.derate is not None and found.derate < 1:
        why += f"At most {found.derate:.2f} of rated power. Amps are 6 to 10 times as far apart."
    if over:
        why += "Do not run it so."
    if read.running and found.percent > watch.value:
        why += " The motor was running: it feeds a dead line. Stop it and read again."
    yield of(
        verdict=verdict,
        subject="Supply balanced" if verdict == "good" else "Supply out of balance",
        figure=round(found.percent, 2),
        limit=hold.value if over else watch.value,
        why=why.strip(),
        source=(hold if over else watch).source,
        gate=over,
    )


def _unfit(state: Connecting) -> Iterator[Finding]:
    """Yield a supply that no connection of its plate fits: no joint mends it."""
    if state.unfit:
        yield Finding(
            code="supply-fit",
            verdict="hold",
            subject="Its plate does not fit this supply",
            why=state.why,
            station="connect",
            gate=True,
            waivable=False,
        )


def _hookup(state: Connecting) -> Finding:
    of = partial(Finding, code="hookup", station="connect", gate=True)
    if state.plan is None:
        return of(verdict="unproven", subject="Hookup not chosen", why=state.why, waivable=False)
    if state.wrong:
        joint = state.said(state.wrong[0], " to ")
        if state.turned:
            return of(
                verdict="unproven",
                subject=f"To be reconnected: {joint} comes off",
                why=f"It was joined another way. {state.plan.connection.capitalize()} is joined next.",
                waivable=False,
            )
        return of(
            verdict="hold",
            subject=f"A joint the plan does not have: {joint}",
            waivable=False,
            why=f"For {state.plan.connection} it must not be there. The next steps part it.",
        )
    if state.joined:
        return of(
            verdict="good",
            subject="All joints made and pulled",
            why=f"{state.plan.connection.capitalize()}.",
        )
    total = len([j for j in state.plan.joints if len(j) > 1])
    stands = state.found is not None and unlined(state.now.joints) == unlined(state.found.joints)
    found_wrong = state.changed and stands
    before = f"Found joined for {state.found.connection}. " if state.found and state.changed else ""
    loose = len(state.now.loose)
    count = f"{len(state.made)} of {total} joints made"
    return of(
        verdict="hold" if found_wrong else "unproven",
        subject="Joined for the wrong voltage" if found_wrong else count,
        why=f"{before}It must be {state.plan.connection}."
        + (f" {loose} lead{'s' if loose > 1 else ''} loose now." if loose else ""),
        waivable=False,
    )


def _outside_hookup(why: str) -> Finding:
    """Return the line of a hookup no rule here knows: its behaviour in the run takes the place of proof."""
    return Finding(
        code="hookup",
        verdict="unproven",
        subject="Hookup not proven",
        why=f"{why} Its run proves it: it starts from rest at rated volts, amps in the idle band.",
        station="connect",
        gate=True,
        waivable=False,
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
            why=f"{pair.replace('-', ' to ')} must read {state.must(state.expected[pair])}.",
        )
    read, expected = state.read or {}, state.expected
    worst = "-".join(state.worst_line())
    right = state.fits(worst, limit.value)
    pair = worst.replace("-", " to ")
    if not right and all(
        state.fits(p, limit.value) or state.leads_may_hide(p) for p in state.expected
    ):
        return of(
            verdict="unproven",
            subject="Line ohms: the test leads are not known",
            why=f"{pair} reads {show_ohm(read[worst])}; {show_ohm(expected[worst])} is expected, test leads of "
            "0.2 or 0.3 Ω would explain it. Clip them together and read them.",
            waivable=False,
        )
    leads = state.lead_ohm
    less = f", the test leads' {show_ohm(leads)} taken off" if leads and not right else ""
    return of(
        verdict="good" if right else "hold",
        subject="Line ohms right" if right else "Line ohms wrong",
        why=f"{pair} reads {show_ohm(read[worst])}{less}; {show_ohm(expected[worst])} is expected.",
        figure=read[worst] if read[worst] != float("inf") else None,
        limit=expected[worst],
        source=limit.source,
        waivable=right,
    )
