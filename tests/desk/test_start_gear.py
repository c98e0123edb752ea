"""Start gear by keys: a cause narrowed down, a capacitor judged, a switch read, the gate opened."""

from pathlib import Path

import pytest

from careful_coil.core.gear.shelf_list import read_shelf
from careful_coil.desk.gear.capacitors import CapacitorsPart
from careful_coil.desk.gear.curves import CurvesPart
from careful_coil.desk.gear.devices import DevicesPart
from careful_coil.desk.gear.shelf import ShelfPart
from careful_coil.desk.gear.why import WhyPart
from careful_coil.desk.stations.start_gear import StartGearPage
from careful_coil.records.shop_shelf import shelf_of
from tests.desk.driver import Bench, Key
from tests.desk.hands import station as at_station


def station(bench: Bench, part: str = "why") -> StartGearPage:
    return at_station(bench, 4, StartGearPage, part)


def fill(bench: Bench, field: str, text: str) -> None:
    assert bench.window.pages["start-gear"].put_cursor(field)
    bench.enter(text)


def test_a_motor_that_starts_when_spun_is_led_to_its_cause(bench: Bench) -> None:
    """It hums and starts when spun; the first questions come first; a key a test; the cause is left."""
    bench.open("bakery")
    page = station(bench)
    part = page.parts["why"]
    assert isinstance(part, WhyPart)
    for question, answer in (("turn by hand?", "Free"), ("does it run?", "Does not start")):
        assert part.asked.question.text().endswith(question)
        next(b for b in part.asked.buttons if b.text() == answer).setFocus()
        bench.key(Key.Key_Return)
    station(bench)
    assert bench.judged.facts.causes is not None
    before = bench.judged.facts.causes.odds[0][0].name
    assert before == "switch-open"
    assert bench.focus in part.asked.buttons
    assert part.asked.question.text() == "Ohms through start switch or relay at rest"
    bench.key(Key.Key_Return)  # closed
    assert bench.judged.facts.causes.odds[0][0].name == "start-capacitor"
    assert "start switch or relay at rest: closed" in part.done.words.lower()
    fill(bench, "cause-test", "capacitor right")
    assert bench.judged.facts.causes.odds[0][0].name == "start-winding"
    fill(bench, "cause-test", "capacitor")  # taken back
    assert "capacitor" not in bench.judged.job.gear.tests
    bench.ctrl(Key.Key_Z)
    assert bench.judged.job.gear.tests["capacitor"] == "right"


def test_a_capacitor_is_let_down_measured_and_judged(bench: Bench) -> None:
    bench.open("bakery")
    page = station(bench, "capacitor")
    part = page.parts["capacitor"]
    assert isinstance(part, CapacitorsPart)
    fill(bench, "can-marking", "88-108 uF 250 V")
    assert "354 V" in part.wait.words
    assert "after 5.3 s" in part.wait.words
    fill(bench, "can-microfarad", "95 uF")
    found = next(f for f in bench.judged.findings if f.code == "capacitor")
    assert (found.verdict, found.subject) == ("unproven", "Capacitor C1 not proved discharged")
    fill(bench, "can-drained", "0.3")
    fill(bench, "can-serves", "start")
    assert part.told(bench.judged) == ("good", "capacitor C1 right")
    fill(bench, "can-microfarad", "115 2.6 60")
    assert bench.judged.job.gear.capacitors["C1"]["microfarad"] == "59.971"
    assert part.told(bench.judged)[0] == "hold"
    assert bench.judged.facts.causes is not None
    assert bench.judged.facts.causes.odds[0][0].name == "start-capacitor"
    fill(bench, "can-microfarad", "95")
    fill(bench, "can-looks", "bul")
    assert any("whatever it measures" in f.why for f in part.verdicts.findings)
    fill(bench, "can-name", "C2")
    assert part.fields["can-marking"].cell.text() == ""
    fill(bench, "can-marking", "35 uF 5% 450 V")
    assert set(bench.judged.job.gear.capacitors) == {"C1", "C2"}


