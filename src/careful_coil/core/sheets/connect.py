"""Connect and Release: what is wanted of the hookup, the site's own list."""

from careful_coil.core.choices import choice, words
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
            name="rotation",
            label="Turns",
            hint="cw or ccw",
            ask="direction",
            part="direction",
            choices=(
                choice("cw", also="clockwise/forward"),
                choice("ccw", also="counterclockwise/anticlockwise/acw/reverse"),
            ),
        ),
        Field(
            name="seen-from",
            label="Seen from",
            hint="drive-end",
            ask="direction",
            part="direction",
            choices=(
                choice("drive-end", also="drive end/de/shaft end/shaft/load end"),
                choice(
                    "opposite",
                    also="opposite drive end/ode/nde/non-drive end/non drive end/fan end/rear",
                ),
            ),
        ),
        Field(
            name="start",
            label="Start",
            hint="direct",
            special="wish",
            ask="word",
            choices=(
                choice("direct", also="dol/across the line"),
                choice("wye-delta", also="star-delta/star delta/wye delta/y-d"),
                choice("part-winding", also="part winding"),
            ),
        ),
        Field(
            name="speed",
            label="Speed",
            hint="high",
            special="wish",
            ask="word",
            choices=words("high", "medium", "low", "tap-1", "tap-2", "tap-3"),
        ),
        Field(
            name="family",
            label="Internal connection",
            hint="wye or delta",
            special="wish",
            ask="word",
            choices=(choice("wye", also="star/y"), choice("delta", also="mesh/d")),
        ),
        Field(name="exchanged", label="Two lines exchanged", special="wish", prints=None),
        Field(
            name="terminals",
            label="Terminals",
            hint="splices or board",
            choices=(
                choice("splices", also="splice/wires/leads"),
                choice("board", also="terminal board/posts/block"),
            ),
        ),
        Field(
            name="cable-mm2",
            label="Supply cable, mm²",
            hint="2.5",
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
        Field(name="phase-order", label="Phase sequence", hint="L1 L2 L3", longest=400),
        Field(name="amps", label="Amps", hint="6.0/6.1/6.0", longest=400),
        Field(name="volts", label="Volts", hint="398/400/401", longest=400),
        Field(name="hour", label="After an hour", hint="6.0 A, frame 58 °C", longest=400),
    ),
)
SHEETS = (WISH, SITE)
