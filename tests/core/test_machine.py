"""Curves, run-up, heating and capacitors of a motor: published examples, closed forms, properties."""

import cmath
import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from careful_coil.core.errors import BadDocument, CannotConnect, ValueOutOfRange
from careful_coil.core.machine.capacitors import (
    impedance,
    running_capacitor,
    start_capacitor,
    start_microfarad,
)
from careful_coil.core.machine.curves import (
    apart_words,
    curve,
    field_of,
    field_path,
    phasors,
    start_curves,
    starts_words,
)
from careful_coil.core.machine.heating import heating_rate, stall_seconds, start_heating
from careful_coil.core.machine.motor import Machine, Motor
from careful_coil.core.machine.run_up import NO_GEAR, Gear, Load, run_up
from careful_coil.core.sums import work_out
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.states import states_of
from careful_coil.core.ways.usual import PTC, RUN, SELECTOR, START, SWITCH, VOLTAGE
from careful_coil.core.winding.rotor import Rotor
from careful_coil.core.winding.steady import solve

FOUR, CRS = "single-phase-4-lead", "single-phase-3-lead"
MAIN, AUX = "main-1-main-2", "aux-1-aux-2"


def quarter_horse(*devices: object, turns: float = 1.2, microfarad: float = 0.0) -> Motor:
    """A published main winding (1/4 hp, 110 V, 60 Hz, four poles) with an invented start winding."""
    plan = plans_of(FOUR, devices=devices)[0]  # type: ignore[arg-type]
    machine = Machine(
        rotor=Rotor(xm=66.8, r2=4.12, x2=2.12),
        leakage=2.79,
        poles=4,
        hertz=60,
        turns=turns,
        drag_watt=37 / 0.95**2,
    )
    motor = Motor.of_plan(plan, machine, {MAIN: 2.02, AUX: 7.14}, 110)
    names = [d.name for d in motor.devices if d.kind.startswith("capacitor")]
    return motor.with_capacitor(names[0], microfarad) if microfarad else motor


SPLIT = quarter_horse(SWITCH)
START_CAN = quarter_horse(SWITCH, START, microfarad=177)
PSC = quarter_horse(RUN, turns=1.4, microfarad=15)


def test_a_published_capacitor_motor() -> None:
    """Fitzgerald, Kingsley and Umans, Electric Machinery, 6th ed., ch. 9, worked capacitor-run motor.

    230 V, 60 Hz, two poles, 3500 rpm: L 80.6 and 196 mH, 0.58 and 3.37 Ω, mutuals 0.588 and 0.909 mH,
    rotor 4.7 µH and 37.6 µΩ, 35 µF. Main 15.9 A at −37.6°, start 5.20 A, line 18.5 A at −22.7°, capacitor
    394 V, 9.74 N·m, 3532 W after 40 W of friction.
    """
    omega = 2 * math.pi * 60
    ratio, turns = 80.6e-3 / 0.588e-3, 0.909 / 0.588  # no leakage in the main: all in the rotor
    plan = plans_of(FOUR, devices=(replace(RUN, microfarad=35.0),))[0]
    machine = Machine(
        rotor=Rotor(
            xm=omega * 80.6e-3, r2=37.6e-6 * ratio**2, x2=omega * (4.7e-6 * ratio**2 - 80.6e-3)
        ),
        leakage=0.0,
        poles=2,
        hertz=60,
        turns=turns,
        drag_watt=40 * (3600 / 3500) ** 2,
    )
    motor = Motor.of_plan(plan, machine, {MAIN: 0.58, AUX: 3.37}, 230)
    network = motor.network()
    # the start winding's own leakage, which a turns ratio alone does not give
    coils = tuple(
        replace(c, leakage=omega * (196e-3 - turns**2 * 80.6e-3)) if c.name == AUX else c
        for c in network.coils
    )
    slip = 100 / 3600
    own = slip if motor.way > 0 else 2 - slip
    found = solve(replace(network, coils=coils), motor.supply(), own, machine.rotor)
    main, aux = found.coil_amp[0]
    line = found.line_amp["L1"][0]
    assert abs(main) == pytest.approx(15.9, abs=0.05)
    assert math.degrees(cmath.phase(main)) == pytest.approx(-37.6, abs=0.05)
    assert abs(aux) == pytest.approx(5.20, abs=0.01)
    assert abs(line) == pytest.approx(18.5, abs=0.05)
    assert math.degrees(cmath.phase(line)) == pytest.approx(-22.7, abs=0.05)
    assert abs(found.capacitor_volt[RUN.name][0]) == pytest.approx(394, abs=1)
    torque = motor.torque_nm(found)
    assert torque[0] == pytest.approx(9.74, abs=0.01)
    shaft = (torque - motor.drag_nm(np.array([slip])))[0] * 2 * math.pi * 3500 / 60
    assert shaft == pytest.approx(3532, abs=1)


