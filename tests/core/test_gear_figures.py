"""A capacitor nobody can read, a series of short runs, a relay or a module chosen, what a motor can become."""

import math
from typing import Any

import pytest

from careful_coil.core.errors import CannotConnect, ValueOutOfRange
from careful_coil.core.gear.machine_of import known_motor
from careful_coil.core.gear.relay import (
    RelayNeeds,
    RelayOffered,
    relay_needs,
    relay_needs_measured,
    relay_suits,
)
from careful_coil.core.gear.retrofit import needs_of
from careful_coil.core.gear.shelf import Item, offers_for
from careful_coil.core.gear.suspects import right_hookup, symptoms_told
from careful_coil.core.gear.turned import compared, turns_of, without
from careful_coil.core.gear.unknown import (
    capacitor_volt,
    series_of,
    start_figures,
    winding_ohms,
)
from careful_coil.core.gear.wiring import Wiring, hookup_of, wiring_of, with_run_capacitor
from careful_coil.core.job.at_start_gear import RunTried, WindingLocked
from careful_coil.core.machine.capacitors import running_capacitor, start_capacitor
from careful_coil.core.machine.curves import start_curves
from careful_coil.core.machine.estimate import estimate
from careful_coil.core.machine.facts import Facts
from careful_coil.core.machine.motor import Motor
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.usual import CURRENT, FOUR, RUN, START, SWITCH, VOLTAGE
from careful_coil.core.winding.arrangements import arrangement
from tests.core.logs import judged
from tests.core.test_gear_rules import GOOD_CAN, GOOD_SWITCH, PLATE, TICKET, can, fitted, noted

CAPACITOR_START = Facts(kind="capacitor-start", volt=230, hertz=50, rpm=1425, amp=5.4, watt=550)
PSC = Facts(kind="psc", volt=230, hertz=50, rpm=1390, amp=5.2, watt=750)


def motor(facts: Facts, *devices: Any) -> Motor:
    return estimate(plans_of(FOUR, devices=devices)[0], facts).motor


def locked(winding: str, volt: float, amp: float, watt: float | None) -> WindingLocked:
    return WindingLocked.model_validate(
        {"winding": winding, "volt": volt, "amp": amp, "watt": watt}
    )


def test_a_published_start_capacitor_from_its_impedances() -> None:
    """4.5 + j3.7 Ω and 9.5 + j3.5 Ω at 60 Hz: 177 µF for 90° (Fitzgerald, Kingsley and Umans, ex. 9-1)."""
    read = {}
    for winding, z in (("main", complex(4.5, 3.7)), ("start", complex(9.5, 3.5))):
        amp = 20 / abs(z)
        read[winding] = locked(winding, 20, amp, amp**2 * z.real)
    found = start_figures(read, {}, 120, 60)
    assert found.main == pytest.approx(complex(4.5, 3.7))
    assert found.quadrature == pytest.approx(177, rel=5e-3)
    assert found.most_torque > found.quadrature
    current = 120 / (complex(9.5, 3.5) - 1j * 1e6 / (2 * math.pi * 60 * found.quadrature))
    main = 120 / complex(4.5, 3.7)
    apart = math.degrees(math.atan2((current / main).imag, (current / main).real))
    assert apart == pytest.approx(90, abs=1e-6)
    drop = abs(current) * 1e6 / (2 * math.pi * 60 * found.quadrature)
    assert found.quadrature_volt == pytest.approx(drop)
    wanted = found.wanted()
    assert (wanted.kind, wanted.low) == ("start", found.quadrature)
    assert wanted.volt == pytest.approx(1.1 * max(found.quadrature_volt, found.most_torque_volt))
    shelf = [Item(tag="S", kind="start", low=189, high=227, volt=250)]
    assert offers_for(wanted, shelf)[0][0].items == tuple(shelf)


