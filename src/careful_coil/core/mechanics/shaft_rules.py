"""The shaft as hands, watch and callipers found it, and what that says to the other stations."""

from collections.abc import Iterator
from functools import partial

from careful_coil.core.job import Finding, Job
from careful_coil.core.settings import Settings
from careful_coil.core.sheets.mechanics import FELT, NO_LOAD

NEVER_WAIVED = ("seized", "rubbing")  # a shaft that cannot turn, or rubs
EASED = 0.95  # share of the volts before, with which easing shows


def shaft_findings(job: Job, settings: Settings) -> Iterator[Finding]:
    """Yield what is known of the shaft; its feel is a line of the gate."""
    felt = job.hands.felt
    of = partial(Finding, station="mechanics")
    feel = FELT.field("feel").means(felt.get("feel", ""))
    if feel is not None and feel.verdict != "hold" and not job.deeds.stands("shaft", "felt:feel"):
        since = job.deeds.voiding("shaft")
        yield of(
            code="shaft-feel",
            verdict="unproven",
            subject="Again: turn the shaft by hand",
            why=f"{since.words[0].upper()}{since.words[1:]} since." if since else "",
            gate=True,
        )
    elif feel is not None and feel.verdict:
        yield of(
            code="shaft-feel",
            verdict=feel.verdict,
            subject=f"Shaft by hand: {felt['feel']}",
            why=feel.why,
            gate=True,
            waivable=felt["feel"] not in NEVER_WAIVED,
        )
    yield from _coast(felt.get("coast-down", ""), settings)
    yield from _float(felt.get("end-float", ""), job, settings)
    yield from _play(felt.get("radial-play", ""), settings)
    for field in (f for f in FELT.fields if f.judged):
        told = field.means(felt.get(field.name, ""))
        if told is not None and told.verdict:
            yield of(
                code=field.name,
                verdict=told.verdict,
                subject=f"{field.label}: {told.word}",
                why=told.why,
                gate=told.verdict == "hold",
            )
    yield from _eased(felt.get("start-before", ""), felt.get("start-after", ""))


def _coast(text: str, settings: Settings) -> Iterator[Finding]:
    if not text:
        return
    seconds, limit = float(text), settings.coast_down
    short = seconds < limit.value
    yield Finding(
        code="coast-down",
        verdict="watch" if short else "good",
        subject=f"Runs on {seconds:g} s by hand",
        why=f"Short: bearing, fit or seal drags. {NO_LOAD}" if short else "It runs on freely.",
        station="mechanics",
        figure=seconds,
        limit=limit.value,
        unit=limit.unit,
        source=limit.source,
    )


def _float(text: str, job: Job, settings: Settings) -> Iterator[Finding]:
    """Yield how the end float is; of ball bearings under a preload washer none is felt, and is right so."""
    if not text:
        return
    value, low, high = float(text), settings.end_float_from, settings.end_float_to
    bearings = job.hands.bearings.values()
    sleeve = any(b.get("sort") == "sleeve" for b in bearings)
    preloaded = not sleeve and any(b.get("sort") or b.get("number") for b in bearings)
    good = (0.0 if preloaded else low.value) <= value <= high.value
    why = f"Within {low.value:g} to {high.value:g} mm."
    if value < low.value and preloaded:
        why = "Ball bearings under a preload washer show none. It must turn freely by hand, also warm."
    elif value < low.value:
        why = "Bound between its bearings when warm: ease one end bell, look for a missing shim."
    elif value > high.value:
        switch = "speed-switch" in job.gear.devices.values()
        lost = "preload washer missing, a seat worn?" if preloaded else "thrust washers missing?"
        why = f"{'The centrifugal switch may not close or open; ' if switch else ''}{lost}"
        why = f"{why[0].upper()}{why[1:]}"
    yield Finding(
        code="end-float",
        verdict="good" if good else "watch",
        subject=f"End float {value:g} mm",
        why=why,
        station="mechanics",
        figure=value,
        limit=low.value if value < low.value else high.value,
        unit="mm",
        source=high.source,
    )


def _play(text: str, settings: Settings) -> Iterator[Finding]:
    if not text:
        return
    value, limit = float(text), settings.radial_play
    worn = value > limit.value
    yield Finding(
        code="radial-play",
        verdict="watch" if worn else "good",
        subject=f"Radial play {value:g} mm",
        why="Worn bearing or loose seat: which of them turns?" if worn else "Within its limit.",
        station="mechanics",
        figure=value,
        limit=limit.value,
        unit="mm",
        source=limit.source,
    )


def _eased(before: str, after: str) -> Iterator[Finding]:
    """Yield the volts at which it starts turning, before and after easing, as a pair."""
    if not before or not after:
        return
    one, two = float(before), float(after)
    better = two <= EASED * one
    yield Finding(
        code="start-volts",
        verdict="good" if better else "watch",
        subject=f"Starts turning at {two:g} V, {one:g} V before",
        why="Easing shows."
        if better
        else "Easing did not lower it: look further than the bearing.",
        station="mechanics",
        figure=two,
        unit="V",
        source="on a ramp, watching amps",
    )
