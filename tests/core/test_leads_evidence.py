"""Evidence of every kind: broken coils, slipped points, bunched readings, series tests, runs, joints as
found, somebody's word, signs and shop odds; and what must hold whatever the readings are."""

import random
from collections.abc import Callable
from dataclasses import replace

import pytest

from careful_coil.bench.simulated import SimulatedMeter
from careful_coil.core.errors import BadDocument
from careful_coil.core.identify import Evidence, Identification, identify
from careful_coil.core.identify.evidence import Leanings
from careful_coil.core.identify.hooked import run_shown
from careful_coil.core.identify.models import PRIOR, compositions, models_for
from careful_coil.core.identify.why import reasons, told
from careful_coil.core.kind.lead_leanings import family_odds, leanings_of
from careful_coil.core.readings import (
    AnyReading,
    Found,
    Kick,
    Meter,
    Resistance,
    Run,
    Series,
    Switch,
)
from careful_coil.core.settings import Settings
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.core.winding.kick import series_volt
from tests.core.logs import job_of, leads, plate
from tests.core.motors import Player, groups_of

FINE = Meter(accuracy_percent=0.5, resolution_ohm=0.01, lead_ohm=0.0)


def with_broken(slug: str, seed: int, coil: int) -> Player:
    """A motor one of whose coils stands open."""
    player = Player(slug, seed)
    network = player.motor.network
    rest = tuple(c for k, c in enumerate(network.coils) if k != coil)
    player.motor = replace(player.motor, network=replace(network, coils=rest))
    player.bench = SimulatedMeter(player.motor, seed, player.meter)
    return player


@pytest.mark.parametrize(
    "slug", ["three-phase-6-lead", "three-phase-9-lead-wye", "three-phase-12-lead"]
)
def test_one_open_reading_is_asked_for_again_and_then_it_is_a_broken_coil(slug: str) -> None:
    player = with_broken(slug, 1, 1)
    player.read_all()
    found = player.answer()
    step = found.next
    coil = player.core.coils[1]
    ends = {t for t, n in player.lead_of.items() if n in (coil.start, coil.finish)}
    assert step is not None
    assert set(step.pair() or ()) == ends
    assert "broken" in step.why
    player.take(step)
    found = player.answer()
    assert found.best.arrangement == slug
    assert set(found.best.broken) == ends
    assert {found.best.certainty[t] for t in ends} == {"open"}
    assert not found.suspects
    assert found.status != "settled"


def test_two_open_readings_that_one_broken_coil_explains_need_no_second_take() -> None:
    player = with_broken("three-phase-9-lead-delta", 1, 3)
    player.read_all()
    found = player.answer()
    assert found.best.arrangement == "three-phase-9-lead-delta"
    assert found.best.broken
    assert not found.suspects


def test_a_clip_that_did_not_bite_is_told_from_a_broken_coil_by_the_second_take() -> None:
    player = Player("three-phase-12-lead", 2)
    player.read_all()
    at = next(k for k, r in enumerate(player.readings) if str(value_of(r))[0].isdigit())
    good = player.readings[at]
    player.readings[at] = good.model_copy(update={"value": "open"})
    step = player.answer().next
    assert step is not None
    assert step.pair() == getattr(good, "between", None)
    player.readings.append(good)
    assert not player.answer().best.broken
    assert player.answer().best.probability > 0.95


def value_of(reading: AnyReading) -> object:
    return getattr(reading, "value", "")


@pytest.mark.parametrize(("factor", "power"), [(10, 1), (0.1, -1), (1000, 3)])
def test_a_slipped_point_is_asked_about_and_both_are_kept(factor: float, power: int) -> None:
    player = Player("three-phase-9-lead-wye", 4)
    player.read_all()
    at = next(
        k
        for k, r in enumerate(player.readings)
        if isinstance(r, Resistance) and str(r.value)[0].isdigit() and float(r.value) > 1
    )
    true = float(str(value_of(player.readings[at])))
    slipped = player.readings[at].model_copy(update={"value": f"{true * factor:.4g}"})
    player.readings[at] = slipped
    found = player.answer()
    assert [s.reading for s in found.suspects] == [at]
    assert "Was it" in found.suspects[0].why
    assert "slipped point" in found.suspects[0].why


