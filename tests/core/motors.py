"""Motors made up by a seed and asked through the simulated meter, for tests that play along."""

import random
from collections.abc import Sequence
from dataclasses import dataclass, field, replace

from pydantic import TypeAdapter

from careful_coil.bench.simulated import HiddenMotor, SimulatedMeter
from careful_coil.core.identify import Evidence, Identification, identify
from careful_coil.core.identify.models import role_word
from careful_coil.core.identify.result import NextReading
from careful_coil.core.probes import Request
from careful_coil.core.readings import AnyReading, Meter, Resistance
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.core.winding.extras import with_extras
from careful_coil.core.winding.symmetry import kick_symmetries

READING: TypeAdapter[AnyReading] = TypeAdapter(AnyReading)
TAGS = "ABCDEFGHJKLMNPRS"


@dataclass
class Player:
    """A motor of an arrangement, and the readings taken of it so far."""

    slug: str
    seed: int
    start_device: str = ""
    adjacent_halves: bool = False
    bad_clips: float = 0.0
    variant: str = ""
    sensors: tuple[str, ...] = ()
    readings: list[AnyReading] = field(default_factory=list)

    def __post_init__(self) -> None:
        chance = self.chance = random.Random(self.seed)
        network = self.core = ARRANGEMENTS[self.slug].inside(self.variant)
        kind = self._kinds(chance)
        ohm = {c.name: kind[c.like] * (1 + chance.uniform(-0.015, 0.015)) for c in network.coils}
        whole = with_extras(network.with_ohm(ohm), self.sensors)
        leads = list(whole.leads)
        chance.shuffle(leads)
        self.tags = tuple(TAGS[: len(leads)])
        self.lead_of = dict(zip(self.tags, leads, strict=True))
        self.motor = HiddenMotor(
            network=whole,
            lead_of=self.lead_of,
            start_device=self.start_device,
            adjacent_halves=self.adjacent_halves,
        )
        self.meter = Meter(
            accuracy_percent=chance.choice((0.5, 1.0, 1.5)),
            resolution_ohm=chance.choice((0.01, 0.1)),
            lead_ohm=chance.choice((0.0, 0.1, 0.2)),
        )
        self.bench = SimulatedMeter(self.motor, self.seed, self.meter)

    def _kinds(self, chance: random.Random) -> dict[str, float]:
        """Return the ohms of each kind of coil: taps well below the winding they follow."""
        kind = {c.like: 10 ** chance.uniform(-0.3, 1.7) for c in self.core.coils}
        for slow in {"medium", "low", "tap-1", "tap-2", "tap-3"} & set(kind):
            kind[slow] = kind["main"] * chance.uniform(0.1, 0.3)
        if "auxiliary" in kind:
            kind["auxiliary"] = kind["main"] * chance.uniform(1.4, 4.0)
        if "tail" in kind:
            kind["tail"] = kind["main"] * 10 ** chance.uniform(-0.8, 0.2)
        if "start" in kind:  # as a rule the thinner wire
            kind["start"] = kind["run"] * 10 ** chance.uniform(-0.1, 0.6)
        return kind

    def read_all(self) -> None:
        """Take the whole sheet."""
        for k, a in enumerate(self.tags):
            for b in self.tags[k + 1 :]:
                self.read(a, b)

    def answer(self) -> Identification:
        """Return what the readings so far say."""
        return identify(Evidence.of(self.tags, self.readings, self.meter))

    def odds_of_groups(self) -> float:
        """Return the odds that the candidates with the true groups hold together."""
        true = self.true_groups()
        return sum(c.probability for c in self.answer().candidates if groups_of(c.groups) == true)

    def read(self, a: str, b: str) -> None:
        """Take ohms of a pair, now and then through a bad clip."""
        text = self.bench.show(Request(kind="resistance", ends=(a, b))).text
        if text[0].isdigit() and self.chance.random() < self.bad_clips:
            text = f"{float(text) * self.chance.uniform(1.2, 4.0):.2f}"
        self.readings.append(Resistance(between=(a, b), value=text))

    def play(self, most: int = 60) -> Identification:
        """Follow the suggestions until there is none."""
        for _ in range(most):
            found = self.answer()
            if found.next is None:
                return found
            self.take(found.next)
        raise AssertionError("the suggestions never end")

    def take(self, step: NextReading) -> None:
        """Take the reading asked for through the simulated meter."""
        kind = step.kind
        if step.pair() and kind == "resistance":
            self.read(*(step.pair() or ()))
            return
        flat = [(e,) if isinstance(e, str) else e for e in step.between or ()]
        request = Request(
            kind=kind,
            ends=step.source or tuple(e[0] for e in flat),
            sense=step.sense or (),
            also=flat[1][1:] if flat else (),
            lines=step.lines or (),
            joints=step.joints or (),
        )
        if step.tie and step.across:
            request = replace(request, sense=(step.tie[1], step.across[1]))
        text = self.bench.show(request).text
        told: dict[str, object] = {"kind": kind, "value": text}
        if kind == "spin":
            told |= {"between": step.between, "volt": float(text.split()[0])}
        elif step.between:
            told["between"] = step.between
        elif kind == "series":
            applied, _, read = text.split()
            told |= {"source": step.source, "tie": step.tie, "across": step.across}
            told |= {"applied_volt": float(applied), "value": float(read)}
        elif kind == "kick":
            told |= {"source": step.source, "sense": step.sense}
        else:
            volt, _, amps, turns = text.split()
            told |= {"lines": step.lines, "joints": step.joints, "applied_volt": float(volt)}
            told |= {"amp": [float(a) for a in amps.split("/")], "turns": turns}
        self.readings.append(READING.validate_python(told))

    def claims_hold(self, found: Identification) -> bool:
        """Whether the marks called proven or convention are part of one right set."""
        best = found.best
        claimed = {
            t: r for t, r in best.roles.items() if best.certainty[t] in ("proven", "convention")
        }
        network = self.core
        number = {lead: k for k, lead in enumerate(network.leads)}
        beside = {t: r for t, r in claimed.items() if t in best.extras}
        if any(not self.lead_of[t].startswith(r) for t, r in beside.items()):
            return False
        claimed = {t: r for t, r in claimed.items() if t not in beside}
        if best.arrangement != self.slug:
            return not claimed
        if any(self.lead_of[t] not in number for t in claimed):
            return False
        return any(
            all(
                role_word(network.leads[k[number[self.lead_of[t]]]]) == role
                for t, role in claimed.items()
            )
            for k in kick_symmetries(network)
        )

    def true_groups(self) -> set[frozenset[str]]:
        """Return the groups as they are, lone leads left out."""
        tag = {lead: t for t, lead in self.lead_of.items()}
        groups = ({tag[n] for n in g} for g in self.motor.network.groups())
        return {frozenset(g) for g in groups if len(g) > 1}


def groups_of(groups: Sequence[Sequence[str]]) -> set[frozenset[str]]:
    """Return groups without their order."""
    return {frozenset(g) for g in groups}
