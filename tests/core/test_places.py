"""The places of a motor that hands come to: which it has, how each stands, what was renewed."""

from careful_coil.core.ledger import Judgement
from careful_coil.core.mechanics.places import NOT_JUDGED, Place, places_of, shell_of
from tests.core.logs import judged
from tests.core.test_bearings import bearing
from tests.core.test_commutator import felt


def places(found: Judgement) -> dict[str, Place]:
    told = places_of(found.job, found.facts.kinds, found.findings)
    return {p.name: p for p in told}


def test_what_nobody_looked_at_is_not_judged() -> None:
    found = places(judged())
    assert {n: p.words for n, p in found.items() if p.station == "mechanics"} == dict.fromkeys(
        ("shaft", "drive", "other", "fan", "seals", "shields", "leads"), NOT_JUDGED
    )
    assert {p.mark for p in found.values() if p.station == "mechanics"} == {"unproven"}


def test_each_place_stands_as_hands_found_it() -> None:
    found = places(
        judged(
            felt("feel", "binding"),
            felt("fan", "good"),
            felt("seals", "renewed"),
            felt("bolts-drive", "binds"),
            *bearing("drive", number="6204 ZZ", state="dry"),
            *bearing("other", number="6203 ZZ", state="rough", done="renewed", fitted="6203-2Z"),
        )
    )
    assert (found["shaft"].mark, found["shaft"].words) == ("hold", "binding")
    assert (found["drive"].mark, found["drive"].words) == ("hold", "6204 ZZ, dry")
    assert found["other"].renewed
    assert found["other"].words == "6203-2Z, renewed"
    assert found["other"].mark == "good"
    assert (found["fan"].mark, found["fan"].renewed) == ("good", False)
    assert (found["seals"].mark, found["seals"].renewed) == ("good", True)
    assert found["shields"].mark == "hold"


def test_brushes_and_commutator_are_there_where_it_has_them() -> None:
    plain, brushed = judged(), judged({"kind": "look", "sign": "brushes", "answer": "yes"})
    assert not {"brushes", "commutator"} & set(places(plain))
    assert {"brushes", "commutator"} <= set(places(brushed))
    shell = shell_of(brushed.job, brushed.facts.kinds)
    assert shell.brushes
    assert shell.commutator


def test_of_a_sealed_one_only_the_leads_are_reached() -> None:
    found = judged({"kind": "look", "sign": "sealed", "answer": "yes"})
    assert set(places(found)) == {"leads"}
    assert shell_of(found.job, found.facts.kinds).sealed
