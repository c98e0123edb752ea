"""Readings of start devices and switches off the circuit, and what can stand in for a switch."""

from dataclasses import replace

import pytest

from careful_coil.core.can_marking import Marking, read_marking
from careful_coil.core.errors import BadValue, CannotConnect
from careful_coil.core.gear.amp_relay import (
    amp_relay_needs,
    amp_relay_needs_measured,
    amp_relay_words,
    kit_suits,
)
from careful_coil.core.gear.judge import judge_capacitor
from careful_coil.core.gear.relay import relay_needs
from careful_coil.core.gear.stand_in import FEWER, NO_ORDER, stands_in
from careful_coil.core.gear.table import (
    CONTACT_OHM,
    FACTS,
    OPEN,
    Expected,
    expected_of,
    judged,
)
from careful_coil.core.gear.typed import reading_typed
from careful_coil.core.gear.work import WORK
from careful_coil.core.machine.estimate import estimate
from careful_coil.core.machine.facts import Facts
from careful_coil.core.machine.motor import Motor
from careful_coil.core.machine.run_up import Gear, Load, run_up
from careful_coil.core.ways import plans_of, usual
from careful_coil.core.ways.devices import START_DEVICES, Device
from careful_coil.core.ways.states import state_at, with_devices
from careful_coil.core.winding.network import Coil, Network
from tests.core.logs import job_of, plate


def reading(kind: str, between: tuple[str, str], when: str) -> Expected:
    return next(e for e in FACTS[kind].expected if (e.between, e.when) == (between, when))


@pytest.mark.parametrize(
    ("kind", "between", "when", "ohm", "verdict"),
    [
        ("speed-switch", ("1", "2"), "at rest", 0.14, "good"),
        ("speed-switch", ("1", "2"), "at rest", 1.2, "watch"),
        ("speed-switch", ("1", "2"), "at rest", 6.0, "hold"),
        ("speed-switch", ("1", "2"), "at rest", OPEN, "hold"),
        ("speed-switch", ("1", "2"), "mechanism worked by hand", OPEN, "good"),
        ("speed-switch", ("1", "2"), "mechanism worked by hand", 0.2, "hold"),
        ("relay-current", ("L", "S"), "upright", OPEN, "good"),
        ("relay-current", ("L", "S"), "upright", 0.1, "hold"),
        ("relay-current", ("L", "S"), "turned over", 0.2, "good"),
        ("relay-current", ("L", "M"), "any way up", 0.4, "good"),
        ("relay-current", ("L", "M"), "any way up", OPEN, "hold"),
        ("hot-wire", ("L", "S"), "cold", 0.1, "good"),
        ("ptc", ("1", "2"), "cold", 12.0, "good"),
        ("ptc", ("1", "2"), "cold", 2000.0, "watch"),
        ("ptc", ("1", "2"), "cold", 0.1, "hold"),
        ("ptc", ("1", "2"), "just after a run", 30_000.0, "good"),
        ("relay-voltage", ("5", "2"), "off the circuit", 9_500.0, "good"),
        ("relay-voltage", ("5", "2"), "off the circuit", OPEN, "hold"),
        ("relay-voltage", ("5", "2"), "off the circuit", 4.0, "hold"),
        ("relay-voltage", ("1", "2"), "off the circuit", 0.2, "good"),
        ("protector", ("1", "2"), "cold", 0.3, "good"),
        ("protector", ("1", "2"), "cold", OPEN, "hold"),
    ],
)
def test_readings_of_each_device(
    kind: str, between: tuple[str, str], when: str, ohm: float, verdict: str
) -> None:
    found, why = judged(reading(kind, between, when), ohm)
    assert found == verdict, why
    assert why


def test_a_meter_that_cannot_tell_proves_nothing() -> None:
    """Half an ohm of leads, a limit of half an ohm: unproven, never good; open stays open."""
    contact = reading("speed-switch", ("1", "2"), "at rest")
    assert judged(contact, 0.4, left_open=0.5)[0] == "unproven"
    assert "null the leads" in judged(contact, 0.4, left_open=0.5)[1]
    assert judged(contact, OPEN, left_open=0.5)[0] == "hold"
    assert judged(contact, 0.4, left_open=0.05)[0] == "good"