def test_a_switch_is_read_in_turn_and_opens_the_gate(bench: Bench) -> None:
    bench.open("bakery")
    page = station(bench, "device")
    part = page.parts["device"]
    assert isinstance(part, DevicesPart)
    fill(bench, "device-name", "S1")
    fill(bench, "device-kind", "speed-switch")
    assert part.next.words == "Next: 1 to 2, at rest: under 0.500 Ω"
    fill(bench, "device-ohm", "0.14")
    assert "mechanism worked by hand" in part.next.words
    fill(bench, "device-ohm", "0.2")
    assert any("welded" in f.why for f in bench.judged.gate if f.code == "start-device")
    bench.ctrl(Key.Key_Z)
    fill(bench, "device-ohm", "open")
    assert part.next.words == "All read."
    assert [f.verdict for f in part.list.findings] == ["good", "good", "unproven", "unproven"]
    for question, answer in (("Mechanism", "Free"), ("Contact plate", "Pitted")):
        assert part.looked.question.text().startswith(question)
        next(b for b in part.looked.buttons if b.text() == answer).setFocus()
        bench.key(Key.Key_Return)
    assert part.next.words == "All read and looked at."
    assert part.told(bench.judged) == ("good", "centrifugal switch S1 reads right")
    gear = next(f for f in bench.judged.findings if f.code == "start-gear")
    assert (gear.verdict, gear.why) == ("good", "S1.")
    fill(bench, "device-ohm", "0.1")
    assert "Ctrl+Z strikes the last" in part.fields["device-ohm"].message.text()


def test_readings_through_raw_leads_prove_nothing(bench: Bench) -> None:
    bench.open("bakery")
    station(bench, "device")
    fill(bench, "device-name", "P")
    fill(bench, "device-kind", "protector")
    fill(bench, "device-nulled", "no")
    fill(bench, "device-ohm", "0.4")
    found = next(f for f in bench.judged.findings if f.code == "start-device")
    assert found.verdict == "unproven"
    assert "null the leads" in found.why


# fields that are there only where a job has what they are of
WHERE = {
    "device-out": "chandlery",
    "can-name": "cold store",
    "device-name": "cold store",
    "relay-volts": "cold store",
    "relay-offered": "cold store",
    "start-wire": "cold store",
}


@pytest.mark.parametrize(
    ("part", "field", "text", "words"),
    [
        ("why", "cause-test", "sniff it", "No such test"),
        ("why", "cause-test", "capacitor purple", "right, low"),
        ("capacitor", "can-marking", "108-88 uF 250 V", "runs backwards"),
        ("capacitor", "can-marking", "0 uF", "0 µF is none"),
        ("capacitor", "can-serves", "both", "start, run"),
        ("capacitor", "can-looks", "ugly", "bulged"),
        ("capacitor", "can-drained", "48", "still holds a charge"),
        ("capacitor", "can-microfarad", "many", "µF"),
        ("capacitor", "can-name", "1", "a name such as C1"),
        ("device", "device-kind", "magic", "centrifugal switch"),
        ("device", "device-name", "!", "a name such as S1"),
        ("device", "device-name", "C1", "C1 is another part here"),
        ("capacitor", "can-name", "K1", "K1 is another part here"),
        ("device", "device-nulled", "perhaps", "yes, no"),
        ("device", "device-ohm", "0.1", "still has a reading"),
        ("device", "device-out", "fast", "rpm such as"),
        ("device", "device-out", "900 s", "seconds such as 1.4"),
        ("why", "cause-symptom", "sings", "hums"),
        ("why", "cause-symptom", "when purple", "always, cold"),
        ("capacitor", "can-microfarad", "34/", "each section"),
        ("capacitor", "can-loss", "fat %", "a loss such as"),
        ("capacitor", "can-loss", "0.8 Ω", "hertz and its µF first"),
        ("capacitor", "can-size", "37", "diameter and length"),
        ("capacitor", "can-bleed", "open", "ohms of the bleed"),
        ("capacitor", "can-resistor", "0", "ohms it is discharged through"),
        ("unknown", "locked-main", "40", "volts, amps and watts"),
        ("unknown", "locked-start", "40 3 500", "More watts than volt-amperes"),
        ("unknown", "most-amp", "-1", "-1"),
        ("unknown", "tried", "8 1390", "line A"),
        ("unknown", "tried", "8 1390 4 0 300", "above nothing"),
        ("fitting", "fitting-device", "!", "a name such as S1"),
        ("fitting", "relay-volts", "118/291", "three volts"),
        ("fitting", "relay-offered", "300-280 60 330", "runs upward"),
        ("fitting", "relay-offered", "300", "pick-up from-to"),
        ("curves", "start-wire", "thick", "the bare wire in mm"),
    ],
)
def test_what_cannot_be_is_refused_where_it_was_typed(
    shared: Bench, part: str, field: str, text: str, words: str
) -> None:
    shared.open(WHERE.get(field, "bakery"))
    page = station(shared, part)
    if field == "start-wire":
        curves = page.parts["curves"]
        assert isinstance(curves, CurvesPart)
        shared.settle(lambda: curves.found is not None)
    count = len(shared.job.entries)
    fill(shared, field, text)
    assert words in page.fields[field].message.text()
    assert len(shared.job.entries) == count


