"""A walk is honest: it sees no labels, believes what it is told, and is refereed by log and truth alone."""

import json
from collections.abc import Mapping
from pathlib import Path
from typing import Any

import pytest

from careful_coil.core.settings import Settings
from careful_coil.demo.cast import cast_motor
from careful_coil.documents.walk import WalkDocument
from careful_coil.walk import referee
from careful_coil.walk.bench import CoreBench
from careful_coil.walk.cast import QUICK, chosen, differences, failures_of, read_known, struck
from careful_coil.walk.cast import Walked as CastWalk
from careful_coil.walk.keys import allowed_keys
from careful_coil.walk.play import play
from careful_coil.walk.player import Player
from careful_coil.walk.tell import told, walk
from careful_coil.walk.told import Told
from careful_coil.walk.truth import World
from careful_coil.walk.truth.baked import baked
from tests.headless import run, write


def bodies(document: WalkDocument) -> list[Any]:
    """A walk's log, without ids and times."""
    return [(e["by"], e["station"], e["body"]) for e in document.job["entries"]]


@pytest.fixture(scope="module")
def weak() -> WalkDocument:
    return walk(cast_motor("cap-start-weak"), 3, Settings())


@pytest.mark.parametrize("name", ["cap-start-weak", "fan-two-speed-binding"])
def test_blindness_a_motor_without_its_labels_is_walked_the_same(name: str) -> None:
    document = cast_motor(name)
    blind = baked(dict(document))
    assert not {"kind", "faults", "right_end", "must_name"} & set(blind)
    one, two = (walk(d, 3, Settings()) for d in (document, blind))
    assert one.job == two.job
    assert [s.answer for s in one.steps] == [s.answer for s in two.steps]


def test_lying_answers_of_another_motor_lead_to_that_motors_walk(weak: WalkDocument) -> None:
    """Nothing but what is answered makes the log: called by another name it is the other's."""
    other = cast_motor("permanent-split")
    lied = told(cast_motor("cap-start-weak"), 3, *_played(other))
    assert bodies(lied) == bodies(walk(other, 3, Settings()))
    assert bodies(lied) != bodies(weak)


def _played(document: Mapping[str, Any]) -> Any:
    world = World(document, 3)
    return play(world, 3, CoreBench(Settings())), world


def test_a_seed_makes_a_walk_repeatable(weak: WalkDocument) -> None:
    assert walk(cast_motor("cap-start-weak"), 3, Settings()) == weak
    assert weak.format == "careful-coil/walk"
    assert weak.keys is None
    assert weak.entries == len(weak.job["entries"])
    assert weak.minutes > 20


def test_anyone_can_referee_again_from_the_document(weak: WalkDocument) -> None:
    """The capacitor was named and renewed, and the motor went."""
    motor = cast_motor("cap-start-weak")
    steps = [s.model_dump() for s in weak.steps]
    spans = [s.model_dump() for s in (*weak.holds, *weak.watches)]
    left = referee.open_faults(motor, weak.truth_at_end, len(steps))
    assert left == []
    assert any("Capacitor C1" in s["subject"] for s in spans)
    assert referee.unnamed(motor, weak.truth_at_end, spans, steps) == weak.unnamed == []
    assert referee.asked_twice(steps) == weak.asked_twice
    assert (weak.end, weak.right) == ("released", True)
    assert not weak.harm


def step(code: str, quantity: str, part: str, *ends: str, **more: Any) -> dict[str, Any]:
    asked = {"quantity": quantity, "part": part, "ends": list(ends), "sense": [], "choices": []}
    return {"code": code, "asks": [{**asked, "state": ""}], "skip": "", **more}


def test_the_referee_counts_what_was_asked_twice_unless_work_voids_it() -> None:
    read = step("a", "ohm", "winding", "A", "B")
    work = step("w", "work", "hookup", "A", "L1")
    assert referee.asked_twice([read, read]) == ["a at 2"]
    assert referee.asked_twice([read, work, read]) == []
    assert referee.asked_twice([read, step("b", "ohm", "winding", "A", "C")]) == []
    assert referee.asked_twice([{**read, "skip": "no"}, read]) == []


