"""What Start gear asks for next: a first question, the test that parts causes, capacitors, devices, work."""

from collections.abc import Iterator
from dataclasses import replace

from careful_coil.core.gear.capacitor_rules import capacitor_of, measured_of, renewed_as, to_fit
from careful_coil.core.gear.device_rules import POSITIONS, told_of
from careful_coil.core.gear.work import left_of
from careful_coil.core.identify.models import TWO_LEADS
from careful_coil.core.job import Job
from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.next_kind import looks_for_kind
from careful_coil.core.ledger.next_leads import OPEN_UP, is_open
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.settings import Settings

SWITCHES = ("speed-switch", "change-over", "selector", "reversing-switch")
_MAKE_GOOD = {"dress": "Dress or renew", "replace": "Renew"}
LOOKED = {
    "mechanism on the shaft": "mechanism",
    "contact plate": "contact plate",
    "what lies across it": "terminals: anything across them?",
}


def gear_steps(c: Facts) -> Iterator[NextStep]:
    """Yield what Start gear asks for, the most useful first; nothing where it is judged."""
    job, findings, settings = c.job, c.findings, c.settings
    shut = {
        f.code for f in findings if f.station == "start-gear" and f.gate and f.verdict != "good"
    }
    if "start-gear" not in shut and "cause" not in shut:
        return
    yield from _work(job)
    yield from _inventory(c)
    yield from _capacitors(c)
    yield from _devices(job, settings)
    if "cause" in shut and job.deeds.voiding("cause") is not None:  # it happened here, under volts
        yield from cause_steps(c)


def cause_steps(c: Facts) -> Iterator[NextStep]:
    """Yield what parts the causes of a complaint, then the cause itself; nothing where none is complained of."""
    causes, asks = c.causes, c.asks
    if causes is not None and causes.key:
        yield _step("cause-first", causes.ask, "why", "It comes before any test of the motor.")
    elif causes is not None and asks:
        (first, odds), (second, less), *_ = causes.odds
        why = (
            f"It parts {first.title.lower()} ({odds:.0%}) from {second.title.lower()} ({less:.0%})."
        )
        yield _step(f"cause-{asks[0].test.name}", asks[0].test.title, "why", why)
    else:
        yield _step(
            "cause", "Name the cause", "why", "The complaint wants its cause before it goes."
        )


def _inventory(c: Facts) -> Iterator[NextStep]:
    """Yield what start gear it has, where nothing is noted; once more when it was opened to look for it.

    A motor of two leads has its start circuit inside: it is opened first. Where there is no start gear
    a look tells which kind it is.
    """
    job = c.job
    line = next((f for f in c.findings if f.code == "start-gear"), None)
    if line is None or line.verdict == "good":
        return
    gear, stamps = job.gear, job.deeds.stamps
    noted = bool(gear.capacitors or gear.devices)
    if not noted and job.seen.no_gear:
        yield from looks_for_kind(c)
    inside = c.naming.arrangement is not None and c.naming.arrangement.slug == TWO_LEADS
    unseen = inside or any(f.code == "start-path-open" for f in c.findings)
    if not noted and unseen and not is_open(job):
        yield replace(OPEN_UP, station="start-gear")
    if not (noted or job.seen.no_gear) or line.subject.startswith("No "):
        seen = max(stamps.get("device-fitted", -1), stamps.get("capacitor", -1))
        if noted and not is_open(job):
            yield replace(OPEN_UP, station="start-gear")
        elif not noted or seen < stamps.get("covers", -1):
            yield _step("start-gear", "Say what start gear it has", "start-gear", line.why)


