"""What a released motor's owner is told: what was wrong, done, renewed, and what was not tested and why."""

from collections.abc import Iterator
from dataclasses import dataclass

from careful_coil.core.condition.plain import for_the_customer
from careful_coil.core.condition.suspicion import NO_COMPLAINT
from careful_coil.core.job import Job
from careful_coil.core.ledger.judgement import Judgement
from careful_coil.core.trial.begin import speeds_of, speeds_to_run

# work on the motor by the rows of the void table, as its owner would say it
DONE = {
    "rewound": "Rewound",
    "washed": "Cleaned",
    "dried": "Winding dried",
    "varnished": "Winding varnished",
    "lead": "Leads mended",
    "shaft": "Shaft freed; fan and moving parts looked after",
    "earth": "Earth connection made good",
    "temporary": "A makeshift taken out and made good",
    "joint": "Connections made again",
}


@dataclass(frozen=True, slots=True)
class ForCustomer:
    """Sentences each: `wrong` what was complained of and found, `done`, `renewed`, `not_tested` with why."""

    wrong: tuple[str, ...]
    done: tuple[str, ...]
    renewed: tuple[str, ...]
    not_tested: tuple[str, ...]

    def lines(self) -> tuple[tuple[str, str], ...]:
        """Return titles with their sentences, those that have any."""
        every = (
            ("What was wrong", self.wrong),
            ("What was done", self.done),
            ("What is new", self.renewed),
            ("Not tested, and why", self.not_tested),
        )
        return tuple((title, " ".join(words)) for title, words in every if words)


def for_customer(judged: Judgement) -> ForCustomer:
    """Return what the owner is told of a job as it stands."""
    job = judged.job
    return ForCustomer(
        wrong=tuple(_wrong(judged)),
        done=tuple(_done(judged)),
        renewed=tuple(_renewed(job)),
        not_tested=tuple(_not_tested(judged)),
    )


def _wrong(judged: Judgement) -> Iterator[str]:
    told = judged.job.ticket.get("complaint", "").strip()
    if told and told.lower() not in NO_COMPLAINT:
        yield f"You said: {told.rstrip('.')}."
    cause = next((f for f in judged.findings if f.code == "cause"), None)
    if cause is not None and cause.verdict == "good":
        yield f"{cause.subject}. {cause.why}"


def _done(judged: Judgement) -> Iterator[str]:
    kinds = dict.fromkeys(d.kind for d in judged.job.deeds.counted())
    yield from (f"{DONE[k]}." for k in kinds if k in DONE)
    yield from for_the_customer([f for f in judged.findings if f.verdict == "good"])
    ran = next((f for f in judged.findings if f.code == "test-run" and f.verdict == "good"), None)
    if ran is not None:
        on = judged.job.trials.last("on", -1)
        minutes = max((s.minute or 0.0 for s in on.steps), default=0.0) if on is not None else 0.0
        yield f"It ran {minutes:g} minutes closed, on its own volts, without load."

    wound = judged.job.tested.made.get("wound", "")
    if wound and wound.lower() not in NO_COMPLAINT:
        yield f"Wound: {wound.rstrip('.')}."
    read = [t for t in (judged.job.site.get("amps"), judged.job.site.get("volts")) if t]
    if judged.job.on_site and read:
        yield f"At your machine it drew {' at '.join(read)}."


def _renewed(job: Job) -> Iterator[str]:
    for end, told in job.hands.bearings.items():
        if told.get("done") == "renewed":
            fitted = told.get("fitted", "")
            yield f"Bearing, {end} end{f': {fitted}' if fitted else ''}."
    for name, told in job.gear.capacitors.items():
        if told.get("renewed"):
            yield f"Capacitor {name}: {told.get('marking', '')}.".replace(": .", ".")
    for d in job.deeds.counted(("device",)):
        yield f"Start switch, relay or guard {d.part.partition(':')[2]}."
    yield from (f"Lead {tag}: {mend.how}." for tag, mend in job.hands.mended.items() if mend.how)
    if job.hands.felt.get("cord-done") == "renewed":
        yield "Cord."


def _not_tested(judged: Judgement) -> Iterator[str]:
    job, state = judged.job, judged.facts.connecting
    if not job.on_site:
        yield "Under load: that is seen at your machine."
    ran = next((f for f in judged.findings if f.code == "test-run"), None)
    if ran is not None and "Speed not measured" in ran.why:
        yield "Its speed: no tachometer was on it; it started and ran steadily."
    left = [s for s in speeds_of(state) if s not in speeds_to_run(state)]
    if left:
        yield f"The {' and '.join(left)} speed: it wants other joints, your switch makes them."
    if any(job.deeds.counted(("rewound",))) and not job.tested.made.get("wound"):
        yield "The core and the turns before varnish: nobody said that they were."
    if any(job.deeds.counted(("rewound",))) and not job.tested.surges:
        yield "High volts between turns: this shop has no surge tester; line amps and warmth were watched."
    if job.plate.assumed:
        yield "Its plate: it cannot be read, the volts are those it is said to have run on."
    if job.seen.sealed:
        yield "Inside the welded shell: nobody can look there."
    for step in judged.skipped:
        if step.code.startswith("bar-"):
            yield "The commutator bar by bar: it ran without sparks."
            break
