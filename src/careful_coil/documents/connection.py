"""`careful-coil/connection` version 1."""

from typing import Literal

from careful_coil.core.connect.plans import with_direction
from careful_coil.core.connect.steps import Step
from careful_coil.core.ways.states import off_of, states_of
from careful_coil.core.ways.way import Ohms, Plan
from careful_coil.documents.base import Document
from careful_coil.documents.hookup import OhmOut, ohms_out


class StepOut(Document):
    """One step of a change."""

    do: str
    leads: list[str]
    joint: list[str]
    loose_after: int
    text: str


class StageOut(Document):
    """The joints of one stage of starting."""

    state: str
    joints: list[list[str]]


class PlacedDevice(Document):
    """A device of the hookup; `closed` its contacts by state, by terminal, where it has any."""

    name: str
    kind: str
    closed: dict[str, list[list[str]]] | None = None


class ConnectionDocument(Document):
    """The hookup for a supply; `line_ohm` when coil ohms, `amp` when rated amps are known.

    `coil_volt` by coil on this supply; `stages` where it is started in stages; `steps` from the
    present hookup; `devices` where the present hookup has some.
    """

    format: Literal["careful-coil/connection"] = "careful-coil/connection"
    version: Literal[1] = 1
    arrangement: str
    connection: str
    joints: list[list[str]]
    line_ohm: dict[str, OhmOut] | None = None
    amp: dict[str, float] | None = None
    coil_volt: dict[str, float] | None = None
    stages: list[StageOut] | None = None
    steps: list[StepOut] | None = None
    devices: list[PlacedDevice] | None = None
    direction: str
    notes: list[str]


def connection_document(
    plan: Plan,
    coil_ohm: Ohms | None,
    amps: tuple[float, ...] = (),
    coil_volt: dict[str, float] | None = None,
    steps: tuple[Step, ...] | None = None,
) -> ConnectionDocument:
    """Return the document of a plan; `amps` belong to the plate's ratings in order."""
    amp = amps[plan.rank] if plan.rank < len(amps) else None
    return ConnectionDocument(
        arrangement=plan.arrangement,
        connection=plan.connection,
        joints=[list(j) for j in plan.joints],
        line_ohm=ohms_out(plan.line_ohm(coil_ohm)) if coil_ohm else None,
        amp=dict.fromkeys(plan.lines(), amp) if amp else None,
        coil_volt=coil_volt,
        stages=[StageOut(state=s.name, joints=[list(j) for j in s.joints]) for s in plan.stages]
        or None,
        steps=[_step(s) for s in steps] if steps is not None else None,
        devices=_devices(plan) or None,
        direction=with_direction(plan),
        notes=list(plan.notes),
    )


def _devices(plan: Plan) -> list[PlacedDevice]:
    others = [s for s in (off_of(plan.devices),) if s is not None]
    found = []
    for d in plan.devices:
        states = {
            s.name: [list(pair) for pair in d.contacts(s.moment, s.position(d))]
            for s in (*states_of(plan.devices), *others)
        }
        closed = states if any(states.values()) else None
        found.append(PlacedDevice(name=d.name, kind=d.kind, closed=closed))
    return found


def _step(step: Step) -> StepOut:
    return StepOut(
        do=step.do,
        leads=list(step.leads),
        joint=list(step.joint),
        loose_after=step.loose_after,
        text=step.text,
    )