def test_something_left_across_a_contact_is_told_from_a_weld() -> None:
    contact = reading("speed-switch", ("1", "2"), "mechanism worked by hand")
    assert "welded" in judged(contact, 0.1)[1]
    assert "still lies across" in judged(contact, 14.0)[1]


def test_an_interlock_is_right_the_other_way_round() -> None:
    """A contact that closes at speed is no start switch that failed."""
    interlock = expected_of(replace(usual.SWITCH, action="closes"))
    assert [judged(e, o)[0] for e, o in zip(interlock, (OPEN, 0.1), strict=True)] == [
        "good",
        "good",
    ]
    start = expected_of(usual.SWITCH)
    assert [judged(e, o)[0] for e, o in zip(start, (OPEN, 0.1), strict=True)] == ["hold", "hold"]


@pytest.mark.parametrize("kind", [k for k in START_DEVICES if k in ("speed-switch", "hot-wire")])
def test_the_table_agrees_with_the_network(kind: str) -> None:
    """What the network joins with the power off reads closed in the table."""
    device = Device(name="D", kind=kind)
    bare = Network(coils=(Coil(name="c", start="a", finish="b"),), leads=("a", "b"))
    network = with_devices(bare, (device,), state_at((device,), "rest"))
    for e in FACTS[kind].expected:
        if e.when in ("at rest", "cold"):
            ohm = network.ohm_between(*(device.at(t) for t in e.between))
            assert ohm <= max(e.high, CONTACT_OHM)


def test_every_device_says_how_it_is_judged() -> None:
    assert set(START_DEVICES) <= set(FACTS)
    for facts in FACTS.values():
        assert facts.title
        assert facts.looks
        assert facts.traps
        assert facts.off
        for e in facts.expected:
            assert e.low < e.high


def test_a_selector_is_read_position_by_position() -> None:
    """Off: everything open. A speed: its contact, and nothing else."""
    told = expected_of(usual.SELECTOR)
    off = [e for e in told if e.when == "position 0, off"]
    assert len(off) == 6
    assert all(e.open for e in off)
    fast = {e.between: e.open for e in told if e.when == "position 3"}
    assert [pair for pair, is_open in fast.items() if not is_open] == [("L", "H")]
    assert judged(next(e for e in told if not e.open), 0.3)[0] == "watch"
    both = Device(name="Q", kind="selector", table={"1": (("a", "b"), ("b", "c")), "0": ()})
    through = {e.between: e.open for e in expected_of(both) if e.when == "position 1"}
    assert through["a", "c"] is False


def test_a_protector_of_three_terminals_is_read_in_two_parts() -> None:
    assert [(e.between, e.what) for e in expected_of(usual.THREE)] == [
        (("1", "3"), "contact"),
        (("3", "2"), "heater"),
    ]


def test_what_can_stand_in_for_a_switch() -> None:
    """Other names are matched by what they do; what the hand finds must stay where it was."""
    own = usual.SELECTOR
    alike = {"0": (), "high": (("c", "1"),), "mid": (("c", "2"),), "low": (("c", "3"),)}
    other = Device(name="X", kind="selector", table=alike)
    fits, order = stands_in(own, other)
    assert fits
    assert "L is c" in order
    two = replace(other, table={"off": (), "a": (("c", "1"),), "b": (("c", "2"),)})
    assert stands_in(own, two) == (False, FEWER)
    crossed = replace(usual.CROSSING, table={"1": (("1", "3"), ("2", "4")), "2": (("1", "3"),)})
    assert not stands_in(usual.CROSSING, crossed)[0]
    assert stands_in(usual.CROSSING, usual.CROSSING) == (True, "terminal for terminal")
    assert stands_in(usual.SWITCH, usual.SWITCH)[0]
    assert not stands_in(usual.SWITCH, usual.PTC)[0]


