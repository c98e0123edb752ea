"""Coils against each other, against design and record, and against the plate."""

import math
from typing import Any

import pytest

from careful_coil.core.condition.coils import measured
from careful_coil.core.condition.drying import DryRead, drying_of
from careful_coil.core.condition.later_rules import hours_between
from careful_coil.core.condition.temperature import rise_limit
from careful_coil.core.condition.traces import area_between, compare, read_surge, stepped
from careful_coil.core.errors import BadDocument, ValueOutOfRange
from careful_coil.core.job import Entry, Finding, fold
from careful_coil.core.ledger import judge
from careful_coil.core.settings import Settings
from tests.core.logs import (
    DRAINED,
    INSULATED,
    JOINED,
    MADE_READY,
    SIX_LEADS,
    entries,
    judged,
    plate,
    without,
)


def found_of(code: str, *log: dict[str, Any], settings: Settings | None = None) -> Finding | None:
    return next((f for f in judged(*log, settings=settings).findings if f.code == code), None)


def coil(a: str, b: str, value: float, **more: Any) -> dict[str, Any]:
    """Return a four-wire reading made for the balance at 20 °C."""
    given = {"wires": 4, "step_ohm": 0.001, "at_c": 20} | more
    return {"kind": "winding-ohm", "between": [a, b], "value": value, **given}


def three(a: float, b: float, c: float, **more: Any) -> list[dict[str, Any]]:
    return [coil("A", "D", a, **more), coil("B", "E", b, **more), coil("C", "F", c, **more)]


@pytest.mark.parametrize(
    ("ohms", "verdict", "words"),
    [
        ((2.60, 2.61, 2.60), "good", "is usual"),
        ((2.60, 2.60, 2.69), "watch", "T3 to T6"),
        ((2.60, 2.60, 2.90), "hold", "bad joint"),
        ((2.60, 2.25, 2.60), "hold", "shorted turns"),
        ((2.30, 2.60, 2.90), "hold", "crossed readings"),
    ],
)
def test_low_high_and_crossed_are_named(
    ohms: tuple[float, float, float], verdict: str, words: str
) -> None:
    found = found_of("coils-balanced", *SIX_LEADS, *three(*ohms))
    assert found is not None
    assert found.verdict == verdict
    assert words in found.why


def test_form_wound_coils_are_held_closer() -> None:
    form = {"kind": "winding-made", "field": "construction", "text": "form"}
    found = found_of("coils-balanced", *SIX_LEADS, form, *three(2.60, 2.60, 2.69))
    assert found is not None
    assert (found.verdict, found.limit) == ("hold", 2)


def test_readings_at_different_temperatures_are_brought_to_one() -> None:
    warm = 2.60 * (234.5 + 60) / (234.5 + 20)
    log = [coil("A", "D", 2.60), coil("B", "E", 2.60), coil("C", "F", warm, at_c=60)]
    found = found_of("coils-balanced", *SIX_LEADS, *log)
    assert found is not None
    assert found.figure == pytest.approx(0, abs=0.1)


def test_small_ohms_by_two_wires_prove_nothing() -> None:
    small = without(SIX_LEADS, lambda b: b.get("reading", {}).get("value", "")[:2] == "2.")
    reads = [
        {"kind": "reading", "reading": {"kind": "resistance", "between": list(p), "value": "0.52"}}
        for p in ("AD", "BE", "CF")
    ]
    two = found_of("coils-balanced", *small, *reads)
    assert two is not None
    assert (two.verdict, "four-wire" in two.why) == ("unproven", True)
    four = found_of("coils-balanced", *small, *reads, *three(0.5201, 0.5204, 0.5199, step_ohm=1e-4))
    assert four is not None
    assert four.verdict == "good"


def test_the_lines_as_joined_tell_the_coils_and_say_so() -> None:
    lines = [
        coil(a, b, v, connected="made")
        for a, b, v in (("L1", "L2", 5.2), ("L2", "L3", 5.5), ("L1", "L3", 5.5))
    ]
    found = found_of("coils-balanced", *SIX_LEADS, *JOINED, *lines)
    assert found is not None
    assert found.verdict == "hold"
    assert "half its size" in found.why
    assert "T3 to T6" in found.why
    assert found.figure == pytest.approx(100 * (2.9 / 2.7 - 1), abs=0.1)


