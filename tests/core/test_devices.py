"""Devices in all their states: every sound plan, every slip of a device, and what cannot be worked with."""

from collections.abc import Iterator
from dataclasses import replace

import pytest

from careful_coil.core.connect import Check, Hookup, check
from careful_coil.core.connect.check import right_plan
from careful_coil.core.connect.device_faults import OUT_SHARE
from careful_coil.core.connect.explain import Slip, device_slips, plain
from careful_coil.core.connect.hookup import answer
from careful_coil.core.connect.slips import likely_slips, words_of
from careful_coil.core.errors import BadDocument, CannotPlace
from careful_coil.core.ways import plans_of
from careful_coil.core.ways import usual as kits
from careful_coil.core.ways.devices import POLES, Device, check_devices
from careful_coil.core.ways.states import off_of, position_words, state_at, states_of, with_devices
from careful_coil.core.ways.usual import CRS, FOUR, SIX
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.core.winding.single_phase import START_COILS
from tests.core.kits import motor_of, motors

MOTORS = motors()


def holds(found: Check) -> list[str]:
    return [f.text for f in found.faults if f.severity == "hold"]


def codes(found: Check, state: str = "") -> set[str]:
    return {f.code for f in found.faults if not state or f.state == state}


@pytest.mark.parametrize("name", MOTORS)
def test_every_sound_plan_is_sound_in_every_state(name: str) -> None:
    shown = check(MOTORS[name])
    assert (shown.verdict, holds(shown)) == ("sound", [])
    assert shown.connection in name
    names = [t for j in MOTORS[name].joints for t in j]
    assert len(names) == len(set(names))


@pytest.mark.parametrize("name", MOTORS)
def test_start_is_in_at_start_and_out_in_run_and_off_isolates(name: str) -> None:
    """Read off the network, not off the check: amps of start winding and start capacitor, lines off."""
    hookup = MOTORS[name]
    coils = [c.name for c in hookup.inside().coils if c.like in START_COILS]
    run_can = any(d.kind in ("capacitor-run", "capacitor-dual") for d in hookup.devices)
    states = states_of(hookup.devices)
    for start, run in zip(states[::2], states[1::2], strict=True):
        still, turning = answer(hookup, start), answer(hookup, run, hookup.run_slip())
        assert still.shorted == turning.shorted == ()
        most = max(abs(a) for a in still.coil_amp.values())
        for coil in coils:
            assert abs(still.coil_amp[coil]) > 0.05 * most
            if not run_can:
                assert abs(turning.coil_amp[coil]) < OUT_SHARE * most
        for d in hookup.devices:
            if d.kind == "capacitor-start":
                volts = [abs(a.steady.capacitor_volt[d.name][0]) for a in (still, turning)]
                assert volts[1] < OUT_SHARE * volts[0]
    off = off_of(hookup.devices)
    if off is not None:
        shown = answer(hookup, off)
        assert max(shown.line_amp.values()) < 1e-9
        assert max(shown.coil_volt.values()) < 1e-9


@pytest.mark.parametrize("name", [n for n in MOTORS if "reversing" in n or "both ways" in n])
def test_forward_and_reverse_turn_opposite_ways(name: str) -> None:
    shown = {s.state: s.field for s in check(MOTORS[name]).states}
    assert (shown["forward"], shown["reverse"]) == ("forward", "backward")


@pytest.mark.parametrize(("thin", "verdict"), [(6.1, "sound"), (14.0, "dangerous")])
def test_the_line_on_the_other_capacitor_end_is_right_only_for_equal_windings(
    thin: float, verdict: str
) -> None:
    hookup = next(h for n, h in MOTORS.items() if n.startswith("dual can:"))
    other = {"run": "start", "start": "run"}
    joints = tuple(tuple(other.get(n, n) for n in j) for j in hookup.joints)
    ohms = {"run-common": 6.0, "start-common": thin}
    shown = check(replace(hookup, joints=joints, coil_ohm=ohms))
    assert shown.verdict == verdict
    assert shown.rotation_reversed
    if verdict == "dangerous":
        assert any("are exchanged (run and start)" in t for t in holds(shown))


