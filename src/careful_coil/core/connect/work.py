"""Where a job's connecting stands: plan, joints made and to make, what the lines must read."""

from dataclasses import dataclass

from careful_coil.core.connect.plans import Plate, plan, which_plan
from careful_coil.core.connect.slips import unseen_by_ohms
from careful_coil.core.errors import CannotConnect, CoilError
from careful_coil.core.identify import Identification, Naming
from careful_coil.core.identify.evidence import LEAD_OHM_HIGHEST
from careful_coil.core.job import Job
from careful_coil.core.readings import ohm_value
from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.way import LINES, Joint, Plan


@dataclass(frozen=True, slots=True, kw_only=True)
class Connecting:
    """`plan` None: `why` says what is missing. Ohms by "L1-L2" in Ω; `read` inf for open."""

    plan: Plan | None
    why: str = ""
    found: Plan | None = None
    made: tuple[Joint, ...] = ()
    to_make: tuple[Joint, ...] = ()
    wrong: tuple[Joint, ...] = ()  # joints ticked that the plan does not have
    expected: dict[str, float] | None = None
    read: dict[str, float] | None = None
    step: float | None = None  # the meter's resolution in Ω
    slack_ohm: float = 0.0  # what the meter leaves open between expected and read
    unseen: tuple[str, ...] = ()  # slips that line ohms cannot show, and what would
    outside: bool = False  # this layout's hookup is not part of this version

    @property
    def unread(self) -> tuple[str, ...]:
        """Line pairs that still have no reading."""
        return tuple(k for k in self.expected or {} if k not in (self.read or {}))

    def fits(self, pair: str, percent: float) -> bool:
        """Whether a line pair reads what it must, within `percent` and what the meter can tell."""
        read, wanted = (self.read or {})[pair], (self.expected or {})[pair]
        return abs(read - wanted) <= percent / 100 * wanted + self.slack_ohm


def connecting(job: Job, found: Identification | None, naming: Naming) -> Connecting:
    """Return where the connecting of a job stands."""
    if found is None or naming.arrangement is None or naming.word in ("guess", "none"):
        return Connecting(plan=None, why="The leads must be proven first.")
    slug = naming.arrangement.slug
    before = _as_found(job, naming)
    if job.supply is None or not job.plate.volts:
        missing = "The supply" if job.supply is None else "The plate's volts"
        return Connecting(plan=None, why=f"{missing} must be known first.", found=before)
    if job.supply.phases != naming.arrangement.phases:
        return Connecting(
            plan=None,
            found=before,
            why=f"This motor has {naming.arrangement.phases} phase(s), the supply {job.supply.phases}.",
        )
    if any(p.speed for p in plans_of(slug)):
        why = "Each speed is a hookup of its own: join them by the maker's diagram."
        return Connecting(plan=None, why=why, outside=True)
    hertz = job.plate.hertz_at(job.supply.hertz)
    plate = Plate(job.plate.volts_at(hertz), hertz)
    try:
        wanted = plan(slug, plate, job.supply.volt, job.supply.hertz)
    except CannotConnect as error:
        return Connecting(plan=None, why=str(error), found=before)
    if wanted.devices:
        why = "Its start devices are not part of the job yet. Join it by the maker's diagram."
        return Connecting(plan=None, why=why, outside=True)
    sets = {frozenset(j): j for j in wanted.joints}
    joints = [tuple(naming.names.get(n, n) for n in j) for j in job.joints]
    made = {frozenset(j) for j in joints}
    read = {}
    for pair, value in (job.line_ohms or {}).items():
        try:
            read[pair] = ohm_value(value).value - (job.meter.lead_ohm or 0.0)
        except CoilError:
            continue
    ohms = coil_ohms(found, naming)
    return Connecting(
        plan=wanted,
        found=before,
        made=tuple(j for s, j in sets.items() if s in made),
        to_make=tuple(j for s, j in sets.items() if s not in made),
        wrong=tuple(j for j in joints if frozenset(j) not in sets),
        expected=wanted.line_ohm(ohms) if ohms else None,
        read=read,
        unseen=unseen_by_ohms(slug, wanted.variant, wanted.connection),
        step=job.meter.resolution_ohm,
        slack_ohm=(job.meter.resolution_ohm or 0.01)
        + (LEAD_OHM_HIGHEST if job.meter.lead_ohm is None else 0.0),
    )


def coil_ohms(found: Identification, naming: Naming) -> dict[str, float] | None:
    """Return the mean ohms of each kind of coil, by kind; None where one has none."""
    if naming.network is None:
        return None
    kinds: dict[str, list[float]] = {}
    for c in naming.network.coils:
        kinds.setdefault(c.like, [])
        if c.name in found.best.coil_ohm:
            kinds[c.like].append(found.best.coil_ohm[c.name])
    if not all(kinds.values()):
        return None
    return {kind: sum(ohms) / len(ohms) for kind, ohms in kinds.items()}


def _as_found(job: Job, naming: Naming) -> Plan | None:
    if job.found is None or naming.arrangement is None:
        return None
    joints = [tuple(naming.names.get(n, n) for n in j) for j in job.found.joints]
    return which_plan(naming.arrangement.slug, joints)


def pair_name(a: str, b: str) -> str:
    """Return the name of a line pair, in the order of the lines."""
    return "-".join(sorted((a, b), key=LINES.index))