def test_bunched_readings_are_asked_for_and_find_the_groups_in_fewer_readings() -> None:
    counts = {}
    for bunching in (True, False):
        counts[bunching] = 0
        for seed in (1, 2):
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
    assert counts[True] <= 2 * 16


def answer_with(player: Player, leanings: Leanings) -> Evidence:
    return Evidence.of(player.tags, player.readings, player.meter, leanings=leanings)


def test_several_against_several_that_read_open_count_pair_by_pair() -> None:
    bunch = Resistance(between=(("A", "B"), ("C", "D", "E", "F")), value="open")
    found = identify(Evidence.of(tuple("ABCDEF"), [bunch], FINE))
    together = sum(c.probability for c in found.candidates if {"A", "B"} in map(set, c.groups))
    assert together > 0.7  # else one of them, or both, go nowhere


def six_read() -> list[AnyReading]:
    pairs = {"AB": "3.90", "CD": "3.91", "EF": "3.89"}
    rows: list[AnyReading] = []
    for k, a in enumerate("ABCDEF"):
        for b in "ABCDEF"[k + 1 :]:
            rows.append(Resistance(between=(a, b), value=pairs.get(a + b, "open")))
    return rows


TRUE_SIX = {"A": "T1", "B": "T4", "C": "T5", "D": "T2", "E": "T3", "F": "T6"}


def told_six(*more: AnyReading, leanings: Leanings | None = None) -> Identification:
    return identify(
        Evidence.of(tuple("ABCDEF"), [*six_read(), *more], FINE, 3, leanings=leanings or Leanings())
    )


def series(source: str, tie: str, across: str) -> Series:
    """A series test on the true six-lead motor, worked out by alternating current."""
    network = ARRANGEMENTS["three-phase-6-lead"].network

    def pair(two: str) -> tuple[str, str]:
        return TRUE_SIX[two[0]], TRUE_SIX[two[1]]

    volt = series_volt(network, pair(source), pair(tie), pair(across), 12.0)
    told = {"source": tuple(source), "tie": tuple(tie), "across": tuple(across)}
    return Series.model_validate({**told, "applied_volt": 12.0, "value": round(volt, 2)})


def test_two_series_tests_settle_six_leads_as_two_kicks_do() -> None:
    found = told_six(series("AB", "BC", "AD"), series("AB", "BE", "AF"))
    assert found.status == "settled"
    number = {t: int(r[1:]) for t, r in found.best.roles.items()}
    same = {(number[t] <= 3) == (int(r[1:]) <= 3) for t, r in TRUE_SIX.items()}
    assert len(same) == 1  # all starts are starts, or all are finishes: that much is free


def test_a_run_on_the_right_hookup_proves_what_kicks_did_not() -> None:
    lines: tuple[tuple[str, ...], ...] = (("A",), ("D",), ("E",))
    joints: tuple[tuple[str, ...], ...] = (("B", "C", "F"),)
    run = Run(lines=lines, joints=joints, applied_volt=60.0, amp=(0.41, 0.40, 0.41), turns="smooth")
    before, after = told_six(), told_six(run)
    assert before.status == "narrowed"
    assert after.status == "settled"
    starts = {t for t, r in after.best.roles.items() if r in ("T1", "T2", "T3")}
    assert starts in ({"A", "D", "E"}, {"B", "C", "F"})


def test_a_run_with_a_coil_reversed_shows_it() -> None:
    network = ARRANGEMENTS["three-phase-6-lead"].network
    right = run_shown(network, (("T1",), ("T2",), ("T3",)), (("T4", "T5", "T6"),), "alternate")
    wrong = run_shown(network, (("T4",), ("T2",), ("T3",)), (("T1", "T5", "T6"),), "alternate")
    assert right.likely()[0] == "smooth"
    assert wrong.likely()[0] != "smooth"
    amps = right.likely()[1]
    assert max(amps) == pytest.approx(min(amps), rel=1e-6)


def test_where_kicks_show_nothing_a_run_is_asked_for_and_nothing_false_is_claimed() -> None:
    player = Player("three-phase-9-lead-wye", 1, adjacent_halves=True)
    player.read_all()
    found = player.play(most=20)
    assert any(isinstance(r, Run) for r in player.readings)
    assert player.claims_hold(found)
    assert found.status == "narrowed"


