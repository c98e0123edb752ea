"""Every hookup of every arrangement, proved by the network; choosing one for a supply."""

import itertools
import math
from dataclasses import replace

import pytest

from careful_coil.core.connect import Hookup, Plan, Plate, Supplied, Wish, check, plan
from careful_coil.core.connect.hookup import answer
from careful_coil.core.connect.plans import against_default, with_direction
from careful_coil.core.errors import CannotConnect, NotKnownYet
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.devices import Device
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.core.winding.markings import leads_of, mark_of

TWELVE, EIGHT = "three-phase-12-lead", "single-phase-dual-voltage-8-lead"
SIX, DUAL = "three-phase-6-lead", "single-phase-dual-voltage-6-lead"
ROOT3 = math.sqrt(3)
EVERY = [
    p
    for slug, a in sorted(ARRANGEMENTS.items())
    for variant in ("", *a.variants)
    for p in plans_of(slug, variant)
]
NAMES = [
    f"{p.arrangement} {p.variant} {p.connection} {'back' if p.reversed else ''}" for p in EVERY
]


def at(p: Plan, volt: float = 400.0) -> Hookup:
    """The plan on a supply of its own phases, rated for it."""
    return Hookup(
        arrangement=p.arrangement,
        variant=p.variant,
        joints=p.joints,
        devices=p.devices,
        plate=Plate(((volt, volt),), 50),
        supply=Supplied(phases=ARRANGEMENTS[p.arrangement].phases, volt=volt, hertz=50),
    )


@pytest.mark.parametrize("p", EVERY, ids=NAMES)
def test_each_hookup_is_what_it_says(p: Plan) -> None:
    """Each lead once; three phases: every coil the volts of its factor and no backward field."""
    names = list(itertools.chain(*p.joints))
    assert len(names) == len(set(names))
    shown = answer(at(p), "start", 1.0, p.field)
    assert shown.shorted == ()
    if ARRANGEMENTS[p.arrangement].phases == 3:
        assert shown.backward < 1e-9 * shown.forward
        assert shown.turn == 1
        live = [v for n, v in shown.coil_volt.items() if abs(shown.coil_amp[n]) > 1e-9]
        assert live == pytest.approx([live[0]] * len(live), rel=1e-9)
        if not p.speed:
            assert live[0] == pytest.approx(400 / p.factor, rel=1e-9)
        assert {round(a, 6) for a in shown.line_amp.values()} == {round(shown.line_amp["L1"], 6)}
    else:
        assert max(shown.line_amp.values()) > 0


@pytest.mark.parametrize(
    "p",
    [p for p in EVERY if p.reversed],
    ids=[n for n, p in zip(NAMES, EVERY, strict=True) if p.reversed],
)
def test_the_other_direction_is_the_other_direction(p: Plan) -> None:
    forward = next(
        q
        for q in plans_of(p.arrangement, p.variant)
        if q.connection == p.connection and not q.reversed
    )
    one, two = answer(at(forward), "start"), answer(at(p), "start")
    if p.devices or "universal" in p.arrangement:
        assert one.turn * two.turn == -1
    assert one.line_ohm == pytest.approx(two.line_ohm)


@pytest.mark.parametrize(
    ("slug", "connection", "ohm"),
    [
        (SIX, "delta", 2 / 3),
        (SIX, "wye", 2.0),
        (TWELVE, "low volts: two deltas in parallel", 1 / 3),
        (TWELVE, "low volts: two wyes in parallel", 1.0),
        (TWELVE, "high volts: halves in series, delta", 4 / 3),
        (TWELVE, "high volts: halves in series, wye", 4.0),
        (DUAL, "low volts: mains in parallel", 1 / (2 + 1 / 3)),
        (DUAL, "high volts: mains in series", 1 + 3 / 4),
        (EIGHT, "low volts: mains in parallel", 1 / (2 + 2 / 3)),
        ("universal-4-lead", "field and armature in series", 2.0),
    ],
)
def test_line_ohms_of_the_trade(slug: str, connection: str, ohm: float) -> None:
    """Wye 2r, delta ⅔r; halves 4r and r, 4⁄3 r and r/3; m + m∥a, m/2 ∥ a with a = 3."""
    found = next(p for p in plans_of(slug) if p.connection == connection)
    aux = 3.0 if "dual" in slug else 1.0
    coils = {
        c.name: aux if c.like == "auxiliary" else 1.0 for c in ARRANGEMENTS[slug].network.coils
    }
    assert found.line_ohm(coils)["L1-L2"] == pytest.approx(ohm)


