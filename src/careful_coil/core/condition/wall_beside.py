"""What stands beside an insulation figure: the tester's volts, the air, the years, the charge left."""

from collections.abc import Iterator
from functools import partial

from careful_coil.core.condition.air import dew_point
from careful_coil.core.condition.wall import HELD_VOLT, Wall, given, made_since
from careful_coil.core.condition.wall_rules import discharge_seconds, weakest
from careful_coil.core.job import Finding, Job
from careful_coil.core.settings import Settings
from careful_coil.core.values import show_figure

_of = partial(Finding, station="insulation")


def beside_findings(job: Job, wall: Wall, settings: Settings) -> Iterator[Finding]:
    """Yield what stands beside the figure."""
    yield from _volts(job, wall)
    yield from _dew(job, settings)
    yield from _trend(job, wall, settings)
    yield from _charge(job)


def _volts(job: Job, wall: Wall) -> Iterator[Finding]:
    usual = wall.test_volts()
    valid = made_since(job, "insulation")
    if usual is None or not valid:
        return
    test = valid[-1].body
    low, high = usual
    rewound = any(job.deeds.counted(("rewound",))) and test.test_volt <= HELD_VOLT
    if test.test_volt > 1.05 * high and not (wall.wet and test.test_volt <= 500) and not rewound:
        yield _of(
            code="test-volts",
            verdict="watch",
            subject="Tested above the usual volts",
            why=f"{test.test_volt:g} V; {wall.volts_why()}",
            figure=test.test_volt,
            limit=high,
            unit="V",
            source="IEEE 43, DC test volts",
        )
    elif test.test_volt < 0.95 * low:
        yield _of(
            code="test-volts",
            verdict="watch",
            subject="Tested below the usual volts",
            why=f"{test.test_volt:g} V; {low:g} V is usual. A weak place may not show at less.",
            figure=test.test_volt,
            limit=low,
            unit="V",
            source="IEEE 43, DC test volts",
        )


def _dew(job: Job, settings: Settings) -> Iterator[Finding]:
    valid = [t.body for t in made_since(job, "insulation") if t.body.air_c is not None]
    if not valid or valid[-1].humidity_percent is None or valid[-1].air_c is None:
        return
    test = valid[-1]
    dew = dew_point(test.air_c or 0.0, test.humidity_percent or 0.0)
    margin = settings.dew_margin.value
    if test.at_c < dew + margin:
        wet = test.at_c <= dew
        yield _of(
            code="dew-point",
            verdict="watch",
            subject="Winding at the dew point" if wet else "Winding close to the dew point",
            why=f"Winding {test.at_c:g} °C, dew point {dew:.1f} °C. Warm it above the air, test again.",
            figure=test.at_c,
            limit=dew + margin,
            unit="°C",
            source="Magnus formula, Alduchov and Eskridge 1996",
        )


def history(job: Job, wall: Wall) -> list[tuple[str, float]]:
    """Return this motor's tests to the frame in order: day with the part tested, MΩ at 40 °C."""
    before = sorted((t.at, t.megohm_at_40) for e in job.tested.earlier for t in e.tests)
    own = []
    for logged in job.tested.tests:
        at_40 = given(logged.body, wall).megohm
        if at_40 and not logged.body.against:
            own.append((f"{logged.at[:10]} {' '.join(logged.body.parts)}".strip(), at_40))
    return [*before, *own]


def _trend(job: Job, wall: Wall, settings: Settings) -> Iterator[Finding]:
    told = history(job, wall)
    fall = settings.trend_fall
    chosen = weakest(job, wall)
    newest = chosen[1].megohm if chosen else None
    if len(told) < 2 or newest is None or not newest:
        return
    before = told[:-1]
    day, best = max(before, key=lambda x: x[1])
    if newest >= wall.minimum and best / newest >= fall.value:
        yield _of(
            code="insulation-trend",
            verdict="watch",
            subject="Insulation has fallen",
            why=f"{show_figure(newest)} MΩ at 40 °C, {show_figure(best)} on {day[:10]}: "
            f"{best / newest:.1f} times less, though still above the minimum. Damp, dirt or age: find out which.",
            figure=best / newest,
            limit=fall.value,
            unit="times",
            source=fall.source,
        )


def _charge(job: Job) -> Iterator[Finding]:
    logged = job.tested.charged()
    if logged is None:
        return
    seconds = discharge_seconds(logged.body)
    yield _of(
        code="winding-charged",
        verdict="unproven",
        gate=True,
        waivable=False,
        subject="Winding still charged",
        why=f"Earth it {_minutes_words(seconds)}, four times the test's length, and tick it.",
        figure=seconds,
        unit="s",
        source="IEEE 43, discharge of the winding",
    )


def _minutes_words(seconds: float) -> str:
    return f"{seconds / 60:g} min" if seconds >= 60 else f"{seconds:g} s"
