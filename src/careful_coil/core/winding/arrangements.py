"""Arrangements: how coils and leads are laid out inside the motors this version knows.

Each is a builder of a network with named leads. Lead numbers follow NEMA MG 1 part 2 (terminal
markings) and IEC 60034-8; nothing here repeats what the network can work out.
"""

from collections.abc import Callable
from dataclasses import dataclass

from careful_coil.core.errors import NotKnownYet
from careful_coil.core.winding.network import Coil, Network


@dataclass(frozen=True, slots=True, kw_only=True)
class Arrangement:
    """A layout: its slug, its plain name, the network with 1 Ω coils, and what is never to be done.

    `never` lists pairs of lead names that must not see line voltage. `phases` is 3 or 1.
    `dc_alike` marks layouts that readings from outside cannot part (star and delta inside).
    """

    slug: str
    title: str
    phases: int
    network: Network
    never: tuple[tuple[str, str], ...] = ()
    note: str = ""


def _phase(k: int) -> float:
    return 120.0 * (k - 1)


def _three_lead() -> Network:
    return Network(
        coils=tuple(
            Coil(name=f"T{k}-S", start=f"T{k}", finish="S", angle=_phase(k)) for k in (1, 2, 3)
        ),
        leads=("T1", "T2", "T3"),
    )


def _six_lead() -> Network:
    return Network(
        coils=tuple(
            Coil(name=f"T{k}-T{k + 3}", start=f"T{k}", finish=f"T{k + 3}", angle=_phase(k))
            for k in (1, 2, 3)
        ),
        leads=tuple(f"T{k}" for k in range(1, 7)),
    )


def _nine_lead_wye() -> Network:
    outer = tuple(
        Coil(name=f"T{k}-T{k + 3}", start=f"T{k}", finish=f"T{k + 3}", angle=_phase(k), half=1)
        for k in (1, 2, 3)
    )
    inner = tuple(
        Coil(name=f"T{k + 6}-S", start=f"T{k + 6}", finish="S", angle=_phase(k), half=2)
        for k in (1, 2, 3)
    )
    return Network(coils=outer + inner, leads=tuple(f"T{k}" for k in range(1, 10)))


def _nine_lead_delta() -> Network:
    """Leads 1, 2, 3 are the corners; each side is two halves, start to finish 1–4, 7–2 and so on."""
    coils = []
    for k in (1, 2, 3):
        nxt = k % 3 + 1
        coils.append(
            Coil(name=f"T{k}-T{k + 3}", start=f"T{k}", finish=f"T{k + 3}", angle=_phase(k), half=1)
        )
        coils.append(
            Coil(
                name=f"T{k + 6}-T{nxt}",
                start=f"T{k + 6}",
                finish=f"T{nxt}",
                angle=_phase(k),
                half=2,
            )
        )
    return Network(coils=tuple(coils), leads=tuple(f"T{k}" for k in range(1, 10)))


def _common_run_start() -> Network:
    return Network(
        coils=(
            Coil(name="run-common", start="run", finish="common", like="run"),
            Coil(name="start-common", start="start", finish="common", angle=90.0, like="start"),
        ),
        leads=("common", "run", "start"),
    )


def _part_winding() -> Network:
    leads = ("T1", "T2", "T3", "T7", "T8", "T9")
    coils = tuple(
        Coil(
            name=f"{lead}-{'S' if k < 3 else 'S2'}",
            start=lead,
            finish="S" if k < 3 else "S2",
            angle=_phase(k % 3 + 1),
            half=1 + k // 3,
        )
        for k, lead in enumerate(leads)
    )
    return Network(coils=coils, leads=leads)


def _dual_voltage_six() -> Network:
    return Network(
        coils=(
            Coil(name="T1-T2", start="T1", finish="T2", half=1, like="main"),
            Coil(name="T3-T4", start="T3", finish="T4", half=2, like="main"),
            Coil(name="T5-T8", start="T5", finish="T8", angle=90.0, like="auxiliary"),
        ),
        leads=("T1", "T2", "T3", "T4", "T5", "T8"),
    )


def _two_speed_coil() -> Network:
    return Network(
        coils=(
            Coil(name="common-high", start="common", finish="high", like="main"),
            Coil(name="high-low", start="high", finish="low", like="tail"),
        ),
        leads=("common", "high", "low"),
    )


def _make(
    slug: str,
    title: str,
    phases: int,
    build: Callable[[], Network],
    never: tuple[tuple[str, str], ...] = (),
    note: str = "",
) -> Arrangement:
    return Arrangement(
        slug=slug, title=title, phases=phases, network=build(), never=never, note=note
    )


ARRANGEMENTS: dict[str, Arrangement] = {
    a.slug: a
    for a in (
        _make("three-phase-6-lead", "Three phases, both ends out", 3, _six_lead),
        _make("three-phase-part-winding-6-lead", "Two equal stars", 3, _part_winding),
        _make(
            "single-phase-dual-voltage-6-lead", "One phase, two main windings", 1, _dual_voltage_six
        ),
        _make("three-phase-9-lead-wye", "Nine leads, wye inside", 3, _nine_lead_wye),
        _make("three-phase-9-lead-delta", "Nine leads, delta inside", 3, _nine_lead_delta),
        _make(
            "single-phase-3-lead",
            "Common, run and start",
            1,
            _common_run_start,
            never=(("run", "start"), ("start", "common")),
        ),
        _make(
            "three-phase-3-lead",
            "Three phases, three leads",
            3,
            _three_lead,
            note="Star or delta inside cannot be told from three leads: the readings fit both.",
        ),
        _make(
            "single-phase-two-speed-coil",
            "One coil with a speed tap",
            1,
            _two_speed_coil,
            never=(("high", "low"),),
        ),
    )
}


def arrangement(slug: str) -> Arrangement:
    """Return the arrangement of that name. Raises NotKnownYet for any other name."""
    try:
        return ARRANGEMENTS[slug]
    except KeyError:
        raise NotKnownYet(f"The arrangement “{slug}”", ", ".join(ARRANGEMENTS)) from None
