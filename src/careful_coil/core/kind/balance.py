"""The worth of a repair as a balance: a piece for each figure, and which figures could still tip it."""

from collections.abc import Mapping
from dataclasses import dataclass

from careful_coil.core.kind.worth import FIGURES, Estimate

# what a piece comes to at most, as a share of a new motor's price: trade practice
MOST: Mapping[str, float] = {
    "parts": 0.5,
    "bearings": 0.2,
    "labour": 1.0,
    "rewind": 1.0,
    "drive": 1.0,
    "scrap": 0.15,
}
TITLES: Mapping[str, str] = {
    "parts": "parts",
    "bearings": "bearings",
    "labour": "labour",
    "rewind": "rewind",
    "drive": "a drive",
    "new": "a new one",
    "scrap": "less its metal",
}
FIELDS: Mapping[str, tuple[str, ...]] = {
    "parts": ("parts",),
    "bearings": ("bearings",),
    "labour": ("labour",),
    "rewind": ("rewind_kg", "rewind_price"),
    "drive": ("drive",),
    "new": ("replacement",),
    "scrap": ("scrap_kg", "scrap_price", "aluminium_kg", "aluminium_price"),
}
FIRST = ("parts", "labour", "new")  # asked whatever they come to


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """A figure on one side: what it comes to in the shop's currency, whether it was given."""

    name: str
    title: str
    amount: float
    given: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Balance:
    """Both sides; `margin` what repair may cost besides before it tips (below nothing: it has tipped).

    `open` the pieces not given that could tip it, `cannot` those that could not.
    """

    repair: tuple[Piece, ...]
    new: tuple[Piece, ...]
    margin: float | None
    open: tuple[str, ...]
    cannot: tuple[str, ...]

    @property
    def fields(self) -> tuple[str, ...]:
        """Return the fields worth asking for."""
        return tuple(f for name in self.open for f in FIELDS[name])


def balance_of(figures: Mapping[str, float], threshold: float) -> Balance:
    """Return the balance of what was given; `threshold` repair over replacement, above 0, up to which it is worth it.

    The side of a new one weighs its price less what the old metal brings, times the threshold.
    """
    e = Estimate(**{n: v for n, v in figures.items() if n in FIGURES})  # type: ignore[arg-type]
    amounts = {
        "parts": e.parts,
        "bearings": e.bearings,
        "labour": e.labour,
        "rewind": e.rewind_kg * e.rewind_price,
        "drive": e.drive,
    }

    def given(name: str) -> bool:
        return all(f in figures for f in FIELDS[name]) or (
            name == "scrap" and {"scrap_kg", "scrap_price"} <= set(figures)
        )

    repair = tuple(
        Piece(name=n, title=TITLES[n], amount=v, given=given(n)) for n, v in amounts.items()
    )
    new = (
        Piece(name="new", title=TITLES["new"], amount=e.replacement, given=given("new")),
        Piece(name="scrap", title=TITLES["scrap"], amount=-e.scrap, given=given("scrap")),
    )
    margin = threshold * max(e.replacement - e.scrap, 0.0) - e.repair if given("new") else None
    missing = [p.name for p in (*repair, *new) if not p.given]
    can = tuple(n for n in missing if n in FIRST or _tips(n, margin, e.replacement, threshold))
    return Balance(
        repair=repair,
        new=new,
        margin=margin,
        open=can,
        cannot=tuple(n for n in missing if n not in can) if margin is not None else (),
    )


def _tips(name: str, margin: float | None, price: float, threshold: float) -> bool:
    """Whether a piece that was not given could turn the answer: more repair only tips one that is worth it."""
    if margin is None:
        return False  # both sides first
    most = MOST[name] * price
    if name == "scrap":
        return 0 <= margin < threshold * most
    return 0 <= margin < most
