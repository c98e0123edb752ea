"""Surge comparison and step voltage: what two traces, or the steps, say of the turns and the wall."""

import csv
import io
import itertools
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from careful_coil.core.errors import BadDocument, ValueOutOfRange

MOST_POINTS = 4000
LEAST_POINTS = 16
ALIKE = 2.0  # traces further apart than the best pair by this factor are the odd one's


def area_between(one: Sequence[float], two: Sequence[float]) -> float:
    """Return the area between two traces over their mean area, in per cent.

    100·Σ|a − b| / ½Σ(|a| + |b|): 0 for the same trace. Both V at the same instants, LEAST_POINTS or
    more. Source: the error area ratio of surge testing, in its even-handed form; IEEE 522 asks for
    the comparison and leaves the measure to the tester. Raises: ValueOutOfRange.
    """
    if len(one) != len(two) or len(one) < LEAST_POINTS:
        raise ValueOutOfRange(
            f"{len(one)} and {len(two)} points", f"two traces of the same {LEAST_POINTS} or more"
        )
    a, b = np.asarray(one, float), np.asarray(two, float)
    mean = 0.5 * float(np.sum(np.abs(a)) + np.sum(np.abs(b)))
    if not (math.isfinite(mean) and mean > 0):
        raise ValueOutOfRange("a trace of nothing", "volts that swing")
    return 100.0 * float(np.sum(np.abs(a - b))) / mean


