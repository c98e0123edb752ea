"""British and American: each word of the program in the shop's terms, what was typed untouched, and back again."""

import pytest

from careful_coil.core.settings import Settings
from careful_coil.core.terms import AMERICAN, AS_WRITTEN, BRITISH, PAIRS, in_terms, said


@pytest.mark.parametrize(
    ("text", "british", "american"),
    [
        ("Earth bond not measured", "Earth bond not measured", "Ground bond not measured"),
        ("High volts, wye", "High volts, star", "High volts, wye"),
        ("Drive end bell: 0.03 Ω", "Drive end shield: 0.03 Ω", "Drive end bell: 0.03 Ω"),
        ("The frame is earthed", "The frame is earthed", "The frame is grounded"),
        ("Leads, cord", "Leads, flex", "Leads, cord"),
        ("Callipers: bore", "Callipers: bore", "Calipers: bore"),
        ("sleeve bearing, wick dry", "bush, wick dry", "sleeve bearing, wick dry"),
        ("A bench meter, 3 metres", "A bench meter, 3 metres", "A bench meter, 3 meters"),
        ("counterclockwise", "anticlockwise", "counterclockwise"),
        ("Start, restart, hearth", "Start, restart, hearth", "Start, restart, hearth"),
        (
            "phase rotation of the supply",
            "phase sequence of the supply",
            "phase rotation of the supply",
        ),
    ],
)
def test_a_text_in_both_terms(text: str, british: str, american: str) -> None:
    assert said(text, terms=BRITISH) == british
    assert said(text, terms=AMERICAN) == american
    assert said(text, terms=AS_WRITTEN) == text


@pytest.mark.parametrize(("british", "american"), PAIRS)
def test_a_pair_leads_there_and_back(british: str, american: str) -> None:
    assert said(british, terms=AMERICAN) == american
    assert said(american, terms=BRITISH) == british
    assert said(said(british, terms=AMERICAN), terms=BRITISH) == british


def test_the_choice_of_star_stands_by_itself() -> None:
    assert said("Wye, wyes", "star") == "Star, stars"
    usual = Settings()
    assert in_terms("earth, wye", usual) == "earth, wye"
    told = usual.changed({"schools": {"terms": "american", "star": "star"}})
    assert in_terms("earth, wye", told) == "ground, star"
