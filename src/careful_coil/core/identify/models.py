"""What a motor's leads can be: every arrangement with its insides, and what else may come out.

A model's network has the leads of the winding first, then those of sensor pairs and lone leads.
"""

import math
from collections import Counter
from dataclasses import dataclass, field, replace
from functools import cache, cached_property

from careful_coil.core.winding.arrangements import ARRANGEMENTS, Arrangement
from careful_coil.core.winding.network import Coil, Network
from careful_coil.core.winding.symmetry import (
    Relabelling,
    dc_symmetries,
    kick_symmetries,
    parts,
)

# How often a shop meets each, by inside; a leaning, which readings overrule.
PRIOR: dict[tuple[str, str], float] = {
    ("three-phase-3-lead", ""): 0.10,
    ("single-phase-3-lead", ""): 0.16,
    ("single-phase-two-speed-coil", ""): 0.06,
    ("three-phase-4-lead", ""): 0.02,
    ("single-phase-4-lead", ""): 0.10,
    ("universal-4-lead", ""): 0.06,
    ("single-phase-speed-taps", "two"): 0.02,
    ("single-phase-speed-taps", ""): 0.04,
    ("single-phase-speed-taps", "in-main"): 0.01,
    ("single-phase-speed-taps", "four"): 0.02,
    ("single-phase-speed-taps", "five"): 0.01,
    ("universal-5-lead", ""): 0.03,
    ("three-phase-6-lead", ""): 0.14,
    ("single-phase-dual-voltage-6-lead", ""): 0.07,
    ("three-phase-part-winding-6-lead", ""): 0.008,
    ("three-phase-part-winding-6-lead", "two-windings"): 0.008,
    ("three-phase-two-speed-6-lead", ""): 0.012,
    ("three-phase-two-speed-6-lead", "variable-torque"): 0.008,
    ("single-phase-dual-voltage-8-lead", ""): 0.04,
    ("three-phase-9-lead-wye", ""): 0.07,
    ("three-phase-9-lead-delta", ""): 0.03,
    ("three-phase-12-lead", ""): 0.05,
}
P_PROTECTOR_OPEN = 0.03
P_PLATE_WRONG = 0.02  # a plate that belongs to another motor, or a winding changed since
SENSOR_PAIRS = (0.80, 0.13, 0.05, 0.015)  # none, one, two, three
LONE_LEADS = (1.0, 0.02, 0.004)
SENSOR, LONE = "sensor", "empty"


@dataclass(frozen=True, kw_only=True, eq=False)
class Model:
    """A winding with what comes out besides it. Compared by identity.

    `core` the winding's own network, whole; `network` with the extras, and with a protector that
    stands open where `open_protector`.
    """

    arrangement: Arrangement
    variant: str
    core: Network
    network: Network
    prior: float
    sensors: int = 0
    open_protector: bool = False
    notes: tuple[str, ...] = field(default=())

    @property
    def slug(self) -> str:
        """Return the arrangement's slug."""
        return self.arrangement.slug

    @property
    def phases(self) -> int:
        """Return the phases of the arrangement."""
        return self.arrangement.phases

    @cached_property
    def unseen(self) -> tuple[Relabelling, ...]:
        """Return one relabelling for each state that ohms cannot part and kicks can."""
        seen: set[Relabelling] = set()
        found = []
        for g in dc_symmetries(self.core):
            if g not in seen:
                found.append(g)
                seen.update(tuple(k[x] for x in g) for k in kick_symmetries(self.core))
        return tuple(self._whole(g) for g in found)

    @cached_property
    def symmetries(self) -> tuple[Relabelling, ...]:
        """Return the relabellings that nothing measured can tell from each other."""
        return tuple(self._whole(g) for g in kick_symmetries(self.core))

    @cached_property
    def ohm_symmetries(self) -> int:
        """Return how many relabellings ohms cannot tell, ends of sensors included."""
        lone = len(self.network.leads) - len(self.core.leads) - 2 * self.sensors
        beside = 2**self.sensors * math.factorial(self.sensors) * math.factorial(lone)
        return int(len(dc_symmetries(self.core)) * beside)

    @cached_property
    def layout(self) -> Network:
        """Return the network with its sensors alike: which is called first makes no difference."""
        coils = tuple(
            replace(c, like=SENSOR) if c.like.startswith(SENSOR) else c for c in self.network.coils
        )
        return replace(self.network, coils=coils)

    @cached_property
    def blocks(self) -> tuple[str, ...]:
        """Return its connected parts as kinds of blocks, sorted: see `cover`."""
        return tuple(sorted(_block(self.network, p) for p in parts(self.network)))

    def _whole(self, relabelling: Relabelling) -> Relabelling:
        extra = range(len(self.core.leads), len(self.network.leads))
        return (*relabelling, *extra)


