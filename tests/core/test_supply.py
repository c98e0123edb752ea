"""The supply: named from six voltages, its balance, the overload it asks for."""

import cmath
import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.connect.beyond import overload_words
from careful_coil.core.errors import BadDocument, ValueOutOfRange
from careful_coil.core.run.overload import overload_of
from careful_coil.core.run.supply import (
    PICTURES,
    lost_line,
    name_supply,
    system_words,
    unbalance,
)
from careful_coil.core.schools import SCHOOLS
from careful_coil.core.settings import Settings
from careful_coil.core.shop_lists import (
    COLOURS,
    ShopLists,
    connector_for,
    line_colours,
    same_colour,
    size_for,
)
from careful_coil.core.sums import work_out

SYSTEMS = [  # line, neutral, system, the odd line, V between lines
    ((400, 400, 400), (231, 231, 231), "star", "", 400),
    ((208, 207, 209), (120, 120, 121), "star", "", 208),
    ((240, 240, 240), (120, 120, 208), "high-leg", "L3", 240),
    ((240, 240, 240), (120, 208, 120), "high-leg", "L2", 240),
    ((480, 481, 479), (480, 0, 480), "corner-earthed", "L2", 480),
    ((240, 120, 120), (120, 120, 0), "split", "", 240),
    ((240, 0, 0), (120, 120, 0), "split", "", 240),
    ((0, 240, 240), (120, 120, 120), "split", "", 240),
    ((230, 0, 230), (230, 0, 0), "single", "", 230),
    ((231, 0, 0), (230, 1, 0), "single", "", 231),
    ((208, 120, 120), (120, 120, 0), "single", "", 208),
]


@pytest.mark.parametrize(("line", "neutral", "system", "special", "volt"), SYSTEMS)
def test_six_voltages_name_the_system(
    line: tuple[float, ...], neutral: tuple[float, ...], system: str, special: str, volt: float
) -> None:
    """Star: L-L = √3·L-N; split 2×; high leg 0.866·V to earth; an earthed corner nothing."""
    found = name_supply(line, neutral)
    assert (found.system, found.special) == (system, special)
    assert found.volt == pytest.approx(volt, rel=0.005)
    assert found.phases == (3 if system in ("star", "high-leg", "corner-earthed") else 1)


def test_two_leads_alone_are_enough_for_one_phase() -> None:
    assert name_supply((240,), (120, 120)).system == "split"
    assert name_supply((230,), (230, 0)).system == "single"


@given(
    st.sampled_from(sorted(PICTURES)),
    st.floats(110, 700),
    st.lists(st.floats(-0.02, 0.02), min_size=6, max_size=6),
    st.permutations(range(3)),
)
def test_every_system_is_named_in_every_order_with_two_percent_off(
    system: str, volt: float, off: list[float], order: list[int]
) -> None:
    for _, points in PICTURES[system]:
        p = [points[k] for k in order]
        pairs = [(p[0], p[1]), (p[1], p[2]), (p[2], p[0]), *((q, points[3]) for q in p)]
        read = [
            0.0 if a is None or b is None else volt * abs(a - b) * (1 + e)
            for (a, b), e in zip(pairs, off, strict=True)
        ]
        assert name_supply(read[:3], read[3:]).system == system


@pytest.mark.parametrize(
    ("line", "neutral", "words"),
    [
        ((0, 0, 0), (0, 0, 0), "Nothing is live"),
        ((-1, 2, 2), (1, 1, 1), "Nothing is live"),
        ((400, 200, 200), (231, 231, 60), "L3 is lost"),
        ((400, 400, 400), (100, 300, 360), "floating delta"),
        ((400, 300, 350), (231, 200, 190), "a line lost while a motor turns"),
        ((400, 400), (231, 231, 231), "three and three"),
    ],
)
def test_what_is_no_system_is_refused_with_the_reason(
    line: tuple[float, ...], neutral: tuple[float, ...], words: str
) -> None:
    with pytest.raises(ValueOutOfRange, match=words):
        name_supply(line, neutral)


def test_a_dead_leg_of_a_star_is_a_lost_line_not_another_system() -> None:
    assert name_supply((400, 231, 231), (231, 231, 0)).lost == "L3"
    assert lost_line((400, 231, 231), (231, 231, 0)) == "L3"
    assert lost_line((0, 400, 0), ()) == "L1"
    assert lost_line((480, 480, 480), (0, 480, 480)) == ""  # an earthed corner
    assert lost_line((401, 399, 400), (231, 230, 232)) == ""


def test_even_volts_on_dead_wires_are_no_star() -> None:
    with pytest.raises(ValueOutOfRange, match="low-impedance meter"):
        name_supply((62, 61, 62), (36, 35, 36))


@pytest.mark.parametrize(
    ("volts", "percent", "derate"),
    [
        ((230, 230, 230), 0.0, 1.0),
        ((460, 467, 450), 100 * 9 / 459, 1.0 - 0.05 * (100 * 9 / 459 - 1)),
        ((103, 100, 97), 3.0, 0.88),
        ((105, 100, 95), 5.0, 0.75),
        ((108, 100, 92), 8.0, None),
    ],
)
def test_unbalance_and_derating(
    volts: tuple[float, ...], percent: float, derate: float | None
) -> None:
    """NEMA MG 1, 12.45 (460, 467, 450: mean 459, 1.96 %) and the derating curve of 14.36."""
    found = unbalance(volts)
    assert found.percent == pytest.approx(percent)
    assert found.derate == (None if derate is None else pytest.approx(derate, abs=1e-6))


