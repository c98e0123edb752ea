"""Unknown leads: played on made-up motors, and on readings set by hand."""

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import BadDocument
from careful_coil.core.identify import Evidence, Identification, identify
from careful_coil.core.readings import (
    AnyReading,
    Frame,
    Kick,
    Meter,
    Resistance,
    Series,
    Switch,
)
from tests.core.motors import Player, groups_of

FINE = Meter(accuracy_percent=0.5, resolution_ohm=0.01, lead_ohm=0.0)


def ohms(*rows: tuple[str, str]) -> list[AnyReading]:
    """Readings from rows like ("AB", "3.9")."""
    return [Resistance(between=(pair[0], pair[1]), value=value) for pair, value in rows]


def told(tags: str, readings: list[AnyReading], meter: Meter = FINE) -> Identification:
    return identify(Evidence.of(tuple(tags), readings, meter))


@pytest.mark.parametrize(
    ("slug", "device", "seed"),
    [
        (slug, device, seed)
        for slug, device, motors in (
            ("three-phase-6-lead", "", 3),
            ("three-phase-9-lead-wye", "", 2),
            ("three-phase-9-lead-delta", "", 2),
            ("single-phase-3-lead", "switch", 3),
            ("three-phase-3-lead", "", 3),
        )
        for seed in range(motors)
    ],
)
def test_following_the_suggestions_settles_a_motor_and_claims_only_what_is_true(
    slug: str, device: str, seed: int
) -> None:
    player = Player(slug, seed, start_device=device)
    found = player.play()
    assert found.status == "settled"
    assert found.best.arrangement == slug
    assert groups_of(found.best.groups) == player.true_groups()
    assert player.claims_hold(found)
    assert set(found.best.certainty.values()) <= {"proven", "convention"}


@pytest.mark.parametrize("seed", range(3))
@pytest.mark.parametrize("slug", ["three-phase-6-lead", "three-phase-9-lead-wye"])
def test_bad_clips_cost_a_retake_and_nothing_else(slug: str, seed: int) -> None:
    player = Player(slug, seed, bad_clips=0.12)
    found = player.play()
    assert found.status == "settled"
    assert player.claims_hold(found)


@pytest.mark.parametrize("seed", range(3))
def test_halves_of_adjacent_poles_leave_the_pairs_open(seed: int) -> None:
    """Their kicks show nothing: no mark may be claimed from that."""
    player = Player("three-phase-9-lead-wye", seed, adjacent_halves=True)
    found = player.play()
    assert found.status == "narrowed"
    assert groups_of(found.best.groups) == player.true_groups()
    assert player.claims_hold(found)
    assert "open" in found.best.certainty.values()


def test_six_leads_take_far_fewer_than_fifteen_readings() -> None:
    counts = []
    for seed in range(6):
        player = Player("three-phase-6-lead", seed)
        while player.odds_of_groups() < 0.95:
            step = player.answer().next
            assert step is not None
            assert step.between is not None
            player.read(*step.between)
        counts.append(len(player.readings))
    assert sum(counts) / len(counts) <= 6.5


@pytest.mark.parametrize("seed", range(6))
def test_a_bad_clip_in_a_full_sheet_is_found_and_nothing_good_is_accused(seed: int) -> None:
    player = Player("three-phase-9-lead-wye", seed)
    for k, a in enumerate(player.tags):
        for b in player.tags[k + 1 :]:
            player.read(a, b)
    figures = [
        k for k, r in enumerate(player.readings) if str(getattr(r, "value", ""))[0].isdigit()
    ]
    bad = player.chance.choice(figures)
    reading = player.readings[bad]
    assert isinstance(reading, Resistance)
    wrong = f"{float(reading.value) * player.chance.uniform(1.2, 4.0):.2f}"
    player.readings[bad] = reading.model_copy(update={"value": wrong})
    found = player.answer()
    assert [s.reading for s in found.suspects] == [bad]
    assert found.status == "contradictory"
    assert not {"proven", "convention"} & set(found.best.certainty.values())


DUAL = [
    ("AB", "2.10"),
    ("CD", "2.11"),
    ("EF", "6.40"),
    ("AC", "open"),
    ("AE", "open"),
    ("CE", "open"),
]


