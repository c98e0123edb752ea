"""What ears, eyes and hands noted on a run: sound, sparks, smoke, the start device out and in, warmth."""

import re
from collections.abc import Iterator

from careful_coil.core.choices import Choice
from careful_coil.core.condition.wall import THERMAL, class_of, class_words
from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.figures import figure
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.trials import Trial
from careful_coil.core.settings import Settings
from careful_coil.core.sheets import SHEETS
from careful_coil.core.trial.separate import warm_points, warming
from careful_coil.core.trial.told import sync_of, told
from careful_coil.core.units import Quantity
from careful_coil.core.values import show_percent

# how words for a sound begin, and what makes it (trade practice)
SOUNDS: tuple[tuple[tuple[str, ...], str], ...] = (
    (("growl", "rumbl", "grind"), "Bearings: a race, a ball, dirt. Listen at each end bell."),
    (
        ("scrap", "rub", "scratch", "graz"),
        "Rotor or fan touches: play, a bent shaft, a wedge or lamination that stands out.",
    ),
    (
        ("hum", "buzz", "dron"),
        "Magnetic: amps apart, a turned coil, an uneven gap, loose iron.",
    ),
    (("squeal", "squeak", "whin", "screech"), "A dry seal or bearing, or a brush."),
    (("knock", "rattl", "clack", "clunk"), "Loose key, coupling, fan or weight."),
)
PARTS = "What stops the moment the switch is off is magnetic; what runs down with it is mechanical."
CALM = ("none", "light", "even", "small", "fine")  # how words for sparks begin
WILD = ("uneven", "ragged", "heav", "ring", "long", "flash", "bright")
NOT, ARTICLES = ("no", "not", "without"), ("a", "an", "the", "any")
STAYS_OUT = ("none", "no", "never", "0")
STIFF = 0.5  # of rated volts: later than that something holds it
FRAME_UNDER = (
    15.0  # K: a frame under its winding, unless the step's remark says winding (trade practice)
)
HOT_FROM = 20.0  # K under the class without load: it will not carry any


def heard(trial: Trial, job: Job, settings: Settings) -> Iterator[Finding]:
    """Yield what was heard, seen and felt on a sheet."""
    yield from _smoke(trial)
    yield from _sparks(trial)
    yield from _sound(trial)
    yield from _turning(trial, job)
    yield from _device(trial, job, settings)
    yield from _warmth(trial, job)


def _words(text: str) -> list[str]:
    """Return words in small letters, without those that are denied."""
    words = [w for w in re.findall(r"[a-z0-9]+", text.lower()) if w not in ARTICLES]
    return [w for k, w in enumerate(words) if k == 0 or words[k - 1] not in NOT]


def _smoke(trial: Trial) -> Iterator[Finding]:
    if trial.of("smoke"):
        yield told(
            code="trial-smoke",
            verdict="hold",
            subject="Smoke seen",
            why=f"{trial.of('smoke')}. Off, and open it.",
        )


def _sparks(trial: Trial) -> Iterator[Finding]:
    text = trial.of("spark")
    scale = _of_the_scale(text)
    if scale is not None:
        if scale.verdict in ("watch", "hold"):
            yield told(
                code="trial-spark",
                verdict=scale.verdict,
                subject="Brushes spark",
                why=f"{scale.word.capitalize()}: {scale.why}.",
            )
        return
    words = _words(text)
    calm = any(w.startswith(CALM) for w in words) or text.lower().startswith("no ")
    if words and (any(w.startswith(WILD) for w in words) or not calm):
        yield told(
            code="trial-spark",
            verdict="hold",
            subject="Brushes spark",
            why=f"{text}. Short brush, high bar, weak spring or a fault in the armature.",
        )


def _of_the_scale(text: str) -> Choice | None:
    """Return the step of the brushes' own scale of sparks that is meant; None for other words."""
    told = text.strip().lower()
    scale = SHEETS["brush"].field("spark").choices
    return next((c for c in scale if told in (c.word, *c.also)), None)


