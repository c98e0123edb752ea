"""Start gear and switches as they usually come, each with a winding it is fitted to.

Figures stand for this motor's own: the maker's µF, ohms and positions win.
"""

from careful_coil.core.ways.devices import POLES, POSTS, SENSING, Device

FOUR, CRS, TAPS = "single-phase-4-lead", "single-phase-3-lead", "single-phase-speed-taps"
DUAL6, DUAL8 = "single-phase-dual-voltage-6-lead", "single-phase-dual-voltage-8-lead"
SIX, NINE, TWELVE = "three-phase-6-lead", "three-phase-9-lead-wye", "three-phase-12-lead"
STARS = "three-phase-part-winding-6-lead"
POLES_CHANGED = "three-phase-two-speed-6-lead"

SWITCH = Device(name="S1", kind="speed-switch")
START = Device(name="C1", kind="capacitor-start", microfarad=160)
RUN = Device(name="C2", kind="capacitor-run", microfarad=30)
DUAL_CAN = Device(name="C3", kind="capacitor-dual", microfarad=30, second=5)
BLEED = Device(name="R2", kind="resistor", ohm=15_000)
VOLTAGE = Device(name="K1", kind="relay-voltage")
CURRENT = Device(name="K1", kind="relay-current")
POSTED = Device(name="K1", kind="relay-current", ends=POSTS)
HOT_WIRE = Device(name="K1", kind="hot-wire")
PTC = Device(name="R1", kind="ptc")
ELECTRONIC = Device(name="E1", kind="electronic-switch")
SENSING_SWITCH = Device(name="E1", kind="electronic-switch", ends=SENSING)
TWO = Device(name="P", kind="protector")
THREE = Device(name="P", kind="protector", ends=("3",))
LINE_SWITCH = Device(name="Q1", kind="selector", table={"0": (), "1": (("1", "2"), ("3", "4"))})
SELECTOR = Device(
    name="Q1",
    kind="selector",
    table={"0": (), "3": (("L", "H"),), "2": (("L", "M"),), "1": (("L", "S"),)},
)
TWO_POLE_SELECTOR = Device(
    name="Q1",
    kind="selector",
    table={
        "off": (),
        "high": (("L", "H"), ("N", "A")),
        "medium": (("L", "M"), ("N", "A")),
        "low": (("L", "S"), ("N", "A")),
    },
)
CROSSING = Device(
    name="Q2",
    kind="reversing-switch",
    table={"forward": (("1", "3"), ("2", "4")), "reverse": (("1", "4"), ("2", "3"))},
)
DRUM = Device(
    name="Q2",
    kind="reversing-switch",
    table={
        "forward": (("L1", "1"), ("2", "3"), ("4", "N")),
        "off": (),
        "reverse": (("L1", "1"), ("2", "4"), ("3", "N")),
    },
)
THROW = Device(
    name="Q2", kind="reversing-switch", table={"left": (("L", "A"),), "right": (("L", "B"),)}
)
TURN = Device(
    name="Q2",
    kind="reversing-switch",
    table={"0": (), "1": POLES, "2": (("1", "4"), ("3", "2"), ("5", "6"))},
)


def contactor(number: int, *states: str) -> Device:
    """Return a contactor of three poles that is in in these states."""
    return Device(name=f"K{number}", kind="contactor", table=dict.fromkeys(states, POLES))


LINE = Device(name="K1", kind="contactor", ends=("1", "2", "3", "4", "5", "6"))
STAR_DELTA = (contactor(1, "star", "delta"), contactor(2, "delta"), contactor(3, "star"))
HALVES = (contactor(1, "first-half", "run"), contactor(2, "run"))
TWO_SPEEDS = (contactor(1, "speed-1"), contactor(2, "speed-2"))
HIGH_STAR = (*TWO_SPEEDS, contactor(3, "speed-2"))
LOW_STAR = (*TWO_SPEEDS, contactor(3, "speed-1"))
BOTH_WAYS = (contactor(1, "forward"), contactor(2, "reverse"))

Usual = tuple[str, str, tuple[Device, ...]]
USUAL: dict[str, Usual] = {  # name → arrangement, variant, devices
    "centrifugal switch, split phase": (FOUR, "", (SWITCH,)),
    "centrifugal switch, start capacitor": (FOUR, "", (SWITCH, START)),
    "centrifugal switch, both capacitors": (FOUR, "", (SWITCH, START, RUN)),
    "current relay": (CRS, "", (CURRENT,)),
    "current relay, start capacitor, protector": (CRS, "", (CURRENT, START, TWO)),
    "current relay, both capacitors": (FOUR, "", (CURRENT, START, RUN)),
    "current relay with posts, split phase": (FOUR, "", (POSTED,)),
    "current relay with posts, both capacitors": (FOUR, "", (POSTED, START, RUN)),
    "hot wire": (CRS, "", (HOT_WIRE,)),
    "hot wire, start capacitor": (FOUR, "", (HOT_WIRE, START)),
    "thermistor": (CRS, "", (PTC,)),
    "thermistor, run capacitor": (CRS, "", (PTC, RUN)),
    "thermistor, both capacitors": (CRS, "", (PTC, START, RUN, TWO)),
    "voltage relay, start capacitor": (FOUR, "", (VOLTAGE, START)),
    "voltage relay, both, bleed, protector": (CRS, "", (VOLTAGE, START, RUN, BLEED, TWO)),
    "voltage relay, three-terminal protector": (FOUR, "", (VOLTAGE, START, RUN, THREE)),
    "electronic switch": (FOUR, "", (ELECTRONIC, START)),
    "electronic switch that senses": (FOUR, "", (SENSING_SWITCH, START)),
    "electronic switch, both capacitors": (FOUR, "", (ELECTRONIC, START, RUN)),
    "run capacitor, line switch": (CRS, "", (RUN, LINE_SWITCH)),
    "dual can": (CRS, "", (DUAL_CAN,)),
    "three speeds": (TAPS, "", (RUN, SELECTOR)),
    "three speeds, taps in the main": (TAPS, "in-main", (RUN, TWO_POLE_SELECTOR, TWO)),
    "three speeds, both lines": (TAPS, "", (RUN, TWO_POLE_SELECTOR)),
    "reversing, split phase": (FOUR, "", (SWITCH, CROSSING)),
    "reversing, start capacitor, line switch": (FOUR, "", (SWITCH, START, CROSSING, LINE_SWITCH)),
    "reversing drum with a pole for the line": (FOUR, "", (SWITCH, START, DRUM)),
    "reversing, run capacitor": (CRS, "", (RUN, THROW)),
    "dual voltage, six leads": (DUAL6, "", (SWITCH, START, THREE)),
    "dual voltage, eight leads": (DUAL8, "", (SWITCH, START)),
    "dual voltage, voltage relay": (DUAL6, "", (VOLTAGE, START, RUN)),
    "universal, reversing": ("universal-4-lead", "", (CROSSING,)),
    "contactor": (SIX, "", (LINE,)),
    "both ways, contactors": (NINE, "", BOTH_WAYS),
    "both ways, switch": (SIX, "", (TURN,)),
    "star and delta": (SIX, "", STAR_DELTA),
    "star and delta, twelve": (TWELVE, "", STAR_DELTA),
    "part winding, nine": (NINE, "", HALVES),
    "part winding, two stars": (STARS, "", HALVES),
    "two speeds, one winding": (POLES_CHANGED, "", HIGH_STAR),
    "two speeds, one winding, constant power": (POLES_CHANGED, "constant-power", LOW_STAR),
    "two speeds, two windings": (STARS, "two-windings", TWO_SPEEDS),
}
