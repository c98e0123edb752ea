"""Job logs as a hurried or tired technician writes them: each is signed, none may be released."""

from collections.abc import Callable
from typing import Any

from tests.gate.careful import (
    COVERS_OFF,
    COVERS_ON,
    IDLE,
    SIGNED,
    Body,
    bearing,
    bearing_renewed,
    before_signing,
    bonds,
    can,
    capacitor_start,
    checked,
    felt,
    handled,
    insulated,
    joint,
    line,
    low_run,
    plate,
    sheet,
    start_joined,
    start_known,
    start_named,
    start_run,
    step,
    supply,
    switch,
    three_closed,
    three_joined,
    three_low,
    three_named,
    three_phase,
    three_read,
    three_run,
    three_walled,
    ticket,
)

Make = Callable[[], list[Body]]
_FOUND: dict[str, tuple[Make, str]] = {}


def careless(stops: str) -> Callable[[Make], Make]:
    """Put a log into the table under its name, with the words at the gate that stop it."""

    def put(make: Make) -> Make:
        _FOUND[make.__name__.replace("_", "-")] = (make, stops)
        return make

    return put


def table() -> dict[str, tuple[Make, str]]:
    """Return every careless log with the words that stop it."""
    return dict(_FOUND)


def done(*more: Body, job: Make = three_phase) -> list[Body]:
    """Return a careful job on which something more was done before it was signed."""
    return before_signing(job, *more)


def swap(kind: str, change: dict[str, Any], job: Make = three_phase) -> list[Body]:
    """Return a careful job in which every entry of a kind says something else."""
    return [b | change if b["kind"] == kind else b for b in job()]


def without(kind: str, job: Make = three_phase, **told: Any) -> list[Body]:
    """Return a careful job without some entries."""
    return [b for b in job() if b["kind"] != kind or any(b.get(k) != v for k, v in told.items())]


def till_run(*more: Body) -> list[Body]:
    """Return a three-phase job up to its run, with another end."""
    return [*three_phase()[: -len(three_run()) - 1], *more, SIGNED]


# --- what voids what --------------------------------------------------------------------------------


@careless("parted or made")
def a_joint_remade_after_the_run() -> list[Body]:
    return done({"kind": "parted", "leads": ["A"]}, joint("L1", "A"))


@careless("Again: test run")
def joints_remade_and_read_again_only() -> list[Body]:
    return done(*three_joined(), *checked(), *three_low())


@careless("lead A renewed")
def a_lead_renewed_without_a_test() -> list[Body]:
    return done({"kind": "lead-mended", "tag": "A", "how": "renewed"})


@careless("lead A sleeved")
def a_lead_sleeved_and_run_again() -> list[Body]:
    return done({"kind": "lead-mended", "tag": "A", "how": "sleeved"}, *three_run())


@careless("Again: what each lead is")
def rewound_and_the_old_readings_kept() -> list[Body]:
    again = [*three_walled(1000.0), *three_joined("2.62"), *checked(), *three_low()]
    return done({"kind": "work", "what": "rewound"}, *again, *three_closed(), *three_run(30.0))


@careless("High-potential test not made")
def rewound_and_tested_as_any_other() -> list[Body]:
    again = [*three_read("1.31"), *three_walled(), *three_joined("2.62"), *checked(), *three_low()]
    return done({"kind": "work", "what": "rewound"}, *again, *three_closed(), *three_run(30.0))


@careless("30 min wanted")
def rewound_and_run_for_ten_minutes() -> list[Body]:
    again = [*three_read("1.31"), *three_walled(1000.0), *three_joined("2.62"), *checked()]
    return done(
        {"kind": "work", "what": "rewound"}, *again, *three_low(), *three_closed(), *three_run()
    )


@careless("Cleaned since")
def washed_after_the_tests() -> list[Body]:
    return done({"kind": "work", "what": "cleaned"})


@careless("Again: insulation")
def dried_and_only_run() -> list[Body]:
    return done({"kind": "drying", "act": "begin"}, {"kind": "drying", "act": "end"}, *three_run())


