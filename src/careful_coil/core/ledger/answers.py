"""An answer to what Next asks, as the entries it becomes: one reader for each kind of field."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from careful_coil.core.choices import one_of
from careful_coil.core.condition.answered import first_answer
from careful_coil.core.condition.wall_rules import discharge_seconds
from careful_coil.core.connect.dead import AtBench
from careful_coil.core.connect.rotation import read_turn
from careful_coil.core.connect.standard import read_found_or_number
from careful_coil.core.connect.typed import read_supply
from careful_coil.core.errors import BadValue
from careful_coil.core.gear.device_rules import told_of
from careful_coil.core.gear.typed import read_inventory, reading_typed
from careful_coil.core.job import AnyBody
from careful_coil.core.job.at_connect import Installer, StepTicked, SupplyRead
from careful_coil.core.job.at_insulation import Discharged, DryingRun, TestReady
from careful_coil.core.job.at_mechanics import Commutator, PartOff, Temporary
from careful_coil.core.job.at_release import read_place
from careful_coil.core.job.at_start_gear import GearStep
from careful_coil.core.job.at_trial import TrialBegun, TrialReady
from careful_coil.core.job.entries import ProvedDead
from careful_coil.core.job.lead_words import counted
from careful_coil.core.job.meter_words import leads_clipped
from careful_coil.core.job.noted import note
from careful_coil.core.ledger.acts import ACTS
from careful_coil.core.ledger.admission import Asking
from careful_coil.core.ledger.asks.question import Question
from careful_coil.core.ledger.at_stations import why_not
from careful_coil.core.ledger.entry_line import said_of, split
from careful_coil.core.ledger.judgement import Judgement
from careful_coil.core.ledger.leaving import read_let_go, read_signature
from careful_coil.core.ledger.site import field_sheet
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.ledger.take import Taking, taken_each
from careful_coil.core.ledger.targets import wanted
from careful_coil.core.ledger.written import written
from careful_coil.core.mechanics.typed import bars_count, left_on, read_mended
from careful_coil.core.probes import PROBES
from careful_coil.core.probes.probe import TestSetting
from careful_coil.core.run.supply import read_three
from careful_coil.core.settings import Settings
from careful_coil.core.stations import Station
from careful_coil.core.trial.begin import ready_items, speeds_of
from careful_coil.core.trial.rules import speed_next
from careful_coil.core.trial.typed import sheet_of
from careful_coil.core.trial.whole import since_last_run

Bodies = Sequence[AnyBody]
LINES_WANTED = "volts between lines: 462, or three such as 461/459/463"


@dataclass(frozen=True, slots=True, kw_only=True)
class Hands:
    """Who is at the bench and when, what is carried through the session: the winding's °C, test volts."""

    who: str
    now: str
    setting: TestSetting
    settings: Settings


@dataclass(frozen=True, slots=True, kw_only=True)
class Answer:
    """One answer: the judgement and step it belongs to, what was asked, the text, whose hands."""

    judged: Judgement
    step: NextStep
    question: Question
    text: str
    hands: Hands


Reader = Callable[[Answer], Bodies]


def read_answer(answer: Answer) -> tuple[Bodies, Station]:
    """Return the entries an answer becomes, and the station they are logged at.

    Raises: BadValue, AmbiguousValue with what would be accepted; BadValue where nothing takes an answer.
    """
    reader = READERS.get(answer.question.reader)
    if reader is None:
        raise BadValue(answer.text, "nothing here: no field takes it")
    station = answer.step.station
    if answer.question.reader == "strip":
        station = PROBES[answer.step.act].station
    if answer.question.reader == "first-question":
        station = "intake"
    bodies = reader(answer)
    hands = answer.hands
    bench = AtBench(hands.now, hands.who)
    why = why_not(Asking(answer.judged, bench, hands.settings), bodies)
    if why:
        raise BadValue(answer.step.title, "what comes first", why)
    return bodies, station


def _ticks(answer: Answer) -> tuple[str, ...]:
    """Return the items ticked: all of them, or the one named. Raises: BadValue for any other."""
    items, told = answer.question.choices, answer.text.strip()
    if told in ("", "all"):
        return items
    if told not in items:
        raise BadValue(answer.text, f"all, or one of: {', '.join(items)}")
    return (told,)


def _no_initials(answer: Answer) -> None:
    if not answer.hands.who:
        raise BadValue("no initials", "initials at the foot of the rack: it is logged under them")


def _strip(answer: Answer) -> Bodies:
    hands, judged = answer.hands, answer.judged
    typed = split(answer.text, wanted(judged), judged.job.tags)
    at = Taking(judged=judged, settings=hands.settings, setting=hands.setting, now=hands.now)
    return taken_each(typed, at)


def _act(answer: Answer) -> Bodies:
    return (ACTS[answer.step.act](answer.judged, answer.step),)


def _discharge(answer: Answer) -> Bodies:
    charged = answer.judged.job.tested.charged()
    if charged is None:
        raise BadValue("no test", "a test whose charge is still on the winding")
    return (Discharged(seconds=discharge_seconds(charged.body)),)


def _ready(answer: Answer) -> Bodies:
    if answer.hands.setting.at_c is None:
        raise BadValue("no temperature", "the winding's °C first: the figure is corrected by it")
    return (TestReady(items=_ticks(answer), volt=answer.hands.setting.volt),)


