"""What the hookup as found is: read off the marks on the leads, before anything is measured."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from careful_coil.core.connect.explain import Explanation, explain
from careful_coil.core.connect.plans import Plate, fits_supply, rating_of
from careful_coil.core.identify import Naming
from careful_coil.core.identify.marks import windings_of
from careful_coil.core.job import Finding, Job
from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.way import LINES, Joint, Plan
from careful_coil.core.winding.arrangements import ARRANGEMENTS

HALF = "half the winding only"


@dataclass(frozen=True, slots=True, kw_only=True)
class Reading:
    """One way to read the joints as found: the hookup meant, slips in it, lead names by tag."""

    arrangement: str
    variant: str
    meant: Explanation
    names: Mapping[str, str]
    joints: tuple[Joint, ...]

    @property
    def plan(self) -> Plan:
        """Return the hookup meant."""
        return self.meant.plan


def readings_of(job: Job, naming: Naming) -> tuple[Reading, ...]:
    """Return what the joints as found can be, exact ones alone where there are any.

    Lead names are those proven, else those printed on the leads. Empty where a lead has no mark.
    """
    if job.found is None or not job.leads:
        return ()
    marks = {lead.tag: lead.marking for lead in job.leads}
    return meant_by(job.found.joints, marks, naming)


def meant_by(
    joints: tuple[Joint, ...], marks: Mapping[str, str], naming: Naming | None = None
) -> tuple[Reading, ...]:
    """Return the hookups that joints can mean, by what is printed on each end, or proven.

    One for each winding that carries these marks; exact ones alone where there are any, else those
    one slip away.
    """
    exact = list(_read(joints, marks, naming, 0))
    return tuple(exact) or tuple(_read(joints, marks, naming, 1))


def _read(
    found: tuple[Joint, ...], marks: Mapping[str, str], naming: Naming | None, slips: int
) -> Iterator[Reading]:
    """Yield readings with so many slips at most."""
    for slug, variant, names in windings_marked(marks, naming):
        network = ARRANGEMENTS[slug].inside(variant)
        joints = tuple(tuple(names.get(n, n) for n in j) for j in found)
        meant = explain(network, list(_as_it_may_stand(slug, variant)), joints, slips)
        if meant is not None:
            yield Reading(
                arrangement=slug, variant=variant, meant=meant, names=names, joints=joints
            )


def windings_marked(
    marks: Mapping[str, str], naming: Naming | None = None
) -> Iterator[tuple[str, str, dict[str, str]]]:
    """Yield arrangement, variant and lead names by tag of every winding that carries these marks.

    Proven names win over the marks.
    """
    if naming is None or naming.arrangement is None or naming.word != "proven":
        yield from windings_of(marks)
        return
    for variant in ("", *naming.arrangement.variants):
        yield naming.arrangement.slug, variant, dict(naming.names)


def _as_it_may_stand(slug: str, variant: str) -> Iterator[Plan]:
    """Yield hookups without devices, and a first half of a winding left as it is."""
    for p in plans_of(slug, variant):
        if p.start == "direct" and not p.devices:
            yield p
        for stage in p.stages[:1]:
            if stage.name == "first-half":
                yield replace(p, joints=stage.joints, connection=HALF, stages=())


def as_found_findings(job: Job, readings: tuple[Reading, ...]) -> list[Finding]:
    """Return what the joints as found are, for which volts, and a slip in them."""
    if job.found is None or not job.found.joints:
        return []
    wrong = "note" if job.joined.acts else "watch"  # once it is changed it is history
    lines = [j for j in job.found.joints if len({n for n in j if n in LINES}) > 1]
    if lines:
        return [
            _finding(
                wrong, "Found with two lines in one joint", f"{' – '.join(lines[0])}: a short."
            )
        ]
    if not readings:
        return []
    first = readings[0]
    one = len({r.plan.connection for r in readings}) == 1
    titles = " or ".join(dict.fromkeys(_title(r, plain=one) for r in readings))
    if first.meant.slips:
        slip = first.meant.slips[0].text()
        nearest = " or ".join(dict.fromkeys(_title(r, plain=False) for r in readings))
        return [_finding(wrong, "Found joined wrong", f"Nearest is {nearest}. {slip}")]
    if first.plan.connection == HALF:
        why = "The other half's leads are insulated: half the torque, the rest of the winding idle."
        return [_finding(wrong, f"Found with {HALF}", why)]
    ran = {"yes": " It ran so.", "no": " It did not run so."}.get(job.found.ran, "")
    volts, differs = _volts(job, first.plan)
    verdict = wrong if differs else "note"
    return [_finding(verdict, f"Found joined as {first.plan.connection}", f"{titles}.{volts}{ran}")]


def _title(reading: Reading, plain: bool) -> str:
    """Return the winding; with its connection where windings differ in it."""
    title = ARRANGEMENTS[reading.arrangement].title
    return title if plain else f"{title}: {reading.plan.connection}"


def _volts(job: Job, found: Plan) -> tuple[str, bool]:
    """Return which rating of the plate a hookup is for, and whether plate or supply say otherwise."""
    if len(job.plate.volts) < 2:
        return "", False
    rated = rating_of(found, Plate(job.plate.volts, job.plate.hertz or 60.0))
    if rated is None:
        return " The plate's volts do not stand as this winding's connections do.", True
    low, high = rated
    span = f"{low:g} V" if low == high else f"{low:g}–{high:g} V"
    words = f" By the plate that is for {span}."
    if job.supply and not fits_supply(rated, job.supply.volt):
        return words + f" The supply has {job.supply.volt:g} V: it must be changed.", True
    return words, False


def _finding(verdict: str, subject: str, why: str) -> Finding:
    return Finding(
        code="as-found",
        verdict="watch" if verdict == "watch" else "note",
        subject=subject,
        why=why,
        station="intake",
    )
