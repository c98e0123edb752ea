"""Start gear on two demo motors by keys: a tap played to its cause, a wait, a relay, a retrofit, no marking."""

from typing import TypeVar

import pytest
from PySide6.QtWidgets import QLineEdit, QPushButton

from careful_coil.core.gear.work import steps_of
from careful_coil.desk.ask_row import AskRow
from careful_coil.desk.gear.become import BecomePart
from careful_coil.desk.gear.capacitors import CapacitorsPart
from careful_coil.desk.gear.curves import CurvesPart
from careful_coil.desk.gear.devices import DevicesPart
from careful_coil.desk.gear.fitting import FittingPart
from careful_coil.desk.gear.unknown import UnknownPart
from careful_coil.desk.gear.why import WhyPart
from careful_coil.desk.gear.wiring import WiringPart
from careful_coil.desk.part import Part
from tests.desk.driver import Bench, Key
from tests.desk.test_start_gear import fill, press, station

P = TypeVar("P", bound=Part)
OUR: dict[str, type[Part]] = {
    "why": WhyPart,
    "capacitor": CapacitorsPart,
    "unknown": UnknownPart,
    "device": DevicesPart,
    "wiring": WiringPart,
    "fitting": FittingPart,
    "curves": CurvesPart,
    "become": BecomePart,
}


def part_of(bench: Bench, kind: type[P]) -> P:
    """Open a part of the station and return it."""
    name = next(n for n, k in OUR.items() if k is kind)
    found = station(bench, name).parts[name]
    assert isinstance(found, kind)
    return found


def answer(bench: Bench, row: AskRow, words: str) -> None:
    button: QPushButton = next(b for b in row.buttons if b.text() == words)
    button.setFocus()
    bench.key(Key.Key_Return)


def clear(bench: Bench, field: str) -> None:
    """Take a field's text away."""
    assert bench.window.pages["start-gear"].put_cursor(field)
    cell = bench.focus
    assert isinstance(cell, QLineEdit)
    cell.selectAll()
    bench.key(Key.Key_Delete)
    bench.key(Key.Key_Return)


def test_a_tap_that_starts_it_is_played_to_its_cause(bench: Bench) -> None:
    """It hums, a tap starts it: held as a diagnosis; when, by hand, ohms and µF lead to the capacitor."""
    bench.open("bakery")
    part = part_of(bench, WhyPart)
    fill(bench, "cause-symptom", "starts-pushed")
    assert "diagnosis, never a cure" in part.tapped.words
    for words in ("Free", "Does not start"):
        answer(bench, part_of(bench, WhyPart).asked, words)
    part = part_of(bench, WhyPart)
    answer(bench, part.when, "Only cold")
    assert bench.judged.facts.causes is not None
    assert bench.judged.facts.causes.when == "cold"
    assert "only cold" in part.words.words
    assert not part.when.isVisible()
    asked = []
    outcomes = {
        "Ohms through start switch or relay at rest": "Closed",
        "Capacitor off, discharged, proved and measured": "Low",
    }
    for _ in range(6):
        question = part.asked.question.text()
        if question.startswith("Found:"):
            break
        asked.append(question)
        answer(bench, part.asked, outcomes.get(question, part.asked.buttons[0].text()))
    assert part.asked.question.text() == "Found: Start or run capacitor open or weak."
    assert len(asked) <= 3
    assert any(f.code == "start-gear" for f in bench.judged.gate)  # a diagnosis, not a cure
    answer(bench, part.asked, "That is it")
    assert bench.judged.job.gear.cause == "start-capacitor"
    assert any(f.code == "cause" and f.verdict == "good" for f in bench.judged.findings)
    assert station(bench, "shelf").part.name == "shelf"
    fill(bench, "cause-symptom", "when always")
    assert bench.judged.facts.causes.when == "always"


def test_wrong_hookups_stand_beside_the_causes(bench: Bench) -> None:
    bench.open("chandlery")
    part = part_of(bench, WhyPart)
    bench.settle(lambda: "Of single wrong joints" in part.hookups.words)
    lines = part.hookups.words.splitlines()
    assert "%" in lines[0]
    assert any("S1" in line or "aux" in line or "C1" in line for line in lines)
    bench.open("theatre")
    part = part_of(bench, WhyPart)
    assert part.words.words.startswith("Nothing is complained of") or part.hookups.words


