"""What the insulation tests say: whole, between windings, over the minutes, over the years."""

from collections.abc import Iterable, Iterator
from functools import lru_cache, partial

from careful_coil.core.condition.absorption import LEAST_FOR_ODDS, Curve, fit_curve
from careful_coil.core.condition.polarization import (
    BRITTLE,
    DAMP_BELOW,
    Wanted,
    index_wanted,
    ratios_of,
)
from careful_coil.core.condition.wall import (
    Given,
    Spot,
    TestWanted,
    Wall,
    covers,
    frame_left,
    given,
    made_since,
    search_tests,
    spots,
    standing,
    stands,
    too_few_volts,
    wanted_tests,
)
from careful_coil.core.errors import CoilError
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.at_insulation import InsulationTested
from careful_coil.core.job.tested import Logged
from careful_coil.core.readings import Frame, ohm_value
from careful_coil.core.settings import Settings
from careful_coil.core.values import show_figure

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
    ]


def discharge_seconds(test: InsulationTested) -> float:
    """Return how long a winding is earthed after a test, in s: four times its length."""
    return DISCHARGE_TIMES * test.length_s


def weakest(job: Job, wall: Wall) -> tuple[Logged[InsulationTested], Given] | None:
    """Return the standing test to the frame that is nearest its limit, with what it gives.

    Tests of the motor as it is; where there is none, those since the last work, or before it.
    """
    pool = made_since(job, "apart") or job.tested.tests
    found = [(t, given(t.body, wall)) for t in standing(pool, wall.groups)]
    to_frame = [x for x in found if not x[0].body.against]
    if not to_frame:
        return None
    known = [x for x in to_frame if x[1].megohm is not None]
    return min(known or to_frame, key=lambda x: x[1].megohm or 0.0)


def closed_left(job: Job, wall: Wall) -> bool:
    """Whether the winding passed and nothing but the test on the closed motor is still to make."""
    tested = made_since(job, "apart")
    return not frame_left(wall, standing(tested, wall.groups)) and frame_left(
        wall, standing(made_since(job, "insulation"), wall.groups)
    )


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
        where += (
            f" Raw {show_figure(test.megohm)} MΩ, divided by {got.divisor} to stand for the whole."
        )
    least = "at least " if test.above else ""
    told = f"{show_figure(got.megohm)} MΩ at 40 °C; at least {limit:g} MΩ is wanted."
    if got.megohm < limit and test.above:
        return of(
            verdict="unproven",
            subject="Insulation tester's range too short",
            why=f"At least {show_figure(got.megohm)} MΩ at 40 °C is shown; {limit:g} MΩ is wanted.{where}",
        )
    if got.megohm < limit:
        return of(
            verdict="hold",
            subject="Insulation too low",
            why=f"{told}{where} {_low(test, wall)}",
        )
    again = job.deeds.again("insulation")
    if frame_left(wall, standing(made_since(job, "apart"), wall.groups)):
        few = next((v for t in job.tested.tests[-1:] if (v := too_few_volts(t.body, wall))), None)
        why = "All leads tied, one minute to the frame."
        if few:
            why = f"{test.test_volt:g} V is no test: {few:g} V are wanted. {why}"
        return of(verdict="unproven", subject="Insulation not tested", why=why)
    if again is not None and closed_left(job, wall):
        by_ohmmeter = open_to_frame(job)
        if by_ohmmeter:
            return of(
                verdict="good", subject="Insulation good", why=f"{least}{told}{where} {by_ohmmeter}"
            )
        return of(
            verdict="unproven",
            subject="Insulation not tested on the closed motor",
            why=f"{told} All leads tied, one minute to the frame once the covers are on.",
        )
    return of(verdict="good", subject="Insulation good", why=f"{least}{told}{where}")


def electronic(job: Job) -> bool:
    """Whether a part is in it that the tester's volts would break."""
    return "electronic-switch" in job.gear.devices.values()


def open_to_frame(job: Job) -> str:
    """Return in words that an ohmmeter showed it open to the frame where the tester may not go on."""
    since = job.deeds.last("insulation")
    seen = [t.reading for t in job.readings if t.place > since]
    to_frame = [ohm_value(r.value).value for r in seen if isinstance(r, Frame)]
    clear = to_frame and min(to_frame) >= job.meter.open_above_ohm
    if not (electronic(job) and clear):
        return ""
    return (
        "On the closed motor open to the frame by ohmmeter: an electronic part forbids the tester."
    )


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
    kept = standing(made_since(job, "apart"), wall.groups)
    failed = [t.body for t in kept if stands(t.body, wall) == "hold"]
    bad = [t for t in failed if t.against]
    if bad:
        test = bad[-1]
        got = given(test, wall)
        yield of(
            verdict="hold",
            waivable=False,
            subject="Insulation between windings too low",
            why=f"{TestWanted(parts=test.parts, against=test.against).words()}: "
            f"{show_figure(got.megohm or 0.0)} MΩ at 40 °C.",
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
            subject="Frame or another winding: not known which",
            why=f"{' '.join(parts[-1].parts)} fails with both earthed."
            + (f" Next: {find.words()}." if find else ""),
        )
        return
    left = wanted_tests(wall, kept)
    if not wall.apart_wanted and not spots(wall.groups) <= _covered(kept, wall):
        return
    if left or any(stands(t.body, wall) == "unproven" for t in kept):
        asks = left[0].words() if left else "within 10 to 85 °C, and the tester's range"
        yield of(
            verdict="unproven",
            subject="Not every winding tested against frame and others",
            why=f"{len(wall.groups)} separate windings, {wall.apart_wanted}. Next: {asks}.",
        )
        return
    yield of(
        verdict="good",
        subject="Windings insulated from each other",
        why=f"Each of {len(wall.groups)} tested with the others earthed, all above {wall.minimum:g} MΩ.",
    )


def _covered(tests: Iterable[Logged[InsulationTested]], wall: Wall) -> frozenset[Spot]:
    return frozenset().union(*(covers(t.body, wall.groups) for t in tests))


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
    size = settings.index_doubt_from if wall.doubt else settings.index_from
    return index_wanted(megohm_60, wall.thermal, wall.construction, wall.power_w, 1e3 * size.value)


def longest_curve(job: Job, wall: Wall) -> Logged[InsulationTested] | None:
    """Return the longest test with readings over time that no later test has taken the place of."""
    curves = [t for t in standing(made_since(job, "apart"), wall.groups) if t.body.readings]
    return max(curves, key=lambda t: (t.body.length_s, t.place), default=None)


def _minutes(job: Job, wall: Wall, settings: Settings) -> Iterator[Finding]:
    logged = longest_curve(job, wall)
    test = logged.body if logged else None
    known = {s: m for s, m in test.readings if m > 0} if test else {}
    got = ratios_of(known)
    plain = [t.body.megohm for t in standing(made_since(job, "apart"), wall.groups)]
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
