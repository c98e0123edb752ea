"""Start gear: capacitors and devices as they are looked at, measured and renewed; causes told apart."""

from careful_coil.core.choices import YES_NO, table
from careful_coil.core.sheets.field import Field, Sheet
from careful_coil.core.units import Quantity

_REPLACE = "replace it, whatever it measures"
LARGEST_MM = 500.0
MOST_LEFT = 5.0  # V DC: what counts as discharged


def _renewed(deed: str) -> Field:
    return Field(
        "renewed",
        "Renewed by",
        "AB",
        comes_to="renewed",
        asked="renewed by",
        longest=60,
        ask="work",
        deed=deed,
        deed_words="{of} renewed",
    )


CAPACITOR = Sheet(
    name="capacitor",
    title="Capacitors",
    station="start-gear",
    example="C1",
    prefix="can-",
    part="capacitor:{0}",
    proves="capacitor",
    bad=True,
    renews=("serves",),
    fields=(
        Field(
            "marking",
            "What is printed on it",
            "88-108 µF 250 V",
            special="marking",
            asked="what is printed on it",
            ask="print",
        ),
        Field(
            "serves",
            "Start or run",
            "start",
            asked="what it serves",
            choices=table(
                """
    start = starting
    run = running, permanent
    """
            ),
        ),
        Field(
            "looks",
            "Looks",
            "sound",
            choices=table(
                """
    sound | good = good, ok, fine, whole, clean
    bulged | hold | bulged: {REPLACE} = bulging, swollen, blown up, round
    vented | hold | its vent disc is open: {REPLACE} = burst, vent open
    leaking | hold | it leaks: replace it, gloves on; old oil-filled cans may hold PCB
     = leaks, oily, leaked, wet
    heat-marked | hold | heat marks at a terminal: a loose joint cooked it; replace it, mend the terminal
     = heat marked, burnt, scorched, cooked, burnt terminal
    """,
                REPLACE=_REPLACE,
            ),
        ),
        Field(
            "microfarad",
            "Measured µF, or V A Hz",
            "95, or 230 1.5 50",
            special="microfarad",
            asked="microfarad",
            ask="microfarad",
            unit="µF",
        ),
        Field("loss", "ESR, or tan δ in % (“D” on some meters)", "0.8 Ω, or 4 %", special="loss"),
        Field("size", "Can size, mm", "37 x 70", special="can-size", ask="size"),
        Field(
            "bleed",
            "Bleed resistor fitted",
            "15 k",
            quantity=Quantity.RESISTANCE,
            least=0.001,
            wanted="the ohms of the bleed resistor fitted, such as 15 k",
        ),
        Field(
            "drained",
            "V DC left on it",
            "0.3",
            quantity=Quantity.VOLTAGE,
            special="drained",
            asked="volts left",
            ask="volt",
            unit="V",
        ),
        _renewed("capacitor"),
        Field("gone", "Not there", prints=None),
    ),
)

DEVICE = Sheet(
    name="device-noted",
    title="Devices",
    station="start-gear",
    example="S1",
    prefix="device-",
    part="device:{0}",
    bad=True,
    renews=("table",),
    fields=(
        Field(
            "actuator",
            "Mechanism on the shaft: weights, springs, collar?",
            "free",
            prints="mechanism {}",
            choices=table(
                """
    free | good | weights, springs and collar move freely and go over with a snap
     = good, ok, moves, works, snaps
    dirty | watch | clean it, a drop of oil at the pivots only, work it again = sooty, greasy, dusty
    sticks | hold | it does not go over or come back: free it or renew it
     = stuck, stiff, jammed, hangs
    weak spring | hold | it opens too early or chatters: springs in pairs, of the same kind
     = weak, spring broken, broken spring, chatters
    worn | hold | collar or weights are worn: the plate is not reached, or only now and then
     = worn out, collar worn
    """
            ),
        ),
        Field(
            "plate",
            "Contact plate: how do the contacts meet?",
            "even",
            prints="contact plate {}",
            choices=table(
                """
    even | good | contacts meet flat = evenly worn, good, ok, flat, clean
    pitted | good | evenly pitted is normal = a little pitted
    edge | watch | contacts meet on the edge only: bend the spring leaf, or renew the plate
     = meets on the edge, on the edge, crooked
    burnt | watch | dress them with a fine file or renew the plate, then read it again
     = burned, black, sooted
    welded | hold | welded: the start winding stayed in; renew the plate, look at the winding
     = stuck together, fused, closed for good
    """
            ),
        ),
        Field(
            "across",
            "Anything across it: a jumper, a link?",
            "nothing",
            prints="across it {}",
            choices=table(
                """
    nothing | good | nothing lies across it = none, no, clear, ok, good
    bridged | hold | bridged: it cannot part anything; take the jumper off, renew it
     = jumper, jumpered, link, wire, yes, bypassed
    """
            ),
        ),
        Field("out", "Opens at, rpm or s", "1150 rpm", prints="opens at {}", special="opens-at"),
        Field(
            "back", "Recloses at, rpm", "700 rpm", prints="recloses at {}", special="recloses-at"
        ),
        Field(
            "table",
            "Its positions and their contacts",
            "0: off; 1: L-H; 2: L-M",
            prints="positions {}",
            special="positions",
            asked="positions and their contacts",
            ask="print",
        ),
        Field(
            "stand-in",
            "One offered in its place",
            "off: ; slow: C-1; fast: C-2",
            special="positions",
        ),
        Field("make", "Make and type, as printed", "as on its case", ask="print"),
        Field(
            "sensing",
            "Leads of its own across the start winding?",
            "yes",
            prints="sensing leads: {}",
            choices=YES_NO,
        ),
        Field(
            "posts",
            "Its terminals",
            "L M S",
            prints="terminals {}",
            choices=table(
                """
    L M S | good | coil L to M, contact L to S = lms, three, 3, L S M, M L S, M S L, S L M, S M L
    1 2 M 3 | good | coil 1 to M, contact 1 to 2; a link or the capacitor between 2 and 3
     = 12m3, four, 4, 1 M 2 3, 1 2 3 M, M 1 2 3
    """
            ),
        ),
        Field("volts", "Start winding's volts", "210 280", prints=None),
        Field("amps", "Main winding's amps", "28 7", prints=None),
        _renewed("device"),
    ),
)
TESTS = Sheet(
    name="cause-tested",
    title="Tests that tell the causes apart",
    station="start-gear",
    free=True,
    part="complaint",
)
CAUSE = Sheet(
    name="cause-found",
    title="Cause",
    station="start-gear",
    part="complaint",
    proves="cause",
    fields=(Field("cause", "Cause", "start-capacitor", ask="cause"),),
)
SHEETS = (CAPACITOR, DEVICE, TESTS, CAUSE)
