"""What a hidden motor shows, and what hands and volts do to it."""

from typing import Any

import pytest

from careful_coil.core.errors import BadDocument
from careful_coil.demo.cast import cast_motor
from careful_coil.documents.motor import FAULTS, read_motor
from careful_coil.walk.truth import World
from careful_coil.walk.truth.answers import answer
from careful_coil.walk.truth.baked import LABELS, baked
from careful_coil.walk.truth.plated import figures, poles_of, printed

PLATE = "3~ 230/400 V 50 Hz 8.4/4.85 A 2.2 kW 1440 rpm cos 0.81 CL F"


def motor(name: str, **changed: Any) -> dict[str, Any]:
    """A motor of the cast, with something changed."""
    return {**cast_motor(name), **changed}


def ask(quantity: str, part: str, *ends: str, **more: Any) -> dict[str, Any]:
    """A question as a walk puts it."""
    usual = {"id": "", "type": "number", "unit": "", "choices": (), "sense": (), "lines": ()}
    rest = {"joints": (), "state": "", "volt": 0.0, "reader": "", "wants": ()}
    return {**usual, **rest, "quantity": quantity, "part": part, "ends": ends, **more}


def join(world: World, *joints: str) -> None:
    """Make joints, each named with blanks between."""
    for joint in joints:
        answer(world, ask("work", "hookup", *joint.split(), state="joined"))


def test_the_plate_is_read_by_field() -> None:
    fields = ("phases", "volt", "hertz", "amp", "power", "rpm", "power-factor", "insulation-class")
    assert [printed(PLATE, f) for f in fields] == [
        *("3", "230/400", "50", "8.4/4.85", "2.2 kW", "1440", "0.81", "F"),
    ]
    assert figures(PLATE, "amp") == (4.85, 8.4)
    assert printed(PLATE, "serial") == ""
    speeds = {
        "1430 rpm 50 Hz": 4,
        "2850 rpm 50 Hz": 2,
        "1165 rpm 60 Hz": 6,
        "230 V": 4,
        "70 rpm 50 Hz": 4,
    }
    assert {t: poles_of(t) for t in speeds} == speeds


def test_ohms_go_through_joints_and_what_stands_inside() -> None:
    """Two coils of 2.85 Ω in a wye's line pair; a start winding reads through its switch, open when that is."""
    world = World(motor("six-marked"), 1)
    coil = answer(world, ask("ohm", "winding", "A", "D")).number
    assert coil == pytest.approx(2.85, rel=0.02)
    assert answer(world, ask("ohm", "winding", "A", "B")).text == "open"
    join(world, "L1 A", "L2 E", "L3 C", "D B F")
    assert answer(world, ask("ohm", "hookup", "L1", "L2")).number == pytest.approx(5.7, rel=0.02)
    start = World(motor("cap-start"), 1)
    assert answer(start, ask("ohm", "winding", "C", "D")).number == pytest.approx(4.25, rel=0.02)
    stuck = World(motor("cap-start-switch-open"), 1)
    assert answer(stuck, ask("ohm", "winding", "C", "D")).text == "open"


def test_a_capacitor_in_the_path_charges_the_meter() -> None:
    world = World(motor("permanent-split", joints=[["C", "C1.1"], ["L1", "C1.2"], ["L2", "A"]]), 1)
    assert answer(world, ask("ohm", "hookup", "L1", "L2")).text == "rising"


def test_parts_inside_are_seen_only_with_the_covers_off() -> None:
    world = World(motor("cap-start-switch-open"), 1)
    words = ("free", "sticks")
    wanted = ask("look", "device:S1", "mechanism", type="choice", choices=words)
    assert "covers" in answer(world, wanted).lacks
    answer(world, ask("work", "covers", state="opened"))
    assert answer(world, wanted).text == "sticks"
    rest = ask("ohm", "device:S1", "1", "2", state="at rest")
    assert answer(world, rest).text == "open"
    answer(world, ask("work", "device:S1", state="renewed"))
    assert answer(world, rest).number == pytest.approx(0.05)


def test_a_device_reads_by_its_own_terminals_and_posture() -> None:
    """A voltage relay: contact 1 to 2 closed, coil 5 to 2 some kΩ; the switch opens when it is worked."""
    relay = {"name": "K1", "kind": "relay-voltage"}
    world = World(motor("cap-start", devices=[relay, {"name": "S2", "kind": "speed-switch"}]), 1)
    coil = answer(world, ask("ohm", "device:K1", "5", "2", state="at rest")).number
    assert coil == pytest.approx(10_000, rel=0.01)
    assert answer(world, ask("ohm", "device:K1", "1", "2", state="at rest")).number == 0.05
    worked = ask("ohm", "device:S2", "1", "2", state="mechanism worked by hand")
    assert answer(world, worked).text == "open"
    assert "terminals" in answer(world, ask("ohm", "device:S2", "7", "8")).lacks


def test_work_changes_the_truth_and_is_written_down() -> None:
    world = World(motor("six-damp"), 1)
    wet = answer(world, ask("insulation", "winding")).number
    answer(world, ask("work", "winding", state="dried"))
    dry = answer(world, ask("insulation", "winding")).number
    assert wet is not None
    assert dry is not None
    assert wet < 1 < 100 < dry
    fan = World(motor("fan-two-speed-binding"), 1)
    assert answer(fan, ask("feel", "shaft")).text == "binding"
    assert answer(fan, ask("work", "shaft", state="free")).text == "free"
    assert [c["part"] for c in fan.changes] == ["shaft"]


