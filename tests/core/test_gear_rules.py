"""What Start gear must have settled: the gate's lines, what findings say of causes."""

from typing import Any

import pytest

from careful_coil.core.gear.causes import results_of
from careful_coil.core.gear.machine_of import known_motor
from careful_coil.core.job import Finding
from careful_coil.core.ledger import Judgement
from careful_coil.core.machine.facts import Facts
from careful_coil.core.ways.way import Plan
from tests.core.logs import judged

TICKET = [
    {"kind": "ticket", "field": "name", "text": "Saw"},
    {"kind": "ticket", "field": "complaint", "text": "hums, starts when spun"},
    {"kind": "plate", "field": "phases", "text": "1"},
    {"kind": "plate", "field": "volt", "text": "230"},
]


def can(field: str, text: str, name: str = "C1") -> dict[str, Any]:
    return {"kind": "capacitor", "name": name, "field": field, "text": text}


def fitted(name: str, device: str) -> dict[str, Any]:
    return {"kind": "device-fitted", "name": name, "device": device}


def read(name: str, when: str, ohm: float | None, left: float = 0.005) -> dict[str, Any]:
    return {
        "kind": "device-read",
        "name": name,
        "between": ("1", "2"),
        "when": when,
        "ohm": ohm,
        "left_open": left,
    }


def noted(name: str, field: str, text: str) -> dict[str, Any]:
    return {"kind": "device-noted", "name": name, "field": field, "text": text}


GOOD_CAN: list[dict[str, Any]] = [
    can("marking", "88-108 µF 250 V"),
    can("drained", "0.2"),
    can("microfarad", "95"),
]
GOOD_SWITCH = [
    fitted("S1", "speed-switch"),
    read("S1", "at rest", 0.1),
    read("S1", "mechanism worked by hand", None),
    noted("S1", "actuator", "free"),
    noted("S1", "plate", "even"),
]


def of(found: Judgement, code: str) -> Finding:
    return next(f for f in found.findings if f.code == code)


def test_start_gear_is_judged_when_all_of_it_is() -> None:
    nothing = of(judged(*TICKET), "start-gear")
    assert (nothing.verdict, nothing.gate, nothing.station) == ("unproven", True, "start-gear")
    half = of(judged(*TICKET, *GOOD_CAN, fitted("S1", "speed-switch")), "start-gear")
    assert half.verdict == "unproven"
    assert "S1 not judged" in half.why
    whole = of(judged(*TICKET, *GOOD_CAN, *GOOD_SWITCH), "start-gear")
    assert (whole.verdict, whole.why) == ("good", "C1, S1.")
    word = {"kind": "attested", "item": "start-gear", "words": "seen by the foreman"}
    assert of(judged(*TICKET, word), "start-gear").verdict == "unproven"  # each by its own test


def test_three_phases_have_none_unless_some_is_noted() -> None:
    three = [{"kind": "plate", "field": "phases", "text": "3"}]
    assert not any(f.code == "start-gear" for f in judged(*three).findings)
    noted = judged(*three, fitted("P", "protector"))
    assert of(noted, "start-gear").verdict == "unproven"


@pytest.mark.parametrize(
    ("bodies", "verdict", "words"),
    [
        ([can("looks", "bulged")], "unproven", "no marking read"),
        ([*GOOD_CAN, can("looks", "bulged")], "hold", "whatever it measures"),
        ([*GOOD_CAN, can("microfarad", "40")], "hold", "88 to 108 µF wanted"),
        ([*GOOD_CAN, can("microfarad", "85")], "watch", "fades"),
        ([*GOOD_CAN, can("drained", "")], "unproven", "volts by the meter"),
        ([*GOOD_CAN, can("serves", "run")], "hold", "bursts"),
    ],
)
def test_capacitors(bodies: list[dict[str, Any]], verdict: str, words: str) -> None:
    found = of(judged(*TICKET, *bodies), "capacitor")
    assert found.verdict == verdict
    assert words in f"{found.subject} {found.why}"
    assert found.waivable is not (verdict == "hold")


