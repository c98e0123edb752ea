"""Every winding known, with what comes out beside it: parted, named as far as can be, no further."""

import pytest

from careful_coil.core.identify import Evidence, identify
from careful_coil.core.identify.models import PRIOR
from careful_coil.core.readings import AnyReading, Resistance, Shaft
from tests.core.motors import Player, groups_of
from tests.core.test_identify import FINE, ohms, told


@pytest.mark.parametrize("sensors", [(), ("thermistor",)], ids=["alone", "with a thermistor"])
@pytest.mark.parametrize(("slug", "variant"), list(PRIOR), ids=lambda v: v or "usual")
def test_a_full_sheet_of_any_winding_is_parted_and_nothing_false_is_claimed(
    slug: str, variant: str, sensors: tuple[str, ...]
) -> None:
    player = Player(slug, 5, variant=variant, sensors=sensors)
    player.read_all()
    found = player.answer()
    assert groups_of(found.best.groups) == player.true_groups()
    assert player.claims_hold(found)
    assert found.suspects == ()
    if slug in TOLD_BY_OHMS:
        assert (found.best.arrangement, found.best.variant) == (slug, variant)
    pairs = {frozenset(g) for g in found.best.groups if g[0] in found.best.extras}
    assert pairs <= {frozenset(p) for p in found.never_energise}


# what no other winding reads like
TOLD_BY_OHMS = {
    "three-phase-3-lead",
    "three-phase-4-lead",
    "three-phase-6-lead",
    "three-phase-9-lead-wye",
    "three-phase-9-lead-delta",
    "three-phase-12-lead",
    "three-phase-part-winding-6-lead",
    "three-phase-two-speed-6-lead",
    "single-phase-speed-taps",
}


@pytest.mark.parametrize("slug", ["universal-4-lead", "universal-5-lead"])
def test_turning_the_shaft_finds_the_armature(slug: str) -> None:
    player = Player(slug, 2)
    found = player.play()
    assert found.best.arrangement == slug
    assert any(isinstance(r, Shaft) for r in player.readings)
    assert player.claims_hold(found)
    tags = {t for t, r in found.best.roles.items() if r == "armature"}
    assert {found.best.certainty[t] for t in tags} == {"proven"}


def test_twelve_leads_are_played_to_proven_markings() -> None:
    player = Player("three-phase-12-lead", 1)
    found = player.play(most=80)
    assert found.status == "settled"
    assert player.claims_hold(found)
    assert sum(isinstance(r, Resistance) for r in player.readings) < 36


def test_an_open_protector_is_told_from_a_burnt_winding() -> None:
    found = told("ABC", ohms(("AB", "open"), ("AC", "open"), ("BC", "14.20")))
    first = found.best
    assert first.arrangement == "single-phase-3-lead"
    assert any("protector" in n for n in first.notes)
    assert first.names["A"] == "common"


def test_one_lead_against_several_rules_all_of_them_out() -> None:
    several = Resistance(between=("A", ("B", "C", "D")), value="open")
    found = told("ABCDEF", [several, *ohms(("AE", "open"))])
    assert found.next is not None
    shut_out = sum(c.probability for c in found.candidates if {"A", "F"} not in map(set, c.groups))
    assert shut_out < 0.2


def test_two_unequal_triples_are_two_windings() -> None:
    """Two unequal triples of six leads: two windings for two speeds."""
    pairs = [("ABC"[a], "ABC"[b]) for a in range(3) for b in range(a + 1, 3)]
    readings: list[AnyReading] = [Resistance(between=p, value="2.00") for p in pairs]
    for a, b in pairs:
        readings.append(Resistance(between=(a.translate(DEF), b.translate(DEF)), value="7.10"))
    readings += [Resistance(between=(a, b), value="open") for a in "ABC" for b in "DEF"]
    found = told("ABCDEF", readings)
    assert found.best.arrangement == "three-phase-part-winding-6-lead"
    assert found.best.variant == "two-windings"
    assert groups_of(found.best.groups) == {frozenset("ABC"), frozenset("DEF")}
    assert found.status == "narrowed"


DEF = str.maketrans("ABC", "DEF")


def test_a_winding_nobody_drew_keeps_its_groups_and_gets_no_names() -> None:
    """A star of three and a star of four: no winding known here."""
    stars = ("ABC", "DEFG")
    readings: list[AnyReading] = []
    for star in stars:
        for k, a in enumerate(star):
            readings += [Resistance(between=(a, b), value="4.00") for b in star[k + 1 :]]
    readings += [Resistance(between=(a, b), value="open") for a in stars[0] for b in stars[1]]
    found = told("ABCDEFG", readings)
    assert found.best.arrangement is None
    assert groups_of(found.best.groups) == {frozenset("ABC"), frozenset("DEFG")}
    assert found.best.roles == {}
    assert found.status == "narrowed"


@pytest.mark.parametrize("count", [1, 2, 7, 8, 12, 16])
def test_any_number_of_leads_is_answered(count: int) -> None:
    tags = tuple("ABCDEFGHJKLMNPRS"[:count])
    found = identify(Evidence.of(tags, [], FINE))
    assert (found.best.arrangement is None) == (count != 2)  # two leads are one path
    assert found.status != "settled"
    assert (found.next is None) == (count < 2)