def test_two_equal_pairs_and_another_are_asked_about_then_taken_for_what_they_are() -> None:
    """One phase with two main windings looks like three phases with one bad clip, once."""
    first = told("ABCDEF", ohms(*DUAL))
    assert first.status == "narrowed"
    assert first.next is not None
    assert first.next.between == ("E", "F")
    again = told("ABCDEF", ohms(*DUAL, ("EF", "6.41")))
    assert again.best.arrangement == "single-phase-dual-voltage-6-lead"
    assert again.suspects == ()


def test_two_equal_stars_are_known() -> None:
    player = Player("three-phase-part-winding-6-lead", 4)
    found = player.play()
    assert found.best.arrangement == "three-phase-part-winding-6-lead"
    assert groups_of(found.best.groups) == player.true_groups()
    assert player.claims_hold(found)


@pytest.mark.parametrize("seed", range(3))
def test_no_coil_is_left_unread(seed: int) -> None:
    """A lead that belongs by elimination may still hang on a broken coil."""
    player = Player("three-phase-9-lead-wye", seed)
    found = player.play()
    assert len(found.best.coil_ohm) == 6


SIX = ohms(
    ("AB", "10.2"), ("CF", "10.5"), ("DE", "10.2"), ("AC", "open"), ("AD", "open"), ("CD", "open")
)


def test_ohms_alone_leave_the_next_pairs_open() -> None:
    """Which pair is phase 1, and which of its ends the start, is free; the next pair's is not."""
    found = told("ABCDEF", SIX)
    sure = found.best.certainty
    assert found.status == "narrowed"
    assert {sure["A"], sure["B"]} <= {"convention", "leaning"}  # two mains and a start fit too
    assert {sure[t] for t in "CDEF"} == {"open"}
    assert found.next is not None
    assert found.next.kind == "kick"


def test_a_closing_kick_settles_six_leads() -> None:
    kicks: list[AnyReading] = [
        Kick(source=("F", "C"), sense=("D", "E"), value="down-small"),
        Kick(source=("F", "C"), sense=("B", "A"), value="down-small"),
    ]
    assert told("ABCDEF", SIX + kicks).status == "narrowed"  # one may be the wrong way round
    closing = Kick(source=("D", "E"), sense=("B", "A"), value="down-small")
    found = told("ABCDEF", [*SIX, *kicks, closing])
    assert found.status == "settled"
    odd = Kick(source=("D", "E"), sense=("B", "A"), value="up-small")
    against = told("ABCDEF", [*SIX, *kicks, odd])
    assert against.status == "narrowed"
    assert against.next is not None
    assert against.next.kind == "kick"
    assert any("Touch the meter to the battery" in s.why for s in against.suspects)
    starts = {t for t, r in found.best.roles.items() if r in ("T1", "T2", "T3")}
    assert starts in ({"F", "D", "B"}, {"C", "E", "A"})


@pytest.mark.parametrize(("value", "other"), [("up-small", {"F", "E"}), ("down-small", {"F", "D"})])
def test_a_kick_tells_the_sense_of_a_coil(value: str, other: set[str]) -> None:
    kick = Kick.model_validate({"source": ("F", "C"), "sense": ("D", "E"), "value": value})
    found = told("ABCDEF", [*SIX, kick])
    starts = {t for t, r in found.best.roles.items() if r in ("T1", "T2", "T3")}
    assert other <= starts or not other & starts


CHAIN = ohms(("BC", "3.59"), ("AB", "8.94"), ("AC", "5.55"))


def test_a_chain_of_three_without_a_switch_test_proves_nothing() -> None:
    """Common, run and start read as one tapped coil does."""
    found = told("ABC", CHAIN, Meter(accuracy_percent=0.5, resolution_ohm=0.01, lead_ohm=0.2))
    assert found.status in ("narrowed", "unsettled")
    assert "proven" not in found.best.certainty.values()
    arrangements = {c.arrangement for c in found.candidates}
    assert {"single-phase-3-lead", "single-phase-two-speed-coil"} <= arrangements


def test_a_switch_that_opens_proves_common_run_and_start() -> None:
    """Even where the start winding has the fewer ohms."""
    switch: list[AnyReading] = [
        Switch(between=("A", "B"), value="opens"),
        Switch(between=("B", "C"), value="opens"),
    ]
    found = told(
        "ABC", CHAIN + switch, Meter(accuracy_percent=0.5, resolution_ohm=0.01, lead_ohm=0.2)
    )
    assert found.status == "settled"
    assert found.best.roles == {"A": "run", "B": "start", "C": "common"}
    assert set(found.best.certainty.values()) == {"proven"}
    assert set(found.never_energise) == {("A", "B"), ("B", "C")}
    assert found.best.coil_ohm["run-common"] == pytest.approx(5.35, abs=0.02)


