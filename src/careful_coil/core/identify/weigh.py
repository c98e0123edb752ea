"""The weight of every placement, given the evidence; numbers a shop may see are named here."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.cover import Leaf
from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.exchanged import exchanged
from careful_coil.core.identify.extras import sensor_odds
from careful_coil.core.identify.fit import LOG_RANGE, Fit, fit_all
from careful_coil.core.identify.laid import CAREFULLY, Laid, Variant, lay, screened
from careful_coil.core.identify.marks import of_nothing, of_placements
from careful_coil.core.identify.models import SENSOR, Model, models_for, prior_of
from careful_coil.core.identify.placements import placements
from careful_coil.core.identify.tables import START_KINDS, Floats, Tables, tables

Groups = tuple[tuple[int, ...], ...]

P_UNKNOWN = 1e-3  # a winding that none of the arrangements describes
LEAST_PATH = 1e-5  # of what may lie in the start path: nothing is ruled out by the kind alone
P_START_HIGHER = 0.85  # the start winding is usually the thinner wire
P_TAIL_SMALLER = 0.80  # the larger section of a tapped coil is usually the main one
LEANINGS = (
    ("fast", "slow", 0.9),  # more poles, less power: more turns of thinner wire
    ("run", "start", P_START_HIGHER),
    ("main", "auxiliary", P_START_HIGHER),
    ("tail", "main", P_TAIL_SMALLER),
)
# ohms of a winding over those of the motor's first: a bench's experience
WITHIN_A_MOTOR = {
    **{"start": (0.3, 30.0), "auxiliary": (0.3, 30.0), "tail": (0.02, 3.0)},
    **{"medium": (0.02, 1.0), "low": (0.02, 1.0), "tap-1": (0.02, 1.0), "tap-2": (0.02, 1.0)},
    **{"tap-3": (0.02, 1.0), "fast": (0.1, 10.0), "armature": (0.1, 20.0), "field-2": (0.1, 10.0)},
}
BLED = (100.0, 1e6)  # a bleed resistor and the start winding over the first winding
MOST_FITTED = 300  # placements, or as many as are as good as the last of them
MOST_LAID_ROWS = 6000  # placements of one winding, before the last grouping


_PLAIN = (Variant("plain", 1.0),)
_START = (
    Variant("plain", 0.43),
    Variant("switch in the start path", 0.35, opens=True),
    Variant("capacitor with a bleed resistor in the start path", 0.02, bled=True),
    Variant("capacitor in the start path", 0.20, rising=True),
)


@dataclass(frozen=True, slots=True)
class Weighed:
    """A placement with its log weight. `model` None: none of those known."""

    model: Model | None
    roles: tuple[int, ...]
    variant: Variant
    log_weight: float
    fit: Fit | None = None
    fitted: tuple[int, ...] = ()  # which observations the fit covers
    conflicts: tuple[int, ...] = ()  # observations that contradict the groups flatly
    odd_tests: int = 0
    marks: float = 0.0  # log likelihood of what is printed on the leads, not in the weight

    @property
    def flaws(self) -> int:
        """How many readings it must call wrong."""
        dropped = len(self.fit.dropped) if self.fit else 0
        unclean = bool(self.fit and not self.fit.clean and not self.fit.dropped)
        return len(self.conflicts) + self.odd_tests + dropped + unclean


def weigh(evidence: Evidence, leaves: Sequence[Leaf]) -> list[Weighed]:
    """Return every placement worth keeping, heaviest first, the unknown winding among them.

    `leaves` the groupings to place windings on.
    """
    found: list[Weighed] = [_unknown(evidence)]
    groupings: dict[tuple[str, ...], list[Groups]] = {}
    for leaf in leaves:  # the likeliest first
        kinds = tuple(sorted(k for k, _ in leaf.blocks))
        groupings.setdefault(kinds, []).append(leaf.groups)
    laid: list[Laid] = []
    for model in models_for(len(evidence.tags)):
        rows = _rows(model, groupings.get(model.blocks, ()))
        if not rows:
            continue
        every = np.concatenate(rows)
        variants = _paths(evidence) if tables(model.network).start.any() else _PLAIN
        labels = math.lgamma(len(evidence.tags) + 1) - math.log(model.ohm_symmetries)
        for variant in variants:
            odds = prior_of(model, evidence.phases, evidence.leanings) * variant.prior
            prior = math.log(odds) - labels
            laid.append(lay(model, every, variant, prior, evidence))
    laid = screened(laid, evidence)
    least = _worth_a_fit(laid)
    chosen = [(x, np.flatnonzero(x.rough >= least)) for x in laid]
    chosen = [(x, keep) for x, keep in chosen if len(keep)]
    fits = iter(_fits(chosen, evidence))
    left_out = _left_out(laid, least)
    for x, keep in chosen:
        own = _weigh_rows(x, keep, [next(fits) for _ in keep], evidence)
        marks = of_placements(x.model, x.rows[keep], evidence.printed)
        found += [
            replace(w, log_weight=w.log_weight + left_out, marks=float(m))
            for w, m in zip(own, marks, strict=True)
        ]
    return sorted(found, key=lambda w: (-w.log_weight, w.roles))


def _paths(evidence: Evidence) -> tuple[Variant, ...]:
    """Return what may lie in the start winding's path, with the odds of this kind of motor."""
    odds = evidence.leanings.path
    if not odds:
        return _START
    return tuple(replace(v, prior=max(p, LEAST_PATH)) for v, p in zip(_START, odds, strict=True))