@pytest.mark.parametrize(
    ("table", "told"),
    [
        ({"0": (), "3": (("L", "M"),), "2": (("L", "H"),), "1": (("L", "S"),)}, "M where H was"),
        ({"3": (("L", "H"),), "2": (("L", "M"),), "1": (("L", "S"),), "0": ()}, "off is its position 4, it was 1"),
        ({"3": (("c", "1"),), "2": (("c", "2"),), "1": (("c", "3"),), "0": ()}, "off is its position 4, it was 1"),
        ({"0": (), "3": (("L", "H"), ("L", "M")), "2": (("L", "S"),), "1": (("L", "M"),)}, NO_ORDER),
    ],
)  # fmt: skip
def test_a_switch_that_moves_a_speed_or_off_does_not_serve_and_says_what_moved(
    table: dict[str, tuple[tuple[str, str], ...]], told: str
) -> None:
    serves, why = stands_in(usual.SELECTOR, Device(name="X", kind="selector", table=table))
    assert not serves
    assert told in why


def relay_motor(run_farad: float) -> Motor:
    devices = (
        usual.VOLTAGE,
        replace(usual.START, microfarad=100),
        replace(usual.RUN, microfarad=run_farad),
        usual.TWO,
    )
    plan = plans_of(usual.CRS, devices=devices)[0]
    facts = Facts(
        kind="capacitor-start-run",
        volt=230,
        hertz=50,
        rpm=1420,
        amp=7.2,
        watt=1100,
        coil_ohm={"run": 1.8, "start": 3.6},
    )
    return estimate(plan, facts).motor


def test_a_voltage_relay_is_chosen_by_the_start_windings_volts() -> None:
    """Chosen so it goes out at 75 to 80 % speed in a run-up, holds in run, and falls back at rest."""
    motor = relay_motor(20)
    needs = relay_needs(motor)
    assert needs.standstill < needs.drop_out_below < needs.pick_up[0] < needs.pick_up[1]
    assert needs.continuous > motor.volt
    gear = Gear(watches="volts", out=sum(needs.pick_up) / 2, back=0.8 * needs.drop_out_below)
    found = run_up(motor, Load(inertia=0.02, torque=3.0), gear, 5)
    assert found.outcome == "up"
    assert len(found.switchings) == 1
    assert 0.74 < found.switchings[0].rpm / motor.sync_rpm < 0.81


def test_a_relay_needs_a_start_winding_whose_volts_rise() -> None:
    motor = relay_motor(20)
    bare = replace(motor, arrangement="three-phase-6-lead", joints=(("L1", "T1"),), devices=())
    with pytest.raises(CannotConnect, match="no start winding"):
        relay_needs(replace(bare, coil_ohm=2.0))


CAN = read_marking("88-108 µF 250 V")
FILM = read_marking("35 µF ±5 % 450 V")


@pytest.mark.parametrize(
    ("marking", "measured", "looks", "kind", "verdict", "words"),
    [
        (CAN, 95.0, "sound", "start", "good", "within 88 to 108"),
        (CAN, 82.0, "sound", "start", "watch", "it fades"),
        (CAN, 60.0, "sound", "start", "hold", "88 to 108 µF wanted"),
        (CAN, 130.0, "sound", "start", "hold", "failing"),
        (CAN, 95.0, "bulged", "start", "hold", "whatever it measures"),
        (CAN, 95.0, "heat-marked", "start", "hold", "loose joint"),
        (CAN, None, "sound", "start", "unproven", "not measured"),
        (CAN, 95.0, "sound", "run", "hold", "where one stays in"),
        (FILM, 34.0, "sound", "run", "good", "33.25 to 36.75"),
        (FILM, 32.0, "sound", "run", "hold", "wanted"),
        (FILM, 35.0, "sound", "start", "watch", "a run capacitor where"),
        (read_marking("35 µF 450 VDB"), 35.0, "sound", "start", "hold", "a run capacitor where"),
        (read_marking("100 µF 25 V DC"), 100.0, "sound", "start", "hold", "direct current"),
        (read_marking("12 µF 450 V"), 12.0, "sound", "", "unproven", "is right for"),
    ],
)
def test_a_capacitor_is_judged_by_looks_then_figures(
    marking: Marking, measured: float | None, looks: str, kind: str, verdict: str, words: str
) -> None:
    found = judge_capacitor(marking, measured, looks, kind)  # type: ignore[arg-type]
    assert (found.verdict, words in found.why) == (verdict, True), found
    assert found.do or found.verdict == "good"


