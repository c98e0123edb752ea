"""What Intake has seen of a motor, folded from its entries."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from careful_coil.core.job.at_intake import (
    Arrived,
    PictureAdded,
    PicturePin,
    PlugSeen,
    PrintedDiagram,
)
from careful_coil.core.job.noted import Noted
from careful_coil.core.job.notes import Notes


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
    condition: Mapping[str, Noted] = field(default_factory=dict)
    fine: frozenset[str] = frozenset()
    symptoms: Mapping[str, str] = field(default_factory=dict)
    wanted: Mapping[str, str] = field(default_factory=dict)
    offered: Mapping[str, str] = field(default_factory=dict)

    @property
    def sealed(self) -> bool:
        """Whether it is a sealed compressor: it has no covers, no shaft, no bearings to be reached."""
        return self.looks.get("sealed") == "yes"

    @property
    def no_gear(self) -> bool:
        """Whether somebody looked for capacitors and a start mechanism and found none."""
        return self.looks.get("capacitors") == self.looks.get("speed-switch") == "none"


def notice(seen: Seen, body: Any) -> Seen:
    """Return what is seen after one more entry; other kinds of entry change nothing."""
    match body.topic:
        case "arrived":
            return replace(seen, arrived=body)
        case "speed-read":
            return replace(seen, speeds=body.rpm)
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
            found = {k: v for k, v in seen.condition.items() if k != body.field}
            found |= {body.field: body} if body.text else {}
            return replace(seen, condition=found, fine=seen.fine - {body.field})
        case "rest-fine":
            return replace(seen, fine=seen.fine | (set(body.items) - set(seen.condition)))
    return seen


PAYER = "payer"  # of an estimate: no figure


def seen_notes(seen: Seen, notes: Notes) -> Seen:
    """Return what is seen with what was noted in fields."""
    flags = {"yes": 1.0, "no": 0.0}
    return replace(
        seen,
        looks=notes.of("look"),
        estimate={
            f: flags[t] if t in flags else float(t)
            for f, t in notes.of("estimate").items()
            if f != PAYER
        },
        voltage_tags=notes.of("voltage-tag"),
        symptoms=notes.of("symptom"),
        wanted=notes.of("card", "wanted"),
        offered=notes.of("card", "offered"),
    )
