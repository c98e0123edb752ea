"""Intake by keys: counter, leads, joints, plug, diagram, condition, pictures, replacement."""

from pathlib import Path

import pytest
from pypdf import PdfReader

from careful_coil.core.condition.answered import read_looks
from careful_coil.core.errors import BadValue
from careful_coil.core.stations import STATIONS
from careful_coil.desk.intake.condition import ConditionPart
from careful_coil.desk.intake.counter import CounterPart
from careful_coil.desk.intake.diagram import DiagramPart, read_diagram
from careful_coil.desk.intake.hookup_found import HookupPart
from careful_coil.desk.intake.leads_found import LeadsPart
from careful_coil.desk.intake.plate import PlatePart
from careful_coil.desk.intake.plug import PlugPart
from careful_coil.desk.stations.intake import IntakePage
from careful_coil.desk.stations.parted import MOST, PartedPage
from tests.desk.driver import Bench, Key
from tests.desk.hands import KEYS, P, station
from tests.desk.hands import part as at_part


def part(bench: Bench, kind: type[P]) -> P:
    """Open a part of Intake; the cursor is where it starts."""
    station(bench, 1, IntakePage)
    return at_part(bench, kind)


def put(bench: Bench, field: str, text: str) -> None:
    """Type into a field of Intake, wherever it stands."""
    assert bench.page.put_cursor(field)
    bench.settle()
    bench.enter(text)


def test_name_phone_complaint_enter_gives_number_and_stubs(bench: Bench) -> None:
    bench.ctrl(Key.Key_N)
    for text in ("Ropewalk, winder", "23", "hums, hot"):
        bench.enter(text)
    found = part(bench, CounterPart)
    assert found.stubs.number == bench.job.number
    assert found.stubs.lines == ("Ropewalk, winder", "23", "hums, hot")
    assert [p.told(bench.judged)[1] for p in bench.page.parts.values()][1:4] == [  # type: ignore[attr-defined]
        "not asked yet"
    ] * 3
    found.write.setFocus()
    bench.settle()
    bench.key(Key.Key_Return)
    file = Path(bench.message.removeprefix("Written: "))
    text = PdfReader(file).pages[0].extract_text()
    assert text.count(str(bench.job.number)) == 2
    assert "hums, hot" in text


def test_the_complaint_gives_a_first_suspicion_and_the_first_question(bench: Bench) -> None:
    bench.open("bakery")
    found = part(bench, CounterPart)
    assert found.odds.rows[0][1] == "Start switch or relay does not close"
    assert "does the shaft turn by hand" in found.asked.question.text()
    found.asked.buttons[2].click()  # seized
    bench.settle()
    assert found.odds.rows[0][1] == "Bearing seized or rotor rubs"
    assert any("seized" in row and "hold" in row.lower() for row in bench.ledger())
    put(bench, "symptom", "no hums")
    assert bench.judged.job.seen.symptoms["hums"] == "no"
    put(bench, "symptom", "sings")
    assert "how it failed" in bench.field("symptom").message.text()


def test_how_it_came_is_kept(bench: Bench) -> None:
    bench.open("bakery")
    found = part(bench, CounterPart)
    found.came["dismantled"].click()
    bench.settle()
    put(bench, "missing", "fan; key")
    came = bench.judged.job.seen.arrived
    assert came is not None
    assert (came.states, came.missing) == (("dismantled",), ("fan", "key"))
    assert part(bench, HookupPart).told(bench.judged) == ("note", "came dismantled")


def test_an_unreadable_plate_is_a_state_and_further_ratings_are_read(bench: Bench) -> None:
    bench.open("school")
    found = part(bench, PlatePart)
    assert found.told(bench.judged) == ("unproven", "partly unreadable")
    put(bench, "paste", "1~ 230 V 1.0 A 50 Hz 400 W 1380 r/min")
    assert bench.field("volt").cell.text() == "230"
    assert found.side.question.text().startswith("More power")
    found.side.buttons[0].click()
    bench.settle()
    assert bench.judged.job.plate.power_side == "in"
    found.more.click()
    put(bench, "ratings", "240 V 0.9 A 60 Hz 1650")
    assert "240 V, 0.9 A, 60 Hz" in found.rated.text()
    put(bench, "tachometer", "1378/1382")
    assert "4 poles (2 pairs)" in found.speeds.text()
    put(bench, "tachometer", "0")
    assert "above" in bench.field("tachometer").message.text()


