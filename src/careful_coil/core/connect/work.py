"""Where a job's connecting stands: plan, joints as they are, steps left, what the lines must read."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from careful_coil.core.connect.as_found import Reading
from careful_coil.core.connect.called import called
from careful_coil.core.connect.changed import coil_by_lines
from careful_coil.core.connect.coil_ohms import shown_ohms
from careful_coil.core.connect.dress import clip_words, starter_words, ways_of
from careful_coil.core.connect.hookup import Hookup, Supplied
from careful_coil.core.connect.other_phases import other_phases
from careful_coil.core.connect.plans import (
    Plate,
    rating_of,
    which_plan,
)
from careful_coil.core.connect.present import Present, present_of
from careful_coil.core.connect.slips import unseen_by_ohms
from careful_coil.core.connect.steps import JOINTS, Step, change_steps
from careful_coil.core.connect.usual_wish import ran_low
from careful_coil.core.connect.wished import other_winding, plan_wished, view_of, wish_of
from careful_coil.core.errors import CannotConnect, CannotPlace, CoilError, SupplyUnfit
from careful_coil.core.identify import Identification, Naming
from careful_coil.core.job import Job
from careful_coil.core.job.entries import Supply
from careful_coil.core.readings import LEAD_OHM_HIGHEST, LINES, ohm_value
from careful_coil.core.settings import Settings
from careful_coil.core.values import show_ohm
from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.single_phase import SWITCH_INSIDE
from careful_coil.core.ways.starter import Starter, starter_of
from careful_coil.core.ways.way import Joint, Plan
from careful_coil.core.winding.arrangements import ARRANGEMENTS, Arrangement

NOTHING = Present(joints=(), made=(), loose=(), before="apart")
OUTSIDE = ("single-phase-3-lead", "single-phase-4-lead", "single-phase-speed-taps")


LEADS_COUNT = 0.005  # share of what must be read from which the test leads' ohms are told


@dataclass(frozen=True, slots=True, kw_only=True)
class Connecting:
    """`plan` None: `why` says what is missing. Ohms by "L1-L2" in Ω; `read` inf for open.

    `steps` what is left to do from the joints as they stand (`now`); `names` the lead name of each
    tag; `by_marks` nothing but the marks names the leads; `hookup` the plan on this supply.
    """

    plan: Plan | None
    why: str = ""
    found: Plan | None = None
    now: Present = NOTHING
    made: tuple[Joint, ...] = ()
    to_make: tuple[Joint, ...] = ()
    wrong: tuple[Joint, ...] = ()  # joints made here that the plan does not have, newest first
    steps: tuple[Step, ...] = ()
    expected: dict[str, float] | None = None
    read: dict[str, float] | None = None
    step: float | None = None  # the meter's resolution in Ω
    slack_ohm: float = 0.0  # what the meter leaves open between expected and read
    lead_unknown: float = 0.0  # Ω that test leads nobody clipped together may hide
    lead_ohm: float = 0.0  # of the test leads, taken off every reading
    unseen: tuple[str, ...] = ()  # slips that line ohms cannot show, and what would
    outside: bool = False  # this layout's hookup is not part of this version
    names: Mapping[str, str] = field(default_factory=dict)
    by_marks: bool = False
    hookup: Hookup | None = None
    ohms: dict[str, float] | None = None  # of each kind of coil, in Ω
    asks: str = ""  # what of the wish must be answered first, with its `choices`
    choices: tuple[str, ...] = ()
    called: Mapping[str, str] = field(default_factory=dict)  # each lead in words, by its name
    unfit: bool = False  # no connection of its plate fits the supply: `why` says so
    starter: Starter | None = None  # of a plan that is started in stages
    view: str = "drive-end"  # the end this shop looks at
    by_other: bool = False  # this shop turns it round by its main winding, or its field
    turned: bool = (
        False  # it is joined anew, the other way or for other volts: the first joints are no slips
    )

    @property
    def unread(self) -> tuple[str, ...]:
        """Line pairs that still have no reading."""
        return tuple(k for k in self.expected or {} if k not in (self.read or {}))

    @property
    def next_step(self) -> Step | None:
        """The step to do now, past what only prepares, proves or retags."""
        doing = ("cut", "insulate", "fit-device", "remove-device", *JOINTS)
        return next((s for s in self.steps if s.do in doing), None)

    @property
    def drawn(self) -> Plan | None:
        """The plan as it is drawn and printed: with the contactors of its starter, where it has one."""
        return self.starter.plan if self.starter else self.plan

    @property
    def at_lines(self) -> dict[str, str]:
        """Return the marks of what hangs on each supply line, in the order of the lines; none without a plan."""
        joints = self.drawn.joints if self.drawn else ()
        found = {n: [x for x in j if x != n] for j in joints for n in j if n in LINES}
        return {n: self.marks(found[n], " ") for n in LINES if n in found}

    @property
    def joined(self) -> bool:
        """Whether every joint is made, nothing is wrong and no lead is loose."""
        return self.plan is not None and not self.wrong and self.next_step is None

    @property
    def changed(self) -> bool:
        """Whether the motor came joined for another connection than it needs."""
        return (
            self.found is not None
            and self.plan is not None
            and self.found.connection != self.plan.connection
        )

    def fits(self, pair: str, percent: float) -> bool:
        """Whether a line pair reads what it must, within `percent` and what the meter can tell."""
        return self.near((self.read or {})[pair], (self.expected or {})[pair], percent)

    def near(self, read: float, wanted: float, percent: float) -> bool:
        """Whether a reading is what it must be, within `percent` and what the meter can tell."""
        if float("inf") in (read, wanted):
            return read == wanted
        return abs(read - wanted) <= percent / 100 * wanted + self.slack_ohm

    def leads_may_hide(self, pair: str) -> bool:
        """Whether a line pair is off its expectation by no more than unknown test leads can make of it.

        With leads of r ohms in every reading a pair of k coils' ohms reads (1 − k)·r above k times the coil's.
        """
        read, wanted = (self.read or {})[pair], (self.expected or {})[pair]
        coil = max((self.ohms or {}).values(), default=0.0)
        if not (self.lead_unknown and coil) or float("inf") in (read, wanted):
            return False
        most = (1 - wanted / coil) * self.lead_unknown
        low, high = sorted((0.0, most))
        return low - self.slack_ohm <= read - wanted <= high + self.slack_ohm

    def worst_line(self) -> tuple[str, ...]:
        """Return the lines of the pair that reads farthest from what it must read, in shares of it."""
        read, wanted = self.read or {}, self.expected or {}
        a, b = max(wanted, key=lambda p: abs(read[p] / wanted[p] - 1)).split("-")
        return a, b

    def must(self, ohm: float) -> str:
        """Return what must be read, and what the meter shows with its leads where they count."""
        if ohm == float("inf"):
            return "open"
        with_leads = f", {show_ohm(ohm + self.lead_ohm)} on the meter with its leads"
        return show_ohm(ohm) + (with_leads if self.lead_ohm > LEADS_COUNT * ohm else "")

    def by_name(self, by_tag: Mapping[str, float]) -> dict[str, float]:
        """Return figures by lead name that were logged by tag."""
        return {self.names.get(t, t): figure for t, figure in by_tag.items()}

    def said(self, names: Sequence[str], between: str = " – ") -> str:
        """Return leads, lines and terminals in words."""
        return between.join(self.called.get(n, n) for n in names)

    def mark(self, name: str) -> str:
        """Return the mark of a lead alone, as it stands at a drawing."""
        return self.called.get(name, name).split(" ")[-1].strip("()")

    def marks(self, names: Sequence[str], between: str = " – ") -> str:
        """Return leads by their marks alone, lines and terminals as they are: where room is short."""
        return between.join(self.mark(n) for n in names)

    def by_tag(self, joint: Sequence[str]) -> tuple[str, ...]:
        """Return names of leads as tags; lines and terminals stay as they are."""
        tag = {name: t for t, name in self.names.items()}
        return tuple(tag.get(n, n) for n in joint)


@dataclass(frozen=True, slots=True, kw_only=True)
class Gear:
    """The devices that belong to the hookup, or in words why they are not known."""

    devices: tuple[Device, ...] = ()
    why: str = ""
    guessed: tuple[str, ...] = ()  # what of them was not noted, in words
    inside: bool = False  # its start switch is joined inside the motor


NO_GEAR = Gear()


def connecting(
    job: Job,
    found: Identification | None,
    naming: Naming,
    as_found: Sequence[Reading] = (),
    gear: Gear = NO_GEAR,
    settings: Settings | None = None,
) -> Connecting:
    """Return where the connecting of a job stands."""
    known = _known(naming, as_found, Plate(job.plate.volts, job.plate.hertz or 60.0))
    if known is None:
        return Connecting(plan=None, why="The leads must be proven first.")
    arr, variant, names, by_marks = known
    now = present_of(job, names)
    before = _as_found(job, arr.slug, variant, names)
    marks = (settings or Settings()).school("marks")
    state = Connecting(
        plan=None,
        found=before,
        now=now,
        names=names,
        by_marks=by_marks,
        called=called(job, names, arr.slug, marks),
        by_other=other_winding(arr.slug, settings or Settings()),
        view=view_of(settings or Settings()),
    )
    if job.supply is None or not job.plate.volts:
        missing = "The supply" if job.supply is None else "The plate's volts"
        return replace(state, why=f"{missing} must be known first.")
    if job.supply.phases != arr.phases:
        return replace(state, why=other_phases(job), unfit=True)
    if gear.why and arr.slug in OUTSIDE:
        return replace(state, why=gear.why, outside=True)
    try:
        ohms = shown_ohms(job, found, naming) or (coil_by_lines(job, before) if by_marks else None)
        if gear.inside and not gear.devices and SWITCH_INSIDE in arr.variants:
            variant = SWITCH_INSIDE
        asked = wish_of(job, variant, gear.devices, ohms, settings or Settings())
        asked = replace(asked, by_other=state.by_other)
        wanted = plan_wished(job, job.supply, arr.slug, asked)
        if state.by_other and wanted.reversed:  # what turns right already stays as it is joined
            usual = plan_wished(job, job.supply, arr.slug, replace(asked, by_other=False))
            stands = {frozenset(j) for j in now.joints}
            wanted = usual if {frozenset(j) for j in usual.joints} <= stands else wanted
    except CannotPlace as error:
        return replace(state, why=str(error), outside=True)
    except CannotConnect as error:
        return replace(
            state,
            why=str(error),
            asks=error.asks,
            choices=error.choices,
            unfit=isinstance(error, SupplyUnfit),
        )
    lacking = f"Not noted, so taken as usual: {', '.join(gear.guessed)}." if gear.guessed else ""
    if lacking:
        wanted = replace(wanted, notes=(*wanted.notes, lacking))
    return _worked(state, job, job.supply, wanted, ohms, settings or Settings())


def _worked(
    state: Connecting,
    job: Job,
    supply: Supply,
    wanted: Plan,
    ohms: dict[str, float] | None,
    settings: Settings,
) -> Connecting:
    """Return the state with a plan: what stands of it, what is left, what it must read."""
    now = state.now
    standing = {frozenset(j) for j in now.joints}
    targets = [frozenset(j) for j in wanted.joints]
    leads = wanted.network().leads
    expected = wanted.line_ohm(ohms) if ohms else None
    starter = starter_of(wanted)
    if starter is not None:
        wanted = replace(wanted, notes=(*wanted.notes, *starter_words(starter, settings)))
    steps = change_steps(
        leads,
        now.joints,
        wanted.joints,
        expected,
        gone=[
            n
            for n in _devices_in(now.joints)
            if n not in {d.name for d in wanted.devices} and out_key(n) not in job.joined.ticked
        ],
        fresh=[
            d.name
            for d in wanted.devices
            if d.name not in _devices_in(now.joints) and fit_key(d.name) not in job.joined.ticked
        ],
        ways=replace(
            ways_of(job, settings, now.loose, state.names, supply, wanted),
            say=state.said,
            clip=lambda joint: clip_words(starter, joint, state.said),
        ),
    )
    order = [s.joint for s in steps if s.do in JOINTS and s.joint]
    left = [j for j in wanted.joints if frozenset(j) not in standing and len(j) > 1]
    left.sort(key=lambda j: next((k for k, o in enumerate(order) if set(o) <= set(j)), 99))
    return replace(
        state,
        plan=wanted,
        starter=starter,
        steps=steps,
        made=tuple(j for j in wanted.joints if frozenset(j) in standing),
        to_make=tuple(left),
        turned=bool(job.joined.wish.get("exchanged")) or ran_low(job),
        wrong=tuple(j for j in reversed(now.made) if not any(set(j) <= t for t in targets)),
        expected=expected,
        read=_read(job),
        unseen=unseen_by_ohms(wanted.arrangement, wanted.variant, wanted.connection)
        if not wanted.devices
        else (),
        step=job.meter.resolution_ohm,
        slack_ohm=job.meter.resolution_ohm or 0.01,
        lead_unknown=LEAD_OHM_HIGHEST if job.meter.lead_ohm is None else 0.0,
        lead_ohm=job.meter.lead_ohm or 0.0,
        hookup=_hookup(job, supply, wanted, ohms),
        ohms=ohms,
    )


def fit_key(device: str) -> str:
    """Return what the log calls a device's fitting."""
    return f"fit {device}"


