"""Evidence of every kind: broken coils, slipped points, bunched readings, series tests, runs, joints as
found, somebody's word, signs and shop odds."""

from dataclasses import replace

import pytest

from careful_coil.bench.simulated import SimulatedMeter
from careful_coil.core.errors import BadDocument
from careful_coil.core.identify import Evidence, Identification, identify
from careful_coil.core.identify.evidence import Leanings
from careful_coil.core.identify.models import compositions, models_for, prior_of
from careful_coil.core.identify.why import reasons, told
from careful_coil.core.kind.lead_leanings import leanings_of, winding_odds
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
from careful_coil.core.winding.turning import run_shown
from tests.core.logs import job_of, judged, leads, plate
from tests.core.motors import Player

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


def test_series_tests_settle_six_leads_as_kicks_do_the_closing_one_too() -> None:
    two = series("AB", "BC", "AD"), series("AB", "BE", "AF")
    assert told_six(*two).status == "narrowed"
    found = told_six(*two, series("CD", "DE", "CF"))
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
    closing = Kick(source=("C", "D"), sense=("E", "F"), value="up-small")
    assert told_six(wrong, *kicks, closing).status == "settled"


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
    told_of = dict(winding_odds(job))
    assert told_of["universal-4-lead"] > 2 > 1 > told_of["three-phase-6-lead"]
    shop = Settings().changed({"arrangement_odds": {"universal-4-lead": 5}})
    leaning = leanings_of(job, shop)
    assert sum(compositions(4, 1, leaning).values()) == pytest.approx(1.0)
    chance = {m.slug: prior_of(m, 1, leaning) / prior_of(m, 1) for m in models_for(4)}
    assert chance["universal-4-lead"] > 5 * chance["single-phase-4-lead"]
    assert not winding_odds(job_of(leads(*"ABCD")))


def test_what_the_kind_excludes_is_said_with_the_kind() -> None:
    sealed = {"kind": "look", "sign": "sealed", "answer": "yes"}
    told = judged(leads(*"ABC"), sealed)
    found = told.facts.identification
    assert found is not None
    said = next(n for n in found.notes if n.startswith("By its kind"))
    assert "a sealed compressor" in said
    assert "one coil with a speed tap" in said


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


def test_reasons_of_a_broken_coil_expect_open_where_it_is() -> None:
    player = with_broken("three-phase-9-lead-wye", 1, 4)  # a coil of the star
    player.read_all()
    evidence = Evidence.of(player.tags, player.readings, player.meter)
    best = identify(evidence).best
    assert best.broken
    _, against = told(reasons(best, None, evidence), "")
    assert not against
