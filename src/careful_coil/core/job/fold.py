"""The log folded into a job. Never raises: what cannot be applied is left out and remarked."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from careful_coil.core.errors import CoilError
from careful_coil.core.job.at_intake import LOOSE, FoundHookup, Lead
from careful_coil.core.job.at_release import FollowsUp, LetGo
from careful_coil.core.job.deeds import Deeds, notice_deeds
from careful_coil.core.job.entries import Attested, Entry, MeterUsed, ReadingTaken, Supply, Waived
from careful_coil.core.job.gear import Gear, notice_gear
from careful_coil.core.job.hands import Hands, notice_hands
from careful_coil.core.job.joined import Joined, notice_joined
from careful_coil.core.job.noted import Noted
from careful_coil.core.job.notes import Notes
from careful_coil.core.job.plate import Nameplate, nameplate
from careful_coil.core.job.seen import Seen, notice, seen_notes
from careful_coil.core.job.swapped import changed_over
from careful_coil.core.job.tested import Tested, notice_test
from careful_coil.core.job.trials import Trials, notice_trial
from careful_coil.core.job.voids import VOIDS
from careful_coil.core.readings import (
    PLAIN_METER,
    AnyReading,
    Frame,
    Meter,
    Resistance,
    check_reading,
)
from careful_coil.core.stations import Station


@dataclass(frozen=True, slots=True, kw_only=True)
class Taken:
    """A reading that counts, with the entry it came from."""

    entry: str
    reading: AnyReading
    temperature_c: float | None
    place: int = -1  # in the log


@dataclass(frozen=True, slots=True, kw_only=True)
class Job:
    """Everything the log says about one motor. Tuples keep the order of the log."""

    ticket: dict[str, str]
    plate: Nameplate
    leads: tuple[Lead, ...] = ()
    meter: Meter = PLAIN_METER
    readings: tuple[Taken, ...] = ()
    known: tuple[tuple[str, str], ...] = ()  # tag, its role on somebody's word
    dead_proved: Entry | None = None
    tested: Tested = field(default_factory=Tested)  # what Insulation tested
    gear: Gear = field(default_factory=Gear)  # what Start gear saw
    hands: Hands = field(default_factory=Hands)  # what Mechanics found
    winding: Mapping[str, str] = field(default_factory=dict)  # data of the winding by field
    found: FoundHookup | None = None
    supply: Supply | None = None
    supply_by: str = ""  # who said or read it
    joined: Joined = field(default_factory=Joined)  # what Connect did
    line_ohms: dict[str, float | str] | None = None
    trials: Trials = field(default_factory=Trials)  # sheets of test runs
    attested: dict[str, Attested] | None = None
    seen: Seen = field(default_factory=Seen)  # what Intake saw
    sums: tuple[tuple[str, str], ...] = ()  # bench sums logged: name, what they gave
    waived: dict[str, Waived] | None = None
    waivers: Mapping[str, Entry] = field(default_factory=dict)  # the entries of these
    let_go: LetGo | None = None  # it leaves unrepaired, or as scrap
    on_site: bool = False
    placed: bool = False  # it was said where the work is done
    site: Mapping[str, str] = field(default_factory=dict)  # the site's own list, by item
    follows: FollowsUp | None = None  # the job this complaint follows
    released: Entry | None = None
    struck: frozenset[str] = frozenset()
    notes: Notes = field(default_factory=Notes, compare=False)  # what was noted in declared fields
    deeds: Deeds = field(default_factory=Deeds)  # what was done to it, and what that voids
    before: tuple[Taken, ...] = ()  # readings of a winding that is gone: history
    meter_used: MeterUsed | None = None  # as it was logged last
    log: tuple[Entry, ...] = field(default=(), compare=False, repr=False)  # as written
    remarks: tuple[str, ...] = ()
    exchanged: tuple[str, ...] = ()  # what went over with tags that were on each other's leads

    def noted(self, sheet: str, of: str = "") -> Mapping[str, str]:
        """Return what is noted of a sheet, or of one of its items, as it stands now."""
        if sheet == "capacitor":
            return self.gear.capacitors.get(of, {})
        if sheet == "device-noted":
            return {f: t for (name, f), t in self.gear.noted.items() if name == of}
        return self.notes.of(sheet, of)

    @property
    def loose(self) -> bool:
        """Whether it is leads alone, that nobody has made a job of by a name."""
        return self.ticket.get("name") == LOOSE

    @property
    def name(self) -> str:
        """What the rack calls it."""
        return self.ticket.get("name", "") or "Motor without a name"

    @property
    def work(self) -> tuple[str, ...]:
        """What was done to the winding, in order."""
        return tuple(w.body.what for w in self.tested.works)

    @property
    def joints(self) -> tuple[tuple[str, ...], ...]:
        """Joints made at Connect that still stand, by tag and line, in order."""
        return self.joined.made

    @property
    def tags(self) -> tuple[str, ...]:
        """Tags of the leads, in order."""
        return tuple(lead.tag for lead in self.leads)

    def word(self, item: str, *facts: str) -> Attested | None:
        """Return what was attested of an item, while nothing was done since that voids one of the facts."""
        told = (self.attested or {}).get(item)
        stands = all(self.deeds.stands(f, f"attested:{item}") for f in facts)
        return told if stands else None


@dataclass(frozen=True, slots=True)
class Fold:
    """A station's part of a job: what it is called, begins as, and is after one more entry at a place."""

    part: str
    begins: Callable[[], Any]
    notice: Callable[[Any, Entry, int], Any]


