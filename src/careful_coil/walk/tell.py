"""A walk as its document: what was played, then what the referee says of it."""

from collections.abc import Mapping, Sequence
from typing import Any, Literal

from careful_coil.core.ledger.gate import way_out
from careful_coil.core.settings import Settings
from careful_coil.documents.findings import ask_document
from careful_coil.documents.job import JobDocument
from careful_coil.documents.motor import read_motor
from careful_coil.documents.walk import Harm, Skip, Span, WalkDocument, WalkStep
from careful_coil.walk import referee
from careful_coil.walk.play import Moment, Played, Walker, play_headless
from careful_coil.walk.truth import World

End = Literal["released", "held", "unrepaired", "stuck"]
JOB_ID = "walk"


def walk(
    document: Mapping[str, Any],
    seed: int,
    settings: Settings,
    walker: Walker = play_headless,
) -> WalkDocument:
    """Return a motor's walk. Raises: BadDocument for a motor that cannot be read."""
    read_motor(document)
    return told(document, seed, *walker(document, seed, settings))


def told(document: Mapping[str, Any], seed: int, played: Played, world: World) -> WalkDocument:
    """Return the document of a walk that was played."""
    steps = [_step(m) for m in played.moments]
    bare = [s.model_dump() for s in steps]
    truth, end = world.at_end(), _end(played)
    holds, watches = (_spans(played.moments, v) for v in ("hold", "watch"))
    asked, count = _asked(played.moments), len(steps)
    return WalkDocument(
        name=str(document.get("name", "")),
        seed=seed,
        end=end,
        right=_right(document, end, world),
        at=_at(played, end),
        steps=steps,
        job=_job(played),
        truth_at_end=truth,
        holds=holds,
        watches=watches,
        skips=[Skip(code=m.code, why=m.skip) for m in played.moments if m.skip],
        words=[e.body.item for e in played.entries if e.body.kind == "attested"],
        harm=[Harm.model_validate(h) for h in world.harm],
        entries=len(played.entries),
        readings=asked.get("ohm", 0),
        kicks=asked.get("kick", 0),
        runs=asked.get("run", 0),
        minutes=round(played.minutes, 1),
        keys=played.keys,
        false_holds=referee.false_ones(document, truth, [s.model_dump() for s in holds]),
        false_watches=referee.false_watches(
            document, truth, [s.model_dump() for s in watches], count
        ),
        unnamed=referee.unnamed(
            document, truth, [s.model_dump() for s in (*holds, *watches)], bare
        ),
        asked_twice=referee.asked_twice(bare),
        out_of_order=referee.out_of_order(bare),
    )


def _step(m: Moment) -> WalkStep:
    return WalkStep(
        code=m.code,
        title=m.title,
        station=m.station,
        asks=[ask_document(q) for q in m.asks],
        answer=m.answer,
        skip=m.skip,
        refused=list(m.refused),
    )


def _end(played: Played) -> End:
    judged = played.judged
    if judged is None:
        return "stuck"
    if judged.released:
        return "released"
    if way_out(judged.job):
        return "unrepaired"
    return "stuck"


def _right(document: Mapping[str, Any], end: End, world: World) -> bool:
    """Whether the walk ended as it should, nothing was hurt, and no fault went out of the door."""
    wanted = document.get("right_end", "released")
    if end == "released":
        left = referee.open_faults(document, world.at_end(), 10**6)
        return wanted == "released" and not world.harm and not left
    return wanted == "held" and end in ("held", "unrepaired") and not world.harm


def _at(played: Played, end: End) -> str:
    if end != "stuck" or played.judged is None:
        return ""
    if played.judged.gate:
        return played.judged.gate[0].code
    return played.moments[-1].code if played.moments else ""


def _job(played: Played) -> dict[str, Any]:
    job = JobDocument(id=JOB_ID, number=1, entries=tuple(played.entries))
    return job.model_dump(mode="json")


def _spans(moments: Sequence[Moment], verdict: str) -> list[Span]:
    """Return each hold or watch by code and part, from its first step to its last."""
    found: dict[tuple[str, str, str], tuple[int, int]] = {}
    for number, moment in enumerate(moments):
        for own, code, part, subject in moment.findings:
            if own == verdict:
                first, _ = found.get((code, part, subject), (number, number))
                found[(code, part, subject)] = (first, number)
    return [
        Span(code=code, part=part, subject=subject, first=first, last=last)
        for (code, part, subject), (first, last) in found.items()
    ]


def _asked(moments: Sequence[Moment]) -> dict[str, int]:
    """Return how many readings of the leads, kicks and runs were answered."""
    found: dict[str, int] = {}
    for m in moments:
        if m.station == "leads" and m.asks and not m.skip and m.asks[0].part == "winding":
            quantity = m.asks[0].quantity
            found[quantity] = found.get(quantity, 0) + 1
    return found
