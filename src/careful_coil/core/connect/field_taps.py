"""The hookups of a series motor with a tapped field: which way each turns, its speed and torque beside the whole field.

Flux and torque go with the field's turns N and the amps I, the armature's volts with N, I and the speed: at
the same torque I ∝ 1/√N and n ∝ 1/√N, at the same amps the torque goes with N (iron not saturated; Fitzgerald,
Kingsley and Umans, Electric Machinery, ch. 7). Turns follow from the ohms of the parts, wound of one wire.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.way import LINES, Joint, Plan
from careful_coil.core.winding.network import Coil


@dataclass(frozen=True, slots=True, kw_only=True)
class FieldHookup:
    """One hookup: the plan's joints and direction; `share` of the field's turns it uses, None where not known."""

    plan: Plan
    share: float | None

    @property
    def speed(self) -> float | None:
        """Return its speed, and amps, over the whole field's, at the same torque."""
        return 1 / math.sqrt(self.share) if self.share else None

    @property
    def title(self) -> str:
        """Return what it is called: its speed and way."""
        name = self.plan.speed or "series"
        return f"{name[0].upper()}{name[1:]}{', the other way' if self.plan.reversed else ''}"

    def words(self, said: Mapping[Joint, str], pins: Mapping[str, int] | None = None) -> str:
        """Return joints and what it does; `said` each joint in words, `pins` the plug's number of each lead."""
        joints = "; ".join(said[j] for j in self.plan.joints)
        return " ".join(w for w in (f"{joints}.", self._in_plug(pins or {}), self._does()) if w)

    def _in_plug(self, pins: Mapping[str, int]) -> str:
        """Return lines and links by the pins of a plug, nothing where it does not carry all of them."""
        leads = [n for j in self.plan.joints for n in j if n not in LINES]
        if not leads or any(n not in pins for n in leads):
            return ""
        told = []
        for joint in self.plan.joints:
            own = " – ".join(str(pins[n]) for n in joint if n not in LINES)
            lines = [n for n in joint if n in LINES]
            told.append(f"{lines[0]} on pin {own}" if lines else f"link pins {own}")
        return f"In the plug: {'; '.join(told)}."

    def _does(self) -> str:
        if self.share is None or self.speed is None or math.isclose(self.share, 1.0):
            return "The whole field: slowest, most torque." if self.plan.speed else ""
        return (
            f"{100 * self.share:.0f} % of the field's turns: at the same torque speed and amps × {self.speed:.2f}, "
            f"at the same amps torque × {self.share:.2f}. Without load it runs away all the more."
        )


def field_hookups(
    slug: str, variant: str = "", ohms: Mapping[str, float] | None = None
) -> tuple[FieldHookup, ...]:
    """Return every hookup of a universal motor, `ohms` of each kind of coil in Ω; () for any other motor."""
    if not slug.startswith("universal"):
        return ()
    return tuple(FieldHookup(plan=p, share=_share(p, ohms)) for p in plans_of(slug, variant))


def _share(plan: Plan, ohms: Mapping[str, float] | None) -> float | None:
    """Return the share of the field's turns between the leads that a plan joins."""
    if not plan.speed:
        return None
    field = [c for c in plan.network().coils if c.like.startswith("field")]
    if not ohms or any(c.like not in ohms for c in field):
        return None
    joined = {n for j in plan.joints if len(j) > 1 for n in j}
    ends = [n for n in ("field-1", "field-tap", "field-2") if n in joined]
    used = [c for c in field if _between(c, ends)]
    return math.fsum(ohms[c.like] for c in used) / math.fsum(ohms[c.like] for c in field)


def _between(coil: Coil, ends: Sequence[str]) -> bool:
    """Whether a part of the field carries current between these two leads: both parts from end to end."""
    return {coil.start, coil.finish} <= set(ends) or set(ends) == {"field-1", "field-2"}
