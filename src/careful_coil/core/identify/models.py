"""What a motor's leads can be: every arrangement with its insides, and what else may come out.

A model's network has the leads of the winding first, then those of sensor pairs and lone leads.
"""

import math
from collections import Counter
from dataclasses import dataclass, field, replace
from functools import cache, cached_property

import numpy as np

from careful_coil.core.identify.evidence import PLAIN_LEANINGS, Leanings
from careful_coil.core.winding.arrangements import ARRANGEMENTS, Arrangement
from careful_coil.core.winding.network import Coil, Network
from careful_coil.core.winding.symmetry import (
    Relabelling,
    dc_count,
    dc_symmetries,
    kick_symmetries,
    parts,
    signature,
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
    ("single-phase-2-lead", ""): 0.09,
}
TWO_LEADS = "single-phase-2-lead"
P_TWO_AND_MORE = 0.03  # beside two leads a pair or a lone lead is rarely anything but earth
P_PROTECTOR_OPEN = 0.03
P_LEFT_OUT = 0.003  # a lead overlooked, cut off or under a tag that another has
P_WEAK = 0.03  # a phase lower than the other two, where several readings show it at once
P_OF_THREE = 0.2  # of three leads one is seldom overlooked
P_BROKEN = 0.02  # a coil that stands open, wherever in the winding
P_PLATE_WRONG = 0.001  # a plate that belongs to another motor, or a winding changed since
# what else comes out: pairs, three-wire sensors, and how common
BESIDE = (
    (0, 0, 0.80),
    (1, 0, 0.13),
    (2, 0, 0.05),
    (3, 0, 0.015),
    (0, 1, 0.01),
    (1, 1, 0.003),
)
LONE_LEADS = (1.0, 0.02, 0.004)
SENSOR, LONE = "sensor", "empty"


@dataclass(frozen=True, kw_only=True, eq=False)
class Model:
    """A winding with what comes out besides it. Compared by identity.

    `core` the winding's own network, whole; `bare` as it is, with a coil that stands `broken`, or with
    a protector that stands open where `open_protector`; `network` the same with the extras.
    """

    arrangement: Arrangement
    variant: str
    core: Network
    bare: Network
    network: Network
    prior: float
    sensors: int = 0
    triples: int = 0
    open_protector: bool = False
    broken: str = ""
    weak: bool = False  # one phase lower than its like: shorted turns, a wrong repair
    missing: str = ""  # a lead that was not counted
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
        for g in dc_symmetries(self._healthy):
            if g not in seen:
                found.append(g)
                seen.update(tuple(k[x] for x in g) for k in kick_symmetries(self._healthy))
        return tuple(self._whole(g) for g in found)

    @property
    def unseen_count(self) -> int:
        """Return how many of these there are, without listing them."""
        return dc_count(self._healthy) // len(kick_symmetries(self._healthy))

    @cached_property
    def symmetries(self) -> tuple[Relabelling, ...]:
        """Return the relabellings that nothing measured can tell from each other."""
        return tuple(self._whole(g) for g in kick_symmetries(self._healthy))

    @property
    def _healthy(self) -> Network:
        """Return the winding that names go by: a phase that is weak or open may be any of them."""
        return self.core if self.weak or self.broken else self.bare

    @cached_property
    def ohm_symmetries(self) -> int:
        """Return how many relabellings ohms cannot tell, ends of sensors included."""
        lone = len(self.network.leads) - len(self.core.leads) - 2 * self.sensors - 3 * self.triples
        beside = 2**self.sensors * math.factorial(self.sensors) * math.factorial(lone)
        return int(dc_count(self.bare) * beside)

    @cached_property
    def layout(self) -> Network:
        """Return the network with its sensors alike: which is called first makes no difference."""
        coils = tuple(
            replace(c, like=c.like.replace(c.like[len(SENSOR) : len(SENSOR) + 2], ""))
            if c.like.startswith(SENSOR)
            else c
            for c in self.network.coils
        )
        return replace(self.network, coils=coils)

    @cached_property
    def blocks(self) -> tuple[str, ...]:
        """Return its connected parts as kinds of blocks, sorted: see `cover`."""
        return tuple(sorted(_block(self.network, p) for p in parts(self.network)))

    def of_bare(self, bare: Network, lone: int) -> "Model":
        """Return the same with another state of its winding."""
        network = _with_extras(bare, self.sensors, self.triples, lone)
        return replace(self, bare=bare, network=network)

    def _whole(self, relabelling: Relabelling) -> Relabelling:
        extra = range(len(self.core.leads), len(self.network.leads))
        return (*relabelling, *extra)