def test_joints_of_a_motor_that_ran_are_a_leaning_not_a_proof() -> None:
    ran = Found(joints=(("L1", "A"), ("L2", "D"), ("L3", "E"), ("B", "C", "F")), ran="yes")
    found = told_six(ran)
    assert found.status == "narrowed"
    starts = {t for t, r in found.best.roles.items() if r in ("T1", "T2", "T3")}
    assert starts in ({"A", "D", "E"}, {"B", "C", "F"})
    assert "leaning" in found.best.certainty.values()
    assert "proven" not in found.best.certainty.values()


def test_a_kick_overrules_joints_that_were_wrong() -> None:
    wrong = Found(joints=(("L1", "A"), ("L2", "C"), ("L3", "E"), ("B", "D", "F")), ran="unknown")
    kicks = [
        Kick(source=("A", "B"), sense=("C", "D"), value="up-small"),
        Kick(source=("A", "B"), sense=("E", "F"), value="down-small"),
    ]
    found = told_six(wrong, *kicks)
    starts = {t for t, r in found.best.roles.items() if r in ("T1", "T2", "T3")}
    assert starts in ({"A", "D", "E"}, {"B", "C", "F"})
    assert found.status == "settled"


def test_somebodys_word_leans_and_is_never_proof() -> None:
    rows: list[AnyReading] = [
        Resistance(between=("A", "B"), value="3.00"),
        Resistance(between=("B", "C"), value="3.02"),
        Resistance(between=("A", "C"), value="6.01"),
    ]
    plain = identify(Evidence.of(tuple("ABC"), rows, FINE, 1))
    said = identify(Evidence.of(tuple("ABC"), rows, FINE, 1, known={"A": "start", "B": "common"}))
    assert role(said, "A") == "start"
    assert said.best.certainty["A"] != "proven"
    assert odds_of(said, "A", "start") > odds_of(plain, "A", "start")


def role(found: Identification, tag: str) -> str:
    return found.best.roles[tag]


def odds_of(found: Identification, tag: str, wanted: str) -> float:
    return sum(c.probability for c in found.candidates if c.roles.get(tag) == wanted)


def test_a_contact_that_closes_at_speed_is_no_start_switch() -> None:
    rows: list[AnyReading] = [
        Resistance(between=("A", "B"), value="3.00"),
        Resistance(between=("B", "C"), value="7.00"),
        Resistance(between=("A", "C"), value="10.0"),
    ]
    opens = [Resistance(between=(a, b), value="open") for a in "ABC" for b in "DE"]
    opens.append(Resistance(between=("D", "E"), value="open"))
    closes = Switch(between=("D", "E"), value="closes")
    found = identify(Evidence.of(tuple("ABCDE"), [*rows, *opens, closes], FINE, 1))
    assert found.best.arrangement == "single-phase-3-lead"
    assert found.best.extras == {"D": "switch", "E": "switch"}


def test_a_three_wire_sensor_and_the_posts_of_a_capacitor_are_named() -> None:
    player = Player("three-phase-6-lead", 3, sensors=("rtd-3-wire",))
    player.read_all()
    found = player.answer()
    assert found.best.arrangement == "three-phase-6-lead"
    assert set(found.best.extras.values()) == {"rtd"}
    assert len(found.best.extras) == 3
    posts = [*six_read(), Resistance(between=("G", "H"), value="rising")]
    posts += [Resistance(between=(a, b), value="open") for a in "ABCDEF" for b in "GH"]
    found = identify(Evidence.of(tuple("ABCDEFGH"), posts, FINE, 3))
    assert found.best.extras == {"G": "capacitor", "H": "capacitor"}


def test_a_bleed_resistor_in_the_start_path_is_said() -> None:
    rows: list[AnyReading] = [
        Resistance(between=("A", "B"), value="3.00"),
        Resistance(between=("B", "C"), value="15.2 k"),
        Resistance(between=("A", "C"), value="15.2 k"),
    ]
    found = identify(Evidence.of(tuple("ABC"), rows, FINE, 1))
    assert found.best.arrangement == "single-phase-3-lead"
    assert any("bleed resistor" in n for n in found.best.notes)
    assert role(found, "C") == "start"


