"""Look, smell, feel: what may be wrong with a motor as it comes in, by kind, and what it means.

The items are a bench's experience. An answer is what is wrong; nothing is said of what is right but
by one word for all the rest.
"""

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field
from typing import Literal

from careful_coil.core.kind import Weighed

MADE_GOOD = "made good"
LEAST_ODDS = 0.1  # kinds less likely than this together do not bring their items

_SWITCHED = ("split-phase", "capacitor-start", "capacitor-start-run", "repulsion-start")
CANS = ("capacitor-start", "permanent-capacitor", "capacitor-start-run")
_BRUSHES = ("universal", "dc-magnet", "dc-wound", "repulsion-start")
_RINGS = ("wound-rotor", "synchronous")

Weight = Literal["note", "watch", "hold"]


@dataclass(frozen=True, slots=True)
class Wrong:
    """What an answer means: its weight, why, and what to do."""

    weight: Weight
    why: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Item:
    """A look: its name in a word, the question, what may be wrong; `kinds` empty for every kind.

    `work` words of logged work that make it good by themselves; `school` a setting that decides its
    weight.
    """

    name: str
    question: str
    wrong: Mapping[str, Wrong]
    kinds: tuple[str, ...] = ()
    work: tuple[str, ...] = field(default=())
    school: str = ""


def _item(
    name: str,
    question: str,
    *wrong: tuple[str, Weight, str],
    kinds: tuple[str, ...] = (),
    work: tuple[str, ...] = (),
    school: str = "",
) -> Item:
    answers = {a: Wrong(w, why) for a, w, why in wrong}
    return Item(name=name, question=question, wrong=answers, kinds=kinds, work=work, school=school)


STIFF = (
    "A stiff bearing makes electrical faults: slow run-up, switch chattering, high current, trips."
)

