"""The simulated meter: what it shows of a hidden motor, through the port real ones will use."""

import pytest

from careful_coil.bench import Instrument, Request
from careful_coil.bench.simulated import HiddenMotor, SimulatedMeter
from careful_coil.core.condition.typed import read_insulation
from careful_coil.core.errors import InstrumentError
from careful_coil.core.job import fold
from careful_coil.core.readings import Meter
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.demo import demo_jobs
from careful_coil.demo.truths import TRUTHS, demo_meter
from tests.core.logs import entries, leads

SIX = ARRANGEMENTS["three-phase-6-lead"].network.with_ohm({"coil": 4.0})
MOTOR = HiddenMotor(network=SIX, lead_of={f"{k}": f"T{k}" for k in range(1, 7)}, frame_megohm=300.0)
METER = Meter(accuracy_percent=1.0, resolution_ohm=0.01, lead_ohm=0.2)


@pytest.fixture
def meter() -> Instrument:
    return SimulatedMeter(MOTOR, seed=3, meter=METER)


def figure(meter: Instrument, request: Request) -> float:
    return float(meter.show(request).text)


def test_it_shows_ohms_within_its_accuracy_with_its_leads(meter: Instrument) -> None:
    shown = [figure(meter, Request(kind="resistance", ends=("1", "4"))) for _ in range(20)]
    assert all(abs(x - 0.2 - 4.0) < 4.0 * 0.015 + 0.01 for x in shown)
    assert all(round(x, 2) == x for x in shown)


def test_its_gain_is_the_same_for_all_readings(meter: Instrument) -> None:
    shown = [figure(meter, Request(kind="resistance", ends=("1", "4"))) for _ in range(20)]
    assert max(shown) - min(shown) < 4.0 * 0.008


def test_leads_that_do_not_belong_together_are_open(meter: Instrument) -> None:
    assert meter.show(Request(kind="resistance", ends=("1", "2"))).text == "open"
    assert meter.show(Request(kind="frame", ends=("1",))).text == "open"


@pytest.mark.parametrize(
    ("source", "sense", "word"),
    [
        (("1", "4"), ("2", "5"), "down-small"),
        (("1", "4"), ("5", "2"), "up-small"),
        (("1", "4"), ("1", "4"), "up-large"),
        (("1", "4"), ("4", "1"), "down-large"),
    ],
)
def test_kicks_follow_the_winding(
    meter: Instrument, source: tuple[str, str], sense: tuple[str, str], word: str
) -> None:
    assert meter.show(Request(kind="kick", ends=source, sense=sense)).text == word


def test_lines_are_read_through_the_joints_made(meter: Instrument) -> None:
    joints = (("L1", "1"), ("L2", "2"), ("4", "5", "6"))
    assert figure(meter, Request(kind="line", ends=("L1", "L2"), joints=joints)) == pytest.approx(
        8.2, abs=0.15
    )
    assert meter.show(Request(kind="line", ends=("L1", "L3"), joints=joints)).text == "open"


def test_a_switch_opens_only_in_the_start_path() -> None:
    network = ARRANGEMENTS["single-phase-3-lead"].network
    lead_of = {"A": "run", "B": "start", "C": "common"}
    meter = SimulatedMeter(
        HiddenMotor(network=network, lead_of=lead_of, start_device="switch"), seed=1
    )
    words = {p: meter.show(Request(kind="switch", ends=tuple(p))).text for p in ("AB", "BC", "AC")}
    assert words == {"AB": "opens", "BC": "opens", "AC": "stays"}


def test_a_capacitor_in_the_path_keeps_rising() -> None:
    network = ARRANGEMENTS["single-phase-3-lead"].network
    lead_of = {"A": "run", "B": "start", "C": "common"}
    meter = SimulatedMeter(
        HiddenMotor(network=network, lead_of=lead_of, start_device="capacitor"), seed=1
    )
    shown = meter.show(Request(kind="resistance", ends=("B", "C")))
    assert (shown.text, shown.steady) == ("rising", False)
    assert meter.show(Request(kind="resistance", ends=("A", "C"))).steady


def test_a_bad_clip_reads_high_once_and_right_when_taken_again() -> None:
    bad = HiddenMotor(network=SIX, lead_of=MOTOR.lead_of, bad_clips={frozenset(("T1", "T4")): 2.0})
    meter = SimulatedMeter(bad, seed=3, meter=METER)
    request = Request(kind="resistance", ends=("1", "4"))
    assert figure(meter, request) > 7.5
    assert figure(meter, request) < 4.5


def test_insulation_and_bond_have_their_own_ranges(meter: Instrument) -> None:
    assert meter.show(Request(kind="insulation", ends=())).unit == "MΩ"
    assert figure(meter, Request(kind="bond", ends=("earth lead", "frame"))) == pytest.approx(
        0.03, abs=0.01
    )


def test_insulation_climbs_with_the_minutes_and_any_size_can_be_read() -> None:
    for megohm in (0.02, 3.1, 999.0, 40000.0):
        motor = HiddenMotor(network=SIX, lead_of=MOTOR.lead_of, frame_megohm=megohm, leak_share=0.3)
        meter = SimulatedMeter(motor, seed=1, meter=METER)
        early, minute, late = (
            read_insulation(meter.show(Request(kind="insulation", ends=(), seconds=s)).text).megohm
            for s in (15.0, 60.0, 600.0)
        )
        assert minute == pytest.approx(megohm, rel=0.03)
        assert late / minute == pytest.approx(1 / (0.3 + 0.7 * 10**-0.75), rel=0.03)
        assert early < minute


def test_a_lead_the_motor_has_not_gives_no_reading(meter: Instrument) -> None:
    with pytest.raises(InstrumentError, match="no lead 9"):
        meter.show(Request(kind="resistance", ends=("1", "9")))


def test_every_demo_motor_has_a_hidden_truth_with_its_own_tags() -> None:
    for job in demo_jobs():
        assert set(TRUTHS[job.id].lead_of) == set(fold(job.entries).tags)


@pytest.mark.parametrize(
    ("count", "has"), [(3, True), (6, True), (9, True), (12, True), (4, False), (13, False)]
)
def test_a_new_demo_job_gets_a_spare_motor_where_one_fits(count: int, has: bool) -> None:
    job = fold(entries(leads(*"ABCDEFGHJKLMN"[:count])))
    assert (demo_meter("new", 400, job) is not None) == has