def test_states_are_told_in_the_words_of_the_document() -> None:
    told = {name: [s.state for s in check(hookup).states] for name, hookup in MOTORS.items()}
    assert told["three speeds: speeds by the selector"] == [
        "start", "run", "speed-1", "speed-2", "speed-3", "off",
    ]  # fmt: skip
    assert told["star and delta: wye to start, delta to run"] == ["star", "delta", "off"]
    halves = next(v for k, v in told.items() if k.startswith("part winding, nine"))
    assert halves == ["first-half", "run", "off"]
    assert next(v for k, v in told.items() if k.startswith("dual can")) == ["start", "run"]


def test_star_has_a_third_of_deltas_amps_and_a_selector_slows() -> None:
    """√3 less volts a coil and √3 less a line: a third; a slower tap puts fewer volts on a turn."""
    hookup = MOTORS["star and delta: wye to start, delta to run"]
    star, delta = (answer(hookup, s) for s in states_of(hookup.devices))
    assert star.line_amp["L1"] == pytest.approx(delta.line_amp["L1"] / 3)
    speeds = {s.state: s for s in check(MOTORS["three speeds: speeds by the selector"]).states}
    volts = [speeds[f"speed-{k}"].coil_volt["run-high"] for k in (1, 2, 3)]
    assert volts == sorted(volts, reverse=True)


def slips() -> Iterator[tuple[str, Hookup, Slip]]:
    for name, hookup in MOTORS.items():
        right, _ = right_plan(hookup)
        assert right is not None
        for slip in device_slips(right.joints, right.devices):
            after = slip.done_to(right.joints)
            if plain(after, right.devices) != plain(right.joints, right.devices):
                yield name, replace(hookup, joints=after), slip


EVERY_SLIP = list(slips())


def as_good(hookup: Hookup) -> bool:
    """Whether the coil volts of every state are the right hookup's, to a relay's or heater's drop."""
    right, _ = right_plan(hookup)
    assert right is not None
    good = hookup.of_plan(right)
    for state in (*states_of(hookup.devices), off_of(hookup.devices)):
        if state is not None:
            made, meant = (sorted(answer(h, state, 0.9).coil_volt.values()) for h in (hookup, good))
            if made != pytest.approx(meant, rel=0.02, abs=1e-6):
                return False
    return True


def test_every_slip_of_a_device_is_found_and_named_or_is_none() -> None:
    """What the check calls sound has the coil volts of the right hookup in every state.

    What it finds names the device, or the exchange of leads that comes to the same.
    """
    missed, sound = [], 0
    for name, hookup, slip in EVERY_SLIP[::8]:
        shown = check(hookup)
        if shown.verdict == "sound":
            sound += 1
            if not as_good(hookup) and not shown.rotation_reversed:
                missed.append(f"{name}: {slip.text()}")
            continue
        told = " ".join(holds(shown))
        devices = {t.split(".")[0] for t in slip.leads} | {"K1"}
        if not any(d in told for d in devices) and "exchanged" not in told:
            missed.append(f"{name}: {slip.text()} {told}")
    assert missed == []
    assert sound < 0.16 * len(EVERY_SLIP[::8])  # in a star any two ends may be exchanged


def wrong(kit: str, *changes: tuple[str, str]) -> Check:
    """A kit with terminals renamed in its joints, one after the other."""
    hookup = next(h for n, h in MOTORS.items() if n.startswith(f"{kit}:"))
    joints = hookup.joints
    for one, two in changes:
        other = {one: two, two: one}
        joints = tuple(tuple(other.get(n, n) for n in j) for j in joints)
    return check(replace(hookup, joints=joints))


def moved(kit: str, terminal: str, beside: str) -> Check:
    """A kit with a terminal taken out of its joint and put in that of another name."""
    hookup = next(h for n, h in MOTORS.items() if n.startswith(f"{kit}:"))
    joints = tuple(
        tuple(n for n in j if n != terminal) + ((terminal,) if beside in j else ())
        for j in hookup.joints
    )
    return check(replace(hookup, joints=joints))


