"""Balance of the coils, and the coils against design and record: what each picture usually is."""

from collections.abc import Iterator
from dataclasses import replace
from functools import partial

from careful_coil.core.condition.balance import imbalance_percent
from careful_coil.core.condition.coils import CONTACT_OHM, TWO_WIRE_FROM, Measured, measured
from careful_coil.core.condition.temperature import resistance_at
from careful_coil.core.condition.wall import Wall
from careful_coil.core.errors import CoilError
from careful_coil.core.identify import Identification, Naming
from careful_coil.core.job import Finding, Job, Verdict
from careful_coil.core.settings import Limit, Settings
from careful_coil.core.values import show_ohm
from careful_coil.core.winding.network import Network

LOW = "Low: shorted turns or wrong turns. Surge comparison, or amps at low volts, tells."
HIGH = "High: a bad joint or a broken strand. Read it again while the lead is bent and the joint pressed."
# ratios that are a connection's, not a fault's: what reads for what
RATIOS = (
    (4.0, "as much as halves in series where parallel is on record"),
    (0.25, "as little as halves in parallel where series is on record"),
    (3.0, "the ratio of delta phases to wye phases"),
    (1 / 3, "the ratio of wye phases to delta phases"),
    (2.0, "two phases in series, or one half missing"),
    (0.5, "one phase where two are on record, or two halves in parallel"),
    (1.64, "what aluminium has over copper of the same size"),
)
RATED_FROM = 0.9  # of the supply's volts: a step at rated volts
NEAR = 0.06  # of a ratio

_of = partial(Finding, station="insulation")


def coil_findings(
    job: Job, found: Identification | None, naming: Naming, wall: Wall, settings: Settings
) -> list[Finding]:
    """Return findings on the coils' ohms."""
    if found is None or naming.arrangement is None or naming.network is None:
        return []
    got = measured(job, found, naming, wall, settings)
    if got is None:
        return []
    told = []
    if coils_alike(naming):
        each = [
            _balance(one, job, wall, bool(found.suspects), settings)
            for one in _by_winding(got, naming.network)
        ]
        told = [min(each, key=lambda f: WORST.index(f.verdict))]
    return [*told, *_record(job, naming, got, wall, settings)]


WORST = ("hold", "unproven", "watch", "note", "good")


def _by_winding(got: Measured, network: Network) -> list[Measured]:
    """Return the coils of each winding by themselves: those of two speeds have ohms of their own."""
    kinds = {c.name: c.like for c in network.coils}
    windings: dict[str, dict[str, float]] = {}
    for name, ohm in got.ohm.items():
        windings.setdefault(kinds.get(name, ""), {})[name] = ohm
    return [replace(got, ohm=own) for own in windings.values()] or [got]


def balance_limits(wall: Wall, settings: Settings) -> tuple[Limit, Limit]:
    """Return the limits above which coils apart are a watch and a hold, by construction."""
    hold = settings.balance_form if wall.construction == "form" else settings.balance_hold
    return min(settings.balance_watch, hold, key=lambda limit: limit.value), hold


def coils_alike(naming: Naming) -> bool:
    """Whether all coils of a winding should have the same ohms."""
    return naming.arrangement is not None and naming.arrangement.phases == 3


def idle_apart(job: Job) -> float | None:
    """Return how far three idle amps at rated volts lie from their mean, %, of the newest run that counts."""
    since = job.deeds.last("runs")
    for sheet in reversed([s for s in job.trials.sheets if s.whole and s.place > since]):
        if sheet.begun.load != "none":
            continue
        for step in reversed(sheet.steps):
            rated = job.supply is not None and max(step.volt) >= RATED_FROM * job.supply.volt
            if rated and len(step.amp) == 3 and step.turns == "smooth" and min(step.amp) > 0:
                return imbalance_percent(list(step.amp))
    return None