@given(st.floats(1, 1.05), st.floats(1, 1.05), st.floats(1, 10))
def test_unbalance_does_not_depend_on_the_volts_or_their_order(
    a: float, b: float, k: float
) -> None:
    wanted = unbalance((1, a, b)).percent
    for order in itertools.permutations((k, k * a, k * b)):
        assert unbalance(order).percent == pytest.approx(wanted)


def test_a_lost_phase_is_never_called_unbalance() -> None:
    with pytest.raises(ValueOutOfRange, match="lost phase"):
        unbalance((400, 205, 210))


@pytest.mark.parametrize(
    ("factor", "rise", "wanted"),
    [(1.15, None, 12.5), (1.0, None, 11.5), (1.0, 40, 12.5), (1.0, 80, 11.5), (1.25, 80, 12.5)],
)
def test_overload(factor: float, rise: float | None, wanted: float) -> None:
    """NFPA 70, 430.32: 125 % for service factor 1.15 and more or a rise of 40 K, else 115 %."""
    found = overload_of(10, factor, rise)
    assert found.dial == 10
    assert found.trip == pytest.approx(wanted)


@pytest.mark.parametrize(
    ("start", "dial", "where"),
    [
        ("direct", "10 A", ""),
        ("wye-delta", "5.77 A", "leads of K1"),
        ("part-winding", "5 A", "two relays"),
    ],
)
def test_the_dial_stands_at_the_amps_that_pass_the_relay(start: str, dial: str, where: str) -> None:
    """IEC 60947-4-1: set to rated current; 1/√3 of it in the phase of a wye-delta starter, half in a half."""
    words, why = overload_words(10, 1.0, start)
    assert f"dial at {dial}" in words
    assert where in words
    trip = float(dial.split(maxsplit=1)[0]) * 1.15
    assert f"at most {trip:.3g} A" in why


def test_system_and_plate_names_are_told_apart() -> None:
    assert "480 V system" in system_words(460)
    assert "460 V on the plate" in system_words(480)
    assert system_words(400) == ""
    assert system_words(230, 50) == ""


def test_the_sums_give_the_same() -> None:
    assert work_out("supply-name", {"line": "240/240/240", "neutral": "120/120/208"}).results == {
        "system": "high-leg"
    }
    found = work_out("supply-unbalance", {"volt": "460/467/450"}).results
    assert found["percent"] == pytest.approx(1.9608, abs=1e-4)
    assert work_out("overload", {"amp": "9.2", "service_factor": "1.15"}).results["amp"] == (
        pytest.approx(11.5)
    )
    assert work_out("overload", {"amp": "9.2", "service_factor": "1", "rise_k": "40"}).results[
        "amp"
    ] == pytest.approx(11.5)


def test_the_pictures_are_what_geometry_says() -> None:
    a, b, c, _ = PICTURES["high-leg"][0][1]
    assert a is not None
    assert b is not None
    assert c is not None
    assert abs(c - (a + b) / 2) == pytest.approx(math.sqrt(3) / 2)
    assert cmath.isclose(a + b + c, 0, abs_tol=1e-9)


def test_shop_lists_are_data_that_a_settings_file_changes() -> None:
    own = Settings().changed(
        {"supplies": "690/3/50", "connectors": "tiny, 0.5-2, 6", "lead_sizes": "4/30; 1.5/15"}
    )
    assert [s.words for s in own.lists.all_supplies()] == ["690 V three-phase, 50 Hz"]
    found = size_for(own.lists, 16)
    assert found is not None
    assert found.mm2 == 4
    assert size_for(own.lists, 31) is None
    assert connector_for(own.lists, 5) is None
    assert Settings().changed(own.told()) == own


@pytest.mark.parametrize(
    ("name", "text", "words"),
    [
        ("supplies", "400", "400/3/50"),
        ("supplies", "400/2/50", "400/3/50"),
        ("supplies", ";", "400/3/50"),
        ("connectors", "small", "small crimp"),
        ("lead_sizes", "0/3", "1.5/16"),
        ("bench", "crane", "battery"),
        ("supplies", 3, "400/3/50"),
        ("lead_sizes", "1/1;" * 41, "40 at most"),
    ],
)
def test_a_list_that_cannot_be_read_is_refused_with_an_example(
    name: str, text: object, words: str
) -> None:
    with pytest.raises(BadDocument, match=words):
        Settings().changed({name: text})


def test_every_connector_of_the_usual_list_takes_up_where_the_smaller_one_ends() -> None:
    sizes = ShopLists().all_connectors()
    for small, large in itertools.pairwise(sizes):
        assert large.low_mm2 <= small.high_mm2 < large.high_mm2


def test_line_colours_differ_by_scheme_and_voltage() -> None:
    assert line_colours("brown black grey", 690)["L2"] == "black"
    assert line_colours("by voltage", 208)["L2"] == "red"
    assert line_colours("by voltage", 480)["L2"] == "orange"
    assert same_colour("Brown", "brown")
    assert not same_colour("", "brown")
    assert line_colours("by the supply", 480, 60)["L2"] == "orange"
    assert line_colours("by the supply", 400, 50)["L2"] == "black"


def test_of_one_phase_the_second_line_is_the_neutral_where_the_volts_say_so() -> None:
    assert line_colours("by the supply", 115, 60, 1)["L2"] == "white"
    assert line_colours("by the supply", 230, 60, 1)["L2"] == "red"  # between two lines
    assert line_colours("by the supply", 230, 50, 1)["L2"] == "blue"
    assert {*COLOURS, "by the supply"} == set(SCHOOLS["supply-colours"].choices)