FOLDS: Mapping[Station, Fold] = {
    "insulation": Fold("tested", Tested, notice_test),
    "start-gear": Fold("gear", Gear, lambda gear, entry, _: notice_gear(gear, entry.said)),
    "mechanics": Fold("hands", Hands, lambda hands, entry, _: notice_hands(hands, entry)),
    "connect": Fold("joined", Joined, lambda joined, entry, _: notice_joined(joined, entry)),
    "test-run": Fold("trials", Trials, notice_trial),
}


def live(entries: Iterable[Entry]) -> tuple[list[Entry], frozenset[str]]:
    """Return the entries that count and the ids of those struck. A strike may itself be struck."""
    entries = list(entries)
    gone: set[str] = set()
    for entry in reversed(entries):
        if entry.body.kind == "struck" and entry.id not in gone:
            gone.add(entry.body.target)
    return [e for e in entries if e.id not in gone], frozenset(gone)


def fold(entries: Iterable[Entry]) -> Job:
    """Return the job that a log describes."""
    return Folding().job(entries)


REACHES_BACK = ("struck", "tags-swapped")  # kinds that change what was said before them


class Folding:
    """A log that grows, folded as far as it is known: what comes behind costs no more than itself.

    Jobs it gave out before stay as they are.
    """

    def __init__(self) -> None:
        self._log: tuple[Entry, ...] = ()
        self._begin(())

    def job(self, entries: Iterable[Entry]) -> Job:
        """Return the job of a log; one that goes on behind the last is folded on from there."""
        entries = tuple(entries)
        known = len(self._log)
        goes_on = known <= len(entries) and (not known or entries[known - 1] is self._log[-1])
        fresh = entries[known:] if goes_on else ()
        if not goes_on or any(e.body.kind in REACHES_BACK for e in fresh):
            self._begin(entries)
        else:
            for entry in fresh:
                self._state.put(entry)
        self._log = entries
        return self._state.made(entries, self._struck, self._exchanged)

    def _begin(self, entries: tuple[Entry, ...]) -> None:
        alive, self._struck = live(entries)
        counted, self._exchanged = changed_over(alive)
        self._state = _State()
        for entry in counted:
            self._state.put(entry)


