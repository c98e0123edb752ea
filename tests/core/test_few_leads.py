"""Windings without a switch to work: two leads, a tapped coil, three pins; a phase unlike the others."""

import pytest

from careful_coil.core.choices import one_of
from careful_coil.core.errors import BadDocument, BadValue
from careful_coil.core.gear.typed import read_inventory
from careful_coil.core.identify import Evidence, identify
from careful_coil.core.identify.evidence import Leanings
from careful_coil.core.identify.models import models_for, role_word
from careful_coil.core.identify.owed import owed
from careful_coil.core.job.entries import ReadingTaken
from careful_coil.core.job.gear import Gear
from careful_coil.core.job.meter_words import leads_clipped, meter_before, meter_line
from careful_coil.core.job.noted import Noted
from careful_coil.core.readings import AnyReading, Meter, Resistance
from careful_coil.core.settings import Settings
from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.devices import Device
from tests.core.logs import job_of

FINE = Meter(accuracy_percent=0.5, resolution_ohm=0.01, lead_ohm=0.0)


def ohms(*told: str) -> list[AnyReading]:
    """Return readings typed as `AB 2.98`."""
    pairs = [t.split() for t in told]
    return [Resistance(between=(p[0], p[1]), value=v) for p, v in pairs]


def test_two_leads_are_named_by_one_reading_and_not_before() -> None:
    empty = identify(Evidence.of(("A", "B"), [], FINE, 1))
    assert (empty.status, empty.best.unread) == ("narrowed", ("line-1-line-2",))
    found = identify(Evidence.of(("A", "B"), ohms("AB 2.98"), FINE, 1))
    assert (found.status, found.best.arrangement) == ("settled", "single-phase-2-lead")
    assert found.best.roles == {"A": "main", "B": "main"}


def test_two_leads_on_a_three_phase_plate_are_not_taken_for_a_motor() -> None:
    found = identify(Evidence.of(("A", "B"), ohms("AB 2.98"), FINE, 3))
    assert found.status != "settled"


def test_two_leads_that_read_open_are_a_coil_that_is_open() -> None:
    found = identify(Evidence.of(("A", "B"), ohms("AB open"), FINE, 1))
    assert found.status != "settled"
    assert found.best.certainty.get("A") != "proven"


def test_the_only_hookup_of_two_leads_leaves_what_is_inside_alone() -> None:
    inside = Device(name="S1", kind="speed-switch")
    guard = Device(name="P1", kind="protector")
    (plan,) = plans_of("single-phase-2-lead", "", (inside, guard))
    assert plan.devices == (guard,)
    joined = {frozenset(j) for j in plan.joints}
    assert not any("S1" in n for j in joined for n in j)
    assert {"P1.1", "P1.2"} < set().union(*joined)


def test_roles_of_two_leads_keep_to_the_closed_list() -> None:
    assert {role_word(n) for n in ("line-1", "line-2")} == {"main"}


BARE = Leanings(path=(0.98, 0.01, 0.005, 0.005))  # as of a sealed compressor


@pytest.mark.parametrize(("start", "told"), [("7.40", True), ("3.30", False)])
def test_run_and_start_are_left_to_the_run_only_where_their_ohms_are_well_apart(
    start: str, told: bool
) -> None:
    """Where a tail could be meant 1.5 times is asked for; a permanent split pair may be either way round."""
    tail = f"{2.60 + float(start):.2f}"
    evidence = Evidence.of(
        "ABC", ohms("AB 2.60", f"AC {start}", f"BC {tail}"), FINE, 1, leanings=BARE
    )
    found = identify(evidence)
    assert found.best.roles["A"] in ("common", "high")
    assert owed(found, evidence) or not told


def test_a_phase_lower_than_its_like_in_a_star_with_its_centre_out_is_no_other_motor() -> None:
    read = ohms("AN 2.00", "BN 2.01", "CN 1.40", "AB 4.01", "BC 3.41", "AC 3.40")
    found = identify(Evidence.of(tuple("ABCN"), read, FINE, 3))
    assert found.best.arrangement == "three-phase-4-lead"
    assert found.best.probability > 0.9
    assert any("unlike the other two" in n for n in found.best.notes)
    low = min(found.best.coil_ohm.values())
    assert low == pytest.approx(1.40, rel=0.02)


def test_weak_phases_keep_the_names_of_a_healthy_winding() -> None:
    weak = next(m for m in models_for(4) if m.weak)
    healthy = next(m for m in models_for(4) if m.slug == weak.slug and not m.broken and not m.weak)
    assert weak.symmetries == healthy.symmetries


