"""Every hookup the tables give, held against the check of hookups in every state of its devices.

`python -m careful_coil.documents.plan_table` writes docs/plans.md.
"""

from collections.abc import Iterator, Sequence
from pathlib import Path

from careful_coil.core.connect import Check, Hookup, Plate, Supplied, check
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.starter import starter_of
from careful_coil.core.ways.usual import USUAL
from careful_coil.core.ways.way import Plan
from careful_coil.core.winding.arrangements import ARRANGEMENTS

TABLE = Path("docs/plans.md")
BASE_VOLT = {1: 115.0, 3: 230.0}
HERTZ = (50.0, 60.0)
SAME = 1e-9
THE_OTHER_WAY = "rotation-reversed"  # of a hookup that is meant to turn so
HEAD = """# Every hookup, held against the check

Each hookup that the tables give, for each rating of a plate that has all its connections, both directions,
each speed, with start gear and switches as they usually come and with the contactors of a starter: joined as
planned it must be sound in every state, and dead when it is switched off.
Made by `python -m careful_coil.documents.plan_table`; a test works all of them out again.
*Remarks* are codes of the check that are no fault: a lead that stays single, one line that a switch of one
pole leaves on the winding.

| devices | motor | joined | states | volts on a coil when off | verdict | remarks |
|---|---|---|---|---|---|---|
"""


def hookups() -> Iterator[tuple[str, Plan, Hookup]]:
    """Yield every hookup with what it is called, on the supply of its own rating, at both hertz."""
    for name, (slug, variant, devices) in USUAL.items():
        yield from _of(name, slug, variant, devices)
    for slug, known in ARRANGEMENTS.items():
        for variant in ("", *known.variants):
            yield from _of("none", slug, variant, ())


def _of(
    name: str, slug: str, variant: str, devices: Sequence[Device]
) -> Iterator[tuple[str, Plan, Hookup]]:
    known = ARRANGEMENTS[slug]
    direct = [p for p in plans_of(slug, variant) if p.start == "direct"]
    named = [(name, p) for p in plans_of(slug, variant, devices)]
    starters = ((p, starter_of(p)) for _, p in named)
    named += [(f"starter, {p.start}", s.plan) for p, s in starters if s is not None]
    # wye and delta both can be where their factors are more than the plate's two ratings
    families = len({p.family for p in direct}) > 1 and len({p.factor for p in direct}) > 2
    ohms = {c.name: 1.0 for c in known.inside(variant).coils}
    for title, p in named:
        alike = [
            q.factor
            for q in direct
            if q.speed == p.speed and (not families or q.family == p.family)
        ]
        factors = sorted(set(alike)) or [p.factor]
        volts = [BASE_VOLT[known.phases] * f / factors[0] for f in factors]
        rank = min(range(len(factors)), key=lambda k: abs(factors[k] - p.factor))
        for hertz in HERTZ:
            yield (
                title,
                p,
                Hookup(
                    arrangement=slug,
                    variant=variant,
                    joints=p.joints,
                    devices=p.devices,
                    plate=Plate(tuple((v, v) for v in volts), hertz),
                    supply=Supplied(phases=known.phases, volt=volts[rank], hertz=hertz),
                    coil_ohm=ohms,
                    family=p.family if families else "",
                ),
            )


def off_volt(found: Check) -> float | None:
    """Return the most volts on a coil when it is switched off; None where nothing switches it."""
    off = next((s for s in found.states if s.state == "off"), None)
    return None if off is None else max(off.coil_volt.values())


def remarks(plan: Plan, found: Check) -> tuple[str, ...]:
    """Return the codes of what the check remarks, without the direction that was meant."""
    codes = dict.fromkeys(f.code for f in found.faults)
    return tuple(c for c in codes if not (plan.reversed and c == THE_OTHER_WAY))


def rows(every: int = 1) -> Iterator[str]:
    """Yield the rows, of the plate's own hertz; of every so many of them where that is more than one."""
    own = [(t, p, h) for t, p, h in hookups() if h.supply.hertz == HERTZ[0]]
    for title, p, hookup in own[::every]:
        found = check(hookup)
        volt = off_volt(found)
        off = "" if volt is None else "none" if volt <= SAME else f"{volt:.3g} V"
        how = [p.connection, p.speed, "the other way" if p.reversed else ""]
        motor = f"{p.arrangement} {p.variant}".strip()
        states = len(found.states) or 1
        yield (
            f"| {title} | {motor} | {', '.join(w for w in how if w)} | {states} | {off} "
            f"| {found.verdict} | {', '.join(remarks(p, found))} |\n"
        )


if __name__ == "__main__":
    TABLE.write_text(HEAD + "".join(rows()), encoding="utf-8")
