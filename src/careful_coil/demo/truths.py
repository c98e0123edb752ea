"""What the demo motors really are, as motor documents. Only the simulated meter ever sees this."""

import random
from importlib.resources import files
from typing import Any

from careful_coil.bench.simulated import HiddenMotor, SimulatedMeter
from careful_coil.bench.wound import hidden_of, wound
from careful_coil.core.job import Job
from careful_coil.core.readings import Meter
from careful_coil.core.winding import arrangement
from careful_coil.demo import JOBS
from careful_coil.documents.base import parse_json
from careful_coil.documents.motor import MotorDocument, read_motor

BENCH_METER = Meter(accuracy_percent=1.0, resolution_ohm=0.01, lead_ohm=0.0)
SPARE = {
    3: "single-phase-3-lead",
    6: "three-phase-6-lead",
    9: "three-phase-9-lead-wye",
    12: "three-phase-12-lead",
}
SPARE_OHM = {"coil": 3.8, "run": 2.4, "start": 6.9}
SPARE_MEGOHM, USUAL_MAGNETIZING = 320.0, 0.4


def hidden_motor(document: MotorDocument) -> HiddenMotor:
    """Return a motor for the demo's bench: its devices stand in the hookup that the meter is asked of."""
    bare = document.model_copy(update={"devices": ()})
    return hidden_of(document, wound(bare), USUAL_MAGNETIZING)


def _motor(name: str) -> HiddenMotor:
    text = (files(__package__) / "motors" / f"{name}.json").read_text(encoding="utf-8")
    return hidden_motor(read_motor(parse_json(text)))


TRUTHS: dict[str, HiddenMotor] = {f"demo-{name}": _motor(name) for name in JOBS}


def _spare(job: Job, number: int) -> HiddenMotor:
    """Return an ordinary motor with so many leads, in an order of its own."""
    slug = SPARE[len(job.tags)]
    leads = list(arrangement(slug).network.leads)
    random.Random(number).shuffle(leads)
    inside = {"name": "S1", "kind": "speed-switch", "inside": True, "in": "start"}
    told: dict[str, Any] = {
        "format": "careful-coil/motor",
        "version": 1,
        "name": f"Spare motor {number}",
        "arrangement": slug,
        "ohm": SPARE_OHM,
        "leads": [{"tag": t, "is": n} for t, n in zip(job.tags, leads, strict=True)],
        "devices": [inside] if slug.startswith("single") else [],
        "insulation": {"megohm": SPARE_MEGOHM},
    }
    return hidden_motor(read_motor(told))


def demo_meter(job_id: str, number: int, job: Job) -> SimulatedMeter | None:
    """Return the simulated meter of a demo job; a new job with 3, 6, 9 or 12 leads gets a spare motor."""
    motor = TRUTHS.get(job_id)
    if motor is None and len(job.tags) in SPARE:
        motor = _spare(job, number)
    return (
        SimulatedMeter(motor, seed=number, meter=BENCH_METER, four_below=2.0)
        if motor is not None
        else None
    )
