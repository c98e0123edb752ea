"""Logs written in a line or two, for tests of what is concluded from them."""

import itertools
from collections.abc import Callable, Iterable, Iterator
from typing import Any

from careful_coil.core.job import Entry, Job, fold
from careful_coil.core.ledger import Judgement, judge
from careful_coil.core.ledger.entry_line import Typed
from careful_coil.core.ledger.take import Taking, taken
from careful_coil.core.probes import Request
from careful_coil.core.settings import Settings

STATION = {
    "ticket": "intake",
    "plate": "intake",
    "found-hookup": "intake",
    "leads": "leads",
    "reading": "leads",
    "meter": "leads",
    "insulation": "insulation",
    "work": "insulation",
    "supply": "connect",
    "joint": "connect",
    "line-ohm": "connect",
}


def entries(*bodies: dict[str, Any]) -> list[Entry]:
    """Return entries of the bodies given, numbered e1, e2 …, a minute apart."""
    return [
        Entry.model_validate(
            {
                "id": f"e{k}",
                "at": f"2026-03-01T{8 + k // 60:02d}:{k % 60:02d}:00Z",
                "by": "AB",
                "station": STATION.get(body["kind"], "release"),
                "body": body,
            }
        )
        for k, body in enumerate(bodies, 1)
    ]


def job_of(*bodies: dict[str, Any]) -> Job:
    """Return the job a log of these bodies makes."""
    return fold(entries(*bodies))


def judged(*bodies: dict[str, Any], settings: Settings | None = None) -> Judgement:
    """Return the judgement of a log."""
    return judge(job_of(*bodies), settings or Settings())


def read_as(kind: str, text: str, **asked: Any) -> Any:
    """Return the entry of a text typed while the probes are on something."""
    target = Request(kind=kind, ends=asked.pop("ends", ()), **asked)
    return taken(Typed(target, text), Taking(judged=None, settings=Settings()))


def ticket(**fields: str) -> list[dict[str, Any]]:
    """Return ticket entries."""
    return [{"kind": "ticket", "field": f, "text": t} for f, t in fields.items()]


def plate(**fields: str) -> list[dict[str, Any]]:
    """Return plate entries."""
    return [{"kind": "plate", "field": f, "text": t} for f, t in fields.items()]


def leads(*rows: str) -> dict[str, Any]:
    """Return the entry of leads typed as `A brown T1`."""
    found = []
    for row in rows:
        tag, *rest = row.split()
        found.append({"tag": tag, "colour": rest[0] if rest else "", "marking": "".join(rest[1:2])})
    return {"kind": "leads", "leads": found}


METER = {"kind": "meter", "accuracy_percent": 0.5, "resolution_ohm": 0.01, "lead_ohm": 0.0}


def ohm(pair: str, value: str | float) -> dict[str, Any]:
    """Return a reading between two one-letter tags."""
    return {
        "kind": "reading",
        "reading": {"kind": "resistance", "between": list(pair), "value": value},
    }


def kick(source: str, sense: str, value: str) -> dict[str, Any]:
    """Return a kick between pairs of one-letter tags."""
    reading = {"kind": "kick", "source": list(source), "sense": list(sense), "value": value}
    return {"kind": "reading", "reading": reading}


SIX_LEADS = [
    *ticket(name="Mill"),
    *plate(phases="3", volt="230/400", hertz="50", amp="11/6.4"),
    leads("A", "B", "C", "D", "E", "F"),
    METER,
    ohm("AD", "2.60"),
    ohm("BE", "2.61"),
    ohm("CF", "2.60"),
    ohm("AB", "open"),
    ohm("AC", "open"),
    ohm("BC", "open"),
    kick("AD", "BE", "down-small"),
    kick("AD", "CF", "down-small"),
    kick("BE", "CF", "down-small"),
]
INSULATED = {"kind": "insulation", "megohm": 480, "at_c": 20, "test_volt": 500}
SUPPLY = {"kind": "supply", "volt": 400, "hertz": 50, "phases": 3, "measured": True}
WYE = [["L1", "T1"], ["L2", "T2"], ["L3", "T3"], ["T4", "T5", "T6"]]
BY_TAG = [["L1", "A"], ["L2", "B"], ["L3", "C"], ["D", "E", "F"]]
JOINED = [{"kind": "joint", "joint": j} for j in BY_TAG]
LINES = [
    {"kind": "line-ohm", "lines": list(p), "value": "5.20"}
    for p in (("L1", "L2"), ("L1", "L3"), ("L2", "L3"))
]
GROUPS = ("AD", "BE", "CF")
DRAINED = {"kind": "discharged", "seconds": 240}
APART = ("leads", "drive", "others", "clear")
MADE_READY = {"kind": "test-ready", "items": list(APART), "volt": 500}


def walls(*groups: str, megohm: float = 480) -> list[dict[str, Any]]:
    """Return insulation tests of windings of one-letter tags, the others earthed, each drained."""
    tests = [INSULATED | {"parts": list(g), "megohm": megohm} for g in groups]
    return [body for test in tests for body in (test, DRAINED)]


def bonds(ohm: float = 0.03) -> list[dict[str, Any]]:
    """Return the earth bond of every place."""
    places = ("frame", "drive end bell", "other end bell")
    return [{"kind": "earth-bond", "ohm": ohm, "place": p} for p in places]


HANDS = [
    {"kind": "felt", "field": "feel", "text": "free"},
    {"kind": "felt", "field": "fan", "text": "good"},
    {"kind": "felt", "field": "temporary", "text": "nothing"},
    *(
        {"kind": "bearing", "end": end, "field": field, "text": text}
        for end in ("drive", "other")
        for field, text in (("number", "6203-ZZ"), ("state", "good"))
    ),
]
CHECKED = [{"kind": "step-ticked", "step": s} for s in ("count", "earth", "pinch")]
LOW = {"kind": "low-run", "volt": 100, "amp": [2.0, 2.05, 1.98], "turns": "smooth", "way": "cw"}
CLOSED = [{"kind": "covers"}, INSULATED, DRAINED, *bonds()]
RAN = [
    {"kind": "trial-begun", "covers": "on"},
    {"kind": "trial-ready", "items": ["clamp"]},
    {
        "kind": "trial-step",
        "volt": [400],
        "amp": [2.6, 2.6, 2.7],
        "watt": 190,
        "rpm": 1494,
        "minute": 10,
        "turns": "smooth",
    },
    {"kind": "trial-ended"},
]
LAST = [
    {"kind": "attested", "item": "mechanics", "words": "shaft free, both bearings run well"},
    *CHECKED,
    LOW,
    *CLOSED,
    *RAN,
]
READY = [*SIX_LEADS, *walls(*GROUPS), SUPPLY, *JOINED, *LINES, *LAST]


def without(
    log: Iterable[dict[str, Any]], drop: Callable[[dict[str, Any]], bool]
) -> list[dict[str, Any]]:
    """Return a log without the bodies that `drop` picks."""
    return list(itertools.filterfalse(drop, log))


def codes(verdict: str, judgement: Judgement) -> Iterator[str]:
    """Yield the codes of the findings of one verdict."""
    return (f.code for f in judgement.findings if f.verdict == verdict)