def test_volts_on_the_wrong_joints_hurt_and_are_written_down() -> None:
    """460 V on joints for 230 V: each coil sees twice its volts; a short is off at once."""
    world = World(motor("nine-site"), 1)
    told = answer(world, ask("step", "run", "L1", "L2", "L3", volt=460.0))
    assert "sees" in told.lacks
    assert len(world.harm) == 1
    (cooked,) = world.document["hurt"]
    assert world.inner.coils[0].name == cooked
    assert world.inner.coils[0].ohm < 0.85 * world.inner.coils[1].ohm
    short = World(motor("six-marked"), 1)
    join(short, "L1 A L2")
    assert "shorted" in answer(short, ask("step", "run", volt=100.0)).lacks
    right = World(motor("six-marked"), 1)
    join(right, "L1 A", "L2 E", "L3 C", "D B F")
    shown = answer(right, ask("step", "run", "L1", "L2", "L3", volt=400.0))
    amps = [float(a) for a in shown.text.split(" V ")[1].split(" A")[0].split("/")]
    assert amps == pytest.approx([0.42 * 4.85] * 3, rel=0.1)  # what its plate lets it idle at
    assert not right.harm


def test_a_question_it_cannot_answer_says_what_is_lacking() -> None:
    world = World(motor("six-marked"), 1)
    for wanted in (
        ask("ohm", "winding", "A", "Z"),
        ask("ohm", "winding"),
        ask("start", "run", volt=400.0),
        ask("step", "run", volt=900.0),
        ask("cause", "complaint"),
        ask("microfarad", "capacitor:C9"),
        ask("direction", "shaft", id="turn-seen"),
        ask("work", "hookup", "L1", "S1.1", state="joined"),
    ):
        assert answer(world, wanted).lacks, wanted


def test_faults_are_worked_into_the_physics_and_taken_off_the_page() -> None:
    told = {
        "coil-open": "T1-T4",
        "earth-fault": "",
        "shaft-seized": "",
        "bearing-worn": "other",
        "switch-dirty": "S1",
        "capacitor-shorted": "C1",
        "earth-off": "",
    }
    document = motor(
        "cap-start", faults=[{"what": w, "of": of, "cure": "renew"} for w, of in told.items()]
    )
    found = baked(document)
    assert not set(LABELS) & set(found)
    assert found["hurt"] == {"T1-T4": None}
    assert found["insulation"]["megohm"] == 0.0
    assert found["shaft"]["feel"] == "seized"
    assert found["bearings"]["other"]["state"] == "rough"
    assert found["devices"][0]["state"] == "dirty"
    assert found["capacitors"][0]["shorted"] is True
    assert baked(found) == found
    read_motor(found)


@pytest.mark.parametrize(
    ("changed", "said"),
    [
        ({"arrangement": "three-phase-7-lead"}, "three-phase-7-lead"),
        ({"leads": [{"tag": "A", "is": "T1"}, {"tag": "A", "is": "T2"}]}, "tag A twice"),
        ({"leads": [{"tag": "A", "is": "T14"}]}, "T14"),
        ({"joints": [["L1", "Q"]]}, "Q"),
        ({"devices": [{"name": "S1", "kind": "wheel"}]}, "wheel"),
        ({"shaft": {"feel": "wobbly"}}, "shaft.feel"),
        ({"faults": [{"what": "gremlin", "cure": "renew"}]}, "faults.0.what"),
        ({"ohm": {"coil": -1}}, "ohm.coil"),
        ({"version": 2}, "version"),
        ({"format": "careful-coil/job"}, "format"),
    ],
    ids=lambda v: v if isinstance(v, str) else "",
)
def test_a_bad_motor_is_refused_by_the_field(changed: dict[str, Any], said: str) -> None:
    with pytest.raises(BadDocument, match=said):
        read_motor(motor("six-marked", **changed))


def test_every_fault_of_the_contract_can_be_written() -> None:
    assert len(FAULTS) == len(set(FAULTS)) > 35


def test_eyes_see_prints_looks_and_what_there_is() -> None:
    world = World(motor("six-marked", customer="hums"), 1)
    told = {
        "bn U1;bu V2": ask("inventory", "leads", type="text"),
        "6": ask("inventory", "leads"),
        "U1": ask("print", "lead:A"),
        "6205-2Z": ask("print", "bearing:drive"),
        "25 x 52 x 15": ask("size", "bearing:drive"),
        "hums": ask("word", "complaint", type="text"),
        "good": ask("look", "fan", type="choice", choices=("good", "missing")),
        "?": ask("plate", "plate", "volt", id="volt"),
    }
    world.put(plate={"text": PLATE, "unreadable": ["volt"]})
    for text, wanted in told.items():
        assert answer(world, wanted).text.startswith(text), wanted
    joined = World(motor("nine-site"), 1)
    found = answer(joined, ask("look", "hookup", type="text", reader="joints"))
    assert found.text.split("; ")[3] == "FED"
