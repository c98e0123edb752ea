"""The network against a circuit simulator that writes the machine another way."""

import itertools
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from careful_coil.core.connect.explain import slips_of
from careful_coil.core.connect.hookup import answer
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.devices import Moment
from careful_coil.core.winding import ARRANGEMENTS, Network
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.extras import with_extras, with_protector
from careful_coil.core.winding.network import Capacitor
from careful_coil.core.winding.rotor import default_rotor
from careful_coil.core.winding.steady import Supply, solve
from tests.core.kits import motors
from tests.core.spice import coil_amps, line_ohms, needs_ngspice, node_volts

pytestmark = needs_ngspice
CLOSE = 1e-6
MOTORS = motors()
EVERY = [(slug, v) for slug, a in sorted(ARRANGEMENTS.items()) for v in ("", *a.variants)]


def uneven(network: Network) -> Network:
    """Coils that all differ, so that no symmetry hides a mistake."""
    return network.with_ohm({c.name: 1.3 + 0.37 * k for k, c in enumerate(network.coils)})


@pytest.mark.parametrize(("slug", "variant"), EVERY)
def test_ohms_of_every_arrangement(slug: str, variant: str, tmp_path: Path) -> None:
    network = with_extras(uneven(ARRANGEMENTS[slug].inside(variant)), ("thermostat", "rtd-3-wire"))
    if slug == "single-phase-3-lead":
        network = with_protector(network, "common", 0.2)
    pairs = [
        (a, b)
        for a, b in itertools.combinations(network.leads, 2)
        if np.isfinite(network.ohm_between(a, b))
    ]
    read = line_ohms(network, pairs, tmp_path)
    assert [network.ohm_between(*p) for p in pairs] == pytest.approx(read, rel=CLOSE)


def agrees(
    network: Network, supply: Supply, slip: float, folder: Path, caged: bool, halves: Halves
) -> None:
    rotor = default_rotor(network, caged)
    ours = solve(network, supply, slip, rotor, halves).coil_amp[0]
    theirs = np.array(coil_amps(network, supply, slip, rotor, folder, halves))
    assert np.max(np.abs(ours - theirs)) <= CLOSE * np.max(np.abs(theirs))


@pytest.mark.parametrize(("slip", "caged"), [(1.0, False), (1.0, True), (0.04, True), (1.6, True)])
@pytest.mark.parametrize(("slug", "variant"), EVERY)
def test_amps_of_a_right_hookup(
    slug: str, variant: str, slip: float, caged: bool, tmp_path: Path
) -> None:
    """Rotor absent, at standstill, turning, and turned against its field."""
    known = ARRANGEMENTS[slug]
    inside = uneven(known.inside(variant))
    found = plans_of(slug, variant)[-1]
    network = replace(found.network(), coils=inside.coils)
    supply = Supply.of(known.phases, 230.0, 50.0, 60.0)
    agrees(network, supply, slip, tmp_path, caged, known.halves)


@pytest.mark.parametrize(
    "slug", ["three-phase-6-lead", "three-phase-9-lead-delta", "three-phase-12-lead"]
)
def test_amps_of_wrong_hookups(slug: str, tmp_path: Path) -> None:
    inside = uneven(ARRANGEMENTS[slug].network)
    found = plans_of(slug)[0]
    slips = list(slips_of(inside, found.joints))
    for slip in slips[:: max(1, len(slips) // 8)]:
        network = inside.joined(slip.done_to(found.joints))
        agrees(network, Supply.of(3, 230.0), 0.1, tmp_path, True, "adjacent")


@pytest.mark.parametrize("slip", [1.0, 0.05])
@pytest.mark.parametrize("microfarad", [10.0, 150.0])
def test_amps_of_capacitor_motors(microfarad: float, slip: float, tmp_path: Path) -> None:
    for slug, near, far in (
        ("single-phase-3-lead", "run", "start"),
        ("single-phase-4-lead", "main-1", "aux-1"),
    ):
        last = ("L2", "common") if slug == "single-phase-3-lead" else ("L2", "main-2", "aux-2")
        network = uneven(ARRANGEMENTS[slug].network).joined([("L1", near, "x"), last])
        can = Capacitor(name="C", start="x", finish=far, microfarad=microfarad)
        agrees(
            replace(network, capacitors=(can,)),
            Supply.of(1, 230.0, 50.0, 50.0),
            slip,
            tmp_path,
            True,
            "alternate",
        )


STARTED = [
    n
    for n in MOTORS
    if n.startswith(("centrifugal switch", "voltage relay", "run capacitor", "current"))
]


@pytest.mark.parametrize("moment", ["start", "run"])
@pytest.mark.parametrize("name", STARTED)
def test_start_gear_in_each_state(name: str, moment: Moment, tmp_path: Path) -> None:
    """Coil amps at standstill and, in run, at rated slip; a voltage relay's coil volts too."""
    hookup = MOTORS[name]
    slip = 1.0 if moment == "start" else hookup.run_slip()
    shown = answer(hookup, moment, slip)
    rotor = default_rotor(shown.network)
    supply = Supply.of(1, hookup.supply.volt, 50.0, 50.0)
    theirs = np.array(coil_amps(shown.network, supply, slip, rotor, tmp_path))
    ours = np.array(list(shown.coil_amp.values()))
    assert np.max(np.abs(ours - theirs)) <= CLOSE * np.max(np.abs(theirs))
    for d in hookup.devices:
        if d.kind == "relay-voltage":
            ends = d.at("5"), d.at("2")
            volts = [shown.steady.node_volt[n][0] for n in ends]
            spice = node_volts(shown.network, supply, slip, rotor, ends, tmp_path)
            apart = abs((volts[0] - volts[1]) - (spice[0] - spice[1]))
            assert apart <= CLOSE * abs(spice[0] - spice[1])


def uneven_amps(network: Network, slip: float, folder: Path, halves: Halves) -> float:
    """Return how far the three lines' amps lie apart over their mean, by the simulator alone."""
    rotor = default_rotor(network)
    amps = coil_amps(network, Supply.of(3, 60.0), slip, rotor, folder, halves)
    index = network.node_index()
    line = [
        abs(
            sum(
                a * ((index[c.start] == index[name]) - (index[c.finish] == index[name]))
                for a, c in zip(amps, network.coils, strict=True)
            )
        )
        for name in ("L1", "L2", "L3")
    ]
    return (max(line) - min(line)) / (sum(line) / 3)


@pytest.mark.parametrize(
    "slug",
    ["three-phase-6-lead", "three-phase-9-lead-wye", "three-phase-12-lead"],
)
def test_three_equal_amps_at_reduced_volts_prove_the_sense_of_every_coil(
    slug: str, tmp_path: Path
) -> None:
    """The right hookup's amps are alike; each coil the wrong way round makes them differ beyond the 10 %."""
    inside = ARRANGEMENTS[slug].network
    found = plans_of(slug)[0]
    assert uneven_amps(inside.joined(found.joints), 1.0, tmp_path, "alternate") < 0.01
    reversed_ = [s for s in slips_of(inside, found.joints) if s.kind == "coil-reversed"]
    assert reversed_
    for slip in reversed_:
        wrong = inside.joined(slip.done_to(found.joints))
        for at in (1.0, 0.3):
            assert uneven_amps(wrong, at, tmp_path, "alternate") > 0.1