def test_the_closed_figures_agree_with_a_search_on_the_network() -> None:
    """Each winding of an estimated motor read alone, rotor held: both µF against a search, 0.1 %."""
    own = motor(CAPACITOR_START, SWITCH, START)
    still = own.steady(1.0, "start")
    main, aux = (
        complex(still.coil_volt[0, k] / still.coil_amp[0, k])
        for k in (own.coils(False)[0], own.coils(True)[0])
    )
    read = {w: locked(w, abs(z), 1.0, z.real) for w, z in (("main", main), ("start", aux))}
    found = start_figures(read, {}, 230, 50)
    searched = start_capacitor(own, "C1")
    assert found.quadrature == pytest.approx(searched.quadrature, rel=1e-3)
    assert found.most_torque == pytest.approx(searched.most_torque, rel=1e-3)
    assert found.quadrature_volt == pytest.approx(searched.quadrature_volt, rel=1e-3)
    assert capacitor_volt(aux, found.most_torque, 230, 50) == pytest.approx(
        searched.most_torque_volt, rel=1e-3
    )


def test_without_a_wattmeter_ohms_stand_for_it_and_it_is_said() -> None:
    read = {"main": locked("main", 20, 3.4, None), "start": locked("start", 20, 2.0, None)}
    coils = arrangement(FOUR).inside().coils
    ohms = winding_ohms(coils, {"main-1-main-2": 4.5, "aux-1-aux-2": 9.5})
    assert ohms == {"main": 4.5, "start": 9.5}
    found = start_figures(read, ohms, 120, 60)
    assert any("DC ohms stand for R" in n for n in found.notes)
    with pytest.raises(ValueOutOfRange, match="its watts, or its DC ohms"):
        start_figures(read, {}, 120, 60)
    with pytest.raises(ValueOutOfRange, match="no start winding"):
        start_figures({"main": read["main"]}, ohms, 120, 60)
    with pytest.raises(ValueOutOfRange, match="leave R below V/I"):
        start_figures(read, {"main": 99.0, "start": 9.5}, 120, 60)


def run(farad: float, line: float, aux: float = 1.0, volt: float = 300.0) -> RunTried:
    return RunTried(microfarad=farad, rpm=1400, line_amp=line, aux_amp=aux, capacitor_volt=volt)


@pytest.mark.parametrize(
    ("tried", "following", "best", "words"),
    [
        ([], 4, None, "smallest first"),
        ([run(4, 5.0)], 8, 4, "still fall"),
        ([run(4, 5.0), run(8, 4.6)], 12, 8, "still fall"),
        ([run(4, 5.0), run(8, 4.6), run(12, 4.9)], 0, 8, "rise again"),
        ([run(4, 5.0), run(8, 4.6, volt=460)], 0, 4, "capacitor's volts"),
        ([run(4, 5.0), run(8, 4.6, aux=3.5)], 0, 4, "start winding's amps"),
        ([run(4, 5.0), run(8, 4.6), run(12, 4.4), run(16, 4.3)], 0, 16, "No larger one"),
    ],
)
def test_a_running_capacitor_is_found_from_small_upward(
    tried: list[RunTried], following: float, best: float | None, words: str
) -> None:
    found = series_of(tried, [16, 4, 8, 12, 12.05], most_amp=3.0, most_volt=450)
    assert found.next == following
    assert (found.best.microfarad if found.best else None) == best
    assert words in found.why


def test_a_series_on_the_machine_itself_ends_near_the_least_backward_field() -> None:
    """Runs made on the network at rated slip stop within two shelf values of the searched µF."""
    own = motor(PSC, RUN)
    wanted = running_capacitor(own, "C2", PSC.slip)
    shelf = [2.0 * k for k in range(1, 40)]
    tried: list[RunTried] = []
    while True:
        state = series_of(tried, shelf, math.inf, math.inf)
        if not state.next:
            break
        at = own.with_capacitor("C2", state.next)
        steady = at.steady(PSC.slip, "run")
        line = max(float(abs(a[0])) for a in steady.line_amp.values())
        tried.append(run(state.next, line))
    assert state.best is not None
    assert len(tried) < len(shelf)
    assert 0.5 < state.best.microfarad / wanted.best.microfarad < 1.5


