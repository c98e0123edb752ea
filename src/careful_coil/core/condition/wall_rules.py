"""What the insulation tests say: whole, between windings, over the minutes, over the years."""

from collections.abc import Iterator
from functools import lru_cache, partial

from careful_coil.core.condition.absorption import LEAST_FOR_ODDS, Curve, fit_curve
from careful_coil.core.condition.air import dew_point
from careful_coil.core.condition.polarization import (
    BRITTLE,
    DAMP_BELOW,
    Wanted,
    index_wanted,
    ratios_of,
)
from careful_coil.core.condition.wall import (
    Given,
    TestWanted,
    Wall,
    given,
    search_tests,
    standing,
    stands,
    wanted_tests,
)
from careful_coil.core.errors import CoilError
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.at_insulation import InsulationTested
from careful_coil.core.job.tested import Logged
from careful_coil.core.settings import Settings

IEEE_43 = "IEEE 43, insulation resistance at 40 °C"
DISCHARGE_TIMES = 4  # the test's length; IEEE 43, discharge of the winding
FAULT_MEGOHM = 0.05  # a steady near-zero is a fault, not damp

_of = partial(Finding, station="insulation")


def wall_findings(job: Job, wall: Wall, settings: Settings) -> list[Finding]:
    """Return findings on the insulation."""
    return [
        _whole(job, wall),
        *_between(job, wall),
        *_minutes(job, wall, settings),
        *_volts(job, wall),
        *_dew(job, settings),
        *_trend(job, wall, settings),
        *_charge(job),
    ]


def discharge_seconds(test: InsulationTested) -> float:
    """Return how long a winding is earthed after a test, in s: four times its length."""
    return DISCHARGE_TIMES * test.length_s


def weakest(job: Job, wall: Wall) -> tuple[Logged[InsulationTested], Given] | None:
    """Return the standing test to the frame that is nearest its limit, with what it gives.

    Tests since the last work, or, where there is none, those before it.
    """
    pool = job.tested.valid() or job.tested.tests
    found = [(t, given(t.body, wall)) for t in standing(pool, wall.groups)]
    to_frame = [x for x in found if not x[0].body.against]
    if not to_frame:
        return None
    known = [x for x in to_frame if x[1].megohm is not None]
    return min(known or to_frame, key=lambda x: x[1].megohm or 0.0)


def _whole(job: Job, wall: Wall) -> Finding:
    limit = wall.minimum
    of = partial(
        _of,
        code="insulation",
        gate=True,
        waivable=False,
        limit=limit,
        unit="MΩ",
        source=wall.minimum_source,
    )
    chosen = weakest(job, wall)
    if chosen is None:
        return of(
            verdict="unproven",
            subject="Insulation not tested",
            why="One minute to the frame with the tester, parts disconnected, ends joined.",
        )
    logged, got = chosen
    test = logged.body
    if got.megohm is None:
        return of(
            verdict="unproven",
            subject="Insulation cannot be corrected",
            why=f"{got.why} Test again within it.",
            figure=test.megohm,
            source=IEEE_43,
        )
    of = partial(of, figure=got.megohm)
    where = f" {TestWanted(parts=test.parts).words()}." if test.parts else ""
    if got.divisor > 1:
        where += f" Raw {test.megohm:.3g} MΩ, divided by {got.divisor} to stand for the whole."
    least = "at least " if test.above else ""
    told = f"{got.megohm:.3g} MΩ at 40 °C; at least {limit:g} MΩ is wanted."
    if got.megohm < limit and test.above:
        return of(
            verdict="unproven",
            subject="Insulation tester's range too short",
            why=f"At least {got.megohm:.3g} MΩ at 40 °C is shown; {limit:g} MΩ is wanted.{where}",
        )
    if got.megohm < limit:
        return of(
            verdict="hold",
            subject="Insulation too low",
            why=f"{told}{where} {_low(test, wall)}",
        )
    if job.tested.worked > logged.place:
        return of(
            verdict="unproven",
            subject="Insulation not tested since the last work",
            why="The winding was worked on after the test.",
        )
    return of(verdict="good", subject="Insulation good", why=f"{least}{told}{where}")


def _low(test: InsulationTested, wall: Wall) -> str:
    """Return what a low figure means and what to do."""
    find = next(search_tests(wall, test), None)
    split = f" To find where: {find.words()}." if find else ""
    if test.megohm <= FAULT_MEGOHM:
        return f"Nearly nothing: a fault to the frame, drying will not mend it.{split}"
    known = {s: m for s, m in test.readings if m > 0}
    index = ratios_of(known).pi
    if index is not None and index < DAMP_BELOW:
        return f"It does not climb with time (index {index:.2f}): damp or dirty. Clean, dry, test again."
    return f"Clean, dry, test again.{split}"


