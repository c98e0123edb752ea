"""What was done at Connect, folded from its entries: the joints as they stand come out of it.

Joints are by tag and line (terminals of devices by their own name), so that a later name of a lead
moves nothing. A joint that is made takes its names out of every other; a cut leaves what remains.
"""

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field, replace

from careful_coil.core.job.at_connect import (
    Installer,
    Insulated,
    LeadClamped,
    LowRun,
    Parted,
    StandsSo,
    StepOhm,
    StepTicked,
    SupplyRead,
    TurnSeen,
)
from careful_coil.core.job.at_insulation import Work
from careful_coil.core.job.at_mechanics import LeadMended
from careful_coil.core.job.entries import Entry, JointMade, ReadingTaken, Supply

LINES = ("L1", "L2", "L3", "N")
Joints = tuple[tuple[str, ...], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Act:
    """A cut, a joint or a lead insulated: what, by whom, when."""

    do: str  # part, joint, insulate
    names: tuple[str, ...]
    at: str
    by: str
    left_mm: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Joined:
    """What was done, in order. `start` joints entered as standing, None: as found; `acts` since then.

    `ohms` readings on the way with the number of acts before each; the newest of everything else.
    What proves a hookup (`run`, `clamps`, `turned`) counts only while no act followed it.
    """

    start: Joints | None = None
    acts: tuple[Act, ...] = ()
    ohms: tuple[tuple[int, StepOhm], ...] = ()
    wish: Mapping[str, str] = field(default_factory=dict)
    read: SupplyRead | None = None
    ticked: Mapping[str, int] = field(default_factory=dict)  # step → acts before it
    run: LowRun | None = None
    kicks: int = 0  # taken so far
    runs: tuple[tuple[int, int, LowRun], ...] = ()  # all, with the acts and kicks before each
    clamps: Mapping[str, float] = field(default_factory=dict)
    turned: TurnSeen | None = None
    installer: Mapping[str, Installer] = field(default_factory=dict)

    @property
    def made(self) -> Joints:
        """Return the joints that were made here and still stand, in order."""
        return tuple(joint for joint, own in _stand((), self.acts) if own)

    def standing(self, found: Joints) -> Joints:
        """Return all joints as they stand, `found` those before the first act."""
        before = self.start if self.start is not None else found
        return tuple(joint for joint, _ in _stand(before, self.acts))

    def after(self, acts: int) -> "Joined":
        """Return what was done after so many acts."""
        return replace(self, acts=self.acts[:acts])

    @property
    def covered(self) -> frozenset[str]:
        """Return the leads insulated on their own and not touched since."""
        found: set[str] = set()
        for act in self.acts:
            found = found | set(act.names) if act.do == "insulate" else found - set(act.names)
        return frozenset(found)

    def since_last_act(self, step: str) -> bool:
        """Whether something was ticked after the last cut or joint."""
        return self.ticked.get(step, -1) >= len(self.acts)

    def without(self, void: Collection[str]) -> "Joined":
        """Return what is known once some facts are void: what proved them no longer counts."""
        left = self
        if "joints" in void:  # the leads these joints were made of are gone
            left = replace(left, start=(), acts=(), ohms=(), ticked={}, runs=())
        if "low-run" in void:
            left = replace(left, run=None, clamps={})
        if "direction" in void:
            left = replace(left, turned=None)
        return left


def _stand(before: Joints, acts: tuple[Act, ...]) -> list[tuple[tuple[str, ...], bool]]:
    """Return joints with whether each was made here."""
    now = [(tuple(j), False) for j in before if len(set(j)) > 1]
    for act in acts:
        gone = set(act.names)
        left = [(tuple(n for n in j if n not in gone), own) for j, own in now]
        now = [(j, own) for j, own in left if len(j) > 1]
        if act.do == "joint":
            now.append((act.names, True))
    return now


def notice_joined(known: Joined, entry: Entry) -> Joined:
    """Return what is known after one more entry."""
    body = entry.said
    if isinstance(body, StandsSo):
        return replace(known, start=body.joints, acts=(), ohms=(), ticked={}, runs=())
    if isinstance(body, JointMade):
        return _acted(known, entry, "joint", body.joint)
    if isinstance(body, Parted):
        return _acted(known, entry, "part", body.leads, body.left_mm)
    if isinstance(body, LeadMended) and body.how == "renewed":  # its joint went with it
        return _acted(known, entry, "part", (body.tag,))
    if isinstance(body, Work) and body.what == "leads renewed":
        every = tuple(n for j in known.made for n in j if n not in LINES)
        return _acted(known, entry, "part", every) if every else known
    if isinstance(body, Insulated):
        return _acted(known, entry, "insulate", (body.lead,))
    if isinstance(body, StepOhm):
        return replace(known, ohms=(*known.ohms, (len(known.acts), body)))
    if isinstance(body, SupplyRead):
        return replace(known, read=body)
    if isinstance(body, Supply):
        return replace(known, read=known.read if body.measured else None)
    if isinstance(body, StepTicked):
        left = {s: n for s, n in known.ticked.items() if s != body.step}
        return replace(known, ticked={**left, body.step: len(known.acts)} if body.done else left)
    if isinstance(body, LowRun):
        seen = TurnSeen(turns=body.way, seen_from="drive-end") if body.way else known.turned
        runs = (*known.runs, (len(known.acts), known.kicks, body))
        return replace(known, run=body, runs=runs, turned=seen)
    if isinstance(body, ReadingTaken):
        return replace(known, kicks=known.kicks + (body.reading.kind in ("kick", "series")))
    if isinstance(body, LeadClamped):
        return replace(known, clamps={**known.clamps, body.lead: body.amp})
    if isinstance(body, TurnSeen):
        return replace(known, turned=body)
    if isinstance(body, Installer):
        rest = {i: e for i, e in known.installer.items() if i != body.item}
        return replace(known, installer=rest if body.state == "open" else {**rest, body.item: body})
    return known


def _acted(
    known: Joined, entry: Entry, do: str, names: tuple[str, ...], left_mm: float | None = None
) -> Joined:
    act = Act(do=do, names=tuple(dict.fromkeys(names)), at=entry.at, by=entry.by, left_mm=left_mm)
    return replace(known, acts=(*known.acts, act))
