"""What Intake has seen of a motor, folded from its entries."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from careful_coil.core.job.at_intake import (
    Arrived,
    ConditionSeen,
    PictureAdded,
    PicturePin,
    PlugSeen,
    PrintedDiagram,
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Seen:
    """Newest of each; maps keep the order in which things were first said.

    `condition` by item; `fine` items looked at and found fine; `symptoms` answer by symptom; `wanted`
    and `offered` lines of the replacement card by field.
    """

    arrived: Arrived | None = None
    looks: Mapping[str, str] = field(default_factory=dict)
    estimate: Mapping[str, float] = field(default_factory=dict)
    speeds: tuple[float, ...] = ()
    voltage_tags: Mapping[str, str] = field(default_factory=dict)
    plug: PlugSeen | None = None
    diagram: PrintedDiagram | None = None
    pictures: tuple[PictureAdded, ...] = ()
    pins: tuple[PicturePin, ...] = ()
    condition: Mapping[str, ConditionSeen] = field(default_factory=dict)
    fine: frozenset[str] = frozenset()
    symptoms: Mapping[str, str] = field(default_factory=dict)
    wanted: Mapping[str, str] = field(default_factory=dict)
    offered: Mapping[str, str] = field(default_factory=dict)


def notice(seen: Seen, body: Any) -> Seen:
    """Return what is seen after one more entry; other kinds of entry change nothing."""
    match body.kind:
        case "arrived":
            return replace(seen, arrived=body)
        case "look":
            return replace(seen, looks=_said(seen.looks, body.sign, body.answer))
        case "estimate":
            return replace(seen, estimate={**seen.estimate, body.field: body.value})
        case "speed-read":
            return replace(seen, speeds=body.rpm)
        case "voltage-tag":
            return replace(seen, voltage_tags=_said(seen.voltage_tags, body.place, body.words))
        case "plug":
            return replace(seen, plug=body if body.pins else None)
        case "diagram":
            return replace(seen, diagram=body if body.joints else None)
        case "picture":
            others = tuple(p for p in seen.pictures if p.sha256 != body.sha256)
            return replace(seen, pictures=(*others, body))
        case "pin":
            return replace(seen, pins=(*seen.pins, body))
        case "condition":
            found = {k: v for k, v in seen.condition.items() if k != body.item}
            found |= {body.item: body} if body.answer else {}
            return replace(seen, condition=found, fine=seen.fine - {body.item})
        case "rest-fine":
            return replace(seen, fine=seen.fine | (set(body.items) - set(seen.condition)))
        case "symptom":
            return replace(seen, symptoms=_said(seen.symptoms, body.symptom, body.answer))
        case "card" if body.side == "wanted":
            return replace(seen, wanted=_said(seen.wanted, body.field, body.text))
        case "card":
            return replace(seen, offered=_said(seen.offered, body.field, body.text))
    return seen


def _said(old: Mapping[str, str], key: str, text: str) -> dict[str, str]:
    """Return a map with one key said last; an empty text takes it out."""
    rest = {k: v for k, v in old.items() if k != key}
    return rest | {key: text} if text else rest
