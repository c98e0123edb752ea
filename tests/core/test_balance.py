"""The worth of a repair as a balance: margins by hand, and only figures that could tip it are open."""

import pytest

from careful_coil.core.kind.balance import balance_of

SHARE = 0.6


def test_the_margin_is_what_repair_may_cost_besides() -> None:
    found = balance_of({"parts": 40, "labour": 80, "replacement": 300}, SHARE)
    assert found.margin == pytest.approx(0.6 * 300 - 120)
    assert {p.name: p.amount for p in found.repair if p.given} == {"parts": 40, "labour": 80}


def test_metal_of_the_old_one_is_taken_off_the_price() -> None:
    told = {"labour": 100, "replacement": 300, "scrap_kg": 4, "scrap_price": 5}
    assert balance_of(told, SHARE).margin == pytest.approx(0.6 * (300 - 20) - 100)


def test_both_sides_come_first_then_only_what_could_tip_it() -> None:
    assert balance_of({}, SHARE).open == ("parts", "labour", "new")
    assert balance_of({}, SHARE).cannot == ()
    # 180 may be spent and 60 is: a rewind (up to the price) could tip it, bearings (up to 60) cannot
    far = balance_of({"parts": 0, "labour": 60, "replacement": 300}, SHARE)
    assert "rewind" in far.open
    assert {"bearings", "scrap"} <= set(far.cannot)
    assert {"rewind_kg", "rewind_price"} <= set(far.fields)
    # 150 of 180: bearings could tip it now
    near = balance_of({"parts": 0, "labour": 150, "replacement": 300}, SHARE)
    assert "bearings" in near.open


def test_what_has_tipped_is_not_asked_for_more_cost() -> None:
    gone = balance_of({"parts": 100, "labour": 200, "replacement": 300}, SHARE)
    assert gone.margin is not None
    assert gone.margin < 0
    assert gone.open == ()
    assert set(gone.cannot) == {"bearings", "rewind", "drive", "scrap"}
