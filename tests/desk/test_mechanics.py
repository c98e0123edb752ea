"""Mechanics by keys: a worn number found, bars taken by Space, a temporary cleared, assembly in reverse."""

import pytest
from PySide6.QtTest import QTest

from careful_coil.desk.mechanics.assembly import AssemblyPart
from careful_coil.desk.mechanics.bars import BarsPart
from careful_coil.desk.mechanics.bearings import BearingsPart
from careful_coil.desk.scale import ScaleField
from careful_coil.desk.stations.mechanics import MechanicsPage
from tests.desk.driver import Bench, Key
from tests.desk.hands import KEYS
from tests.desk.hands import station as at_station


def station(bench: Bench, part: str = "shaft") -> MechanicsPage:
    return at_station(bench, 5, MechanicsPage, part)


def fill(bench: Bench, field: str, text: str) -> None:
    assert bench.window.pages["mechanics"].put_cursor(field)
    bench.enter(text)


def gate(bench: Bench) -> set[str]:
    return {f.code for f in bench.judged.gate}


def test_a_worn_number_is_found_by_callipers_at_both_ends(bench: Bench) -> None:
    bench.open("bakery")
    page = station(bench, "bearings")
    part = page.parts["bearings"]
    assert isinstance(part, BearingsPart)
    fill(bench, "bearing-number", "62?3 ZZ")
    assert "6203, 6213. Measure bore" in part.found.words
    fill(bench, "bearing-size", "17.05 x 40 x 12")
    assert "the callipers agree" in part.found.words
    assert part.picture.isVisible()
    fill(bench, "bearing-state", "rough")
    assert "bearing-drive" in gate(bench)
    assert "1 × 6203-ZZ, drive end" in part.parts.words
    fill(bench, "other-size", "17 x 42 x 12")
    fill(bench, "bearing-number", "6203")
    assert part.end == "other"
    assert "disagree" in part.found.words
    fill(bench, "drive-done", "renewed")
    fill(bench, "bearing-fitted", "6203-2RS C3")
    assert "bearing-drive" not in gate(bench)
    bench.ctrl(Key.Key_Z)
    bench.ctrl(Key.Key_Z)
    assert "bearing-drive" in gate(bench)


def test_a_sleeve_bearing_is_asked_for_oil_wick_and_ports(bench: Bench) -> None:
    bench.open("bakery")
    page = station(bench, "bearings")
    part = page.parts["bearings"]
    assert isinstance(part, BearingsPart)
    page.put_cursor("bearing-sort")
    bench.key(Key.Key_2)
    assert part.fields["bearing-sort"].entry.text() == "Sleeve"  # type: ignore[attr-defined]
    assert not page.fields["bearing-number"].isVisible()
    for field, text in (
        ("oil", "ISO VG 32"),
        ("wick", "soaks"),
        ("ports", "2 of 2"),
        ("state", "good"),
    ):
        fill(bench, f"bearing-{field}", text)
    assert "bearing-drive" not in gate(bench)


def test_the_feel_of_the_shaft_explains_the_chatter(bench: Bench) -> None:
    """The dairy's switch clicks in and out: the binding shaft leads the causes, until it is free."""
    bench.open("dairy")
    assert bench.judged.facts.causes is not None
    assert bench.judged.facts.causes.odds[0][0].name == "bearing-worn"
    page = station(bench)
    feel = page.fields["felt-feel"]
    assert isinstance(feel, ScaleField)
    assert bench.focus is feel.buttons[2]
    bench.key(Key.Key_1)
    assert feel.buttons[0].isChecked()
    fill(bench, "felt-coast-down", "7")
    fill(bench, "felt-start-after", "31 V")
    assert "shaft-feel" not in gate(bench)
    assert bench.judged.facts.causes.odds[0][0].name != "bearing-worn"
    assert any("Starts turning at 31 V, 52 V before" in f.subject for f in bench.judged.findings)


def test_twenty_four_bars_are_taken_by_space_and_the_open_coil_is_found(bench: Bench) -> None:
    bench.open("sander")
    bench.window.session.bind()
    page = station(bench, "bars")
    part = page.parts["bars"]
    assert isinstance(part, BarsPart)
    fill(bench, "bars-count", "0")
    fill(bench, "bars-count", "24")
    assert part.next.words == "Next: bar 1 to bar 2."
    part.key.setFocus()
    bench.key(Key.Key_Return)
    assert bench.focus is bench.window.strip.line
    for _ in range(24):
        bench.key(Key.Key_Space)
        bench.settle()
    hands = bench.judged.job.hands
    assert len(hands.ohms) == 24
    assert not part.taking
    found = next(f for f in bench.judged.findings if f.code == "bars")
    assert found.subject == "Bars 9 and 10: open coil"
    assert "own pattern" in found.why
    assert part.told(bench.judged)[0] == "hold"