def test_the_wait_is_counted_and_the_meter_has_the_word(bench: Bench) -> None:
    bench.open("chandlery")
    part = part_of(bench, CapacitorsPart)
    assert not part.decay.isVisible()
    part.wait_key.setFocus()
    bench.key(Key.Key_Return)
    assert part.decay.isVisible()
    assert part.count.words.startswith("C1: 11 s more, about 354 V")
    bench.window.session.clock.steady = lambda: 5.0
    part.tick()
    assert part.count.words.startswith("C1: 6 s more, about 118 V")
    bench.window.session.clock.steady = lambda: 12.0
    part.wait_key.setFocus()
    part.tick()
    assert "now the meter" in part.count.words
    assert bench.focus is part.fields["can-drained"].cell
    bench.enter("0.2")
    assert not part.decay.isVisible()
    fill(bench, "can-resistor", "10 k")
    assert "10.0 kΩ it is at 30 V after 5.6 s" in part.wait.words
    fill(bench, "can-bleed", "15 k")
    assert "never relied on" in part.wait.words
    fill(bench, "can-loss", "4 %")
    assert bench.judged.job.gear.capacitors["C1"]["loss"] == "4 %"
    fill(bench, "can-loss", "1.2 Ω")  # 2π·50·121 µF·1.2 Ω
    assert bench.judged.job.gear.capacitors["C1"]["loss"] == "4.562 %"
    fill(bench, "can-name", "C3")
    fill(bench, "can-marking", "35/5 µF 440 V")
    fill(bench, "can-serves", "run")
    fill(bench, "can-microfarad", "34.6/3.9")
    assert any("section 2" in f.why for f in part.verdicts.findings)


def test_a_wait_without_a_marking_says_what_is_missing(bench: Bench) -> None:
    bench.open("bakery")
    part = part_of(bench, CapacitorsPart)
    part.begin()
    assert "Its marking first" in part.count.words


def test_a_voltage_relay_is_chosen_by_what_was_measured(bench: Bench) -> None:
    bench.open("cold store")
    part = part_of(bench, FittingPart)
    assert (part.kind, part.device) == ("relay", "K1")
    assert part.must.words.startswith("Wanted: pick-up 303 to 325 V, drop-out below 205 V")
    fill(bench, "relay-offered", "305-320 90-130 330")
    assert part.suits.words.startswith("This relay serves: picks up within 305 to 320 V")
    fill(bench, "relay-offered", "160-180 90-130 330")
    assert "would not start" in part.suits.words
    fill(bench, "relay-volts", "230/240/246")
    assert "too little between them" in part.must.words
    clear(bench, "relay-volts")  # by the estimate then
    bench.settle(lambda: part.must.words.startswith("Wanted: pick-up"))


def test_a_retrofit_holds_the_motor_until_it_ran_with_its_covers_on(bench: Bench) -> None:
    bench.open("chandlery")
    part = part_of(bench, FittingPart)
    assert (part.kind, part.device) == ("dress", "S1")
    answer(bench, part.which, "Electronic retrofit")
    bench.settle(lambda: "It must bear" in part.must.words)
    assert "V across its open contact in run" in part.must.words
    steps = steps_of("retrofit S1")
    part.roll.setFocus()
    powered = next(k for k, s in enumerate(steps) if s.powered)
    part.roll.go(powered)
    bench.key(Key.Key_Space)  # volts before the rest is done: refused
    assert "retrofit S1" not in bench.judged.job.gear.steps
    part.roll.go(0)
    for _ in range(powered):
        bench.key(Key.Key_Space)
    found = next(f for f in bench.judged.gate if f.subject.startswith("Retrofit S1"))
    assert f"{powered} of {len(steps)} steps done" in found.why
    assert part.powered.isVisible()
    bench.window.session.who = ""
    part.roll.go(powered)
    bench.key(Key.Key_Space)  # nobody at the bench: refused
    assert len(bench.judged.job.gear.steps["retrofit S1"]) == powered
    bench.window.session.who = "AB"
    for _ in range(len(steps) - powered):
        bench.key(Key.Key_Space)
    assert not any(f.subject.startswith("Retrofit S1") for f in bench.judged.gate)
    part.roll.go(0)
    bench.key(Key.Key_Space)  # taken back
    assert any(f.subject == "Retrofit S1 not finished" for f in bench.judged.gate)


def test_a_selector_is_noted_by_its_table_and_matched(bench: Bench) -> None:
    bench.open("bakery")
    part = part_of(bench, DevicesPart)
    fill(bench, "device-name", "Q1")
    fill(bench, "device-kind", "selector")
    assert any("which contacts" in f.why for f in part.list.findings)
    fill(bench, "device-table", "0:; 1: L-H; 2: L-M")
    assert bench.judged.job.gear.noted["Q1", "table"] == "0: off; 1: L-H; 2: L-M"
    assert part.next.words.startswith("Next: position 0, off: which pairs conduct")
    fill(bench, "device-stand-in", "off:; fast: C-2; slow: C-1")
    assert "The one offered serves" in part.stand_in.words
    fill(bench, "device-stand-in", "fast: C-2; slow: C-1")
    assert "does not serve: it has fewer contacts or positions" in part.stand_in.words
    fill(bench, "device-ohm", "none")
    assert part.next.words.startswith("Next: position 1: which pairs conduct")
    fill(bench, "device-ohm", "L-X 0.05")
    assert "two of its terminals: H, L, M" in part.fields["device-ohm"].message.text()
    fill(bench, "device-ohm", "H-L 0.05")
    assert part.next.words.startswith("Next: position 2: which pairs conduct")