def _trial_begin(answer: Answer) -> Bodies:
    judged = answer.judged
    speed = speed_next(judged.job, judged.facts.start_way, judged.facts.connecting) or ""
    speed, turns = sheet_of(speed, speeds_of(judged.facts.connecting))
    told = {"covers": answer.question.id.removeprefix("covers-"), "speed": speed}
    done = ", ".join(since_last_run(judged.job))
    return (TrialBegun.model_validate({**told, "direction": turns, "since": done}),)


def _trial_ready(answer: Answer) -> Bodies:
    items = ready_items(
        answer.judged.job, answer.judged.facts.connecting, answer.judged.facts.start_way
    )
    return (TrialReady(items=tuple(i.name for i in items)),)


def _noted(answer: Answer) -> Bodies:
    """Return what a declared field becomes; work that somebody did is under his initials where none are typed."""
    asked, text = answer.question, answer.text.strip()
    if asked.quantity == "work" and not text and not asked.choices:
        text = answer.hands.who
        if not text:
            raise BadValue(answer.text, "by whom: initials, or the part that was fitted")
    job = answer.judged.job
    return tuple(written(asked.sheet, asked.field, text, job, asked.of, asked.choices))


def _named(answer: Answer) -> str:
    return answer.question.part.partition(":")[2]


def _device_ohm(answer: Answer) -> Bodies:
    judged, name = answer.judged, _named(answer)
    told = told_of(judged.job.gear, name, answer.hands.settings, judged.job.plate)
    left = [t.expected for t in told if t.verdict == "unproven" and t.expected]
    if not left:
        raise BadValue(answer.text, "a device that still has a reading to give")
    return reading_typed(name, left, answer.text)


def _inventory(answer: Answer) -> Bodies:
    """Return capacitors and devices as listed: `C1 25 µF 450 V; S1 centrifugal switch`."""
    job = answer.judged.job
    return read_inventory(answer.text, job.gear, job.plate.printed("capacitor"))


def _first_question(answer: Answer) -> Bodies:
    word = one_of(answer.text, answer.question.choices)
    return first_answer(answer.question.ends[0], word)


def _look(answer: Answer) -> Bodies:
    word = one_of(answer.text, answer.question.choices)
    return (note("look", answer.question.ends[0], word),)


def _cause_test(answer: Answer) -> Bodies:
    word = one_of(answer.text, answer.question.choices)
    return (note("cause-tested", answer.question.ends[0], word),)


def _cause(answer: Answer) -> Bodies:
    return (note("cause-found", "cause", one_of(answer.text, answer.question.choices)),)


def _gear_step(answer: Answer) -> Bodies:
    return [GearStep(work=answer.question.name, step=name) for name in _ticks(answer)]


def _tags(answer: Answer) -> Bodies:
    supply = answer.judged.job.supply
    if supply is None:
        raise BadValue(answer.text, "the supply first")
    return [note("voltage-tag", p, f"{supply.volt:g} V") for p in _ticks(answer)]


def _exchange(answer: Answer) -> Bodies:
    now = answer.judged.job.joined.wish.get("exchanged", "")
    return (note("wished", "exchanged", "" if now else "yes"),)


def _temporary(answer: Answer) -> Bodies:
    name = _named(answer)
    words = answer.judged.job.hands.temporary[name].words
    return (Temporary(name=name, words=words, cleared=answer.text.strip()),)


def _site(answer: Answer) -> Bodies:
    _no_initials(answer)
    judged = answer.judged
    lines = field_sheet(judged.job, judged.facts.connecting, judged.facts.installer)
    line = next(x for x in lines if x.name == answer.question.id)
    return line.read(answer.text)


READERS: dict[str, Reader] = {
    "noted": _noted,
    "count": lambda a: (counted(a.text.strip()),),
    "found": lambda a: read_found_or_number(a.text, a.judged.job, a.judged.facts.naming),
    "test-leads": lambda a: (leads_clipped(a.text, a.judged.job),),
    "look": _look,
    "work-place": lambda a: (read_place(a.text),),
    "beside": lambda a: said_of(a.text, a.question.ends, a.question.choices),
    "dead": lambda a: (ProvedDead(volt=0.0),),
    "strip": _strip,
    "act": _act,
    "discharge": _discharge,
    "ready": _ready,
    "drying": lambda a: (DryingRun(act="end"),),
    "supply": lambda a: (read_supply(a.text, a.judged.job),),
    "supply-line": lambda a: (SupplyRead(line=read_three(a.text, LINES_WANTED, alike=True)),),
    "checks": lambda a: [StepTicked(step=n) for n in _ticks(a)],
    "installer": lambda a: [Installer(item=n) for n in _ticks(a)],
    "tags": _tags,
    "exchange": _exchange,
    "turn-seen": lambda a: (read_turn(a.text),),
    "begin": _trial_begin,
    "trial-ready": _trial_ready,
    "trial-end": _act,
    "bars-count": lambda a: (Commutator(bars=bars_count(a.text)),),
    "temporary": _temporary,
    "left-on": lambda a: (left_on(a.text, a.judged.job.hands.temporary),),
    "lead-mended": lambda a: (read_mended(a.text, a.judged.job.tags),),
    "back": lambda a: [PartOff(part=n, back=True) for n in _ticks(a)],
    "inventory": _inventory,
    "first-question": _first_question,
    "cause-test": _cause_test,
    "cause": _cause,
    "device-ohm": _device_ohm,
    "gear-step": _gear_step,
    "site": _site,
    "let-go": lambda a: (read_let_go(a.text),),
    "sign": lambda a: (read_signature(a.text.strip(), a.judged),),
}
