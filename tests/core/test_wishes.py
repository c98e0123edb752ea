"""What is wished of a hookup: taken as usual, asked with its answers, never left without a question."""

import pytest

from tests.core.test_connecting import state_of, wish


def test_what_nobody_says_is_taken_as_usual_and_said_or_asked_with_its_answers() -> None:
    speeds = state_of("single-phase-speed-taps", "", "230", 230)
    assert speeds.plan is not None
    assert speeds.plan.speed == "high"
    assert any("nobody said" in n for n in speeds.plan.notes)
    low = state_of("single-phase-speed-taps", "", "230", 230, wish("speed", "low"))
    assert low.plan is not None
    assert (low.plan.speed, any("nobody said" in n for n in low.plan.notes)) == ("low", False)
    family = state_of("three-phase-12-lead", "", "230/460", 460)
    assert family.plan is not None
    assert family.plan.family == "wye"  # wrong gives 58 % of the volts, never 173 %
    assert any("never 173 %" in n for n in family.plan.notes)
    starred = wish("start", "wye-delta")
    unsaid = state_of("three-phase-12-lead", "", "230/460", 460, starred)
    assert (unsaid.plan, unsaid.asks, set(unsaid.choices)) == (None, "family", {"wye", "delta"})
    said = state_of("three-phase-12-lead", "", "230/460", 460, starred, wish("family", "delta"))
    assert said.plan is not None
    assert said.plan.start == "wye-delta"
    wye = state_of("three-phase-12-lead", "", "230/460", 460, starred, wish("family", "wye"))
    assert (wye.plan, wye.asks, set(wye.choices)) == (None, "start", {"direct", "part-winding"})
    start = state_of("three-phase-9-lead-delta", "", "230/460", 460, starred)
    assert (start.asks, start.choices) == ("start", ("direct",))
    end = state_of("three-phase-6-lead", "", "230/400", 400, wish("rotation", "ccw"))
    assert (end.asks, "which end" in end.why) == ("seen-from", True)


@pytest.mark.parametrize(
    ("slug", "volts", "supply", "wished", "asks"),
    [
        ("single-phase-3-lead", "230", 240, {"speed": "high"}, "speed"),
        ("single-phase-3-lead", "230", 240, {"rotation": "ccw", "seen-from": "drive-end"}, "rotation"),
        ("three-phase-6-lead", "400/690", 690, {"start": "wye-delta"}, "start"),
        ("three-phase-9-lead-wye", "230", 230, {"start": "part-winding"}, "start"),
        ("three-phase-9-lead-wye", "230/400", 400, {}, "volt"),
        ("three-phase-3-lead", "230/460", 460, {}, "volt"),
    ],
)  # fmt: skip
def test_no_wish_and_no_plate_leaves_connect_without_a_hookup_and_without_a_question(
    slug: str, volts: str, supply: float, wished: dict[str, str], asks: str
) -> None:
    state = state_of(slug, "", volts, supply, *(wish(f, t) for f, t in wished.items()))
    assert (state.plan, state.asks, bool(state.why)) == (None, asks, True)