def test_a_capacitor_in_the_path_shows_the_start_and_leaves_common_open() -> None:
    found = told("ABC", ohms(("AB", "rising"), ("AC", "rising"), ("BC", "5.2")))
    assert found.best.arrangement == "single-phase-3-lead"
    assert found.best.roles["A"] == "start"
    assert found.best.certainty["A"] == "proven"
    assert found.best.certainty["B"] != "proven"
    assert found.next is None


def test_three_equal_readings_are_star_or_delta_and_it_says_so() -> None:
    found = told("ABC", ohms(("AB", "4.10"), ("AC", "4.11"), ("BC", "4.09")))
    assert found.best.arrangement == "three-phase-3-lead"
    assert any("cannot be told" in n for n in found.best.notes)


def test_one_pair_that_differs_once_is_asked_for_again_and_not_accused() -> None:
    """Two equal pairs and another: a bad clip, or two main windings and a start winding."""
    readings = ohms(
        ("AB", "4.02"),
        ("CD", "4.01"),
        ("EF", "6.90"),
        ("AC", "open"),
        ("AE", "open"),
        ("CE", "open"),
    )
    found = told("ABCDEF", readings)
    assert found.status in ("narrowed", "contradictory")
    assert "proven" not in found.best.certainty.values()
    assert found.suspects == ()
    assert found.next is not None
    assert found.next.between == ("E", "F")
    assert "bad clip" in found.next.why
    again = told("ABCDEF", [*readings, *ohms(("EF", "4.00"))])
    assert again.suspects == ()
    assert again.status == "narrowed"
    assert again.best.arrangement == "three-phase-6-lead"


def test_a_bad_clip_where_others_check_it_is_named_with_what_was_expected() -> None:
    stars = ohms(
        ("AB", "8.01"), ("BC", "8.02"), ("AC", "8.00"), ("DE", "8.03"), ("EF", "13.10"), ("DF", "8.00"),
        ("AD", "open"), ("AE", "open"), ("AF", "open"), ("BD", "open"),
    )  # fmt: skip
    found = told("ABCDEF", stars)
    assert [s.reading for s in found.suspects] == [4]
    low, high = found.suspects[0].expected_ohm or (0, 0)
    assert low < 8.01 < high < 8.5
    assert found.next is not None
    assert found.next.between == ("E", "F")


def test_a_contradiction_no_one_stands_out_of_accuses_nobody_but_asks_again() -> None:
    found = told("ABC", ohms(("AB", "5.61"), ("BC", "3.92"), ("AC", "7.72")))
    assert found.suspects == ()
    assert found.next is not None
    assert set(found.next.between or ()) <= {"A", "B", "C"}
    assert "bad clip" in found.next.why


def test_open_where_all_else_says_conducting_is_a_suspect() -> None:
    readings = ohms(
        ("GH", "1.40"), ("FH", "open"), ("FG", "1.40"), ("AD", "0.70"), ("BC", "0.70"), ("EJ", "0.70"),
        ("AB", "open"), ("AE", "open"), ("BE", "open"), ("AG", "open"), ("BG", "open"), ("EG", "open"),
    )  # fmt: skip
    found = told("ABCDEFGHJ", readings)
    assert found.best.arrangement == "three-phase-9-lead-wye"
    assert [s.reading for s in found.suspects] == [1]


def test_unsteady_is_asked_for_again() -> None:
    found = told("ABCDEF", ohms(("AB", "unsteady"), ("CD", "4.0")))
    assert found.next is not None
    assert found.next.between == ("A", "B")
    assert [s.reading for s in found.suspects] == [0]


@given(st.randoms(use_true_random=False))
def test_the_order_of_readings_changes_nothing(chance: random.Random) -> None:
    readings = [*SIX, Kick(source=("F", "C"), sense=("D", "E"), value="down-small")]
    first = told("ABCDEF", readings)
    mixed = list(readings)
    chance.shuffle(mixed)
    second = told("ABCDEF", mixed)
    assert second.status == first.status
    assert second.candidates == first.candidates
    assert second.next == first.next