def _rows(model: Model, groupings: Sequence[Groups]) -> list[NDArray[np.int64]]:
    """Return a winding laid on its groupings, on the likeliest alone where they are too many."""
    rows: list[NDArray[np.int64]] = []
    for groups in dict.fromkeys(groupings):
        if sum(map(len, rows)) > MOST_LAID_ROWS:
            break
        rows.append(placements(model.layout, groups))
    return rows


def _worth_a_fit(laid: Sequence[Laid]) -> float:
    """Return the rough weight from which placements are fitted with care: near the best, not too many."""
    every = np.concatenate([x.rough for x in laid]) if laid else np.zeros(1)
    least = float(every.max()) - CAREFULLY
    if (every >= least).sum() > MOST_FITTED:
        least = max(least, float(np.partition(every, -MOST_FITTED)[-MOST_FITTED]))
    return least


def _left_out(laid: Sequence[Laid], least: float) -> float:
    """Return the logarithm of all placements over those fitted with care, by their rough weights.

    Those kept stand for the rest too, else a winding not known here would win where there are many.
    """
    if not laid:
        return 0.0
    every = np.concatenate([x.rough for x in laid])
    top = float(every.max())
    odds = np.exp(np.maximum(every - top, -700.0))
    return math.log(float(odds.sum()) / float(odds[every >= least].sum()))


def _weigh_rows(
    x: Laid, keep: NDArray[np.int64], fits_of: Sequence[Fit], evidence: Evidence
) -> list[Weighed]:
    table = tables(x.model.network)
    where: dict[bytes, tuple[int, ...]] = {}

    def places(mask: NDArray[np.bool_]) -> tuple[int, ...]:
        key = mask.tobytes()
        if key not in where:
            where[key] = tuple(int(k) for k in np.flatnonzero(mask))
        return where[key]

    return [
        Weighed(
            model=x.model,
            roles=tuple(x.rows[p].tolist()),
            variant=x.variant,
            log_weight=float(x.log[p])
            + f.log_evidence
            + exchanged(table, x.rows[p], x.conflict[p], f, evidence)
            + (0.0 if x.model.missing else _leaning(table, f, x.variant))
            + _sensor_ohms(table, x.rows[p], np.flatnonzero(x.fitted[p]), f, evidence),
            fit=f,
            fitted=places(x.fitted[p]),
            conflicts=places(x.conflict[p]),
            odd_tests=int(x.odd[p].item()),
        )
        for p, f in zip(keep, fits_of, strict=True)
    ]


