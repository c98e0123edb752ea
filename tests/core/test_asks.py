"""Every Next says what it asks: each code of the ledger has its question, each question its reader."""

import ast
import re
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import pytest

import careful_coil.core.ledger as ledger
from careful_coil.core.errors import BadValue
from careful_coil.core.job import fold
from careful_coil.core.ledger import NextStep, judge
from careful_coil.core.ledger.answers import READERS, Answer, Hands, read_answer
from careful_coil.core.ledger.asks import Question, asks_of
from careful_coil.core.ledger.asks.noted import noted
from careful_coil.core.ledger.asks.question import QUANTITIES
from careful_coil.core.ledger.asks.table import ASKS
from careful_coil.core.ledger.parts import part_of
from careful_coil.core.probes import PROBES, TestSetting
from careful_coil.core.settings import Settings
from careful_coil.demo import demo_jobs
from tests.core.logs import LAST, READY, SIX_LEADS, job_of, judged

ROOM = Path(ledger.__file__).parent
CALLS = {"NextStep": None, "_step": 0, "_open": 1}  # where the code stands among the arguments
FROM_IDENTIFICATION = (
    "resistance-A-B",
    "switch-A-B",
    "shaft-A-B",
    "spin-A-B",
    "kick-A-B-C-D",
    "run",
)
FROM_SITE = (
    "site-dead",
    "site-ohms",
    "site-megohm",
    "site-told-dial",
    "site-supply",
    "site-amps",
)


def codes_in_the_ledger() -> Iterator[str]:
    """Every code that a step of the ledger is given, names in it filled with something."""
    for file in ROOM.glob("next_*.py"):
        for node in ast.walk(ast.parse(file.read_text(encoding="utf-8"))):
            if not isinstance(node, ast.Call) or not isinstance(node.func, ast.Name):
                continue
            if node.func.id not in CALLS:
                continue
            place = CALLS[node.func.id]
            acts = {ast.literal_eval(k.value) for k in node.keywords if _constant(k, "act")}
            if acts & set(PROBES):
                continue  # the probe says itself what is asked
            named = [k.value for k in node.keywords if k.arg == "code"]
            given = named[:1] if place is None else node.args[place : place + 1]
            either = [
                v for g in given for v in ([g.body, g.orelse] if isinstance(g, ast.IfExp) else [g])
            ]
            for value in either:
                if isinstance(value, ast.Constant) and isinstance(value.value, str):
                    yield value.value
                elif isinstance(value, ast.JoinedStr):
                    yield "".join(
                        v.value if isinstance(v, ast.Constant) else _filled(ast.unparse(v))
                        for v in value.values
                    )


def _constant(keyword: ast.keyword, name: str) -> bool:
    return keyword.arg == name and isinstance(keyword.value, ast.Constant)


def _filled(name: str) -> str:
    if "field_name" in name:
        return "volt"
    return "fit-device" if "step.do" in name else "drive" if "end" in name else "1"


def pattern_of(code: str) -> str:
    return next((p for p, _ in ASKS if re.fullmatch(p, code, re.DOTALL)), "")


def every_step(entries: object) -> Iterator[NextStep]:
    """What Next says, each thing put off in turn."""
    job, aside = fold(entries), set[str]()  # type: ignore[arg-type]
    for _ in range(60):
        found = judge(job, Settings(), frozenset(aside)).next
        if found is None:
            return
        yield found
        aside.add(found.code)


def test_every_code_of_the_ledger_has_a_question() -> None:
    codes = [*codes_in_the_ledger(), *FROM_IDENTIFICATION, *FROM_SITE]
    assert len(codes) > 60
    assert [c for c in codes if not pattern_of(c)] == []
    unused = {p for p, _ in ASKS} - {pattern_of(c) for c in codes}
    # codes made of a finding's, of a test's name, or named in a table
    made = {"dead|dead-again", "supply", "direction", r"(?P<item>hookup)", "start-gear"}
    made |= {r"mechanics|feel", "before-power", "voltage-tags", "installer"}
    assert {p for p in unused if not any(re.fullmatch(p, c) for c in made)} <= made | {
        r"insulation(?:-.*)?",
        r"step-ohm|leftover|low-run-wrong",
    }


@pytest.mark.parametrize("name", ["demo-bakery", "demo-theatre", "demo-dairy", "demo-sander"])
def test_every_step_of_a_job_carries_what_it_asks(name: str) -> None:
    entries = next(d.entries for d in demo_jobs() if d.id == name)
    for step in every_step(entries):
        (question,) = step.asks
        assert question.quantity in QUANTITIES
        assert question.part
        assert question.reader in READERS or not question.reader
        assert question.type != "choice" or question.choices, step.code


