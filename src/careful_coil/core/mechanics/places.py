"""The places of this motor that hands come to, each as it stands: what the drawing in section shows."""

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass

from careful_coil.core.condition.checklist import CANS, LEAST_ODDS
from careful_coil.core.condition.suspicion import has_brushes
from careful_coil.core.job import Finding, Job, Verdict
from careful_coil.core.kind import Weighed
from careful_coil.core.mechanics.bearing_rules import ENDS
from careful_coil.core.mechanics.lead_rules import WANTS
from careful_coil.core.sheets.bearings import HANDS_ON
from careful_coil.core.stations import Station

SWITCHED = ("split-phase", "capacitor-start", "capacitor-start-run", "repulsion-start")
RINGS = ("wound-rotor", "synchronous")
FIELD_POLES = ("universal", "dc-magnet", "dc-wound")
NOT_JUDGED, RENEWED = "not judged", "renewed"
HAS_NONE = "built without"
WORST: tuple[Verdict, ...] = ("hold", "unproven", "watch", "good", "note")


@dataclass(frozen=True, slots=True, kw_only=True)
class Place:
    """A place by name: `title` and `words` as it is shown, `mark` a verdict; `renewed` since it came.

    `station` where it is looked at, when that is not Mechanics; `part` the part of the station it opens.
    """

    name: str
    title: str
    words: str
    mark: Verdict
    renewed: bool = False
    station: Station = "mechanics"
    part: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Shell:
    """What a motor of its kind has, for its drawing in section: `sleeve` ends, a `box` for leads or a cord."""

    brushes: bool = False
    commutator: bool = False
    rings: bool = False
    poles: bool = False  # coils or magnets on poles instead of a core with slots
    switch: bool = False
    capacitor: bool = False
    fan: bool = True
    box: bool = True
    flange: bool = False
    two_ends: bool = False
    sealed: bool = False
    sleeve: tuple[str, ...] = ()


def shell_of(job: Job, kinds: Weighed) -> Shell:
    """Return what this motor has, by its kind, its plate and what was noted of it."""
    hands = job.hands
    mounting = job.plate.printed("mounting").lower()
    cord = hands.felt.get("cord", "")
    return Shell(
        brushes=_brushes(job, kinds) or _likely(kinds, RINGS),
        commutator=_brushes(job, kinds) or bool(hands.bars),
        rings=_likely(kinds, RINGS) and not has_brushes(kinds),
        poles=_likely(kinds, FIELD_POLES) and has_brushes(kinds),
        switch=_switch(job, kinds),
        capacitor=bool(job.gear.capacitors) or kinds.chance(CANS) >= LEAST_ODDS,
        fan=hands.felt.get("fan") != HAS_NONE and not job.seen.sealed,
        box=cord in ("", "none"),
        flange="flange" in mounting or "face" in mounting,
        two_ends=hands.felt.get("ends", "").lower().startswith(("two", "2")),
        sealed=job.seen.sealed,
        sleeve=tuple(e for e, told in hands.bearings.items() if told.get("sort") == "sleeve"),
    )


def places_of(job: Job, kinds: Weighed, findings: Sequence[Finding]) -> tuple[Place, ...]:
    """Return the places of this motor in the order the hands come to them.

    Of a sealed compressor nobody reaches more than its leads.
    """
    found = list(_leads(job, findings))
    if job.seen.sealed:
        return tuple(found)
    return (
        *_turning(job, findings),
        *found,
        *_contacts(job, kinds, findings),
        *_elsewhere(job, kinds, findings),
    )


def _turning(job: Job, findings: Sequence[Finding]) -> Iterator[Place]:
    """Yield shaft, bearings, fan, seals, end shields."""
    felt = job.hands.felt
    shaft = ("shaft-feel", "coast-down", "end-float", "radial-play", "rub", "start-volts")
    yield _place("shaft", "Shaft", felt.get("feel", ""), shaft, findings, part="shaft")
    for end, title in ENDS.items():
        told = job.hands.bearings.get(end, {})
        codes = (f"bearing-{end}", f"bearing-seat-{end}")
        words = ", ".join(w for w in (_number(told), told.get("state", "")) if w)
        renewed = told.get("done") in HANDS_ON
        if renewed:
            words = ", ".join(
                w for w in (told.get("fitted", "") or _number(told), told["done"]) if w
            )
        yield _place(end, title, words, codes, findings, renewed=renewed, part="bearings")
    fan = felt.get("fan", "")
    yield _place("fan", "Fan, guard", fan, ("fan",), findings, part="fan")
    seals = felt.get("seals", "")
    yield _place(
        "seals", "Seals", seals, ("seals",), findings, renewed=seals == RENEWED, part="seals"
    )
    bolts = {e: felt.get(f"bolts-{e}", "") for e in ENDS}
    words = ", ".join(f"{e} {w}" for e, w in bolts.items() if w)
    bolted = tuple(f"bolts-{e}" for e in ENDS)
    yield _place("shields", "End shields", words, bolted, findings, part="shields")