def _balance(got: Measured, job: Job, wall: Wall, suspects: bool, settings: Settings) -> Finding:
    watch, hold = balance_limits(wall, settings)
    of = partial(_of, code="coils-balanced", gate=True)
    nothing = [name for name, ohm in got.ohm.items() if ohm <= 0]
    if nothing:
        return of(
            verdict="hold",
            subject="A coil reads nothing",
            why=f"{_coil(nothing[0])} reads 0 Ω: it is shorted, or its two leads are still joined to each other. "
            "Part the joint and read it again.",
        )
    if got.missing or (suspects and got.from_leads) or got.contradicted:
        return of(
            verdict="unproven",
            subject="Balance of the coils not known",
            why="Every coil must have a reading that fits the rest.",
        )
    mean = sum(got.ohm.values()) / len(got.ohm)
    percent = imbalance_percent(list(got.ohm.values()))
    of = partial(of, figure=percent, unit="%", source=watch.source)
    if got.untold and percent <= watch.value:
        return of(
            verdict="unproven",
            subject="Balance of the coils not known",
            why=f"These readings cannot tell {', '.join(got.untold[:4])} apart: read them with the joints open.",
            limit=watch.value,
        )
    contact = CONTACT_OHM if got.wires == 2 and mean < TWO_WIRE_FROM else 0.0
    blind = 100 * (got.doubt_ohm + contact) / mean
    through = (
        " Through the lines a fault shows at about half its size." if got.through_lines else ""
    )
    if percent > hold.value and percent > blind:
        return of(
            verdict="hold",
            subject="Coils not balanced",
            why=f"{percent:.1f} % from their mean, over {hold.value:g} %. {_which(got)}{through}",
            limit=hold.value,
        )
    if blind > watch.value:
        apart = idle_apart(job)
        if apart is not None and apart <= settings.amps_apart.value:
            return of(
                verdict="good",
                subject="Coils balanced by the run",
                why=f"Ohms leave {blind:.1f} % open; idle amps at rated volts lie {apart:.1f} % apart.",
                limit=watch.value,
            )
        two = "Below 1 Ω two wires are not enough. " if contact else ""
        return of(
            verdict="unproven",
            subject="Balance finer than this meter can tell",
            why=f"{two}What this meter leaves open is {blind:.1f} % of a coil. A four-wire meter tells, or three equal "
            "idle amps in the run at rated volts.",
            limit=watch.value,
        )
    verdict: Verdict = "good" if percent <= watch.value else "watch"
    which = f" {_which(got)}" if verdict == "watch" else ""
    return of(
        verdict=verdict,
        subject="Coils balanced" if verdict == "good" else "Coils not balanced",
        why=f"{percent:.1f} % from their mean; {watch.value:g} % is usual.{which}{through}",
        limit=watch.value,
    )


def _which(got: Measured) -> str:
    """Return which coil is off, whether low or high, and the usual causes with the test."""
    ordered = sorted(got.ohm.items(), key=lambda x: x[1])
    middle = ordered[len(ordered) // 2][1] if len(ordered) % 2 else 0.0
    if not middle:
        half = len(ordered) // 2
        middle = 0.5 * (ordered[half - 1][1] + ordered[half][1])
    (low, least), (high, most) = ordered[0], ordered[-1]
    down, up = 1 - least / middle, most / middle - 1
    if down > 1.5 * up:
        return f"{_coil(low)} {show_ohm(least)}. {LOW}"
    if up > 1.5 * down:
        return f"{_coil(high)} {show_ohm(most)}. {HIGH}"
    return f"{_coil(low)} is low, {_coil(high)} high: crossed readings, or turns that differ. Read both again."


def _coil(name: str) -> str:
    return name.replace("-", " to ")


def _record(
    job: Job, naming: Naming, got: Measured, wall: Wall, settings: Settings
) -> Iterator[Finding]:
    """Yield how the coils stand to the design value and to this motor's earlier jobs."""
    limit = settings.ohms_moved
    for title, record in _records(job, naming):
        own = _at_20(got, wall)
        shares = {
            n: own[n] / record[n]
            for n in own
            if n in record and n not in (*got.missing, *got.untold)
        }
        if not shares:
            continue
        ordered = sorted(shares.values())
        middle = ordered[len(ordered) // 2]
        percent = 100 * (middle - 1)
        of = partial(
            _of,
            code=f"ohms-{title.split()[0].lower()}",
            figure=percent,
            limit=limit.value,
            unit="%",
            source=limit.source,
        )
        if got.at_c is None and abs(percent) <= 20:
            yield of(
                verdict="note",
                subject=f"Ohms {percent:+.0f} % off {title}",
                why="The winding's temperature was not written down: 10 K make 4 %.",
            )
        elif abs(percent) > limit.value:
            yield of(
                verdict="watch",
                subject=f"All ohms {percent:+.0f} % off {title}",
                why=_together(middle),
            )
        else:
            yield of(
                verdict="good",
                subject=f"Ohms as {title}",
                why=f"{percent:+.1f} %; up to {limit.value:g} % is usual.",
            )


def _together(ratio: float) -> str:
    for known, words in RATIOS:
        if abs(ratio / known - 1) <= NEAR:
            return f"{ratio:.2f} times: {words}. See how it is joined before anything else."
    if ratio > 1:
        return "All high together: warm winding, test leads not nulled, thinner or other wire. Null, measure its °C."
    return "All low together: colder than written, fewer turns or thicker wire than on record. Measure its °C."


def _records(job: Job, naming: Naming) -> Iterator[tuple[str, dict[str, float]]]:
    network = naming.network
    if network is None:
        return
    text = job.tested.made.get("design-ohm", "")
    try:
        design = float(text)
    except ValueError:
        design = 0.0
    if design > 0 and coils_alike(naming):  # of one figure only where all coils are alike
        yield "design", {c.name: design for c in network.coils}
    for earlier in job.tested.earlier[-1:]:
        if earlier.coil_ohm:
            yield f"earlier job {earlier.number}", dict(earlier.coil_ohm)


def _at_20(got: Measured, wall: Wall) -> dict[str, float]:
    """Return coil ohms at 20 °C; as read where the temperature is not known."""
    if got.at_c is None:
        return dict(got.ohm)
    try:
        return {n: resistance_at(r, got.at_c, 20.0, wall.metal) for n, r in got.ohm.items()}
    except CoilError:
        return dict(got.ohm)