def test_a_published_start_capacitor() -> None:
    """The same, start capacitor of a 120 V motor: 4.5 + j3.7 and 9.5 + j3.5 Ω: 177 µF for 90°."""
    square, most = start_microfarad(4.5 + 3.7j, 9.5 + 3.5j, 60)
    assert square == pytest.approx(177, rel=0.006)
    assert most > square
    texts = {"main_volt": "120", "main_amp": f"{120 / abs(4.5 + 3.7j)}", "hertz": "60"}
    texts["main_watt"] = f"{4.5 * (120 / abs(4.5 + 3.7j)) ** 2}"
    texts |= {"aux_volt": "120", "aux_amp": f"{120 / abs(9.5 + 3.5j)}", "aux_ohm": "9.5"}
    results = work_out("start-capacitor", texts).results
    assert results["microfarad_quadrature"] == pytest.approx(square, rel=1e-4)
    assert results["microfarad_torque"] == pytest.approx(most, rel=1e-4)


def test_the_search_finds_what_the_closed_forms_say() -> None:
    """At standstill windings 90° apart do not couple: locked readings of each are all there is."""
    found = start_capacitor(START_CAN, START.name)
    main = 110 / complex(START_CAN.steady(1.0, "run").coil_amp[0, 0])
    alone = replace(START_CAN, joints=(("L1", "aux-1"), ("L2", "aux-2")), devices=())
    aux = 110 / complex(alone.steady(1.0).coil_amp[0, 1])
    square, most = start_microfarad(main, aux, 60)
    assert found.quadrature == pytest.approx(square, rel=1e-6)
    assert found.most_torque == pytest.approx(most, rel=1e-4)
    assert found.most_torque_torque > found.quadrature_torque
    at = START_CAN.with_capacitor(START.name, square).steady(1.0, "start").coil_amp[0]
    apart = math.degrees(cmath.phase(complex(at[1]) / complex(at[0])))
    assert abs(apart) == pytest.approx(90, abs=1e-4)


def test_start_capacitors_that_cannot_be() -> None:
    with pytest.raises(ValueOutOfRange, match="reactance"):
        start_microfarad(5 + 0j, 9 + 3j, 50)
    with pytest.raises(ValueOutOfRange, match="below V/I"):
        impedance(30, 3, 160)
    assert impedance(30, 3, ohm=6) == pytest.approx(6 + 8j)
    with pytest.raises(CannotConnect, match="no start winding"):
        start_capacitor(replace(START_CAN, arrangement="three-phase-6-lead", devices=()), "C1")
    with pytest.raises(BadDocument, match="C1"):
        START_CAN.with_capacitor("C9", 10)


def test_a_running_capacitor_leaves_the_least_backward_field() -> None:
    """No value about it does better; caps on amps and volts are kept to the edge."""
    free = running_capacitor(PSC, RUN.name, 0.05)
    assert (free.capped, free.chosen) == ("", free.best)
    for share in (0.8, 0.95, 1.05, 1.25):
        other = PSC.with_capacitor(RUN.name, free.best.microfarad * share)
        assert other.backward_share(other.steady(0.05))[0] > free.best.backward
    assert 2 < start_capacitor(PSC, RUN.name).most_torque / free.best.microfarad < 20
    amps = running_capacitor(PSC, RUN.name, 0.05, most_amp=0.7 * free.best.aux_amp)
    assert amps.capped == "amps"
    assert amps.chosen.aux_amp == pytest.approx(0.7 * free.best.aux_amp, rel=1e-4)
    assert amps.chosen.microfarad < free.best.microfarad
    assert [t.microfarad for t in amps.shelf] == sorted(t.microfarad for t in amps.shelf)
    assert amps.shelf[-1].microfarad <= amps.chosen.microfarad
    with pytest.raises(CannotConnect, match="No run capacitor"):
        running_capacitor(PSC, RUN.name, 0.05, most_volt=20)