def _between(job: Job, wall: Wall) -> Iterator[Finding]:
    """Yield whether every two separate windings, and each and the frame, were tested."""
    if len(wall.groups) < 2:
        return
    of = partial(
        _of, code="insulation-between", gate=True, source="IEEE 43: each winding, others earthed"
    )
    kept = standing(job.tested.valid(), wall.groups)
    failed = [t.body for t in kept if stands(t.body, wall) == "hold"]
    bad = [t for t in failed if t.against]
    if bad:
        test = bad[-1]
        got = given(test, wall)
        yield of(
            verdict="hold",
            waivable=False,
            subject="Insulation between windings too low",
            why=f"{TestWanted(parts=test.parts, against=test.against).words()}: {got.megohm:.3g} MΩ at 40 °C.",
            figure=got.megohm,
            limit=wall.minimum,
            unit="MΩ",
        )
        return
    parts = [t for t in failed if t.parts]
    if parts:  # such a test had the frame and the other windings on its other pole
        find = next(search_tests(wall, parts[-1]), None)
        yield of(
            verdict="unproven",
            subject="Frame or another winding: not told apart",
            why=f"{' '.join(parts[-1].parts)} fails with both earthed."
            + (f" Next: {find.words()}." if find else ""),
        )
        return
    left = wanted_tests(wall, kept)
    if left or any(stands(t.body, wall) == "unproven" for t in kept):
        asks = left[0].words() if left else "within 10 to 85 °C, and the tester's range"
        yield of(
            verdict="unproven",
            subject="Not every winding tested against frame and others",
            why=f"{len(wall.groups)} separate windings. Next: {asks}.",
        )
        return
    yield of(
        verdict="good",
        subject="Windings insulated from each other",
        why=f"Each of {len(wall.groups)} tested with the others earthed, all above {wall.minimum:g} MΩ.",
    )


# --- over the minutes -----------------------------------------------------------------------------


@lru_cache(maxsize=64)
def curve_through(readings: tuple[tuple[float, float], ...]) -> Curve | None:
    """Return the curve through readings (s, MΩ); None where they are too few or of nothing. Kept."""
    told = [(s, m) for s, m in readings if m > 0]
    if len(told) < LEAST_FOR_ODDS:
        return None
    try:
        return fit_curve(told)
    except CoilError:
        return None


def curve_of(test: InsulationTested) -> Curve | None:
    """Return the curve through a test's readings."""
    return curve_through(test.readings)


def wanted_index(wall: Wall, settings: Settings, megohm_60: float | None = None) -> Wanted:
    """Return the polarization index that is wanted of this motor, or why none is."""
    return index_wanted(
        megohm_60, wall.thermal, wall.construction, wall.power_w, 1e3 * settings.index_from.value
    )


def longest_curve(job: Job, wall: Wall) -> Logged[InsulationTested] | None:
    """Return the longest test with readings over time that no later test has taken the place of."""
    curves = [t for t in standing(job.tested.valid(), wall.groups) if t.body.readings]
    return max(curves, key=lambda t: (t.body.length_s, t.place), default=None)


def _minutes(job: Job, wall: Wall, settings: Settings) -> Iterator[Finding]:
    logged = longest_curve(job, wall)
    test = logged.body if logged else None
    known = {s: m for s, m in test.readings if m > 0} if test else {}
    got = ratios_of(known)
    plain = [t.body.megohm for t in standing(job.tested.valid(), wall.groups)]
    want = wanted_index(wall, settings, known.get(60.0, min(plain, default=0.0)))
    limit = settings.index_105 if wall.thermal < 130 else settings.index_130
    of = partial(_of, code="insulation-index", unit="", source=limit.source)
    if got.pi is not None and got.pi > BRITTLE and wall.material == "thermoplastic":
        yield of(
            verdict="watch",
            subject="Insulation dry and brittle",
            why=f"Index {got.pi:.1f} on an old winding: over {BRITTLE:g} the varnish has gone dry.",
            figure=got.pi,
            limit=BRITTLE,
        )
    elif want.least is not None and got.pi is None:
        yield of(
            verdict="unproven",
            gate=True,
            subject="Polarization index not measured",
            why=f"{want.why} Ten minutes under volts: at least {limit.value:g} is wanted beside the MΩ.",
            limit=limit.value,
        )
    elif want.least is not None and got.pi is not None:
        good = got.pi >= limit.value
        yield of(
            verdict="good" if good else "hold",
            gate=True,
            subject="Polarization index good" if good else "Polarization index too low",
            why=f"{got.pi:.2f}; at least {limit.value:g} is wanted. {want.why}"
            + ("" if good else " Damp or dirty: clean, dry, test again."),
            figure=got.pi,
            limit=limit.value,
        )
    elif got.pi is not None:
        yield of(
            verdict="note",
            subject=f"Polarization index {got.pi:.2f}",
            why=f"Not judged. {want.why}",
            figure=got.pi,
        )
    if got.dar is not None and want.least is None and got.dar < settings.absorption_least.value:
        least = settings.absorption_least
        yield _of(
            code="insulation-absorption",
            verdict="watch",
            subject="Little absorption in the first minute",
            why=f"R60/R30 is {got.dar:.2f}; {least.value:g} is usual on a dry winding of some size.",
            figure=got.dar,
            limit=least.value,
            source=least.source,
        )
    curve = curve_of(test) if test else None
    for kink in curve.kinks if curve else ():
        yield _of(
            code=f"insulation-{kink.kind}",
            verdict="watch",
            subject="Insulation unsteady" if kink.kind == "unsteady" else "A kink in the curve",
            why=f"{kink.why} Test it again with clean clips.",
            figure=kink.second,
            unit="s",
        )


# --- beside the figure ----------------------------------------------------------------------------


def _volts(job: Job, wall: Wall) -> Iterator[Finding]:
    usual = wall.test_volts()
    valid = job.tested.valid()
    if usual is None or not valid:
        return
    test = valid[-1].body
    low, high = usual
    if test.test_volt > 1.05 * high and not (wall.wet and test.test_volt <= 500):
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
    valid = [t.body for t in job.tested.valid() if t.body.air_c is not None]
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
            why=f"{newest:.3g} MΩ at 40 °C, {best:.3g} on {day[:10]}: {best / newest:.1f} times less, "
            "though still above the minimum. Damp, dirt or age: find out which.",
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
        verdict="hold",
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