@careless("turn the shaft by hand")
def varnished_and_the_bore_not_looked_at() -> list[Body]:
    again = [*insulated("ABCDEF"), *bonds(), *three_run(30.0)]
    return done({"kind": "work", "what": "varnished"}, *again)


@careless("flooded")
def under_water_and_bearings_called_good() -> list[Body]:
    return [*ticket(complaint="was flooded, stood under water"), *three_phase()]


@careless("stood for")
def stood_two_months_after_its_tests() -> list[Body]:
    return [*three_phase()[:-1], SIGNED | {"wait": 60}]


@careless("bearing, drive end")
def a_bearing_renewed_after_the_run() -> list[Body]:
    return done(*bearing("drive", done="renewed", fitted="6205-2Z"), *felt(feel="free"))


@careless("30 min wanted")
def a_bearing_renewed_and_run_for_ten_minutes() -> list[Body]:
    return swap("trial-step", {"minute": 10.0}, bearing_renewed)


@careless("Again: insulation to the frame")
def the_rotor_out_and_in_again() -> list[Body]:
    out = {"kind": "part-off", "part": "rotor"}
    return done(out, out | {"back": True}, *felt(feel="free"), *three_run())


@careless("covers put on")
def covers_opened_and_closed_after_the_run() -> list[Body]:
    return done(COVERS_OFF, COVERS_ON)


@careless("Again: earth bond")
def covers_opened_and_the_bond_forgotten() -> list[Body]:
    return done(COVERS_OFF, COVERS_ON, *insulated("ABCDEF"), *three_run())


@careless("insulation to the frame")
def closed_and_only_the_bond_read() -> list[Body]:
    return [
        *three_phase()[:-1][: -len(three_run())],
        COVERS_OFF,
        COVERS_ON,
        *bonds(),
        *three_run(),
        SIGNED,
    ]


@careless("cause")
def smoke_and_a_joint_remade() -> list[Body]:
    smoked = sheet(
        step(400.0, IDLE, minute=1.0),
        {"kind": "trial-heard", "what": "smoke", "text": "from the end bell"},
    )
    again = [*three_joined(), *checked(), *three_low(), *insulated("ABCDEF"), *three_run()]
    return done(*smoked, *again)


@careless("stalled for 40 s")
def a_stall_of_forty_seconds_and_a_good_run() -> list[Body]:
    stalled = sheet(
        {"kind": "trial-start", "volt": 230.0, "outcome": "stalled", "seconds": 40.0},
        step(50.0, [6.0], turns="none"),
    )
    again = [
        *start_joined(),
        low_run(50.0, [6.0], turns="none"),
        *three_closed("ABCD"),
        *start_run(),
    ]
    return done(*stalled, *again, job=capacitor_start)


@careless("supply changed to 230 V")
def the_supply_said_otherwise_after_the_run() -> list[Body]:
    return done(supply(230.0))


@careless("Temporary X")
def a_jumper_left_in() -> list[Body]:
    return done({"kind": "temporary", "name": "X", "words": "jumper over the protector"})


@careless("X taken off")
def runs_made_while_a_jumper_was_in() -> list[Body]:
    jumper = {"kind": "temporary", "name": "X", "words": "jumper over the protector"}
    return done(jumper, jumper | {"cleared": "taken off"})


@careless("A timed start")
def a_capacitor_renewed_after_the_start() -> list[Body]:
    new = [{"kind": "capacitor", "name": "C1", "field": "renewed", "text": "AB"}, *can()]
    return done(*new, *sheet(step(230.0, [3.4], minute=10.0, rpm=1488.0)), job=capacitor_start)


@careless("Centrifugal switch|Speed switch|start device")
def a_switch_renewed_and_not_read() -> list[Body]:
    new = {"kind": "device-noted", "name": "S1", "field": "renewed", "text": "AB"}
    return done(new, *start_run(), job=capacitor_start)


# --- imports, strikes, blanks -------------------------------------------------------------------------


