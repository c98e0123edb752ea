"""Alternating current, steady state: currents, volts, power, fields and torque of any hookup.

Coil k: V_k = (R_k + jX_k)·I_k + Σ_fields w·½[Z_f·F_f·c_k* + Z_b·F_b·c_k] with F_f = Σ c_l·I_l and
F_b = Σ c_l*·I_l (c the share of a field, see `coupling`), Z_f = jX_m ∥ (R₂/s + jX₂), Z_b the same
at 2 − s. Joints, lines, capacitors and resistive parts by nodal analysis with the coil currents as
further unknowns. The double revolving field of an unsymmetrical winding: Veinott, Theory and Design
of Small Induction Motors, 1959; for two axes Fitzgerald, Kingsley and Umans, ch. 9.
All volts and amps are rms phasors; all slips are solved in one call.
"""

import cmath
import math
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import ArrayLike, NDArray

from careful_coil.core.winding.coupling import Halves, fields
from careful_coil.core.winding.network import Coil, Network
from careful_coil.core.winding.rotor import Rotor, default_leakage, default_rotor

Complex = NDArray[np.complex128]
Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True, kw_only=True)
class Supply:
    """Lines with their rms phasors in V; `ratio` supply hertz over the hertz of the reactances."""

    volts: Mapping[str, complex]
    ratio: float = 1.0
    omega: float = 2 * math.pi * 60.0

    @classmethod
    def of(
        cls, phases: int, volt: float, hertz: float = 60.0, rated_hertz: float = 60.0
    ) -> "Supply":
        """Return a balanced supply: three lines a third apart, or L1 and L2 (also called N)."""
        if phases == 3:
            star = {
                f"L{k + 1}": cmath.rect(volt / math.sqrt(3), -2 * math.pi * k / 3) for k in range(3)
            }
        else:
            star = {"L1": complex(volt), "L2": 0j, "N": 0j}
        return cls(volts=star, ratio=hertz / rated_hertz, omega=2 * math.pi * hertz)


@dataclass(frozen=True, slots=True)
class _Question:
    network: Network
    supply: Supply
    slips: Floats
    rotor: Rotor
    halves: Halves
    index: Mapping[str, int]

    def farad_admittance(self, microfarad: float) -> complex:
        """Return jωC in S."""
        return 1j * self.supply.omega * microfarad * 1e-6


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Steady:
    """What flows at each slip (S of them), coils C in the network's order, fields F.

    Coil amps run from start to finish, line amps into the motor. Where `shorted` names lines that
    are joined to each other, everything else is 0 and those lines' amps are infinite.
    Powers in W; `torque` in synchronous watts of the first field (N·m times its synchronous speed).
    """

    slip: Floats
    coil_amp: Complex
    coil_volt: Complex
    line_amp: dict[str, Complex]
    capacitor_volt: dict[str, Complex]
    node_volt: dict[str, Complex]
    power_in: Floats
    reactive_in: Floats
    copper: Floats
    rotor_copper: Floats
    shaft: Floats
    torque: Floats
    forward: Complex
    backward: Complex
    shorted: tuple[str, ...] = ()

    @property
    def power_factor(self) -> Floats:
        """Return watts over volt-amperes, 0 where nothing flows."""
        apparent = np.hypot(self.power_in, self.reactive_in)
        return np.divide(self.power_in, apparent, out=np.zeros_like(apparent), where=apparent > 0)


def solve(
    network: Network,
    supply: Supply,
    slip: ArrayLike = 1.0,
    rotor: Rotor | None = None,
    halves: Halves = "alternate",
) -> Steady:
    """Return the steady state of a hookup at slips `slip` (any number, of any sign).

    `network` holds the joints, lines by their names; without `rotor` an ordinary one is taken.
    Open parts and groups no line reaches are allowed.
    """
    slips = np.atleast_1d(np.asarray(slip, dtype=float)).ravel()
    rotor = default_rotor(network) if rotor is None else rotor
    index = network.node_index()
    fixed: dict[int, complex] = {}
    for line, volt in supply.volts.items():
        at = index.get(line)
        if at is None:
            continue
        if at in fixed and abs(fixed[at] - volt) > 1e-9 * max(abs(volt), 1.0):
            return _short(network, supply, slips, len(fields(network.coils, halves).weight))
        fixed[at] = volt
    asked = _Question(network, supply, slips, rotor, halves, index)
    return _gather(asked, *_currents(asked, fixed))