LIST = """tag,kind,marking,diameter_mm,length_mm,count
R20,run,20 µF 450 V,40,75,3
S88,,88-108 µF 250 V,37,70,2
S95,,95-120 µF 165 V,37,70,2
S45,,43-52 µF 250 V,37,70,2
D1,,100 µF 25 V DC,10,20,1
"""


def test_the_shelf_names_what_serves_and_what_must_not(bench: Bench, tmp_path: Path) -> None:
    bench.open("bakery")
    page = station(bench, "shelf")
    part = page.parts["shelf"]
    assert isinstance(part, ShelfPart)
    assert part.words.words == "No capacitor is noted yet."
    fill(bench, "can-marking", "88-108 uF 250 V")
    page.open_part("shelf")
    bench.settle()
    bench.settle(lambda: bool(part.items))
    assert part.offers.words.startswith("1. S088: 88 to 108 µF, 250 V")
    assert "R50: a run capacitor" not in part.not_these.words
    file = tmp_path / "list.csv"
    file.write_text(LIST, encoding="utf-8")
    fill(bench, "shelf-file", str(file))
    assert part.offers.words.startswith("1. S88: 88 to 108 µF, 250 V")
    assert "S45 and S45: 86 to 104 µF" in part.offers.words
    assert "S95: 165 V, 250 V are needed" in part.not_these.words
    assert "D1: polarised" in part.not_these.words
    assert part.told(bench.judged) == ("", "5 on the shelf")
    fill(bench, "shelf-out", str(tmp_path / "out.csv"))
    assert read_shelf((tmp_path / "out.csv").read_text("utf-8")) == part.items
    kept, why = shelf_of(bench.window.session.shop)
    assert (kept, why) == (part.items, "")


def test_a_list_that_cannot_be_read_changes_nothing(bench: Bench, tmp_path: Path) -> None:
    bench.open("bakery")
    page = station(bench, "shelf")
    part = page.parts["shelf"]
    assert isinstance(part, ShelfPart)
    bench.settle(lambda: bool(part.items))
    before = part.items
    file = tmp_path / "list.csv"
    file.write_text("tag,marking\nA,banana\n", encoding="utf-8")
    for text, words in ((str(file), "line 2, marking"), ("nowhere.csv", "the path of a CSV")):
        fill(bench, "shelf-file", text)
        assert words in page.fields["shelf-file"].message.text()
        bench.key(Key.Key_Escape)
    assert part.items == before
    fill(bench, "shelf-out", str(tmp_path))
    assert "ends in .csv" in page.fields["shelf-out"].message.text()
    bench.key(Key.Key_Escape)
    fill(bench, "shelf-out", str(file / "list.csv"))
    assert "was not written" in part.words.words
    (bench.window.session.shop / "shelf.csv").write_text("rubbish", encoding="utf-8")
    assert "is left out" in shelf_of(bench.window.session.shop)[1]


def test_curves_of_this_motor_follow_what_is_noted_and_what_if(bench: Bench) -> None:
    """The run capacitor is noted: the curve is there; less µF starts worse, less volts by their square."""
    bench.open("bakery")
    page = station(bench, "curves")
    part = page.parts["curves"]
    assert isinstance(part, CurvesPart)
    assert "capacitor must be noted first" in part.words.words
    fill(bench, "can-marking", "25 uF 450 V")
    fill(bench, "can-serves", "run")
    page.open_part("curves")
    bench.settle(lambda: part.found is not None)
    assert part.told(bench.judged) == ("", "estimated")
    assert "Assumed: " in part.assumed.words
    noted = part.words.words
    assert noted.startswith("230 V, C1 25 µF: starts with")

    def starts() -> float:
        return float(part.words.words.split("starts with ")[1].split()[0])

    before = starts()
    part.sliders["farad"].setFocus()
    bench.key(Key.Key_Left)
    assert "C1 23.9 µF" in part.words.words
    assert starts() < before
    press(bench, part, "As noted")
    assert part.words.words == noted
    press(bench, part, "10 % low volts")
    assert starts() == pytest.approx(0.81 * before, abs=0.01)
    part.sliders["volt"].setFocus()
    bench.key(Key.Key_End)
    assert "276 V" in part.words.words


def press(bench: Bench, part: CurvesPart, words: str) -> None:
    next(b for b in part.what_if.buttons if b.text() == words).setFocus()
    bench.key(Key.Key_Return)