@careless("Again: insulation")
def an_old_test_that_came_in_late() -> list[Body]:
    old = [b | {"at": "2026-03-01T08:00:30Z"} for b in insulated("ABCDEF")]
    return done(COVERS_OFF, COVERS_ON, *bonds(), *old, *three_run())


@careless("Struck, not taken again")
def a_bad_insulation_reading_struck() -> list[Body]:
    bad = insulated("ABCDEF", megohm=0.3)
    bad[0]["id"] = "bad"
    return done(*bad, {"kind": "struck", "target": "bad", "reason": "typo"})


@careless("Struck, not taken again")
def a_failed_bond_struck() -> list[Body]:
    bad = [{"kind": "earth-bond", "ohm": 2.0, "place": "frame", "id": "bad"}]
    return done(*bad, {"kind": "struck", "target": "bad", "reason": "bad clip"})


@careless("Struck, not taken again")
def a_seized_shaft_blanked() -> list[Body]:
    word = {"kind": "attested", "item": "mechanics", "words": "shaft and both bearings well"}
    rest = three_phase()[len(three_named()) + len(handled()) :]
    return [*three_named(), *felt(feel="seized"), *felt(feel=""), word, *rest]


@careless("Struck, not taken again")
def a_bulged_capacitor_blanked() -> list[Body]:
    bulged = {"kind": "capacitor", "name": "C1", "field": "looks", "text": "bulged"}
    return done(bulged, bulged | {"text": ""}, job=capacitor_start)


@careless("Struck, not taken again")
def a_run_with_smoke_struck() -> list[Body]:
    smoke = {"kind": "trial-heard", "what": "smoke", "text": "a little", "id": "bad"}
    return [
        *three_phase()[:-2],
        smoke,
        {"kind": "trial-ended"},
        {"kind": "struck", "target": "bad", "reason": "was dust"},
        SIGNED,
    ]


# --- what is typed at the run -------------------------------------------------------------------------


@careless("read all three")
def one_amp_for_three_lines() -> list[Body]:
    return [
        b | {"amp": b["amp"][:1], "rpm": None} if b["kind"] == "trial-step" else b
        for b in three_phase()
    ]


@careless("read all three")
def one_amp_at_low_volts() -> list[Body]:
    return swap("low-run", {"amp": [2.0]})


@careless("How did it turn")
def nothing_said_of_how_it_turned() -> list[Body]:
    return [
        {k: v for k, v in b.items() if b["kind"] != "trial-step" or k != "turns"}
        for b in three_phase()
    ]


@careless("Runs rough")
def rough_and_signed() -> list[Body]:
    return swap("trial-step", {"turns": "rough"})


@careless("Does not turn")
def it_did_not_turn_at_all() -> list[Body]:
    return swap("trial-step", {"turns": "none"})


@careless("Noted at a step|smoke")
def words_behind_the_figures() -> list[Body]:
    return swap("trial-step", {"remark": "rough, smoke from the end bell"})


@careless("tripped")
def the_breaker_tripped_in_the_words() -> list[Body]:
    return swap("trial-step", {"remark": "breaker tripped, sparks at the box"})


@careless("No amps in L3")
def a_dead_line_at_an_earlier_step() -> list[Body]:
    return done(*sheet(step(200.0, (4.0, 4.1, 0.0))), *three_run())


@careless("still open")
def a_sheet_left_open() -> list[Body]:
    return done({"kind": "trial-begun", "covers": "on"}, step(400.0, IDLE, minute=10.0))


@careless("trip")
def a_run_that_ended_by_a_trip() -> list[Body]:
    return [
        b | {"abandoned": "overload tripped"} if b["kind"] == "trial-ended" else b
        for b in three_phase()
    ]


@careless("Turns the wrong way")
def the_sheet_says_the_other_direction() -> list[Body]:
    wish = [
        {"kind": "wished", "field": f, "text": t}
        for f, t in (("rotation", "cw"), ("seen-from", "drive-end"))
    ]
    return [*wish, *till_run(*three_run(direction="ccw"))]