class _State:
    """What the entries so far come to, one after the other."""

    def __init__(self) -> None:
        self.place = -1
        self.notes = Notes()
        self.newest: dict[str, Any] = {}  # fields of the job that the newest entry of a kind tells
        self.readings = Readings()
        self.known: dict[str, str] = {}
        self.line_ohms: dict[str, float | str] = {}
        self.attested: dict[str, Attested] = {}
        self.waived: dict[str, Waived] = {}
        self.waivers: dict[str, Entry] = {}
        self.seen = Seen()
        self.parts: dict[str, Any] = {f.part: f.begins() for f in FOLDS.values()}
        self.sums: list[tuple[str, str]] = []
        self.leads: tuple[Lead, ...] = ()
        self.deeds = Deeds()
        self.gone: list[Taken] = []

    def put(self, entry: Entry) -> None:
        """Take one more entry that counts."""
        self.place += 1
        if self.deeds.late(entry):
            return
        body, place = entry.said, self.place
        self.deeds, done = notice_deeds(self.deeds, entry, place)
        for fold_of in FOLDS.values():
            self.parts[fold_of.part] = fold_of.notice(self.parts[fold_of.part], entry, place)
        if isinstance(body, Noted):
            self.notes.put(body)
        if done:
            self._void({f for d in done for f in VOIDS[d.kind].again})
        self._take(entry, body)

    def _void(self, facts: set[str]) -> None:
        self.parts["joined"] = self.parts["joined"].without(facts)
        if "readings" in facts:
            self.gone += self.readings.every
            self.readings, self.known = Readings(), {}
            self.leads = tuple(x.model_copy(update={"marking": ""}) for x in self.leads)
        if "line-ohms" in facts:
            self.line_ohms = {}

    def _take(self, entry: Entry, body: Any) -> None:
        match body.kind:
            case "sum":
                self.sums.append((body.name, body.words))
            case "leads":
                self.leads = body.leads
            case "meter":
                self.newest["meter"], self.newest["meter_used"] = _meter(body), body
            case "reading":
                self.readings.put(_taken(entry, body, self.place))
            case "role-known":
                self.known[body.tag] = body.role
            case "reading-moved":
                self.readings.move(body.target, body.between)
            case "proved-dead":
                self.newest["dead_proved"] = entry
            case "low-run" | "lead-clamped" | "turn-seen" | "trial-step" | "trial-start":
                # it had volts: charged again, to be proved again
                self.newest.pop("dead_proved", None)
            case "found-hookup":
                self.newest["found"] = body
            case "supply":
                self.newest["supply"], self.newest["supply_by"] = body, entry.by
            case "line-ohm":
                self.line_ohms["-".join(sorted(body.lines))] = body.value
            case "attested":
                self.attested[body.item] = body
            case "let-go":
                self.newest["let_go"] = body if body.how else None
            case "on-site":
                self.newest["on_site"], self.newest["placed"] = body.on, True
            case "follows-up":
                self.newest["follows"] = body
            case "waived":
                self.waived[body.code] = body
                self.waivers[body.code] = entry
            case "released":
                self.newest["released"] = entry
            case "struck" | "tags-swapped":
                pass
            case _:
                self.seen = notice(self.seen, body)

    def made(
        self, entries: tuple[Entry, ...], struck: frozenset[str], exchanged: tuple[str, ...]
    ) -> Job:
        """Return the job as it stands; nothing that comes later changes it."""
        kept, remarks = self.readings.usable(tuple(lead.tag for lead in self.leads))
        notes, parts = self.notes.copy(), self.parts
        return Job(
            ticket=notes.of("ticket"),
            plate=nameplate(notes.of("plate")),
            leads=self.leads,
            readings=kept,
            known=tuple(sorted((t, r) for t, r in self.known.items() if r)),
            tested=replace(parts["tested"], made=notes.of("winding-made")),
            gear=parts["gear"],
            hands=replace(
                parts["hands"],
                felt=notes.of("felt"),
                bearings=notes.items("bearing"),
                brushes=notes.items("brush"),
            ),
            winding=notes.of("winding-noted"),
            joined=replace(parts["joined"], wish=notes.of("wished")),
            trials=parts["trials"],
            site=notes.of("site-checked"),
            line_ohms=dict(self.line_ohms),
            attested=dict(self.attested),
            waived=dict(self.waived),
            waivers=dict(self.waivers),
            struck=struck,
            deeds=self.deeds,
            before=tuple(self.gone),
            log=entries,
            remarks=remarks,
            exchanged=exchanged,
            seen=seen_notes(self.seen, notes),
            sums=tuple(self.sums),
            notes=notes,
            **self.newest,
        )


class Readings:
    """Readings of the winding as they stand, and which of them can be used with the leads there are."""

    def __init__(self) -> None:
        self.every: list[Taken] = []
        self._at: dict[str, int] = {}  # where the reading of an entry stands
        self._tags: tuple[str, ...] = ()
        self._kept: list[Taken] = []
        self._remarks: list[str] = []
        self._checked = 0

    def put(self, taken: Taken) -> None:
        """Take one more."""
        self._at[taken.entry] = len(self.every)
        self.every.append(taken)

    def move(self, target: str, between: tuple[str, str]) -> None:
        """Move one to another pair."""
        if (k := self._at.get(target)) is not None:
            self.every[k] = _moved(self.every[k], between)
            self._checked = 0

    def usable(self, tags: tuple[str, ...]) -> tuple[tuple[Taken, ...], tuple[str, ...]]:
        """Leave out readings that name leads the motor has not, or no usable figure, and say so."""
        if tags != self._tags or not self._checked:
            self._tags, self._kept, self._remarks, self._checked = tags, [], [], 0
        for taken in self.every[self._checked :]:
            try:
                check_reading(taken.reading, tags, taken.reading.kind)
            except CoilError as error:
                if tags:
                    self._remarks.append(f"A reading is left out. {error}")
                continue
            self._kept.append(taken)
        self._checked = len(self.every)
        return tuple(self._kept), tuple(self._remarks)


def _meter(body: MeterUsed) -> Meter:
    return Meter(
        accuracy_percent=body.accuracy_percent,
        resolution_ohm=body.resolution_ohm,
        open_above_ohm=body.open_above_ohm,
        lead_ohm=body.lead_ohm,
    )


def _taken(entry: Entry, body: ReadingTaken, place: int) -> Taken:
    return Taken(
        entry=entry.id, reading=body.reading, temperature_c=body.temperature_c, place=place
    )


def _moved(taken: Taken, between: tuple[str, str]) -> Taken:
    if not isinstance(taken.reading, Resistance):
        return taken
    reading = taken.reading.model_copy(update={"between": between})
    return replace(taken, reading=reading)


def reading_of(job: Job, a: str, b: str) -> Taken | None:
    """Return the newest reading of ohms between two tags."""
    for taken in reversed(job.readings):
        if isinstance(taken.reading, Resistance) and set(taken.reading.pair() or ()) == {a, b}:
            return taken
    return None


def frame_of(job: Job, tag: str) -> Taken | None:
    """Return the newest reading of a lead to the frame."""
    for taken in reversed(job.readings):
        if isinstance(taken.reading, Frame) and taken.reading.lead == tag:
            return taken
    return None
