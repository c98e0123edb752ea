"""Groupings by exact cover: against a plain count, by properties, and at sixteen leads."""

import itertools
from collections.abc import Iterator

import numpy as np
import pytest

from careful_coil.core.identify import Evidence
from careful_coil.core.identify.cover import RAREST, cover
from careful_coil.core.identify.extras import kind_of_extra
from careful_coil.core.identify.lay import size_of
from careful_coil.core.identify.models import compositions, models_for, role_word
from careful_coil.core.readings import AnyReading, Meter, Resistance

FINE = Meter(accuracy_percent=0.5, resolution_ohm=0.01, lead_ohm=0.0)
TAGS = "ABCDEFGHJKLMNPRS"


def evidence(count: int, *rows: tuple[str, str]) -> Evidence:
    readings: list[AnyReading] = [
        Resistance(between=(pair[0], pair[1]), value=value) for pair, value in rows
    ]
    return Evidence.of(tuple(TAGS[:count]), readings, FINE)


def groupings(
    leads: tuple[int, ...], sizes: tuple[int, ...]
) -> Iterator[frozenset[frozenset[int]]]:
    """Every way to part leads into blocks of these sizes, each once."""
    if not leads:
        yield frozenset()
        return
    first, rest = leads[0], leads[1:]
    for size in sorted(set(sizes)):
        left = list(sizes)
        left.remove(size)
        for others in itertools.combinations(rest, size - 1):
            block = frozenset((first, *others))
            remaining = tuple(k for k in rest if k not in block)
            for more in groupings(remaining, tuple(left)):
                yield more | {block}


@pytest.mark.parametrize("count", [3, 4, 5, 6])
def test_unread_leads_conduct_as_a_plain_count_of_groupings_says(count: int) -> None:
    """Every grouping of a set of blocks is as likely; the sets are as likely as shops meet them."""
    expected = 0.0
    known = {b: p for b, p in compositions(count).items() if p >= RAREST}
    for blocks, prior in known.items():
        every = list(groupings(tuple(range(count)), tuple(size_of(b) for b in blocks)))
        joined = sum(any({0, 1} <= b for b in g) for g in every)
        expected += prior / sum(known.values()) * joined / len(every)
    found = cover(evidence(count))
    assert found.conduct[0, 1] == pytest.approx(expected, rel=1e-6)
    upper = found.conduct[np.triu_indices(count, 1)]
    assert np.allclose(upper, upper[0])  # unread leads are exchangeable


def test_an_open_reading_parts_and_a_figure_joins() -> None:
    before = cover(evidence(6)).conduct[0, 1]
    assert cover(evidence(6, ("AB", "open"))).conduct[0, 1] < 0.02 < before
    assert cover(evidence(6, ("AB", "4.00"))).conduct[0, 1] > 0.98


def test_the_last_pair_is_known_from_the_others() -> None:
    found = cover(evidence(6, ("AB", "4.00"), ("CD", "4.01"), ("AC", "open"), ("AE", "open")))
    assert found.conduct[4, 5] > 0.9
    assert found.leaves[0].groups == ((0, 1), (2, 3), (4, 5))


def test_renaming_leads_renames_the_odds() -> None:
    rows = (("AB", "4.00"), ("CD", "open"), ("AE", "open"))
    turned = (("FE", "4.00"), ("DC", "open"), ("FB", "open"))  # A…F become F…A
    one, two = cover(evidence(6, *rows)), cover(evidence(6, *turned))
    assert np.allclose(one.conduct, two.conduct[::-1, ::-1])


def test_sixteen_leads_with_two_sensors_are_parted() -> None:
    pairs = ["AB", "CD", "EF", "GH", "JK", "LM", "NP", "RS"]
    ohms = ["1.73"] * 6 + ["0.20", "176.9"]
    rows = list(zip(pairs, ohms, strict=True))
    joined = {frozenset(p) for p in pairs}
    rows += [
        (a + b, "open")
        for a, b in itertools.combinations(TAGS, 2)
        if frozenset((a, b)) not in joined
    ]
    best = cover(evidence(16, *rows)).leaves[0]
    assert best.odds > 0.99
    assert sorted(k for k, _ in best.blocks) == ["p"] * 6 + ["q"] * 2
    assert {frozenset(TAGS[k] for k in g) for g in best.groups} == joined


def test_one_lead_against_several_counts_for_its_own_block() -> None:
    readings: list[AnyReading] = [Resistance(between=("A", ("B", "C", "D")), value="open")]
    found = cover(Evidence.of(tuple("ABCDEF"), readings, FINE))
    assert found.conduct[0, 1:4].max() < 0.02
    assert found.conduct[0, 4] > 0.4
    readings = [Resistance(between=("A", ("B", "C", "D")), value=4.0)]
    found = cover(Evidence.of(tuple("ABCDEF"), readings, FINE))
    assert found.conduct[0, 1] > 0.3 > found.conduct[0, 4]


@pytest.mark.parametrize("count", range(3, 17))
def test_the_odds_of_what_so_many_leads_can_be_add_up(count: int) -> None:
    assert sum(compositions(count).values()) == pytest.approx(1.0)
    for model in models_for(count):
        assert len(model.network.leads) == count


@pytest.mark.parametrize(
    ("ohm", "kind"),
    [(0.1, "thermostat"), (107.8, "rtd"), (650.0, "thermistor"), (1078.0, "rtd")],
)
def test_sensors_are_told_by_their_usual_ohms(ohm: float, kind: str) -> None:
    assert kind_of_extra(ohm).kind == kind


def test_a_pair_that_gives_volts_when_spun_is_a_tachometer() -> None:
    assert kind_of_extra(120.0, 0.6).kind == "tachometer"
    assert kind_of_extra(120.0, 0.0).kind != "tachometer"


@pytest.mark.parametrize(
    ("lead", "word"),
    [("main-2", "main"), ("tap-3", "tap"), ("T10", "T10"), ("field-tap", "field-tap")],
)
def test_roles_are_told_by_one_word(lead: str, word: str) -> None:
    assert role_word(lead) == word
