"""Devices in drawings: as they stand, in the same places in every state."""

import pytest

from careful_coil.core.connect import Plan
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.states import off_of, state_at, states_of
from careful_coil.core.ways.usual import USUAL
from careful_coil.drawing.shapes import Drawing, Ring, Stroke, Words
from tests.drawing.test_drawing import hookup_of


def plan_with(name: str) -> Plan:
    slug, variant, devices = USUAL[name]
    return next(p for p in plans_of(slug, variant, devices) if not p.reversed)


@pytest.mark.parametrize("name", USUAL)
def test_devices_stand_in_the_same_places_in_every_state(name: str) -> None:
    plan = plan_with(name)
    places = []
    for state in (*states_of(plan.devices), off_of(plan.devices)):
        if state is not None:
            drawn = hookup_of(plan, state)
            wires = {s.points for s in drawn.shapes if isinstance(s, Stroke) and s.width == 0.9}
            terminals = {
                (s.text, s.at) for s in drawn.shapes if isinstance(s, Words) and s.size == 2.5
            }
            places.append((wires, terminals, {s.at for s in drawn.shapes if isinstance(s, Ring)}))
    assert all(p == places[0] for p in places)


def slanted(drawing: Drawing) -> int:
    """Contacts drawn open: their blade is lifted."""
    blades = [s.points for s in drawing.shapes if isinstance(s, Stroke) and s.width == 0.8]
    return sum(a[0] != b[0] and a[1] != b[1] for a, b in (p[:2] for p in blades))


@pytest.mark.parametrize(
    ("name", "start", "run"),
    [
        ("centrifugal switch, both capacitors", 0, 1),
        ("current relay", 0, 1),
        ("voltage relay, start capacitor", 0, 1),
        ("star and delta", 3, 3),
        ("part winding, nine", 3, 0),
    ],
)
def test_contacts_are_drawn_as_they_stand(name: str, start: int, run: int) -> None:
    plan = plan_with(name)
    assert (slanted(hookup_of(plan, "start")), slanted(hookup_of(plan, "run"))) == (start, run)


def labels(drawing: Drawing) -> list[str]:
    return [s.text for s in drawing.shapes if isinstance(s, Words) and s.size == 3.0]


def test_devices_say_what_they_stand_at() -> None:
    speeds = plan_with("three speeds")
    told = [labels(hookup_of(speeds, s)) for s in states_of(speeds.devices)[::2]]
    assert [t[-1] for t in told] == ["Q1 speed-1", "Q1 speed-2", "Q1 speed-3"]
    relay = plan_with("voltage relay, both, bleed, protector")
    assert labels(hookup_of(relay, "run")) == [
        "K1 open",
        "C1 160 µF",
        "C2 30 µF",
        "R2 15.0 kΩ",
        "P",
    ]
    tripped = state_at(relay.devices, "tripped")
    assert labels(hookup_of(relay, tripped))[-1] == "P open"
    assert labels(hookup_of(plan_with("thermistor"), "run")) == ["R1 hot"]
    both = plan_with("both ways, contactors")
    assert labels(hookup_of(both, "start")) == ["K1 in", "K2 open"]