def choose(slug: str, rated: str, volt: float, **wish: object) -> Plan:
    volts = tuple((float(v), float(v)) for v in rated.split("/"))
    return plan(slug, Plate(volts, 60), volt, 60, replace(Wish(), **wish))  # type: ignore[arg-type]


def test_twelve_leads_with_two_ratings_are_a_question_until_the_family_is_known() -> None:
    with pytest.raises(CannotConnect, match="173 %"):
        choose(TWELVE, "230/460", 460)
    assert choose(TWELVE, "230/460", 460, family="wye").connection.endswith("series, wye")
    assert choose(TWELVE, "230/460", 460, family="delta").connection.endswith("series, delta")


@pytest.mark.parametrize(
    ("volt", "words"), [(230, "two deltas"), (400, "two wyes"), (460, "series, delta")]
)
def test_a_third_rating_answers_it(volt: float, words: str) -> None:
    assert words in choose(TWELVE, "230/400/460", volt).connection


def test_wye_start_only_where_delta_takes_the_supply() -> None:
    """A 230/400 V motor started in wye on 400 V would end on 173 %."""
    found = choose(SIX, "400/690", 400, start="wye-delta")
    assert [s.name for s in found.stages] == ["star", "delta"]
    star = at(replace(found, joints=found.stages[0].joints))
    third = answer(star, "start").line_amp["L1"] / answer(at(found), "start").line_amp["L1"]
    assert third == pytest.approx(1 / 3, rel=1e-9)
    with pytest.raises(CannotConnect, match="wye-delta start needs"):
        choose(SIX, "230/400", 400, start="wye-delta")


def test_wye_start_with_one_rating_asks_what_it_is_for() -> None:
    """One rating of 400 V may be the wye's: then delta would put 173 % on the coils."""
    with pytest.raises(CannotConnect, match="delta or wye"):
        choose(SIX, "400", 400, start="wye-delta")
    assert choose(SIX, "400", 400, start="wye-delta", family="delta").stages


def test_half_a_winding_first_gives_about_half_the_torque() -> None:
    for slug in ("three-phase-part-winding-6-lead", "three-phase-9-lead-wye"):
        rated = "460" if "part" in slug else "230/460"
        found = choose(slug, rated, 460 if "part" in slug else 230, start="part-winding")
        half = at(replace(found, joints=found.stages[0].joints))
        full = answer(at(found), "start").steady.torque[0]
        assert 0.25 < answer(half, "start").steady.torque[0] / full < 0.6


@pytest.mark.parametrize(
    ("slug", "rated", "volt", "wish", "words"),
    [
        ("three-phase-two-speed-6-lead", "400", 400, {}, "low, high"),
        ("three-phase-two-speed-6-lead", "400", 400, {"speed": "medium"}, "low, high"),
        (SIX, "230/400", 400, {"speed": "low"}, "one speed"),
        (SIX, "400", 400, {}, "delta or wye"),
        (SIX, "230/400", 400, {"phases": 1}, "drive"),
        (DUAL, "115/230", 230, {"phases": 3}, "two lines"),
        (DUAL, "115/230", 230, {"start": "wye-delta"}, "direct"),
        ("three-phase-9-lead-wye", "230/460", 460, {"family": "delta"}, "only as wye"),
        ("three-phase-3-lead", "230/400", 400, {}, "one connection"),
        ("single-phase-3-lead", "230", 230, {"reverse": True}, "opening the motor"),
        (
            "single-phase-two-speed-coil",
            "230",
            230,
            {"speed": "low", "reverse": True},
            "end for end",
        ),
        ("three-phase-9-lead-wye", "230/460", 300, {}, "230 V or 460 V"),
    ],
)
def test_what_cannot_be_is_refused_with_the_reason(
    slug: str, rated: str, volt: float, wish: dict[str, object], words: str
) -> None:
    with pytest.raises(CannotConnect, match=words):
        choose(slug, rated, volt, **wish)


def test_an_unknown_inside_names_those_there_are() -> None:
    with pytest.raises(NotKnownYet, match="constant-power"):
        choose("three-phase-two-speed-6-lead", "400", 400, variant="square")


