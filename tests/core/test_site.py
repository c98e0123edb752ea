"""Work on site: the numbered lines, what they take, what its gate says; the lines for the machine."""

from typing import Any

import pytest

from careful_coil.core.errors import BadValue, CoilError
from careful_coil.core.job import Finding
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.site import field_sheet
from careful_coil.core.ledger.site_line import SiteLine
from tests.core.logs import JOINED, SIX_LEADS, SUPPLY, judged, plate, ticket, walls
from tests.core.played import Body
from tests.core.test_ledger import READY
from tests.core.test_trial import END, GOOD, begun

SITE = {"kind": "on-site"}
ONE_PHASE = [
    *plate(phases="1", volt="230", hertz="50", amp="4.2", rpm="1400"),
    {"kind": "supply", "volt": 230, "hertz": 50, "phases": 1},
]


def lines(found: Judgement) -> dict[str, SiteLine]:
    return {
        k.name: k for k in field_sheet(found.job, found.facts.connecting, found.facts.installer)
    }


def bodies(found: Judgement, name: str, text: str) -> list[Body]:
    return [b.model_dump() for b in lines(found)[name].read(text)]


def test_what_needs_no_volts_comes_first() -> None:
    names = list(lines(judged(*READY, SITE)))
    dead = ["site-dead", "site-ohms", "site-megohm", "site-drained", "site-bond"]
    alive = ["site-phase-order", "site-direction", "site-amps", "site-volts"]
    told = ["site-told-amps", "site-told-overload", "site-hour"]
    assert names == ["site-supply", *dead, *alive, *told]


def test_one_phase_has_one_pair_no_phase_order_and_one_figure() -> None:
    found = judged(*ONE_PHASE, SITE)
    own = lines(found)
    assert own["site-ohms"].title.startswith("Ohms between L1 and L2")
    assert not {"site-phase-order", "site-direction"} & set(own)
    assert own["site-amps"].title == "Amps within ten seconds"
    (read,) = bodies(found, "site-amps", "4,1 A")
    assert read["text"] == "4.1 A"
    (supply,) = bodies(found, "site-supply", "231")
    assert (supply["kind"], supply["volt"], supply["phases"]) == ("supply", 231, 1)


@pytest.mark.parametrize(
    ("name", "text", "wanted"),
    [
        ("site-dead", "1.2", {"kind": "proved-dead", "volt": 1.2}),
        ("site-megohm", ">2 GΩ 18 °C 1000 V", {"above": True, "at_c": 18, "test_volt": 1000}),
        ("site-megohm", "480 MΩ 20C 500V", {"megohm": 480, "above": False}),
        ("site-megohm", "480 MΩ", {"megohm": 480, "at_c": 20}),  # at the °C of the test before
        ("site-megohm", "480 20", {"megohm": 480, "at_c": 20, "test_volt": 500}),
        ("site-drained", "4 min", {"kind": "discharged", "seconds": 240}),
        ("site-supply", "401/398/403", {"kind": "supply-read", "line": (401, 398, 403)}),
        ("site-supply", "400", {"kind": "supply-read", "line": (400, 400, 400)}),
        ("site-phase-order", "l1 l3 l2", {"sheet": "site-checked", "text": "L1 L3 L2"}),
        ("site-phase-order", "132", {"sheet": "site-checked", "text": "L1 L3 L2"}),
        ("site-amps", "3x6.1", {"field": "amps", "text": "6.1/6.1/6.1 A"}),
        ("site-amps", "6,1/6.2/6.1 A", {"field": "amps", "text": "6.1/6.2/6.1 A"}),
        ("site-volts", "398/399/400", {"field": "volts", "text": "398/399/400 V"}),
        ("site-direction", "ccw opposite", {"turns": "ccw", "seen_from": "opposite"}),
        ("site-direction", "2", {"turns": "ccw", "seen_from": "drive-end"}),
        ("site-told-overload", "set to 7.2", {"kind": "installer", "item": "overload"}),
        ("site-hour", "6.0 A, 58 °C", {"field": "hour", "text": "6.0 A, 58 °C"}),
    ],
)
def test_what_is_written_becomes_an_entry_of_its_station(
    name: str, text: str, wanted: dict[str, Any]
) -> None:
    (body,) = bodies(judged(*READY, SITE), name, text)
    assert {k: body[k] for k in wanted} == wanted


