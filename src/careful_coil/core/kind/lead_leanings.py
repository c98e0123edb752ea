"""What the kind of motor and the shop's own experience say of its leads, before any is read."""

from collections.abc import Collection

from careful_coil.core.identify.evidence import Leanings
from careful_coil.core.identify.models import FAMILIES
from careful_coil.core.job import Job
from careful_coil.core.kind.kinds import KINDS
from careful_coil.core.kind.sign_table import SIGNS
from careful_coil.core.kind.weigh import weigh_kinds
from careful_coil.core.readings import Resistance
from careful_coil.core.settings import Settings

# the family of windings that each kind of motor has; kinds without one say nothing here
FAMILY_OF = {
    "split-phase": "single-phase",
    "capacitor-start": "single-phase",
    "permanent-capacitor": "single-phase",
    "capacitor-start-run": "single-phase",
    "shaded-pole": "single-phase",
    "universal": "universal",
    "three-phase": "three-phase",
    "three-phase-magnet": "three-phase",
    "wound-rotor": "three-phase",
    "synchronous": "three-phase",
}
LEAST, MOST = 0.02, 50.0  # signs are seen wrongly too


def leanings_of(job: Job, settings: Settings, put_off: Collection[str] = ()) -> Leanings:
    """Return them. `put_off`: codes of readings that cannot be taken now.

    Signs that the plate or the leads give are left out: they count by themselves."""
    tags = {lead.tag: k for k, lead in enumerate(job.leads)}
    last = next((t.reading for t in reversed(job.readings)), None)
    pair = last.pair() if isinstance(last, Resistance) else None
    return Leanings(
        arrangements=tuple(sorted(settings.arrangement_odds.items())),
        kinds=family_odds(job),
        bunching=settings.school("bunching") == "yes",
        clips=tuple(sorted(tags[t] for t in pair)) if pair else (),
        put_off=tuple(sorted(put_off)),
        adjacent=min(settings.adjacent_halves.value, 99.0) / 100,
    )


def family_odds(job: Job) -> tuple[tuple[str, float], ...]:
    """Return how much likelier than usual the signs noted make each family of windings."""
    looks = {s: a for s, a in job.seen.looks.items() if s in SIGNS and a in SIGNS[s].answers}
    looks = {s: a for s, a in looks.items() if s not in ("leads", "plate-phases", "three-equal")}
    if not looks:
        return ()
    after: dict[str, float] = {o.kind.name: o.probability for o in weigh_kinds(looks).odds}
    whole = sum(kind.prior for kind in KINDS.values())
    found = []
    for family in FAMILIES:
        own = [name for name, its in FAMILY_OF.items() if its == family]
        before = sum(KINDS[name].prior for name in own) / whole
        ratio = sum(after[name] for name in own) / before
        found.append((family, round(min(max(ratio, LEAST), MOST), 4)))
    return tuple(found)
