"""What Insulation must have settled: balance of the coils, insulation to the frame, earth bond."""

from functools import partial

from careful_coil.core.condition.balance import imbalance_percent
from careful_coil.core.condition.insulation import corrected
from careful_coil.core.identify import Identification, Naming
from careful_coil.core.job import Finding, Job, Verdict
from careful_coil.core.settings import Settings

IEEE_43 = "IEEE 43, insulation resistance at 40 °C"


def condition_findings(
    job: Job, found: Identification | None, naming: Naming, settings: Settings
) -> list[Finding]:
    """Return findings on the winding's condition."""
    balance = _balance(job, found, naming, settings)
    return [*([balance] if balance else []), _insulation(job, settings)]


def _balance(
    job: Job, found: Identification | None, naming: Naming, settings: Settings
) -> Finding | None:
    if found is None or naming.arrangement is None or naming.network is None:
        return None
    if naming.arrangement.phases != 3:
        return None
    ohms = list(found.best.coil_ohm.values())
    watch, hold = settings.balance_watch, settings.balance_hold
    unread = any(k in found.best.coil_ohm for k in found.best.unread)
    if len(ohms) < len(naming.network.coils) or unread or found.suspects:
        return Finding(
            code="coils-balanced",
            verdict="unproven",
            subject="Balance of the coils not known",
            why="Every coil must have a reading that fits the rest.",
            station="insulation",
            gate=True,
        )
    percent = imbalance_percent(ohms)
    resolution = job.meter.resolution_ohm or 0.0
    blind = 100 * resolution / (sum(ohms) / len(ohms))
    verdict: Verdict = "good" if percent <= watch.value else "watch"
    why = f"{percent:.1f} % from their mean; {watch.value:g} % is usual."
    if percent > hold.value:
        verdict = "hold"
        why = f"{percent:.1f} % from their mean, over {hold.value:g} %: a bad joint reads high, shorted turns low."
    elif blind > watch.value:
        verdict = "unproven"
        why = f"One step of this meter is {blind:.1f} % of a coil. A four-wire meter would tell."
    subjects = {"good": "Coils balanced", "unproven": "Balance finer than this meter can tell"}
    return Finding(
        code="coils-balanced",
        verdict=verdict,
        subject=subjects.get(verdict, "Coils not balanced"),
        why=why,
        station="insulation",
        figure=percent,
        limit=watch.value if verdict != "hold" else hold.value,
        unit="%",
        source=watch.source,
        gate=True,
    )


def _insulation(job: Job, settings: Settings) -> Finding:
    limit = settings.insulation_minimum
    of = partial(Finding, code="insulation", station="insulation", gate=True, waivable=False)
    if not job.insulation:
        return of(
            verdict="unproven",
            subject="Insulation not tested",
            why="One minute to the frame with the tester, parts disconnected, ends joined.",
            limit=limit.value,
            unit="MΩ",
            source=limit.source,
        )
    _, test = job.insulation[-1]
    at_40 = corrected(test.megohm, test.at_c, test.winding)
    if at_40.megohm is None:
        return of(
            verdict="unproven",
            subject="Insulation cannot be corrected",
            why=at_40.why + " Test again within it.",
            figure=test.megohm,
            limit=limit.value,
            unit="MΩ",
            source=IEEE_43,
        )
    passed = at_40.megohm >= limit.value
    least = "at least " if test.above else ""
    if not passed and test.above:
        verdict: Verdict = "unproven"
        subject = "Insulation tester's range too short"
        why = f"At least {at_40.megohm:.3g} MΩ at 40 °C is shown; {limit.value:g} MΩ is wanted."
    elif not passed:
        verdict, subject = "hold", "Insulation too low"
        why = f"{at_40.megohm:.3g} MΩ at 40 °C; at least {limit.value:g} MΩ is wanted. Clean, dry, test again."
    elif job.last_work > job.insulation_place:
        verdict, subject = "unproven", "Insulation not tested since the last work"
        why = "The winding was worked on after the test."
    else:
        verdict, subject = "good", "Insulation good"
        why = f"{least}{at_40.megohm:.3g} MΩ at 40 °C; at least {limit.value:g} MΩ is wanted."
    return of(
        verdict=verdict,
        subject=subject,
        why=why,
        figure=at_40.megohm,
        limit=limit.value,
        unit="MΩ",
        source=limit.source,
    )
