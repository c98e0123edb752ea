"""Brushes and commutator: length and the hours left, spring, seating, sparks; bars to each other and shaft."""

from collections.abc import Iterator, Mapping, Sequence
from functools import partial

from careful_coil.core.condition.insulation import corrected
from careful_coil.core.condition.later_rules import hours_between
from careful_coil.core.job import Finding, Job, Verdict
from careful_coil.core.job.hands import Hands
from careful_coil.core.mechanics.commutator import BarLimits, Bars, judge_bars
from careful_coil.core.settings import Settings
from careful_coil.core.sheets.bearings import BRUSH
from careful_coil.core.values import show_figure, show_ohm, show_percent

HOURS_A_DAY = 24.0
DAYS_A_WEEK = 7.0
MIDNIGHT = "T00:00:00Z"
LEAST_DAYS = 7  # between two lengths that tell of wear
EACH_BAR = "Each bar to the next, all round, four wires: it is one hundredth of an ohm that tells."
FAULT_WORDS = {
    "shorted coil": "the coil between them has lost turns",
    "open coil": "only the rest of the ring conducts between them: the coil is broken, or an end is off its riser",
    "high coil": "the coil between them is high: one end badly joined, or half broken",
    "high joint": "both readings at it are high by the same: a bad joint at its riser",
    "bars bridged": "the bars are bridged: clean the mica between, read again",
}


def brush_findings(job: Job, settings: Settings) -> Iterator[Finding]:
    """Yield what each brush says, the worst of it first; lines of the gate."""
    hands = job.hands
    for name, told in hands.brushes.items():
        parts = list(_brush(hands, name, told, settings))
        if not parts:
            continue
        worst = min(parts, key=lambda p: ("hold", "watch", "good").index(p[0]))
        yield Finding(
            code="brush",
            verdict=worst[0],
            subject=f"Brush {name} {worst[1]}",
            why="; ".join(p[2] for p in parts if p[2]) + ".",
            station="mechanics",
            gate=True,
        )


def _brush(
    hands: Hands, name: str, told: Mapping[str, str], settings: Settings
) -> Iterator[tuple[Verdict, str, str]]:
    if told.get("done") == "renewed":
        yield "good", "renewed", "Renewed, in pairs, bedded in at low volts"
        return
    if told.get("length"):
        yield _length(hands, name, told, settings)
    for name_of, said, word in (
        ("spring", "spring", ""),
        ("seating", "seating", ""),
        ("spark", "sparks", "sparks "),
    ):
        means = BRUSH.field(name_of).means(told.get(name_of, ""))
        if means is not None and means.verdict:
            why = f"{said} {means.word}{f': {means.why}' if means.why else ''}"
            yield means.verdict, "good" if means.verdict == "good" else word + means.word, why


def _length(
    hands: Hands, name: str, told: Mapping[str, str], settings: Settings
) -> tuple[Verdict, str, str]:
    length = float(told["length"])
    least = float(told.get("least", "") or settings.brush_least.value)
    if length < least:
        return (
            "hold",
            "too short",
            f"{length:g} mm, {least:g} mm at least: renew both, bed them in at low volts",
        )
    left = days_left(hands, name, least)
    if left is None:
        return "good", "good", f"{length:g} mm, {least:g} mm at least"
    week = hands.felt.get("hours-week", "")
    words = f"about {left:.0f} days left"
    if week:
        words = f"about {left / DAYS_A_WEEK * float(week):.0f} hours left at {float(week):g} a week"
    return "good", "good", f"{length:g} mm, {least:g} mm at least, {words}"


def days_left(hands: Hands, name: str, least: float) -> float | None:
    """Return the days until a brush is at its least length, by its wear between two dates; None unknown.

    Straight on from the oldest length to the newest; an `earlier` one from an older record counts.
    """
    told = hands.brushes.get(name, {})
    points = [*hands.measured.get(name, ())]
    earlier = told.get("earlier", "").split()
    if len(earlier) == len(("length", "day")):
        points.insert(0, (earlier[1], earlier[0]))
    if len(points) < len(("from", "to")):
        return None
    (first, long), (last, short) = points[0], points[-1]
    days = hours_between(f"{first}{MIDNIGHT}", f"{last}{MIDNIGHT}") / HOURS_A_DAY
    worn = float(long) - float(short)
    if days < LEAST_DAYS or worn <= 0:
        return None
    return max((float(short) - least) / worn * days, 0.0)


# --- commutator -----------------------------------------------------------------------------------------


def bars_of(hands: Hands, settings: Settings) -> Bars | None:
    """Return what the bars say once every one was read to the next; None before."""
    if not hands.bars or len(hands.ohms) < hands.bars:
        return None
    inf = float("inf")
    read = [hands.ohms[k] for k in range(1, hands.bars + 1)]
    limits = BarLimits(watch=settings.bars_watch.value / 100, hold=settings.bars_hold.value / 100)
    return judge_bars([inf if r is None else r for r in read], limits)


def next_bar(hands: Hands) -> int | None:
    """Return the first bar that was not read to the next one; None where all were."""
    return next((k for k in range(1, hands.bars + 1) if k not in hands.ohms), None)


