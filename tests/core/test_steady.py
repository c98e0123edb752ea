"""Alternating current: published examples, energy, symmetry, and physics that surprises."""

import cmath
import itertools
import math
import random
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.ways import plans_of
from careful_coil.core.winding import ARRANGEMENTS, Coil, Network
from careful_coil.core.winding.coupling import fields
from careful_coil.core.winding.kick import series_volt
from careful_coil.core.winding.network import Capacitor, ohms_share
from careful_coil.core.winding.rotor import Rotor, default_rotor
from careful_coil.core.winding.speed import poles_of, slip_of
from careful_coil.core.winding.steady import Supply, solve

SIX, NINE = "three-phase-6-lead", "three-phase-9-lead-wye"
THREE = Supply.of(3, 400.0, 50.0, 50.0)
ONE = Supply.of(1, 230.0, 50.0, 50.0)


def star(**lines: str) -> Network:
    """Six leads in wye, each line on the lead named."""
    lines = lines or {"L1": "T1", "L2": "T2", "L3": "T3"}
    joints = [(line, lead) for line, lead in lines.items()]
    return ARRANGEMENTS[SIX].network.joined([*joints, ("T4", "T5", "T6")])


def test_a_published_three_phase_motor() -> None:
    """Chapman, Electric Machinery Fundamentals, worked example of a 460 V, 25 hp, wye motor at slip 0.022.

    0.641 + j1.106 Ω, 0.332 and j0.464 Ω, j26.3 Ω a phase: 18.88 A, PF 0.833, input 12 530 W,
    stator copper 685 W, air gap 11 845 W, converted 11 585 W, 62.8 N·m.
    """
    coils = tuple(
        Coil(name=f"{k}", start=f"L{k + 1}", finish="S", ohm=0.641, angle=120.0 * k, leakage=1.106)
        for k in range(3)
    )
    rotor = Rotor(xm=26.3 * 2 / 3, r2=0.332 * 2 / 3, x2=0.464 * 2 / 3)
    found = solve(Network(coils=coils, leads=("L1", "L2", "L3")), Supply.of(3, 460.0), 0.022, rotor)
    assert abs(found.line_amp["L1"][0]) == pytest.approx(18.88, abs=0.02)
    assert found.power_factor[0] == pytest.approx(0.833, abs=1e-3)
    assert found.power_in[0] == pytest.approx(12530, rel=1e-3)
    assert found.copper[0] == pytest.approx(685, rel=3e-3)
    assert found.torque[0] == pytest.approx(11845, rel=1e-3)
    assert found.shaft[0] == pytest.approx(11585, rel=1e-3)
    assert found.torque[0] / (2 * math.pi * 1800 / 60) == pytest.approx(62.8, abs=0.05)


def test_a_published_single_phase_motor() -> None:
    """Fitzgerald, Kingsley and Umans, Electric Machinery, ch. 9, 1/4 hp capacitor-start motor running.

    2.02 + j2.79 Ω, 4.12 and j2.12 Ω, j66.8 Ω, slip 0.05: 3.59 A, PF 0.62, 244 W, and 147 W at the
    shaft after 37 W of core loss and friction.
    """
    main = Coil(name="main", start="L1", finish="L2", ohm=2.02, leakage=2.79)
    found = solve(
        Network(coils=(main,), leads=("L1", "L2")),
        Supply.of(1, 110.0),
        0.05,
        Rotor(xm=66.8, r2=4.12, x2=2.12),
    )
    assert abs(found.line_amp["L1"][0]) == pytest.approx(3.59, rel=0.01)
    assert found.power_factor[0] == pytest.approx(0.62, abs=0.005)
    assert found.power_in[0] == pytest.approx(244, rel=0.01)
    assert found.shaft[0] - 37 == pytest.approx(147, abs=1)


