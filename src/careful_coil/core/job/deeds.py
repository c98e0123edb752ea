"""What hands and volts did to a motor, in order of the log, and what each of it voids: one room.

A proof stands while nothing that voids it was done after it, by the log's order and by the clock: what
comes in late from another machine's log and is older than a deed counts as history.
"""

import re
from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np

from careful_coil.core.job.alarms import words_of_harm
from careful_coil.core.job.noted import Noted
from careful_coil.core.job.voids import PROVES, STALL_SECONDS, STOOD_DAYS, STORED_DAYS, VOIDS
from careful_coil.core.sheets import SHEETS

WORKED = {
    "cleaned": "washed",
    "dried": "dried",
    "varnished": "varnished",
    "rewound": "rewound",
    "leads renewed": "lead",
}
# parts taken off, by the first word that fits: what is voided when they were off
OFF: tuple[tuple[str, str], ...] = (
    (r"rotor|armature", "rotor"),
    (r"bearing", "bearing"),
    (r"fan(?! (guard|cover|cowl))|pulley|coupling|key", "shaft"),
    (r"cover|lid|guard|cowl|shield|bell|box|plate", "covers"),
)
SWITCHED_OFF = ("", "none", "no", "nothing")


@dataclass(frozen=True, slots=True, kw_only=True)
class Deed:
    """Something done: its row in the table, the place of its entry, when, by whom, to which part.

    `figure` seconds of a stall or days of standing, held against the shop's limit; None: it counts as
    it is. `told` its own words where they say more than the row's.
    """

    kind: str
    place: int
    at: str
    by: str = ""
    part: str = ""
    figure: float | None = None
    told: str = ""

    @property
    def words(self) -> str:
        """Return it in words."""
        return self.told or VOIDS[self.kind].words

    def voids(self, fact: str, part: str = "") -> bool:
        """Whether it voids a fact, or that of one part."""
        row = VOIDS[self.kind]
        return fact in row.again or (fact in row.own and bool(part) and self.part == part)


@dataclass(frozen=True, slots=True, kw_only=True)
class Deeds:
    """All deeds in order. `first` and `newest` where each fact was proven first and last; `stamps` the
    newest entry of each thing by a name such as `felt:feel`; `stall_s`, `stood_days` the shop's limits."""

    every: tuple[Deed, ...] = ()
    first: Mapping[str, int] = field(default_factory=dict)
    newest: Mapping[str, int] = field(default_factory=dict)
    stamps: Mapping[str, int] = field(default_factory=dict)
    supply: tuple[float, float, int] | None = None
    fitted: Mapping[str, str] = field(default_factory=dict)
    day: str = ""
    last_place: int = -1
    stall_s: float = STALL_SECONDS
    stood_days: float = STOOD_DAYS

    def counted(self, kinds: Collection[str] = ()) -> Iterator[Deed]:
        """Yield the deeds that count by this shop's limits, of some kinds or all."""
        for deed in self.every:
            least = self.stood_days if deed.kind == "stood" else self.stall_s
            if (deed.figure is None or deed.figure > least) and (not kinds or deed.kind in kinds):
                yield deed

    def voiding(self, fact: str, part: str = "") -> Deed | None:
        """Return the newest deed that voids a fact, None where nothing does."""
        return max(
            (d for d in self.counted() if d.voids(fact, part)), key=lambda d: d.place, default=None
        )

    def last(self, fact: str, part: str = "") -> int:
        """Return the place after which a fact must be proven; -1 where nothing voids it."""
        deed = self.voiding(fact, part)
        return deed.place if deed is not None else -1

    def stands(self, fact: str, *names: str, part: str = "") -> bool:
        """Whether each thing named was put down after the last deed that voids the fact."""
        since = self.last(fact, part)
        return all(self.stamps.get(n, -1) > since for n in names)

    def again(self, fact: str, part: str = "") -> Deed | None:
        """Return the deed that voided a proof of a fact; None where there was none to void."""
        deed = self.voiding(fact, part)
        if deed is None or self.newest.get(fact, deed.place) >= deed.place:
            return None  # never proven, or proven anew
        return deed

    def since(self, place: int) -> tuple[str, ...]:
        """Return in words what was done after a place, each once."""
        return tuple(dict.fromkeys(d.words for d in self.counted() if d.place > place))

    def by_limits(self, stall_s: float, stood_days: float, now: str = "") -> "Deeds":
        """Return the same by a shop's limits; `now`, UTC, says how long it has stood since the last entry."""
        days = _days(self.day, now)
        stood = (
            (Deed(kind=_by_days(days), place=self.last_place, at=now, figure=days),)
            if days > 1
            else ()
        )
        return replace(self, every=(*self.every, *stood), stall_s=stall_s, stood_days=stood_days)

    def late(self, entry: Any) -> bool:
        """Whether an entry would prove what a deed after it, by the clock, has voided."""
        facts = PROVES.get(entry.said.topic, ())
        return any(
            d.at > entry.at and d.kind not in ("stood", "stored", "flooded") and d.voids(f)
            for d in self.every
            for f in facts
        )