def test_a_module_must_bear_more_than_the_lines_volts() -> None:
    """Across its open ends stands the start winding's own volts against the line's, and a held charge."""
    own = motor(CAPACITOR_START, SWITCH, START)
    found = needs_of(own)
    start, _ = start_curves(own)
    assert found.amp == pytest.approx(1.1 * float(start.aux_amp[0]))
    assert found.open_volt > 230
    assert found.charged_volt > math.sqrt(2) * found.open_volt
    assert found.sense_out > found.sense_still
    assert found.microfarad == START.microfarad
    bare = needs_of(motor(Facts(kind="split-phase", volt=230, hertz=50, rpm=1420, amp=2.6), SWITCH))
    assert bare.charged_volt == pytest.approx(math.sqrt(2) * bare.open_volt)
    assert needs_of(motor(CAPACITOR_START, CURRENT, START)).open_volt > 230
    with pytest.raises(CannotConnect, match="No switch or relay"):
        needs_of(motor(PSC, RUN))


def test_a_relay_is_chosen_by_the_start_windings_volts() -> None:
    needs = relay_needs_measured(118, 440, 250)
    assert needs.pick_up == pytest.approx((266.12, 291.88))
    assert needs.continuous == pytest.approx(275)
    assert needs.drop_out_below == pytest.approx(0.9 * 0.87 * 250)
    assert relay_needs_measured(280, 340, 250).pick_up[0] == pytest.approx(308)
    with pytest.raises(CannotConnect, match="too little"):
        relay_needs_measured(230, 240, 246)


@pytest.mark.parametrize("farad", [60, 100, 160])
@pytest.mark.parametrize("kind", ["capacitor-start", "capacitor-start-run"])
def test_measured_volts_ask_for_the_relay_the_network_asks_for(kind: str, farad: float) -> None:
    facts = Facts(kind=kind, volt=230, hertz=50, rpm=1425, amp=5.4, watt=650)  # type: ignore[arg-type]
    devices = (VOLTAGE, START, RUN) if kind.endswith("run") else (VOLTAGE, START)
    own = motor(facts, *devices).with_capacitor("C1", farad)
    needs = relay_needs(own)
    start, in_run = start_curves(own)
    volts = [float(v) for v in (start.aux_volt[0], start.aux_volt[-1], in_run.aux_volt[-1])]
    measured = relay_needs_measured(*volts)
    assert measured.pick_up == pytest.approx(needs.pick_up, rel=0.08)
    assert measured.drop_out_below == pytest.approx(needs.drop_out_below, rel=0.05)
    assert measured.continuous == pytest.approx(needs.continuous, rel=0.02)


NEEDS = RelayNeeds(pick_up=(279, 305), drop_out_below=196, continuous=275, standstill=118, held=440)


@pytest.mark.parametrize(
    ("pick_up", "drop_out", "continuous", "verdict", "words"),
    [
        ((280, 300), (60, 120), 330, "good", "picks up within 280 to 300 V"),
        ((200, 215), (60, 120), 330, "watch", "would be nearer"),
        ((100, 120), (60, 90), 330, "hold", "would not start"),
        ((390, 410), (60, 120), 330, "hold", "would stay in"),
        ((280, 300), (150, 210), 330, "hold", "chatter"),
        ((280, 300), (60, 120), 250, "hold", "burns"),
    ],
)
def test_a_relay_offered(
    pick_up: tuple[float, float],
    drop_out: tuple[float, float],
    continuous: float,
    verdict: str,
    words: str,
) -> None:
    found = relay_suits(
        NEEDS, RelayOffered(pick_up=pick_up, drop_out=drop_out, continuous=continuous)
    )
    assert found[0] == verdict
    assert any(words in w for w in found[1])


def wired(*bodies: dict[str, Any]) -> Wiring | str:
    found = judged(*TICKET, *bodies)
    return wiring_of(found.job, found.facts.kinds, found.facts.identification, found.facts.naming)