def test_ohms_from_before_a_rewind_or_of_other_joints_do_not_count() -> None:
    rewound = {"kind": "work", "what": "rewound"}
    old = judged(*SIX_LEADS, *three(2.6, 2.6, 2.9), rewound)
    assert old.job.readings == ()  # Leads was read on the old winding too
    assert len(old.job.before) == len([b for b in SIX_LEADS if b["kind"] == "reading"])
    assert found_of("coils-balanced", *SIX_LEADS, *three(2.6, 2.6, 2.9), rewound) is None
    read = [b for b in SIX_LEADS if b["kind"] == "reading"]
    fresh = found_of("coils-balanced", *SIX_LEADS, rewound, *read, *three(2.6, 2.6, 2.6))
    assert fresh is not None
    assert fresh.verdict == "good"
    line = coil("L1", "L2", 5.2, connected="made")
    later = judged(*SIX_LEADS, *JOINED[:3], line, JOINED[3])
    got = measured(
        later.job, later.facts.identification, later.facts.naming, later.facts.wall, Settings()
    )
    assert got is not None
    assert not got.through_lines


@pytest.mark.parametrize(
    ("factor", "words"),
    [(4.0, "halves in series"), (1 / 3, "wye phases"), (1.15, "All high"), (0.9, "All low")],
)
def test_all_off_together_names_the_usual_reasons(factor: float, words: str) -> None:
    design = {"kind": "winding-made", "field": "design-ohm", "text": f"{2.6 / factor:.4f}"}
    found = found_of("ohms-design", *SIX_LEADS, design, *three(2.6, 2.6, 2.6))
    assert found is not None
    assert found.verdict == "watch"
    assert words in found.why


def test_ohms_as_design_and_as_the_earlier_job() -> None:
    design = {"kind": "winding-made", "field": "design-ohm", "text": "2.58"}
    earlier = {
        "kind": "same-motor",
        "number": 77,
        "coil_ohm": {"T1-T4": 2.61, "T2-T5": 2.61, "T3-T6": 2.61},
    }
    log = [*SIX_LEADS, design, earlier, *three(2.6, 2.6, 2.6)]
    for code in ("ohms-design", "ohms-earlier"):
        found = found_of(code, *log)
        assert found is not None
        assert found.verdict == "good"
    untold = found_of("ohms-design", *SIX_LEADS, design)
    assert untold is not None
    assert "temperature" in untold.why


def test_plate_and_ohms_that_cannot_belong_together() -> None:
    log = without(SIX_LEADS, lambda b: b.get("field") == "power")
    good = [*log, *plate(power="3 kW")]
    assert found_of("plate-ohms", *good) is None
    far = [
        b | {"reading": b["reading"] | {"value": "26.0"}}
        if b.get("reading", {}).get("value", "")[:3] in ("2.6",)
        else b
        for b in good
    ]
    found = found_of("plate-ohms", *far)
    assert found is not None
    assert found.verdict == "watch"


# --- traces ---------------------------------------------------------------------------------------


def ring(period: float, n: int = 200) -> list[float]:
    return [math.exp(-k / 80) * math.cos(2 * math.pi * k / period) for k in range(n)]


def test_area_between_traces_by_hand() -> None:
    one, two = [1.0] * 20, [0.8] * 20
    assert area_between(one, two) == pytest.approx(100 * 0.2 / 0.9)
    assert area_between(one, one) == 0
    assert area_between(two, one) == area_between(one, two)


def test_the_odd_trace_is_named_with_how_it_rings() -> None:
    found = compare({"A": ring(40), "B": ring(40.1), "C": ring(36)})
    assert (found.odd, found.faster) == ("C", True)
    assert compare({"A": ring(40), "B": ring(45), "C": ring(40)}).faster is False
    alike = compare({"A": ring(40), "B": ring(40.05)})
    assert (alike.odd, alike.worst < 3) == ("", True)


@pytest.mark.parametrize(
    "text",
    [
        "",
        "t,A\n0,1\n",
        "t,A,B\n0,1\n",
        "t,A,B\n0,1,x\n",
        "t,A,B\n" + "0,1,1\n" * 20,
        "t,A,A\n0,1,1\n",
    ],
)
def test_a_csv_that_is_no_traces_is_refused_with_the_place(text: str) -> None:
    with pytest.raises(BadDocument, match="CSV"):
        read_surge(text)


def test_traces_are_read_with_either_decimal_and_thinned() -> None:
    rows = "\n".join(f"{k}e-6;{k % 7},5;{k % 5},25" for k in range(900))
    step, traces = read_surge("t;A;B\n" + rows)
    assert list(traces) == ["A", "B"]
    assert len(traces["A"]) <= 400
    assert step == pytest.approx(3e-6)