def test_a_start_circuit_that_stays_in() -> None:
    shown = moved("centrifugal switch, split phase", "aux-1", "L1")
    assert shown.verdict == "dangerous"
    assert "start-stays-in" in codes(shown, "run")
    stays = moved("centrifugal switch, both capacitors", "C1.1", "L1")
    assert "start-stays-in" in codes(stays, "run")
    assert any("start capacitor C1 stays in" in t for t in holds(stays))
    swapped = wrong("centrifugal switch, both capacitors", ("C1.1", "C2.1"), ("C1.2", "C2.2"))
    assert "C1 and C2 are exchanged." in holds(swapped)
    assert "start-stays-in" in codes(swapped, "run")


def test_a_start_circuit_that_never_comes_in() -> None:
    shown = moved("centrifugal switch, split phase", "S1.1", "L2")
    assert "start-never-in" in codes(shown, "start")
    assert any("S1.1 is joined to" in t for t in holds(shown))


def test_a_capacitor_across_the_line() -> None:
    shown = moved("centrifugal switch, start capacitor", "C1.2", "L2")
    assert {"capacitor-across-line", "start-never-in"} <= codes(shown, "start")
    assert shown.verdict == "dangerous"


def test_a_relay_coil_on_the_wrong_side_of_the_protector() -> None:
    """It shows only when the protector opens: amps and ohms are right until then."""
    shown = moved("voltage relay, both, bleed, protector", "K1.5", "L2")
    assert codes(shown, "protector open") == {"device-misplaced"}
    assert any("wrong side of P" in t for t in holds(shown))
    assert any("K1.5 is joined to L2" in t for t in holds(shown))
    assert "device-misplaced" in codes(
        moved("voltage relay, both, bleed, protector", "K1.5", "L1"), "run"
    )


def test_terminals_exchanged() -> None:
    relay = wrong("voltage relay, start capacitor", ("K1.1", "K1.2"))
    assert "Terminals K1.1 and K1.2 are exchanged." in holds(relay)
    current = wrong("current relay", ("K1.M", "K1.S"))
    assert "start-stays-in" in codes(current, "run")
    turned = wrong("current relay", ("K1.L", "K1.M"))
    assert any("does not carry the main" in t for t in holds(turned))
    heater = wrong("voltage relay, three-terminal protector", ("P.2", "P.3"))
    assert any("heater of P" in t for t in holds(heater))
    speeds = wrong("three speeds", ("Q1.L", "Q1.S"))
    assert speeds.verdict != "sound"


@pytest.mark.parametrize("beside", [True, False])
def test_an_old_switch_left_in(beside: bool) -> None:
    joints = [["L1", "main-1", "E1.1"], ["C1.2", "aux-1"], ["L2", "main-2", "aux-2"]]
    if beside:
        joints[0].append("S1.1")
        joints.append(["E1.2", "S1.2", "C1.1"])
    else:
        joints += [["E1.2", "S1.1"], ["S1.2", "C1.1"]]
    good = MOTORS[next(n for n in MOTORS if n.startswith("electronic switch:"))]
    devices = (kits.ELECTRONIC, kits.SWITCH, kits.START)
    shown = check(replace(good, joints=tuple(map(tuple, joints)), devices=devices))
    assert shown.verdict == "wrong"
    found = [t for t in holds(shown) if "Take S1's leads off" in t]
    assert found
    assert ("lies beside" in found[0]) is beside


def test_a_protector_that_is_bridged_or_feeds_half() -> None:
    assert "protector-bypassed" in codes(
        moved("voltage relay, both, bleed, protector", "common", "L2"), "protector open"
    )


