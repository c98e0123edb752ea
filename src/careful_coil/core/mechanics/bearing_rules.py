"""The bearing at each end: its number beside the callipers, how it runs, what was done, what to order."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import partial

from careful_coil.core.condition.wall import class_of
from careful_coil.core.errors import BadValue
from careful_coil.core.job import Finding, Job, Verdict
from careful_coil.core.mechanics.bearing import Callipers, Found, Number, look_up
from careful_coil.core.mechanics.bearing_suffix import Closure
from careful_coil.core.settings import Limit, Settings
from careful_coil.core.sheets.bearings import BEARING

ENDS = {"drive": "Drive end", "other": "Other end"}
SEAL_HEAT_C = 90.0  # °C on the frame from where a bearing beside it comes near what rubber bears
HOT_CLASSES = ("F", "H")
DRY_WICK = ("dry", "gone")
NO_WICK = "no wick"  # sintered: the oil is in the metal
SCHOOL = "bearing"
RENEW, OIL, REPLACE = "renew", "oil and watch", "replace motor"
RUBBING: tuple[Closure, ...] = ("one seal", "two seals")
SEALED: tuple[Closure, ...] = ("two shields", "two seals", "two light seals")
WEIGHT: dict[Verdict, int] = {"hold": 0, "unproven": 1, "watch": 2, "note": 3, "good": 4}


def _means(field: str, word: str) -> str:
    """Return what an answer means, or the bench's own words."""
    found = BEARING.field(field).means(word)
    return found.why if found is not None and found.why else word


@dataclass(frozen=True, slots=True, kw_only=True)
class Proposal:
    """What to order in a bearing's place, and why so."""

    words: str
    why: tuple[str, ...]


def callipers_of(told: Mapping[str, str]) -> Callipers:
    """Return what was measured of a bearing."""
    figures = {n: float(told[n]) for n in ("bore", "outside", "width") if told.get(n)}
    return Callipers(**figures)


def found_of(told: Mapping[str, str], settings: Settings) -> Found:
    """Return what number and callipers make of a bearing; a number that is none counts as unknown."""
    apart = settings.calliper_apart.value
    try:
        return look_up(told.get("number", ""), callipers_of(told), apart)
    except BadValue as error:
        return Found(standing="unknown", why=str(error))


def proposal_of(told: Mapping[str, str], job: Job, settings: Settings) -> Proposal | None:
    """Return what to order: same envelope, seal as found, clearance for the temperature; None if unknown."""
    found = found_of(told, settings)
    if found.standing != "known":
        if found.standing == "special" and callipers_of(told).whole:
            size = " × ".join(f"{v:g}" for _, v in callipers_of(told).told)
            return Proposal(
                words=f"ball bearing {size} mm, by dimensions",
                why=("number and callipers disagree, or an old number: measure the other end too",),
            )
        return None
    number = found.numbers[0]
    why = ["the same envelope"]
    closure = number.closure
    seal = next((s.text for s in number.suffixes if s.sort == "seal"), "")
    if closure == "open":
        why.append("open as found: it wants grease and its own seals; closed ones where none are")
    else:
        why.append(f"{closure} as found")
        if closure in RUBBING and _heat(job):
            why.append(
                f"seals made for heat: {_heat(job):.0f} °C was measured, rubber ends near 110 °C"
            )
    clearance = next((s.text for s in number.suffixes if s.sort == "clearance"), "")
    if not clearance and _hot(job):
        clearance = "C3"
        why.append("C3: a hot winding's shaft grows into a normal clearance")
    elif clearance:
        why.append(f"{clearance} as found")
    rest = [s.text for s in number.suffixes if s.sort not in ("seal", "clearance")]
    name = number.bearing.name + (f"-{seal}" if seal else "")
    return Proposal(
        words=" ".join([name, *([clearance] if clearance else []), *rest]), why=tuple(why)
    )


def _heat(job: Job) -> float:
    """Return the most °C that was measured on the running motor, 0 where that is nothing that seals would feel."""
    steps = (s.celsius for t in job.trials.sheets for s in t.steps if s.celsius is not None)
    most = max(steps, default=0.0)
    return most if most >= SEAL_HEAT_C else 0.0


def _hot(job: Job) -> bool:
    """Whether the winding's class is known, and a hot one."""
    told = job.tested.made.get("class", "") or job.plate.printed("insulation-class")
    return bool(told) and class_of(job) in HOT_CLASSES


def bearing_findings(job: Job, settings: Settings) -> Iterator[Finding]:
    """Yield a line of the gate for each end that anything is known of, and what its speed says."""
    for end, title in ENDS.items():
        told = job.hands.bearings.get(end, {})
        if not told:
            continue
        verdict, words, why = _judged(told, settings)
        flood = _flooded(told, job)
        if flood and verdict in ("good", "watch"):
            verdict, words, why = "unproven", "again: it was flooded", flood
        yield Finding(
            code=f"bearing-{end}",
            verdict=verdict,
            subject=f"Bearing, {title.lower()}: {words}",
            why=why,
            station="mechanics",
            gate=True,
            waivable=told.get("state") != "seized",
        )
        seat = BEARING.field("seat").means(told.get("seat", ""))
        if seat is not None and seat.why:
            yield Finding(
                code=f"bearing-seat-{end}",
                verdict=seat.verdict or "note",
                subject=f"Bearing, {title.lower()}: seat {seat.word}",
                why=seat.why,
                station="mechanics",
            )
        yield from _limits(told, title, job, settings)