@lru_cache(maxsize=256)
def _coil_impedance(
    coils: tuple[Coil, ...], halves: Halves, rotor: Rotor, ratio: float, slips: tuple[float, ...]
) -> Complex:
    """Return the coils' impedance matrix in Ω at each slip, shape (S, C, C): joints do not enter."""
    waves = fields(coils, halves)
    own_slip = waves.own_slip(np.array(slips))
    ahead, behind = rotor.impedance(own_slip, ratio), rotor.impedance(2 - own_slip, ratio)
    own = np.array([c.ohm for c in coils]) + 1j * ratio * np.array(default_leakage(coils))
    turn = np.einsum("f,fk,fl->fkl", waves.weight, waves.share.conj(), waves.share) / 2
    z = np.einsum("sf,fkl->skl", ahead, turn) + np.einsum("sf,fkl->skl", behind, turn.conj())
    found = np.asarray(z + np.diag(own))
    found.setflags(write=False)
    return found


def _currents(asked: _Question, fixed: Mapping[int, complex]) -> tuple[Complex, Complex]:
    """Return coil amps (S, C) and node volts (S, nodes)."""
    network, index, slips = asked.network, asked.index, asked.slips
    size, coils = len(set(index.values())), len(network.coils)
    admittance = np.zeros((size, size), dtype=complex)
    for part in network.parts:
        _stamp(admittance, index[part.start], index[part.finish], 1 / part.ohm)
    for c in network.capacitors:
        value = asked.farad_admittance(c.microfarad)
        _stamp(admittance, index[c.start], index[c.finish], value)
    incidence = _incidence(asked)
    known = dict(fixed)
    for island in network.islands():
        if not any(n in known for n in island):
            known[min(island)] = 0j  # nothing holds these: any potential will do
    free = [n for n in range(size) if n not in known]
    held, held_volt = list(known), np.array(list(known.values()), dtype=complex)
    count = len(free)
    matrix = np.zeros((len(slips), count + coils, count + coils), dtype=complex)
    matrix[:, :count, :count] = admittance[np.ix_(free, free)]
    matrix[:, :count, count:] = incidence[free]
    matrix[:, count:, :count] = incidence[free].T
    matrix[:, count:, count:] = -_coil_impedance(
        network.coils, asked.halves, asked.rotor, asked.supply.ratio, tuple(slips.tolist())
    )
    right = np.concatenate(
        [-admittance[np.ix_(free, held)] @ held_volt, -incidence[held].T @ held_volt]
    )
    found = np.linalg.solve(matrix, np.broadcast_to(right[:, None], (len(slips), count + coils, 1)))
    nodes = np.zeros((len(slips), size), dtype=complex)
    nodes[:, free], nodes[:, held] = found[:, :count, 0], held_volt
    return found[:, count:, 0], nodes


def _incidence(asked: _Question) -> Floats:
    """Return 1 where a coil's amps leave a node, -1 where they come in, shape (nodes, coils)."""
    index, coils = asked.index, asked.network.coils
    incidence = np.zeros((len(set(index.values())), len(coils)))
    for k, coil in enumerate(coils):
        incidence[index[coil.start], k] += 1.0
        incidence[index[coil.finish], k] -= 1.0
    return incidence


def _stamp(matrix: Complex, a: int, b: int, value: complex) -> None:
    if a != b:
        matrix[[a, b], [a, b]] += value
        matrix[[a, b], [b, a]] -= value