FIGURES = st.sampled_from(
    [0.0, 0.01, "-0.003", "open", "rising", "unsteady", "beep", 4.0, 4.1, 8.1, 1e-9, 1.9e6, ">2 M"]
)
PAIRS = st.lists(st.sampled_from("ABCDEF"), min_size=2, max_size=2, unique=True)


@given(
    st.lists(
        st.builds(lambda p, v: Resistance(between=(p[0], p[1]), value=v), PAIRS, FIGURES),
        max_size=14,
    ),
    st.sampled_from([None, 0.0, 0.5]),
    st.sampled_from([None, 0.001, 1.0]),
)
def test_any_readings_get_an_answer(
    readings: list[Resistance], lead_ohm: float | None, resolution: float | None
) -> None:
    meter = Meter(accuracy_percent=1.0, lead_ohm=lead_ohm, resolution_ohm=resolution)
    found = told("ABCDEF", list(readings), meter)
    odds = [c.probability for c in found.candidates]
    assert odds == sorted(odds, reverse=True)
    assert 0 < sum(odds) <= 1 + 1e-9
    assert all(0 <= s.reading < len(readings) for s in found.suspects)


def test_two_takes_that_agree_are_averaged_else_the_last_stands() -> None:
    agree = Evidence.of(("A", "B"), ohms(("AB", "4.00"), ("AB", "4.01")), FINE)
    assert agree.ohms[0].ohm == pytest.approx(4.005)
    differ = Evidence.of(("A", "B"), ohms(("AB", "9.00"), ("BA", "4.01")), FINE)
    assert differ.ohms[0].ohm == pytest.approx(4.01)
    assert differ.ohms[0].takes == (1,)


def test_meter_leads_not_nulled_are_taken_off_again() -> None:
    meter = Meter(accuracy_percent=0.5, resolution_ohm=0.01, lead_ohm=0.3)
    found = told("ABCDEF", ohms(("AB", "1.30"), ("CD", "1.31"), ("EF", "1.29")), meter)
    assert list(found.best.coil_ohm.values()) == pytest.approx([1.0, 1.0, 1.0], abs=0.02)


def test_unknown_meter_leads_do_not_hide_the_chain() -> None:
    """p = q + r holds to within one lead resistance."""
    found = told(
        "ABC", ohms(("BC", "3.8"), ("AB", "9.1"), ("AC", "5.7")), Meter(accuracy_percent=1.0)
    )
    assert found.status in ("narrowed", "unsettled")
    assert not found.suspects


def test_a_lead_to_frame_that_conducts_is_said() -> None:
    found = told("ABCDEF", [Frame(lead="C", value="12"), *ohms(("AB", "4.0"))])
    assert any("C reads 12.0 Ω to the frame" in n for n in found.notes)


def test_several_leads_against_several_prove_no_pair_and_that_is_said() -> None:
    found = told("ABCDEF", [Resistance(between=(("A", "D"), ("B", "C")), value=2.0)])
    assert any("several leads against several" in n for n in found.notes)


@pytest.mark.parametrize(
    "reading",
    [
        Resistance(between=("A", "X"), value=1.0),
        Resistance(between=("A", "A"), value=1.0),
        Resistance(between=("A", "B"), value="-5 Ω"),
        Resistance(between=("A", "B"), value=-5.0),
        Resistance(between=("A", ("A", "B")), value=1.0),
        Frame(lead="X", value="open"),
        Switch(between=("A", "X"), value="opens"),
        Kick(source=("A", "B"), sense=("C", "X"), value="none"),
        Series(
            source=("A", "B"), tie=("B", "C"), across=("A", "D"), applied_volt=12.0, value="3 Ω"
        ),
    ],
)
def test_readings_that_name_nothing_real_are_refused(reading: AnyReading) -> None:
    with pytest.raises(BadDocument) as caught:
        Evidence.of(("A", "B", "C"), [reading], FINE)
    assert "Wanted" in str(caught.value)


def test_tags_must_be_different_and_not_too_many() -> None:
    with pytest.raises(BadDocument, match="twice"):
        Evidence.of(("A", "B", "A"), [], FINE)
    with pytest.raises(BadDocument, match="17"):
        Evidence.of(tuple(str(k) for k in range(17)), [], FINE)