def out_key(device: str) -> str:
    """Return what the log calls a device's taking out."""
    return f"out {device}"


def _hookup(job: Job, supply: Supply, wanted: Plan, ohms: dict[str, float] | None) -> Hookup:
    hertz = job.plate.hertz_at(supply.hertz)
    own = {c.name: ohms[c.like] for c in wanted.network().coils} if ohms else 1.0
    return Hookup(
        arrangement=wanted.arrangement,
        variant=wanted.variant,
        joints=wanted.joints,
        devices=wanted.devices,
        plate=Plate(job.plate.volts_at(hertz), hertz),
        supply=Supplied(phases=supply.phases, volt=supply.volt, hertz=supply.hertz),
        coil_ohm=own,
        family=wanted.family,
        rpm=job.plate.rpm,
    )


def _devices_in(joints: Sequence[Joint]) -> list[str]:
    """Return the names of devices whose terminals stand in joints."""
    return sorted({n.split(".", maxsplit=1)[0] for j in joints for n in j if "." in n})


def _read(job: Job) -> dict[str, float]:
    read = {}
    for pair, value in (job.line_ohms or {}).items():
        try:
            read[pair] = ohm_value(value).value - (job.meter.lead_ohm or 0.0)
        except CoilError:
            continue
    return read


def _known(
    naming: Naming, as_found: Sequence[Reading], plate: Plate
) -> tuple[Arrangement, str, dict[str, str], bool] | None:
    """Return winding, variant, names and whether they are the marks' word alone; None: not known.

    Marks alone are enough for a plan where the joints as found are one of their hookups: proof comes
    by the lines' ohms and a low run.
    """
    if naming.arrangement is not None and naming.known:
        return naming.arrangement, naming.variant, dict(naming.names), False
    exact = [r for r in as_found if not r.meant.slips]
    if len({(r.arrangement, r.variant) for r in exact}) > 1:  # the plate's volts part some of them
        exact = [r for r in exact if rating_of(r.plan, plate) is not None]
    windings = {(r.arrangement, r.variant) for r in exact}
    if len(windings) != 1:
        return None
    first = exact[0]
    return ARRANGEMENTS[first.arrangement], first.variant, dict(first.names), True


def _as_found(job: Job, slug: str, variant: str, names: Mapping[str, str]) -> Plan | None:
    if job.found is None:
        return None
    joints = [tuple(names.get(n, n) for n in j) for j in job.found.joints]
    return which_plan(slug, joints, variant)
