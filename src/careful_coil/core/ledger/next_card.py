"""The one most useful thing to do now: what the stations ask for, in the order of the way."""

from collections.abc import Iterator, Mapping, Sequence

from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.loose import loose_steps
from careful_coil.core.ledger.next_customer import customer_steps
from careful_coil.core.ledger.next_leads import frame_steps
from careful_coil.core.ledger.next_site import site_lines, visit_steps
from careful_coil.core.ledger.site_rules import visit
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.stations import Station

OHMMETER = "ohmmeter first"


def in_order(c: Facts, asked: Mapping[Station, Sequence[NextStep]]) -> Iterator[NextStep]:
    """Yield everything worth doing, the most useful first; `asked` by each station, in its own order."""
    job, wall = c.job, asked["insulation"]
    if (job.released is not None and not c.gate) or job.let_go is not None:
        return
    yield from (s for s in wall if s.act == "discharge")  # before any hand goes near
    if job.loose:
        yield from loose_steps(c, asked)
        return
    if job.trials.now is not None:  # volts may be on: nothing else is asked for
        yield from asked["test-run"]
    yield from customer_steps(c)  # before leads or parts
    if visit(job):
        yield from visit_steps(c, asked)
        return
    if job.on_site:
        yield from site_lines(c)
    # once the leads are tagged the probe is in the hand: the plate can wait
    yield from asked["leads"] if job.leads else asked["intake"]
    yield from asked["intake"] if job.leads else asked["leads"]
    if c.settings.school("frame-test") == OHMMETER:  # before the insulation tester
        yield from frame_steps(c)
    yield from (s for s in wall if s.act != "discharge")
    for station in ("start-gear", "mechanics", "connect"):
        yield from asked[station]
    yield from asked["test-run"] if job.trials.now is None else ()
    yield from asked["release"]
