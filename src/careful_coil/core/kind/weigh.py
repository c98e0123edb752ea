"""Kinds by their odds: evidence is collected, never one single sign.

P(kind | looks) goes with the prior times the product of P(look | kind), looks taken as independent
given the kind; a look seen wrongly is allowed for, so that no kind is ever ruled out by one (naive
Bayes; MacKay, ch. 28).
"""

import math
from collections.abc import Collection, Mapping
from dataclasses import dataclass
from itertools import combinations

from careful_coil.core.errors import BadValue
from careful_coil.core.kind.kinds import KINDS, Kind
from careful_coil.core.kind.sign_table import SIGNS
from careful_coil.core.kind.signs import Sign

MISTAKE = 0.01  # a look seen or typed wrongly
SPEAKS = 1.3  # how much likelier a look must be for a kind than on average to speak for it
AGAINST = 0.05  # two looks that no kind shows together more often than this share of each alone
SETTLED = 0.95
LEAST_BITS = 0.03

Looks = Mapping[str, str]


@dataclass(frozen=True, slots=True, kw_only=True)
class Odds:
    """A kind with its probability."""

    kind: Kind
    probability: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Reason:
    """Why a look counts: the kinds it speaks for, strongest first, and how many bits it told."""

    sign: Sign
    answer: str
    speaks_for: tuple[str, ...]
    bits: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Look:
    """The look that would settle most, with the bits it is expected to tell."""

    sign: Sign
    gain_bits: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Weighed:
    """The kinds by odds, why each look counts, looks that contradict each other, the next look."""

    odds: tuple[Odds, ...]
    reasons: tuple[Reason, ...]
    contradictions: tuple[tuple[str, str], ...]
    next: Look | None

    @property
    def settled(self) -> bool:
        """Whether one kind is beyond reasonable doubt and no looks contradict each other."""
        return self.odds[0].probability >= SETTLED and not self.contradictions

    def chance(self, names: Collection[str]) -> float:
        """Return how likely it is one of these kinds."""
        return sum(o.probability for o in self.odds if o.kind.name in names)


def weigh_kinds(
    looks: Looks, opened: bool = True, put_off: frozenset[str] = frozenset()
) -> Weighed:
    """Return the kinds that looks (sign name → answer) speak for.

    Looks into an open motor are not suggested while it is not `opened`, nor those `put_off`.
    Raises: BadValue for a sign or answer that is none.
    """
    for name, answer in looks.items():
        if name not in SIGNS:
            raise BadValue(name, ", ".join(SIGNS))
        if answer not in SIGNS[name].answers:
            raise BadValue(answer, " or ".join(SIGNS[name].answers), SIGNS[name].question)
    chance = _posterior(looks)
    order = sorted(chance, key=lambda k: -chance[k])
    return Weighed(
        odds=tuple(Odds(kind=KINDS[k], probability=chance[k]) for k in order),
        reasons=tuple(_reason(SIGNS[n], a) for n, a in looks.items()),
        contradictions=tuple((a, b) for a, b in combinations(looks, 2) if _contradict(looks, a, b)),
        next=_next({*looks, *put_off}, chance, opened),
    )


def likelihood(sign: Sign, answer: str, kind: str) -> float:
    """Return P(answer | kind) with a mistake allowed for."""
    even = 1 / len(sign.answers)
    return (1 - MISTAKE) * sign.chance[answer][kind] + MISTAKE * even


def _posterior(looks: Looks) -> dict[str, float]:
    log = {
        k: math.log(kind.prior)
        + sum(math.log(likelihood(SIGNS[n], a, k)) for n, a in looks.items())
        for k, kind in KINDS.items()
    }
    top = max(log.values())
    weight = {k: math.exp(v - top) for k, v in log.items()}
    total = sum(weight.values())
    return {k: w / total for k, w in weight.items()}


def _reason(sign: Sign, answer: str) -> Reason:
    prior = {k: kind.prior for k, kind in KINDS.items()}
    total = sum(prior.values())
    mean = sum(prior[k] * likelihood(sign, answer, k) for k in KINDS) / total
    lift = {k: likelihood(sign, answer, k) / mean for k in KINDS}
    most = max(lift.values())
    named = [
        k for k in sorted(KINDS, key=lambda k: -lift[k]) if lift[k] > SPEAKS and lift[k] > most / 3
    ]
    return Reason(sign=sign, answer=answer, speaks_for=tuple(named), bits=math.log2(most))


def _contradict(looks: Looks, a: str, b: str) -> bool:
    """Whether no kind shows both looks, though each is usual for some."""
    one = {k: likelihood(SIGNS[a], looks[a], k) for k in KINDS}
    two = {k: likelihood(SIGNS[b], looks[b], k) for k in KINDS}
    together = max(one[k] * two[k] for k in KINDS)
    return together < AGAINST * max(one.values()) * max(two.values())


def _next(asked: Collection[str], chance: Mapping[str, float], opened: bool) -> Look | None:
    before = _entropy(chance)
    best: Look | None = None
    for name, sign in SIGNS.items():
        if name in asked or sign.given or (sign.open and not opened):
            continue
        after = 0.0
        for answer in sign.answers:
            joint = {k: chance[k] * likelihood(sign, answer, k) for k in KINDS}
            total = sum(joint.values())
            after += total * _entropy({k: p / total for k, p in joint.items()})
        gain = before - after
        if gain > LEAST_BITS and (best is None or gain > best.gain_bits):
            best = Look(sign=sign, gain_bits=gain)
    return best


def _entropy(chance: Mapping[str, float]) -> float:
    return -sum(p * math.log2(p) for p in chance.values() if p > 0)