@pytest.mark.parametrize(
    ("name", "text"),
    [
        ("site-dead", "230"),
        ("site-dead", "live"),
        ("site-ohms", "about five"),
        ("site-ohms", "5.20/5.20"),
        ("site-ohms", "2x5.20"),
        ("site-megohm", "480 MΩ 900 °C 500 V"),
        ("site-drained", "a while"),
        ("site-supply", "401/398"),
        ("site-phase-order", "L2 L1"),
        ("site-amps", "6.1"),
        ("site-amps", "a/b/c"),
        ("site-volts", ""),
        ("site-direction", "backwards"),
        ("site-told-overload", " "),
    ],
)
def test_what_cannot_be_read_is_refused(name: str, text: str) -> None:
    with pytest.raises(CoilError, match="Wanted"):
        bodies(judged(*READY, SITE), name, text)


def test_an_unnamed_supply_is_named_by_the_plate() -> None:
    bare = judged(*SIX_LEADS, SITE)
    named, read = bodies(bare, "site-supply", "401/398/403")
    assert (named["volt"], named["hertz"], named["measured"]) == (400, 50, True)
    assert read["line"] == (401, 398, 403)
    odd, _ = bodies(bare, "site-supply", "690/688/691")
    assert odd["volt"] == 690


def checked(item: str, words: str) -> Finding:
    log = [*READY, SITE, {"kind": "site-checked", "item": item, "words": words}]
    return next(f for f in judged(*log).findings if f.code == f"site-{item}")


@pytest.mark.parametrize(
    ("item", "words", "verdict", "subject"),
    [
        ("amps", "6.1/6.2/6.1 A", "good", "Three amps within ten seconds"),
        ("amps", "6.1/0.1/6.0 A", "hold", "No amps in L2"),
        ("amps", "7.9/8.0/7.9 A", "watch", "Amps over the plate"),
        ("amps", "4.0/5.6/4.1 A", "watch", "Amps of the lines apart"),
        ("volts", "398/399/400 V", "good", "Volts at the terminals"),
        ("volts", "330/331/329 V", "hold", "Volts at the terminals wrong"),
        ("volts", "390/400/410 V", "watch", "Volts at the terminals"),
        ("volts", "as it must be", "unproven", "Volts at the terminals"),
        ("phase-order", "ok", "unproven", "Phase order at the motor"),
        ("phase-order", "L1 L2 L3", "good", "Phase order at the motor"),
    ],
)
def test_figures_of_the_sites_own_list_are_judged(
    item: str, words: str, verdict: str, subject: str
) -> None:
    found = checked(item, words)
    assert (found.verdict, found.subject) == (verdict, subject)
    assert found.waivable == (verdict != "hold")


def test_a_lost_phase_on_site_lets_nothing_go() -> None:
    lost = {"kind": "site-checked", "item": "amps", "words": "6.1/0.0/6.0 A"}
    waived = {"kind": "waived", "code": "site-amps", "reason": "in a hurry", "second": "CD"}
    found = judged(*READY, SITE, lost, waived, {"kind": "released", "signed": "AB"})
    assert "site-amps" in {f.code for f in found.gate}
    assert not found.released


def test_the_lines_for_the_machine_have_this_motors_figures() -> None:
    found = judged(*READY, *begun(), GOOD, END)
    told = {line.name: line for line in found.facts.commission}
    assert list(told) == ["volts", "amps", "overload", "direction", "hour"]
    assert told["volts"].words.startswith("Volts at the terminals, under load: 360 to 440 V")
    assert told["amps"].words.endswith("at most 6.4 A")
    assert told["amps"].why == "On the bench without load: 2.6/2.6/2.7 A at 400 V."
    assert told["overload"].words == "Overload dial at 6.4 A"
    assert "Reversible outside: exchange two lines" in told["direction"].words
    assert "60 K (class A, assumed" in told["hour"].why
    assert judged(*SIX_LEADS).facts.commission == ()


def test_a_switched_motor_is_listened_to_at_every_start() -> None:
    kind = {"kind": "device-fitted", "name": "S1", "device": "speed-switch"}
    found = judged(*ONE_PHASE, kind)
    assert found.facts.start_way.way == "direct"
    assert "start" in [line.name for line in found.facts.commission]
    assert "each line" not in " ".join(line.words for line in found.facts.commission)


def test_the_field_sheet_says_what_ohms_must_read() -> None:
    found = judged(*SIX_LEADS, *walls("AD", "BE", "CF"), SUPPLY, *JOINED, SITE)
    assert "5.2" in lines(found)["site-ohms"].how
    with pytest.raises(BadValue):
        lines(found)["site-ohms"].read("")


