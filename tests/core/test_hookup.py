"""The hookup check: right ones, every single slip of them, and absurd ones."""

import random
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from careful_coil.core.connect import Check, Hookup, Plan, Plate, Supplied, check
from careful_coil.core.connect.check import right_plan
from careful_coil.core.connect.explain import slips_of
from careful_coil.core.connect.hookup import start_and_run
from careful_coil.core.connect.slips import likely_slips, words_of
from careful_coil.core.errors import BadDocument, NotKnownYet
from careful_coil.core.ways.devices import Device
from careful_coil.core.winding import ARRANGEMENTS

SIX, NINE, TWELVE = "three-phase-6-lead", "three-phase-9-lead-wye", "three-phase-12-lead"
DELTA9, FOUR, CRS = "three-phase-9-lead-delta", "single-phase-4-lead", "single-phase-3-lead"
DUAL = "single-phase-dual-voltage-6-lead"
RATED = {SIX: (230, 400), DUAL: (115, 230), "single-phase-dual-voltage-8-lead": (115, 230)}


def motor(slug: str, volt: float, joints: object = (), **change: object) -> Hookup:
    low, high = RATED.get(slug, (230, 460))
    volts: tuple[tuple[float, float], ...] = ((low, low), (high, high))
    if slug in (FOUR, CRS, "universal-4-lead", "universal-5-lead", "single-phase-speed-taps"):
        volts = ((volt, volt),)
    hookup = Hookup(
        arrangement=slug,
        joints=tuple(tuple(j) for j in joints),  # type: ignore[attr-defined]
        plate=Plate(volts, 60),
        supply=Supplied(phases=ARRANGEMENTS[slug].phases, volt=volt),
        coil_ohm=2.0,
        family="wye" if slug == TWELVE else "",
        rpm=1755.0,
    )
    return replace(hookup, **change)  # type: ignore[arg-type]


def right(slug: str, volt: float) -> tuple[Hookup, Plan]:
    hookup = motor(slug, volt)
    found, why = right_plan(hookup)
    assert found is not None, why
    return hookup.of_plan(found), found


def codes(found: Check) -> set[str]:
    return {f.code for f in found.faults}


MOTORS = [
    (SIX, 400),
    (SIX, 230),
    (NINE, 460),
    (NINE, 230),
    (DELTA9, 460),
    (DELTA9, 230),
    (TWELVE, 460),
    (TWELVE, 230),
]
SINGLES = [
    (DUAL, 115),
    (DUAL, 230),
    ("single-phase-dual-voltage-8-lead", 115),
    ("single-phase-dual-voltage-8-lead", 230),
]


@pytest.mark.parametrize(("slug", "volt"), MOTORS + SINGLES)
def test_a_right_hookup_is_sound_whichever_two_lines_are_exchanged(slug: str, volt: float) -> None:
    hookup, found = right(slug, volt)
    straight = check(hookup)
    assert (straight.verdict, straight.connection) == ("sound", found.connection)
    assert not straight.rotation_reversed
    assert all(r == pytest.approx(1.0) for r in straight.figures.line_amp_ratio.values())
    if ARRANGEMENTS[slug].phases == 3:
        other = {"L1": "L3", "L3": "L1"}
        swapped = check(
            replace(hookup, joints=tuple(tuple(other.get(n, n) for n in j) for j in hookup.joints))
        )
        assert (swapped.verdict, swapped.rotation_reversed) == ("sound", True)
        assert swapped.figures.field == "backward"
        assert [f.severity for f in swapped.faults] == ["watch"]


@pytest.mark.parametrize(("slug", "volt"), MOTORS + SINGLES)
def test_every_single_slip_is_found_and_named(slug: str, volt: float) -> None:
    """Unless the figures are those of the right hookup: then it is none."""
    hookup, found = right(slug, volt)
    good = start_and_run(hookup)[1]
    for slip in slips_of(hookup.inside(), found.joints):
        wrong = replace(hookup, joints=slip.done_to(found.joints))
        shown = check(wrong)
        if shown.verdict == "sound":
            made = start_and_run(wrong)[1]
            one, two = (sorted(a.coil_volt.values()) for a in (made, good))
            assert one == pytest.approx(two, rel=0.02)
            continue
        named = {n for f in shown.faults for n in (*f.coils, *f.leads)}
        wanted = set(slip.coils or slip.leads or slip.joint)
        assert named & wanted or "short-circuit" in codes(shown), slip.text()
        if slip.kind in ("coil-reversed", "coils-exchanged") and slug not in (DUAL,):
            assert slip.kind in codes(shown), slip.text()


@pytest.mark.parametrize(("slug", "volt"), [m for m in MOTORS if m[0] in (SIX, NINE, TWELVE)])
def test_ohms_cannot_see_a_reversed_or_exchanged_equal_coil(slug: str, volt: float) -> None:
    hookup, found = right(slug, volt)
    turned = [s for s in likely_slips(hookup, found) if s.slip and s.slip.kind == "coil-reversed"]
    assert turned
    for likely in turned:
        assert not likely.ohms_show
        assert likely.run_shows
        assert likely.kick is not None
        assert likely.cheapest == "run"
        words = " ".join(words_of(likely))
        assert "Ohms cannot show it" in words
        assert "A kick on the loose leads shows it" in words
        wrong = check(replace(hookup, joints=likely.slip.done_to(found.joints)))  # type: ignore[union-attr]
        assert all(f.shown_by_ohms is False for f in wrong.faults if f.severity == "hold")


