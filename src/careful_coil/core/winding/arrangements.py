"""Arrangements: how coils and leads are laid out inside the motors the bench meets.

Each names its builders; nothing here repeats what the network can work out.
"""

import itertools
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from careful_coil.core.errors import NotKnownYet
from careful_coil.core.winding import single_phase as single
from careful_coil.core.winding import three_phase as three
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.network import Network

Pair = tuple[str, str]


@dataclass(frozen=True, slots=True, kw_only=True)
class Arrangement:
    """A layout: its slug, its plain name, the network with 1 Ω coils, and what is never to be done.

    `phases` is 3 or 1; `variants` other insides of the same slug; `halves` how halves of a phase lie
    unless told otherwise; `never` pairs of lead names, of any variant, that must not see line volts.
    """

    slug: str
    title: str
    phases: int
    network: Network
    variants: Mapping[str, Network] = field(default_factory=dict)
    halves: Halves = "alternate"
    never: tuple[Pair, ...] = ()
    note: str = ""

    def inside(self, variant: str = "") -> Network:
        """Return the network of a variant, "" the usual one. Raises: NotKnownYet."""
        if not variant:
            return self.network
        try:
            return self.variants[variant]
        except KeyError:
            known = ", ".join(self.variants) or "only the usual one"
            raise NotKnownYet(f"“{variant}” of {self.slug}", known) from None


def _make(
    slug: str,
    title: str,
    phases: int,
    build: Callable[[], Network],
    never: tuple[Pair, ...] = (),
    note: str = "",
    halves: Halves = "alternate",
    **variants: Callable[[], Network],
) -> Arrangement:
    return Arrangement(
        slug=slug,
        title=title,
        phases=phases,
        network=build(),
        variants={name.replace("_", "-"): make() for name, make in variants.items()},
        halves=halves,
        never=never,
        note=note,
    )


_TAPS = ("high", "medium", "tap-1", "tap-2", "tap-3", "low")
_TAPS_NEVER: tuple[Pair, ...] = (
    *itertools.combinations(_TAPS, 2),
    ("run", "start"),
    *(("start", tap) for tap in _TAPS),
)


ARRANGEMENTS: dict[str, Arrangement] = {
    a.slug: a
    for a in (
        _make("three-phase-6-lead", "Three phases, both ends out", 3, three.six_lead),
        _make(
            "three-phase-part-winding-6-lead",
            "Two equal stars",
            3,
            three.two_stars,
            two_windings=three.two_windings,
        ),
        _make(
            "single-phase-dual-voltage-6-lead",
            "One phase, two main windings",
            1,
            single.dual_voltage_six,
            single_voltage=single.single_voltage_four,
        ),
        _make("three-phase-9-lead-wye", "Nine leads, wye inside", 3, three.nine_lead_wye),
        _make("three-phase-9-lead-delta", "Nine leads, delta inside", 3, three.nine_lead_delta),
        _make(
            "single-phase-3-lead",
            "Common, run and start",
            1,
            single.common_run_start,
            never=(("run", "start"), ("start", "common")),
            switch_inside=single.common_run_start,
        ),
        _make(
            "three-phase-3-lead",
            "Three phases, three leads",
            3,
            three.three_lead_wye,
            note="Star or delta inside cannot be told from three leads: the readings fit both.",
            delta=three.three_lead_delta,
        ),
        _make(
            "single-phase-two-speed-coil",
            "One coil with a speed tap",
            1,
            single.two_speed_coil,
            never=(("high", "low"),),
            note="Which outer end is common is a leaning. Not over 15 % of rated volts on each pair proves "
            "it: the whole coil draws least, then the main section, the tail most.",
        ),
        _make(
            "single-phase-2-lead",
            "Two leads, start circuit inside",
            1,
            single.two_leads,
            note="One path is all that ohms show: a start winding inside is in parallel with the main.",
        ),
        _make("three-phase-4-lead", "Star with its centre out", 3, three.four_lead),
        _make("three-phase-12-lead", "Six halves, both ends out", 3, three.twelve_lead),
        _make(
            "three-phase-two-speed-6-lead",
            "Two speeds, one winding",
            3,
            three.constant_torque,
            note="Corners and middles look alike until plate, marks or a test say which is which.",
            halves="pole-changing",
            variable_torque=three.variable_torque,
            constant_power=three.constant_power,
        ),
        _make("single-phase-4-lead", "Main pair and start pair", 1, single.main_and_auxiliary),
        _make(
            "single-phase-speed-taps",
            "Main, start and speed taps",
            1,
            single.speed_taps,
            never=_TAPS_NEVER,
            two=lambda: single.speed_taps(2),
            four=lambda: single.speed_taps(4),
            five=lambda: single.speed_taps(5),
            in_main=single.speed_taps_in_main,
        ),
        _make(
            "single-phase-dual-voltage-8-lead",
            "One phase, two main and two start windings",
            1,
            single.dual_voltage_eight,
        ),
        _make("universal-4-lead", "Field and armature", 1, single.universal_four),
        _make(
            "universal-5-lead", "Field with a middle lead, and armature", 1, single.universal_five
        ),
    )
}


def arrangement(slug: str) -> Arrangement:
    """Return the arrangement of that name. Raises NotKnownYet for any other name."""
    try:
        return ARRANGEMENTS[slug]
    except KeyError:
        raise NotKnownYet(f"The arrangement “{slug}”", ", ".join(ARRANGEMENTS)) from None