ITEMS: dict[str, Item] = {
    i.name: i
    for i in (
        _item(
            "by-hand",
            "Shaft by hand, load off",
            ("rough", "watch", f"Worn bearing. {STIFF}"),
            ("stiff", "watch", STIFF),
            ("rubs", "watch", "Rotor on stator: worn bearing or bent shaft. Look for bright iron."),
            (
                "seized",
                "hold",
                "No volts on it before it turns: it would stand at locked-rotor amps.",
            ),
        ),
        _item(
            "end-play",
            "End play",
            ("much", "watch", "The switch may not close or open; thrust washers missing?"),
            ("none", "watch", "Bound between its bearings when warm: ease one end bell."),
        ),
        _item(
            "windings",
            "Windings, looked at",
            ("dirty", "note", "Dirt is not burning: clean, dry, test."),
            ("wet", "watch", "Dry it before any insulation test counts."),
            ("brown", "watch", "Aged by heat: find why before it goes back."),
            (
                "burnt",
                "hold",
                "It needs rewinding: take its data first, weigh it against a new one.",
            ),
            work=("rewound",),
        ),
        _item(
            "smell",
            "Smell",
            ("burnt", "watch", "Insulation has burnt somewhere: look for the place."),
            ("hot varnish", "note", "It was overheated: load, cooling, volts."),
        ),
        _item(
            "iron",
            "Iron of stator and rotor",
            ("rubbed", "watch", "The rotor touched: bearings first."),
            ("blued", "watch", "It was very hot: core loss may be up."),
        ),
        _item(
            "leads",
            "Lead insulation",
            (
                "cloth",
                "note",
                "Bend one once: if it cracks, sleeve all before the insulation test.",
            ),
            ("stiff", "watch", "Heat has hardened it: it cracks at the next bend."),
            ("cracked", "hold", "Sleeve or renew the leads before anything is put on them."),
            ("frayed", "hold", "Re-sleeve or renew the leads before anything is put on them."),
            ("bare", "hold", "Renew the leads before anything is put on them."),
            work=("leads renewed",),
        ),
        _item(
            "terminals",
            "Terminals and joints",
            ("loose", "watch", "A loose joint heats and drops a phase. Renew it."),
            ("arc marks", "watch", "It arced: renew the terminal, look for what was loose."),
        ),
        _item(
            "earth",
            "Earth lead or stud",
            ("missing", "hold", "It may not go without an earth."),
            ("loose", "watch", "Clean to bare metal, tighten, measure the bond."),
        ),
        _item(
            "fan",
            "Fan, guard, air ways",
            ("broken", "watch", "No cooling: the ends of the winding burn first."),
            ("missing", "hold", "A guard or fan is missing: not fit to run."),
            ("blocked", "watch", "Clear them: it ran hot."),
        ),
        _item(
            "drive-end bearing",
            "Bearing, drive end",
            ("rough", "watch", f"Renew it. {STIFF}"),
            ("dry", "watch", f"Dry or wick gone: it comes back with a new capacitor. {STIFF}"),
            ("loose in its seat", "watch", "The outer ring turns: the seat is worn."),
            ("seal torn", "watch", "Dirt gets in: renew it."),
        ),
        _item(
            "other bearing",
            "Bearing, other end",
            ("rough", "watch", f"Renew it. {STIFF}"),
            ("dry", "watch", f"Dry or wick gone. {STIFF}"),
            ("loose in its seat", "watch", "The outer ring turns: the seat is worn."),
            ("seal torn", "watch", "Dirt gets in: renew it."),
        ),
        _item(
            "seals",
            "Seals, where it works wet",
            ("leaking", "watch", "Water gets in: renew the seal, dry, test over days."),
            ("missing", "watch", "Renew before it goes back to a wet place."),
        ),
        _item(
            "opening",
            "How it is closed",
            ("riveted", "note", "Drill and screw, or replace: weigh it first."),
            ("welded", "note", "It cannot be opened without cutting: weigh it first."),
        ),
        _item(
            "contacts",
            "Switch contacts",
            (
                "pitted",
                "watch",
                "Dress or renew, as this shop does; high ohms keep the start winding weak.",
            ),
            ("burnt", "watch", "Renew the switch; ask why: chatter, slow run-up, stiff bearing."),
            ("meet only at the edge", "watch", "Bent or worn: set it so that the faces meet."),
            ("welded", "hold", "The start winding stays in and burns in seconds."),
            kinds=_SWITCHED,
        ),
        _item(
            "weights",
            "Switch weights, springs",
            ("stuck", "watch", "It opens late or not at all: clean, one drop of oil, no more."),
            ("weak spring", "watch", "It opens too early: weak run-up, chatter."),
            ("spring broken", "hold", "The start circuit does not close, or not open."),
            kinds=_SWITCHED,
        ),
        _item(
            "capacitor",
            "Capacitor, looked at",
            ("bulged", "hold", "Renew it; discharge it first, whatever is fitted."),
            ("vented", "hold", "Renew it; discharge it first, whatever is fitted."),
            ("leaking", "hold", "Gloves: an old can's oil may hold PCB, its own waste. Renew it."),
            ("cracked", "watch", "Renew it."),
            kinds=CANS,
        ),
        _item(
            "bleed resistor",
            "Bleed resistor",
            (
                "missing",
                "watch",
                "Switch contacts weld when it restarts on a charged capacitor. Fit one; "
                "discharge by hand all the same.",
            ),
            ("broken", "watch", "Renew it; discharge by hand all the same."),
            kinds=("capacitor-start", "capacitor-start-run"),
            school="bleed",
        ),
        _item(
            "brushes",
            "Brushes",
            ("short", "watch", "Renew both; bed them in at low volts."),
            ("stuck", "watch", "Clean the holders until they fall freely."),
            ("chipped", "watch", "Renew both; feel the commutator for a high bar."),
            ("weak spring", "watch", "It sparks and wears the bars: renew the spring."),
            kinds=(*_BRUSHES, *_RINGS),
        ),
        _item(
            "commutator",
            "Commutator",
            ("burnt bars", "watch", "Bars at equal spacing: open coil. Read bar to bar."),
            ("grooved", "watch", "Turn it true, undercut the mica."),
            ("high mica", "watch", "Undercut it, break the edges."),
            ("high bar", "watch", "It throws the brushes: turn it true."),
            kinds=_BRUSHES,
        ),
        _item(
            "rings",
            "Slip rings",
            ("grooved", "watch", "Turn them true."),
            ("burnt", "watch", "Spring, grade or contact: find why before they are turned."),
            kinds=_RINGS,
        ),
        _item(
            "old stock",
            "Old stock",
            ("woven sleeving", "watch", "May be asbestos: no scraping, no blowing out."),
            ("oil-filled can", "watch", "May hold PCB: gloves, its own waste."),
        ),
    )
}


def items_for(kinds: Weighed) -> tuple[Item, ...]:
    """Return the items that a motor of these odds can have, in the order the hands work."""
    return tuple(i for i in ITEMS.values() if not i.kinds or kinds.chance(i.kinds) >= LEAST_ODDS)


def may_have_capacitor(kinds: Weighed, noted: Collection[str], printed: str) -> bool:
    """Return whether a motor may have a capacitor: by its kind, one that was noted, or its plate."""
    return bool(noted) or bool(printed) or kinds.chance(CANS) >= LEAST_ODDS