def test_signs_of_the_kind_and_the_shops_own_odds_lean_before_anything_is_read() -> None:
    looks = [{"kind": "look", "sign": "brushes", "answer": "yes"}]
    job = job_of(*plate(phases="1"), *looks, leads(*"ABCD"))
    told_of = dict(family_odds(job))
    assert told_of["universal"] > 2 > 1 > told_of["three-phase"]
    shop = Settings().changed({"arrangement_odds": {"universal-4-lead": 5}})
    plain, leaning = compositions(4, 1), compositions(4, 1, leanings_of(job, shop))
    assert sum(leaning.values()) == pytest.approx(1.0)
    assert leaning[("q", "q")] > plain[("q", "q")] - 1e-9
    assert not family_odds(job_of(leads(*"ABCD")))


@pytest.mark.parametrize(
    ("wanted", "read"),
    [
        ({"no-such-winding": 2}, "no-such-winding"),
        ({"universal-4-lead": 0}, "0"),
        ({"universal-4-lead": "often"}, "often"),
        (["universal-4-lead"], "universal-4-lead"),
    ],
)
def test_odds_a_shop_cannot_have_are_refused(wanted: object, read: str) -> None:
    with pytest.raises(BadDocument, match=read):
        Settings().changed({"arrangement_odds": wanted})


def test_reasons_name_what_each_winding_expects() -> None:
    player = Player("three-phase-9-lead-wye", 2)
    player.read_all()
    evidence = Evidence.of(player.tags, player.readings, player.meter)
    found = identify(evidence)
    favour, against = told(reasons(found.best, None, evidence), "")
    assert favour
    assert not against
    assert all("expected" in words for words in favour)
    bad = player.readings[0]
    figures = [k for k, r in enumerate(player.readings) if str(value_of(r))[0].isdigit()]
    bad = player.readings[figures[0]]
    wrong = f"{2.2 * float(str(value_of(bad))):.2f}"
    player.readings[figures[0]] = bad.model_copy(update={"value": wrong})
    evidence = Evidence.of(player.tags, player.readings, player.meter)
    _, against = told(reasons(identify(evidence).best, None, evidence), "")
    assert len(against) == 1
    assert wrong[:4] in against[0]


# --- whatever the readings are ------------------------------------------------------------------


def some_states() -> list[tuple[str, int, int]]:
    kinds = [slug for slug, _ in PRIOR]
    chance = random.Random(5)
    return [(chance.choice(kinds), seed, chance.randrange(2, 14)) for seed in range(8)]


def played(slug: str, seed: int, count: int) -> Player:
    player = Player(slug, seed)
    for _ in range(count):
        step = player.answer().next
        if step is None:
            break
        player.take(step)
    return player


def odds(found: Identification, rename: Callable[[str], str] = str) -> dict[object, float]:
    return {
        (c.arrangement, frozenset((rename(t), r) for t, r in c.roles.items()), groups(c, rename)): (
            c.probability
        )
        for c in found.candidates
    }


def groups(c: object, rename: Callable[[str], str]) -> frozenset[frozenset[str]]:
    return frozenset(frozenset(map(rename, g)) for g in getattr(c, "groups", ()))


def kinds_by_odds(found: Identification) -> list[tuple[str | None, float]]:
    total: dict[str | None, float] = {}
    for c in found.candidates:
        total[c.arrangement] = total.get(c.arrangement, 0.0) + c.probability
    return sorted(total.items(), key=lambda r: (-round(r[1], 9), str(r[0])))


@pytest.mark.parametrize(("slug", "seed", "count"), some_states())
def test_renaming_tags_and_turning_the_order_change_nothing(
    slug: str, seed: int, count: int
) -> None:
    player = played(slug, seed, count)
    first = player.answer()
    mixed = list(player.readings)
    if not any(r.kind in ("kick",) for r in mixed):
        random.Random(seed).shuffle(mixed)
    again = identify(Evidence.of(player.tags, mixed, player.meter))
    assert (again.status, again.never_energise) == (first.status, first.never_energise)
    assert odds(again) == pytest.approx(odds(first))
    turned = dict(zip(player.tags, reversed(player.tags), strict=True))
    renamed = [r.model_validate(renamed_reading(r.model_dump(), turned)) for r in player.readings]
    other = identify(Evidence.of(player.tags, renamed, player.meter))
    assert other.status == first.status
    for (one, p), (two, q) in zip(kinds_by_odds(first), kinds_by_odds(other), strict=True):
        assert one == two
        assert p == pytest.approx(q, abs=2e-3)