def _sound(trial: Trial) -> Iterator[Finding]:
    words = _words(trial.of("sound"))
    causes = [why for begins, why in SOUNDS if any(w.startswith(begins) for w in words)]
    if causes:
        yield told(
            code="trial-sound",
            verdict="watch",
            subject="Sound",
            why=f"{trial.of('sound')}. {' '.join(causes)} {PARTS}",
            source="trade practice",
        )


def _turning(trial: Trial, job: Job) -> Iterator[Finding]:
    """Yield volts it begins to turn from that lie beyond half of the rated ones: something holds it."""
    found = re.search(r"(\d+(?:[.,]\d+)?)\s*V", trial.of("starts-turning"), re.IGNORECASE)
    if found is None or job.supply is None:
        return
    volt = figure(found[1], Quantity.VOLTAGE)
    share = volt / job.supply.volt
    if share > STIFF:
        yield told(
            code="trial-turning",
            verdict="watch",
            subject="Turns late",
            why=f"From {volt:g} V, {show_percent(share)} of {job.supply.volt:g} V. Stiff bearings, a rub, a "
            "seal; one phase lost; joined for higher volts.",
            figure=round(100 * share, 1),
            limit=100 * STIFF,
            unit="%",
            source="trade practice",
        )


def _device(trial: Trial, job: Job, settings: Settings) -> Iterator[Finding]:
    """Yield the speeds at which the start device let go and came back in, against n_sync."""
    sync = sync_of(job)
    out = next((s.rpm for s in reversed(trial.starts) if s.rpm), None) or _rpm(trial.of("drop-out"))
    low, high = settings.switch_out_from, settings.switch_out_to
    if out is not None and sync:
        share = 100 * out / sync
        early, late = share < low.value, share > high.value
        why = f"{out:.0f} rpm, {share:.0f} % of {sync:.0f} rpm."
        why += " Early: it hangs or chatters under load, a weak spring." if early else ""
        why += " Late: the start winding cooks, a stiff mechanism." if late else ""
        yield told(
            code="trial-drop-out",
            verdict="watch" if early or late else "good",
            subject="Start device out early"
            if early
            else "Start device out late"
            if late
            else "Start device out in time",
            why=why,
            figure=round(share, 1),
            limit=low.value if early else high.value,
            unit="%",
            source=low.source,
        )
    text = trial.of("drop-in")
    back = _rpm(text)
    if text and (set(_words(text)) & set(STAYS_OUT) or back == 0):
        yield told(
            code="trial-drop-in",
            verdict="hold",
            subject="Start device stays out",
            why="It will not start again: mechanism stuck, contacts burnt apart.",
        )
    elif back is not None and out is not None and back >= out:
        yield told(
            code="trial-drop-in",
            verdict="watch",
            subject="Start device back in too early",
            why=f"In at {back:.0f} rpm, out at {out:.0f}: it chatters under load.",
        )


def _rpm(text: str) -> float | None:
    found = re.search(r"(\d+(?:[.,]\d+)?)\s*(?:rpm|/min)", text, re.IGNORECASE)
    return figure(found[1], Quantity.SPEED) if found else None


def _warmth(trial: Trial, job: Job) -> Iterator[Finding]:
    """Yield a temperature that ends near the class without load."""
    if trial.begun.load != "none":
        return
    try:
        end = warming(warm_points(trial)).end_c
    except ValueOutOfRange:
        return
    inside = any("winding" in s.remark.lower() for s in trial.steps)
    most = THERMAL[class_of(job)] - HOT_FROM - (0.0 if inside else FRAME_UNDER)
    if end > most:
        where = "The winding" if inside else "The frame"
        hotter = "" if inside else f" The winding is some {FRAME_UNDER:g} K hotter."
        yield told(
            code="trial-warm",
            verdict="watch",
            subject="Grows hot without load",
            why=f"{where} ends near {end:.0f} °C.{hotter} Too many volts, shorted turns, a blocked fan, or a bearing.",
            figure=round(end, 1),
            limit=most,
            unit="°C",
            source=f"IEC 60085: {class_words(job)}",
        )