def test_curves_tell_start_and_run() -> None:
    start, run = start_curves(START_CAN)
    assert start.torque[0] > 3 * run.at(1710, run.shaft)
    assert abs(run.torque[0]) < 1e-9
    assert run.at(1710, run.line_amp) == pytest.approx(3.6, abs=0.02)
    assert run.at(1710, run.shaft) * 2 * math.pi * 1710 / 60 == pytest.approx(147, abs=1)
    assert run.aux_amp.max() < 1e-9 < start.aux_amp.min()
    assert set(start.capacitor_volt) == {START.name}
    assert len(start.rpm) == 400
    assert start.rpm[-1] == pytest.approx(1800)
    one = START_CAN.steady(float(start.slip[57]), "start")
    assert START_CAN.torque_nm(one)[0] == pytest.approx(start.torque[57])


def test_curves_of_the_other_direction_are_the_same() -> None:
    """Reversing either winding turns the other way and is the same motor; both reversed is the first."""
    turned = replace(START_CAN, joints=exchanged(START_CAN.joints, ("aux-1", "aux-2")))
    both = replace(turned, joints=exchanged(turned.joints, ("main-1", "main-2")))
    assert (turned.way, both.way) == (-START_CAN.way, START_CAN.way)
    one, two = curve(START_CAN, "start"), curve(turned, "start")
    assert two.torque == pytest.approx(one.torque)
    assert two.line_amp == pytest.approx(one.line_amp)


def exchanged(
    joints: tuple[tuple[str, ...], ...], pair: tuple[str, str]
) -> tuple[tuple[str, ...], ...]:
    other = {pair[0]: pair[1], pair[1]: pair[0]}
    return tuple(tuple(other.get(n, n) for n in j) for j in joints)


@settings(max_examples=40)
@given(
    turns=st.floats(0.5, 2.0),
    farad=st.floats(5, 400),
    ohm=st.floats(1, 40),
    which=st.sampled_from([SPLIT, START_CAN, PSC]),
)
def test_what_holds_for_every_single_phase_motor(
    turns: float, farad: float, ohm: float, which: Motor
) -> None:
    """No torque at standstill on the main alone; reversing one winding reverses, both do not."""
    motor = replace(
        which, machine=replace(which.machine, turns=turns), coil_ohm={MAIN: 2.02, AUX: ohm}
    )
    cans = [d.name for d in motor.devices if d.kind.startswith("capacitor")]
    motor = motor.with_capacitor(cans[0], farad) if cans else motor
    alone = replace(motor, joints=(("L1", "main-1"), ("L2", "main-2")), devices=())
    still = alone.steady(1.0)
    assert abs(alone.torque_nm(still)[0]) < 1e-9
    assert field_of(still).shape == "line"
    swap = exchanged(motor.joints, ("aux-1", "aux-2"))
    torques = [
        replace(motor, joints=j).steady(1.0, "start")
        for j in (motor.joints, swap, exchanged(swap, ("main-1", "main-2")))
    ]
    ways = [replace(motor, joints=j).way for j in (motor.joints, swap)]
    sizes = [float(t.torque[0]) * w for t, w in zip(torques, (*ways, ways[0]), strict=True)]
    assert sizes[0] == pytest.approx(sizes[1]) == pytest.approx(sizes[2])
    if sizes[0] > 1e-3:
        assert ways[0] == -ways[1]