def test_bars_are_pasted_and_one_is_read_again(bench: Bench) -> None:
    bench.open("boatyard")
    page = station(bench, "bars")
    fill(bench, "bars-typed", "0.2")
    assert "how many bars" in page.fields["bars-typed"].message.text()
    fill(bench, "bars-count", "12")
    fill(bench, "bars-typed", " ".join(["0.210"] * 4 + ["0.02"] + ["0.211"] * 7))
    assert next(f for f in bench.judged.findings if f.code == "bars").verdict == "hold"
    fill(bench, "bars-typed", "bar 5: 0.209")
    assert next(f for f in bench.judged.findings if f.code == "bars").verdict == "good"
    fill(bench, "bars-typed", "0.3")
    assert "which one again" in page.fields["bars-typed"].message.text()


def test_a_temporary_holds_the_release_until_it_is_cleared(bench: Bench) -> None:
    bench.open("cider mill")
    assert not bench.judged.gate
    station(bench, "temporaries")
    fill(bench, "temporary", "jumper across the thermostat")
    assert gate(bench) == {"temporary"}
    bench.ctrl(Key.Key_9)
    assert "temporary" in gate(bench)
    station(bench, "temporaries")
    fill(bench, "temporary-cleared", "T1 taken off, CD saw it")
    assert gate(bench) == {"test-run"}  # it ran with the jumper in
    fill(bench, "changed", "hole 6 mm in the end bell")
    assert gate(bench) == {"changed", "test-run"}
    fill(bench, "changed-closed", "M1 plug and sealant")
    assert gate(bench) == {"test-run"}


def test_assembly_goes_in_reverse_and_holds_until_the_last(bench: Bench) -> None:
    bench.open("cider mill")
    page = station(bench, "assembly")
    part = page.parts["assembly"]
    assert isinstance(part, AssemblyPart)
    for words in ("guard; three screws", "fan; key inside", "rear end bell"):
        fill(bench, "part-off", words)
    assert part.left == ("rear end bell", "fan", "guard")
    assert "assembly" in gate(bench)
    page.open_part("assembly")
    assert bench.focus is part.roll
    for left in (2, 1, 0):
        bench.key(Key.Key_Space)
        bench.settle()
        assert len(part.left) == left
    again = {"shaft-feel", "mechanics", "insulation", "earth-bond", "test-run"}
    assert gate(bench) == again  # hands were in it: felt, tested and run anew


def test_a_photograph_shows_beside_its_part(bench: Bench) -> None:
    bench.open("theatre")
    assert bench.judged.job.seen.pictures
    page = station(bench, "assembly")
    part = page.parts["assembly"]
    assert isinstance(part, AssemblyPart)
    fill(bench, "part-off", "terminal board; picture 1")
    assert part.picture.isVisible()
    assert not part.picture.image.isNull()
    fill(bench, "part-gone", "terminal board")
    assert not part.picture.isVisible()


def test_a_cracked_lead_is_mended(bench: Bench) -> None:
    bench.open("dairy")
    page = station(bench, "lead-insulation")
    assert "seen-leads" in gate(bench)
    fill(bench, "lead-done", "C sleeved 155 °C")
    assert "seen-leads" not in gate(bench)
    fill(bench, "lead-state", "A burnt 150 mm")
    fill(bench, "lead-done", "A sleeved")
    assert "lead-mended" in gate(bench)
    fill(bench, "lead-done", "A renewed 1 mm²")
    assert "lead-mended" not in gate(bench)
    assert bench.judged.job.leads[0].length_mm == 150
    assert "0.75 mm² of copper for 7.2 A" in page.parts["lead-insulation"].new.words  # type: ignore[attr-defined]