def _gather(asked: _Question, amp: Complex, nodes: Complex) -> Steady:
    network, supply, slips = asked.network, asked.supply, asked.slips
    waves, index = fields(network.coils, asked.halves), asked.index
    starts = [index[c.start] for c in network.coils]
    finishes = [index[c.finish] for c in network.coils]
    out = amp @ _incidence(asked).T  # amps that leave each node into the motor
    lossy = np.zeros(len(slips))
    for part in network.parts:
        a, b = index[part.start], index[part.finish]
        flow = (nodes[:, a] - nodes[:, b]) / part.ohm
        out[:, a] += flow
        out[:, b] -= flow
        lossy += part.ohm * np.abs(flow) ** 2
    capacitor_volt = {}
    for c in network.capacitors:
        a, b = index[c.start], index[c.finish]
        capacitor_volt[c.name] = nodes[:, a] - nodes[:, b]
        flow = asked.farad_admittance(c.microfarad) * capacitor_volt[c.name]
        out[:, a] += flow
        out[:, b] -= flow
    line_amp: dict[str, Complex] = {}
    taken: set[int] = set()
    apparent = np.zeros(len(slips), dtype=complex)
    for line, volt in supply.volts.items():
        at = index.get(line)
        line_amp[line] = out[:, at] if at is not None and at not in taken else 0 * out[:, 0]
        taken |= set() if at is None else {at}
        apparent += volt * line_amp[line].conj()
    forward = amp @ waves.share.T
    backward = amp @ waves.share.conj().T
    own, ratio = waves.own_slip(slips), supply.ratio
    ahead, behind = asked.rotor.impedance(own, ratio), asked.rotor.impedance(2 - own, ratio)
    power_f = waves.weight / 2 * np.abs(forward) ** 2 * ahead.real
    power_b = waves.weight / 2 * np.abs(backward) ** 2 * behind.real
    return Steady(
        slip=slips,
        coil_amp=amp,
        coil_volt=nodes[:, starts] - nodes[:, finishes],
        line_amp=line_amp,
        capacitor_volt=capacitor_volt,
        node_volt={name: nodes[:, at] for name, at in index.items()},
        power_in=apparent.real,
        reactive_in=apparent.imag,
        copper=np.asarray(np.abs(amp) ** 2 @ np.array([c.ohm for c in network.coils]) + lossy),
        rotor_copper=np.asarray((own * power_f + (2 - own) * power_b).sum(axis=1)),
        shaft=np.asarray(((1 - own) * (power_f - power_b)).sum(axis=1)),
        torque=np.asarray(((power_f - power_b) * waves.poles).sum(axis=1)),
        forward=forward,
        backward=backward,
    )


def _short(network: Network, supply: Supply, slips: Floats, waves: int) -> Steady:
    index = network.node_index()
    at = {line: index[line] for line in supply.volts if line in index}
    shorted = tuple(
        a
        for a in at
        if any(a != b and at[a] == at[b] and supply.volts[a] != supply.volts[b] for b in at)
    )
    none, nothing = np.zeros(len(slips)), np.zeros(len(slips), dtype=complex)
    coils = np.zeros((len(slips), len(network.coils)), dtype=complex)
    waved = np.zeros((len(slips), waves), dtype=complex)
    return Steady(
        slip=slips,
        coil_amp=coils,
        coil_volt=coils,
        line_amp={n: nothing + complex(np.inf if n in shorted else 0) for n in supply.volts},
        capacitor_volt={c.name: nothing for c in network.capacitors},
        node_volt=dict.fromkeys(index, nothing),
        power_in=none,
        reactive_in=none,
        copper=none,
        rotor_copper=none,
        shaft=none,
        torque=none,
        forward=waved,
        backward=waved,
        shorted=shorted,
    )


def lead_amps(network: Network, coil_amp: Mapping[str, complex]) -> dict[str, float]:
    """Return A (rms) in each lead, into the motor: what a clamp round it shows.

    `coil_amp` by coil name, from start to finish; a lead that ends several coils carries their sum.
    """
    found = dict.fromkeys(network.leads, 0j)
    for c in network.coils:
        amp = coil_amp.get(c.name, 0j)
        if c.start in found:
            found[c.start] += amp
        if c.finish in found:
            found[c.finish] -= amp
    return {lead: abs(amp) for lead, amp in found.items()}