def _fits(chosen: Sequence[tuple[Laid, NDArray[np.int64]]], evidence: Evidence) -> list[Fit]:
    """Fit every placement chosen, all at once; those that predict the same by the same sums share one.

    Networks of fewer kinds of coil get more, of which nothing is read.
    """
    a, b = (np.array([getattr(o, end) for o in evidence.ohms], dtype=int) for end in "ab")
    figures = np.flatnonzero([o.state == "value" for o in evidence.ohms])
    most = max((len(tables(x.model.network).kinds) for x, _ in chosen), default=1)
    slopes: list[Floats] = []
    spreads: list[Floats] = []
    used: list[NDArray[np.bool_]] = []
    for x, keep in chosen:
        table, rows = tables(x.model.network), x.rows[keep]
        one, two = rows[:, a[figures]], rows[:, b[figures]]
        more = ((0, 0), (0, 0), (0, most - len(table.kinds)))
        slopes.append(np.pad(np.round(table.slope[one, two], 9), more))
        spreads.append(np.pad(np.round(table.spread[one, two], 9), more))
        used.append(x.fitted[keep][:, figures])
    if not chosen:
        return []
    use = np.concatenate(used)
    slope = np.concatenate(slopes) * use[:, :, None]
    spread = np.concatenate(spreads) * use[:, :, None]
    keys = [
        s.tobytes() + r.tobytes() + u.tobytes() for s, r, u in zip(slope, spread, use, strict=True)
    ]
    number = {key: n for n, key in enumerate(dict.fromkeys(keys))}
    first = [keys.index(key) for key in number]
    ohms = [evidence.ohms[k] for k in figures]
    fits = fit_all(slope[first], spread[first], use[first], ohms, evidence.meter.lead_ohm)
    kinds = [len(tables(x.model.network).kinds) for x, keep in chosen for _ in keep]
    told: dict[tuple[int, int], Fit] = {}
    for key, own in zip(keys, kinds, strict=True):
        whole = fits[number[key]]
        told.setdefault((number[key], own), replace(whole, ohm=whole.ohm[:own]))
    return [told[number[key], own] for key, own in zip(keys, kinds, strict=True)]


def _sensor_ohms(
    table: Tables,
    row: NDArray[np.int64],
    used: NDArray[np.int64],
    f: Fit,
    evidence: Evidence,
) -> float:
    """What a pair beside the winding reads speaks a little for or against a sensor."""
    log = 0.0
    for k, kind in enumerate(table.kinds):
        if kind.startswith(SENSOR) and any(
            table.slope[row[evidence.ohms[n].a], row[evidence.ohms[n].b], k] > 0 for n in used
        ):
            of: Literal["pair", "element", "wire"] = "wire" if kind.endswith("-wire") else "pair"
            if f"{kind}-wire" in table.kinds:
                of = "element"
            log += sensor_odds(float(f.ohm[k]), of)
    return log


def _leaning(table: Tables, f: Fit, variant: Variant) -> float:
    """Trade habit about windings of one motor: which has more ohms, and how far they can be apart.

    A leaning in the weight, never a proof.
    """
    log = 0.0
    for low, high, share in LEANINGS:
        if low in table.kinds and high in table.kinds and not variant.bled:
            ratio = f.ohm[table.kinds.index(high)] / f.ohm[table.kinds.index(low)]
            slant = math.tanh(4.0 * math.log(ratio))  # equal windings lean neither way
            log += math.log(0.5 + (share - 0.5) * slant)
    for kind, ohm in zip(table.kinds[1:], f.ohm[1:], strict=True):
        if kind.startswith(SENSOR):
            continue
        low_end, high_end = WITHIN_A_MOTOR.get(kind, (0.02, 50.0))
        if variant.bled and kind in START_KINDS:
            low_end, high_end = BLED
        inside = low_end <= ohm / f.ohm[0] <= high_end
        wide = math.log(high_end / low_end)
        log += math.log(0.95 * LOG_RANGE / wide if inside else 0.05)
    return log


def _unknown(evidence: Evidence) -> Weighed:
    """The winding nobody drew: any groups, any ohms, each reading at its broad odds."""
    log = math.log(P_UNKNOWN)
    for o in evidence.ohms:
        if o.state == "value":
            log += math.log(0.4) - math.log(o.size * LOG_RANGE)
        elif o.state in ("open", "rising", "beep"):
            log += math.log({"open": 0.6, "rising": 0.05, "beep": 0.35}[o.state])
    log += math.log(0.25) * (len(evidence.switches) + len(evidence.shafts))
    marks = of_nothing(len(evidence.tags), len(evidence.printed))
    return Weighed(None, tuple(range(len(evidence.tags))), _PLAIN[0], log, marks=marks)
