"""The desk's model: which job is open, what is recorded of it, what the probes are on."""

import time
import uuid
from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import UTC, datetime
from pathlib import Path
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import Signal

from careful_coil.core.probes.probe import Request, TestSetting
from careful_coil.core.settings import Settings
from careful_coil.core.stations import Station
from careful_coil.desk.asking import Asking, Done, Failed
from careful_coil.desk.beside import Beside
from careful_coil.desk.clock import TestClock
from careful_coil.desk.open_job import OpenJob, Record
from careful_coil.desk.signing import Signing
from careful_coil.records import RecordsThread, Summary
from careful_coil.records.summary import RELEASED, SIGNED_ELSEWHERE, place_of

if TYPE_CHECKING:
    from careful_coil.bench import Instrument
    from careful_coil.core.connect.dead import AtBench
    from careful_coil.core.job import AnyBody, Entry, Job
    from careful_coil.core.ledger import Judgement
    from careful_coil.core.ledger.asks import Question
    from careful_coil.records.rack import OnRack
    from careful_coil.records.rows import Log

InstrumentFor = Callable[[str, int, "Job"], "Instrument | None"]
SHOWN_AT_ONCE = 200  # jobs that the rack shows before it has the rest
USUAL_VOLT = 500.0  # of an insulation test, while nothing says more


