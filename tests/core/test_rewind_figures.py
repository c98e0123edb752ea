"""Wire, winding factors, ohms and mass, turns for another supply, the core's loop: known values, properties."""

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import BadValue, CoilError, ValueOutOfRange
from careful_coil.core.rewind.factors import Supplied, copper, core_loop, factors, new_turns
from careful_coil.core.rewind.wire import (
    METRIC,
    SWG,
    area,
    awg_mm,
    awg_of,
    diameter,
    meant_by,
    overall,
    read_awg,
    read_swg,
    show_awg,
)
from careful_coil.core.sums.registry import work_out


@pytest.mark.parametrize(
    ("size", "mm"),
    [
        ("4/0", 11.684),
        ("00", 9.266),
        ("0", 8.251),
        ("10", 2.588),
        ("18", 1.024),
        ("20.5", 0.766),
        ("30", 0.2546),
        ("36", 0.127),
        ("40", 0.0799),
    ],
)
def test_american_gauges(size: str, mm: float) -> None:
    """ASTM B258, table 1, to a thousandth of a millimetre."""
    assert awg_mm(read_awg(size)) == pytest.approx(mm, abs=6e-4)
    assert awg_of(awg_mm(read_awg(size))) == pytest.approx(read_awg(size))


@pytest.mark.parametrize(
    ("size", "mm"), [("7/0", 12.7), ("14", 2.032), ("20", 0.914), ("50", 0.0254)]
)
def test_imperial_gauges(size: str, mm: float) -> None:
    assert read_swg(f"swg {size}") == mm
    falling = list(SWG.values())
    assert falling == sorted(falling, reverse=True)


def test_preferred_sizes_grow_by_their_series() -> None:
    """R40: each size about 5.9 % over the last one, R20 alone below 0.1 mm: 12 %."""
    above = [d for d in METRIC if d >= 0.1]
    steps = [b / a for a, b in itertools.pairwise(above)]
    assert all(1.03 < s < 1.14 for s in steps)
    assert {0.75, 0.71, 1.06, 0.053} & set(METRIC) == {0.75, 0.71, 1.06}


@pytest.mark.parametrize(("mm", "one", "two"), [(0.5, 0.544, 0.566), (1.0, 1.062, 1.094)])
def test_enamel_adds_what_the_standard_allows(mm: float, one: float, two: float) -> None:
    assert overall(mm, "grade 1") == pytest.approx(one)
    assert overall(mm, "grade 2") == pytest.approx(two)
    assert overall(mm, "bare") == mm


@given(st.floats(0.02, 8))
def test_enamel_always_adds_and_grade_two_adds_more(mm: float) -> None:
    assert mm < overall(mm, "grade 1") < overall(mm, "grade 2") < 1.6 * mm + 0.02
    assert diameter(area(mm)) == pytest.approx(mm)


@given(st.sampled_from(METRIC), st.sampled_from(["bare", "grade 1", "grade 2"]))
def test_a_micrometer_reading_can_mean_the_size_it_is(mm: float, build: str) -> None:
    read = overall(mm, build)  # type: ignore[arg-type]
    found = meant_by(read, None)
    assert any(m.mm == mm and m.build == build and abs(m.off) < 1e-9 for m in found)
    assert all(m.build == "bare" for m in meant_by(read, False))
    assert [abs(m.off) for m in found] == sorted(abs(m.off) for m in found)


@pytest.mark.parametrize("text", ["", "5/0", "57", "18.3", "²", "wide", "-1"])
def test_gauges_that_are_none_are_refused(text: str) -> None:
    with pytest.raises(BadValue, match="AWG"):
        read_awg(text)


def test_gauges_are_written_as_they_are_read() -> None:
    assert [show_awg(n) for n in (-3, -1, 0, 18, 18.5)] == ["4/0", "2/0", "0", "18", "18.5"]
    assert all(read_awg(show_awg(n / 2)) == n / 2 for n in range(0, 100))


