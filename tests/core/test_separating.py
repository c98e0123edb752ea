"""Why it will not start: thirty invented complaints, tests that turn the order round, the next test."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.condition.causes import CAUSES, Cause
from careful_coil.core.condition.suspicion import symptoms_in, weigh_causes
from careful_coil.core.condition.symptoms import BY_HAND, SYMPTOMS, UNCOUPLED, WHEN, when_in
from careful_coil.core.errors import BadValue
from careful_coil.core.gear import causes
from careful_coil.core.gear.separating import TESTS, Odds, weigh_with_tests, worth_testing

SINGLE, THREE, BRUSHED = (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)


def odds_of(
    shares: tuple[float, float, float],
    symptoms: str,
    hand: str = "",
    run: str = "",
    results: dict[str, str] | None = None,
) -> Odds:
    words, _, when = symptoms.partition("@")
    told = dict.fromkeys(words.split(), "yes")
    before = weigh_causes(told, {BY_HAND: hand, UNCOUPLED: run}, (), shares, when)
    return weigh_with_tests(before, results or {})


CASES = [
    (SINGLE, "hums starts-pushed", "free", "does not start", {}, "start-capacitor"),
    (SINGLE, "hums starts-pushed", "free", "does not start", {"capacitor": "low"}, "start-capacitor"),
    (SINGLE, "hums starts-pushed", "free", "does not start", {"capacitor": "right"}, "switch-open"),
    (SINGLE, "hums", "free", "does not start", {"switch-at-rest": "open"}, "switch-open"),
    (SINGLE, "hums starts-pushed", "free", "does not start",
     {"capacitor": "right", "switch-at-rest": "closed", "start-winding": "open"}, "start-winding"),
    (SINGLE, "hums", "seized", "", {}, "bearing-seized"),
    (SINGLE, "hums trips-later", "free", "runs well", {}, "load"),
    (SINGLE, "hot smells trips-later noisy", "free", "runs badly", {}, "switch-stays"),
    (SINGLE, "hot smells", "free", "runs badly", {"lets-go": "does not"}, "switch-stays"),
    (SINGLE, "clicks slow noisy", "stiff", "runs badly", {}, "bearing-worn"),
    (SINGLE, "clicks slow", "free", "", {"volts-at-start": "low"}, "volts"),
    (SINGLE, "dead", "free", "does not start", {}, "no-supply"),
    (SINGLE, "dead", "free", "does not start", {"arrives": "arrives"}, "open-winding"),
    (SINGLE, "dead smells", "free", "", {"windings": "open"}, "open-winding"),
    (SINGLE, "reversed", "free", "runs well", {}, "lines-exchanged"),
    (SINGLE, "trips-at-once shock", "free", "", {}, "to-frame"),
    (SINGLE, "trips-at-once shock", "free", "", {"insulation": "to frame"}, "to-frame"),
    (SINGLE, "wet shock", "free", "", {}, "damp"),
    (SINGLE, "hot smells", "free", "runs badly", {"windings": "uneven or low"}, "turn-short"),
    (SINGLE, "hot trips-later", "free", "runs well", {"air": "blocked or broken"}, "cooling"),
    (SINGLE, "vibrates noisy", "free", "", {"pulley-off": "quiet"}, "loose"),
    (SINGLE, "clicks slow", "free", "runs badly", {"switch-worked": "drags"}, "switch-weak"),
    (SINGLE, "trips-later @warm", "free", "runs well", {"air": "clear"}, "protector"),
    (SINGLE, "no-restart hums @warm", "free", "", {}, "thermistor-hot"),
    (SINGLE, "cycles", "stiff", "does not start", {}, "bearing-seized"),
    (SINGLE, "hot @loaded", "free", "runs well", {}, "load"),
    (SINGLE, "slow slow-taps", "stiff", "runs badly", {}, "bearing-worn"),
    (SINGLE, "hums weak @low-volts", "free", "", {}, "volts"),
    (SINGLE, "shock @cold", "free", "", {}, "damp"),
    (SINGLE, "smells hot @warm", "free", "runs badly", {"switch-worked": "opens"}, "turn-short"),
    (THREE, "no-restart hums", "free", "", {}, "lost-phase"),
    (THREE, "weak vibrates @loaded", "free", "runs well", {}, "rotor-bars"),
    (SINGLE, "noisy", "stiff", "", {}, "bearing-worn"),
    (THREE, "hums trips-later", "free", "does not start", {}, "lost-phase"),
    (THREE, "hot noisy weak", "free", "runs badly", {"three-amps": "one off"}, "turn-short"),
    (THREE, "hot weak noisy", "free", "", {"joints": "other"}, "wrong-hookup"),
    (THREE, "weak slow vibrates", "free", "runs badly", {"amps-swing": "swinging"}, "rotor-bars"),
    (THREE, "reversed", "free", "runs well", {"joints": "other"}, "lines-exchanged"),
    (THREE, "slow weak hot", "free", "", {"volts-at-start": "low"}, "volts"),
    (BRUSHED, "sparks weak", "free", "", {"brushes": "short, stuck or weak"}, "brushes"),
    (BRUSHED, "sparks hot smells", "free", "runs badly", {"brushes": "right"}, "armature"),
    (BRUSHED, "sparks", "free", "", {"bar-to-bar": "odd bars"}, "armature"),
    (BRUSHED, "dead", "free", "does not start", {"arrives": "arrives"}, "brushes"),
]  # fmt: skip


@pytest.mark.parametrize(("shares", "symptoms", "hand", "run", "results", "cause"), CASES)
def test_thirty_complaints_lead_to_their_cause(
    shares: tuple[float, float, float],
    symptoms: str,
    hand: str,
    run: str,
    results: dict[str, str],
    cause: str,
) -> None:
    """The intended cause is first or second."""
    ranked = [c.name for c, _ in odds_of(shares, symptoms, hand, run, results)]
    assert cause in ranked[:2], ranked[:4]


@pytest.mark.parametrize(
    ("shares", "symptoms", "results", "before", "after"),
    [
        (
            SINGLE,
            "hums starts-pushed",
            {"switch-at-rest": "closed"},
            "switch-open",
            "start-capacitor",
        ),
        (SINGLE, "dead", {"arrives": "arrives"}, "no-supply", "open-winding"),
        (SINGLE, "hot smells", {"switch-worked": "stays"}, "turn-short", "switch-stays"),
        (BRUSHED, "sparks weak", {"brushes": "right"}, "brushes", "armature"),
    ],
)
def test_a_later_finding_turns_the_order_round(
    shares: tuple[float, float, float],
    symptoms: str,
    results: dict[str, str],
    before: str,
    after: str,
) -> None:
    assert odds_of(shares, symptoms)[0][0].name == before
    assert odds_of(shares, symptoms, results=results)[0][0].name == after


@pytest.mark.parametrize(
    ("complaint", "when", "symptoms"),
    [
        ("trips when hot", "warm", ("trips-later",)),
        ("hums in the morning, starts when tapped", "cold", ("hums", "starts-pushed")),
        ("gets hot under load", "loaded", ("hot",)),
        ("hums when the lights dim", "low-volts", ("hums",)),
        ("clicks in and out", "", ("clicks",)),
        ("runs but will not restart", "", ("no-restart",)),
        ("slow on every speed", "", ("slow", "slow-taps")),
        ("hot and it smells", "", ("hot", "smells")),
    ],
)
def test_a_complaint_says_what_and_when(
    complaint: str, when: str, symptoms: tuple[str, ...]
) -> None:
    assert when_in(complaint)[0] == when
    assert symptoms_in(complaint) == symptoms


def test_the_next_test_parts_the_leaders_and_is_cheap() -> None:
    """A motor that hums and starts when spun: the capacitor or the switch, never an hour's work."""
    odds = odds_of(SINGLE, "hums starts-pushed", "free", "does not start")
    asked = worth_testing(odds, (), 1)
    assert asked[0].test.name in ("capacitor", "switch-at-rest")
    would = {outcome: cause.name for outcome, _, cause in asked[0].would}
    assert len(set(would.values())) > 1
    assert sum(chance for _, chance, _ in asked[0].would) == pytest.approx(1)
    after = worth_testing(odds, (asked[0].test.name,), 1)
    assert asked[0].test.name not in [a.test.name for a in after]
    rates = [a.bits / a.test.minutes for a in asked]
    assert rates == sorted(rates, reverse=True)