def test_steps_that_fall_and_bend() -> None:
    assert stepped([(500, 400), (1000, 396), (1500, 390)]).fall_percent == pytest.approx(2.5)
    bent = stepped([(500, 400), (1000, 390), (1500, 120)])
    assert (bent.bend, bent.at_volt) == (1500, 1500)
    for bad in ([(500, 4)], [(500, 4), (400, 4)], [(500, 0), (900, 4)]):
        with pytest.raises(ValueOutOfRange):
            stepped(bad)


def test_a_heat_run_is_held_against_its_class() -> None:
    run = {
        "kind": "heat-run",
        "cold_ohm": 2.6,
        "cold_c": 20,
        "air_c": 22,
        "hot": [[30, 3.50], [60, 3.48], [90, 3.46], [120, 3.44]],
    }
    unknown = found_of("temperature-rise", *SIX_LEADS, run)
    assert unknown is not None
    assert (unknown.verdict, "class A, assumed" in unknown.why) == ("unproven", True)
    class_f = {"kind": "winding-made", "field": "class", "text": "F"}
    good = found_of("temperature-rise", *SIX_LEADS, class_f, run)
    assert good is not None
    assert (good.verdict, good.limit) == ("good", 105)
    class_a = {"kind": "winding-made", "field": "class", "text": "A"}
    hot = found_of("temperature-rise", *SIX_LEADS, class_a, run)
    assert hot is not None
    assert hot.verdict == "hold"
    one = found_of("temperature-rise", *SIX_LEADS, class_f, run | {"hot": [[30, 3.5]]})
    assert one is not None
    assert one.verdict == "unproven"
    wrong = found_of("temperature-rise", *SIX_LEADS, run | {"hot": [[30, 2.0], [60, 2.1]]})
    assert wrong is not None
    assert "Wanted" in wrong.why


@pytest.mark.parametrize(
    ("watt", "enclosure", "factor", "limit"),
    [
        (2200, "", 1.0, 105),  # IEC 60034-1, 1 c)
        (370, "IP55", 1.0, 110),  # 1 d): under 600 W
        (2200, "TENV", 1.0, 110),  # 1 e): without fan; NEMA MG 1, 12.43 the same
        (2200, "IC 410", 1.15, 110),
        (2200, "TEFC", 1.15, 115),  # NEMA MG 1, 12.43, at its service factor
    ],
)
def test_a_class_has_a_rise_for_each_kind_of_motor(
    watt: float, enclosure: str, factor: float, limit: float
) -> None:
    assert rise_limit("F", watt, enclosure, factor)[0] == limit


# --- drying ---------------------------------------------------------------------------------------


def campaign(*told: tuple[float, float, float]) -> list[DryRead]:
    return [DryRead(hour=h, megohm=m, at_c=c) for h, m, c in told]


@pytest.mark.parametrize(
    ("told", "phase"),
    [
        (((0, 0.5, 18),), "begun"),
        (((0, 0.5, 18), (4, 0.3, 60)), "falling"),
        (((0, 0.5, 18), (4, 0.3, 60), (8, 0.31, 75)), "turned"),
        (((0, 0.5, 18), (8, 0.3, 75), (16, 2.0, 80)), "rising"),
        (((0, 0.5, 18), (8, 0.3, 75), (16, 9.0, 80), (24, 9.5, 80)), "levelled"),
        (((0, 0.5, 18), (8, 0.3, 75), (16, 1.0, 80), (44, 1.05, 80)), "stuck"),
        (((0, 0.5, 18), (8, 0.3, 75), (16, 2.0, 80), (24, 1.2, 80)), "falling"),
    ],
)
def test_the_phases_of_drying(told: tuple[tuple[float, float, float], ...], phase: str) -> None:
    found = drying_of(campaign(*told), 5.0)
    assert found.phase == phase
    assert found.done == (phase == "levelled")
    assert found.why


def test_too_hot_and_too_fast_are_told() -> None:
    found = drying_of(campaign((0, 1, 20), (1, 1, 55), (4, 1, 97)), 5.0)
    assert (found.too_hot, found.too_fast) == (97, 35)
    calm = drying_of(campaign((0, 1, 20), (4, 1, 60)), 5.0)
    assert (calm.too_hot, calm.too_fast) == (None, None)
    with pytest.raises(ValueOutOfRange):
        drying_of(campaign((4, 1, 20), (0, 1, 20)), 5.0)


