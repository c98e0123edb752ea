"""Shaft, leads, cord, changes, temporaries, assembly; what Mechanics says to the other stations; the gate."""

from typing import Any

import pytest

from careful_coil.core.ledger import Judgement, judge
from careful_coil.core.mechanics.lead_rules import new_lead
from careful_coil.core.mechanics.open_rules import parts_left
from careful_coil.core.mechanics.parts import parts_wanted
from careful_coil.core.settings import Settings
from tests.core.logs import judged, plate, ticket
from tests.core.test_bearings import bearing, of
from tests.core.test_commutator import commutator, felt

TICKET = [*ticket(name="Mill, mixer"), *plate(phases="1")]
GOOD_ENDS = [
    *bearing("drive", number="6203 ZZ", state="good"),
    *bearing("other", number="6202 ZZ", state="good"),
]


def codes(found: Judgement) -> set[str]:
    return {f.code for f in found.gate}


@pytest.mark.parametrize(
    ("field", "text", "code", "verdict"),
    [
        ("feel", "free", "shaft-feel", "good"),
        ("feel", "rough", "shaft-feel", "watch"),
        ("feel", "binding", "shaft-feel", "hold"),
        ("feel", "rubbing", "shaft-feel", "hold"),
        ("feel", "seized", "shaft-feel", "hold"),
        ("coast-down", "1.2", "coast-down", "watch"),
        ("coast-down", "6", "coast-down", "good"),
        ("end-float", "0.05", "end-float", "watch"),
        ("end-float", "0.4", "end-float", "good"),
        ("end-float", "1.5", "end-float", "watch"),
        ("radial-play", "0.2", "radial-play", "watch"),
        ("rub", "stator", "rub", "watch"),
        ("bolts-other", "binds", "bolts-other", "hold"),
        ("bolts-other", "turns free", "bolts-other", "good"),
        ("fan", "missing", "fan", "hold"),
        ("seals", "leaking", "seals", "hold"),
        ("cord", "cracked", "cord", "hold"),
        ("cord", "good", "cord", "good"),
        ("relief", "missing", "relief", "hold"),
        ("relief", "holds", "relief", "good"),
    ],
)
def test_what_hands_find_has_its_weight(field: str, text: str, code: str, verdict: str) -> None:
    found = judged(*TICKET, felt(field, text))
    assert of(found, code).verdict == verdict
    assert (code in codes(found)) == (verdict == "hold")
    assert code not in {
        f.code for f in judged(*TICKET, felt(field, text), felt(field, "")).findings
    }


def test_volts_at_the_first_turn_are_kept_as_a_pair() -> None:
    before = felt("start-before", "48")
    assert "start-volts" not in {f.code for f in judged(*TICKET, before).findings}
    eased = of(judged(*TICKET, before, felt("start-after", "31")), "start-volts")
    assert (eased.verdict, eased.subject) == ("good", "Starts turning at 31 V, 48 V before")
    assert of(judged(*TICKET, before, felt("start-after", "48")), "start-volts").verdict == "watch"


def test_a_spliced_cord_is_as_the_shop_chose() -> None:
    log = [*TICKET, felt("cord", "cracked"), felt("cord-done", "spliced")]
    assert of(judged(*log), "cord").verdict == "watch"
    splices = Settings(schools={"cord": "splice"})
    assert of(judged(*log, settings=splices), "cord").verdict == "good"
    assert of(judged(*log, felt("cord-done", "renewed")), "cord").verdict == "good"


def test_the_whole_is_judged_when_shaft_and_both_ends_are() -> None:
    nothing = of(judged(*TICKET), "mechanics")
    assert (nothing.verdict, nothing.station) == ("unproven", "mechanics")
    half = of(judged(*TICKET, felt("feel", "free"), *GOOD_ENDS[:2]), "mechanics")
    assert "other end not looked at" in half.why
    whole = judged(*TICKET, felt("feel", "free"), *GOOD_ENDS)
    assert of(whole, "mechanics").verdict == "good"
    assert "mechanics" not in codes(whole)
    rough = bearing("other", number="6202 ZZ", state="rough")
    worn = judged(*TICKET, felt("feel", "free"), *GOOD_ENDS[:2], *rough)
    assert of(worn, "mechanics").verdict == "unproven"
    assert "bearing-other" in codes(worn)


def test_somebodys_word_judges_what_is_not_known_never_what_is_bad() -> None:
    said = "shaft free, drive and other end run well"
    word = {"kind": "attested", "item": "mechanics", "words": said}
    vague = word | {"words": "all fine"}
    assert "mechanics" in codes(judged(*TICKET, vague, *bearing(number="62?3")))
    assert "mechanics" not in codes(judged(*TICKET, word, *bearing(number="62?3")))
    assert "shaft-feel" in codes(judged(*TICKET, word, felt("feel", "binding")))


