"""Insulation: how the winding is made, as far as limits hang on it."""

from careful_coil.core.choices import table, words
from careful_coil.core.sheets.field import Field, Sheet
from careful_coil.core.units import Quantity

MADE = Sheet(
    name="winding-made",
    title="How it is made",
    station="insulation",
    prefix="made-",
    part="winding",
    fields=(
        Field(
            "construction",
            "Construction",
            "random",
            choices=table(
                """
    random = random wound, mush, wire
    form = form wound, formed, bars
    old = before 1970
    armature = dc, rotor
    """
            ),
        ),
        Field("class", "Insulation class", "F", choices=words(*"AEBFH")),
        Field(
            "material",
            "Varnish",
            "thermosetting",
            choices=table(
                """
    thermosetting = resin, epoxy, polyester
    thermoplastic = asphalt, bitumen, shellac
    """
            ),
        ),
        Field(
            "metal",
            "Wire",
            "copper",
            choices=table(
                """
    copper = cu
    aluminium = aluminum, al, alu
    """
            ),
        ),
        Field(
            "design-ohm",
            "Design ohms of a coil at 20 °C",
            "2.60",
            quantity=Quantity.RESISTANCE,
            least=1e-6,
            most=1e7,
            wanted="ohms in figures, for example 2.60",
        ),
        Field(
            "wound",
            "Wound by, and what was tested before varnish",
            "here; core 6 W/kg before and after, polarity, surge test, baked",
            asked="who wound it, and what was tested before varnish; nothing where nothing was",
            longest=400,
            ask="word",
        ),
    ),
)
EARTH = Sheet(
    name="earth",
    title="Earth bond",
    station="insulation",
    prefix="earth-",
    part="earth",
    fields=(
        Field(
            "done",
            "What was done to the earth",
            "cleaned",
            asked="what was done",
            comes_to="earthed",
            ask="work",
            deed="earth",
            deed_words="earth {text}",
            choices=table(
                """
    cleaned = to bare metal, scraped, tightened, made good, earthed, done
    lead renewed = renewed, new lead, new earth lead
    stud renewed = new stud, tapped again
    """
            ),
        ),
        Field(
            "leakage",
            "Appliance test: current in the earth conductor; class II, touch current, mA",
            "0.4",
            quantity=Quantity.CURRENT,
            unit="mA",
            most=1e3,
            wanted="milliamps in figures, such as 0.4",
            asked="milliamps",
            ask="amp",
        ),
    ),
)
SHEETS = (MADE, EARTH)
