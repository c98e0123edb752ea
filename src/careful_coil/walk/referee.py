"""Held against the truth: wrong holds, faults nobody named, questions asked twice, orders against the law.

Knows the motor document, what was done to it, and the finished walk; not the rules.
"""

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

Fault = Mapping[str, Any]
Step = Mapping[str, Any]

# what findings may speak of a fault, by the first word of it; {of} its part
SPOKEN: Mapping[str, tuple[str, ...]] = {
    "coil": ("winding", "hookup", "lead", "motor"),
    "turns": ("winding",),
    "phase": ("winding",),
    "earth-fault": ("winding",),
    "damp": ("winding",),
    "flooded": ("winding", "bearing", "seals", "start-gear"),
    "wrong-hookup": ("hookup",),
    "joint": ("hookup",),
    "switch": ("device:{of}", "start-gear", "complaint"),
    "relay": ("device:{of}", "start-gear", "hookup"),
    "capacitor": ("capacitor:{of}", "start-gear", "complaint"),
    "start-capacitor-left-in": ("capacitor:{of}", "start-gear", "hookup"),
    "protector": ("device:{of}", "start-gear", "winding"),
    "temporary": ("temporary", "hookup"),
    "shaft": ("shaft", "bearing", "complaint"),
    "bearing": ("bearing:{of}", "bearing", "shaft"),
    "wrong-bearing": ("bearing:{of}", "bearing"),
    "fan": ("fan",),
    "lead": ("lead:{of}", "lead", "winding"),
    "earth-off": ("earth",),
    "wrong-supply": ("supply", "hookup"),
    "wrong-direction": ("direction",),
    "selector": ("device:{of}", "hookup", "start-gear"),
}
# what cures a fault: the state its part was brought to
CURED: Mapping[str, tuple[str, ...]] = {
    "renew": ("renewed", "fitted", "good"),
    "rejoin": ("joined",),
    "dry": ("dried",),
    "clean": ("cleaned", "dried"),
    "rewind": ("rewound",),
    "ease": ("free", "renewed"),
    "earth": ("earthed",),
    "remove": ("removed",),
}
# first question of a stage, by quantity and part: the law's order
STAGES: Sequence[tuple[int, tuple[str, ...], tuple[str, ...]]] = (
    (2, ("plate", "inventory"), ("plate", "leads")),
    (2, ("word",), ("ticket",)),
    (2, ("look",), ("hookup", "motor", "place", "class")),
    (3, ("kick", "series", "switch", "turn", "spin"), ("",)),
    (3, ("ohm",), ("winding", "lead")),
    (3, ("run",), ("winding",)),
    (4, ("insulation",), ("winding",)),
    (5, ("microfarad", "print", "look", "feel", "size", "inventory"), ("",)),
    (5, ("ohm",), ("device", "commutator")),
    (5, ("cause",), ("",)),
    (7, ("volt",), ("supply",)),
    (7, ("ohm", "amp", "run"), ("hookup", "lead")),
    (7, ("work",), ("hookup",)),
    (10, ("step", "start", "turning", "heard"), ("",)),
    (11, ("word",), ("release",)),
)
# where it stands: the isolator's line side first, then dead, what is there, ohms, insulation, the change, volts
VISIT: Sequence[tuple[int, tuple[str, ...], tuple[str, ...]]] = (
    (1, ("plate", "word", "look"), ("plate", "ticket", "place")),
    (2, ("volt",), ("supply",)),
    (3, ("volt",), ("bench",)),
    (4, ("inventory", "look"), ("leads", "hookup")),
    (5, ("ohm",), ("hookup",)),
    (6, ("insulation",), ("winding",)),
    (7, ("ohm", "kick", "series", "work"), ("winding", "lead", "hookup")),
    (8, ("bond",), ("earth",)),
    (9, ("amp",), ("run",)),
    (10, ("volt",), ("run",)),
    (11, ("word",), ("release",)),
)
BUMPED = ("direction", "shaft")
BROUGHT_IN = ("work", "place")  # from a visit to the bench: its order begins anew
COVERS_ON = ("work", "covers")
VOLTS = ("step", "start", "turning")
# after which answers a question may come again: hands and volts, by quantity
VOIDING = ("work", "step", "start", "run", "turning")
AGAIN = ("tick", "step", "start", "turning", "heard")  # asked anew on every sheet