def test_a_test_that_cannot_be_made_is_not_asked_for() -> None:
    odds = odds_of(THREE, "hums", "free")
    asked = {a.test.name for a in worth_testing(odds, (), 3)}
    assert not asked & {"capacitor", "switch-at-rest", "brushes", "bar-to-bar"}
    assert "three-amps" in asked
    sure = tuple((c, 1.0 if c.name == "load" else 0.0) for c in CAUSES.values())
    assert worth_testing(sure, (), 3) == ()


@given(st.dictionaries(st.sampled_from(sorted(TESTS)), st.integers(0, 2), max_size=4))
def test_odds_stay_odds_and_a_gain_is_never_negative(results: dict[str, int]) -> None:
    told = {n: TESTS[n].outcomes[min(k, len(TESTS[n].outcomes) - 1)] for n, k in results.items()}
    odds = odds_of((0.5, 0.3, 0.2), "hums hot", results=told)
    assert sum(p for _, p in odds) == pytest.approx(1)
    assert all(a.bits > 0 for a in worth_testing(odds, told, None, brushed=True))


def test_the_table_is_whole() -> None:
    """Chances of each row add to one, causes exist, a result that is none is named."""
    for test in TESTS.values():
        for row in (test.usual, *test.of.values()):
            assert len(row) == len(test.outcomes)
            assert sum(row) == pytest.approx(1)
        assert set(test.of) <= set(CAUSES)
        assert test.minutes > 0
    for cause in CAUSES.values():
        assert len(cause.when) == len(WHEN)
        assert sum(cause.when) == pytest.approx(1)
        assert set(cause.shows) <= set(SYMPTOMS)
    told: set[str] = {c for t in TESTS.values() for c in t.of}
    assert set(CAUSES) - told == set()
    with pytest.raises(BadValue, match="No such test"):
        weigh_with_tests((), {}) or weigh_with_tests(one(), {"smell": "bad"})
    with pytest.raises(BadValue, match="right or low"):
        weigh_with_tests(one(), {"capacitor": "banana"})
    assert set(SYMPTOMS) >= {"hums", "starts-pushed"}


def one() -> list[tuple[Cause, float]]:
    return [(CAUSES["load"], 1.0)]


def test_what_other_stations_show_is_an_answer_of_its_test() -> None:
    for test, outcome in causes.SHOWN_ELSEWHERE.values():
        assert outcome in TESTS[test].outcomes, (test, outcome)
