"""The winding network: effective resistance, shares of current, kicks, symmetries."""

import itertools
import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import NotKnownYet
from careful_coil.core.winding import ARRANGEMENTS, Coil, Network, arrangement
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.kick import kick
from careful_coil.core.winding.symmetry import dc_symmetries, kick_symmetries


def chain(*ohms: float) -> Network:
    """Coils one after the other between leads 0, 1, 2 …"""
    coils = tuple(
        Coil(name=f"c{k}", start=str(k), finish=str(k + 1), ohm=r, like=f"c{k}")
        for k, r in enumerate(ohms)
    )
    return Network(coils=coils, leads=tuple(str(k) for k in range(len(ohms) + 1)))


@st.composite
def networks(draw: st.DrawFn) -> Network:
    """Up to six nodes and eight coils, in any number of parts."""
    nodes = draw(st.integers(2, 6))
    pairs = list(itertools.combinations(range(nodes), 2))
    ends = draw(st.lists(st.sampled_from(pairs), min_size=1, max_size=8))
    coils = tuple(
        Coil(
            name=f"c{k}", start=str(a), finish=str(b), ohm=draw(st.floats(0.05, 50.0)), like=f"c{k}"
        )
        for k, (a, b) in enumerate(ends)
    )
    return Network(coils=coils, leads=tuple(str(k) for k in range(nodes)))


@given(networks())
def test_resistance_is_a_distance(network: Network) -> None:
    """Symmetric, nothing to itself, never shortened by a detour (Klein and Randić, 1993)."""
    ohm = network.resistance()
    assert np.allclose(ohm, ohm.T, rtol=1e-9)
    assert np.all(np.diag(ohm) == 0)
    count = len(ohm)
    for a, b, c in itertools.permutations(range(count), 3):
        if math.isfinite(ohm[a, b]) and math.isfinite(ohm[b, c]):
            assert ohm[a, c] <= ohm[a, b] + ohm[b, c] + 1e-8


@given(networks())
def test_groups_are_what_conducts(network: Network) -> None:
    ohm = network.resistance()
    where = {lead: k for k, g in enumerate(network.groups()) for lead in g}
    for a, b in itertools.combinations(range(len(network.leads)), 2):
        same = where[network.leads[a]] == where[network.leads[b]]
        assert math.isfinite(ohm[a, b]) == same


@given(st.lists(st.floats(0.1, 100.0), min_size=1, max_size=5))
def test_a_chain_adds_up(ohms: list[float]) -> None:
    assert chain(*ohms).ohm_between("0", str(len(ohms))) == pytest.approx(sum(ohms), rel=1e-9)


@given(st.floats(0.1, 100.0), st.floats(0.1, 100.0))
def test_two_coils_in_parallel_agree_with_the_formula(a: float, b: float) -> None:
    network = chain(a, b).joined([["0", "2"]])
    assert network.ohm_between("0", "1") == pytest.approx(a * b / (a + b), rel=1e-9)


@given(st.lists(st.floats(0.1, 100.0), min_size=3, max_size=3))
def test_delta_agrees_with_series_and_parallel_by_hand(ohms: list[float]) -> None:
    a, b, c = ohms
    ring = Network(
        coils=(
            Coil(name="a", start="1", finish="2", ohm=a),
            Coil(name="b", start="2", finish="3", ohm=b),
            Coil(name="c", start="3", finish="1", ohm=c),
        ),
        leads=("1", "2", "3"),
    )
    assert ring.ohm_between("1", "2") == pytest.approx(a * (b + c) / (a + b + c), rel=1e-9)


@given(st.lists(st.floats(0.1, 50.0), min_size=3, max_size=3))
def test_a_tree_obeys_the_four_point_condition(ohms: list[float]) -> None:
    """Of the three sums of opposite pairs the two largest are equal."""
    r = chain(*ohms).resistance()
    sums = sorted((r[0, 1] + r[2, 3], r[0, 2] + r[1, 3], r[0, 3] + r[1, 2]))
    assert sums[1] == pytest.approx(sums[2], rel=1e-9)


@given(networks())
def test_what_goes_in_comes_out(network: Network) -> None:
    """Kirchhoff: at every node but the two ends the currents cancel."""
    a, b = network.leads[0], network.leads[1]
    share = network.shares(a, b)
    for node in network.leads:
        out = sum(
            s * ((c.start == node) - (c.finish == node))
            for s, c in zip(share, network.coils, strict=True)
        )
        expected = (
            0.0 if not math.isfinite(network.ohm_between(a, b)) else (node == a) - (node == b)
        )
        assert out == pytest.approx(expected, abs=1e-7)


