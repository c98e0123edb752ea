"""Work on start gear as lists of steps: retrofit of a switch, a relay renewed, contacts dressed.

Each step is ticked; what was begun holds the motor until the last is done, the runs before and after
the covers included. A step that puts volts on is told apart.
"""

from collections.abc import Iterable
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Step:
    """A step: its key, what to do, why; `powered` where volts are put on."""

    name: str
    words: str
    why: str
    powered: bool = False


_DEAD = Step(
    "dead",
    "Isolated, locked out, proved dead; every capacitor discharged and proved.",
    "The meter is shown on a live source before and after.",
)
_DRAWN = Step(
    "drawn",
    "Old part's leads marked and drawn: line, main, start, capacitor.",
    "Numbers differ by maker; what each end feeds does not.",
)
_COVERED = Step(
    "covered",
    "Covers on: one start again, timed.",
    "A cover can press a lead against rotor, fan or shaft.",
    powered=True,
)
_NOTED = Step(
    "noted",
    "Part fitted, its make and figures noted on the sheet and inside the cover.",
    "The next one who opens it must know what stands there.",
)

WORK: dict[str, tuple[str, tuple[Step, ...]]] = {
    "retrofit": (
        "Electronic retrofit",
        (
            Step(
                "kit",
                "Kit against its own list: module, jumpers, terminals, crimps, its sheet.",
                "A missing jumper is found now, not with the motor in pieces.",
            ),
            Step(
                "rated",
                "Volts, amps and µF wanted here compared with what the module may bear.",
                "They are given above this list; the maker's figures decide.",
            ),
            _DEAD,
            Step(
                "tested",
                "Insulation tested before the module is joined; not with it in circuit.",
                "The tester's volts go through its semiconductors.",
            ),
            _DRAWN,
            Step(
                "off",
                "Mechanical switch's leads off, both ends, each insulated or taken out.",
                "Left in, two switches are in series or in parallel: one of them decides.",
            ),
            Step(
                "mechanism",
                "Weights and collar taken off, or turning free and touching nothing.",
                "They would rub, or go on working contacts nobody watches.",
            ),
            Step(
                "in-series",
                "Switching terminals where the contact was: in series with start capacitor and winding.",
                "Joints by crimp or as the kit says, each tugged.",
            ),
            Step(
                "sensing",
                "Sensing leads across the start winding itself, behind the capacitor.",
                "Elsewhere they do not see its volts rise, and it never cuts out.",
            ),
            Step(
                "held",
                "Module held clear of rotor, fan and heat; leads sleeved and tied.",
                "It dies of heat and of rubbing sooner than of current.",
            ),
            Step(
                "run-open",
                "Test run before the covers, guarded: out within seconds, three starts with pauses.",
                "The start winding's amps fall to nothing (to the run capacitor's where there is one).",
                powered=True,
            ),
            _COVERED,
            _NOTED,
        ),
    ),
    "relay": (
        "Voltage relay renewed",
        (
            Step(
                "volts",
                "Start winding's volts noted, at standstill and at speed.",
                "Pick-up, drop-out and coil are chosen by them, not by the line's volts.",
            ),
            Step(
                "rated",
                "New relay's pick-up, drop-out and coil volts compared with what is wanted here.",
                "They are given above this list; the motor maker's choice wins.",
            ),
            _DEAD,
            _DRAWN,
            Step(
                "coil",
                "New relay read on the bench: contact closed, coil's ohms between which two ends.",
                "Numbers differ by maker: go by what it reads.",
            ),
            Step(
                "joined",
                "Contact in series with the start capacitor; coil across the start winding, its other end "
                "on the motor's side of the overload.",
                "Ahead of the overload the coil stays live when the motor is stopped by it.",
            ),
            Step(
                "bleed",
                "Bleed resistor across the start capacitor, both ends fast.",
                "A charged capacitor through a closing contact welds it.",
            ),
            Step(
                "upright",
                "Mounted the way up it is marked, firm, away from shaking.",
                "Its pick-up changes with its position.",
            ),
            Step(
                "run-open",
                "Test run before the covers: it picks up once, stays, and falls back when switched off.",
                "Three starts with pauses; chatter means drop-out above the lowest running volts.",
                powered=True,
            ),
            _COVERED,
            _NOTED,
        ),
    ),
    "amp-relay": (
        "Current relay renewed",
        (
            Step(
                "amps",
                "Main winding's amps noted, clamped alone: at standstill and in a loaded run.",
                "Pull-in and drop-out are chosen by them, not by the plate's amps.",
            ),
            Step(
                "rated",
                "New relay's pull-in and drop-out compared with what is wanted here.",
                "They are given above this list; the motor maker's choice wins.",
            ),
            _DEAD,
            _DRAWN,
            Step(
                "coil",
                "New relay read the way up it will hang: coil under 1 Ω, contact open; turned over it closes.",
                "Numbers differ by maker (L, M, S; or 1, M and the capacitor's 2, 3): go by what it reads.",
            ),
            Step(
                "joined",
                "Coil between line and main winding; contact to the start capacitor or, where there is none, to "
                "the start winding. A link between the capacitor's terminals comes out where a capacitor goes in.",
                "With the link left in, the capacitor is shorted and the start winding cooks.",
            ),
            Step(
                "upright",
                "Mounted the way up it is marked, firm, away from shaking.",
                "On its side its weight keeps the start winding in, or never puts it in.",
            ),
            Step(
                "run-open",
                "Test run before the covers: it pulls in at once, cuts out within seconds, stays out under load.",
                "Three starts with pauses; in again under load means pull-in below the running amps.",
                powered=True,
            ),
            _COVERED,
            _NOTED,
        ),
    ),
    "exchange": (
        "Hot-wire relay exchanged",
        (
            Step(
                "kind",
                "What takes its place chosen: a start thermistor or an electronic switch, and an overload besides.",
                "The hot-wire relay is obsolete and was the overload too: without one the motor burns.",
            ),
            Step(
                "overload",
                "Overload by the plate's amps, sensing frame or line; its own readings taken.",
                "A thermistor and an electronic switch protect nothing.",
            ),
            _DEAD,
            _DRAWN,
            Step(
                "off",
                "Hot-wire relay out, all three leads off.",
                "Its heater left in the line opens it with its own contact.",
            ),
            Step(
                "joined",
                "Overload in the line before both windings; new part between line and start winding or capacitor.",
                "Joints by crimp, each tugged.",
            ),
            Step(
                "run-open",
                "Test run before the covers: start winding out within seconds; a thermistor cools minutes.",
                "A start while it is hot only hums: the overload must trip before the winding smells.",
                powered=True,
            ),
            _COVERED,
            _NOTED,
        ),
    ),
    "kit": (
        "Start kit added",
        (
            Step(
                "rated",
                "Kit's horsepower and volts compared with the plate.",
                "Its capacitor is cut to a range of motors: too small it does not start, too large it jerks.",
            ),
            Step(
                "reason",
                "Why it does not start by itself found first: run capacitor, volts under start, bearings, load.",
                "A kit hides a weak capacitor or a stiff bearing until the winding burns.",
            ),
            _DEAD,
            _DRAWN,
            Step(
                "across",
                "Its two leads across the run capacitor, nothing else moved.",
                "Elsewhere it gets the wrong volts and never cuts out.",
            ),
            Step(
                "run-open",
                "Test run: the kit cuts out within a second; amps as before it was added.",
                "Left in, its capacitor bursts.",
                powered=True,
            ),
            _COVERED,
            _NOTED,
        ),
    ),
    "crimp": (
        "Crimp made again",
        (
            _DEAD,
            Step(
                "marks",
                "Every lead in it named and drawn, its marks read twice, before the cut.",
                "Cut, the order is gone: two leads of like colour stand side by side.",
            ),
            Step(
                "cut",
                "Cut close to the old crimp; all strands bright and whole; the length left noted.",
                "Black or brittle copper does not take a crimp: cut back, or renew the lead.",
            ),
            Step(
                "crimped",
                "New crimp of the wires' range, set with its own die, sleeved.",
                "Inside the motor tape and wire connectors work loose with heat and shaking.",
            ),
            Step(
                "pulled",
                "Each lead in it pulled by itself: none moves.",
                "A loose crimp reads right cold and opens hot.",
            ),
            Step(
                "tied",
                "Tied clear of rotor, fan, shaft and the switch's travel.",
                "Slack wire in an end shield is taken in by what turns.",
            ),
            Step(
                "run-open",
                "Run before the covers, guarded: starts as before, amps alike, the new crimp stays cold.",
                "A lead in the wrong crimp shows in amps and direction, not always in ohms.",
                powered=True,
            ),
            _COVERED,
        ),
    ),
    "dress": (
        "Contacts dressed",
        (
            _DEAD,
            Step(
                "looked",
                "Contacts looked at: even, edge, burnt, welded; plate not tracked or cracked.",
                "Welded contacts and a cracked plate are renewed, not dressed.",
            ),
            Step(
                "filed",
                "Dressed with a fine file, flat on flat, dust blown off.",
                "No emery: its grit is left in the metal.",
            ),
            Step(
                "weights",
                "Weights, springs and collar move freely and alike; a drop of oil at the pivots only.",
                "Oil on the contacts burns.",
            ),
            Step(
                "reach",
                "End float: the collar reaches the plate at both ends of the shaft's travel.",
                "A worn bearing or washer lets contacts meet only sometimes.",
            ),
            Step(
                "read",
                "Contact read again at rest and with the mechanism worked by hand.",
                "The reading before and after both stay on the sheet.",
            ),
            Step(
                "run-open",
                "Timed start before the covers: out with a snap, no chatter.",
                "It opens by speed; seconds tell the same only with this load.",
                powered=True,
            ),
            _COVERED,
        ),
    ),
}


def work_kind(work: str) -> str:
    """Return which kind of work a name such as `retrofit S1` is, empty for one that is none."""
    kind = work.partition(" ")[0]
    return kind if kind in WORK else ""


def steps_of(work: str) -> tuple[Step, ...]:
    """Return the steps of a piece of work; none for one that is not known."""
    kind = work_kind(work)
    return WORK[kind][1] if kind else ()


def left_of(work: str, done: Iterable[str]) -> tuple[Step, ...]:
    """Return the steps still to do, in order."""
    made = set(done)
    return tuple(s for s in steps_of(work) if s.name not in made)