@careless("Loaded amps high")
def more_than_plate_amps_under_load() -> list[Body]:
    return done(*sheet(step(400.0, (7.4, 7.5, 7.4), minute=20.0), load="load"))


@careless("Too hot")
def hot_after_two_minutes() -> list[Body]:
    return done(*sheet(step(400.0, IDLE, celsius=180.0, minute=2.0)), *three_run())


@careless("timed start")
def no_timed_start_on_the_closed_motor() -> list[Body]:
    return without("trial-start", capacitor_start)


@careless("Start device late|late")
def a_start_device_that_took_eight_seconds() -> list[Body]:
    return swap("trial-start", {"seconds": 8.0}, capacitor_start)


@careless("10 min wanted")
def a_run_of_one_minute() -> list[Body]:
    return till_run(*three_run(1.0))


@careless("No-load amps odd")
def three_times_the_plate_without_load() -> list[Body]:
    return swap("trial-step", {"amp": [19.0, 19.1, 19.0]})


@careless("Not test-run")
def a_word_in_place_of_the_run() -> list[Body]:
    word = {"kind": "attested", "item": "test-run", "words": "ran well"}
    return till_run(word)


# --- words and waivers ---------------------------------------------------------------------------------


def _waived(code: str, second: str = "CD") -> Body:
    return {"kind": "waived", "code": code, "reason": "known", "second": second}


@careless("No-load amps odd")
def waived_at_102_and_run_again_at_297() -> list[Body]:
    high = [step(400.0, (6.5, 6.6, 6.5), rpm=1490.0, minute=10.0)]
    worse = [step(400.0, (19.0, 19.1, 19.0), rpm=1490.0, minute=10.0)]
    return [*till_run(*sheet(*high), _waived("trial-amps"), *sheet(*worse))]


@careless("Shaft by hand: binding|shaft")
def a_waiver_by_oneself_with_dots() -> list[Body]:
    return [
        b | {"text": "binding"} if b.get("field") == "feel" else b
        for b in done(_waived("shaft-feel", "A.B."))
    ]


@careless("seized")
def rough_was_waived_seized_was_not() -> list[Body]:
    rough = bearing("drive", number="6205-2Z", state="rough")
    return [
        *three_phase()[:-1],
        *rough,
        _waived("bearing-drive"),
        *bearing("drive", state="seized"),
        SIGNED,
    ]


@careless("Earth bond failed")
def an_earth_bond_waived() -> list[Body]:
    return done(*bonds(2.0), _waived("earth-bond"))


@careless("Turns the wrong way")
def an_old_waiver_of_direction_and_a_new_wish() -> list[Body]:
    def wish(way: str) -> list[Body]:
        said = (("rotation", way), ("seen-from", "drive-end"))
        return [{"kind": "wished", "field": f, "text": t} for f, t in said]

    seen = {"kind": "turn-seen", "turns": "cw", "seen_from": "drive-end"}
    other = seen | {"seen_from": "opposite"}
    return done(*wish("ccw"), seen, _waived("direction"), other, *wish("cw"))


# --- site, renewed, plate, start circuit ---------------------------------------------------------------


@careless("Runs rough|Test run found")
def moved_on_site_with_a_bad_run() -> list[Body]:
    site = [{"kind": "on-site"}, *(_site(i) for i in ("phase-order", "amps", "volts"))]
    return [*swap("trial-step", {"turns": "rough"})[:-1], *site, SIGNED]


def _site(item: str, words: str = "") -> Body:
    usual = {"phase-order": "L1 L2 L3", "amps": "6.1/6.2/6.1 A", "volts": "398/399/400 V"}
    return {"kind": "site-checked", "item": item, "words": words or usual[item]}