def test_the_referee_holds_the_order_against_the_law() -> None:
    leads, shaft = step("r", "ohm", "winding", "A", "B"), step("f", "feel", "shaft")
    covers, volts = step("c", "work", "covers"), step("s", "step", "run", "L1")
    covers["asks"][0]["state"] = "closed"
    wall, supply = step("i", "insulation", "winding"), step("v", "volt", "supply")
    joint, sign = step("j", "work", "hookup", "A", "L1"), step("x", "word", "release")
    assert referee.out_of_order([leads, wall, shaft, supply, joint, volts, covers, sign]) == []
    late = referee.out_of_order([leads, wall, supply, joint, covers, shaft, volts])
    assert late == ["f at 6, stage 5 after 7", "covers at 5 before f at 6"]
    place = step("p", "look", "place", answer="site")
    place["asks"][0]["choices"] = ["bench", "site"]
    turned = step("d", "direction", "shaft", answer="ccw")
    bond = step("b", "bond", "earth")
    amps = step("l", "amp", "run")
    visit = [{"answer": "", **s} for s in (place, supply, wall, joint, bond, amps)]
    assert referee.out_of_order(visit) == []
    back = [*visit[:-1], turned, visit[3], visit[4], visit[5]]
    assert referee.out_of_order(back) == []  # the wrong way round: back to the box, once
    late_bond = [*visit[:4], turned, visit[3], amps, bond]
    late_bond = [{"answer": "", **s} for s in late_bond]
    assert referee.out_of_order(late_bond) == ["b at 8, stage 8 after 9"]
    early = referee.out_of_order([leads, volts])
    assert [e.split(" before ")[1] for e in early] == [
        *("insulation of the winding", "volt of the supply", "feel of the shaft"),
    ]


def test_a_hold_is_false_where_its_part_has_nothing_wrong_at_that_moment() -> None:
    weak_can = {"what": "capacitor-weak", "of": "C1", "cure": "renew"}
    motor = {"faults": [weak_can], "must_name": ["C1"]}
    before, after = (
        {"changes": []},
        {"changes": [{"step": 4, "part": "capacitor:C1", "state": "renewed"}]},
    )
    span = {"code": "capacitor", "part": "capacitor:C1", "subject": "Capacitor C1 bad", "first": 6}
    assert referee.false_ones(motor, before, [span]) == []
    assert referee.false_ones(motor, after, [span]) == ["capacitor (capacitor:C1)"]
    other = {**span, "part": "capacitor:C2"}
    assert referee.false_ones(motor, before, [other]) == ["capacitor (capacitor:C2)"]
    measured = [step("m", "microfarad", "capacitor:C1")]
    assert referee.unnamed(motor, before, [span], measured) == []
    assert referee.unnamed(motor, before, [span], []) == ["C1"]  # nobody had looked yet
    assert referee.unnamed(motor, after, [span], measured) == ["C1"]  # it was renewed before


def test_the_player_words_what_it_is_shown_and_nothing_else() -> None:
    ask = {"type": "number", "choices": []}
    words = {
        Player(seed).words(ask, Told(text="8.40 Ω", number=8.4, unit="Ω"))[0] for seed in range(40)
    }
    assert {"8.40", "8,40", "8.40 ohm", "8.40Ω"} <= words
    pick = {"type": "choice", "choices": ["free", "rough"]}
    assert {Player(s).words(pick, Told(text="rough"))[0] for s in range(9)} == {"rough", "2"}
    assert {Player(s).words(ask, Told(text="open"))[0] for s in range(20)} == {"open", "OL", "inf"}


def test_a_joint_across_a_coil_is_taken_apart_before_it_is_read() -> None:
    """Both leads of one coil stand joined: read as it came it would read nothing."""
    found = walk({**cast_motor("six-bare"), "joints": [["B", "F"]]}, 1, Settings())
    codes = [s.code for s in found.steps]
    assert codes.index("cut-F-B") < min(
        k for k, c in enumerate(codes) if c.startswith("resistance")
    )
    assert not found.false_holds
    assert found.end == "released"


# --- the verb -------------------------------------------------------------------------------------