def renamed_reading(told_as: dict[str, object], new: dict[str, str]) -> dict[str, object]:
    def deep(x: object) -> object:
        if isinstance(x, str):
            return new.get(x, x)
        return tuple(deep(y) for y in x) if isinstance(x, tuple | list) else x

    keys = ("between", "source", "sense", "lines", "joints")
    return {k: deep(v) if k in keys else v for k, v in told_as.items()}


@pytest.mark.parametrize("factor", [0.1, 7.0])
def test_ohms_and_meter_scaled_together_change_nothing_but_sensors(factor: float) -> None:
    player = Player("three-phase-9-lead-delta", 3)
    player.read_all()
    first = player.answer()
    meter = replace(
        player.meter,
        resolution_ohm=(player.meter.resolution_ohm or 0.01) * factor,
        lead_ohm=(player.meter.lead_ohm or 0.0) * factor,
    )
    scaled: list[AnyReading] = [
        Resistance(
            between=r.between, value=r.value if r.value == "open" else float(r.value) * factor
        )
        for r in player.readings
        if isinstance(r, Resistance)
    ]
    other = identify(Evidence.of(player.tags, scaled, meter))
    assert other.best.arrangement == first.best.arrangement
    assert other.best.roles == first.best.roles
    assert other.best.probability == pytest.approx(first.best.probability, abs=1e-3)
    ratio = [other.best.coil_ohm[k] / v for k, v in first.best.coil_ohm.items()]
    assert ratio == pytest.approx([factor] * len(ratio), rel=1e-3)


def test_a_true_reading_does_not_lower_the_truths_odds_in_the_mean() -> None:
    gains = []
    for seed in range(6):
        player = Player("three-phase-9-lead-wye", seed)
        chance = random.Random(seed)
        pairs = [(a, b) for k, a in enumerate(player.tags) for b in player.tags[k + 1 :]]
        before = 0.0
        for a, b in chance.sample(pairs, 14):
            player.read(a, b)
            found = player.answer()
            now = sum(
                c.probability
                for c in found.candidates
                if groups_of(c.groups) == player.true_groups()
            )
            gains.append(now - before)
            before = now
    assert sum(gains) / len(gains) > 0


def test_every_model_lays_all_its_leads_in_blocks() -> None:
    for count in range(2, 17):
        for m in models_for(count):
            assert len(m.network.leads) == count
            assert m.ohm_symmetries >= 1


def test_a_pair_that_may_be_a_tachometer_is_spun_at_the_end() -> None:
    for kind, volt in (("tachometer", True), ("heater", False)):
        player = Player("three-phase-6-lead", 2, sensors=(kind,))
        player.read_all()
        found = player.play()
        spun = [r for r in player.readings if r.kind == "spin"]
        assert len(spun) == 1
        assert ("tachometer" in found.best.extras.values()) == volt
        assert {found.best.certainty[t] for t in found.best.extras} == {"leaning"}


def test_what_is_put_off_brings_the_next_best_reading() -> None:
    player = Player("three-phase-9-lead-wye", 2)
    codes: list[str] = []
    for _ in range(4):
        found = identify(answer_with(player, Leanings(put_off=tuple(codes))))
        assert found.next is not None
        assert found.next.code not in codes
        codes.append(found.next.code)
    assert len(set(codes)) == 4


def test_a_shop_without_adjacent_poles_trusts_a_silent_kick_less() -> None:
    """A weak kick between halves: adjacent poles where a shop knows them, else it does not fit."""
    player = Player("three-phase-9-lead-wye", 1, adjacent_halves=True)
    player.read_all()
    step = player.answer().next
    assert step is not None
    player.take(step)
    for share in (0.0, 0.5):
        found = identify(answer_with(player, Leanings(adjacent=share)))
        assert player.claims_hold(found) or share == 0.0


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
