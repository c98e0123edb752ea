"""Mechanics: the bearing at each end, brushes."""

from careful_coil.core.choices import table
from careful_coil.core.sheets.field import FIGURE, Field, Sheet
from careful_coil.core.sheets.mechanics import length_mm

HANDS_ON = ("renewed", "oiled", "greased", "repacked")

BEARING = Sheet(
    name="bearing",
    title="Bearings",
    station="mechanics",
    of=("drive", "other"),
    prefix="bearing-",
    part="bearing:{0}",
    proves="bearings",
    bad=True,
    fields=(
        Field(
            "sort",
            "What is it?",
            prints="{} bearing",
            choices=table(
                """
    ball = ball bearing, roller
    sleeve = sleeve bearing, bush, plain, bushing
    """
            ),
        ),
        Field(
            "number",
            "Number as read, ? worn",
            "62?3 ZZ",
            prints="number {}",
            special="bearing-number",
            asked="number as read",
            ask="print",
        ),
        length_mm("bore", "Bore", "17"),
        length_mm("outside", "Outside", "40"),
        length_mm("width", "Width", "12"),
        Field(
            "state",
            "How it runs",
            "rough",
            prints="runs {}",
            asked="it runs",
            ask="feel",
            choices=table(
                """
    good | good = ok, fine, quiet, smooth, runs well, sound
    rough | hold | pitted or worn = gritty, notchy, worn, grinding, pitted
    dry | hold | its grease or oil is gone = no grease, no oil
    noisy | hold | worn, or marked by current or by standing still = rattles, whines, rumbles, loud
    loose | hold | a ring turns in its seat = slack, play, sloppy
    seized | hold | it stands = stuck, solid, locked
    """
            ),
        ),
        Field(
            "seat",
            "Its seat",
            "tight",
            prints="seat {}",
            choices=table(
                """
    tight | note = good, ok, firm, fast
    turns in the bell | watch | The seat in the bell is worn: sleeve it, or renew the bell.
     = loose in the bell, loose in the shield, turns in the shield, loose in housing
    turns on the shaft | watch | The seat on the shaft is worn: build it up, or renew the shaft.
     = loose on the shaft, loose on shaft, spins on the shaft
    blind | note | Blind housing: a puller inside, or packing; no hole drilled without a line among the changes.
     = blind housing
    """
            ),
        ),
        Field(
            "done",
            "Done",
            "renewed",
            comes_to="renewed",
            ask="work",
            deed="bearing",
            deed_on=HANDS_ON,
            deed_words="bearing, {of} end: {text}",
            choices=table(
                """
    renewed = new, replaced, changed
    oiled = oil
    greased = grease, regreased, repacked
    kept = left, nothing, as it was
    """
            ),
        ),
        Field(
            "fitted",
            "Fitted new",
            "6203-2RS C3",
            prints="new: {}",
            special="bearing-number",
            asked="number as read",
            ask="print",
            deed="bearing",
            deed_words="bearing, {of} end: {text}",
        ),
        Field("oil", "Oil", "ISO VG 32, non-detergent", special="oil"),
        Field(
            "wick",
            "Wick",
            "soaks",
            comes_to="soaks",
            choices=table(
                """
    soaks | good = good, ok, wet, soaked, oily
    dry | hold | wet it with oil until it soaks = hard, gummed
    gone | hold | fit a wick = missing
    no wick | good = sintered, none, oilless, bush soaked in oil
    """
            ),
        ),
        Field(
            "ports",
            "Oil ports found of those there",
            "2 of 2",
            prints="oil ports {}",
            special="ports",
            wanted="oil ports found of those there are, such as 2 of 2",
        ),
    ),
)

BRUSH = Sheet(
    name="brush",
    title="Brushes",
    station="mechanics",
    example="B1",
    prefix="brush-",
    part="brush:{0}",
    proves="",
    bad=True,
    fields=(
        length_mm("length", "Length", "13.5", "length, mm"),
        length_mm("least", "Least length", "7"),
        Field(
            "earlier",
            "Earlier, and its day",
            "16 2025-09-01",
            special="earlier-length",
            shape=rf"{FIGURE} \d{{4}}-\d\d-\d\d",
            wanted="a length and its day, such as 14.5 mm 2025-11-02",
        ),
        Field(
            "spring",
            "Spring",
            "even",
            choices=table(
                """
    even | good = good, ok, fine, firm, strong
    weak | watch | it sparks and wears the bars: renew the spring = soft
    broken | watch | renew the spring = snapped, missing, gone
    """
            ),
        ),
        Field(
            "seating",
            "Seating",
            "bedded",
            choices=table(
                """
    bedded | good = good, ok, even, fine, full
    not bedded | watch | bed it in: fine cloth round the commutator, then low volts
     = new, edge, half
    sticks | watch | clean the holder until it falls freely = stuck, tight
    chipped | watch | renew both; feel the commutator for a high bar = broken, cracked
    """
            ),
        ),
        Field(
            "spark",
            "Sparks",
            "light",
            choices=table(
                """
    none | good = no, no sparks
    light | good | fine points under the edge are usual = fine, few, little
    even | watch | even along the edge: neutral, spring, grade or load = along the edge
    heavy | hold | short brush, weak spring, high bar or a fault in the armature
     = strong, bad, lots, much
    ring | hold | fire round the commutator: stop it; read bar to bar and bars to shaft
     = ring of fire, fire, all round
    """
            ),
        ),
        Field(
            "done",
            "Done",
            "renewed",
            comes_to="renewed",
            ask="work",
            choices=table(
                """
    renewed = new, replaced, changed
    """
            ),
            deed="shaft",
            deed_on=HANDS_ON,
            deed_words="brush {of} renewed",
        ),
    ),
)

SHEETS = (BEARING, BRUSH)
