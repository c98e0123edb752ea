"""What is asked for next: bunched readings, tests that replace each other, what is put off."""

from careful_coil.core.identify import Evidence, identify
from careful_coil.core.identify.evidence import Leanings
from careful_coil.core.readings import Run, Series
from tests.core.motors import Player, groups_of


def answer_with(player: Player, leanings: Leanings) -> Evidence:
    return Evidence.of(player.tags, player.readings, player.meter, leanings=leanings)


def test_bunched_readings_are_asked_for_and_find_the_groups_in_fewer_readings() -> None:
    counts = {}
    for bunching in (True, False):
        counts[bunching] = 0
        for seed in (1,):
            player = Player("three-phase-12-lead", seed)
            while True:
                found = identify(answer_with(player, Leanings(bunching=bunching)))
                chance = sum(
                    c.probability
                    for c in found.candidates
                    if groups_of(c.groups) == player.true_groups()
                )
                if chance >= 0.95:
                    break
                assert found.next is not None
                assert bunching or found.next.pair() is not None
                player.take(found.next)
            counts[bunching] += len(player.readings)
    assert counts[True] < counts[False]
    assert counts[True] <= 16


def test_where_kicks_show_nothing_a_run_is_asked_for_and_nothing_false_is_claimed() -> None:
    player = Player("three-phase-9-lead-wye", 1, adjacent_halves=True)
    player.read_all()
    found = player.play(most=20)
    assert any(isinstance(r, Run) for r in player.readings)
    assert player.claims_hold(found)
    assert found.status == "narrowed"


def test_a_pair_that_may_be_a_tachometer_is_spun_at_the_end() -> None:
    for kind, volt in (("tachometer", True), ("heater", False)):
        player = Player("three-phase-6-lead", 2, sensors=(kind,))
        player.read_all()
        found = player.play()
        spun = [r for r in player.readings if r.kind == "spin"]
        assert len(spun) == 1
        assert ("tachometer" in found.best.extras.values()) == volt
        # spun it is proven; what a heater is, and no thermistor, needs a word besides
        sure = {found.best.certainty[t] for t in found.best.extras}
        assert sure == {"proven" if volt else "leaning"}


def test_what_is_put_off_brings_the_next_best_reading() -> None:
    player = Player("three-phase-9-lead-wye", 2)
    codes: list[str] = []
    for _ in range(4):
        found = identify(answer_with(player, Leanings(put_off=tuple(codes))))
        assert found.next is not None
        assert found.next.code not in codes
        codes.append(found.next.code)
    assert len(set(codes)) == 4


def test_how_often_halves_are_adjacent_poles_weighs_a_silent_kick() -> None:
    """A kick that shows nothing between halves speaks for adjacent poles as far as a shop meets them."""
    player = Player("three-phase-9-lead-wye", 1, adjacent_halves=True)
    player.read_all()
    step = player.answer().next
    assert step is not None
    player.take(step)
    gains = []
    for share in (0.02, 0.6):
        found = identify(answer_with(player, Leanings(adjacent=share)))
        assert player.claims_hold(found)
        assert found.next is not None
        gains.append(found.next.gain_bits)
    assert gains[0] > 1.2 * gains[1]  # where they are common the next kick promises less


def test_without_a_battery_series_tests_settle_nine_leads() -> None:
    player = Player("three-phase-9-lead-wye", 2)
    player.read_all()
    for _ in range(12):
        found = identify(answer_with(player, Leanings(put_off=("kick-A-B-C-D",))))
        if found.next is None:
            break
        assert found.next.kind == "series"
        player.take(found.next)
    assert found.status == "settled"
    assert player.claims_hold(found)
    assert sum(isinstance(r, Series) for r in player.readings) <= 6