def _capacitors(c: Facts) -> Iterator[NextStep]:
    job, settings = c.job, c.settings
    bad = {f.part: f for f in c.findings if f.code == "capacitor" and f.verdict == "hold"}
    for name, told in job.gear.capacitors.items():
        found = bad.get(f"capacitor:{name}")
        marking, thought = capacitor_of(job.gear, name, settings)
        if not told.get("drained"):
            why = "Through a resistor, whatever bleed is fitted; then V DC by the meter."
            yield _step(f"drain-{name}", f"Discharge {name} and prove it", "can-drained", why)
        elif marking is None or thought is None:
            why = "µF, volts, and whether it starts or runs. Unreadable: out of its winding."
            fit = renewed_as(job, name)
            why = f"Fitted was to be {fit}: = where just that stands on it." if fit else why
            yield _step(f"marking-{name}", f"Read what stands on {name}", "can-marking", why)
        elif found is not None:
            fit = to_fit(job, name)
            why = f"{found.why} Fit {fit}." if fit else found.why
            yield _step(
                f"shelf-{name}",
                f"Renew {name}",
                "can-renewed",
                f"{why} The shelf says what serves.",
            )
        elif (
            thought.verdict == "unproven" and measured_of(job.gear, name) and not told.get("serves")
        ):
            why = f"{thought.why[0].upper()}{thought.why[1:]}: a start capacitor left in bursts."
            yield _step(f"serves-{name}", f"{name}: does it start or stay in?", "can-serves", why)
        elif thought.verdict == "unproven":
            yield _step(f"measure-{name}", f"Measure {name}", "can-microfarad", thought.why + ".")


def _devices(job: Job, settings: Settings) -> Iterator[NextStep]:
    for name, kind in job.gear.devices.items():
        if kind == "electronic-switch" and not job.gear.noted.get((name, "sensing")):
            title = f"{name}: has it leads of its own across the start winding?"
            why = "Without their volts it never cuts out: they are terminals, and are joined."
            yield _step(f"look-{name}", title, "device-sensing", why)
            continue
        told = told_of(job.gear, name, settings, job.plate)
        bad = next((t for t in told if t.verdict == "hold"), None)
        left = next((t for t in told if t.verdict == "unproven"), None)
        if left is not None and left.expected is not None:
            between = " to ".join(left.expected.between)
            title = f"{name}: read {between}, {left.expected.when}"
            if left.expected.positional:
                title = f"{name}, {left.expected.when}: what conducts?"
            why = "Off the circuit, leads nulled."
            if kind == "relay-current" and left.expected.between == ("L", "S"):
                why += " Marked 1, 2, M, 3? Say so under its terminals first."
            yield _step(f"read-{name}", title, "device-ohm", why)
        elif left is not None and left.what == POSITIONS:
            title = f"{name}: which contacts close in its positions?"
            yield _step(f"look-{name}", title, "device-table", f"{left.why}.")
        elif left is not None:
            word = LOOKED.get(left.what, left.what)
            yield _step(f"look-{name}", f"{name}: look at the {word}", "device", left.why + ".")
        elif bad is not None:
            why = f"{bad.what[0].upper()}{bad.what[1:]}: {bad.why}."
            title = f"{_MAKE_GOOD[settings.school('contacts')]} {name}"
            why += f" {_fits(job, name, settings)}"
            yield _step(f"renew-{name}", title, "device-renewed", why.strip())


def _fits(job: Job, name: str, settings: Settings) -> str:
    """Return what this shop puts in the place of a switch or relay that is bad."""
    if job.gear.devices[name] not in SWITCHES:
        return ""
    if settings.school("start-switch") == "retrofit" and job.gear.devices[name] == "speed-switch":
        return "An electronic switch can take its place: Fitting has its steps."
    make = job.gear.noted.get((name, "make"), "")
    like = f"The same kind{f', {make},' if make else ''} with the same speeds and contacts"
    if settings.school("unlike-switch") == "wait":
        return f"{like}; none today: wait for it."
    return f"{like}; none today: an unlike one may go in, proven by its own timed start and said on the sheet."


def _work(job: Job) -> Iterator[NextStep]:
    for work, done in job.gear.steps.items():
        left = left_of(work, done)
        if left:
            title = left[0].words.rstrip(".").split(":")[0].split(";")[0]
            yield _step(f"work-{work.replace(' ', '-')}", title, "fitting", left[0].why)


def _step(code: str, title: str, focus: str, why: str) -> NextStep:
    why = f"{why[0].upper()}{why[1:]}"
    return NextStep(code=code, title=title, why=why, station="start-gear", focus=focus)