def test_a_campaign_is_folded_from_tests_between_its_ends() -> None:
    begin = {"kind": "drying", "act": "begin", "method": "oven"}
    wet = INSULATED | {"megohm": 0.5, "test_volt": 100}
    found = found_of("drying", *SIX_LEADS, wet, begin, wet | {"megohm": 0.2, "at_c": 60})
    assert found is not None
    assert found.verdict == "watch"
    assert found_of("drying-out", *SIX_LEADS, wet, begin) is not None
    assert found_of("drying-out", *SIX_LEADS, wet, begin | {"out": ["bearings"]}) is None
    ended = judged(*SIX_LEADS, wet, begin, wet, {"kind": "drying", "act": "end"})
    assert not any(f.code == "drying" for f in ended.findings)


def step_of(*readings: tuple[float, float]) -> str:
    """Return the title of the next step after readings (MΩ, °C) ten hours apart while it dries."""
    log = entries(*SIX_LEADS, {"kind": "drying", "act": "begin", "out": ["bearings"]})
    for k, (megohm, at_c) in enumerate(readings):
        day, hour = divmod(10 * (k + 1), 24)
        test = INSULATED | {"megohm": megohm, "at_c": at_c, "test_volt": 100}
        for n, body in enumerate((test, DRAINED, MADE_READY)):
            at = f"2026-03-{2 + day:02d}T{hour:02d}:{n:02d}:00Z"
            told = {"id": f"d{k}{n}", "at": at, "by": "AB", "station": "insulation", "body": body}
            log.append(Entry.model_validate(told))
    tester = Settings().changed({"schools": {"frame-test": "tester always"}})
    step = judge(fold(log), tester).next
    assert step is not None
    return step.title


def test_what_comes_next_follows_the_drying() -> None:
    assert step_of((0.5, 60), (0.3, 70)) == "Read it again while it dries"
    assert step_of((0.5, 60), (0.2, 80), (2.0, 80), (2.1, 80)) == "End drying"
    stuck = [(0.2, 80)] * 5
    assert step_of((0.5, 60), *stuck).startswith("Find it")


def test_cleaning_shows_before_and_after() -> None:
    work = {"kind": "work", "what": "cleaned", "method": "steam", "hours": 2}
    told = judged(*SIX_LEADS, INSULATED | {"megohm": 3}, work, INSULATED | {"megohm": 90})
    found = next(f for f in told.findings if f.code.startswith("work-"))
    assert "2.29 to 68.6" in found.subject
    assert "steam" in found.why


@pytest.mark.parametrize(
    ("one", "two", "hours"),
    [
        ("2026-02-26T10:30:00Z", "2026-02-26T12:00:00Z", 1.5),
        ("2024-02-28T00:00:00Z", "2024-03-01T00:00:00Z", 48),
        ("2025-12-31T23:00:00Z", "2026-01-01T01:00:00.500000Z", 2 + 0.5 / 3600),
    ],
)
def test_hours_between_two_times(one: str, two: str, hours: float) -> None:
    assert hours_between(one, two) == pytest.approx(hours)


def test_the_shop_names_reference_and_constant() -> None:
    """2.600 Ω at 20 °C: 2.600·(234.5 + 40)/(234.5 + 20) = 2.8043, by IEC ·275/255 = 2.8039."""
    log = [*SIX_LEADS, *three(2.6, 2.6, 2.6)]
    for constant, ohm in (("234.5", 2.80432), ("235", 2.80392)):
        shop = Settings().changed({"schools": {"reference": "40 °C", "copper-constant": constant}})
        found = judged(*log, settings=shop)
        got = measured(
            found.job, found.facts.identification, found.facts.naming, found.facts.wall, shop
        )
        assert got is not None
        assert got.at_c == 40
        assert got.ohm["T1-T4"] == pytest.approx(ohm, rel=1e-5)


@pytest.mark.parametrize(
    ("periods", "by", "verdict", "words"),
    [
        ((40, 40.1, 40.05), "windings", "good", "usual"),
        ((40, 41.2), "windings", "watch", "rotor"),
        ((40, 40.05, 36), "windings", "hold", "faster"),
        ((40, 41.2), "volts", "hold", "changes with the volts"),
    ],
)
def test_surges_as_a_finding(periods: tuple[float, ...], by: str, verdict: str, words: str) -> None:
    traces = {n: ring(p) for n, p in zip("ABC", periods, strict=False)}
    found = found_of("surge", {"kind": "surge", "traces": traces, "step_s": 1e-6, "by": by})
    assert found is not None
    assert found.verdict == verdict
    assert words in found.why
