"""What only the customer decides: a winding that is open, dead to earth or out of balance."""

from collections.abc import Iterator

from careful_coil.core.identify.naming import uses_of
from careful_coil.core.job import Finding, Job
from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.site_rules import visit
from careful_coil.core.ledger.step import NextStep

COSTLY = ("coil-open", "coils-balanced")
SUPPLY = ("supply-hertz", "supply-fit")  # no joint makes it fit
SMALL_W = 1500.0  # an appliance's motor (washing machine, tumbler); shop practice
DEAD_MEGOHM = 0.05  # no cleaning or drying brings such a winding back


def customer_steps(c: Facts) -> Iterator[NextStep]:
    """Yield the question for the go-ahead, then the rewind or the way out, where a winding is past mending."""
    yield from _winders_word(c.job)
    if c.settings.school("appliances") == "scrap" and driven_appliance(c.job):
        yield from _not_repaired(c.job)
    found = c.identification
    more = found is not None and found.next is not None and found.next.kind == "resistance"
    if more and not visit(c.job):  # on site the leads are not read one by one
        return
    bad = next((f for f in c.findings if f.verdict == "hold" and _costly(c.job, f)), None)
    if bad is None:
        return
    word = c.job.ticket.get("go-ahead", "")
    why = f"{bad.subject}. {bad.why}"
    if not word and bad.code in SUPPLY:
        yield NextStep(
            code="go-ahead",
            title="Ask the customer: another supply?",
            station="intake",
            focus="go-ahead",
            why=f"{why} A drive, a transformer, another motor: his to say.",
        )
    elif word == "yes" and bad.code in SUPPLY:
        yield NextStep(
            code="supply",
            title="Name the supply it gets",
            station="connect",
            focus="supply",
            why=why,
        )
    elif not word:
        yield _go_ahead("rewind it", why)
    elif word == "yes" and visit(c.job):
        yield bring_in(why)
    elif word == "yes":
        yield NextStep(
            code="rewind",
            act="rewound",
            title="Rewind it, or have it wound",
            station="insulation",
            words="it is rewound",
            why=f"{why} Winding record first; then every electrical proof is made again.",
        )
    else:
        yield _let_go(why)


def _go_ahead(what: str, why: str) -> NextStep:
    return NextStep(
        code="go-ahead",
        title=f"Ask the customer: {what}?",
        station="intake",
        focus="go-ahead",
        why=f"{why} Nothing more is opened, read or bought before this is said.",
    )


def _let_go(why: str) -> NextStep:
    return NextStep(
        code="let-go",
        title="Let it go unrepaired",
        station="release",
        focus="let-go",
        why=f"{why} unrepaired or scrap, and why; its tag says DO NOT CONNECT.",
    )


def driven_appliance(job: Job) -> bool:
    """Whether it is a small motor that only its appliance's drive runs: a tachometer tells its speed."""
    small = job.plate.power_w is None or job.plate.power_w <= SMALL_W
    tacho = "tachometer" in uses_of(job).values() or job.seen.looks.get("tachometer") == "yes"
    return tacho and small


def _not_repaired(job: Job) -> Iterator[NextStep]:
    """Yield the customer's word on a motor that this shop would rather not repair."""
    word = job.ticket.get("go-ahead", "")
    why = "An appliance's drive feeds it: the drive is the usual fault, and both cost more than a new appliance."
    if not word:
        yield _go_ahead("repair it at all", why)
    elif word == "no":
        yield _let_go(why)


def bring_in(why: str) -> NextStep:
    """Return the step that makes a visit a job of the bench."""
    return NextStep(
        code="bring-in",
        act="bring-in",
        title="Bring it to the bench",
        station="release",
        words="it is here",
        why=f"{why} That is no work for a visit: no volts on it; what was read stays.",
    )


def _winders_word(job: Job) -> Iterator[NextStep]:
    """Yield the question who wound it and what was tested before varnish: his word counts, and stands on the sheet."""
    wound = max((d.place for d in job.deeds.counted(("rewound",))), default=None)
    if wound is not None and job.deeds.stamps.get("winding-made:wound", -1) < wound:
        yield NextStep(
            code="wound-by",
            title="Who wound it?",
            station="insulation",
            focus="made-wound",
            why="Here or outside, by whom; core loss before and after the strip, polarity, surge test, varnish and "
            "bake: what was tested before it was connected. What was not is said on the sheet.",
        )


def _costly(job: Job, bad: Finding) -> bool:
    """Whether a finding is past what cleaning, drying or a joint mends."""
    if bad.code != "insulation":
        return bad.code in (*COSTLY, *SUPPLY)
    tested = max((t.place for t in job.tested.tests), default=-1)
    if any(d.place > tested for d in job.deeds.counted(("dried", "rewound"))):
        return False  # what was done since is tested first
    dried = any(job.deeds.counted(("dried",)))
    if not dried and any(job.deeds.counted(("flooded", "damp"))):
        return False  # wet: washed, dried and tested again before anybody is asked for a rewind
    return dried or (bad.figure is not None and bad.figure < DEAD_MEGOHM)
