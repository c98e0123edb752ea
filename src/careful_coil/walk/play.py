"""A motor played from nothing: Next asks, the truth shows, the player words it, the log grows."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import asdict, dataclass, field, replace
from typing import Any

from careful_coil.core.errors import CoilError
from careful_coil.core.job import Entry
from careful_coil.core.ledger import Judgement, NextStep
from careful_coil.core.ledger.asks import Question
from careful_coil.core.settings import Settings
from careful_coil.walk.bench import Bench, CoreBench, CursorElsewhere
from careful_coil.walk.minutes import minutes_of
from careful_coil.walk.player import Player
from careful_coil.walk.told import Told
from careful_coil.walk.truth import World
from careful_coil.walk.truth.answers import answer

MOST_STEPS, MOST_SAME, MOST_TIMES = 260, 2, 12


@dataclass(frozen=True, slots=True, kw_only=True)
class Moment:
    """One step of a walk: what Next said and asked, what was answered, what the ledger said before it."""

    code: str
    title: str
    station: str
    asks: tuple[Question, ...]
    answer: str
    skip: str = ""  # why it could not be answered
    lost: bool = False  # the cursor was elsewhere: the walk ends
    refused: tuple[str, ...] = ()  # what was typed and not taken
    findings: tuple[tuple[str, str, str, str], ...] = ()  # verdict, code, part, subject


@dataclass(slots=True)
class Played:
    """A walk as it went: its steps, its log, how it ended."""

    moments: list[Moment] = field(default_factory=list)
    entries: list[Entry] = field(default_factory=list)
    judged: Judgement | None = None
    minutes: float = 0.0
    keys: int | None = None


def play(world: World, seed: int, bench: Bench) -> Played:
    """Play a motor on a bench until it is signed, or nothing is left that can be done."""
    player, played = Player(seed), Played()
    same: dict[str, int] = {}
    last, row = "", 0
    for number in range(MOST_STEPS):
        judged = bench.judged()
        step = judged.next
        if judged.released or step is None:
            break
        world.step = number
        same[step.code] = same.get(step.code, 0) + 1
        here = f"{step.code} {step.title} {step.focus}"
        last, row = here, row + 1 if here == last else 1
        if row > MOST_SAME or same[step.code] > MOST_TIMES:
            moment = _moment(judged, step, "", skip="asked again and again")
        else:
            moment = _answered(judged, step, world, player, bench)
        played.moments.append(moment)
        if moment.lost:
            break
        spent = sum(minutes_of(q.quantity, q.state) for q in step.asks)
        played.minutes += spent
        if moment.skip:
            bench.skip(step)
        bench.pass_time(spent)
    played.judged, played.entries = bench.judged(), list(bench.entries)
    played.keys = bench.keys
    return played


def _answered(
    judged: Judgement, step: NextStep, world: World, player: Player, bench: Bench
) -> Moment:
    """Answer the first thing a step asks, in as many wordings as are tried."""
    if not step.asks:
        return _moment(judged, step, "", skip="it does not say what it asks")
    question = step.asks[0]
    ask = asdict(question)
    if not question.reader:
        return _moment(judged, step, "", skip="no field takes an answer")
    told: Told = answer(world, ask)
    if told.lacks:
        return _moment(judged, step, "", skip=told.lacks)
    refused: list[str] = []
    for text in player.words(ask, told):
        try:
            bench.put(step, question, text)
        except CursorElsewhere as error:
            return replace(_moment(judged, step, "", skip=str(error)), lost=True)
        except CoilError as error:
            refused.append(f"{text}: {error}")
            continue
        return replace(_moment(judged, step, text), refused=tuple(refused))
    return _moment(judged, step, "", skip="refused: " + " / ".join(refused))


def _moment(judged: Judgement, step: NextStep, text: str, skip: str = "") -> Moment:
    return Moment(
        code=step.code,
        title=step.title,
        station=step.station,
        asks=step.asks,
        answer=text,
        skip=skip,
        findings=tuple(_bad(judged)),
    )


def _bad(judged: Judgement) -> Iterator[tuple[str, str, str, str]]:
    for f in judged.findings:
        if f.verdict in ("hold", "watch"):
            yield f.verdict, f.code, f.part, f.subject


Walker = Callable[[Mapping[str, Any], int, Settings], tuple[Played, World]]


def play_headless(
    document: Mapping[str, Any], seed: int, settings: Settings
) -> tuple[Played, World]:
    """Play a motor without a window."""
    world = World(document, seed)
    return play(world, seed, CoreBench(settings)), world
