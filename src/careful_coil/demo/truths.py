"""What the demo motors really are. Only the simulated meter ever sees this."""

import math
import random

from careful_coil.bench.simulated import HiddenMotor, SimulatedMeter
from careful_coil.core.job import Job
from careful_coil.core.mechanics.commutator import armature, bar_ohms
from careful_coil.core.readings import Meter
from careful_coil.core.winding import arrangement

SPREAD = 0.004  # between coils that should be equal
BENCH_METER = Meter(accuracy_percent=1.0, resolution_ohm=0.01, lead_ohm=0.0)
SPARE = {
    3: "single-phase-3-lead",
    6: "three-phase-6-lead",
    9: "three-phase-9-lead-wye",
    12: "three-phase-12-lead",
}
# 24 bars, lap wound, two coils to a slot, the coil from bar 9 to bar 10 open
_COILS = [0.567 * (1.06 if k % 2 else 1.0) for k in range(24)]
OPEN_AT_NINE = tuple(float(v) for v in bar_ohms(armature(24), [*_COILS[:8], math.inf, *_COILS[9:]]))
SPARE_OHM = {"coil": 3.8, "run": 2.4, "start": 6.9}


def _motor(
    slug: str, lead_of: dict[str, str], ohm: dict[str, float], seed: int, **more: object
) -> HiddenMotor:
    network = arrangement(slug).network
    chance = random.Random(seed)
    ohms = {c.name: ohm[c.like] * (1 + chance.uniform(-SPREAD, SPREAD)) for c in network.coils}
    return HiddenMotor(network=network.with_ohm(ohms), lead_of=lead_of, **more)  # type: ignore[arg-type]


def _named(text: str) -> dict[str, str]:
    return dict(pair.split("=") for pair in text.split())


TRUTHS: dict[str, HiddenMotor] = {
    "demo-bakery": _motor(
        "single-phase-3-lead",
        _named("A=start B=common C=run"),
        {"run": 2.1, "start": 5.6},
        11,
        start_device="switch",
        frame_megohm=210.0,
        magnetizing=0.6,
    ),
    "demo-theatre": _motor(
        "three-phase-9-lead-wye",
        _named("A=T1 B=T7 C=T2 D=T3 E=T9 F=T4 G=T8 H=T5 J=T6"),
        {"coil": 0.51},
        12,
        frame_megohm=640.0,
        magnetizing=0.85,
    ),
    "demo-boatyard": _motor(
        "three-phase-6-lead",
        _named("A=T1 B=T5 C=T3 D=T4 E=T2 F=T6"),
        {"coil": 4.2},
        13,
        frame_megohm=3.1,
    ),
    "demo-cider-mill": _motor(
        "three-phase-6-lead",
        _named("A=T1 B=T2 C=T3 D=T4 E=T5 F=T6"),
        {"coil": 2.6},
        14,
        frame_megohm=480.0,
    ),
    "demo-school": _motor(
        "three-phase-6-lead",
        _named("A=T5 B=T1 C=T6 D=T2 E=T4 F=T3"),
        {"coil": 8.7},
        15,
        frame_megohm=260.0,
    ),
    "demo-glasshouse": _motor(
        "single-phase-speed-taps",
        _named("A=run B=high C=low D=start E=medium"),
        {"main": 62.0, "auxiliary": 91.0, "medium": 14.0, "low": 18.0},
        16,
        frame_megohm=150.0,
    ),
    "demo-ropewalk": _motor(
        "three-phase-12-lead",
        _named("A=T7 B=T2 C=T10 D=T6 E=T12 F=T1 G=T5 H=T11 J=T4 K=T9 L=T3 M=T8"),
        {"coil": 0.83},
        17,
        frame_megohm=390.0,
        magnetizing=0.3,
    ),
    "demo-chandlery": _motor(
        "single-phase-4-lead",
        _named("A=main-1 B=main-2 C=aux-1 D=aux-2"),
        {"main": 1.5, "auxiliary": 4.3},
        19,
        start_device="switch",
        frame_megohm=410.0,
        magnetizing=0.6,
    ),
    "demo-coldstore": _motor(
        "single-phase-4-lead",
        _named("A=main-1 B=main-2 C=aux-1 D=aux-2"),
        {"main": 1.9, "auxiliary": 5.1},
        20,
        frame_megohm=230.0,
        magnetizing=0.6,
    ),
    "demo-sander": _motor(
        "universal-5-lead",
        _named("A=armature-1 B=field-tap C=field-2 D=armature-2 E=field-1"),
        {"field-1": 1.92, "field-2": 1.18, "armature": 3.4},
        18,
        frame_megohm=95.0,
        bar_ohms=OPEN_AT_NINE,
    ),
    "demo-dairy": _motor(
        "single-phase-4-lead",
        _named("A=main-1 B=main-2 C=aux-1 D=aux-2"),
        {"main": 2.3, "auxiliary": 6.7},
        21,
        start_device="switch",
        frame_megohm=310.0,
        magnetizing=0.6,
    ),
    "demo-lock-house": _motor(
        "three-phase-6-lead",
        _named("A=T2 B=T4 C=T6 D=T1 E=T5 F=T3"),
        {"coil": 4.7},
        31,
        frame_megohm=390.0,
        magnetizing=0.28,
    ),
    "demo-quarry": _motor(
        "three-phase-6-lead",
        _named("A=T3 B=T1 C=T5 D=T6 E=T2 F=T4"),
        {"coil": 1.3},
        32,
        frame_megohm=0.4,
    ),
}


def demo_meter(job_id: str, number: int, job: Job) -> SimulatedMeter | None:
    """Return the simulated meter of a demo job; a new job with 3, 6 or 9 leads gets a spare motor."""
    motor = TRUTHS.get(job_id)
    if motor is None and len(job.tags) in SPARE:
        slug = SPARE[len(job.tags)]
        leads = list(arrangement(slug).network.leads)
        random.Random(number).shuffle(leads)
        device = "switch" if slug.startswith("single") else ""
        lead_of = dict(zip(job.tags, leads, strict=True))
        motor = _motor(slug, lead_of, SPARE_OHM, number, start_device=device, frame_megohm=320.0)
    return SimulatedMeter(motor, seed=number, meter=BENCH_METER) if motor is not None else None