def test_the_field_is_drawn_as_the_currents_make_it() -> None:
    """Σ n·i(t)·e^(jθ) traced over a period lies on the path; equal and 90° apart it is a circle."""
    still = START_CAN.steady(1.0, "start")
    path = field_of(still)
    tips = []
    for at in np.linspace(0, 2 * math.pi, 50):
        amps = (still.coil_amp[0] * cmath.exp(1j * at)).real * math.sqrt(2)
        tips.append(amps[0] * 1 + amps[1] * START_CAN.machine.turns * 1j)
    turned = np.array(tips) * cmath.exp(-1j * math.radians(path.tilt))
    ellipse = (turned.real / path.long) ** 2 + (turned.imag / path.short) ** 2
    assert ellipse == pytest.approx(np.ones(50), rel=1e-9)
    assert path.shape == "ellipse"
    assert path.turn == START_CAN.way
    assert field_path(1 + 0j, 0j).shape == "circle"
    assert (field_path(1 + 0j, 1 + 0j).shape, field_path(1 + 0j, 1 + 0j).turn) == ("line", 0)
    drawn = path.points(36)
    assert drawn.shape == (37, 2)
    assert np.hypot(*drawn.T).max() == pytest.approx(path.long)
    amps = phasors(START_CAN, still)
    assert amps["main"] + amps["start"] == pytest.approx(amps["L1"])


LIGHT = Load(inertia=0.01, friction=0.2, torque=0.5)


@pytest.mark.parametrize(
    ("times", "words"),
    [
        (2.4, "starts with 2.40 times full load"),
        (0.0, "does not start"),
        (-0.39, "does not start: it pulls the other way"),
    ],
)
def test_no_start_is_said_as_none(times: float, words: str) -> None:
    assert starts_words(times) == words


def test_the_angle_of_the_two_currents_is_said_in_words() -> None:
    told = apart_words({"main": 2 - 2j, "start": 1 + 1j, "L1": 3 - 1j})
    assert told == "The two currents stand 90° apart, the start winding ahead; 90° turns hardest."
    assert apart_words({"L1": 1j, "main": 1j}) == ""


def test_a_run_up_obeys_work_and_energy() -> None:
    """Energy of the flywheel is the work of all torques; half the inertia takes half the time."""
    found = run_up(START_CAN, LIGHT, seconds=3)
    assert found.outcome == "up"
    assert found.switch_over == pytest.approx(found.switchings[0].seconds)
    assert found.switchings[0].rpm == pytest.approx(1350, abs=0.5)
    twice = run_up(START_CAN, replace(LIGHT, inertia=0.02), seconds=6)
    assert found.switch_over is not None
    assert twice.switch_over == pytest.approx(2 * found.switch_over, rel=1e-3)
    rpm = found.rpm[~found.start_in][-1]
    net = found.run.at(rpm, found.run.shaft) - LIGHT.at(rpm / 1800)
    assert abs(net) < 0.01
    start = found.start
    mesh = np.linspace(0, 1350, 4000)
    drive = np.interp(mesh, start.rpm, start.shaft) - [LIGHT.at(r / 1800) for r in mesh]
    seconds = np.trapezoid(0.01 * 2 * math.pi / 60 / drive, mesh)
    assert found.switch_over == pytest.approx(seconds, rel=1e-3)


def test_a_stall_a_hang_and_chattering() -> None:
    held = run_up(START_CAN, Load(inertia=0.01, friction=8.0))
    assert (held.outcome, held.rpm[-1], held.switch_over) == ("stall", 0.0, None)
    assert held.aux_heat[-1] == pytest.approx(held.start.aux_amp[0] ** 2 * 10, rel=1e-3)
    hangs = run_up(SPLIT, Load(inertia=0.01, torque=6.0, power=1.0), seconds=30)
    assert hangs.outcome == "hangs"
    assert 18 < hangs.rpm[-1] < 1350
    near = Gear(out=0.75, back=0.73)
    chatters = run_up(START_CAN, Load(inertia=0.01, friction=2.6), near)
    assert chatters.outcome == "chatters"
    assert chatters.switch_over is None
    ins = [s.out for s in chatters.switchings]
    assert ins[:4] == [True, False, True, False]
    wide = run_up(START_CAN, Load(inertia=0.01, friction=2.6), Gear(out=0.75, back=0.2), seconds=3)
    assert wide.outcome in ("up", "stall", "still rising")
    short = run_up(START_CAN, replace(LIGHT, inertia=5.0), seconds=0.5)
    assert short.outcome == "still rising"


