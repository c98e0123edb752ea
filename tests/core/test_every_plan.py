"""Every hookup the tables give passes the check of hookups, in every state; starters and their boxes."""

from dataclasses import replace

import pytest

from careful_coil.core.connect import Hookup, Plate, Supplied, check
from careful_coil.core.connect.field_taps import field_hookups
from careful_coil.core.connect.plans import with_lines_exchanged
from careful_coil.core.errors import CannotPlace
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.start_circuit import crossing_of
from careful_coil.core.ways.starter import starter_of
from careful_coil.core.ways.usual import (
    CROSSING,
    DRUM,
    FOUR,
    LINE_SWITCH,
    POLES_CHANGED,
    STARS,
    START,
    SWITCH,
)
from careful_coil.documents.plan_table import SAME, hookups, off_volt, remarks

NINE, TWELVE = "three-phase-9-lead-wye", "three-phase-12-lead"
HARMLESS = {"lead-unused", "start-device-unknown", "off-one-line", "device-unused"}


def test_every_hookup_is_sound_in_every_state_and_dead_when_switched_off() -> None:
    count = 0
    for title, plan, hookup in hookups():
        found = check(hookup)
        told = (title, plan.arrangement, plan.connection, plan.speed, plan.reversed)
        assert found.verdict == "sound", (*told, [f.text for f in found.faults])
        assert set(remarks(plan, found)) <= HARMLESS, told
        assert (off_volt(found) or 0.0) <= SAME, told
        count += 1
    assert count > 300


def test_a_slip_at_a_contactor_is_no_longer_sound() -> None:
    """The delta contactor's leads exchanged: in delta the lines stand on the wrong ends."""
    *_, hookup = next(h for h in hookups() if h[0] == "star and delta")
    other = {"K2.2": "K2.4", "K2.4": "K2.2"}
    joints = tuple(tuple(other.get(n, n) for n in j) for j in hookup.joints)
    assert check(replace(hookup, joints=joints)).verdict != "sound"


def test_sensing_leads_must_see_the_start_winding() -> None:
    """Across the line they see volts that never rise: the switch would never let go."""
    *_, hookup = next(h for h in hookups() if h[0] == "electronic switch that senses")
    moved = tuple(tuple(n for n in j if n != "E1.3") for j in hookup.joints)
    at_line = tuple((*j, "E1.3") if "L1" in j else j for j in moved)
    found = check(replace(hookup, joints=at_line))
    assert any(f.code == "device-misplaced" and "E1.3" in f.leads for f in found.faults)


def test_a_relay_with_posts_has_its_link_or_its_capacitor() -> None:
    """Both: the capacitor is shorted; coil and contact exchanged: it never pulls in."""
    *_, hookup = next(h for h in hookups() if h[0] == "current relay with posts, both capacitors")
    told = {"K1.1", "K1.M", "K1.2", "K1.3"}
    assert told <= {n for j in hookup.joints for n in j}
    out = next(j for j in hookup.joints if "K1.2" in j)
    start = next(j for j in hookup.joints if "K1.3" in j)
    assert set(out) == {"K1.2", "C1.1"}
    assert {"C1.2", "aux-1"} <= set(start)
    others = tuple(j for j in hookup.joints if j not in (out, start))
    linked = check(replace(hookup, joints=(*others, (*out, *start))))
    assert linked.verdict != "sound"
    swap = {"K1.2": "K1.M", "K1.M": "K1.2"}
    moved = tuple(tuple(swap.get(n, n) for n in j) for j in hookup.joints)
    found = check(replace(hookup, joints=moved))
    assert any(f.code == "device-misplaced" and "K1.M" in f.leads for f in found.faults)


def test_a_drum_that_parts_the_start_winding_alone_wants_a_switch_in_the_lines() -> None:
    off = {**CROSSING.table, "off": ()}
    drum = Device(name="Q2", kind="reversing-switch", table=off)
    with pytest.raises(CannotPlace, match="off would leave the main winding on the line"):
        plans_of(FOUR, "", (SWITCH, START, drum))
    (placed, _) = plans_of(FOUR, "", (SWITCH, START, drum, LINE_SWITCH))
    assert any("Q1.2" in j and "main-1" in j for j in placed.joints)
    made = crossing_of(DRUM)
    assert made is not None
    assert (made.a, made.b, made.also, made.off) == ("2", "N", (("L1", "1"),), True)


