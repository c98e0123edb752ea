"""The table of slips for the docs: which test shows which, worked out by the network.

`python -m careful_coil.documents.slip_table` writes docs/slips.md.
"""

from collections.abc import Iterator
from pathlib import Path

from careful_coil.core.connect import Hookup, Plate, Supplied
from careful_coil.core.connect.device_faults import AUXILIARY
from careful_coil.core.connect.slips import Likely, likely_slips
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.way import Plan
from careful_coil.core.winding.arrangements import ARRANGEMENTS

TABLE = Path("docs/slips.md")
VOLT = 400.0
THIN = 2.5  # ohms of a start winding over the main's
KINDS = {
    "coil-reversed": "a coil turned round",
    "coils-exchanged": "two coils exchanged",
    "leads-exchanged": "two other leads exchanged",
    "lead-left-out": "a lead left out",
    "joint-open": "a joint open",
    "other-volts": "joined for other volts",
}
HEAD = """# What each test shows of each slip

Every single slip from every right hookup, worked out by the winding network: this page is made by
`python -m careful_coil.documents.slip_table` and a test keeps it current.
*Ohms*: some line pair reads 3 % or more off.
*Run*: at a quarter of the volts, at standstill, a line's amps stand 10 % off the mean of the three or
the amps are 20 % more or less than the right ones, or it turns the other way.
*Kick*: taken as a mix-up of marks, a battery kick on the loose leads falls into another size or sign.
Coils are taken as equal where they should be, a start winding as thinner; halves as alternating round the bore.
A figure is how many of the slips of that kind a test shows.

| motor | joined | slip | how many | ohms | run | kick |
|---|---|---|---|---|---|---|
"""


def table_text() -> str:
    """Return the page."""
    return HEAD + "".join(_rows())


def _rows() -> Iterator[str]:
    for slug, known in ARRANGEMENTS.items():
        for variant in ("", *known.variants):
            for p in plans_of(slug, variant):
                if p.start == "direct" and not p.reversed:
                    yield from _of_plan(f"{slug} {variant}".strip(), p)


def _of_plan(name: str, plan: Plan) -> Iterator[str]:
    coils = ARRANGEMENTS[plan.arrangement].inside(plan.variant).coils
    hookup = Hookup(
        arrangement=plan.arrangement,
        variant=plan.variant,
        joints=plan.joints,
        devices=plan.devices,
        plate=Plate(((VOLT, VOLT),), 50.0),
        coil_ohm={c.name: THIN if c.like in AUXILIARY else 1.0 for c in coils},
        supply=Supplied(phases=ARRANGEMENTS[plan.arrangement].phases, volt=VOLT, hertz=50.0),
    )
    by_kind: dict[str, list[Likely]] = {}
    for likely in likely_slips(hookup, plan):
        kind = likely.slip.kind if likely.slip else "other-volts"
        by_kind.setdefault(kind, []).append(likely)
    for name_of, words in KINDS.items():
        found = by_kind.get(name_of, [])
        if found:
            ohms = sum(s.ohms_show for s in found)
            run = sum(s.run_shows for s in found)
            kick = sum(s.kick is not None for s in found)
            yield (
                f"| {name} | {plan.connection} | {words} | {len(found)} "
                f"| {_count(ohms, found)} | {_count(run, found)} | {_count(kick, found)} |\n"
            )


def _count(shown: int, found: list[Likely]) -> str:
    if shown == len(found):
        return "all"
    return str(shown) if shown else "none"


if __name__ == "__main__":
    TABLE.write_text(table_text(), encoding="utf-8")