def test_relays_and_thermistors_watch_their_own_figures() -> None:
    """Each goes out where its curve crosses its figure."""
    relay = quarter_horse(VOLTAGE, START, microfarad=177)
    start = start_curves(relay)[0]
    pick_up = start.at(1300, start.aux_volt)
    found = run_up(relay, LIGHT, Gear(watches="volts", out=pick_up, back=0.3 * pick_up), 3)
    assert found.outcome == "up"
    assert found.switchings[0].rpm == pytest.approx(1300, abs=3)
    amps = start.at(1400, start.main_amp)
    current = run_up(START_CAN, LIGHT, Gear(watches="amps", out=amps, back=5 * amps), 3)
    assert current.outcome == "up"
    ptc = quarter_horse(PTC)
    hot = Gear.thermistor(ptc, 0.3)
    found = run_up(ptc, LIGHT, hot, 4)
    assert found.switchings[0].seconds == pytest.approx(0.3, rel=0.3)
    psc = run_up(PSC, Load(inertia=0.002, torque=0.4), NO_GEAR, 5)
    assert (psc.outcome, psc.switchings) == ("up", ())
    assert psc.line_amp[0] > psc.line_amp[-1]


def test_a_run_up_that_cannot_be_asked() -> None:
    with pytest.raises(ValueOutOfRange, match="inertia"):
        run_up(SPLIT, Load(inertia=0))
    with pytest.raises(ValueOutOfRange, match="time"):
        run_up(SPLIT, LIGHT, seconds=0)
    with pytest.raises(ValueOutOfRange, match="below nothing"):
        run_up(SPLIT, Load(inertia=0.01, friction=-1))
    with pytest.raises(ValueOutOfRange, match="rising speeds"):
        run_up(SPLIT, Load(inertia=0.01, points=((0.5, 1.0), (0.1, 1.0))))


def test_a_load_curve_is_as_good_as_its_law() -> None:
    law = run_up(START_CAN, Load(inertia=0.01, torque=0.8, power=1.0), seconds=2)
    drawn = run_up(START_CAN, Load(inertia=0.01, points=((0.0, 0.0), (1.0, 0.8))), seconds=2)
    assert drawn.switch_over == pytest.approx(law.switch_over)
    assert drawn.rpm[-1] == pytest.approx(law.rpm[-1])


def test_heating_of_the_start_winding() -> None:
    """20 A/mm²: 400/170 = 2.35 K/s, 80 K in 34 s; aluminium 74."""
    assert heating_rate(20) == pytest.approx(400 / 170)
    assert stall_seconds(20, 80) == pytest.approx(34.0)
    assert heating_rate(20, "aluminium") == pytest.approx(400 / 74)
    with pytest.raises(ValueOutOfRange):
        stall_seconds(0, 80)
    results = work_out("stall-heating", {"amp_per_mm2": "20", "rise_k": "80"}).results
    assert results == {"k_per_s": pytest.approx(400 / 170), "seconds": pytest.approx(34.0)}
    stalled = run_up(SPLIT, Load(inertia=0.01, friction=9.0), seconds=2)
    hot = start_heating(stalled, wire_mm2=0.3)
    assert hot.rise_k == pytest.approx(2 * hot.stalled_k_per_s, rel=1e-3)
    quick = start_heating(run_up(START_CAN, LIGHT, seconds=3), wire_mm2=0.3)
    assert quick.rise_k < hot.rise_k
    assert quick.stalled_seconds == pytest.approx(60 / quick.stalled_k_per_s)
    with pytest.raises(ValueOutOfRange, match="wire"):
        start_heating(stalled, 0)


def test_slower_taps_slow_a_fan() -> None:
    """The same load settles slower on each tap of the selector."""
    plan = plans_of("single-phase-speed-taps", devices=(RUN, SELECTOR))[0]
    machine = Machine(rotor=Rotor(xm=300.0, r2=40.0, x2=15.0), leakage=15.0, poles=4, hertz=50)
    ohms = {"run-high": 20.0, "start-high": 30.0, "high-medium": 12.0, "medium-low": 12.0}
    motor = Motor.of_plan(plan, machine, ohms, 230).with_capacitor(RUN.name, 6.0)
    fan = Load(inertia=0.01, torque=3.0)
    settled = []
    for state in states_of(motor.devices)[1::2]:
        found = curve(motor, state)
        net = found.shaft - [fan.at(r / 1500) for r in found.rpm]
        settled.append(float(found.rpm[np.flatnonzero(net > 0)[-1]]))
    assert settled == sorted(settled, reverse=True)
    assert settled[0] - settled[2] > 30
