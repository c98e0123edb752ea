"""This motor's earlier job, told in what a later one needs of it: tests at 40 °C, coil ohms at 20 °C, a run."""

from careful_coil.core.condition.coils import measured
from careful_coil.core.condition.temperature import resistance_at
from careful_coil.core.condition.wall import Wall, given
from careful_coil.core.errors import CoilError
from careful_coil.core.identify import Identification, Naming
from careful_coil.core.job import Job
from careful_coil.core.job.at_insulation import EarlierTest, SameMotor
from careful_coil.core.settings import Settings

MOST_TESTS, MOST_STEPS, MOST_MEGOHM = 200, 100, 1e7


def earlier_of(
    number: int,
    job: Job,
    found: Identification | None,
    naming: Naming,
    wall: Wall,
    settings: Settings,
) -> SameMotor:
    """Return job `number` as a later job of the same motor keeps it; what it knew of earlier ones too."""
    tests = [t for e in job.tested.earlier for t in e.tests]
    for logged in job.tested.tests:
        at_40 = given(logged.body, wall).megohm
        if at_40 is not None and not logged.body.against:
            tests.append(
                EarlierTest(
                    at=logged.at[:10],
                    megohm_at_40=min(at_40, MOST_MEGOHM),
                    readings=logged.body.readings,
                )
            )
    coils: dict[str, float] = {}
    got = measured(job, found, naming, wall, settings)
    if got is not None and not got.missing:
        warm = got.at_c if got.at_c is not None else _temperature(job)
        for name, ohm in got.ohm.items():
            if warm is None or name in got.untold:
                continue
            try:
                coils[name] = resistance_at(ohm, warm, 20.0, wall.metal)
            except CoilError:
                continue
    last = job.trials.last_whole
    return SameMotor(
        number=number,
        tests=tuple(tests[-MOST_TESTS:]),
        coil_ohm=coils,
        run=last.steps[-MOST_STEPS:] if last is not None else (),
    )


def _temperature(job: Job) -> float | None:
    """Return the winding's °C while the leads were read, where it was written down."""
    told = [t.temperature_c for t in job.readings if t.temperature_c is not None]
    return sum(told) / len(told) if told else None
