"""Careless logs, the second half: waivers, visits, parts renewed, plates misread; none may be released."""

from tests.gate.careful import (
    COVERS_ON,
    SIGNED,
    Body,
    bearing,
    bonds,
    capacitor_start,
    felt,
    insulated,
    joint,
    line,
    plate,
    sheet,
    start_known,
    start_named,
    step,
    supply,
    switch,
    three_phase,
    three_run,
    ticket,
)
from tests.gate.careless import careless, done, swap, till_run

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