def test_one_rating_and_a_family_are_enough() -> None:
    assert choose(SIX, "400", 400, family="delta").connection == "delta"


def test_tap_by_tap() -> None:
    """Slower taps: more ohms from the line, less current."""
    amps = []
    for tap in ("high", "tap-1", "tap-2", "tap-3", "low"):
        found = choose("single-phase-speed-taps", "230", 230, variant="five", speed=tap)
        assert ("L1", tap) in found.joints
        assert sum(t in n for n in ("high", "low") for j in found.joints for t in j) <= 1
        amps.append(answer(at(found, 230), "run", 0.1).line_amp["L1"])
    assert amps == sorted(amps, reverse=True)


@pytest.mark.parametrize(
    ("rotation", "seen", "other"),
    [
        ("cw", "drive-end", False),
        ("ccw", "opposite", False),
        ("cw", "opposite", True),
        ("", "", False),
    ],
)
def test_a_direction_always_has_an_end(rotation: str, seen: str, other: bool) -> None:
    assert against_default(rotation, seen) is other
    with pytest.raises(CannotConnect, match="which end"):
        against_default("cw", "")


def test_reversing_three_phases_exchanges_two_lines_and_says_so() -> None:
    found = choose(SIX, "230/400", 400, reverse=True)
    assert ("L1", "T2") in found.joints
    assert answer(at(found), "start").turn == -1
    assert with_direction(found).startswith("counter-clockwise seen from the drive end")


def test_reversing_dual_voltage_exchanges_five_and_eight() -> None:
    found = choose(EIGHT, "115/230", 115, reverse=True)
    assert {frozenset(j) for j in found.joints} == {
        frozenset({"L1", "T1", "T3", "T5", "T7"}),
        frozenset({"L2", "T2", "T4", "T6", "T8"}),
    }


START = (
    Device(name="S1", kind="speed-switch"),
    Device(name="C1", kind="capacitor-start", microfarad=160),
    Device(name="C2", kind="capacitor-run", microfarad=30),
)


def test_start_and_run_capacitors_stand_where_they_belong() -> None:
    found = plans_of("single-phase-4-lead", devices=START)[0]
    assert set(map(frozenset, found.joints)) == {
        frozenset({"L1", "main-1", "S1.1", "C2.1"}),
        frozenset({"S1.2", "C1.1"}),
        frozenset({"C1.2", "aux-1", "C2.2"}),
        frozenset({"L2", "main-2", "aux-2"}),
    }
    assert check(at(found, 230)).verdict == "sound"
    start, run = (answer(at(found, 230), s, 1.0) for s in ("start", "run"))  # type: ignore[arg-type]
    assert abs(start.coil_amp["aux-1-aux-2"]) > 1.5 * abs(run.coil_amp["aux-1-aux-2"]) > 0


@pytest.mark.parametrize(
    ("slug", "lead", "system", "mark"),
    [
        (SIX, "T4", "IEC", "U2"),
        (SIX, "T6", "letters", "Z"),
        (SIX, "T5", "C", "C5"),
        (TWELVE, "T10", "IEC", "U6"),
        ("three-phase-9-lead-wye", "T7", "IEC", "U5"),
        ("three-phase-4-lead", "neutral", "IEC", "N"),
        ("single-phase-4-lead", "aux-1", "IEC", "Z1"),
        ("single-phase-4-lead", "main-2", "T", "T4"),
        ("universal-4-lead", "armature-2", "IEC", "A2"),
        ("three-phase-two-speed-6-lead", "T6", "IEC", "2U"),
        (SIX, "T1", "T", "T1"),
        ("single-phase-3-lead", "run", "IEC", None),
    ],
)
def test_marks_both_ways(slug: str, lead: str, system: str, mark: str | None) -> None:
    assert mark_of(slug, lead, system) == mark  # type: ignore[arg-type]
    if mark is not None:
        assert leads_of(slug, mark.lower(), ARRANGEMENTS[slug].network.leads) == (lead,)


def test_a_mark_with_two_readings_gives_both() -> None:
    leads = ARRANGEMENTS[SIX].network.leads
    assert leads_of(SIX, "X", leads) == ("T4",)
    assert leads_of(SIX, "B", leads) == ("T2",)
    assert leads_of(SIX, "V", leads) == ("T2",)
    assert leads_of(SIX, "Q", leads) == ()
