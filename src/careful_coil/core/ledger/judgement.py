"""Everything the window, the command line and the sheet say about a job."""

from dataclasses import dataclass

from careful_coil.core.job import Finding, Job
from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.gate import way_out
from careful_coil.core.ledger.step import NextStep


@dataclass(frozen=True, slots=True, kw_only=True)
class Judgement:
    """Everything the window, the command line and the sheet say about a job."""

    job: Job
    facts: Facts
    findings: tuple[Finding, ...]
    gate: tuple[Finding, ...]  # what stands before it can go
    gate_lines: tuple[
        tuple[str, Finding, str], ...
    ] = ()  # all of it: how it stands, who set it aside
    steps: tuple[NextStep, ...] = ()  # everything worth doing, in order; what each asks is not said
    next: NextStep | None
    skipped: tuple[NextStep, ...] = ()
    at_connect: tuple[NextStep, ...] = ()  # what Connect asks for, in order, whatever else is open
    pips: tuple[str, ...] = ()  # for each station: done, open, hold or nothing

    @property
    def released(self) -> bool:
        """Whether it was signed and nothing has been found open since."""
        return self.job.released is not None and not self.gate and not way_out(self.job)

    @property
    def state(self) -> str:
        """The motor's state in words, for its tag on the rack."""
        if self.released:
            return "released"
        if way_out(self.job):
            return f"{way_out(self.job)}: do not connect"
        if self.job.loose:
            return "leads alone"
        if self.gate:
            return self.gate[0].subject[0].lower() + self.gate[0].subject[1:]
        return "ready to sign"
