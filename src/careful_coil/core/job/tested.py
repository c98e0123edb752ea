"""What Insulation has tested, folded from its entries, each with its place in the log."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any, Generic, TypeVar

from careful_coil.core.job.at_insulation import (
    Discharged,
    DryingRun,
    EarthBond,
    HeatRun,
    InsulationTested,
    SameMotor,
    Steps,
    Surged,
    TestReady,
    WindingOhm,
    Work,
)

# what puts hands on the motor: a tick that all is apart lapses
TOUCHES = frozenset(
    [
        "leads",
        "reading",
        "winding-ohm",
        "joint",
        "parted",
        "insulated",
        "stands-so",
        "found-hookup",
        "work",
        "covers",
        "line-ohm",
        "attested",
        "condition",
    ]
)


T = TypeVar("T")


@dataclass(frozen=True, slots=True, kw_only=True)
class Logged(Generic[T]):
    """A body with where and when it stands in the log: `place` in order, `at` UTC text, `by` whom."""

    place: int
    at: str
    by: str
    entry: str
    body: T


@dataclass(frozen=True, slots=True, kw_only=True)
class Tested:
    """Everything in order of the log; `made` how the winding is made, by field.

    `touched` the place of the last entry that put hands on the motor.
    """

    made: Mapping[str, str] = field(default_factory=dict)
    ohms: tuple[Logged[WindingOhm], ...] = ()
    ready: Logged[TestReady] | None = None
    tests: tuple[Logged[InsulationTested], ...] = ()
    discharged: Logged[Discharged] | None = None
    steps: tuple[Logged[Steps], ...] = ()
    surges: tuple[Logged[Surged], ...] = ()
    heat_runs: tuple[Logged[HeatRun], ...] = ()
    works: tuple[Logged[Work], ...] = ()
    drying: tuple[Logged[DryingRun], ...] = ()
    bonds: tuple[Logged[EarthBond], ...] = ()
    covers: int = -1  # place where they last went on; -1 while they are off
    earlier: tuple[SameMotor, ...] = ()
    touched: int = -1

    def is_ready(self) -> bool:
        """Whether all was ticked apart, and no hand was on the motor since."""
        return self.ready is not None and self.ready.place > self.touched

    def charged(self) -> Logged[InsulationTested] | None:
        """Return the test whose charge nobody has drained yet."""
        last = self.tests[-1] if self.tests else None
        drained = self.discharged is not None and last and self.discharged.place > last.place
        return None if drained else last

    def valid(self, since: int) -> tuple[Logged[InsulationTested], ...]:
        """Return the tests made after a place of the log."""
        return tuple(t for t in self.tests if t.place > since)

    def campaign(self) -> tuple[Logged[DryingRun], Logged[DryingRun] | None] | None:
        """Return the newest drying campaign: its beginning, and its end where it has one."""
        begun: Logged[DryingRun] | None = None
        ended: Logged[DryingRun] | None = None
        for run in self.drying:
            if run.body.act == "begin":
                begun, ended = run, None
            elif begun is not None:
                ended = run
        return (begun, ended) if begun is not None else None


# kinds kept in a list each
_LISTS = {
    "winding-ohm": "ohms",
    "insulation": "tests",
    "step-voltage": "steps",
    "surge": "surges",
    "heat-run": "heat_runs",
    "work": "works",
    "drying": "drying",
    "earth-bond": "bonds",
}


def notice_test(tested: Tested, entry: Any, place: int) -> Tested:
    """Return what is tested after one more entry at a place of the log; other kinds only touch."""
    body = entry.said
    kind = body.kind
    if kind in TOUCHES:
        tested = replace(tested, touched=place)
    logged = Logged(place=place, at=entry.at, by=entry.by, entry=entry.id, body=body)
    if kind in _LISTS:
        name = _LISTS[kind]
        longer: dict[str, Any] = {name: (*getattr(tested, name), logged)}
        tested = replace(tested, **longer)
    match kind:
        case "test-ready":
            return replace(tested, ready=logged)
        case "discharged":
            return replace(tested, discharged=logged)
        case "covers":
            return replace(tested, covers=place if body.on else -1)
        case "winding-made":
            rest = {k: v for k, v in tested.made.items() if k != body.field}
            return replace(tested, made=rest | ({body.field: body.text} if body.text else {}))
        case "same-motor":
            others = tuple(e for e in tested.earlier if e.number != body.number)
            return replace(tested, earlier=(*others, body))
    return tested