def open_faults(document: Mapping[str, Any], truth: Mapping[str, Any], step: int) -> list[Fault]:
    """Return the faults that are still there at a step of the walk."""
    done = [c for c in truth.get("changes", ()) if c["step"] < step]
    return [f for f in document.get("faults", ()) if not any(_cures(f, c) for c in done)]


def _cures(fault: Fault, change: Mapping[str, Any]) -> bool:
    """Whether a change was the cure: on the fault's own part where it names one."""
    part, own = str(change["part"]), parts_of(fault)
    here = part == own[0] if ":" in own[0] else _speaks(part, own)
    if fault["cure"] == "rejoin":  # whatever was joined wrong, new joints put it right
        here = part == "hookup" and bool(change.get("sound", True))
    return here and change["state"] in CURED.get(str(fault["cure"]), ())


def parts_of(fault: Fault) -> tuple[str, ...]:
    """Return the parts a fault may be spoken of under."""
    what, of = str(fault["what"]), str(fault.get("of", ""))
    key = what if what in SPOKEN else what.partition("-")[0]
    return tuple(p.format(of=of) for p in SPOKEN.get(key, ("motor",)))


def _speaks(part: str, parts: Sequence[str]) -> bool:
    part = "lead" if part == "leads" else part  # asked for all of them at once
    return any(
        part == p or part.partition(":")[0] == p or p.partition(":")[0] == part for p in parts
    )


def justified(part: str, faults: Sequence[Fault], document: Mapping[str, Any]) -> bool:
    """Whether a finding on a part has a fault, or an unmet wish, behind it."""
    if part in ("run", "motor", "site") and faults:
        return True
    if part == "direction" and document.get("wanted", {}).get("direction"):
        return True
    return any(_speaks(part, parts_of(f)) for f in faults)


def false_ones(
    document: Mapping[str, Any], truth: Mapping[str, Any], spans: Sequence[Mapping[str, Any]]
) -> list[str]:
    """Return the codes of holds whose part had nothing wrong when they first appeared."""
    return [
        f"{s['code']} ({s['part']})"
        for s in spans
        if not justified(s["part"], open_faults(document, truth, s["first"]), document)
        and not (s["part"] == "hookup" and _misjoined(truth, s["first"]))
    ]


def _misjoined(truth: Mapping[str, Any], step: int) -> bool:
    """Whether it still stands as it came, for other volts than it gets."""
    joined = (c["part"] == "hookup" for c in truth.get("changes", ()) if c["step"] < step)
    return bool(truth.get("misjoined")) and not any(joined)


def false_watches(
    document: Mapping[str, Any],
    truth: Mapping[str, Any],
    spans: Sequence[Mapping[str, Any]],
    end: int,
) -> list[str]:
    """Return the codes of watches that are there at the end with nothing behind them."""
    left = open_faults(document, truth, end)
    return [
        f"{s['code']} ({s['part']})"
        for s in spans
        if s["last"] >= end - 1 and not justified(s["part"], left, document)
    ]


def unnamed(
    document: Mapping[str, Any],
    truth: Mapping[str, Any],
    spans: Sequence[Mapping[str, Any]],
    steps: Sequence[Step],
) -> list[str]:
    """Return the words that had to be in a hold or a watch, after an answer about that part and before
    its cure, and never were."""

    def counts(word: str, span: Mapping[str, Any]) -> bool:
        if word.lower() not in str(span["subject"]).lower():
            return False
        asked = (a for s in steps[: span["first"]] if not s["skip"] for a in s["asks"][:1])
        left = open_faults(document, truth, span["first"])
        return justified(span["part"], left, document) and any(
            _speaks(str(a["part"]), (span["part"],)) for a in asked
        )

    return [w for w in document.get("must_name", ()) if not any(counts(w, span) for span in spans)]


def _key(step: Step) -> tuple[Any, ...]:
    ask = step["asks"][0]
    held = tuple(ask["sense"]) + tuple(ask["choices"] if ask["quantity"] == "tick" else ())
    return ask["quantity"], ask["part"], tuple(ask["ends"]), held, ask["state"]