def _leads(job: Job, findings: Sequence[Finding]) -> Iterator[Place]:
    """Yield leads and cord."""
    states = {x.tag: x.insulation for x in job.leads if x.insulation}
    bad = [f"{t} {s}" for t, s in states.items() if s in WANTS]
    mended = [f"{t} {m.how}" for t, m in job.hands.mended.items() if m.how]
    cord = job.hands.felt.get("cord", "")
    told = [*(mended or bad), *([f"cord {cord}"] if cord not in ("", "none") else [])]
    words = ", ".join(told) or ("fine" if states else "")
    codes = ("lead-mended", "cord", "relief", "seen-leads")
    yield _place(
        "leads", "Leads, cord", words, codes, findings, renewed=bool(mended), part="lead-insulation"
    )


def _contacts(job: Job, kinds: Weighed, findings: Sequence[Finding]) -> Iterator[Place]:
    """Yield brushes and commutator, where it has them."""
    hands = job.hands
    if _brushes(job, kinds) or _likely(kinds, RINGS):
        told = [
            f"{name} {b.get('length', '')}{' mm' if b.get('length') else ''}".strip()
            for name, b in hands.brushes.items()
        ]
        renewed = any(b.get("done") == RENEWED for b in hands.brushes.values())
        yield _place(
            "brushes",
            "Brushes",
            ", ".join(told),
            ("brush",),
            findings,
            renewed=renewed,
            part="brushes",
        )
    if _brushes(job, kinds) or hands.bars:
        words = f"{len(hands.ohms)} of {hands.bars} bars read" if hands.bars else ""
        codes = ("bars", "bars-shaft")
        yield _place("commutator", "Commutator", words, codes, findings, part="bars")


def _elsewhere(job: Job, kinds: Weighed, findings: Sequence[Finding]) -> Iterator[Place]:
    """Yield what stands in the drawing and is looked at elsewhere."""
    if _switch(job, kinds):
        own = [n for n, d in job.gear.devices.items() if d == "speed-switch"]
        codes = ("device",)
        mine = [f for f in findings if f.code in codes and any(n in f.subject.split() for n in own)]
        place = _place("switch", "Switch", "at Start gear", codes, mine)
        yield _at(place, "start-gear", "device")
    place = _place(
        "earth", "Earth", "at Insulation", ("earth-bond", "bond", "seen-earth"), findings
    )
    yield _at(place, "insulation", "bond")


def _at(place: Place, station: Station, part: str) -> Place:
    return Place(
        name=place.name,
        title=place.title,
        words=place.words,
        mark="note" if place.mark == "unproven" else place.mark,
        station=station,
        part=part,
    )


def _place(
    name: str,
    title: str,
    words: str,
    codes: Collection[str],
    findings: Sequence[Finding],
    *,
    renewed: bool = False,
    part: str = "",
) -> Place:
    """Return a place: its mark is its worst finding's, good where something was said and nothing found."""
    own = [f for f in findings if f.code in codes]
    worst = min((f.verdict for f in own), key=WORST.index, default=None)
    mark: Verdict = worst if worst is not None else "good" if words else "unproven"
    return Place(
        name=name, title=title, words=words or NOT_JUDGED, mark=mark, renewed=renewed, part=part
    )


def _number(told: Mapping[str, str]) -> str:
    return "sleeve" if told.get("sort") == "sleeve" else told.get("number", "")


def _likely(kinds: Weighed, names: Collection[str]) -> bool:
    return kinds.chance(names) >= 0.5


def _brushes(job: Job, kinds: Weighed) -> bool:
    return has_brushes(kinds) or bool(job.hands.brushes)


def _switch(job: Job, kinds: Weighed) -> bool:
    return "speed-switch" in job.gear.devices.values() or kinds.chance(SWITCHED) >= LEAST_ODDS