VISITS = {
    3: {
        "site-dead": "0",
        "site-ohms": "5.20/5.21/5.20",
        "site-megohm": "480 MΩ 20 °C 500 V",
        "site-drained": "240 s",
        "site-bond": "0.05",
        "site-supply": "401/398/403",
        "site-phase-order": "L1 L2 L3",
        "site-amps": "6.0/6.1/6.0",
        "site-volts": "398/399/400",
        "site-direction": "cw drive-end",
    },
    1: {
        "site-dead": "0",
        "site-ohms": "2.2",
        "site-megohm": "480 MΩ 20 °C 500 V",
        "site-drained": "4 min",
        "site-bond": "0.05",
        "site-supply": "231",
        "site-start": "turns 0.4",
        "site-amps": "4.1",
        "site-volts": "229",
    },
}


def visited(phases: int, **other: str) -> Judgement:
    """A motor nobody has opened, entered line by line from its field sheet."""
    volts = {"phases": f"{phases}", "volt": "400" if phases == 3 else "230", "hertz": "50"}
    volts |= {"capacitor": "none"} if phases == 1 else {}
    log: list[Body] = [
        *ticket(name="Lathe", complaint="nothing"),
        *plate(**volts, amp="6.4", rpm="1430"),
        SITE,
    ]
    told = VISITS[phases] | {k.replace("_", "-"): v for k, v in other.items()}
    for name, text in told.items():
        log += bodies(judged(*log), name, text)
    for line in lines(judged(*log)).values():
        if line.name.startswith("site-told"):
            log += [b.model_dump() for b in line.read("told")]
    return judged(*log)


@pytest.mark.parametrize("phases", [3, 1])
def test_a_motor_nobody_has_opened_goes_by_its_field_sheet_alone(phases: int) -> None:
    found = visited(phases)
    assert found.gate == ()
    assert [k.name for k in lines(found).values() if not k.done] == ["site-hour"]
    assert found.next is not None
    assert found.next.act == "sign"


@pytest.mark.parametrize(
    ("other", "code", "verdict"),
    [
        ({"site_ohms": "open/5.21/5.20"}, "site-ohms", "hold"),
        ({"site_ohms": "9.9/5.21/5.20"}, "site-ohms", "hold"),
        ({"site_megohm": "0.2 MΩ 20 °C 500 V"}, "insulation", "hold"),
        ({"site_volts": "330/331/330"}, "site-volts", "hold"),
    ],
)
def test_what_a_visit_found_bad_holds(other: dict[str, str], code: str, verdict: str) -> None:
    assert {f.code: f for f in visited(3, **other).gate}[code].verdict == verdict


def test_a_winding_earthed_too_short_is_not_logged_as_drained() -> None:
    with pytest.raises(BadValue, match="240 s at least"):
        visited(3, site_drained="20 s")


def test_the_next_card_walks_down_the_field_sheet() -> None:
    known = [
        *ticket(name="Mill", complaint="nothing"),
        *plate(phases="3", volt="400", hertz="50", amp="6.4"),
    ]
    bare = judged(*known, SITE)
    assert bare.next is not None
    assert bare.next.title == "1  Volts of the supply at the isolator's line side"
    assert bare.next.focus == "site-supply"
    supply = bodies(bare, "site-supply", "400")
    dead = judged(*known, SITE, *supply)
    assert dead.next is not None
    assert (dead.next.title, dead.next.act) == ("2  Lock out, prove it dead", "dead")
    after = judged(*known, SITE, *supply, {"kind": "proved-dead"})
    assert after.next is not None
    assert after.next.focus == "site-ohms"


def test_ohms_somewhat_apart_are_watched_and_missing_ones_asked_for() -> None:
    watched = {f.code: f for f in visited(3, site_ohms="5.45/5.20/5.20").findings}["site-ohms"]
    assert (watched.verdict, watched.subject) == ("watch", "Ohms of the lines apart")
    bare = judged(*plate(phases="3", volt="400", hertz="50"), SITE)
    assert "site-ohms" in {f.code for f in bare.gate}


NINE = [
    *ticket(name="Sluice", complaint="nothing"),
    SITE,
    *plate(phases="3", volt="230/460", hertz="60", amp="13/6.5"),
    {"kind": "supply", "volt": 460, "hertz": 60, "phases": 3, "measured": True},
    {"kind": "supply-read", "line": [460, 461, 459]},
    {"kind": "proved-dead", "volt": 0.1},
    {
        "kind": "leads",
        "leads": [{"tag": t, "marking": f"T{k}"} for k, t in enumerate("ABCDEFGHJ", 1)],
    },
    {
        "kind": "found-hookup",
        "joints": [["L1", "A", "G"], ["L2", "B", "H"], ["L3", "C", "J"], [*"DEF"]],
    },
]
PARTED = [{"kind": "parted", "leads": [t]} for t in "GHJDEF"]
SERIES = [{"kind": "joint", "joint": [*pair]} for pair in ("DG", "EH", "FJ")]