def test_a_motor_with_brushes_is_asked_for_brushes_and_bars() -> None:
    look = {"kind": "look", "sign": "brushes", "answer": "yes"}
    log = [*TICKET, look, felt("feel", "free"), *GOOD_ENDS]
    found = judged(*log)
    told = {o.kind.name: o.probability for o in found.facts.kinds.odds}
    assert told["universal"] + told["dc-magnet"] + told["dc-wound"] > 0.6
    assert "brushes not looked at" in of(found, "mechanics").why
    assert of(found, "bars").verdict == "unproven"
    steps = judged(*log, commutator(24))
    assert "bars" in codes(steps)


# --- other stations -------------------------------------------------------------------------------------

CLICKS = [*ticket(name="Mixer", complaint="clicks in and out while running"), *plate(phases="1")]


def odds_of(found: Judgement, *names: str) -> float:
    assert found.facts.causes is not None
    return sum(p for c, p in found.facts.causes.odds if c.name in names)


def test_a_binding_shaft_explains_a_chattering_switch() -> None:
    plain = judged(*CLICKS)
    bound = judged(*CLICKS, felt("feel", "binding"), felt("coast-down", "1"))
    worn = ("bearing-worn", "bearing-seized")
    assert odds_of(bound, *worn) > 3 * odds_of(plain, *worn)
    assert odds_of(bound, *worn) > 0.5
    free = judged(*CLICKS, felt("feel", "free"), felt("coast-down", "9"))
    assert odds_of(free, *worn) < 0.2 * odds_of(plain, *worn)
    assert "no-load watts" in of(bound, "shaft-feel").why


def test_a_worn_bearing_raises_its_cause() -> None:
    rough = judged(*CLICKS, *bearing(number="6203", state="rough"))
    assert odds_of(rough, "bearing-worn") > 1.5 * odds_of(judged(*CLICKS), "bearing-worn")


def test_what_was_made_good_here_is_made_good_at_intake() -> None:
    def seen(item: str, answer: str) -> dict[str, Any]:
        return {"kind": "condition", "item": item, "answer": answer}

    log = [*TICKET, seen("by-hand", "seized"), seen("drive-end bearing", "rough")]
    before = judged(*log)
    assert of(before, "seen-by-hand").verdict == "hold"
    after = judged(
        *log, felt("feel", "free"), *bearing(number="6203", state="rough", done="renewed")
    )
    assert of(after, "seen-by-hand").verdict == "good"
    assert of(after, "seen-drive-end-bearing").verdict == "good"
    assert of(before, "seen-drive-end-bearing").verdict == "watch"


# --- leads ----------------------------------------------------------------------------------------------


def leads(**states: str) -> dict[str, Any]:
    return {"kind": "leads", "leads": [{"tag": t, "insulation": s} for t, s in states.items()]}


def mend(tag: str, how: str, words: str = "") -> dict[str, Any]:
    return {"kind": "lead-mended", "tag": tag, "how": how, "words": words}


def test_a_mended_lead_lifts_the_hold_of_its_insulation() -> None:
    log = [*TICKET, leads(A="cracked", B="bare")]
    assert "seen-leads" in codes(judged(*log))
    done = judged(*log, mend("A", "sleeved"), mend("B", "spliced"))
    assert "seen-leads" not in codes(done)
    assert {f.subject for f in done.findings if f.code == "lead-mended"} == {
        "Lead A sleeved",
        "Lead B spliced",
    }
    assert "seen-leads" in codes(judged(*log, mend("A", "sleeved"), mend("A", "")))


def test_a_burnt_lead_is_not_sleeved() -> None:
    found = judged(*TICKET, leads(A="burnt"), mend("A", "sleeved"))
    assert of(found, "lead-mended").verdict == "hold"
    assert "renew it" in of(found, "lead-mended").why


def test_a_new_lead_has_its_size_and_class() -> None:
    """18.3 A on 2.5 mm² by IEC 60204-1, method B1; class F 155 °C."""
    log = [*TICKET, *plate(amp="17", **{"insulation-class": "F"}), leads(A="bare", B="")]
    told = new_lead(judged(*log).job, Settings())
    assert told is not None
    assert (told.mm2, told.celsius) == (2.5, 155)
    (part,) = parts_wanted(judged(*log).job, Settings())
    assert (part.words, part.count) == ("lead wire or sleeve, 2.5 mm², 155 °C", 1)
    assert new_lead(judged(*TICKET).job, Settings()) is None
    assert new_lead(judged(*TICKET, *plate(amp="900")).job, Settings()) is None


# --- what must not leave --------------------------------------------------------------------------------


def temporary(words: str = "jumper across the protector", cleared: str = "") -> dict[str, Any]:
    return {"kind": "temporary", "name": "T1", "words": words, "cleared": cleared}