def _block(network: Network, part: tuple[int, ...]) -> str:
    """Return the kind of a part: p, y or d where its coils are like those of other parts, else by size."""
    leads = {network.leads[k] for k in part}
    if len(leads) == 1:
        return "1"
    here = network.part_of(network.leads[part[0]])
    coils = [c for c in network.coils if network.part_of(c.start) == here]
    like = {c.like for c in coils}
    shared = any(c.like in like for c in network.coils if c not in coils)
    three = like == {"coil"} and shared
    if len(leads) == 2:
        return "p" if three and len(coils) == 1 else "q"
    if len(leads) == 3 and three:
        return "y" if len(coils) == 3 else "d"
    return f"b{len(leads)}"


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
        for sensors, triples, p_beside in BESIDE:
            lone = left - 2 * sensors - 3 * triples
            if not 0 <= lone < len(LONE_LEADS):
                continue
            plain = Model(
                arrangement=arrangement,
                variant=variant,
                core=core,
                bare=core,
                network=_with_extras(core, sensors, triples, lone),
                prior=odds * p_beside * LONE_LEADS[lone] * _of_two(slug, left),
                sensors=sensors,
                triples=triples,
            )
            found.append(plain)
            if slug == "single-phase-3-lead":
                found.append(
                    replace(
                        plain.of_bare(_opened(core), lone),
                        prior=plain.prior * P_PROTECTOR_OPEN,
                        open_protector=True,
                        notes=(PROTECTOR_OPEN,),
                    )
                )
            if not lone and sensors + triples < 2:
                found += _broken_ones(plain)
                found += _weak_ones(plain)
    found += _short_by_one(count)
    return tuple(sorted(found, key=lambda m: -m.prior))


def _of_two(slug: str, left: int) -> float:
    """Return how common leads beside a winding of two leads are, over other windings."""
    return P_TWO_AND_MORE if slug == TWO_LEADS and left else 1.0


def _short_by_one(count: int) -> list[Model]:
    """Return every winding that has one lead more, a lead of each kind not counted."""
    found: dict[tuple[object, ...], Model] = {}
    for (slug, variant), odds in PRIOR.items():
        core = ARRANGEMENTS[slug].inside(variant)
        if len(core.leads) != count + 1:
            continue
        for lead in core.leads:
            rest = replace(core, leads=tuple(n for n in core.leads if n != lead))
            ohm = np.round(signature(rest)[np.triu_indices(count, 1)], 6)
            key = (slug, variant, tuple(sorted(ohm.tolist())))
            if key not in found:
                found[key] = Model(
                    arrangement=ARRANGEMENTS[slug],
                    variant=variant,
                    core=rest,
                    bare=rest,
                    network=rest,
                    prior=odds * P_LEFT_OUT * (P_OF_THREE if count == 2 else 1.0),
                    missing=lead,
                    notes=(f"{ARRANGEMENTS[slug].title}, {LEFT_OUT}",),
                )
    return list(found.values())


LEFT_OUT = (
    "one lead not counted, fits: look for it in the box and at the winding, then count again."
)
PROTECTOR_OPEN = "The protector in the common lead is open: cool it, reset it, read again."


