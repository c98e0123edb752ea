"""What is concluded of a job from the evidence of all stations, each thing once."""

from collections.abc import Collection
from dataclasses import dataclass

from careful_coil.core.condition.suspicion import Suspicion
from careful_coil.core.condition.wall import Wall
from careful_coil.core.connect.as_found import Reading
from careful_coil.core.connect.beyond import Line
from careful_coil.core.connect.dead import NOBODY, AtBench
from careful_coil.core.connect.work import Connecting
from careful_coil.core.gear.separating import Ask
from careful_coil.core.identify import Evidence, Identification, Naming
from careful_coil.core.job import Finding, Job
from careful_coil.core.kind import Weighed
from careful_coil.core.mechanics.parts import Part
from careful_coil.core.rewind.record import Record
from careful_coil.core.settings import Settings
from careful_coil.core.terms import in_terms
from careful_coil.core.trial.begin import StartWay


@dataclass(frozen=True, slots=True, kw_only=True)
class Facts:
    """What the stations' rules and steps go by.

    `not_here` codes of steps put off, `bench` the time and whose hands; `findings` and `gate` once they
    are known.
    """

    job: Job
    settings: Settings
    not_here: Collection[str] = ()
    bench: AtBench = NOBODY
    evidence: Evidence | None  # of the leads, where there are any
    identification: Identification | None
    naming: Naming
    kinds: Weighed
    as_found: tuple[Reading, ...]
    connecting: Connecting
    suspicion: Suspicion | None
    causes: Suspicion | None = None  # the same after every test that parts them
    asks: tuple[Ask, ...] = ()  # tests worth making, best first
    wall: Wall  # what limits of the insulation hang on
    start_way: StartWay  # how it is started on the bench
    winding: Record  # of the winding's data, the measured ohms beside them
    installer: tuple[Line, ...] = ()  # what a change of volts asks beyond the motor
    commission: tuple[Line, ...] = ()  # what is read and set at the machine
    parts: tuple[Part, ...] = ()  # wanted, with their specification
    findings: tuple[Finding, ...] = ()
    gate: tuple[Finding, ...] = ()

    @property
    def connection(self) -> str:
        """What the hookup is called, in the shop's terms; empty while there is none."""
        plan = self.connecting.plan
        return in_terms(plan.connection, self.settings) if plan is not None else ""

    @property
    def known(self) -> bool:
        """Whether the leads have names."""
        return self.naming.known