@pytest.mark.parametrize(
    ("slug", "pair", "ohm"),
    [
        ("three-phase-6-lead", ("T1", "T4"), 2.0),
        ("three-phase-6-lead", ("T1", "T2"), math.inf),
        ("three-phase-9-lead-wye", ("T7", "T8"), 4.0),
        ("three-phase-9-lead-wye", ("T3", "T6"), 2.0),
        ("three-phase-9-lead-wye", ("T1", "T7"), math.inf),
        ("three-phase-9-lead-delta", ("T4", "T9"), 4.0),
        ("three-phase-9-lead-delta", ("T1", "T9"), 2.0),
        ("single-phase-3-lead", ("run", "start"), 4.0),
        ("single-phase-two-speed-coil", ("common", "low"), 4.0),
        ("three-phase-3-lead", ("T1", "T3"), 4.0),
    ],
)
def test_arrangements_read_as_the_trade_knows_them(
    slug: str, pair: tuple[str, str], ohm: float
) -> None:
    network = ARRANGEMENTS[slug].network
    doubled = network.with_ohm(dict.fromkeys((c.name for c in network.coils), 2.0))
    assert doubled.ohm_between(*pair) == pytest.approx(ohm)


def test_an_unknown_arrangement_names_those_there_are() -> None:
    with pytest.raises(NotKnownYet, match="three-phase-6-lead"):
        arrangement("three-phase-40-lead")


@pytest.mark.parametrize(
    ("slug", "by_ohms", "by_kicks"),
    [
        ("three-phase-6-lead", 48, 12),  # 3! pairs × 2³ turned; phases named freely, all turned
        ("three-phase-9-lead-wye", 288, 6),  # the star fixes what is a start
        ("three-phase-9-lead-delta", 48, 6),  # triples 3!, each turned end for end 2³
        ("single-phase-3-lead", 1, 1),
        ("three-phase-3-lead", 6, 6),
    ],
)
def test_symmetries_are_counted_by_hand(slug: str, by_ohms: int, by_kicks: int) -> None:
    network = ARRANGEMENTS[slug].network
    assert len(dc_symmetries(network)) == by_ohms
    assert len(kick_symmetries(network)) == by_kicks


@pytest.mark.parametrize("slug", sorted(ARRANGEMENTS))
def test_symmetries_form_a_group(slug: str) -> None:
    group = set(kick_symmetries(ARRANGEMENTS[slug].network))
    for p, q in itertools.product(group, repeat=2):
        assert tuple(p[x] for x in q) in group


@pytest.mark.parametrize(
    ("source", "sense", "ratio"),
    [
        (("T1", "T4"), ("T1", "T4"), 1.0),
        (("T1", "T4"), ("T4", "T1"), -1.0),
        (("T1", "T4"), ("T2", "T5"), -0.5),
        (("T1", "T4"), ("T5", "T2"), 0.5),
        (("T1", "T2"), ("T3", "T6"), 0.0),
    ],
)
def test_whole_phases_kick_each_other_at_minus_half(
    source: tuple[str, str], sense: tuple[str, str], ratio: float
) -> None:
    network = ARRANGEMENTS["three-phase-6-lead"].network
    assert network.kick_ratio(source, sense) == pytest.approx(ratio, abs=1e-12)


def test_a_kick_through_two_coils_of_the_star_adds_up() -> None:
    """Source phase 1 against T7 to T8: cos 0° − cos 120° = 1.5 of one coil."""
    network = ARRANGEMENTS["three-phase-9-lead-wye"].network
    assert network.kick_ratio(("T1", "T4"), ("T7", "T8")) == pytest.approx(1.5)


@given(st.permutations(range(6)))
def test_relabelling_a_network_relabels_its_answers(order: list[int]) -> None:
    network = ARRANGEMENTS["three-phase-6-lead"].network.with_ohm({"T1-T4": 3.0, "T2-T5": 5.0})
    names = [network.leads[k] for k in order]
    ohm, mixed = network.resistance(), network.resistance(names)
    assert np.array_equal(mixed, ohm[np.ix_(order, order)])


@pytest.mark.parametrize(
    ("slug", "source", "sense", "halves", "shown"),
    [
        ("three-phase-6-lead", "T1 T4", "T2 T5", "alternate", "down-small"),
        ("three-phase-6-lead", "T1 T4", "T5 T2", "alternate", "up-small"),
        ("three-phase-9-lead-wye", "T1 T4", "T7 T8", "alternate", "up-large"),
        ("three-phase-12-lead", "T1 T4", "T7 T10", "alternate", "up-large"),
        ("three-phase-12-lead", "T1 T4", "T8 T11", "alternate", "down-small"),
        ("three-phase-12-lead", "T1 T4", "T7 T10", "adjacent", "none"),
        ("three-phase-12-lead", "T1 T4", "T7 T10", "pole-changing", "down-small"),
        ("three-phase-12-lead", "T1 T4", "T2 T5", "pole-changing", "down-small"),
        ("single-phase-4-lead", "main-1 main-2", "aux-1 aux-2", "alternate", "none"),
        # (−1 −3)·(−2 −1) = −0.42 + 0.93 − 0.42 − 0.42 over 1 + 1 − 0.84
        ("three-phase-9-lead-delta", "T4 T9", "T5 T7", "alternate", "down-small"),
    ],
)
def test_kicks_between_paths(
    slug: str, source: str, sense: str, halves: Halves, shown: str
) -> None:
    """Phases −½, halves 0.93 and −0.42, none across a quarter turn, opposed where poles change."""
    a, b = source.split()
    c, d = sense.split()
    assert kick(ARRANGEMENTS[slug].network, (a, b), (c, d), halves) == shown