def test_losses_and_the_shops_own_tolerance_count() -> None:
    assert judge_capacitor(FILM, 35.0, kind="run", loss=0.03).verdict == "hold"
    assert judge_capacitor(FILM, 35.0, kind="run", loss=0.001).verdict == "good"
    plain = read_marking("40 µF 450 V run")
    assert judge_capacitor(plain, 37.0).verdict == "hold"
    assert judge_capacitor(plain, 37.0, apart=(0, 20, 10)).verdict == "good"


def test_every_position_of_a_switch_is_read_in_one_line() -> None:
    """Six pairs in four positions: those named conduct, the others are open."""
    wanted = expected_of(usual.SELECTOR)
    line = "0: none; 3: L-H 0.05; 2: L-M 0.04; 1: L-S 0.05"
    read = reading_typed("Q1", wanted, line)
    assert len(read) == len(wanted) == 24
    shut = {(r.when.split()[-1], *r.between) for r in read if r.ohm is not None}
    assert shut == {("3", "L", "H"), ("2", "L", "M"), ("1", "L", "S")}
    two = reading_typed("Q1", wanted, "2: L-M 0.04; L-H 0.05; 1: L-S 0.05")
    assert sum(r.ohm is not None for r in two) == 3
    for bad, told in (
        ("L-H 0.05; 1: none", "position first"),
        ("9: none", "its positions"),
        ("1: L-Z 1", "terminals"),
    ):
        with pytest.raises(BadValue, match=told):
            reading_typed("Q1", wanted, bad)


def test_a_current_relay_is_chosen_by_the_main_windings_amps() -> None:
    """It must pull in with the inrush on a low line and let go before a loaded run's amps on a high one."""
    needs = amp_relay_needs_measured(28, 7)
    assert (needs.pull_in_below, needs.drop_out_above) == (pytest.approx(25.2), pytest.approx(7.7))
    assert "pull-in below 25.2 A" in amp_relay_words(needs)
    with pytest.raises(CannotConnect, match="too little between"):
        amp_relay_needs_measured(10, 9)
    plan = plans_of(usual.CRS, devices=(usual.CURRENT,))[0]
    facts = Facts(
        kind="split-phase",
        volt=230,
        hertz=50,
        rpm=1420,
        amp=3.2,
        watt=250,
        coil_ohm={"run": 5.5, "start": 14},
    )
    worked = amp_relay_needs(estimate(plan, facts).motor)
    assert worked.letting is not None
    assert worked.drop_out_above < worked.letting[0] < worked.letting[1] < worked.still
    gear = Gear(watches="amps", out=worked.letting[1], back=worked.pull_in_below)
    found = run_up(estimate(plan, facts).motor, Load(inertia=0.002, torque=0.3), gear, 5)
    assert found.outcome == "up"
    assert len(found.switchings) == 1


@pytest.mark.parametrize(
    ("printed", "serves", "told"),
    [
        ("1/12-1/2 hp 90-120 V", False, "the motor has 230 V"),
        ("1/2 – 10 HP, 120-288 V", True, "lie within"),
        ("3-10 hp 120-288 V", False, "too large"),
        ("1/12-1/4 hp 120-288 V", False, "too small"),
    ],
)
def test_a_start_kit_is_one_for_this_horsepower_and_these_volts(
    printed: str, serves: bool, told: str
) -> None:
    own = job_of(*plate(phases="1", volt="230", power="1 hp")).plate
    assert kit_suits(printed, own)[0] is serves
    assert told in kit_suits(printed, own)[1]
    with pytest.raises(BadValue, match="horsepower"):
        kit_suits("250 V", own)


def test_each_kind_of_relay_has_its_own_steps() -> None:
    """A current relay's renewal knows no pick-up volts, a voltage relay's no way up by weight."""
    words = {kind: " ".join(s.words + s.why for s in steps) for kind, (_, steps) in WORK.items()}
    assert "pick-up" not in words["amp-relay"].lower()
    assert "Start winding's volts" not in words["amp-relay"]
    assert "main winding's amps" not in words["relay"].lower()
    assert "overload" in words["exchange"].lower()