def test_the_verb_streams_and_refuses_without_stopping(
    capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    import io

    motor = json.dumps(dict(cast_motor("permanent-split")), ensure_ascii=False)
    lines = f'{motor}\n{{"format": "careful-coil/motor"}}\n'.encode()
    monkeypatch.setattr("sys.stdin", io.TextIOWrapper(io.BytesIO(lines)))
    status, out, err = run(capsys, "walk", "--json", "-")
    first, second = (json.loads(line) for line in out.splitlines())
    assert status == 2
    assert (first["format"], first["name"]) == ("careful-coil/walk", "Greenhouse, vent fan")
    assert second["format"] == "careful-coil/refusal"
    assert "version" in err
    bad = write(tmp_path, {**cast_motor("permanent-split"), "ohm": {}})
    status, _, err = run(capsys, "walk", bad)
    assert status == 2
    assert "ohm" in err
    status, _, err = run(capsys, "walk", "--window", bad)
    assert status == 2
    assert "--window" in err


def unfed() -> dict[str, Any]:
    """Return a three-phase motor where there is a single phase alone: nothing can be joined."""
    motor = dict(cast_motor("six-bare"))
    return motor | {"name": "Vineyard, press", "supply": {"phases": 1, "volt": 230, "hertz": 50}}


def test_the_verb_says_it_in_words_and_by_its_exit_status(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    status, out, _ = run(capsys, "walk", "--seed", "3", write(tmp_path, unfed()))
    assert status == 1
    assert out.startswith("Vineyard")
    assert ": stuck at " in out
    assert "skipped" in out


# --- the cast's list --------------------------------------------------------------------------------


def test_the_list_of_known_failures_can_only_shrink() -> None:
    walks = [CastWalk("unfed", 3, walk(unfed(), 3, Settings()))]
    lines = sorted(failures_of(walks[0].document))
    assert len(lines) > 1
    text = "".join(f"unfed\t3\t{x}\n" for x in lines[1:]) + "unfed\t3\tgone\n"
    found = list(differences(walks, read_known(text)))
    assert found == [f"unfed, seed 3: new: {lines[0]}", "unfed, seed 3: gone, strike it: gone"]
    kept = read_known(struck(read_known(text), walks))
    assert kept[("unfed", 3)] == frozenset(lines[1:])


def test_a_quick_cast_comes_round_to_every_motor() -> None:
    every = set(chosen(False, 0))
    assert len(every) >= 14
    assert set().union(*(chosen(True, turn) for turn in range(-(-len(every) // QUICK)))) == every


def test_a_pair_beside_the_winding_is_asked_about_and_out_of_the_way() -> None:
    motor = dict(cast_motor("six-bare"))
    pair = [{"tag": t, "is": f"thermistor-{k}", "colour": "white"} for k, t in ((1, "G"), (2, "H"))]
    motor |= {"leads": [*motor["leads"], *pair], "ohm": {**motor["ohm"], "thermistor": 180.0}}
    found = walk(motor, 1, Settings())
    assert "beside-G-H" in [s.code for s in found.steps]
    assert found.right


@pytest.mark.parametrize(
    ("name", "never", "asked"),
    [
        ("compressor-ptc", ("feel", "open-up", "covers", "bearing-drive"), "sign-sealed"),
        ("shaded-two-leads", ("switch-A-B",), "open-up"),
    ],
)
def test_a_kind_without_a_mechanism_is_not_asked_to_work_one(
    name: str, never: tuple[str, ...], asked: str
) -> None:
    document = walk(cast_motor(name), 1, Settings())
    codes = {s.code for s in document.steps}
    assert (document.end, document.right, document.harm) == ("released", True, [])
    assert asked in codes
    assert not codes & set(never)


@pytest.mark.parametrize(
    ("name", "most"),
    [("nine-site", 200), ("cap-start-weak", 300), ("fan-eased", 250), ("pump-15-kw", 700)],
)
def test_the_formula_of_keys_keeps_to_what_a_job_may_take(name: str, most: int) -> None:
    document = walk(cast_motor(name), 1, Settings())
    assert (document.end, document.right) == ("released", True)
    assert 100 < allowed_keys(s.model_dump() for s in document.steps) <= most