@pytest.mark.parametrize(
    ("slug", "start", "boxed", "outlets"),
    [
        (NINE, "part-winding", [("T4", "T5", "T6")], {"K1": "T1 T2 T3", "K2": "T7 T8 T9"}),
        (STARS, "part-winding", [], {"K1": "T1 T2 T3", "K2": "T7 T8 T9"}),
        ("three-phase-6-lead", "wye-delta", [], {"K1 and K2": "T1 T2 T3", "K2 and K3": "T6 T4 T5"}),
    ],
)  # fmt: skip
def test_what_is_started_in_stages_leaves_the_box_lead_by_lead(
    slug: str, start: str, boxed: list[tuple[str, ...]], outlets: dict[str, str]
) -> None:
    """Only what both stages join is joined in the box: else no second contactor could be fitted."""
    plan = next(p for p in plans_of(slug) if p.start == start)
    starter = starter_of(plan)
    assert starter is not None
    assert list(starter.boxed) == boxed
    told = {k: " ".join(n for out in outs for n in out) for k, outs in starter.outlets}
    assert told == outlets
    for joint in plan.joints:
        assert starter.clipped(joint) == (joint not in boxed)


def test_halves_that_both_stages_join_stay_together_in_the_box() -> None:
    plan = next(p for p in plans_of(TWELVE) if p.start == "wye-delta")
    starter = starter_of(plan)
    assert starter is not None
    assert ("T1", "T7") in starter.boxed
    assert ("K1 and K2", ("T1", "T7")) in starter.to(plan.joints[0])


def test_field_taps_say_speed_and_torque_beside_the_whole_field() -> None:
    """A third of the turns: 1/√(1/3) = 1.73 times the speed and amps at one torque, a third of it at the same amps."""
    ohms = {"field-1": 1.2, "field-2": 2.4, "armature": 3.0}
    found = {h.title: h for h in field_hookups("universal-5-lead", "", ohms)}
    assert {t: h.share for t, h in found.items() if "other" not in t} == {
        "Low": pytest.approx(1.0),
        "High": pytest.approx(1 / 3),
        "Medium": pytest.approx(2 / 3),
    }
    assert found["High"].speed == pytest.approx(3**0.5)
    turned = found["High, the other way"]
    words = turned.words({j: "–".join(j) for j in turned.plan.joints})
    assert "× 1.73" in words
    assert "field-tap–armature-2" in words
    pins = {"field-1": 1, "field-tap": 2, "field-2": 3, "armature-1": 5, "armature-2": 6}
    plugged = turned.words(dict.fromkeys(turned.plan.joints, ""), pins)
    assert "In the plug: L1 on pin 1; link pins 2 – 6; L2 on pin 5." in plugged
    assert [h.share for h in field_hookups("universal-4-lead")] == [None, None]
    assert field_hookups(NINE) == ()


def test_two_speeds_have_a_contactor_each_and_one_that_ties_the_star() -> None:
    low, high = plans_of(POLES_CHANGED)
    made = [starter_of(p) for p in (low, high, with_lines_exchanged(high))]
    first, second, turned = (s for s in made if s is not None)
    assert first.plan.joints == second.plan.joints
    assert len(first.plan.devices) == 3
    assert "K3 ties the star of the high speed, with K2." in first.words
    volt = Plate(((400.0, 400.0),), 50.0)
    hookup = Hookup(
        arrangement=POLES_CHANGED,
        joints=turned.plan.joints,
        devices=turned.plan.devices,
        plate=volt,
        supply=Supplied(phases=3, volt=400.0, hertz=50.0),
    )
    assert check(hookup).verdict == "sound"
    assert starter_of(next(p for p in plans_of(NINE) if p.start == "direct")) is None