def test_off_must_isolate() -> None:
    shown = moved("run capacitor, line switch", "run", "L1")
    assert shown.verdict == "sound" or "off-does-not-isolate" in codes(shown)
    bridged = next(h for n, h in MOTORS.items() if n.startswith("contactor:"))
    joints = tuple(
        tuple(n for n in j if n not in ("K1.1", "K1.2")) + (("K1.1", "K1.2") if "L1" in j else ())
        for j in bridged.joints
    )
    shown = check(replace(bridged, joints=joints))
    assert shown.verdict == "wrong"


def test_a_selector_that_closes_two_taps_at_once_shorts_the_section_between() -> None:
    hookup = MOTORS["three speeds: speeds by the selector"]
    table = dict(kits.SELECTOR.table) | {"2": (("L", "H"), ("L", "M"))}
    both = tuple(replace(d, table=table) if d.kind == "selector" else d for d in hookup.devices)
    shown = check(replace(hookup, devices=both))
    assert shown.verdict == "wrong"
    assert "coil-shorted" in codes(shown, "start, speed-2")
    assert any("high-medium" in t for t in holds(shown))


def test_a_state_that_shorts_the_line_is_named() -> None:
    hookup = MOTORS["star and delta: wye to start, delta to run"]
    both = tuple(
        replace(d, table={"star": POLES, "delta": POLES}) if d.name == "K3" else d
        for d in hookup.devices
    )
    shown = check(replace(hookup, devices=both))
    assert shown.verdict == "dangerous"
    assert any("in the state delta" in t for t in holds(shown))


def test_devices_no_plan_can_place_are_judged_state_by_state() -> None:
    """Two selectors in series: no plan, but the network still says what each state does."""
    two = tuple(replace(kits.LINE_SWITCH, name=n) for n in ("Q1", "Q2"))
    joints = [
        ["L1", "Q1.1"], ["Q1.2", "Q2.1"], ["Q2.2", "run", "C2.1"], ["C2.2", "start"],
        ["common", "Q2.4"], ["Q2.3", "Q1.4"], ["Q1.3", "L2"],
    ]  # fmt: skip
    good = MOTORS[next(n for n in MOTORS if n.startswith("run capacitor, line switch"))]
    devices = (*two, kits.RUN)
    shown = check(replace(good, joints=tuple(map(tuple, joints)), devices=devices))
    assert (shown.verdict, codes(shown)) == ("sound", {"no-plan-for-devices"})
    joints[2].remove("run")
    shown = check(replace(good, joints=tuple(map(tuple, joints)), devices=devices))
    assert "open-coil" in codes(shown)


@pytest.mark.parametrize(
    ("slug", "devices", "words"),
    [
        (CRS, (kits.VOLTAGE,), "always works with a start capacitor"),
        (CRS, (kits.RUN, kits.BLEED), "across a start capacitor"),
        (FOUR, (kits.SWITCH, kits.ELECTRONIC), "one start device"),
        (CRS, (kits.THREE, kits.RUN), "windings' ends apart"),
        (CRS, (kits.RUN, kits.CROSSING), "must come out"),
        (CRS, (kits.RUN, kits.SELECTOR), "no speed taps"),
        (kits.TAPS, (kits.RUN, replace(kits.SELECTOR, table={"a": (("L", "H"),), "b": (("L", "M"),)})), "3 speeds"),
        (kits.DUAL6, (kits.CURRENT,), "line's volts on the start winding"),
        (FOUR, (Device(name="B1", kind="link"), kits.SWITCH), "a joint of its own"),
        (SIX, (kits.TWO,), "no plan here places it on three phases"),
        (SIX, (kits.contactor(1, "star"), kits.contactor(2, "delta")), "no hookup of this winding"),
        ("single-phase-two-speed-coil", (kits.RUN,), "no start winding"),
    ],
)  # fmt: skip
def test_what_no_plan_places_is_said(slug: str, devices: tuple[Device, ...], words: str) -> None:
    with pytest.raises(CannotPlace, match=words):
        plans_of(slug, devices=devices)


