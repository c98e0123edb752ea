"""Symmetries of windings: counted as listed, each labelling once."""

import itertools

import pytest

from careful_coil.core.identify.models import models_for
from careful_coil.core.identify.placements import placements
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.core.winding.symmetry import (
    Relabelling,
    dc_count,
    dc_symmetries,
    kick_symmetries,
    part_relabellings,
    parts,
    signature,
)

FEW = [slug for slug, a in ARRANGEMENTS.items() if len(a.network.leads) <= 9]


@pytest.mark.parametrize("slug", FEW)
def test_symmetries_are_counted_as_they_are_listed(slug: str) -> None:
    network = ARRANGEMENTS[slug].network
    listed = dc_symmetries(network)
    assert dc_count(network) == len(set(listed)) == len(listed)
    assert set(kick_symmetries(network)) <= set(listed)


def test_twelve_leads_have_so_many_that_ohms_cannot_tell() -> None:
    """Six like pairs: laid in any order, each either way round."""
    network = ARRANGEMENTS["three-phase-12-lead"].network
    assert dc_count(network) == 720 * 2**6
    assert len(kick_symmetries(network)) == 96


@pytest.mark.parametrize("slug", FEW)
def test_a_part_is_laid_on_a_part_where_every_ohm_stays(slug: str) -> None:
    """By trying every order of every part, whatever its size."""
    network = ARRANGEMENTS[slug].network
    ohm, whole = signature(network), parts(network)
    for (a, one), (b, two) in itertools.product(enumerate(whole), repeat=2):
        wanted: list[Relabelling] = []
        for image in itertools.permutations(two) if len(one) == len(two) else ():
            pairs = itertools.combinations(zip(one, image, strict=True), 2)
            if all(ohm[x, y] == pytest.approx(ohm[p, q], rel=1e-9) for (x, p), (y, q) in pairs):
                wanted.append(image)
        assert part_relabellings(network, a, b) == tuple(wanted)


@pytest.mark.parametrize("count", [2, 3, 4, 6])
def test_every_labelling_is_laid_once_as_far_as_ohms_can_see(count: int) -> None:
    for model in models_for(count):
        network = model.layout
        groups = [tuple(part) for part in parts(network)]
        rows = {tuple(r) for r in placements(network, groups).tolist()}
        every = {
            tuple(order)
            for order in itertools.permutations(range(count))
            if all(
                {order[k] for k in g} in [set(p) for p in parts(network) if len(p) == len(g)]
                for g in groups
            )
        }
        reached = {tuple(s[x] for x in row) for row in rows for s in dc_symmetries(network)}
        assert reached == every, model.slug
        assert len(rows) * len(dc_symmetries(network)) == len(every), model.slug


@pytest.mark.parametrize("count", [3, 6, 9])
def test_states_that_only_kicks_tell_are_counted_as_they_are_listed(count: int) -> None:
    for model in models_for(count):
        assert model.unseen_count == len(model.unseen), model.slug
