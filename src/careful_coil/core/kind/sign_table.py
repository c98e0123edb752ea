"""The signs of the trade: never one of them decides.

The figures are a bench's experience in round numbers, not measurements.
"""

from careful_coil.core.kind.kinds import KINDS
from careful_coil.core.kind.signs import Sign, choice, of_kinds, printed_kind, yes_no

_SINGLE = ("split-phase", "capacitor-start", "permanent-capacitor", "capacitor-start-run")
_CAGE = (*_SINGLE, "shaded-pole", "three-phase")
_THREE = ("three-phase", "three-phase-magnet", "wound-rotor")
_BRUSHED = ("universal", "dc-magnet", "dc-wound")


SIGNS: dict[str, Sign] = {
    s.name: s
    for s in (
        yes_no(
            "brushes",
            "Brushes on a commutator?",
            "A commutator speaks for universal, direct-current and repulsion motors.",
            0.004,
            of_kinds(_BRUSHED, 0.98) | {"repulsion-start": 0.97},
        ),
        choice(
            "stator",
            "What stands round the rotor?",
            "Coils on laminated poles: universal or shaded pole; solid poles or magnets: direct current.",
            {
                "winding in slots": of_kinds((*_SINGLE, *_THREE, "synchronous"), 0.96)
                | {"repulsion-start": 0.9, "shaded-pole": 0.08},
                "coils on laminated poles": {
                    "shaded-pole": 0.9,
                    "universal": 0.97,
                    "dc-wound": 0.2,
                    "permanent-capacitor": 0.05,
                },
                "coils on solid poles": {"dc-wound": 0.78, "synchronous": 0.03},
                "magnets": {"dc-magnet": 0.98},
            },
            open_=True,
        ),
        yes_no(
            "brushes-shorted",
            "Are the brushes joined to each other and to nothing else?",
            "Brushes shorted together carry no line: repulsion start.",
            0.004,
            {"repulsion-start": 0.95},
        ),
        yes_no(
            "cage",
            "A plain rotor of iron with bars, no winding, no brushes?",
            "A squirrel cage is an induction motor: speed follows hertz and poles.",
            0.01,
            of_kinds(_CAGE, 0.98)
            | {"three-phase-magnet": 0.06, "synchronous": 0.25, "repulsion-start": 0.02},
            open_=True,
        ),
        choice(
            "speed-switch",
            "Weights or springs on the shaft, contacts in the end bell?",
            "A contact that opens at speed feeds a start winding; one that closes at speed is an interlock.",
            {
                "opens at speed": {
                    "split-phase": 0.88,
                    "capacitor-start": 0.9,
                    "capacitor-start-run": 0.7,
                    "permanent-capacitor": 0.01,
                    "repulsion-start": 0.2,
                },
                "closes at speed": of_kinds(tuple(KINDS), 0.02) | {"repulsion-start": 0.4},
                "none": of_kinds(tuple(KINDS), 0.97)
                | {
                    "split-phase": 0.1,
                    "capacitor-start": 0.08,
                    "capacitor-start-run": 0.28,
                    "repulsion-start": 0.4,
                },
            },
            rest=0.005,
        ),
        yes_no(
            "sealed",
            "Is it a sealed compressor (welded shell, pins)?",
            "It has common, run and start on its pins, its start device outside, and nothing that is opened.",
            0.001,
            {
                "split-phase": 0.1,
                "capacitor-start": 0.1,
                "permanent-capacitor": 0.06,
                "capacitor-start-run": 0.15,
                "three-phase": 0.02,
            },
        ),
        yes_no(
            "start-device",
            "A start relay, PTC or electronic switch?",
            "It takes a start winding out as a centrifugal switch does.",
            0.004,
            {
                "split-phase": 0.25,
                "capacitor-start": 0.3,
                "capacitor-start-run": 0.4,
                "permanent-capacitor": 0.03,
            },
        ),
        choice(
            "capacitors",
            "Capacitor cans, on it or hidden inside?",
            "One can without a switch: permanent; with one: start; two: start and run.",
            {
                "none": of_kinds(tuple(KINDS), 0.97)
                | {
                    "split-phase": 0.94,
                    "universal": 0.85,
                    "permanent-capacitor": 0.01,
                    "capacitor-start": 0.02,
                    "capacitor-start-run": 0.01,
                },
                "one": {
                    "permanent-capacitor": 0.95,
                    "capacitor-start": 0.94,
                    "capacitor-start-run": 0.05,
                    "universal": 0.14,
                    "split-phase": 0.04,
                },
                "two": {
                    "capacitor-start-run": 0.93,
                    "capacitor-start": 0.02,
                    "permanent-capacitor": 0.02,
                },
            },
            rest=0.005,
        ),
        yes_no(
            "capacitor-terminals",
            "Terminals marked for a capacitor?",
            "A capacitor belongs to it even where none is seen.",
            0.005,
            {"permanent-capacitor": 0.4, "capacitor-start": 0.3, "capacitor-start-run": 0.4},
        ),
        yes_no(
            "shading-rings",
            "A copper ring round part of each pole?",
            "Shading rings make the field creep: shaded pole.",
            0.002,
            {"shaded-pole": 0.99},
            open_=True,
        ),
        yes_no(
            "thick-and-thin",
            "A thick and a thin winding, half a pole apart?",
            "Main and start winding: single phase with a start circuit.",
            0.01,
            {
                "split-phase": 0.93,
                "capacitor-start": 0.92,
                "capacitor-start-run": 0.85,
                "permanent-capacitor": 0.5,
            },
            open_=True,
        ),
        yes_no(
            "equal-windings",
            "Two windings of the same wire, half a pole apart?",
            "Two equal windings with a capacitor: reversible, permanent capacitor.",
            0.01,
            {"permanent-capacitor": 0.3, "split-phase": 0.02, "capacitor-start-run": 0.03},
            open_=True,
        ),
        choice(
            "leads",
            "How many leads or terminals?",
            "The number alone proves nothing: six can be three phases, or main, start and capacitor.",
            {
                "2": {
                    "shaded-pole": 0.6,
                    "universal": 0.4,
                    "dc-magnet": 0.9,
                    "dc-wound": 0.15,
                    "split-phase": 0.12,
                    "capacitor-start": 0.15,
                    "repulsion-start": 0.3,
                },
                "3": {
                    "three-phase": 0.3,
                    "three-phase-magnet": 0.75,
                    "permanent-capacitor": 0.4,
                    "shaded-pole": 0.2,
                    "split-phase": 0.15,
                    "capacitor-start": 0.12,
                    "capacitor-start-run": 0.2,
                },
                "4": {
                    "split-phase": 0.35,
                    "capacitor-start": 0.33,
                    "permanent-capacitor": 0.25,
                    "capacitor-start-run": 0.3,
                    "universal": 0.35,
                    "dc-wound": 0.5,
                    "repulsion-start": 0.5,
                    "three-phase": 0.03,
                },
                "5": {
                    "permanent-capacitor": 0.15,
                    "universal": 0.15,
                    "capacitor-start": 0.1,
                    "shaded-pole": 0.1,
                    "dc-wound": 0.1,
                },
                "6": {
                    "three-phase": 0.38,
                    "split-phase": 0.25,
                    "capacitor-start": 0.28,
                    "permanent-capacitor": 0.15,
                    "capacitor-start-run": 0.4,
                    "wound-rotor": 0.35,
                    "three-phase-magnet": 0.15,
                    "dc-wound": 0.2,
                    "synchronous": 0.4,
                },
                "8": {"split-phase": 0.1, "capacitor-start": 0.1, "capacitor-start-run": 0.05},
                "9": {"three-phase": 0.22},
                "12": {"three-phase": 0.06},
                "another number": {"wound-rotor": 0.6, "synchronous": 0.55, "dc-wound": 0.05},
            },
            rest=0.005,
        ),
        yes_no(
            "three-equal",
            "Three equal readings, each to each?",
            "A star or a delta: three phases.",
            0.01,
            of_kinds(_THREE, 0.97) | {"synchronous": 0.85, "permanent-capacitor": 0.01},
        ),
        choice(
            "slip-rings",
            "Slip rings on the shaft?",
            "Three rings: wound rotor; two: synchronous.",
            {
                "none": of_kinds(tuple(KINDS), 0.99) | {"wound-rotor": 0.01, "synchronous": 0.45},
                "two": {"synchronous": 0.54},
                "three": {"wound-rotor": 0.98},
            },
            rest=0.002,
        ),
        yes_no(
            "cogs",
            "Turned by hand it cogs, and is harder with its leads joined?",
            "Magnets in it: the tests of an induction motor do not apply.",
            0.01,
            {"three-phase-magnet": 0.96, "dc-magnet": 0.9, "synchronous": 0.2},
        ),
        choice(
            "marks",
            "Which letters or numbers are printed?",
            "U and V (or Z) without W: single phase; U V W or T1 to T9: three phases.",
            {
                "U V W": of_kinds(_THREE, 0.5) | {"synchronous": 0.3},
                "U and Z, or U and V without W": of_kinds(_SINGLE, 0.3),
                "T1 to T9 or T12": {"three-phase": 0.25},
                "T5 or T8 without T6": {"split-phase": 0.25, "capacitor-start": 0.25},
                "A and F, S, D or E": {"dc-wound": 0.6, "universal": 0.2, "dc-magnet": 0.2},
                "none or gone": of_kinds(tuple(KINDS), 0.4)
                | {"shaded-pole": 0.9, "universal": 0.6},
            },
        ),
        choice(
            "plate-phases",
            "What does the plate say of the supply?",
            "The plate's own word.",
            {
                "1 phase": of_kinds((*_SINGLE, "shaded-pole", "repulsion-start"), 0.96)
                | {"universal": 0.55},
                "3 phases": of_kinds((*_THREE, "synchronous"), 0.95),
                "direct current": {"dc-magnet": 0.95, "dc-wound": 0.95, "universal": 0.03},
                "AC and DC": {"universal": 0.4},
            },
            rest=0.006,
        ),
        yes_no(
            "plate-capacitor",
            "Microfarads on the plate?",
            "A capacitor belongs to it.",
            0.004,
            {"permanent-capacitor": 0.7, "capacitor-start": 0.3, "capacitor-start-run": 0.65},
        ),
        yes_no(
            "faster-than-two-poles",
            "Rated faster than two poles at its hertz?",
            "No induction motor on the line can be: a commutator, or a drive.",
            0.002,
            {
                "universal": 0.9,
                "dc-magnet": 0.35,
                "dc-wound": 0.15,
                "three-phase-magnet": 0.3,
                "three-phase": 0.01,
            },
        ),
        yes_no(
            "no-slip",
            "Rated speed exactly synchronous?",
            "Without slip: synchronous, reluctance or magnets; or the plate means synchronous speed.",
            0.02,
            {"synchronous": 0.95, "three-phase-magnet": 0.7},
        ),
        yes_no(
            "tachometer",
            "A tachometer at the shaft's end?",
            "Its speed is controlled: universal, direct current or drive-fed.",
            0.01,
            {
                "universal": 0.25,
                "dc-magnet": 0.12,
                "dc-wound": 0.12,
                "three-phase": 0.06,
                "three-phase-magnet": 0.3,
            },
        ),
        yes_no(
            "varies-with-shaft",
            "Do the ohms of a pair vary as the shaft is turned?",
            "An armature under brushes.",
            0.004,
            of_kinds(_BRUSHED, 0.95),
        ),
        yes_no(
            "high-ohm-field",
            "A pair of some hundred ohms beside the armature?",
            "A shunt field.",
            0.01,
            {"dc-wound": 0.75, "universal": 0.03},
        ),
        choice(
            "size",
            "About what power?",
            "Shaded poles are small, two capacitors and three phases are not.",
            {
                "under 100 W": {
                    "shaded-pole": 0.92,
                    "permanent-capacitor": 0.35,
                    "universal": 0.15,
                    "dc-magnet": 0.4,
                    "split-phase": 0.05,
                    "capacitor-start": 0.02,
                    "three-phase": 0.03,
                    "synchronous": 0.4,
                },
                "100 W to 1 kW": {
                    "shaded-pole": 0.07,
                    "permanent-capacitor": 0.55,
                    "universal": 0.6,
                    "dc-magnet": 0.45,
                    "dc-wound": 0.3,
                    "split-phase": 0.88,
                    "capacitor-start": 0.7,
                    "capacitor-start-run": 0.15,
                    "repulsion-start": 0.5,
                    "three-phase": 0.35,
                    "three-phase-magnet": 0.5,
                    "synchronous": 0.3,
                },
                "above 1 kW": {
                    "permanent-capacitor": 0.1,
                    "universal": 0.25,
                    "dc-magnet": 0.15,
                    "dc-wound": 0.68,
                    "split-phase": 0.05,
                    "capacitor-start": 0.28,
                    "capacitor-start-run": 0.85,
                    "repulsion-start": 0.5,
                    "three-phase": 0.62,
                    "three-phase-magnet": 0.5,
                    "wound-rotor": 0.98,
                    "synchronous": 0.3,
                },
            },
        ),
        choice(
            "capacitor-duty",
            "What does its capacitor serve?",
            "A run capacitor alone: permanent split, without a start switch. A start capacitor: a switch or relay.",
            {
                "run": {"permanent-capacitor": 0.97, "capacitor-start-run": 0.1},
                "start": {"capacitor-start": 0.97, "capacitor-start-run": 0.1},
                "both": {"capacitor-start-run": 0.8},
                "none": dict.fromkeys(set(KINDS) - set(_SINGLE[1:]), 0.97),
            },
        ),
        yes_no(
            "starts-when-turned",
            "Hums, and starts when it is turned by hand?",
            "A start circuit that is open, or a lost phase.",
            0.02,
            of_kinds(_SINGLE, 0.35) | {"three-phase": 0.15},
        ),
        printed_kind(),
    )
}