# --- factors --------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("slots", "poles", "span", "phases", "kp", "kd"),
    [
        (36, 4, 7, 3, 0.9397, 0.9598),
        (36, 4, 9, 3, 1.0, 0.9598),
        (24, 4, 5, 3, 0.9659, 0.9659),
        (48, 4, 10, 3, 0.9659, 0.9577),
        (27, 6, 4, 3, 0.9848, 0.9598),
        (12, 4, 3, 3, 1.0, 1.0),
        (18, 4, 4, 3, 0.9848, 0.9598),
        (24, 4, 6, 2, 1.0, 0.9107),
    ],
)
def test_factors_of_standard_layouts(
    slots: int, poles: int, span: int, phases: int, kp: float, kd: float
) -> None:
    """sin(90°·y/τ) and the belts' factors as machine texts tabulate them: 0.966, 0.960, 0.958, 0.911."""
    found = factors(slots, poles, span, phases)
    assert found.pitch == pytest.approx(kp, abs=1e-4)
    assert found.distribution == pytest.approx(kd, abs=1e-4)
    assert found.winding == found.pitch * found.distribution


@given(st.integers(2, 8), st.sampled_from([2, 4, 6, 8]))
def test_whole_belts_are_the_sum_of_their_vectors(q: int, poles: int) -> None:
    slots = 3 * q * poles
    step = math.pi * poles / slots
    vectors = abs(sum(complex(math.cos(k * step), math.sin(k * step)) for k in range(q))) / q
    assert factors(slots, poles, slots // poles).winding == pytest.approx(vectors)


@pytest.mark.parametrize(
    ("slots", "poles", "span"),
    [(2, 2, 1), (36, 3, 7), (36, 0, 7), (36, 4, 36), (36, 4, 0), (999, 4, 7)],
)
def test_cores_that_cannot_be_are_refused(slots: int, poles: int, span: int) -> None:
    with pytest.raises(ValueOutOfRange):
        factors(slots, poles, span)


# --- copper ---------------------------------------------------------------------------------------------


def test_ohms_and_mass_by_hand() -> None:
    """12 coils of 28 turns of 0.52 m, two wires of 0.75 mm: 174.72 m on 0.8836 mm²."""
    found = copper(mean_turn_mm=520, turns=28, coils=12, circuits=1, strands=2, mm=0.75)
    assert found.ohm == pytest.approx(0.017241 * 174.72 / (2 * math.pi / 4 * 0.75**2))
    assert found.kg == pytest.approx(8.89e-3 * 174.72 * 2 * math.pi / 4 * 0.75**2)
    hot = copper(mean_turn_mm=520, turns=28, coils=12, circuits=1, strands=2, mm=0.75, at_c=75)
    assert hot.ohm / found.ohm == pytest.approx((234.5 + 75) / 254.5)


@given(
    st.floats(50, 3000),
    st.integers(1, 300),
    st.integers(1, 8),
    st.integers(1, 6),
    st.floats(0.1, 4),
)
def test_mass_is_length_times_area_times_density(
    turn: float, turns: int, circuits: int, strands: int, mm: float
) -> None:
    """Circuits part the ohms by their square and change no mass."""
    one = copper(mean_turn_mm=turn, turns=turns, coils=840, circuits=1, strands=strands, mm=mm)
    more = copper(
        mean_turn_mm=turn, turns=turns, coils=840, circuits=circuits, strands=strands, mm=mm
    )
    assert one.kg == pytest.approx(more.kg)
    assert one.kg == pytest.approx(8.89e-6 * turn * turns * 840 * area(mm) * strands)
    assert one.ohm == pytest.approx(more.ohm * circuits**2)


def test_circuits_that_do_not_divide_the_coils_are_refused() -> None:
    with pytest.raises(ValueOutOfRange, match="divide the coils"):
        copper(mean_turn_mm=500, turns=10, coils=12, circuits=5, strands=1, mm=0.5)


# --- another supply -------------------------------------------------------------------------------------


def test_wye_to_delta_on_the_same_lines_is_the_root_of_three() -> None:
    wye = Supplied(volt=400, hertz=50, connection="wye", circuits=1, kw=0.9)
    delta = Supplied(volt=400, hertz=50, connection="delta", circuits=1, kw=0.9)
    found = new_turns(28, wye, delta)
    assert found.ratio == pytest.approx(math.sqrt(3))
    assert found.area_ratio == pytest.approx(1 / math.sqrt(3))
    assert new_turns(found.turns, delta, wye).turns == pytest.approx(28)


SUPPLY = st.builds(
    Supplied,
    volt=st.floats(12, 1000),
    hertz=st.floats(10, 400),
    connection=st.sampled_from(["wye", "delta", "single"]),
    circuits=st.integers(1, 8),
    kw=st.floats(0.3, 1),
)


@given(st.floats(1, 500), SUPPLY, SUPPLY, SUPPLY)
def test_there_and_back_is_the_identity_and_steps_multiply(
    turns: float, one: Supplied, two: Supplied, three: Supplied
) -> None:
    there = new_turns(turns, one, two)
    assert new_turns(there.turns, two, one).turns == pytest.approx(turns)
    assert there.ratio * new_turns(turns, two, three).ratio == pytest.approx(
        new_turns(turns, one, three).ratio
    )
    assert there.ratio * there.area_ratio == pytest.approx(1)


def test_the_loop_of_a_core() -> None:
    """0.95 × 22 × 110 mm² at 1.3 T and 50 Hz: 0.6634 V a turn."""
    found = core_loop(230, 50, 1.3, 22, 110)
    assert found.area_mm2 == pytest.approx(2299)
    assert found.turns == pytest.approx(230 / (4.44 * 50 * 1.3 * 2299e-6))
    with pytest.raises(ValueOutOfRange):
        core_loop(230, 50, 0, 22, 110)


# --- sums -----------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("name", "texts", "results"),
    [
        ("wire", {"awg": "18"}, {"mm": 1.02369, "mm2": 0.823047, "awg": 18}),
        ("wire", {"swg": "20"}, {"mm": 0.914}),
        ("wire", {"mm": "0.75"}, {"awg": 20.6831}),
        ("winding-factor", {"slots": "36", "poles": "4", "span": "1-8"}, {"kw": 0.901912}),
        (
            "winding-ohms",
            {
                "mean_turn_mm": "520",
                "turns": "28",
                "coils": "12",
                "circuits": "1",
                "strands": "2",
                "mm": "0.75",
            },
            {"ohm": 3.40928, "kg": 4.11726},
        ),
        (
            "core-loop",
            {"volt": "230", "hertz": "50", "tesla": "1.3", "depth_mm": "22", "core_mm": "110"},
            {"area_mm2": 2299, "turns": 346.651},
        ),
    ],
)
def test_the_sums_give_what_the_functions_give(
    name: str, texts: dict[str, str], results: dict[str, float]
) -> None:
    found = work_out(name, texts).results
    for key, value in results.items():
        assert found[key] == pytest.approx(value, rel=1e-5)


@pytest.mark.parametrize(
    ("name", "texts", "words"),
    [
        ("wire", {}, "one of awg, swg, mm"),
        ("wire", {"awg": "18", "mm": "1"}, "one of awg, swg, mm"),
        ("wire", {"mm": "thin"}, "bare diameter"),
        ("wire", {"mm": "99"}, "0.02 to 12"),
        ("winding-factor", {"slots": "36", "poles": "4", "span": "8"}, "such as 1-9"),
        ("winding-factor", {"slots": "36.5", "poles": "4", "span": "1-8"}, "whole number"),
        ("winding-factor", {"slots": "36", "poles": "5", "span": "1-8"}, "even number"),
        (
            "core-loop",
            {"volt": "230", "hertz": "50", "tesla": "0", "depth_mm": "2", "core_mm": "1"},
            "above",
        ),
    ],
)
def test_bad_inputs_of_the_sums_are_named(name: str, texts: dict[str, str], words: str) -> None:
    with pytest.raises(CoilError, match=words):
        work_out(name, texts)
