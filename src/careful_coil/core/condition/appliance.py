"""The appliance test of a motor with a cord, where the shop makes it: earth, insulation, leakage.

Limits are those of tests after repair (EN 50678); the standard in force where the shop works decides, so they
are settings. They come on top of the winding's own limits and lift none of them.
"""

from careful_coil.core.condition.bond import newest_bonds
from careful_coil.core.condition.wall import made_since
from careful_coil.core.identify.naming import no_earth
from careful_coil.core.job import Finding, Job
from careful_coil.core.settings import Settings
from careful_coil.core.values import show_figure, show_ohm

SCHOOL, MADE = "appliance-tests", "yes"
LEAKAGE = "earth:leakage"
NO_CORD = ("", "none")


def is_tested(job: Job, settings: Settings) -> bool:
    """Whether this shop makes the appliance test of it: one phase, on a cord, or double insulated."""
    corded = job.hands.felt.get("cord", "") not in NO_CORD or job.plate.double_insulated
    return settings.school(SCHOOL) == MADE and job.plate.phases == 1 and corded


def appliance_finding(job: Job, settings: Settings) -> Finding | None:
    """Return the gate line of the appliance test; None where none is made."""
    if not is_tested(job, settings):
        return None
    two = no_earth(job)
    least = settings.appliance_insulation_two if two else settings.appliance_insulation
    most = settings.appliance_touch if two else settings.appliance_leakage
    told, bad = [], []
    bonds = [] if two else [b.body.ohm for b in newest_bonds(job).values()]
    if bonds:
        limit = settings.appliance_earth.value
        told.append(f"Earth {show_ohm(max(bonds))} of {limit:g} Ω")
        bad += told[-1:] if max(bonds) > limit else []
    tests = [t.body.megohm for t in made_since(job, "insulation") if not t.body.against]
    if tests:
        told.append(f"{show_figure(min(tests))} MΩ, {least.value:g} wanted")
        bad += told[-1:] if min(tests) < least.value else []
    leak = job.notes.of("earth").get("leakage", "")
    stands = bool(leak) and job.deeds.stands("insulation", LEAKAGE)
    name = "touch current" if two else "current in the earth conductor"
    if stands:
        told.append(f"{name} {float(leak):g} of {most.value:g} mA")
        bad += told[-1:] if float(leak) > most.value else []
    missing = [
        w
        for w, there in (("earth", bonds or two), ("insulation", tests), (name, stands))
        if not there
    ]
    verdict, subject = "good", "Appliance test passed"
    why = f"{'; '.join(told)}."
    if bad:
        verdict, subject = "hold", "Appliance test failed"
        why = f"{'; '.join(bad)}."
    elif missing:
        verdict, subject = "unproven", "Appliance test not whole"
        why = f"Still to measure: {', '.join(missing)}. The standard in force decides."
    return Finding(
        code="appliance",
        verdict=verdict,  # type: ignore[arg-type]
        subject=subject,
        why=why,
        station="insulation",
        source=most.source,
        gate=True,
        waivable=False,
    )
