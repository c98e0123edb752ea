"""Steps and surges, heat runs, cleaning and drying: what each record says."""

from collections.abc import Iterator, Mapping, Sequence
from functools import partial

from careful_coil.core.condition.drying import Drying, DryRead, drying_of
from careful_coil.core.condition.temperature import RISE_LIMITS, rise_limit, rise_of
from careful_coil.core.condition.traces import compare, stepped
from careful_coil.core.condition.wall import Wall, class_words, given
from careful_coil.core.errors import CoilError
from careful_coil.core.job import Finding, Job, Verdict
from careful_coil.core.job.tested import Logged
from careful_coil.core.settings import Settings
from careful_coil.core.values import show_figure

_of = partial(Finding, station="insulation")
SURE_TIMES = 2.0  # so many times the limit, one trace of three odd: a fault, not a make
MOVED = 1.15  # a factor below which cleaning or drying has moved nothing


def later_findings(job: Job, wall: Wall, settings: Settings) -> list[Finding]:
    """Return findings on everything beside the plain tests."""
    return [
        *_steps(job, settings),
        *_surge(job, settings),
        *_heat(job, wall),
        *_cleaned(job, wall),
        *_drying(job, wall, settings),
    ]


def _steps(job: Job, settings: Settings) -> Iterator[Finding]:
    if not job.tested.steps:
        return
    limit = settings.step_fall
    of = partial(_of, code="step-voltage", unit="%", limit=limit.value, source=limit.source)
    logged = job.tested.steps[-1]
    try:
        found = stepped(logged.body.steps)
    except CoilError as error:
        yield of(verdict="unproven", subject="Step voltage cannot be judged", why=str(error))
        return
    bad = found.fall_percent > limit.value or found.bend is not None
    bend = (
        f" The current leaves its straight line at {found.bend:g} V: stop below it."
        if found.bend
        else ""
    )
    fall = max(found.fall_percent, 0.0)
    yield of(
        verdict="watch" if bad else "good",
        subject="Insulation falls with volts" if bad else "Insulation steady with volts",
        why=f"{fall:.0f} % less at {found.at_volt:g} V; up to {limit.value:g} % is usual.{bend}"
        + (" Damp, dirt or a weak place: clean, dry, test again." if bad else ""),
        figure=fall,
    )


def _surge(job: Job, settings: Settings) -> Iterator[Finding]:
    if not job.tested.surges:
        return
    limit = settings.surge_apart
    of = partial(_of, code="surge", unit="%", limit=limit.value, source=limit.source)
    body = job.tested.surges[-1].body
    try:
        found = compare(body.traces)
    except CoilError as error:
        yield of(verdict="unproven", subject="Surge traces cannot be compared", why=str(error))
        return
    if found.worst <= limit.value:
        yield of(
            verdict="good",
            subject="Surge traces alike",
            why=f"{found.worst:.1f} % between the worst two; up to {limit.value:g} % is usual.",
            figure=found.worst,
        )
        return
    if body.by == "volts":
        why = "The shape changes with the volts: a turn fault that ohms miss, sparking over at the higher ones."
    elif found.odd:
        rings = " It rings faster: shorted turns." if found.faster else ""
        rings = (
            " It rings slower: more turns, or a coil reversed." if found.faster is False else rings
        )
        why = f"{found.odd} differs, the other two are alike.{rings}"
    else:
        why = "They differ. With the rotor in turn it by a pole pitch and compare again; concentric coils may differ."
    sure = body.by == "volts" or (found.odd and found.worst > SURE_TIMES * limit.value)
    yield of(
        verdict="hold" if sure else "watch",
        subject="Surge traces differ",
        why=f"{found.worst:.1f} % between the worst two, over {limit.value:g} %. {why}",
        figure=found.worst,
    )


def odd_trace(traces: Mapping[str, Sequence[float]]) -> str:
    """Return the name of the trace that differs from two alike; nothing where there is none."""
    try:
        return compare(traces).odd
    except CoilError:
        return ""


def _heat(job: Job, wall: Wall) -> Iterator[Finding]:
    if not job.tested.heat_runs:
        return
    body = job.tested.heat_runs[-1].body
    plate = job.plate
    limit, column = rise_limit(
        wall.letter, plate.power_w, plate.printed("enclosure"), plate.service_factor or 1.0
    )
    of = partial(
        _of,
        code="temperature-rise",
        unit="K",
        limit=limit,
        source=f"{column}, class {wall.letter} by resistance, air up to 40 °C",
    )
    try:
        rise = rise_of(body.cold_ohm, body.cold_c, body.hot, body.air_c, body.metal)
    except CoilError as error:
        yield of(
            verdict="unproven", subject="Temperature rise cannot be worked out", why=str(error)
        )
        return
    of = partial(of, figure=rise.rise_k)
    told = f"{rise.rise_k:.0f} K over air at {rise.hot_c:.0f} °C; {class_words(job)} allows {limit:g} K. {rise.why}"
    if wall.class_assumed and limit < rise.rise_k <= max(RISE_LIMITS.values()):
        why = f"{told} Its class decides: read it, or say what it was wound with."
        yield of(verdict="unproven", subject="Temperature rise: class not known", why=why)
    elif rise.rise_k > limit:
        yield of(verdict="hold", subject="Too hot", why=f"{told} Cooling, load, volts, connection.")
    elif not rise.carried:
        yield of(verdict="unproven", subject="Temperature rise not carried back", why=told)
    elif rise.high_k > limit:
        yield of(
            verdict="watch",
            subject="Temperature rise close to its limit",
            why=f"{told} It may be {rise.high_k:.0f} K.",
        )
    else:
        yield of(verdict="good", subject="Temperature rise within its class", why=told)