def test_the_wiring_has_what_is_noted_and_says_what_is_not() -> None:
    start = [*GOOD_CAN, can("serves", "start")]
    bare = wired(*start)
    assert not isinstance(bare, str)
    assert bare.guessed == ("a centrifugal switch", "a main and a start pair")
    both = with_run_capacitor(bare)
    assert both is not None
    assert [d.kind for d in both.devices] == ["capacitor-start", "speed-switch", "capacitor-run"]
    relay = wired(*start, fitted("K1", "relay-voltage"), fitted("P", "protector"))
    assert not isinstance(relay, str)
    assert {d.kind for d in relay.plan.devices} == {"capacitor-start", "relay-voltage", "protector"}
    crossing = wired(
        *start,
        *GOOD_SWITCH,
        fitted("Q2", "reversing-switch"),
        noted("Q2", "table", "forward: 1-3 2-4; reverse: 1-4 2-3"),
    )
    assert not isinstance(crossing, str)
    assert "reversing-switch" in {d.kind for d in crossing.plan.devices}
    odd = wired(*start, fitted("Q9", "selector"), noted("Q9", "table", "0: off; 1: A-B C-D E-F"))
    assert not isinstance(odd, str)
    assert any(g.startswith("without Q9 (") for g in odd.guessed)
    assert "which kind" in str(wired())
    dual = wired(can("marking", "35/5 µF 440 V"), can("serves", "run"))
    assert not isinstance(dual, str)
    assert with_run_capacitor(dual) is None


def test_wrong_hookups_are_asked_of_the_right_one() -> None:
    found = judged(*TICKET, *PLATE, *GOOD_CAN, can("serves", "start"), *GOOD_SWITCH)
    wiring = wiring_of(found.job, found.facts.kinds, found.facts.identification, found.facts.naming)
    assert not isinstance(wiring, str)
    right = right_hookup(found.job, wiring, found.facts.connecting)
    assert not isinstance(right, str)
    assert right[0] == hookup_of(wiring, found.job)
    assert found.facts.causes is not None
    assert symptoms_told(found.job, found.facts.causes) == {"hums": "yes", "starts-pushed": "yes"}
    bare = judged(*TICKET)
    why = wiring_of(bare.job, bare.facts.kinds, bare.facts.identification, bare.facts.naming)
    assert right_hookup(bare.job, why, bare.facts.connecting) == why


def test_locked_readings_make_the_curves_more_certain() -> None:
    start = [*TICKET, *PLATE, *GOOD_CAN, can("serves", "start"), *GOOD_SWITCH]
    held = {"kind": "winding-locked", "winding": "main", "volt": 40, "amp": 7.5, "watt": 190}
    found = judged(*start, held)
    known = known_motor(
        found.job, found.facts.kinds, found.facts.identification, found.facts.naming
    )
    assert not isinstance(known, str)
    assert known[1].locked_main is not None
    assert known[1].locked_main.amp == 7.5


def test_what_a_motor_can_become() -> None:
    """Left without its start capacitor a capacitor-start motor starts with a fraction; a pump needs more."""
    own = motor(CAPACITOR_START, SWITCH, START)
    told = {t.into: t for t in turns_of("capacitor-start", own)}
    bridged = told["Split phase (capacitor left out)"]
    assert bridged.word == "no"
    assert f"{without(own, 'capacitor-start'):.2f} times" in bridged.why
    assert abs(without(own, "capacitor-start")) < 0.4
    both = motor(
        Facts(kind="capacitor-start-run", volt=230, hertz=50, rpm=1425, amp=5.4, watt=750),
        SWITCH, START, RUN,
    )  # fmt: skip
    assert without(both, "capacitor-start") < 0.7
    for kind in ("split-phase", "psc", "universal", "three-phase", "shaded-pole"):
        assert len(turns_of(kind)) >= 3
    assert turns_of("steam") == ()
    low = [r[1] for r in compared()]
    assert low == sorted(low)
    assert compared()[0] == ("Permanent split capacitor", 0.4, 1.0) or compared()[0][1] == 0.4