def test_a_dressed_contact_is_read_again(bench: Bench) -> None:
    bench.open("chandlery")
    part = part_of(bench, DevicesPart)
    assert any("1.90 Ω before" in f.why for f in part.list.findings)
    fill(bench, "device-out", "1150 rpm")
    fill(bench, "device-back", "1300")
    assert any(
        f.verdict == "hold" and "below the speed it opens" in f.why for f in part.list.findings
    )
    clear(bench, "device-back")
    fill(bench, "device-out", "1.2 s")
    assert any("1.2 s, 3 s at most" in f.why for f in part.list.findings)


def test_a_capacitor_nobody_can_read_is_worked_out_of_its_winding(bench: Bench) -> None:
    bench.open("cold store")
    part = part_of(bench, UnknownPart)
    fill(bench, "locked-main", "40 7.5 190")
    fill(bench, "locked-start", "40 4.2")  # no wattmeter: the ohms read at Leads stand in
    assert "Most starting torque" in part.figures.words
    assert "DC ohms stand for R" in part.notes.words
    assert "On the shelf" in part.offers.words or "Nothing of it" in part.offers.words
    assert part.told(bench.judged) == ("", "2 of 2 windings held")
    bench.settle(lambda: part.running is not None)
    assert "As estimated it wants" in part.worked.words
    assert "Fit 5 µF" in part.series.words
    fill(bench, "tried", "5 1430 6.1 0.9 280")
    assert "Fit 10 µF" in part.series.words
    fill(bench, "tried", "10 1436 5.6 1.3 300")
    fill(bench, "tried", "16 1440 5.8 1.9 320")
    assert part.series.words == "The line's amps rise again: the best is behind. Best so far 10 µF."
    fill(bench, "most-amp", "1.2")
    assert "Best so far 5 µF" in part.series.words
    clear(bench, "most-amp")
    assert part.told(bench.judged) == ("", "3 runs made")


def test_the_wiring_is_drawn_in_every_state(bench: Bench) -> None:
    bench.open("chandlery")
    part = part_of(bench, WiringPart)
    assert [b.text() for b in part.states.buttons] == ["Start", "Run"]
    started = part.drawing.accessibleDescription()
    assert started.startswith("start: ")
    answer(bench, part.states, "Run")
    assert part.drawing.accessibleDescription() == started.replace("start: ", "run: ", 1)
    part.more.setFocus()
    bench.key(Key.Key_Return)
    plan = part.plan()
    assert plan is not None
    assert "capacitor-run" in {d.kind for d in plan.devices}
    bench.open("theatre")
    assert "kind of single-phase motor" in part_of(bench, WiringPart).words.words


def test_sliders_and_questions_redraw_the_curves(bench: Bench) -> None:
    bench.open("chandlery")
    part = part_of(bench, CurvesPart)
    bench.settle(lambda: part.found is not None)
    part.sliders["farad"].setFocus()
    start = part.torque.accessibleDescription()
    bench.key(Key.Key_Minus)
    assert part.torque.accessibleDescription() != start
    press(bench, part, "As noted")
    assert part.torque.accessibleDescription() == start
    part.sliders["load"].setFocus()
    bench.key(Key.Key_End)
    assert "Against 300 % of full load" in part.up_words.words
    bench.key(Key.Key_Home)
    assert "it runs up" in part.up_words.words
    press(bench, part, "Start winding stays in")
    assert "stays in: it cooks" in part.up_words.words
    press(bench, part, "Start winding reversed")
    assert "It turns the other way" in part.words.words
    press(bench, part, "On 60 Hz")
    fill(bench, "start-wire", "2 x 0.45")
    assert "s from 40 °C to its class (F)" in part.heat.words
    bench.click(part.sliders["volt"], part.sliders["volt"].rect().center())
    assert "178 V" in part.words.words


def test_what_it_can_become_has_its_own_figures(bench: Bench) -> None:
    bench.open("chandlery")
    part = part_of(bench, BecomePart)
    bench.settle(lambda: part.own_kind is not None)
    assert part.own_kind is not None
    assert part.own_kind[0] == "Capacitor start"
    assert part.own_kind[1] == pytest.approx(2.75, abs=0.3)
    told = {f.subject: f for f in part.list.findings}
    assert "Worked out here" in told["Split phase (capacitor left out): no"].why
    part.card.setFocus()
    bench.key(Key.Key_Return)
    assert bench.window.session.station == "intake"
