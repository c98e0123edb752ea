"""Where coils lie: three-phase lap and concentric in one or two layers, single-phase concentric.

Slots are numbered from 1 round the bore. Phases take 60° belts (120° where every second pole is left to
follow); a belt begins where 3·poles·k/slots passes a whole number, which groups a fractional winding too.
"""

import cmath
import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property
from itertools import groupby
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.rewind.factors import check_core

Floats = NDArray[np.float64]
Shape = Literal["lap", "concentric"]
PHASES = ("U", "V", "W")
MAIN, START = "main", "start"
BELTS = ((0, 1), (2, -1), (1, 1), (0, -1), (2, 1), (1, -1))  # phase and sense of six belts of 60°
EQUAL = 1e-6  # shares by which vectors may differ and count as equal


@dataclass(frozen=True, slots=True, kw_only=True)
class LaidCoil:
    """A coil: its two slots, phase, group from 1, turns; `sense` −1 where its current goes the other way."""

    number: int
    start: int
    finish: int
    phase: str
    group: int
    sense: int
    turns: float = 1.0


@dataclass(frozen=True, kw_only=True)
class Layout:
    """All coils of a stator; `layers` 1 or 2 sides in a slot at most."""

    slots: int
    poles: int
    layers: int
    coils: tuple[LaidCoil, ...]

    @property
    def phases(self) -> tuple[str, ...]:
        """Return the names of its phases or windings, in order."""
        return tuple(dict.fromkeys(sorted((c.phase for c in self.coils), key=_order)))

    @property
    def degrees(self) -> float:
        """Return the electrical degrees from slot to slot."""
        return 180.0 * self.poles / self.slots

    @property
    def q(self) -> Fraction:
        """Return slots per pole and phase."""
        return Fraction(self.slots, self.poles * max(len(self.phases), 1))

    def of(self, phase: str) -> tuple[LaidCoil, ...]:
        """Return the coils of a phase."""
        return tuple(c for c in self.coils if c.phase == phase)

    def groups(self, phase: str) -> tuple[tuple[LaidCoil, ...], ...]:
        """Return the groups of a phase, in the order they lie."""
        return tuple(tuple(g) for _, g in groupby(self.of(phase), key=lambda c: c.group))

    def vector(self, coils: Sequence[LaidCoil], order: int = 1) -> complex:
        """Return the sum of what coils link of the field's `order`, in turns: full pitch in step is 1 a turn."""
        step = 1j * math.radians(self.degrees) * order
        both = (
            c.sense * c.turns * (cmath.exp(step * c.start) - cmath.exp(step * c.finish)) / 2
            for c in coils
        )
        return sum(both, 0j)

    def factor(self, phase: str, order: int = 1) -> float:
        """Return k_w of a phase for the fundamental or another order of it."""
        own = self.of(phase)
        turns = sum(c.turns for c in own)
        return abs(self.vector(own, order)) / turns if turns else 0.0

    @cached_property
    def sides(self) -> dict[int, tuple[LaidCoil, ...]]:
        """Return the coils that have a side in each slot, the one that starts there first."""
        found: dict[int, list[LaidCoil]] = {k: [] for k in range(1, self.slots + 1)}
        for c in self.coils:
            found[c.start].insert(0, c)
            found[c.finish].append(c)
        return {k: tuple(v) for k, v in found.items()}


def _order(phase: str) -> int:
    return (*PHASES, MAIN, START).index(phase)


def span_usual(slots: int, poles: int) -> int:
    """Return the span that is usual: about five sixths of the pole pitch, in slots."""
    return max(1, round(5 / 6 * slots / poles))


def three_phase(
    slots: int,
    poles: int,
    *,
    layers: int = 2,
    span: int | None = None,
    shape: Shape = "lap",
    consequent: bool = False,
    turns: Sequence[float] = (1.0,),
) -> Layout:
    """Return a three-phase layout; `turns` of the coils of a group, in their order.

    Raises: ValueOutOfRange with the reason where none is balanced.
    """
    check_core(slots, poles)
    what = f"{slots} slots, {poles} poles"
    _balanced(slots, poles, what)
    if layers == 1:
        found = _one_layer(slots, poles, shape, consequent, turns, what)
    elif layers == 2:
        found = _two_layers(slots, poles, span, shape, consequent, turns)
    else:
        raise ValueOutOfRange(f"{layers} layers", "1 or 2")
    _check(found, what)
    return found


