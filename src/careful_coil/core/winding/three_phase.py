"""Three-phase windings as networks with 1 Ω coils.

Lead numbers: NEMA MG 1 part 2 and IEC 60034-8. Phase k lies at 120·(k − 1) electrical degrees.
"""

from collections.abc import Sequence

from careful_coil.core.winding.network import Coil, Network


def phase(k: int) -> float:
    """Return the electrical degrees of phase 1, 2, 3."""
    return 120.0 * (k - 1)


def _leads(*numbers: int) -> tuple[str, ...]:
    return tuple(f"T{k}" for k in numbers)


def between(start: str, finish: str, angle: float, half: int = 0, turns: float = 1.0) -> Coil:
    """Return a coil named by its ends."""
    return Coil(
        name=f"{start}-{finish}", start=start, finish=finish, angle=angle, half=half, turns=turns
    )


def _star(numbers: Sequence[int], centre: str, half: int = 0) -> tuple[Coil, ...]:
    return tuple(between(f"T{n}", centre, phase(k), half) for k, n in enumerate(numbers, 1))


def _pairs(starts: Sequence[int], half: int = 0) -> tuple[Coil, ...]:
    """Coils from T(n) to T(n + 3)."""
    return tuple(between(f"T{n}", f"T{n + 3}", phase(k), half) for k, n in enumerate(starts, 1))


def three_lead_wye() -> Network:
    """Return a star inside."""
    return Network(coils=_star((1, 2, 3), "S"), leads=_leads(1, 2, 3))


def three_lead_delta() -> Network:
    """Return a delta inside."""
    coils = tuple(between(f"T{k}", f"T{k % 3 + 1}", phase(k)) for k in (1, 2, 3))
    return Network(coils=coils, leads=_leads(1, 2, 3))


def four_lead() -> Network:
    """Return a star with its centre out."""
    return Network(coils=_star((1, 2, 3), "neutral"), leads=(*_leads(1, 2, 3), "neutral"))


def six_lead() -> Network:
    """Return three phases with both ends out."""
    return Network(coils=_pairs((1, 2, 3)), leads=_leads(*range(1, 7)))


def nine_lead_wye() -> Network:
    """Return three outer halves with both ends out and three inner halves in a star."""
    return Network(
        coils=_pairs((1, 2, 3), 1) + _star((7, 8, 9), "S", 2), leads=_leads(*range(1, 10))
    )


def nine_lead_delta() -> Network:
    """Return a delta open in each side; leads 1, 2, 3 are corners, sides run 1–4, 7–2 and so on."""
    coils: list[Coil] = []
    for k in (1, 2, 3):
        coils.append(between(f"T{k}", f"T{k + 3}", phase(k), 1))
        coils.append(between(f"T{k + 6}", f"T{k % 3 + 1}", phase(k), 2))
    return Network(coils=tuple(coils), leads=_leads(*range(1, 10)))


def twelve_lead() -> Network:
    """Return six halves with both ends out."""
    return Network(coils=_pairs((1, 2, 3), 1) + _pairs((7, 8, 9), 2), leads=_leads(*range(1, 13)))


def two_stars() -> Network:
    """Return two equal stars of the same poles."""
    return Network(
        coils=_star((1, 2, 3), "S", 1) + _star((7, 8, 9), "S2", 2), leads=_leads(1, 2, 3, 7, 8, 9)
    )


def two_windings() -> Network:
    """Return two unequal stars for two speeds: separate windings that share no field."""
    slow = tuple(
        Coil(name=f"T{k}-S", start=f"T{k}", finish="S", angle=phase(k), like="slow")
        for k in (1, 2, 3)
    )
    fast = tuple(
        Coil(
            name=f"T{k + 10}-S2",
            start=f"T{k + 10}",
            finish="S2",
            angle=phase(k),
            like="fast",
            poles=0.5,
        )
        for k in (1, 2, 3)
    )
    return Network(coils=slow + fast, leads=_leads(1, 2, 3, 11, 12, 13))


# which middle lies in which side of the ring: 6 between 1 and 2, 5 between 2 and 3, 4 between 3 and 1
_MIDDLES = (6, 5, 4)


def constant_torque() -> Network:
    """Return a ring of six halves; in series, corner to corner, they make the larger pole number."""
    coils: list[Coil] = []
    for k, middle in enumerate(_MIDDLES, 1):
        coils.append(between(f"T{k}", f"T{middle}", phase(k), 1))
        coils.append(between(f"T{middle}", f"T{k % 3 + 1}", phase(k), 2))
    return Network(coils=tuple(coils), leads=_leads(*range(1, 7)))


def variable_torque() -> Network:
    """Return a star of six halves with 4, 5, 6 in the middles."""
    coils: list[Coil] = []
    for k, middle in enumerate(_MIDDLES, 1):
        coils.append(between(f"T{k}", f"T{middle}", phase(k), 1))
        coils.append(between(f"T{middle}", "S", phase(k), 2))
    return Network(coils=tuple(coils), leads=_leads(*range(1, 7)))


def constant_power() -> Network:
    """Return a ring of six halves; in series, middle to middle, they make the smaller pole number."""
    coils: list[Coil] = []
    for a, corner, b, angle in ((6, 1, 4, 0.0), (4, 3, 5, 240.0), (5, 2, 6, 120.0)):
        coils.append(between(f"T{a}", f"T{corner}", angle, 1))
        coils.append(between(f"T{corner}", f"T{b}", angle, 2, -1.0))
    return Network(coils=tuple(coils), leads=_leads(*range(1, 7)))
