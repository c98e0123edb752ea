"""Is it worth repairing? The sum, the break-even, and what would change the answer."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.job import Finding, Job
from careful_coil.core.settings import Settings

Outcome = Literal["repair", "replace", "drive", "scrap"]
WORDS = {
    "repair": "Repair it",
    "replace": "Replace it",
    "drive": "Repair it and supply it with a drive",
    "scrap": "Scrap it",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Estimate:
    """What repair and replacement cost, in the shop's currency; `lead_days` until a new one comes.

    `special` a frame, shaft or mounting that cannot be had new; `drive` the price of a drive where
    one is needed; `scrap_kg` copper or aluminium in it, at `scrap_price` a kilogram.
    """

    parts: float = 0.0
    labour: float = 0.0
    replacement: float = 0.0
    lead_days: float = 0.0
    drive: float = 0.0
    special: bool = False
    scrap_kg: float = 0.0
    scrap_price: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Worth:
    """The answer: cost of repair, its share of a new one, the repair cost and price that turn it."""

    outcome: Outcome
    repair: float
    share: float | None
    break_even_repair: float | None
    break_even_price: float
    scrap: float
    turns: tuple[str, ...]


def worth_repairing(
    e: Estimate, threshold: float, money: Callable[[float], str] = "{:.0f}".format
) -> Worth:
    """Return whether repair is worth it; `threshold` repair over replacement, above 0.

    `money` writes an amount in the shop's currency.
    Scrap is what the metal brings; it is taken off the price of a new one. Raises: ValueOutOfRange
    for a figure below nothing.
    """
    for name in ("parts", "labour", "replacement", "lead_days", "drive", "scrap_kg", "scrap_price"):
        if getattr(e, name) < 0:
            raise ValueOutOfRange(f"{name} {getattr(e, name):g}", "a figure of nothing or more")
    if threshold <= 0:
        raise ValueOutOfRange(f"threshold {threshold:g}", "a share above nothing")
    repair = e.parts + e.labour + e.drive
    scrap = e.scrap_kg * e.scrap_price
    new = max(e.replacement + e.drive - scrap, 0.0)
    share = repair / new if new > 0 else None
    keep: Outcome = "drive" if e.drive > 0 else "repair"
    if e.special or share is None:
        outcome: Outcome = keep if e.special or e.replacement <= 0 else "scrap"
    else:
        outcome = keep if share <= threshold else "replace"
    turns = []
    if share is not None and not e.special:
        if outcome == "replace":
            turns.append(f"It turns to repair below {money(threshold * new)} for the repair.")
            turns.append(
                f"Or when a new one costs more than {money(repair / threshold - e.drive + scrap)}."
            )
            if e.lead_days > 0:
                turns.append(f"A new one takes {e.lead_days:g} days: ask whether they can wait.")
        else:
            turns.append(f"It turns to replacing above {money(threshold * new)} for the repair.")
    if e.special:
        turns.append("Its frame cannot be had new: the share does not decide.")
    return Worth(
        outcome=outcome,
        repair=repair,
        share=share,
        break_even_repair=threshold * new if new > 0 else None,
        break_even_price=repair / threshold,
        scrap=scrap,
        turns=tuple(turns),
    )


def estimate_of(job: Job) -> Estimate | None:
    """Return the estimate of a job; None before both sides of it are known."""
    figures = dict(job.seen.estimate)
    if not ({"parts", "labour"} & set(figures)) or not ({"replacement", "special"} & set(figures)):
        return None
    return Estimate(
        **{k: float(v) for k, v in figures.items() if k != "special"},
        special=bool(figures.get("special")),
    )


def worth_findings(job: Job, settings: Settings) -> list[Finding]:
    """Return whether it is worth repairing, once both sides are known."""
    estimate = estimate_of(job)
    if estimate is None:
        return []
    limit = settings.repair_threshold
    found = worth_repairing(estimate, limit.value / 100, settings.money)
    share = f"{100 * found.share:.0f} % of a new one; " if found.share is not None else ""
    return [
        Finding(
            code="worth-repairing",
            verdict="note" if found.outcome in ("repair", "drive") else "watch",
            subject=WORDS[found.outcome],
            why=f"Repair {settings.money(found.repair)}, {share}{' '.join(found.turns)}".strip(),
            station="intake",
            figure=None if found.share is None else 100 * found.share,
            limit=limit.value,
            unit="%",
            source=limit.source,
        )
    ]
