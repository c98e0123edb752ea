"""What lies between the stations: what is typed of a run, a switch, a lead; what a fault leads to."""

import pytest

from careful_coil.bench.wound import coil_called
from careful_coil.core.condition.cures import cured_by
from careful_coil.core.connect.plans import HIGHEST, LOWEST, Wish
from careful_coil.core.connect.usual_wish import as_usual
from careful_coil.core.errors import BadValue, CannotConnect
from careful_coil.core.gear.table import Expected
from careful_coil.core.gear.typed import position_read
from careful_coil.core.job.at_intake import FoundHookup, Lead
from careful_coil.core.job.spoken import read_found
from careful_coil.core.mechanics.typed import bearing_size, left_on, read_mended
from careful_coil.core.probes.kinds.trial import step_told
from careful_coil.core.settings import Settings
from careful_coil.core.trial.separate import warming
from careful_coil.core.winding.arrangements import arrangement
from careful_coil.demo.cast import cast_motor
from careful_coil.walk.tell import walk
from tests.core.logs import judged, plate, ticket

LEADS = tuple(Lead(tag=t, marking=m) for t, m in zip("ABC", ("C", "R", "S"), strict=True))


def test_of_a_step_asked_at_its_volts_amps_and_words_are_enough() -> None:
    told = step_told("3.1/3.2/3.1 1493 smooth", 3, volt=400.0, minutes=10.0)
    assert (told["volt"], told["amp"]) == ((400.0,), (3.1, 3.2, 3.1))
    assert (told["rpm"], told["minute"], told["turns"]) == (1493.0, 10.0, "smooth")
    for text in ("400 v 3.1/3.2/3.1 1493 smooth", "400 3.1/3.2/3.1 1493 rpm smooth"):
        assert step_told(text, 3, volt=400.0, minutes=10.0) == told
    late = step_told("3.1/3.2/3.1 183 w 1488 45 C loud", 3, volt=400.0)
    assert (late["rpm"], late["watt"], late["celsius"], late["turns"]) == (
        1488.0,
        183.0,
        45.0,
        "rough",
    )
    assert step_told("3.1 28 quiet", 3, volt=400.0)["rpm"] == 28.0  # of a gear
    odd = step_told("3.1 1488 well balanced", 3, volt=400.0)
    assert (odd.get("turns"), odd["remark"]) == (
        None,
        "well balanced",
    )  # a remark proves no smooth run
    other = step_told("390 V 3.1/3.2/3.1 A 4 min rough", 3, volt=400.0, minutes=10.0)
    assert (other["volt"], other["minute"], other["turns"]) == ((390.0,), 4.0, "rough")
    for text in ("smooth", "3.1/3.2 smooth", "3.1/3.2/3.1 1493 12 smooth"):
        with pytest.raises(BadValue):
            step_told(text, 3, volt=400.0)
    with pytest.raises(BadValue):  # nobody asked for volts: they are typed
        step_told("3.1/3.2/3.1 smooth", 3)


def test_a_position_is_read_in_a_line_and_what_is_not_named_is_open() -> None:
    pairs = (("L", "1"), ("L", "2"), ("1", "2"))
    wanted = [
        Expected(between=p, when="position 1", low=0, high=0.1, what="contact") for p in pairs
    ]
    read = position_read("S1", wanted, "1-l 0.05")
    assert [(r.between, r.ohm) for r in read] == [
        (pairs[0], 0.05),
        (pairs[1], None),
        (pairs[2], None),
    ]
    assert all(r.ohm is None for r in position_read("S1", wanted, "none"))
    for text in ("L-1", "L-9 0.05", "0.05"):
        with pytest.raises(BadValue):
            position_read("S1", wanted, text)


def test_joints_as_found_take_devices_tags_before_prints_and_loose_ones() -> None:
    found, loose = read_found("L1 B C1.1; C1.2 C; L2 A loose", LEADS)
    assert isinstance(found, FoundHookup)
    assert found.joints == (("L1", "B", "C1.1"), ("C1.2", "C"), ("L2", "A"))
    assert (loose.kind, getattr(loose, "text", "")) == ("noted", "loose")
    assert read_found("apart", LEADS)[0] == FoundHookup(joints=())
    with pytest.raises(BadValue):
        read_found("L1 X", LEADS)


