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
    low_run,
    sheet,
    start_joined,
    start_run,
    step,
    supply,
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