def _block(network: Network, part: tuple[int, ...]) -> str:
    """Return the kind of a part: p, y or d where its coils are like those of other parts, else by size."""
    leads = {network.leads[k] for k in part}
    if len(leads) == 1:
        return "1"
    coils = [c for c in network.coils if _touches(network, c, leads)]
    like = {c.like for c in coils}
    shared = any(c.like in like for c in network.coils if c not in coils)
    three = like == {"coil"} and shared
    if len(leads) == 2:
        return "p" if three and len(coils) == 1 else "q"
    if len(leads) == 3 and three:
        return "y" if len(coils) == 3 else "d"
    return f"b{len(leads)}"


def _touches(network: Network, coil: Coil, leads: set[str]) -> bool:
    group = next(g for g in network.groups() if g & leads)
    inside = network.node_index()
    label = {inside[n] for n in group}
    reach = set(label)
    for _ in network.coils:
        for c in network.coils:
            ends = {inside[c.start], inside[c.finish]}
            if ends & reach:
                reach |= ends
    return inside[coil.start] in reach


@cache
def models_for(count: int) -> tuple[Model, ...]:
    """Return every model with so many leads, the commonest first."""
    found = []
    for (slug, variant), odds in PRIOR.items():
        arrangement = ARRANGEMENTS[slug]
        core = arrangement.inside(variant)
        left = count - len(core.leads)
        if left < 0:
            continue
        for sensors, p_sensors in enumerate(SENSOR_PAIRS):
            lone = left - 2 * sensors
            if not 0 <= lone < len(LONE_LEADS):
                continue
            prior = odds * p_sensors * LONE_LEADS[lone]
            found.append(_model(arrangement, variant, core, sensors, lone, prior))
            if slug == "single-phase-3-lead":
                found.append(
                    replace(
                        found[-1],
                        network=_with_extras(_opened(core), sensors, lone),
                        prior=prior * P_PROTECTOR_OPEN,
                        open_protector=True,
                        notes=(
                            "The protector in the common lead stands open: cool it, reset it, read again.",
                        ),
                    )
                )
    return tuple(sorted(found, key=lambda m: -m.prior))


def _model(
    arrangement: Arrangement, variant: str, core: Network, sensors: int, lone: int, prior: float
) -> Model:
    return Model(
        arrangement=arrangement,
        variant=variant,
        core=core,
        network=_with_extras(core, sensors, lone),
        prior=prior,
        sensors=sensors,
    )


def _with_extras(network: Network, sensors: int, lone: int) -> Network:
    """Return a winding with sensor pairs, each of ohms of its own, and leads that go nowhere."""
    pairs = tuple(
        Coil(
            name=f"{SENSOR}-{k}",
            start=f"{SENSOR}-{k}-1",
            finish=f"{SENSOR}-{k}-2",
            like=f"{SENSOR}-{k}",
            poles=10.0 + k,  # no field of the winding's
        )
        for k in range(1, sensors + 1)
    )
    more = [lead for c in pairs for lead in (c.start, c.finish)]
    more += [f"{LONE}-{k}" for k in range(1, lone + 1)]
    return replace(network, coils=network.coils + pairs, leads=(*network.leads, *more))


def _opened(network: Network) -> Network:
    """Return common, run and start with the common lead off its joint."""
    coils = tuple(replace(c, start=_inner(c.start), finish=_inner(c.finish)) for c in network.coils)
    return replace(network, coils=coils)


def _inner(node: str) -> str:
    return "inside-common" if node == "common" else node


def prior_of(model: Model, phases: int | None) -> float:
    """Return how common a model is where the plate names so many phases; plates are rarely wrong."""
    return model.prior * (1.0 if phases in (None, model.phases) else P_PLATE_WRONG)


@cache
def compositions(count: int, phases: int | None = None) -> dict[tuple[str, ...], float]:
    """Return the sets of blocks that so many leads can fall into, with their odds, which sum to 1."""
    odds: Counter[tuple[str, ...]] = Counter()
    for m in models_for(count):
        odds[m.blocks] += prior_of(m, phases)  # type: ignore[assignment]
    total = sum(odds.values())
    return {blocks: p / total for blocks, p in odds.items()}


def role_word(lead: str) -> str:
    """Return the role a lead of a network is told by: both ends of a pair have the same word."""
    stem, _, number = lead.rpartition("-")
    if stem and number.isdigit():
        return stem
    return lead