@st.composite
def hookups(draw: st.DrawFn) -> Network:
    """Any winding with unequal ohms and any joints, lines on any leads, a capacitor somewhere."""
    slug = draw(st.sampled_from(sorted(ARRANGEMENTS)))
    chance = random.Random(draw(st.integers(0, 10**6)))
    inside = ARRANGEMENTS[slug].network
    network = inside.with_ohm({c.name: chance.uniform(0.5, 8.0) for c in inside.coils})
    leads = list(network.leads)
    chance.shuffle(leads)
    joints = [("L1", leads[0]), ("L2", leads[1]), *([("L3", leads[2])] if len(leads) > 3 else [])]
    rest = leads[3:]
    while len(rest) > 1 and chance.random() < 0.8:
        size = min(len(rest), chance.randint(2, 3))
        joints.append(tuple(rest[:size]))
        rest = rest[size:]
    ends = chance.sample(leads, 2)
    capacitor = Capacitor(name="C", start=ends[0], finish=ends[1], microfarad=chance.uniform(5, 50))
    return replace(network.joined(joints), capacitors=(capacitor,))


@settings(max_examples=60)
@given(hookups(), st.floats(-0.5, 2.5))
def test_what_goes_in_is_copper_rotor_and_shaft(network: Network, slip: float) -> None:
    found = solve(network, THREE, slip)
    spent = found.copper + found.rotor_copper + found.shaft
    assert found.power_in == pytest.approx(spent, rel=1e-9, abs=1e-6)
    assert sum(a[0] for a in found.line_amp.values()) == pytest.approx(0, abs=1e-6)


@given(st.lists(st.floats(0.01, 1.99), min_size=1, max_size=20))
def test_many_slips_in_one_call_are_those_one_by_one(slips: list[float]) -> None:
    together = solve(star(), THREE, slips)
    one = [solve(star(), THREE, s).torque[0] for s in slips]
    assert together.torque == pytest.approx(one, rel=1e-9)


@given(st.floats(0.001, 1.999))
def test_a_right_three_phase_hookup_has_no_backward_field(slip: float) -> None:
    found = solve(star(), THREE, slip)
    assert abs(found.backward[0, 0]) < 1e-9 * abs(found.forward[0, 0])


@pytest.mark.parametrize("slip", [1.0, 0.04])
def test_exchanging_two_lines_mirrors_the_field(slip: float) -> None:
    straight = solve(star(), THREE, slip)
    crossed = solve(star(L1="T2", L2="T1", L3="T3"), THREE, 2 - slip)
    assert abs(crossed.backward[0, 0]) == pytest.approx(abs(straight.forward[0, 0]), rel=1e-9)
    assert crossed.torque[0] == pytest.approx(-straight.torque[0], rel=1e-9)


@given(st.permutations([1, 2, 3]), st.booleans())
def test_relabelling_a_network_relabels_its_answers(order: list[int], turned: bool) -> None:
    """Phases renamed, and starts called finishes: currents go with the coils."""
    names = {}
    for k, to in enumerate(order, 1):
        a, b = (f"T{to + 3}", f"T{to}") if turned else (f"T{to}", f"T{to + 3}")
        names[f"T{k}"], names[f"T{k + 3}"] = a, b
    joints = [("L1", "T1"), ("L2", "T2", "T6"), ("L3", "T5"), ("T4", "T3")]
    there = [tuple(names.get(n, n) for n in j) for j in joints]
    network = ARRANGEMENTS[SIX].network
    coils = tuple(
        replace(c, start=names[c.start], finish=names[c.finish], name=f"moved {c.name}")
        for c in network.coils
    )
    here = solve(network.joined(joints), THREE, 0.3)
    moved = solve(Network(coils=coils, leads=network.leads).joined(there), THREE, 0.3)
    assert moved.coil_amp == pytest.approx(here.coil_amp, rel=1e-9)
    assert moved.torque == pytest.approx(here.torque, rel=1e-9)