def notice_deeds(known: Deeds, entry: Any, place: int) -> tuple[Deeds, tuple[Deed, ...]]:
    """Return what is known after one more entry at a place, and the deeds it tells of."""
    body = entry.said
    stood = _stood(known, entry, place)
    fresh = tuple(
        Deed(
            kind=k,
            place=place,
            at=entry.at,
            by=entry.by,
            **more,
        )
        for k, more in _told(known, body)
        if k in VOIDS
    )
    first, newest = dict(known.first), dict(known.newest)
    for fact in PROVES.get(body.topic, ()):
        first.setdefault(fact, place)
        newest[fact] = place
    stamps = {**known.stamps, **dict.fromkeys(stamp_names(body), place)}
    now = replace(
        known,
        every=(*known.every, *stood, *fresh),
        first=first,
        newest=newest,
        stamps=stamps,
        day=max(known.day, entry.at[:10]),
        last_place=place,
    )
    if body.kind == "supply":
        now = replace(now, supply=(body.volt, body.hertz, body.phases))
    if body.kind == "device-fitted":
        now = replace(now, fitted={**known.fitted, body.name: body.device})
    return now, (*stood, *fresh)


def _stood(known: Deeds, entry: Any, place: int) -> tuple[Deed, ...]:
    days = _days(known.day, entry.at)
    if days <= 1:
        return ()
    told = f"stood for {days:.0f} days"
    return (Deed(kind=_by_days(days), place=place - 1, at=entry.at, figure=days, told=told),)


def _by_days(days: float) -> str:
    return "stored" if days >= STORED_DAYS else "stood"


def _days(one: str, two: str) -> float:
    if not one or not two or one[:10] >= two[:10]:
        return 0.0
    return float((np.datetime64(two[:10]) - np.datetime64(one[:10])) / np.timedelta64(1, "D"))


Told = tuple[str, dict[str, Any]]


def _told(known: Deeds, body: Any) -> Iterator[Told]:
    """Yield the deeds of one entry."""
    if isinstance(body, Noted):
        yield from _noted(body)
    maker = _MAKERS.get(body.topic)
    if maker is not None:
        yield from maker(known, body)


def _noted(body: Noted) -> Iterator[Told]:
    """Yield the deed that a declared field is."""
    sheet = SHEETS[body.sheet]
    field = None if sheet.free else sheet.field(body.field)
    if field is None or not field.deed or not body.text:
        return
    if not field.deed_on or body.text in field.deed_on:
        told = field.deed_words.format(of=body.of, text=body.text)
        yield field.deed, {"part": sheet.part_of(body.of), "told": told}


FLOOD = re.compile(r"flood|under water|submerged|drowned|in the water", re.IGNORECASE)


def _complaint(known: Deeds, body: Any) -> Iterator[Told]:
    told = body.field == "complaint" and FLOOD.search(body.text)
    if told and not any(d.kind == "flooded" for d in known.every):
        yield "flooded", {}


def _seen(known: Deeds, body: Any) -> Iterator[Told]:
    if body.field == "windings" and body.text == "wet":
        yield "damp", {"told": "windings found wet"}


def _symptom(known: Deeds, body: Any) -> Iterator[Told]:
    if body.field == "wet" and body.text == "yes":
        yield "damp", {"told": "was wet"}


def _joint(known: Deeds, body: Any) -> Iterator[Told]:
    yield "joint", {}


def _work(known: Deeds, body: Any) -> Iterator[Told]:
    yield WORKED.get(body.what, ""), {"told": body.what}


def _drying(known: Deeds, body: Any) -> Iterator[Told]:
    if body.act == "end":
        yield "dried", {}


def _mended(known: Deeds, body: Any) -> Iterator[Told]:
    if body.how:
        told = f"lead {body.tag} {body.how}"
        yield "lead", {"part": f"lead:{body.tag}", "told": told}


