"""What a hookup made otherwise would do, and how much of what can go wrong the planned tests catch."""

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from careful_coil.core.connect.check import check
from careful_coil.core.connect.hookup import Hookup, answer
from careful_coil.core.connect.slips import AMPS_APART, AMPS_OTHER, Likely
from careful_coil.core.ways.way import Joint, Plan


def coverage(slips: Sequence[Likely], tests: Sequence[str]) -> tuple[int, int]:
    """Return how many slips the planned tests (ohms, run, kick) catch, and of how many."""
    caught = sum(any(_shows(s, t) for t in tests) for s in slips)
    return caught, len(slips)


def tests_of(bench: Sequence[str], phases: int) -> tuple[str, ...]:
    """Return the tests that the shop's own bench allows: ohms always."""
    run = ("three-phase", "drive") if phases == 3 else ("variable-ac", "low-ac")
    found = ["ohms"]
    if any(b in bench for b in run):
        found.append("run")
    if "battery" in bench:
        found.append("kick")
    return tuple(found)


def _shows(slip: Likely, test: str) -> bool:
    return {"ohms": slip.ohms_show, "run": slip.run_shows, "kick": slip.kick is not None}[test]


def worst_first(slips: Sequence[Likely]) -> list[Likely]:
    """Return slips by what they would do: shorts, then the most amps."""
    return sorted(slips, key=lambda s: (not s.short, -max(s.amps.values(), default=0.0)))


@dataclass(frozen=True, slots=True, kw_only=True)
class WhatIf:
    """A hookup made otherwise: verdict, words of its findings, shares of the right one's.

    `amps` at standstill over the right hookup's; `heat` watts in each coil at standstill over the most
    any coil has in the right one; `field` forward, backward or None; `ohms` between lines in Ω.
    """

    verdict: str
    words: tuple[str, ...]
    amps: dict[str, float | None]
    volts: dict[str, float]
    heat: float | None
    field: str | None
    ohms: dict[str, float]
    ohms_show: bool
    run_shows: bool


def what_if(hookup: Hookup, plan: Plan, joints: Sequence[Joint]) -> WhatIf:
    """Return what joints would do in place of a plan's."""
    wrong = replace(hookup, joints=tuple(joints))
    found = check(wrong)
    good, bad = (answer(h, "start", 1.0, plan.field) for h in (hookup.of_plan(plan), wrong))
    coils = {c.name: c.ohm for c in bad.network.coils}
    right_heat = max(abs(good.coil_amp[n]) ** 2 * r for n, r in coils.items())
    heat = None if bad.shorted else max(abs(bad.coil_amp[n]) ** 2 * r for n, r in coils.items())
    ratios = found.figures.line_amp_ratio
    told = [r for r in ratios.values() if r is not None]
    apart = max(told) - min(told) if told else math.inf
    odd = apart > AMPS_APART or any(abs(r - 1) > AMPS_OTHER for r in told)
    runs = bool(bad.shorted) or odd or bad.turn != good.turn
    rated = found.coil_rated_volt or {}
    shown = [f for f in found.faults if f.severity != "note"]
    return WhatIf(
        verdict=found.verdict,
        words=tuple(f.text for f in shown),
        amps=ratios,
        volts={n: v / rated[n] for n, v in found.figures.coil_volt.items() if rated.get(n)},
        heat=None if heat is None or right_heat <= 0 else heat / right_heat,
        field=found.figures.field,
        ohms=found.figures.line_ohm,
        ohms_show=any(bool(f.shown_by_ohms) for f in shown),
        run_shows=runs,
    )


def exchanges(plan: Plan) -> list[tuple[str, str]]:
    """Return every pair of leads that stand in different joints."""
    where = {n: k for k, j in enumerate(plan.joints) for n in j if "." not in n}
    leads = [n for n in plan.network().leads if n in where]
    return [p for p in itertools.combinations(leads, 2) if where[p[0]] != where[p[1]]]
