"""Start gear: capacitors and devices as they are looked at, measured and renewed; causes told apart."""

from careful_coil.core.choices import choice
from careful_coil.core.sheets.field import Field, Sheet
from careful_coil.core.units import Quantity

_REPLACE = "replace it, whatever it measures"
LARGEST_MM = 500.0
MOST_LEFT = 5.0  # V DC: what counts as discharged

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
            name="marking",
            label="What is printed on it",
            hint="88-108 µF 250 V",
            special="marking",
            asked="what is printed on it",
            ask="print",
        ),
        Field(
            name="serves",
            label="Start or run",
            hint="start",
            asked="what it serves",
            choices=(choice("start", also="starting"), choice("run", also="running/permanent")),
        ),
        Field(
            name="looks",
            label="Looks",
            hint="sound",
            choices=(
                choice("sound", "good", "", "good/ok/fine/whole/clean"),
                choice("bulged", "hold", f"bulged: {_REPLACE}", "bulging/swollen/blown up/round"),
                choice("vented", "hold", f"its vent disc is open: {_REPLACE}", "burst/vent open"),
                choice(
                    "leaking",
                    "hold",
                    "it leaks: replace it, gloves on; old oil-filled cans may hold PCB",
                    "leaks/oily/leaked/wet",
                ),
                choice(
                    "heat-marked",
                    "hold",
                    "heat marks at a terminal: a loose joint cooked it; replace it, mend the terminal",
                    "heat marked/burnt/scorched/cooked/burnt terminal",
                ),
            ),
        ),
        Field(
            name="microfarad",
            label="Measured µF, or V A Hz",
            hint="95, or 230 1.5 50",
            special="microfarad",
            asked="microfarad",
            ask="microfarad",
            unit="µF",
        ),
        Field(
            name="loss",
            label="ESR, or tan δ in % (“D” on some meters)",
            hint="0.8 Ω, or 4 %",
            special="loss",
        ),
        Field(name="size", label="Can size, mm", hint="37 x 70", special="can-size", ask="size"),
        Field(
            name="bleed",
            label="Bleed resistor fitted",
            hint="15 k",
            quantity=Quantity.RESISTANCE,
            least=0.001,
            wanted="the ohms of the bleed resistor fitted, such as 15 k",
        ),
        Field(
            name="drained",
            label="V DC left on it",
            hint="0.3",
            quantity=Quantity.VOLTAGE,
            special="drained",
            asked="volts left",
            ask="volt",
            unit="V",
        ),
        Field(
            name="renewed",
            comes_to="renewed",
            asked="renewed by",
            label="Renewed by",
            hint="AB",
            longest=60,
            ask="work",
            deed="capacitor",
            deed_words="{of} renewed",
        ),
        Field(name="gone", label="Not there", prints=None),
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
            name="actuator",
            label="Mechanism on the shaft: weights, springs, collar?",
            prints="mechanism {}",
            hint="free",
            choices=(
                choice(
                    "free",
                    "good",
                    "weights, springs and collar move freely and go over with a snap",
                    "good/ok/moves/works/snaps",
                ),
                choice(
                    "dirty",
                    "watch",
                    "clean it, a drop of oil at the pivots only, work it again",
                    "sooty/greasy/dusty",
                ),
                choice(
                    "sticks",
                    "hold",
                    "it does not go over or come back: free it or renew it",
                    "stuck/stiff/jammed/hangs",
                ),
                choice(
                    "weak spring",
                    "hold",
                    "it opens too early or chatters: springs in pairs, of the same kind",
                    "weak/spring broken/broken spring/chatters",
                ),
                choice(
                    "worn",
                    "hold",
                    "collar or weights are worn: the plate is not reached, or only now and then",
                    "worn out/collar worn",
                ),
            ),
        ),
        Field(
            name="plate",
            label="Contact plate: how do the contacts meet?",
            prints="contact plate {}",
            hint="even",
            choices=(
                choice("even", "good", "contacts meet flat", "evenly worn/good/ok/flat/clean"),
                choice("pitted", "good", "evenly pitted is normal", "a little pitted"),
                choice(
                    "edge",
                    "watch",
                    "contacts meet on the edge only: bend the spring leaf, or renew the plate",
                    "meets on the edge/on the edge/crooked",
                ),
                choice(
                    "burnt",
                    "watch",
                    "dress them with a fine file or renew the plate, then read it again",
                    "burned/black/sooted",
                ),
                choice(
                    "welded",
                    "hold",
                    "welded: the start winding stayed in; renew the plate, look at the winding",
                    "stuck together/fused/closed for good",
                ),
            ),
        ),
        Field(
            name="out",
            label="Opens at, rpm or s",
            prints="opens at {}",
            hint="1150 rpm",
            special="opens-at",
        ),
        Field(
            name="back",
            label="Recloses at, rpm",
            prints="recloses at {}",
            hint="700 rpm",
            special="recloses-at",
        ),
        Field(
            name="table",
            label="Its positions and their contacts",
            prints="positions {}",
            hint="0: off; 1: L-H; 2: L-M",
            special="positions",
            asked="positions and their contacts",
            ask="print",
        ),
        Field(
            name="stand-in",
            label="One offered in its place",
            hint="off: ; slow: C-1; fast: C-2",
            special="positions",
        ),
        Field(name="volts", label="Start winding's volts", hint="210 280", prints=None),
        Field(
            name="renewed",
            comes_to="renewed",
            asked="renewed by",
            label="Renewed by",
            hint="AB",
            longest=60,
            ask="work",
            deed="device",
            deed_words="{of} renewed",
        ),
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
    fields=(Field(name="cause", label="Cause", hint="start-capacitor", ask="cause"),),
)
SHEETS = (CAPACITOR, DEVICE, TESTS, CAUSE)
