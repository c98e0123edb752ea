"""Is it worth repairing? The sum, the break-even, and what would change the answer."""

from collections.abc import Callable
from dataclasses import dataclass, fields
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

    A rewind costs `rewind_kg` of wire at `rewind_price` a kilogram. `drive` the price of a drive where
    this motor needs one on the supply there is, on the side of repair alone; `special` a frame, shaft or
    mounting that cannot be had new; `needed` whether the customer must have one at all. `scrap_kg` is
    copper, both metals at their price a kilogram.
    """

    parts: float = 0.0
    bearings: float = 0.0
    labour: float = 0.0
    rewind_kg: float = 0.0
    rewind_price: float = 0.0
    drive: float = 0.0
    replacement: float = 0.0
    lead_days: float = 0.0
    special: bool = False
    needed: bool = True
    scrap_kg: float = 0.0
    scrap_price: float = 0.0
    aluminium_kg: float = 0.0
    aluminium_price: float = 0.0

    @property
    def repair(self) -> float:
        """Return what repair costs, a drive with it where one is needed."""
        rewind = self.rewind_kg * self.rewind_price
        return self.parts + self.bearings + self.labour + rewind + self.drive

    @property
    def scrap(self) -> float:
        """Return what the metal brings."""
        return self.scrap_kg * self.scrap_price + self.aluminium_kg * self.aluminium_price


SHOP, INSURER = "shop", "insurer"  # who pays, where it is not the customer
SHOP_PAYS = "The shop pays for its own work: the cheaper of the two."
INSURER_PAYS = "An insurer pays: his word before work begins, old parts kept."
FLAGS = ("special", "needed")
FIGURES = tuple(f.name for f in fields(Estimate) if f.name not in FLAGS)
REPAIR = ("parts", "bearings", "labour", "rewind_kg")  # one of these is one side of the sum


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
    for name in FIGURES:
        if getattr(e, name) < 0:
            raise ValueOutOfRange(f"{name} {getattr(e, name):g}", "a figure of nothing or more")
    if threshold <= 0:
        raise ValueOutOfRange(f"threshold {threshold:g}", "a share above nothing")
    repair, scrap = e.repair, e.scrap
    new = max(e.replacement - scrap, 0.0)  # a new one is bought for the supply there is: no drive
    share = repair / new if new > 0 else None
    keep: Outcome = "drive" if e.drive > 0 else "repair"
    if not e.needed and not e.special:
        outcome: Outcome = "scrap"
    elif e.special or share is None:
        outcome = keep if e.special or e.replacement <= 0 else "scrap"
    else:
        outcome = keep if share <= threshold else "replace"
    turns = []
    if outcome == "scrap":
        turns.append(f"Its metal brings {money(scrap)}. It turns when a motor is needed after all.")
    elif share is not None and not e.special:
        if outcome == "replace":
            turns.append(f"It turns to repair below {money(threshold * new)} for the repair.")
            turns.append(f"Or when a new one costs more than {money(repair / threshold + scrap)}.")
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
    if not set(REPAIR) & set(figures) or not {"replacement", "special", "needed"} & set(figures):
        return None
    return Estimate(
        **{k: v for k, v in figures.items() if k in FIGURES},
        special=bool(figures.get("special", 0)),
        needed=bool(figures.get("needed", 1)),
    )


def worth_findings(job: Job, settings: Settings) -> list[Finding]:
    """Return whether it is worth repairing, once both sides are known."""
    estimate = estimate_of(job)
    if estimate is None:
        return []
    limit = settings.repair_threshold
    payer = job.notes.of("estimate").get("payer", "")
    most, said = (limit.value, "") if payer != SHOP else (100.0, SHOP_PAYS)
    said = INSURER_PAYS if payer == INSURER else said
    found = worth_repairing(estimate, most / 100, settings.money)
    cost = settings.money(found.repair)
    share = f"{100 * found.share:.0f} % of a new one. " if found.share is not None else ""
    return [
        Finding(
            code="worth-repairing",
            verdict="note" if found.outcome in ("repair", "drive") else "watch",
            subject=WORDS[found.outcome],
            why=f"Repair {cost}{', ' if share else '. '}{share}{' '.join((*found.turns, said))}".strip(),
            station="intake",
            figure=None if found.share is None else 100 * found.share,
            limit=most,
            unit="%",
            source=limit.source,
        )
    ]