class Session(Asking):
    """Everything the window shows, and the only way it changes anything."""

    jobs_changed = Signal()  # the whole rack
    job_ranked = Signal(object, object)  # one of it: its summary before, or None, and now
    job_opened = Signal()  # another one: before it is shown
    job_changed = Signal()
    station_wanted = Signal(str, str)  # station, field to put the cursor in
    target_changed = Signal()
    strip_wanted = Signal()
    answered = Signal(str)  # a test's word, chosen by pointer
    entered = Signal()  # before it is judged
    next_wanted = Signal()
    settings_changed = Signal()
    alarm = Signal(str)  # a stop rule: seen from across the shop
    who_wanted = Signal()  # something waits for the initials of who is at the bench
    landed = Signal(bool)  # entries reached the disk, or were refused

    def __init__(
        self,
        records: RecordsThread,
        settings: Settings,
        clock: Callable[[], datetime],
        instrument_for: InstrumentFor | None,
        shop: Path,
    ) -> None:
        super().__init__(records)
        self.shop = shop  # its folder: photographs, settings, sheets
        self.settings, self._clock, self._instrument_for = settings, clock, instrument_for
        self.summaries: list[Summary] = []
        self._by_id = dict[str, Summary]()
        self.known = False  # whether the records have said what is in the shop
        self.open: OpenJob | None = None
        self.bound: OpenJob | None = None  # the motor the meter's probes are on
        self.station: Station = "intake"
        self.who, self.asks_who = "", True  # asked once, at the first entry
        self.held = list[Callable[[], None]]()  # what is recorded once that is told
        self._under = {"": TestSetting(volt=0.0)}  # by job what its tests are made under, as typed
        self.clock = TestClock(self, time.monotonic)
        self.picked: Request | None = None
        self.sweep = ""  # a lead pinned: it is read against every other in turn
        self._back = True  # whether somebody returns to the motor that is opened
        self._coming = ""  # the job that is to be on the bench
        self._wanted_field = ""  # where the cursor goes once a new job is on the bench
        self.flying = 0  # values on their way to disk
        self.beside, self.signing = Beside(self), Signing(shop)
        self.offered: Callable[[], None] | None = None  # an import that waits for a word

    # --- rack -----------------------------------------------------------------------------------

    def fill(self, id: str = "") -> None:
        """Fill the rack anew; open a job, the first where none is named and none is open."""

        def begun(found: "OnRack") -> None:
            if found.whole or not self.known:
                self.filled(found.summaries)
            if id or (found.summaries and self.open is None and not self._coming):
                self.open_job(id or found.summaries[0].id, back=not id)
            if found.whole:
                self.beside.catch_up()
            else:  # a shop of very many: the rest once the first is on its way
                self.ask(lambda s: s.rack.every(), every)

        def every(summaries: list[Summary]) -> None:
            self.filled(summaries)
            self.beside.catch_up()

        self.ask(lambda s: s.rack.first(SHOWN_AT_ONCE), begun)

    def filled(self, summaries: list[Summary]) -> None:
        """Show these on the rack; they may have been read before the open motor was judged."""
        own = self._by_id.get(self.open.id) if self.open is not None else None
        self.summaries, self.known = summaries, True
        self._by_id = {s.id: s for s in summaries}
        self.jobs_changed.emit()
        if own is not None and own.id in self._by_id:
            self.ranked(own)

    def ranked(self, summary: Summary) -> None:
        """Put one job where it stands on the rack now; one that came in signed stays so."""
        old = self._by_id.get(summary.id)
        if old is not None:
            if old.seq > summary.seq:
                return  # what is shown is of a later log
            if (old.state, summary.state) == (SIGNED_ELSEWHERE, RELEASED):
                summary = replace(summary, state=SIGNED_ELSEWHERE)
            if old == summary:
                return
            del self.summaries[place_of(self.summaries, old)]
        self.summaries.insert(place_of(self.summaries, summary), summary)
        self._by_id[summary.id] = summary
        self.job_ranked.emit(old, summary)

    def open_job(self, id: str, back: bool = True) -> None:
        """Put another job on the bench. The meter stays on the motor it is on; `back`: somebody returns to it."""
        self._back, self._coming = back, id
        number = self._by_id[id].number if id in self._by_id else 0

        def read(log: "Log") -> None:
            if log.damaged:
                self.told.emit(f"Job {number} is damaged, shown without: {log.damaged[0]}.", "hold")
            self._judge(id, number, Record(log.entries, log.seq, log.damaged), set())

        def stays(_: str) -> None:
            self._coming = self.open.id if self.open is not None else ""

        self.ask(lambda s: s.log_of(id), read, stays)

    def show(self, id: str, number: int, record: Record) -> None:
        """Put a job on the bench whose log is read already."""
        self._back, self._coming = True, id
        self._judge(id, number, record, set())

    def entries_of(self, id: str, told: "Callable[[list[Entry]], Any]", done: Done) -> None:
        """Read another job's log; `told` is worked out of it aside, `done` gets that here."""

        def read(entries: "list[Entry]") -> None:
            self.judging(lambda: told(entries), done)

        self.ask(lambda s: s.entries_of(id), read)

    def new_job(self, loose: bool = False) -> None:
        """Start a job; a loose one goes straight to its leads."""
        from careful_coil.core.job.at_intake import LOOSE, FoundHookup
        from careful_coil.core.job.noted import note

        apart = (note("ticket", "name", LOOSE), FoundHookup(joints=()))
        first = apart if loose else ()
        self.start_job(first, "leads" if loose else "intake", "count" if loose else "name")

    def start_job(self, bodies: "Sequence[AnyBody]", station: Station, field: str) -> None:
        """Start a job with its first entries, at a station, the cursor in a field."""
        from careful_coil.desk.recording import entry_of

        id = str(uuid.uuid4())
        first = [entry_of(self, b, station) for b in bodies]
        self.station = station

        def made(number: int) -> None:
            self._wanted_field, self._coming = field, id
            self._judge(id, number, Record(first, len(first)), set())

        self.ask(lambda s: s.open_job(id, first), made)

    # --- log ------------------------------------------------------------------------------------

    def record(
        self,
        *bodies: "AnyBody",
        station: Station | None = None,
        failed: Failed | None = None,
        into: "OpenJob | None" = None,
    ) -> None:
        """Append entries to the open job, or `into` another; `failed` gets the reason why none was recorded."""
        from careful_coil.desk.recording import record, waits_for_initials

        at = station or self.station
        if not waits_for_initials(self, bodies, at, failed, into):
            record(self, bodies, at, failed, into)

    def named(self, initials: str) -> None:
        """Take who is at the bench; what waited for it is recorded now."""
        self.who, self.asks_who = initials, False
        held, self.held = self.held, []
        for go_on in held:
            go_on()

    def judge_anew(self) -> None:
        """Judge the open job as its log stands now."""
        job = self.open
        if job is not None:
            self._judge(job.id, job.number, job.record, job.not_here)

    def strike_last(self) -> None:
        """Undo: strike the newest entry that still counts."""
        from careful_coil.desk.recording import strike

        strike(self, lambda e: e.body.kind != "struck", "Nothing to strike.")

    def strike_back(self) -> None:
        """Redo: strike the newest strike."""
        from careful_coil.desk.recording import strike

        strike(self, lambda e: e.body.kind == "struck", "No strike to take back.")

    def _judge(self, id: str, number: int, record: Record, not_here: set[str]) -> None:
        log, seq, settings = list(record.entries), record.seq, self.settings
        bench = self.at_bench

        def judged_now() -> "tuple[Judgement, Summary]":
            # every rule: loaded where it holds nobody up
            from careful_coil.core.job.fold import Folding
            from careful_coil.core.ledger import judge
            from careful_coil.records.summarise import summary_of

            record.folding = record.folding or Folding()
            judged = judge(record.folding.job(log), settings, frozenset(not_here), bench)
            return judged, summary_of(id, number, judged, seq, settings)

        def answered(found: "tuple[Judgement, Summary]") -> None:
            if len(log) == len(record.entries):  # else a later entry has overtaken it
                self._judged(id, number, record, not_here, *found)

        self.judging(judged_now, answered)

    def _judged(
        self,
        id: str,
        number: int,
        record: Record,
        not_here: set[str],
        judged: "Judgement",
        summary: Summary,
    ) -> None:
        self.ranked(summary)
        self.ask(lambda s: s.rack.save(summary), lambda _: None)
        if id != self._coming:
            return  # another job was opened since it was asked
        old = self.open
        same = old is not None and old.id == id
        instrument = old.instrument if same and old is not None else None
        self.open = OpenJob(id, number, record, judged, instrument, not_here)
        if instrument is None:  # it may follow the leads that are known since
            self._find_instrument(id, number, judged.job)
        if self.bound is None or self.bound.id == id or self.bound.instrument is None:
            self.bound = self.open  # what is typed is of the motor on the bench
        if not same:
            self.picked, self.sweep = None, ""
            self.job_opened.emit()
        self.job_changed.emit()
        self.target_changed.emit()
        if not same and self._back:
            self.where(self.now())
        if self._wanted_field:
            field, self._wanted_field = self._wanted_field, ""
            self.station_wanted.emit(self.station, field)

    def _find_instrument(self, id: str, number: int, job: "Job") -> None:
        """Look for the instrument of a motor aside: the motor is shown meanwhile, and its values are typed."""

        def found(instrument: "Instrument | None") -> None:
            if instrument is None:
                return
            for one in (self.open, self.bound):
                if one is not None and one.id == id:
                    one.instrument = one.instrument or instrument
            self.target_changed.emit()

        look = self._instrument_for
        if look is not None:
            self.aside(lambda: look(id, number, job), found)

    def by_the_clock(self) -> None:
        """Judge the open motor anew where the proof of no volts has lapsed since it was last judged."""
        job = self.open
        if job is None:
            return
        from careful_coil.core.connect.dead import lapsed

        now = bool(lapsed(job.judged.job, self.at_bench, self.settings))
        if now != bool(lapsed(job.judged.job, job.judged.facts.bench, self.settings)):
            self.judge_anew()

    @property
    def at_bench(self) -> "AtBench":
        """The time, and whose hands."""
        from careful_coil.core.connect.dead import AtBench

        return AtBench(self.now(), self.who)

    @property
    def today(self) -> str:
        """The day, as it is printed on a card."""
        return self.now()[:10]

    @property
    def minute(self) -> str:
        """The time of day, as a file is named."""
        return self.now()[11:19].replace(":", "")

    def now(self) -> str:
        """Return the time in UTC, as it is logged."""
        return self._clock().astimezone(UTC).strftime("%Y-%m-%dT%H:%M:%S.%fZ")

    def where(self, now: str = "") -> None:
        """Say how the open motor was left; `now` only where somebody was away since."""
        from careful_coil.core.ledger.where import where_was_i

        words = where_was_i(self.open.judged, now) if self.open is not None else ""
        if words or not now:
            self.told.emit(words or "Nothing is open on this motor.", "note")

    def not_here(self) -> None:
        """Put the next step off and bring the next best."""
        job = self.open
        if job is None or job.judged.next is None:
            return
        job.not_here.add(job.judged.next.code)
        self.picked = None
        self.judge_anew()

    def bring_back(self) -> None:
        """Take all steps put off back in."""
        if self.open is not None:
            self.open.not_here.clear()
            self.judge_anew()

    # --- meter ----------------------------------------------------------------------------------

    def bind(self) -> None:
        """Move the meter to the open job's motor."""
        self.bound = self.open
        self.target_changed.emit()

    @property
    def under(self) -> TestSetting:
        """What tests of the open job are made under as typed; volts 0: the lowest its rating asks for."""
        return self._under.get(self.open.id if self.open else "", self._under[""])

    def put_under(self, **told: Any) -> None:
        """Type what tests of the open job are made under; with none open: of every job that says nothing."""
        self._under[self.open.id if self.open else ""] = replace(self.under, **told)

    @property
    def setting(self) -> TestSetting:
        """What a test is made under now."""
        if self.under.volt:
            return self.under
        span = self.open.judged.facts.wall.test_volts() if self.open else None
        return replace(self.under, volt=span[0] if span else USUAL_VOLT)

    @property
    def elsewhere(self) -> bool:
        """Whether the meter is on another motor than the one on the bench."""
        return self.open is not None and self.bound is not None and self.bound.id != self.open.id

    @property
    def target(self) -> Request | None:
        """What the probes should be on: picked by hand, or what comes next."""
        if self.picked is not None or self.open is None:
            return self.picked
        from careful_coil.core.ledger.targets import swept, wanted

        return swept(self.open.judged, self.sweep) or wanted(self.open.judged)

    @property
    def question(self) -> "Question | None":
        """What Next asks the strip for; None where the probes were put elsewhere by hand."""
        step = self.open.judged.next if self.open else None
        by_hand = self.picked is not None or bool(self.sweep)
        asks = step.asks if step is not None and not by_hand else ()
        return next((q for q in asks if q.reader == "strip"), None)

    def sweep_from(self, tag: str) -> None:
        """Pin one probe to a lead and run down its row; an empty tag lets go."""
        self.sweep, self.picked = tag, None
        self.target_changed.emit()

    def pick(self, target: Request | None) -> None:
        """Choose what the probes are on, whatever was suggested."""
        self.picked = target
        self.target_changed.emit()