def test_leads_are_described_one_after_the_other_and_made_alike_in_a_key(bench: Bench) -> None:
    bench.open("bakery")
    found = part(bench, LeadsPart)
    bench.enter("brown/white T1 1,5mm2 12cm cracked ring")
    lead = bench.judged.job.leads[0]
    assert (lead.colour, lead.tracer, lead.marking) == ("brown", "white", "T1")
    assert (lead.size, lead.length_mm, lead.insulation, lead.end) == (
        "1.5 mm²",
        120,
        "cracked",
        "ring",
    )
    assert found.roll.current == 1
    bench.key(Key.Key_Up)
    bench.key(Key.Key_Equal)
    leads = bench.judged.job.leads
    assert {x.insulation for x in leads} == {"cracked"}
    assert [x.marking for x in leads] == ["T1", "", ""]
    bench.key(Key.Key_Down)
    bench.enter("T5 thermostat")
    assert (bench.judged.job.leads[1].marking, bench.judged.job.leads[1].use) == (
        "T5",
        "thermostat",
    )
    bench.enter("red red")
    assert "one colour a lead" in bench.field("lead").message.text()


def nine_leads(bench: Bench) -> HookupPart:
    """The theatre's motor as it came: nine marked leads, its joints struck."""
    bench.open("theatre")
    found = part(bench, HookupPart)
    put(bench, "found", " ")
    assert bench.judged.job.found is not None
    assert bench.judged.job.found.joints == ()
    return found


def test_a_hookup_is_built_by_selecting_leads_and_pressing_j(bench: Bench) -> None:
    found = nine_leads(bench)
    found.roll.setFocus()
    order = [lead.tag for lead in bench.judged.job.leads]
    for joint in ("1AB", "2CG", "3DE", "FHJ"):
        for name in joint:
            if name in "123":
                bench.key(Key[f"Key_{name}"])
                continue
            bench.key(Key.Key_Home)
            for _ in range(order.index(name)):
                bench.key(Key.Key_Down)
            bench.key(Key.Key_Space)
        bench.key(Key.Key_J)
    assert bench.judged.job.found is not None
    assert bench.judged.job.found.joints == (
        ("L1", "A", "B"),
        ("L2", "C", "G"),
        ("L3", "D", "E"),
        ("F", "H", "J"),
    )
    assert "low volts: two wyes in parallel" in found.told_words.text()
    assert found.drawn.isVisibleTo(found)
    assert found.told(bench.judged)[0] == "watch"  # the supply is the other one
    bench.key(Key.Key_U)
    assert len(bench.judged.job.found.joints) == 3


def test_joints_are_typed_as_read_one_by_one(bench: Bench) -> None:
    nine_leads(bench)
    for text in ("L1 1 7", "L2 T2 8", "L3 3 9", "4 5 6"):
        put(bench, "joint", text)
    found = bench.judged.job.found
    assert found is not None
    assert found.joints[0] == ("L1", "A", "B")
    assert found.joints[3] == ("F", "H", "J")
    put(bench, "joint", "1 4")
    assert "once" in bench.field("joint").message.text()
    assert bench.judged.job.found == found


def test_a_standard_hookup_is_confirmed_joint_by_joint(bench: Bench) -> None:
    found = nine_leads(bench)
    offered = [b.text() for b in found.standard.buttons]
    assert len(offered) == 3
    found.standard.buttons[1].click()  # high volts
    for answer in (0, 0, 0, 1, 0, 0):
        assert "Is it so?" in found.standard.question.text()
        found.standard.buttons[answer].click()
        bench.settle()
    kept = bench.judged.job.found
    assert kept is not None
    assert len(kept.joints) == 5
    found.ran.buttons[0].click()
    bench.settle()
    assert bench.judged.job.found is not None
    assert bench.judged.job.found.ran == "yes"
    assert len(bench.judged.job.found.joints) == 5


def test_voltage_tags_are_listed_with_their_places(bench: Bench) -> None:
    bench.open("theatre")
    found = part(bench, HookupPart)
    put(bench, "voltage-tag", "door: 460 V")
    assert "door: 460 V" in found.tags.text()
    assert any("do not agree" in row for row in bench.ledger())
    put(bench, "voltage-tag", "230 V")
    assert "place and volts" in bench.field("voltage-tag").message.text()


def test_a_plug_is_kept_from_either_side(bench: Bench) -> None:
    bench.open("bakery")
    found = part(bench, PlugPart)
    found.view.click()
    put(bench, "plug", "2+2 A B C dummy")
    plug = bench.judged.job.seen.plug
    assert plug is not None
    assert plug.pins == ("B", "A", "dummy", "C")
    assert found.pins.text() == "pin 1 B, 2 A, 4 C; 1 dummy"
    assert "pin 2" in part(bench, LeadsPart).roll.row_words(0)
    put(bench, "plug", "2+2 A A")
    assert "each lead once" in bench.field("plug").message.text()
    put(bench, "plug", " ")
    assert bench.judged.job.seen.plug is None


