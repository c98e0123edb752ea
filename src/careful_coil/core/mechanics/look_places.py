"""Where on the motor each look of Intake's list lies: the same places as in its drawing in section."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

from careful_coil.core.condition.burn import BURN
from careful_coil.core.condition.checklist import MADE_GOOD, Item, items_for
from careful_coil.core.job import Job, Verdict
from careful_coil.core.kind import Weighed
from careful_coil.core.mechanics.places import WORST, Place, Shell, shell_of

NOT_LOOKED = "not looked at"
FINE = "fine"
AT: Mapping[str, str] = {
    "by-hand": "shaft",
    "end-play": "shaft",
    "drive-end bearing": "drive",
    "other bearing": "other",
    "fan": "fan",
    "seals": "seals",
    "windings": "windings",
    BURN: "windings",
    "iron": "iron",
    "leads": "leads",
    "terminals": "leads",
    "earth": "earth",
    "contacts": "switch",
    "weights": "switch",
    "capacitor": "capacitor",
    "bleed resistor": "capacitor",
    "brushes": "brushes",
    "rings": "brushes",
    "commutator": "commutator",
    "smell": "whole",
    "opening": "whole",
    "old stock": "whole",
}
TITLES: Mapping[str, str] = {
    "shaft": "Shaft, end play",
    "drive": "Drive end",
    "other": "Other end",
    "fan": "Fan, air ways",
    "seals": "Seals",
    "windings": "Windings",
    "iron": "Iron",
    "leads": "Leads, joints",
    "earth": "Earth",
    "switch": "Switch",
    "capacitor": "Capacitor",
    "brushes": "Brushes",
    "commutator": "Commutator",
    "whole": "Smell, how closed",
}


def looked_at(job: Job, kinds: Weighed) -> tuple[Place, ...]:
    """Return the places of this motor that Intake looks at, each as it was found."""
    said = said_of(job)
    items = items_for(kinds)
    names = dict.fromkeys(AT[i.name] for i in items)
    return tuple(_place(n, [i for i in items if AT[i.name] == n], said) for n in names)


def shell_looked_at(job: Job, kinds: Weighed) -> Shell:
    """Return what this motor may have: of a kind that is not settled more is drawn than it will turn out to be."""
    names = {AT[i.name] for i in items_for(kinds)}
    shell = shell_of(job, kinds)
    return replace(
        shell,
        switch="switch" in names,
        capacitor="capacitor" in names,
        brushes="brushes" in names,
        commutator="commutator" in names,
        rings=shell.rings and "commutator" not in names,
    )


def said_of(job: Job) -> dict[str, str]:
    """Return what was said of each look: fine, what is wrong, made good."""
    seen = job.seen
    return dict.fromkeys(seen.fine, FINE) | {n: b.text for n, b in seen.condition.items()}


def _place(name: str, items: Sequence[Item], said: Mapping[str, str]) -> Place:
    told = {i.name: said[i.name] for i in items if said.get(i.name)}
    wrong = [t for t in told.values() if t not in (FINE, MADE_GOOD)]
    words = ", ".join(wrong) or (FINE if len(told) == len(items) else NOT_LOOKED)
    marks = list(_marks(items, told))
    left = len(told) < len(items)
    mark: Verdict = min(marks, key=WORST.index) if marks else "unproven" if left else "good"
    return Place(
        name=name,
        title=TITLES[name],
        words=words,
        mark=mark,
        renewed=MADE_GOOD in told.values() and not wrong,
        station="intake",
        part="condition",
    )


def _marks(items: Sequence[Item], told: Mapping[str, str]) -> Iterator[Verdict]:
    for item in items:
        text = told.get(item.name, "")
        if text in item.wrong:
            yield item.wrong[text].weight
        elif text and text not in (FINE, MADE_GOOD):
            yield "watch"  # in the bench's own words
