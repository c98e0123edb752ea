"""From the hookup as it is to the hookup that is needed, one joint at a time.

Joints that stay are not touched, a joint once made is never opened again, and the order is the one
that leaves the fewest leads loose. A terminal board has links in place of splices: nothing is loose.
"""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.connect.order import Move, Standing, best_order, freeing
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
JOINTS: tuple[Do, ...] = ("splice", "move-line", "move-link")
PREPARE = (
    "Isolate, lock out and prove dead; discharge every capacitor. The earth lead stays on, longest of "
    "all, also where the lid's diagram does not draw it. Mark each lead twice before anything is cut, "
    "and photograph the joints."
)
RETAG = (
    "Last, after proof: change every voltage tag, in the lead box, on the cable, at the control."
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Step:
    """One step; `loose_after` leads that are neither joined nor insulated for good after it."""

    do: Do
    leads: tuple[str, ...] = ()
    joint: Joint = ()
    loose_after: int = 0
    text: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Ways:
    """How a shop makes joints: `board` links on studs in place of splices, lines first or inner joints.

    `bare` leads that are loose to begin with; `dress` words on connector and insulation of a joint; `say`
    names in words; `clip` words on a joint that is the bench's clip for a run, empty for one that is made.
    """

    board: bool = False
    lines_first: bool = False
    bare: tuple[str, ...] = ()
    dress: Callable[[Joint], str] = lambda _: ""
    say: Callable[[Sequence[str], str], str] = lambda names, between: between.join(names)
    clip: Callable[[Joint], str] = lambda _: ""


PLAIN_WAYS = Ways()


def change_steps(
    leads: Sequence[str],
    present: Sequence[Joint],
    wanted: Sequence[Joint],
    line_ohm: Mapping[str, float] | None = None,
    gone: Iterable[str] = (),
    fresh: Iterable[str] = (),
    ways: Ways = PLAIN_WAYS,
) -> tuple[Step, ...]:
    """Return the steps from present joints to wanted ones.

    `leads` of the motor; `gone` and `fresh` names of devices taken out and put in; `line_ohm` what
    the lines must read when all is done.
    """
    change = _Change(leads, present, wanted, ways)
    return tuple(change.steps(line_ohm or {}, tuple(gone), tuple(fresh)))


class _Change:
    def __init__(
        self, leads: Sequence[str], present: Sequence[Joint], wanted: Sequence[Joint], ways: Ways
    ) -> None:
        self._leads, self._ways = leads, ways
        pieces = tuple(frozenset(j) for j in present if len(set(j)) > 1)
        joined = {n for p in pieces for n in p}
        covered = frozenset(n for n in leads if n not in joined and n not in ways.bare)
        self._now = Standing(pieces=pieces, covered=covered)
        self._wanted = [j for j in wanted if len(set(j)) > 1]
        final = {n for j in self._wanted for n in j}
        self._spare = frozenset(n for n in leads if n not in final)

    def steps(
        self, line_ohm: Mapping[str, float], gone: tuple[str, ...], fresh: tuple[str, ...]
    ) -> Iterator[Step]:
        """Yield the steps in order."""
        to_make = [j for j in self._wanted if frozenset(j) not in self._now.pieces]
        bare = [n for n in self._ways.bare if n in self._spare]
        if not to_make and not bare and not gone and not fresh:
            yield Step(do="check", text="Nothing to change: " + self._reads(line_ohm))
            return
        yield Step(do="prepare", text=PREPARE, loose_after=self._loose())
        for name in gone:
            text = f"Take out {name}."
            yield Step(do="remove-device", text=text, leads=(name,), loose_after=self._loose())
        for name in fresh:
            text = f"Fit {name}; it is not on the line yet."
            yield Step(do="fit-device", text=text, leads=(name,), loose_after=self._loose())
        if self._ways.board:
            yield from self._links(to_make)
        else:
            yield from self._insulate(bare)
            order = best_order(
                tuple(self._leads),
                self._now,
                tuple(to_make),
                self._spare,
                self._ways.lines_first,
            )
            for joint in order:
                yield from self._make(joint)
            yield from self._open_rest()
        yield Step(do="check", text=self._reads(line_ohm), loose_after=self._loose())
        yield Step(do="retag", text=RETAG, loose_after=self._loose())

    def _reads(self, line_ohm: Mapping[str, float]) -> str:
        count = f"Count the joints: {len(self._wanted)}. "
        if not line_ohm:
            return count + "Read the line pairs and the frame before power."
        pairs = ", ".join(
            f"{p.replace('-', ' to ')} {'open' if v == float('inf') else show_ohm(v)}"
            for p, v in line_ohm.items()
        )
        return f"{count}Before power it must read {pairs}, and open to the frame."

    def _loose(self) -> int:
        return 0 if self._ways.board else self._now.loose(self._leads)

    def _make(self, joint: Joint) -> Iterator[Step]:
        for move in freeing(self._now, joint, self._spare):
            yield self._moved(move)
        self._now = self._now.with_joint(joint)
        yield self._made(joint)

    def _moved(self, move: Move) -> Step:
        self._now = move.after
        return self._cut(move.out, move.piece) if move.piece else self._insulated(*move.out)

    def _made(self, joint: Joint) -> Step:
        lines = [n for n in joint if n in LINES]
        dress = self._ways.dress(joint)
        clip = self._ways.clip(joint)
        if clip:
            return Step(
                do="move-line", leads=joint, joint=joint, loose_after=self._loose(), text=clip
            )
        if lines and len(joint) == 2:
            rest = self._ways.say([n for n in joint if n not in lines], " – ")
            text = f"Put {lines[0]} on {rest}. Pull it."
            do: Do = "move-line"
        else:
            do = "splice"
            told = self._ways.say(joint, " – ")
            text = f"Join {told}. Read the marks once more before the crimp; pull it."
        text = f"{text} {dress}".rstrip()
        return Step(do=do, leads=joint, joint=joint, loose_after=self._loose(), text=text)

    def _cut(self, out: frozenset[str], piece: frozenset[str]) -> Step:
        names = in_order(out)
        return Step(
            do="cut",
            leads=names,
            joint=in_order(piece),
            loose_after=self._loose(),
            text=f"Take {self._ways.say(names, ' and ')} out of the joint "
            f"{self._ways.say(in_order(piece), ' – ')}; "
            "cut close to the old crimp and note the length left.",
        )

    def _insulated(self, name: str) -> Step:
        text = f"Insulate {self._ways.say((name,), '')} on its own."
        return Step(do="insulate", leads=(name,), loose_after=self._loose(), text=text)

    def _insulate(self, names: Iterable[str]) -> Iterator[Step]:
        for name in names:
            self._now = self._now.with_covered(name)
            yield self._insulated(name)

    def _open_rest(self) -> Iterator[Step]:
        """Open joints that are not wanted: what is left in them is spare leads, lines, terminals."""
        wanted = {frozenset(j) for j in self._wanted}
        while True:
            here = next((p for p in self._now.pieces if p not in wanted), None)
            if here is None:
                return
            name = in_order(here & self._spare or here)[0]
            self._now = self._now.without(frozenset({name}), here)
            yield self._cut(frozenset({name}), here)
            rest = here - {name}
            left = rest if len(rest) == 1 else frozenset[str]()
            yield from self._insulate(in_order(({name} | left) & self._spare))

    def _links(self, to_make: list[Joint]) -> Iterator[Step]:
        """Yield the steps on a terminal board: links off, links on, lines where their post changes."""
        held = {_links_of(p) for p in self._now.pieces} - {frozenset()}
        wanted = {_links_of(frozenset(j)) for j in self._wanted} - {frozenset()}
        for link in sorted(held - wanted, key=in_order):
            names = in_order(link)
            text = f"Take the link off {self._ways.say(names, ' – ')}; keep nuts and washers."
            yield Step(do="move-link", leads=names, joint=(), text=text)
        for link in sorted(wanted - held, key=in_order):
            names = in_order(link)
            told = self._ways.say(names, " – ")
            text = f"Put the link across {told}; washer under each nut, the stud's torque."
            yield Step(do="move-link", leads=names, joint=names, text=text)
        for joint in to_make:
            for line in (n for n in joint if n in LINES):
                post = next((p - {line} for p in self._now.pieces if line in p), frozenset())
                if not post & set(joint):
                    first = next(n for n in joint if n not in LINES)
                    post_of = self._ways.say((first,), "")
                    text = f"Put {line} on the post of {post_of}. Nut tight, pull it."
                    yield Step(do="move-line", leads=(line, first), joint=joint, text=text)


def _links_of(piece: frozenset[str]) -> frozenset[str]:
    """Return the posts that links join in a joint: none where a single lead is on its line."""
    posts = frozenset(n for n in piece if n not in LINES)
    return posts if len(posts) > 1 else frozenset()


def in_order(names: Iterable[str]) -> tuple[str, ...]:
    """Return names lines first, numbers as numbers."""

    def key(name: str) -> tuple[bool, str, int]:
        head = name.rstrip("0123456789")
        return name not in LINES, head, int(name[len(head) :] or 0)

    return tuple(sorted(names, key=key))