def ohms(value: float) -> list[Body]:
    pairs = (("L1", "L2"), ("L1", "L3"), ("L2", "L3"))
    return [{"kind": "line-ohm", "lines": list(p), "value": f"{value} Ω"} for p in pairs]


def change(*log: Body) -> Finding | None:
    return next((f for f in judged(*NINE, *log).findings if f.code == "site-change"), None)


def test_a_change_on_site_goes_joint_by_joint_between_two_readings_of_its_ohms() -> None:
    """Two stars in parallel to one in series: (460/230)² times the ohms between the lines."""
    asked = judged(*NINE)
    assert asked.next is not None
    assert asked.next.code == "site-ohms-before"
    own = lines(asked)
    assert list(own)[2:6] == [
        "site-ohms-before",
        "site-megohm-before",
        "site-drained-before",
        "site-change",
    ]
    assert "Take T7 out of the joint L1" in own["site-change"].how
    with pytest.raises(BadValue, match="each joint by itself"):
        own["site-change"].read("done")
    assert change() is None
    made = [*ohms(0.74), *PARTED, *SERIES]
    blind = change(*PARTED, *SERIES)
    assert blind is not None
    assert (blind.verdict, blind.waivable) == ("unproven", False)
    right, wrong = change(*made, *ohms(2.95)), change(*made, *ohms(0.74))
    assert right is not None
    assert wrong is not None
    assert (right.verdict, right.figure, right.limit) == (
        "good",
        pytest.approx(3.99, abs=0.01),
        4.0,
    )
    assert (wrong.verdict, wrong.waivable) == ("hold", False)
    after = judged(*NINE, *made, *ohms(2.95))
    assert after.next is not None
    assert after.next.code == "site-lid"
    assert {f.code: f.verdict for f in after.findings}["by-marks"] == "note"
    assert "voltage-tags" in {f.code for f in after.gate}


def test_what_was_read_before_the_change_is_not_shown_as_read_after_it() -> None:
    tested = {"kind": "insulation", "megohm": 200, "at_c": 20, "test_volt": 500}
    before = lines(judged(*NINE, *ohms(0.74), tested))
    assert (before["site-ohms-before"].done, before["site-ohms"].done) == ("0.74/0.74/0.74", "")
    assert (before["site-megohm-before"].done, before["site-megohm"].done) == ("200 MΩ", "")
    assert before["site-drained-before"].done == ""  # it still holds the tester's charge
    earthed = lines(judged(*NINE, *ohms(0.74), tested, {"kind": "discharged", "seconds": 240}))
    assert earthed["site-drained-before"].done == "earthed"


def test_amps_read_before_a_joint_was_touched_say_nothing() -> None:
    amps = {"kind": "site-checked", "item": "amps", "words": "6.1/6.1/6.0 A"}
    found = judged(*NINE, amps)
    assert "site-amps" not in {f.code for f in found.gate}
    assert "site-amps" in {f.code for f in judged(*NINE, amps, *PARTED).gate}


def test_a_complaint_wants_half_an_hour_on_its_load_and_what_is_heard_there_holds() -> None:
    trips = [
        *ticket(name="Feeder", complaint="trips when warm"),
        *plate(phases="3", volt="400", hertz="50"),
        SITE,
    ]
    assert "site-ran" in lines(judged(*trips))
    good, bad = (
        judged(*trips, *bodies(judged(*trips), "site-ran", text))
        for text in ("6.1/6.2/6.1 sm", "6.1/6.2/6.1 rough, smoke from the box")
    )
    told = {f.code: f for f in good.findings}
    assert told["cause"].verdict == "good"
    assert "site-ran" not in told
    assert {f.code: f for f in bad.gate}["site-ran"].waivable is False
    with pytest.raises(BadValue, match="how it runs"):
        bodies(judged(*trips), "site-ran", "6.1")


def test_a_start_on_site_that_stalls_or_opens_late_holds_and_brings_it_in() -> None:
    """A start winding that stays in longer than the shop allows cooks; nobody waives it."""
    one = [
        *ticket(name="Mixer", complaint="hums"),
        *plate(phases="1", volt="230", hertz="50", amp="4.2"),
        SITE,
    ]

    def started(text: str) -> Judgement:
        return judged(*one, *bodies(judged(*one), "site-start", text))

    assert "site-start" not in {f.code for f in started("out 0.3").findings}
    for text in ("stalled 3", "tripped 1", "out 9"):
        found = started(text)
        held = next(f for f in found.gate if f.code == "site-start")
        assert (held.verdict, held.waivable) == ("hold", False)
    with pytest.raises(BadValue, match="stalled 3"):
        bodies(judged(*one), "site-start", "fine")