def _broken_ones(plain: Model) -> list[Model]:
    """Return the same winding with one coil standing open, once for each kind of place."""
    kinds: dict[tuple[object, ...], Network] = {}
    names: dict[tuple[object, ...], str] = {}
    for coil in plain.core.coils:
        rest = replace(plain.core, coils=tuple(c for c in plain.core.coils if c is not coil))
        ohm = np.round(rest.resistance()[np.triu_indices(len(rest.leads), 1)], 6)
        key = (coil.like, tuple(sorted(ohm.tolist())))
        kinds.setdefault(key, rest)
        names.setdefault(key, coil.name)
    return [
        replace(
            plain.of_bare(rest, 0),
            prior=plain.prior * P_BROKEN / len(kinds),
            broken=names[key],
            notes=("One coil is open: a broken wire, a joint come off, or burnt through.",),
        )
        for key, rest in kinds.items()
    ]


def _weak_ones(plain: Model) -> list[Model]:
    """Return a winding of few leads with one phase of ohms of its own; nothing where pairs stand apart."""
    if plain.slug not in ("three-phase-3-lead", "three-phase-4-lead"):
        return []
    first, *rest = plain.core.coils
    bare = replace(plain.core, coils=(replace(first, like="weak"), *rest))
    return [replace(plain.of_bare(bare, 0), prior=plain.prior * P_WEAK, weak=True, notes=(WEAK,))]


WEAK = "One phase reads unlike the other two: shorted turns, or a wrong repair. Read it again."


def _with_extras(network: Network, sensors: int, triples: int, lone: int) -> Network:
    """Return a winding with sensors, each of ohms of its own, and leads that go nowhere.

    A three-wire sensor is a chain: the element, and a second wire to one end of it.
    """
    coils, leads = [], []
    for k in range(1, sensors + triples + 1):
        ends = [f"{SENSOR}-{k}-{n}" for n in (1, 2, 3)][: 2 if k <= sensors else 3]
        leads += ends
        for n, name in enumerate((f"{SENSOR}-{k}", f"{SENSOR}-{k}-wire")[: len(ends) - 1]):
            coils.append(
                Coil(
                    name=name,
                    start=ends[n],
                    finish=ends[n + 1],
                    like=name,
                    poles=10.0 + k,  # no field of the winding's
                )
            )
    leads += [f"{LONE}-{k}" for k in range(1, lone + 1)]
    return replace(network, coils=network.coils + tuple(coils), leads=(*network.leads, *leads))


def _opened(network: Network) -> Network:
    """Return common, run and start with the common lead off its joint."""
    coils = tuple(replace(c, start=_inner(c.start), finish=_inner(c.finish)) for c in network.coils)
    return replace(network, coils=coils)


def _inner(node: str) -> str:
    return "inside-common" if node == "common" else node


def prior_of(model: Model, phases: int | None, leanings: Leanings = PLAIN_LEANINGS) -> float:
    """Return how common a model is where the plate names so many phases; plates are rarely wrong.

    `leanings` the shop's own odds by slug, and what the signs of its kind say.
    """
    right = 1.0 if phases in (None, model.phases) else P_PLATE_WRONG
    own = dict(leanings.arrangements).get(model.slug, 1.0)
    return model.prior * right * own * dict(leanings.kinds).get(model.slug, 1.0)


@cache
def compositions(
    count: int, phases: int | None = None, leanings: Leanings = PLAIN_LEANINGS
) -> dict[tuple[str, ...], float]:
    """Return the sets of blocks that so many leads can fall into, with their odds, which sum to 1."""
    odds: Counter[tuple[str, ...]] = Counter()
    for m in models_for(count):
        odds[m.blocks] += prior_of(m, phases, leanings)  # type: ignore[assignment]
    total = sum(odds.values())
    return {blocks: p / total for blocks, p in odds.items()}


def role_word(lead: str) -> str:
    """Return the role a lead of a network is told by: both ends of a pair have the same word."""
    stem, _, number = lead.rpartition("-")
    if stem and number.isdecimal():
        return "main" if stem == "line" else stem
    return lead
