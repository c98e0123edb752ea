"""Looks that tell what readings cannot: a sealed compressor, shading rings, brushes."""

from collections.abc import Iterator

from careful_coil.core.kind.sign_table import SIGNS
from careful_coil.core.kind.weigh import weigh_kinds
from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.step import NextStep

THREE_PINS, TAPPED = "single-phase-3-lead", "single-phase-two-speed-coil"
WORTH = 0.05  # odds of a winding from which a look for it is asked
# looks that tell kinds without start gear from each other, by hand and eye alone
BY_EYE = ("shading-rings", "brushes", "sealed", "thick-and-thin", "stator")


def sign_step(name: str) -> NextStep:
    """Return the step that asks for one look."""
    sign = SIGNS[name]
    return NextStep(
        code=f"sign-{name}",
        title=sign.question,
        station="intake",
        focus="look",
        why=sign.why,
        ends=(name,),
    )


def looks_for_leads(c: Facts) -> Iterator[NextStep]:
    """Yield the looks that decide between windings whose ohms are alike, once the ohms are read."""
    found, job = c.identification, c.job
    if found is None or job.plate.phases != 1:
        return
    if found.next is not None and found.next.kind == "resistance":
        return
    odds = {
        slug: sum(x.probability for x in found.candidates if x.arrangement == slug)
        for slug in (THREE_PINS, TAPPED)
    }
    looks = job.seen.looks
    if odds[THREE_PINS] >= odds[TAPPED] and odds[THREE_PINS] >= WORTH and "sealed" not in looks:
        yield sign_step("sealed")
    capacitor = job.plate.microfarad or job.gear.capacitors
    if odds[TAPPED] >= WORTH and not capacitor and "shading-rings" not in looks:
        yield sign_step("shading-rings")


def looks_for_kind(c: Facts) -> Iterator[NextStep]:
    """Yield the look that settles most between kinds that have no start gear."""
    looks = {r.sign.name: r.answer for r in c.kinds.reasons}
    others = frozenset(n for n in SIGNS if n not in BY_EYE or f"sign-{n}" in c.not_here)
    best = weigh_kinds(looks, put_off=others).next
    if best is not None and not c.kinds.settled:
        yield sign_step(best.sign.name)
