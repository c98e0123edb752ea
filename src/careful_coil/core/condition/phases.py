"""Coils from readings on the lines: the two classic insides, and any hookup by the network."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.winding.network import Network

Inside = Literal["wye", "delta"]
TELLABLE = 0.05  # smallest share of a coil's change that must show in some reading
LINE_PAIRS = 3


def phases_from_lines(ohm: Sequence[float], inside: str) -> tuple[float, float, float]:
    """Return the phases in Ω from readings AB, BC, CA: wye A, B, C; delta AB, BC, CA.

    Wye R_A = (R_AB + R_CA − R_BC)/2; delta through the equivalent star S: R_AB = ΣS·S/S_C, ΣS·S the
    sum of the products by twos. Source: star-delta transformation (Kennelly 1899).
    Raises: ValueOutOfRange where no three coils read so.
    """
    if len(ohm) != LINE_PAIRS or not all(0 < x < float("inf") for x in ohm):
        raise ValueOutOfRange("/".join(f"{x:g}" for x in ohm), "three ohms: AB/BC/CA")
    ab, bc, ca = ohm
    star = ((ab + ca - bc) / 2, (ab + bc - ca) / 2, (bc + ca - ab) / 2)
    if inside not in ("wye", "delta"):
        raise ValueOutOfRange(inside, "wye or delta")
    if min(star) <= 0:
        raise ValueOutOfRange(
            "/".join(f"{x:g}" for x in ohm),
            "three readings of which none is as large as the other two together",
            "No three coils read so.",
        )
    if inside == "wye":
        return star
    a, b, c = star
    products = a * b + b * c + c * a
    return products / c, products / a, products / b


@dataclass(frozen=True, slots=True, kw_only=True)
class Solved:
    """Coil ohms by name in Ω; `untold` those that the readings cannot tell apart from their like;
    `off_percent` the largest departure of a reading from what the coils give."""

    ohm: dict[str, float]
    untold: tuple[str, ...]
    off_percent: float


def coils_from(network: Network, read: Mapping[tuple[str, str], float]) -> Solved:
    """Return the coils that give the readings between nodes, by least squares on their logarithms.

    `network` the winding with the joints it was read with, so that bunched and parallel paths are
    worked out, its ohms a first guess; `read` Ω by pair of nodes. A coil no reading moves, or two that
    no reading parts, are `untold`: they keep the mean of their like. Raises: ValueOutOfRange.
    """
    from scipy.optimize import least_squares

    pairs = list(read)
    target = np.log([read[p] for p in pairs])
    coils = [c.name for c in network.coils]
    scale = float(np.mean(target)) - float(np.mean(np.log(_given(network, pairs))))
    start = np.log([c.ohm for c in network.coils]) + scale
    kinds = [c.like for c in network.coils]

    def shown(logs: "np.typing.NDArray[np.float64]") -> "np.typing.NDArray[np.float64]":
        return np.log(_given(network.with_ohm(dict(zip(coils, np.exp(logs), strict=True))), pairs))

    def apart(logs: "np.typing.NDArray[np.float64]") -> "np.typing.NDArray[np.float64]":
        means = np.array(
            [np.mean([x for x, k in zip(logs, kinds, strict=True) if k == kind]) for kind in kinds]
        )
        # a slight pull to their like, which decides only where the readings do not
        return np.concatenate([shown(logs) - target, 1e-4 * (logs - means)])

    found = least_squares(apart, start, method="lm" if len(pairs) >= 1 else "trf")
    jacobian = found.jac[: len(pairs)]
    _u, s, vt = np.linalg.svd(jacobian)
    rank = int(np.sum(s > TELLABLE * max(float(s[0]), 1e-12)))
    hidden = vt[rank:]
    loose = np.sqrt(np.sum(hidden**2, axis=0)) if len(hidden) else np.zeros(len(coils))
    off = float(np.max(np.abs(np.expm1(found.fun[: len(pairs)])))) if pairs else 0.0
    return Solved(
        ohm=dict(zip(coils, (float(x) for x in np.exp(found.x)), strict=True)),
        untold=tuple(n for n, share in zip(coils, loose, strict=True) if share > TELLABLE),
        off_percent=100 * off,
    )


def _given(network: Network, pairs: Sequence[tuple[str, str]]) -> list[float]:
    """Return what the network gives between pairs of nodes in Ω. Raises: ValueOutOfRange."""
    nodes = network.nodes()
    ohms = []
    for a, b in pairs:
        if a not in nodes or b not in nodes:
            raise ValueOutOfRange(f"{a}–{b}", f"two of {', '.join(nodes)}")
        ohm = network.ohm_between(a, b)
        if not 0 < ohm < float("inf"):
            raise ValueOutOfRange(
                f"{a}–{b}", "a pair with a path through coils", "Nothing conducts there."
            )
        ohms.append(ohm)
    return ohms