def test_a_printed_diagram_is_told_and_drawn(bench: Bench) -> None:
    bench.open("bakery")
    found = part(bench, DiagramPart)
    put(bench, "diagram", "L1 U1; L2 V1; L3 W1; U2 V2 W2")
    assert "It is the standard wye" in found.told_words.text()
    assert found.drawn.isVisibleTo(found)
    put(bench, "diagram-title", "lid")
    assert bench.judged.job.seen.diagram is not None
    assert bench.judged.job.seen.diagram.title == "lid"
    put(bench, "diagram", "L1 U1 L2")
    assert found.told(bench.judged)[0] == "hold"
    assert not found.drawn.isVisibleTo(found)


def test_a_line_drawn_to_two_ends_is_one_joint() -> None:
    assert read_diagram("L1 T1; l1 T7; T4 T5") == (("L1", "T1", "T7"), ("T4", "T5"))
    for text in ("L1", "T1 T2; T2 T3", "T1 " + "X" * 50):
        with pytest.raises(BadValue):
            read_diagram(text)


def test_only_what_is_wrong_is_marked_and_one_key_says_the_rest(bench: Bench) -> None:
    bench.open("bakery")
    found = part(bench, ConditionPart)
    roll, view = found.roll, found.view
    assert bench.focus is view
    while view.current != "leads":
        bench.key(Key.Key_Right)
    bench.key(Key.Key_Return)
    assert (bench.focus is roll, roll.name_of(roll.current)) == (True, "leads")
    bench.key(Key.Key_4)  # frayed
    assert bench.judged.job.seen.condition["leads"].text == "frayed"
    assert found.told(bench.judged) == ("hold", "leads")
    assert any("Re-sleeve" in row for row in bench.ledger())
    found.rest.setFocus()
    bench.settle()
    bench.key(Key.Key_Return)
    assert not found.rest.isVisibleTo(found)
    roll.setFocus()
    bench.key(Key.Key_G)
    assert found.told(bench.judged)[0] == "good"
    bench.key(Key.Key_Delete)
    assert "leads" not in bench.judged.job.seen.condition
    bench.key(Key.Key_0)
    assert "leads" in bench.judged.job.seen.fine
    bench.key(Key.Key_Escape)
    bench.key(KEYS[view.number("windings")])
    bench.key(Key.Key_End)
    bench.key(Key.Key_2)
    assert any("Burn picture" in row for row in bench.ledger())
    put(bench, "condition", "smell fishy, near the can")
    assert bench.judged.job.seen.condition["smell"].words == "near the can"


@pytest.mark.parametrize("text", ["", "ears", "leads", "burn picture green"])
def test_looks_that_say_nothing_are_refused(text: str) -> None:
    with pytest.raises(BadValue):
        read_looks(text)


def test_page_keys_walk_through_the_parts(bench: Bench) -> None:
    bench.open("bakery")
    part(bench, CounterPart)
    page = bench.page
    assert isinstance(page, IntakePage)
    names = list(page.parts)
    for step in range(1, len(names) + 1):
        bench.key(Key.Key_PageDown)
        assert page.part.name == names[step % len(names)]
        assert page.part.isVisibleTo(page)
    bench.key(Key.Key_PageUp)
    assert page.part.name == names[-1]
    page.index.setFocus()
    bench.key(Key.Key_Home)
    assert page.part.name == "counter"
    bench.click(page.index, page.index.boxes()[2].center())
    assert page.group.title == "Leads and joints"
    plug = page.group.lines["plug"]
    assert plug.isVisible()
    bench.click(plug, plug.rect().center())
    assert page.part.name == "plug"


def test_no_station_has_more_than_six_lines(bench: Bench) -> None:
    for name in STATIONS:
        bench.window.go(name)
        if isinstance(bench.page, PartedPage):
            assert len(bench.page.groups) <= MOST


def test_the_bakery_motor_is_taken_in_by_keyboard(bench: Bench) -> None:
    before = bench.keys
    bench.ctrl(Key.Key_N)
    bench.enter("Bakery, dough mixer")
    bench.enter("31")
    bench.enter("Hums, starts if pushed. Leads were cut off at the block.")
    bench.key(Key.Key_PageDown)
    bench.enter("1~ 230V 50Hz 6.4A 0.75kW 1420rpm")
    bench.key(Key.Key_PageDown)
    bench.key(Key.Key_PageDown)
    bench.enter("3")
    for words in ("black 20mm cut", "grey", "white"):
        bench.enter(words)
    for _ in range(4):
        bench.key(Key.Key_PageDown)
    bench.key(Key.Key_R)
    job = bench.judged.job
    assert (job.name, job.plate.volts, job.plate.rpm) == (
        "Bakery, dough mixer",
        ((230, 230),),
        1420,
    )
    assert [x.colour for x in job.leads] == ["black", "grey", "white"]
    assert len(job.seen.fine) > 10
    assert bench.keys - before < 240  # two minutes at two keys a second
