"""Worth repairing? By hand-worked sums, and what turns the answer."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.kind.worth import Estimate, worth_repairing
from careful_coil.core.settings import Settings
from tests.core.logs import judged

CHEAP = Estimate(parts=45, labour=120, replacement=310)
DEAR = Estimate(parts=90, labour=180, replacement=310, lead_days=14)


@pytest.mark.parametrize(
    ("estimate", "outcome", "repair", "share"),
    [
        (CHEAP, "repair", 165, 165 / 310),
        (DEAR, "replace", 270, 270 / 310),
        (replace(DEAR, special=True), "repair", 270, 270 / 310),
        (replace(CHEAP, drive=200), "replace", 365, 365 / 310),
        (replace(CHEAP, drive=50), "drive", 215, 215 / 310),
        (replace(DEAR, scrap_kg=10, scrap_price=6), "replace", 270, 270 / 250),
        (Estimate(parts=10, labour=20), "repair", 30, None),
        (replace(CHEAP, bearings=30, rewind_kg=2, rewind_price=50), "replace", 295, 295 / 310),
        (replace(CHEAP, needed=False), "scrap", 165, 165 / 310),
        (replace(CHEAP, needed=False, special=True), "repair", 165, 165 / 310),
        (replace(DEAR, aluminium_kg=4, aluminium_price=2.5), "replace", 270, 0.9),
        (replace(CHEAP, replacement=20, scrap_kg=10, scrap_price=6), "scrap", 165, None),
    ],
)
def test_outcomes(estimate: Estimate, outcome: str, repair: float, share: float | None) -> None:
    found = worth_repairing(estimate, 0.75)
    assert (found.outcome, found.repair) == (outcome, repair)
    assert found.share == (pytest.approx(share) if share is not None else None)


def test_what_changes_the_answer_is_said() -> None:
    """60 % of 310 is 186; 270 over 0.6 is 450."""
    found = worth_repairing(DEAR, 0.6)
    assert found.break_even_repair == pytest.approx(186)
    words = " ".join(found.turns)
    assert "below 186" in words
    assert "more than 450" in words
    assert "14 days" in words


@given(st.floats(1, 1000), st.floats(1, 1000), st.floats(0.1, 1.5))
def test_a_dearer_repair_never_turns_to_repair(cost: float, more: float, limit: float) -> None:
    one = worth_repairing(Estimate(labour=cost, replacement=500), limit)
    two = worth_repairing(Estimate(labour=cost + more, replacement=500), limit)
    assert not (one.outcome == "replace" and two.outcome == "repair")


@pytest.mark.parametrize(("estimate", "limit"), [(Estimate(parts=-1), 0.6), (CHEAP, 0.0)])
def test_figures_below_nothing_are_refused(estimate: Estimate, limit: float) -> None:
    with pytest.raises(ValueOutOfRange):
        worth_repairing(estimate, limit)


def figures(**values: float) -> list[dict[str, object]]:
    return [{"kind": "estimate", "field": k, "value": v} for k, v in values.items()]


@pytest.mark.parametrize(
    ("payer", "subject", "words"),
    [
        ("customer", "Replace it", "It turns to repair below"),
        ("shop", "Repair it", "The shop pays"),
        ("insurer", "Replace it", "An insurer pays"),
    ],
)
def test_who_pays_is_part_of_the_answer(payer: str, subject: str, words: str) -> None:
    """87 % of a new one: too dear for a customer, cheaper than a new one for a shop that pays itself."""
    who = {"kind": "noted", "sheet": "estimate", "field": "payer", "text": payer}
    told = judged(*figures(parts=90, labour=180, replacement=310), who)
    own = next(f for f in told.findings if f.code == "worth-repairing")
    assert own.subject == subject
    assert words in own.why


def test_a_job_says_it_once_both_sides_are_known() -> None:
    half = judged(*figures(parts=90, labour=180))
    assert not any(f.code == "worth-repairing" for f in half.findings)
    whole = judged(*figures(parts=90, labour=180, replacement=310))
    own = next(f for f in whole.findings if f.code == "worth-repairing")
    assert (own.verdict, own.subject) == ("watch", "Replace it")
    assert "87 % of a new one" in own.why
    gone = judged(*figures(labour=180, needed=0, scrap_kg=3, scrap_price=6))
    (told,) = [f for f in gone.findings if f.code == "worth-repairing"]
    assert told.subject == "Scrap it"
    assert "Its metal brings 18." in told.why
    shop = Settings().changed({"repair_threshold": 90.0})
    kept = judged(*figures(parts=90, labour=180, replacement=310), settings=shop)
    assert next(f for f in kept.findings if f.code == "worth-repairing").subject == "Repair it"