def test_in_a_nine_lead_delta_an_exchange_of_four_and_five_leaves_open_line_pairs() -> None:
    hookup, found = right(DELTA9, 460)
    likely = next(s for s in likely_slips(hookup, found) if s.slip and s.slip.leads == ("T4", "T5"))
    assert likely.ohms is not None
    assert likely.cheapest == "ohms"
    lost = [s for s in likely_slips(hookup, found) if s.slip and s.slip.kind == "joint-open"]
    assert all(s.ohms_show for s in lost)


def test_high_for_low_doubles_the_volts_and_is_dangerous() -> None:
    _, low = right(NINE, 230)
    shown = check(motor(NINE, 460, low.joints))
    assert shown.verdict == "dangerous"
    assert shown.connection == low.connection
    assert {"wrong-connection", "coil-overvolted"} <= codes(shown)
    assert shown.figures.line_amp_ratio["L1"] == pytest.approx(4.0)
    assert shown.coil_rated_volt is not None
    assert shown.figures.coil_volt["T1-T4"] == pytest.approx(2 * shown.coil_rated_volt["T1-T4"])


def test_low_for_high_is_wrong_and_weak() -> None:
    _, high = right(NINE, 460)
    shown = check(motor(NINE, 230, high.joints))
    assert shown.verdict == "wrong"
    assert "coil-undervolted" in codes(shown)


def test_joints_of_two_hookups_are_told_apart() -> None:
    joints = [["L1", "T1", "T7"], ["L2", "T2"], ["L3", "T3"], ["T5", "T8"], ["T6", "T9"]]
    found = next(f for f in check(motor(NINE, 230, joints)).faults if f.code == "mixed-hookup")
    low, high = found.text.split(";")
    assert "L1–T1–T7 belongs to low volts" in low
    assert "T5–T8" in high
    assert "high volts" in high


def test_delta_on_a_wye_supply_is_173_percent() -> None:
    _, delta = right(SIX, 230)
    shown = check(motor(SIX, 400, delta.joints))
    assert shown.verdict == "dangerous"
    assert any("174%" in f.text or "173%" in f.text for f in shown.faults)


@pytest.mark.parametrize(
    ("joints", "wanted"),
    [
        ([["L1", "T1", "L2"]], {"short-circuit"}),
        ([["L1", "T1", "T4"], ["L2", "T2"], ["L3", "T3"]], {"coil-shorted", "open-coil"}),
        (
            [["L1", "T1"], ["L2", "T2"], ["T4", "T5", "T6"], ["T3"]],
            {"single-phased", "lead-unused"},
        ),
        ([["L1", "T1", "X9"], ["L2", "T2"], ["L3", "T3"], ["T4", "T5", "T6"]], {"unknown-lead"}),
        (
            [["L1", "T1"], ["L2", "T2"], ["L3", "T3"], ["T4", "T5"], ["T5", "T6"]],
            {"lead-in-two-joints"},
        ),
        ([], {"open-coil", "lead-unused"}),
        ([["L1", "T1"], ["L2", "T2"], ["L3", "T3"], ["T4", "T5"]], {"open-coil", "single-phased"}),
    ],
)
def test_absurd_hookups_are_answered(joints: object, wanted: set[str]) -> None:
    shown = check(motor(SIX, 400, joints))
    assert wanted <= codes(shown)
    assert shown.verdict in ("wrong", "dangerous")
    assert all(f.text for f in shown.faults)


@settings(max_examples=36, deadline=None)
@given(st.sampled_from(sorted(ARRANGEMENTS)), st.integers(0, 10**6))
def test_any_joints_get_a_verdict(slug: str, seed: int) -> None:
    """Nothing drawn at random crashes; sound only with the right figures."""
    chance = random.Random(seed)
    names = [*ARRANGEMENTS[slug].network.leads, "L1", "L2", "L3", "N", "T99"]
    joints = [chance.sample(names, chance.randint(1, 4)) for _ in range(chance.randint(0, 6))]
    shown = check(motor(slug, chance.choice((115, 230, 460)), joints))
    assert shown.verdict in ("sound", "wrong", "dangerous")
    assert (shown.verdict == "sound") == all(f.severity != "hold" for f in shown.faults)


def test_a_supply_it_cannot_take_is_a_finding() -> None:
    _, high = right(NINE, 460)
    shown = check(motor(NINE, 560, high.joints))
    assert "supply-mismatch" in codes(shown)
    assert shown.verdict == "wrong"
    assert all(f.shown_by_ohms is None for f in shown.faults if f.severity == "hold")
    single = check(motor(NINE, 460, high.joints, supply=Supplied(phases=1, volt=460)))
    assert {"supply-mismatch", "unknown-lead"} <= codes(single)


