"""Winding by keys: two stators taken in, a wrong span caught, a motor made anew, a coil walked to."""

import pytest

from careful_coil.desk.rewind.anew import AnewPart
from careful_coil.desk.rewind.joints import JointsPart
from careful_coil.desk.rewind.likes import LikesPart
from careful_coil.desk.rewind.record import RecordPart
from careful_coil.desk.rewind.worked import WorkedPart
from careful_coil.desk.stations.winding import WindingPage
from tests.desk.driver import Bench, Key
from tests.desk.hands import station as at_station


def station(bench: Bench, part: str = "record") -> WindingPage:
    return at_station(bench, 6, WindingPage, part)


def fill(bench: Bench, field: str, text: str) -> None:
    assert bench.window.pages["winding"].put_cursor(field)
    bench.enter(text)


TWO_LAYERS = {
    "slots": "36",
    "poles": "4",
    "exit": "lead end",
    "connection": "wye",
    "groups": "12",
    "coils": "36",
    "span": "1-8",
    "turns": "24",
    "wire": "2 x 0.75",
    "circuits": "1",
    "mass": "3.1 kg",
    "extension": "40 mm",
    "core": "120",
    "bore": "104",
    "slot-depth": "17",
    "tooth": "4.4",
    "back-iron": "18",
    "slot-area": "118",
    "liner": "0.25 polyester",
}


def test_a_three_phase_stator_is_taken_in_and_a_wrong_span_is_caught(bench: Bench) -> None:
    bench.open("cider mill")
    page = station(bench)
    part = page.parts["record"]
    assert isinstance(part, RecordPart)
    for field, text in TWO_LAYERS.items():
        fill(bench, f"winding-{field}", text)
    assert part.left.words == "All that a rewind wants is on record."
    assert part.stator.isVisible()
    assert not [f for f in part.list.findings if f.verdict == "hold"]
    fill(bench, "winding-span", "1-18")
    assert any("beyond the pole pitch" in f.subject for f in part.list.findings)
    assert "beyond the pole pitch" in page.fields["winding-span"].message.text()
    fill(bench, "winding-span", "1-8")
    fill(bench, "winding-coils", "18")
    assert any("18 coils, not 36" in f.subject for f in part.list.findings)
    assert bench.judged.gate
    fill(bench, "winding-coils", "36")
    assert not page.fields["winding-coils"].message.text()
    assert not bench.judged.gate
    fill(bench, "winding-turns", "40")
    assert bench.judged.gate == ()  # the mass of wire holds the ohms
    fill(bench, "winding-mass", "5.2")
    assert {f.code for f in bench.judged.gate} == {"winding-ohms"}
    fill(bench, "winding-mass", "3.1")
    fill(bench, "winding-turns", "24")
    worked = page.parts["worked"]
    assert isinstance(worked, WorkedPart)
    page.open_part("worked")
    assert all(f.value is not None for f in worked.figures)


def test_a_single_phase_stator_is_taken_in(bench: Bench) -> None:
    bench.open("bakery")
    page = station(bench)
    part = page.parts["record"]
    assert isinstance(part, RecordPart)
    assert not page.fields["winding-span"].isVisible()
    for field, text in (
        ("slots", "24"),
        ("poles", "4"),
        ("main", "1-6:48 2-5:36"),
        ("main-wire", "0.9"),
        ("start", "1-6:30 2-5:22"),
        ("start-wire", "0.5"),
    ):
        fill(bench, f"winding-{field}", text)
    layout = part.stator.layout_shown
    assert layout is not None
    assert len(layout.coils) == 16
    fill(bench, "winding-start-at", "5")
    assert any("not centred" in f.subject for f in part.list.findings)


def test_a_micrometer_reading_is_told_what_it_can_mean(bench: Bench) -> None:
    bench.open("boatyard")
    part = station(bench).parts["record"]
    assert isinstance(part, RecordPart)
    count = len(bench.job.entries)
    fill(bench, "micrometer", "0.83 over")
    assert "0.75 mm grade 2" in part.meant.words
    fill(bench, "micrometer", "0.75 bare")
    assert part.meant.words.startswith("0.75 bare can mean 0.75 mm bare")
    fill(bench, "micrometer", "99 thick")
    assert "0.83 over" in part.fields["micrometer"].message.text()
    assert len(bench.job.entries) == count


def test_the_arrows_walk_round_the_stator(bench: Bench) -> None:
    bench.open("boatyard")
    part = station(bench).parts["record"]
    assert isinstance(part, RecordPart)
    part.stator.setFocus()
    bench.key(Key.Key_Right)
    assert "coil 2, slots 2 and 9" in part.stator.accessibleDescription()
    bench.key(Key.Key_Left)
    bench.key(Key.Key_Left)
    assert "coil 36" in part.stator.accessibleDescription()
    bench.key(Key.Key_Home)
    assert "coil 1," in part.stator.accessibleDescription()