def _part(known: Deeds, body: Any) -> Iterator[Told]:
    if body.gone:
        return
    for pattern, kind in OFF:
        if re.search(rf"\b({pattern})", body.part.lower()):
            yield kind, {"told": f"{body.part.lower()} {'back' if body.back else 'off'}"}
            return


def _covers(known: Deeds, body: Any) -> Iterator[Told]:
    yield "covers", {"told": "covers put on" if body.on else "covers taken off"}


# steps of work on start gear that are looks, papers or runs: they put no hand on the part itself
NO_HAND = (
    "dead",
    "marks",
    "cut",
    "pulled",
    "tied",
    "looked",
    "kit",
    "rated",
    "tested",
    "drawn",
    "volts",
    "coil",
    "run-open",
    "covered",
    "noted",
)


CRIMPED = "crimped"  # the step that makes a joint inside the motor


def _gear_step(known: Deeds, body: Any) -> Iterator[Told]:
    name = body.work.split()[-1]
    if body.done and body.step == CRIMPED:
        yield "joint", {"told": f"a crimp at {name} cut off and made again"}
    elif body.done and body.step not in NO_HAND:
        yield "device", {"part": f"device:{name}", "told": f"{body.work}: start gear worked on"}


def _fitted(known: Deeds, body: Any) -> Iterator[Told]:
    before = known.fitted.get(body.name, "")
    if before and body.device and before != body.device:
        told = f"{body.name} renewed by another kind"
        yield "device", {"part": f"device:{body.name}", "told": told}


def _supply(known: Deeds, body: Any) -> Iterator[Told]:
    now = (body.volt, body.hertz, body.phases)
    if known.supply is not None and known.supply != now:
        yield "supply", {"told": f"supply changed to {body.volt:g} V, {body.hertz:g} Hz"}


def _temporary(known: Deeds, body: Any) -> Iterator[Told]:
    if body.words and body.cleared:
        yield "temporary", {"told": f"{body.name} taken off"}


def _start(known: Deeds, body: Any) -> Iterator[Told]:
    if body.outcome == "tripped":
        yield "harm", {"told": f"tripped after {body.seconds:g} s"}
    elif body.outcome == "stalled":
        yield "harm", {"figure": body.seconds, "told": f"stalled for {body.seconds:g} s"}


def _heard(known: Deeds, body: Any) -> Iterator[Told]:
    if body.what == "smoke":
        if body.text.strip().lower().rstrip(".") not in SWITCHED_OFF:
            yield "harm", {"told": f"smoke: {body.text}"}
    else:
        yield from _harm(body.text)


def _step(known: Deeds, body: Any) -> Iterator[Told]:
    yield from _harm(body.remark)


def _ended(known: Deeds, body: Any) -> Iterator[Told]:
    yield from _harm(body.abandoned)


def _harm(text: str) -> Iterator[Told]:
    if words_of_harm(text):
        yield "harm", {"told": f"“{text.strip()}”"}


_MAKERS = {
    "ticket": _complaint,
    "condition": _seen,
    "symptom": _symptom,
    "joint": _joint,
    "parted": _joint,
    "stands-so": _joint,
    "work": _work,
    "drying": _drying,
    "lead-mended": _mended,
    "part-off": _part,
    "covers": _covers,
    "gear-step": _gear_step,
    "device-fitted": _fitted,
    "supply": _supply,
    "temporary": _temporary,
    "trial-start": _start,
    "trial-heard": _heard,
    "trial-step": _step,
    "trial-ended": _ended,
}

# what an entry is the newest word on: kind, then the fields that name it
_NAMED: Mapping[str, tuple[str, ...]] = {
    "step-ticked": ("step",),
    "attested": ("item",),
    "waived": ("code",),
    "earth-bond": ("place",),
    "lead-mended": ("tag",),
    "trial-heard": ("what",),
}


def stamp_names(body: Any) -> tuple[str, ...]:
    """Return what an entry is the newest word on, by kind and by what names it."""
    if isinstance(body, Noted):
        named = ":".join(n for n in (body.sheet, body.of, body.field) if n)
        return body.sheet, named
    own = _NAMED.get(body.kind, ())
    named = ":".join((body.kind, *(str(getattr(body, f)) for f in own)))
    if body.kind == "line-ohm":
        named = f"line-ohm:{'-'.join(sorted(body.lines))}"
    elif body.kind == "device-read":
        named = f"device-read:{body.name}:{'-'.join(body.between)}:{body.when}"
    elif body.kind == "low-run" and body.way:
        return ("low-run", "turn-seen")
    return tuple(dict.fromkeys((body.kind, named)))
