"""What a hookup made otherwise would do, and how much of what can go wrong the planned tests catch."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from careful_coil.core.connect.check import check
from careful_coil.core.connect.explain import Slip, slips_of
from careful_coil.core.connect.hookup import Hookup, answer
from careful_coil.core.connect.slips import AMPS_APART, AMPS_OTHER, Likely
from careful_coil.core.errors import BadValue
from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.way import Joint, Plan
from careful_coil.core.winding.arrangements import arrangement


def coverage(slips: Sequence[Likely], tests: Sequence[str]) -> tuple[int, int]:
    """Return how many slips the planned tests (ohms, run, kick) catch, and of how many."""
    caught = sum(any(_shows(s, t) for t in tests) for s in slips)
    return caught, len(slips)


def planned_tests(bench: Sequence[str], phases: int) -> tuple[str, ...]:
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


ASK = "two leads to exchange (T4 T7), turn T1, out T9, or other (the other voltage's joints)"


def asked(plan: Plan, text: str) -> tuple[str, tuple[Joint, ...]]:
    """Return what is tried, in words, and its joints. Raises: BadValue with what can be asked.

    Two leads exchanged, a coil turned round, a lead left out, or the joints of another voltage.
    """
    words = text.split()
    leads = {n.upper(): n for n in plan.network().leads}
    named = [leads.get(w.upper(), "") for w in words]
    if len(words) == 2 and all(named) and named[0] != named[1]:
        slip = Slip(kind="leads-exchanged", leads=(named[0], named[1]))
        return slip.text(), slip.done_to(plan.joints)
    verb = words[0].lower() if words else ""
    if verb == "other" and len(words) == 1:
        other = next(
            (
                p
                for p in plans_of(plan.arrangement, plan.variant, plan.devices)
                if p.start == "direct" and p.speed == plan.speed and p.factor != plan.factor
            ),
            None,
        )
        if other is None:
            raise BadValue(text, "something else: this winding has one connection")
        return f"Joined as {other.connection}.", other.joints
    if len(words) == 2 and named[1] and verb == "out":
        joint = next((j for j in plan.joints if named[1] in j), ())
        slip = Slip(kind="lead-left-out", leads=(named[1],), joint=joint)
        return slip.text(), slip.done_to(plan.joints)
    if len(words) == 2 and named[1] and verb == "turn":
        inside = arrangement(plan.arrangement).inside(plan.variant)
        turns = [s for s in slips_of(inside, plan.joints) if s.kind == "coil-reversed"]
        found = next((s for s in turns if named[1] in s.leads), None)
        if found is None:
            raise BadValue(text, "a lead of a coil with both ends out, turned by itself")
        return found.text(), found.done_to(plan.joints)
    raise BadValue(text, ASK)