def _flooded(told: Mapping[str, str], job: Job) -> str:
    """Return why a bearing that was under water is not kept, empty where it was renewed or never was."""
    if not any(job.deeds.counted(("flooded",))) or told.get("done") == "renewed":
        return ""
    return "Water is in its grease: renew bearings and seals after a flood."


def _judged(told: Mapping[str, str], settings: Settings) -> tuple[Verdict, str, str]:
    """Return verdict, words and reason of one bearing."""
    parts = [_sleeve(told)] if told.get("sort") == "sleeve" else [_ball(told, settings)]
    parts.append(_state(told, settings))
    fitted = _fitted(told, settings)
    if fitted is not None:
        parts.append(fitted)
    worst = min(parts, key=lambda p: WEIGHT[p[0]])
    why = " ".join(p[2] for p in parts if p[2])
    return worst[0], worst[1], why


def _ball(told: Mapping[str, str], settings: Settings) -> tuple[Verdict, str, str]:
    found = found_of(told, settings)
    name = told.get("number", "") or "bearing"
    match found.standing:
        case "known":
            return "good", found.numbers[0].words, f"{found.numbers[0].words}: {found.why}"
        case "nothing":
            return "unproven", "bearing not read", "Read its number; callipers beside it."
        case "special":
            belongs = _belongs(told, settings)
            if belongs and not told.get("fitted"):
                why = f"Shaft and housing as measured want {belongs}: another bearing was put in. Renew it."
                return "hold", f"{name} where {belongs} belongs", why
            return ("good", name, "") if belongs else ("watch", f"{name}, special", found.why)
    return "unproven", f"{name} not known yet", found.why


def _belongs(told: Mapping[str, str], settings: Settings) -> str:
    """Return the bearing that all three dimensions measured are those of, empty where none or several are."""
    if not all(told.get(d) for d in ("bore", "outside", "width")):
        return ""
    by_size = found_of({**told, "number": ""}, settings)
    return by_size.numbers[0].bearing.name if by_size.standing == "known" else ""


def sleeve_left(told: Mapping[str, str]) -> tuple[str, ...]:
    """Return what is still to be said of a sleeve bearing, in the order the hands come to it."""
    wick = told.get("wick", "")
    wanted = ["wick"]
    if wick not in ("", NO_WICK):
        wanted.append("ports")
    if told.get("done") == "oiled":
        wanted.append("oil")
    return tuple(n for n in wanted if not told.get(n))


def _sleeve(told: Mapping[str, str]) -> tuple[Verdict, str, str]:
    wick, ports = told.get("wick", ""), told.get("ports", "")
    if wick in DRY_WICK:
        return "hold", f"sleeve bearing, wick {wick}", f"First {_means('wick', wick)}."
    left = sleeve_left(told)
    if left:
        ask = f"Still to say: {', '.join(left)}. "
        ask += "A non-detergent oil unless the maker says: detergents clog the wick."
        return "unproven", "sleeve bearing not judged", ask
    if " of " in ports and ports.split(" of ")[0] != ports.split(" of ")[1]:
        return (
            "unproven",
            f"sleeve bearing, {ports} oil ports found",
            "Find every oil port: a dry one is the next visit.",
        )
    oil = [told["oil"]] if told.get("oil") else []
    feed = [NO_WICK] if wick == NO_WICK else ["wick soaks", f"oil ports {ports}"]
    words = ", ".join((*oil, *feed))
    return "good", "sleeve bearing", f"{words[0].upper()}{words[1:]}."


def _state(told: Mapping[str, str], settings: Settings) -> tuple[Verdict, str, str]:
    """Return how it runs and what was done of it; oil on a seized one is always a temporary."""
    state, done = told.get("state", ""), told.get("done", "")
    if done == "renewed":
        return "good", "renewed", "Renewed."
    if not state:
        return (
            "unproven",
            "how it runs is not said",
            "How does it run: good, rough, dry, noisy, loose, seized?",
        )
    if state == "good":
        sealed = done == "greased" and closure_known(told, settings) in SEALED
        if sealed:
            return (
                "watch",
                "greased though closed",
                "Shielded and sealed ones are not relubricated.",
            )
        return "good", "runs well", "Runs well."
    means = _means("state", state)
    if state == "seized":
        oiled = " Oil on it is temporary: the hold stays." if done in ("oiled", "greased") else ""
        return "hold", "seized", f"{means[0].upper()}{means[1:]}: renew it.{oiled}"
    sleeve = told.get("sort") == "sleeve"
    if sleeve and state == "dry" and not done:
        why = "Its oil is gone: clean it, oil it; where the shaft has play in it, renew it."
        return "hold", state, why
    if sleeve and state == "dry" and done == "oiled":
        return "good", "was dry, oiled", "Cleaned and oiled: it wants oil again in its time."
    if settings.school(SCHOOL) == OIL and done == "oiled" and sleeve:
        return (
            "watch",
            f"{state}, oiled",
            "Oiled and watched, as this shop does: it comes back soon.",
        )
    if settings.school(SCHOOL) == REPLACE and not done:
        return "hold", state, "Weigh a new motor: its bearings may cost more than it is worth."
    if settings.school(SCHOOL) == RENEW or done in ("", "kept"):
        return "hold", state, f"{means[0].upper()}{means[1:]}: renew it."
    return (
        "watch",
        f"{state}, {done}",
        f"{means[0].upper()}{means[1:]}. {done.capitalize()} only: it comes back.",
    )


