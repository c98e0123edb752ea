"""Coils from readings on the lines: the two classic insides, and any hookup by the network."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.winding.network import Floats, Network

Inside = Literal["wye", "delta"]
SLIGHT = 1e-4  # pull of a coil to the mean of its like: decides only where readings do not
ROUNDS, SETTLED = 40, 1e-10
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


@dataclass(frozen=True, slots=True, kw_only=True)
class Path:
    """A reading in Ω from `a` to `b`; `clipped` leads held together while it was taken."""

    a: str
    b: str
    ohm: float
    clipped: tuple[tuple[str, ...], ...] = ()


def coils_from(network: Network, read: Sequence[Path]) -> Solved:
    """Return the coils that give the readings between nodes, by least squares on their logarithms.

    `network` the winding with the joints it was read with, so that bunched and parallel paths are
    worked out, its ohms a first guess. A coil no reading moves, or two that
    no reading parts, are `untold`: they keep the mean of their like. Raises: ValueOutOfRange.
    """
    target = np.log([p.ohm for p in read])
    coils = [c.name for c in network.coils]
    kinds = [c.like for c in network.coils]
    same = np.array([[float(a == b) for b in kinds] for a in kinds])
    pull = SLIGHT * (np.eye(len(coils)) - same / same.sum(axis=1, keepdims=True))
    logs = np.log([c.ohm for c in network.coils])
    logs = logs + float(np.mean(target) - np.mean(_shown(network, read)[0]))
    for _ in range(ROUNDS):
        shown, slope = _shown(network.with_ohm(_ohms(coils, logs)), read)
        left = np.concatenate([target - shown, -pull @ logs])
        step, *_ = np.linalg.lstsq(np.vstack([slope, pull]), left, rcond=1e-9)
        logs = logs + np.clip(step, -1.0, 1.0)
        if float(np.max(np.abs(step))) < SETTLED:
            break
    shown, slope = _shown(network.with_ohm(_ohms(coils, logs)), read)
    _, strong, turns = np.linalg.svd(slope)
    rank = int(np.sum(strong > TELLABLE * max(float(strong[0]), 1e-12)))
    loose = np.sqrt(np.sum(turns[rank:] ** 2, axis=0))
    return Solved(
        ohm=_ohms(coils, logs),
        untold=tuple(n for n, share in zip(coils, loose, strict=True) if share > TELLABLE),
        off_percent=100 * float(np.max(np.abs(np.expm1(shown - target)))),
    )


def _ohms(coils: Sequence[str], logs: Floats) -> dict[str, float]:
    return dict(zip(coils, (float(x) for x in np.exp(logs)), strict=True))


def _shown(network: Network, read: Sequence[Path]) -> tuple[Floats, Floats]:
    """Return ln of what the network gives for each reading, and its slopes over ln of each coil.

    R_ab = Σ r_k·i_k² for 1 A through, and ∂R_ab/∂r_k = i_k², i the shares (Cohn's theorem).
    Raises: ValueOutOfRange.
    """
    coil = np.array([c.ohm for c in network.coils])
    logs, slopes = [], []
    for path in read:
        made = network.joined(path.clipped) if path.clipped else network
        nodes = made.nodes()
        if path.a not in nodes or path.b not in nodes:
            raise ValueOutOfRange(f"{path.a}–{path.b}", f"two of {', '.join(nodes)}")
        ohm = made.ohm_between(path.a, path.b)
        if not 0 < ohm < float("inf"):
            wanted = "a pair with a path through coils"
            raise ValueOutOfRange(f"{path.a}–{path.b}", wanted, "Nothing conducts there.")
        logs.append(np.log(ohm))
        slopes.append(made.shares(path.a, path.b) ** 2 * coil / ohm)
    return np.array(logs), np.array(slopes)