def test_leads_mended_temporaries_and_a_bearings_outside_are_read() -> None:
    assert read_mended("a sleeved 155 °C", ("A", "B")).words == "155 °C"
    with pytest.raises(BadValue):
        read_mended("Z sleeved", ("A", "B"))
    assert getattr(left_on("Nothing", {}), "text", "") == "nothing"
    assert left_on("jumper across P1", {"T1": 0}).name == "T2"  # type: ignore[union-attr]
    assert bearing_size("47", "6204") == {"bore": "", "outside": "47", "width": ""}
    assert bearing_size("20", "6204")["bore"] == "20"
    assert bearing_size("47")["bore"] == "47"  # no number is read yet


def test_a_temperature_that_leaves_its_end_open_says_so() -> None:
    with pytest.raises(Exception, match="leave the end open"):
        warming([(1, 23), (2, 24), (32, 49)])
    assert warming([(0, 20), (10, 40), (20, 47), (30, 49.5), (40, 50.3)]).end_c == pytest.approx(
        50.8, abs=1.0
    )


def test_the_only_rating_is_tried_where_it_cannot_hurt_then_lower() -> None:
    error = CannotConnect("one rating", "rated", (HIGHEST, LOWEST))
    assert as_usual(Wish(), error)[0].one == HIGHEST
    assert as_usual(Wish(), error, low=True)[0].one == LOWEST
    family = CannotConnect("which family", "family", ("wye", "delta"))
    assert as_usual(Wish(), family)[0].family == "wye"
    assert as_usual(Wish(), family, low=True)[0].family == "delta"


@pytest.mark.parametrize("told", ["T1-T4", "T4-T1", "T1 T4", "T1", "coil"])
def test_a_document_may_name_a_coil_in_several_ways(told: str) -> None:
    assert coil_called(arrangement("three-phase-9-lead-wye").network, told) == "T1-T4"


def test_a_plate_nobody_can_read_takes_its_ratings_from_the_supply() -> None:
    supply = {"kind": "supply", "volt": 400, "hertz": 50, "phases": 3}
    found = judged(*ticket(name="Crusher"), *plate(phases="?", volt="?", hertz="?"), supply)
    assert (found.job.plate.phases, found.job.plate.hertz) == (3, 50.0)
    assert found.job.plate.volts == ((400.0, 400.0),)
    known = next(f for f in found.findings if f.code == "plate-known")
    assert (known.verdict, "Not from the plate" in known.why) == ("good", True)


def test_work_that_explains_every_symptom_is_the_cause_and_a_smell_wants_more() -> None:
    can = {"kind": "capacitor", "name": "C1", "field": "renewed", "text": "AB"}
    job = judged(*ticket(name="Mixer", complaint="hums"), can).job
    assert cured_by(job, ("hums",))[0] == "start-capacitor"
    assert cured_by(job, ("hums", "smells")) == ("", "")
    assert cured_by(judged(*ticket(name="Mixer")).job, ("hums",)) == ("", "")


@pytest.mark.parametrize(
    ("motor", "named"),
    [
        ("six-lead-cracked", "seen-leads"),
        ("split-earth-off", "earth-bond"),
        ("cap-start-left-in", "capacitor-left-in"),
        ("split-wrong-bearing", "bearing-other"),
    ],
)
def test_a_fault_is_named_mended_and_the_motor_comes_home(motor: str, named: str) -> None:
    found = walk(cast_motor(motor), 3, Settings())
    assert (found.end, found.right) == ("released", True)
    spans = [*found.holds, *found.watches]
    assert any(s.code == named and s.last < len(found.steps) - 1 for s in spans)
    bad = [*found.false_holds, *found.asked_twice, *found.out_of_order, *found.harm]
    assert bad == []
    assert all(a.reader for s in found.steps for a in s.asks)  # a field takes every answer