def test_volts_at_the_edge_are_a_watch() -> None:
    _, low = right(NINE, 230)
    shown = check(motor(NINE, 208, low.joints))
    assert shown.verdict == "sound"
    assert [(f.code, f.severity) for f in shown.faults] == [("supply-at-edge", "watch")]


def test_too_much_flux_is_a_hold() -> None:
    _, high = right(NINE, 460)
    shown = check(motor(NINE, 460, high.joints, supply=Supplied(phases=3, volt=460, hertz=50)))
    assert shown.verdict == "wrong"


RUN = Device(name="C1", kind="capacitor-run", microfarad=25)
STARTER = Device(name="C1", kind="capacitor-start", microfarad=160)
SWITCH = Device(name="S1", kind="speed-switch")


@pytest.mark.parametrize(
    ("slug", "devices", "joints", "wanted", "verdict"),
    [
        (CRS, (RUN,), [["L1", "run", "C1.1"], ["C1.2", "start"], ["L2", "common"]], set(), "sound"),
        (
            CRS,
            (RUN,),
            [["L1", "start", "C1.1"], ["C1.2", "run"], ["L2", "common"]],
            {"forbidden-pair"},
            "dangerous",
        ),
        (
            CRS,
            (),
            [["L1", "run", "start"], ["L2", "common"]],
            {"start-stays-in", "forbidden-pair"},
            "dangerous",
        ),
        (
            CRS,
            (RUN,),
            [["L1", "run", "C1.1"], ["L2", "common", "C1.2"]],
            {"capacitor-across-line", "start-never-in"},
            "wrong",
        ),
        (
            CRS,
            (RUN,),
            [["L1", "run"], ["L2", "common"], ["C1.1", "start"]],
            {"device-misplaced", "start-never-in"},
            "wrong",
        ),
        (
            FOUR,
            (SWITCH, STARTER),
            [
                ["L1", "main-1", "S1.1"],
                ["S1.2", "C1.1"],
                ["C1.2", "aux-1"],
                ["N", "main-2", "aux-2"],
            ],
            set(),
            "sound",
        ),
        (
            FOUR,
            (SWITCH, STARTER),
            [
                ["L1", "main-1", "C1.1", "S1.1", "S1.2"],
                ["C1.2", "aux-1"],
                ["L2", "main-2", "aux-2"],
            ],
            {"start-stays-in", "device-misplaced"},
            "dangerous",
        ),
    ],
)
def test_start_circuits(
    slug: str, devices: tuple[Device, ...], joints: object, wanted: set[str], verdict: str
) -> None:
    shown = check(motor(slug, 230, joints, devices=devices))
    assert wanted <= codes(shown)
    assert shown.verdict == verdict
    if devices:
        assert [s.state for s in shown.states] == ["start", "run"]


def test_direct_current_does_not_pass_a_capacitor_but_a_closed_switch() -> None:
    devices = (SWITCH, Device(name="C9", kind="capacitor-run", microfarad=5))
    joints = [
        ["L1", "main-1", "S1.1", "C9.1"],
        ["S1.2", "aux-1", "C9.2"],
        ["L2", "main-2", "aux-2"],
    ]
    shown = check(motor(FOUR, 230, joints, devices=devices))
    assert [s.line_ohm["L1-L2"] for s in shown.states] == pytest.approx([1.0, 2.0])


def test_a_universal_motor_knows_its_direction() -> None:
    straight = [["L1", "field-1"], ["field-2", "armature-1"], ["armature-2", "L2"]]
    back = [["L1", "field-1"], ["field-2", "armature-2"], ["armature-1", "L2"]]
    one, two = (check(motor("universal-4-lead", 230, j, rpm=9000.0)) for j in (straight, back))
    assert (one.verdict, one.rotation_reversed, one.figures.field) == ("sound", False, "forward")
    assert (two.verdict, two.rotation_reversed, two.figures.field) == ("sound", True, "backward")
    assert one.figures.line_ohm["L1-L2"] == pytest.approx(4.0)


def test_two_taps_on_the_line_are_forbidden() -> None:
    joints = [["L1", "high"], ["L2", "low"], ["run", "C1.1"], ["C1.2", "start"]]
    shown = check(motor("single-phase-speed-taps", 230, joints, devices=(RUN,)))
    assert shown.verdict == "dangerous"
    assert "forbidden-pair" in codes(shown)


@pytest.mark.parametrize(
    ("ohm", "words"),
    [
        ({"T1-T4": 2.0}, "T2-T5"),
        ({"T1-T9": 2.0}, "T1-T9"),
        (0.0, "above nothing"),
        (float("nan"), "above"),
    ],
)
def test_coil_ohms_that_cannot_be_are_refused(ohm: object, words: str) -> None:
    with pytest.raises(BadDocument, match=words):
        check(motor(SIX, 400, (), coil_ohm=ohm))


def test_an_unknown_arrangement_is_refused() -> None:
    with pytest.raises(NotKnownYet):
        check(motor(SIX, 400, (), arrangement="three-phase-7-lead"))
