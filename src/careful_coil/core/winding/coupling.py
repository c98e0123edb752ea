"""How coils share flux: the fields in the air gap and what each coil has of them.

A field is a wave of one pole number. Coil k holds the share c_k = n_k·e^{jθ_k} of it; the mutual
reactance of two coils is Σ_fields w·Re(c_k·c_l*) of that of the coil n = 1.
Whole phases and halves that alternate round the bore live in one field (the cosine law; Fitzgerald,
Kingsley and Umans, Electric Machinery, ch. 4). Halves that couple by a factor h < 1 need two: one in
which they help, w = (1 + h)/2, and one in which they oppose, w = (1 − h)/2. In a pole-changing
winding the second has half the poles, and its phases follow each other the other way round.
"""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.winding.network import Coil

Halves = Literal["alternate", "adjacent", "pole-changing"]
# how much of one half's flux the other half of its phase sees
HALF_FACTOR: dict[Halves, float] = {"alternate": 1.0, "adjacent": 0.0, "pole-changing": -0.45}


@dataclass(frozen=True, slots=True, eq=False)
class Fields:
    """Waves in the air gap.

    `weight` shape (fields,), of the reactance of the coil n = 1; `share` shape (fields, coils),
    complex; `poles` shape (fields,), pole number over that of the first field.
    """

    weight: NDArray[np.float64]
    share: NDArray[np.complex128]
    poles: NDArray[np.float64]

    def own_slip(self, slip: NDArray[np.float64]) -> NDArray[np.float64]:
        """Return the slip against each field, shape (S, fields), from that against the first."""
        return np.asarray(1 - (1 - slip[:, None]) * self.poles)

    def mutual(self) -> NDArray[np.float64]:
        """Return M_kl/M for all coils, shape (coils, coils)."""
        each = self.share[:, :, None] * self.share[:, None, :].conj()
        return np.asarray(np.einsum("f,fkl->kl", self.weight, each.real))


@lru_cache(maxsize=256)
def fields(coils: tuple[Coil, ...], halves: Halves = "alternate") -> Fields:
    """Return the fields of coils whose halves of a phase lie as `halves` says.

    Coils of different `poles` share no field. The first field is that of the first coil's poles.
    """
    angle = np.radians([c.angle for c in coils])
    turns = np.array([c.turns for c in coils])
    halved = np.array([bool(c.half) for c in coils])
    sign = np.array([{0: 0.0, 1: 1.0}.get(c.half, -1.0) for c in coils])
    weights: list[float] = []
    shares: list[NDArray[np.complex128]] = []
    poles: list[float] = []
    for number in dict.fromkeys(c.poles for c in coils):
        own = np.array([c.poles == number for c in coils])
        factor = HALF_FACTOR[halves] if (own & halved).any() else 1.0
        helping = (1 + factor) / 2
        # a whole phase is all in the helping field; its self reactance stays n²
        size = np.where(halved, turns, turns / math.sqrt(helping))
        weights.append(helping)
        shares.append(np.where(own, size * np.exp(1j * angle), 0))
        poles.append(number)
        if factor < 1:
            changing = halves == "pole-changing"
            weights.append(1 - helping)
            shares.append(
                np.where(own, turns * sign * np.exp((-1j if changing else 1j) * angle), 0)
            )
            poles.append(number * (0.5 if changing else 1.0))
    return Fields(np.array(weights), np.array(shares), np.array(poles) / poles[0])