def test_no_start_gear_is_an_answer_and_a_riddle_is_none() -> None:
    told = {(n.field, n.text) for n in read_inventory("none", Gear())}  # type: ignore[union-attr]
    assert told == {("capacitors", "none"), ("speed-switch", "none")}
    with pytest.raises(BadValue, match="or none"):
        read_inventory("S1", Gear())
    with pytest.raises(BadValue, match="what stands on it"):
        read_inventory("start capacitor", Gear())
    assert one_of("n", ("yes", "no")) == "no"


def test_start_gear_is_listed_in_short_and_named_in_turn() -> None:
    """A second look at the same parts names none of them anew."""
    listed = read_inventory("189-227 250; cs; potential relay; =", Gear(), plate="25 µF 450 V")
    told = {n.of if isinstance(n, Noted) else n.name: n for n in listed}
    assert {k: getattr(n, "text", "") or getattr(n, "device", "") for k, n in told.items()} == {
        "C1": "189-227 µF 250 V",
        "S1": "speed-switch",
        "K1": "relay-voltage",
        "C2": "25 µF 450 V",
    }
    known = Gear(capacitors={"C7": {"marking": "6 µF 400 V"}}, devices={"S1": "speed-switch"})
    said = read_inventory("start capacitor 189-227 250; C2 run cap: =", Gear(), plate="25 µF 450 V")
    assert [(n.of, n.text) for n in said] == [("C1", "189-227 µF 250 V"), ("C2", "25 µF 450 V")]  # type: ignore[union-attr]
    again = read_inventory("6 400; cs; 8 400", known)
    assert [n.of if isinstance(n, Noted) else n.name for n in again] == ["C7", "S1", "C1"]
    for bad, wanted in (
        ("=", "25 µF"),
        ("S1 cs; S1 cs", "another part"),
        ("8", "µF"),
        ("", "or none"),
    ):
        with pytest.raises(BadValue, match=wanted):
            read_inventory(bad, Gear())


@pytest.mark.parametrize(("text", "ohm"), [("0.2", 0.2), ("nulled", 0.0), ("180 mΩ", 0.18)])
def test_test_leads_clipped_together_are_taken_off(text: str, ohm: float) -> None:
    assert leads_clipped(text, job_of()).lead_ohm == pytest.approx(ohm)


@pytest.mark.parametrize("text", ["3", "open", "long"])
def test_test_leads_that_read_too_much_are_a_bad_clip(text: str) -> None:
    with pytest.raises(BadValue, match=r"ohm|Ω"):
        leads_clipped(text, job_of())


def test_a_broken_coil_keeps_the_names_that_the_marks_give_it() -> None:
    read = ohms(
        "AD 8.39", "BE open", "BE open", "BC open", "CF 8.33", "EF open", "AE open", "AB open"
    )
    marks = dict(zip("ABCDEF", ("U1", "V1", "W1", "U2", "V2", "W2"), strict=True))
    found = identify(Evidence.of(tuple("ABCDEF"), read, FINE, 3, marks=marks))
    assert found.best.probability > 0.9
    assert found.best.broken == ("B", "E")
    assert found.best.names["B"] == "T2"
    assert found.best.coil_ohm == pytest.approx({"T1-T4": 8.39, "T3-T6": 8.33}, rel=0.01)


def test_the_shops_meter_is_logged_before_what_it_measures_once() -> None:
    meters = (
        Settings().lists.changed("meters", "bench meter, 2026-01-15; old one, 2024-03").all_meters()
    )
    reading = Resistance(between=("A", "B"), value=3.9)
    typed = ReadingTaken(reading=reading)
    (used,) = meter_before(job_of(), meters, [typed])
    assert meter_line(used) == "bench meter, checked 2026-01-15; test leads not nulled"
    logged = job_of(used.model_dump(mode="json"))
    assert meter_before(logged, meters, [typed]) == ()
    (other,) = meter_before(logged, meters, [typed.model_copy(update={"instrument": "old one"})])
    assert other.name == "old one"
    assert meter_before(logged, (), [typed]) == ()
    clipped = leads_clipped("0.2", logged)
    assert meter_line(clipped) == "bench meter, checked 2026-01-15; test leads 0.2 Ω, taken off"
    with pytest.raises(BadDocument, match="day it was checked"):
        Settings().lists.changed("meters", "bench meter, last year")