@pytest.mark.parametrize(
    ("devices", "words"),
    [
        ([Device(name="C1", kind="capacitor-run")], "0 µF"),
        ([Device(name="C1", kind="capacitor-dual", microfarad=40)], "two capacities"),
        ([Device(name="R1", kind="resistor")], "0 Ω"),
        ([Device(name="S1", kind="speed-switch", action="hops")], "opens or closes"),
        ([Device(name="X1", kind="banana")], "one of capacitor-start"),
        ([kits.SWITCH, kits.SWITCH], "twice"),
        ([Device(name="Q1", kind="selector")], "position table"),
        ([Device(name="Q1", kind="selector", table={"0": ()})], "no contact in any position"),
        ([Device(name="Q1", kind="selector", table={"1": (("a", "a"),)})], "two terminals"),
        ([Device(name="S1", kind="ptc", table={"1": (("1", "2"),)})], "its contacts are known"),
        ([Device(name=n, kind="contactor") for n in ("K1", "K2")], "in which state"),
    ],
)
def test_devices_that_cannot_be_are_refused(devices: list[Device], words: str) -> None:
    with pytest.raises(BadDocument, match=words):
        check_devices(devices)


def test_positions_have_words() -> None:
    assert list(position_words(kits.SELECTOR).values()) == ["off", "speed-1", "speed-2", "speed-3"]
    assert list(position_words(kits.LINE_SWITCH).values()) == ["off", "on"]
    assert list(position_words(kits.TURN).values()) == ["off", "forward", "reverse"]
    with pytest.raises(BadDocument, match="a state: off"):
        position_words(Device(name="K1", kind="contactor", table={"middling": POLES}))
    with pytest.raises(BadDocument, match="speed-1 twice"):
        position_words(replace(kits.SELECTOR, table={"speed-1": POLES, "hot": POLES}))


@pytest.mark.parametrize(
    ("kind", "rest", "start", "run"),
    [
        ("speed-switch", 1, 1, 0),
        ("hot-wire", 1, 1, 0),
        ("relay-current", 0, 1, 0),
        ("relay-voltage", 1, 1, 0),
        ("electronic-switch", 0, 1, 0),
        ("link", 1, 1, 1),
        ("ptc", 0, 0, 0),
    ],
)
def test_contacts_with_the_power_off_at_start_and_in_run(
    kind: str, rest: int, start: int, run: int
) -> None:
    device = Device(name="D", kind=kind)
    assert [len(device.contacts(m)) for m in ("rest", "start", "run")] == [rest, start, run]
    network = with_devices(ARRANGEMENTS[SIX].network, (device,), state_at((device,), "start"))
    assert set(device.terminals()) <= set(network.nodes())


def test_ohms_before_power_are_those_of_devices_at_rest() -> None:
    """A current relay stands open, a thermistor conducts, an interlock is open."""
    ohms = {}
    for name, devices in (
        ("relay", (kits.CURRENT,)),
        ("ptc", (replace(kits.PTC, ohm=6.0),)),
    ):
        found = plans_of(CRS, devices=devices)[0]
        ohms[name] = found.line_ohm({"run-common": 6.0, "start-common": 12.0})["L1-L2"]
    assert ohms["relay"] == pytest.approx(6.0 + 0.06)
    assert ohms["ptc"] == pytest.approx(1 / (1 / 6 + 1 / 18))


def test_slips_of_devices_are_listed_with_the_state_that_shows_them() -> None:
    hookup = MOTORS[next(n for n in MOTORS if n.startswith("centrifugal switch, both"))]
    right, _ = right_plan(hookup)
    assert right is not None
    found = {s.title: s for s in likely_slips(hookup, right)}
    swapped = found["C1 and C2 are exchanged."]
    assert (swapped.state, swapped.cheapest) == ("run", "run")
    assert "never a ramp" in " ".join(words_of(swapped))
    assert found["S1 is bridged from S1.1 to S1.2: it does nothing."].state == "run"
    left = found["Terminal S1.1 is not in its joint L1 – main-1 – S1.1 – C2.1."]
    assert left.state == "start" or not left.state
    assert motor_of(right).joints == right.joints