def test_what_is_gone_no_longer_counts() -> None:
    found = judged(*TICKET, *GOOD_CAN, can("gone", "yes"))
    assert not any(f.code == "capacitor" for f in found.findings)
    off = judged(*TICKET, *GOOD_SWITCH, fitted("S1", ""))
    assert not any(f.code == "start-device" for f in off.findings)
    other = judged(*TICKET, *GOOD_SWITCH, fitted("S1", "ptc"))
    assert of(other, "start-device").verdict == "unproven"  # the old one's readings are not its own


def test_an_interlock_and_an_electronic_switch_are_told_apart() -> None:
    lock = judged(
        *TICKET,
        fitted("S2", "interlock"),
        read("S2", "at rest", None),
        read("S2", "mechanism worked by hand", 0.1),
    )
    assert of(lock, "start-device").subject == "Interlock S2 reads right"
    module = [*TICKET, fitted("E1", "electronic-switch")]
    assert of(judged(*module), "start-device").verdict == "unproven"  # a jumper makes it a link
    clear = {"kind": "device-noted", "name": "E1", "field": "across", "text": "nothing"}
    assert of(judged(*module, clear), "start-device").verdict == "good"


def test_findings_count_for_the_causes_at_once() -> None:
    """A good capacitor and a switch that stays open at rest turn the order of causes round."""
    first = judged(*TICKET)
    assert first.facts.causes is not None
    assert first.facts.causes.odds[0][0].name == "switch-open"
    closed = judged(*TICKET, *GOOD_SWITCH)
    assert results_of(closed.job) == {"switch-at-rest": "closed", "switch-worked": "opens"}
    assert closed.facts.causes is not None
    assert closed.facts.causes.odds[0][0].name == "start-capacitor"
    both = judged(*TICKET, *GOOD_SWITCH, *GOOD_CAN)
    assert both.facts.causes is not None
    assert both.facts.causes.odds[0][0].name == "start-winding"
    assert "capacitor" not in {a.test.name for a in both.facts.asks}
    typed = {"kind": "cause-tested", "test": "capacitor", "outcome": "low"}
    assert results_of(judged(*TICKET, *GOOD_CAN, typed).job)["capacitor"] == "low"
    odd = {"kind": "cause-tested", "test": "sniff", "outcome": "burnt"}
    assert "sniff" not in results_of(judged(*TICKET, odd).job)


@pytest.mark.parametrize("field", ["marking", "serves", "looks", "microfarad", "drained"])
@pytest.mark.parametrize("text", ["banana", "nan", "-5", "1e400", "²", "0"])
def test_a_log_from_elsewhere_may_hold_anything(field: str, text: str) -> None:
    found = judged(*TICKET, *GOOD_CAN, can(field, text))
    own = [f for f in found.findings if f.code == "capacitor"]
    assert len(own) == 1
    if field in ("marking", "microfarad"):
        assert own[0].verdict == "unproven"


PLATE = [
    {"kind": "plate", "field": f, "text": t}
    for f, t in (("hertz", "50"), ("rpm", "1420"), ("amp", "5.4 A"), ("power", "0.55 kW"))
]


def known(*bodies: dict[str, Any]) -> tuple[Plan, Facts] | str:
    found = judged(*TICKET, *bodies)
    return known_motor(found.job, found.facts.kinds, found.facts.identification, found.facts.naming)


def test_a_motors_curves_need_its_kind_its_plate_and_its_capacitor() -> None:
    start = [*GOOD_CAN, can("serves", "start")]
    assert "hertz" in str(known(*start))
    assert isinstance(known(*PLATE), str)
    found = known(*PLATE, *start, *GOOD_SWITCH)
    assert not isinstance(found, str)
    plan, facts = found
    assert [d.kind for d in plan.devices] == ["capacitor-start", "speed-switch"]
    assert plan.devices[0].microfarad == pytest.approx(98)
    assert (facts.kind, facts.volt, facts.watt) == ("capacitor-start", 230, pytest.approx(550))
    both = known(*PLATE, *start, can("marking", "20 µF 450 V", "C2"), can("serves", "run", "C2"))
    assert not isinstance(both, str)
    assert both[1].kind == "capacitor-start-run"
    odd = known(*start, *PLATE, {"kind": "plate", "field": "rpm", "text": "1500"})
    assert "an induction motor slips" in str(odd)