@pytest.mark.parametrize(
    ("part", "field", "text", "words"),
    [
        ("shaft", "felt-coast-down", "long", "seconds such as"),
        ("shaft", "felt-end-float", "-1", "millimetres"),
        ("shaft", "felt-rub", "much", "none, rotor, stator"),
        ("shaft", "felt-start-before", "0", "volts such as"),
        ("bearings", "bearing-number", "the big one;", "6203-2RS"),
        ("bearings", "bearing-size", "40 17 12", "smaller than the outside"),
        ("bearings", "bearing-size", "17 40", "17 x 40 x 12"),
        ("bearings", "bearing-state", "purple", "good, rough"),
        ("brushes", "felt-hours-week", "200", "at most 168"),
        ("bars", "bars-count", "many", "number of bars"),
        ("bars", "bars-shaft", "cat", "12 at 25 °C, or open"),
        ("lead-insulation", "lead-state", "Z cracked", "a lead and its state"),
        ("lead-insulation", "lead-done", "A glued", "sleeved, spliced"),
        ("lead-insulation", "felt-relief", "purple", "holds, slips"),
        ("temporaries", "temporary-cleared", "T9 off", "none stands yet"),
        ("assembly", "part-off", "fan; picture 9", "No such photograph"),
        ("assembly", "part-gone", "fan", "nothing is on the list"),
    ],
)
def test_what_cannot_be_is_refused_where_it_was_typed(
    shared: Bench, part: str, field: str, text: str, words: str
) -> None:
    shared.open("bakery")
    page = station(shared, part)
    count = len(shared.job.entries)
    fill(shared, field, text)
    assert words in page.fields[field].message.text()
    assert len(shared.job.entries) == count


def test_an_answer_is_picked_from_the_list_by_key(bench: Bench) -> None:
    page = at_station(bench, 5, MechanicsPage, "shaft")
    assert page.put_cursor("felt-rub")
    cell = page.fields["felt-rub"].cell
    bench.key(Key.Key_Down)
    assert cell.menu is not None
    assert [a.text() for a in cell.menu.actions()] == ["&1 none", "&2 rotor", "&3 stator"]
    QTest.keyClick(cell.menu, Key.Key_2)
    bench.settle()
    assert bench.judged.job.hands.felt["rub"] == "rotor"
    page.put_cursor("felt-rub")
    bench.key(Key.Key_Down)
    assert [a.isChecked() for a in cell.menu.actions()] == [False, True, False]
    QTest.keyClick(cell.menu, Key.Key_Escape)
    assert cell.text() == "rotor"


def test_a_place_is_chosen_in_the_drawing_by_key_and_its_scale_by_digit(bench: Bench) -> None:
    bench.open("bakery")
    page = station(bench)
    view = page.places.view
    view.setFocus()
    fan = view.number("fan")
    bench.key(KEYS[fan])
    assert (view.current, page.part.name) == ("fan", "fan")
    scale = page.fields["felt-fan"]
    assert isinstance(scale, ScaleField)
    bench.key(Key.Key_2)
    assert bench.judged.job.hands.felt["fan"] == "broken"
    place = next(p for p in view.places if p.name == "fan")
    assert (place.mark, place.words) == ("hold", "broken")
    bench.key(Key.Key_Delete)
    assert not bench.judged.job.hands.felt.get("fan")
    bench.enter("cracked")  # in one's own words
    assert bench.judged.job.hands.felt["fan"] == "broken"
    bench.enter("wobbly")  # refused, and taken back by Escape
    assert "good, broken" in scale.message.text()
    bench.key(Key.Key_Escape)
    assert not scale.message.isVisible()
    assert not scale.cell.isVisible()
    assert bench.focus is scale.entry
    bench.key(Key.Key_PageDown)
    assert view.current == view.places[fan].name
    bench.click(view, view.boxes()["other"].center())
    assert (page.part.name, page.places.bearings.end) == ("bearings", "other")
    view.setFocus()
    bench.key(KEYS[view.number("earth")])
    assert bench.station == "insulation"


def test_next_is_marked_at_its_place(bench: Bench) -> None:
    bench.open("school workshop")
    page = station(bench)
    step = next(s for s in bench.judged.steps if s.station == "mechanics")
    assert page.part.owns({"feel": "felt-feel"}.get(step.focus, step.focus))


def test_a_choice_that_nobody_made_does_not_look_like_one(shared: Bench) -> None:
    page = at_station(shared, 5, MechanicsPage, "shaft")
    for name in ("felt-cord", "felt-relief", "felt-rub"):
        cell = page.fields[name].cell
        assert cell.text() or cell.placeholderText() in ("", "choose", ", ".join(cell.choices))