def closure_known(told: Mapping[str, str], settings: Settings) -> Closure:
    """Return how a bearing is closed by its number, open where that is not known."""
    found = found_of(told, settings)
    return found.numbers[0].closure if found.standing == "known" else "open"


def _fitted(told: Mapping[str, str], settings: Settings) -> tuple[Verdict, str, str] | None:
    """Return whether the new one has the envelope of the old, or of what the callipers found."""
    text = told.get("fitted", "")
    if not text:
        if told.get("done") == "renewed" and told.get("sort") != "sleeve":
            return (
                "unproven",
                "renewed, not said by what",
                "Number of the new one: bore, width, seals.",
            )
        return None
    old = found_of(told, settings)
    wrong = _against_callipers(text, told, settings)
    if wrong:
        return "hold", f"{text} fitted", wrong
    try:
        new = look_up(text, Callipers(), settings.calliper_apart.value)
    except BadValue as error:
        return "unproven", f"{text} fitted", str(error)
    if old.standing == "special" and _belongs(told, settings):
        return "good", f"{text} fitted", f"{text} fitted: it fits shaft and housing as measured."
    if not new.numbers or not old.numbers or old.standing != "known":
        return "watch", f"{text} fitted", "Not compared: one of the numbers is not known here."
    envelopes = [_envelope(n) for n in new.numbers]
    if _envelope(old.numbers[0]) not in envelopes:
        words = (
            f"{old.numbers[0].bearing.name} was in it: another envelope sits loose, or not at all."
        )
        return "hold", f"{text} fitted", words
    other = _other_make(old.numbers[0], new.numbers[0])
    if other:
        return "watch", f"{text} fitted", f"The same envelope; {other}."
    return "good", f"{text} fitted", f"{text} fitted, the same envelope."


def _other_make(old: Number, new: Number) -> str:
    """Return what of seals and clearance is not as it was, empty where all is."""
    told = []
    if old.closure != new.closure:
        told.append(f"{new.closure} in place of {old.closure}")
    was, now = (
        next((s.text for s in n.suffixes if s.sort == "clearance"), "normal") for n in (old, new)
    )
    if was != now and was != "normal":
        told.append(f"clearance {now} in place of {was}")
    return ", ".join(told)


def _against_callipers(text: str, told: Mapping[str, str], settings: Settings) -> str:
    """Return where the new one's dimensions are not those measured of shaft and housing."""
    try:
        new = look_up(text, Callipers(), settings.calliper_apart.value)
    except BadValue:
        return ""
    if len(new.numbers) != 1:
        return ""
    bore, outside, width = _envelope(new.numbers[0])
    for name, has in (("bore", bore), ("outside", outside), ("width", width)):
        if told.get(name) and abs(float(told[name]) - has) > settings.calliper_apart.value:
            return f"{name.capitalize()} {has:g} mm, {float(told[name]):g} mm measured: it does not fit."
    return ""


def _envelope(number: Number) -> tuple[float, float, float]:
    b = number.bearing
    return b.bore, b.outside, b.width


def _limits(told: Mapping[str, str], title: str, job: Job, settings: Settings) -> Iterator[Finding]:
    """Yield a watch where speed or heat is beyond what grease or seals bear."""
    found = found_of(told, settings)
    if found.standing != "known" or told.get("sort") == "sleeve":
        return
    number = found.numbers[0]
    of = partial(Finding, verdict="watch", station="mechanics")
    rubs = number.closure in RUBBING
    limit: Limit = settings.seal_speed if rubs else settings.grease_speed
    rpm = job.plate.rpm or 0.0
    if rpm * number.bearing.mean > limit.value:
        yield of(
            code="bearing-speed",
            subject=f"Bearing, {title.lower()}: fast for {'its seals' if rubs else 'grease'}",
            why=f"{rpm:g} rpm × {number.bearing.mean:.0f} mm. The maker's own speed wins.",
            figure=rpm * number.bearing.mean,
            limit=limit.value,
            unit=limit.unit,
            source=limit.source,
        )
    if rubs and _heat(job):
        yield of(
            code="bearing-heat",
            subject=f"Bearing, {title.lower()}: rubber seals in heat",
            why=f"{_heat(job):.0f} °C was measured; they end near 110 °C: shields, or seals made for heat.",
            source="trade practice; the maker's figure wins",
        )
