"""From the hookup as it is to the hookup that is needed, one joint at a time.

Joints that stay are not touched. Of the others the one is made next that leaves the fewest leads
loose, cutting only what it needs.
"""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.values import show_ohm
from careful_coil.core.ways.way import LINES, Joint

Do = Literal[
    "prepare",
    "cut",
    "splice",
    "insulate",
    "move-line",
    "move-link",
    "fit-device",
    "remove-device",
    "check",
    "retag",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Step:
    """One step; `loose_after` leads that are neither joined nor insulated for good after it."""

    do: Do
    leads: tuple[str, ...] = ()
    joint: Joint = ()
    loose_after: int = 0
    text: str = ""


def change_steps(
    leads: Sequence[str],
    present: Sequence[Joint],
    wanted: Sequence[Joint],
    line_ohm: Mapping[str, float] | None = None,
    gone: Iterable[str] = (),
    fresh: Iterable[str] = (),
) -> tuple[Step, ...]:
    """Return the steps from present joints to wanted ones.

    `leads` of the motor; `gone` and `fresh` names of devices taken out and put in; `line_ohm` what
    the lines must read when all is done.
    """
    return tuple(_Change(leads, present, wanted).steps(line_ohm or {}, tuple(gone), tuple(fresh)))


class _Change:
    def __init__(
        self, leads: Sequence[str], present: Sequence[Joint], wanted: Sequence[Joint]
    ) -> None:
        self._leads = leads
        self._now = [set(j) for j in present if len(set(j)) > 1]
        self._wanted = [j for j in wanted if len(set(j)) > 1]
        self._insulated = {n for n in leads if not any(n in j for j in self._now)}

    def steps(
        self, line_ohm: Mapping[str, float], gone: tuple[str, ...], fresh: tuple[str, ...]
    ) -> Iterator[Step]:
        """Yield the steps in order."""
        to_make = [j for j in self._wanted if set(j) not in self._now]
        final = {n for j in self._wanted for n in j}
        spare = [n for n in self._leads if n not in final and n not in self._insulated]
        if not to_make and not spare and not gone and not fresh:
            yield Step(do="check", text="Nothing to change: " + self._reads(line_ohm))
            return
        yield Step(
            do="prepare",
            text="Isolate, lock out and prove dead; discharge every capacitor. Mark each lead twice "
            "before anything is cut, and photograph the joints.",
        )
        for name in gone:
            yield Step(do="remove-device", text=f"Take out {name}.", leads=(name,))
        for name in fresh:
            yield Step(
                do="fit-device", text=f"Fit {name}; it is not on the line yet.", leads=(name,)
            )
        while to_make:
            joint = min(to_make, key=self._loose_if)
            to_make.remove(joint)
            yield from self._make(joint)
        for lead in [n for n in spare if n not in self._insulated]:
            yield from self._free([lead])
            self._insulated.add(lead)
            yield Step(
                do="insulate",
                leads=(lead,),
                loose_after=self._loose(),
                text=f"Insulate {lead} on its own.",
            )
        yield Step(do="check", text=self._reads(line_ohm))
        yield Step(
            do="retag",
            text="Last, after proof: change every voltage tag, in the lead box, on the cable, at the control.",
        )

    def _reads(self, line_ohm: Mapping[str, float]) -> str:
        count = f"Count the joints: {len(self._wanted)}. "
        if not line_ohm:
            return count + "Read the three line pairs and the frame before power."
        pairs = ", ".join(
            f"{p.replace('-', ' to ')} {'open' if v == float('inf') else show_ohm(v)}"
            for p, v in line_ohm.items()
        )
        return f"{count}Before power it must read {pairs}, and open to the frame."

    def _torn(self, names: Iterable[str]) -> list[set[str]]:
        """Return the present joints that these names stand in."""
        wanted = set(names)
        return [j for j in self._now if j & wanted]

    def _loose(self) -> int:
        joined = {n for j in self._now for n in j}
        return sum(n not in joined and n not in self._insulated for n in self._leads)

    def _loose_if(self, joint: Joint) -> int:
        """Return how many leads a joint's making would leave loose."""
        names = set(joint)
        left = 0
        for j in self._torn(joint):
            rest = j - names
            left += len(rest) if len(rest) == 1 else 0
        return left

    def _make(self, joint: Joint) -> Iterator[Step]:
        yield from self._free(joint)
        here = set(joint)
        touching = self._torn(joint)
        self._now = [j for j in self._now if j not in touching] + [here]
        self._insulated -= here
        lines = [n for n in joint if n in LINES]
        names = " – ".join(joint)
        if lines and len(joint) == 2:
            text = f"Put {lines[0]} on {' – '.join(n for n in joint if n not in lines)}. Pull it."
            yield Step(
                do="move-line", leads=joint, joint=joint, loose_after=self._loose(), text=text
            )
        else:
            yield Step(
                do="splice",
                leads=joint,
                joint=joint,
                loose_after=self._loose(),
                text=f"Join {names}. Read the marks once more before the crimp; pull it.",
            )

    def _free(self, names: Sequence[str]) -> Iterator[Step]:
        """Cut from present joints what the new joint needs or must not keep."""
        wanted = set(names)
        for j in self._torn(names):
            keep, rest = j & wanted, j - wanted
            if not rest:
                continue
            out = keep if len(keep) <= len(rest) else rest
            self._now = [x for x in self._now if x is not j]
            for part in (keep, rest):
                if len(part) > 1:
                    self._now.append(part)
            yield Step(
                do="cut",
                leads=tuple(sorted(out)),
                joint=tuple(sorted(j)),
                loose_after=self._loose(),
                text=f"Take {' and '.join(sorted(out))} out of the joint {' – '.join(sorted(j))}; "
                "cut close to the old crimp and note the length left.",
            )
