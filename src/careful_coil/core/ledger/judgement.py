"""Everything the window, the command line and the sheet say about a job."""

from dataclasses import dataclass

from careful_coil.core.condition.suspicion import (
    Suspicion,
)
from careful_coil.core.condition.wall import Wall
from careful_coil.core.connect.as_found import Reading
from careful_coil.core.connect.beyond import Line
from careful_coil.core.connect.work import Connecting
from careful_coil.core.gear.separating import Ask
from careful_coil.core.identify import (
    Evidence,
    Identification,
    Naming,
)
from careful_coil.core.job import Finding, Job
from careful_coil.core.kind import Weighed
from careful_coil.core.ledger.gate import way_out
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.mechanics.parts import Part
from careful_coil.core.rewind.record import Record
from careful_coil.core.trial.begin import StartWay


@dataclass(frozen=True, slots=True, kw_only=True)
class Judgement:
    """Everything the window, the command line and the sheet say about a job."""

    job: Job
    evidence: Evidence | None  # of the leads, where there are any
    identification: Identification | None
    naming: Naming
    connecting: Connecting
    kinds: Weighed
    as_found: tuple[Reading, ...]
    suspicion: Suspicion | None
    causes: Suspicion | None  # the same after every test that parts them
    asks: tuple[Ask, ...]  # tests worth making, best first
    wall: Wall  # what limits of the insulation hang on
    findings: tuple[Finding, ...]
    gate: tuple[Finding, ...]  # what stands before it can go
    gate_lines: tuple[
        tuple[str, Finding, str], ...
    ] = ()  # all of it: how it stands, who set it aside
    steps: tuple[NextStep, ...] = ()  # everything worth doing, in order; what each asks is not said
    next: NextStep | None
    skipped: tuple[NextStep, ...] = ()
    at_connect: tuple[NextStep, ...] = ()  # what Connect asks for, in order, whatever else is open
    start_way: StartWay  # how it is started on the bench
    winding: Record  # of the winding's data, the measured ohms beside them
    installer: tuple[Line, ...] = ()  # what a change of volts asks beyond the motor
    commission: tuple[Line, ...] = ()  # what is read and set at the machine
    parts: tuple[Part, ...] = ()  # wanted, with their specification
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
        if self.gate:
            return self.gate[0].subject[0].lower() + self.gate[0].subject[1:]
        return "ready to sign"
