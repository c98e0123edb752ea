"""The same networks written for a circuit simulator, in its own way: a check by other hands.

Coils are coupled inductors; the cage is two shorted axes d and q per field whose speed voltages
ω_r·λ are current-controlled sources. Nothing here uses the revolving fields of the product.
"""

import itertools
import math
import shutil
import subprocess
from collections.abc import Sequence
from pathlib import Path

import pytest

from careful_coil.core.winding import Network
from careful_coil.core.winding.coupling import Halves, fields
from careful_coil.core.winding.rotor import Rotor, default_leakage
from careful_coil.core.winding.steady import Supply

needs_ngspice = pytest.mark.skipif(
    shutil.which("ngspice") is None, reason="ngspice (Debian package) is not installed"
)


def run_deck(
    lines: list[str], wanted: list[str], analysis: str, folder: Path
) -> dict[str, complex]:
    """Return the values of `wanted` vectors after one analysis of one point."""
    deck = folder / "deck.cir"
    shown = [f"print {name}" for name in wanted]
    deck.write_text(
        "\n".join(
            [
                "a winding network",
                *lines,
                ".options rshunt=1e13 reltol=1e-9 abstol=1e-15 gmin=1e-18",
                ".control",
                "set numdgt=14",
                analysis,
                *shown,
                ".endc",
                ".end",
            ]
        )
        + "\n"
    )
    done = subprocess.run(
        ["ngspice", "-b", str(deck)], capture_output=True, text=True, timeout=120, check=False
    )
    found: dict[str, complex] = {}
    for line in done.stdout.splitlines():
        name, equals, value = line.partition(" = ")
        if equals and name.strip() in wanted:
            parts = [float(v) for v in value.replace(" ", "").split(",")]
            found[name.strip()] = complex(*parts)
    missing = set(wanted) - set(found)
    assert not missing, f"no answer for {sorted(missing)}:\n{done.stdout}\n{done.stderr}"
    return found


def line_ohms(network: Network, pairs: list[tuple[str, str]], folder: Path) -> list[float]:
    """Return the resistance of each pair: one ampere in, volts read, a copy of the network each."""
    index = network.node_index()
    lines, wanted = [], []
    for k, (a, b) in enumerate(pairs):
        node = {n: f"n{k}_{at}" if at != index[b] else "0" for n, at in index.items()}
        lines += [
            f"r{k}_{m} {node[c.start]} {node[c.finish]} {c.ohm!r}"
            for m, c in enumerate(network.conducting)
            if node[c.start] != node[c.finish]
        ]
        lines.append(f"i{k} 0 {node[a]} 1")
        wanted.append(f"v(n{k}_{index[a]})")
    found = run_deck(lines, wanted, "op", folder)
    return [found[name].real for name in wanted]


def coil_amps(
    network: Network,
    supply: Supply,
    slip: float,
    rotor: Rotor,
    folder: Path,
    halves: Halves = "alternate",
) -> list[complex]:
    """Return the coil currents, rms phasors, start to finish."""
    wanted = [f"i(v_{k})" for k in range(len(network.coils))]
    return _read(network, supply, slip, rotor, wanted, folder, halves)


def node_volts(
    network: Network,
    supply: Supply,
    slip: float,
    rotor: Rotor,
    nodes: Sequence[str],
    folder: Path,
) -> list[complex]:
    """Return the volts of nodes, rms phasors."""
    index = network.node_index()
    wanted = [f"v(n{index[n]})" for n in nodes]
    return _read(network, supply, slip, rotor, wanted, folder)


def _read(
    network: Network,
    supply: Supply,
    slip: float,
    rotor: Rotor,
    wanted: list[str],
    folder: Path,
    halves: Halves = "alternate",
) -> list[complex]:
    deck = ac_deck(network, supply, slip, rotor, halves)
    hertz = supply.omega / (2 * math.pi)
    found = run_deck(deck, list(dict.fromkeys(wanted)), f"ac lin 1 {hertz!r} {hertz!r}", folder)
    return [found[name] for name in wanted]


def ac_deck(
    network: Network, supply: Supply, slip: float, rotor: Rotor, halves: Halves = "alternate"
) -> list[str]:
    """Return the netlist of a hookup at one slip."""
    index, omega = network.node_index(), supply.omega
    base = omega / supply.ratio  # of the reactances
    waves = fields(network.coils, halves)
    lines: list[str] = []
    for k, c in enumerate(network.coils):
        lines += [
            f"v_{k} n{index[c.start]} a{k} 0",
            f"r_{k} a{k} b{k} {c.ohm!r}",
        ]
    self_henry: dict[str, float] = {}
    mutual: dict[tuple[str, str], float] = {}
    leak = default_leakage(network.coils)
    main = rotor.xm / base * waves.mutual()
    for k in range(len(network.coils)):
        self_henry[f"l_{k}"] = leak[k] / base + main[k, k]
    for k, m in itertools.combinations(range(len(network.coils)), 2):
        mutual[f"l_{k}", f"l_{m}"] = main[k, m]
    for k, c in enumerate(network.coils):
        lines.append(f"l_{k} b{k} n{index[c.finish]} {float(self_henry[f'l_{k}'])!r}")
    if rotor.caged:
        for f, (weight, share, poles) in enumerate(
            zip(waves.weight, waves.share, waves.poles, strict=True)
        ):
            speed = (1 - slip) * poles * omega
            cage = weight * (rotor.xm + rotor.x2) / base
            for axis, other, sign in (("d", "q", 1.0), ("q", "d", -1.0)):
                lines += [
                    f"v_{axis}{f} 0 {axis}{f}a 0",
                    f"r_{axis}{f} {axis}{f}a {axis}{f}b {float(weight * rotor.r2)!r}",
                    f"l_{axis}{f} {axis}{f}b {axis}{f}c0 {float(cage)!r}",
                ]
                self_henry[f"l_{axis}{f}"] = cage
                terms = [(f"v_{other}{f}", cage)]
                for k in range(len(network.coils)):
                    reach = share[k].real if axis == "d" else share[k].imag
                    cross = share[k].imag if axis == "d" else share[k].real
                    mutual[f"l_{axis}{f}", f"l_{k}"] = weight * rotor.xm / base * reach
                    terms.append((f"v_{k}", weight * rotor.xm / base * cross))
                for n, (sense, henry) in enumerate(terms):
                    after = f"{axis}{f}c{n + 1}" if n + 1 < len(terms) else "0"
                    gain = sign * speed * henry
                    lines.append(f"h_{axis}{f}_{n} {axis}{f}c{n} {after} {sense} {float(gain)!r}")
    for (a, b), henry in mutual.items():
        k = float(henry / math.sqrt(self_henry[a] * self_henry[b]))
        if abs(k) > 1e-12:
            lines.append(f"k_{a}_{b} {a} {b} {k!r}")
    for m, p in enumerate(network.parts):
        lines.append(f"rp_{m} n{index[p.start]} n{index[p.finish]} {p.ohm!r}")
    for m, cap in enumerate(network.capacitors):
        farad = cap.microfarad * 1e-6
        lines.append(f"c_{m} n{index[cap.start]} n{index[cap.finish]} {farad!r}")
    for line, volt in supply.volts.items():
        if line in index:
            size, turn = abs(volt), math.degrees(math.atan2(volt.imag, volt.real))
            lines.append(f"vs_{line.lower()} n{index[line]} 0 dc 0 ac {size!r} {turn!r}")
    return lines