def test_joints_are_given_in_their_order(bench: Bench) -> None:
    bench.open("boatyard")
    page = station(bench, "joints")
    part = page.parts["joints"]
    assert isinstance(part, JointsPart)
    assert part.order.words == "Circuit 1: lead on 1s; 1f–4f, 4s–7s, 7f–10f; out at 10s."
    part.which.buttons[2].setFocus()
    bench.key(Key.Key_Return)
    assert part.phase == "W"
    fill(bench, "winding-circuits", "2")
    page.open_part("joints")
    assert part.order.words.count("Circuit") == 2
    assert part.slots.words.startswith("1: U g1 c1s")


def test_a_coil_walked_to_is_the_one_unrolled(bench: Bench) -> None:
    bench.open("boatyard")
    page = station(bench)
    part, joints = page.parts["record"], page.parts["joints"]
    assert isinstance(part, RecordPart)
    assert isinstance(joints, JointsPart)
    part.stator.go(4)
    page.open_part("joints")
    assert (joints.phase, joints.coil) == ("W", 4)


def test_a_single_phase_motor_is_made_anew(bench: Bench) -> None:
    bench.open("dairy")
    part = station(bench, "anew").parts["anew"]
    assert isinstance(part, AnewPart)
    fill(bench, "anew-volt", "115")
    shown = {name: new for name, _, new in part.table.rows}
    assert shown["Main, a pole"] == "1-6:29 2-5:21"
    assert shown["Capacitor"] == "4 times its µF"


def test_the_shop_is_looked_through_for_motors_like_this_one(bench: Bench) -> None:
    """The cider mill's stator is typed like the boatyard's, a little longer: it is found."""
    bench.open("cider mill")
    for field, text in (("slots", "36"), ("poles", "4"), ("core", "97"), ("bore", "92")):
        station(bench)
        fill(bench, f"winding-{field}", text)
    page = station(bench, "likes")
    part = page.parts["likes"]
    assert isinstance(part, LikesPart)
    part.key.setFocus()
    bench.key(Key.Key_Return)
    bench.settle(lambda: part.words.words != "Looking.")
    assert [a.name for a in part.found] == ["Boatyard, winch"]
    assert "turns 31" in part.words.words
    bench.open("bakery")
    station(bench, "likes")
    assert not part.found


def test_the_winding_sheet_is_written_in_three_forms(bench: Bench) -> None:
    bench.open("boatyard")
    part = station(bench, "joints").parts["joints"]
    assert isinstance(part, JointsPart)
    part.key.setFocus()
    bench.key(Key.Key_Return)
    bench.settle()
    assert part.said.words.startswith("Written:")
    folder = bench.window.session.shop / "sheets"
    assert sorted(f.name for f in folder.iterdir()) == [
        "winding-209.csv",
        "winding-209.json",
        "winding-209.pdf",
    ]


def test_a_motor_is_made_anew_for_another_voltage_and_frequency(bench: Bench) -> None:
    bench.open("boatyard")
    page = station(bench, "anew")
    part = page.parts["anew"]
    assert isinstance(part, AnewPart)
    for field, text in (
        ("volt", "460 V"),
        ("hertz", "60"),
        ("circuits", "2"),
        ("reels", "0.45 0.475 0.5"),
    ):
        fill(bench, f"anew-{field}", text)
    assert part.found is not None
    assert part.found.turns == pytest.approx(31 * 460 / 400 * 50 / 60 * 2)
    assert part.found.new.turns == 59
    shown = {name: new for name, _, new in part.table.rows}
    assert shown["Turns per coil"] == "59 (59.42 exactly)"
    assert "slot fill" in part.wires.words
    assert {s.mm for o in part.offers for s in o.strands} <= {0.45, 0.475, 0.5}
    fill(bench, "anew-reels", "0.45:9 0.475:0.2 0.5:9")
    assert part.wires.words.splitlines()[-1].count("; only 0.2 of") == 1
    fill(bench, "anew-poles", "2")
    assert any("saturates" in f.why for f in part.notes.findings)
    fill(bench, "anew-poles", "4")
    count = len(bench.job.entries)
    fill(bench, "anew-circuits", "3")
    assert "1, 2, 4" in part.words.words
    assert len(bench.job.entries) == count


@pytest.mark.parametrize(
    ("part", "field", "text", "words"),
    [
        ("record", "winding-slots", "many", "3 to 360"),
        ("record", "winding-poles", "3", "even number"),
        ("record", "winding-span", "8", "1-8"),
        ("record", "winding-wire", "thin", "wires in hand"),
        ("record", "winding-core", "0", "core length"),
        ("record", "winding-phase-ohm", "open", "ohms of one phase"),
        ("anew", "anew-volt", "-3", "below nothing"),
        ("anew", "anew-strands", "99", "1 to 40"),
        ("anew", "anew-reels", "thick", "gauges on the reels"),
        ("anew", "anew-connection", "zigzag", "wye, delta"),
    ],
)
def test_what_cannot_be_is_refused_where_it_was_typed(
    shared: Bench, part: str, field: str, text: str, words: str
) -> None:
    shared.open("boatyard")
    page = station(shared, part)
    count = len(shared.job.entries)
    fill(shared, field, text)
    assert words in page.fields[field].message.text()
    assert len(shared.job.entries) == count
