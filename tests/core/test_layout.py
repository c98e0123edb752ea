"""Layouts: every balanced core, circuits, one layer, consequent poles, concentric single-phase windings."""

import cmath
import math
from collections import Counter

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.rewind.factors import factors
from careful_coil.core.rewind.layout import (
    PHASES,
    Layout,
    PoleCoil,
    circuits_of,
    mmf,
    off_centre,
    single_phase,
    span_usual,
    three_phase,
)


def accepted() -> list[tuple[int, int]]:
    found = []
    for slots in range(12, 73):
        for poles in range(2, 13, 2):
            try:
                three_phase(slots, poles)
            except ValueOutOfRange:
                continue
            found.append((slots, poles))
    return found


ACCEPTED = accepted()


def test_cores_are_taken_where_three_divides_their_star_and_only_there() -> None:
    every = {(s, p) for s in range(12, 73) for p in range(2, 13, 2)}
    balanced = {(s, p) for s, p in every if s % 3 == 0 and s // math.gcd(s, p // 2) % 3 == 0}
    assert set(ACCEPTED) == balanced
    assert len(balanced) == 98


@pytest.mark.parametrize(
    ("slots", "poles", "words"),
    [
        (35, 4, "three divides"),
        (12, 6, "rays"),
        (36, 5, "even number"),
        (2, 2, "3 to 360"),
    ],
)
def test_what_cannot_balance_says_why(slots: int, poles: int, words: str) -> None:
    with pytest.raises(ValueOutOfRange, match=words):
        three_phase(slots, poles)


@given(st.sampled_from(ACCEPTED), st.data())
def test_stars_are_balanced_and_factors_are_those_of_the_formula(
    core: tuple[int, int], data: st.DataObject
) -> None:
    """Phases equal, a third apart; k_p·k_d in closed form is what the vectors of all slots add up to."""
    slots, poles = core
    span = data.draw(st.integers(1, max(slots // poles, 1)))
    layout = three_phase(slots, poles, span=span)
    vectors = [layout.vector(layout.of(p)) for p in PHASES]
    assert abs(sum(vectors)) < 1e-9 * slots
    assert np.ptp([abs(v) for v in vectors]) < 1e-9 * slots
    apart = abs(math.degrees(cmath.phase(vectors[1] / vectors[0])))
    assert apart == pytest.approx(120)
    assert layout.factor("U") == pytest.approx(factors(slots, poles, span).winding)


@given(st.sampled_from(ACCEPTED))
def test_two_layers_fill_every_slot_twice_and_each_phase_has_a_third(core: tuple[int, int]) -> None:
    layout = three_phase(*core)
    assert {len(s) for s in layout.sides.values()} == {2}
    assert set(Counter(c.phase for c in layout.coils).values()) == {core[0] // 3}
    assert all((c.finish - c.start) % core[0] == span_usual(*core) for c in layout.coils)


def test_a_fractional_winding_is_grouped_evenly() -> None:
    layout = three_phase(18, 4)
    assert layout.q == 1.5
    assert [len(g) for g in layout.groups("U")] == [2, 1, 2, 1]
    assert [len(g) for g in three_phase(30, 4).groups("V")] in ([3, 2, 3, 2], [2, 3, 2, 3])


@pytest.mark.parametrize(
    ("layout", "circuits"),
    [
        (three_phase(36, 4), (1, 2, 4)),
        (three_phase(24, 2), (1, 2)),
        (three_phase(18, 4), (1, 2)),
        (three_phase(36, 4, layers=1), (1, 2)),
        (three_phase(54, 6), (1, 2, 3, 6)),
        (three_phase(27, 6), (1, 3)),
    ],
)
def test_circuits_are_those_that_part_a_phase_into_equal_vectors(
    layout: Layout, circuits: tuple[int, ...]
) -> None:
    assert circuits_of(layout) == circuits


@pytest.mark.parametrize("shape", ["lap", "concentric"])
@pytest.mark.parametrize(
    ("slots", "poles", "groups"), [(36, 4, 2), (24, 2, 2), (24, 4, 4), (48, 4, 4)]
)
def test_one_layer_has_one_side_a_slot(slots: int, poles: int, groups: int, shape: str) -> None:
    """Whole belts stand for themselves: k_w is that of the belt whichever way its sides are joined."""
    layout = three_phase(slots, poles, layers=1, shape=shape)  # type: ignore[arg-type]
    assert {len(s) for s in layout.sides.values()} == {1}
    assert len(layout.coils) == slots // 2
    assert len(layout.groups("W")) == groups
    assert layout.factor("U") == pytest.approx(factors(slots, poles, slots // poles).winding)
    if shape == "concentric":
        nest = layout.groups("U")[0]
        assert len({(c.start + c.finish) % slots for c in nest}) == 1
        assert len({(c.finish - c.start) % slots for c in nest}) == len(nest)


def test_a_fractional_core_in_one_layer_is_refused() -> None:
    with pytest.raises(ValueOutOfRange, match="two layers do it"):
        three_phase(27, 6, layers=1)


def test_consequent_poles_take_belts_of_120_degrees() -> None:
    """Half the groups; k_d of a 120° belt, sin 60°/(2q·sin(60°/2q)) = 0.831 for q of three."""
    layout = three_phase(36, 4, span=9, consequent=True)
    assert [len(g) for g in layout.groups("U")] == [6, 6]
    assert layout.factor("U") == pytest.approx(math.sin(math.pi / 3) / (6 * math.sin(math.pi / 18)))


def test_shorter_spans_kill_the_fifth_or_the_seventh() -> None:
    """Five sixths of the pole pitch: both under a quarter of the full pitch's."""
    full, short = three_phase(36, 2, span=18), three_phase(36, 2, span=15)
    for order in (5, 7):
        assert short.factor("U", order) < 0.3 * full.factor("U", order)
    assert three_phase(30, 2, span=12).factor("U", 5) == pytest.approx(0, abs=1e-9)


# --- single phase ---------------------------------------------------------------------------------------

MAIN = [PoleCoil(1, 6, 40), PoleCoil(2, 5, 30)]
AUX = [PoleCoil(1, 6, 22), PoleCoil(2, 5, 14)]


def test_unequal_concentric_coils_have_the_factor_of_their_turns() -> None:
    """Σ N·sin(90°·y/τ)/Σ N with a pole pitch of six slots."""
    layout = single_phase(24, 4, MAIN, AUX)
    by_hand = (40 * math.sin(math.radians(75)) + 30 * math.sin(math.radians(45))) / 70
    assert layout.factor("main") == pytest.approx(by_hand)
    assert layout.phases == ("main", "start")
    assert len(layout.coils) == 16


def test_a_start_winding_is_centred_unless_somebody_says_where() -> None:
    assert off_centre(single_phase(24, 4, MAIN, AUX)) == pytest.approx(0)
    moved = single_phase(24, 4, MAIN, AUX, start_at=5)
    assert abs(off_centre(moved)) == pytest.approx(30)
    assert off_centre(single_phase(24, 4, MAIN)) == 0


@pytest.mark.parametrize(
    ("slots", "poles", "main", "words"),
    [
        (26, 4, MAIN, "whole number of slots"),
        (24, 4, [], "no main winding"),
        (24, 4, [PoleCoil(1, 9, 40)], "at most 6 slots"),
        (24, 4, [PoleCoil(3, 2, 40)], "at most 6 slots"),
        (24, 4, [PoleCoil(1, 6, 0)], "turns above nothing"),
    ],
)
def test_single_phase_records_that_cannot_be(
    slots: int, poles: int, main: list[PoleCoil], words: str
) -> None:
    with pytest.raises(ValueOutOfRange, match=words):
        single_phase(slots, poles, main)


def test_the_wave_of_a_small_stator() -> None:
    """Twelve slots, two poles, full pitch, currents 1, −½, −½: steps of 2, 1, 1 up and down."""
    wave = mmf(three_phase(12, 2, span=6), (1.0, -0.5, -0.5))
    assert list(wave) == pytest.approx([0, 2, 3, 4, 3, 2, 0, -2, -3, -4, -3, -2])


@given(st.sampled_from(ACCEPTED), st.floats(0, 2 * math.pi))
def test_the_wave_has_no_mean_and_its_fundamental_does_not_change(
    core: tuple[int, int], when: float
) -> None:
    """Three currents in step turn one field of constant size."""
    slots, poles = core
    layout = three_phase(slots, poles)

    def size(at: float) -> float:
        wave = mmf(layout, [math.cos(at - 2 * math.pi * k / 3) for k in range(3)])
        assert abs(wave.mean()) < 1e-9 * slots
        turn = np.exp(-1j * math.pi * poles / slots * np.arange(slots))
        return float(abs(wave @ turn))

    assert size(when) == pytest.approx(size(0.0), rel=1e-6)


def test_coils_of_a_group_have_their_own_turns() -> None:
    """Concentric coils of 9, 7 and 5 slots with 20, 30, 40 turns: k_w by their own sines."""
    layout = three_phase(36, 4, span=7, shape="concentric", turns=(20, 30, 40))
    group = layout.groups("U")[0]
    assert [((c.finish - c.start) % 36, c.turns) for c in group] == [(9, 20), (7, 30), (5, 40)]
    by_hand = (20 + 30 * math.sin(math.radians(70)) + 40 * math.sin(math.radians(50))) / 90
    assert layout.factor("U") == pytest.approx(by_hand)
    assert circuits_of(layout) == (1, 2, 4)