def asked_twice(steps: Sequence[Step]) -> list[str]:
    """Return what was answered twice with nothing between that voids it."""
    seen: dict[tuple[Any, ...], int] = {}
    found: list[str] = []
    voided = 0
    for number, step in enumerate(steps):
        if not step["asks"] or step["skip"]:
            continue
        quantity = step["asks"][0]["quantity"]
        key = _key(step)
        if key in seen and seen[key] >= voided and quantity not in AGAIN:
            found.append(f"{step['code']} at {number + 1}")
        seen[key] = number
        if quantity in VOIDING:
            voided = number
    return found


def out_of_order(steps: Sequence[Step]) -> list[str]:
    """Return what was asked for the first time after something that comes later by the law."""
    return [*_late(steps), *_covers(steps), *_volts(steps)]


def visited(steps: Sequence[Step]) -> bool:
    """Whether it was said that the work is done where the motor stands."""
    told = (
        (s["answer"], s["asks"][0]["choices"])
        for s in steps
        if s["asks"] and s["asks"][0]["part"] == "place" and not s["skip"]
    )
    return any("site" in (answer, *_numbered(answer, choices)) for answer, choices in told)


def _numbered(answer: str, choices: Sequence[str]) -> Sequence[str]:
    """Return the choice whose number an answer is."""
    return choices[int(answer) - 1 : int(answer)] if answer.isdecimal() else ()


def stage_of(
    ask: Mapping[str, Any], stages: Sequence[tuple[int, tuple[str, ...], tuple[str, ...]]] = STAGES
) -> int:
    """Return the law's stage of a question by its quantity and part, 0 where it belongs to none."""
    if ask["state"] == "parted":
        return 0  # taken apart before it is read, or changed: each in its place
    for stage, quantities, parts in stages:
        part = str(ask["part"]).partition(":")[0]
        if ask["quantity"] in quantities and (parts == ("",) or part in parts):
            return stage
    return 0


def _late(steps: Sequence[Step]) -> Iterator[str]:
    """Yield the first question of each stage that comes after one of a later stage was answered."""
    highest, named, bumped = 0, set[int](), False
    stages = VISIT if visited(steps) else STAGES
    for number, step in enumerate(steps):
        for ask in step["asks"][:1]:
            if (ask["quantity"], ask["part"]) == BROUGHT_IN and not step["skip"]:
                highest, named, stages = 0, {4}, STAGES  # its insulation was tested on the visit
                continue
            stage = stage_of(ask, stages)
            if bumped and 0 < stage < highest:  # the wrong way round it goes back to the box, once
                highest, bumped = stage, False
            bumped = bumped and stage <= highest  # what needs volts went on: it turned as wanted
            turned = stages is VISIT and (ask["quantity"], ask["part"]) == BUMPED
            bumped = bumped or (turned and not step["skip"])
            if 0 < stage < highest and stage not in named:
                yield f"{step['code']} at {number + 1}, stage {stage} after {highest}"
            named.add(stage)
            if not step["skip"]:
                highest = max(highest, stage)


def _covers(steps: Sequence[Step]) -> Iterator[str]:
    """Yield what leads, joints, start circuit or bearings were asked once the covers were on."""
    on = 0
    for number, step in enumerate(steps):
        for ask in step["asks"][:1]:
            if (ask["quantity"], ask["part"]) == COVERS_ON and not step["skip"]:
                on = number + 1 if ask["state"] == "closed" else 0
            elif on and stage_of(ask) in (3, 5) and not step["skip"] and "frame" not in ask["ends"]:
                yield f"covers at {on} before {step['code']} at {number + 1}"
                return


def _volts(steps: Sequence[Step]) -> Iterator[str]:
    """Yield a run before supply, joints or the shaft's feel were settled; nobody feels the shaft on site."""
    seen: set[tuple[str, str]] = {("feel", "shaft")} if visited(steps) else set()
    for number, step in enumerate(steps):
        for ask in step["asks"][:1]:
            if ask["quantity"] in VOLTS and not step["skip"]:
                for wanted in (("insulation", "winding"), ("volt", "supply"), ("feel", "shaft")):
                    if wanted not in seen:
                        yield f"volts at {number + 1} before {' of the '.join(wanted)}"
                return
            if not step["skip"]:
                seen.add((ask["quantity"], ask["part"]))
                if list(ask["ends"]) == ["sealed"] and step["answer"][:1] in ("y", "1"):
                    seen.add(("feel", "shaft"))  # nobody reaches it
