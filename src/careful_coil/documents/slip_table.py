"""The table of slips for the docs: which test shows which, worked out by the network.

`python -m careful_coil.documents.slip_table` writes docs/slips.md.
"""

from collections.abc import Iterator
from pathlib import Path

from careful_coil.core.connect import Hookup, Plate, Supplied
from careful_coil.core.connect.explain import DEVICE_SLIPS
from careful_coil.core.connect.slips import Likely, likely_slips
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.usual import USUAL
from careful_coil.core.ways.way import Plan
from careful_coil.core.winding.arrangements import ARRANGEMENTS
from careful_coil.core.winding.single_phase import START_COILS

TABLE = Path("docs/slips.md")
VOLT = 400.0
THIN = 2.5  # ohms of a start winding over the main's
KINDS = {
    "coil-reversed": "a coil reversed",
    "coils-exchanged": "two coils exchanged",
    "leads-exchanged": "two other leads exchanged",
    "lead-left-out": "a lead left out",
    "joint-open": "a joint open",
    "other-volts": "joined for other volts",
    "terminals-exchanged": "terminals exchanged",
    "devices-exchanged": "two devices exchanged",
    "terminal-moved": "a terminal in another joint",
    "terminal-left-out": "a terminal left out",
    "device-bridged": "a device bridged",
}
HEAD = """# What each test shows of each slip

Every single slip from every right hookup, worked out by the winding network: this page is made by
`python -m careful_coil.documents.slip_table` and a test works out every fourth hookup again.
*Ohms*: some line pair reads 3 % or more off.
*Run*: at a quarter of the volts, at standstill, a line's amps stand 10 % off the mean of the three or
the amps are 20 % more or less than the right ones, or it turns the other way.
*Kick*: taken as a mix-up of marks, a battery kick on the loose leads falls into another size or sign.
Coils are taken as equal where they should be, a start winding as thinner; halves as alternating round the bore.
A figure is how many of the slips of that kind a test shows.

| motor | joined | slip | how many | ohms | run | kick |
|---|---|---|---|---|---|---|
"""


DEVICES_HEAD = """
# Slips of devices, and the state in which each shows

Single slips of start gear and switches, found by the check in one state or another; what changes nothing
(two parts of one series path in another order, a pole reversed) is left out.
*Ohms*: some line pair reads 3 % or more off before power.
A motor with a start switch, relay or start capacitor is never ramped: what shows at start and in run is
seen in one direct start, watched.

| devices | slip | how many | ohms | at start | in run | off or protector open |
|---|---|---|---|---|---|---|
"""


def table_text() -> str:
    """Return the page."""
    return HEAD + "".join(rows()) + DEVICES_HEAD + "".join(device_rows())


def device_rows(every: int = 1) -> Iterator[str]:
    """Yield the rows of the start gear; of every so many of them where that is more than one."""
    for name, (slug, variant, devices) in list(USUAL.items())[::every]:
        plan = next(p for p in plans_of(slug, variant, devices) if not p.reversed)
        found = [s for s in likely_slips(_hookup(plan), plan) if s.state]
        for kind in DEVICE_SLIPS:
            own = [s for s in found if s.slip and s.slip.kind == kind]
            if own:
                states = [s.state.split(",")[0] for s in own]
                still = sum(s in ("start", "star", "first-half") for s in states)
                run = sum(s in ("run", "delta", "reverse") for s in states)
                ohms = sum(s.ohms_show for s in own)
                counts = (ohms, still, run, len(own) - still - run)
                cells = " | ".join(_count(n, own) for n in counts)
                yield f"| {name} | {KINDS[kind]} | {len(own)} | {cells} |\n"


def rows(every: int = 1) -> Iterator[str]:
    """Yield the rows of the windings; of every so many hookups where that is more than one."""
    plans = [
        (f"{slug} {variant}".strip(), p)
        for slug, known in ARRANGEMENTS.items()
        for variant in ("", *known.variants)
        for p in plans_of(slug, variant)
        if p.start == "direct" and not p.reversed
    ]
    for name, p in plans[::every]:
        yield from _of_plan(name, p)


def _hookup(plan: Plan) -> Hookup:
    coils = ARRANGEMENTS[plan.arrangement].inside(plan.variant).coils
    return Hookup(
        arrangement=plan.arrangement,
        variant=plan.variant,
        joints=plan.joints,
        devices=plan.devices,
        plate=Plate(((VOLT, VOLT),), 50.0),
        coil_ohm={c.name: THIN if c.like in START_COILS else 1.0 for c in coils},
        supply=Supplied(phases=ARRANGEMENTS[plan.arrangement].phases, volt=VOLT, hertz=50.0),
    )


def _of_plan(name: str, plan: Plan) -> Iterator[str]:
    by_kind: dict[str, list[Likely]] = {}
    for likely in likely_slips(_hookup(plan), plan):
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
