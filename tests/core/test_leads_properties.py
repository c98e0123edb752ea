"""What must hold of an identification whatever the readings are."""

import random
from collections.abc import Callable
from dataclasses import replace

import pytest

from careful_coil.core.identify import Evidence, Identification, identify
from careful_coil.core.identify.models import PRIOR, models_for
from careful_coil.core.readings import AnyReading, Resistance
from tests.core.motors import Player, groups_of


def some_states() -> list[tuple[str, int, int]]:
    kinds = [slug for slug, _ in PRIOR]
    chance = random.Random(5)
    return [(chance.choice(kinds), seed, chance.randrange(2, 14)) for seed in range(8)]


def played(slug: str, seed: int, count: int) -> Player:
    player = Player(slug, seed)
    for _ in range(count):
        step = player.answer().next
        if step is None:
            break
        player.take(step)
    return player


def odds(found: Identification, rename: Callable[[str], str] = str) -> dict[object, float]:
    return {
        (c.arrangement, frozenset((rename(t), r) for t, r in c.roles.items()), groups(c, rename)): (
            c.probability
        )
        for c in found.candidates
    }


def groups(c: object, rename: Callable[[str], str]) -> frozenset[frozenset[str]]:
    return frozenset(frozenset(map(rename, g)) for g in getattr(c, "groups", ()))


def kinds_by_odds(found: Identification) -> list[tuple[str | None, float]]:
    total: dict[str | None, float] = {}
    for c in found.candidates:
        total[c.arrangement] = total.get(c.arrangement, 0.0) + c.probability
    return sorted(total.items(), key=lambda r: (-round(r[1], 9), str(r[0])))


@pytest.mark.parametrize(("slug", "seed", "count"), some_states())
def test_renaming_tags_and_turning_the_order_change_nothing(
    slug: str, seed: int, count: int
) -> None:
    player = played(slug, seed, count)
    first = player.answer()
    mixed = list(player.readings)
    if not any(r.kind in ("kick",) for r in mixed):
        random.Random(seed).shuffle(mixed)
    again = identify(Evidence.of(player.tags, mixed, player.meter))
    assert (again.status, again.never_energise) == (first.status, first.never_energise)
    assert odds(again) == pytest.approx(odds(first))
    turned = dict(zip(player.tags, reversed(player.tags), strict=True))
    renamed = [r.model_validate(renamed_reading(r.model_dump(), turned)) for r in player.readings]
    other = identify(Evidence.of(player.tags, renamed, player.meter))
    assert other.status == first.status
    for (one, p), (two, q) in zip(kinds_by_odds(first), kinds_by_odds(other), strict=True):
        assert one == two
        assert p == pytest.approx(q, abs=2e-3)


def renamed_reading(told_as: dict[str, object], new: dict[str, str]) -> dict[str, object]:
    def deep(x: object) -> object:
        if isinstance(x, str):
            return new.get(x, x)
        return tuple(deep(y) for y in x) if isinstance(x, tuple | list) else x

    keys = ("between", "source", "sense", "lines", "joints")
    return {k: deep(v) if k in keys else v for k, v in told_as.items()}


@pytest.mark.parametrize("factor", [0.1, 7.0])
def test_ohms_and_meter_scaled_together_change_nothing_but_sensors(factor: float) -> None:
    player = Player("three-phase-9-lead-delta", 3)
    player.read_all()
    first = player.answer()
    meter = replace(
        player.meter,
        resolution_ohm=(player.meter.resolution_ohm or 0.01) * factor,
        lead_ohm=(player.meter.lead_ohm or 0.0) * factor,
    )
    scaled: list[AnyReading] = [
        Resistance(
            between=r.between, value=r.value if r.value == "open" else float(r.value) * factor
        )
        for r in player.readings
        if isinstance(r, Resistance)
    ]
    other = identify(Evidence.of(player.tags, scaled, meter))
    assert other.best.arrangement == first.best.arrangement
    assert other.best.roles == first.best.roles
    assert other.best.probability == pytest.approx(first.best.probability, abs=1e-3)
    ratio = [other.best.coil_ohm[k] / v for k, v in first.best.coil_ohm.items()]
    assert ratio == pytest.approx([factor] * len(ratio), rel=1e-3)


def test_a_true_reading_does_not_lower_the_truths_odds_in_the_mean() -> None:
    gains = []
    for seed in range(2):
        player = Player("three-phase-9-lead-wye", seed)
        chance = random.Random(seed)
        pairs = [(a, b) for k, a in enumerate(player.tags) for b in player.tags[k + 1 :]]
        before = 0.0
        for a, b in chance.sample(pairs, 10):
            player.read(a, b)
            found = player.answer()
            now = sum(
                c.probability
                for c in found.candidates
                if groups_of(c.groups) == player.true_groups()
            )
            gains.append(now - before)
            before = now
    assert sum(gains) / len(gains) > 0


def test_every_model_lays_all_its_leads_in_blocks() -> None:
    for count in range(2, 17):
        for m in models_for(count):
            assert len(m.network.leads) == count
            assert m.ohm_symmetries >= 1