def _balanced(slots: int, poles: int, what: str) -> None:
    """Refuse cores whose star of slots does not part into three. Raises: ValueOutOfRange."""
    if slots % 3:
        raise ValueOutOfRange(what, "slots that three divides: three equal phases need them")
    alike = math.gcd(slots, poles // 2)
    if (slots // alike) % 3:
        raise ValueOutOfRange(
            what,
            f"a star of slots that three divides: it has {slots // alike} rays, phases would be unequal",
        )


def _two_layers(
    slots: int, poles: int, span: int | None, shape: Shape, consequent: bool, turns: Sequence[float]
) -> Layout:
    step = span_usual(slots, poles) if span is None else span
    if not 1 <= step < slots:
        raise ValueOutOfRange(f"a span of {step} slots", f"1 to {slots - 1}, typed as 1-{step + 1}")
    count = 3 * poles // 2 if consequent else 3 * poles
    belts = [count * k // slots for k in range(slots)]
    coils: list[LaidCoil] = []
    for belt, members in groupby(range(slots), key=lambda k: belts[k]):
        own = list(members)
        phase, sense = (belt % 3, 1) if consequent else BELTS[belt % 6]
        far = [k + step for k in own]
        ends = reversed(far) if shape == "concentric" else far
        for k, finish, wound in zip(own, ends, itertools.cycle(turns), strict=False):
            coils.append(
                LaidCoil(
                    number=len(coils) + 1,
                    start=k + 1,
                    finish=finish % slots + 1,
                    phase=PHASES[phase],
                    group=belt + 1,
                    sense=sense,
                    turns=wound,
                )
            )
    return Layout(slots=slots, poles=poles, layers=2, coils=tuple(coils))


def _one_layer(
    slots: int, poles: int, shape: Shape, consequent: bool, turns: Sequence[float], what: str
) -> Layout:
    """Return one coil side to a slot: groups of q coils a pole pair, or of q/2 a pole."""
    belt = Fraction(slots, 3 * poles)
    if belt.denominator != 1:
        raise ValueOutOfRange(
            what, f"whole slots per pole and phase in one layer, not {belt}; two layers do it"
        )
    q = belt.numerator
    if not consequent and q % 2:
        consequent = True  # a group a pole pair is all that goes
    coils: list[LaidCoil] = []
    group = 0
    for k in range(3 * poles):
        phase, sense = BELTS[k % 6]
        if consequent and sense < 0:
            continue
        group += 1
        half = q if consequent else q // 2
        first = k * q + (0 if consequent else q - half)
        far = [(k + 3) * q + i for i in range(half)]
        own = [first + i for i in range(half)]
        ends = reversed(far) if shape == "concentric" else far
        for start, finish, wound in zip(own, ends, itertools.cycle(turns), strict=False):
            coils.append(
                LaidCoil(
                    number=len(coils) + 1,
                    start=start % slots + 1,
                    finish=finish % slots + 1,
                    phase=PHASES[phase],
                    group=group,
                    sense=sense,
                    turns=wound,
                )
            )
    return Layout(slots=slots, poles=poles, layers=1, coils=tuple(coils))


def _check(layout: Layout, what: str) -> None:
    """Prove the phases equal and a third of a turn apart. Raises: ValueOutOfRange."""
    vectors = [layout.vector(layout.of(p)) for p in PHASES]
    size = abs(vectors[0])
    turn = cmath.exp(2j * math.pi / 3)
    even = size > EQUAL and all(
        min(abs(vectors[k] - vectors[0] * turn ** (way * k)) for way in (1, -1)) < EQUAL * size
        for k in (1, 2)
    )
    if not even:
        raise ValueOutOfRange(
            what, "a layout whose three phases are equal and 120° apart: this one is not"
        )


@dataclass(frozen=True, slots=True)
class PoleCoil:
    """A coil of a pole as it is counted within it: from slot 1 on, `1-8` with its turns."""

    first: int
    last: int
    turns: float

    @property
    def middle(self) -> float:
        """Return where its middle is, in slots from slot 1 on."""
        return (self.first + self.last) / 2


def single_phase(
    slots: int,
    poles: int,
    main: Sequence[PoleCoil],
    start: Sequence[PoleCoil] = (),
    start_at: int | None = None,
) -> Layout:
    """Return concentric windings, every pole alike; `start_at` the slot of the start winding's slot 1.

    Without it the start winding is centred between the mains where that comes to a whole slot. Raises:
    ValueOutOfRange for a pole pitch that is no whole slot, coils wider than a pole, no main.
    """
    check_core(slots, poles, 1)
    if slots % poles:
        raise ValueOutOfRange(f"{slots} slots, {poles} poles", "a whole number of slots to a pole")
    pitch = slots // poles
    if not main:
        raise ValueOutOfRange("no main winding", "its coils, such as 1-8 and their turns")
    for c in (*main, *start):
        if not (1 <= c.first < c.last and c.last - c.first <= pitch and c.turns > 0):
            raise ValueOutOfRange(
                f"a coil {c.first}-{c.last} of {c.turns:g} turns",
                f"a span of at most {pitch} slots, turns above nothing",
            )
    if start and start_at is None:
        apart = main[0].middle + pitch / 2 - start[0].middle
        start_at = math.floor(apart) + 1
    coils: list[LaidCoil] = []
    group = 0
    for name, own, shift in ((MAIN, main, 0), (START, start, (start_at or 1) - 1)):
        for pole in range(poles if own else 0):
            group += 1
            for c in own:
                base = shift + pole * pitch
                coils.append(
                    LaidCoil(
                        number=len(coils) + 1,
                        start=(base + c.first - 1) % slots + 1,
                        finish=(base + c.last - 1) % slots + 1,
                        phase=name,
                        group=group,
                        sense=1 if pole % 2 == 0 else -1,
                        turns=c.turns,
                    )
                )
    return Layout(slots=slots, poles=poles, layers=2, coils=tuple(coils))


def off_centre(layout: Layout) -> float:
    """Return by how many electrical degrees the start winding lies off the middle between the mains."""
    main, start = (layout.vector(layout.of(p)) for p in (MAIN, START))
    if abs(main) < EQUAL or abs(start) < EQUAL:
        return 0.0
    apart = math.degrees(cmath.phase(start / main)) % 180
    return apart - 90.0


def circuits_of(layout: Layout) -> tuple[int, ...]:
    """Return into how many equal parallel circuits each phase can be parted, group by group.

    Every a-th group together, or groups side by side; each circuit must have the same vector.
    """
    found = []
    whole = [layout.groups(p) for p in layout.phases]
    count = min((len(g) for g in whole), default=0)
    for a in range(1, count + 1):
        if all(len(g) % a == 0 and _parts(layout, g, a) for g in whole):
            found.append(a)
    return tuple(found)


def _parts(layout: Layout, groups: Sequence[Sequence[LaidCoil]], a: int) -> bool:
    each = len(groups) // a
    ways = (
        [groups[k::a] for k in range(a)],
        [groups[k * each : (k + 1) * each] for k in range(a)],
    )
    for way in ways:
        vectors = [layout.vector([c for g in circuit for c in g]) for circuit in way]
        largest = max(abs(v) for v in vectors)
        if all(abs(v - vectors[0]) <= EQUAL * max(largest, 1.0) for v in vectors):
            return True
    return False


def mmf(layout: Layout, amps: Sequence[float]) -> Floats:
    """Return the magnetomotive force over the teeth, shape (slots,), tooth k between slots k and k+1.

    `amps` of each phase at that moment, in the order of `phases`; ampere-turns of one coil's turns.
    """
    steps = np.zeros(layout.slots)
    for phase, amp in zip(layout.phases, amps, strict=True):
        for c in layout.of(phase):
            steps[c.start - 1] += c.sense * c.turns * amp
            steps[c.finish - 1] -= c.sense * c.turns * amp
    wave = np.cumsum(steps)
    return np.asarray(wave - wave.mean())