def site_visit(after: str = "3.72", **words: str) -> list[Body]:
    """A change from 230 to 400 V where the motor stands."""
    lines = ("L1-L2", "L1-L3", "L2-L3")
    return [
        *ticket(name="Mill"),
        *plate(phases="3", volt="230/400", hertz="50", amp="11/6.4", rpm="1440", power="3 kW"),
        {"kind": "on-site"},
        {"kind": "proved-dead"},
        *(line(p, "1.24") for p in lines),
        {"kind": "parted", "leads": ["A"]},
        joint("D", "E", "F"),
        supply(),
        {"kind": "supply-read", "line": [400, 401, 399]},
        *(line(p, after) for p in lines),
        *insulated(),
        *bonds(places=("frame",)),
        *(_site(i, words.get(i.replace("-", "_"), "")) for i in ("phase-order", "amps", "volts")),
        SIGNED,
    ]


@careless("Line ohms did not change as they must")
def ohms_that_did_not_change_on_site() -> list[Body]:
    return site_visit("1.24")


@careless("is no reading")
def ok_is_no_reading_on_site() -> list[Body]:
    return site_visit(amps="ok")


@careless("wrong one")
def a_capacitor_of_a_tenth() -> list[Body]:
    start = start_named(capacitor="341 µF")
    rest = capacitor_start()[len(start_named()) :]
    return [
        *start,
        *(b | {"text": "33 µF 250 V"} if b.get("field") == "marking" else b for b in rest),
    ]


@careless("wrong one")
def a_capacitor_for_half_the_volts() -> list[Body]:
    return [
        b | {"text": "189-227 µF 110 V"} if b.get("field") == "marking" else b
        for b in capacitor_start()
    ]


@careless("does not fit")
def a_bore_of_fifteen_on_a_shaft_of_sixteen() -> list[Body]:
    new = bearing("drive", bore="16", done="renewed", fitted="6202-2Z")
    return done(*new, *felt(feel="free"), *three_run(30.0))


@careless("not said by what")
def a_bearing_renewed_by_nobody_knows_what() -> list[Body]:
    return done(
        *bearing("drive", state="rough", done="renewed"), *felt(feel="free"), *three_run(30.0)
    )


@careless("Hertz of the supply")
def a_60_hz_plate_on_50_hz() -> list[Body]:
    return [b | {"text": "60"} if b.get("field") == "hertz" else b for b in three_phase()]


@careless("two different plates")
def a_plate_of_400_690_read_for_230_400() -> list[Body]:
    return [b | {"text": "400/690"} if b.get("field") == "volt" else b for b in three_phase()]


@careless("Direction wanted")
def a_pump_without_a_direction() -> list[Body]:
    return [b | {"text": "Cellar pump"} if b.get("field") == "name" else b for b in three_phase()]


@careless("Cause not found")
def a_complaint_without_a_cause() -> list[Body]:
    return [*ticket(complaint="trips, burnt smell"), *three_phase()]


@careless("start switch or relay noted")
def a_switch_that_was_only_assumed() -> list[Body]:
    gear = len(switch())
    known = start_known()
    at = next(k for k, b in enumerate(known) if b["kind"] == "device-fitted")
    kept = [*known[:at], *known[at + gear :]]
    return [*kept, *capacitor_start()[len(known) :]]


@careless("By-passed")
def a_switch_by_passed_for_good() -> list[Body]:
    bridge = {"kind": "modified", "name": "M1", "words": "start switch bridged", "closed": "yes"}
    return done(bridge, job=capacitor_start)


@careless("is no test")
def insulation_at_five_volts() -> list[Body]:
    return swap("insulation", {"test_volt": 5.0})


@careless("Insulation too low")
def a_low_reading_and_a_gentler_good_one() -> list[Body]:
    low = insulated("ABCDEF", megohm=0.4)
    return done(*low, *insulated("ABCDEF", volt=100.0))


@careless("Runs away")
def a_universal_that_ran_away() -> list[Body]:
    named = [
        *ticket(name="Drill"),
        *plate(phases="1", volt="230", hertz="50", amp="3", rpm="12000"),
    ]
    looks = [{"kind": "look", "sign": "brushes", "answer": "yes"}]
    run = sheet(step(57.0, [1.0], rpm=18000.0, minute=3.0))
    return [*named, *looks, supply(230.0, 1), COVERS_ON, *bonds(), *run, SIGNED]
