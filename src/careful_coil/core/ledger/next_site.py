"""What Next asks where the motor stands: plate and joints as they came, dead, ohms, insulation, the change, volts."""

from collections.abc import Iterator, Mapping, Sequence

from careful_coil.core.condition.suspicion import symptoms_in
from careful_coil.core.connect.changed import touched
from careful_coil.core.connect.rotation import seen_direction
from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.next_customer import bring_in
from careful_coil.core.ledger.next_wall import closed_steps
from careful_coil.core.ledger.site import LATER, changing, field_sheet
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.stations import Station

WANTED = ("wish-rotation", "wish-seen-from")
SHAFT, HEARD = ("feel",), ("bearing-drive", "bearing-other", "fan")
NOISE = {"noisy", "vibrates", "hot"}  # complaints that bearings and fan make
Asked = Mapping[Station, Sequence[NextStep]]
NOT_ASKED = (
    LATER,
    "site-change",
    "site-drained",
    "site-drained-before",
)  # later, at Connect, by its clock
FIRST = ("site-supply", "site-dead")  # the isolator's line side, before it is locked out
# lines that a key does: title, act, what the key says
BY_KEY = {
    "site-dead": ("Lock out, prove it dead", "dead", "it is dead"),
    "site-lid": ("Lid on: seal seated, no lead pinched", "covers", "lid is on"),
}
# what was found bad before volts: they stay off
NO_VOLTS = (
    "site-start",
    "site-bond",
    "insulation",
    "site-ohms",
    "line-ohms",
    "site-change",
    "frame-fault",
    "coil-open",
)
DEAD = "Isolate, lock out, capacitors discharged. Meter on a live source, on every lead, on the live source again."
# what Connect asks of the change; its ohms, run and power checks have lines of their own
CHANGE = (
    "cut-",
    "insulate-",
    "fit-device",
    "remove-device",
    "joint-",
    "dead-again",
    "wish-",
    "step-",
    "leftover",
)
LAST = ("voltage-tags", "installer")
VOLTS_ON = (
    "site-start",
    "site-phase-order",
    "site-direction",
    "site-amps",
    "site-volts",
    "site-ran",
)


def site_lines(c: Facts) -> Iterator[NextStep]:
    """Yield the lines of the field sheet that are not read yet; the change itself is Connect's."""
    for number, line in enumerate(field_sheet(c.job, c.connecting, c.installer), 1):
        if line.done or line.name in NOT_ASKED:
            continue
        done = BY_KEY.get(line.name)
        if done is not None:
            title, act, words = done
            yield NextStep(
                code=line.name,
                title=f"{number}  {title}",
                why=DEAD if act == "dead" else line.how,
                station="release",
                act=act,
                words=words,
            )
        else:
            yield NextStep(
                code=line.name,
                title=f"{number}  {line.title}",
                why=line.how,
                station="release",
                focus=line.name,
            )


def visit_steps(c: Facts, asked: Asked) -> Iterator[NextStep]:
    """Yield a visit in the order of the hands: what came, supply, dead, ohms, the change, lid on, volts."""
    lines = list(site_lines(c))
    yield from (s for s in asked["intake"] if s.code != "tag")
    yield from (s for s in lines if s.code in FIRST)
    plate = c.job.plate
    turned = seen_direction(c.job) is not None  # seen here, not only complained of
    backward = turned and any(f.code == "direction" and f.verdict == "hold" for f in c.findings)
    may_change = len(plate.volts) != 1 or bool(plate.assumed) or backward
    may_change = may_change or changing(c.job, c.connecting)
    if may_change:
        yield from (s for s in asked["intake"] if s.code == "tag")
        yield from (s for s in asked["leads"] if s.code == "found-hookup")
    yield from (s for s in asked["connect"] if s.code in WANTED)
    yield from _hands(c, asked)
    if not touched(c.job):
        yield from (s for s in lines if s.code.endswith("-before"))
    if _start_gear(c):
        yield from asked["start-gear"]
    if may_change:
        yield from _change(c, asked)
        if backward:
            yield from (s for s in asked["connect"] if s.focus == "turn-round")
    if not may_change or c.connecting.joined:
        told = [s for s in lines if s.code not in FIRST and not s.code.endswith("-before")]
        yield from (s for s in asked["leads"] if s.code.startswith("retag-"))
        yield from (s for s in told if s.code not in VOLTS_ON and "told" not in s.code)
        yield from (s for s in closed_steps(c) if s.code == "mend-earth")
        held = (f for f in c.findings if f.verdict == "hold")
        bad = next((f for f in held if f.code in NO_VOLTS or f.station == "mechanics"), None)
        if bad is not None:
            yield bring_in(f"{bad.subject}. {bad.why}")
            return
        yield from (s for s in asked["connect"] if s.code in LAST)
        yield from (s for s in told if s.code in VOLTS_ON)
    yield from asked["release"]


def _hands(c: Facts, asked: Asked) -> Iterator[NextStep]:
    """Yield what hands feel where there is a complaint: the shaft, and bearings and fan that are heard."""
    told = set(symptoms_in(c.job.ticket.get("complaint", "")))
    codes = (SHAFT if told else ()) + (HEARD if told & NOISE else ())
    yield from (s for s in asked["mechanics"] if s.code in codes)


def _start_gear(c: Facts) -> bool:
    """Whether what starts it is looked at: one phase, and a complaint of its start or parts that can be reached."""
    job = c.job
    if job.plate.phases != 1:
        return False
    printed = job.plate.printed("capacitor").strip().lower() not in ("", "none", "?")
    joints = job.found.joints if job.found is not None else ()
    return printed or any("." in n for j in joints for n in j) or bool(job.gear.capacitors)


def _change(c: Facts, asked: Asked) -> Iterator[NextStep]:
    """Yield what parts and joins, by the marks on the leads, else by what readings make of them."""
    if c.job.supply is None:  # what it is joined for is not known before
        yield from (s for s in asked["connect"] if s.code == "supply")
        return
    if not c.connecting.names:
        yield from (s for s in asked["leads"] if s.code != "dead")
        yield from asked["start-gear"]
    yield from (s for s in asked["connect"] if s.code.startswith(CHANGE))