STEP = {"title": "…", "why": "…"}
MADE: tuple[tuple[NextStep, str, str, str], ...] = (
    (NextStep(code="marking-C1", station="start-gear", **STEP), "print", "capacitor:C1", "text"),
    (NextStep(code="renew-S1", station="start-gear", **STEP), "work", "device:S1", "text"),
    (NextStep(code="cause", station="start-gear", **STEP), "cause", "complaint", "choice"),
    (NextStep(code="between", station="insulation", **STEP), "work", "winding", "tick"),
    (NextStep(code="brushes", station="mechanics", **STEP), "size", "brush:B1", "number"),
    (NextStep(code="bars", station="mechanics", **STEP), "inventory", "commutator", "number"),
    (
        NextStep(code="bars-shaft", station="mechanics", **STEP),
        "insulation",
        "commutator",
        "number",
    ),
    (
        NextStep(code="back-fan guard", station="mechanics", **STEP),
        "tick",
        "cover:fan guard",
        "tick",
    ),
    (NextStep(code="step-ohm", station="connect", **STEP), "look", "hookup", "text"),
    (NextStep(code="voltage-tags", station="connect", **STEP), "tick", "tags", "tick"),
    (NextStep(code="site-amps", station="release", **STEP), "amp", "run", "text"),
    (
        NextStep(code="direction", station="connect", focus="turn-seen", **STEP),
        *("direction", "shaft", "text"),
    ),
    (
        NextStep(code="direction", station="connect", focus="turn-round", **STEP),
        *("work", "direction", "tick"),
    ),
    (
        NextStep(code="bar-3", act="bar", station="mechanics", ends=("bar 3", "bar 4"), **STEP),
        *("ohm", "commutator", "number"),
    ),
    (
        NextStep(code="clamp-T1", act="clamp", station="connect", ends=("A",), **STEP),
        *("amp", "lead:A", "number"),
    ),
    (
        NextStep(code="fit-device-S1", act="tick", station="connect", ends=("fit S1",), **STEP),
        *("work", "device:S1", "tick"),
    ),
    (NextStep(code="wish-family", station="connect", **STEP), "word", "family", "choice"),
)


@pytest.mark.parametrize(
    ("step", "quantity", "part", "kind"), MADE, ids=[f"{s.code} {s.focus}" for s, *_ in MADE]
)
def test_rarer_steps_ask_by_quantity_and_part(
    step: NextStep, quantity: str, part: str, kind: str
) -> None:
    (question,) = asks_of(judged(*SIX_LEADS), step)
    assert (question.quantity, question.part, question.type) == (quantity, part, kind)


def answered(question: Question, text: str, who: str = "AB") -> list[str]:
    """The kinds of entries, or the sheets, an answer to a job's Next becomes."""
    found = judged(*SIX_LEADS)
    assert found.next is not None
    setting = TestSetting(at_c=20.0)
    hands = Hands(who=who, now="2026-03-01T09:00:00Z", setting=setting, settings=Settings())
    bodies, _ = read_answer(
        Answer(judged=found, step=found.next, question=question, text=text, hands=hands)
    )
    return [b.topic for b in bodies]


def plain(reader: str, id: str = "x", choices: tuple[str, ...] = ()) -> Question:
    """A question of which only the reader matters."""
    return Question(
        id=id,
        name=id,
        quantity="word",
        part="x",
        type="text",
        reader=reader,
        choices=choices,
    )


@pytest.mark.parametrize(
    ("question", "text", "kinds"),
    [
        (noted("ticket", "name"), "Mill", ["ticket"]),
        (noted("plate", "rpm"), "1440", ["plate"]),
        (
            plain("inventory"),
            "C1 25 µF 450 V; S1 centrifugal switch",
            ["capacitor", "device-fitted"],
        ),
        (
            replace(plain("noted"), sheet="bearing", field="size", of="drive"),
            "25 x 52 x 15",
            ["bearing"] * 3,
        ),
        (plain("turn-seen"), "ccw opposite bump", ["turn-seen"]),
        (plain("checks", choices=("count", "earth")), "all", ["step-ticked"] * 2),
        (plain("checks", choices=("count", "earth")), "earth", ["step-ticked"]),
        (plain("supply"), "400 V", ["supply"]),
    ],
    ids=lambda v: v if isinstance(v, str) else "",
)
def test_an_answer_becomes_the_entries_the_window_would_log(
    question: Question, text: str, kinds: list[str]
) -> None:
    assert answered(question, text) == kinds


@pytest.mark.parametrize(
    ("question", "text", "who", "wanted"),
    [
        (plain(""), "seen", "AB", "no field takes it"),
        (noted("plate", "volt"), "many", "AB", "Wanted"),
        (plain("checks", choices=("count",)), "shaft", "AB", "count"),
        (plain("inventory"), "C1", "AB", "each with what it is"),
        (plain("attest", id="hookup"), "looked at", "AB", "no field takes it"),
        (plain("dead"), "all", "", "initials"),
        (plain("turn-seen"), "left", "AB", "cw drive-end indicator"),
    ],
    ids=lambda v: v if isinstance(v, str) else "",
)
def test_a_bad_answer_is_refused_with_what_would_do(
    question: Question, text: str, who: str, wanted: str
) -> None:
    with pytest.raises(BadValue, match=re.escape(wanted)):
        answered(question, text, who)


def test_findings_name_their_part() -> None:
    found = judged(*READY[:-1], LAST[-1])
    assert all(f.part for f in found.findings)
    by_code = {f.code: f.part for f in found.findings}
    assert (by_code["insulation"], by_code["hookup"], by_code["earth-bond"]) == (
        *("winding", "hookup", "earth"),
    )
    assert [part_of(c) for c in ("bearing-drive", "bearing-seat-other", "fan", "odd")] == [
        *("bearing:drive", "bearing:other", "fan", "motor"),
    ]
    can = {"kind": "capacitor", "name": "C2", "field": "marking", "text": "25 µF 450 V"}
    gear = judge(job_of(*SIX_LEADS, can), Settings())
    assert "capacitor:C2" in {f.part for f in gear.findings}