def test_on_two_lines_there_is_no_torque_at_rest_and_plenty_once_turned() -> None:
    """A lost phase: it hums; knocked round it runs a little under synchronous speed."""
    lost = ARRANGEMENTS[SIX].network.joined([("L1", "T1"), ("L2", "T2"), ("T4", "T5", "T6")])
    found = solve(lost, THREE, [1.0, 0.05, 1.95])
    full = solve(star(), THREE, 0.05)
    assert abs(found.torque[0]) < 1e-9 * full.torque[0]
    assert found.torque[1] > 0.3 * full.torque[0]
    assert found.torque[2] == pytest.approx(-found.torque[1], rel=1e-9)
    assert abs(found.line_amp["L1"][1]) > 1.3 * abs(full.line_amp["L1"][0])


def test_an_exchanged_coil_leaves_the_ohms_and_multiplies_the_current() -> None:
    nine = ARRANGEMENTS[NINE].network
    high = [("L1", "T1"), ("L2", "T2"), ("L3", "T3"), ("T4", "T7"), ("T5", "T8"), ("T6", "T9")]
    wrong = [("L1", "T2"), ("L2", "T1"), *high[2:3], ("T5", "T7"), ("T4", "T8"), *high[5:]]
    good, bad = nine.joined(high), nine.joined(wrong)
    lines = ("L1", "L2", "L3")
    assert bad.resistance(lines) == pytest.approx(good.resistance(lines), rel=1e-12)
    right, odd = solve(good, THREE, 0.03), solve(bad, THREE, 0.03)
    ratio = [abs(odd.line_amp[n][0]) / abs(right.line_amp[n][0]) for n in lines]
    assert max(ratio) > 2.5


@given(st.floats(0.05, 0.5))
def test_the_tail_of_a_tapped_coil_on_full_line_draws_between_one_over_k_and_k_squared(
    k: float,
) -> None:
    coil = ARRANGEMENTS["single-phase-two-speed-coil"].network
    parts = tuple(
        replace(c, turns=share, ohm=10 * share, leakage=20 * share**2)
        for c, share in zip(coil.coils, (1 - k, k), strict=True)
    )
    network = replace(coil, coils=parts)
    rotor = Rotor(xm=200.0, r2=10.0, x2=20.0)
    whole = solve(network.joined([("L1", "low"), ("L2", "common")]), ONE, 1.0, rotor)
    tail = solve(network.joined([("L1", "low"), ("L2", "high")]), ONE, 1.0, rotor)
    ratio = abs(tail.line_amp["L1"][0]) / abs(whole.line_amp["L1"][0])
    assert 1 / k < ratio < 1 / k**2


def test_a_short_across_the_supply_is_a_result() -> None:
    found = solve(star().joined([("L1", "L2")]), THREE, [1.0, 0.5])
    assert found.shorted == ("L1", "L2")
    assert np.all(np.isinf(found.line_amp["L1"]))
    assert not np.any(found.coil_amp)


def test_open_parts_and_floating_groups_only_show_induced_volts() -> None:
    """T3-T6 hangs on nothing and still shows the volts of its place in the field."""
    joined = ARRANGEMENTS[SIX].network.joined([("L1", "T1"), ("L2", "T2"), ("T4", "T5")])
    found = solve(joined, THREE, 1.0)
    assert abs(found.coil_amp[0, 2]) < 1e-12
    assert abs(found.coil_volt[0, 2]) < 1e-9  # it lies across the pulsating field
    spun = solve(joined, THREE, 0.05)
    assert abs(spun.coil_volt[0, 2]) > 100


def test_halves_of_adjacent_poles_couple_hardly_and_lose_no_power() -> None:
    network = ARRANGEMENTS[NINE].network
    near, apart = (
        fields(network.coils, "alternate").mutual(),
        fields(network.coils, "adjacent").mutual(),
    )
    assert near[0, 3] == pytest.approx(1.0)
    assert apart[0, 3] == pytest.approx(0.0, abs=1e-12)
    assert np.diag(apart) == pytest.approx(np.diag(near))
    assert fields(
        ARRANGEMENTS["three-phase-two-speed-6-lead"].network.coils, "pole-changing"
    ).mutual()[0, 1] == pytest.approx(-0.45)