def _cleaned(job: Job, wall: Wall) -> Iterator[Finding]:
    """Yield what cleaning, drying, varnishing did: the insulation before and after."""
    for work in job.tested.works[-4:]:
        ohms = {True: None, False: None}
        for t in job.tested.tests:
            later = t.place > work.place
            value = None if t.body.against else given(t.body, wall).megohm
            if value and (not later or ohms[True] is None):
                ohms[later] = value  # type: ignore[assignment]
        before, after = ohms[False], ohms[True]
        how = ", ".join(
            x
            for x in (
                work.body.method,
                f"{work.body.hours:g} h" if work.body.hours else "",
                f"{work.body.at_c:g} °C" if work.body.at_c is not None else "",
                work.body.words.rstrip("."),
            )
            if x
        )
        of = partial(_of, code=f"work-{work.place}", unit="MΩ", figure=after)
        done = work.body.what.capitalize()
        if before is None or after is None:
            missing = "before" if before is None else "after"
            yield of(
                verdict="note",
                subject=done,
                why=f"{how}. No insulation test {missing}.".lstrip(". "),
            )
            continue
        verdict: Verdict = (
            "watch" if after * MOVED < before and work.body.what in ("cleaned", "dried") else "note"
        )
        yield of(
            verdict=verdict,
            subject=f"{done}: {show_figure(before)} to {show_figure(after)} MΩ",
            why=(f"{how}. " if how else "")
            + "Insulation at 40 °C before and after."
            + (
                " It is lower than before: not done yet, or washed in."
                if verdict == "watch"
                else ""
            ),
        )


def hours_between(one: str, two: str) -> float:
    """Return the hours from one UTC time to another, as logs write them (2026-02-26T10:30:12Z)."""
    return _hours(two) - _hours(one)


def _hours(at: str) -> float:
    """Return hours since a fixed day. The day number by the civil calendar (Hinnant 2013)."""
    year, month, day = (int(x) for x in at[:10].split("-"))
    year -= month <= 2
    era, of_era = divmod(year, 400)
    of_year = (153 * (month + (-3 if month > 2 else 9)) + 2) // 5 + day - 1
    days = era * 146097 + of_era * 365 + of_era // 4 - of_era // 100 + of_year
    hour, minute, second = (float(x) for x in at[11:].rstrip("Z").split(":"))
    return days * 24 + hour + minute / 60 + second / 3600


def campaign_of(job: Job, wall: Wall, settings: Settings) -> tuple[Drying, list[DryRead]] | None:
    """Return where the newest drying campaign stands and its readings; None where there is none."""
    run = job.tested.campaign()
    if run is None:
        return None
    begun, ended = run
    last = ended.place if ended else None

    def inside(place: int) -> bool:
        return place > begun.place and (last is None or place < last)

    before = [t for t in job.tested.tests if t.place < begun.place and not t.body.against]
    chosen: list[Logged] = [*before[-1:], *(t for t in job.tested.tests if inside(t.place))]  # type: ignore[type-arg]
    readings = [
        DryRead(
            hour=max(hours_between(begun.at, t.at), 0.0),
            megohm=given(t.body, wall).megohm,
            at_c=t.body.at_c,
        )
        for t in chosen
        if not t.body.against
    ]
    readings.sort(key=lambda r: r.hour)
    limits = (
        settings.drying_hottest,
        settings.drying_rate,
        settings.drying_level,
        settings.drying_stuck,
    )
    return drying_of(readings, wall.minimum, *(x.value for x in limits)), readings


def _drying(job: Job, wall: Wall, settings: Settings) -> Iterator[Finding]:
    found = campaign_of(job, wall, settings)
    run = job.tested.campaign()
    if found is None or run is None:
        return
    state = found[0]
    of = partial(_of, unit="MΩ", source="IEEE 43; shop practice for the hours")
    if run[1] is None:
        verdict: Verdict = "note" if state.done else "watch"
        titles = {
            "begun": "Drying begun",
            "falling": "Drying: still falling",
            "turned": "Drying: it has turned",
            "rising": "Drying: it climbs",
            "levelled": "Dry: it may stop",
            "stuck": "It will not dry out",
        }
        yield of(
            code="drying",
            verdict="hold" if state.phase == "stuck" else verdict,
            subject=titles[state.phase],
            why=f"{state.hours:.0f} h. {state.why}",
            figure=state.newest,
            limit=wall.minimum,
        )
    if run[1] is None and not run[0].body.out:
        yield of(
            code="drying-out",
            verdict="watch",
            subject="Nothing said to be out of the heat",
            why="Sealed bearings, capacitors and seals come out, or stay within their own limit. "
            "End drying and start it again with what is out.",
        )
    if state.too_hot is not None:
        limit = settings.drying_hottest
        yield of(
            code="drying-heat",
            verdict="watch",
            subject="Dried too hot",
            why=f"{state.too_hot:g} °C at the winding; at most {limit.value:g} °C.",
            figure=state.too_hot,
            limit=limit.value,
            unit="°C",
            source=limit.source,
        )
    if state.too_fast is not None:
        limit = settings.drying_rate
        yield of(
            code="drying-rate",
            verdict="watch",
            subject="Warmed too fast",
            why=f"{state.too_fast:.0f} K an hour; at most {limit.value:g} while wet: steam blisters the varnish.",
            figure=state.too_fast,
            limit=limit.value,
            unit="K/h",
            source=limit.source,
        )