def rings_per_length(trace: Sequence[float]) -> float:
    """Return how many times a trace crosses nothing, halves counted, in its length: its frequency."""
    a = np.asarray(trace, float)
    a = a - a[len(a) * 3 // 4 :].mean()
    signs = np.signbit(a)
    at = np.nonzero(signs[1:] != signs[:-1])[0]
    if len(at) < 2:
        return 0.0
    exact = at + a[at] / (a[at] - a[at + 1])
    return float((len(at) - 1) / 2 / (exact[-1] - exact[0]) * len(a))


@dataclass(frozen=True, slots=True, kw_only=True)
class Compared:
    """Areas between traces by pair in per cent; `worst`; `odd` the one that differs from the others,
    with whether it rings faster (a turn short) or slower."""

    areas: dict[tuple[str, str], float]
    worst: float
    odd: str
    faster: bool | None


def compare(traces: Mapping[str, Sequence[float]]) -> Compared:
    """Return how two or more traces differ. Raises: ValueOutOfRange."""
    names = list(traces)
    if len(names) < 2:
        raise ValueOutOfRange(f"{len(names)} trace", "two or three to compare")
    areas = {
        (a, b): area_between(traces[a], traces[b]) for a, b in itertools.combinations(names, 2)
    }
    odd, faster = "", None
    if len(names) > 2:
        (one, two), least = min(areas.items(), key=lambda x: x[1])
        others = [n for n in names if n not in (one, two)]
        far = [v for pair, v in areas.items() if others[0] in pair]
        if len(others) == 1 and min(far) > ALIKE * max(least, 0.5):
            odd = others[0]
            usual = 0.5 * (rings_per_length(traces[one]) + rings_per_length(traces[two]))
            faster = rings_per_length(traces[odd]) > usual if usual else None
    return Compared(areas=areas, worst=max(areas.values()), odd=odd, faster=faster)


def read_columns(text: str, most: int = MOST_POINTS) -> tuple[list[str], list[list[float]]]:
    """Return the names and columns of a CSV of figures: a header, then rows; `#` starts a comment.

    Comma, semicolon or tab; with semicolon or tab a comma is a decimal point.
    Raises: BadDocument with the line.
    """
    lines = [x for x in text.lstrip("﻿").splitlines() if x.strip() and not x.startswith("#")]
    if len(lines) < 2:
        raise BadDocument("CSV", "no rows", "a header line, then rows of figures")
    mark = next((m for m in (";", "\t") if m in lines[0]), ",")
    rows = list(csv.reader(io.StringIO("\n".join(lines)), delimiter=mark))
    names = [n.strip() for n in rows[0]]
    if len(rows) - 1 > most:
        raise BadDocument("CSV", f"{len(rows) - 1} rows", f"at most {most}")
    if len(names) < 2 or len(set(names)) != len(names) or not all(names):
        raise BadDocument("CSV, header", ", ".join(names), "two or more different names")
    columns: list[list[float]] = [[] for _ in names]
    for k, row in enumerate(rows[1:], 2):
        if len(row) != len(names):
            raise BadDocument(f"CSV, line {k}", f"{len(row)} cells", f"{len(names)} cells")
        for column, cell in zip(columns, row, strict=True):
            plain = cell.strip() if mark == "," else cell.strip().replace(",", ".")
            try:
                value = float(plain)
            except ValueError:
                raise BadDocument(f"CSV, line {k}", f"“{cell}”", "a figure") from None
            if not math.isfinite(value):
                raise BadDocument(f"CSV, line {k}", f"“{cell}”", "a finite figure")
            column.append(value)
    return names, columns


KEPT_POINTS = 400
EVEN = 0.02  # a share by which the steps of time may differ


def read_surge(text: str) -> tuple[float, dict[str, tuple[float, ...]]]:
    """Return the step of time in s and two or three traces by name from a CSV, at most KEPT_POINTS each.

    The first column is the time in s at even steps. Raises: BadDocument.
    """
    names, columns = read_columns(text)
    if not 3 <= len(names) <= 4:
        wanted = "a column of time in s and two or three traces"
        raise BadDocument("CSV, header", ", ".join(names), wanted)
    times = columns[0]
    if len(times) < LEAST_POINTS:
        raise BadDocument("CSV", f"{len(times)} rows", f"{LEAST_POINTS} or more")
    step = (times[-1] - times[0]) / (len(times) - 1)
    if step <= 0 or any(abs(b - a - step) > EVEN * step for a, b in itertools.pairwise(times)):
        raise BadDocument("CSV, time", f"from {times[0]:g} to {times[-1]:g} s", "even rising steps")
    every = -(-len(times) // KEPT_POINTS)
    traces = {n: tuple(c[::every]) for n, c in zip(names[1:], columns[1:], strict=True)}
    return step * every, traces


@dataclass(frozen=True, slots=True, kw_only=True)
class Stepped:
    """Step voltage: the largest fall of MΩ between the first step and a later one, in per cent, at
    which volts; `bend` the volts where the current leaves a straight line, None where it does not."""

    fall_percent: float
    at_volt: float
    bend: float | None


def stepped(steps: Sequence[tuple[float, float]]) -> Stepped:
    """Return what steps (volts, MΩ after the same time at each) show.

    A sound wall's insulation resistance hardly depends on volts; a fall is damp, dirt or a weak
    place. Source: IEEE 95, stepped tests. Raises: ValueOutOfRange.
    """
    told = [(float(v), float(m)) for v, m in steps]
    rising = all(a[0] < b[0] for a, b in itertools.pairwise(told))
    if len(told) < 2 or not rising or not all(v > 0 and 0 < m < math.inf for v, m in told):
        raise ValueOutOfRange(
            "; ".join(f"{v:g} V {m:g} MΩ" for v, m in told) or "nothing",
            "two or more steps of rising volts, each with its MΩ",
        )
    first = told[0][1]
    at, worst = min(told[1:], key=lambda x: x[1])
    microamp = [v / m for v, m in told]
    bend = None
    for k in range(2, len(told)):
        slope = (microamp[k - 1] - microamp[0]) / (told[k - 1][0] - told[0][0])
        straight = microamp[k - 1] + max(slope, 0.0) * (told[k][0] - told[k - 1][0])
        if microamp[k] > 1.5 * straight:
            bend = told[k][0]
            break
    return Stepped(fall_percent=100.0 * (1 - worst / first), at_volt=at, bend=bend)
