"""A winding as a network of coils between joints, some of which are leads.

Direct current: the effective resistance between two nodes a and b is
R_ab = (e_a − e_b)ᵀ L⁻ (e_a − e_b), L the Laplacian of the conductances 1/R and L⁻ any generalised
inverse of it (Klein and Randić, Resistance distance, J. Math. Chem. 12, 1993).
Battery kick: the open-circuit volts along a path are Σ_k p_k Σ_l M_kl di_l/dt with
M_kl ∝ n_k·n_l·cos(θ_k − θ_l), p the share of each coil in the path.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
COPPER_ZERO_C = 234.5


def ohms_share(from_c: float, to_c: float, zero_ohm_c: float = COPPER_ZERO_C) -> float:
    """Return ohms at `to_c` °C over those at `from_c`: (z + T₂)/(z + T₁), z 234.5 for copper (IEEE 112)."""
    return (zero_ohm_c + to_c) / (zero_ohm_c + from_c)


@dataclass(frozen=True, slots=True, kw_only=True)
class Coil:
    """One winding section.

    `ohm` R in Ω, > 0; `turns` relative to the winding that 1 refers to; `angle` electrical degrees;
    `half` which half of its phase it is (0 a whole phase); `like` names the coils it should equal;
    `leakage` X in Ω at rated hertz, None for an ordinary one; `poles` relative pole number: coils
    of different pole numbers share no field.
    """

    name: str
    start: str
    finish: str
    ohm: float = 1.0
    turns: float = 1.0
    angle: float = 0.0
    half: int = 0
    like: str = "coil"
    leakage: float | None = None
    poles: float = 1.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """A resistive part: a sensor, heater, protector or bleed resistor; `ohm` in Ω, > 0."""

    name: str
    kind: str
    start: str
    finish: str
    ohm: float

    @property
    def like(self) -> str:
        """Each part is alike only to itself."""
        return self.name


@dataclass(frozen=True, slots=True, kw_only=True)
class Capacitor:
    """A capacitor in µF; direct current does not pass it."""

    name: str
    start: str
    finish: str
    microfarad: float


@dataclass(frozen=True, kw_only=True, eq=False)
class Network:
    """Coils, the names of the leads that come out, joints made between nodes, and other parts.

    Compared by identity: what is worked out of an arrangement's network is kept by it.
    """

    coils: tuple[Coil, ...]
    leads: tuple[str, ...]
    joints: tuple[frozenset[str], ...] = ()
    parts: tuple[Part, ...] = ()
    capacitors: tuple[Capacitor, ...] = ()

    def with_ohm(self, ohm: Mapping[str, float]) -> "Network":
        """Return the same winding with the ohms of `ohm`, by name of coil or part or by likeness."""
        return replace(
            self,
            coils=tuple(
                replace(c, ohm=float(ohm.get(c.name, ohm.get(c.like, c.ohm)))) for c in self.coils
            ),
            parts=tuple(replace(p, ohm=float(ohm.get(p.name, p.ohm))) for p in self.parts),
        )

    def joined(self, joints: Iterable[Iterable[str]]) -> "Network":
        """Return the winding with more joints; names that are not nodes (L1) become nodes."""
        return replace(self, joints=self.joints + tuple(frozenset(j) for j in joints))

    @property
    def conducting(self) -> tuple[Coil | Part, ...]:
        """Return what direct current passes."""
        return (*self.coils, *self.parts)

    def nodes(self) -> tuple[str, ...]:
        """Return all node names: leads first, then inner points, then lines."""
        names = dict.fromkeys(self.leads)
        for branch in (*self.conducting, *self.capacitors):
            names |= dict.fromkeys((branch.start, branch.finish))
        for joint in self.joints:
            names |= dict.fromkeys(sorted(joint))
        return tuple(names)

    def node_index(self) -> Mapping[str, int]:
        """Return for each node the number of the electrical node it is part of."""
        return self._index

    @cached_property
    def _index(self) -> dict[str, int]:
        parent = {n: n for n in self.nodes()}

        def root(name: str) -> str:
            while parent[name] != name:
                name = parent[name]
            return name

        for joint in self.joints:
            first, *rest = sorted(joint)
            for other in rest:
                parent[root(other)] = root(first)
        numbers: dict[str, int] = {}
        return {n: numbers.setdefault(root(n), len(numbers)) for n in parent}

    def groups(self) -> tuple[frozenset[str], ...]:
        """Return the leads that conduct to each other, a set for each connected part."""
        label = self._groups
        found: dict[int, set[str]] = {}
        for lead in self.leads:
            found.setdefault(label[lead], set()).add(lead)
        return tuple(frozenset(g) for g in found.values())

    def part_of(self, node: str) -> int:
        """Return the number of the connected part that a node lies in."""
        return self._groups[node]

    def resistance(self, nodes: Sequence[str] | None = None) -> Floats:
        """Return the effective resistance in Ω between all `nodes` (default: the leads).

        Shape (n, n), symmetric, zero on the diagonal, infinite where nothing conducts.
        """
        names = self.leads if nodes is None else tuple(nodes)
        index, inverse = self._index, self._inverse
        at = np.array([index[n] for n in names], dtype=int)
        diagonal = np.diag(inverse)[at]
        ohm = diagonal[:, None] + diagonal[None, :] - 2 * inverse[np.ix_(at, at)]
        part = self._groups
        label = np.array([part[n] for n in names])
        ohm = np.where(label[:, None] == label[None, :], np.maximum(ohm, 0.0), np.inf)
        ohm[at[:, None] == at[None, :]] = 0.0
        return np.asarray(ohm, dtype=float)

    def ohm_between(self, a: str, b: str) -> float:
        """Return the effective resistance in Ω between two nodes."""
        return float(self.resistance((a, b))[0, 1])

    def shares(self, a: str, b: str) -> Floats:
        """Return the current in each coil, start to finish, for 1 A in at `a` and out at `b`.

        Shape (coils,); all zero where nothing conducts.
        """
        return np.asarray(self.shares_between((a, b))[0, 1])

    def shares_between(self, nodes: Sequence[str]) -> Floats:
        """Return the shares of every two of these nodes, shape (nodes, nodes, coils)."""
        index, inverse, part = self._index, self._inverse, self._groups
        at = [index[n] for n in nodes]
        starts, finishes = ([index[n] for n in ends] for ends in self._ends)
        drop = (inverse[starts] - inverse[finishes])[:, at].T  # (nodes, coils)
        ohm = np.array([c.ohm for c in self.coils])
        label = np.array([part[n] for n in nodes])
        joined = (label[:, None] == label[None, :])[:, :, None]
        return np.asarray(np.where(joined, (drop[:, None, :] - drop[None, :, :]) / ohm, 0.0))

    @property
    def _ends(self) -> tuple[list[str], list[str]]:
        return [c.start for c in self.coils], [c.finish for c in self.coils]

    def mutual(self, same_half: float = 1.0, other_half: float = 1.0) -> Floats:
        """Return M_kl/M for all coils, shape (coils, coils).

        `same_half` scales the coupling of the two halves of one phase, `other_half` that of halves
        of different phases; 1 and 1 is the plain cosine law. Coils of different poles share nothing.
        """
        angle = np.radians([c.angle for c in self.coils])
        turns = np.array([c.turns for c in self.coils])
        poles = np.array([c.poles for c in self.coils])
        coupling = np.outer(turns, turns) * np.cos(angle[:, None] - angle[None, :])
        coupling *= poles[:, None] == poles[None, :]
        for k, one in enumerate(self.coils):
            for m, two in enumerate(self.coils):
                if one.half and two.half and k != m:
                    coupling[k, m] *= same_half if one.angle == two.angle else other_half
        return np.asarray(coupling, dtype=float)

    def kick_ratio(
        self, source: tuple[str, str], sense: tuple[str, str], mutual: Floats | None = None
    ) -> float:
        """Return sense volts over source volts at make of a battery (+ on the first of each pair).

        Dimensionless; 0 where a pair does not conduct.
        """
        coupling = self.mutual() if mutual is None else mutual
        drive, look = self.shares(*source), self.shares(*sense)
        own = float(drive @ coupling @ drive)
        return float(look @ coupling @ drive) / own if own > 0 else 0.0

    def islands(self) -> tuple[frozenset[int], ...]:
        """Return the electrical nodes that alternating current can pass between, in sets."""
        label = (
            self._parts((*self.conducting, *self.capacitors)) if self.capacitors else self._groups
        )
        index = self._index
        found: dict[int, set[int]] = {}
        for name, at in index.items():
            found.setdefault(label[name], set()).add(at)
        return tuple(frozenset(island) for island in found.values())

    @cached_property
    def _groups(self) -> dict[str, int]:
        return self._parts(self.conducting)

    def _parts(self, branches: Sequence[Coil | Part | Capacitor]) -> dict[str, int]:
        """Return for each node the number of the part it belongs to by way of these branches."""
        index = self._index
        parent = list(range(len(set(index.values()))))

        def root(k: int) -> int:
            while parent[k] != k:
                k = parent[k]
            return k

        for branch in branches:
            parent[root(index[branch.start])] = root(index[branch.finish])
        return {name: root(k) for name, k in index.items()}

    @cached_property
    def _inverse(self) -> Floats:
        """The Laplacian's inverse with one node of each part held at 0: a generalised inverse."""
        index, ground = self._index, sorted(set(self._groups.values()))
        size = len(set(index.values()))
        laplacian = np.zeros((size, size))
        for branch in self.conducting:
            a, b = index[branch.start], index[branch.finish]
            if a != b:
                g = 1.0 / branch.ohm
                laplacian[a, a] += g
                laplacian[b, b] += g
                laplacian[a, b] -= g
                laplacian[b, a] -= g
        laplacian[ground], laplacian[:, ground] = 0.0, 0.0
        laplacian[ground, ground] = 1.0
        inverse = np.linalg.inv(laplacian)
        inverse[ground, ground] = 0.0
        return np.asarray(inverse, dtype=float)
