"""What hands and eyes found: holds until it is made good, burn pictures, how it came."""

from typing import Any

import pytest

from careful_coil.core.condition.burn import BURNS, burns_for, dark_coils
from careful_coil.core.condition.checklist import ITEMS, items_for
from careful_coil.core.condition.seen_rules import unseen_items
from careful_coil.core.job import Finding
from careful_coil.core.kind import weigh_kinds
from careful_coil.core.settings import Settings
from tests.core.logs import READY, job_of, judged, plate


def seen(item: str, answer: str, words: str = "") -> dict[str, Any]:
    return {"kind": "condition", "item": item, "answer": answer, "words": words}


def finding(code: str, *bodies: dict[str, Any], settings: Settings | None = None) -> Finding:
    found = [f for f in judged(*bodies, settings=settings).findings if f.code == code]
    assert len(found) == 1, (code, found)
    return found[0]


def test_frayed_leads_hold_until_they_are_made_good() -> None:
    held = judged(*READY, seen("leads", "frayed"))
    assert [f.code for f in held.gate] == ["seen-leads"]
    assert "Re-sleeve" in held.gate[0].why
    mended = judged(*READY, seen("leads", "frayed"), seen("leads", "made good", "sleeved all six"))
    assert mended.gate == ()
    work = {"kind": "work", "what": "leads renewed"}
    renewed = judged(*READY, seen("leads", "frayed"), work)
    assert [f.code for f in renewed.gate] == [
        "insulation",
        "hookup",
        "test-run",
    ]  # work asks for another test


def test_frayed_insulation_told_lead_by_lead_holds_too() -> None:
    leads = {
        "kind": "leads",
        "leads": [{"tag": t, "insulation": "frayed" if t in "AB" else "fine"} for t in "ABCDEF"],
    }
    found = [f for f in judged(*READY, leads).findings if f.code == "seen-leads"]
    assert [(f.verdict, f.part, f.subject) for f in found] == [
        ("hold", f"lead:{t}", f"Lead {t}: insulation frayed") for t in "AB"
    ]


def test_a_stiff_bearing_explains_electrical_complaints() -> None:
    found = finding("seen-by-hand", seen("by-hand", "stiff"))
    assert found.verdict == "watch"
    for words in ("slow run-up", "chattering", "trips"):
        assert words in found.why


def test_a_missing_bleed_resistor_weighs_as_the_shop_has_chosen() -> None:
    body = seen("bleed resistor", "missing")
    assert finding("seen-bleed-resistor", body).verdict == "watch"
    strict = Settings().changed({"schools": {"bleed": "always"}})
    assert finding("seen-bleed-resistor", body, settings=strict).verdict == "hold"


def test_an_answer_of_its_own_is_kept_as_a_note() -> None:
    found = finding("seen-smell", seen("smell", "fishy", "capacitor?"))
    assert (found.verdict, found.subject) == ("note", "Smell: fishy")


def test_taking_an_answer_back_takes_its_finding_back() -> None:
    found = judged(seen("leads", "bare"), seen("leads", ""))
    assert not [f for f in found.findings if f.code == "seen-leads"]


def test_only_what_this_kind_has_is_asked() -> None:
    three = {i.name for i in items_for(weigh_kinds({"plate-phases": "3 phases", "cage": "yes"}))}
    assert not three & {"contacts", "capacitor", "brushes", "rings"}
    start = {"capacitors": "one", "speed-switch": "opens at speed", "plate-phases": "1 phase"}
    single = {i.name for i in items_for(weigh_kinds(start))}
    assert {"contacts", "weights", "capacitor", "bleed resistor"} <= single
    assert "commutator" not in single
    tool = {i.name for i in items_for(weigh_kinds({"brushes": "yes", "tachometer": "yes"}))}
    assert {"brushes", "commutator"} <= tool
    assert "contacts" not in tool


def test_one_key_says_the_rest_is_fine() -> None:
    kinds = weigh_kinds({})
    names = tuple(i.name for i in items_for(kinds))
    log = [seen("fan", "broken"), {"kind": "rest-fine", "items": list(names)}]
    assert unseen_items(job_of(*log), kinds) == ()
    assert job_of(*log).seen.fine == set(names) - {"fan"}
    later = job_of(*log, seen("smell", "burnt"))
    assert "smell" not in later.seen.fine
    assert [f.subject for f in judged(log[0]).findings if f.code == "condition-open"] == [
        "Not looked at yet"
    ]


@pytest.mark.parametrize("item", ITEMS.values(), ids=lambda i: i.name)
def test_every_wrong_answer_says_why(item: Any) -> None:
    for answer, wrong in item.wrong.items():
        assert wrong.why.endswith((".", "?"))
        assert answer == answer.lower()


@pytest.mark.parametrize("burn", BURNS.values(), ids=lambda b: b.name)
def test_a_burn_picture_names_its_cause(burn: Any) -> None:
    found = finding("burn-picture", seen("burn picture", burn.name))
    assert burn.cause in found.why
    assert any(dark_coils(burn.dark))


def test_burn_pictures_by_phases() -> None:
    assert {b.name for b in burns_for(1)} == {"all", "spot", "start", "ends"}
    assert {b.name for b in burns_for(3)} == {"two-phases", "one-phase", "all", "spot", "ends"}
    assert sum(dark_coils("other-phases")) == 8
    assert sum(dark_coils("phase")) == 4
    assert dark_coils("none") == (False,) * 12


def test_how_it_came_is_said_with_what_is_missing() -> None:
    came = {"kind": "arrived", "states": ["dismantled", "repaired-before"], "missing": ["fan"]}
    found = judged(came)
    assert "fan" in next(f.why for f in found.findings if f.code == "dismantled")
    assert any(f.code == "repaired-before" for f in found.findings)
    whole = judged({"kind": "arrived", "states": [], "missing": []})
    assert not [f for f in whole.findings if f.code in ("dismantled", "missing")]
    short = judged({"kind": "arrived", "states": [], "missing": ["fan guard"]})
    assert "fan guard" in next(f.why for f in short.findings if f.code == "missing")


def test_voltage_tags_that_differ_are_named_with_their_places() -> None:
    tags = [
        {"kind": "voltage-tag", "place": "lead box", "words": "460"},
        {"kind": "voltage-tag", "place": "cable", "words": "230"},
    ]
    found = finding("voltage-tags-differ", *tags)
    assert "lead box: 460; cable: 230" in found.why
    agreed = judged(*tags, {"kind": "voltage-tag", "place": "cable", "words": "460"})
    assert not [f for f in agreed.findings if f.code == "voltage-tags-differ"]


def test_a_seized_shaft_holds() -> None:
    assert finding("seen-by-hand", *plate(phases="3"), seen("by-hand", "seized")).verdict == "hold"
