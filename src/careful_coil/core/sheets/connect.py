"""Connect and Release: what is wanted of the hookup, the site's own list."""

from careful_coil.core.choices import table, words
from careful_coil.core.sheets.field import Field, Sheet
from careful_coil.core.units import Quantity

WISH = Sheet(
    name="wished",
    title="Wanted",
    station="connect",
    prefix="wish-",
    part="wish",
    fields=(
        Field(
            "rotation",
            "Turns",
            "cw or ccw",
            ask="direction",
            part="direction",
            choices=table(
                """
    cw = clockwise, forward
    ccw = counterclockwise, anticlockwise, acw, reverse
    """
            ),
        ),
        Field(
            "seen-from",
            "Seen from",
            "drive-end",
            ask="direction",
            part="direction",
            choices=table(
                """
    drive-end = drive end, de, shaft end, shaft, load end
    opposite = opposite drive end, ode, nde, non-drive end, non drive end, fan end, rear
    """
            ),
        ),
        Field(
            "start",
            "Start",
            "direct",
            special="wish",
            ask="word",
            choices=table(
                """
    direct = dol, across the line
    wye-delta = star-delta, star delta, wye delta, y-d
    part-winding = part winding
    """
            ),
        ),
        Field(
            "speed",
            "Speed",
            "high",
            special="wish",
            ask="word",
            choices=words("high", "medium", "low", "tap-1", "tap-2", "tap-3"),
        ),
        Field(
            "family",
            "Internal connection",
            "wye or delta",
            special="wish",
            ask="word",
            choices=table(
                """
    wye = star, y
    delta = mesh, d
    """
            ),
        ),
        Field("exchanged", "Two lines exchanged", special="wish", prints=None),
        Field(
            "terminals",
            "Terminals",
            "splices or board",
            choices=table(
                """
    splices = splice, wires, leads
    board = terminal board, posts, block
    """
            ),
        ),
        Field(
            "cable-mm2",
            "Supply cable, mm²",
            "2.5",
            quantity=Quantity.AREA,
            least=0.05,
            most=2000,
            wanted="the cable's mm², such as 2.5",
        ),
    ),
)
SITE = Sheet(
    name="site-checked",
    title="The site's own list",
    station="release",
    part="site",
    fields=(
        Field("phase-order", "Phase sequence", "L1 L2 L3", longest=400),
        Field("amps", "Amps", "6.0/6.1/6.0", longest=400),
        Field("volts", "Volts", "398/400/401", longest=400),
        Field("start", "From rest", "out 0.3", longest=400),
        Field("ran", "On its load", "30 min 6.0/6.1/6.0 smooth", longest=400),
        Field("hour", "After an hour", "6.0 A, frame 58 °C", longest=400),
    ),
)
SHEETS = (WISH, SITE)