def test_a_temporary_holds_until_it_is_cleared_and_cannot_be_waived() -> None:
    waiver = {"kind": "waived", "code": "temporary", "reason": "in a hurry", "second": "CD"}
    assert "temporary" in codes(judged(*TICKET, temporary(), waiver))
    assert "temporary" not in codes(judged(*TICKET, temporary(), temporary(cleared="taken off")))
    assert "temporary" not in codes(judged(*TICKET, temporary(), temporary(words="")))


def test_a_change_says_how_it_was_closed() -> None:
    hole = {"kind": "changed", "name": "M1", "words": "hole 6 mm in the end bell", "closed": ""}
    hole |= {"kind": "modified"}
    assert "changed" in codes(judged(*TICKET, hole))
    closed = judged(*TICKET, hole, hole | {"closed": "plug and sealant"})
    assert "changed" not in codes(closed)
    assert of(closed, "changed").verdict == "note"


def off(part: str, back: bool = False, gone: bool = False) -> dict[str, Any]:
    return {"kind": "part-off", "part": part, "back": back, "gone": gone}


def test_parts_go_back_in_reverse_and_hold_until_the_last() -> None:
    log = [*TICKET, off("guard"), off("fan"), off("rear end bell")]
    found = judged(*log)
    assert [p.part for p in parts_left(found.job)] == ["rear end bell", "fan", "guard"]
    assert of(found, "assembly").subject == "3 parts not back"
    part = judged(*log, off("rear end bell", back=True), off("fan", gone=True))
    assert [p.part for p in parts_left(part.job)] == ["guard"]
    assert of(part, "assembly").subject == "guard not back"
    whole = judged(*log, *(off(p, back=True) for p in ("rear end bell", "fan", "guard")))
    assert of(whole, "assembly").verdict == "good"


def test_what_was_missing_when_it_came_is_asked_for() -> None:
    came = {"kind": "arrived", "states": [], "missing": ["fan cover"]}
    assert "Came without: fan cover" in of(judged(*TICKET, came), "assembly").why
    assert "assembly" not in codes(judged(*TICKET, came, off("Fan cover", back=True)))


# --- what comes next ------------------------------------------------------------------------------------


def asked(*bodies: dict[str, Any]) -> list[str]:
    """Return the codes of Mechanics' steps, in order."""
    job, put_off = judged(*bodies).job, set[str]()
    found = []
    while (step := judge(job, Settings(), put_off).next) is not None:
        put_off.add(step.code)
        if step.station == "mechanics" and not step.code.startswith("open-"):
            found.append(step.code)
    return found


def test_the_hands_are_asked_in_the_order_they_work() -> None:
    assert asked(*TICKET)[:3] == ["feel", "bearing-drive", "bearing-other"]
    assert asked(*TICKET, felt("coast-down", "5"))[:3] == ["feel", "bearing-drive", "bearing-other"]


def test_what_is_bad_is_asked_for_until_it_is_mended() -> None:
    bad = [*TICKET, felt("feel", "binding"), *GOOD_ENDS, temporary(), felt("fan", "missing")]
    assert asked(*bad)[:3] == ["mend-shaft-feel", "mend-fan", "temporary-T1"]
    mended = [*bad, felt("feel", "free"), felt("fan", "good"), temporary(cleared="off")]
    assert asked(*mended, off("guard")) == ["back-guard"]


def test_bars_are_asked_for_one_after_the_other() -> None:
    look = {"kind": "look", "sign": "brushes", "answer": "yes"}
    begun = [*TICKET, look, felt("feel", "free"), *GOOD_ENDS]
    assert asked(*begun)[:3] == ["brushes", "fan", "bars"]
    part = {"kind": "bars-read", "first": 1, "ohms": [0.2, 0.2]}
    assert "bar-3" in asked(*begun, commutator(6), part)


def test_a_motor_with_brushes_has_no_start_gear_to_judge() -> None:
    look = {"kind": "look", "sign": "brushes", "answer": "yes"}
    assert "start-gear" in codes(judged(*TICKET))
    assert "start-gear" not in codes(judged(*TICKET, look))


@pytest.mark.parametrize(
    ("bearing", "value", "verdict", "words"),
    [
        ({"number": "6204"}, "0", "good", "preload washer"),
        ({"number": "6204"}, "1.2", "watch", "Preload washer missing"),
        ({"sort": "sleeve"}, "0", "watch", "Bound between"),
        ({"sort": "sleeve"}, "1.2", "watch", "Thrust washers"),
    ],
)
def test_end_float_is_judged_by_its_bearings(
    bearing: dict[str, str], value: str, verdict: str, words: str
) -> None:
    """A ball bearing under its preload washer shows none; a sleeve bearing must have some."""
    of = [
        {"kind": "noted", "sheet": "bearing", "of": "drive", "field": f, "text": t}
        for f, t in bearing.items()
    ]
    found = judged(*of, {"kind": "noted", "sheet": "felt", "field": "end-float", "text": value})
    (line,) = (f for f in found.findings if f.code == "end-float")
    assert (line.verdict, words in line.why) == (verdict, True)
    assert "switch" not in line.why
