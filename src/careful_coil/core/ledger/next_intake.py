"""What Intake asks for next: the ticket, where the work is done, the plate, the tags."""

from collections.abc import Iterator

from careful_coil.core.job.plate import Nameplate, unreadable
from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.site_rules import benched
from careful_coil.core.ledger.step import NextStep

PROTECTION = NextStep(
    code="protection",
    title="Class I or II?",
    station="intake",
    focus="protection",
    why="II: a square within a square, or a plastic body on a cord of two wires. Nothing of it is earthed. "
    "Else I: metal with an earth.",
)
NO_CAPACITOR = ("none", "no", "-", "?")
SMALL_W = 1000.0  # of a motor that may be double insulated: hand tools, fans, small appliances


def may_be_double_insulated(plate: Nameplate) -> bool:
    """Whether a plate leaves open that nothing of the motor is earthed: one phase, small, no start capacitor."""
    small = plate.power_w is None or plate.power_w <= SMALL_W
    told = plate.printed("capacitor").strip().lower()
    return (
        plate.phases == 1 and small and (not plate.printed("protection")) and told in NO_CAPACITOR
    )


def intake_steps(c: Facts) -> Iterator[NextStep]:
    """Yield name, plate, tags."""
    job = c.job
    if not job.ticket.get("name"):
        yield NextStep(
            code="name",
            title="Name the motor",
            station="intake",
            focus="name",
            why="A word the shop will know it by: the customer and the machine.",
        )
    if job.ticket.get("name") and not (job.ticket.get("complaint") or job.leads):
        yield NextStep(
            code="complaint",
            title="What is wrong with it?",
            station="intake",
            focus="complaint",
            why="In the customer's words, nothing where nothing is: hums, trips, smells, noisy, was in water. "
            "Its cause is found before the motor goes, or the customer is told.",
        )
    ticket = job.ticket.get("name") and job.ticket.get("complaint")
    if (
        ticket
        and not (job.placed or job.leads or benched(job))
        and c.settings.school("visits") == "yes"
    ):
        yield NextStep(
            code="work-place",
            title="Bench or site?",
            station="intake",
            focus="work-place",
            why="Where the work is done: here on the bench, or at the machine, with the list of a visit.",
        )
    plate = job.plate
    for field_name, known, word in (
        ("phases", plate.phases, "phases"),
        ("volt", plate.volts, "volts"),
        ("hertz", plate.hertz, "hertz"),
    ):
        if not known and not unreadable(plate.printed(field_name)):
            yield NextStep(
                code=f"plate-{field_name}",
                title=f"Read the plate: {word}",
                station="intake",
                focus=field_name,
                why="Limits and the hookup hang on it. As printed, both figures if there are two.",
            )
    unread = not (plate.amps or plate.power_w) and not unreadable(plate.printed("amp"))
    if (plate.volts or unreadable(plate.printed("volt"))) and unread:
        yield NextStep(
            code="plate-amp",
            title="Read the plate: amps",
            station="intake",
            focus="amp",
            why="Idle amps, overload and cable hang on them. ? where they cannot be read: power does too.",
        )
    if plate.phases == 1 and not plate.printed("capacitor") and not job.gear.capacitors:
        yield NextStep(
            code="plate-capacitor",
            title="Read the plate: capacitor",
            station="intake",
            focus="capacitor",
            why="µF and volts as printed, none where it prints none: it tells which start circuit it has, "
            "and which leads are worth a test.",
        )
    if not job.leads and not job.on_site and may_be_double_insulated(plate):
        yield PROTECTION
    if not job.leads:
        yield NextStep(
            code="tag",
            title="Tag the leads",
            station="leads",
            focus="count",
            why="Count them, tag each one in turn, say colour and print: marks that can be read save most of "
            "the readings. Never clean leads with solvent: numbers come off.",
        )
