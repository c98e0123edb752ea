"""The simulated meter: what it shows of a hidden motor, through the port real ones will use."""

import pytest

from careful_coil.bench import Instrument
from careful_coil.bench.simulated import HiddenMotor, SimulatedMeter
from careful_coil.bench.trial_run import Rig
from careful_coil.core.errors import InstrumentError
from careful_coil.core.job import fold
from careful_coil.core.probes import Request
from careful_coil.core.probes.kinds.insulation import read_insulation
from careful_coil.core.readings import Meter
from careful_coil.core.trial.typed import read_step
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.usual import FOUR, START, SWITCH
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.demo import demo_jobs
from careful_coil.demo.truths import TRUTHS, demo_meter
from tests.core.logs import entries, leads, read_as

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


def rig(**more: object) -> Rig:
    """A six-lead motor in wye on 400 V; `more` of it."""
    told: dict[str, object] = {
        "network": SIX,
        "joints": [["L1", "T1"], ["L2", "T2"], ["L3", "T3"], ["T4", "T5", "T6"]],
        "devices": (),
        "supply": (3, 400.0, 50.0),
        "nominal": 400.0,
        "poles": 4,
        "halves": "alternate",
    }
    return Rig(**(told | more))  # type: ignore[arg-type]


def test_a_shaft_turns_from_the_root_of_its_bearings_drag() -> None:
    easy, dry = rig().turns_from(), rig(stiff=4.0).turns_from()
    assert easy is not None
    assert dry == pytest.approx(2 * easy)
    assert rig(stiff=400.0).turns_from() is None
    under = rig(supply=(3, 0.9 * easy, 50.0))
    assert under.step()[3] == "none"
    assert rig(supply=(3, 1.1 * easy, 50.0)).step()[3] == "smooth"


def test_a_run_shows_its_faults() -> None:
    amps, watt, rpm, _ = rig().step()
    assert max(amps.values()) == pytest.approx(min(amps.values()))
    assert 1490 < rpm < 1500
    dry = rig(stiff=3.0).step()
    assert dry[1] > 1.3 * watt
    assert dry[2] < rpm
    lost, _, slow, turns = rig(dead_line="L2").step()
    assert (lost["L2"], turns) == (0.0, "smooth")
    assert lost["L1"] > 1.3 * amps["L1"]
    assert slow < rpm
    nearer = rig(magnetizing=0.5).step()[0]
    assert nearer["L1"] > 1.7 * amps["L1"]
    loaded, taken, slips, _ = rig().step("load")
    assert taken > 5 * watt
    assert slips < rpm - 20
    held, _, still, stands = rig().step("locked")
    assert (still, stands) == (0.0, "none")
    assert held["L1"] > loaded["L1"] > amps["L1"]


def capacitor_start(tired: float = 1.0, stiff: float = 1.0) -> Rig:
    plan = plans_of(FOUR, devices=(SWITCH, START))[0]
    return rig(
        network=ARRANGEMENTS[FOUR].network.with_ohm({"main": 1.5, "auxiliary": 4.3}),
        joints=plan.joints,
        devices=plan.devices,
        supply=(1, 230.0, 50.0),
        nominal=230.0,
        tired=tired,
        stiff=stiff,
    )


def test_a_timed_start_lets_go_late_or_never_with_a_tired_capacitor() -> None:
    outcome, seconds, rpm = capacitor_start().start()
    assert outcome == "dropped out"
    assert rpm == pytest.approx(0.75 * 1500)
    late = capacitor_start(tired=0.5).start()
    assert late[0] == "dropped out"
    assert late[1] > 1.2 * seconds
    assert capacitor_start(tired=0.3, stiff=60.0).start()[0] == "stalled"
    assert capacitor_start().back_in() == pytest.approx(0.45 * 1500)
    assert rig().start()[0] == "turns"


def test_the_meter_answers_every_request_of_a_run_in_the_words_that_are_typed() -> None:
    motor = HiddenMotor(network=SIX, lead_of={lead: lead for lead in SIX.leads})
    meter = SimulatedMeter(motor, seed=2, meter=METER)
    joints = (("L1", "T1"), ("L2", "T2"), ("L3", "T3"), ("T4", "T5", "T6"))

    def shown(kind: str) -> str:
        asked = Request(
            kind=kind,
            ends=("L1", "L2", "L3"),
            joints=joints,
            supply=(3, 400.0, 50.0),
            nominal=400.0,
        )
        return meter.show(asked).text

    first, second = (read_step(shown("trial"), 3) for _ in range(2))
    assert (first.minute, second.minute) == (1, 2)
    assert (second.celsius or 0) > (first.celsius or 0)
    assert read_as("start", shown("start"), nominal=400).outcome == "turns"
    assert read_as("turning", shown("turning")).text.endswith(" V")
    assert read_as("drop-in", shown("drop-in")).text.endswith(" rpm")