def test_two_windings_for_two_speeds_share_no_field() -> None:
    both = ARRANGEMENTS["three-phase-part-winding-6-lead"].inside("two-windings")
    assert fields(both.coils).mutual()[0, 3] == 0


def test_a_series_test_tells_start_from_finish() -> None:
    """Sum: the end tied is a start; difference: a finish; of another phase the other way round."""
    six = ARRANGEMENTS[SIX].network
    halves = ARRANGEMENTS["three-phase-12-lead"].network
    added = series_volt(halves, ("T1", "T4"), ("T4", "T7"), ("T1", "T10"))
    taken = series_volt(halves, ("T1", "T4"), ("T4", "T10"), ("T1", "T7"))
    assert added > 15
    assert taken < 9
    assert added + taken == pytest.approx(24, abs=0.2)
    apart = series_volt(six, ("T1", "T4"), ("T4", "T2"), ("T1", "T5"))
    assert 6 < apart < 11  # another phase takes up to a half away
    assert series_volt(six, ("T1", "T4"), ("T4", "T5"), ("T1", "T2")) > 13
    with pytest.raises(ValueError, match="no such leads"):
        series_volt(six, ("T1", "T9"), ("T4", "T2"), ("T1", "T5"))


def test_a_capacitor_makes_a_single_phase_motor_start() -> None:
    network = ARRANGEMENTS["single-phase-4-lead"].network
    joined = network.joined([("L1", "main-1", "x"), ("L2", "main-2", "aux-2")])
    with_c = replace(
        joined, capacitors=(Capacitor(name="C", start="x", finish="aux-1", microfarad=400.0),)
    )
    alone = solve(joined, ONE, 1.0)
    started = solve(with_c, ONE, 1.0)
    assert abs(alone.torque[0]) < 1e-9
    assert abs(started.torque[0]) > 100
    lead = cmath.phase(started.coil_amp[0, 1] / started.coil_amp[0, 0])
    assert math.degrees(lead) > 60


def test_copper_at_temperature() -> None:
    """IEEE 112, 5.2.1: 25 to 20 °C is 1.0196."""
    assert 10.196 * ohms_share(25, 20) == pytest.approx(10.0, abs=1e-3)


@pytest.mark.parametrize(
    ("hertz", "rpm", "poles", "slip"),
    [(60, 1755, 4, 0.025), (50, 2890, 2, 0.0367), (50, 1500, 4, 0.0), (60, 1050, 6, 0.125)],
)
def test_poles_and_slip_from_a_plate(hertz: float, rpm: float, poles: int, slip: float) -> None:
    assert poles_of(hertz, rpm) == poles
    assert slip_of(hertz, rpm) == pytest.approx(slip, abs=1e-3)


def test_a_speed_over_two_pole_is_refused() -> None:
    with pytest.raises(ValueOutOfRange, match="at most 3000"):
        poles_of(50, 3100)


TWO_SPEED = "three-phase-two-speed-6-lead"


@pytest.mark.parametrize("variant", ["", "variable-torque", "constant-power"])
def test_both_speeds_of_one_winding_turn_the_same_way(variant: str) -> None:
    """The joints of the tables make one pole number alone, forward, at either speed."""
    inside = ARRANGEMENTS[TWO_SPEED].inside(variant)
    for found in plans_of(TWO_SPEED, variant):
        shown = solve(
            inside.joined(found.joints), THREE, 1.0, default_rotor(inside), "pole-changing"
        )
        ahead, behind = np.abs(shown.forward[0]), np.abs(shown.backward[0])
        other = 1 - found.field
        assert ahead[found.field] > 100
        assert max(ahead[other], behind[0], behind[1]) < 1e-9 * ahead[found.field]


def test_every_pair_of_lines_is_the_same_on_a_right_star() -> None:
    found = solve(star(), THREE, 0.5)
    sizes = [abs(found.line_amp[n][0]) for n in ("L1", "L2", "L3")]
    for a, b in itertools.pairwise(sizes):
        assert a == pytest.approx(b, rel=1e-12)