def ran_smooth(job: Job) -> bool:
    """Whether it ran whole and closed, smoothly, since hands or volts were last on it."""
    since = job.deeds.last("runs")
    return any(
        s.whole and s.begun.covers == "on" and any(step.turns == "smooth" for step in s.steps)
        for s in job.trials.sheets
        if s.place > since
    )


def bar_findings(job: Job, settings: Settings, brushed: bool = True) -> Iterator[Finding]:
    """Yield the lines of the gate of a commutator: bars to each other, bars to shaft.

    Where no four-wire meter reads bars, a whole run tells: its amps, its sparks, how it turns.
    """
    hands = job.hands
    if not hands.bars and not brushed:
        return
    of = partial(Finding, code="bars", station="mechanics", gate=True, source="trade practice")
    told = bars_of(hands, settings)
    if told is None and ran_smooth(job):
        yield of(
            verdict="good",
            subject="Commutator judged by its run",
            why="Bars not read one by one. It ran closed and smooth: amps and sparks are in the run's lines.",
        )
        return
    if not hands.bars:
        why = f"{EACH_BAR} Or a whole run where no such meter is at hand."
        yield of(verdict="unproven", subject="Bars not read", why=why)
        return
    if told is None:
        left = hands.bars - len(hands.ohms)
        yield of(
            verdict="unproven",
            subject=f"{left} of {hands.bars} bars not read",
            why=f"{EACH_BAR} Or a whole run where no such meter is at hand.",
        )
    else:
        yield _bars(of, told, hands, settings)
    yield from _to_shaft(hands.felt.get("bars-shaft", ""), settings)


def _bars(of: "partial[Finding]", told: Bars, hands: Hands, settings: Settings) -> Finding:
    middle = sorted(told.like)[len(told.like) // 2] if told.like else 0.0
    step = max(hands.bar_steps.values(), default=0.0)
    if told.like and step > middle * settings.bars_watch.value / 100:
        why = f"One step of this meter is {show_ohm(step)}, like bars read {show_ohm(middle)}. Four wires."
        return of(verdict="unproven", subject="Bars read too coarsely", why=why)
    pattern = (
        f" Every {told.pattern} come again: the winding's own pattern." if told.pattern > 1 else ""
    )
    match told.standing:
        case "sound":
            why = f"Like bars within {show_percent(told.worst)} of {show_ohm(middle)}.{pattern}"
            return of(verdict="good", subject="Commutator: bars alike", why=why)
        case "too few" | "unclear":
            why = "Most bars do not conduct, or there are too few of them: look at the meter and the probes."
            return of(verdict="unproven", subject="Bars tell nothing yet", why=why)
        case "several":
            names = ", ".join(str(b) for b in told.bars[:8])
            why = f"No single fault shows this: from bars {names}. Clean them, press the probes, read again.{pattern}"
            return of(
                verdict=_by(told, settings), subject="Bars apart, more than one fault", why=why
            )
    return of(
        verdict=_by(told, settings),
        subject=f"{'Bar' if len(told.bars) == 1 else 'Bars'} {' and '.join(map(str, told.bars))}: "
        f"{told.faults[0]}",
        why=f"{fault_words(told)}{pattern} Armature and mica first; a rewind only when it stays.",
    )


def _by(told: Bars, settings: Settings) -> Verdict:
    return "hold" if told.worst > settings.bars_hold.value / 100 else "watch"


def fault_words(told: Bars) -> str:
    """Return the fault in words, with what else would show the same."""
    words: Sequence[str] = [FAULT_WORDS[f] for f in told.faults]
    wound = (
        f" It is wave wound, {2 * told.pairs} poles: one coil shows at {told.pairs} places."
        if told.pairs
        else ""
    )
    first = f"{words[0][0].upper()}{words[0][1:]}"
    return f"{first}{f', or {words[1]}' if len(words) > 1 else ''}.{wound}"


def _to_shaft(text: str, settings: Settings) -> Iterator[Finding]:
    limit = settings.bars_shaft
    of = partial(
        Finding,
        code="bars-shaft",
        station="mechanics",
        gate=True,
        limit=limit.value,
        unit=limit.unit,
        source=limit.source,
    )
    if not text:
        why = "Bars to shaft at 500 V DC, brushes lifted, electronics off; with the winding's °C: 12 at 25."
        yield of(verdict="unproven", subject="Bars to shaft not tested", why=why)
        return
    if text == "open":
        yield of(verdict="good", subject="Bars to shaft open", why="Beyond the meter.")
        return
    read, _, warm = text.partition(" at ")
    at_40 = corrected(float(read), float(warm.removesuffix(" °C"))) if warm else None
    megohm = at_40.megohm if at_40 and at_40.megohm is not None else float(read)
    told = f" {at_40.why[0].upper()}{at_40.why[1:]}: {show_figure(megohm)} MΩ." if at_40 else ""
    low = megohm < limit.value
    why = (
        "Carbon dust between bars and shaft first: blow it out where it may be, clean, read again."
    )
    yield of(
        verdict="hold" if low else "good",
        subject=f"Bars to shaft {show_ohm(1e6 * float(read))}",
        why=f"{why if low else 'Insulated from the shaft.'}{told}",
        figure=megohm,
    )
